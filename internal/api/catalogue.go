package api

import (
	"context"
	"crypto/rand"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/starter"
	"verjuice/internal/sheet"
)

// Catalogue is everything there is to choose from.
type Catalogue struct {
	Cuts        []cut.Cut           `json:"cuts" nullable:"false"`
	Ingredients []larder.Ingredient `json:"ingredients" nullable:"false"`
	Asks        []sheet.WordAsk     `json:"asks" nullable:"false" doc:"Words that do not say which ingredient is meant, with what is asked then"`
	Supplies    []larder.Supply     `json:"supplies" nullable:"false" doc:"Fuel, wraps and wood"`
	Formulas    []formula.Formula   `json:"formulas" nullable:"false"`
	Coats       []sheet.CoatChoice  `json:"coats" nullable:"false"`
	Bands       []sheet.BandChoice  `json:"bands" nullable:"false"`
	Usual       cook.Usual          `json:"usual"`
	Pits        []sheet.PitChoice   `json:"pits" nullable:"false"`
	Layers      []sheet.LayerChoice `json:"layers" nullable:"false" doc:"Kinds of layer, in the order they go on"`
	Moves       []sheet.MoveChoice  `json:"moves" nullable:"false" doc:"Moves that a cook can add to what the stages say"`
	Moments     []string            `json:"moments" nullable:"false" doc:"Moments of a move, as they may be typed"`
	PitLists    []string            `json:"pit_lists" nullable:"false" doc:"What a pit is set to over the day, as it may be typed"`
	Avoid       []sheet.PlaceChoice `json:"avoid" nullable:"false" doc:"Places that a needle may be kept out of"`
	Species     []string            `json:"species" nullable:"false" doc:"In the order in which cuts are listed"`
}

func (s *server) registerCatalogue(a huma.API) {
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/catalogue",
			"getCatalogue",
			"List cuts, ingredients, ready-made formulas and everything else to choose from",
		),
		func(ctx context.Context, in *struct{ Measure }) (*body[Catalogue], error) {
			own, err := s.Store.OwnIngredients(ctx, false)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(Catalogue{
				Cuts:        cut.All(),
				Ingredients: append(larder.All(), own...),
				Asks:        sheet.WordAsks(),
				Supplies:    larder.Supplies(),
				Formulas:    formula.ReadyMade(),
				Coats:       sheet.Coats(),
				Bands:       sheet.Bands(),
				Usual:       sheet.UsualValues(in.Units),
				Pits:        sheet.Pits(),
				Species:     cut.Species(),
				Layers:      sheet.Layers(),
				Moves:       sheet.MoveChoices(in.Units),
				Moments:     sheet.MomentExamples(in.Units),
				PitLists:    sheet.PitExamples(in.Units),
				Avoid:       sheet.NeedlePlaces(),
			}), nil
		},
	)
	s.registerFirst(a)
	huma.Register(a, op(http.MethodGet, "/api/new/cook", "newCook", "Get an empty cook to start from"),
		func(_ context.Context, in *struct {
			Measure
			Zone string `query:"zone" doc:"IANA time zone of the browser"`
		}) (*body[cook.Cook], error) {
			zone, err := time.LoadLocation(in.Zone)
			if err != nil {
				return nil, problemOf(field.Errors{{Pointer: "/query/zone", Wrong: field.Because("zone.unknown")}})
			}
			c := starter.New(s.Now().In(zone), 8)
			c.Spoons = in.Spoons // what a cup means here, whoever reads it later
			return answer(c), nil
		})
	huma.Register(
		a,
		op(
			http.MethodPost,
			"/api/new/without-pit",
			"withoutPit",
			"Get a cook without one of its pits; pieces on it move to another",
		),
		func(_ context.Context, in *struct {
			Pit  int `query:"pit" minimum:"0" maximum:"5" doc:"Number of the pit, from 0"`
			Body cook.Cook
		}) (*body[cook.Cook], error) {
			return answer(starter.WithoutPit(in.Body, in.Pit)), nil
		},
	)
	huma.Register(
		a,
		op(http.MethodPost, "/api/new/with-method", "withMethod", "Get a piece that is cooked by a kept method",
			refusing(http.StatusNotFound)),
		func(ctx context.Context, in *struct {
			Method string `query:"method" maxLength:"40" doc:"Id of the method"`
			Body   cook.Piece
		}) (*body[cook.Piece], error) {
			m, err := s.Store.Methods().Get(ctx, in.Method)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(m.Doc.On(in.Body)), nil
		},
	)
	huma.Register(
		a,
		op(http.MethodGet, "/api/new/piece", "newPiece", "Get a piece of a cut at its usual weight and seasoning"),
		func(_ context.Context, in *struct {
			Measure
			Cut string `query:"cut" doc:"Cut id"`
		}) (*body[cook.Piece], error) {
			c, ok := cut.Find(in.Cut)
			if !ok {
				return nil, problemOf(field.Errors{{Pointer: "/query/cut", Wrong: field.Because("cut.unknown")}})
			}
			p := starter.NewPiece(c, in.Units)
			p.Key = strings.ToLower(rand.Text()[:8])
			return answer(p), nil
		},
	)
}

// registerFirst serves what a newcomer begins with.
func (s *server) registerFirst(a huma.API) {
	huma.Register(
		a,
		op(http.MethodGet, "/api/terms", "getTerms", "List the words of the trade, and the schools where cooks disagree"),
		func(context.Context, *struct{}) (*body[sheet.Terms], error) { return answer(sheet.WriteTerms()), nil },
	)
	example := op(
		http.MethodPost,
		"/api/new/example",
		"newExample",
		"Save a worked example: a shoulder for eight on a Saturday, salted, wrapped and rested", making)
	huma.Register(a, example, func(ctx context.Context, in *struct {
		Measure
		Zone string `query:"zone" maxLength:"60" doc:"IANA time zone of the browser"`
	}) (*made[cook.Cook], error) {
		zone, err := time.LoadLocation(in.Zone)
		if err != nil {
			return nil, problemOf(field.Errors{{Pointer: "/query/zone", Wrong: field.Because("zone.unknown")}})
		}
		rec, err := s.Store.Cooks().Create(ctx, starter.Example(s.Now().In(zone), in.Units))
		return madeAt(cooksAt, rec, err)
	})
}
