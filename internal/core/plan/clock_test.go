package plan

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// Field experience in round numbers, hours on the fire.
func TestFireTimeAgainstExperience(t *testing.T) {
	for _, c := range []struct {
		id       string
		kg       quantity.Mass
		pit      quantity.Celsius
		low, top float64
	}{
		{"beef-brisket-packer", 5, 120, 9, 13},
		{"pork-shoulder-bone-in", 3.6, 120, 9, 13},
		{"beef-plate-ribs", 2.5, 125, 7, 9},
		{"turkey-breast", 1.5, 135, 2, 3},
		{"chicken-half", 0.9, 135, 1.5, 2.5},
	} {
		k, ok := cut.Find(c.id)
		require.True(t, ok, c.id)
		g, err := cut.New(k, c.kg, 0)
		require.NoError(t, err)
		s := FireTime(k, g.Thickness, c.pit)
		assert.True(t, s.Mid.Hours() >= c.low && s.Mid.Hours() <= c.top, "%s: %v", c.id, s.Mid)
		assert.Greater(t, FireTime(k, g.Thickness*1.2, c.pit).Mid, s.Mid, "thicker is slower")
		assert.Less(t, FireTime(k, g.Thickness, c.pit+20).Mid, s.Mid, "hotter is quicker")
	}
}

func TestCountBackKeepsItsPromises(t *testing.T) {
	dublin, err := time.LoadLocation("Europe/Dublin")
	require.NoError(t, err)
	need := Needs{Fire: Typed(7 * time.Hour), Rest: 45 * time.Minute, Wait: 31 * time.Hour, Temper: 30 * time.Minute, Longest: 72 * time.Hour}
	// An ordinary day, and the two nights on which the clocks change.
	for _, day := range []time.Time{
		time.Date(2026, 11, 28, 18, 30, 0, 0, dublin), time.Date(2026, 10, 25, 12, 0, 0, 0, dublin), time.Date(2027, 3, 28, 12, 0, 0, 0, dublin),
	} {
		need.Serve = day
		c := CountBack(need)
		order := []time.Time{c.NotBefore, c.Salt, c.Out, c.Fire, c.OffEarly, c.Off, c.OffLate, c.Slice, c.Serve}
		for i := 1; i < len(order); i++ {
			assert.False(t, order[i].Before(order[i-1]), "step %d on %v", i, day)
		}
		assert.GreaterOrEqual(t, c.Slice.Sub(c.OffLate), need.Rest, "nine in ten rest as long as asked")
		assert.InDelta(t, need.Wait.Minutes(), c.Fire.Sub(c.Salt).Minutes(), 5, "real hours, whatever the wall clock does")
	}
}

func TestAway(t *testing.T) {
	now := time.Date(2026, 11, 23, 12, 0, 0, 0, time.UTC)
	assert.Equal(t, "in 2 d 4 h", Away(now.Add(52*time.Hour), now))
	assert.Equal(t, "3 h ago", Away(now.Add(-3*time.Hour), now))
	assert.Equal(t, "22 days ago", Away(now.AddDate(0, 0, -22), now))
}
