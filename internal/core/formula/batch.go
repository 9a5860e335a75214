package formula

import (
	"math"
	"slices"
	"strings"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Batch says how much of a formula is wanted, by the one thing that is fixed.
type Batch struct {
	Fix    string         `json:"fix" required:"false" doc:"What is fixed: total, row (an ingredient that is running out), jar, guests, or the meat: salt (target % of boneless meat), coat, pump (% of the meat), pot (a bath, meat in it); empty means as written"`
	Amount string         `json:"amount" required:"false" doc:"Of the total, of the row's ingredient, of the jar or pot, for one guest; the target or pump in %; the coat's name" example:"250 g"`
	Row    int            `json:"row" required:"false" doc:"Which row is fixed, from 0"`
	Guests quantity.Count `json:"guests" required:"false"`
	// Spoons are those that the amount is typed in.
	Spoons quantity.SpoonSet `json:"spoons,omitempty" required:"false" doc:"Whose spoons and cups the amount is typed in: us or metric; empty means us"`
	Meat   string            `json:"meat,omitempty" required:"false" doc:"Trimmed weight of the meat, for salt, coat, pump and pot" example:"2.4 kg"`
	Cut    string            `json:"cut,omitempty" required:"false" doc:"Cut id of the meat, whose surface a coat goes on and whose bone takes no salt; empty means boneless, and for a coat a pork shoulder"`
	Round  string            `json:"round" required:"false" doc:"Round the rows to: spoons, 0.1 g, 1 g, 5 g; empty means not at all"`
}

// jarFill is how full a jar is filled, so that the mix can be shaken.
const jarFill = 0.9

// Size is the mass of m that b asks for.
func (m Mix) Size(b Batch) (quantity.Mass, field.Errors) {
	var errs field.Errors
	amount := func(density float64, liquid bool) float64 {
		a, err := quantity.ParseAmount(b.Amount, liquid, b.Spoons)
		if errs.Take("/amount", err) {
			return 0
		}
		return a.Of(density).Grams()
	}
	grams := 0.0
	switch b.Fix {
	case "":
		grams = m.Measured
	case "total":
		grams = amount(m.GramsPerML, false)
	case "jar":
		v, err := quantity.ParseVolume(b.Amount, b.Spoons)
		if !errs.Take("/amount", err) {
			grams = v.ML() * jarFill * m.GramsPerML
		}
	case "row":
		if b.Row < 0 || b.Row >= len(m.Components) || m.Components[b.Row].WeightShare == 0 {
			errs.Add("/row", "batch.row")
			break
		}
		c := m.Components[b.Row]
		grams = amount(c.Form.GramsPerML, c.Ingredient.Kind == "liquid") / c.WeightShare
	case "guests":
		guests, err := b.Guests.Parse()
		if errs.Take("/guests", err) {
			break
		}
		if guests < 1 || guests > 2000 {
			errs.Add("/guests", "number.range", "low", 1, "high", 2000)
		}
		grams = amount(m.GramsPerML, false) * float64(guests)
	case "salt", "coat", "pump", "pot":
		grams = m.forMeat(b, &errs)
	default:
		errs.Add(
			"/fix",
			"choice.unknown",
			"choices",
			[]string{"total", "row", "jar", "guests", "salt", "coat", "pump", "pot"},
		)
	}
	if len(errs) == 0 && (grams < 0.1 || grams > 500e3) {
		errs.Add("/amount", "batch.size", "mass", quantity.Mass(grams)*quantity.Gram)
	}
	return quantity.Mass(grams) * quantity.Gram, errs
}

// potFill is how full a pot with meat and bath in it may be.
const potFill = 0.95

// forMeat is the grams of m that a piece of meat asks for.
func (m Mix) forMeat(b Batch, errs *field.Errors) float64 {
	meat, err := quantity.ParseMass(b.Meat)
	if !errs.Take("/meat", err) && (meat < 0.05 || meat > 300) {
		errs.Add("/meat", "mass.range", "low", quantity.Mass(0.05), "high", quantity.Mass(300))
	}
	c, _ := cut.Find("pork-shoulder-bone-in")
	edible := meat
	if b.Cut != "" {
		var ok bool
		if c, ok = cut.Find(b.Cut); !ok {
			errs.Add("/cut", "cut.unknown")
		}
		edible *= quantity.Mass(1 - c.BoneShare())
	}
	percent := func(low, high float64) float64 {
		p, err := quantity.ParsePercent(b.Amount)
		if !errs.Take("/amount", err) && (float64(p) < low || float64(p) > high) {
			errs.Add("/amount", "percent.range", "low", low, "high", high)
		}
		return float64(p) / 100
	}
	switch b.Fix {
	case "salt":
		if m.SaltShare() < 0.005 {
			errs.Add("/fix", "mix.no-salt")
			return 0
		}
		return percent(0.1, 5) * edible.Grams() / Stays(UsualWait).Mid / m.SaltShare()
	case "pump":
		return percent(0.5, 30) * meat.Grams()
	case "pot":
		pot, err := quantity.ParseVolume(b.Amount, b.Spoons)
		liquid := pot.ML()*potFill - float64(meat)/c.Density()*1e6
		if !errs.Take("/amount", err) && liquid <= 0 {
			errs.Add("/amount", "batch.pot-full")
		}
		return liquid * m.GramsPerML
	}
	coat, ok := FindCoat(strings.ToLower(strings.TrimSpace(b.Amount)))
	if !ok {
		errs.Add("/amount", "choice.unknown", "choices", CoatNames())
	}
	if len(*errs) > 0 {
		return 0
	}
	g, err := cut.New(c, meat, 0)
	errs.Take("/meat", err)
	return m.CoatMass(coat.MLPerDM2, g.Seasoned(c.Sealed != "")).Grams()
}

// AsWritten reports whether the formula gives absolute amounts, so that it has
// a batch when nothing is fixed.
func AsWritten(f Formula) bool {
	return slices.ContainsFunc(f.Rows, func(r Row) bool {
		_, err := quantity.ParseParts(r.Parts)
		return err != nil && !strings.HasSuffix(strings.TrimSpace(r.Parts), "%")
	})
}

// steps are the scale steps that rows can be rounded to, in grams.
var steps = map[string]float64{"0.1 g": 0.1, "1 g": 1, "5 g": 5}

// Rounded is a batch that can be measured: each row to a spoon or a scale step.
type Rounded struct {
	Text  []string // of each row
	Mass  []quantity.Mass
	Salt  float64 // share of salt in what was measured, 0 to 1
	Worst float64 // largest error of a row, % of it
}

// Round rounds weighed rows to "spoons" or to a scale's step. Nothing that is in
// the mix is rounded away: it gets one step. It returns false for an unknown way.
func Round(rows []Weighed, way string, set quantity.SpoonSet) (Rounded, bool) {
	step, byScale := steps[way]
	if !byScale && way != "spoons" {
		return Rounded{}, false
	}
	var out Rounded
	total, salt := 0.0, 0.0
	for _, w := range rows {
		exact, grams, text := w.Mass.Grams(), 0.0, "none"
		switch {
		case exact <= 0:
		case byScale:
			grams = math.Max(step, math.Round(exact/step)*step)
			text = quantity.Number(grams) + " g"
		default:
			s := quantity.FormatSpoons(w.Volume, set)
			grams, text = exact*(1+s.Error/100), s.Text
		}
		if exact > 0 {
			out.Worst = math.Max(out.Worst, 100*math.Abs(grams-exact)/exact)
		}
		total += grams
		salt += grams * w.Ingredient.Per100g.Salt / 100
		out.Text = append(out.Text, text)
		out.Mass = append(out.Mass, quantity.Mass(grams)*quantity.Gram)
	}
	if total > 0 {
		out.Salt = salt / total
	}
	return out, true
}

// Change is one thing that is different in a formula: the id of what it is, and
// the values that a sentence about it names.
type Change = field.Wrong

// Changes tells what is different in b against a.
func Changes(a, b Formula, own Lookup) []Change {
	out := []Change{}
	add := func(id string, pairs ...any) { out = append(out, field.Because("changed."+id, pairs...)) }
	if a.Name != b.Name {
		add("name", "before", a.Name)
	}
	if a.Basis != b.Basis {
		add("basis", "now", string(b.Basis), "before", string(a.Basis))
	}
	if orRub(a.Kind) != orRub(b.Kind) {
		add("kind", "now", string(orRub(b.Kind)), "before", string(orRub(a.Kind)))
	}
	before := map[string]Row{}
	for _, r := range a.Rows {
		before[r.Ingredient+r.Formula] = r
	}
	for _, r := range b.Rows {
		key := r.Ingredient + r.Formula
		old, had := before[key]
		delete(before, key)
		name := RowName(r, own)
		if !had {
			add("row-added", "row", name, "now", r.Parts)
			continue
		}
		if old.Form != r.Form {
			add("row-form", "row", name, "now", r.Form, "before", old.Form)
		}
		if strings.TrimSpace(old.Parts) != strings.TrimSpace(r.Parts) {
			add("row-parts", "row", name, "now", r.Parts, "before", old.Parts)
		}
	}
	for _, r := range a.Rows {
		if _, left := before[r.Ingredient+r.Formula]; left {
			add("row-removed", "row", RowName(r, own))
			delete(before, r.Ingredient+r.Formula)
		}
	}
	if a.Note != b.Note {
		add("note")
	}
	if !slices.Equal(a.Tags, b.Tags) {
		add("tags")
	}
	return out
}

func orRub(k Kind) Kind {
	if k == "" {
		return Rub
	}
	return k
}
