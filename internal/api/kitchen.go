package api

import (
	"context"
	"net/http"
	"strconv"
	"strings"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
	"verjuice/internal/store"
)

// ownPrefix marks the id of an ingredient of the cook's own.
const ownPrefix = "own-"

func ownID(id uint64) string { return ownPrefix + strconv.FormatUint(id, 10) }

// once is a table read from the database the first time that it is asked for.
type once[T any] struct {
	sync.Once
	found map[string]T
}

func (o *once[T]) get(id string, read func() map[string]T) (T, bool) {
	o.Do(func() { o.found = read() })
	v, ok := o.found[id]
	return v, ok
}

// kitchen is what the cook has besides what ships with the program, each thing
// looked up once. Several pieces may ask at the same time.
func (s *server) kitchen(ctx context.Context) formula.Shelf {
	var mu sync.Mutex
	formulas := map[string]*formula.Formula{}
	var ingredients once[larder.Ingredient]
	var prices once[larder.Price]
	var stock once[quantity.Amount]
	var jars once[quantity.Mass]
	return formula.Shelf{
		Formula: func(id string) (formula.Formula, bool) {
			mu.Lock()
			defer mu.Unlock()
			f, asked := formulas[id]
			if !asked {
				if number, err := strconv.ParseUint(id, 10, 64); err == nil {
					if r, err := s.Store.Formula(ctx, number); err == nil {
						f = &r.Formula
					}
				}
				formulas[id] = f
			}
			if f == nil {
				return formula.Formula{}, false
			}
			return *f, true
		},
		Ingredient: func(id string) (larder.Ingredient, bool) {
			if !strings.HasPrefix(id, ownPrefix) {
				return larder.Ingredient{}, false
			}
			return ingredients.get(id, func() map[string]larder.Ingredient { return s.ownIngredients(ctx, true) })
		},
		Price: func(thing string) (larder.Price, bool) {
			return prices.get(thing, func() map[string]larder.Price { return s.prices(ctx) })
		},
		Stock: func(thing string) (quantity.Amount, bool) {
			return stock.get(thing, func() map[string]quantity.Amount { return s.stock(ctx) })
		},
		Jar: func(formula string) quantity.Mass {
			left, _ := jars.get(formula, func() map[string]quantity.Mass { return s.inJars(ctx) })
			return left
		},
	}
}

// ownIngredients are the cook's own by id; with gone also the deleted ones, which
// old formulas may still hold.
func (s *server) ownIngredients(ctx context.Context, gone bool) map[string]larder.Ingredient {
	out := map[string]larder.Ingredient{}
	list, err := s.Store.Ingredients().List(ctx, gone)
	if err != nil {
		return out
	}
	for _, d := range list {
		if i, wrong := d.Doc.Ingredient(ownID(d.ID)); len(wrong) == 0 {
			out[i.ID] = i
		}
	}
	return out
}

func (s *server) prices(ctx context.Context) map[string]larder.Price {
	out := map[string]larder.Price{}
	list, err := s.Store.Things(ctx)
	if err != nil {
		return out
	}
	for _, t := range list {
		if p, err := larder.ParsePrice(t.Price); err == nil {
			out[t.Thing] = p
		}
	}
	return out
}

// stock is what is on the shelf.
func (s *server) stock(ctx context.Context) map[string]quantity.Amount {
	out := map[string]quantity.Amount{}
	list, err := s.Store.Things(ctx)
	if err != nil {
		return out
	}
	for _, t := range list {
		if a, err := quantity.ParseAmount(t.Stock, false); err == nil {
			out[t.Thing] = a
		}
	}
	return out
}

// inJars is what is left of each formula in jars that are still good.
func (s *server) inJars(ctx context.Context) map[string]quantity.Mass {
	out := map[string]quantity.Mass{}
	list, err := s.Store.Jars().List(ctx, false)
	if err != nil {
		return out
	}
	own := s.kitchen(ctx)
	for _, d := range list {
		if stand, wrong := d.Doc.Stand(own, s.Now()); len(wrong) == 0 && !stand.Over {
			out[d.Doc.Formula.ID] += stand.Left
		}
	}
	return out
}

// LarderThing is what is on the shelf of one thing, as typed.
type LarderThing struct {
	Price string `json:"price" required:"false" maxLength:"100" doc:"What it costs" example:"3.20 for 500 g"`
	Stock string `json:"stock" required:"false" maxLength:"100" doc:"How much there is" example:"350 g"`
}

// OwnIngredient is an ingredient of the cook's own on record.
type OwnIngredient struct {
	ID         uint64     `json:"id"`
	Version    uint       `json:"version"`
	Thing      string     `json:"thing" doc:"Its ingredient id"`
	Ingredient larder.Own `json:"ingredient"`
}

// Larder is prices, stock and the cook's own ingredients.
type Larder struct {
	Things map[string]LarderThing `json:"things" doc:"By ingredient or cut id"`
	Own    []OwnIngredient        `json:"own" nullable:"false"`
}

func (s *server) registerLarder(a huma.API) {
	huma.Register(a, op(http.MethodGet, "/api/larder", "larder", "Prices, stock and ingredients of your own"),
		func(ctx context.Context, _ *struct{}) (*body[Larder], error) {
			things, err := s.Store.Things(ctx)
			if err != nil {
				return nil, problemOf(err)
			}
			list, err := s.Store.Ingredients().List(ctx, false)
			if err != nil {
				return nil, problemOf(err)
			}
			out := Larder{Things: map[string]LarderThing{}, Own: []OwnIngredient{}}
			for _, t := range things {
				out.Things[t.Thing] = LarderThing{t.Price, t.Stock}
			}
			for _, d := range list {
				out.Own = append(out.Own, OwnIngredient{d.ID, d.Version, ownID(d.ID), d.Doc})
			}
			return answer(out), nil
		})
	huma.Register(a, op(http.MethodPut, "/api/larder/{thing}", "putThing", "Keep price and stock of an ingredient or a cut; without either it is forgotten"),
		func(ctx context.Context, in *struct {
			Thing string `path:"thing" maxLength:"64"`
			Body  LarderThing
		}) (*struct{}, error) {
			if err := s.soundThing(ctx, in.Thing, in.Body); err != nil {
				return nil, problemOf(err)
			}
			return nil, problemOf(s.Store.PutThing(ctx, store.Thing{Thing: in.Thing, Price: in.Body.Price, Stock: in.Body.Stock}))
		})
	docs(a, s.Store.Ingredients, resource[larder.Own]{
		path: "/api/ingredients", noun: "ingredient", what: "an ingredient of your own",
		check: func(_ context.Context, o larder.Own) error { _, wrong := o.Ingredient(""); return wrong.Err() },
	})
}

// soundThing refuses what cannot be read, what nobody knows, and a second money.
func (s *server) soundThing(ctx context.Context, thing string, t LarderThing) error {
	var errs field.Errors
	_, isCut := cut.Find(thing)
	_, known := larder.Find(thing)
	if _, own := s.kitchen(ctx).Ingredient(thing); !known && !own && !isCut {
		return store.ErrNotFound
	}
	if t.Stock != "" {
		_, err := quantity.ParseAmount(t.Stock, false)
		errs.Take("/stock", err)
	}
	if t.Price != "" {
		p, err := larder.ParsePrice(t.Price)
		if !errs.Take("/price", err) {
			for other, q := range s.prices(ctx) {
				if other != thing && q.Sign != p.Sign {
					errs.Add("/price", "the other prices are in “%s”: write this one so, too", orPlain(q.Sign))
					break
				}
			}
		}
	}
	return errs.Err()
}

func orPlain(sign string) string {
	if sign == "" {
		return "plain numbers"
	}
	return sign
}
