package provisions_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/order"
	"verjuice/internal/core/provisions"
)

func priced(t *testing.T) kitchen.Kitchen {
	k, wrong := kitchen.Typed{Prices: map[string]string{
		"pork-shoulder-bone-in": "€8/kg", "kosher-salt": "€3/kg", "black-pepper": "€30/kg", "charcoal": "€2/kg",
		"foil": "€6 for 30 m", "stock": "€2 for 1 L",
	}}.Read(kitchen.Kitchen{})
	require.Empty(t, wrong)
	return k
}

func work(t *testing.T, k kitchen.Kitchen, c cook.Cook, all facts.Facts) cooking.Result {
	r, err := cooking.Work(t.Context(), order.Parse(c, k), all, k, cooking.Clock{})
	require.NoError(t, err)
	require.Empty(t, r.Mistakes)
	return r
}

// What it costs is the sum of its parts: the meat, all that is mixed for it, and what is burnt and
// wrapped. What has no price is told once, each by its name.
func TestCostIsTheSumOfItsParts(t *testing.T) {
	k := priced(t)
	p := anycook.Coated("pork-shoulder-bone-in", "4 kg")
	p.Bought, p.Choices = "4.4 kg", map[string]string{"wrap": "foil"}
	c := anycook.Supper(p)
	c.Pits = []cook.Pit{{Kind: "kettle"}}
	r := work(t, k, c, nil)
	whole := provisions.Cost(r)
	require.NotNil(t, whole)
	sum := r.Buy[0].Cost.Total.Mid
	assert.Greater(t, sum, 4.4*8.0)
	for _, s := range provisions.Supplies(r) {
		switch s.ID {
		case "charcoal":
			sum += 2 * s.Mass.KG()
		case "foil":
			sum += float64(s.Sheets) * 0.75 * 0.2
		default:
			assert.Contains(t, whole.Missing, "supply:"+s.ID)
		}
	}
	assert.InDelta(t, sum, whole.Total.Mid, 1e-9)

	delete(k.Prices, "charcoal")
	without := provisions.Cost(work(t, k, c, nil))
	assert.Less(t, without.Total.Mid, whole.Total.Mid)
	assert.Contains(t, without.Missing, "supply:charcoal")
	delete(k.Prices, "pork-shoulder-bone-in")
	assert.Nil(t, provisions.Cost(work(t, k, c, nil)), "the rest alone says nothing")
}

// As it was done it costs what was really burnt, mixed and wrapped.
func TestSpentFollowsWhatWasDone(t *testing.T) {
	k := priced(t)
	p := anycook.Coated("pork-shoulder-bone-in", "4 kg")
	p.Key, p.Choices = "a", map[string]string{"wrap": "foil"}
	c := anycook.Supper(p)
	c.Pits = []cook.Pit{{Kind: "kettle"}}
	day := c.ServeAt[:10]
	did := facts.Facts{anycook.Done(1, "a", "fire", day+"T05:00"), anycook.Done(2, "a", "off", day+"T15:00")}
	spent := func(more ...facts.Fact) float64 {
		at := cooking.Clock{Now: work(t, k, c, nil).Order.Serving.Value.At}
		r, err := cooking.Work(t.Context(), order.Parse(c, k), append(did, more...), k, at)
		require.NoError(t, err)
		got := provisions.Spent(r)
		require.NotNil(t, got)
		return got.Total.Mid
	}
	bare := spent()
	weigh := func(piece, what, typed string) facts.Fact {
		return facts.Fact{
			ID:     fmt.Sprintf("00000000-0000-4000-8000-0000000000%02d", len(what)),
			Kind:   facts.Weighed,
			Piece:  piece,
			What:   what,
			At:     day + "T16:00",
			Values: field.Values{"typed": typed, "pit": 0.0},
		}
	}
	burnt := spent(weigh("", facts.Fuel, "3 kg"))
	assert.InDelta(t, 4, spent(weigh("", facts.Fuel, "5 kg"))-burnt, 1e-9, "two kilos more of charcoal")
	assert.InDelta(t, 0.75*0.2*2, spent(anycook.Done(9, "a", "wrap", day+"T10:00"))-bare, 1e-9, "two sheets of foil")
	assert.Greater(t, spent(weigh("a", "mixed", "500 g")), bare)
}

// Fuel is bought with a quarter to spare, less what is there, and paid for as it is bought; a wrap and
// the wood are bought by the piece.
func TestFuelIsBoughtLessWhatIsThere(t *testing.T) {
	p := anycook.Coated("pork-shoulder-bone-in", "4 kg")
	p.Choices = map[string]string{"wrap": "foil"}
	c := anycook.Supper(p)
	c.Pits = []cook.Pit{{Kind: "kettle"}}
	burnt := provisions.Supplies(work(t, priced(t), c, nil))
	for stock, buy := range map[string]float64{"": 1.25, "1 kg": 1.25, "100 kg": 0} {
		typed := kitchen.Typed{Stock: map[string]string{}}
		if stock != "" {
			typed.Stock["charcoal"] = stock
		}
		k, wrong := typed.Read(priced(t))
		require.Empty(t, wrong)
		list := provisions.List(work(t, k, c, nil))
		require.Len(t, list.Supplies, len(burnt))
		for i, item := range list.Supplies {
			switch item.ID {
			case "charcoal":
				want := buy * burnt[i].Mass.KG()
				if stock == "1 kg" {
					want--
				}
				assert.InDelta(t, want, item.Buy.KG(), 1e-9, stock)
				assert.InDelta(t, 2*want, item.Cost.Value, 1e-9, "at two a kilo")
			case "foil":
				assert.Equal(t, 2, item.Supply.Sheets)
				assert.InDelta(t, 2*0.75*0.2, item.Cost.Value, 1e-9)
			default:
				assert.Nil(t, item.Cost, "it has no price")
			}
		}
	}
}
