package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/sheet"
)

func (s *server) registerTrainer(a huma.API) {
	huma.Register(a, op(http.MethodPost, "/api/trainer", "trainer", "Judge the guesses of a game so far, and ask the next"),
		func(_ context.Context, in *struct {
			Measure
			Body sheet.TrainerGame
		}) (*body[*sheet.TrainerSheet], error) {
			out, err := sheet.Trainer(in.Body, in.options(s.Now()))
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
}
