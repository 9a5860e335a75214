package plan

import (
	"time"

	"verjuice/internal/core/quantity"
)

// Span is a duration with its likely range: one in ten is shorter than Low, one in
// ten longer than High.
type Span = quantity.Range[time.Duration]

// Typed is the span of a cooking time that the cook gave: −20 to +25 %.
func Typed(mid time.Duration) Span {
	return Span{
		Low:  (mid * 80 / 100).Round(five),
		Mid:  mid.Round(five),
		High: (mid * 125 / 100).Round(five),
	}
}
