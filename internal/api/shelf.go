package api

import (
	"context"
	"crypto/rand"
	"maps"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/sheet"
)

// Shelf is everything there is to choose from.
type Shelf struct {
	Cuts        []cut.Cut           `json:"cuts" nullable:"false"`
	Ingredients []larder.Ingredient `json:"ingredients" nullable:"false"`
	Formulas    []formula.Formula   `json:"formulas" nullable:"false"`
	Coats       []formula.Coat      `json:"coats" nullable:"false"`
	Bands       []salt.Band         `json:"bands" nullable:"false"`
	Usual       sheet.Usual         `json:"usual"`
	Pits        []plan.PitKind      `json:"pits" nullable:"false"`
}

func (s *server) registerShelf(a huma.API) {
	huma.Register(a, op(http.MethodGet, "/api/shelf", "shelf", "Cuts, ingredients, formulas, coats and salt bands"),
		func(ctx context.Context, _ *struct{}) (*body[Shelf], error) {
			own := s.ownIngredients(ctx, false)
			ids := slices.Sorted(maps.Keys(own))
			ingredients := larder.All()
			for _, id := range ids {
				ingredients = append(ingredients, own[id])
			}
			return answer(Shelf{
				Cuts: cut.All(), Ingredients: ingredients, Formulas: formula.House(), Coats: formula.Coats, Bands: salt.Bands,
				Usual: sheet.UsualValues, Pits: plan.Pits,
			}), nil
		})
	huma.Register(a, op(http.MethodGet, "/api/new/cook", "newCook", "An empty page for a new cook"),
		func(_ context.Context, in *struct {
			Zone string `query:"zone" doc:"IANA time zone of the browser"`
		}) (*body[sheet.Cook], error) {
			zone, err := time.LoadLocation(in.Zone)
			if err != nil {
				return nil, problemOf(field.Errors{{Pointer: "/query/zone", Detail: "this is not a time zone"}})
			}
			return answer(sheet.NewCook(s.Now().In(zone), 8)), nil
		})
	huma.Register(a, op(http.MethodGet, "/api/new/piece", "newPiece", "A piece of a cut with its usual weight and seasoning"),
		func(_ context.Context, in *struct {
			Measure
			Cut string `query:"cut" doc:"Cut id"`
		}) (*body[sheet.Piece], error) {
			c, ok := cut.Find(in.Cut)
			if !ok {
				return nil, problemOf(field.Errors{{Pointer: "/query/cut", Detail: "choose a cut"}})
			}
			p := sheet.NewPiece(c, in.Units)
			p.Key = strings.ToLower(rand.Text()[:8])
			return answer(p), nil
		})
}
