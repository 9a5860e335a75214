// Package move knows the kinds of move: what can be done to a piece or a pit, one line of a table each. All that
// is known of one stands there: whether a cook can add it, whether the lid is opened for it, what it brings, how
// long it takes, and its words.
//
//	turn, ok := move.Find(move.Turn)
//	turn.Opens    // somebody lifts the lid for it
//	turn.Press    // "Turned", as it is pressed at the pit
package move

import (
	"embed"
	"slices"
	"time"

	"verjuice/internal/core/table"
)

//go:embed moves.csv
var data embed.FS

// Kind is what a move does, by id.
type Kind string

// The kinds that have rules of their own besides their line.
const (
	Spritz Kind = "spritz"
	Wrap   Kind = "wrap"
	Unwrap Kind = "unwrap"
	Dust   Kind = "dust" // a second dose of dry mix
	Glaze  Kind = "glaze"
	Finish Kind = "finish" // on the slices
	Other  Kind = "other"  // said in the cook's own words
	Again  Kind = "again"  // on the fire once more, after it was off
	Clean  Kind = "clean"  // the pit, when it is cold
	Keep   Kind = "keep"   // chilled for later, not for this table
	// Off the fire after an Again.
	AgainOff Kind = "again-off"
)

// Move is a kind of move.
type Move struct {
	Kind   Kind
	Own    bool          // a cook can add it to what the stages say
	OnPit  bool          // it is done to the pit, not to the piece
	Opens  bool          // it cannot be done with the lid on
	Visits bool          // it is a visit for the heat: somebody opens the pit for it now and then
	Wets   bool          // it wets the surface
	Lasts  time.Duration // that it takes of a pair of hands
	Layer  string        // kind of layer that it brings; empty when it can bring nothing
	Amount string        // of what a new one brings, as it is typed
	When   string        // moment of a new one, as it is typed; a core in braces is in °C
	With   string        // what a new one is with; empty when it has no such thing
	Name   string        // as it is chosen
	Verb   string        // as in a list, with %s for the piece
	Press  string        // as it is pressed, once it was done
}

// ForSome reports whether the move can be of some pieces of a line alone: what is in a wrap cooks at another pace than
// the rest, and needs a line of its own.
func (m Move) ForSome() bool { return m.Kind != Wrap && m.Kind != Unwrap }

// Ways are how a piece goes on the fire once more.
var Ways = []string{Whole, "cubes in a pan", "slices in a pan", "cubes on the grate", "slices on the grate"}

// Whole is the way of a piece that is not cut before it goes on once more.
const Whole = "whole"

// All are all of them: the stages of a piece and what else can be done, in working order.
var All []Move

func init() {
	for _, r := range table.Read(data, "moves.csv") {
		All = append(All, Move{
			Kind: Kind(r["kind"]), Own: r.Yes("own"), OnPit: r.Yes("pit"), Opens: r.Yes("opens"), Visits: r.Yes("visits"),
			Wets: r.Yes("wets"), Lasts: time.Duration(r.Num("minutes")) * time.Minute, Layer: r["layer"],
			Amount: r["amount"], When: r["when"], With: r["with"], Name: r["name"], Verb: r["verb"], Press: r["press"],
		})
	}
}

// Find returns the kind of that id.
func Find(kind Kind) (Move, bool) {
	i := slices.IndexFunc(All, func(m Move) bool { return m.Kind == kind })
	if i < 0 {
		return Move{}, false
	}
	return All[i], true
}

// Kinds are the ids of the kinds that a test is true for.
func Kinds(which func(Move) bool) []string {
	var out []string
	for _, m := range All {
		if which(m) {
			out = append(out, string(m.Kind))
		}
	}
	return out
}

// Own reports whether a cook can add the move.
func Own(m Move) bool { return m.Own }
