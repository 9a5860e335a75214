package sheet

import (
	"context"
	"errors"
	"strings"
	"time"

	"verjuice/internal/core/bench"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/guess"
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
	Units   quantity.System   `json:"units" required:"false" doc:"Of the answer: metric or us; empty means metric"`
	Spoons  quantity.SpoonSet `json:"spoons" required:"false" doc:"Of the answer: us or metric; empty means us"`
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

// Work works the request out. What is wrong with the kitchen is among the mistakes,
// too.
func (r CookRequest) Work(
	ctx context.Context,
	k kitchen.Kitchen,
	at cooking.Clock,
) (cooking.Result, kitchen.Kitchen, error) {
	return r.workAfter(ctx, cooking.Result{}, k, at)
}

func (r CookRequest) workAfter(
	ctx context.Context,
	before cooking.Result,
	k kitchen.Kitchen,
	at cooking.Clock,
) (cooking.Result, kitchen.Kitchen, error) {
	k, wrong := with(k, r.Kitchen)
	out, err := cooking.WorkAfter(ctx, before, order.ParseAfter(before.Order, r.Cook, k), r.Facts, k, at)
	if err != nil {
		return out, k, err
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
	return out, k, nil
}

// OfCook answers for a whole cook. The error is that of ctx.
func OfCook(ctx context.Context, r CookRequest, k kitchen.Kitchen, at cooking.Clock, as Reader) (Sheet, error) {
	out, err := OfCookAfter(ctx, Written{}, r, k, at, as)
	return out.Sheet, err
}

// OfCookAfter answers for a whole cook that was answered for before. The error is that
// of ctx.
func OfCookAfter(
	ctx context.Context,
	before Written,
	r CookRequest,
	k kitchen.Kitchen,
	at cooking.Clock,
	as Reader,
) (Written, error) {
	result, _, err := r.workAfter(ctx, before.Result, k, at)
	if err != nil {
		return Written{}, err
	}
	return WriteAfter(before, result, as), nil
}

// OfPlan lays out the days alone. The error is a field.Errors, or that of ctx.
func OfPlan(ctx context.Context, r CookRequest, k kitchen.Kitchen, at cooking.Clock, as Reader) (*PlanSheet, error) {
	result, _, err := r.Work(ctx, k, at)
	if err != nil {
		return nil, err
	}
	if result.Plan == nil {
		if err := result.Mistakes.Err(); err != nil {
			return nil, err
		}
		return nil, field.Errors{{Pointer: "/serve_at", Wrong: field.Because("request.serve")}}
	}
	return newWriter(result, as).plan(result), nil
}

// OfShopping lists what to buy. The error is that of ctx.
func OfShopping(ctx context.Context, r CookRequest, k kitchen.Kitchen, at cooking.Clock, as Reader) (Shopping, error) {
	result, _, err := r.Work(ctx, k, at)
	if err != nil {
		return Shopping{}, err
	}
	return WriteShopping(result, as), nil
}

// piece works out one piece, and what of it is asked for.
func piece[T any](
	ctx context.Context,
	r PieceRequest,
	k kitchen.Kitchen,
	parts cooking.Parts,
	write func(writer, cooking.Piece) *T,
) (*T, error) {
	k, errs := with(k, r.Kitchen)
	p, err := cooking.One(
		ctx,
		r.Piece,
		cook.Cook{Portion: r.Portion, Fridge: r.Fridge, Room: r.Room, Spoons: r.Meant},
		k,
		parts,
	)
	var wrong field.Errors
	if err != nil && !errors.As(err, &wrong) {
		return nil, err
	}
	for _, e := range wrong {
		switch e.Pointer {
		case "/portion", "/fridge", "/room":
			errs = append(errs, e)
		default:
			errs = append(errs, field.Error{Pointer: "/piece" + e.Pointer, Wrong: e.Wrong})
		}
	}
	if err := errs.Err(); err != nil {
		return nil, err
	}
	return write(writer{Reader: Reader{Units: r.Units, Spoons: r.Spoons}}, p), nil
}

// Scale weighs out the rub for a piece: grams and spoons of every ingredient, from a
// coat or from the salt wanted. The error is a field.Errors.
func Scale(ctx context.Context, r PieceRequest, k kitchen.Kitchen) (*SeasonSheet, error) {
	return piece(ctx, r, k, cooking.Seasons, func(w writer, p cooking.Piece) *SeasonSheet { return w.season(p.Season) })
}

// Ledger adds up the salt of a piece. The error is a field.Errors.
func Ledger(ctx context.Context, r PieceRequest, k kitchen.Kitchen) (*LedgerSheet, error) {
	return piece(ctx, r, k, cooking.Depths, func(w writer, p cooking.Piece) *LedgerSheet { return w.ledger(p.Ledger) })
}

// DryBrine follows the salt of a piece's coat into the meat. The error is a
// field.Errors.
func DryBrine(ctx context.Context, r PieceRequest, k kitchen.Kitchen) (*DepthSheet, error) {
	return piece(
		ctx,
		r,
		k,
		cooking.Depths,
		func(w writer, p cooking.Piece) *DepthSheet { return w.depth(p.Depth, p.Line.Salting.Value.Band) },
	)
}

// WetBrine works out a piece's bath. The error is a field.Errors.
func WetBrine(ctx context.Context, r PieceRequest, k kitchen.Kitchen) (*BathSheet, error) {
	if r.Piece.Bath == nil {
		return nil, field.Errors{{Pointer: "/piece/bath", Wrong: field.Because("request.bath")}}
	}
	return piece(ctx, r, k, cooking.Baths, func(w writer, p cooking.Piece) *BathSheet { return w.bath(p.Bath) })
}

// Inject works out a piece's injection. The error is a field.Errors.
func Inject(ctx context.Context, r PieceRequest, k kitchen.Kitchen) (*InjectionSheet, error) {
	if r.Piece.Inject == nil {
		return nil, field.Errors{{Pointer: "/piece/inject", Wrong: field.Because("request.inject")}}
	}
	return piece(ctx, r, k, cooking.Needles, func(w writer, p cooking.Piece) *InjectionSheet { return w.needle(p.Needle) })
}

// OfFormula works a formula out.
func OfFormula(r bench.Request, k kitchen.Kitchen, as Reader) FormulaSheet {
	return WriteFormula(bench.WorkOut(r, k, as.Spoons), as)
}

// OfComparison sets formulas side by side. The error is a field.Errors.
func OfComparison(ctx context.Context, r bench.CompareRequest, k kitchen.Kitchen, as Reader) (*Comparison, error) {
	c, err := bench.Compare(ctx, r, k, as.Spoons)
	if err != nil {
		return nil, err
	}
	return WriteComparison(c, as), nil
}

// OfGame judges the guesses of a game, and asks the next. The error is a
// field.Errors.
func OfGame(ctx context.Context, g guess.Game, as Reader) (*GuessSheet, error) {
	s, err := guess.Play(ctx, g)
	if err != nil {
		return nil, err
	}
	return WriteGame(s, as), nil
}

// Line is a cook in a list.
type Line struct {
	Serve  string
	Away   string
	Past   bool
	Pieces []string
}

// Headline is the line of a cook in a list, at the time now.
func Headline(c cook.Cook, now time.Time) Line {
	line := Line{Pieces: []string{}}
	o := order.Parse(cook.Cook{ServeAt: c.ServeAt, Zone: c.Zone}, kitchen.Kitchen{})
	if at := o.Serving.Value.At; !at.IsZero() {
		line.Serve, line.Away, line.Past = day(at), away(at, now), at.Before(now)
	}
	for _, p := range c.Pieces {
		line.Pieces = append(line.Pieces, times(p.Count.Int(), cutName(p)))
	}
	return line
}

// cutName is what a piece is called: the cook's name for it, or its cut's.
func cutName(p cook.Piece) string {
	known, _ := cut.Find(p.Cut)
	name := strings.TrimSpace(p.Label)
	if name == "" {
		name = known.Name
	}
	if name == "" {
		return ""
	}
	return upper(name)
}

// Formulas are the ids of the formulas that the piece's doses are or use.
func (r PieceRequest) Formulas() []string { return cook.Cook{Pieces: []cook.Piece{r.Piece}}.Formulas() }
