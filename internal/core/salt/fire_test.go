package salt

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/core/cut"
)

// heldAt is a piece kept at one temperature for so long, with juice let go evenly over the time
// and as much of it dripping as told.
func heldAt(c, hours, juice, dripped float64) []Warmth {
	out := []Warmth{}
	const n = 60
	for k := range n + 1 {
		w := Warmth{AtS: hours * 3600 * float64(k) / n, Dripped: dripped}
		for range 11 {
			w.TempC, w.Juice = append(w.TempC, c), append(w.Juice, juice*float64(k)/n)
		}
		out = append(out, w)
	}
	return out
}

var brined = EndOfWait(
	Brine{Load: 0.5, Path: cut.Path{Depth: 0.04, Shape: 0.5}, Temperature: 4, Wait: 12 * 3600e9},
	1,
).Left()

// At the temperature of the fridge, without juice, a fire is more of the same wait.
func TestAColdFireIsMoreWaiting(t *testing.T) {
	p := cut.Path{Depth: 0.04, Shape: 0.5}
	longer := EndOfWait(Brine{Load: 0.5, Path: p, Temperature: 4, Wait: 36 * 3600e9}, 1)
	got := ThroughFire(brined, p, heldAt(4, 24, 0, 0))
	assert.InEpsilon(t, longer.Mean, got.Mean, 1e-6)
	assert.InEpsilon(t, longer.Outer, got.Outer, 0.01)
	for i := range longer.Profile {
		assert.InDelta(t, longer.Profile[i], got.Profile[i], 0.0003, "at %d", i)
	}
	assert.InEpsilon(t, got.Mean, got.ServedMean, 1e-9)
}

// Salt is conserved: what is in the meat and what went with the juice are what was there; none
// goes without dripping; more drip and more heat take and spread more.
func TestSaltThroughTheFireAddsUp(t *testing.T) {
	p := cut.Path{Depth: 0.04, Shape: 0.5}
	lastLost, lastMiddle := -1.0, -1.0
	for _, dripped := range []float64{0, 0.25, 0.5, 1} {
		got := ThroughFire(brined, p, heldAt(70, 8, 0.25, dripped))
		assert.InEpsilon(t, brined.Mean, got.Mean+got.Lost, 1e-9)
		assert.Greater(t, got.Lost, lastLost)
		lastLost = got.Lost
		assert.Greater(t, got.ServedMean, got.Mean, "water is gone, so what is left is saltier")
	}
	assert.Zero(t, ThroughFire(brined, p, heldAt(70, 8, 0.25, 0)).Lost)
	for _, c := range []float64{4, 30, 60, 90} {
		got := ThroughFire(brined, p, heldAt(c, 8, 0, 0))
		assert.Greater(t, got.Middle, lastMiddle)
		lastMiddle = got.Middle
	}
	assert.False(t, math.IsNaN(lastMiddle))
}
