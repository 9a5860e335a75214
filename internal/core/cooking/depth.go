package cooking

import (
	"time"

	"verjuice/internal/core/order"
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
	School  salt.School
}

// brineInputs are what went into the figures of the dry brine.
func (s *subject) brineInputs(b brought) []any {
	brine := s.brine(b)
	return []any{
		"salt_on_surface", trace.Number{Value: 1000 * brine.Load, Unit: "g/m²"}, "wait", s.on.Wait, "temperature",
		brine.Temperature,
		"way_in", brine.Path.Depth, "diffusivity", trace.Number{Value: salt.Diffusivity(brine.Temperature) * 1e10,
			Decimals: 1},
	}
}

// depth is where the salt of the rub gets in its time.
func (s *subject) depth(b brought, c salt.Course) *Depth {
	brine := s.brine(b)
	inputs := s.brineInputs(b)
	slow, fast := salt.EndOfWait(brine, 1-salt.DiffusivitySpread), salt.EndOfWait(brine, 1+salt.DiffusivitySpread)
	wait := s.move(order.Wait)
	minutes := c.TakenUp.Minutes()
	percent := func(m salt.Moment) float64 { return 100 * m.Evenness() }
	return &Depth{
		Course:  c,
		Brine:   brine,
		OneBare: s.meat.OneBare,
		Across:  s.meat.Geometry.Thickness,
		Wait:    s.on.Wait,
		Asked:   s.asked,
		Open:    wait.Open,
		Style:   wait.Style,
		Noun:    s.meat.Cut.Noun,
		Depth: trace.New(
			"depth.depth",
			quantity.Range[float64]{Low: float64(slow.Depth), Mid: float64(c.End.Depth), High: float64(fast.Depth)},
			inputs...),
		TakenUp: trace.New("depth.taken-up", quantity.Range[float64]{
			Low: minutes / (1 + salt.DiffusivitySpread), Mid: minutes, High: minutes / (1 - salt.DiffusivitySpread)}, inputs...),
		Even: trace.New(
			"depth.even",
			quantity.Range[float64]{Low: percent(slow), Mid: percent(c.End), High: percent(fast)},
			inputs...),
		Surface: salt.SurfaceAt(s.on.Wait, c.TakenUp, brine.Load, wait.Open),
		School:  salt.SchoolOf(wait.Style, s.on.Wait, c.TakenUp),
	}
}
