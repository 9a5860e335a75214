package api

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/exchange"
	"verjuice/internal/sheet"
)

func (s *server) registerCalendar(a huma.API) {
	huma.Register(
		a,
		op(http.MethodGet, "/api/cooks/{id}/calendar.ics", "getCookCalendar", "Get a cook's plan as iCalendar", patiently),
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
	prefix := "cook-" + inputs.ID
	var events []exchange.Event
	for _, t := range sheet.WritePlan(planned, sheet.Reader{}).Tasks {
		if t.Done {
			continue
		}
		one := exchange.Event{ID: prefix + "-" + t.ID, Label: t.Label, Note: t.Note, Reminds: true}
		if one.From, one.Until, err = span(t.At, t.Until); err != nil {
			return nil, problemOf(err)
		}
		events = append(events, one)
	}
	serve := planned.Order.Serving.Value.At
	events = append(events, exchange.Event{
		ID: prefix + "-serve", From: serve, Until: serve.Add(time.Hour), Label: "Serve: " + inputs.Name,
	})
	for _, p := range planned.Pieces {
		if at := p.Line.Serving.Value; !at.IsZero() {
			events = append(events, exchange.Event{
				ID: prefix + "-serve-" + p.Line.Key, From: at, Until: at.Add(time.Hour), Label: "Serve: " + sheet.Title(p),
			})
		}
	}
	return calendarFile(prefix, exchange.Calendar(inputs.Name, inputs.Version, s.Now(), events)), nil
}

// span is from one time to another, RFC 3339.
func span(from, until string) (a, b time.Time, err error) {
	if a, err = time.Parse(time.RFC3339, from); err == nil {
		b, err = time.Parse(time.RFC3339, until)
	}
	return a, b, err
}

func calendarFile(name, text string) *fileAnswer {
	return &fileAnswer{
		ContentType: "text/calendar; charset=utf-8",
		Disposition: fmt.Sprintf(`attachment; filename="%s.ics"`, name),
		Body:        []byte(text),
	}
}
