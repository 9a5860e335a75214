package forecast

import (
	"slices"
	"time"

	"verjuice/internal/core/heat"
	"verjuice/internal/core/quantity"
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
func (a Anchor) Apply(b FireInput) FireInput {
	b.Wraps, b.Visits = slices.Clone(b.Wraps), slices.Clone(b.Visits)
	for i := range b.Wraps {
		b.Wraps[i].When = b.Wraps[i].When.Each(a.cond)
	}
	for i := range b.Visits {
		b.Visits[i].From, b.Visits[i].Until = b.Visits[i].From.Each(a.cond), b.Visits[i].Until.Each(a.cond)
	}
	b.Off = b.Off.Each(a.cond)
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
