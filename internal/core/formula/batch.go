package formula

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Batch says how much of a formula is wanted, by the one thing that is fixed.
type Batch struct {
	Fix    string `json:"fix" required:"false" doc:"What is fixed: total, row (an ingredient that is running out), jar, guests; empty means as written"`
	Amount string `json:"amount" required:"false" doc:"Of the total, of the row's ingredient, of the jar, or for one guest" example:"250 g"`
	Row    int    `json:"row" required:"false" doc:"Which row is fixed, from 0"`
	Guests int    `json:"guests" required:"false"`
	Round  string `json:"round" required:"false" doc:"Round the rows to: spoons, 0.1 g, 1 g, 5 g; empty means not at all"`
}

// jarFill is how full a jar is filled, so that the mix can be shaken.
const jarFill = 0.9

// Size is the mass of m that b asks for.
func (m Mix) Size(b Batch) (quantity.Mass, field.Errors) {
	var errs field.Errors
	amount := func(density float64, liquid bool) float64 {
		a, err := quantity.ParseAmount(b.Amount, liquid)
		if errs.Take("/amount", err) {
			return 0
		}
		return a.Mass.Grams() + a.Volume.ML()*density
	}
	grams := 0.0
	switch b.Fix {
	case "":
		grams = m.Measured
	case "total":
		grams = amount(m.GramsPerML, false)
	case "jar":
		v, err := quantity.ParseVolume(b.Amount)
		if !errs.Take("/amount", err) {
			grams = v.ML() * jarFill * m.GramsPerML
		}
	case "row":
		if b.Row < 0 || b.Row >= len(m.Components) || m.Components[b.Row].WeightShare == 0 {
			errs.Add("/row", "choose an ingredient that is in the mix")
			break
		}
		c := m.Components[b.Row]
		grams = amount(c.Form.GramsPerML, c.Ingredient.Kind == "liquid") / c.WeightShare
	case "guests":
		if b.Guests < 1 || b.Guests > 2000 {
			errs.Add("/guests", "between 1 and 2000 guests")
		}
		grams = amount(m.GramsPerML, false) * float64(b.Guests)
	default:
		errs.Add("/fix", "total, row, jar or guests")
	}
	if len(errs) == 0 && (grams < 0.1 || grams > 500e3) {
		errs.Add("/amount", "that makes %s g: a batch is between 0.1 g and 500 kg", quantity.Number(grams))
	}
	return quantity.Mass(grams) * quantity.Gram, errs
}

// AsWritten reports whether the formula gives amounts of its own, so that it has
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

// Changes tells in sentences what is different in b against a.
func Changes(a, b Formula, find Find) []string {
	out := []string{}
	say := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	if a.Name != b.Name {
		say("renamed from %s", a.Name)
	}
	if a.Basis != b.Basis {
		say("parts by %s instead of by %s", b.Basis, a.Basis)
	}
	if a.Kind != b.Kind {
		say("%s instead of %s", orRub(b.Kind), orRub(a.Kind))
	}
	before := map[string]Row{}
	for _, r := range a.Rows {
		before[r.Ingredient+r.Formula] = r
	}
	for _, r := range b.Rows {
		key := r.Ingredient + r.Formula
		old, had := before[key]
		delete(before, key)
		name := rowName(r, find)
		switch {
		case !had:
			say("%s added, %s", name, r.Parts)
		default:
			if old.Form != r.Form {
				say("%s %s instead of %s", name, r.Form, old.Form)
			}
			if strings.TrimSpace(old.Parts) != strings.TrimSpace(r.Parts) {
				say("%s %s instead of %s", name, r.Parts, old.Parts)
			}
		}
	}
	for _, r := range a.Rows {
		if _, left := before[r.Ingredient+r.Formula]; left {
			say("%s left out", rowName(r, find))
			delete(before, r.Ingredient+r.Formula)
		}
	}
	if a.Note != b.Note {
		say("another note")
	}
	if !slices.Equal(a.Tags, b.Tags) {
		say("other tags")
	}
	return out
}

func orRub(k Kind) Kind {
	if k == "" {
		return Rub
	}
	return k
}
