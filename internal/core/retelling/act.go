package retelling

import (
	"math"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
)

// ask puts a question about a draft, which is no act then.
func (t *teller) ask(d *draft, id string, offers ...Offer) {
	d.bad = true
	text, at := t.piece(d.from, d.to)
	t.told.Asks = append(t.told.Asks, Ask{Why: field.Because(id, "said", text), Offers: offers, From: at})
}

// edit is the text of a draft with another in place of some of its tokens, or at its end.
func (t *teller) edit(d *draft, from, to int, with string) string {
	_, at := t.piece(d.from, d.to)
	if from >= to {
		return strings.TrimSpace(t.text[at[0]:at[1]]) + " " + with
	}
	return strings.TrimSpace(t.text[at[0]:t.all[from].from] + with + t.text[t.all[to-1].to:at[1]])
}

// timesFrom are the tokens of the time of a draft.
func (t *teller) timeOf(d *draft) (from, to int) {
	for i := d.from; i < d.to; i++ {
		if _, n, ok := t.time(i); ok {
			return i, n
		}
		if _, n, ok := t.byAct(i); ok {
			return i, n
		}
	}
	return d.to, d.to
}

// resolve puts draft i in time.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (t *teller) resolve(i int) {
	d := &t.drafts[i]
	if d.bad {
		if !slices.ContainsFunc(t.told.Asks, func(a Ask) bool {
			return a.From[0] <= t.all[d.from].from &&
				t.all[d.to-1].to <= a.From[1]
		}) {
			t.ask(d, "tale.words")
		}
		return
	}
	if d.twice {
		t.ask(d, "tale.twice")
		return
	}
	if d.repeat != nil && oneOf(d.what, "off", "pull", "on", "fire", "slice", "unwrap", "wrap", "light", "out") {
		t.ask(d, "tale.words") // done once: the rhythm is of something else
		return
	}
	if d.what == "pull" && !t.pulled(d, i) {
		return
	}
	if d.what == "fire" && (t.was("fire") || t.was("off")) {
		d.what = "on"
	}
	if d.what == "fire" && !t.began(d, i) {
		return
	}
	if d.what == "look" && d.temp != nil {
		d.what = "read"
	}
	if d.what == "wrap" && d.kind == "" && d.clause.wrap == "" && d.clause.rest != "" { // in towels, in the cooler
		d.what = "rest"
		if len(d.at) == 1 && d.at[0].plain && d.length == nil { // three hours in the cooler, wrapped in towels
			d.length, d.at = &d.at[0].hours, nil
		}
	}
	if part, named := t.part(d); part {
		var offers []Offer
		if whole := map[string]string{"off": "took it off", "wrap": "covered it with"}[d.what]; named {
			offers = append(offers, Offer{field.Because("tale.whole"), t.edit(d, d.found.at, d.found.end, whole)})
		}
		note := "note to self: " + strings.TrimSpace(t.edit(d, d.from, d.from, ""))
		t.ask(d, "tale.part", append(offers, Offer{field.Because("tale.only-part"), note})...)
		return
	}
	if d.what == "unwrap" && len(d.at) == 1 && d.at[0].plain && !t.was("wrap") { // unwrapped all the way, ten hours
		t.ask(d, "tale.when")
		return
	}
	if d.what == "wrap" && d.found.at == d.found.end && len(d.at) > 1 && d.at[0].plain { // four hours smoke, three foil
		t.ask(d, "tale.when")
		return
	}
	if oneOf(d.what, "wrap", "unwrap", "on") && len(d.at) == 1 && d.at[0].plain &&
		(d.bare || t.before(d)) { // wrapped two hours: at or for?
		from, to := t.timeOf(d)
		said := number2(d.at[0].hours.mid())
		t.ask(d, "tale.when", Offer{field.Because("tale.from-start", "hours", hours(d.at[0].hours.mid())), t.edit(d, from, to, "at "+said+" h")})
		return
	}
	times, slack, ok := t.times(d, i)
	if !ok {
		return
	}
	if n := d.clause.count; n > 0 && n != len(times) {
		t.ask(d, "tale.when")
		return
	}
	slack = max(slack, hours(d.slack))
	base := t.act(d, time.Time{})
	switch d.what {
	case "wrap":
		if d.clause.wrap != "" {
			base.Kind = d.clause.wrap
		}
	case "rest":
		if base.Kind = d.clause.rest; base.Kind == "" && d.clause.wrap == "pan" {
			base.Kind = "tray"
		}
	}
	for n, at := range times {
		a := base
		a.At, a.Slack = at, slack
		if n == 0 && !t.warm(d, &a) {
			return
		}
		if d.repeat != nil {
			a.Every = hours(d.repeat.mid())
			a.Until = t.untilOf(d, i, at)
		} else if d.length != nil {
			a.Until = at.Add(hours(d.length.mid()))
		} else if d.until != nil {
			if until, ok := t.when(d, *d.until, i, at); ok {
				a.Until = until
			} else {
				return
			}
		}
		if !t.again(a) {
			t.told.Acts = append(t.told.Acts, a)
		}
		if d.repeat == nil {
			t.last = at
			if d.what == "rest" && a.Until.After(at) {
				t.last = a.Until
			}
		}
	}
}

// before reports whether the time of a draft stands right before its act: two hours wrapped.
func (t *teller) before(d *draft) bool {
	from, n := t.timeOf(d)
	if d.found.at == d.found.end { // three hours foil
		return true
	}
	return t.reader.text(from) != "between" && d.clause.timed < d.found.at && n == d.found.at && len(d.clause.times) > 0
}

// part reports whether only a part of the piece was taken off, covered or put somewhere: a brisket's flat, a bird's
// breast, half of it; and whether the words of the act name it.
func (t *teller) part(d *draft) (part, named bool) {
	if d.clause.which != "" || !oneOf(d.what, "off", "wrap", "unwrap", "rest", "on", "fire", "slice") {
		return false, false
	}
	for i := d.from; i < d.found.at; i++ {
		if oneOf(t.reader.text(i), "half", "some", "part", "most", "several") && oneOf(t.reader.text(i+1), "of", "the") {
			return true, false
		}
	}
	of := map[string]map[string]bool{
		"off": words("flat point"), "wrap": words("flat point breast breasts leg legs wing wings tips thigh thighs drumsticks end"),
	}[d.what]
	end, _, _ := t.objects(d.found.end) // wrapped the flat
	for i := d.found.at; i < end && t.scene.Cut.ID != ""; i++ {
		if w := t.reader.text(i); of[w] && !strings.Contains(t.scene.Cut.ID, strings.TrimSuffix(w, "s")) {
			return true, i < d.found.end
		}
	}
	return false, false
}

// began asks where it is told to have gone on at another time than is known.
func (t *teller) began(d *draft, i int) bool {
	if len(d.at) != 1 {
		return t.on(d)
	}
	m := d.at[0]
	switch m.relation {
	case byClock:
	case bareHour:
		m.relation, m.minutes = byClock, math.Mod(60*m.hours.low, 720)
	default:
		return true
	}
	for _, half := range []float64{0, 720} {
		if m.half == "pm" && half == 0 || (m.half == "am" || m.half == "24") && half > 0 {
			continue
		}
		minutes := int(math.Mod(m.minutes+half, 1440))
		if on := t.scene.On; on.Hour()*60+on.Minute() == minutes {
			t.style = byClock
			t.told.Acts = append(t.told.Acts, t.act(d, on))
			return false
		}
	}
	t.ask(d, "tale.on")
	return false
}

// on is that it went on, without a time: when it is known to have.
func (t *teller) on(d *draft) bool {
	t.told.Acts = append(t.told.Acts, t.act(d, t.scene.On))
	return false
}

// act is a draft at a time.
func (t *teller) act(d *draft, at time.Time) Act {
	out := Act{What: d.what, At: at, Kind: d.kind, Place: d.clause.place, Which: d.clause.which}
	_, out.From = t.piece(d.from, d.to)
	return out
}

func hours(h float64) time.Duration {
	return time.Duration(math.Round(h*60)) * time.Minute
}

// was reports whether an act of that kind was told before.
func (t *teller) was(what string) bool {
	return slices.ContainsFunc(t.told.Acts, func(a Act) bool { return a.What == what })
}

// lastOf is when an act of that kind was done last.
func (t *teller) lastOf(what string) (time.Time, bool) {
	if what == "start" {
		return t.scene.On, true
	}
	for _, a := range slices.Backward(t.told.Acts) {
		if a.What == what {
			return a.At, true
		}
	}
	return time.Time{}, false
}

// pulled decides whether it was pulled off the fire or apart.
func (t *teller) pulled(d *draft, i int) bool {
	later := func(what string) bool {
		return slices.ContainsFunc(t.drafts[i+1:], func(o draft) bool { return o.what == what })
	}
	switch {
	case t.was("off"):
		d.what, d.kind = "slice", "pulled"
	case d.temp != nil, later("rest"), !slices.Contains(t.scene.Cut.Finishes, cut.Pulled) && t.scene.Cut.ID != "":
		d.what = "off"
	default:
		at, end := d.found.at, d.found.end
		t.ask(d, "tale.pulled",
			Offer{field.Because("tale.pulled-off"), t.edit(d, at, end, "took it off")},
			Offer{field.Because("tale.pulled-apart"), t.edit(d, at, end, "pulled apart")})
		return false
	}
	return true
}

// times are when a draft was done, and how far that may be off.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (t *teller) times(d *draft, i int) (out []time.Time, slack time.Duration, ok bool) {
	if d.next != nil {
		for k := range d.at {
			if d.at[k].relation == bareHour {
				d.at[k].relation, d.at[k].minutes = byClock, 60*d.at[k].hours.low
			}
			if d.next.half != "" && d.at[k].half == "" {
				d.at[k].half = d.next.half
				d.at[k].minutes = math.Mod(d.at[k].minutes, 720)
			}
		}
		if len(d.at) == 0 || d.at[0].relation != byClock {
			t.ask(d, "tale.when")
			return nil, 0, false
		}
		day := time.Date(t.last.Year(), t.last.Month(), t.last.Day()+1, 0, 0, 0, 0, t.last.Location())
		m := d.at[0]
		if m.half == "pm" {
			m.minutes += 720
		}
		return []time.Time{day.Add(time.Duration(m.minutes) * time.Minute)}, 0, true
	}
	if d.repeat != nil {
		m := moment{}
		switch {
		case d.start != nil:
			m = *d.start
		case len(d.at) > 0:
			m = d.at[0]
		default:
			return []time.Time{t.last.Add(hours(d.repeat.mid()))}, slackOf(*d.repeat), true
		}
		at, ok := t.when(d, m, i, t.last)
		return []time.Time{at}, slackOf(*d.repeat), ok
	}
	if len(d.at) == 0 {
		n := len(t.told.Acts)
		switch {
		case d.what == "set" && d.until != nil && !t.was("set"): // for the first three hours
			return []time.Time{t.scene.On}, 0, true
		case d.what == "set" && n > 0 && t.told.Acts[n-1].What == "set" && t.told.Acts[n-1].Until.After(t.told.Acts[n-1].At):
			return []time.Time{t.told.Acts[n-1].Until}, 0, true // then
		case d.what == "rest" && len(t.told.Acts) > 0 && !t.asked(i-1), d.what == "slice" && t.was("rest"),
			d.length != nil && (d.what == "on" || d.kind == "vented") && len(t.told.Acts) > 0 && !t.asked(i-1):
			return []time.Time{t.last}, 0, true
		case d.shares >= 0 && d.shares < i:
			if o := t.drafts[d.shares]; !o.bad {
				if at, ok := t.lastOf(o.what); ok {
					return []time.Time{at}, 0, true
				}
			}
			d.bad = true
			t.ask(d, "tale.when")
			return nil, 0, false
		case d.shares > i && !t.drafts[d.shares].bad:
			d.at = t.drafts[d.shares].at
			if len(d.at) == 0 {
				t.ask(d, "tale.when")
				return nil, 0, false
			}
		default:
			t.ask(d, "tale.when", Offer{field.Because("tale.right-away"), t.edit(d, d.to, d.to, "right away")})
			return nil, 0, false
		}
	}
	from := t.last
	for _, m := range d.at {
		at, ok := t.when(d, m, i, from)
		if !ok {
			return nil, 0, false
		}
		if m.relation == fromStart || m.relation == byClock {
			t.style = m.relation
		}
		out = append(out, at)
		slack = max(slack, slackOf(m.hours))
		from = at
	}
	return out, slack, true
}

func slackOf(s span) time.Duration { return hours((s.high - s.low) / 2) }

// asked reports whether the draft before was asked about: what follows from it is not known either.
func (t *teller) asked(i int) bool { return i >= 0 && t.drafts[i].bad }

// untilOf is when a rhythm ends: as told, or at the next wrap or when it is off.
func (t *teller) untilOf(d *draft, i int, from time.Time) time.Time {
	if d.until != nil && d.until.relation != beside {
		if at, ok := t.when(d, *d.until, i, from); ok {
			return at
		}
	}
	for _, o := range t.drafts[i+1:] {
		want := "wrap"
		if d.until != nil {
			want = d.until.of
		}
		if !o.bad && (o.what == want || o.what == "off" || o.what == "pull") && len(o.at) > 0 {
			was := t.last
			asks := len(t.told.Asks)
			at, ok := t.when(&o, o.at[0], i, from)
			t.last, t.told.Asks = was, t.told.Asks[:asks]
			if ok && at.After(from) {
				return at
			}
		}
	}
	return time.Time{}
}
