package plan

import (
	"math"
	"time"
)

// decile is the standard normal's 90 % point: Low and High of a Span lie so many
// standard deviations from the middle.
const decile = 1.2815515655446004

// Chance is the probability that something of this span is over within d. The
// logarithm of its length is taken as normal on either side of the middle, with
// one in ten below Low and one in ten above High.
func Chance(s Span, d time.Duration) float64 {
	if s.Mid <= 0 {
		return step(d >= 0)
	}
	if d <= 0 {
		return 0
	}
	w := width(s, d > s.Mid)
	if w == 0 {
		return step(d >= s.Mid)
	}
	z := math.Log(float64(d)/float64(s.Mid)) / w
	return 0.5 * math.Erfc(-z/math.Sqrt2)
}

// At is the length that it stays under with probability p, 0 < p < 1.
func At(s Span, p float64) time.Duration {
	if s.Mid <= 0 {
		return 0
	}
	z := math.Sqrt2 * math.Erfinv(2*p-1)
	return time.Duration(float64(s.Mid) * math.Exp(z*width(s, z > 0)))
}

// After is the span of the whole length once it has lasted for elapsed and is not
// over.
func After(s Span, elapsed time.Duration) Span {
	gone := Chance(s, elapsed)
	if gone <= 0 {
		return s
	}
	if gone > 0.995 { // longer than anyone expects: any moment now
		return Span{Low: elapsed, Mid: elapsed + 15*time.Minute, High: elapsed + time.Hour}
	}
	at := func(p float64) time.Duration { return At(s, gone+p*(1-gone)) }
	return Span{Low: at(0.1), Mid: at(0.5), High: at(0.9)}
}

func width(s Span, above bool) float64 {
	if above {
		return math.Log(float64(s.High)/float64(s.Mid)) / decile
	}
	return math.Log(float64(s.Mid)/float64(s.Low)) / decile
}

func step(yes bool) float64 {
	if yes {
		return 1
	}
	return 0
}
