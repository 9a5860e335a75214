package cooking

import (
	"time"

	"verjuice/internal/core/method"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// Depth is where the salt of the rub is in the piece, over the wait.
type Depth struct {
	Course  salt.Course
	Brine   salt.Brine
	OneBare bool
	Across  quantity.Length
	Wait    time.Duration
	Asked   time.Duration // the wait as typed; the same as Wait without a plan
	Open    bool
	Style   string
	Noun    string
	Depth   trace.Figure // m
	TakenUp trace.Figure // min
	Even    trace.Figure // salt of the centre over the mean, %
	Surface string       // what it looks like when the fire starts: bare, dry, beads, glisten, ready or tacky
	School  School
}

// School is how the wait stands to what its style asks for.
type School struct {
	ID  string        // empty when it is as asked; else short, long and the style
	By  time.Duration // so much too short or too long
	Per time.Duration // what the coat needs, of minutes
}

// brineInputs are what went into the figures of the dry brine.
func (s *subject) brineInputs(b brought) []any {
	brine := s.brine(b)
	return []any{
		"salt_on_surface", trace.Number{Value: 1000 * brine.Load, Unit: "g/m²"}, "wait", s.on.Wait, "temperature", brine.Temperature,
		"way_in", brine.Path.Depth, "diffusivity", trace.Number{Value: salt.Diffusivity(brine.Temperature) * 1e10, Decimals: 1},
	}
}

// depth is where the salt of the rub gets in its time.
func (s *subject) depth(b brought, c salt.Course) *Depth {
	brine := s.brine(b)
	inputs := s.brineInputs(b)
	slow, fast := salt.EndOfWait(brine, 1-salt.DiffusivitySpread), salt.EndOfWait(brine, 1+salt.DiffusivitySpread)
	wait := s.move(method.Wait)
	minutes := c.TakenUp.Minutes()
	percent := func(m salt.Moment) float64 { return 100 * m.Evenness() }
	return &Depth{
		Course: c, Brine: brine, OneBare: s.meat.OneBare, Across: s.meat.Geometry.Thickness, Wait: s.on.Wait, Asked: s.asked, Open: wait.Open,
		Style: wait.Style, Noun: s.meat.Cut.Noun,
		Depth: trace.New("depth.depth", quantity.Range[float64]{Low: float64(slow.Depth), Mid: float64(c.End.Depth), High: float64(fast.Depth)}, inputs...),
		TakenUp: trace.New("depth.taken-up", quantity.Range[float64]{
			Low: minutes / (1 + salt.DiffusivitySpread), Mid: minutes, High: minutes / (1 - salt.DiffusivitySpread)}, inputs...),
		Even:    trace.New("depth.even", quantity.Range[float64]{Low: percent(slow), Mid: percent(c.End), High: percent(fast)}, inputs...),
		Surface: surface(s.on.Wait, c.TakenUp, brine.Load, wait.Open), School: school(wait.Style, s.on.Wait, c.TakenUp),
	}
}

// surface is what the cook sees when the fire starts. Beads stand on the meat until
// the coat is taken up; starting the fire among them steams the bark.
func surface(wait, taken time.Duration, load float64, open bool) string {
	switch {
	case load <= 0:
		return "bare"
	case wait < 5*time.Minute:
		return "dry"
	case wait < taken:
		return "beads"
	case wait < 2*taken+30*time.Minute || wait < 3*time.Hour:
		return "glisten"
	case open:
		return "ready"
	}
	return "tacky"
}

// school holds the wait against what its style asks for: minutes while the fire
// comes up, a night of 8 to 12 hours, or a day and more.
func school(style string, wait, taken time.Duration) School {
	const slack = 20 * time.Minute
	const told = 3 * time.Minute // times are told to five minutes: waiting as told is enough
	const night, nightMost, day = 8 * time.Hour, 16 * time.Hour, 20 * time.Hour
	fives := func(d time.Duration) time.Duration { return d.Round(5 * time.Minute) }
	switch {
	case style == "minutes" && wait < taken-told && wait >= 5*time.Minute:
		return School{"short-minutes", (taken - wait).Round(time.Minute), taken}
	case style == "minutes" && wait > taken+90*time.Minute && wait > 2*time.Hour:
		return School{"long-minutes", wait - taken, taken}
	case style == "day" && wait < day-slack:
		return School{ID: "short-day", By: fives(day - wait)}
	case style == "overnight" && wait < night-slack:
		return School{ID: "short-overnight", By: fives(night - wait)}
	case style == "overnight" && wait > nightMost:
		return School{ID: "long-overnight", By: fives(wait - 12*time.Hour)}
	}
	return School{}
}
