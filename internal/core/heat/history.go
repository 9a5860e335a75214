package heat

import "verjuice/internal/core/cut"

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
	k := Defaults
	b := NewBody(c.Cut, c.Geometry, k)
	m := b.matter(&k)
	start := newField(b, cells, c.Programme.StartC)
	out := []Warmth{start.warmth(0, &m, nil)}
	next := every
	c.Programme.run(b, Usual, cells, 60, Longest, func(h float64, f *state, _ float64) bool {
		done := (c.DoneC == 0 || f.temp[0] >= c.DoneC) && (!c.Feel || f.soft >= 1)
		if h >= next-1e-9 || done {
			out = append(out, f.warmth(h*3600, &m, out[len(out)-1].Juice))
			next += every
		}
		return !done
	})
	return out
}

// warmth is the moment s seconds in, after one in which so much juice was lost.
func (f *state) warmth(s float64, m *matter, lost []float64) Warmth {
	out := Warmth{AtS: s, TempC: make([]float64, f.n+1), Juice: make([]float64, f.n+1)}
	for i := range f.n + 1 {
		// Between the middles of cells, and at the surface itself.
		out.TempC[i] = (f.temp[max(0, i-1)] + f.temp[min(f.n-1, i)]) / 2
	}
	out.TempC[f.n] = f.surface
	all := 0.0
	for i, c := range out.TempC {
		out.Juice[i] = cut.LossAt(c)
		if lost != nil {
			out.Juice[i] = max(out.Juice[i], lost[i])
		}
		if i < f.n {
			all += out.Juice[i] * f.volume[i] * m.lean
		}
	}
	if all > 0 {
		out.Dripped = max(0, 1-f.gone/all)
	}
	return out
}
