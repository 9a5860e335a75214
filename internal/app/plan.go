package app

import (
	"context"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"
	"verjuice/internal/store"
)

// Plan is the cook with its days laid out. The error is a field.Errors when there are none, or that of ctx.
func (in Inputs) Plan(ctx context.Context) (cooking.Result, error) {
	result, err := in.Work(ctx, cooking.Result{})
	if err != nil || result.Plan != nil {
		return result, err
	}
	if err := result.Mistakes.Err(); err != nil {
		return result, err
	}
	return result, field.Errors{{Pointer: "/serve_at", Wrong: field.Because("request.serve")}}
}

// Planned is the cook by single runs, as far as it tells how each piece is to go on its fire: that is what a
// simulated pit goes by. The error is that of ctx.
func (in Inputs) Planned(ctx context.Context) (cooking.Result, error) {
	in.By = forecast.SingleRun{}
	return in.parts(ctx, cooking.Depths)
}

// Practise copies a cook on record, to be practised on a simulated pit: its clock goes that many times as
// fast as the one on the wall, and what is hidden of its pit and its meat is drawn from the seed; zero takes
// one of the clock.
func (a *App) Practise(ctx context.Context, id string, speed float64, seed uint64) (store.Record[cook.Cook], error) {
	in, err := a.Load(ctx, id)
	if err != nil {
		return store.Record[cook.Cook]{}, err
	}
	in.Facts, in.Course, in.Now = nil, nil, a.Now()
	start, done, err := in.begins(ctx)
	if err != nil {
		return store.Record[cook.Cook]{}, err
	}
	c := in.Cook
	c.Name = practising(c.Name)
	now := a.Now()
	if seed == 0 {
		seed = uint64(now.UnixNano())
	}
	return a.Store.Practise(ctx, c, store.Clock{Began: now, At: start, Speed: speed, Seed: seed}, done)
}

// longestName is how long the name of a practised cook is at most, in characters.
const longestName = 100

// practising is what a practised cook is called.
func practising(name string) string {
	const before = "Practice: "
	name = strings.TrimPrefix(name, before)
	if r := []rune(before + name); len(r) > longestName {
		return string(r[:longestName])
	}
	return before + name
}

// begins is when the first pit of a cook is lit, by its plan, and what was done by then; now, when it has no
// plan.
func (in Inputs) begins(ctx context.Context) (time.Time, []facts.Fact, error) {
	in.By = forecast.SingleRun{} // only when its pit is lit
	result, err := in.Work(ctx, cooking.Result{})
	if err != nil || result.Plan == nil {
		return in.Now, nil, err
	}
	tasks := result.Plan.Result.Plans[result.Plan.Chosen].Tasks
	start, done := time.Time{}, []facts.Fact{}
	for _, t := range tasks {
		if t.Stage == "light" && start.IsZero() {
			start = t.At
		}
	}
	if start.IsZero() {
		return in.Now, nil, nil
	}
	for _, t := range tasks {
		if slices.Contains([]string{"thaw", "bath", "salt"}, t.Stage) && !t.At.After(start) {
			done = append(done, facts.Fact{
				ID: uuid.NewString(), Kind: facts.Done, Piece: t.Key, What: t.Stage,
				At: t.At.Format(time.RFC3339), Author: "practice",
			})
		}
	}
	return start, done, nil
}
