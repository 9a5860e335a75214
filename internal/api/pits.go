package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
	"verjuice/internal/store"
)

func (s *server) registerPits(a huma.API) {
	resource[cook.Pit, DocRecord[cook.Pit]]{
		path: "/api/pits", noun: "Pit", what: "a pit", records: s.Store.Pits, show: docRecord[cook.Pit],
		check: func(_ context.Context, _ string, p cook.Pit) error { return p.Check().Err() },
	}.register(a)
	huma.Register(a, op(http.MethodGet, "/api/pits", "listPits", "List the pits you cook on, by name"),
		func(ctx context.Context, _ *struct{}) (*body[[]DocRecord[cook.Pit]], error) {
			list, _, err := s.Store.Pits().List(ctx, store.Query{})
			if err != nil {
				return nil, problemOf(err)
			}
			out := []DocRecord[cook.Pit]{}
			for _, r := range list {
				out = append(out, docRecord(r))
			}
			return answer(out), nil
		})
}
