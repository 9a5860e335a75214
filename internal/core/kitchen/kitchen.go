// Package kitchen is what a cook has: formulas, ingredients and jars of their own,
// prices, and what is in stock. It is plain values, loaded once before a computation;
// the zero Kitchen has nothing but what ships with the program.
//
//	k := kitchen.Kitchen{Stock: map[string]quantity.Amount{"kosher-salt": {Mass: 0.6}}}
//	mix, errs := formula.Blend(f, k)
package kitchen

import (
	"maps"
	"slices"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/quantity"
)

// Kitchen is what a cook has. Its maps are not changed by anything that reads it.
type Kitchen struct {
	Formulas    map[string]formula.Formula
	Ingredients map[string]larder.Ingredient
	Prices      map[string]larder.Price    // of ingredients and cuts, by id
	Stock       map[string]quantity.Amount // of ingredients, by id
	Packs       map[string]quantity.Amount // what a bottle, can or packet holds, of ingredients by id
	Jars        []Jar
	Learnt      logbook.Lessons // from earlier cooks
	Stand       string          // the same for the same kitchen; empty when that is not known
}

// Jar is what is left in a jar that is still good.
type Jar struct {
	Formula formula.Formula // as it was when the jar was filled
	Left    quantity.Mass
}

// OwnFormula implements formula.Lookup.
func (k Kitchen) OwnFormula(id string) (formula.Formula, bool) {
	f, ok := k.Formulas[id]
	return f, ok
}

// OwnIngredient implements formula.Lookup.
func (k Kitchen) OwnIngredient(id string) (larder.Ingredient, bool) {
	i, ok := k.Ingredients[id]
	return i, ok
}

// Pack implements formula.Lookup.
func (k Kitchen) Pack(id string) quantity.Amount { return k.Packs[id] }

// InJars is what is left of f in jars: of the same mix, whatever it is called. An
// edited rub is another mix than the jar it came from.
func (k Kitchen) InJars(f formula.Formula) quantity.Mass {
	sum := quantity.Mass(0)
	for _, j := range k.Jars {
		if j.Formula.SameMix(f) {
			sum += j.Left
		}
	}
	return sum
}

// HasJar reports whether there is a jar of f, of the same mix, that is still good.
func (k Kitchen) HasJar(f formula.Formula) bool {
	return slices.ContainsFunc(k.Jars, func(j Jar) bool { return j.Formula.SameMix(f) })
}

// FormulaOf is the id of the formula that f still is; empty when its rows were
// changed since it was taken from there.
func (k Kitchen) FormulaOf(f formula.Formula) string {
	if known, ok := formula.Find(f.ID, k); ok && known.SameMix(f) {
		return f.ID
	}
	return ""
}

// Typed is a kitchen as it is written in a request.
type Typed struct {
	Formulas    map[string]formula.Formula `json:"formulas,omitempty" required:"false" doc:"Formulas of your own, by the id that rows name them by"`
	Ingredients map[string]larder.Own      `json:"ingredients,omitempty" required:"false" doc:"Ingredients of your own, by id"`
	Prices      map[string]string          `json:"prices,omitempty" required:"false" doc:"By ingredient or cut id"`
	Stock       map[string]string          `json:"stock,omitempty" required:"false" doc:"By ingredient id"`
}

// Read adds what was typed to k. Mistakes come back with pointers into t.
func (t Typed) Read(k Kitchen) (Kitchen, field.Errors) {
	var errs field.Errors
	out := Kitchen{
		Formulas:    plus(k.Formulas, t.Formulas),
		Ingredients: plus(k.Ingredients, nil),
		Prices:      plus(k.Prices, nil),
		Stock:       plus(k.Stock, nil),
		Packs:       plus(k.Packs, nil),
		Jars:        slices.Clone(k.Jars),
		Learnt:      k.Learnt,
	}
	for id, f := range out.Formulas {
		f.ID = id
		out.Formulas[id] = f
	}
	for _, id := range slices.Sorted(maps.Keys(t.Ingredients)) {
		i, wrong := t.Ingredients[id].Ingredient(id)
		errs.Put("/ingredients/"+field.Key(id), wrong)
		out.Ingredients[id] = i
	}
	for _, thing := range slices.Sorted(maps.Keys(t.Prices)) {
		p, err := larder.PriceOf(thing, t.Prices[thing])
		if !errs.Take("/prices/"+field.Key(thing), err) {
			out.Prices[thing] = p
		}
	}
	for _, thing := range slices.Sorted(maps.Keys(t.Stock)) {
		a, err := quantity.ParseAmount(t.Stock[thing], false, quantity.USSpoons)
		if !errs.Take("/stock/"+field.Key(thing), err) {
			out.Stock[thing] = a
		}
	}
	return out, errs
}

func plus[V any](a, b map[string]V) map[string]V {
	out := map[string]V{}
	maps.Copy(out, a)
	maps.Copy(out, b)
	return out
}
