package retelling

import (
	"math"
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
