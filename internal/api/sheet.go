package api

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/app"
	"verjuice/internal/core/cooking"
	"verjuice/internal/sheet"
)

// CookAsked is how a cook is to be worked out.
type CookAsked struct {
	Measure
	Cook  string `query:"cook" maxLength:"36" doc:"Id of the cook on record whose page it is: what its thermometers have read counts, too"`
	Where bool   `query:"where" doc:"Tell also where each figure comes from"`
	Plain bool   `query:"plain" doc:"Leave out what pictures are drawn with"`
}

func (c CookAsked) reader() sheet.Reader {
	return sheet.Reader{Units: c.Units, Spoons: c.Spoons, Brief: !c.Where, Plain: c.Plain}
}

func (s *server) registerSheet(a huma.API) {
	ofCook(s, a, "/api/sheet", "calcSheet", "Calculate every figure of a cook, saved or not",
		func(ctx context.Context, in app.Inputs, as sheet.Reader) (sheet.Sheet, error) {
			r, err := in.Work(ctx, cooking.Result{})
			return sheet.Write(r, as), err
		})
	ofCook(s, a, "/api/calc/plan", "calcPlan", "Calculate the plan of a cook",
		func(ctx context.Context, in app.Inputs, as sheet.Reader) (*sheet.PlanSheet, error) {
			r, err := in.Plan(ctx)
			return sheet.WritePlan(r, as), err
		})
	ofCook(s, a, "/api/shopping", "calcShopping", "List what to buy for a cook, less what is in stock and in jars",
		func(ctx context.Context, in app.Inputs, as sheet.Reader) (sheet.Shopping, error) {
			r, err := in.Work(ctx, cooking.Result{})
			return sheet.WriteShopping(r, as), err
		})
	calc(s, a, "scale", "Calculate the rub for one piece", cooking.Seasons, sheet.WriteSeason)
	calc(s, a, "ledger", "Calculate the salt of one piece by every source", cooking.Depths, sheet.WriteLedger)
	calc(s, a, "bath", "Calculate a wet brine", cooking.Baths, sheet.WriteBath)
	calc(s, a, "injection", "Calculate an injection", cooking.Needles, sheet.WriteNeedle)
	calc(s, a, "drybrine", "Calculate how deep the salt of a rub gets", cooking.Depths, sheet.WriteDepth)
}

// ofCook serves what is computed of a whole cook.
func ofCook[T any](
	s *server,
	a huma.API,
	path, name, summary string,
	compute func(context.Context, app.Inputs, sheet.Reader) (T, error),
) {
	huma.Register(a, op(http.MethodPost, path, name, summary, patiently),
		func(ctx context.Context, in *struct {
			CookAsked
			Body cooking.CookRequest
		}) (*body[T], error) {
			inputs, err := s.app.Page(ctx, in.Body, in.Cook)
			if err != nil {
				return nil, problemOf(err)
			}
			out, err := compute(ctx, inputs, in.reader())
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
	parts cooking.Parts,
	write func(cooking.Piece, sheet.Reader) *T,
) {
	huma.Register(a, op(http.MethodPost, "/api/calc/"+name, "calc"+strings.ToUpper(name[:1])+name[1:], summary, patiently),
		func(ctx context.Context, in *struct {
			Measure
			Body cooking.PieceRequest
		}) (*body[*T], error) {
			p, err := s.app.Piece(ctx, in.Body, parts)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(write(p, in.reader())), nil
		})
}
