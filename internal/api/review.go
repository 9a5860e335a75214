package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
	"verjuice/internal/sheet"
)

func (s *server) registerReview(a huma.API) {
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/cooks/{id}/review",
			"getCookReview",
			"Tell how a cook went: plan against actual, forecast against readings, weights and scores", patiently),
		s.review,
	)
	s.registerRepeat(a)
}

// review is how a cook went.
func (s *server) review(ctx context.Context, in *LiveAsked) (*body[sheet.AfterSheet], error) {
	went, inputs, err := s.app.Review(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	out := sheet.WriteReview(went, in.reader())
	out.Practice = !inputs.Clock.Wall()
	return answer(out), nil
}

// registerRepeat lets a cook be cooked again, with what it taught.
func (s *server) registerRepeat(a huma.API) {
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/cooks/{id}/proposals",
			"listCookProposals",
			"List what a cook that is over proposes for the next one like it",
		),
		func(ctx context.Context, in *ByID) (*body[ListPage[sheet.ProposalLine]], error) {
			went, inputs, err := s.app.Review(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			return onePage(sheet.WriteProposals(inputs.Cook, went.Outcome)), nil
		},
	)
	again := op(
		http.MethodPost,
		"/api/cooks/{id}/repeat",
		"repeatCook",
		"Copy a cook, without its date, with those of its proposals that are taken", making)
	huma.Register(a, again, func(ctx context.Context, in *struct {
		ByID
		Body struct {
			Take []string `json:"take" nullable:"false" maxItems:"200" doc:"Proposals by id"`
		}
	}) (*made[cook.Cook], error) {
		rec, err := s.app.Repeat(ctx, in.ID, in.Body.Take)
		return madeAt(cooksAt, rec, err)
	})
}
