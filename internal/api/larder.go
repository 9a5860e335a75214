package api

import (
	"context"
	"errors"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/field"
	"verjuice/internal/core/larder"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// LarderThing is the price and stock of one thing, as typed.
type LarderThing struct {
	Price string `json:"price" required:"false" maxLength:"100" doc:"What it costs" example:"3.20 for 500 g"`
	Stock string `json:"stock" required:"false" maxLength:"100" doc:"How much there is" example:"350 g"`
	Pack  string `json:"pack,omitempty" required:"false" maxLength:"100" doc:"What a bottle, can or packet of it holds; told once with an amount, it is remembered" example:"500 mL"`
}

// OwnIngredient is a saved ingredient of the cook's own.
type OwnIngredient struct {
	ID         string     `json:"id" format:"uuid"`
	Version    uint       `json:"version"`
	Thing      string     `json:"thing" doc:"Its ingredient id"`
	Ingredient larder.Own `json:"ingredient"`
	Note       string     `json:"note" doc:"What it is, in words"`
}

// Larder is prices, stock and the cook's own ingredients.
type Larder struct {
	Things map[string]LarderThing `json:"things" doc:"By id of an ingredient, a cut or a supply"`
	Own    []OwnIngredient        `json:"own" nullable:"false"`
}

func (s *server) registerLarder(a huma.API) {
	huma.Register(a, op(http.MethodGet, "/api/larder", "getLarder", "List prices, stock and own ingredients"),
		func(ctx context.Context, _ *struct{}) (*body[Larder], error) {
			things, err := s.Store.Things(ctx)
			if err != nil {
				return nil, problemOf(err)
			}
			list, _, err := s.Store.Ingredients().List(ctx, store.Query{})
			if err != nil {
				return nil, problemOf(err)
			}
			out := Larder{Things: map[string]LarderThing{}, Own: []OwnIngredient{}}
			for _, t := range things {
				out.Things[t.Thing] = LarderThing{t.Price, t.Stock, t.Pack}
			}
			for _, d := range list {
				out.Own = append(out.Own, OwnIngredient{d.ID, d.Version, store.OwnID(d.ID), d.Doc, sheet.OwnNote(d.Doc)})
			}
			return answer(out), nil
		})
	huma.Register(
		a,
		op(
			http.MethodPut,
			"/api/larder/{thing}",
			"saveLarderThing",
			"Set the price and stock of an ingredient, a cut, or fuel, wood or a wrap; all empty removes it",
		),
		func(ctx context.Context, in *struct {
			Thing string `path:"thing" maxLength:"64"`
			Body  LarderThing
		}) (*struct{}, error) {
			thing := store.Thing{Thing: in.Thing, Price: in.Body.Price, Stock: in.Body.Stock, Pack: in.Body.Pack}
			if err := s.soundThing(ctx, thing); err != nil {
				return nil, problemOf(err)
			}
			return nil, problemOf(s.Store.PutThing(ctx, thing))
		},
	)
	resource[larder.Own]{
		path: "/api/ingredients", noun: "Ingredient", what: "an ingredient of your own", records: s.Store.Ingredients,
	}.register(a)
}

// soundThing refuses a price or a stock with a mistake, and a price in another currency than the others.
func (s *server) soundThing(ctx context.Context, t store.Thing) error {
	var errs field.Errors
	if err := s.Store.SoundThing(ctx, t); err != nil && !errors.As(err, &errs) {
		return err
	}
	if slices.ContainsFunc(errs, func(e field.Error) bool { return e.Pointer == "/thing" }) { // it is the address
		return store.ErrNotFound
	}
	k, err := s.Store.Kitchen(ctx, s.Now())
	if err != nil {
		return err
	}
	if p, err := larder.PriceOf(t.Thing, t.Price); err == nil {
		for other, q := range k.Prices {
			if other != t.Thing && q.Sign != p.Sign {
				errs.Add("/price", "price.currency", "sign", sheet.CurrencyName(q.Sign))
				break
			}
		}
	}
	return errs.Err()
}
