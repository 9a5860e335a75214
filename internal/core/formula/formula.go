// Package formula turns parts into amounts.
//
// A Formula is what a cook writes down: parts by volume or by weight, grams,
// percent or kitchen measures, each of an ingredient in a form or of another
// formula. Mixed, it becomes a Mix, which knows its composition and how heavy a
// spoon of it is, and which can be weighed out in any amount:
//
//	mix, errs := formula.Blend(f, nil)
//	rows := mix.Weigh(57 * quantity.Gram)
package formula

import (
	"encoding/json"
	"math"

	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// Basis says what a bare number means.
type Basis string

// The bases.
const (
	ByVolume Basis = "volume"
	ByWeight Basis = "weight"
)

// Kind says what a formula is for.
type Kind string

// The kinds. The zero Kind is a rub.
const (
	Rub       Kind = "rub"
	Base      Kind = "base"      // a layer under the rub
	Bath      Kind = "bath"      // a wet brine
	Injection Kind = "injection" // through the needle
	Binder    Kind = "binder"
	Spritz    Kind = "spritz"
	Baste     Kind = "baste"
	Glaze     Kind = "glaze"
	Sauce     Kind = "sauce"
)

// Kinds are all kinds, in working order.
var Kinds = []Kind{Base, Rub, Bath, Injection, Binder, Spritz, Baste, Glaze, Sauce}

// Row is one line of a formula as typed: so much of an ingredient in a form, or
// of another formula.
type Row struct {
	Ingredient string `json:"ingredient" required:"false" doc:"Ingredient id; empty when the row is another formula" example:"black-pepper"`
	Form       string `json:"form" required:"false" doc:"Form of it; empty means the first" example:"coarse"`
	Formula    string `json:"formula,omitempty" required:"false" doc:"Id of another formula that this row is"`
	Parts      string `json:"parts" doc:"How much, as typed: parts (2), grams (10 g), percent of the whole (5 %) or a measure (1 Tbsp)" example:"1 1/2"`
}

// Formula is a mix as written down.
type Formula struct {
	ID    string   `json:"id,omitempty" required:"false" doc:"Name of one that ships with the program, or number of one of the cook's own"`
	Name  string   `json:"name" example:"Fennel house rub"`
	Kind  Kind     `json:"kind,omitempty" required:"false" doc:"base, rub, bath, injection, binder, spritz, baste, glaze or sauce; empty means rub"`
	Note  string   `json:"note,omitempty" required:"false"`
	Tags  []string `json:"tags,omitempty" required:"false" nullable:"false"`
	Basis Basis    `json:"basis" doc:"What a bare number counts: volume or weight" example:"volume"`
	// Spoons are part of what was written: a cup stays the cup it was.
	Spoons quantity.SpoonSet `json:"spoons,omitempty" required:"false" doc:"Whose spoons and cups its measures are: us or metric; empty means those of the cook it is in, else us"`
	Rows   []Row             `json:"rows" nullable:"false"`
}

// MarshalJSON writes a formula that has no rows with an empty list of them, as it is read.
func (f Formula) MarshalJSON() ([]byte, error) {
	type plain Formula
	if f.Rows == nil {
		f.Rows = []Row{}
	}
	return json.Marshal(plain(f))
}

// Limits on what is typed.
const (
	MaxRows  = 40
	maxParts = 1000
	maxName  = 120
	maxNote  = 1000
	maxTags  = 12
	maxDepth = 6
)

// Component is one ingredient of a mix.
type Component struct {
	Ingredient  larder.Ingredient
	Form        larder.Form
	Row         int     // in the formula
	WeightShare float64 // of the mix, 0 to 1
	VolumeShare float64 // of the sum of the ingredients' own volumes, 0 to 1

	percent float64 // of the whole, when typed so
	honey   bool
	inner   *Mix // of a row that is another formula
}

// Mix is a formula worked out.
type Mix struct {
	Components []Component
	Per100g    larder.Composition
	GramsPerML float64 // bulk density of the mix
	Allergens  []string
	Honey      bool    // somewhere in it
	CoarseMM   float64 // largest particle
	SaltOff    float64 // how far its salt may be off because a label was not read, as a share of it
	Measured   float64 // g of the rows as typed; a batch only when they were measured
}

// Packing is the volume of a dry mix over the sum of its ingredients' volumes:
// small grains settle between large ones. One ingredient alone packs at 1.
const Packing = 0.95

// SaltShare is the salt (NaCl equivalent) in the mix by weight, 0 to 1.
func (m Mix) SaltShare() float64 { return m.Per100g.Salt / 100 }

// FatLed reports whether the mix is mostly fat, in which salt does not dissolve.
func (m Mix) FatLed() bool { return m.Per100g.Fat > 30 && m.Per100g.Fat > m.Per100g.Water }

// Undissolved is the largest grain in mm that is left when the mix is stirred into its own
// water: salt, sugar, stock cubes and phosphate dissolve, ground spice does not; in a mix
// that is mostly fat nothing does.
func (m Mix) Undissolved() float64 {
	largest := 0.0
	for _, c := range m.Components {
		grain := c.Form.ParticleMM
		switch {
		case c.WeightShare == 0 || !m.FatLed() && c.Ingredient.Dissolves():
			continue
		case c.inner != nil:
			inner := *c.inner
			if !m.FatLed() {
				inner.Per100g.Fat = 0
			}
			grain = inner.Undissolved()
		}
		largest = max(largest, grain)
	}
	return largest
}

// SaltLed reports whether the mix is over half salt by weight: such a mix is
// dosed by the salt it brings, any other by its coat.
func (m Mix) SaltLed() bool { return m.SaltShare() > 0.5 }

// SaltSpread is the relative spread of the salt share when the rows are measured
// by spoon instead of weighed: the spread of each salty ingredient's density,
// 0 to 1.
func (m Mix) SaltSpread() float64 {
	if m.Per100g.Salt <= 0 {
		return 0
	}
	sum := 0.0
	for _, c := range m.Components {
		part := c.WeightShare * c.Ingredient.Per100g.Salt / m.Per100g.Salt * c.Form.SpreadPercent / 100
		sum += part * part
	}
	return math.Sqrt(sum)
}

// Volume is the volume of mass m of the mix.
func (m Mix) Volume(mass quantity.Mass) quantity.Volume {
	if m.GramsPerML <= 0 {
		return 0
	}
	return quantity.Volume(mass.Grams()/m.GramsPerML) * quantity.Millilitre
}

// SpoonSpread is how far a spoon of the mix may be off, as a share of it: each
// ingredient's packets differ, and they differ independently.
func (m Mix) SpoonSpread() float64 {
	sum := 0.0
	for _, c := range m.Components {
		part := c.WeightShare * c.Form.SpreadPercent / 100
		sum += part * part
	}
	return math.Sqrt(sum)
}

// Weighed is one ingredient's amount.
type Weighed struct {
	Component
	Mass   quantity.Mass
	Volume quantity.Volume
}

// Weigh divides mass of the mix into its ingredients. The masses add up to mass.
func (m Mix) Weigh(mass quantity.Mass) []Weighed {
	out := make([]Weighed, len(m.Components))
	for i, c := range m.Components {
		grams := mass.Grams() * c.WeightShare
		out[i] = Weighed{
			Component: c,
			Mass:      quantity.Mass(grams) * quantity.Gram,
			Volume:    quantity.Volume(grams/c.Form.GramsPerML) * quantity.Millilitre,
		}
	}
	return out
}
