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
		m.SaltOff += c.Ingredient.SaltOff * c.Ingredient.Per100g.Salt * c.WeightShare
		for _, a := range c.Ingredient.Allergens {
			if !slices.Contains(m.Allergens, a) {
				m.Allergens = append(m.Allergens, a)
			}
		}
	}
	if m.SaltOff > 0 {
		m.SaltOff /= m.Per100g.Salt
	}
	slices.Sort(m.Allergens)
	m.GramsPerML = weight / (volume - m.taken(weight))
	if dry > 1 && dry == filled(m.Components) {
		m.GramsPerML /= Packing
	}
}

// What dissolves takes up less room than its grains did, mL a gram: about 0.35 of salt and 0.62 of sugar (apparent
// volumes in water, CRC Handbook of Chemistry and Physics, densities of aqueous solutions). A gram of water takes up
// to 0.36 g of salt and 2 g of sugar.
const (
	saltML, sugarML     = 0.35, 0.62
	saltMost, sugarMost = 0.36, 2.0
)

// taken is by how much a wet mix fills less room than its parts did, mL; weight is what all of it weighs, g.
func (m *Mix) taken(weight float64) float64 {
	if m.Per100g.Water < 30 || m.FatLed() {
		return 0
	}
	out := 0.0
	left := map[bool]float64{true: saltMost, false: sugarMost} // of salt or not, a gram of water
	water := weight * m.Per100g.Water / 100
	for _, c := range m.Components {
		if !c.Ingredient.Dissolves() || c.Form.GramsPerML <= 0 {
			continue
		}
		salt := c.Ingredient.Kind == "salt" || c.Ingredient.Kind == "cure"
		ml := sugarML
		if salt {
			ml = saltML
		}
		g := min(c.WeightShare*weight, left[salt]*water)
		left[salt] -= g / water
		out += max(0, g*(1/c.Form.GramsPerML-ml))
	}
	return out
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

// Check returns what keeps f from being put on record, with pointers into it; own is what it may use.
func (f Formula) Check(own Lookup) field.Errors {
	var errs field.Errors
	if f.Name == "" {
		errs.Add("/name", "formula.name")
	}
	_, wrong := Blend(f, own)
	return append(errs, wrong...)
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
	errs.Text("/name", f.Name, maxName)
	errs.Text("/note", f.Note, maxNote)
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
	c.Ingredient = larder.Ingredient{
		ID:        "formula:" + id,
		Name:      used.Name,
		Kind:      "mix",
		Per100g:   mix.Per100g,
		SaltOff:   mix.SaltOff,
		Allergens: mix.Allergens,
	}
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
	amount, err := c.Ingredient.Amount(r.Parts, f.Spoons)
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
