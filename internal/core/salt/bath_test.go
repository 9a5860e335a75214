package salt

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// loin is a slab of 2 kg in a bath.
func loin(water, salt quantity.Mass) Bath {
	depth := 0.03
	return Bath{Water: water, Salt: salt, Meat: 2, Path: cut.Path{Depth: quantity.Length(depth)}, Temperature: 4}
}

func TestEquilibriumBathEndsAtItsTarget(t *testing.T) {
	for _, water := range []quantity.Mass{0.8, 2, 6} {
		for _, target := range []float64{0.006, 0.01, 0.018} {
			b := loin(water, EquilibriumSalt(2, water, target))
			assert.InEpsilon(t, target, b.AtInfinity(), 1e-12)
			late := b.After(400*24*time.Hour, 1)
			assert.InEpsilon(t, target, late.Mean, 0.001, "mean at infinity")
			assert.InEpsilon(t, target, late.Centre, 0.001, "and everywhere")
			assert.Less(t, b.After(12*time.Hour, 1).Mean, target, "it cannot overshoot")
		}
	}
}

func TestBathAgainstCrank(t *testing.T) {
	b := loin(3, 0.18)
	// Ratio of bath to meat, both counted in what they hold at the same u.
	alpha := (b.Water.KG() / meatWater) / b.Meat.KG()
	for _, hours := range []float64{3, 12, 36, 100} {
		at := time.Duration(hours * float64(time.Hour))
		fo := Diffusivity(4) * at.Seconds() / (0.03 * 0.03)
		assert.InDelta(t, limitedVolume(fo, alpha), b.After(at, 1).Mean/b.AtInfinity(), 0.005, "%g h", hours)
	}
}

func TestBathReachesWhatItIsAskedFor(t *testing.T) {
	b := loin(3, 0.2)
	at, ok := b.Reach(0.01, 1)
	require.True(t, ok)
	assert.InEpsilon(t, 0.01, b.After(at, 1).Mean, 0.01)
	later, _ := b.Reach(0.012, 1)
	assert.Greater(t, later, at)
	sooner, _ := b.Reach(0.01, 1+DiffusivitySpread)
	assert.Less(t, sooner, at)
	_, ok = b.Reach(0.2, 1)
	assert.False(t, ok, "more than the bath has to give")
}

func TestBrineFigures(t *testing.T) {
	for percent, kg := range map[float64]float64{0: 998, 5: 1034, 10: 1071, 20: 1148, 26: 1197} {
		assert.InDelta(t, kg, BrineDensity(percent), 1)
	}
	assert.InDelta(t, 100, Salometer(26.4), 1e-9)
	// Boiling water and ice at −18 °C, half and half, end near 4 °C.
	assert.InDelta(t, 0.51, IceShare(100), 0.01)
	assert.Less(t, IceShare(50), IceShare(100))
	assert.Zero(t, IceShare(4))
}

func TestPocketsSpread(t *testing.T) {
	i := Injected{Spacing: 0.025, Share: 0.1, Temperature: 4}
	assert.Less(t, i.Evenness(4*time.Hour, 1), 0.05, "pockets for a long time")
	assert.Greater(t, i.Evenness(36*time.Hour, 1), i.Evenness(12*time.Hour, 1))
	tight := i
	tight.Spacing = 0.015
	assert.Greater(t, tight.Evenness(12*time.Hour, 1), i.Evenness(12*time.Hour, 1), "a closer grid is evener")
	assert.InDelta(t, 1, i.Evenness(60*24*time.Hour, 1), 0.01)
}
