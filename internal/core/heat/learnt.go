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

// Heat is what the readings of a cook say of how well the air of its pit gives heat, beside what
// was thought of it: mean and standard deviation, ln over the usual of its kind. Without readings
// it is what was thought.
type Heat struct{ Ln, SD float64 }

// heatOf is what the members have come to.
func heatOf(all []draw, spread *[unknowns]float64, l Learnt) Heat {
	n, mean, about := float64(len(all)), 0.0, 0.0
	for _, d := range all {
		mean += d[convection] / n
	}
	for _, d := range all {
		about += (d[convection] - mean) * (d[convection] - mean) / (n - 1)
	}
	return Heat{l.HeatLn + spread[convection]*mean, spread[convection] * math.Sqrt(about)}
}
