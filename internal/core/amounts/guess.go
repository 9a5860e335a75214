package amounts

import (
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// longestGuess is the longest time on the fire that a cook may think of.
const longestGuess = 72 * time.Hour

// Guess reads what a cook thinks a piece of that weight takes: a time, or a time for each pound
// or kilo. The error is a field.Wrong.
func Guess(typed string, green quantity.Mass) (time.Duration, error) {
	text, per, byWeight := strings.Cut(typed, "/")
	if !byWeight {
		text, per, byWeight = strings.Cut(typed, " a ")
	}
	out, err := quantity.ParseDuration(text)
	if err != nil {
		return 0, err
	}
	if byWeight {
		unit, err := quantity.ParseMass("1 " + strings.TrimSpace(per))
		if err != nil {
			return 0, err
		}
		out = time.Duration(float64(out) * float64(green/unit))
	}
	if out > longestGuess {
		return out, field.Because("duration.most", "most", longestGuess)
	}
	return out, nil
}
