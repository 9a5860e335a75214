package facts

import (
	"cmp"
	"slices"
	"time"
)

// byTime are the places of facts in the order in which they happened; what was said of one moment came in working
// order.
func (all Facts) byTime(zone *time.Location) []int {
	order := make([]int, len(all))
	at := make([]time.Time, len(all))
	for i, f := range all {
		order[i] = i
		at[i], _ = f.Time(zone)
	}
	rank := func(i int) int { return slices.Index(Stages, all[i].What) }
	slices.SortStableFunc(order, func(i, j int) int { return cmp.Or(at[i].Compare(at[j]), cmp.Compare(rank(i), rank(j))) })
	return order
}

// ByTime are facts in the order in which they happened. Zone is the cook's.
func (all Facts) ByTime(zone *time.Location) Facts {
	out := make(Facts, len(all))
	for n, i := range all.byTime(zone) {
		out[n] = all[i]
	}
	return out
}

// Played are the standing facts, in the order they were said, as they count for a piece that goes on a fire more than
// once: the first On the fire stands, a second one before it is off says nothing new, and one after that is On again,
// with the Off that follows. Zone is the cook's.
func (all Facts) Played(zone *time.Location) Facts {
	standing := all.Standing()
	const on, off, again = 1, 2, 3
	state, drop := map[string]int{}, map[int]bool{}
	for _, i := range standing.byTime(zone) {
		f := &standing[i]
		if f.Kind != Done || f.Piece == "" {
			continue
		}
		switch was := state[f.Piece]; {
		case f.What == "fire" && was == 0:
			state[f.Piece] = on
		case f.What == "fire" && was == off, f.What == "again" && was == off:
			f.What, state[f.Piece] = "again", again
		case f.What == "fire", f.What == "again" && was == again:
			drop[i] = true
		case f.What == "off" && was == again, f.What == "again-off" && was == again:
			f.What, state[f.Piece] = "again-off", off
		case f.What == "off" && was == on:
			state[f.Piece] = off
		}
	}
	out := Facts{}
	for i, f := range standing {
		if !drop[i] {
			out = append(out, f)
		}
	}
	return out
}
