// Package dose is what brings salt, sugar, fat and water to a piece, whatever the
// road: a rub, a bath, an injection, a layer. Each is a Source; the ledger adds up
// what they bring, and Solve finds how much of any one of them meets a target.
//
//	rub := dose.Rub{Mix: mix, Coat: medium, Holds: 1}
//	glaze := dose.Layer{At: "layer-0", Kind: "glaze", Mix: soy, Mass: 18 * quantity.Gram}
//	solved, err := dose.Solve([]dose.Source{glaze, rub}, rub.ID(), 1.1, on)
//
// A further kind of source is one file here that implements Source, and one line where package order reads
// it. The kinds are closed: whatever is asked of a source is on the interface.
package dose

import (
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// ID names a source within a piece, and stays: ledger lines, cautions and what is
// left free name it. It is rub, bath, inject, binder, or layer-0, layer-1 and so on.
type ID string

// Label is what a source is called: as typed, or by its ID when it has no name.
type Label struct {
	ID    ID     `json:"id"`
	Typed string `json:"typed"`
}

// Target is the piece that sources go on, and how long they work there.
type Target struct {
	Meat    salt.Piece // one piece
	Count   int
	Area    float64         // that takes a coat, of one, m²
	Volume  quantity.Volume // of one, in a pot
	Length  quantity.Length
	Width   quantity.Length
	Path    cut.Path // into it from a bath
	Density float64  // kg/m³
	Fridge  quantity.Celsius
	Wait    time.Duration // from salting to the fire
	Soak    time.Duration // in the bath; zero means as long as the bath says
}

// Brought is what a source brings to one piece.
type Brought struct {
	Label Label
	Mass  quantity.Mass // of its mix, that lies on or goes into the piece
	Salt  quantity.Mass // NaCl that reaches the piece
	Off   float64       // how far Mass and Salt may be off, as a share of them
	Stays salt.Share    // of that, ends in the meat
	Place salt.Place
	Mix   formula.Mix
	Left  []formula.Mix // that touch the meat, and of which only salt goes into it
}

// Use is what has to be on hand for a source, for all pieces of the line.
type Use struct {
	Formula formula.Formula
	Mix     formula.Mix
	Mass    quantity.Mass
	Salt    quantity.Mass // plain salt, when there is no Mix
	For     ID
}

// Source is one road by which something comes to a piece. Only this package has kinds of it.
type Source interface {
	ID() ID
	Label() Label
	// On is what it brings to the piece as planned.
	On(Target) Brought
	// WithAmount is the source with another amount: kg of its mix for one piece; for
	// a bath, kg of salt in all of it.
	WithAmount(kg float64) Source
	// Amount is how much of it there is, as a figure that says how it was worked out.
	Amount(Target) trace.Figure
	// Uses are what has to be on hand for it.
	Uses(Target) []Use
	// Check says why it cannot be, with a pointer below the source as typed; nil
	// when it can.
	Check(Target) field.Errors

	// waits reports whether it is on or in the piece when the wait before the fire begins.
	waits() bool
	// leaves is what it has left in the meat by then, that of brought which stays, kg a kg of boneless meat;
	// along a path it may know how deep.
	leaves(on Target, path cut.Path, stays float64) salt.Before
	// adds is what it adds that cautions look at, of what it brings to one piece.
	adds(on Target, one Brought) added
	// asMeasured is what was really used of it; false when that is not known.
	asMeasured(Target) (Brought, bool)
}

// plain is what most sources answer: they are there when the wait begins, even in the meat, and go by what
// was planned.
type plain struct{}

func (plain) waits() bool { return true }

func (plain) leaves(_ Target, _ cut.Path, stays float64) salt.Before { return salt.Even(stays) }

func (plain) adds(on Target, one Brought) added { return addedBy(on, one) }

func (plain) asMeasured(Target) (Brought, bool) { return Brought{}, false }

// As is a source as one of its kinds, to work out what only that kind has; false for another one and for none.
func As[S Source](s Source) (S, bool) {
	one, ok := s.(S)
	return one, ok
}

// Bring is what s brings to the piece: as measured when it was, else as planned.
func Bring(s Source, on Target) Brought {
	b, was := s.asMeasured(on)
	if !was {
		b = s.On(on)
	}
	if b.Mix.SaltOff > 0 {
		b.Off = offs(b.Off, b.Mix.SaltOff)
	}
	return b
}

// Line is b as a source of the salt ledger.
func (b Brought) Line() salt.Source {
	return salt.Source{ID: string(b.Label.ID), Salt: b.Salt, Off: b.Off, Stays: b.Stays, Place: b.Place}
}

// Lines are all of them as sources of the salt ledger.
func Lines(all []Brought) []salt.Source {
	out := make([]salt.Source, len(all))
	for i, b := range all {
		out[i] = b.Line()
	}
	return out
}
