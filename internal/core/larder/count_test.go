package larder_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/field"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// What is counted has a size, known no better than sizes differ; what is sold in many sizes is asked about, and each
// size that is offered is read.
func TestThingsAreCounted(t *testing.T) {
	for _, try := range []struct {
		id, typed string
		grams     float64
	}{
		{"fresh-onion", "half an onion", 65}, {"fresh-onion", "2 large onions", 390}, {"fresh-onion", "an onion", 130},
		{"fresh-onion", "1 medium onion", 130}, {"fresh-garlic", "3 cloves", 12}, {"fresh-garlic",
			"three cloves of garlic, fresh", 12},
		{"fresh-garlic", "3 or 4 cloves", 14}, {"stock-cube", "2 cubes", 20}, {"bay", "2 bay leaves", 0.6},
		{"lemon-juice", "juice of half a lemon", 22.5}, {"lemon-juice", "the juice of 2 lemons", 90},
		{"cinnamon", "1 stick", 3.5}, {"clove", "4 cloves", 0.32}, {"butter-unsalted", "half a stick", 56.7},
		{"fresh-thyme", "a couple of sprigs", 1.6},
	} {
		one, ok := larder.Find(try.id)
		require.True(t, ok, try.id)
		a, err := one.Amount(try.typed, quantity.USSpoons)
		if assert.NoError(t, err, "%s: %s", try.id, try.typed) {
			assert.InDelta(t, try.grams, a.Of(1).Grams(), try.grams/100, "%s: %s", try.id, try.typed)
		}
	}
	beer, _ := larder.Find("beer")
	_, err := beer.Amount("two bottles", quantity.USSpoons)
	why := field.Wrong{}
	require.ErrorAs(t, err, &why)
	assert.Equal(t, "amount.which-size", why.ID)
	for _, offer := range why.Values["offers"].([]string) {
		a, err := beer.Amount(offer, quantity.USSpoons)
		require.NoError(t, err, offer)
		assert.Greater(t, a.Volume.ML(), 600.0, offer)
	}
	for typed, want := range map[string]string{
		"2 bottles of 500 mL": "500 mL", "a can (330 mL)": "330 mL", "two cans at 12 fl oz each": "12 fl oz",
		"2 bottles": "", "500 mL": "",
	} {
		assert.Equal(t, want, larder.PackSaid(typed), typed)
	}
	beer.Pack = quantity.Amount{Volume: 0.0005} // said before
	a, err := beer.Amount("two bottles", quantity.USSpoons)
	require.NoError(t, err)
	assert.InDelta(t, 1000, a.Volume.ML(), 0.1)
	a, err = beer.Amount("two bottles of 330 mL", quantity.USSpoons)
	require.NoError(t, err)
	assert.InDelta(t, 660, a.Volume.ML(), 0.1, "what is said now counts")
	for id, typed := range map[string]string{"beer": "3 cloves", "fresh-onion": "some onions",
		"fresh-garlic": "cloves and cloves"} {
		one, _ := larder.Find(id)
		_, err := one.Amount(typed, quantity.USSpoons)
		assert.Error(t, err, typed)
	}
	for _, one := range larder.All() {
		for _, c := range one.Counts() {
			a, err := one.Amount("2 "+c.Thing, quantity.USSpoons)
			require.NoError(t, err, "%s %s", one.ID, c.Thing)
			assert.InDelta(t, 2*c.Grams, a.Of(1).Grams(), 0.05*c.Grams, "%s %s", one.ID, c.Thing)
		}
	}
}
