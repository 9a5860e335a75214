package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
	"verjuice/internal/store"
)

func (s *server) registerPits(a huma.API) {
	resource[cook.Pit]{
		path: "/api/pits", noun: "Pit", what: "a pit", records: s.Store.Pits,
	}.register(a)
	listAll(a, op(http.MethodGet, "/api/pits", "listPits", "List the pits you cook on, by name"), s.Store.Pits)
}

// listAll serves every record of a kind of which there are few.
func listAll[T any](a huma.API, o huma.Operation, records func() store.Records[T]) {
	huma.Register(a, o, func(ctx context.Context, _ *struct{}) (*body[ListPage[DocRecord[T]]], error) {
		list, _, err := records().List(ctx, store.Query{})
		if err != nil {
			return nil, problemOf(err)
		}
		out := []DocRecord[T]{}
		for _, r := range list {
			out = append(out, docRecord(r))
		}
		return onePage(out), nil
	})
}
