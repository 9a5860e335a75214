package sheet

import (
	"fmt"
	"math"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// FormulaRequest asks for a formula worked out in some batch.
type FormulaRequest struct {
	Formula formula.Formula `json:"formula"`
	Batch   formula.Batch   `json:"batch" required:"false"`
}

// FormulaSheet is every figure of a formula.
type FormulaSheet struct {
	Errors    field.Errors `json:"errors" nullable:"false" doc:"Mistakes, with pointers into the request"`
	Ready     bool         `json:"ready"`
	Batch     trace.Figure `json:"batch" doc:"All of it, g"`
	Spoons    string       `json:"spoons"`
	Rows      []RowSheet   `json:"rows" nullable:"false"`
	Rounded   []string     `json:"rounded" nullable:"false" doc:"Each row rounded as asked; empty when not asked"`
	RoundNote string       `json:"round_note" doc:"What rounding does to the mix, in words"`
	Totals    []Total      `json:"totals" nullable:"false"`
	Spoon     trace.Figure `json:"spoon" doc:"A level tablespoon of it, g"`
	SpoonSalt trace.Figure `json:"spoon_salt" doc:"Salt in that tablespoon, g"`
	Coarse    string       `json:"coarse" doc:"Largest grain, in words"`
	Allergens []string     `json:"allergens" nullable:"false"`
	SaltLed   bool         `json:"salt_led"`
	Cost      *CostSheet   `json:"cost,omitempty" doc:"Absent while no price is known"`
	Keeping   string       `json:"keeping" doc:"How long it keeps, and how, in words"`
}

// Total is what a batch holds of one thing.
type Total struct {
	Name   string       `json:"name"`
	Share  trace.Figure `json:"share" doc:"% by weight"`
	Amount string       `json:"amount" doc:"In this batch"`
}

// WorkOut works a formula out in the batch asked for. It does not fail: what is
// wrong stands in Errors.
func WorkOut(r FormulaRequest, opt Options) FormulaSheet {
	out := FormulaSheet{Errors: field.Errors{}, Rows: []RowSheet{}, Rounded: []string{}, Totals: []Total{}, Allergens: []string{}}
	mix, wrong := formula.Blend(r.Formula, opt.Shelf)
	if or(r.Formula.Name, "") == "" {
		out.Errors.Add("/formula/name", "give the formula a name")
	}
	for _, w := range wrong {
		out.Errors.Add("/formula"+w.Pointer, "%s", w.Detail)
	}
	if len(wrong) > 0 {
		return out
	}
	size := 100 * quantity.Gram
	if r.Batch.Fix != "" || formula.AsWritten(r.Formula) {
		var bad field.Errors
		size, bad = mix.Size(r.Batch)
		for _, w := range bad {
			out.Errors.Add("/batch"+w.Pointer, "%s", w.Detail)
		}
		if len(bad) > 0 {
			return out
		}
	}
	out.Ready = true
	weighed := mix.Weigh(size)
	g := grams{opt}
	out.Batch = g.figure(size, 0, "All rows together, in the batch you fixed.", larder.Source, nil)
	out.Spoons = quantity.FormatSpoons(mix.Volume(size), opt.Spoons).Text
	out.Rows = g.rows(r.Formula, weighed)
	out.Allergens = append(out.Allergens, mix.Allergens...)
	out.SaltLed = mix.SaltLed()
	out.Coarse = coarseWords(mix.CoarseMM)
	tablespoon := opt.Spoons.Tablespoon().ML() * mix.GramsPerML
	packed := []trace.Input{{Name: "a mL of this mix", Text: trace.Decimal(mix.GramsPerML, 2) + " g"}, {Name: "dry grains settle to", Text: fmt.Sprintf("%.0f %% of their volumes", 100*formula.Packing)}}
	out.Spoon = trace.New(tablespoon, tablespoon*0.9, tablespoon*1.1, 1, "g", trace.Origin{Words: "A level tablespoon of the mix.", Source: larder.Source, Inputs: packed})
	salty, spread := tablespoon*mix.SaltShare(), 0.1+mix.SaltSpread()
	out.SpoonSalt = trace.New(salty, salty*(1-spread), salty*(1+spread), 1, "g", trace.Origin{Words: "A level tablespoon times the share of salt in the mix.", Source: larder.Source, Inputs: packed})
	out.Totals = totals(mix, size, r.Formula.Basis)
	out.Cost = costSheet(mix, size, opt)
	days, how := mix.Keeping()
	out.Keeping = fmt.Sprintf("Keeps %s: %s.", quantity.FormatDays(days), how)
	if r.Batch.Round != "" {
		rounded, ok := formula.Round(weighed, r.Batch.Round, opt.Spoons)
		if !ok {
			out.Errors.Add("/batch/round", "spoons, 0.1 g, 1 g or 5 g")
			return out
		}
		out.Rounded = rounded.Text
		out.RoundNote = fmt.Sprintf("Rounded, the worst row is %.0f %% off, and the mix holds %.1f %% salt instead of %.1f %%.",
			rounded.Worst, 100*rounded.Salt, 100*mix.SaltShare())
	}
	return out
}

func totals(mix formula.Mix, size quantity.Mass, basis formula.Basis) []Total {
	out := []Total{}
	p := mix.Per100g
	for _, t := range []struct {
		name    string
		percent float64
		spread  float64
	}{
		{"salt", p.Salt, mix.SaltSpread()}, {"sugar", p.Sugar, 0.1}, {"fat", p.Fat, 0.1}, {"water", p.Water, 0.05},
		{"acid", p.Acid, 0.15}, {"starch", p.Starch, 0.1}, {"nitrite", p.Nitrite, 0.02}, {"phosphate", p.Phosphate, 0.1},
	} {
		if t.percent < 0.05 && t.name != "salt" {
			continue
		}
		spread := t.spread
		if basis == formula.ByWeight && t.name == "salt" {
			spread = 0.01
		}
		mass := quantity.Mass(t.percent/100) * size
		out = append(out, Total{
			Name: t.name, Amount: quantity.FormatGrams(mass) + " g",
			Share: trace.New(t.percent, t.percent*(1-spread), math.Min(100, t.percent*(1+spread)), 1, "%", trace.Origin{
				Words: "Each ingredient’s share of the mix by weight, times what it holds of it.", Source: larder.Source}),
		})
	}
	return out
}

func coarseWords(mm float64) string {
	switch {
	case mm == 0:
		return "liquid"
	case mm < 0.4:
		return fmt.Sprintf("powder-fine (%.1f mm): cakes into a crust on meat", mm)
	case mm < 1:
		return fmt.Sprintf("medium (%.1f mm)", mm)
	default:
		return fmt.Sprintf("coarse (%s mm): makes bark", quantity.Number(mm))
	}
}

// CompareRequest asks for two or three formulas side by side.
type CompareRequest struct {
	Formulas []formula.Formula `json:"formulas" nullable:"false" doc:"Two or three"`
	Cut      string            `json:"cut" required:"false" doc:"Piece they are put on; empty means a pork shoulder"`
	Weight   string            `json:"weight" required:"false" doc:"Its trimmed weight; empty means the usual"`
	Coat     string            `json:"coat" required:"false" doc:"Coat on it; empty means medium"`
}

// Comparison is formulas on a common footing.
type Comparison struct {
	On      string             `json:"on" doc:"The piece they are compared on"`
	Columns []ComparisonColumn `json:"columns" nullable:"false"`
	Rows    []ComparisonRow    `json:"rows" nullable:"false" doc:"Every ingredient of any of them, % by weight in each"`
	Says    []string           `json:"says" nullable:"false" doc:"What differs, in sentences"`
}

// ComparisonColumn is one formula of a comparison.
type ComparisonColumn struct {
	Name    string       `json:"name"`
	Totals  []Total      `json:"totals" nullable:"false" doc:"Per 100 g"`
	Spoon   trace.Figure `json:"spoon" doc:"Salt in a level tablespoon, g"`
	OnMeat  trace.Figure `json:"on_meat" doc:"On the same piece with the same coat, g"`
	Percent trace.Figure `json:"percent" doc:"Salt it leaves in that piece, %"`
	Rows    []RowSheet   `json:"rows" nullable:"false"`
}

// ComparisonRow is one ingredient across a comparison.
type ComparisonRow struct {
	Name   string    `json:"name"`
	Shares []float64 `json:"shares" nullable:"false" doc:"% by weight in each formula"`
}

// Compare sets formulas side by side: per 100 g, by the spoon, and on the same
// piece with the same coat. The error is a field.Errors.
func Compare(r CompareRequest, opt Options) (*Comparison, error) {
	var errs field.Errors
	if n := len(r.Formulas); n < 2 || n > 3 {
		errs.Add("/formulas", "choose two or three formulas")
		return nil, errs
	}
	c, ok := cut.Find(or(r.Cut, referenceCut))
	if !ok {
		errs.Add("/cut", "choose a cut")
		return nil, errs
	}
	weight := or(r.Weight, quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric))
	out := &Comparison{On: fmt.Sprintf("%s of %s, %s coat, overnight", c.Name, weight, or(r.Coat, "medium")), Rows: []ComparisonRow{}, Says: []string{}}
	place := map[string]int{}
	for i, f := range r.Formulas {
		s := WorkOut(FormulaRequest{Formula: f, Batch: formula.Batch{Fix: "total", Amount: "100 g"}}, opt)
		for _, e := range s.Errors {
			errs.Add(at("/formulas", i)+e.Pointer[len("/formula"):], "%s", e.Detail)
		}
		p, ok := readPiece(Piece{Cut: c.ID, Trimmed: weight, Season: Season{Formula: f, Mode: "coat", Coat: r.Coat}}, kitchen{opt: opt, portion: 0.18}, "", &errs)
		if !ok || len(errs) > 0 {
			continue
		}
		d, err := p.dose()
		if errs.Take(at("/formulas", i), err) {
			continue
		}
		season := p.seasonSheet(d)
		out.Columns = append(out.Columns, ComparisonColumn{Name: f.Name, Totals: s.Totals, Spoon: s.SpoonSalt, OnMeat: season.OnMeat, Percent: season.Percent, Rows: s.Rows})
		for _, row := range s.Rows {
			name := row.Name
			if _, seen := place[name]; !seen {
				place[name] = len(out.Rows)
				out.Rows = append(out.Rows, ComparisonRow{Name: name, Shares: make([]float64, len(r.Formulas))})
			}
			out.Rows[place[name]].Shares[i] += row.Weight
		}
	}
	if len(errs) > 0 {
		return nil, errs
	}
	out.Says = differences(out)
	return out, nil
}

// noticed is the share, %, below which a difference is not worth saying.
const noticed = 2.0

// differences says which is saltier and sweeter, on the same footing.
func differences(c *Comparison) []string {
	says := []string{}
	compare := func(word string, value func(ComparisonColumn) float64, footing string) {
		most, least := 0, 0
		for i := range c.Columns {
			if value(c.Columns[i]) > value(c.Columns[most]) {
				most = i
			}
			if value(c.Columns[i]) < value(c.Columns[least]) {
				least = i
			}
		}
		high, low := value(c.Columns[most]), value(c.Columns[least])
		switch {
		case high < noticed:
		case low < 0.05*high:
			says = append(says, fmt.Sprintf("Only %s is %s to speak of.", c.Columns[most].Name, word))
		case high/low > 1.05:
			says = append(says, fmt.Sprintf("%s is the %sest %s: %.1f times %s.", c.Columns[most].Name, trimY(word), footing, high/low, c.Columns[least].Name))
		default:
			says = append(says, fmt.Sprintf("They are equally %s %s.", word, footing))
		}
	}
	total := func(name string) func(ComparisonColumn) float64 {
		return func(col ComparisonColumn) float64 {
			for _, t := range col.Totals {
				if t.Name == name {
					return t.Share.Value
				}
			}
			return 0
		}
	}
	compare("salty", total("salt"), "by weight")
	compare("salty", func(col ComparisonColumn) float64 { return 100 * col.Percent.Value }, "on the same piece")
	compare("sweet", total("sugar"), "by weight")
	return says
}

func trimY(word string) string {
	if word == "salty" {
		return "salti"
	}
	return word
}

// LabelSheet is what a nutrition label tells.
type LabelSheet struct {
	Salt  trace.Figure  `json:"salt" doc:"% by weight"`
	Sugar *trace.Figure `json:"sugar,omitempty" doc:"% by weight"`
	Mixed *trace.Figure `json:"mixed,omitempty" doc:"Salt of the packet in its liquid, % by weight"`
	Says  string        `json:"says" doc:"What it means, in a sentence"`
}

// ReadLabel reads a nutrition label. The error is a field.Errors.
func ReadLabel(l formula.Label) (*LabelSheet, error) {
	r, errs := formula.ReadLabel(l)
	if len(errs) > 0 {
		return nil, errs
	}
	figure := func(v formula.Reading, words string) trace.Figure {
		return trace.New(v.Mid, v.Low, v.High, 0, "%", trace.Origin{Words: words, Source: formula.LabelSource, Inputs: []trace.Input{
			{Name: "sodium of a serving", Text: l.Sodium + " mg"}, {Name: "serving", Text: l.Serving}}})
	}
	out := &LabelSheet{Salt: figure(r.Salt, "Sodium times 2.542 over the serving, with the band that the label’s rounding allows.")}
	name := or(l.Name, "It")
	switch wide := r.Salt.High - r.Salt.Low; {
	case wide > 15:
		out.Says = fmt.Sprintf("%s holds %.0f to %.0f %% salt: the serving is too small to say more. A label with a bigger serving narrows it.", name, r.Salt.Low, r.Salt.High)
	case r.Salt.Mid > 50:
		out.Says = fmt.Sprintf("%s is mostly salt: dose it by the salt it brings, not by the look of the coat.", name)
	default:
		out.Says = fmt.Sprintf("%s holds about %.0f %% salt by weight.", name, r.Salt.Mid)
	}
	if l.Sugar != "" {
		f := figure(r.Sugar, "Sugars over the serving, with the band that the label’s rounding allows.")
		out.Sugar = &f
	}
	if r.Mixed != nil {
		f := trace.New(r.Mixed.Mid, r.Mixed.Low, r.Mixed.High, 1, "%", trace.Origin{
			Words: "The powder’s salt over powder and liquid together; a spooned powder weighs about 0.9 g/mL, ± 20 %.", Source: formula.LabelSource,
			Inputs: []trace.Input{{Name: "powder", Text: l.Powder}, {Name: "liquid", Text: l.Liquid}}})
		out.Mixed = &f
	}
	return out, nil
}
