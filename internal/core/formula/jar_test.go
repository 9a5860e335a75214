package formula

import (
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

var now = time.Date(2026, 11, 23, 12, 0, 0, 0, time.UTC)

// What is drawn and what is left are always what was made; no more comes out than
// went in.
func TestJarLosesNothing(t *testing.T) {
	r := rand.New(rand.NewPCG(41, 42))
	for range 50 {
		j := Jar{Formula: ReadyMade()[r.IntN(7)], Made: "2026-11-01", Amount: "500 g"}
		for {
			j.Draws = append(j.Draws, Draw{Amount: quantity.Number(float64(1+r.IntN(900))/10) + " g", Day: "2026-11-02"})
			s, errs := j.Stand(nil, now)
			if len(errs) > 0 {
				assert.Equal(t, "jar.too-little", errs[0].ID)
				break
			}
			total := s.Left
			for _, m := range s.Taken {
				total += m
			}
			require.InDelta(t, 500, total.Grams(), 1e-6)
		}
	}
}

func TestHowLongAJarKeeps(t *testing.T) {
	wet := func(rows ...Row) Formula { return Formula{Name: "wet", Basis: ByWeight, Rows: rows} }
	for name, c := range map[string]struct {
		f     Formula
		useBy string
	}{
		"dry":   {ReadyMade()[0], "2027-04-30"},
		"sour":  {wet(Row{Ingredient: "cider-vinegar", Parts: "2"}, Row{Ingredient: "water", Parts: "1"}), "2026-11-15"},
		"fresh": {wet(Row{Ingredient: "stock", Parts: "1"}), "2026-11-04"},
	} {
		s, errs := Jar{Formula: c.f, Made: "2026-11-01", Amount: "1 cup"}.Stand(nil, now)
		require.Empty(t, errs)
		assert.Equal(t, c.useBy, s.UseBy.Format("2006-01-02"), name)
		assert.Equal(t, name != "dry", s.Over)
	}
	for _, j := range []Jar{{Made: "yesterday", Amount: "1 g"}, {Made: "2026-12-24", Amount: "1 g"},
		{Made: "2026-11-01", Amount: "a lot"}, {Made: "2026-11-01", Amount: "0 g"}} {
		j.Formula = ReadyMade()[0]
		_, errs := j.Stand(nil, now)
		assert.NotEmpty(t, errs, "%+v", j)
	}
}

func TestOwnIngredientsMixLikeOthers(t *testing.T) {
	red, errs := larder.Own{
		Name:      "The red jar",
		Salt:      "31 %",
		Sugar:     "22",
		Teaspoon:  "3 g",
		Allergens: []string{"Celery "},
	}.Ingredient(
		"own-1",
	)
	require.Empty(t, errs)
	mine := own{ingredients: map[string]larder.Ingredient{"own-1": red}}
	m, wrong := Blend(
		Formula{Basis: ByWeight, Rows: []Row{{Ingredient: "own-1", Parts: "1"}, {Ingredient: "table-salt", Parts: "1"}}},
		mine,
	)
	require.Empty(t, wrong)
	assert.InDelta(t, (31+99.5)/2, m.Per100g.Salt, 1e-9)
	assert.Equal(t, []string{"celery"}, m.Allergens)
	for field, o := range map[string]larder.Own{
		"/name": {}, "/kind": {Name: "x", Kind: "gas"}, "/salt": {Name: "x", Salt: "60", Sugar: "60"},
		"/teaspoon": {Name: "x", Teaspoon: "2 kg"},
		"/grind":    {Name: "x", Grind: "boulders"}, "/sugar": {Name: "x", Sugar: "some"},
		"/allergens/0": {Name: "x", Allergens: []string{" "}},
	} {
		_, errs := o.Ingredient("")
		require.NotEmpty(t, errs, field)
		assert.Equal(t, field, errs[0].Pointer)
	}
}

func TestParsePrice(t *testing.T) {
	for typed, perKG := range map[string]float64{
		"3.20 for 500 g": 6.4, "€4/kg": 4, "2,80 per 250 g": 11.2, "$10 a lb": 22.046, "1 for 100 mL": 10,
		"12 EUR per 2 kg": 6,
	} {
		p, err := larder.ParsePrice(typed)
		require.NoError(t, err, typed)
		assert.InDelta(t, perKG, 1000*p.PerGram(1), 0.001, typed)
	}
	for _, typed := range []string{"", "3.20", "cheap for 1 kg", "3 for nothing", "3 for 0 g", "-3 for 1 kg",
		"99999999 for 1 g"} {
		_, err := larder.ParsePrice(typed)
		assert.Error(t, err, typed)
	}
}
