package live

import (
	"slices"
	"time"

	"verjuice/internal/core/move"
	"verjuice/internal/core/order"
)

// StillAgain are the moves that put the piece on the fire once more, and were not made.
func (p Piece) StillAgain() []order.Move {
	var out []order.Move
	done := len(p.Piece.Happened.Again)
	for _, m := range p.Piece.Line.Own {
		if m.Kind != move.Again {
			continue
		}
		if done--; done < 0 {
			out = append(out, m)
		}
	}
	return out
}

// cubesToCome reports whether a piece that was cut is still to go on the fire in cubes or slices; what nobody put on
// for hours will not.
func (p Piece) cubesToCome(now time.Time) bool {
	return now.Sub(p.Piece.Happened.Last["slice"]) < overAfter &&
		slices.ContainsFunc(p.StillAgain(), order.Move.AfterKnife)
}

// AgainUntil is when a piece that is on the fire once more is to come off, by what was planned; zero where nothing was.
func (p Piece) AgainUntil() time.Time {
	spells := p.Piece.Happened.Again
	n := len(spells)
	for _, m := range p.Piece.Line.Own {
		if m.Kind != move.Again {
			continue
		}
		if n--; n == 0 {
			return spells[len(spells)-1].On.Add(m.Lasts)
		}
	}
	return time.Time{}
}
