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
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode"

	"verjuice/internal/core/field"
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
	Spoons quantity.SpoonSet `json:"spoons,omitempty" required:"false" doc:"Whose spoons and cups its measures are: us or metric; empty means us"`
	Rows   []Row             `json:"rows" nullable:"false"`
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
	Measured   float64 // g of the rows as typed; a batch only when they were measured
}

// Packing is the volume of a dry mix over the sum of its ingredients' volumes:
// small grains settle between large ones. One ingredient alone packs at 1.
const Packing = 0.95

// Blend works out f; what it uses besides the larder and the formulas that ship
// with the program is looked up in own. Mistakes come back with
// pointers below the formula, such as /rows/2/parts; then the mix is not usable.
//
// A bare number counts teaspoons (by volume) or grams (by weight): among parts
// alone that cancels, beside measured rows it is what a part then is. A percent
// row is that share of the whole by weight.
func Blend(f Formula, own Lookup) (Mix, field.Errors) { return blend(f, own, nil) }

// blend works f out; path are the formulas that led to it.
func blend(f Formula, own Lookup, path []Formula) (Mix, field.Errors) {
	errs := header(f)
	if len(f.Rows) > MaxRows {
		errs.Add("/rows", "formula.too-many-rows", "most", MaxRows)
		return Mix{}, errs
	}
	m := Mix{}
	weight := m.weighRows(f, own, path, &errs)
	if len(errs) == 0 && weight <= 0 {
		errs.Add("/rows", "formula.empty")
	}
	if len(errs) > 0 {
		return Mix{}, errs
	}
	m.mix(weight)
	return m, nil
}

// weighRows reads the rows into components whose WeightShare is still a weight, and
// returns what all of them weigh.
func (m *Mix) weighRows(f Formula, own Lookup, path []Formula, errs *field.Errors) float64 {
	weight, share := 0.0, 0.0 // share of the whole, in percent rows
	for i, r := range f.Rows {
		c := component(f, i, own, path, errs)
		if percent, ok := strings.CutSuffix(strings.TrimSpace(r.Parts), "%"); ok {
			p, err := quantity.ParsePercent(percent)
			if !errs.Take(rowPointer(i)+"/parts", err) {
				c.percent = float64(p)
				share += c.percent / 100
			}
		} else {
			c.WeightShare = grams(f, r, c, rowPointer(i)+"/parts", errs)
			weight += c.WeightShare
		}
		m.Components = append(m.Components, c)
	}
	m.Measured = weight
	switch whole := weight / (1 - share); {
	case share > 0 && weight == 0:
		weight = share * 100 // percents alone are taken as they stand
		for i := range m.Components {
			m.Components[i].WeightShare = m.Components[i].percent
		}
	case share >= 1:
		errs.Add("/rows", "formula.no-room", "percent", math.Round(share*100))
	case share > 0:
		for i := range m.Components {
			if p := m.Components[i].percent; p > 0 {
				m.Components[i].WeightShare = whole * p / 100
			}
		}
		weight, m.Measured = whole, whole
	}
	return weight
}

// mix makes shares of the components' weights, and adds up what is in the mix.
func (m *Mix) mix(weight float64) {
	volume := 0.0
	for i := range m.Components {
		c := &m.Components[i]
		if c.Form.GramsPerML > 0 {
			c.VolumeShare = c.WeightShare / c.Form.GramsPerML
			volume += c.VolumeShare
		}
	}
	dry := 0
	for i := range m.Components {
		c := &m.Components[i]
		c.WeightShare /= weight
		c.VolumeShare /= volume
		if c.WeightShare == 0 {
			continue
		}
		if c.Form.ParticleMM > 0 {
			dry++
		}
		m.Per100g = plus(m.Per100g, c.Ingredient.Per100g, c.WeightShare)
		m.Honey = m.Honey || c.honey
		m.CoarseMM = math.Max(m.CoarseMM, c.Form.ParticleMM)
		for _, a := range c.Ingredient.Allergens {
			if !slices.Contains(m.Allergens, a) {
				m.Allergens = append(m.Allergens, a)
			}
		}
	}
	slices.Sort(m.Allergens)
	m.GramsPerML = weight / volume
	if dry > 1 && dry == filled(m.Components) {
		m.GramsPerML /= Packing
	}
}

// filled counts the components that there are some of.
func filled(cs []Component) int {
	n := 0
	for _, c := range cs {
		if c.WeightShare > 0 {
			n++
		}
	}
	return n
}

// header checks what is not a row.
func header(f Formula) field.Errors {
	var errs field.Errors
	if f.Basis != ByVolume && f.Basis != ByWeight {
		errs.Add("/basis", "formula.basis")
	}
	if f.Kind != "" && !slices.Contains(Kinds, f.Kind) {
		errs.Add("/kind", "choice.unknown", "choices", kindNames())
	}
	if len(f.Name) > maxName {
		errs.Add("/name", "text.too-long", "most", maxName)
	}
	if len(f.Note) > maxNote {
		errs.Add("/note", "text.too-long", "most", maxNote)
	}
	if len(f.Tags) > maxTags {
		errs.Add("/tags", "formula.too-many-tags", "most", maxTags)
	}
	for _, tag := range f.Tags {
		if tag == "" || len(tag) > 30 || strings.ContainsAny(tag, ",\n") {
			errs.Add("/tags", "formula.tag")
		}
	}
	return errs
}

// component finds what row i is made of.
func component(f Formula, i int, own Lookup, path []Formula, errs *field.Errors) Component {
	r, at := f.Rows[i], rowPointer(i)
	c := Component{Row: i}
	if r.Formula != "" {
		nested(f, &c, r.Formula, own, path, at+"/formula", errs)
		return c
	}
	var ok bool
	if c.Ingredient, ok = FindIngredient(r.Ingredient, own); !ok {
		errs.Add(at+"/ingredient", "ingredient.unknown")
		return c
	}
	c.honey = c.Ingredient.ID == "honey"
	if c.Form, ok = c.Ingredient.Form(r.Form); !ok {
		errs.Add(at+"/form", "ingredient.form", "ingredient", c.Ingredient.Name, "form", clip(r.Form))
	}
	return c
}

func kindNames() []string {
	out := make([]string, len(Kinds))
	for i, k := range Kinds {
		out[i] = string(k)
	}
	return out
}

// clip shortens what was typed for a message.
func clip(s string) string { return fmt.Sprintf("%.30s", s) }

// nested makes the mix of another formula the ingredient of a row. What leads
// back to itself is refused with the way it takes.
func nested(f Formula, c *Component, id string, own Lookup, path []Formula, at string, errs *field.Errors) {
	used, ok := Find(id, own)
	if !ok {
		errs.Add(at, "formula.gone")
		return
	}
	way := append(slices.Clone(path), f)
	for i, before := range way {
		if before.ID == id {
			errs.Add(at, selfUse, "way", append(names(way[i:]), used.Name))
			return
		}
	}
	if len(path) >= maxDepth {
		errs.Add(at, "formula.too-deep", "most", maxDepth)
		return
	}
	mix, wrong := blend(used, own, way)
	if len(wrong) > 0 {
		why := wrong[0].Wrong
		if why.ID != selfUse {
			why = field.Because("formula.has-mistake", "formula", used.Name, "why", why)
		}
		errs.Take(at, why)
		return
	}
	c.honey, c.inner = mix.Honey, &mix
	c.Ingredient = larder.Ingredient{ID: "formula:" + id, Name: used.Name, Kind: "mix", Per100g: mix.Per100g, Allergens: mix.Allergens}
	c.Form = larder.Form{GramsPerML: mix.GramsPerML, SpreadPercent: 10, ParticleMM: mix.CoarseMM}
}

const selfUse = "formula.uses-itself"

func names(fs []Formula) []string {
	out := make([]string, len(fs))
	for i, f := range fs {
		out[i] = f.Name
	}
	return out
}

// grams is a row's amount in grams.
func grams(f Formula, r Row, c Component, at string, errs *field.Errors) float64 {
	parts, err := quantity.ParseParts(r.Parts)
	if err == nil {
		if parts > maxParts {
			errs.Add(at, "formula.too-many-parts", "most", maxParts)
		}
		if f.Basis == ByVolume {
			return parts * quantity.USSpoons.Teaspoon().ML() * c.Form.GramsPerML
		}
		return parts
	}
	if !strings.ContainsFunc(r.Parts, unicode.IsLetter) {
		errs.Take(at, err)
		return 0
	}
	amount, err := quantity.ParseAmount(r.Parts, c.Ingredient.Kind == "liquid", f.Spoons)
	if errs.Take(at, err) {
		return 0
	}
	if amount.Mass > 1000 || amount.Volume > 1 {
		errs.Add(at, "amount.more-than-a-kitchen")
	}
	return amount.Of(c.Form.GramsPerML).Grams()
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
