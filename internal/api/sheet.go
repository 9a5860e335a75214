package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/sheet"
)

// CookAsked is how a cook is to be worked out.
type CookAsked struct {
	Measure
	ServedAt string `query:"served_at" doc:"The saved serving time, which may have passed"`
	Where    bool   `query:"where" doc:"Tell also where each figure comes from"`
	Plain    bool   `query:"plain" doc:"Leave out what pictures are drawn with"`
}

func (c CookAsked) reader() sheet.Reader {
	return sheet.Reader{Units: c.Units, Spoons: c.Spoons, Brief: !c.Where, Plain: c.Plain}
}

func (s *server) registerSheet(a huma.API) {
	ofCook(s, a, "/api/sheet", "sheet", "Calculate every figure of a cook, saved or not", sheet.OfCook)
	ofCook(s, a, "/api/calc/plan", "plan", "Calculate the plan of a cook", sheet.OfPlan)
	ofCook(
		s,
		a,
		"/api/shopping",
		"shopping",
		"List what to buy for a cook, less what is in stock and in jars",
		sheet.OfShopping,
	)
	calc(s, a, "scale", "Calculate the rub for one piece", sheet.Scale)
	calc(s, a, "ledger", "Calculate the salt of one piece by every source", sheet.Ledger)
	calc(s, a, "bath", "Calculate a wet brine", sheet.WetBrine)
	calc(s, a, "injection", "Calculate an injection", sheet.Inject)
	calc(s, a, "drybrine", "Calculate how deep the salt of a rub gets", sheet.DryBrine)
}

// ofCook serves what is computed of a whole cook.
func ofCook[T any](
	s *server,
	a huma.API,
	path, name, summary string,
	compute func(context.Context, sheet.CookRequest, kitchen.Kitchen, cooking.Clock, sheet.Reader) (T, error),
) {
	huma.Register(a, op(http.MethodPost, path, name, summary),
		func(ctx context.Context, in *struct {
			CookAsked
			Body sheet.CookRequest
		}) (*body[T], error) {
			k, err := s.kitchen(ctx, in.Body.Formulas()...)
			if err != nil {
				return nil, err
			}
			out, err := compute(ctx, in.Body, k, s.clock(in.ServedAt), in.reader())
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
}

// calc serves what is computed of one piece.
func calc[T any](
	s *server,
	a huma.API,
	name, summary string,
	compute func(context.Context, sheet.PieceRequest, kitchen.Kitchen) (*T, error),
) {
	huma.Register(a, op(http.MethodPost, "/api/calc/"+name, name, summary),
		func(ctx context.Context, in *body[sheet.PieceRequest]) (*body[*T], error) {
			k, err := s.kitchen(ctx, in.Body.Formulas()...)
			if err != nil {
				return nil, err
			}
			out, err := compute(ctx, in.Body, k)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
}
