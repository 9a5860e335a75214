package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/firecalc"
	"verjuice/internal/core/outlook"
	"verjuice/internal/sheet"
)

func (s *server) registerHeat(a huma.API) {
	huma.Register(a, op(http.MethodPost, "/api/calc/fire", "calcFire", "Forecast a piece on a pit, as numbers", patiently),
		func(ctx context.Context, in *body[firecalc.FireRequest]) (*body[firecalc.FireAnswer], error) {
			out, err := firecalc.Calc(ctx, in.Body)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
	huma.Register(
		a,
		op(http.MethodPost, "/api/forecast", "calcCookForecast", "Forecast one piece of a cook-out, and other ways to cook it", patiently),
		func(ctx context.Context, in *struct {
			CookAsked
			Body outlook.OutlookRequest
		}) (*body[sheet.OutlookSheet], error) {
			page := cooking.CookRequest{Cook: in.Body.Cook, Facts: in.Body.Facts}
			inputs, err := s.app.Page(ctx, page, in.CookAsked.Cook)
			if err != nil {
				return nil, problemOf(err)
			}
			out, err := inputs.Outlook(ctx, in.Body.Piece, in.Body.Compare)
			if err != nil {
				return nil, problemOf(err)
			}
			said := sheet.WriteOutlook(out, in.reader())
			said.Again = again(out.Cook)
			return answer(said), nil
		},
	)
	huma.Register(
		a,
		op(http.MethodPost, "/api/calc/rest", "calcRest", "Forecast how a piece cools after the fire, as numbers", patiently),
		func(_ context.Context, in *body[firecalc.RestRequest]) (*body[firecalc.RestAnswer], error) {
			out, err := firecalc.CalcRest(in.Body)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		},
	)
}
