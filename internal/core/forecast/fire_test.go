package forecast

import (
	"context"
	"fmt"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/lasting"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// burn is a piece of a cut at its usual weight, on a pit of that temperature.
func burn(t testing.TB, id string, pit quantity.Celsius) Burn {
	t.Helper()
	c, ok := cut.Find(id)
	require.True(t, ok, id)
	g, err := cut.New(c, quantity.Mass(c.TypicalKG), 0)
	require.NoError(t, err)
	b := Burn{
		Cut:      c,
		Geometry: g,
		StartC:   4,
		RoomC:    21,
		PitC:     pit,
		Core:     quantity.Celsius(c.DoneC()),
		Pit:      "cabinet",
		Piece:    7,
	}
	if c.Family == cut.Rack {
		b.Core = 0
	}
	return b
}

// wrapped is a wrap at a core temperature.
func wrapped(kind string, core quantity.Celsius) []heat.Wrap {
	return []heat.Wrap{{Kind: kind, When: when.At(when.Cond{CoreC: core})}}
}

func settle(t testing.TB, b Burn) Fare {
	t.Helper()
	f, err := Settled{}.Fire(t.Context(), b)
	require.NoError(t, err)
	return f
}

// While a cook types, a single run with the usual spread is near to what the ensemble says, on
// any cut: its middle, its ends, its wrap and the hours to 60 °C.
func TestARoughForecastIsNear(t *testing.T) {
	off, worst := 0.0, 0.0
	n := 0
	for _, c := range cut.All() {
		b := burn(t, c.ID, quantity.Celsius(c.PitC))
		b.Piece = Seed("rough " + c.ID) // never settled by another test
		if c.DoneC() > 80 {
			b.Wraps = wrapped("foil", 71)
		}
		rough, err := Typing{}.Fire(t.Context(), b)
		require.NoError(t, err)
		require.True(t, rough.Rough, c.ID)
		full := settle(t, b)
		assert.False(t, full.Rough)
		d := math.Abs(math.Log(float64(rough.Fire.Mid) / float64(full.Fire.Mid)))
		off += d
		worst = max(worst, d)
		n++
		assert.InEpsilon(t, full.Fire.Mid.Hours(), rough.Fire.Mid.Hours(), 0.12, c.ID)
		assert.InEpsilon(t, full.Fire.Low.Hours(), rough.Fire.Low.Hours(), 0.25, c.ID)
		assert.InEpsilon(t, full.Fire.High.Hours(), rough.Fire.High.Hours(), 0.35, c.ID)
		assert.InDelta(t, full.Warms.Hours(), rough.Warms.Hours(), 0.1+0.1*full.Warms.Hours(), c.ID)
		assert.InDelta(t, full.Yield, rough.Yield, 0.04, c.ID)
		// Once it was run, it is what a page shows while it is typed on.
		kept, err := Typing{}.Fire(t.Context(), b)
		require.NoError(t, err)
		assert.False(t, kept.Rough)
		assert.Equal(t, full.Fire.Span, kept.Fire.Span)
	}
	assert.Less(t, off/float64(n), 0.05, "on average")
	t.Logf("off by %.1f %% on average, %.1f %% at most", 100*off/float64(n), 100*worst)
}

// All that is told of a piece changes its forecast: nothing is taken from another one's.
func TestEveryThingToldCounts(t *testing.T) {
	base := burn(t, "pork-shoulder-bone-in", 120)
	was := settle(t, base)
	thick := base.Geometry
	thick.Thickness, thick.Thickest = 1.1*thick.Thickness, 1.1*thick.Thickest
	for name, one := range map[string]struct {
		change func(b *Burn)
		longer int // 1 takes longer, -1 is quicker, 0 either
	}{
		"hotter pit":      {func(b *Burn) { b.PitC = 135 }, -1},
		"cooler pit":      {func(b *Burn) { b.PitC = 110 }, 1},
		"thicker":         {func(b *Burn) { b.Geometry = thick }, 1},
		"measured":        {func(b *Burn) { b.Geometry.Measured = true }, 0},
		"further":         {func(b *Burn) { b.Core = 97 }, 1},
		"nearer":          {func(b *Burn) { b.Core = 88 }, -1},
		"by feel":         {func(b *Burn) { b.Core = 0 }, 0},
		"foil":            {func(b *Burn) { b.Wraps = wrapped("foil", 66) }, -1},
		"foil later":      {func(b *Burn) { b.Wraps = wrapped("foil", 77) }, 0},
		"paper":           {func(b *Burn) { b.Wraps = wrapped("paper", 66) }, 0},
		"spritzed":        {func(b *Burn) { b.Visits = []heat.Visit{Spritzed(30 * time.Minute)} }, 1},
		"opened":          {func(b *Burn) { b.OpenMin = 60 }, 1},
		"shut":            {func(b *Burn) { b.Shut = true }, 0},
		"cold":            {func(b *Burn) { b.Weather = "cold" }, 1},
		"windy":           {func(b *Burn) { b.Weather = "windy" }, 1},
		"rain":            {func(b *Burn) { b.Weather = "wet" }, 1},
		"a fan":           {func(b *Burn) { b.Pit = "pellet" }, -1},
		"another pit":     {func(b *Burn) { b.Number = 3 }, 0},
		"another piece":   {func(b *Burn) { b.Piece = 8 }, 0},
		"warm from start": {func(b *Burn) { b.StartC = 20 }, -1},
		"tempered":        {func(b *Burn) { b.Temper = 2 * time.Hour }, -1},
	} {
		b := base
		one.change(&b)
		now := settle(t, b)
		assert.NotEqual(t, keyOf(base), keyOf(b), name)
		assert.NotEqual(t, was.Fire.Member(3), now.Fire.Member(3), name)
		switch one.longer {
		case 1:
			assert.Greater(t, now.Fire.Mid, was.Fire.Mid, name)
		case -1:
			assert.Less(t, now.Fire.Mid, was.Fire.Mid, name)
		}
	}
	tight, loose := base, base
	dull, shiny := base, base
	dull.Wraps, dull.Shine = wrapped("foil", 66), "dull"
	shiny.Wraps, shiny.Shine = wrapped("foil", 66), "shiny"
	assert.Less(t, settle(t, dull).Fire.Mid, settle(t, shiny).Fire.Mid)
	tight.Wraps, tight.Tight = wrapped("foil", 66), "tight"
	loose.Wraps, loose.Tight = wrapped("foil", 66), "loose"
	assert.Less(t, settle(t, tight).Fire.Mid, settle(t, loose).Fire.Mid)
}

// What is told narrows the band; pieces on one pit are late together, those on two are not.
func TestWhatIsToldNarrowsAndPitsAreShared(t *testing.T) {
	width := func(change func(b *Burn)) float64 {
		b := burn(t, "pork-shoulder-bone-in", 120)
		b.Pit = ""
		change(&b)
		f := settle(t, b).Fire
		return float64(f.High-f.Low) / float64(f.Mid)
	}
	plain := width(func(*Burn) {})
	assert.Less(t, width(func(b *Burn) { b.Geometry.Measured = true }), 0.95*plain)
	together := func(a, b Burn) float64 {
		x, y := settle(t, a).Fire, settle(t, b).Fire
		late := 0
		for i := range lasting.Members {
			if x.Member(i) > x.Mid && y.Member(i) > y.Mid {
				late++
			}
		}
		return float64(late) / lasting.Members
	}
	one, two := burn(t, "pork-shoulder-bone-in", 120), burn(t, "beef-chuck-roll", 120)
	two.Piece = 99
	shared := together(one, two)
	two.Number = 1
	apart := together(one, two)
	assert.Greater(t, shared, apart+0.03)
	assert.InDelta(t, 0.25, apart, 0.08)
}

// The slowest of unlike pieces is waited for; a time that the cook gave keeps what comes on the
// way at its share.
func TestSlowestAndTyped(t *testing.T) {
	small, big := burn(t, "pork-shoulder-bone-in", 120), burn(t, "pork-shoulder-bone-in", 120)
	g, err := cut.New(big.Cut, 5, 0)
	require.NoError(t, err)
	big.Geometry = g
	all, err := Slowest(t.Context(), Settled{}, []Burn{small, big, small})
	require.NoError(t, err)
	assert.Equal(t, settle(t, big).Fire.Span, all.Fire.Span)
	assert.Equal(t, Alone([]Burn{big}), Alone([]Burn{small, big}))
	foiled := big
	foiled.Wraps = wrapped("foil", 66)
	was := settle(t, foiled)
	typed := was.In(8*time.Hour, "k")
	assert.Equal(t, 8*time.Hour, typed.Fire.Mid)
	assert.InDelta(t, was.Wraps.Mid.Hours()/was.Fire.Mid.Hours(), typed.Wraps.Mid.Hours()/8, 1e-6)
	assert.InDelta(t, was.Warms.Hours()/was.Fire.Mid.Hours(), typed.Warms.Hours()/8, 1e-6)
}

// A piece keeps hot longer in a cooler than on a board, and shorter when it is opened first;
// never longer than it keeps well, and what is taken off pink is not judged by its floor.
func TestHowLongItKeepsHot(t *testing.T) {
	for _, c := range cut.All() {
		b := burn(t, c.ID, 120)
		for _, place := range cut.Rests {
			kept := HoldsIn(b, place, 0)
			assert.LessOrEqual(t, kept, c.HoldsIn(place, b.Geometry.Thickness), "%s %s", c.ID, place)
			assert.GreaterOrEqual(t, kept, HoldsIn(b, place, 15*time.Minute), "%s %s, opened first", c.ID, place)
			assert.Greater(t, kept, time.Duration(0), "%s %s", c.ID, place)
		}
		assert.GreaterOrEqual(t, HoldsIn(b, "cooler", 0), HoldsIn(b, "board", 0), c.ID)
		if c.DoneC() < 70 {
			assert.Equal(t, c.HoldsIn("board", b.Geometry.Thickness), HoldsIn(b, "board", 15*time.Minute), c.ID)
		}
	}
	small, big := burn(t, "chicken-wing", 120), burn(t, "beef-chuck-roll", 120)
	assert.Less(t, HoldsIn(small, "counter", 0), HoldsIn(big, "counter", 0))
}

// A pit that never gets a piece done is endless, not long; a wrap that comes after the end is
// none.
func TestWhatNeverComes(t *testing.T) {
	cool := burn(t, "beef-chuck-roll", 82)
	f := settle(t, cool)
	assert.Equal(t, lasting.Endless, f.Fire.Mid)
	assert.Less(t, f.Fire.Chance(36*time.Hour), 0.1, "only where the dial is far off")
	pink := burn(t, "beef-tri-tip", 120)
	pink.Wraps = wrapped("foil", 71)
	assert.Zero(t, settle(t, pink).Wraps.Mid, "it is off at 55 °C")
	seen, err := See(t.Context(), cool)
	require.NoError(t, err)
	assert.True(t, math.IsInf(seen.Fire.Done.Mid, 1))
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	fresh := burn(t, "lamb-neck", 121)
	_, err = Settled{}.Fire(ctx, fresh)
	assert.ErrorIs(t, err, context.Canceled)
	_, err = See(ctx, fresh)
	assert.ErrorIs(t, err, context.Canceled)
}

// What a fire of a shoulder is for the plan.
func ExampleSettled() {
	c, _ := cut.Find("pork-shoulder-bone-in")
	g, _ := cut.New(c, 3.6, 0)
	f, err := Settled{}.Fire(
		context.Background(),
		Burn{Cut: c, Geometry: g, StartC: 4, RoomC: 21, PitC: 120, Core: 95, Pit: "cabinet"},
	)
	if err != nil {
		panic(err)
	}
	fmt.Println(f.Fire.Mid > 9*time.Hour && f.Fire.Mid < 13*time.Hour)
	// Output: true
}
