package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/starter"
)

// registerNow takes in a cook that began before it was planned here.
func (s *server) registerNow(a huma.API) {
	begun := op(http.MethodPost, "/api/now", "createCookNow", "Begin a cook with a piece that is on its fire already", patiently, making)
	huma.Register(a, begun, func(ctx context.Context, in *body[starter.AtOnce]) (*made[cook.Cook], error) {
		rec, err := s.app.Begin(ctx, in.Body)
		return madeAt(cooksAt, rec, err)
	})
}
