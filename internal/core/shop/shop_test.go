package shop_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/order"
	"verjuice/internal/core/provisions"
	"verjuice/internal/core/shop"
)

// A cost is the sum over what is really in it, also inside another formula; what has
// no price is told.
func TestCostFollowsFormulas(t *testing.T) {
	inner := formula.ReadyMade()[5]
	inner.ID, inner.Rows = "1", inner.Rows[:2]
	k, errs := kitchen.Typed{
		Formulas: map[string]formula.Formula{"1": inner},
		Prices:   map[string]string{"sea-salt": "€4 per kg", "black-pepper": "€30/kg", "apple-juice": "€2.40 for 1 L"},
	}.Read(kitchen.Kitchen{})
	require.Empty(t, errs)
	m, errs := formula.Blend(
		formula.Formula{
			Basis: formula.ByWeight,
			Rows: []formula.Row{
				{Ingredient: "apple-juice", Parts: "500 g"},
				{Formula: "1", Parts: "100 g"},
				{Ingredient: "honey", Parts: "1"},
				{Ingredient: "water", Parts: "99"},
			},
		},
		k,
	)
	require.Empty(t, errs)
	c := shop.CostOf(m, 0.7, k)
	juice := 500 / m.Components[0].Form.GramsPerML * 2.4 / 1000
	assert.InDelta(t, juice+60*0.004+40*0.030, c.Total.Mid, 1e-9)
	assert.Equal(t, "€", c.Sign)
	assert.Equal(t, []string{"honey"}, c.Missing)
	share := 0.0
	for _, l := range m.Leaves() {
		share += l.WeightShare
	}
	assert.InDelta(t, 1, share, 1e-12)
}

// A jar serves what is the same mix, whatever either is called; a rub whose rows were
// changed is not taken from it. What a jar gives is given once.
func TestJarsServeTheSameMixOnly(t *testing.T) {
	rub := formula.ReadyMade()[1]
	p := anycook.Coated("pork-loin", "2 kg")
	p.Season.Formula = rub
	list := func(pieces ...cook.Piece) shop.List {
		jarred := rub
		jarred.Name, jarred.ID = "the blue jar", "7"
		k := kitchen.Kitchen{Jars: []kitchen.Jar{{Formula: jarred, Left: 0.020}}}
		day := anycook.Supper(pieces...)
		r, err := cooking.Work(t.Context(), order.Parse(day, k), nil, k, cooking.Clock{})
		require.NoError(t, err)
		require.Empty(t, r.Mistakes)
		return provisions.List(r)
	}
	one := list(p)
	require.Len(t, one.Jars, 1)
	assert.InDelta(t, 0.020, one.Jars[0].Mass.KG(), 1e-12)
	two := list(p, p)
	taken := 0.0
	for _, j := range two.Jars {
		taken += j.Mass.KG()
	}
	assert.InDelta(t, 0.020, taken, 1e-12)

	edited := p
	edited.Season.Formula.Rows = append([]formula.Row{}, rub.Rows...)
	edited.Season.Formula.Rows[0].Parts = "9"
	assert.Empty(t, list(edited).Jars)
}

// What is in stock is taken off, and only the rest is paid for.
func TestStockIsTakenOff(t *testing.T) {
	k, errs := kitchen.Typed{
		Stock:  map[string]string{"kosher-salt": "10 g", "black-pepper": "1 kg"},
		Prices: map[string]string{"kosher-salt": "€2/kg"},
	}.Read(
		kitchen.Kitchen{},
	)
	require.Empty(t, errs)
	r, err := cooking.Work(
		t.Context(),
		order.Parse(anycook.Supper(anycook.Coated("pork-loin", "2 kg")), k),
		nil,
		k,
		cooking.Clock{},
	)
	require.NoError(t, err)
	for _, item := range provisions.List(r).Groceries {
		switch item.ID {
		case "kosher-salt":
			assert.InDelta(t, item.Need.Grams()-10, item.Buy.Grams(), 1e-9)
			assert.InDelta(t, item.Buy.Grams()*0.002, item.Cost.Value, 1e-12)
		case "black-pepper":
			assert.Zero(t, item.Buy)
		}
	}
}

// A kitchen that cannot be read says where; what it is added to stays as it was.
func TestKitchensAreRead(t *testing.T) {
	base := kitchen.Kitchen{Prices: map[string]larder.Price{}}
	_, errs := kitchen.Typed{
		Ingredients: map[string]larder.Own{
			"own-1": {Name: "x", Salt: "60", Sugar: "60"},
		}, Prices: map[string]string{"a/b": "cheap"}, Stock: map[string]string{"salt": "some"},
	}.Read(base)
	at := []string{}
	for _, e := range errs {
		at = append(at, e.Pointer)
	}
	assert.Equal(t, []string{"/ingredients/own-1/salt", "/prices/a~1b", "/stock/salt"}, at)
	assert.Empty(t, base.Prices)
}
