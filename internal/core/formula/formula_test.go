package formula

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/field"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

func mixed(t *testing.T, f Formula) Mix {
	t.Helper()
	m, errs := Blend(f, nil)
	require.Empty(t, errs)
	return m
}

// own is a cook's own formulas and ingredients.
type own struct {
	formulas    map[string]Formula
	ingredients map[string]larder.Ingredient
}

func (o own) OwnFormula(id string) (Formula, bool) { f, ok := o.formulas[id]; return f, ok }

func (o own) Pack(string) quantity.Amount { return quantity.Amount{} }

func (o own) OwnIngredient(id string) (larder.Ingredient, bool) {
	i, ok := o.ingredients[id]
	return i, ok
}

// random makes a formula from any ingredients in any form.
func random(r *rand.Rand) Formula {
	shelf := larder.All()
	f := Formula{Name: "any", Basis: []Basis{ByVolume, ByWeight}[r.IntN(2)]}
	for range 1 + r.IntN(8) {
		ing := shelf[r.IntN(len(shelf))]
		form := ing.Forms[r.IntN(len(ing.Forms))]
		f.Rows = append(
			f.Rows,
			Row{Ingredient: ing.ID, Form: form.Name, Parts: quantity.Number(0.25 + float64(r.IntN(40))/4)},
		)
	}
	return f
}

func TestWeighingConservesGramsAndParts(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 300 {
		f := random(r)
		m := mixed(t, f)
		total := quantity.Mass(0.001 + r.Float64())
		sum, salt := 0.0, 0.0
		rows := m.Weigh(total)
		for i, w := range rows {
			sum += w.Mass.Grams()
			salt += w.Mass.Grams() * w.Ingredient.Per100g.Salt / 100
			// The typed proportion is kept in the basis it was typed in.
			a, _ := quantity.ParseParts(f.Rows[i].Parts)
			b, _ := quantity.ParseParts(f.Rows[0].Parts)
			if f.Basis == ByVolume {
				assert.InEpsilon(t, a/b, float64(w.Volume/rows[0].Volume), 1e-9)
			} else {
				assert.InEpsilon(t, a/b, float64(w.Mass/rows[0].Mass), 1e-9)
			}
		}
		assert.InEpsilon(t, total.Grams(), sum, 1e-9)
		assert.InDelta(t, total.Grams()*m.SaltShare(), salt, 1e-9)
		// Coat and mass are inverse.
		assert.InEpsilon(t, 4.0, m.CoatOf(m.CoatMass(4, 0.2), 0.2), 1e-9)
	}
}

// The schools as a scale sees them, from the spoon weights of 4.8 g for dense
// flake and 2.1 g for coarse pepper.
func TestSchoolsByWeight(t *testing.T) {
	want := map[string]float64{
		"equal-parts":    4.8 / (4.8 + 2.1),
		"pepper-forward": 2 * 4.8 / (2*4.8 + 3*2.1),
		"pepper-heavy":   4.8 / (4.8 + 2*2.1),
	}
	found := 0
	for _, f := range ReadyMade() {
		m := mixed(t, f)
		if share, ok := want[f.ID]; ok {
			found++
			assert.InDelta(t, share, m.Components[0].WeightShare, 1e-9, f.ID)
		}
	}
	assert.Equal(t, len(want), found)
	assert.Len(t, ReadyMade(), 7)
}

func TestCrystalChangesVolumeFormulasOnly(t *testing.T) {
	fine := Formula{
		Basis: ByVolume,
		Rows: []Row{
			{Ingredient: "table-salt", Form: "fine", Parts: "1"},
			{Ingredient: "black-pepper", Form: "coarse", Parts: "1"},
		},
	}
	flake := Formula{
		Basis: ByVolume,
		Rows: []Row{
			{Ingredient: "kosher-salt", Form: "hollow flake", Parts: "1"},
			{Ingredient: "black-pepper", Form: "coarse", Parts: "1"},
		},
	}
	assert.InDelta(t, 6.0/8.1, mixed(t, fine).Components[0].WeightShare, 1e-9)
	assert.InDelta(t, 2.8/4.9, mixed(t, flake).Components[0].WeightShare, 1e-9)

	fine.Basis, flake.Basis = ByWeight, ByWeight
	a, b := mixed(t, fine).Weigh(0.1)[0], mixed(t, flake).Weigh(0.1)[0]
	assert.InEpsilon(t, float64(a.Mass), float64(b.Mass), 1e-9)
	assert.InEpsilon(t, 6.0/2.8, float64(b.Volume/a.Volume), 1e-9)
}

func TestAmountsInAnyMixOfUnits(t *testing.T) {
	// 100 g of juice, a tablespoon of fine salt (18 g), and 2 % of vinegar.
	m := mixed(t, Formula{Basis: ByWeight, Rows: []Row{
		{
			Ingredient: "apple-juice",
			Parts:      "100 g",
		}, {Ingredient: "table-salt", Parts: "1 Tbsp"}, {Ingredient: "cider-vinegar", Parts: "2 %"},
	}})
	assert.InDelta(t, 118/0.98, m.Measured, 0.01)
	assert.InDelta(t, 0.02, m.Components[2].WeightShare, 1e-12)
	assert.InDelta(t, 18/(118/0.98)*0.995, m.SaltShare(), 1e-4)
	// A bare number beside them is a gram, or a teaspoon.
	f := Formula{
		Basis: ByWeight,
		Rows:  []Row{{Ingredient: "table-salt", Parts: "12 g"}, {Ingredient: "white-sugar", Parts: "4"}},
	}
	assert.InDelta(t, 0.25, mixed(t, f).Components[1].WeightShare, 1e-12)
	f.Basis = ByVolume
	assert.InDelta(t, 16.8/28.8, mixed(t, f).Components[1].WeightShare, 1e-9)
	// Percents alone are the whole.
	m = mixed(
		t,
		Formula{
			Basis: ByWeight,
			Rows:  []Row{{Ingredient: "table-salt", Parts: "60 %"}, {Ingredient: "black-pepper", Parts: "40%"}},
		},
	)
	assert.InDelta(t, 0.6, m.Components[0].WeightShare, 1e-12)
	_, errs := Blend(
		Formula{
			Basis: ByWeight,
			Rows:  []Row{{Ingredient: "table-salt", Parts: "100 %"}, {Ingredient: "black-pepper", Parts: "1"}},
		},
		nil,
	)
	assert.Contains(t, errs.Error(), "formula.no-room")
	_, errs = Blend(Formula{Basis: ByWeight, Rows: []Row{{Ingredient: "apple-juice", Parts: "2 oz"}}}, nil)
	assert.Contains(t, errs.Error(), "quantity.")
}

func TestAFormulaInsideAnotherIsFollowed(t *testing.T) {
	shelf := map[string]Formula{
		"1": {
			ID:    "1",
			Name:  "Injection",
			Basis: ByWeight,
			Rows:  []Row{{Ingredient: "stock", Parts: "90 g"}, {Formula: "2", Parts: "10 g"}},
		},
		"2": {
			ID:    "2",
			Name:  "House rub",
			Basis: ByWeight,
			Rows:  []Row{{Ingredient: "table-salt", Parts: "1"}, {Ingredient: "mustard", Parts: "1"}},
		},
	}
	find := own{formulas: shelf}
	m, errs := Blend(shelf["1"], find)
	require.Empty(t, errs)
	assert.InDelta(t, (0.9*0.9+10*0.4976)/100, m.SaltShare(), 1e-4)
	assert.Equal(t, []string{"celery", "mustard"}, m.Allergens)

	// Changing the rub changes what uses it.
	rub := shelf["2"]
	rub.Rows = []Row{{Ingredient: "white-sugar", Parts: "1"}}
	shelf["2"] = rub
	m, _ = Blend(shelf["1"], find)
	assert.InDelta(t, 0.0081, m.SaltShare(), 1e-4)

	// What leads back to itself is refused, and the way named.
	rub.Rows = []Row{{Formula: "1", Parts: "1"}}
	shelf["2"] = rub
	_, errs = Blend(shelf["1"], find)
	require.Len(t, errs, 1)
	assert.Equal(t, "/rows/1/formula", errs[0].Pointer)
	assert.Equal(t, field.Because(selfUse, "way", []string{"Injection", "House rub", "Injection"}), errs[0].Wrong)
	_, errs = Blend(Formula{Basis: ByWeight, Rows: []Row{{Formula: "9", Parts: "1"}}}, find)
	assert.Equal(t, "formula.gone", errs[0].ID)
}

func TestLarderIsWhole(t *testing.T) {
	shelf := larder.All()
	assert.GreaterOrEqual(t, len(shelf), 100)
	for id, salt := range map[string]float64{"chilli-powder": 7, "stock-cube": 50, "stock-cube-us": 60,
		"tripolyphosphate": 79} {
		i, ok := larder.Find(id)
		assert.True(t, ok && i.Per100g.Salt == salt, id)
	}
	for id, allergens := range map[string][]string{
		"beer": {"barley", "gluten"}, "cider-vinegar": {"sulphite"}, "red-wine": {"sulphite"},
		"prepared-mustard": {"mustard", "sulphite"}, "soy-sauce": {"gluten", "soy", "wheat"},
	} {
		i, _ := larder.Find(id)
		assert.Equal(t, allergens, i.Allergens, id)
	}
	for id, spoon := range map[string]float64{"sage|ground": 0.7, "maple-sugar|granulated": 3,
		"coriander-seed|whole seed": 1.8, "fresh-garlic|chopped": 2.8} {
		name, form, _ := strings.Cut(id, "|")
		i, _ := larder.Find(name)
		f, ok := i.Form(form)
		assert.True(t, ok, id)
		assert.InDelta(t, spoon, f.GramsPerML*quantity.USSpoons.Teaspoon().ML(), 1e-9, id)
	}
	for _, i := range shelf {
		assert.NotEmpty(t, i.Forms, i.ID)
		c := i.Per100g
		assert.LessOrEqual(t, c.Salt+c.Sugar+c.Fat+c.Water+c.Acid+c.Nitrite+c.Starch, 101.0, i.ID)
		assert.LessOrEqual(t, c.Phosphate, 100.0, i.ID) // its sodium is counted as salt besides
	}
}

func TestBlendPointsAtMistakes(t *testing.T) {
	pepper := Row{Ingredient: "black-pepper", Form: "coarse", Parts: "1"}
	cases := map[string]struct {
		f       Formula
		pointer string
	}{
		"no basis": {Formula{Rows: []Row{pepper}}, "/basis"},
		"no rows":  {Formula{Basis: ByVolume}, "/rows"},
		"all zero": {
			Formula{Basis: ByVolume, Rows: []Row{{Ingredient: "black-pepper", Form: "coarse", Parts: "0"}}},
			"/rows",
		},
		"negative": {
			Formula{Basis: ByVolume, Rows: []Row{pepper, {Ingredient: "thyme", Form: "ground", Parts: "-2"}}},
			"/rows/1/parts",
		},
		"not a number": {
			Formula{Basis: ByVolume, Rows: []Row{{Ingredient: "thyme", Form: "ground", Parts: "🌶"}}},
			"/rows/0/parts",
		},
		"beyond floats": {
			Formula{Basis: ByVolume, Rows: []Row{{Ingredient: "thyme", Form: "ground", Parts: "1e309"}}},
			"/rows/0/parts",
		},
		"too many parts": {
			Formula{Basis: ByVolume, Rows: []Row{{Ingredient: "thyme", Form: "ground", Parts: "123456"}}},
			"/rows/0/parts",
		},
		"unknown form": {
			Formula{Basis: ByVolume, Rows: []Row{{Ingredient: "thyme", Form: "frozen", Parts: "1"}}},
			"/rows/0/form",
		},
		"unknown herb": {
			Formula{Basis: ByVolume, Rows: []Row{{Ingredient: "unobtainium", Form: "", Parts: "1"}}},
			"/rows/0/ingredient",
		},
		"endless formula": {Formula{Basis: ByVolume, Rows: make([]Row, 41)}, "/rows"},
	}
	for name, c := range cases {
		t.Run(name, func(t *testing.T) {
			_, errs := Blend(c.f, nil)
			require.NotEmpty(t, errs)
			assert.Equal(t, c.pointer, errs[0].Pointer)
		})
	}
}

// What a mix is called follows what is in it, unless the cook named it.
func TestAMixIsCalledByWhatIsInIt(t *testing.T) {
	equal, heavy, fennel := ReadyMade()[0], ReadyMade()[2], ReadyMade()[3]
	parts := func(f Formula, all ...string) Formula {
		f.Rows = slices.Clone(f.Rows)
		for i, p := range all {
			f.Rows[i].Parts = p
		}
		return f
	}
	stock := Formula{Name: "ready stock", Basis: ByVolume, Rows: []Row{{Ingredient: "stock", Form: "liquid", Parts: "1"}}}
	butter := stock
	butter.Rows = []Row{{Ingredient: "butter-salted", Form: "as bought", Parts: "1"}}
	mixed := stock
	mixed.Rows = append(slices.Clone(stock.Rows), butter.Rows...)
	mine := parts(equal, "1", "2")
	mine.Name = "The usual"
	for name, f := range map[string]Formula{
		"Salt and pepper, 1 : 1": equal, "Salt and pepper, 1 : 2": parts(equal, "1", "2"),
		"Pepper-heavy, 3 : 1":       parts(heavy, "1", "3"),
		"Fennel house rub, changed": parts(fennel, "5"), "The usual": mine, "ready stock": stock, "salted butter": butter,
		"ready stock and more": mixed,
	} {
		assert.Equal(t, name, Called(f, nil).Name)
	}
}

// Salt and sugar that dissolve take little room: two cups of water and half a cup of table salt make 2.2 cups.
func TestWhatDissolvesTakesLittleRoom(t *testing.T) {
	cups := func(rows ...Row) float64 {
		m, wrong := Blend(Formula{Name: "brine", Basis: ByVolume, Rows: rows}, nil)
		require.Empty(t, wrong)
		return m.Measured / m.GramsPerML / quantity.USSpoons.Cup().ML()
	}
	water := Row{Ingredient: "water", Form: "liquid", Parts: "2 cups"}
	assert.InDelta(t, 2.2, cups(water, Row{Ingredient: "table-salt", Form: "fine", Parts: "1/2 cup"}), 0.04)
	assert.InDelta(t, 2.55, cups(water, Row{Ingredient: "white-sugar", Form: "granulated", Parts: "1 cup"}), 0.06)
	assert.InDelta(t, 4.5, cups(water, Row{Ingredient: "table-salt", Form: "fine", Parts: "3 cups"}), 0.3,
		"most of it stays as it is")
}
