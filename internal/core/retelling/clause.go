package retelling

import (
	"math"
	"slices"

	"verjuice/internal/core/field"
)

// clause is what stands between two marks or conjunctions.
type clause struct {
	from, to int // tokens
	verbs    []found
	times    []moment
	temps    []heatOf
	wrap     string
	rest     string
	place    string
	which    string
	pit      bool // it is about the pit
	spoken   bool // was, ran, read: the pit is described, not changed
	denied   bool
	weights  []weighed
	unknown  []int // tokens
	content  bool  // it has a word that is more than a filler
	liquid   bool
	burns    string  // wood or fuel
	maybe    string  // a place, where a temperature is told
	count    int     // twice
	slack    float64 // give or take so long, h
	timed    int     // token of its first time
	moved    bool    // it has a verb that names no act: went, dropped
	cores    bool    // it says that a temperature is the core's
	around   bool    // it is about the weather, or those around
}

type found struct {
	verb
	at, end int // tokens
}

type weighed struct {
	kg float64
	at int
}

// placed are places in a piece.
var placed = words(`flat point thigh breast middle centre center thickest thick thin core shoulder loin ham`)

var whichWords = map[string]string{
	"first": "first", "second": "second", "third": "third", "other": "other", "last": "last", "both": "both", "all": "all",
}

// separates reports whether a token parts two clauses.
func (r reader) separates(i int) bool {
	switch r.text(i) {
	case "but": // everywhere but the flat is one thing
		return !oneOf(r.text(i-1), "everywhere", "anywhere", "all", "everything", "nothing")
	case ",", "and", "&", "then", "so", "(", ")", "–", "—", "-", "+", "/", "while", "when",
		"once", "until":
		return true
	case "before", "after": // but the night before
		return i+1 < len(r.all) && !ends(r.all[i+1])
	}
	return false
}

// clauses reads the clauses of a sentence, and makes drafts of their acts.
func (t *teller) clauses(from, to int) {
	var all []clause
	c := clause{from: from}
	end := func(i int) {
		if c.to = i; c.to > c.from {
			all = append(all, c)
		}
	}
	for i := from; i < to; {
		if next, ok := t.item(&c, i, to); ok {
			i = next
			continue
		}
		if t.separates(i) {
			end(i)
			i++
			c = clause{from: i}
			continue
		}
		if n := t.reason(i, to); n > i {
			end(i)
			t.note(i, n)
			i = n
			c = clause{from: i}
			continue
		}
		w := t.reader.text(i)
		if w == "without" && len(c.verbs) > 0 { // wrapped at five without a spritz: the wrap was done
			end(i)
			c = clause{from: i, denied: true}
			i++
			continue
		}
		t.word(&c, i)
		i++
	}
	end(to)
	t.draft(all)
}

// word takes one word of a clause that begins nothing longer.
func (t *teller) word(c *clause, i int) {
	w := t.reader.text(i)
	switch {
	case w == "but":
		c.unknown = append(c.unknown, i)
	case w == "opened" && !c.denied: // the pit, or the wrap?
		c.unknown = append(c.unknown, i)
		c.content = true
	case t.unplaced(i):
		c.unknown = append(c.unknown, i)
		c.content = true
	case t.all[i].kind != word:
		if !oneOf(w, "'", "\"", "~", "°", "“", "”", ":") {
			c.unknown = append(c.unknown, i)
		}
	case denial[w]:
		c.denied = true
	case fillers[w]:
		c.spoken = c.spoken || oneOf(w, "was", "were", "kept", "ran", "stayed")
		c.moved = c.moved || oneOf(w, "went", "started", "began", "starting", "up", "down")
	case meats()[w], verbWords()[w] && plain[w].what == "":
		c.moved = c.moved || verbWords()[w] && !meats()[w]
		if c.content = true; placed[w] && !oneOf(w, "ham", "shoulder", "loin", "core") {
			c.maybe = w
		}
	case around[w]:
		c.content, c.around = true, true
	case larderWords()[w], woods[w], fuels[w]:
		c.content, c.liquid = true, true
		if fuels[w] {
			c.burns = "fuel"
		} else if oneOf(w, "wood", "chunk", "log", "logs", "split", "splits") {
			c.burns = "wood"
		}
	default:
		c.unknown = append(c.unknown, i)
		c.content = true
	}
}

// reason is where a reason ends that begins at token i, why something was done or how it was meant: a remark. It is i
// where none begins.
func (t *teller) reason(i, to int) int {
	switch w := t.reader.text(i); {
	case oneOf(w, "because", "although", "though", "despite", "unless", "whereas", "hoping", "thinking"):
	case oneOf(w, "since", "as") && t.tells(i+1):
	case w == "to" && purposes[t.reader.text(i+1)]: // to firm up the bark
	default:
		return i
	}
	why := t.reader.text(i) != "to"
	for i < to && t.reader.text(i) != "," {
		if _, n, ok := t.time(i); ok && !why && n <= to {
			break // kicked it up to finish at eight hours
		}
		i++
	}
	return i
}

// purposes are what something is done for.
var purposes = words(`firm set crisp crispen look check dry colour color render tighten melt soften help keep make see test
	finish let stop avoid save give`)

// tells reports whether somebody or something does or is something from token i on: it was windy, the pit had dropped.
func (t *teller) tells(i int) bool {
	if oneOf(t.reader.text(i), "the", "my", "our") {
		i++
	}
	for i++; oneOf(t.reader.text(i), "just", "already", "still", "then"); i++ {
	}
	return words(`i we it they pit fire smoker wind bark weather guests`)[t.reader.text(i-1)] &&
		oneOf(t.reader.text(i), "was", "were", "had", "has", "is", "looked", "ran", "wanted", "felt", "needed", "thought")
}

// unplaced reports whether a length of time begins at token i that is told in words alone and is no time of an act: an
// hour before they left.
func (t *teller) unplaced(i int) bool {
	_, n, ok := t.lasting(i)
	return ok && n > i && t.at(i).kind == word
}

// item reads what begins at token i of a clause.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (t *teller) item(c *clause, i, to int) (next int, ok bool) {
	if n := t.giveOrTake(i); n > i {
		if v, n, ok := t.lasting(n); ok && n <= to {
			c.slack = v.mid()
			return n, true
		}
	}
	if m, n, ok := t.between(i); ok && n <= to {
		if len(c.times) == 0 {
			c.timed = i
		}
		c.times = append(c.times, m)
		return n, true
	}
	// A time may begin with a word that also parts clauses: after four hours, until the wrap.
	if times, n, ok := t.time(i); ok && n <= to {
		if len(c.times) == 0 {
			c.timed = i
		}
		c.times = append(c.times, times...)
		return n, true
	}
	if m, n, ok := t.byAct(i); ok && n <= to {
		c.times = append(c.times, m)
		return n, true
	}
	if v, n, ok := t.verb(i); ok && n <= to {
		c.verbs = append(c.verbs, found{v, i, n})
		return n, true
	}
	if v, n, ok := t.amount(i); ok && t.at(i).kind == number {
		if kg := massOf(t.reader.text(n)); kg > 0 {
			c.weights = append(c.weights, weighed{v.mid() * kg, i})
			return n + 1, true
		}
	}
	if h, n, ok := t.temperature(i); ok && n <= to {
		if k := len(c.verbs); k > 0 && c.verbs[k-1].what == "turn" && math.Mod(h.low, 45) == 0 && h.scale == "" &&
			oneOf(t.reader.text(n-1), "degrees", "°", "deg") { // turned by half a turn
			c.content = true
			return n, true
		}
		if c.temps = append(c.temps, h); t.reader.text(i-1) == "from" && h.low < h.high { // from 60 to 70 is no range
			c.temps = append(c.temps, heatOf{span{h.high, h.high}, h.scale})
		}
		for oneOf(t.reader.text(n), "internal", "core") {
			c.cores = true
			n++
		}
		return n, true
	}
	w := t.reader.text(i)
	if oneOf(w, "internal", "core") {
		c.cores = true
		return i + 1, true
	}
	if oneOf(t.reader.text(i), "in", "at") {
		j := i + 1
		if t.reader.text(j) == "the" {
			j++
		}
		if p := t.reader.text(j); placed[p] && !(oneOf(p, "ham", "shoulder", "loin")) || j > i+1 && placed[p] {
			n := j + 1
			if oneOf(t.reader.text(n), "end", "part", "place") {
				p += " " + t.reader.text(n)
				n++
			}
			c.place = p
			return n, true
		}
	}
	if i == c.from && t.at(i).text == "one" && verbWords()[t.reader.text(i+1)] || i == c.from && t.at(i).text == "one" &&
		oneOf(t.reader.text(i+1), "was", "came") {
		c.which = "first" // one came off at nine, the other at ten
		return i + 1, true
	}
	if which := whichWords[w]; which != "" {
		n := i + 1
		if k, ok := t.is(n, "of", "them"); ok {
			c.which = which
			return k, true
		}
		if t.reader.text(n) == "the" {
			n++
		}
		if t.at(n).kind == number && meats()[t.reader.text(n+1)] {
			n++
		}
		if x := t.reader.text(n); oneOf(x, "one", "ones") || meats()[x] || t.at(n).kind == number && t.at(n).value == 1 {
			c.which = which
			return n + 1, true
		}
		if which == "both" || which != "all" && t.reader.text(i-1) == "the" && t.reader.text(i+1) != "time" {
			c.which = which
			return i + 1, true
		}
		return i + 1, true
	}
	if w := t.reader.text(i + 1); t.at(i).kind == number && t.at(i).value < 20 && (meats()[w] || woods[w] || fuels[w] ||
		words(`layer layers sheet sheets times handful handfuls cups cup sprays`)[w]) { // three racks
		if c.content = true; w == "times" {
			c.count = int(t.at(i).value)
		}
		return i + 2, true
	}
	if id := wrapWords()[w]; id != "" {
		if id == "pan" && t.watered(i) {
			c.content = true
			return i + 1, true
		}
		if c.wrap == "" || c.wrap == "foil" && (id == "pan" || id == "boat") {
			c.wrap = id
		}
		if oneOf(w, "brown", "plain") {
			c.wrap = "brown-paper"
		}
		c.content = true
		return i + 1, true
	}
	if oneOf(w, "plain", "brown", "butcher") {
		if oneOf(t.reader.text(i+1), "paper", "brown", "butcher") {
			if w != "butcher" {
				c.wrap = "brown-paper"
			}
			return i + 1, true
		}
	}
	if place := restWords[w]; place != "" && w != "tray" && (w != "box" || c.rest == "") {
		if c.rest == "" || place != "counter" {
			c.rest = place
		}
		c.pit = c.pit || pits[w]
		c.content = true
		return i + 1, true
	}
	if pits[w] && !oneOf(w, "heat", "temp", "temperature") {
		c.pit, c.content = true, true
		return i + 1, true
	}
	switch w {
	case "twice":
		c.count = 2
		return i + 1, true
	case "box", "towels", "switched", "off":
		return i + 1, w != "off" || c.pit || t.pitSoon(i+1)
	case "heat", "temp", "temperature":
		c.pit = c.pit || w == "heat"
		return i + 1, true
	}
	return i, false
}

// giveOrTake steps over those words.
func (t *teller) giveOrTake(i int) int {
	for _, phrase := range [][]string{{"give", "or", "take"}, {"plus", "or", "minus"}, {"±"}} {
		if n, ok := t.is(i, phrase...); ok {
			return n
		}
	}
	return i
}

// byAct reads a time that is told by another act alone: after wrapping, once it was wrapped, when it came off.
func (t *teller) byAct(i int) (moment, int, bool) {
	w := t.reader.text(i)
	if !oneOf(w, "after", "before", "until", "till", "once", "when") {
		return moment{}, i, false
	}
	m := moment{relation: fromStart}
	list, n, _ := t.beside(m, i-0)
	if oneOf(w, "until", "till", "once", "when") {
		j := i + 1
		for k := t.reader.text(j); oneOf(k, "the", "it", "i", "we", "was", "they", "were", "had"); k = t.reader.text(j) {
			j++
		}
		if of := ofAct[t.reader.text(j)]; of != "" {
			return moment{relation: beside, of: of, until: oneOf(w, "until", "till")}, j + 1, true
		}
		return m, i, false
	}
	if len(list) == 1 && list[0].relation == beside && n > i {
		return list[0], n, true
	}
	return m, i, false
}

// draft is an act that is not in time yet.
type draft struct {
	found
	from, to int // tokens of its clause
	clause   clause
	at       []moment
	length   *span
	repeat   *span
	start    *moment // of a rhythm
	until    *moment
	next     *moment // the next day
	temp     *heatOf
	shares   int // draft whose time it shares; −1 none
	bad      bool
	twice    bool    // it has two times, or two temperatures
	slack    float64 // give or take so long, h
	bare     bool    // its time stands in its own clause
}

// draft makes drafts of the clauses of a sentence.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (t *teller) draft(all []clause) {
	first := len(t.drafts)
	var pending []clause
	for i := range all {
		c := all[i]
		if c.denied {
			// "did not wrap until five hours" is an act after all.
			if len(c.verbs) > 0 && slices.ContainsFunc(c.times, func(m moment) bool { return m.until }) {
				d := draft{found: c.verbs[0], from: c.from, to: c.to, clause: c, shares: -1}
				t.ask(&d, "tale.words")
				continue
			}
			t.note(c.from, c.to)
			continue
		}
		// stalled at 5 h, 68
		next := i+1 < len(all) && len(all[i+1].temps) > 0 && len(all[i+1].verbs) == 0
		timed := slices.ContainsFunc(all, func(o clause) bool { return len(o.times) > 0 && !o.denied })
		c.verbs = slices.DeleteFunc(c.verbs, func(v found) bool {
			remark := v.weak && len(c.times) == 0 && len(c.temps) == 0 && (v.what == "off" || !timed) ||
				v.what == "read" && len(c.temps) == 0 && !next
			c.content = c.content || remark
			return remark
		})
		c.verbs = slices.CompactFunc(c.verbs, func(a, b found) bool {
			return a.what == b.what && (a.kind == b.kind ||
				b.kind == "")
		})
		if len(c.verbs) > 0 && c.verbs[0].what == "wrap" && t.bacon(c) {
			t.note(c.from, c.to)
			continue
		}
		if c.pit && len(c.temps) > 0 && !slices.ContainsFunc(c.verbs, func(v found) bool { return v.what != "read" }) {
			if c.spoken || slices.ContainsFunc(c.verbs, func(v found) bool { return v.what == "read" }) {
				t.note(c.from, c.to)
				continue
			}
			c.verbs = []found{{verb{what: "set"}, c.from, c.from}}
		}
		if len(c.verbs) == 0 && c.wrap != "" && len(c.times) > 0 && !slices.ContainsFunc(t.drafts[first:], func(d draft) bool { return d.what == "wrap" }) &&
			!slices.ContainsFunc(all[i+1:], func(o clause) bool {
				return slices.ContainsFunc(o.verbs, func(v found) bool { return v.what == "wrap" })
			}) {
			c.verbs = []found{{verb{what: "wrap"}, c.from, c.from}}
		}
		if len(c.verbs) == 0 && len(c.times) > 0 && c.burns != "" {
			c.verbs = []found{{verb{what: c.burns}, c.from, c.from}}
		}
		for _, w := range c.weights {
			if len(c.weights) > 1 { // which of them is what?
				text, at := t.piece(c.from, c.to)
				t.told.Asks = append(t.told.Asks, Ask{Why: field.Because("tale.weight", "said", text), From: at})
				break
			}
			t.weigh(c, w)
		}
		if len(c.verbs) == 0 {
			t.loose(c, first, &pending, i+1 < len(all) && slices.ContainsFunc(all[i+1:],
				func(o clause) bool { return len(o.verbs) > 0 && !o.denied }))
			continue
		}
		if n := slices.IndexFunc(c.verbs, func(v found) bool { return v.what == "on" }); n >= 0 { // back on unwrapped
			c.verbs = slices.DeleteFunc(c.verbs, func(v found) bool {
				if v.what == "unwrap" && v.kind == "" && v.at > c.verbs[n].at {
					c.verbs[n].kind = "unwrapped"
					return true
				}
				return false
			})
		}
		if n := len(t.drafts); n > first && t.drafts[n-1].kind == "opened" && !t.drafts[n-1].timed() && c.verbs[0].kind == "vented" {
			t.drafts = t.drafts[:n-1] // opened and vented is one act
		}
		for n, v := range c.verbs {
			d := draft{found: v, from: c.from, to: c.to, clause: c, shares: -1}
			if n == len(c.verbs)-1 || len(c.verbs) == 1 {
				d.take(c)
				d.bare = len(c.times) > 0 && v.at < c.timed
			}
			if len(c.unknown) > 0 {
				t.cannot(&d, c)
			}
			for _, p := range pending {
				d.take(p)
				if len(p.unknown) > 0 {
					t.cannot(&d, p)
				}
				d.from = min(d.from, p.from)
			}
			pending = nil
			t.drafts = append(t.drafts, d)
		}
	}
	for _, p := range pending {
		t.alone(p)
	}
	counted := false
	for i := first; i < len(t.drafts); i++ {
		for k := range t.drafts[i].at {
			m := &t.drafts[i].at[k]
			counted = counted || m.relation == fromStart && m.hours.low > 0
			if m.relation == bareHour && counted { // at four hours, the other at five
				m.relation = fromStart
			}
		}
	}
	t.share(first)
}

// bacon reports whether it was wrapped in bacon, which is no wrap.
func (t *teller) bacon(c clause) bool {
	for i := c.from; i < c.to; i++ {
		if w := t.reader.text(i); w == "bacon" && c.wrap == "" {
			return true
		}
	}
	return false
}

// cannot marks a draft as one with words that are not understood.
func (t *teller) cannot(d *draft, c clause) {
	d.bad = true
	for _, i := range c.unknown {
		at := [2]int{t.all[i].from, t.all[i].to}
		if !slices.ContainsFunc(t.told.Unread, func(u Unread) bool { return u.From == at }) {
			t.told.Unread = append(t.told.Unread, Unread{t.text[at[0]:at[1]], at})
		}
	}
}

// again reports whether a time is a rhythm.
func again(m moment) bool { return m.relation == every }

// take puts what a clause tells into a draft, where nothing stands yet.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (d *draft) take(c clause) {
	// "at 1 h and 2 h": nothing but more of the same.
	also := len(c.verbs) == 0 && len(c.temps) == 0 && c.wrap == "" && len(d.at) > 0 && len(c.times) > 0 &&
		c.times[0].relation == d.at[0].relation
	d.twice = d.twice || len(c.temps) > 1 || len(c.temps) == 1 && d.temp != nil && *d.temp != c.temps[0]
	for i := range c.times {
		m := c.times[i]
		switch {
		case m.relation == nextDay:
			d.next = &m
		case m.relation == every:
			d.repeat = &m.hours
		case m.relation == lasts, m.relation == fromStart && m.plain && (d.what == "rest" || d.kind == "vented") &&
			!m.from && !m.until:
			if d.length == nil {
				d.length = &m.hours
			}
		case m.to != nil && (d.repeat != nil || slices.ContainsFunc(c.times, again)):
			d.start, d.until = &m, m.to
		case m.to != nil && d.what == "rest":
			d.until = m.to
			m.to = nil
			d.at = append(d.at, m)
		case m.to != nil && m.relation == fromStart && m.to.relation == fromStart:
			m.hours = span{m.hours.low, m.to.hours.high}
			d.at = append(d.at, m)
		case m.to != nil:
			d.twice = true
		case m.until && d.what == "off" && len(d.at) == 0: // the other took until noon
			m.until = false
			d.at = append(d.at, m)
		case m.until:
			d.until = &m
		case m.from && d.repeat != nil:
			d.start = &m
		case len(d.at) > 0 && !m.listed && !also:
			d.twice = true
		default:
			d.at = append(d.at, m)
		}
	}
	if len(c.temps) > 0 && d.temp == nil {
		d.temp = &c.temps[0]
	}
	if d.clause.wrap == "" {
		d.clause.wrap = c.wrap
	}
	if d.clause.rest == "" {
		d.clause.rest = c.rest
	}
	if d.clause.place == "" {
		if d.clause.place = c.place; c.place == "" && (len(c.temps) > 0 || d.what == "felt") {
			d.clause.place = c.maybe
		}
	}
	d.clause.count, d.slack = max(d.clause.count, c.count), max(d.slack, c.slack)
	if d.clause.which == "" {
		d.clause.which = c.which
	}
	d.to = max(d.to, c.to)
}

// timed reports whether a draft says when it was.
func (d *draft) timed() bool { return len(d.at) > 0 || d.repeat != nil || d.next != nil }

// loose is a clause without an act: it belongs to the act before in its sentence, to the next, or is a remark.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (t *teller) loose(c clause, first int, pending *[]clause, more bool) {
	tells := len(c.times) > 0 || len(c.temps) > 0 || c.place != "" || c.slack > 0 || c.which != ""
	names := c.wrap != "" || c.rest != ""
	n := len(t.drafts)
	switch {
	case len(c.weights) > 0 || c.liquid && len(c.unknown) == 0 && !tells && n > first && t.drafts[n-1].clause.liquid:
	case n > first && c.which != "" && t.drafts[n-1].clause.which != "" &&
		c.which != t.drafts[n-1].clause.which && len(c.times) > 0:
		d := draft{found: t.drafts[n-1].found, from: c.from, to: c.to, clause: c, shares: -1}
		d.take(c)
		if len(c.unknown) > 0 {
			t.cannot(&d, c)
		}
		t.drafts = append(t.drafts, d)
	case n > first && t.drafts[n-1].what == "set" && t.drafts[n-1].temp != nil && len(c.temps) == 1 &&
		(len(c.times) > 0 || t.drafts[n-1].until != nil) && !c.cores && c.place == "": // 225 overnight, and 275 from seven
		d := draft{found: found{verb{what: "set"}, c.from, c.from}, from: c.from, to: c.to, clause: c, shares: -1}
		for i := range c.times {
			c.times[i].from = false
		}
		if d.take(c); len(c.unknown) > 0 {
			t.cannot(&d, c)
		}
		t.drafts = append(t.drafts, d)
	case !tells && !names || !tells && len(c.unknown) > 0:
		if c.content || len(c.unknown) > 0 {
			t.note(c.from, c.to)
		}
	case n > first && len(c.temps) > 0 && len(c.times) == 0 && more && t.reader.text(c.to) == "when": // 66 when I cut it
		*pending = append(*pending, c)
	case n > first && (len(c.times) == 0 || !t.drafts[n-1].timed() || !more || c.times[0].relation == lasts ||
		c.times[0].until):
		d := &t.drafts[n-1]
		if len(c.times) > 0 && d.timed() && c.times[0].relation != lasts && c.times[0].relation != every &&
			!c.times[0].until && !c.times[0].plain && !c.times[0].from {
			if len(c.temps) > 0 { // at 5 h, 68: another reading
				t.alone(c)
				return
			}
		}
		if len(c.temps) > 0 && d.temp != nil {
			t.alone(c)
			return
		}
		d.take(c)
		if len(c.unknown) > 0 {
			t.cannot(d, c)
		}
	default:
		*pending = append(*pending, c)
	}
}

// alone is a clause without an act in a sentence without one.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (t *teller) alone(c clause) {
	n := len(t.drafts)
	switch {
	case c.around && len(c.temps) == 0: // rained from three to five
		t.note(c.from, c.to)
	case len(c.temps) > 0 && !c.cores && c.temps[0].scale == "" && (c.moved || len(c.times) == 0 && c.place == "" && c.maybe == ""):
		// "started at 120", "overnight at 107": of the pit, or of the core?
		d := draft{found: found{verb{what: "read"}, c.from, c.from}, from: c.from, to: c.to, clause: c, shares: -1}
		t.ask(&d, "tale.what")
	case len(c.temps) > 0:
		d := draft{found: found{verb{what: "read"}, c.from, c.from}, from: c.from, to: c.to, clause: c, shares: -1}
		if c.wrap != "" { // two layers of paper at 73 C
			d.what = "wrap"
		}
		d.take(c)
		if len(c.unknown) > 0 {
			t.cannot(&d, c)
		}
		if n > 0 && !d.timed() { // 180 in the flat and 188 in the point
			d.shares = n - 1
		}
		t.drafts = append(t.drafts, d)
	case n > 0 && (len(c.times) > 0 && !t.drafts[n-1].timed() || len(c.temps) > 0 && t.drafts[n-1].temp == nil ||
		c.wrap != "" && t.drafts[n-1].what == "wrap" || len(c.times) > 0 && t.drafts[n-1].what == "rest"):
		t.drafts[n-1].take(c)
		if len(c.unknown) > 0 {
			t.cannot(&t.drafts[n-1], c)
		}
	case len(c.times) > 0:
		d := draft{found: found{verb{}, c.from, c.from}, from: c.from, to: c.to, clause: c, shares: -1}
		t.cannot(&d, c)
		t.ask(&d, "tale.what")
	default:
		t.note(c.from, c.to)
	}
}

// differs reports whether two acts have no time in common: the core at one is not that at the other.
func (d *draft) differs(o draft) bool {
	cores := !oneOf(d.what, "read", "set") && o.what != "set"
	return cores && d.temp != nil && o.temp != nil && *d.temp != *o.temp
}

// share lets acts without a time have that of another in their sentence: the next one's, where "and" stands between,
// else the last one's.
func (t *teller) share(first int) {
	for i := first; i < len(t.drafts); i++ {
		d := &t.drafts[i]
		follows := d.what == "slice" && i > first && oneOf(t.drafts[i-1].what, "rest", "off")
		if d.timed() || d.what == "rest" || follows {
			continue
		}
		joined := i+1 < len(t.drafts) && t.and(d.to) && !d.differs(t.drafts[i+1])
		if joined && d.what == "set" && t.drafts[i+1].what == "set" { // each has its own
			joined = false
		}
		if joined && t.drafts[i+1].timed() {
			d.shares = i + 1
			continue
		}
		if i > first {
			if !d.differs(t.drafts[i-1]) {
				d.shares = i - 1
			}
			continue
		}
		// "spritzed, wrapped and turned at four hours"
		for j := i + 1; j < len(t.drafts); j++ {
			other := d.what == "set" && t.drafts[j].what == "set" // each has its own
			if t.drafts[j].timed() && t.drafts[j].what != "rest" && t.drafts[j].what != "slice" && !other {
				d.shares = j
				break
			}
		}
	}
}

// and reports whether "and" stands at or after token i, before any other word.
func (t *teller) and(i int) bool {
	for n := i; n < i+2; n++ {
		if w := t.reader.text(n); oneOf(w, "and", "&") {
			return true
		} else if w != "," {
			return false
		}
	}
	return false
}

// weigh keeps what was weighed.
func (t *teller) weigh(c clause, w weighed) {
	of := ""
	for i := c.from; i < c.to; i++ {
		switch t.reader.text(i) {
		case "fat", "trimmings", "water", "salt": // none of what is kept
			text, at := t.piece(c.from, c.to)
			t.told.Asks = append(t.told.Asks, Ask{Why: field.Because("tale.weight", "said", text), From: at})
			return
		case "bones":
			of = "bones"
		case "rub":
			of = "mixed"
		case "left", "over", "leftover":
			if of == "mixed" {
				of = "left"
			} else if of == "" {
				of = "kept"
			}
		case "kept", "froze", "frozen":
			of = "kept"
		case "cooked", "yield", "yielded", "finished", "pulled", "off", "after", "served":
			if of == "" {
				of = "cooked"
			}
		case "raw", "trimmed", "before", "green", "started":
			if of == "" {
				of = "trimmed"
			}
		}
	}
	if after := t.reader.text(c.to); of == "" && after == "before" { // 4.5 kg before, 2.3 kg after
		of = "trimmed"
	} else if of == "" && after == "after" {
		of = "cooked"
	}
	if of == "" {
		text, at := t.piece(c.from, c.to)
		t.told.Asks = append(t.told.Asks, Ask{Why: field.Because("tale.weight", "said", text), From: at})
		return
	}
	t.told.Weights = append(t.told.Weights, Weight{of, w.kg})
}
