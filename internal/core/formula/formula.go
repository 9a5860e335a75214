// Package formula turns parts into amounts.
//
// A Formula is what a cook writes down: parts by volume or by weight, grams,
// percent or kitchen measures, each of an ingredient in a form or of another
// formula. Mixed, it becomes a Mix, which knows its composition and how heavy a
// spoon of it is, and which can be weighed out in any amount:
//
//	mix, errs := formula.Blend(f, formula.Shelf{})
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
	Rows  []Row    `json:"rows" nullable:"false"`
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
// with the program is looked up on shelf. Mistakes come back with
// pointers below the formula, such as /rows/2/parts; then the mix is not usable.
//
// A bare number counts teaspoons (by volume) or grams (by weight): among parts
// alone that cancels, beside measured rows it is what a part then is. A percent
// row is that share of the whole by weight.
func Blend(f Formula, shelf Shelf) (Mix, field.Errors) { return blend(f, shelf, nil) }

// blend works f out; path are the formulas that led to it.
func blend(f Formula, shelf Shelf, path []Formula) (Mix, field.Errors) {
	errs := header(f)
	if len(f.Rows) > MaxRows {
		errs.Add("/rows", "a formula has at most %d ingredients", MaxRows)
		return Mix{}, errs
	}
	var m Mix
	weight, volume := 0.0, 0.0
	share := 0.0 // of the whole, in percent rows
	for i, r := range f.Rows {
		c := component(f, i, shelf, path, &errs)
		if percent, ok := strings.CutSuffix(strings.TrimSpace(r.Parts), "%"); ok {
			p, err := quantity.ParsePercent(percent)
			if !errs.Take(rowPointer(i)+"/parts", err) {
				c.percent = float64(p)
				share += c.percent / 100
			}
		} else {
			c.WeightShare = grams(f.Basis, r, c, rowPointer(i)+"/parts", &errs)
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
		errs.Add("/rows", "the percentages leave no room for the other ingredients: they add up to %.0f %%", share*100)
	case share > 0:
		for i := range m.Components {
			if p := m.Components[i].percent; p > 0 {
				m.Components[i].WeightShare = whole * p / 100
			}
		}
		weight, m.Measured = whole, whole
	}
	for i := range m.Components {
		c := &m.Components[i]
		if c.Form.GramsPerML > 0 {
			c.VolumeShare = c.WeightShare / c.Form.GramsPerML
			volume += c.VolumeShare
		}
	}
	if len(errs) == 0 && weight <= 0 {
		errs.Add("/rows", "give at least one ingredient a part")
	}
	if len(errs) > 0 {
		return Mix{}, errs
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
	return m, nil
}

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
		errs.Add("/basis", "say whether a part is a volume or a weight")
	}
	if f.Kind != "" && !slices.Contains(Kinds, f.Kind) {
		errs.Add("/kind", "rub, base, bath, injection, binder, spritz, baste, glaze or sauce")
	}
	if len(f.Name) > maxName {
		errs.Add("/name", "a name has at most %d letters", maxName)
	}
	if len(f.Note) > maxNote {
		errs.Add("/note", "a note has at most %d letters", maxNote)
	}
	if len(f.Tags) > maxTags {
		errs.Add("/tags", "at most %d tags", maxTags)
	}
	for _, tag := range f.Tags {
		if tag == "" || len(tag) > 30 || strings.ContainsAny(tag, ",\n") {
			errs.Add("/tags", "a tag is one to thirty letters without commas")
		}
	}
	return errs
}

// component finds what row i is made of.
func component(f Formula, i int, shelf Shelf, path []Formula, errs *field.Errors) Component {
	r, at := f.Rows[i], rowPointer(i)
	c := Component{Row: i}
	if r.Formula != "" {
		nested(f, &c, r.Formula, shelf, path, at+"/formula", errs)
		return c
	}
	var ok bool
	if c.Ingredient, ok = shelf.FindIngredient(r.Ingredient); !ok {
		errs.Add(at+"/ingredient", "choose an ingredient from the larder")
		return c
	}
	c.honey = c.Ingredient.ID == "honey"
	if c.Form, ok = c.Ingredient.Form(r.Form); !ok {
		errs.Add(at+"/form", "%s does not come as “%.30s”", c.Ingredient.Name, r.Form)
	}
	return c
}

// nested makes the mix of another formula the ingredient of a row. What leads
// back to itself is refused with the way it takes.
func nested(f Formula, c *Component, id string, shelf Shelf, path []Formula, at string, errs *field.Errors) {
	used, ok := shelf.Find(id)
	if !ok {
		errs.Add(at, "the formula that this row used is gone: choose another")
		return
	}
	way := append(slices.Clone(path), f)
	for i, before := range way {
		if before.ID == id {
			errs.Add(at, "%s: %s", selfUse, strings.Join(append(names(way[i:]), used.Name), " → "))
			return
		}
	}
	if len(path) >= maxDepth {
		errs.Add(at, "formulas inside formulas go at most %d deep", maxDepth)
		return
	}
	mix, wrong := blend(used, shelf, way)
	if len(wrong) > 0 {
		detail := wrong[0].Detail
		if !strings.HasPrefix(detail, selfUse) {
			detail = fmt.Sprintf("“%s” has a mistake of its own: %s", used.Name, detail)
		}
		errs.Add(at, "%s", detail)
		return
	}
	c.honey, c.inner = mix.Honey, &mix
	c.Ingredient = larder.Ingredient{ID: "formula:" + id, Name: used.Name, Kind: "mix", Per100g: mix.Per100g, Allergens: mix.Allergens}
	c.Form = larder.Form{GramsPerML: mix.GramsPerML, SpreadPercent: 10, ParticleMM: mix.CoarseMM}
}

const selfUse = "a formula cannot use itself"

func names(fs []Formula) []string {
	out := make([]string, len(fs))
	for i, f := range fs {
		out[i] = f.Name
	}
	return out
}

// grams is a row's amount in grams.
func grams(basis Basis, r Row, c Component, at string, errs *field.Errors) float64 {
	parts, err := quantity.ParseParts(r.Parts)
	if err == nil {
		if parts > maxParts {
			errs.Add(at, "at most %d parts", maxParts)
		}
		if basis == ByVolume {
			return parts * quantity.USSpoons.Teaspoon().ML() * c.Form.GramsPerML
		}
		return parts
	}
	if !strings.ContainsFunc(r.Parts, unicode.IsLetter) {
		errs.Take(at, err)
		return 0
	}
	amount, err := quantity.ParseAmount(r.Parts, c.Ingredient.Kind == "liquid")
	if errs.Take(at, err) {
		return 0
	}
	if amount.Mass > 1000 || amount.Volume > 1 {
		errs.Add(at, "that is more than a kitchen holds")
	}
	return amount.Mass.Grams() + amount.Volume.ML()*c.Form.GramsPerML
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
