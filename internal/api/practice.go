package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
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
	begin := op(
		http.MethodPost,
		"/api/cooks/{id}/practise",
		"createCookPractice",
		"Copy a cook, to practise it on a simulated pit with a clock of its own",
		patiently, making)
	huma.Register(a, begin, func(ctx context.Context, in *struct {
		ByID
		Body Practice
	}) (*made[cook.Cook], error) {
		rec, err := s.app.Practise(ctx, in.ID, in.Body.Speed, in.Body.Seed)
		return madeAt(cooksAt, rec, err)
	})
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/cooks/{id}/practise",
			"getCookPractice",
			"Tell what was true of a cook that was practised, and what other decisions would have come to; nothing while a piece is on the fire",
			patiently, refusing(http.StatusConflict)),
		s.debrief,
	)
	huma.Register(
		a,
		op(
			http.MethodPut,
			"/api/cooks/{id}/practise",
			"saveCookPractice",
			"Make the clock of a cook that is practised faster or slower",
			patiently, refusing(http.StatusConflict)),
		func(ctx context.Context, in *struct {
			ByID
			Body Practice
		}) (*struct{}, error) {
			clock, err := s.practised(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			now := s.Now()
			clock.Began, clock.At, clock.Speed, clock.Running = now, clock.Now(now), in.Body.Speed, !clock.Waits
			return nil, problemOf(s.Store.SetClock(ctx, in.ID, clock))
		},
	)
}

// debrief is what was true of a cook that was practised, once everything is off the fire.
func (s *server) debrief(ctx context.Context, in *LiveAsked) (*body[sheet.Debrief], error) {
	clock, err := s.practised(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	told, err := practice.Told(ctx, s.Store, in.ID, clock, clock.Now(s.Now()))
	if err != nil {
		return nil, problemOf(err)
	}
	return answer(sheet.WriteDebrief(told, in.reader())), nil
}

// practised is the clock of a cook that is practised; a real one is a conflict.
func (s *server) practised(ctx context.Context, id string) (store.Clock, error) {
	if _, err := s.Store.Told(ctx, id); err != nil {
		return store.Clock{}, err
	}
	clock, err := s.Store.Clock(ctx, id)
	if err == nil && clock.Wall() {
		err = newProblem(http.StatusConflict, "This cook-out is a real one: its clock is the one on the wall.")
	}
	return clock, err
}
