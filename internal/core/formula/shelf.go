package formula

import (
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// Shelf is what a kitchen has besides what ships with the program. The zero Shelf
// holds nothing. Its functions may be called from several goroutines at a time.
type Shelf struct {
	Formula    func(id string) (Formula, bool)           // the cook's own formulas
	Ingredient func(id string) (larder.Ingredient, bool) // the cook's own ingredients
	Price      func(thing string) (larder.Price, bool)   // of an ingredient or a cut, by id
	Stock      func(thing string) (quantity.Amount, bool)
	Jar        func(formula string) quantity.Mass // what is left in jars of it, by id
}

// Find returns the formula of that id, the house's or the cook's own.
func (s Shelf) Find(id string) (Formula, bool) {
	if f, ok := house[id]; ok || s.Formula == nil {
		return f, ok
	}
	return s.Formula(id)
}

// FindIngredient returns the ingredient of that id, the larder's or the cook's own.
func (s Shelf) FindIngredient(id string) (larder.Ingredient, bool) {
	if i, ok := larder.Find(id); ok || s.Ingredient == nil {
		return i, ok
	}
	return s.Ingredient(id)
}

// PriceOf returns what a thing costs, if it is known.
func (s Shelf) PriceOf(thing string) (larder.Price, bool) {
	if s.Price == nil {
		return larder.Price{}, false
	}
	return s.Price(thing)
}

// Leaves are the ingredients of m with those of formulas inside it laid open, in
// the order they come: each once, with its share of the whole by weight.
func (m Mix) Leaves() []Component {
	var out []Component
	place := map[string]int{}
	m.leaves(1, func(c Component) {
		key := c.Ingredient.ID + "|" + c.Form.Name
		if i, seen := place[key]; seen {
			out[i].WeightShare += c.WeightShare
			return
		}
		place[key] = len(out)
		out = append(out, c)
	})
	return out
}

func (m Mix) leaves(share float64, take func(Component)) {
	for _, c := range m.Components {
		if c.inner != nil {
			c.inner.leaves(share*c.WeightShare, take)
			continue
		}
		c.WeightShare *= share
		take(c)
	}
}

// Cost is what an amount of a mix costs.
type Cost struct {
	Money   float64
	Sign    string   // of the money; empty when the prices have none
	Missing []string // ingredients without a price; water never has one
}

// CostOf adds up the ingredients of grams of m by the prices on shelf.
func CostOf(m Mix, grams float64, shelf Shelf) Cost {
	c := Cost{Missing: []string{}}
	for _, leaf := range m.Leaves() {
		p, ok := shelf.PriceOf(leaf.Ingredient.ID)
		switch {
		case ok:
			c.Money += grams * leaf.WeightShare * p.PerGram(leaf.Form.GramsPerML)
			c.Sign = p.Sign
		case leaf.WeightShare > 0 && leaf.Ingredient.ID != "water":
			c.Missing = append(c.Missing, leaf.Ingredient.Name)
		}
	}
	return c
}
