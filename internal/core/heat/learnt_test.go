package heat

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// onAPit is a shoulder on a cabinet of which something was learnt.
func onAPit(t *testing.T, l Learnt, read ...SetPoint) Forecast {
	t.Helper()
	c, ok := cut.Find("pork-shoulder-bone-in")
	require.True(t, ok)
	g, err := cut.New(c, quantity.Mass(3.6), 0)
	require.NoError(t, err)
	f, err := Of(
		t.Context(),
		Cook{
			Cut:      c,
			Geometry: g,
			DoneC:    93,
			Piece:    3,
			Learnt:   l,
			Programme: Programme{
				Pit:     pitHeat("cabinet"),
				Steps:   []SetPoint{{SetC: 120}},
				Loose:   1,
				StartC:  4,
				Ambient: Ambient{AirC: Mild},
				PitRead: read,
			},
		},
		Ask{Seed: 1},
	)
	require.NoError(t, err)
	return f
}

// A pit that is known to run hot is done sooner, a cool one later, and one whose air gives more heat
// sooner; knowing narrows the band, and nothing learnt changes nothing.
func TestWhatWasLearntMovesTheForecast(t *testing.T) {
	none := onAPit(t, Learnt{})
	hot, cool := onAPit(t, Learnt{PitC: 8, PitSD: 2}), onAPit(t, Learnt{PitC: -8, PitSD: 2})
	assert.Less(t, hot.Done.Mid, none.Done.Mid)
	assert.Greater(t, cool.Done.Mid, none.Done.Mid)
	strong, weak := onAPit(t, Learnt{HeatLn: 0.3, HeatSD: 0.1}), onAPit(t, Learnt{HeatLn: -0.3, HeatSD: 0.1})
	assert.Less(t, strong.Done.Mid, none.Done.Mid)
	assert.Greater(t, weak.Done.Mid, none.Done.Mid)
	width := func(f Forecast) float64 { return math.Log(f.Done.High / f.Done.Low) }
	assert.Less(t, width(onAPit(t, Learnt{PitSD: 1, HeatSD: 0.05})), width(none))
	assert.Equal(t, none, onAPit(t, Learnt{PitSD: 99, HeatSD: 99}), "a lesson that says less than is thought says nothing")
	at := -math.Log(strong.Done.Mid/none.Done.Mid) / 0.3
	assert.InDelta(t, HeatOnHours, at, 0.15, "the hours follow the heat as is said")
}

// What is read of the pit today counts for more than what was learnt of its temperature.
func TestTodayCountsForMore(t *testing.T) {
	read := []SetPoint{{AtH: 0.5, SetC: 126}, {AtH: 1, SetC: 126}, {AtH: 2, SetC: 126}}
	assert.Equal(t, onAPit(t, Learnt{}, read...), onAPit(t, Learnt{PitC: -20, PitSD: 1}, read...))
	assert.NotEqual(t, onAPit(t, Learnt{}, read...), onAPit(t, Learnt{HeatLn: 0.3, HeatSD: 0.1}, read...))
}

// What was read not to be done is not done before.
func TestNotDoneBefore(t *testing.T) {
	none := onAPit(t, Learnt{})
	c, _ := cut.Find("pork-shoulder-bone-in")
	g, err := cut.New(c, quantity.Mass(3.6), 0)
	require.NoError(t, err)
	later := none.Done.High + 1
	f, err := Of(
		t.Context(),
		Cook{
			Cut:      c,
			Geometry: g,
			DoneC:    93,
			Piece:    3,
			UndoneH:  later,
			Programme: Programme{
				Pit:     pitHeat("cabinet"),
				Steps:   []SetPoint{{SetC: 120}},
				Loose:   1,
				StartC:  4,
				Ambient: Ambient{AirC: Mild},
			},
		},
		Ask{Seed: 1},
	)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, f.Done.Low, later-1e-9)
}
