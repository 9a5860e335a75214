package heat

import (
	"math"
	"math/rand/v2"
	"runtime"
	"slices"
	"sync"
)

// The unknowns of a cook, in the order in which members hold them.
const (
	thickness = iota
	pitError
	convection
	juice
	dryness
	leak
	gapWidth
	conduction
	probe
	opening
	collagen
	colour
	doneAt // where it is taken off, of a range
	setAt  // what the pit is set to, of a range
	saidAt // when something is done, of a range
	unknowns
)

// Spreads are how far each unknown is off, in natural logarithms, but for the pit's error
// in °C, the probe's way to the coldest place as a share, and openings of the pit per hour.
// Working figures of the field; a measured thickness is known to a twentieth.
var Spreads = [unknowns]float64{
	thickness: 0.14, pitError: 8, convection: 0.35, juice: 0.35, dryness: 0.9, leak: 1.0, gapWidth: 0.5,
	conduction: 0.06, probe: 0.08, opening: 0.25, collagen: 0.2, colour: 0.25,
}

// Roasts that come off pink are trussed, flat or round, and their time is all made early on.
const pinkThickness, pinkConduction = 0.18, 0.12

// measured is the spread of a thickness that was measured, ln.
const measured = 0.05

// draw is a member in standard deviations.
type draw [unknowns]float64

// draws are n members, spread evenly over each unknown (a Latin hypercube). The pit's own
// unknowns come from the seed alone, so that member i of every piece on a pit shares them.
func draws(n int, seed, piece uint64) []draw {
	out := make([]draw, n)
	common, own := rand.New(rand.NewPCG(seed, 0)), rand.New(rand.NewPCG(seed, piece+1))
	for u := range unknowns {
		r := own
		if u == pitError || u == convection || u == opening || u == setAt {
			r = common
		}
		for i, at := range r.Perm(n) {
			out[i][u] = math.Sqrt2 * math.Erfinv(2*(float64(at)+0.1+0.8*r.Float64())/float64(n)-1)
		}
	}
	return out
}

// within is where a draw lies in a range that was said: it is as likely to be here as there, −1 to 1.
func (d draw) within(u int) float64 {
	return min(math.Sqrt(3), max(-math.Sqrt(3), d[u])) / math.Sqrt(3)
}

// member is what a draw means, with these spreads about what is known of the pit.
func (d draw) member(spread *[unknowns]float64, l Learnt) Member {
	factor := func(u int) float64 { return math.Exp(spread[u] * min(3, max(-3, d[u]))) }
	return Member{
		Thick: factor(thickness),
		PitC: l.PitC + spread[pitError]*min(3, max(-3, d[pitError])) +
			spread[setAt]*d.within(setAt),
		Convect: math.Exp(l.HeatLn) * factor(convection),
		Juice:   factor(juice),
		Dry:     factor(dryness),
		Leak:    factor(leak),
		Gap:     factor(gapWidth),
		Conduct: factor(conduction),
		Opened:  max(0, spread[opening]*d[opening]),
		Tender:  factor(collagen),
		Colour:  factor(colour),
	}
}

// each calls do for every number below n, on all processors.
func each(n int, do func(i int)) {
	workers := min(n, runtime.GOMAXPROCS(0))
	var next sync.Mutex
	at := 0
	var wait sync.WaitGroup
	for range workers {
		wait.Go(func() {
			for {
				next.Lock()
				i := at
				at++
				next.Unlock()
				if i >= n {
					return
				}
				do(i)
			}
		})
	}
	wait.Wait()
}

// Band is where a figure lies: one in ten members below Low, one in ten above High. A
// figure that a member never reaches counts as infinite.
type Band struct {
	Low, Mid, High float64
	Never          float64 // share of the members that never get there
}

// band of values, weighted alike; it sorts them.
func band(values []float64) Band {
	slices.Sort(values)
	return Band{
		Low: quantile(values, 0.1), Mid: quantile(values, 0.5), High: quantile(values, 0.9),
		Never: float64(len(values)-finite(values)) / float64(len(values)),
	}
}

// bandOfThose is the band of the members that get there, as long as half of them do; it sorts values.
func bandOfThose(values []float64) Band {
	out := band(values)
	if n := finite(values); out.Never > 0 && out.Never <= 0.5 {
		got := band(values[:n])
		out.Low, out.Mid, out.High = got.Low, got.Mid, got.High
	}
	return out
}

// finite is how many of sorted values are.
func finite(sorted []float64) int {
	n, _ := slices.BinarySearch(sorted, math.Inf(1))
	return n
}

func quantile(sorted []float64, q float64) float64 {
	at := q * float64(len(sorted)-1)
	i := int(at)
	if i+1 >= len(sorted) || math.IsInf(sorted[i+1], 1) {
		return sorted[i]
	}
	return sorted[i] + (at-float64(i))*(sorted[i+1]-sorted[i])
}
