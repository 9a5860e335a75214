package cooking_test

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// The table of all cuts in docs/models.md is what the program says. VERJUICE_WRITE=1 writes
// it anew.
func TestTheTableOfCuts(t *testing.T) {
	const file, head, end = "../../../docs/models.md", "| cut | finish |", "\n\n"
	var b strings.Builder
	b.WriteString(head + " trimmed, kg | thickest, mm | block, mm | coated, dm² | medium coat, g | salt, % | off at, °C | hours | served, % of trimmed |\n|---|---|---|---|---|---|---|---|---|---|---|\n")
	for _, c := range cut.All() {
		p := anycook.Coated(c.ID, quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric))
		s := one(t, p)
		fmt.Fprintf(&b, "| %s | %s | %s | %.0f | %.0f | %.0f | %.1f | %.1f | %.0f | %.1f | %.0f |\n", c.Name, c.Finish, quantity.Number(c.TypicalKG), 1000*s.Meat.Thickness.Mid, 1000*s.Meat.Block.Mid,
			100*s.Meat.Surface.Mid, 1000*s.Season.OnMeat.Mid, s.Ledger.Percent.Mid, float64(s.Clock.Done), s.Clock.Fire.Mid.Hours(), 100*s.Meat.Served.Mid/c.TypicalKG)
	}
	raw, err := os.ReadFile(file)
	require.NoError(t, err)
	doc := string(raw)
	from := strings.Index(doc, head)
	require.Positive(t, from, "the table is in the document")
	to := from + strings.Index(doc[from:]+end, end)
	if os.Getenv("VERJUICE_WRITE") != "" {
		require.NoError(t, os.WriteFile(file, []byte(doc[:from]+strings.TrimSuffix(b.String(), "\n")+doc[min(to, len(doc)):]), 0o644))
		return
	}
	assert.Equal(t, strings.TrimSuffix(b.String(), "\n"), strings.TrimSpace(doc[from:min(to, len(doc))]), "VERJUICE_WRITE=1 go test -run TestTheTableOfCuts ./internal/core/cooking writes it anew")
}
