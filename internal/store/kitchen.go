package store

import (
	"context"
	"maps"
	"slices"
	"time"

	"github.com/google/uuid"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// OwnPrefix marks the id of an ingredient of the cook's own.
const OwnPrefix = "own-"

// OwnID is the ingredient id of a record.
func OwnID(id string) string { return OwnPrefix + id }

// Kitchen loads what the cook has: ingredients of their own (deleted ones, too, which
// old formulas may still hold), prices, stock, jars that are still good at now, and
// the formulas of the given ids with all that they use.
func (s *Store) Kitchen(ctx context.Context, now time.Time, formulas ...string) (kitchen.Kitchen, error) {
	k := kitchen.Kitchen{
		Formulas: map[string]formula.Formula{}, Ingredients: map[string]larder.Ingredient{}, Prices: map[string]larder.Price{}, Stock: map[string]quantity.Amount{},
	}
	own, err := s.OwnIngredients(ctx, true)
	if err != nil {
		return k, err
	}
	for _, i := range own {
		k.Ingredients[i.ID] = i
	}
	things, err := s.Things(ctx)
	if err != nil {
		return k, err
	}
	for _, t := range things {
		if p, err := larder.ParsePrice(t.Price); err == nil {
			k.Prices[t.Thing] = p
		}
		if a, err := quantity.ParseAmount(t.Stock, false, quantity.USSpoons); err == nil {
			k.Stock[t.Thing] = a
		}
	}
	jars, _, err := s.Jars().List(ctx, Query{})
	if err != nil {
		return k, err
	}
	for _, j := range jars {
		formulas = append(formulas, j.Doc.Formula.Uses()...)
	}
	if err := s.loadFormulas(ctx, formulas, k.Formulas); err != nil {
		return k, err
	}
	for _, j := range jars {
		if stand, wrong := j.Doc.Stand(k, now); len(wrong) == 0 && !stand.Over {
			k.Jars = append(k.Jars, kitchen.Jar{Formula: j.Doc.Formula, Left: stand.Left})
		}
	}
	return k, nil
}

// OwnIngredients are the cook's own; with gone also the deleted ones.
func (s *Store) OwnIngredients(ctx context.Context, gone bool) ([]larder.Ingredient, error) {
	list, _, err := s.Ingredients().List(ctx, Query{Gone: gone})
	if err != nil {
		return nil, err
	}
	out := []larder.Ingredient{}
	for _, d := range list {
		if i, wrong := d.Doc.Ingredient(OwnID(d.ID)); len(wrong) == 0 {
			out = append(out, i)
		}
	}
	return out, nil
}

// loadFormulas loads the formulas of the ids, and those that they use, into out.
func (s *Store) loadFormulas(ctx context.Context, ids []string, out map[string]formula.Formula) error {
	all := s.Formulas()
	next := map[string]bool{}
	ask := func(ids []string) {
		for _, id := range ids {
			if _, have := out[id]; !have && uuid.Validate(id) == nil {
				next[id] = true
			}
		}
	}
	for ask(ids); len(next) > 0; {
		found, err := all.find(all.all(ctx).Where("id IN ?", slices.Sorted(maps.Keys(next))))
		if err != nil {
			return err
		}
		clear(next)
		for _, f := range found {
			out[f.ID] = f.Doc
		}
		for _, f := range found {
			ask(f.Doc.Uses())
		}
	}
	return nil
}
