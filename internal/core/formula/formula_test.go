package formula

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

func blend(t *testing.T, f Formula) Mix {
	t.Helper()
	m, errs := Blend(f)
	require.Empty(t, errs)
	return m
}

// random makes a formula from any ingredients in any form.
func random(r *rand.Rand) Formula {
	shelf := larder.All()
	f := Formula{Name: "any", Basis: []Basis{ByVolume, ByWeight}[r.IntN(2)]}
	for range 1 + r.IntN(8) {
		ing := shelf[r.IntN(len(shelf))]
		form := ing.Forms[r.IntN(len(ing.Forms))]
		f.Rows = append(f.Rows, Row{ing.ID, form.Name, quantity.Number(0.25 + float64(r.IntN(40))/4)})
	}
	return f
}

func TestWeighingConservesGramsAndParts(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 300 {
		f := random(r)
		m := blend(t, f)
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
	for _, f := range House() {
		m := blend(t, f)
		if share, ok := want[f.ID]; ok {
			found++
			assert.InDelta(t, share, m.Components[0].WeightShare, 1e-9, f.ID)
		}
	}
	assert.Equal(t, len(want), found)
	assert.Len(t, House(), 7)
}

func TestCrystalChangesVolumeFormulasOnly(t *testing.T) {
	fine := Formula{Basis: ByVolume, Rows: []Row{{"table-salt", "fine", "1"}, {"black-pepper", "coarse", "1"}}}
	flake := Formula{Basis: ByVolume, Rows: []Row{{"kosher-salt", "hollow flake", "1"}, {"black-pepper", "coarse", "1"}}}
	assert.InDelta(t, 6.0/8.1, blend(t, fine).Components[0].WeightShare, 1e-9)
	assert.InDelta(t, 2.8/4.9, blend(t, flake).Components[0].WeightShare, 1e-9)

	fine.Basis, flake.Basis = ByWeight, ByWeight
	a, b := blend(t, fine).Weigh(0.1)[0], blend(t, flake).Weigh(0.1)[0]
	assert.InEpsilon(t, float64(a.Mass), float64(b.Mass), 1e-9)
	assert.InEpsilon(t, 6.0/2.8, float64(b.Volume/a.Volume), 1e-9)
}

func TestLarderIsWhole(t *testing.T) {
	shelf := larder.All()
	assert.GreaterOrEqual(t, len(shelf), 60)
	for _, i := range shelf {
		assert.NotEmpty(t, i.Forms, i.ID)
		c := i.Per100g
		assert.LessOrEqual(t, c.Salt+c.Sugar+c.Fat+c.Water+c.Acid+c.Nitrite+c.Phosphate+c.Starch, 101.0, i.ID)
	}
}

func TestBlendPointsAtMistakes(t *testing.T) {
	pepper := Row{"black-pepper", "coarse", "1"}
	cases := map[string]struct {
		f       Formula
		pointer string
	}{
		"no basis":        {Formula{Rows: []Row{pepper}}, "/basis"},
		"no rows":         {Formula{Basis: ByVolume}, "/rows"},
		"all zero":        {Formula{Basis: ByVolume, Rows: []Row{{"black-pepper", "coarse", "0"}}}, "/rows"},
		"negative":        {Formula{Basis: ByVolume, Rows: []Row{pepper, {"thyme", "ground", "-2"}}}, "/rows/1/parts"},
		"not a number":    {Formula{Basis: ByVolume, Rows: []Row{{"thyme", "ground", "🌶"}}}, "/rows/0/parts"},
		"beyond floats":   {Formula{Basis: ByVolume, Rows: []Row{{"thyme", "ground", "1e309"}}}, "/rows/0/parts"},
		"too many parts":  {Formula{Basis: ByVolume, Rows: []Row{{"thyme", "ground", "123456"}}}, "/rows/0/parts"},
		"unknown form":    {Formula{Basis: ByVolume, Rows: []Row{{"thyme", "frozen", "1"}}}, "/rows/0/form"},
		"unknown herb":    {Formula{Basis: ByVolume, Rows: []Row{{"unobtainium", "", "1"}}}, "/rows/0/ingredient"},
		"endless formula": {Formula{Basis: ByVolume, Rows: make([]Row, 41)}, "/rows"},
	}
	for name, c := range cases {
		t.Run(name, func(t *testing.T) {
			_, errs := Blend(c.f)
			require.NotEmpty(t, errs)
			assert.Equal(t, c.pointer, errs[0].Pointer)
		})
	}
}
