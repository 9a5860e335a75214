package plan

import (
	"math"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// Span is a duration with its likely range: one in ten is shorter than Low, one in
// ten longer than High.
type Span = quantity.Range[time.Duration]

// turning is the temperature, °C, towards which the pit drives the meat: the gap
// between it and the pit sets the pace.
const turning = 60.0

// thicker is the power of the thickness with which the time on the fire grows.
const thicker = 1.2

// FireTime estimates the time on the fire from the cut's usual one: it grows as
// thickness to the power 1.2 (between 1 where the surface limits and 2 where
// conduction does) and shrinks as the pit gets hotter above 60 °C. The pit has to
// be above 80 °C. Field experience for the cut at its usual weight and pit.
func FireTime(c cut.Cut, thickness quantity.Length, pit quantity.Celsius) Span {
	thick := math.Pow(float64(thickness/c.TypicalThickness()), thicker)
	heat := (c.PitC - turning) / (float64(pit) - turning)
	return Typed(time.Duration(c.Hours * thick * heat * float64(time.Hour)))
}

// Typed is the span of a cooking time that the cook gave: −20 to +25 %.
func Typed(mid time.Duration) Span {
	return Span{
		Low:  (mid * 80 / 100).Round(five),
		Mid:  mid.Round(five),
		High: (mid * 125 / 100).Round(five),
	}
}
