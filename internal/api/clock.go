package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

type clockNow struct {
	Now time.Time `json:"now"`
}

// DayTime is a day, and a time of it.
type DayTime struct {
	At string `json:"at" doc:"Local time (YYYY-MM-DDTHH:MM), or the day alone" example:"2026-12-05T19:00"`
}

// registerClock tells what time it is, and reads times as people write them.
func (s *server) registerClock(a huma.API) {
	huma.Register(a, op(http.MethodGet, "/api/clock", "getClock", "The server's clock, from which pages take today and now"),
		func(context.Context, *struct{}) (*body[clockNow], error) { return answer(clockNow{Now: s.Now()}), nil })
	huma.Register(
		a,
		op(http.MethodGet, "/api/calc/moment", "calcMoment", "Read a day and a time of it as it is written",
			refusing(http.StatusUnprocessableEntity)),
		s.moment,
	)
}

func (s *server) moment(_ context.Context, in *struct {
	Measure
	Typed string `query:"typed" required:"true" maxLength:"200" doc:"As it is written" example:"Sat 5 Dec 2026, 19:00"`
	Zone  string `query:"zone" maxLength:"60" doc:"IANA time zone of the place; UTC without one"`
	Was   string `query:"was" maxLength:"40" doc:"Local time that stood there before: a time alone keeps its day"`
	Past  bool   `query:"past" doc:"It has passed: Sunday is the last one"`
	Day   bool   `query:"day" doc:"The day alone"`
}) (*body[DayTime], error) {
	var wrong field.Errors
	zone, err := time.LoadLocation(in.Zone)
	if err != nil {
		wrong.Add("/zone", "zone.unknown")
		return nil, problemOf(wrong)
	}
	by := when.Around{Now: s.Now().In(zone), Past: in.Past, MonthFirst: in.Units == quantity.US}
	by.Was, _ = time.ParseInLocation(cook.TimeLayout, in.Was, zone)
	read, layout := when.ReadMoment, cook.TimeLayout
	if in.Day {
		read, layout = when.ReadDay, time.DateOnly
	}
	at, err := read(in.Typed, by)
	if wrong.Take("/typed", err); len(wrong) > 0 {
		return nil, problemOf(wrong)
	}
	return answer(DayTime{At: at.Format(layout)}), nil
}
