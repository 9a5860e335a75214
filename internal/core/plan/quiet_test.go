package plan

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// Whatever is typed as quiet hours is read or refused; a night that is read ends after it begins,
// within the longest night, and holds the moments in it.
func FuzzParse(f *testing.F) {
	for _, s := range []string{"23:00-06:00", "22-5", "none", "22 to 7", "0-24", "25:00-1", "-", "1:60-2"} {
		f.Add(s, int64(1_790_000_000))
	}
	f.Fuzz(func(t *testing.T, typed string, unix int64) {
		hours, err := ParseQuiet(typed)
		if err != nil || hours.None() || unix < 0 || unix > 4e9 {
			return
		}
		at := time.Unix(unix, 0).UTC()
		if from, to, in := hours.Within(at); in {
			assert.True(t, from.Before(to) && to.Sub(from) <= 14*time.Hour, "%q: %s to %s", typed, from, to)
			assert.False(t, at.Before(from) || !at.Before(to), "%q: %s", typed, at)
		}
	})
}
