// Package when is the moment of a move: what is waited for, as cooks say it, and whether it has
// come.
//
//	w, err := when.Parse("71 °C or 8 h, whichever is first")
//	w.Met(when.Now{CoreC: 71.5, Hours: 5})   // true
//	e, err := when.ParseEvery("every 45 min from bark set until the wrap")
package when

import (
	"time"

	"verjuice/internal/core/quantity"
)

// Sign is something that a cook sees, and no clock shows.
type Sign string

// The signs, in the order in which they come.
const (
	Surface Sign = "surface" // dry to the touch
	Bark    Sign = "bark"    // set: it does not scratch off
	Colour  Sign = "colour"  // as dark as wanted
	Soft    Sign = "soft"    // a probe slides in, a rack bends
	Fat     Sign = "fat"     // rendered: it stays pressed
	Bones   Sign = "bones"   // they show, where the meat has drawn back
)

// Cond is one thing that is waited for: exactly one of its kinds is set. The zero Cond waits for
// nothing.
type Cond struct {
	CoreC quantity.Celsius // the core reads so
	After time.Duration    // so long on the fire
	Range                  // half of what was said as a range
	Sign  Sign
	Clock string        // a time of day, 15:04
	Of    string        // another move, by its kind: so long before or after it
	By    time.Duration // with Of; negative is before
	Share float64       // of its time on the fire, above 0 and below 1
}

// Range is half of a range that was said, whose middle is waited for: of CoreC, or of After and By.
type Range struct {
	OffC quantity.Celsius
	Off  time.Duration
}

// Within is c somewhere in its range: at −1 it is the lower end, at 1 the upper.
func (c Cond) Within(share float64) Cond {
	c.CoreC += quantity.Celsius(share) * c.OffC
	off := time.Duration(share * float64(c.Off))
	if c.Of != "" {
		c.By += off
	} else {
		c.After += off
	}
	c.Range = Range{}
	return c
}

// None reports whether nothing is waited for.
func (c Cond) None() bool { return c == Cond{} }

// When is one condition, or two: either of them, or both.
type When struct {
	First, Second Cond
	Both          bool
}

// At is the moment of one condition.
func At(c Cond) When { return When{First: c} }

// None reports whether nothing is waited for.
func (w When) None() bool { return w.First.None() }

// Core is the core temperature that is waited for; zero when none is.
func (w When) Core() quantity.Celsius {
	if w.First.CoreC != 0 {
		return w.First.CoreC
	}
	return w.Second.CoreC
}

// Each calls do for every condition, and returns w with what it gives.
func (w When) Each(do func(Cond) Cond) When {
	w.First = do(w.First)
	if !w.Second.None() {
		w.Second = do(w.Second)
	}
	return w
}

// Within is w somewhere in the ranges that were said: at −1 at their lower ends, at 1 at their upper.
func (w When) Within(share float64) When {
	return w.Each(func(c Cond) Cond { return c.Within(share) })
}

// Ranged reports whether a range was said for it.
func (w When) Ranged() bool { return w.Some(func(c Cond) bool { return c.Range != Range{} }) }

// Some reports whether a condition is so.
func (w When) Some(is func(Cond) bool) bool { return is(w.First) || !w.Second.None() && is(w.Second) }

// Now is what a condition is held against, on the fire. Hours since a wrap came on or off are
// negative until it does.
type Now struct {
	CoreC, Hours                float64
	Wrapped, Unwrapped          float64
	Surface, Bark, Colour, Soft bool
	Fat, Bones                  bool
}

// met reports whether the condition has come. One by the clock, by a share of the time on the fire, or before
// another move has to be put in hours first, and never comes.
func (c Cond) met(n Now) bool {
	switch {
	case c.CoreC != 0:
		return n.CoreC >= float64(c.CoreC)
	case c.Sign != "":
		return c.Sign.seen(n)
	case c.Of == "on":
		return c.By >= 0 && n.Hours >= c.By.Hours()
	case c.Of == "wrap":
		return c.By >= 0 && n.Wrapped >= c.By.Hours()
	case c.Of == "unwrap":
		return c.By >= 0 && n.Unwrapped >= c.By.Hours()
	case c.Clock != "" || c.Of != "" || c.Share != 0:
		return false
	}
	return n.Hours >= c.After.Hours()
}

// Met reports whether the moment has come. The zero When is from the start.
func (w When) Met(n Now) bool {
	switch {
	case w.Second.None():
		return w.First.met(n)
	case w.Both:
		return w.First.met(n) && w.Second.met(n)
	}
	return w.First.met(n) || w.Second.met(n)
}

// Every is a rhythm: so often, from one moment until another.
type Every struct {
	Each        time.Duration // zero is once
	From, Until When          // Until nothing is until the piece is off
}

// Begins reports whether it is said when a rhythm begins: else that is after its first interval.
func (e Every) Begins() bool { return !e.From.None() && e.From != At(Cond{After: e.Each}) }

func (s Sign) seen(n Now) bool {
	switch s {
	case Surface:
		return n.Surface
	case Bark:
		return n.Bark
	case Colour:
		return n.Colour
	case Fat:
		return n.Fat
	case Bones:
		return n.Bones
	}
	return n.Soft
}
