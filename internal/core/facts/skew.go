package facts

import "time"

// ClockSkew is how far ahead a watch may be: what happened then happened now.
const ClockSkew = time.Minute

// Ahead is how many of some readings are dated ahead of a clock: they count when their time comes.
func Ahead(read []Reading, now time.Time) (n int) {
	for _, r := range read {
		if r.At.After(now.Add(ClockSkew)) {
			n++
		}
	}
	return n
}
