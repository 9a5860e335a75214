package api

import (
	"context"
	"net/http"
	"strings"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/field"
)

// checkMethod returns what keeps a method from being kept.
func checkMethod(_ context.Context, _ string, m cook.Method) error {
	var errs field.Errors
	if strings.TrimSpace(m.Name) == "" || utf8.RuneCountInString(m.Name) > cook.MaxText {
		errs.Add("/name", "name.needed", "most", cook.MaxText)
	}
	return errs.Err()
}

func (s *server) registerMethods(a huma.API) {
	resource[cook.Method, DocRecord[cook.Method]]{
		path: "/api/methods", noun: "Method", what: "a method", records: s.Store.Methods, show: docRecord[cook.Method], check: checkMethod,
	}.register(a)
	listAll(a, op(http.MethodGet, "/api/methods", "listMethods", "List the methods you have kept, by name"), s.Store.Methods)
	huma.Register(a, op(http.MethodPost, "/api/new/method", "newMethod", "Get the method of a piece, to keep it under a name"),
		func(_ context.Context, in *struct {
			Name string `query:"name" maxLength:"200"`
			Body cook.Piece
		}) (*body[cook.Method], error) {
			return answer(cook.MethodOf(in.Name, in.Body)), nil
		})
}
