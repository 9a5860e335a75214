package sheet

import (
	"strings"
	"time"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
)

// Write says a result.
func Write(r cooking.Result, as Reader) Sheet { return WriteAfter(Written{}, r, as).Sheet }

// WritePlan says the days laid out; nil when there is no plan.
func WritePlan(r cooking.Result, as Reader) *PlanSheet {
	if r.Plan == nil {
		return nil
	}
	return newWriter(r, as).plan(r)
}

// WriteSeason says the rub of a piece, weighed out; nil when it has none.
func WriteSeason(p cooking.Piece, as Reader) *SeasonSheet {
	if p.Season == nil {
		return nil
	}
	return writer{Reader: as}.season(p.Season)
}

// WriteLedger says the salt of a piece, source by source.
func WriteLedger(p cooking.Piece, as Reader) *LedgerSheet { return writer{Reader: as}.ledger(p.Ledger) }

// WriteDepth says how deep the salt of a piece's coat gets.
func WriteDepth(p cooking.Piece, as Reader) *DepthSheet {
	return writer{Reader: as}.depth(p.Depth, p.Line.Salting.Value.Band)
}

// WriteBath says the bath of a piece.
func WriteBath(p cooking.Piece, as Reader) *BathSheet { return writer{Reader: as}.bath(p.Bath) }

// WriteNeedle says the injection of a piece.
func WriteNeedle(p cooking.Piece, as Reader) *InjectionSheet {
	return writer{Reader: as}.needle(p.Needle)
}

// Line is a cook in a list.
type Line struct {
	Serve  string
	Away   string
	Past   bool
	Pieces []string
}

// WriteLine says a cook in a list that is served at a time; the zero time is none.
func WriteLine(c cook.Cook, serve, now time.Time) Line {
	line := Line{Pieces: []string{}}
	if !serve.IsZero() {
		line.Serve, line.Away, line.Past = day(serve), away(serve, now), serve.Before(now)
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
	return field.Capital(name)
}
