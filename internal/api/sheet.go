package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/kitchen"
	"verjuice/internal/sheet"
)

// cookAsked asks for a cook worked out.
type cookAsked struct {
	Measure
	ServedAt string `query:"served_at" doc:"Serving time on record, which may have passed"`
	Body     sheet.CookRequest
}

func (s *server) registerSheet(a huma.API) {
	huma.Register(a, op(http.MethodPost, "/api/sheet", "sheet", "Calculate every figure of a cook, saved or not"),
		func(ctx context.Context, in *cookAsked) (*body[sheet.Sheet], error) {
			k, err := s.kitchen(ctx, in.Body.Formulas()...)
			if err != nil {
				return nil, err
			}
			return answer(sheet.OfCook(in.Body, k, s.clock(in.ServedAt), in.reader())), nil
		})
	calc(s, a, "scale", "Calculate the rub for one piece", sheet.Scale)
	calc(s, a, "ledger", "Calculate the salt of one piece by every source", sheet.Ledger)
	calc(s, a, "bath", "Calculate a wet brine", sheet.WetBrine)
	calc(s, a, "injection", "Calculate an injection", sheet.Inject)
	calc(s, a, "drybrine", "Calculate how deep the salt of a rub gets", sheet.DryBrine)
}

// calc serves one computation of the core.
func calc[T any](s *server, a huma.API, name, summary string, compute func(sheet.PieceRequest, kitchen.Kitchen) (*T, error)) {
	huma.Register(a, op(http.MethodPost, "/api/calc/"+name, name, summary),
		func(ctx context.Context, in *body[sheet.PieceRequest]) (*body[*T], error) {
			k, err := s.kitchen(ctx, in.Body.Formulas()...)
			if err != nil {
				return nil, err
			}
			out, err := compute(in.Body, k)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
}
