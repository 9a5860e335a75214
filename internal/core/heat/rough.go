package heat

import (
	"math"

	"verjuice/internal/core/thermal"
)

// moves is by how much one standard deviation of each unknown moves the logarithm of the hours
// to any core temperature, averaged over the envelope in docs/models.md: 0.05 is left of the
// 0.31 that an ensemble's hours are spread.
var moves = draw{
	thickness:  0.19,
	pitError:   -0.14,
	convection: -0.12,
	juice:      0.13,
	dryness:    0.014,
	leak:       0.007,
	gapWidth:   0.004,
	conduction: -0.015,
	opening:    0.011,
}

// Rough is what a single run says of a cook, spread as ensembles usually are: for while a cook
// types. It has the hours to done and to each core temperature, and nothing else.
func Rough(c Cook, a Ask) Forecast {
	var once path
	c.follow(&once, draw{}, &Spreads, a.Cores, Longest, nil)
	spread := c.spreads(a)
	all := draws(a.members(), a.Seed, c.Piece)
	factors := make([]float64, len(all))
	for i, d := range all {
		for u, by := range moves {
			if Spreads[u] > 0 {
				factors[i] += by * d[u] * spread[u] / Spreads[u]
			}
		}
		factors[i] = math.Exp(factors[i])
	}
	var out Forecast
	for _, f := range factors {
		out.Hours = append(out.Hours, once.done*f)
	}
	usual := band(factors)
	times := func(h float64) Band {
		out := Band{Low: h * usual.Low, Mid: h * usual.Mid, High: h * usual.High}
		if math.IsInf(h, 1) {
			out.Never = 1
		}
		return out
	}
	out.Done = times(once.done)
	out.Yield = Band{Low: once.yield, Mid: once.yield, High: once.yield}
	for _, h := range once.reach {
		out.Reach = append(out.Reach, times(h))
	}
	for i := range c.Programme.Wraps {
		out.Wraps = append(out.Wraps, times(once.wraps[i]))
	}
	for i := range c.Programme.Visits {
		out.Visits = append(out.Visits, times(once.visits[i].began))
		out.Ends = append(out.Ends, times(once.visits[i].ended))
	}
	return out
}

// To tell one way of cooking from another a coarse grid is enough: 3 % off, and so are both.
const (
	coarseCells = 8
	coarseStep  = 240.0
)

// Alone is the hours to done of a single coarse run, to compare one way of cooking with
// another; infinite when it never is.
func Alone(c Cook) float64 {
	done := math.Inf(1)
	last, lastH := c.Programme.StartC, 0.0
	m, l := Usual, c.known()
	m.PitC, m.Convect = m.PitC+l.PitC, m.Convect*math.Exp(l.HeatLn)
	c.Programme.run(
		thermal.NewBody(c.Cut, c.Geometry, thermal.Defaults),
		m,
		coarseCells,
		coarseStep,
		Longest,
		func(h float64, f *thermal.State, r *fire) bool {
			core := f.Temp[0]
			if c.done(r.now(h, core, f)) {
				done = h
				if !c.Feel && c.Off.None() {
					done = crossing(lastH, last, h, core, c.DoneC)
				}
			}
			last, lastH = core, h
			return math.IsInf(done, 1)
		},
	)
	return done
}
