// Package method is what is done to a piece, in order: a list of moves, each with
// when it happens and what it brings. The stages of a cook's page are read into such
// a list, and the ledger, the plan and the cautions read it.
//
//	wrap := method.Move{Kind: method.Wrap, When: method.When{Core: 71}, With: "foil"}
package method

import (
	"slices"
	"time"

	"verjuice/internal/core/dose"
	"verjuice/internal/core/quantity"
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
)

// When is the moment of a move: one of a time after or before another move, and a
// core temperature. The zero When is as soon as the move before it is over.
type When struct {
	Before Kind             // so long before that move starts
	By     time.Duration    // with Before
	Core   quantity.Celsius // when the core reads so
}

// Again is a rhythm: every so often, from the moment of the move until another.
type Again struct {
	Every time.Duration
	Until Kind
}

// Move is one thing done to a piece.
type Move struct {
	Kind  Kind
	Dose  dose.Source // what it brings; may be nil
	When  When
	Again Again
	Lasts time.Duration    // of a bath, a wait, a rest
	With  string           // the wrap, the place of the rest, the way of serving
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
