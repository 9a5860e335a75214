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
	inputs, err := s.app.Load(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	planned, err := inputs.Plan(ctx)
	if err != nil {
		return nil, problemOf(err)
	}
	text, err := exchange.Calendar(inputs.ID, inputs.Version, inputs.Cook, sheet.WritePlan(planned, sheet.Reader{}), s.Now())
	if err != nil {
		return nil, problemOf(err)
	}
	return &fileAnswer{
		ContentType: "text/calendar; charset=utf-8",
		Disposition: fmt.Sprintf(`attachment; filename="cook-%s.ics"`, inputs.ID),
		Body:        []byte(text),
	}, nil
}
