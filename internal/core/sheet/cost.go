package sheet

import (
	"fmt"
	"strings"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// CostSheet is what something costs.
type CostSheet struct {
	Total   trace.Figure `json:"total"`
	Missing []string     `json:"missing" nullable:"false" doc:"What has no price and is not counted"`
}

const costSource = "the prices on your larder’s shelf"

// costSheet is the cost of so much of a mix; nil while none of it has a price.
func costSheet(mix formula.Mix, mass quantity.Mass, opt Options) *CostSheet {
	c := formula.CostOf(mix, mass.Grams(), opt.Shelf)
	if c.Money == 0 {
		return nil
	}
	words := "Each ingredient’s grams times its price."
	if len(c.Missing) > 0 {
		words += " Not counted, for want of a price: " + strings.Join(c.Missing, ", ") + "."
	}
	return &CostSheet{
		Total: money(c.Money, c.Sign, trace.Origin{Words: words, Source: costSource, Inputs: []trace.Input{
			{Name: "of it", Text: quantity.FormatGrams(mass) + " g"},
			{Name: "100 g of it", Text: fmt.Sprintf("%.2f %s", c.Money/mass.Grams()*100, c.Sign)},
		}}),
		Missing: c.Missing,
	}
}

// money is a sum of money as a figure.
func money(sum float64, sign string, from trace.Origin) trace.Figure {
	decimals := 2
	if sum >= 100 {
		decimals = 0
	}
	return trace.Exact(sum, decimals, sign, from)
}
