package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/sheet"
)

func (s *server) registerSheet(a huma.API) {
	huma.Register(a, op(http.MethodPost, "/api/sheet", "sheet", "Every figure of a cook as typed, saved or not"),
		func(ctx context.Context, in *struct {
			Measure
			ServedAt string `query:"served_at" doc:"Serving time on record, which may have passed"`
			Body     sheet.Cook
		}) (*body[sheet.Sheet], error) {
			opt := in.options(s.Now())
			opt.ServedAt, opt.Shelf = in.ServedAt, s.kitchen(ctx)
			return answer(sheet.Compute(in.Body, opt)), nil
		})
	calc(a, "scale", "Weigh out a rub for one piece", sheet.Scale)
	calc(a, "ledger", "Add up the salt of one piece", sheet.Ledger)
	calc(a, "bath", "Work out a wet brine for one kind of piece", sheet.WetBrine)
	calc(a, "injection", "Work out an injection for one kind of piece", sheet.Inject)
	calc(a, "drybrine", "Follow the salt of one piece's coat into the meat", sheet.DryBrine)
}

// calc serves one computation of the core.
func calc[T any](a huma.API, name, summary string, compute func(sheet.Request) (*T, error)) {
	huma.Register(a, op(http.MethodPost, "/api/calc/"+name, name, summary),
		func(_ context.Context, in *body[sheet.Request]) (*body[*T], error) {
			out, err := compute(in.Body)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
}
