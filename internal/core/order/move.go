package order

import (
	"slices"
	"time"

	"verjuice/internal/core/dose"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// MoveKind is what a move does.
type MoveKind string

// The kinds that stages are read into, in working order.
const (
	Thaw   MoveKind = "thaw"
	Brine  MoveKind = "brine"
	Inject MoveKind = "inject"
	Season MoveKind = "season" // the rub, and layers before the fire
	Wait   MoveKind = "wait"   // salted, to the fire
	Temper MoveKind = "temper"
	On     MoveKind = "on" // a pit
	Spritz MoveKind = "spritz"
	Wrap   MoveKind = "wrap"
	Glaze  MoveKind = "glaze"
	Off    MoveKind = "off"
	Rest   MoveKind = "rest"
	Slice  MoveKind = "slice"
	Finish MoveKind = "finish" // on the slices

	Dust   MoveKind = "dust" // a second dose of dry mix
	Look   MoveKind = "look"
	Baste  MoveKind = "baste"
	Mop    MoveKind = "mop"
	Turn   MoveKind = "turn"
	Wood   MoveKind = "wood"
	Fuel   MoveKind = "fuel"
	Probe  MoveKind = "probe"
	Unwrap MoveKind = "unwrap"
	Vent   MoveKind = "vent"
	Travel MoveKind = "travel"
	Other  MoveKind = "other" // said in the cook's own words
)

// OwnKinds are the kinds that a cook can add to what the stages say.
var OwnKinds = []MoveKind{Spritz, Baste, Mop, Look, Turn, Wood, Fuel, Probe, Wrap, Unwrap, Dust, Glaze, Finish, Other}

// Wets reports whether the move wets the surface.
func (k MoveKind) Wets() bool { return k == Spritz || k == Baste || k == Mop || k == Glaze }

// Visits reports whether somebody opens the pit for the move.
func (k MoveKind) Visits() bool {
	return k.Wets() || k == Look || k == Turn || k == Wood || k == Fuel || k == Probe
}

// Move is one thing done to a piece.
type Move struct {
	Kind  MoveKind
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

// FindMove returns the first move of a kind.
func FindMove(moves []Move, kind MoveKind) (Move, bool) {
	i := slices.IndexFunc(moves, func(m Move) bool { return m.Kind == kind })
	if i < 0 {
		return Move{}, false
	}
	return moves[i], true
}

// DosesOf are what the moves bring, in their order.
func DosesOf(moves []Move) []dose.Source {
	var out []dose.Source
	for _, m := range moves {
		if m.Dose != nil {
			out = append(out, m.Dose)
		}
	}
	return out
}
