// Package outlook is what a cook sees of a piece before its fire: how its core goes, where it
// stalls, how it rests, what other ways there are and what the rules of thumb say.
//
//	out, err := outlook.OutlookRequest{Cook: c, Piece: 0}.Work(ctx, k, at)
//	out.Stall.From // h after it goes on
//	out.Ways       // the same supper, another way
package outlook

import (
	"context"
	"math"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/order"
)

// Look is the outlook of a piece.
type Look struct {
	Piece cooking.Piece
	Input forecast.FireInput // of the slowest, when they are unlike
	forecast.Seen
	Stall *Stall // nil when there is none
	Place string // where it rests, as heat knows it
	Rest  heat.Cooled
	From  float64 // °C of the core when it comes off
}

// Stall is where the core hardly rises: under crawls °C an hour between 55 and 85 °C.
type Stall struct {
	From, To   float64 // h after it goes on
	LowC, TopC float64
}

const crawls = 5.0

// restsFor is how long a rest is followed, h.
const restsFor = 14.0

// OutlookRequest asks for the forecast of one piece of a cook-out.
type OutlookRequest struct {
	Cook    cook.Cook   `json:"cook"`
	Facts   facts.Facts `json:"facts,omitempty" required:"false" nullable:"false"`
	Piece   int         `json:"piece" doc:"Which piece, from 0"`
	Compare string      `json:"compare,omitempty" required:"false" maxLength:"40" doc:"Another way, by its id, to draw beside this one"`
}

// Outlook is all that is looked at of a piece before its fire.
type Outlook struct {
	Look
	Known bool // false while the piece has a mistake that its fire depends on: then all else but Cook is zero
	Cook  cooking.Result
	Ways  []Way
	Other *Compared // nil when none was asked for, or there is no such way
}

// Compared is another way, forecast like this one.
type Compared struct {
	Way  Way
	Seen forecast.Seen
}

// Work works the request out. The error is that of ctx.
func (r OutlookRequest) Work(ctx context.Context, k kitchen.Kitchen, at cooking.Clock) (Outlook, error) {
	result, err := cooking.Work(ctx, order.Parse(r.Cook, k), r.Facts, k, at)
	out := Outlook{Cook: result}
	if err != nil {
		return out, err
	}
	if out.Look, out.Known, err = Of(ctx, result, r.Piece); err != nil || !out.Known {
		return out, err
	}
	if out.Ways, err = r.ways(ctx, k, at); err != nil {
		return out, err
	}
	for _, way := range out.Ways {
		if way.ID == r.Compare {
			seen, err := forecast.See(ctx, way.Input)
			if err != nil {
				return out, err
			}
			out.Other = &Compared{way, seen}
		}
	}
	return out, nil
}

// Of looks ahead at piece i of a result. It is false while the piece has a mistake that its fire
// depends on; an error is that of the context.
func Of(ctx context.Context, r cooking.Result, i int) (Look, bool, error) {
	if i < 0 || i >= len(r.Pieces) || len(r.Pieces[i].Fires) == 0 || r.Pieces[i].Clock == nil {
		return Look{}, false, nil
	}
	p := r.Pieces[i]
	input := forecast.SlowestOf(p.Fires)
	seen, err := forecast.See(ctx, input)
	if err != nil {
		return Look{}, false, err
	}
	out := Look{Piece: p, Input: input, Seen: seen, Stall: stalls(seen.Fire.Curve), From: float64(p.Clock.Done)}
	if n := len(seen.Fire.Curve); n > 0 && input.Core == 0 {
		out.From = seen.Fire.Curve[n-1].Core.Mid
	}
	rest, _ := order.FindMove(p.Line.Sound(), order.Rest)
	out.Place = input.Place(rest.With)
	cools := heat.Rest{
		Cut: input.Cut, Geometry: input.Geometry, FromC: out.From, Wrap: input.Wrap(), VentMin: p.Line.Rests.Vent.Minutes(),
		Place: out.Place, First: input.Rests, RoomC: float64(input.RoomC),
	}
	if cools.InPit() {
		cools.PlaceC = float64(input.PitC)
	}
	out.Rest = cools.Of(restsFor)
	return out, true, nil
}

// stalls finds where the middle of the curve crawls longest.
func stalls(curve []heat.Point) *Stall {
	const window = 6 // half an hour
	var best *Stall
	var now *Stall
	for i := window; i+window < len(curve); i++ {
		a, b, c := curve[i-window], curve[i+window], curve[i]
		slope := (b.Core.Mid - a.Core.Mid) / (b.H - a.H)
		if c.Core.Mid < 55 || c.Core.Mid > 85 || slope >= crawls {
			now = nil
			continue
		}
		if now == nil {
			now = &Stall{From: c.H, LowC: c.Core.Mid}
		}
		now.To, now.TopC = c.H, c.Core.Mid
		if best == nil || now.To-now.From > best.To-best.From {
			best = now
		}
	}
	if best == nil || best.To-best.From < 0.5 {
		return nil
	}
	return best
}

// Rule is a rule of thumb, and what it says of a piece.
type Rule struct {
	ID    string  // pound, pound-half or nine-two
	Hours float64 // on the fire
	Rest  float64 // hours of rest that belong to it; zero when it says nothing of one
	Off   float64 // how much longer than the forecast's middle, h; below zero when shorter
}

const pound = 0.45359237 // kg

// Rules are the rules of thumb that cooks go by: an hour a pound, an hour and a half, and nine
// hours with two of rest.
func (l Look) Rules() []Rule {
	weight := float64(l.Input.Geometry.Mass) / pound
	out := []Rule{{ID: "pound", Hours: weight}, {ID: "pound-half", Hours: 1.5 * weight}}
	if l.Input.Cut.Family == cut.Collagen {
		out = append(out, Rule{ID: "nine-two", Hours: 9, Rest: 2})
	}
	for i := range out {
		out[i].Off = out[i].Hours - l.Fire.Done.Mid
		if math.IsInf(l.Fire.Done.Mid, 1) {
			out[i].Off = 0
		}
	}
	return out
}
