package api

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/exchange"
	"verjuice/internal/sheet"
)

func (s *server) registerCalendar(a huma.API) {
	huma.Register(
		a,
		op(http.MethodGet, "/api/cooks/{id}/calendar.ics", "calendar", "Get a cook's plan as iCalendar"),
		s.calendar,
	)
}

func (s *server) calendar(ctx context.Context, in *ByID) (*fileAnswer, error) {
	r, err := s.Store.Cooks().Get(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	happened, err := s.Store.Facts(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	k, err := s.kitchen(ctx, r.Doc.Formulas()...)
	if err != nil {
		return nil, err
	}
	plan, err := sheet.OfPlan(
		ctx,
		sheet.CookRequest{Cook: r.Doc, Facts: happened},
		k,
		s.clock(r.Doc.ServeAt),
		sheet.Reader{},
	)
	if err != nil {
		return nil, problemOf(err)
	}
	text, err := exchange.Calendar(r.ID, r.Version, r.Doc, plan, s.Now())
	if err != nil {
		return nil, problemOf(err)
	}
	return &fileAnswer{
		ContentType: "text/calendar; charset=utf-8",
		Disposition: fmt.Sprintf(`attachment; filename="cook-%s.ics"`, r.ID),
		Body:        []byte(text),
	}, nil
}
