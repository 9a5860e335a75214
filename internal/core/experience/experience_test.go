package experience

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
)

// Usual times on the fire in hours, in round numbers.
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

// A wrap shortens, looking lengthens; a shoulder foiled is in the range of 7–10 h.
func TestWhatTheCookDoesToTheTime(t *testing.T) {
	shoulder, _ := cut.Find("pork-shoulder-bone-in")
	g, err := cut.New(shoulder, 3.6, 0)
	require.NoError(t, err)
	pellet, _ := plan.FindPit("pellet")
	offset, _ := plan.FindPit("offset")
	at := func(b plan.Burn) plan.Span {
		b.Cut, b.Thickness, b.PitC = shoulder, g.Thickness, 120
		return Field{}.Fire(b)
	}
	last := time.Duration(0)
	for _, wrap := range []string{"foil", "pan", "paper", "boat", "none"} {
		mid := at(plan.Burn{Wrap: wrap}).Mid
		assert.Greater(t, mid, last, wrap)
		last = mid
	}
	foil := at(plan.Burn{Wrap: "foil"}).Mid.Hours()
	assert.True(t, foil >= 7 && foil <= 10, "%.1f h", foil)
	assert.Greater(t, at(plan.Burn{Looks: 30}).Mid, at(plan.Burn{}).Mid)
	wide := func(s plan.Span) float64 { return float64(s.High) / float64(s.Low) }
	assert.Greater(t, wide(at(plan.Burn{Pit: offset})), wide(at(plan.Burn{Pit: pellet})))
	core := WarmsIn(at(plan.Burn{}), 120, 95, 60)
	assert.True(t, core.Hours() > 3 && core < at(plan.Burn{}).Mid)
}
