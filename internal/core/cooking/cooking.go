// Package cooking is the one way through the core: from a page understood, the facts,
// the kitchen and the clock to every number of a cook.
//
//	order := order.Parse(c, k)
//	result, err := cooking.Work(ctx, order, facts, k, cooking.Clock{Now: now})
//	result.Pieces[0].Ledger.Percent.Mid   // % salt of the raw boneless meat
//
// It goes through once, in phases: how long each piece is on the fire, the plan, the
// doses in the time that the plan gives them, the salt in time, the findings. Nothing
// earlier is changed by anything later, and the same input gives the same result,
// whatever the order of the pieces.
package cooking

import (
	"cmp"
	"context"
	"slices"
	"strings"
	"sync"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"

	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/shop"
	"verjuice/internal/core/trace"
)

// Clock is when a cook is worked out.
type Clock struct {
	Now      time.Time           // the zero time switches off what depends on it
	Forecast forecast.Forecaster // how a piece fares on the fire; nil runs an ensemble for each
	Parts    Parts               // of a piece that are worked out; zero is all
	Read     []facts.Reading     // of thermometers, while it is on
}

// Parts are parts of a piece that take long to work out, and may be left out when
// only the others are asked for.
type Parts uint

// The parts.
const (
	Seasons Parts = 1 << iota // the rub, weighed out
	Depths                    // the dry brine, and the ledger and cautions that look at it
	Baths
	Needles
	Choices // the decisions, with what each answer does
)

func (p Parts) has(one Parts) bool { return p == 0 || p&one != 0 }

// One works out a single piece, without a serving time. The error is a field.Errors
// with pointers below the piece, or that of ctx.
func One(ctx context.Context, p cook.Piece, base cook.Cook, k kitchen.Kitchen, parts Parts) (Piece, error) {
	if p.Key == "" {
		p.Key = "one"
	}
	p.ServeAt = ""
	base.Name, base.ServeAt, base.Pieces, base.Wishes, base.Pits = "one piece", "", []cook.Piece{p}, nil, nil
	r, err := Work(ctx, order.Parse(base, k), nil, k, Clock{Parts: parts, Forecast: forecast.WhileTyping{}})
	if err != nil {
		return Piece{}, err
	}
	var wrong field.Errors
	for _, e := range r.Mistakes {
		e.Pointer = strings.TrimPrefix(e.Pointer, "/pieces/0")
		wrong = append(wrong, e)
	}
	return r.Pieces[0], wrong.Err()
}

// Result is every number of a cook. A figure that depends on a mistake is absent.
type Result struct {
	Order    order.Order
	Facts    facts.Facts
	Now      time.Time
	Mistakes field.Errors
	Servings trace.Figure // portions of all pieces
	Needed   trace.Figure // portions needed
	Enough   shop.Enough
	Pieces   []Piece
	Buy      []shop.Line
	Plan     *Plan           // nil without a serving time or a sound piece
	Kept     []bool          // the pieces that were taken over from the result before
	Rough    bool            // some of the fire is from single runs: their ensembles are still to come
	Kitchen  kitchen.Kitchen // that it was worked out in

	by []*subject // what the pieces were worked out from
}

// Piece is every number of one line of the page.
type Piece struct {
	Line      order.Line
	Ready     bool // nothing in it is a mistake
	Meat      *Meat
	Bath      *Bath
	Needle    *Needle
	Season    *Season
	Ledger    *Ledger
	Depth     *Depth
	Clock     *PieceClock
	Decided   []Decided
	Findings  []caution.Finding
	Using     []dose.Use           // what has to be on hand
	Fires     []forecast.FireInput // what decides how it fares on the fire, of each when they are unlike
	Fire      forecast.FireResult
	Happened  forecast.History
	Lit       bool                 // it is on record that it went on the fire
	Predicted []forecast.FireInput // Burns as they were before anything happened
}

// Work works out o. What is wrong with it is in Mistakes; the only error is that
// of ctx, when nobody waits for the result any more.
func Work(ctx context.Context, o order.Order, f facts.Facts, k kitchen.Kitchen, at Clock) (Result, error) {
	return WorkAfter(ctx, Result{}, o, f, k, at)
}

// Past reports whether a cook is told of as over: it was to be served before now, and nothing of it went on a fire as
// far as anybody said.
func (r Result) Past() bool {
	serve := r.Order.LastServing()
	return !serve.IsZero() && serve.Before(r.Now) && !slices.ContainsFunc(r.Pieces, func(p Piece) bool { return p.Lit })
}

// WorkAfter works out o as Work does, after another page of it: a piece for which
// nothing is other than it was then is taken over.
func WorkAfter(
	ctx context.Context,
	before Result,
	o order.Order,
	f facts.Facts,
	k kitchen.Kitchen,
	at Clock,
) (Result, error) {
	out := Result{
		Order: o, Facts: f, Now: at.Now, Mistakes: append(o.Wrong(), o.Due(at.Now)...),
		Pieces: make([]Piece, len(o.Lines)),
		Kept:   make([]bool, len(o.Lines)), Kitchen: k,
	}
	if len(o.Extra) > 0 && len(o.Lines) == 0 {
		out.Pieces = []Piece{}
	}
	subjects := make([]*subject, len(o.Lines))
	for i, l := range o.Lines {
		subjects[i] = newSubject(o, l, f, at)
	}
	now, err := settle(ctx, o, f, at, cmp.Or[forecast.Forecaster](at.Forecast, forecast.Ensemble{}), subjects, before.Plan)
	if err != nil {
		return Result{}, err
	}
	timed := make([]*subject, len(subjects))
	for i, s := range now.subjects {
		out.Rough = out.Rough || s != nil && s.fire.Rough
		timed[i] = s.in(now.plan)
	}
	// Pieces do not depend on one another but for the plan, and their diffusion is
	// most of the work.
	wrong := make([]field.Errors, len(o.Lines))
	out.by = timed
	each(len(o.Lines), func(i int) {
		if out.Kept[i] = out.keeps(before, i); out.Kept[i] {
			out.Pieces[i] = before.Pieces[i]
		} else if ctx.Err() == nil {
			out.Pieces[i], wrong[i] = timed[i].work(o.Lines[i], f, i, out.shown(before, i))
		}
	})
	if err := ctx.Err(); err != nil {
		return Result{}, err
	}
	for _, w := range wrong {
		out.Mistakes = append(out.Mistakes, w...)
	}
	out.total(o)
	out.Plan = now.plan
	out.buy(o, k)
	return out, nil
}

// each runs do for 0 to n-1 side by side.
func each(n int, do func(i int)) {
	if n == 1 {
		do(0)
		return
	}
	var all sync.WaitGroup
	for i := range n {
		all.Go(func() { do(i) })
	}
	all.Wait()
}

// byKey are the numbers of the pieces in the order of their keys, in which sums are
// made, so that the order on the page makes no difference.
func (r Result) byKey() []int {
	out := make([]int, len(r.Pieces))
	for i := range out {
		out[i] = i
	}
	slices.SortFunc(out, func(i, j int) int { return cmp.Compare(r.Pieces[i].Line.Key, r.Pieces[j].Line.Key) })
	return out
}

// total adds the portions up and compares them with what is needed.
func (r *Result) total(o order.Order) {
	servings := 0.0
	inputs := map[int]trace.Input{}
	for _, i := range r.byKey() {
		if m := r.Pieces[i].Meat; m != nil {
			servings += m.Servings.Mid
			inputs[i] = trace.Input{ID: "piece:" + r.Pieces[i].Line.Key, Value: trace.Number{Value: m.Servings.Mid}}
		}
	}
	r.Servings = trace.New("servings", quantity.Within(servings, 0.1))
	for i := range r.Pieces {
		if in, ok := inputs[i]; ok {
			r.Servings.Inputs = append(r.Servings.Inputs, in)
		}
	}
	p := o.People.Value
	r.Needed = trace.Exact(
		"portions_needed",
		p.Needed,
		"adults",
		trace.Number{Value: float64(p.Guests)},
		"children",
		trace.Number{Value: float64(p.Children)},
		"appetite",
		cmp.Or(o.Cook.Appetite, "usual"),
		"leftovers",
		trace.Number{Value: float64(p.Leftovers)},
	)
	r.Enough = shop.Feeds(servings, p.Needed)
}

// buy says what to buy of each piece, and what it costs.
func (r *Result) buy(o order.Order, k kitchen.Kitchen) {
	pieces := make([]shop.Piece, len(r.Pieces))
	for i, p := range r.Pieces {
		pieces[i] = shop.Piece{Key: p.Line.Key}
		if p.Season != nil && !r.Kept[i] {
			p.Season.Cost = shop.CostOf(p.Season.Mix, p.Season.Mixed, k)
			p.Season.InJar = k.HasJar(p.Line.Typed.Season.Formula)
		}
		if p.Meat == nil {
			continue
		}
		pieces[i] = shop.Piece{
			Key: p.Line.Key, Meat: p.Line.Meat.Value, Sound: true, Together: p.Line.Typed.Together,
			Frozen:  p.Line.Answers.Value.Chose(decision.State) == "frozen",
			Portion: o.Base.Value.Portion, Portions: p.Meat.Servings.Mid, Uses: p.Using,
		}
	}
	r.Buy = shop.ToBuy(pieces, o.People.Value.Needed, k)
}
