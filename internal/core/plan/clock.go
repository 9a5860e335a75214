// Package plan lays out time: from the moment of serving back to the moment the
// salt goes on.
package plan

import (
	"fmt"
	"math"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// Span is a duration with its likely range: one in ten is shorter than Low, one
// in ten longer than High.
type Span struct{ Low, Mid, High time.Duration }

// TimingSource is the authority printed for cooking times.
const TimingSource = "field experience for the cut at its usual weight and pit, scaled by thickness and pit temperature, −20 to +25 %"

// turning is the temperature, °C, towards which the pit drives the meat: the gap
// between it and the pit sets the pace.
const turning = 60.0

// FireTime estimates the time on the fire from the cut's usual one: it grows as
// thickness to the power 1.5 (between 1 where the surface limits and 2 where
// conduction does) and shrinks as the pit gets hotter above 60 °C. The pit has to
// be above 80 °C.
func FireTime(c cut.Cut, thickness quantity.Length, pit quantity.Celsius) Span {
	thick := math.Pow(float64(thickness/c.TypicalThickness()), 1.5)
	heat := (c.PitC - turning) / (float64(pit) - turning)
	return spread(time.Duration(c.Hours * thick * heat * float64(time.Hour)))
}

func spread(mid time.Duration) Span {
	five := 5 * time.Minute
	return Span{
		Low:  (mid * 80 / 100).Round(five),
		Mid:  mid.Round(five),
		High: (mid * 125 / 100).Round(five),
	}
}

// Typed is the span of a cooking time that the cook gave.
func Typed(mid time.Duration) Span { return spread(mid) }

// LongestWait is how long a salted raw piece keeps at 4 °C: ground meat a day,
// poultry two, whole muscles three (USDA FSIS cold storage chart, its lower
// figures).
func LongestWait(c cut.Cut) time.Duration {
	switch c.Family {
	case cut.Ground:
		return 24 * time.Hour
	case cut.Poultry:
		return 48 * time.Hour
	default:
		return 72 * time.Hour
	}
}

// Day writes t as a cook says it: "Sat 28 Nov 07:15".
func Day(t time.Time) string { return t.Format("Mon 2 Jan 15:04") }

// Away says how far t is from now: "in 2 d 4 h", "in 12 days", "3 h ago".
func Away(t, now time.Time) string {
	d := t.Sub(now)
	if days := int(d.Hours() / 24); days >= 10 {
		return fmt.Sprintf("in %d days", days)
	} else if days <= -3 {
		return fmt.Sprintf("%d days ago", -days)
	}
	if d < 0 {
		return quantity.FormatDuration(-d) + " ago"
	}
	return fmt.Sprintf("in %s", quantity.FormatDuration(d))
}
