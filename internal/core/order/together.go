package order

import (
	"math"
	"slices"
	"strings"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// suits is how far a pit may be from what is usual for a cut and still suit it, and alike how near two are that need
// nothing in common, °C: field judgement. Most cuts are cooked at 107 to 135 °C, poultry at 120 to 150.
const suits, alike = 15.0, 8.0

// together is what the pit of each piece is set to for all that share it: one temperature that suits them, where
// their usual ones are too far apart for one pit, or the one that is typed for another of them. It is zero for a piece
// that keeps its own: its temperature is typed, its pit has a list, it is eaten at another time, it shares with
// none, or no temperature suits all of them.
func together(c cook.Cook) []quantity.Celsius {
	out := make([]quantity.Celsius, len(c.Pieces))
	usual := func(p cook.Piece) float64 {
		found, ok := cut.Find(p.Cut)
		if !ok {
			return 0
		}
		return reader{}.finished(p, found).PitC
	}
	type sharing struct {
		pit   int
		serve string
	}
	of := func(p cook.Piece) sharing { return sharing{p.Fire.On, p.ServeAt} }
	all := map[sharing][]int{}
	typed := map[sharing][]quantity.Celsius{}
	for i, p := range c.Pieces {
		listed := p.Fire.On >= 0 && p.Fire.On < len(c.Pits) && strings.TrimSpace(c.Pits[p.Fire.On].Sets) != ""
		if text := strings.TrimSpace(p.Fire.Pit); text != "" {
			t, _ := quantity.ParseTemperatureWithin(text, when.LowPit, when.HighPit) // what is wrong is told at its field
			typed[of(p)] = append(typed[of(p)], t)
		} else if usual(p) > 0 && !listed {
			all[of(p)] = append(all[of(p)], i)
		}
	}
	for s, pieces := range all {
		low, high := math.Inf(1), 0.0
		for _, i := range pieces {
			low, high = min(low, usual(c.Pieces[i])), max(high, usual(c.Pieces[i]))
		}
		set := quantity.Celsius(5 * math.Floor((low+high)/2/5))
		if told := slices.Compact(slices.Sorted(slices.Values(typed[s]))); len(told) > 0 { // the others follow
			set = told[0]
			low, high = min(low, float64(set)), max(high, float64(set))
			if len(told) > 1 {
				continue
			}
		}
		if high-low <= alike || float64(set)-low > suits || high-float64(set) > suits {
			continue
		}
		for _, i := range pieces {
			out[i] = set
		}
	}
	return out
}

// UsualPit is what the pit of a piece is set to where nothing is typed, °C.
func (l Line) UsualPit() quantity.Celsius {
	if l.Shared > 0 {
		return l.Shared
	}
	return quantity.Celsius(l.Meat.Value.Cut.PitC)
}
