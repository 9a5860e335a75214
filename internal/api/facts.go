package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/facts"
)

func (s *server) registerFacts(a huma.API) {
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/cooks/{id}/facts",
			"listCookFacts",
			"List what has happened at a cook, in the order in which it was said",
		),
		func(ctx context.Context, in *ByID) (*body[facts.Facts], error) {
			if _, err := s.Store.Cooks().Get(ctx, in.ID); err != nil {
				return nil, problemOf(err)
			}
			list, err := s.Store.Facts(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(list), nil
		},
	)
	added := op(
		http.MethodPost,
		"/api/cooks/{id}/facts",
		"createCookFact",
		"Add a fact; the same one twice is once, and another with its id is a conflict", making, refusing(http.StatusConflict))
	huma.Register(a, added, func(ctx context.Context, in *struct {
		ByID
		Body facts.Fact
	}) (*body[facts.Fact], error) {
		if err := s.Store.AddFact(ctx, in.ID, in.Body); err != nil {
			return nil, problemOf(err)
		}
		return answer(in.Body), nil
	})
}
