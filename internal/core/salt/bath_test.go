package salt

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

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
	at := b.Reach(1, 0.01, 0.012, 0.2)
	assert.InEpsilon(t, 0.01, b.After(at[0], 1).Mean, 0.01)
	assert.InEpsilon(t, 0.012, b.After(at[1], 1).Mean, 0.01)
	assert.Zero(t, at[2], "more than the bath has to give")
	assert.Less(t, b.Reach(1+DiffusivitySpread, 0.01)[0], at[0], "faster is sooner")
	course := b.Course(12*time.Hour, 36*time.Hour)
	assert.InEpsilon(t, b.After(36*time.Hour, 1).Mean, course[1].Mean, 0.002, "one run or two")
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
