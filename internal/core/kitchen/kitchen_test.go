package kitchen_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

func rub(name, pepper string) formula.Formula {
	return formula.Formula{Name: name, Kind: formula.Rub, Basis: formula.ByWeight, Rows: []formula.Row{
		{
			Ingredient: "kosher-salt",
			Form:       "dense flake",
			Parts:      "1",
		}, {Ingredient: "black-pepper", Form: "coarse", Parts: pepper},
	}}
}

// A kitchen that is typed is added to the one there is, which stays as it was; each mistake is
// at its place.
func TestAKitchenIsTyped(t *testing.T) {
	before := kitchen.Kitchen{Stock: map[string]quantity.Amount{"kosher-salt": {Mass: 0.3}}, Stand: "x"}
	typed := kitchen.Typed{
		Formulas:    map[string]formula.Formula{"own-rub": rub("Lock rub", "2")},
		Ingredients: map[string]larder.Own{"own-jar": {Name: "The red jar", Salt: "24 %"}, "own-bad": {Salt: "much"}},
		Prices:      map[string]string{"kosher-salt": "€2.40 for 1 kg", "black-pepper": "dear", "odd/name~": "?"},
		Stock:       map[string]string{"black-pepper": "200 g", "paprika": "some"},
	}
	out, errs := typed.Read(before)
	at := map[string]bool{}
	for _, e := range errs {
		at[e.Pointer] = true
	}
	assert.Equal(
		t,
		map[string]bool{
			"/ingredients/own-bad/name": true,
			"/ingredients/own-bad/salt": true,
			"/prices/black-pepper":      true,
			"/prices/odd~1name~0":       true,
			"/stock/paprika":            true,
		},
		at,
	)
	assert.Equal(t, quantity.Mass(0.3), out.Stock["kosher-salt"].Mass, "what was there is there")
	assert.InDelta(t, 0.2, float64(out.Stock["black-pepper"].Mass), 1e-9)
	assert.InDelta(t, 2.4, 1000*out.Prices["kosher-salt"].PerGram(1), 1e-9)
	_, there := out.Prices["black-pepper"]
	assert.False(t, there, "a mistake is no price")
	assert.Len(t, before.Stock, 1, "the kitchen before is not changed")
	f, ok := out.OwnFormula("own-rub")
	require.True(t, ok)
	assert.Equal(t, "own-rub", f.ID)
	i, ok := out.OwnIngredient("own-jar")
	require.True(t, ok)
	assert.Equal(t, 24.0, i.Per100g.Salt)
	_, ok = kitchen.Kitchen{}.OwnFormula("own-rub")
	assert.False(t, ok)
}

// A jar is one of a mix, whatever it is called, and not of an edited one; a formula is the one
// it came from until its rows change.
func TestJarsAreOfAMix(t *testing.T) {
	k := kitchen.Kitchen{
		Jars: []kitchen.Jar{
			{rub("Lock rub", "2"), 0.2},
			{rub("The same, renamed", "2"), 0.1},
			{rub("Another", "3"), 0.5},
		},
		Formulas: map[string]formula.Formula{"own": rub("Lock rub", "2")},
	}
	assert.InDelta(t, 0.3, float64(k.InJars(rub("x", "2"))), 1e-9)
	assert.True(t, k.HasJar(rub("y", "3")))
	assert.False(t, k.HasJar(rub("z", "4")))
	assert.Zero(t, k.InJars(rub("z", "4")))
	taken := rub("Lock rub", "2")
	taken.ID = "own"
	assert.Equal(t, "own", k.FormulaOf(taken))
	taken.Rows[1].Parts = "2.5"
	assert.Empty(t, k.FormulaOf(taken), "it is edited")
	taken.ID = "nobody"
	assert.Empty(t, k.FormulaOf(taken))
}
