package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/firecalc"
	"verjuice/internal/sheet"
)

func (s *server) registerHeat(a huma.API) {
	huma.Register(a, op(http.MethodPost, "/api/calc/forecast", "forecast", "Forecast a piece on a pit, as numbers"),
		func(ctx context.Context, in *body[firecalc.FireRequest]) (*body[firecalc.FireAnswer], error) {
			out, err := firecalc.Calc(ctx, in.Body)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
	huma.Register(
		a,
		op(http.MethodPost, "/api/forecast", "outlook", "Forecast one piece of a cook-out, and other ways to cook it"),
		func(ctx context.Context, in *struct {
			CookAsked
			Body sheet.OutlookRequest
		}) (*body[sheet.OutlookSheet], error) {
			k, err := s.kitchen(ctx, sheet.CookRequest{Cook: in.Body.Cook}.Formulas()...)
			if err != nil {
				return nil, err
			}
			out, err := sheet.OfOutlook(ctx, in.Body, k, s.clock(in.ServedAt), in.reader())
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		},
	)
	huma.Register(
		a,
		op(http.MethodPost, "/api/calc/rest", "forecastRest", "Forecast how a piece cools after the fire, as numbers"),
		func(_ context.Context, in *body[firecalc.RestRequest]) (*body[firecalc.RestAnswer], error) {
			out, err := firecalc.CalcRest(in.Body)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		},
	)
}
