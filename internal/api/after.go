package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/outcome"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

func (s *server) registerAfter(a huma.API) {
	huma.Register(a, op(http.MethodGet, "/api/cooks/{id}/after", "after", "Tell how a cook went: plan against actual, forecast against readings, weights and scores"), s.after)
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
func (s *server) went(ctx context.Context, id string, as sheet.Reader) (sheet.AfterSheet, outcome.Cook, error) {
	fail := func(err error) (sheet.AfterSheet, outcome.Cook, error) {
		return sheet.AfterSheet{}, outcome.Cook{}, problemOf(err)
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
	if out.Practice = !clock.Wall(); out.Practice || len(became.Pieces) == 0 {
		return out, became, nil
	}
	if err := s.keep(ctx, r.ID, told, became); err != nil {
		return fail(err)
	}
	return out, became, nil
}

// keep puts what became of a cook into the logbook, and learns from it when it is over.
func (s *server) keep(ctx context.Context, id string, told store.Told, became outcome.Cook) error {
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
