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
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/uncertain"
	"verjuice/internal/core/when"
)

// burn is a piece of a cut at its usual weight, on a pit of that temperature.
func input(t testing.TB, id string, pit quantity.Celsius) FireInput {
	t.Helper()
	c, ok := cut.Find(id)
	require.True(t, ok, id)
	g, err := cut.New(c, quantity.Mass(c.TypicalKG), 0)
	require.NoError(t, err)
	b := FireInput{
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

func settle(t testing.TB, b FireInput) FireResult {
	t.Helper()
	f, err := Ensemble{}.Forecast(t.Context(), b)
	require.NoError(t, err)
	return f
}

// While a cook types, a single run with the usual spread is near to what the ensemble says, on
// any cut: its middle, its ends, its wrap and the hours to 60 °C.
func TestARoughForecastIsNear(t *testing.T) {
	off, worst := 0.0, 0.0
	n := 0
	for _, c := range cut.All() {
		b := input(t, c.ID, quantity.Celsius(c.PitC))
		b.Piece = Seed("rough " + c.ID) // never settled by another test
		if c.DoneC() > 80 {
			b.Wraps = wrapped("foil", 71)
		}
		rough, err := WhileTyping{}.Forecast(t.Context(), b)
		require.NoError(t, err)
		require.True(t, rough.Rough, c.ID)
		full := settle(t, b)
		assert.False(t, full.Rough)
		d := math.Abs(math.Log(float64(rough.Takes.Mid) / float64(full.Takes.Mid)))
		off += d
		worst = max(worst, d)
		n++
		assert.InEpsilon(t, full.Takes.Mid.Hours(), rough.Takes.Mid.Hours(), 0.12, c.ID)
		assert.InEpsilon(t, full.Takes.Low.Hours(), rough.Takes.Low.Hours(), 0.25, c.ID)
		assert.InEpsilon(t, full.Takes.High.Hours(), rough.Takes.High.Hours(), 0.35, c.ID)
		assert.InDelta(t, full.Warms.Hours(), rough.Warms.Hours(), 0.1+0.1*full.Warms.Hours(), c.ID)
		assert.InDelta(t, full.Yield, rough.Yield, 0.04, c.ID)
		// Once it was run, it is what a page shows while it is typed on.
		kept, err := WhileTyping{}.Forecast(t.Context(), b)
		require.NoError(t, err)
		assert.False(t, kept.Rough)
		assert.Equal(t, full.Takes.Span, kept.Takes.Span)
	}
	assert.Less(t, off/float64(n), 0.05, "on average")
	t.Logf("off by %.1f %% on average, %.1f %% at most", 100*off/float64(n), 100*worst)
}

// All that is told of a piece changes its forecast: nothing is taken from another one's.
func TestEveryThingToldCounts(t *testing.T) {
	base := input(t, "pork-shoulder-bone-in", 120)
	was := settle(t, base)
	thick := base.Geometry
	thick.Thickness, thick.Thickest = 1.1*thick.Thickness, 1.1*thick.Thickest
	for name, one := range map[string]struct {
		change func(b *FireInput)
		longer int // 1 takes longer, -1 is quicker, 0 either
	}{
		"hotter pit":      {func(b *FireInput) { b.PitC = 135 }, -1},
		"cooler pit":      {func(b *FireInput) { b.PitC = 110 }, 1},
		"thicker":         {func(b *FireInput) { b.Geometry = thick }, 1},
		"measured":        {func(b *FireInput) { b.Geometry.Measured = true }, 0},
		"further":         {func(b *FireInput) { b.Core = 97 }, 1},
		"nearer":          {func(b *FireInput) { b.Core = 88 }, -1},
		"by feel":         {func(b *FireInput) { b.Core = 0 }, 0},
		"foil":            {func(b *FireInput) { b.Wraps = wrapped("foil", 66) }, -1},
		"foil later":      {func(b *FireInput) { b.Wraps = wrapped("foil", 77) }, 0},
		"paper":           {func(b *FireInput) { b.Wraps = wrapped("paper", 66) }, 0},
		"spritzed":        {func(b *FireInput) { b.Visits = []heat.Visit{heat.Spritzed(30 * time.Minute)} }, 1},
		"opened":          {func(b *FireInput) { b.OpenMin = 60 }, 1},
		"shut":            {func(b *FireInput) { b.Shut = true }, 0},
		"cold":            {func(b *FireInput) { b.Weather = "cold" }, 1},
		"windy":           {func(b *FireInput) { b.Weather = "windy" }, 1},
		"rain":            {func(b *FireInput) { b.Weather = "wet" }, 1},
		"a fan":           {func(b *FireInput) { b.Pit = "pellet" }, -1},
		"another pit":     {func(b *FireInput) { b.Number = 3 }, 0},
		"another piece":   {func(b *FireInput) { b.Piece = 8 }, 0},
		"warm from start": {func(b *FireInput) { b.StartC = 20 }, -1},
		"tempered":        {func(b *FireInput) { b.Temper = 2 * time.Hour }, -1},
	} {
		b := base
		one.change(&b)
		now := settle(t, b)
		assert.NotEqual(t, base.Key(), b.Key(), name)
		assert.NotEqual(t, was.Takes.Member(3), now.Takes.Member(3), name)
		switch one.longer {
		case 1:
			assert.Greater(t, now.Takes.Mid, was.Takes.Mid, name)
		case -1:
			assert.Less(t, now.Takes.Mid, was.Takes.Mid, name)
		}
	}
	tight, loose := base, base
	dull, shiny := base, base
	dull.Wraps, dull.Shine = wrapped("foil", 66), "dull"
	shiny.Wraps, shiny.Shine = wrapped("foil", 66), "shiny"
	assert.Less(t, settle(t, dull).Takes.Mid, settle(t, shiny).Takes.Mid)
	tight.Wraps, tight.Tight = wrapped("foil", 66), "tight"
	loose.Wraps, loose.Tight = wrapped("foil", 66), "loose"
	assert.Less(t, settle(t, tight).Takes.Mid, settle(t, loose).Takes.Mid)
}

// What is told narrows the band; pieces on one pit are late together, those on two are not.
func TestWhatIsToldNarrowsAndPitsAreShared(t *testing.T) {
	width := func(change func(b *FireInput)) float64 {
		b := input(t, "pork-shoulder-bone-in", 120)
		b.Pit = ""
		change(&b)
		f := settle(t, b).Takes
		return float64(f.High-f.Low) / float64(f.Mid)
	}
	plain := width(func(*FireInput) {})
	assert.Less(t, width(func(b *FireInput) { b.Geometry.Measured = true }), 0.95*plain)
	together := func(a, b FireInput) float64 {
		x, y := settle(t, a).Takes, settle(t, b).Takes
		late := 0
		for i := range uncertain.Members {
			if x.Member(i) > x.Mid && y.Member(i) > y.Mid {
				late++
			}
		}
		return float64(late) / uncertain.Members
	}
	one, two := input(t, "pork-shoulder-bone-in", 120), input(t, "beef-chuck-roll", 120)
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
	small, big := input(t, "pork-shoulder-bone-in", 120), input(t, "pork-shoulder-bone-in", 120)
	g, err := cut.New(big.Cut, 5, 0)
	require.NoError(t, err)
	big.Geometry = g
	all, err := Slowest(t.Context(), Ensemble{}, []FireInput{small, big, small})
	require.NoError(t, err)
	assert.Equal(t, settle(t, big).Takes.Span, all.Takes.Span)
	assert.Equal(t, Alone([]FireInput{big}), Alone([]FireInput{small, big}))
	foiled := big
	foiled.Wraps = wrapped("foil", 66)
	was := settle(t, foiled)
	typed := was.In(uncertain.Typed(8*time.Hour, "k"))
	assert.Equal(t, 8*time.Hour, typed.Takes.Mid)
	assert.InDelta(t, was.Wraps.Mid.Hours()/was.Takes.Mid.Hours(), typed.Wraps.Mid.Hours()/8, 1e-6)
	assert.InDelta(t, was.Warms.Hours()/was.Takes.Mid.Hours(), typed.Warms.Hours()/8, 1e-6)
}

// A piece keeps hot longer in a cooler than on a board, and shorter when it is opened first;
// never longer than it keeps well, and what is taken off pink is not judged by its floor.
func TestHowLongItKeepsHot(t *testing.T) {
	for _, c := range cut.All() {
		b := input(t, c.ID, 120)
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
	small, big := input(t, "chicken-wing", 120), input(t, "beef-chuck-roll", 120)
	assert.Less(t, HoldsIn(small, "counter", 0), HoldsIn(big, "counter", 0))
}

// A pit that never gets a piece done is endless, not long; a wrap that comes after the end is
// none.
func TestWhatNeverComes(t *testing.T) {
	cool := input(t, "beef-chuck-roll", 82)
	f := settle(t, cool)
	assert.Equal(t, uncertain.Endless, f.Takes.Mid)
	assert.Less(t, f.Takes.Chance(36*time.Hour), 0.1, "only where the dial is far off")
	pink := input(t, "beef-tri-tip", 120)
	pink.Wraps = wrapped("foil", 71)
	assert.Zero(t, settle(t, pink).Wraps.Mid, "it is off at 55 °C")
	seen, err := See(t.Context(), cool)
	require.NoError(t, err)
	assert.True(t, math.IsInf(seen.Fire.Done.Mid, 1))
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	fresh := input(t, "lamb-neck", 121)
	_, err = Ensemble{}.Forecast(ctx, fresh)
	assert.ErrorIs(t, err, context.Canceled)
	_, err = See(ctx, fresh)
	assert.ErrorIs(t, err, context.Canceled)
}

// What a fire of a shoulder is for the plan.
func ExampleEnsemble() {
	c, _ := cut.Find("pork-shoulder-bone-in")
	g, _ := cut.New(c, 3.6, 0)
	f, err := Ensemble{}.Forecast(
		context.Background(),
		FireInput{Cut: c, Geometry: g, StartC: 4, RoomC: 21, PitC: 120, Core: 95, Pit: "cabinet"},
	)
	if err != nil {
		panic(err)
	}
	fmt.Println(f.Takes.Mid > 9*time.Hour && f.Takes.Mid < 13*time.Hour)
	// Output: true
}
