package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/starter"
)

// registerNow takes in a cook that began before it was planned here.
func (s *server) registerNow(a huma.API) {
	begun := op(http.MethodPost, "/api/now", "beginNow", "Begin a cook with a piece that is on its fire already")
	begun.DefaultStatus = http.StatusCreated
	huma.Register(a, begun, func(ctx context.Context, in *body[starter.AtOnce]) (*saved[CookRecord], error) {
		rec, err := s.app.Begin(ctx, in.Body)
		if err != nil {
			return nil, problemOf(err)
		}
		return &saved[CookRecord]{ETag: etag(rec.Version), Body: CookRecord(rec)}, nil
	})
}
