package heat

import "math"

// Learnt is what earlier cooks tell of a pit. The zero value is that nothing is known of it but its
// kind.
type Learnt struct {
	PitC, PitSD    float64 // °C over what it is set to, and the standard deviation of that; zero SD is not known
	HeatLn, HeatSD float64 // how well its air gives heat, ln over the usual of its kind, and likewise
}

// narrowed puts what was learnt of the pit into the spreads. What a thermometer beside the meat has
// read today says more than what earlier cooks did.
func (l Learnt) narrowed(spread *[unknowns]float64, read bool) {
	if l.PitSD > 0 && !read {
		spread[pitError] = math.Min(spread[pitError], l.PitSD)
	}
	if l.HeatSD > 0 {
		spread[convection] = math.Min(spread[convection], l.HeatSD)
	}
}

// HeatOnHours is by how much the hours to any core fall when the air gives heat better, ln for ln, as
// an ensemble has it on the envelope.
var HeatOnHours = -moves[convection] / Spreads[convection]
