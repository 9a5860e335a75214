package dose

import (
	"math"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
)

// Said is an amount of a mix as a cook says it: one of All, Each and PerKG. The zero
// Said is none.
type Said struct {
	All   quantity.Mass // over all pieces of the line
	Each  quantity.Mass // on each of them
	PerKG float64       // kg a kg of trimmed weight
	Off   float64       // how far it may be off, as a share of it: a spoon's or a scale's
}

// ScaleOff is how far a kitchen scale may be off, as a share of what it shows.
const ScaleOff = 0.01

// sprinkled is how far what falls off while sprinkling may be off, as a share of what
// lands: 5 to 15 % fall off, not always 10.
const sprinkled = 0.05 / (1 - formula.SprinkleLoss)

// Given reports whether there is an amount.
func (s Said) Given() bool { return s.All > 0 || s.Each > 0 || s.PerKG > 0 }

// One is the amount for one piece.
func (s Said) One(on Target) quantity.Mass {
	return s.All/quantity.Mass(max(1, on.Count)) + s.Each + quantity.Mass(s.PerKG)*on.Meat.Green
}

// offs are spreads that have nothing to do with one another, together.
// WeighedOff is how far what lies on the meat may be off when it was weighed, as a share of it.
var WeighedOff = offs(ScaleOff, sprinkled)

func offs(shares ...float64) float64 {
	sum := 0.0
	for _, s := range shares {
		sum += s * s
	}
	return math.Sqrt(sum)
}
