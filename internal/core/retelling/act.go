package retelling

import (
	"fmt"
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
	for i := d.found.at; i < d.found.end && t.scene.Cut.ID != ""; i++ {
		if w := t.reader.text(i); of[w] && !strings.Contains(t.scene.Cut.ID, strings.TrimSuffix(w, "s")) {
			return true, true
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

// when is the time of a moment, after another; false when it had to be asked for.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (t *teller) when(d *draft, m moment, i int, last time.Time) (time.Time, bool) {
	on := t.scene.On
	passed := t.was("off")
	switch m.relation {
	case later:
		if t.asked(i - 1) { // after what is not known
			t.ask(d, "tale.when")
			return time.Time{}, false
		}
		return last.Add(hours(m.hours.mid())), true
	case lasts:
		return last.Add(hours(m.hours.mid())), true
	case beside:
		of, ok := t.lastOf(m.of)
		if !ok {
			for k := range t.drafts { // of an act that is told later
				if o := &t.drafts[k]; k != i && o.what == m.of && !o.bad && len(o.at) > 0 && o.at[0].relation != beside {
					of, ok = t.when(o, o.at[0], k, last)
				}
			}
		}
		if !ok {
			t.ask(d, "tale.when")
			return time.Time{}, false
		}
		if m.before {
			return of.Add(-hours(m.hours.mid())), true
		}
		return of.Add(hours(m.hours.mid())), true
	case after:
		start, then := on.Add(hours(m.hours.mid())), last.Add(hours(m.hours.mid()))
		switch {
		case oneOf(d.what, "rest", "slice") && !passed && !t.was("rest"): // after what?
			t.askStart(d, m)
			return time.Time{}, false
		case !last.After(on) || !start.Before(last):
			return start, true
		case passed || oneOf(d.what, "rest", "slice"):
			return then, true
		}
		t.askStart(d, m)
		return time.Time{}, false
	case fromStart:
		at := on.Add(hours(m.hours.mid()))
		if m.plain && at.Before(last.Add(-time.Minute)) && !t.earlier(d) {
			if passed && (oneOf(d.what, "slice", "rest")) && m.plain {
				return last.Add(hours(m.hours.mid())), true
			}
			t.askStart(d, m)
			return time.Time{}, false
		}
		return at, true
	case bareHour:
		if t.style == fromStart || t.style == byClock { // as the act before was told
			m.relation, m.minutes = t.style, 60*m.hours.low
			return t.when(d, m, i, last)
		}
		return t.bare(d, m, last)
	}
	return t.clockTime(d, m, last)
}

// earlier reports whether a draft may be told after what came later: of another piece.
func (t *teller) earlier(d *draft) bool { return d.clause.which != "" }

// askStart asks whether hours are from when it went on, or after what stands before.
func (t *teller) askStart(d *draft, m moment) {
	from, to := t.timeOf(d)
	said := number2(m.hours.mid())
	later := Offer{field.Because("tale.from-last", "hours", hours(m.hours.mid())), t.edit(d, from, to, said+" h later")}
	if oneOf(d.what, "off", "on", "rest", "slice") { // it cannot be before
		t.ask(d, "tale.from", later)
		return
	}
	start := Offer{field.Because("tale.from-start", "hours", hours(m.hours.mid())), t.edit(d, from, to, "at "+said+" h")}
	t.ask(d, "tale.from", start, later)
}

// number2 is hours as they can be read again.
func number2(h float64) string {
	return strings.TrimSuffix(strings.TrimRight(fmt.Sprintf("%.2f", h), "0"), ".")
}

// most is the longest that a cut is on the fire, and least the shortest, h: field experience in round numbers.
func (t *teller) most() float64 {
	switch t.scene.Cut.Family {
	case cut.Rack:
		return 12
	case cut.Poultry, cut.Pink:
		return 10
	case cut.Ground:
		return 7
	}
	return 20
}

func (t *teller) least() float64 {
	switch t.scene.Cut.Family {
	case cut.Rack:
		return 2.5
	case cut.Collagen, cut.Whole:
		return 3
	}
	return 0.4
}

// onTheWay is how long a piece is on before what is done on the way, at most, h.
const onTheWay = 13

// fits reports whether an act can be at a time, by the order and the cut.
func (t *teller) fits(d *draft, at, last time.Time) bool {
	if at.Before(last) || !t.scene.Now.IsZero() && at.After(t.scene.Now) {
		return false
	}
	h := at.Sub(t.scene.On).Hours()
	switch {
	case oneOf(d.what, "slice", "rest") || t.was("off"):
		return at.Sub(last) <= 12*time.Hour
	case oneOf(d.what, "off", "pull"):
		return h >= t.least() && h <= t.most()
	}
	return h <= min(onTheWay, t.most())
}

// clockTime is a time of day after another time: the next one, or asked for where morning and evening both suit.
func (t *teller) clockTime(d *draft, m moment, last time.Time) (time.Time, bool) {
	next := func(minutes float64) time.Time {
		if len(t.told.Acts) == 0 && (oneOf(d.what, "light", "fuel", "wood")) { // before it went on
			at := time.Date(last.Year(), last.Month(), last.Day(), int(minutes)/60, int(minutes)%60, 0, 0, last.Location())
			if early := last.Sub(at); early >= 0 && early < 6*time.Hour {
				return at
			}
		}
		at := time.Date(last.Year(), last.Month(), last.Day(), int(minutes)/60, int(minutes)%60, 0, 0, last.Location())
		if at.Before(last.Truncate(time.Minute)) {
			at = time.Date(last.Year(), last.Month(), last.Day()+1, int(minutes)/60, int(minutes)%60, 0, 0, last.Location())
		}
		return at
	}
	if m.weekday > 0 {
		return t.onWeekday(d, m, last)
	}
	switch m.half {
	case "am", "24":
		return next(m.minutes), true
	case "pm":
		return next(m.minutes + 720), true
	}
	one, two := next(math.Mod(m.minutes, 720)), next(math.Mod(m.minutes, 720)+720)
	if two.Before(one) {
		one, two = two, one
	}
	a, b := t.fits(d, one, last), t.fits(d, two, last)
	switch {
	case a && b && !oneOf(d.what, "slice", "rest") && !t.was("off"):
		from, to := t.timeOf(d)
		offer := func(at time.Time) Offer {
			return Offer{field.Because("tale.at", "at", at), t.edit(d, from, to, "at "+at.Format("3:04 pm"))}
		}
		t.ask(d, "tale.half", offer(one), offer(two))
		return time.Time{}, false
	case b && !a:
		return two, true
	}
	return one, true
}

// onWeekday is a time of day on a weekday: that which is nearest to the act before, and not before it went on.
func (t *teller) onWeekday(d *draft, m moment, last time.Time) (time.Time, bool) {
	days := (m.weekday - 1 - int(last.Weekday()) + 10) % 7 // from three days before
	at := func(minutes float64) time.Time {
		day := time.Date(last.Year(), last.Month(), last.Day()-3+days, 0, int(minutes), 0, 0, last.Location())
		if day.Before(t.scene.On.Add(-12 * time.Hour)) {
			return day.AddDate(0, 0, 7)
		}
		return day
	}
	switch m.half {
	case "am", "24":
		return at(m.minutes), true
	case "pm":
		return at(m.minutes + 720), true
	}
	one, two := at(math.Mod(m.minutes, 720)), at(math.Mod(m.minutes, 720)+720)
	switch a, b := t.fits(d, one, last), t.fits(d, two, last); {
	case a && !b:
		return one, true
	case b && !a:
		return two, true
	}
	from, to := t.timeOf(d)
	day := weekdays[m.weekday-1]
	offer := func(at time.Time) Offer {
		return Offer{field.Because("tale.at", "at", at), t.edit(d, from, to, "on "+day+" at "+at.Format("3:04 pm"))}
	}
	t.ask(d, "tale.half", offer(one), offer(two))
	return time.Time{}, false
}

// bare is "at six": hours on the fire, or a time of day.
func (t *teller) bare(d *draft, m moment, last time.Time) (time.Time, bool) {
	var fit []time.Time
	var offers []Offer
	from, to := t.timeOf(d)
	h := m.hours.mid()
	meal := oneOf(t.reader.text(d.found.at), "ate", "served", "dinner", "lunch", "supper") // by the clock
	if at := t.scene.On.Add(hours(h)); t.fits(d, at, last) && !t.was("off") && !meal {
		fit = append(fit, at)
		offers = append(offers, Offer{field.Because("tale.from-start", "hours", hours(h)), t.edit(d, from, to,
			"at "+number2(h)+" h")})
	}
	for _, minutes := range []float64{60 * math.Mod(h, 12), 60*math.Mod(h, 12) + 720} {
		if h > 12 && minutes != 60*h || h > 24 {
			continue
		}
		at := time.Date(last.Year(), last.Month(), last.Day(), 0, int(minutes), 0, 0, last.Location())
		if at.Before(last) {
			at = at.AddDate(0, 0, 1)
		}
		if t.fits(d, at, last) {
			fit = append(fit, at)
			offers = append(offers, Offer{field.Because("tale.at", "at", at), t.edit(d, from, to, "at "+at.Format("3:04 pm"))})
		}
	}
	if len(fit) == 1 {
		return fit[0], true
	}
	t.ask(d, "tale.six", offers...)
	return time.Time{}, false
}

// What a core and a pit can be, °C.
const lowCore, highCore, lowPit, highPit = 0, 103, 40, 320

// warm puts the temperature of a draft into its act; false when it had to be asked for.
func (t *teller) warm(d *draft, a *Act) bool {
	if d.temp == nil {
		if oneOf(d.what, "set", "read") {
			t.ask(d, "tale.degrees")
			return false
		}
		return true
	}
	v := d.temp.mid()
	low, high := float64(lowCore), float64(highCore)
	if d.what == "set" {
		low, high = lowPit, highPit
	}
	c, f := v, (v-32)/1.8
	switch d.temp.scale {
	case "c":
		f = math.NaN()
	case "f":
		c = math.NaN()
	default:
		if d.what == "set" && v >= 180 { // no pit for this is at 180 °C and more, but few are asked for by a bare number
			c = math.NaN()
		}
		if d.what == "set" && v < 150 {
			f = math.NaN()
		}
		if d.what != "set" {
			early := a.At.Sub(t.scene.On) < 4*time.Hour && v >= 70 && v <= 104
			if !(early && (oneOf(d.what, "read", "look"))) && c <= highCore {
				f = math.NaN()
			}
		}
	}
	fits := func(c float64) bool { return c >= low && c <= high }
	asC, asF := fits(c), fits(f)
	if asC && asF {
		offer := func(scale string) Offer {
			return Offer{field.Because("tale.scale", "degrees", number2(v), "scale", scale), t.scaled(d, scale)}
		}
		t.ask(d, "tale.scales", offer("F"), offer("C"))
		return false
	}
	got := c
	if asF {
		got = f
	} else if !asC {
		t.ask(d, "tale.degrees")
		return false
	}
	switch {
	case d.what == "set":
		a.SetC = got
	case d.what == "rest" && d.clause.rest != "" && !d.clause.cores: // the oven is at that, not the core
	default:
		a.CoreC = got
	}
	return true
}

// scaled is the text of a draft with its scale told.
func (t *teller) scaled(d *draft, scale string) string {
	for i := d.from; i < d.to; i++ {
		if h, n, ok := t.temperature(i); ok && h == *d.temp && t.at(i).kind == number {
			if _, _, timed := t.time(i); !timed {
				text, _ := t.piece(i, n)
				return t.edit(d, i, n, text+" °"+scale)
			}
		}
	}
	return t.edit(d, d.to, d.to, "°"+scale)
}

// falls is by how much a core does not fall for no reason, °C.
const falls = 20

// again reports whether an act was told twice in a breath: into a towel, and into the cooler; flipped and rotated.
func (t *teller) again(a Act) bool {
	return slices.ContainsFunc(t.told.Acts, func(o Act) bool {
		o.From, a.From = [2]int{}, [2]int{}
		return o == a
	})
}

// check asks about what cannot be in this order, and takes it out of the acts.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (t *teller) check() {
	var out []Act
	why := func(a Act, id string) {
		text := strings.TrimSpace(t.text[a.From[0]:a.From[1]])
		for _, ask := range t.told.Asks {
			if ask.From == a.From {
				return
			}
		}
		t.told.Asks = append(t.told.Asks, Ask{Why: field.Because(id, "said", text), From: a.From})
	}
	all := slices.Clone(t.told.Acts)
	slices.SortStableFunc(all, func(a, b Act) int { return a.At.Compare(b.At) })
	wrapped, off, core, coreOff := "", false, 0.0, false
	first := func(what string) (time.Time, bool) {
		for _, a := range all {
			if a.What == what {
				return a.At, true
			}
		}
		return time.Time{}, false
	}
	taken, isOff := first("off")
	for _, a := range all {
		last := a.At
		if a.Until.After(last) {
			last = a.Until
		}
		switch {
		case a.At.Before(t.scene.On.Add(-24*time.Hour)) || last.Sub(t.scene.On) > Longest:
			why(a, "tale.long")
			continue
		case !t.scene.Now.IsZero() && a.At.After(t.scene.Now):
			why(a, "tale.future")
			continue
		case !oneOf(a.What, "light", "set", "fuel", "wood", "fire") && a.At.Before(t.scene.On):
			why(a, "tale.before-on")
			continue
		case a.What == "slice" && isOff && a.At.Before(taken):
			why(a, "tale.sliced-on")
			continue
		case a.What == "rest" && isOff && a.At.Before(taken):
			why(a, "tale.rested-on")
			continue
		case a.What == "wrap" && wrapped != "" && a.Which == "" && !off:
			why(a, "tale.wrapped-twice")
			continue
		case a.What == "off" && off && a.Which == "":
			why(a, "tale.off-twice")
			continue
		case oneOf(a.What, "spritz", "turn", "wood", "wrap", "baste") && off && a.Which == "":
			why(a, "tale.off-by-then")
			continue
		}
		if a.CoreC > 0 && a.Place == "" && a.Which == "" {
			if core > 0 && a.CoreC < core-falls && !off && !coreOff {
				why(a, "tale.fell")
				continue
			}
			core, coreOff = a.CoreC, false
		}
		switch a.What {
		case "wrap":
			wrapped = a.Kind + "x"
		case "unwrap":
			wrapped = ""
		case "off":
			off = a.Which == ""
		case "on":
			off, wrapped, coreOff = false, "", true
		case "out":
			coreOff = true
		}
		out = append(out, a)
	}
	t.told.Acts = out
}
