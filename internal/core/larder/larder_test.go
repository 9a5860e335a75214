package larder

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/field"
)

// The larder is whole: everything has an id, a name, a kind, forms that weigh something, and
// parts that make no more than all of it; no two go by one name.
func TestTheLarder(t *testing.T) {
	names := map[string]string{}
	for _, i := range All() {
		found, ok := Find(i.ID)
		require.True(t, ok)
		assert.Equal(t, i, found)
		assert.Contains(t, Kinds, i.Kind, i.ID)
		require.NotEmpty(t, i.Forms, i.ID)
		c := i.Per100g
		sum := c.Sugar + c.Fat + c.Water + c.Acid + c.Starch
		assert.LessOrEqual(t, sum, 100.5, i.ID)
		for _, part := range []float64{c.Salt, c.Sugar, c.Fat, c.Water, c.Acid, c.Nitrite, c.Phosphate, c.Starch} {
			assert.True(t, part >= 0 && part <= 100.5, i.ID)
		}
		for _, f := range i.Forms {
			assert.True(t, f.GramsPerML > 0.1 && f.GramsPerML < 2.5, "%s %s: %g g/mL", i.ID, f.Name, f.GramsPerML)
			assert.True(t, f.SpreadPercent >= 0 && f.SpreadPercent <= 40, i.ID)
			assert.True(t, f.ParticleMM >= 0 && f.ParticleMM < 20, i.ID)
			byName, ok := i.Form(f.Name)
			assert.True(t, ok && byName == f, i.ID)
		}
		first, ok := i.Form("")
		assert.True(t, ok && first == i.Forms[0])
		_, ok = i.Form("shaved")
		assert.False(t, ok)
		for _, name := range append([]string{i.Name}, i.Also...) {
			name = strings.ToLower(name)
			assert.Empty(t, names[name], "%s is also %s", name, i.ID)
			names[name] = i.ID
		}
		if i.Kind == "salt" && !strings.HasPrefix(i.ID, "stock") && i.ID != "celery-salt" {
			assert.Greater(t, c.Salt, 60.0, i.ID)
		}
	}
	// A spoon of fine table salt holds about twice the salt of one of hollow flakes.
	table, _ := Find("table-salt")
	kosher, _ := Find("kosher-salt")
	hollow, ok := kosher.Form("hollow flake")
	require.True(t, ok)
	assert.InDelta(t, 2.1, table.Forms[0].GramsPerML/hollow.GramsPerML, 0.2)
	all := All()
	all[0].Name = "changed"
	assert.NotEqual(t, "changed", All()[0].Name, "the list is the caller's own")
}

// A price is read as it stands on a packet, in any order of sign and number; what is no price
// is refused with its reason.
func TestPrices(t *testing.T) {
	for typed, perKG := range map[string]float64{
		"3.20 for 500 g": 6.4, "€4/kg": 4, "4 €/kg": 4, "2,80 per 1 kg": 2.8, "$5 a pound": 5 / 0.45359237,
		"£1 for 8 oz": 1 / (8 * 0.0283495), "12 / 2 kg": 6, "0 for 1 kg": 0,
	} {
		p, err := ParsePrice(typed)
		require.NoError(t, err, typed)
		assert.InDelta(t, perKG, 1000*p.PerGram(1), 0.01, typed)
	}
	foil, err := PriceOf("foil", "6,90 € for 30 m")
	require.NoError(t, err)
	assert.InDelta(t, 0.23, foil.PerM(), 1e-9)
	for thing, typed := range map[string]string{"foil": "7 for 2 kg", "paper": "7 for 0 m", "charcoal": "7 for 30 m"} {
		_, err := PriceOf(thing, typed)
		require.Error(t, err, thing)
	}
	oil, err := ParsePrice("€9 for 750 mL")
	require.NoError(t, err)
	assert.InDelta(t, 9/(750*0.92), oil.PerGram(0.92), 1e-9)
	assert.Equal(t, "€", oil.Sign)
	for typed, id := range map[string]string{
		"": "price.unreadable", "cheap": "price.unreadable", "4": "price.unreadable", "-4/kg": "price.money",
		"€/kg": "price.money", "1e9/kg": "price.money", "4 for": "", "4 for nothing": "", "4/0 kg": "",
		"dollars and cents 4/kg": "price.money",
	} {
		_, err := ParsePrice(typed)
		require.Error(t, err, typed)
		var why field.Wrong
		if assert.ErrorAs(t, err, &why, typed) && id != "" {
			assert.Equal(t, id, why.ID, typed)
		}
	}
}

// An ingredient of the cook's own is what was typed of it; each mistake is at its field, all of
// them at once.
func TestAnIngredientOfYourOwn(t *testing.T) {
	jar := Own{
		Name:      " The red jar ",
		Salt:      "24 %",
		Sugar:     "30",
		Teaspoon:  "2.4 g",
		Grind:     "medium",
		Allergens: []string{"mustard"},
	}
	i, errs := jar.Ingredient("own-1")
	require.Empty(t, errs)
	assert.Equal(t, "The red jar", i.Name)
	assert.Equal(t, 24.0, i.Per100g.Salt)
	assert.Equal(t, 30.0, i.Per100g.Sugar)
	assert.InDelta(t, 2.4/4.92892, i.Forms[0].GramsPerML, 1e-4)
	assert.Equal(t, []string{"mustard"}, i.Allergens)
	for _, kind := range Kinds {
		plain, errs := Own{Name: "x", Kind: kind}.Ingredient("own-2")
		require.Empty(t, errs, kind)
		assert.Equal(t, kind, plain.Kind)
		assert.Greater(t, plain.Forms[0].GramsPerML, 0.1)
	}
	at := func(o Own) (out []string) {
		_, errs := o.Ingredient("own-3")
		for _, e := range errs {
			out = append(out, e.Pointer)
		}
		slices.Sort(out)
		return out
	}
	assert.Equal(t, []string{"/name"}, at(Own{}))
	assert.Equal(t, []string{"/name"}, at(Own{Name: strings.Repeat("x", 200)}))
	assert.Equal(t, []string{"/kind"}, at(Own{Name: "x", Kind: "stone"}))
	assert.Equal(t, []string{"/grind"}, at(Own{Name: "x", Grind: "boulder"}))
	assert.Equal(t, []string{"/teaspoon"}, at(Own{Name: "x", Teaspoon: "heavy"}))
	assert.Equal(t, []string{"/fat", "/salt", "/sugar"}, at(Own{Name: "x", Salt: "much", Sugar: "-3 %", Fat: "150 %"}))
	assert.NotEmpty(t, at(Own{Name: "x", Salt: "60 %", Sugar: "60 %"}), "more than all of it")
}

// What dissolves leaves no grains for a needle.
func TestWhatDissolves(t *testing.T) {
	for id, does := range map[string]bool{"table-salt": true, "kosher-salt": true, "white-sugar": true,
		"black-pepper": false, "paprika": false, "celery-salt": false} {
		i, ok := Find(id)
		require.True(t, ok, id)
		assert.Equal(t, does, i.Dissolves(), id)
	}
	assert.False(t, math.IsNaN(SaltPerSodium))
	assert.InDelta(t, 58.44/22.99, SaltPerSodium, 0.001)
}
