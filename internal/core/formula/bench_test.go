package formula

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Whatever is fixed, the batch that follows holds exactly that of it.
func TestBatchesHoldWhatWasFixed(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 10))
	for range 200 {
		m := mixed(t, random(r))
		size, errs := m.Size(Batch{Fix: "total", Amount: "240 g"})
		require.Empty(t, errs)
		assert.InEpsilon(t, 240, size.Grams(), 1e-9)

		row := r.IntN(len(m.Components))
		size, errs = m.Size(Batch{Fix: "row", Row: row, Amount: "30 g"})
		require.Empty(t, errs)
		assert.InEpsilon(t, 30, m.Weigh(size)[row].Mass.Grams(), 1e-9)

		size, errs = m.Size(Batch{Fix: "jar", Amount: "250 mL"})
		require.Empty(t, errs)
		assert.InEpsilon(t, 225, m.Volume(size).ML(), 1e-9, "a jar is filled nine tenths")

		// Scaling there and back returns the same rows.
		again, errs := m.Size(Batch{Fix: "row", Row: row, Amount: quantity.Number(m.Weigh(size)[row].Mass.Grams()) + " g"})
		require.Empty(t, errs)
		assert.InEpsilon(t, size.Grams(), again.Grams(), 0.02, "to the thousandth of a gram that was typed")
	}
}

func TestRoundingIsTold(t *testing.T) {
	m := mixed(t, readyMadeByID["boathouse-sweet"])
	rows := m.Weigh(200 * quantity.Gram)
	for _, way := range []string{"spoons", "0.1 g", "1 g", "5 g"} {
		out, ok := Round(rows, way, quantity.USSpoons)
		require.True(t, ok)
		worst := 0.0
		for i, w := range rows {
			assert.Positive(t, out.Mass[i], "nothing is rounded away")
			worst = math.Max(worst, 100*math.Abs(float64(out.Mass[i]-w.Mass)/float64(w.Mass)))
		}
		assert.InDelta(t, worst, out.Worst, 1e-9, way)
	}
	_, ok := Round(rows, "handfuls", quantity.USSpoons)
	assert.False(t, ok)
}

func TestChangesAreTold(t *testing.T) {
	old := readyMadeByID["fennel-house"]
	f := old
	f.Name, f.Basis = "Fennel rub", ByWeight
	f.Rows = append([]Row{{Ingredient: "thyme", Form: "ground", Parts: "1"}}, old.Rows[:5]...)
	f.Rows[1].Parts, f.Rows[1].Form = "5", "hollow flake"
	assert.Equal(t, []Change{
		field.Because("changed.name", "before", "Fennel house rub"),
		field.Because("changed.basis", "now", "weight", "before", "volume"),
		field.Because("changed.row-added", "row", "thyme", "now", "1"),
		field.Because("changed.row-form", "row", "kosher salt", "now", "hollow flake", "before", "dense flake"),
		field.Because("changed.row-parts", "row", "kosher salt", "now", "5", "before", "4"),
		field.Because("changed.row-removed", "row", "rosemary"),
	}, Changes(old, f, nil))
	assert.Empty(t, Changes(old, old, nil))
}

func TestLabels(t *testing.T) {
	read := func(l Label) LabelReading { r, errs := ReadLabel(l); require.Empty(t, errs); return r }
	// Soy-type sauce: 900 mg in 16 g is 14 % salt, and the band is narrow.
	soy := read(Label{Sodium: "900 mg", Serving: "16 g"})
	assert.InDelta(t, 14.3, soy.Salt.Mid, 0.1)
	assert.Less(t, soy.Salt.High-soy.Salt.Low, 1.5)
	// A quarter teaspoon, 0.7 g with 230 mg: wide, and the truth (pure salt is 100 %) inside.
	tiny := read(Label{Sodium: "230", Serving: "0.7 g"})
	assert.InDelta(t, 83.5, tiny.Salt.Mid, 0.5)
	assert.Greater(t, tiny.Salt.High-tiny.Salt.Low, 10.0)
	// Any true share that rounds to what is printed lies in the band.
	for share := 2.0; share < 95; share += 1.7 {
		serving := 1.2
		sodium := math.Round(share/100*serving/2.542*1000/5) * 5
		if sodium > 140 {
			sodium = math.Round(share/100*serving/2.542*1000/10) * 10
		}
		r := read(Label{Sodium: quantity.Number(sodium), Serving: "1.2 g"})
		assert.True(t, r.Salt.Low <= share && share <= r.Salt.High, "%g not in %+v", share, r.Salt)
	}
	// A third of a cup to a cup.
	packet := read(Label{Sodium: "300", Serving: "2 g", Powder: "1/3 cup", Liquid: "1 cup"})
	assert.InDelta(t, 38.1*71/(71+236.6), packet.Mixed.Mid, 0.3)

	// Servings by volume, with what a teaspoon weighs; a weight in brackets is surer.
	for _, one := range []struct {
		l    Label
		salt float64
	}{
		{Label{Sodium: "810", Serving: "124 g"}, 1.66}, {Label{Sodium: "810 mg", Serving: "1/2 cup (124 g)"}, 1.66},
		{Label{Sodium: "260", Serving: "1/4 tsp", Weighs: "2.8 g"}, 94.4},
		{Label{Sodium: "120", Serving: "2 Tbsp", Weighs: "5 g"}, 1.017},
		{Label{Sodium: "180", Serving: "30 mL", Weighs: "5.1 g"}, 1.474},
		{Label{Sodium: "500", Serving: "1/2 cup", Weighs: "5 g"}, 1.059},
	} {
		r := read(one.l)
		assert.InDelta(t, one.salt, r.Salt.Mid, 0.02, "%+v", one.l)
		assert.True(t, r.Salt.Low < r.Salt.Mid && r.Salt.Mid < r.Salt.High)
	}
	for name, l := range map[string]Label{
		"/sodium":  {Sodium: "2000", Serving: "1 g"},
		"/serving": {Sodium: "100", Serving: "a pinch"},
		"/weighs":  {Sodium: "100", Serving: "1/4 tsp"},
		"/powder":  {Sodium: "100", Serving: "1 g", Liquid: "1 cup"},
	} {
		_, errs := ReadLabel(l)
		require.NotEmpty(t, errs, name)
		assert.Equal(t, name, errs[0].Pointer)
	}
}
