package api

import (
	"context"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/practice"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// Practice is how a cook is practised.
type Practice struct {
	Speed float64 `json:"speed" minimum:"1" maximum:"240" doc:"How much faster its clock goes than the one on the wall" example:"60"`
	Seed  uint64  `json:"seed,omitempty" required:"false" doc:"What is hidden of its pit and its meat is drawn from this; the same is the same again"`
}

func (s *server) registerPractice(a huma.API) {
	made := op(
		http.MethodPost,
		"/api/cooks/{id}/practise",
		"practise",
		"Copy a cook, to practise it on a simulated pit with a clock of its own",
	)
	made.DefaultStatus = http.StatusCreated
	huma.Register(a, made, func(ctx context.Context, in *struct {
		ByID
		Body Practice
	}) (*saved[CookRecord], error) {
		r, err := s.Store.Cooks().Get(ctx, in.ID)
		if err != nil {
			return nil, problemOf(err)
		}
		start, done, err := s.begins(ctx, r.Doc)
		if err != nil {
			return nil, err
		}
		c := r.Doc
		c.Name = practising(c.Name)
		now := s.Now()
		if in.Body.Seed == 0 {
			in.Body.Seed = uint64(now.UnixNano())
		}
		copied, err := s.Store.Practise(
			ctx,
			c,
			store.Clock{Began: now, At: start, Speed: in.Body.Speed, Seed: in.Body.Seed},
			done,
		)
		if err != nil {
			return nil, problemOf(err)
		}
		return &saved[CookRecord]{ETag: etag(copied.Version), Body: CookRecord(copied)}, nil
	})
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/cooks/{id}/practise",
			"practised",
			"Tell what was true of a cook that was practised, and what other decisions would have come to; nothing while a piece is on the fire",
		),
		s.debrief,
	)
	huma.Register(
		a,
		op(
			http.MethodPut,
			"/api/cooks/{id}/practise",
			"practiseFaster",
			"Make the clock of a cook that is practised faster or slower",
		),
		func(ctx context.Context, in *struct {
			ByID
			Body Practice
		}) (*struct{}, error) {
			clock, err := s.Store.Clock(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			if clock.Wall() {
				return nil, newProblem(http.StatusConflict, realOne)
			}
			now := s.Now()
			clock.Began, clock.At, clock.Speed, clock.Running = now, clock.Now(now), in.Body.Speed, !clock.Waits
			return nil, problemOf(s.Store.SetClock(ctx, in.ID, clock))
		},
	)
}

// debrief is what was true of a cook that was practised, once everything is off the fire.
func (s *server) debrief(ctx context.Context, in *LiveAsked) (*body[sheet.Debrief], error) {
	clock, err := s.Store.Clock(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	if clock.Wall() {
		return nil, newProblem(http.StatusConflict, realOne)
	}
	told, err := practice.Told(ctx, s.Store, in.ID, clock, clock.Now(s.Now()))
	if err != nil {
		return nil, problemOf(err)
	}
	return answer(sheet.WriteDebrief(told, in.reader())), nil
}

// realOne says that a cook is not practised.
const realOne = "This cook-out is a real one: its clock is the one on the wall."

// practising is what a practised cook is called.
func practising(name string) string {
	const before = "Practice: "
	name = strings.TrimPrefix(name, before)
	if r := []rune(before + name); len(r) > 100 {
		return string(r[:100])
	}
	return before + name
}

// begins is when the first pit of a cook is lit, by its plan, and what was done by then; now, when
// it has no plan.
func (s *server) begins(ctx context.Context, c cook.Cook) (time.Time, []facts.Fact, error) {
	k, err := s.kitchen(ctx, c.Formulas()...)
	if err != nil {
		return time.Time{}, nil, err
	}
	at := s.clock(c.ServeAt)
	at.Forecast = forecast.SingleRun{} // only when its pit is lit
	plan, err := sheet.OfPlan(ctx, sheet.CookRequest{Cook: c}, k, at, sheet.Reader{})
	if err != nil {
		return s.Now(), nil, nil
	}
	start, done := time.Time{}, []facts.Fact{}
	for _, t := range plan.Tasks {
		if at, err := time.Parse(time.RFC3339, t.At); err == nil && t.Stage == "light" && start.IsZero() {
			start = at
		}
	}
	if start.IsZero() {
		return s.Now(), nil, nil
	}
	for _, t := range plan.Tasks {
		at, err := time.Parse(time.RFC3339, t.At)
		if before := slices.Contains([]string{"thaw", "bath", "salt"}, t.Stage); err == nil && before && !at.After(start) {
			done = append(
				done,
				facts.Fact{ID: uuid.NewString(), Kind: facts.Done, Piece: t.Key, What: t.Stage, At: t.At, Author: "practice"},
			)
		}
	}
	return start, done, nil
}
