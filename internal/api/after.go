package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/starter"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

func (s *server) registerAfter(a huma.API) {
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/cooks/{id}/after",
			"after",
			"Tell how a cook went: plan against actual, forecast against readings, weights and scores",
		),
		s.after,
	)
	s.registerRepeat(a)
}

// after is how a cook went. What is over is kept in the logbook, and learnt from.
func (s *server) after(ctx context.Context, in *LiveAsked) (*body[sheet.AfterSheet], error) {
	out, _, err := s.went(ctx, in.ID, in.reader())
	if err != nil {
		return nil, err
	}
	return answer(out), nil
}

// went works out how a cook went, and keeps that in the logbook where anything of it has changed.
func (s *server) went(ctx context.Context, id string, as sheet.Reader) (sheet.AfterSheet, logbook.Outcome, error) {
	fail := func(err error) (sheet.AfterSheet, logbook.Outcome, error) {
		return sheet.AfterSheet{}, logbook.Outcome{}, problemOf(err)
	}
	told, err := s.Store.Told(ctx, id)
	if err != nil {
		return fail(err)
	}
	r, err := s.Store.Cooks().Get(ctx, id)
	if err != nil {
		return fail(err)
	}
	happened, err := s.Store.Facts(ctx, r.ID)
	if err != nil {
		return fail(err)
	}
	course, _, err := s.Store.Course(ctx, r.ID)
	if err != nil {
		return fail(err)
	}
	clock, err := s.Store.Clock(ctx, r.ID)
	if err != nil {
		return fail(err)
	}
	k, err := s.kitchen(ctx, r.Doc.Formulas()...)
	if err != nil {
		return fail(err)
	}
	at := cooking.Clock{Now: clock.Now(s.Now()), Recorded: r.Doc.ServeAt}
	out, became, err := sheet.OfAfter(ctx, sheet.CookRequest{Cook: r.Doc, Facts: happened}, k, at, course, as)
	if err != nil {
		return fail(err)
	}
	if out.Practice = !clock.Wall(); out.Practice || len(became.Pieces) == 0 || !became.Sound() {
		return out, became, nil
	}
	if err := s.keep(ctx, r.ID, told, became); err != nil {
		return fail(err)
	}
	return out, became, nil
}

// keep puts what became of a cook into the logbook, and learns from it when it is over.
func (s *server) keep(ctx context.Context, id string, told store.Told, became logbook.Outcome) error {
	was, there, err := s.Store.Outcome(ctx, id)
	if err != nil || there && was.Told == told.String() && was.Outcome.Model == became.Model {
		return err
	}
	if err := s.Store.PutOutcome(ctx, id, told, became); err != nil {
		return err
	}
	if !became.Finished && !(there && was.Outcome.Finished) {
		return nil
	}
	_, err = s.Store.Learn(ctx, nil)
	return err
}

// registerRepeat lets a cook be cooked again, with what it taught.
func (s *server) registerRepeat(a huma.API) {
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/cooks/{id}/proposals",
			"proposals",
			"List what a cook that is over proposes for the next one like it",
		),
		func(ctx context.Context, in *ByID) (*body[[]sheet.ProposalLine], error) {
			r, became, err := s.overAndDone(ctx, in.ID)
			if err != nil {
				return nil, err
			}
			return answer(sheet.WriteProposals(r.Doc, became)), nil
		},
	)
	again := op(
		http.MethodPost,
		"/api/cooks/{id}/repeat",
		"repeatCook",
		"Copy a cook, without its date, with those of its proposals that are taken",
	)
	again.DefaultStatus = http.StatusCreated
	huma.Register(a, again, func(ctx context.Context, in *struct {
		ByID
		Body struct {
			Take []string `json:"take" nullable:"false" maxItems:"200" doc:"Proposals by id"`
		}
	}) (*saved[CookRecord], error) {
		r, became, err := s.overAndDone(ctx, in.ID)
		if err != nil {
			return nil, err
		}
		c := starter.Repeat(r.Doc, became, in.Body.Take)
		made, err := s.Store.Cooks().Create(ctx, c)
		if err != nil {
			return nil, problemOf(err)
		}
		return &saved[CookRecord]{ETag: etag(made.Version), Body: CookRecord(made)}, nil
	})
}

func (s *server) overAndDone(ctx context.Context, id string) (store.Record[cook.Cook], logbook.Outcome, error) {
	r, err := s.Store.Cooks().Get(ctx, id)
	if err != nil {
		return r, logbook.Outcome{}, problemOf(err)
	}
	became, err := s.outcomeOf(ctx, id)
	return r, became, err
}
