package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/forecast"
)

func (s *server) registerHeat(a huma.API) {
	huma.Register(a, op(http.MethodPost, "/api/calc/forecast", "forecast", "Forecast a piece on a pit, as numbers"),
		func(ctx context.Context, in *body[forecast.FireRequest]) (*body[forecast.FireAnswer], error) {
			out, err := forecast.Calc(ctx, in.Body)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
	huma.Register(a, op(http.MethodPost, "/api/calc/rest", "forecastRest", "Forecast how a piece cools after the fire, as numbers"),
		func(_ context.Context, in *body[forecast.RestRequest]) (*body[forecast.RestAnswer], error) {
			out, err := forecast.CalcRest(in.Body)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
}
