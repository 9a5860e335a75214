package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/guess"
	"verjuice/internal/sheet"
)

func (s *server) registerGuess(a huma.API) {
	huma.Register(a, op(http.MethodPost, "/api/guess", "playGuess", "Judge the guesses of a game so far, and ask the next", patiently),
		func(ctx context.Context, in *struct {
			Measure
			Body guess.Game
		}) (*body[*sheet.GuessSheet], error) {
			out, err := guess.Play(ctx, in.Body)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(sheet.WriteGame(out, in.reader())), nil
		})
}
