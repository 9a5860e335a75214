package forecast

import (
	"slices"
	"time"

	"verjuice/internal/core/heat"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/uncertain"
	"verjuice/internal/core/when"
)

// Anchor is where a piece stands on the clock: what a cook says by the clock, and of a pit that several
// pieces share, is put in hours on the fire from there. The zero Anchor is not known.
type Anchor struct {
	On  time.Time // it goes on
	Pit when.Use  // its pit, with all that is on it
}

// cond is a condition that the heat can hold: one by the clock is so many hours from when the
// piece goes on. One that cannot be told yet stays as it is, and never comes.
func (a Anchor) cond(c when.Cond) when.Cond {
	if c.Clock == "" || a.On.IsZero() {
		return c
	}
	return when.Cond{After: max(time.Minute, when.Next(a.On, c.Clock).Sub(a.On).Round(5*time.Minute))}
}

// Apply is b with what is said by the clock in hours.
func (a Anchor) Apply(b FireInput) FireInput { return b.each(a.cond) }

// Shared is b with what is said by a share of its time on the fire in hours, by a single run without it.
func (b FireInput) Shared() FireInput {
	some := false
	look := func(c when.Cond) when.Cond { some = some || c.Share != 0; return c }
	b.each(look)
	if !some {
		return b
	}
	takes := Alone([]FireInput{b})
	if takes >= uncertain.Endless {
		return b
	}
	return b.each(func(c when.Cond) when.Cond {
		if c.Share == 0 {
			return c
		}
		return when.Cond{After: max(time.Minute, time.Duration(c.Share*float64(takes)).Round(5*time.Minute))}
	})
}

// each is b with its conditions as do gives them.
func (b FireInput) each(do func(when.Cond) when.Cond) FireInput {
	b.Wraps, b.Visits = slices.Clone(b.Wraps), slices.Clone(b.Visits)
	for i := range b.Wraps {
		b.Wraps[i].When = b.Wraps[i].When.Each(do)
	}
	for i := range b.Visits {
		b.Visits[i].From, b.Visits[i].Until = b.Visits[i].From.Each(do), b.Visits[i].Until.Each(do)
	}
	b.Off = b.Off.Each(do)
	return b
}

// Sets are what the pit is at when the piece goes on, and what it is set to from then on.
func (a Anchor) Sets(all []when.Set, usual quantity.Celsius) (quantity.Celsius, []heat.SetPoint) {
	if len(all) == 0 {
		return usual, nil
	}
	first, now, steps := all[0].C, all[0].C, []heat.SetPoint{}
	if a.On.IsZero() {
		return first, nil
	}
	for i, at := range a.Pit.Times(all) {
		if at.IsZero() {
			continue
		}
		if h := at.Sub(a.On).Hours(); h <= 0 {
			first = all[i].C
		} else if all[i].C != now {
			steps = append(steps, heat.SetPoint{AtH: h, SetC: float64(all[i].C)})
		}
		now = all[i].C
	}
	return first, steps
}
