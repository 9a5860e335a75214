package store

import (
	"context"
	"database/sql"
	"fmt"
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
	asked := fmt.Sprint(now.Format("2006-01-02 15"), formulas)
	held, _ := s.kitchens.Get(asked)
	for {
		stand, err := s.stand(ctx, held.formulas)
		if err != nil {
			return kitchen.Kitchen{}, err
		}
		stand += asked
		if held.kitchen.Stand == stand {
			return held.kitchen, nil
		}
		k, err := s.loadKitchen(ctx, now, formulas)
		if err != nil {
			return k, err
		}
		next := keptKitchen{
			k,
			slices.Compact(slices.Sorted(slices.Values(slices.Concat(formulas, slices.Collect(maps.Keys(k.Formulas)))))),
		}
		if slices.Equal(next.formulas, held.formulas) {
			next.kitchen.Stand = stand
			s.kitchens.Add(asked, next)
			return next.kitchen, nil
		}
		held = next // it rests on other formulas than were asked about
	}
}

// keptKitchen is a kitchen as it was loaded, and the formulas that it rests on.
type keptKitchen struct {
	kitchen  kitchen.Kitchen
	formulas []string
}

// stand tells how the records of a kitchen with these formulas stand: it is the same
// while none of them is made, changed, deleted or brought back, by whatever program.
// Asking for it is much less work than loading them, with every letter that is typed.
func (s *Store) stand(ctx context.Context, formulas []string) (string, error) {
	var is struct {
		Many, Changes, Marks uint64
		Latest               sql.NullTime
	}
	err := s.db.WithContext(ctx).Raw(`SELECT COUNT(*) many, COALESCE(SUM(version), 0) changes, MAX(updated_at) latest,
		COALESCE(BIT_XOR(CRC32(CONCAT(id, ' ', version, ' ', updated_at, ' ', COALESCE(deleted_at, '')))), 0) marks
		FROM records WHERE kind IN ('ingredient', 'thing', 'jar', 'lessons') OR id IN ?`, append([]string{""}, formulas...)).Scan(&is).Error
	return fmt.Sprint(is.Many, is.Changes, is.Marks, is.Latest.Time.UnixMilli(), formulas), err
}

func (s *Store) loadKitchen(ctx context.Context, now time.Time, formulas []string) (kitchen.Kitchen, error) {
	k := kitchen.Kitchen{
		Formulas: map[string]formula.Formula{}, Ingredients: map[string]larder.Ingredient{},
		Prices: map[string]larder.Price{}, Stock: map[string]quantity.Amount{}, Packs: map[string]quantity.Amount{},
	}
	// Everything in one question.
	var rows []row
	err := s.db.WithContext(ctx).Unscoped().Order(byName).
		Where("kind = 'ingredient' OR (kind IN ('thing', 'jar', 'lessons') AND deleted_at IS NULL) OR (kind = 'formula' AND deleted_at IS NULL AND id IN ?)", append([]string{""}, formulas...)).
		Find(&rows).Error
	if err != nil {
		return k, err
	}
	var jars []formula.Jar
	var uses []string
	for _, m := range rows {
		switch m.Kind {
		case "ingredient":
			err = take(s.Ingredients(), m, func(o larder.Own) {
				if i, wrong := o.Ingredient(OwnID(m.ID)); len(wrong) == 0 {
					k.Ingredients[i.ID] = i
				}
			})
		case "thing":
			err = take(s.things(), m, func(t Thing) {
				if p, err := larder.PriceOf(t.Thing, t.Price); err == nil {
					k.Prices[t.Thing] = p
				}
				if a, err := quantity.ParseAmount(t.Stock, false, quantity.USSpoons); err == nil {
					k.Stock[t.Thing] = a
				}
				if a, err := quantity.ParseAmount(t.Pack, false, quantity.USSpoons); err == nil {
					k.Packs[t.Thing] = a
				}
			})
		case "lessons":
			err = take(s.lessons(), m, func(l Lessons) { k.Learnt = l.Book })
		case "jar":
			err = take(s.Jars(), m, func(j formula.Jar) {
				jars = append(jars, j)
				uses = append(uses, j.Formula.Uses()...)
			})
		case "formula":
			err = take(s.Formulas().Records, m, func(f formula.Formula) {
				k.Formulas[m.ID] = f
				uses = append(uses, f.Uses()...)
			})
		}
		if err != nil {
			return k, err
		}
	}
	if err := s.loadFormulas(ctx, false, uses, k.Formulas); err != nil {
		return k, err
	}
	for _, j := range jars {
		if stand, wrong := j.Stand(k, now); len(wrong) == 0 && !stand.Over {
			k.Jars = append(k.Jars, kitchen.Jar{Formula: j.Formula, Left: stand.Left})
		}
	}
	return k, nil
}

// take reads a row of a kind.
func take[T any](r Records[T], m row, do func(T)) error {
	rec, err := r.read(m)
	if err == nil {
		do(rec.Doc)
	}
	return err
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

// loadFormulas loads the formulas of the ids, and those that they use, into out; with gone also deleted
// ones.
func (s *Store) loadFormulas(ctx context.Context, gone bool, ids []string, out map[string]formula.Formula) error {
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
		db := all.all(ctx).Where("id IN ?", slices.Sorted(maps.Keys(next)))
		if gone {
			db = db.Unscoped()
		}
		found, err := all.find(db)
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
