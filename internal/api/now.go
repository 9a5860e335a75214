package api

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/starter"
	"verjuice/internal/store"
)

// longOn is how long ago a piece may have gone on that is on its fire now.
const longOn = 72 * time.Hour

// registerNow takes in a cook that began before it was planned here.
func (s *server) registerNow(a huma.API) {
	begun := op(http.MethodPost, "/api/now", "beginNow", "Begin a cook with a piece that is on its fire already")
	begun.DefaultStatus = http.StatusCreated
	huma.Register(a, begun, func(ctx context.Context, in *body[starter.AtOnce]) (*saved[CookRecord], error) {
		typed := in.Body
		on, err := s.wentOn(typed)
		if err != nil {
			return nil, problemOf(err)
		}
		c := typed.Cook()
		var rec store.Record[cook.Cook]
		err = s.typed.Together(ctx, func(db *store.Store) (err error) {
			if rec, err = db.Cooks().Create(ctx, c); err != nil {
				return err
			}
			return db.AddFact(
				ctx,
				rec.ID,
				facts.Fact{
					ID:    uuid.NewString(),
					Kind:  facts.Done,
					Piece: c.Pieces[0].Key,
					What:  "fire",
					At:    on.Format(time.RFC3339),
				},
			)
		})
		var wrong field.Errors
		if errors.As(err, &wrong) {
			err = placed(typed, wrong)
		}
		if err != nil {
			return nil, problemOf(err)
		}
		return &saved[CookRecord]{ETag: etag(rec.Version), Body: CookRecord(rec)}, nil
	})
}

// wentOn is when a piece went on. The error is a field.Errors.
func (s *server) wentOn(typed starter.AtOnce) (time.Time, error) {
	var wrong field.Errors
	zone, err := time.LoadLocation(typed.Zone)
	if err != nil {
		wrong.Add("/zone", "zone.unknown")
		return time.Time{}, wrong
	}
	now := s.Now().In(zone)
	if typed.On == "" {
		return now, nil
	}
	on, err := facts.Fact{At: typed.On}.Time(zone)
	switch {
	case err != nil:
		wrong.Add("/on", "time.unreadable")
	case on.After(now.Add(forecast.ClockSkew)):
		wrong.Add("/on", "on.ahead")
	case now.Sub(on) > longOn:
		wrong.Add("/on", "on.long-ago")
	}
	return on, wrong.Err()
}

// placed are the mistakes of a cook where they were typed.
func placed(typed starter.AtOnce, wrong field.Errors) field.Errors {
	var out field.Errors
	for _, e := range wrong {
		e.Pointer = typed.Place(e.Pointer)
		same := func(o field.Error) bool { return o.Pointer == e.Pointer }
		if !slices.ContainsFunc(out, same) { // the weight stands for two
			out = append(out, e)
		}
	}
	return out
}
