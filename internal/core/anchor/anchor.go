// Package anchor is where a piece stands on the clock: what a cook says by the clock, and of a
// pit that several pieces share, is put in hours on the fire from there.
//
//	a := anchor.Anchor{On: on, First: first}
//	a.Burn(burn)   // wrapped "at 07:00" is wrapped after 8 h
package anchor

import (
	"slices"
	"time"

	"verjuice/internal/core/forecast"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// Anchor is what is known of a piece's times. The zero Anchor is not known.
type Anchor struct {
	On    time.Time // it goes on
	First time.Time // the first piece goes on its pit
	Wraps time.Time // the last piece of that pit is wrapped; zero for never
	Until time.Time // nothing is on that pit any more: it is served, or off when it is cooked ahead
}

// after is the first time at or after t that the clock shows that.
func after(t time.Time, clock string) time.Time {
	at, err := time.Parse("15:04", clock)
	if err != nil {
		return t
	}
	y, m, d := t.Date()
	out := time.Date(y, m, d, at.Hour(), at.Minute(), 0, 0, t.Location())
	if out.Before(t) {
		out = time.Date(y, m, d+1, at.Hour(), at.Minute(), 0, 0, t.Location())
	}
	return out
}

// cond is a condition that the heat can hold: one by the clock is so many hours from when the
// piece goes on. One that cannot be told yet stays as it is, and never comes.
func (a Anchor) cond(c when.Cond) when.Cond {
	if c.Clock == "" || a.On.IsZero() {
		return c
	}
	return when.Cond{After: max(time.Minute, after(a.On, c.Clock).Sub(a.On).Round(5*time.Minute))}
}

// Burn is b with what is said by the clock in hours.
func (a Anchor) Burn(b forecast.Burn) forecast.Burn {
	b.Wraps, b.Visits = slices.Clone(b.Wraps), slices.Clone(b.Visits)
	for i := range b.Wraps {
		b.Wraps[i].When = b.Wraps[i].When.Each(a.cond)
	}
	for i := range b.Visits {
		b.Visits[i].From, b.Visits[i].Until = b.Visits[i].From.Each(a.cond), b.Visits[i].Until.Each(a.cond)
	}
	b.Off = b.Off.Each(a.cond)
	return b.Told()
}

// before is the last time before t that the clock shows that.
func before(t time.Time, clock string) time.Time {
	at := after(t.AddDate(0, 0, -2), clock)
	for next := after(at.Add(time.Minute), clock); next.Before(t); next = after(at.Add(time.Minute), clock) {
		at = next
	}
	return at
}

// Sets are what the pit is at when the piece goes on, and what it is set to from then on. Times of
// day are the last ones, in the order of the list, before nothing is on the pit any more.
func (a Anchor) Sets(all []when.Set, usual quantity.Celsius) (quantity.Celsius, []heat.SetPoint) {
	if len(all) == 0 {
		return usual, nil
	}
	first, now, steps := all[0].C, all[0].C, []heat.SetPoint{}
	if a.On.IsZero() {
		return first, nil
	}
	at, until := make([]time.Time, len(all)), a.Until
	for i, s := range slices.Backward(all) {
		if s.At.Clock != "" {
			at[i] = before(until, s.At.Clock)
			until = at[i]
		}
	}
	for i, s := range all {
		if s.At.Clock == "" {
			var comes bool
			if at[i], comes = a.moment(s.At); !comes {
				continue
			}
		}
		if h := at[i].Sub(a.On).Hours(); h <= 0 {
			first = s.C
		} else if s.C != now {
			steps = append(steps, heat.SetPoint{AtH: h, SetC: float64(s.C)})
		}
		now = s.C
	}
	return first, steps
}

// moment is when a condition of a pit's own list that is not by the clock comes; false for never.
func (a Anchor) moment(c when.Cond) (time.Time, bool) {
	switch c.Of {
	case "wrap":
		return a.Wraps.Add(c.By), !a.Wraps.IsZero()
	case "on":
		return a.First.Add(c.By), true
	}
	return a.First.Add(c.After), true
}
