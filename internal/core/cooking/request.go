package cooking

import (
	"context"
	"errors"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
)

// CookRequest asks for a cook worked out, saved or not.
type CookRequest struct {
	cook.Cook
	Facts   facts.Facts    `json:"facts,omitempty" required:"false" nullable:"false" doc:"What has happened, in the order in which it was said"`
	Kitchen *kitchen.Typed `json:"kitchen,omitempty" required:"false" doc:"Formulas, ingredients, prices and stock besides those on record"`
}

// PieceRequest asks for one part of the sheet for one piece, without a cook.
type PieceRequest struct {
	Piece   cook.Piece        `json:"piece"`
	Portion string            `json:"portion" required:"false" doc:"Cooked meat for one; empty means 180 g"`
	Fridge  string            `json:"fridge" required:"false" doc:"Temperature of the fridge; empty means 4 °C"`
	Room    string            `json:"room,omitempty" required:"false" doc:"Temperature of the counter; empty means 21 °C"`
	Meant   quantity.SpoonSet `json:"meant,omitempty" required:"false" doc:"Whose spoons and cups the amounts are typed in: us or metric; empty means us"`
	Kitchen *kitchen.Typed    `json:"kitchen,omitempty" required:"false" doc:"Formulas and ingredients besides those on record"`
}

// with adds what a request brings to the kitchen.
func with(k kitchen.Kitchen, t *kitchen.Typed) (kitchen.Kitchen, field.Errors) {
	if t == nil {
		return k, nil
	}
	out, wrong := t.Read(k)
	var errs field.Errors
	errs.Put("/kitchen", wrong)
	return out, errs
}

// Work works the request out after another one of the same cook, or after none. What is wrong with the
// facts and with what the request brings to the kitchen is among the mistakes, too. The error is that of
// ctx.
func (r CookRequest) Work(ctx context.Context, before Result, k kitchen.Kitchen, at Clock) (Result, error) {
	k, wrong := with(k, r.Kitchen)
	out, err := WorkAfter(ctx, before, order.ParseAfter(before.Order, r.Cook, k), r.Facts, k, at)
	if err != nil {
		return out, err
	}
	out.Mistakes = append(out.Mistakes, wrong...)
	for i, f := range r.Facts {
		var errs field.Errors
		for _, e := range f.Check() {
			if e.ID != "time.year" { // one on record from before years were bounded moves nothing, and stops no saving
				errs.Put("/facts/"+quantity.Number(float64(i)), field.Errors{e})
			}
		}
		out.Mistakes = append(out.Mistakes, errs...)
	}
	return out, nil
}

// Work works these parts of the piece out. The error is a field.Errors, or that of ctx.
func (r PieceRequest) Work(ctx context.Context, k kitchen.Kitchen, parts Parts) (Piece, error) {
	switch {
	case parts == Baths && r.Piece.Bath == nil:
		return Piece{}, field.Errors{{Pointer: "/piece/bath", Wrong: field.Because("request.bath")}}
	case parts == Needles && r.Piece.Inject == nil:
		return Piece{}, field.Errors{{Pointer: "/piece/inject", Wrong: field.Because("request.inject")}}
	}
	k, errs := with(k, r.Kitchen)
	shared := cook.Cook{Portion: r.Portion, Fridge: r.Fridge, Room: r.Room, Spoons: r.Meant}
	p, err := One(ctx, r.Piece, shared, k, parts)
	var wrong field.Errors
	if err != nil && !errors.As(err, &wrong) {
		return Piece{}, err
	}
	for _, e := range wrong {
		switch e.Pointer {
		case "/portion", "/fridge", "/room":
			errs = append(errs, e)
		default:
			errs = append(errs, field.Error{Pointer: "/piece" + e.Pointer, Wrong: e.Wrong})
		}
	}
	return p, errs.Err()
}

// Formulas are the ids of the formulas that the piece's doses are or use.
func (r PieceRequest) Formulas() []string { return cook.Cook{Pieces: []cook.Piece{r.Piece}}.Formulas() }
