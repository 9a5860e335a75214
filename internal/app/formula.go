package app

import (
	"context"

	"verjuice/internal/core/bench"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/store"
)

// Formula works a formula out, with spoons and cups of the reader's.
func (a *App) Formula(ctx context.Context, r bench.Request, spoons quantity.SpoonSet) (bench.Result, error) {
	k, err := a.kitchen(ctx, r.Formula.Uses()...)
	if err != nil {
		return bench.Result{}, err
	}
	return bench.WorkOut(r, k, spoons), nil
}

// CompareFormulas sets formulas side by side. The error is a field.Errors, or that of ctx.
func (a *App) CompareFormulas(
	ctx context.Context,
	r bench.CompareRequest,
	spoons quantity.SpoonSet,
) (*bench.Comparison, error) {
	var ids []string
	for _, f := range r.Formulas {
		ids = append(ids, f.Uses()...)
	}
	k, err := a.kitchen(ctx, ids...)
	if err != nil {
		return nil, err
	}
	return bench.Compare(ctx, r, k, spoons)
}

// Mixed is a formula on record with its mix.
type Mixed struct {
	store.Record[formula.Formula]
	Mix formula.Mix
}

// Formulas are formulas on record with their mixes, and how many there are in all.
func (a *App) Formulas(ctx context.Context, q store.Query) ([]Mixed, int64, error) {
	records, total, err := a.Store.Formulas().List(ctx, q)
	if err != nil {
		return nil, 0, err
	}
	var ids []string
	for _, r := range records {
		ids = append(ids, r.Doc.Uses()...)
	}
	k, err := a.kitchen(ctx, ids...)
	if err != nil {
		return nil, 0, err
	}
	out := make([]Mixed, len(records))
	for i, r := range records {
		mix, _ := formula.Blend(r.Doc, k)
		out[i] = Mixed{r, mix}
	}
	return out, total, nil
}

// CreateFormula puts a formula on record, with what it was made from.
func (a *App) CreateFormula(ctx context.Context, f formula.Formula) (store.Record[formula.Formula], error) {
	origin := field.Because("changed.new")
	if from, ok := formula.FindReadyMade(f.ID); ok {
		origin = field.Because("changed.from", "before", from.Name)
	}
	return a.Store.Formulas().Create(ctx, f, origin)
}

// UpdateFormula saves a formula over the version that was changed, with what was changed.
func (a *App) UpdateFormula(
	ctx context.Context,
	id string,
	version uint,
	f formula.Formula,
) (store.Record[formula.Formula], error) {
	old, err := a.Store.Formulas().Get(ctx, id)
	if err != nil {
		return old, err
	}
	k, err := a.kitchen(ctx, append(f.Uses(), old.Doc.Uses()...)...)
	if err != nil {
		return old, err
	}
	return a.Store.Formulas().Update(ctx, id, version, f, func(old formula.Formula) []formula.Change {
		return formula.Changes(old, f, k)
	})
}
