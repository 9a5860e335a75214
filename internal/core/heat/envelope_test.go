package heat

import (
	"fmt"
	"math"
	"testing"
	"time"

	"verjuice/internal/core/when"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/thermal"
	"verjuice/internal/doctable"
	"verjuice/internal/testclock"
)

// asked is a line of the field envelope: what cooks know of how long a piece takes.
type asked struct {
	name      string
	cut       string
	kg, pit   float64
	wraps     []Wrap
	to        float64 // core, °C; zero: soft
	low, high float64 // hours
}

// atCore, afterHours and spritzed are moves of a programme.
func atCore(c float64) when.When {
	return when.At(when.Cond{CoreC: quantity.Celsius(c)})
}

func afterHours(h float64) when.When {
	return when.At(when.Cond{After: time.Duration(h * float64(time.Hour))})
}

func spritzed(min float64) []Visit {
	return []Visit{{when.Every{Each: time.Duration(min * float64(time.Minute)), From: afterHours(2)}, false, true}}
}

func foil(core float64) []Wrap  { return []Wrap{{Kind: "foil", When: atCore(core)}} }
func paper(core float64) []Wrap { return []Wrap{{Kind: "paper", When: atCore(core)}} }

var envelope = []asked{
	{"packer brisket, papered in the stall", "beef-brisket-packer", 5, 120, paper(74), 95, 9, 13},
	{"packer brisket, foiled in the stall", "beef-brisket-packer", 5, 120, foil(74), 95, 9, 13},
	{"pork shoulder, bare", "pork-shoulder-bone-in", 3.6, 120, nil, 95, 9, 13},
	{"pork shoulder, foiled in the stall", "pork-shoulder-bone-in", 3.6, 120, foil(66), 95, 7, 10},
	{"plate ribs", "beef-plate-ribs", 2.5, 125, nil, 95, 7, 9},
	{"turkey breast", "turkey-breast", 1.5, 135, nil, 71, 2, 3},
	{"chicken halves", "chicken-half", 0.9, 135, nil, 74, 1.5, 2.5},
	{"pink roast of 1 kg", "beef-round", 1, 110, nil, 54, 1.25, 2},
	{
		"squared ribs, foiled after 2½ h",
		"pork-spare-ribs-squared",
		1.2,
		135,
		[]Wrap{{Kind: "foil", When: afterHours(2.5)}},
		0,
		4,
		5,
	},
	{"spare ribs", "pork-spare-ribs", 1.5, 120, nil, 0, 4, 6},
	{"whole chicken at 163 °C", "chicken-whole", 1.8, 163, nil, 74, 1.25, 1.75},
	{"whole chicken at 135 °C", "chicken-whole", 1.8, 135, nil, 74, 2, 2.75},
	{"whole turkey at 163 °C", "turkey-whole", 6, 163, nil, 74, 3, 3.75},
	{"whole turkey at 135 °C", "turkey-whole", 6, 135, nil, 74, 4, 4.75},
	{"top round, pink", "beef-top-round", 2, 135, nil, 54, 1.75, 2.25},
	{"top round, to 63 °C", "beef-top-round", 2, 135, nil, 63, 2.75, 3.5},
	{"tri-tip, pink", "beef-tri-tip", 1.1, 120, nil, 54, 1, 1.5},
}

func (a asked) cook(t testing.TB) Cook {
	c, ok := cut.Find(a.cut)
	require.True(t, ok, a.cut)
	g, err := cut.New(c, quantity.Mass(a.kg), 0)
	require.NoError(t, err)
	return Cook{
		Cut: c, Geometry: g, DoneC: a.to, Feel: a.to == 0,
		Programme: Programme{
			Pit:     pitHeat("cabinet"),
			Steps:   []SetPoint{{0, a.pit}},
			Wraps:   a.wraps,
			Loose:   1,
			StartC:  4,
			Ambient: Ambient{AirC: Mild},
		},
	}
}

// alone is when one member without an ensemble reaches a core temperature, h.
func (c Cook) alone(t testing.TB, to float64, m Member) float64 {
	at, last, lastH := math.Inf(1), c.Programme.StartC, 0.0
	c.Programme.run(
		thermal.NewBody(c.Cut, c.Geometry, thermal.Defaults),
		m,
		thermal.Cells,
		60,
		60,
		func(h float64, f *thermal.State, _ *fire) bool {
			if core := f.Temp[0]; core >= to {
				at = lastH + (h-lastH)*(to-last)/(core-last)
				return false
			}
			last, lastH = f.Temp[0], h
			return true
		},
	)
	require.False(t, math.IsInf(at, 1), "%s never reaches %g °C", c.Cut.ID, to)
	return at
}

// One set of constants meets every line, at the middle of the ensemble. docs/models.md shows
// the same table; VERJUICE_WRITE=1 writes it there.
func TestTheEnvelope(t *testing.T) {
	testclock.Undated(t)
	rows := []string{"| piece | asked, h | middle, h | one in ten below, above |", "|---|---|---|---|"}
	for _, a := range envelope {
		f, err := Of(t.Context(), a.cook(t), Ask{})
		require.NoError(t, err)
		assert.True(
			t,
			a.low <= f.Done.Mid && f.Done.Mid <= a.high,
			"%s: %.2f h, asked %g to %g",
			a.name,
			f.Done.Mid,
			a.low,
			a.high,
		)
		rows = append(
			rows,
			fmt.Sprintf(
				"| %s, %g kg at %g °C | %g–%g | %.1f | %.1f, %.1f |",
				a.name,
				a.kg,
				a.pit,
				a.low,
				a.high,
				f.Done.Mid,
				f.Done.Low,
				f.Done.High,
			),
		)
	}
	doctable.Holds(t, "../../../docs/models.md", rows)
}

// with is the usual member with a change.
func with(change func(m *Member)) Member {
	m := Usual
	change(&m)
	return m
}

// What is asked of single cooks: the share of an unwrapped collagen cut's time that is over at
// 60 °C, a stall that is plain to see, far-off doneness, and what decides most.
func TestTheRestOfTheEnvelope(t *testing.T) {
	hours := func(a asked, to float64, change func(*Cook), m Member) float64 {
		c := a.cook(t)
		if change != nil {
			change(&c)
		}
		return c.alone(t, to, m)
	}
	for _, a := range []asked{envelope[2], envelope[4]} {
		full := hours(a, 95, nil, Usual)
		share := hours(a, 60, nil, Usual) / full
		assert.True(t, 0.33 <= share && share <= 0.45, "%s: 60 °C after %.0f %%", a.name, 100*share)
		// The core takes three times as long for ten degrees of the stall as for ten before.
		before := hours(a, 50, nil, Usual) - hours(a, 40, nil, Usual)
		stall := hours(a, 77, nil, Usual) - hours(a, 67, nil, Usual)
		assert.Greater(t, stall, 2.2*before, a.name)
		f, err := Of(t.Context(), a.cook(t), Ask{})
		require.NoError(t, err)
		at := f.Curve[int(f.Stall.Mid/every)].Core.Mid
		assert.True(t, 63 <= at && at <= 77, "%s: slowest at %.0f °C", a.name, at)
	}
	tri := asked{"tri-tip", "beef-tri-tip", 1.1, 120, nil, 54, 1, 1.5}
	assert.Greater(t, hours(tri, 95, nil, Usual), 4*hours(tri, 54, nil, Usual))
	ribs := envelope[9]
	ribs.to = 92
	assert.Greater(t, hours(ribs, 92, nil, Usual), 3.5, "a rack is not at 92 °C after two hours")

	shoulder := envelope[2]
	usual := hours(shoulder, 95, nil, Usual)
	for _, w := range []struct {
		name      string
		got       float64
		low, high float64
	}{
		{"a thickness one standard deviation up", hours(shoulder, 95, nil,
			with(func(m *Member) { m.Thick = math.Exp(Spreads[thickness]) })), 1.15, 1.26},
		{"a pit 8 °C colder", hours(shoulder, 95, nil, with(func(m *Member) { m.PitC = -8 })), 1.08, 1.26},
		{"opened every hour", hours(shoulder, 95, func(c *Cook) { c.Programme.OpenMin = 60 }, Usual), 1.14, 1.26},
		{"spritzed every 45 minutes", hours(shoulder, 95, func(c *Cook) { c.Programme.Visits = spritzed(45) }, Usual), 1.12,
			1.3},
		{"a fan", hours(shoulder, 95, func(c *Cook) { c.Programme.Pit = pitHeat("pellet") }, Usual), 0.8, 0.9},
		{"a cold, windy, wet day", hours(shoulder, 95, func(c *Cook) { c.Programme.Ambient = Ambient{-5, 6, true} }, Usual),
			1.1, 1.6},
	} {
		assert.True(
			t,
			w.low <= w.got/usual && w.got/usual <= w.high,
			"%s: × %.2f, asked %g to %g",
			w.name,
			w.got/usual,
			w.low,
			w.high,
		)
	}
}

// Served yield of trimmed weight, bone out.
func TestServedYields(t *testing.T) {
	for _, y := range []struct {
		a         asked
		low, high float64
	}{
		{asked{cut: "chicken-whole", kg: 1.8, pit: 163, to: 74}, 0.38, 0.45},
		{asked{cut: "chicken-wing", kg: 0.1, pit: 135, to: 78}, 0.30, 0.38},
		{asked{cut: "pork-spare-ribs", kg: 1.5, pit: 120}, 0.38, 0.46},
		{asked{cut: "pork-small-whole", kg: 12, pit: 120, to: 90}, 0.25, 0.35},
		{asked{cut: "pork-shoulder-bone-in", kg: 3.6, pit: 120, to: 95}, 0.45, 0.55},
		{asked{cut: "beef-brisket-packer", kg: 5, pit: 120, to: 95}, 0.50, 0.58},
	} {
		f, err := Of(t.Context(), y.a.cook(t), Ask{Members: 60})
		require.NoError(t, err)
		assert.True(t, y.low <= f.Yield.Mid && f.Yield.Mid <= y.high, "%s: %.2f", y.a.cut, f.Yield.Mid)
		assert.Less(t, f.Yield.Low, f.Yield.High)
	}
}

// A packer in foil falls from 95 to 60 °C in about 4 h on the counter, 6 in a pit switched
// off and 9 to 13 in a cooler; venting takes about 10 °C off its mean in a quarter of an hour.
func TestTheRest(t *testing.T) {
	packer := func(place string, vent float64) Rest {
		c := envelope[0].cook(t)
		return Rest{Cut: c.Cut, Geometry: c.Geometry, FromC: 95, Wrap: "foil", Place: place, VentMin: vent}
	}
	for place, want := range map[string][2]float64{
		"counter": {3.2, 4.6}, "pit_shut": {4.8, 6.8}, "pit_off": {3.5, 5.2}, "cooler": {9, 13},
	} {
		got := packer(place, 0).Of(20).Floor
		assert.True(t, want[0] <= got.Mid && got.Mid <= want[1], "%s: %.1f h", place, got.Mid)
		assert.True(t, got.Low < got.Mid && got.Mid < got.High)
	}
	// Without foil in a steel pit that was switched off: a packer or a chuck roll of 4 to 6 kg after two hours.
	for place, want := range map[string][2]float64{"pit_off": {66, 81}, "pit_shut": {75, 87}} {
		for _, id := range []string{"beef-brisket-packer", "beef-chuck-roll"} {
			a := asked{cut: id, kg: 5, pit: 115, to: 95}
			c := a.cook(t)
			got := Rest{Cut: c.Cut, Geometry: c.Geometry, FromC: 95, Wrap: "none", Place: place, PlaceC: 115}.Of(20)
			core := got.Curve[24].Core.Mid
			assert.True(t, want[0] <= core && core <= want[1], "%s %s: %.0f °C", a.cut, place, core)
		}
	}
	assert.True(t, math.IsInf(packer("holder", 0).Of(24).Floor.Low, 1), "a holder at 65 °C never lets it fall to 60")
	still, vented := packer("counter", 0), packer("counter", 15)
	means := [2]float64{}
	for i, r := range []Rest{still, vented} {
		f := r.start(thermal.Cells)
		r.cool(&f, 1, 0.25, 60, func(float64) bool { return true })
		means[i] = f.Mean()
	}
	assert.InDelta(t, 10, means[0]-means[1], 4, "venting")
	assert.Less(t, vented.Of(3).Curve[36].Core.Mid, still.Of(3).Curve[36].Core.Mid)
}
