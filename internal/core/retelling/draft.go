package retelling

import (
	"slices"

	"verjuice/internal/core/field"
)

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
