package cooking_test

import (
	"fmt"
	"testing"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/quantity"
	"verjuice/internal/doctable"
	"verjuice/internal/testclock"
)

// The table of all cuts in docs/models.md is what the program says. VERJUICE_WRITE=1 writes
// it anew.
func TestTheTableOfCuts(t *testing.T) {
	testclock.Undated(t)
	rows := []string{
		"| cut | finish | trimmed, kg | thickest, mm | block, mm | coated, dm² | medium coat, g | salt, % | off at, °C | hours | served, % of trimmed |",
		"|---|---|---|---|---|---|---|---|---|---|---|",
	}
	for _, c := range cut.All() {
		p := anycook.Coated(c.ID, quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric))
		p.Key = "one"
		s := workWith(anycook.Supper(p), nil, nothing, cooking.Clock{Now: noon, Forecast: forecast.Ensemble{}}).Pieces[0]
		rows = append(
			rows,
			fmt.Sprintf(
				"| %s | %s | %s | %.0f | %.0f | %.0f | %.1f | %.1f | %.0f | %.1f | %.0f |",
				c.Name,
				c.Finish,
				quantity.Number(c.TypicalKG),
				1000*s.Meat.Thickness.Mid,
				1000*s.Meat.Block.Mid,
				100*s.Meat.Surface.Mid,
				1000*s.Season.OnMeat.Mid,
				s.Ledger.Percent.Mid,
				float64(s.Clock.Done),
				s.Clock.Fire.Mid.Hours(),
				100*s.Meat.Served.Mid/c.TypicalKG,
			),
		)
	}
	doctable.Holds(t, "../../../docs/models.md", rows)
}
