package sheet

import (
	"fmt"

	"verjuice/internal/core/bench"
	"verjuice/internal/core/quantity"
)

// Comparison is formulas on a common footing.
type Comparison struct {
	On          string             `json:"on" doc:"The piece they are compared on"`
	Columns     []ComparisonColumn `json:"columns" nullable:"false"`
	Rows        []ComparisonRow    `json:"rows" nullable:"false" doc:"Every ingredient of any of them, % by weight in each"`
	Differences []string           `json:"differences" nullable:"false" doc:"In sentences"`
}

// ComparisonColumn is one formula of a comparison.
type ComparisonColumn struct {
	Name    string     `json:"name"`
	Totals  []Total    `json:"totals" nullable:"false" doc:"Per 100 g"`
	Spoon   Figure     `json:"spoon" doc:"Salt in a level tablespoon, g"`
	OnMeat  Figure     `json:"on_meat" doc:"On the same piece with the same coat, g"`
	Percent Figure     `json:"percent" doc:"Salt it leaves in that piece, %"`
	Rows    []RowSheet `json:"rows" nullable:"false"`
	SaltBy  Shares     `json:"salt_by" doc:"Salt in the mix by volume and by weight, in words"`
}

// ComparisonRow is one ingredient across a comparison.
type ComparisonRow struct {
	Name   string    `json:"name"`
	Shares []float64 `json:"shares" nullable:"false" doc:"% by weight in each formula"`
	Texts  []string  `json:"texts" nullable:"false" doc:"The same as a cook reads it; a dash when there is none of it"`
}

// WriteComparison says formulas side by side.
func WriteComparison(c *bench.Comparison, as Reader) *Comparison {
	w := writer{Reader: as}
	out := &Comparison{
		On:          fmt.Sprintf("%s of %s, %s coat, overnight", c.Cut.Name, quantity.FormatMass(c.Weight, w.Units), c.Coat),
		Columns:     []ComparisonColumn{},
		Rows:        []ComparisonRow{},
		Differences: []string{},
	}
	for _, col := range c.Columns {
		out.Columns = append(out.Columns, ComparisonColumn{
			Name: col.Name, Totals: w.totals(col.Totals), Spoon: w.figure(col.Spoon), OnMeat: w.figure(col.OnMeat),
			Percent: w.figure(col.Percent), Rows: w.rows(col.Rows), SaltBy: saltShares(col.Rows),
		})
	}
	for _, r := range c.Rows {
		row := ComparisonRow{Name: r.Name, Shares: r.Shares}
		for _, share := range r.Shares {
			text := "–"
			if share > 0 {
				text = decimal(share, 0)
			}
			row.Texts = append(row.Texts, text)
		}
		out.Rows = append(out.Rows, row)
	}
	for _, d := range c.Differences {
		out.Differences = append(out.Differences, difference(d))
	}
	return out
}

func difference(d bench.Difference) string {
	word, most := "salty", "saltiest"
	if d.What == "sugar" {
		word, most = "sweet", "sweetest"
	}
	footing := "by weight"
	if d.Footing == "piece" {
		footing = "on the same piece"
	}
	switch {
	case d.Only:
		return fmt.Sprintf("Only %s is noticeably %s.", d.Most, word)
	case d.Equal:
		return fmt.Sprintf("They are equally %s %s.", word, footing)
	}
	return fmt.Sprintf("%s is the %s %s: %.1f times %s.", d.Most, most, footing, d.Times, d.Least)
}
