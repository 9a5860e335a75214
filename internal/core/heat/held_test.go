package heat

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Of any cook that was read, whatever was read: the curve goes through what was read and has no jump there,
// nothing above the last reading was reached before it, no wrap that waits for a core was put on before the
// core was there, and every range has its ends in order.
func TestAForecastKeepsToWhatWasRead(t *testing.T) {
	r := rand.New(rand.NewPCG(28, 1))
	for range 25 {
		c := anyCook(t, r)
		a := Ask{Cores: []float64{45, 60, 75, 90}, Members: 60, Seed: r.Uint64()}
		free, err := Of(t.Context(), c, a)
		require.NoError(t, err)
		pace := 0.6 + 0.8*r.Float64()
		for h := 0.5 + r.Float64(); len(free.Curve) > int(h/every)+2 && len(a.Readings) < 8; h += 0.4 + r.Float64() {
			a.Readings = append(a.Readings, Reading{AtH: h * pace, CoreC: free.Curve[int(h/every)].Core.Mid})
		}
		if len(a.Readings) == 0 {
			continue
		}
		last := a.Readings[len(a.Readings)-1]
		f, err := Of(t.Context(), c, a)
		require.NoError(t, err)
		for _, read := range a.Readings {
			if i := int(read.AtH / every); i+1 < len(f.Curve) {
				a, b := f.Curve[i], f.Curve[i+1]
				at := a.Core.Mid + (b.Core.Mid-a.Core.Mid)*(read.AtH-a.H)/every
				assert.InDelta(t, read.CoreC, at, 3, "%s after %.1f h", c.Cut.ID, read.AtH)
			}
		}
		for i := 2; i < len(f.Curve); i++ {
			rise := func(i int) float64 { return f.Curve[i].Core.Mid - f.Curve[i-1].Core.Mid }
			assert.Less(t, math.Abs(rise(i)-rise(i-1)), 5.0, "%s jumps after %.1f h", c.Cut.ID, f.Curve[i].H)
		}
		for i, want := range a.Cores {
			if want > last.CoreC+4*probeC {
				assert.GreaterOrEqual(t, f.Reach[i].Low, last.AtH-1e-9, "%s: %g °C", c.Cut.ID, want)
			}
		}
		for i, w := range c.Programme.Wraps {
			if at := float64(w.When.First.CoreC); at > last.CoreC+4*probeC {
				assert.GreaterOrEqual(t, f.Wraps[i].Low, last.AtH-1e-9, "%s: wrapped before it reads %g °C", c.Cut.ID, at)
			}
		}
		for _, b := range append([]Band{f.Done, f.Bark, f.Stall}, f.Reach...) {
			assert.True(t, b.Low <= b.Mid && b.Mid <= b.High)
		}
	}
}

// What was put on stays on, whatever is read afterwards; what waits for a core comes off the member again
// that had put it on too early.
func TestWrapsThatCameTooEarly(t *testing.T) {
	c := envelope[2].cook(t)
	ask := Ask{Members: 60, Readings: []Reading{{AtH: 7, CoreC: 55}}}
	c.Programme.Wraps = foil(60)
	f, err := Of(t.Context(), c, ask)
	require.NoError(t, err)
	assert.Greater(t, f.Wraps[0].Low, 6.9)
	c.Programme.Wraps = []Wrap{{Kind: "foil", When: afterHours(3)}}
	f, err = Of(t.Context(), c, ask)
	require.NoError(t, err)
	assert.InDelta(t, 3, f.Wraps[0].High, 0.1)
}

// A hundred readings of one probe say little more than a dozen, one by eye less than one of a probe, and what is
// left to guess after any is no less than the pace of what remains.
func TestWhatReadingsAreWorth(t *testing.T) {
	c := envelope[2].cook(t)
	free, err := Of(t.Context(), c, Ask{})
	require.NoError(t, err)
	width := func(step float64, eye bool) float64 {
		a := Ask{}
		for h := 4 - step*math.Floor(3/step); h < 4+1e-9; h += step {
			a.Readings = append(a.Readings, Reading{AtH: h, CoreC: free.Curve[int(h/every)].Core.Mid, ByEye: eye})
		}
		f, err := Of(t.Context(), c, a)
		require.NoError(t, err)
		return f.Done.High - f.Done.Low
	}
	many, few := width(0.03, false), width(0.3, false)
	assert.InEpsilon(t, few, many, 0.25)
	assert.Less(t, width(3, false), width(3, true))
	assert.Greater(t, many, 2*1.28*needsN*(free.Done.Mid-4)*0.8)
	assert.Less(t, many, free.Done.High-free.Done.Low)
}
