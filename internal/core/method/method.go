// Package method is what is done to a piece, in order: a list of moves, each with
// when it happens and what it brings. The stages of a cook's page are read into such
// a list, and the ledger, the plan and the cautions read it.
//
//	wrap := method.Move{Kind: method.Wrap, At: when.Every{From: when.At(when.Cond{CoreC: 71})}, With: "foil"}
package method

import (
	"slices"
	"time"

	"verjuice/internal/core/dose"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// Kind is what a move does.
type Kind string

// The kinds that stages are read into, in working order.
const (
	Thaw   Kind = "thaw"
	Brine  Kind = "brine"
	Inject Kind = "inject"
	Season Kind = "season" // the rub, and layers before the fire
	Wait   Kind = "wait"   // salted, to the fire
	Temper Kind = "temper"
	On     Kind = "on" // a pit
	Spritz Kind = "spritz"
	Wrap   Kind = "wrap"
	Glaze  Kind = "glaze"
	Off    Kind = "off"
	Rest   Kind = "rest"
	Slice  Kind = "slice"
	Finish Kind = "finish" // on the slices

	Dust   Kind = "dust" // a second dose of dry mix
	Look   Kind = "look"
	Baste  Kind = "baste"
	Mop    Kind = "mop"
	Turn   Kind = "turn"
	Wood   Kind = "wood"
	Fuel   Kind = "fuel"
	Probe  Kind = "probe"
	Unwrap Kind = "unwrap"
	Vent   Kind = "vent"
	Travel Kind = "travel"
	Other  Kind = "other" // said in the cook's own words
)

// Own are the kinds that a cook can add to what the stages say.
var Own = []Kind{Spritz, Baste, Mop, Look, Turn, Wood, Fuel, Probe, Wrap, Unwrap, Dust, Glaze, Finish, Other}

// Wets reports whether the move wets the surface.
func (k Kind) Wets() bool { return k == Spritz || k == Baste || k == Mop || k == Glaze }

// Visits reports whether somebody opens the pit for the move.
func (k Kind) Visits() bool {
	return k.Wets() || k == Look || k == Turn || k == Wood || k == Fuel || k == Probe
}

// Move is one thing done to a piece.
type Move struct {
	Kind  Kind
	Dose  dose.Source      // what it brings; may be nil
	At    when.Every       // when it is made; none is as soon as the move before it is over
	Key   string           // of a move of the cook's own; empty for one of the stages
	Lasts time.Duration    // of a bath, a wait, a rest, on the counter
	With  string           // the wrap, the place of the rest, the way of serving; the words of an Other
	Pit   int              // which pit, of an On
	Set   quantity.Celsius // what the pit is set to, of an On
	Timed time.Duration    // time on the fire as the cook gave it, of an On; zero when it is estimated
	Open  bool             // uncovered, of a Wait
	Style string           // the school of waiting, of a Wait: minutes, overnight or day
}

// Find returns the first move of a kind.
func Find(moves []Move, kind Kind) (Move, bool) {
	i := slices.IndexFunc(moves, func(m Move) bool { return m.Kind == kind })
	if i < 0 {
		return Move{}, false
	}
	return moves[i], true
}

// Doses are what the moves bring, in their order.
func Doses(moves []Move) []dose.Source {
	var out []dose.Source
	for _, m := range moves {
		if m.Dose != nil {
			out = append(out, m.Dose)
		}
	}
	return out
}
