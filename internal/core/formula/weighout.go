package formula

import (
	"fmt"
	"math"

	"verjuice/internal/core/field"
)

// WeighStep is one ingredient of a weigh-out.
type WeighStep struct {
	Target    float64 `json:"target" doc:"g, after any rescaling"`
	Weighed   float64 `json:"weighed" doc:"g so far"`
	Remaining float64 `json:"remaining" doc:"g still to add; below zero when over"`
	Tolerance float64 `json:"tolerance" doc:"g either way that counts as reached"`
	State     string  `json:"state" enum:"to-do,under,done,over"`
}

// WeighOut is where a weigh-out stands.
type WeighOut struct {
	Steps []WeighStep `json:"steps" nullable:"false"`
	Next  int         `json:"next" doc:"Which ingredient is next; the number of them when all are done"`
	Over  int         `json:"over" doc:"Which ingredient there is too much of; −1 when none"`
	Scale float64     `json:"scale" doc:"How much bigger the batch has become by rescaling"`
	Grows float64     `json:"grows" doc:"How many times as big the batch would become so that nothing is over; 0 when it cannot: nothing of that ingredient belongs in it"`
}

// tolerance of a weighed ingredient: two in a hundred, and never less than a
// kitchen scale can tell.
func tolerance(target float64) float64 { return math.Max(0.1, 0.02*target) }

// Judge says how a weight stands to its target, g: near, within what counts as reached; else under or over.
func Judge(target, have float64) string {
	switch off := have - target; {
	case math.Abs(off) <= tolerance(target)+1e-9:
		return "near"
	case off > 0:
		return "over"
	}
	return "under"
}

// Kept is a weight as a kitchen scale shows it, to a tenth of a gram; never less than nothing.
func Kept(grams float64) float64 { return math.Max(0, math.Round(grams*10)/10) }

// Put is what is weighed of each ingredient after grams more, or fewer, of number n.
func Put(targets, weighed []float64, n int, grams float64) []float64 {
	out := make([]float64, len(targets))
	copy(out, weighed)
	if n < len(out) {
		out[n] = Kept(out[n] + grams)
	}
	return out
}

// heaviest is the most that is weighed out at once, g; lightest the least that a batch is made
// bigger for.
const (
	heaviest = 1e6
	lightest = 0.001
)

// CheckWeights says which numbers are no weights that can be weighed out, with pointers into
// targets and weighed.
func CheckWeights(targets, weighed []float64) field.Errors {
	var out field.Errors
	for name, list := range map[string][]float64{"targets": targets, "weighed": weighed} {
		for i, v := range list {
			if !(v >= -heaviest && v <= heaviest) {
				out.Add(fmt.Sprintf("/%s/%d", name, i), "number.range", "low", 0, "high", int(heaviest))
			}
		}
	}
	return out
}

// Weighing says where a weigh-out stands: targets and what has been weighed so
// far, in grams, row by row. With rescale the batch grows so far that nothing is
// over; what was weighed already then needs more. Missing weights count as
// none.
func Weighing(targets, weighed []float64, rescale bool) WeighOut {
	out := WeighOut{Steps: make([]WeighStep, len(targets)), Next: len(targets), Over: -1, Scale: 1}
	have := func(i int) float64 {
		if i < len(weighed) {
			return math.Max(0, weighed[i])
		}
		return 0
	}
	if rescale {
		for i, t := range targets {
			if t >= lightest && have(i) > t+tolerance(t) {
				out.Scale = math.Max(out.Scale, have(i)/t)
			}
		}
	}
	for i, t := range targets {
		s := WeighStep{Target: t * out.Scale, Weighed: have(i)}
		s.Tolerance, s.Remaining = tolerance(s.Target), s.Target-s.Weighed
		switch {
		case s.Weighed == 0 && s.Target > 0:
			s.State = "to-do"
		case s.Remaining > s.Tolerance+1e-9:
			s.State = "under"
		case s.Remaining < -s.Tolerance-1e-9:
			s.State = "over"
			if out.Over < 0 {
				out.Over = i
			}
		default:
			s.State = "done"
		}
		if s.State != "done" && out.Next == len(targets) {
			out.Next = i
		}
		out.Steps[i] = s
	}
	if out.Over >= 0 {
		out.Next = out.Over
		if s := out.Steps[out.Over]; s.Target >= lightest {
			out.Grows = s.Weighed / s.Target
		}
	}
	return out
}
