package shop

import (
	"cmp"
	"slices"

	"verjuice/internal/core/dose"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// Cost is what something costs, in one currency.
type Cost struct {
	Total   trace.Figure
	Sign    string   // of the money; empty when the prices have none
	Missing []string // what has no price, or one in another currency, and is not counted
}

// In Cost.Missing, what stands before the key of a piece, before what a mix without any price is
// for, and before the id of a supply.
const (
	OfPiece  = "piece:"
	OfMix    = "mix:"
	OfSupply = "supply:"
)

// OfMeat is the cost of a weight of meat.
type OfMeat struct {
	Mass  quantity.Mass
	Money Money
}

// Money is a sum in a currency.
type Money struct {
	Value float64
	Sign  string
}

// CostOf is what so much of a mix costs; nil while none of it has a price. Water is
// never missed.
func CostOf(m formula.Mix, mass quantity.Mass, k kitchen.Kitchen) *Cost {
	sum := purse{missing: []string{}}
	sum.mix(m, mass, k)
	return sum.cost("cost.mix", "mass", trace.OfMass(mass), "per_100g", Money{sum.money / mass.Grams() * 100, sum.sign})
}

// cost is what the meat of p and all that is mixed for it cost; nil without a price of the meat.
func (p Piece) cost(k kitchen.Kitchen) *Cost {
	sum := purse{missing: []string{}}
	whole := p.whole()
	meat, ok := sum.pay(p.Meat.Cut.Name, p.Meat.Cut.ID, whole.Grams(), p.Meat.Cut.Density()/1000, k)
	if !ok {
		return nil
	}
	inputs := []any{"meat", OfMeat{whole, Money{meat, sum.sign}}}
	mixes := 0.0
	for _, u := range p.Uses {
		before := sum.money
		sum.use(u, k)
		mixes += sum.money - before
	}
	if mixes > 0 {
		inputs = append(inputs, "mixes", Money{mixes, sum.sign})
	}
	return sum.cost("cost.piece", inputs...)
}

// Sum is the cost of all pieces, and of the fuel, wood and wraps that are used up; nil without any
// price of meat. Pieces without a price, or in another currency than the first, are named by their
// keys.
func Sum(lines []Line, supplies []Supply, k kitchen.Kitchen) *Cost {
	sorted := slices.Clone(lines)
	slices.SortFunc(sorted, func(a, b Line) int { return cmp.Compare(a.Key, b.Key) })
	sum := purse{missing: []string{}}
	for _, l := range sorted {
		switch {
		case l.Cost == nil || sum.paid && l.Cost.Sign != sum.sign:
			sum.missing = append(sum.missing, OfPiece+l.Key)
		default:
			sum.money, sum.sign, sum.paid = sum.money+l.Cost.Total.Mid, l.Cost.Sign, true
		}
	}
	if !sum.paid {
		return nil
	}
	inputs := []any{}
	for _, l := range lines {
		if l.Cost != nil && l.Cost.Sign == sum.sign {
			inputs = append(inputs, OfPiece+l.Key, Money{l.Cost.Total.Mid, l.Cost.Sign})
		}
	}
	burnt := 0.0
	for _, s := range supplies {
		cost, _ := sum.supply(s, s.Mass, k)
		burnt += cost
	}
	if burnt > 0 {
		inputs = append(inputs, "supplies", Money{burnt, sum.sign})
	}
	return sum.cost("cost.all", inputs...)
}

// purse adds sums of one currency up: that of the first price.
type purse struct {
	money   float64
	sign    string
	paid    bool
	missing []string
}

// pay adds the price of grams of a thing, if it is known and in the same currency.
func (s *purse) pay(name, id string, grams, gramsPerML float64, k kitchen.Kitchen) (float64, bool) {
	return s.put(name, id, func(p larder.Price) float64 { return grams * p.PerGram(gramsPerML) }, k)
}

// put adds what a thing costs by its price, if that is known and in the same currency.
func (s *purse) put(name, id string, of func(larder.Price) float64, k kitchen.Kitchen) (float64, bool) {
	p, ok := k.Prices[id]
	if !ok || s.paid && p.Sign != s.sign {
		if !slices.Contains(s.missing, name) {
			s.missing = append(s.missing, name)
		}
		return 0, false
	}
	cost := of(p)
	s.money, s.sign, s.paid = s.money+cost, p.Sign, true
	return cost, true
}

// mix adds what so much of a mix costs, as far as it has prices.
func (s *purse) mix(m formula.Mix, mass quantity.Mass, k kitchen.Kitchen) {
	for _, leaf := range m.Leaves() {
		if leaf.WeightShare > 0 && leaf.Ingredient.ID != "water" {
			s.pay(leaf.Ingredient.Name, leaf.Ingredient.ID, mass.Grams()*leaf.WeightShare, leaf.Form.GramsPerML, k)
		}
	}
}

// use adds what is mixed for a use. A mix without any price is missed as a whole.
func (s *purse) use(u dose.Use, k kitchen.Kitchen) {
	if u.Salt > 0 {
		s.pay("salt", "table-salt", u.Salt.Grams(), 1, k)
	}
	priced := CostOf(u.Mix, u.Mass, k)
	switch leaves := u.Mix.Leaves(); {
	case priced != nil && priced.Sign == s.sign:
		s.mix(u.Mix, u.Mass, k)
	case len(leaves) > 0 && !slices.Contains(s.missing, OfMix+string(u.For)):
		s.missing = append(s.missing, OfMix+string(u.For))
	}
}

// supply adds what a supply costs: so much of a fuel, or all of its sheets and chunks.
func (s *purse) supply(of Supply, mass quantity.Mass, k kitchen.Kitchen) (float64, bool) {
	return s.put(OfSupply+of.ID, of.ID, func(p larder.Price) float64 {
		if of.Sheets > 0 {
			return float64(of.Sheets) * sheetM * p.PerM()
		}
		return (mass.Grams() + float64(of.Chunks)*chunkG) * p.PerGram(of.perML())
	}, k)
}

// cost is what is in the purse; nil when nothing was paid.
func (s *purse) cost(rule string, inputs ...any) *Cost {
	if s.money == 0 {
		return nil
	}
	return &Cost{Total: trace.Exact(rule, s.money, inputs...), Sign: s.sign, Missing: s.missing}
}
