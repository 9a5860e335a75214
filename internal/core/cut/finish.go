package cut

import (
	"math"
	"slices"
)

// Finish is how far a piece is cooked, and how it is served.
type Finish string

// The finishes.
const (
	PinkSliced Finish = "pink"   // tender and pink, sliced
	Sliced     Finish = "sliced" // soft, but holds a slice
	Pulled     Finish = "pulled" // falls apart
	Bones      Finish = "bones"  // racks: by bend and bone
	Done       Finish = "done"   // cooked through
	AsIs       Finish = "whole"  // soft, served as it is
)

// DoneC is the core temperature, °C, at which a cut with this finish is usually taken
// off. Pink meat is taken off a little below where it ends; collagen softens far past
// done, pork sooner than beef.
func (c Cut) DoneC() float64 {
	switch c.Finish {
	case PinkSliced:
		switch c.Species {
		case "pork":
			return 63
		case "game":
			return 57
		}
		return 55
	case Sliced, AsIs:
		if c.Species == "pork" {
			return 88
		}
		return 93
	case Bones:
		return 93
	case Pulled:
		switch {
		case c.Species == "poultry":
			return 85
		case c.Family == Whole:
			return 89
		}
		return 95
	}
	if c.Species == "poultry" {
		return 74
	}
	return 71
}

// As is the cut with another of its finishes: core temperature, rest, wrap and custom
// follow. A finish that it does not have leaves it as it is.
func (c Cut) As(f Finish) Cut {
	if f == c.Finish || !slices.Contains(c.Finishes, f) {
		return c
	}
	c.Finish = f
	switch {
	case f == PinkSliced:
		c.Family, c.RestMin, c.Wrap = Pink, 20, "none"
	case c.Family == Pink: // far past done
		c.Family, c.RestMin = Collagen, 45
	}
	return c.To(c.DoneC())
}

// To is the cut cooked to a core temperature, °C: what is left of the meat follows.
func (c Cut) To(core float64) Cut {
	loss := lossAt(core) / lossAt(c.YieldC)
	whole := c.whole
	if whole.Mid == 0 {
		whole = c.CookYield
		c.whole = whole
	}
	mid := 100 - (100-whole.Mid)*loss
	c.CookYield = Span{Low: mid - (whole.Mid - whole.Low), Mid: mid, High: min(99, mid+whole.High-whole.Mid)}
	return c
}

// Yielding is the cut with what earlier cooks weighed of it: ln over its usual yield, and the
// standard deviation of that.
func (c Cut) Yielding(ln, sd float64) Cut {
	usual := c.CookYield
	mid := min(95, usual.Mid*math.Exp(ln))
	half := min((usual.High-usual.Low)/2, 1.2816*sd*mid)
	c.CookYield = Span{Low: mid - half, Mid: mid, High: min(99, mid+half)}
	return c
}

// Softening is the cut with what earlier cooks felt of it: ln of the hours in which it softens over the usual ones.
func (c Cut) Softening(ln float64) Cut {
	c.TenderH *= math.Exp(ln)
	return c
}

// losses are what lean meat loses on its way, % by core temperature: little before its
// proteins shrink at 55 to 70 °C, slowly more after (Bengtsson, Jakobsson and Dagerskog
// 1976, J. Food Sci. 41, 1047, in round numbers, and field yields above 80 °C).
var losses = [][2]float64{
	{0, 1},
	{40, 8},
	{49, 13},
	{54, 16},
	{60, 21},
	{63, 24},
	{66, 27},
	{74, 32},
	{85, 37},
	{95, 41},
	{105, 45},
}

func lossAt(core float64) float64 { return Between(losses, core) }

// Between is the value at x on the straight lines through points, which rise in x; beyond
// them it is the last one's.
func Between(points [][2]float64, x float64) float64 {
	last := points[0]
	for _, p := range points[1:] {
		if x <= p[0] {
			return last[1] + (p[1]-last[1])*max(0, x-last[0])/(p[0]-last[0])
		}
		last = p
	}
	return last[1]
}

// LossAt is what lean meat has lost once it has been at a temperature, °C, as a share of its
// weight.
func LossAt(c float64) float64 { return lossAt(c) / 100 }

// Served is what reaches the plate of a trimmed piece, bone out, as a share of its trimmed
// weight, when its lean has lost a share (LossAt) and the whole is at mean °C: half of the fat
// melts out between 40 and 95 °C, and some of the meat is left on the bones or the board.
func (c Cut) Served(loss, mean float64) float64 {
	fat := c.FatPercent / 100
	melted := 0.5 * min(1, max(0, (mean-40)/55))
	return ((1-fat)*(1-loss) + fat*(1-melted)) * (1 - c.BoneShare()) * c.picked()
}

// picked is the share of the cooked meat that is served: all of a rack, not what clings to a
// bird's frame or to a pig's head. Field experience.
func (c Cut) picked() float64 {
	switch {
	case c.Family == Rack:
		return 1
	case c.Family == Whole:
		return 0.82
	case c.Hollow():
		return 0.9
	}
	return 0.97
}
