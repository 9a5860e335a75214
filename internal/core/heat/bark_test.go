package heat

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/thermal"
	"verjuice/internal/core/when"
)

// When a bark has set by the field envelope: ribs and roasts, briskets and shoulders, golden skin, and roasts that
// come off pink before they have one.
func TestBarks(t *testing.T) {
	for _, a := range []asked{
		{"spare ribs", "pork-spare-ribs", 1.5, 120, nil, 0, 2.5, 4},
		{"spare ribs, hot", "pork-spare-ribs", 1.5, 135, nil, 0, 2.2, 4},
		{"plate ribs", "beef-plate-ribs", 2.5, 120, nil, 95, 2.5, 4},
		{"plate ribs, hot", "beef-plate-ribs", 2.5, 135, nil, 95, 2.4, 4},
		{"chuck roast", "beef-chuck-roast", 1.6, 120, nil, 95, 2.5, 4.2},
		{"brisket, low", "beef-brisket-packer", 5, 107, nil, 95, 3, 6},
		{"brisket", "beef-brisket-packer", 5, 120, nil, 95, 3, 6},
		{"shoulder, low", "pork-shoulder-bone-in", 3.6, 107, nil, 95, 3, 6},
		{"shoulder", "pork-shoulder-bone-in", 3.6, 120, nil, 95, 3, 6},
		{"whole chicken", "chicken-whole", 1.8, 135, nil, 74, 1, 2},
		{"whole chicken, hot", "chicken-whole", 1.8, 160, nil, 74, 1, 2},
	} {
		f, err := Of(t.Context(), a.cook(t), Ask{})
		require.NoError(t, err)
		assert.True(t, a.low <= f.Bark.Mid && f.Bark.Mid <= a.high, "%s: %.1f h", a.name, f.Bark.Mid)
	}
	for _, a := range []asked{envelope[7], envelope[14], envelope[16]} {
		f, err := Of(t.Context(), a.cook(t), Ask{})
		require.NoError(t, err)
		assert.Greater(t, f.Bark.Mid, f.Done.Mid, a.name)
	}
}

// A spritz delays a bark, sugar hurries it, and in foil it does not come on.
func TestWhatABarkTakes(t *testing.T) {
	bark := func(change func(p *Programme)) float64 {
		c := envelope[2].cook(t)
		change(&c.Programme)
		_, f := c.Programme.run(c.body(), Usual, memberCells, memberStep, 12, goesOn)
		return f.bark
	}
	plain := bark(func(*Programme) {})
	assert.Greater(t, bark(func(p *Programme) { p.Visits = spritzed(30) }), plain+0.3)
	assert.Less(t, bark(func(p *Programme) { p.Sugar = 0.6 }), plain)
	assert.Greater(t, bark(func(p *Programme) { p.Pit = pitHeat("oven") }), bark(func(p *Programme) {
		p.Pit = pitHeat("oven")
		p.Pit.Smokeless = false
	}))
	assert.True(t, math.IsInf(bark(func(p *Programme) { p.Wraps = []Wrap{{Kind: "foil", When: afterHours(2)}} }), 1))
	paper := bark(func(p *Programme) { p.Wraps = []Wrap{{Kind: "paper", When: afterHours(2)}} })
	assert.True(t, paper > plain && !math.IsInf(paper, 1), "paper breathes: %.1f h", paper)
}

// What was seen of a bark stands: what waits for it begins just then, and not before it was last seen to scratch
// off.
func TestABarkThatWasSeen(t *testing.T) {
	c := envelope[2].cook(t)
	c.Programme.Wraps = []Wrap{{Kind: "foil", When: when.At(when.Cond{Sign: when.Bark})}}
	for _, seen := range []SeenBark{{SetH: 3}, {SetH: 5.5}, {NotH: 6}, {NotH: 4, SetH: 5}} {
		f, err := Of(t.Context(), c, Ask{Bark: seen, Members: 60})
		require.NoError(t, err)
		if seen.SetH > 0 {
			assert.InDelta(t, seen.SetH, f.Wraps[0].Low, 0.1)
			assert.InDelta(t, seen.SetH, f.Wraps[0].High, 0.1)
			continue
		}
		assert.Greater(t, f.Wraps[0].Low, seen.NotH)
	}
}

// A cut is as soft as it should be at its usual end: 0.9 to 1.1 of the index.
func TestTenderAtTheUsualEnd(t *testing.T) {
	for _, c := range cut.All() {
		if c.DoneC() < 85 || c.Family == cut.Rack {
			continue // a rack is off when it is soft
		}
		g, err := cut.New(c, quantity.Mass(c.TypicalKG), 0)
		require.NoError(t, err)
		k := Cook{Cut: c, Geometry: g, DoneC: c.DoneC(), Programme: Programme{
			Pit: pitHeat("cabinet"), Steps: []SetPoint{{0, c.PitC}}, Loose: 1, StartC: 4, Ambient: Ambient{AirC: Mild},
		}}
		if c.Wrap != "none" {
			k.Programme.Wraps = []Wrap{{Kind: c.Wrap, When: atCore(72)}}
		}
		f, err := Of(t.Context(), k, Ask{Members: 60})
		require.NoError(t, err)
		assert.True(t, 0.88 <= f.Soft.Mid && f.Soft.Mid <= 1.12, "%s: %.2f", c.ID, f.Soft.Mid)
	}
}

// A piece that is felt soft when the model has it soft teaches nothing, one that was soft earlier that it softens
// sooner.
func TestWhatFeelingItTells(t *testing.T) {
	c := envelope[9].cook(t)
	soft := 0.0
	c.Programme.run(c.body(), Usual, memberCells, memberStep, 12, func(h float64, f *thermal.State, _ *fire) bool {
		soft = h
		return f.Soft < 1
	})
	assert.InDelta(t, 1, c.SoftAt(nil, soft), 0.05)
	assert.Less(t, c.SoftAt(nil, soft-1), 0.8)
	slow := []Reading{{AtH: 2, CoreC: 50}, {AtH: 4, CoreC: 70}}
	assert.Less(t, c.SoftAt(slow, soft), 0.9, "a core that was read low is not soft yet")
}
