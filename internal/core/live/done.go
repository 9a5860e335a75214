package live

import (
	"maps"
	"slices"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
)

// Doneness is whether a piece is done, by its places and by its feel together.
type Doneness struct {
	Hot  bool     // its coldest place is at the core at which it is taken off
	Cold []string // places that are not there yet, while others are
	Soft []string // places that felt soft
	Firm []string // and that did not
	Bent bool     // a rack that bends until it cracks
	Feel bool     // it has to be soft, too, or by that alone
}

// tough is from which core on a cut is cooked until it is soft, °C.
const tough = 80

// soft is the least core at which a piece that is soft everywhere may come off before it is at its
// core, °C: there collagen has gone, and it is far above what is safe.
const soft = 85

// judge is how done a piece is that is on the fire. The coldest place counts, and where it was felt
// so does the toughest one.
func (p *Piece) judge() Doneness {
	c := p.Seen.Cook
	out := Doneness{Feel: c.Feel || c.DoneC == 0}
	out.Hot = p.Core != nil && c.DoneC > 0 && float64(p.Core.C) >= c.DoneC
	for _, at := range p.Places {
		if probe, err := facts.ParseProbe(at.Probe); err == nil && float64(at.C) < c.DoneC && !out.Hot {
			out.Cold = append(out.Cold, probe.Place)
		}
	}
	if len(out.Cold) == len(p.Places) {
		out.Cold = nil
	}
	feel := p.Piece.Happened.Feel
	for _, where := range slices.Sorted(maps.Keys(feel)) {
		if feel[where] == "soft" {
			out.Soft = append(out.Soft, where)
		} else {
			out.Firm = append(out.Firm, where)
		}
	}
	if how, _ := p.Piece.Happened.Signs["bend"].How(); p.Piece.Line.Meat.Value.Cut.Family == cut.Rack {
		out.Bent = how == "cracks"
	}
	return out
}

// Tender reports whether it was felt to be soft, and nowhere else.
func (d Doneness) Tender() bool { return len(d.Firm) == 0 && (len(d.Soft) > 0 || d.Bent) }

// Done reports whether the piece is done, so that it is to come off: by the core that was asked
// for, where it was not felt to be tough; by feel, where it is hot enough to be safe.
func (p Piece) Done() bool {
	c, d := p.Seen.Cook, p.Doneness
	cooked := p.Piece.Line.Meat.Value.Cut.DoneC() > tough
	switch {
	case p.State != On:
		return false
	case !c.Off.None():
		now := p.now()
		now.Soft = d.Tender()
		return c.Off.Met(now)
	case d.Feel && c.DoneC > 0:
		return d.Tender() && (d.Hot || cooked && p.Core == nil) // who reads no core goes by the feel
	case cooked && d.Tender():
		return p.Core == nil || float64(p.Core.C) >= soft
	case cooked && len(d.Firm) > 0 || d.Feel:
		return false
	}
	return d.Hot
}
