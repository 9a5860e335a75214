package cut

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/quantity"
)

func TestGeometryAgainstSolids(t *testing.T) {
	// Made of water-like meat so that mass is volume: a 2 L sphere, cylinder, slab.
	solid := func(length, width, rounding float64) Geometry {
		g, err := New(Cut{Length: length, Width: width, Thickness: 1, Rounding: rounding}, 2*1.05, 0)
		require.NoError(t, err)
		return g
	}
	sphere := solid(1, 1, math.Pi/6)
	r := math.Cbrt(3 * 2e-3 / (4 * math.Pi))
	assert.InEpsilon(t, 2*r, float64(sphere.Thickness), 1e-9)
	assert.InEpsilon(t, 4*math.Pi*r*r, sphere.Surface(), 1e-9)

	cylinder := solid(3, 1, math.Pi/4) // as long as three diameters
	r = math.Cbrt(2e-3 / (6 * math.Pi))
	assert.InEpsilon(t, 2*math.Pi*r*6*r+2*math.Pi*r*r, cylinder.Surface(), 1e-9)

	slab := solid(4, 2, 1)
	k := math.Cbrt(2e-3 / 8)
	assert.InEpsilon(t, 2*(8+4+2)*k*k, slab.Surface(), 1e-9)
}

func TestPathKeepsSurfaceToVolume(t *testing.T) {
	for _, c := range All() {
		g, err := New(c, quantity.Mass(c.TypicalKG), 0)
		require.NoError(t, err)
		volume := c.TypicalKG / c.Density()
		for _, bare := range []bool{false, true} {
			p := g.Path(bare)
			assert.InEpsilon(t, g.Seasoned(bare)/volume, (1+p.Shape)/float64(p.Depth), 1e-9, "%s, one bare: %v", c.ID, bare)
		}
	}
}

func TestTwiceTheMassIsNotTwiceAsThick(t *testing.T) {
	for _, c := range All() {
		one, err := New(c, quantity.Mass(c.TypicalKG), 0)
		require.NoError(t, err)
		two, err := New(c, quantity.Mass(2*c.TypicalKG), 0)
		require.NoError(t, err)
		assert.InEpsilon(t, math.Cbrt(2), float64(two.Thickness/one.Thickness), 1e-9, c.ID)

		// A measured thickness keeps the mass: thicker is shorter, with less surface.
		thick, err := New(c, quantity.Mass(c.TypicalKG), one.Thickness*1.2)
		require.NoError(t, err)
		volume := thick.Rounding * float64(thick.Length*thick.Width*thick.Thickness)
		assert.InEpsilon(t, c.TypicalKG/c.Density(), volume, 1e-9, c.ID)
		_, err = New(c, quantity.Mass(c.TypicalKG), one.Thickness*4)
		assert.Error(t, err, c.ID)
	}
}

// Every cut is complete and plausible, and what cooks know of the best-known ones
// comes out.
func TestCuts(t *testing.T) {
	assert.GreaterOrEqual(t, len(All()), 30)
	for _, c := range All() {
		assert.True(t, c.LowKG < c.TypicalKG && c.TypicalKG < c.HighKG, c.ID)
		assert.True(t, c.TrimLoss.Low <= c.TrimLoss.Mid && c.TrimLoss.Mid <= c.TrimLoss.High, c.ID)
		assert.True(t, c.Length >= c.Width && c.Width >= 1 && c.Rounding >= 0.5 && c.Rounding <= 1, c.ID)
		assert.True(t, c.PitC > 90 && c.RestMin > 0 && c.BonePercent < 60, c.ID)
	}
	mm := func(id string) float64 { c, _ := Find(id); return c.TypicalThickness().MM() }
	assert.InDelta(t, 28, mm("pork-spare-ribs-squared"), 5)
	assert.InDelta(t, 65, mm("beef-brisket-packer"), 12)
	assert.InDelta(t, 105, mm("pork-shoulder-bone-in"), 15)
}

// What earlier cooks weighed moves what is served the same way, never to more than all of it, and
// narrows it where it is known well; every cut has places to be probed.
func TestYieldingAndPlaces(t *testing.T) {
	for _, c := range All() {
		more, less, same := c.Yielding(0.1, 0.03), c.Yielding(-0.1, 0.03), c.Yielding(0, 9)
		assert.GreaterOrEqual(t, more.CookYield.Mid, c.CookYield.Mid, c.ID)
		assert.Less(t, less.CookYield.Mid, c.CookYield.Mid, c.ID)
		assert.InDelta(t, c.CookYield.Mid, same.CookYield.Mid, 1e-9, c.ID)
		for _, y := range []Span{more.CookYield, less.CookYield, same.CookYield} {
			assert.True(t, y.Low <= y.Mid && y.Mid <= y.High && y.High <= 99, "%s: %+v", c.ID, y)
			assert.LessOrEqual(t, y.High-y.Low, c.CookYield.High-c.CookYield.Low+1e-9, c.ID)
		}
		require.GreaterOrEqual(t, len(c.Places()), 2, c.ID)
		for _, place := range c.Places() {
			assert.Regexp(t, `^[a-z ]{1,30}$`, place, "it names a probe")
		}
	}
}
