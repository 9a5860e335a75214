package bench_test

import (
	"encoding/json"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/bench"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/quantity"
)

var nothing = kitchen.Kitchen{}

func workOut(f formula.Formula, b formula.Batch) bench.Result {
	return bench.WorkOut(bench.Request{Formula: f, Batch: b}, nothing, quantity.USSpoons)
}

// A batch for so much meat is what the cook's page puts on it.
func TestBatchForTheMeat(t *testing.T) {
	f := anycook.HalfAndHalf("sea-salt", "fine", formula.ByWeight)
	onMeat := func(s cook.Season) float64 {
		p := anycook.Coated("lamb-shoulder-bone-in", "4 kg")
		p.Season = s
		one, err := cooking.One(t.Context(), p, cook.Cook{}, nothing, 0)
		require.NoError(t, err)
		return one.Season.OnMeat.Mid
	}
	s := workOut(f, formula.Batch{Fix: "salt", Amount: "1 %", Meat: "4 kg", Cut: "lamb-shoulder-bone-in"})
	require.Empty(t, s.Mistakes)
	assert.InEpsilon(t, onMeat(cook.Season{Formula: f, Mode: "target", Target: "1 %"}), s.Batch.Mid, 1e-9)
	s = workOut(f, formula.Batch{Fix: "coat", Amount: "heavy", Meat: "4 kg", Cut: "lamb-shoulder-bone-in"})
	assert.InEpsilon(t, onMeat(cook.Season{Formula: f, Mode: "coat", Coat: "heavy"}), s.Batch.Mid, 1e-9)
	s = workOut(anycook.Brine("6 %"), formula.Batch{Fix: "pump", Amount: "10 %", Meat: "4 kg"})
	assert.InEpsilon(t, 0.4, s.Batch.Mid, 1e-9)
	s = workOut(anycook.Brine("6 %"), formula.Batch{Fix: "pot", Amount: "10 L", Meat: "4.4 kg"})
	assert.InDelta(t, 5.5, s.Batch.Mid, 0.3, "what is left in the pot beside the meat")
	for _, b := range []formula.Batch{{Fix: "salt", Amount: "1 %"}, {Fix: "coat", Amount: "thick", Meat: "1 kg"},
		{Fix: "pot", Amount: "2 L", Meat: "4 kg"}, {Fix: "salt", Amount: "40 %", Meat: "1 kg"},
		{Fix: "pump", Amount: "5 %", Meat: "1 kg", Cut: "unicorn"}} {
		assert.NotEmpty(t, workOut(f, b).Mistakes, "%+v", b)
	}
}

// Whatever is typed on the bench, nothing panics and every figure is a number.
func TestNothingTypedBreaksTheBench(t *testing.T) {
	r := rand.New(rand.NewPCG(73, 74))
	for range 3000 {
		q := bench.Request{Formula: anycook.Mix(r, "x"), Batch: formula.Batch{
			Fix:    anycook.Pick(r, []string{"", "total", "row", "jar", "guests", "salt", "coat", "pump", "pot"}),
			Amount: "5 %",
			Guests: "4",
			Meat:   "2 kg",
			Cut:    "pork-loin",
			Round:  anycook.Pick(r, []string{"", "spoons", "1 g"}),
		}}
		anycook.Spoil(r, &q, 1+r.IntN(3))
		got := bench.WorkOut(q, nothing, quantity.USSpoons)
		_, err := json.Marshal(got) // fails on what is not a number
		require.NoError(t, err, "%+v", q)
		for _, e := range got.Mistakes {
			assert.True(t, strings.HasPrefix(e.Pointer, "/formula") || strings.HasPrefix(e.Pointer, "/batch"), e.Pointer)
		}
	}
}

// Side by side, what is the same is said to be the same.
func TestComparing(t *testing.T) {
	all := formula.ReadyMade()
	c, err := bench.Compare(t.Context(), bench.CompareRequest{Formulas: all[:2]}, nothing, quantity.USSpoons)
	require.NoError(t, err)
	require.Len(t, c.Columns, 2)
	for _, row := range c.Rows {
		assert.Len(t, row.Shares, 2)
	}
	c, err = bench.Compare(
		t.Context(),
		bench.CompareRequest{Formulas: []formula.Formula{all[0], all[0]}},
		nothing,
		quantity.USSpoons,
	)
	require.NoError(t, err)
	for _, d := range c.Differences {
		assert.True(t, d.Equal, "%+v", d)
	}
	_, err = bench.Compare(t.Context(), bench.CompareRequest{Formulas: all[:1]}, nothing, quantity.USSpoons)
	assert.Error(t, err)
}
