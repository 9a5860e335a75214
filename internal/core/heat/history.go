package heat

import (
	"verjuice/internal/core/cut"
	"verjuice/internal/core/thermal"
)

// Warmth is a piece at one moment of a cook, from its coldest plane to its surface at equal
// steps.
type Warmth struct {
	AtS     float64   // s since it went on
	TempC   []float64 // °C
	Juice   []float64 // lost so far, kg per kg of lean: what evaporated and what ran off
	Dripped float64   // share of all of it that ran off
}

// History follows a cook without errors until it is done, with a moment every five minutes
// from its start.
func (c Cook) History() []Warmth {
	k := thermal.Defaults
	b := thermal.NewBody(c.Cut, c.Geometry, k)
	m := b.Matter(&k)
	start := thermal.NewField(b, thermal.Cells, c.Programme.StartC)
	out := []Warmth{warmth(&start, 0, &m, nil)}
	next := every
	c.Programme.run(b, Usual, thermal.Cells, 60, Longest, func(h float64, f *thermal.State, r *fire) bool {
		done := c.done(r.now(h, f.Temp[0], f))
		if h >= next-1e-9 || done {
			out = append(out, warmth(f, h*3600, &m, out[len(out)-1].Juice))
			next += every
		}
		return !done
	})
	return out
}

// warmth is the moment s seconds in, after one in which so much juice was lost.
func warmth(f *thermal.State, s float64, m *thermal.Matter, lost []float64) Warmth {
	out := Warmth{AtS: s, TempC: make([]float64, f.N+1), Juice: make([]float64, f.N+1)}
	for i := range f.N + 1 {
		// Between the middles of cells, and at the surface itself.
		out.TempC[i] = (f.Temp[max(0, i-1)] + f.Temp[min(f.N-1, i)]) / 2
	}
	out.TempC[f.N] = f.Surface
	all := 0.0
	for i, c := range out.TempC {
		out.Juice[i] = cut.LossAt(c)
		if lost != nil {
			out.Juice[i] = max(out.Juice[i], lost[i])
		}
		if i < f.N {
			all += out.Juice[i] * f.Volume[i] * m.Lean
		}
	}
	if all > 0 {
		out.Dripped = max(0, 1-f.Gone/all)
	}
	return out
}

// SoftAt is the tenderness index so many hours in, of a cook without errors that is held to what was read.
func (c Cook) SoftAt(read []Reading, hour float64) float64 {
	out, later := 0.0, Usual
	var hold *held
	if len(read) > 0 {
		hold = &held{read: thin(read), later: later, needs: 1}
	}
	b := thermal.NewBody(c.Cut, c.Geometry, thermal.Defaults)
	c.Programme.held(b, Usual, memberCells, memberStep, min(hour, Longest), 0, hold,
		func(_ float64, f *thermal.State, _ *fire) bool {
			out = f.Soft
			return true
		})
	return out
}
