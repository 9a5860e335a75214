package app

import (
	"context"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/live"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/review"
)

// beside are the parts of a piece that are asked for beside the fire and afterwards: all but the choices.
const beside = cooking.Seasons | cooking.Depths | cooking.Baths | cooking.Needles

// Live is how the cook stands at the pit now. The error is that of ctx.
func (in Inputs) Live(ctx context.Context) (live.Result, error) {
	result, err := in.parts(ctx, beside)
	if err != nil {
		return live.Result{}, err
	}
	out, err := live.Work(ctx, result, in.Course)
	out.Aside = in.Aside
	return out, err
}

func (in Inputs) parts(ctx context.Context, parts cooking.Parts) (cooking.Result, error) {
	at := in.at()
	at.Parts = parts
	return in.CookRequest.Work(ctx, cooking.Result{}, in.Kitchen, at)
}

// Review is how the cook went, and what is kept of it. What earlier cooks taught is left out of what was
// predicted, so that a lesson is not learnt twice. The error is that of ctx.
func (in Inputs) Review(ctx context.Context) (review.Review, error) {
	result, err := in.untaught().parts(ctx, beside)
	if err != nil {
		return review.Review{}, err
	}
	return review.Of(ctx, result, in.Course)
}

// untaught are the inputs without what earlier cooks taught.
func (in Inputs) untaught() Inputs {
	in.Kitchen.Learnt, in.Kitchen.Stand = logbook.Lessons{}, ""
	return in
}
