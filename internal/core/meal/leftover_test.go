package meal

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// The first root and its factor are those of the tables for a slab, a long bar and a ball (Incropera,
// table 5.1).
func TestTheFirstTerm(t *testing.T) {
	for _, is := range []struct{ shape, bi, zeta, first float64 }{
		{0, 1, 0.8603, 1.1191}, {1, 1, 1.2558, 1.2071}, {2, 1, 1.5708, 1.2732}, {0, 10, 1.4289, 1.2620},
		{1, 10, 2.1795, 1.5677}, {2, 10, 2.8363, 1.9249}, {0, 0.01, 0.0998, 1.0017}, {2, 0.01, 0.1730, 1.0030},
	} {
		zeta, first := Body{Shape: is.shape}.term(is.bi)
		assert.InDelta(t, is.zeta, zeta, 2e-4, "%+v", is)
		assert.InDelta(t, is.first, first, 2e-4, "%+v", is)
	}
}

// Deeper takes longer, by more than in proportion; a hotter oven, more heat and a rounder piece are
// quicker; from warm it takes less, and from hot nothing.
func TestReheating(t *testing.T) {
	deep := 0.0
	for _, d := range []float64{0.02, 0.03, 0.04, 0.06, 0.1} {
		perM := float64(Body{Deep: d}.Reheat(4, 150)) / d
		assert.Greater(t, perM, deep)
		deep = perM
	}
	tray := Body{Deep: 0.04}
	assert.Less(t, tray.Reheat(4, 180), tray.Reheat(4, 150))
	assert.Less(t, tray.Reheat(30, 150), tray.Reheat(4, 150))
	assert.Less(t, Body{Deep: 0.04, Shape: 1}.Reheat(4, 150), tray.Reheat(4, 150))
	assert.Less(t, Body{Deep: 0.04, Gives: 35}.Reheat(4, 150), tray.Reheat(4, 150))
	assert.Equal(t, tray.Reheat(4, OvenLeastC), tray.Reheat(4, 70))
	assert.Zero(t, tray.Reheat(WarmC, 150))
	assert.Zero(t, Body{}.Reheat(4, 150))
}

// Two hours to 21 °C, four more to 5 °C, from when it was put to cool; and what was late is told.
func TestTheCoolingClock(t *testing.T) {
	cut := time.Date(2026, 11, 28, 19, 0, 0, 0, time.UTC)
	at := func(h float64) time.Time { return cut.Add(time.Duration(h * float64(time.Hour))) }
	l := LeftOf(cut, at(1), time.Time{})
	assert.Equal(t, []time.Time{at(2), at(3), at(7)}, []time.Time{l.Out, l.Cool, l.Cold})
	assert.Equal(t, "2 Dec", l.UseBy.Format("2 Jan"))
	assert.False(t, l.Late)
	assert.True(t, LeftOf(cut, at(2.5), time.Time{}).Late)
	assert.True(t, LeftOf(cut, at(1), at(7.5)).Late)
	assert.False(t, LeftOf(cut, at(1), at(6)).Late)
}

func ExampleBody_Reheat() {
	fmt.Println(Body{Deep: 0.04}.Reheat(4, 150).Round(time.Minute))
	// Output: 50m0s
}
