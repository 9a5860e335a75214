package order

import (
	"slices"
	"time"

	"verjuice/internal/core/dose"
	"verjuice/internal/core/move"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// MoveKind is what a move does: a stage of the page, or a kind of the table of moves.
type MoveKind = move.Kind

// The stages, in working order.
const (
	Thaw   MoveKind = "thaw"
	Brine  MoveKind = "brine"
	Inject MoveKind = "inject"
	Season MoveKind = "season" // the rub, and layers before the fire
	Wait   MoveKind = "wait"   // salted, to the fire
	Temper MoveKind = "temper"
	On     MoveKind = "on" // a pit
	Spritz          = move.Spritz
	Wrap            = move.Wrap
	Glaze           = move.Glaze
	Off    MoveKind = "off"
	Rest   MoveKind = "rest"
	Slice  MoveKind = "slice"
	Finish          = move.Finish
)

// Move is one thing done to a piece.
type Move struct {
	Kind  MoveKind
	Dose  dose.Source      // what it brings; may be nil
	At    when.Every       // when it is made; none is as soon as the move before it is over
	Some  int              // for so many of the pieces; zero for all
	Key   string           // of a move of the cook's own; empty for one of the stages
	Lasts time.Duration    // of a bath, a wait, a rest, on the counter, on the fire again
	With  string           // the wrap, the place of the rest, the way of serving; the words of an Other
	Pit   int              // which pit, of an On
	Set   quantity.Celsius // what the pit is set to, of an On or an Again
	Timed time.Duration    // time on the fire as the cook gave it, of an On; zero when it is estimated
	// Half of the range that was given for it.
	TimedOff time.Duration
	Open     bool   // uncovered, of a Wait
	Style    string // the school of waiting, of a Wait: minutes, overnight or day
}

// AfterKnife reports whether an Again goes on once the piece is cut: what is cut into cubes or slices, unless it is
// said how long after the fire that is done, while the rest waits.
func (m Move) AfterKnife() bool {
	return m.Kind == move.Again && m.With != move.Whole && m.At.From.None()
}

// KeptBack is which share of the pieces is chilled for later instead of served.
func (l Line) KeptBack() float64 {
	out := 0.0
	for _, m := range l.Own {
		switch {
		case m.Kind != move.Keep:
		case m.Some == 0 || l.Meat.Value.Count == 0:
			return 1
		default:
			out += float64(m.Some) / float64(l.Meat.Value.Count)
		}
	}
	return min(1, out)
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
