package dose

import (
	"verjuice/internal/core/formula"
	"verjuice/internal/core/trace"
)

// Row is one ingredient of a mix, weighed out.
type Row struct {
	formula.Weighed
	Mass trace.Figure // kg
}

// Rows are the rows of a formula weighed out.
func Rows(f formula.Formula, weighed []formula.Weighed) []Row {
	out := make([]Row, len(weighed))
	for i, w := range weighed {
		out[i] = Row{w, trace.Exact(
			"row.mass",
			w.Mass.KG(),
			"as_written",
			Written{f.Rows[i].Parts, f.Basis},
			"share_by_weight",
			trace.Number{Value: 100 * w.WeightShare, Decimals: 1, Unit: "%"},
			"teaspoon",
			Teaspoon(w.Form.GramsPerML),
			"spread",
			trace.Number{Value: w.Form.SpreadPercent, Unit: "%"},
		)}
	}
	return out
}

// Written is an amount as written in a formula.
type Written struct {
	Parts string
	Basis formula.Basis
}

// Teaspoon is a bulk density, g/mL, told as what a level teaspoon weighs.
type Teaspoon float64
