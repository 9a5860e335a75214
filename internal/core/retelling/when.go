package retelling

import (
	"fmt"
	"math"
	"strings"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
)

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
