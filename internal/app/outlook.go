package app

import (
	"context"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/outlook"
)

// Outlook is how piece n of a page will fare, and other ways to cook it; one of them is forecast, too, when
// it is asked for by its id. The error is that of ctx.
func (in Inputs) Outlook(ctx context.Context, n int, compare string) (outlook.Outlook, error) {
	request := outlook.OutlookRequest{Cook: in.Cook, Facts: in.Facts, Piece: n, Compare: compare}
	return request.Work(ctx, in.Kitchen, in.at())
}

// Piece works parts of one piece out, without a cook. The error is a field.Errors, or that of ctx.
func (a *App) Piece(ctx context.Context, r cooking.PieceRequest, parts cooking.Parts) (cooking.Piece, error) {
	k, err := a.kitchen(ctx, r.Formulas()...)
	if err != nil {
		return cooking.Piece{}, err
	}
	return r.Work(ctx, k, parts)
}
