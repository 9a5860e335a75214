package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/app"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/starter"
	"verjuice/internal/sheet"
)

// registerPast takes in cooks that were never planned here, told afterwards.
func (s *server) registerPast(a huma.API) {
	huma.Register(
		a,
		op(http.MethodPost, "/api/past/read", "previewPastCook", "Read how a past cook went as it is told; nothing is saved", patiently),
		func(ctx context.Context, in *struct {
			Measure
			Body starter.Past
		}) (*body[sheet.TaleSheet], error) {
			moves, wrong := app.Retell(in.Body)
			return answer(sheet.WriteTale(moves, wrong, in.reader())), nil
		},
	)
	begun := op(http.MethodPost, "/api/past", "createPastCook", "Put a past cook into the logbook, as it is told", patiently, making)
	huma.Register(a, begun, func(ctx context.Context, in *body[starter.Past]) (*made[cook.Cook], error) {
		rec, err := s.app.Past(ctx, in.Body)
		return madeAt(cooksAt, rec, err)
	})
}
