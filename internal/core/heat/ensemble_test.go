package heat

import (
	"context"
	"math"
	"slices"
	"testing"
	"time"

	"gonum.org/v1/gonum/stat"

	"verjuice/internal/core/when"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Member i of every piece on a pit shares the pit's error and its wind; the pieces' own
// unknowns have nothing to do with each other. Each unknown is spread as it says.
func TestPiecesOnOnePitShareItsError(t *testing.T) {
	const n = 400
	a, b := draws(n, 7, 1), draws(n, 7, 2)
	column := func(d []draw, u int) []float64 {
		out := make([]float64, n)
		for i := range d {
			out[i] = d[i][u]
		}
		return out
	}
	for u := range unknowns {
		x, y := column(a, u), column(b, u)
		if u == pitError || u == convection || u == opening || u == setAt {
			assert.Equal(t, x, y)
		} else {
			assert.Less(t, math.Abs(stat.Correlation(x, y, nil)), 0.15, "unknown %d", u)
		}
		assert.InDelta(t, 1, math.Sqrt(stat.Variance(x, nil)), 0.03)
		slices.Sort(x)
		assert.InDelta(t, 0, quantile(x, 0.5), 0.02)
		assert.InDelta(t, 1.2816, quantile(x, 0.9), 0.03)
	}
	assert.NotEqual(t, column(draws(n, 8, 1), pitError), column(a, pitError))
}

// A range is less sure than its middle, and no other: the band of one in ten to nine in ten is wider on both sides.
func TestARangeIsLessSure(t *testing.T) {
	of := func(change func(c *Cook)) Band {
		c := envelope[5].cook(t)
		c.Measured, c.Programme.PitRead = true, []SetPoint{{0, 135}}
		change(&c)
		f, err := Of(t.Context(), c, Ask{Members: 200})
		require.NoError(t, err)
		return f.Done
	}
	one := of(func(*Cook) {})
	for _, wide := range []Band{
		of(func(c *Cook) { c.DoneOff = 6 }),
		of(func(c *Cook) { c.Programme.PitRead, c.PitOff = nil, 14 }),
		of(func(c *Cook) {
			c.Off = when.At(when.Cond{After: time.Duration(one.Mid * float64(time.Hour)), Range: when.Range{Off: 3 * time.Hour}})
		}),
	} {
		assert.InDelta(t, one.Mid, wide.Mid, 0.06*one.Mid)
		assert.Greater(t, (wide.High-wide.Low)/(one.High-one.Low), 1.02)
	}
}

// A piece is done by its core, by its softness, or by both, whichever is later; a hold at 74 °C
// for a night softens as a short peak does.
func TestDoneByCoreByFeelAndByBoth(t *testing.T) {
	done := func(core float64, feel bool, change func(p *Programme)) float64 {
		c := envelope[2].cook(t)
		c.DoneC, c.Feel = core, feel
		change(&c.Programme)
		f, err := Of(t.Context(), c, Ask{Members: 60})
		require.NoError(t, err)
		return f.Done.Mid
	}
	none := func(*Programme) {}
	core, feel, both := done(90, false, none), done(0, true, none), done(90, true, none)
	assert.InDelta(t, max(core, feel), both, 0.5)
	assert.Greater(t, done(95, false, none), core)
	held := done(0, true, func(p *Programme) { p.Steps = []SetPoint{{0, 120}, {6, 82}} })
	assert.True(t, held > feel+2 && held < Longest, "held at a low pit it softens overnight: %.1f h", held)
}

// Unwrapped again it sweats again: slower than one that stays in foil, and its bark comes back.
func TestUnwrapping(t *testing.T) {
	hours := func(wraps []Wrap) float64 {
		c := envelope[2].cook(t)
		c.Programme.Wraps = wraps
		return c.alone(t, 92, Usual)
	}
	assert.Greater(t, hours([]Wrap{{Kind: "foil", When: atCore(66)}, {Kind: "none", When: atCore(75)}}), hours(foil(66)))
	assert.InDelta(
		t,
		hours([]Wrap{{Kind: "foil", When: atCore(66)}}),
		hours([]Wrap{{Kind: "foil", When: when.When{First: when.Cond{CoreC: 66}, Second: afterHours(30).First}}}),
		1e-9,
		"whichever is first",
	)
	assert.Less(t, hours([]Wrap{{Kind: "foil", When: atCore(66), PitC: 150}}), hours(foil(66)))
}

// Whoever asked may stop it.
func TestAForecastCanBeStopped(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	stop()
	_, err := Of(ctx, envelope[0].cook(t), Ask{Readings: []Reading{{AtH: 1, CoreC: 20}}})
	assert.ErrorIs(t, err, context.Canceled)
}

// A rest in the cold is a chill: it ends at the cold, never below, thin pieces sooner; a holder
// ends at what it is at, and never warms a piece above that.
func TestChillingAndHolding(t *testing.T) {
	rest := func(a asked, place string, placeC, from float64) Cooled {
		c := a.cook(t)
		return Rest{Cut: c.Cut, Geometry: c.Geometry, FromC: from, Place: place, PlaceC: placeC, Wrap: "foil"}.Of(30)
	}
	for _, a := range []asked{envelope[0], envelope[9]} {
		cold := rest(a, "counter", 2, 90)
		last := cold.Curve[len(cold.Curve)-1].Core
		assert.True(t, last.Low >= 1.9 && last.High < 25, a.name)
		for i := 1; i < len(cold.Curve); i++ {
			assert.LessOrEqual(t, cold.Curve[i].Core.Mid, cold.Curve[i-1].Core.Mid+1e-6)
			assert.LessOrEqual(t, cold.Curve[i].Core.Low, cold.Curve[i].Core.High+1e-6)
		}
		warm := rest(a, "holder", 66, 90)
		assert.InDelta(t, 66, warm.Curve[len(warm.Curve)-1].Core.Mid, 2.5, a.name)
	}
	assert.Less(
		t,
		rest(envelope[9], "counter", 21, 90).Floor.Mid,
		rest(envelope[0], "counter", 21, 90).Floor.Mid,
		"a rack cools sooner than a packer",
	)
}

// A piece that some members never finish still has the yield of what there is of it, and a
// roast goes on rising after it is off, the more the hotter its pit.
func TestWhatIsLeftAndWhatRises(t *testing.T) {
	low := envelope[2].cook(t)
	low.Programme.Steps = []SetPoint{{0, 100}}
	f, err := Of(t.Context(), low, Ask{Members: 60})
	require.NoError(t, err)
	require.Greater(t, f.Done.Never, 0.1)
	assert.Greater(t, f.Yield.Low, 0.4)
	rises := func(pit float64) float64 {
		c := envelope[7].cook(t)
		c.Programme.Steps = []SetPoint{{0, pit}}
		f, err := Of(t.Context(), c, Ask{Members: 60})
		require.NoError(t, err)
		return f.Carry.Mid
	}
	assert.Greater(t, rises(110), 1.0)
	assert.Greater(t, rises(180), rises(110)+2)
}
