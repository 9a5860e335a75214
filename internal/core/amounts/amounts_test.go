package amounts_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/amounts"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// Half a cup of pepper and a quarter cup of table salt, as mixed.
var halfCup = formula.Formula{Name: "salt and pepper", Basis: formula.ByVolume, Rows: []formula.Row{
	{Ingredient: "black-pepper", Form: "coarse", Parts: "1/2 cup"}, {Ingredient: "table-salt", Parts: "1/4 cup"}}}

func blend(t *testing.T, f formula.Formula) formula.Mix {
	t.Helper()
	mix, wrong := formula.Blend(f, nil)
	require.Empty(t, wrong)
	return mix
}

// Every way to say an amount, on three racks of 1 kg: what lands on one, in grams.
func TestWaysToSayAnAmount(t *testing.T) {
	mix := blend(t, halfCup)
	all := 0.5*100.8 + 0.25*288 // g, by the larder's spoons: 2.1 g and 6.0 g a teaspoon
	assert.InDelta(t, all, mix.Measured, 1e-9)
	jar := kitchen.Kitchen{Jars: []kitchen.Jar{{Formula: halfCup, Left: 0.3}}}
	r := amounts.Reader{Kitchen: jar}
	racks := dose.Target{Meat: salt.Piece{Green: 1, Yield: quantity.Exactly(0.6)}, Count: 3}
	spoon := quantity.USSpoons.Tablespoon().ML() * mix.GramsPerML
	for typed, grams := range map[string]float64{
		"90 g": 30, "90 g in all": 30, "90 g over six racks": 30, "30 g each": 30, "30 g apiece": 30, "30 g a piece": 30,
		"1 oz each": 28.3495,
		"3 Tbsp":    spoon, "1 Tbsp each": spoon, "2 %": 20,
		"1 Tbsp/lb": spoon / 0.45359237, "1 Tbsp a pound": spoon / 0.45359237, "1 Tbsp per lb": spoon / 0.45359237,
		"12 g/kg": 12, "12 g a kilo": 12,
		"all of it": all / 3, "all": all / 3, "use what I mixed": all / 3, "the whole batch": all / 3,
		"this batch over three racks": all / 3, "everything": all / 3,
		"half of it": all / 6, "half the batch": all / 6, "1/2 of the batch": all / 6, "two thirds of it": all * 2 / 9,
		"¼ of it": all / 12,
		"one jar": 100, "the jar": 100, "half a jar": 50, "half the jar": 50, "a quarter of the jar": 25,
	} {
		got, err := r.Amount(typed, amounts.Batch{Formula: halfCup, Mix: mix}, false)
		if assert.NoError(t, err, typed) {
			assert.InDelta(t, grams, got.One(racks).Grams(), 1e-3, typed)
			assert.True(t, got.Given() && got.Off > 0 && got.Off < 0.15, typed)
		}
	}
	// What was weighed is the batch, and known to a scale's part.
	got, err := r.Amount("all of it", amounts.Batch{Formula: halfCup, Mix: mix, Weighed: []float64{60, 58}}, false)
	require.NoError(t, err)
	assert.InDelta(t, 118, got.One(racks).Grams()*3, 1e-9)
	assert.Equal(t, dose.ScaleOff, got.Off)
	// A layer's amount is for each piece unless it says otherwise.
	for typed, grams := range map[string]float64{"30 g": 30, "30 g each": 30, "30 g in all": 10} {
		got, err := r.Amount(typed, amounts.Batch{Formula: halfCup, Mix: mix}, true)
		require.NoError(t, err, typed)
		assert.InDelta(t, grams, got.One(racks).Grams(), 1e-9, typed)
	}
	// A range is its middle, and known no better than its ends.
	exact, err := r.Amount("30 g", amounts.Batch{Formula: halfCup, Mix: mix}, false)
	require.NoError(t, err)
	between, err := r.Amount("20 to 40 g", amounts.Batch{Formula: halfCup, Mix: mix}, false)
	require.NoError(t, err)
	assert.Equal(t, exact.One(racks), between.One(racks))
	assert.InDelta(t, 1.0/3, between.Off, 0.01)
	// What nobody measured is a wide range, for each piece; a share without a number is one, too.
	for typed, want := range map[string][2]float64{
		"a pinch": {0.3, 0.5}, "a little": {8, 0.6}, "some": {8, 0.6}, "to taste": {10, 0.7}, "a handful": {40, 0.5},
		"a pinch each": {0.3, 0.5},
	} {
		got, err := r.Amount(typed, amounts.Batch{Formula: halfCup, Mix: mix}, false)
		require.NoError(t, err, typed)
		assert.InDelta(t, want[0]*mix.GramsPerML, got.Each.Grams(), 1e-6, typed)
		assert.InDelta(t, want[1], got.Off, 1e-9, typed)
	}
	for typed, share := range map[string]float64{
		"all that I mixed": 1, "all I mixed": 1, "everything I mixed": 1, "all of what we made": 1,
		"most of it": 0.8, "most of the mix": 0.8,
		"nearly all of it": 0.93, "almost all": 0.93, "less than half of it": 0.4,
	} {
		got, err := r.Amount(typed, amounts.Batch{Formula: halfCup, Mix: mix}, false)
		if assert.NoError(t, err, typed) {
			assert.InDelta(t, share*all, got.All.Grams(), 1e-6, typed)
			assert.True(t, share == 1 || got.Off >= 0.06, typed)
		}
	}
	for typed, want := range map[string]float64{
		"1 Tbsp per rack": spoon, "2 Tbsp a bird": 2 * spoon, "a scant 1/4 cup": 3.6 * spoon / 3,
		"a generous half cup": 8.8 * spoon / 3,
		"a tsp or two":        spoon / 6,
	} {
		got, err := r.Amount(typed, amounts.Batch{Formula: halfCup, Mix: mix}, false)
		if assert.NoError(t, err, typed) {
			assert.InDelta(t, want, got.One(racks).Grams(), 0.02*want, typed)
		}
	}
	parts := formula.ReadyMade()[0]
	for typed, id := range map[string]string{"": "quantity.missing", "lots": "quantity.unreadable",
		"3": "quantity.no-unit", "2 handfuls": "quantity.how-much-is-one", "all of it": "amount.no-batch",
		"one jar": "amount.no-jar", "2-1 Tbsp": "quantity.range"} {
		_, err := amounts.Reader{}.Amount(typed, amounts.Batch{Formula: parts, Mix: blend(t, parts)}, false)
		var why field.Wrong
		if assert.ErrorAs(t, err, &why, typed) {
			assert.Equal(t, id, why.ID, typed)
		}
	}
}

// The salt of a bath as a recipe says it: grams in ten litres, and the liquid that the
// recipe names.
func TestABathsRecipe(t *testing.T) {
	gallon := 3.785412
	for typed, want := range map[string]struct{ grams, litres float64 }{
		"250 g": {250, 0}, "60 g/L": {600, 0}, "60 g a litre": {600, 0}, "60 g per litre": {600, 0}, "none": {0, 0},
		"0 g": {0, 0}, "no salt": {0, 0},
		"1 cup table salt in 1 1/4 gal":            {288 / (1.25 * gallon) * 10, 1.25 * gallon},
		"1 cup hollow flake kosher salt in 1¼ gal": {134.4 / (1.25 * gallon) * 10, 1.25 * gallon},
		"1 cup dense flake kosher salt per gallon": {230.4 / gallon * 10, 0},
		"1/2 cup fine sea salt to 2 quarts":        {132 / (0.5 * gallon) * 10, 0.5 * gallon},
		"200 g kosher salt in 4 L":                 {500, 4},
		"half a cup of table salt":                 {144, 0},
		"1 cup coarse sea salt in 8 L of water":    {300, 8},
		"1 cup salt in 1 gal":                      {0, -1}, "1 cup kosher salt in 5 L": {0, -1}, "a handful": {0, -1},
		"salty": {0, -1},
	} {
		got, given, err := amounts.Reader{}.Recipe(typed)
		if want.litres < 0 {
			assert.Error(t, err, typed)
			continue
		}
		if assert.NoError(t, err, typed) {
			assert.InDelta(t, want.grams, 1000*(got.Mass.KG()+got.PerCube*0.01), 0.5, typed)
			assert.InDelta(t, want.litres, float64(given)*1000, 1e-3, typed)
		}
	}
	_, _, err := amounts.Reader{}.Recipe("1 cup kosher salt in 5 L")
	var why field.Wrong
	require.ErrorAs(t, err, &why)
	assert.Equal(t, "bath.which-salt", why.ID)
	offers := why.Values["offers"].([]string)
	assert.Contains(t, offers, "1 cup hollow flake kosher salt in 5 L")
	for _, offer := range offers {
		_, _, err := amounts.Reader{}.Recipe(offer)
		assert.NoError(t, err, offer)
	}
}
