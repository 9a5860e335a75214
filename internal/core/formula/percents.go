package formula

import (
	"strings"

	"verjuice/internal/core/quantity"
)

// AsParts are the rows of a mix by volume in which every row is told in %, as parts by volume: % counts by weight, and
// may not have been meant so. Nil for any other mix.
func AsParts(f Formula) []string {
	if f.Basis != ByVolume || len(f.Rows) < 2 {
		return nil
	}
	out := make([]string, len(f.Rows))
	for i, r := range f.Rows {
		number, ok := strings.CutSuffix(strings.TrimSpace(r.Parts), "%")
		p, err := quantity.ParsePercent(number)
		if !ok || err != nil {
			return nil
		}
		out[i] = quantity.Number(float64(p))
	}
	return out
}
