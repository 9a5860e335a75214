package dose

import (
	"verjuice/internal/core/formula"
	"verjuice/internal/core/trace"
)

// Row is one ingredient of a mix, weighed out.
type Row struct {
	formula.Weighed
	Mass trace.Figure // kg
	// The number of parts by volume that % typed into a mix by volume may have meant; else empty.
	AsParts string
}

// Rows are the rows of a formula weighed out.
func Rows(f formula.Formula, weighed []formula.Weighed) []Row {
	out, parts := make([]Row, len(weighed)), formula.AsParts(f)
	for i, w := range weighed {
		out[i] = Row{Weighed: w, Mass: trace.Exact(
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
		if i < len(parts) {
			out[i].AsParts = parts[i]
		}
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
