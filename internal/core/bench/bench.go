// Package bench works formulas out by themselves: in any batch, and side by side.
//
//	batch := formula.Batch{Fix: "total", Amount: "250 g"}
//	r := bench.WorkOut(bench.Request{Formula: f, Batch: batch}, k, quantity.USSpoons)
//	r.Rows[0].Mass.Mid   // kg of the first row
package bench

import (
	"context"
	"errors"
	"math"
	"slices"
	"strconv"
	"strings"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/shop"
	"verjuice/internal/core/trace"
)

// Request asks for a formula worked out in some batch.
type Request struct {
	Formula formula.Formula `json:"formula"`
	Batch   formula.Batch   `json:"batch" required:"false"`
}

// Result is every number of a formula.
type Result struct {
	Mistakes  field.Errors // with pointers into the request
	Ready     bool
	Mix       formula.Mix
	Size      quantity.Mass
	Batch     trace.Figure // kg
	Rows      []dose.Row
	Rounded   *formula.Rounded // nil when not asked
	Totals    []Total
	Spoon     trace.Figure // kg of a level tablespoon
	SpoonSalt trace.Figure // kg of salt in that
	Cost      *shop.Cost
	KeepsDays int
	Keeps     string // how: dry, salty or fresh
}

// Total is what a batch holds of one thing.
type Total struct {
	Of    string // salt, sugar, fat, water, acid, starch, nitrite or phosphate
	Share trace.Figure
	Mass  quantity.Mass
}

// WorkOut works a formula out in the batch asked for; spoons are those that a
// tablespoon and rounding mean. It does not fail: what is wrong is in Mistakes.
func WorkOut(r Request, k kitchen.Kitchen, spoons quantity.SpoonSet) Result {
	out := Result{}
	mix, wrong := formula.Blend(r.Formula, k)
	if strings.TrimSpace(r.Formula.Name) == "" {
		out.Mistakes.Add("/formula/name", "formula.name")
	}
	out.Mistakes.Put("/formula", wrong)
	if len(wrong) > 0 {
		return out
	}
	out.Mix, out.Size = mix, 100*quantity.Gram
	if r.Batch.Fix != "" || formula.AsWritten(r.Formula) {
		size, bad := mix.Size(r.Batch)
		out.Mistakes.Put("/batch", bad)
		if out.Size = size; len(bad) > 0 {
			return out
		}
	}
	out.Ready = true
	weighed := mix.Weigh(out.Size)
	out.Batch = trace.Exact("bench.batch", out.Size.KG())
	out.Rows = dose.Rows(r.Formula, weighed)
	tablespoon := spoons.Tablespoon().ML() * mix.GramsPerML / 1000
	packed := []any{
		"per_ml",
		trace.Number{Value: mix.GramsPerML, Decimals: 2, Unit: "g"},
		"settles_to",
		trace.Number{Value: 100 * formula.Packing, Unit: "%"},
	}
	out.Spoon = trace.New("bench.spoon", quantity.Within(tablespoon, 0.1), packed...)
	out.SpoonSalt = trace.New(
		"bench.spoon-salt",
		quantity.Within(tablespoon*mix.SaltShare(), 0.1+mix.SaltSpread()),
		packed...)
	out.Totals = totals(mix, out.Size, r.Formula.Basis)
	out.Cost = shop.CostOf(mix, out.Size, k)
	out.KeepsDays, out.Keeps = mix.Keeping()
	if r.Batch.Round != "" {
		rounded, ok := formula.Round(weighed, r.Batch.Round, spoons)
		if !ok {
			out.Mistakes.Add("/batch/round", "choice.unknown", "choices", []string{"spoons", "0.1 g", "1 g", "5 g"})
			return out
		}
		out.Rounded = &rounded
	}
	return out
}

func totals(mix formula.Mix, size quantity.Mass, basis formula.Basis) []Total {
	out := []Total{}
	p := mix.Per100g
	for _, t := range []struct {
		of      string
		percent float64
		spread  float64
	}{
		{"salt", p.Salt, mix.SaltSpread()}, {"sugar", p.Sugar, 0.1}, {"fat", p.Fat, 0.1}, {"water", p.Water, 0.05},
		{"acid", p.Acid, 0.15}, {"starch", p.Starch, 0.1}, {"nitrite", p.Nitrite, 0.02}, {"phosphate", p.Phosphate, 0.1},
	} {
		if t.percent < 0.05 && t.of != "salt" {
			continue
		}
		spread := t.spread
		if basis == formula.ByWeight && t.of == "salt" {
			spread = 0.01
		}
		share := quantity.Within(t.percent, spread)
		share.High = math.Min(100, share.High)
		out = append(out, Total{Of: t.of, Mass: quantity.Mass(t.percent/100) * size, Share: trace.New("bench.total", share)})
	}
	return out
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
	Cut         cut.Cut
	Weight      quantity.Mass
	Coat        string
	Columns     []Column
	Rows        []Row
	Differences []Difference
}

// Column is one formula of a comparison.
type Column struct {
	Name    string
	Totals  []Total
	Spoon   trace.Figure // kg of salt in a level tablespoon
	OnMeat  trace.Figure // kg on the same piece with the same coat
	Percent trace.Figure // % salt it leaves in that piece
	Rows    []dose.Row
}

// Row is one ingredient across a comparison.
type Row struct {
	Name   string
	Shares []float64 // % by weight in each formula
}

// Difference says which formula is the saltiest or sweetest, on a footing.
type Difference struct {
	What    string  // salt or sugar
	Footing string  // weight, or piece: on the same piece
	Only    bool    // the others have next to none of it
	Equal   bool    // within a twentieth
	Most    string  // name of the formula
	Least   string  // name of the formula
	Times   float64 // Most over Least
}

// Compare sets formulas side by side: per 100 g, by the spoon, and on the same piece
// with the same coat. The error is a field.Errors.
func Compare(ctx context.Context, r CompareRequest, k kitchen.Kitchen, spoons quantity.SpoonSet) (*Comparison, error) {
	var errs field.Errors
	if n := len(r.Formulas); n < 2 || n > 3 {
		errs.Add("/formulas", "compare.how-many")
		return nil, errs
	}
	id := r.Cut
	if id == "" {
		id = cooking.ReferenceCut
	}
	c, ok := cut.Find(id)
	if !ok {
		errs.Add("/cut", "cut.unknown")
		return nil, errs
	}
	weight := r.Weight
	if weight == "" {
		weight = quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric)
	}
	coat := r.Coat
	if coat == "" {
		coat = cook.UsualCoat
	}
	out := &Comparison{Cut: c, Coat: coat}
	for i, f := range r.Formulas {
		at := "/formulas/" + strconv.Itoa(i)
		one := WorkOut(Request{Formula: f, Batch: formula.Batch{Fix: "total", Amount: "100 g"}}, k, spoons)
		for _, e := range one.Mistakes {
			errs = append(errs, field.Error{Pointer: at + strings.TrimPrefix(e.Pointer, "/formula"), Wrong: e.Wrong})
		}
		piece, err := cooking.One(
			ctx,
			cook.Piece{Cut: c.ID, Trimmed: weight, Season: cook.Season{Formula: f, Mode: "coat", Coat: coat}},
			cook.Cook{},
			k,
			cooking.Seasons,
		)
		var wrong field.Errors
		if err != nil && !errors.As(err, &wrong) {
			return nil, err
		}
		for _, e := range wrong {
			if !strings.HasPrefix(e.Pointer, "/season/formula") { // told above
				errs = append(
					errs,
					field.Error{
						Pointer: strings.Replace(strings.Replace(e.Pointer, "/trimmed", "/weight", 1), "/season/coat", "/coat", 1),
						Wrong:   e.Wrong,
					},
				)
			}
		}
		if piece.Season == nil || len(errs) > 0 {
			continue
		}
		out.Weight = piece.Line.Meat.Value.Green.Mid
		out.add(
			Column{
				Name:    f.Name,
				Totals:  one.Totals,
				Spoon:   one.SpoonSalt,
				OnMeat:  piece.Season.OnMeat,
				Percent: *piece.Season.Percent,
				Rows:    one.Rows,
			},
			i,
			len(r.Formulas),
		)
	}
	if len(errs) > 0 {
		return nil, errs
	}
	out.Differences = differences(out.Columns)
	return out, nil
}

// add puts a column beside the others, and its ingredients into the rows.
func (c *Comparison) add(col Column, i, n int) {
	c.Columns = append(c.Columns, col)
	for _, row := range col.Rows {
		at := slices.IndexFunc(c.Rows, func(r Row) bool { return r.Name == row.Ingredient.Name })
		if at < 0 {
			at = len(c.Rows)
			c.Rows = append(c.Rows, Row{Name: row.Ingredient.Name, Shares: make([]float64, n)})
		}
		c.Rows[at].Shares[i] += 100 * row.WeightShare
	}
}

// noticed is the share, %, below which a difference is not worth telling.
const noticed = 2.0

// differences are which is saltier and sweeter, on the same footing.
func differences(cols []Column) []Difference {
	total := func(of string) func(Column) float64 {
		return func(c Column) float64 {
			if i := slices.IndexFunc(c.Totals, func(t Total) bool { return t.Of == of }); i >= 0 {
				return c.Totals[i].Share.Mid
			}
			return 0
		}
	}
	out := []Difference{}
	for _, d := range []struct {
		what, footing string
		value         func(Column) float64
	}{
		{"salt", "weight", total("salt")}, {"salt", "piece", func(c Column) float64 { return 100 * c.Percent.Mid }},
		{"sugar", "weight", total("sugar")},
	} {
		most, least := cols[0], cols[0]
		for _, c := range cols {
			if d.value(c) > d.value(most) {
				most = c
			}
			if d.value(c) < d.value(least) {
				least = c
			}
		}
		high, low := d.value(most), d.value(least)
		if high < noticed {
			continue
		}
		one := Difference{What: d.what, Footing: d.footing, Most: most.Name, Least: least.Name, Only: low < 0.05*high}
		if !one.Only {
			one.Times = high / low
			one.Equal = one.Times <= 1.05
		}
		out = append(out, one)
	}
	return out
}
