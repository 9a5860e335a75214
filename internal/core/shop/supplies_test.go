package shop

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// What a day at two pits takes besides food: fuel by the hour, to buy with a quarter over, wraps by
// the piece, and chunks only where the fire is not of wood.
func TestSupplies(t *testing.T) {
	lines := []Wrapped{
		{
			Wrap:  "paper",
			Wood:  "oak",
			Count: 2,
			Mass:  4,
		}, {Wrap: "none", Wood: "fruit", Count: 1, Mass: 2}, {Wrap: "boat", Wood: "none", Count: 3, Mass: 0.9},
	}
	by := map[string]Supply{}
	for _, s := range Supplies([]Burning{{Kind: "kettle", For: 4 * time.Hour}, {Kind: "pellet", For: 10 * time.Hour},
		{Kind: "drum", For: 2 * time.Hour}, {Kind: "oven", For: time.Hour}}, lines) {
		by[s.ID] = s
	}
	assert.InDelta(t, 4*0.45+2*0.5, by["charcoal"].Mass.KG(), 1e-9)
	assert.InDelta(t, 1.25*7, by["pellets"].ToBuy().KG(), 1e-9)
	assert.Equal(
		t,
		[]int{4, 3, 3, 3},
		[]int{by["paper"].Sheets, by["foil"].Sheets, by["wood-oak"].Chunks, by["wood-fruit"].Chunks},
	)
	assert.Len(t, by, 6)
	for _, s := range Supplies([]Burning{{Kind: "offset", For: 8 * time.Hour}}, lines) {
		assert.NotContains(t, s.ID, "wood-", "an offset burns its own")
	}
}
