// Package formula turns parts into amounts.
//
// A Formula is what a cook writes down: parts by volume or by weight, each of an
// ingredient in a form. Mixed, it becomes a Mix, which knows its composition and
// how heavy a spoon of it is, and which can be weighed out in any amount:
//
//	mix, errs := formula.Blend(f)
//	rows := mix.Weigh(57 * quantity.Gram)
package formula

import (
	"math"
	"slices"

	"verjuice/internal/core/field"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// Basis says what "parts" means.
type Basis string

// The bases.
const (
	ByVolume Basis = "volume"
	ByWeight Basis = "weight"
)

// Row is one ingredient of a formula as typed.
type Row struct {
	Ingredient string `json:"ingredient" doc:"Ingredient id" example:"black-pepper"`
	Form       string `json:"form" doc:"Form of it; empty means the first" example:"coarse"`
	Parts      string `json:"parts" doc:"Number of parts as typed" example:"1 1/2"`
}

// Formula is a mix in parts.
type Formula struct {
	ID    string `json:"id,omitempty" doc:"Name of a formula that ships with the program; empty for the cook's own"`
	Name  string `json:"name" example:"Fennel house rub"`
	Note  string `json:"note,omitempty"`
	Basis Basis  `json:"basis" doc:"What a part is: volume or weight" example:"volume"`
	Rows  []Row  `json:"rows" nullable:"false"`
}

// Limits on what is typed.
const (
	MaxRows  = 40
	maxParts = 1000
	maxName  = 120
)

// Component is one ingredient of a mix.
type Component struct {
	Ingredient  larder.Ingredient
	Form        larder.Form
	Row         int     // in the formula
	WeightShare float64 // of the mix, 0 to 1
	VolumeShare float64 // of the sum of the ingredients' own volumes, 0 to 1
}

// Mix is a formula worked out.
type Mix struct {
	Components []Component
	Per100g    larder.Composition
	GramsPerML float64 // bulk density of the mix
	Allergens  []string
	CoarseMM   float64 // largest particle
}

// Packing is the volume of a dry mix over the sum of its ingredients' volumes:
// small grains settle between large ones. One ingredient alone packs at 1.
const Packing = 0.95

// Blend works out f. Mistakes come back with pointers below the formula, such as
// /rows/2/parts; then the mix is not usable.
func Blend(f Formula) (Mix, field.Errors) {
	var errs field.Errors
	if f.Basis != ByVolume && f.Basis != ByWeight {
		errs.Add("/basis", "say whether a part is a volume or a weight")
	}
	if len(f.Name) > maxName {
		errs.Add("/name", "a name has at most %d letters", maxName)
	}
	if len(f.Rows) > MaxRows {
		errs.Add("/rows", "a formula has at most %d ingredients", MaxRows)
		return Mix{}, errs
	}
	var m Mix
	weight, volume := 0.0, 0.0
	for i, r := range f.Rows {
		at := rowPointer(i)
		ing, ok := larder.Find(r.Ingredient)
		if !ok {
			errs.Add(at+"/ingredient", "choose an ingredient from the larder")
		}
		var form larder.Form
		if ok {
			var known bool
			if form, known = ing.Form(r.Form); !known {
				errs.Add(at+"/form", "%s does not come as “%s”", ing.Name, r.Form)
			}
		}
		parts, err := quantity.ParseParts(r.Parts)
		if !errs.Take(at+"/parts", err) && parts > maxParts {
			errs.Add(at+"/parts", "at most %d parts", maxParts)
		}
		c := Component{Ingredient: ing, Form: form, Row: i, WeightShare: parts, VolumeShare: parts}
		if f.Basis == ByVolume {
			c.WeightShare = parts * form.GramsPerML
		} else if form.GramsPerML > 0 {
			c.VolumeShare = parts / form.GramsPerML
		}
		weight += c.WeightShare
		volume += c.VolumeShare
		m.Components = append(m.Components, c)
	}
	if len(errs) == 0 && weight <= 0 {
		errs.Add("/rows", "give at least one ingredient a part")
	}
	if len(errs) > 0 {
		return Mix{}, errs
	}
	filled := 0
	for i := range m.Components {
		c := &m.Components[i]
		c.WeightShare /= weight
		c.VolumeShare /= volume
		if c.WeightShare == 0 {
			continue
		}
		filled++
		m.Per100g = plus(m.Per100g, c.Ingredient.Per100g, c.WeightShare)
		m.CoarseMM = math.Max(m.CoarseMM, c.Form.ParticleMM)
		for _, a := range c.Ingredient.Allergens {
			if !slices.Contains(m.Allergens, a) {
				m.Allergens = append(m.Allergens, a)
			}
		}
	}
	slices.Sort(m.Allergens)
	// Parts are millilitres or grams, so weight over volume is g/mL either way.
	m.GramsPerML = weight / volume
	if filled > 1 {
		m.GramsPerML /= Packing
	}
	return m, nil
}

func rowPointer(i int) string { return "/rows/" + quantity.Number(float64(i)) }

func plus(a, b larder.Composition, share float64) larder.Composition {
	a.Salt += b.Salt * share
	a.Sugar += b.Sugar * share
	a.Fat += b.Fat * share
	a.Water += b.Water * share
	a.Acid += b.Acid * share
	a.Nitrite += b.Nitrite * share
	a.Phosphate += b.Phosphate * share
	a.Starch += b.Starch * share
	return a
}

// SaltShare is the salt (NaCl equivalent) in the mix by weight, 0 to 1.
func (m Mix) SaltShare() float64 { return m.Per100g.Salt / 100 }

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
	return quantity.Volume(mass.Grams()/m.GramsPerML) * quantity.Millilitre
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
