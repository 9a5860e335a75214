// Package provisions is what has to be on hand for a cook that is worked out: the groceries, and
// fuel, wraps and wood.
//
//	list := provisions.List(result, k)      // less what is in stock and in jars
//	fuel := provisions.Supplies(result)
package provisions

import (
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/shop"
)

// List is what a cook needs, less what is in stock and in jars.
func List(r cooking.Result, k kitchen.Kitchen) shop.List {
	pieces := []shop.Piece{}
	for _, p := range r.Pieces {
		if p.Meat != nil {
			pieces = append(pieces, shop.Piece{
				Key: p.Line.Key, Meat: p.Line.Meat.Value, Sound: true, Frozen: p.Line.Answers.Value.Chose("state") == "frozen", Uses: p.Using,
			})
		}
	}
	return shop.Shopping(pieces, k)
}

// hard is what the weather takes more of a pit's fuel: the worst that was said for a piece on it.
func hard(r cooking.Result, pit int) float64 {
	out := 1.0
	for _, p := range r.Pieces {
		if p.Line.Typed.Fire.On == pit {
			out = max(out, shop.Weather[p.Line.Answers.Value.Chose("weather")])
		}
	}
	return out
}

// Supplies are what the cook needs besides food: fuel, wraps and wood.
func Supplies(r cooking.Result) []shop.Supply {
	var pits []shop.Burning
	if r.Plan != nil {
		burning := r.Plan.Result.Plans[r.Plan.Chosen].Burning()
		for n, pit := range r.Order.Setting.Value.Pits {
			if hours := burning[n]; hours > 0 {
				pits = append(pits, shop.Burning{Kind: pit.ID, For: pit.Preheat + hours, Hard: hard(r, n)})
			}
		}
	}
	lines := []shop.Wrapped{}
	for _, p := range r.Pieces {
		if p.Meat != nil && p.Line.Answers.OK() {
			said, m := p.Line.Answers.Value, p.Line.Meat.Value
			lines = append(lines, shop.Wrapped{Wrap: said.Chose("wrap"), Wood: said.Chose("wood"), Count: m.Count, Mass: m.Green.Mid})
		}
	}
	return shop.Supplies(pits, lines)
}
