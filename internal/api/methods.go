package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
)

func (s *server) registerMethods(a huma.API) {
	resource[cook.Method]{
		path: "/api/methods", noun: "Method", what: "a method", records: s.Store.Methods,
	}.register(a)
	listAll(
		a,
		op(http.MethodGet, "/api/methods", "listMethods", "List the methods you have kept, by name"),
		s.Store.Methods,
	)
	huma.Register(
		a,
		op(http.MethodPost, "/api/new/method", "newMethod", "Get the method of a piece, to keep it under a name"),
		func(_ context.Context, in *struct {
			Name string `query:"name" maxLength:"200"`
			Body cook.Piece
		}) (*body[cook.Method], error) {
			return answer(cook.MethodOf(in.Name, in.Body)), nil
		},
	)
}
