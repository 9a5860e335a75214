package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/app"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/retelling"
	"verjuice/internal/core/starter"
	"verjuice/internal/sheet"
)

// registerPast takes in cooks that were never planned here, told afterwards.
func (s *server) registerPast(a huma.API) {
	huma.Register(
		a,
		op(http.MethodPost, "/api/calc/told", "calcTold", "Read a text of how a cook went", patiently),
		func(ctx context.Context, in *struct {
			Measure
			Body retelling.TellRequest
		}) (*body[sheet.ToldSheet], error) {
			told, wrong := s.app.Retell(in.Body)
			return answer(sheet.WriteTold(told, wrong, in.reader())), nil
		},
	)
	huma.Register(
		a,
		op(http.MethodPut, "/api/cooks/{id}/told", "saveCookTold", "Tell in words how a piece of a past cook went: what was told of it before is withdrawn",
			patiently, refusing(http.StatusNotFound)),
		func(ctx context.Context, in *struct {
			ByID
			Measure
			Body struct {
				Told      string `json:"told" maxLength:"4000" doc:"How it went"`
				Piece     string `json:"piece,omitempty" required:"false" maxLength:"60" doc:"Key of the piece that is told of; empty is the first"`
				On        string `json:"on,omitempty" required:"false" maxLength:"40" doc:"When it went on, local time or RFC 3339; empty is as it is on record"`
				AsRemarks bool   `json:"as_remarks,omitempty" required:"false" doc:"Keep what is not clear as remarks, instead of asking"`
			}
		}) (*body[sheet.ToldSheet], error) {
			told, err := s.app.Reread(ctx, in.ID, app.Retelling{
				Piece: in.Body.Piece, On: in.Body.On, Told: in.Body.Told, AsRemarks: in.Body.AsRemarks,
			})
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(sheet.WriteTold(told, nil, in.reader())), nil
		},
	)
	begun := op(http.MethodPost, "/api/past", "createPastCook", "Put a past cook into the logbook, as it is told", patiently, making)
	huma.Register(a, begun, func(ctx context.Context, in *body[starter.Past]) (*made[cook.Cook], error) {
		rec, err := s.app.Past(ctx, in.Body)
		return madeAt(cooksAt, rec, err)
	})
}
