// Package trace makes a number answer "where from".
//
// Every computed number that a cook sees is a Figure: the value with its likely
// range in SI units, the id of the rule that made it, and what went into it.
// Package sheet says the rule and its source in words.
//
//	trace.New("meat.surface", quantity.Within(0.094, 0.15), "rounding", 0.9)
package trace

import "verjuice/internal/core/quantity"

// Input is one thing that went into a figure: a quantity, a duration, a Number or a
// text.
type Input struct {
	ID    string
	Value any
}

// Number is an input in a unit that has no Go type.
type Number struct {
	Value    float64
	Decimals int
	Unit     string // as printed: %, dm², mL/dm², g/m²; may be empty
}

// Grams is a mass that is read in grams whatever the cook's units, since it is
// weighed on a kitchen scale.
type Grams float64

// OfMass is m as Grams.
func OfMass(m quantity.Mass) Grams { return Grams(m.Grams()) }

// Figure is a number with its origin. One in ten lies below Low, one in ten above
// High; both are Mid when it is exact.
type Figure struct {
	Rule string
	quantity.Range[float64]
	Inputs []Input
}

// New returns a figure made by a rule, with alternating input ids and values.
func New(rule string, r quantity.Range[float64], pairs ...any) Figure {
	return Figure{Rule: rule, Range: r, Inputs: Inputs(pairs...)}
}

// Exact returns a figure without uncertainty.
func Exact(rule string, v float64, pairs ...any) Figure {
	return New(rule, quantity.Exactly(v), pairs...)
}

// Inputs makes inputs of alternating ids and values.
func Inputs(pairs ...any) []Input {
	out := make([]Input, 0, len(pairs)/2)
	for i := 0; i+1 < len(pairs); i += 2 {
		out = append(out, Input{ID: pairs[i].(string), Value: pairs[i+1]})
	}
	return out
}
