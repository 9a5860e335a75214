package app

import (
	"context"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/review"
	"verjuice/internal/core/starter"
	"verjuice/internal/store"
)

// Review works out how a cook on record went, and keeps that in the logbook where anything of it has
// changed. What is over is learnt from; what was only practised is not kept.
func (a *App) Review(ctx context.Context, id string) (review.Review, Inputs, error) {
	in, err := a.Load(ctx, id)
	if err != nil {
		return review.Review{}, in, err
	}
	out, err := in.Review(ctx)
	if err != nil || !in.Clock.Wall() || len(out.Outcome.Pieces) == 0 || !out.Outcome.Sound() {
		return out, in, err
	}
	return out, in, a.keep(ctx, in, out.Outcome)
}

// keep puts what became of a cook into the logbook, and learns from it when it is over.
func (a *App) keep(ctx context.Context, in Inputs, became logbook.Outcome) error {
	was, there, err := a.Store.Outcome(ctx, in.ID)
	if err != nil || there && was.Told == in.Told.String() && was.Outcome.Model == became.Model {
		return err
	}
	if err := a.Store.PutOutcome(ctx, in.ID, in.Told, became); err != nil {
		return err
	}
	if !became.Finished && !(there && was.Outcome.Finished) {
		return nil
	}
	_, err = a.Store.Learn(ctx, nil)
	return err
}

// mostCompared is how many cooks are compared at once.
const mostCompared = 5

// Compare takes cooks from the logbook, to compare them; those that are not in it are worked out.
func (a *App) Compare(ctx context.Context, ids []string) ([]logbook.Beside, error) {
	var all []logbook.Beside
	for _, id := range ids[:min(mostCompared, len(ids))] {
		one, ok, err := a.Store.Outcome(ctx, id)
		if err != nil {
			return nil, err
		}
		if !ok {
			went, _, err := a.Review(ctx, id)
			if err != nil {
				return nil, err
			}
			one.Outcome = went.Outcome
		}
		course, _, err := a.Store.Course(ctx, id)
		if err != nil {
			return nil, err
		}
		said, err := a.Store.Facts(ctx, id)
		if err != nil {
			return nil, err
		}
		course, _ = course.Judged(said)
		all = append(all, logbook.Beside{ID: id, Outcome: one.Outcome, Course: course})
	}
	return all, nil
}

// Repeat copies a cook, without its date, with those of its proposals that are taken.
func (a *App) Repeat(ctx context.Context, id string, take []string) (store.Record[cook.Cook], error) {
	went, in, err := a.Review(ctx, id)
	if err != nil {
		return store.Record[cook.Cook]{}, err
	}
	return a.Store.Cooks().Create(ctx, starter.Repeat(in.Cook, went.Outcome, take))
}
