package heat

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat"
)

// Narrowing is something that a cook could measure or tell, and what it would take off the
// band of the time to done.
type Narrowing struct {
	What  string  // thickness, grate, pit, openings, wrap or reading
	Hours float64 // less between the lower and the upper end
}

// known is how far an unknown is still off, as a share of now, once it was measured or told.
var known = []struct {
	what string
	of   map[int]float64
}{
	{"thickness", map[int]float64{thickness: measured / Spreads[thickness]}},
	{"grate", map[int]float64{pitError: 3.0 / 8}},
	{"pit", map[int]float64{convection: 0.6}},
	{"openings", map[int]float64{opening: 0}},
	{"wrap", map[int]float64{leak: tighter, gapWidth: 0.7}},
}

// tighter is what is left to guess of a wrap's leak when its tightness was told.
const tighter = 0.5

// firstReadingH is when a first reading would be taken, h.
const firstReadingH = 2.0

// narrow says what would take most off the band. How much of the spread of the logarithm of
// the hours each unknown explains is a regression on the members.
func (c Cook) narrow(all []draw, paths []path, a Ask, done Band) []Narrowing {
	hours, rows, at := []float64{}, []float64{}, []float64{}
	for j := range paths {
		if !math.IsInf(paths[j].done, 1) && paths[j].done > 0 {
			hours = append(hours, math.Log(paths[j].done))
			rows = append(append(rows, 1), all[j][:]...)
			at = append(at, paths[j].read(firstReadingH))
		}
	}
	n := len(hours)
	width := done.High - done.Low
	if n < 4*unknowns || math.IsInf(width, 1) {
		return nil
	}
	total := stat.Variance(hours, nil)
	var slope mat.Dense
	if slope.Solve(mat.NewDense(n, 1+unknowns, rows), mat.NewDense(n, 1, slices.Clone(hours))) != nil || total == 0 {
		return nil
	}
	less := func(explained float64) float64 { return width * (1 - math.Sqrt(1-min(0.99, explained))) }
	var out []Narrowing
	for _, k := range known {
		if k.what == "thickness" && c.Measured || k.what == "wrap" && (a.Tightness || len(c.Programme.Wraps) == 0) ||
			k.what == "pit" && a.KnowsPit ||
			k.what == "openings" && (c.Programme.OpenMin > 0 || a.KnowsLid) {
			continue
		}
		explained := 0.0
		for u, left := range k.of {
			column := make([]float64, n)
			for j := range n {
				column[j] = rows[j*(1+unknowns)+1+u]
			}
			b := slope.At(1+u, 0)
			explained += b * b * stat.Variance(column, nil) / total * (1 - left*left)
		}
		out = append(out, Narrowing{k.what, less(explained)})
	}
	if len(a.Readings) == 0 && done.Low > firstReadingH {
		// What remains after a reading has a spread of its own, which no reading takes away.
		r, own := stat.Correlation(at, hours, nil), needsN*(1-firstReadingH/done.Mid)
		out = append(out, Narrowing{"reading", less(max(0, r*r-own*own/total))})
	}
	slices.SortFunc(out, func(a, b Narrowing) int {
		return cmp.Or(cmp.Compare(b.Hours, a.Hours), cmp.Compare(a.What, b.What))
	})
	return out
}
