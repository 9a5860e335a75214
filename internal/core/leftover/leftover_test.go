package leftover

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// The first root and its factor at Bi = 1 are those of the tables; deeper is longer, by more than in
// proportion; a hotter oven is quicker; from warm it takes less.
func TestReheating(t *testing.T) {
	assert.InDelta(t, 0.8603, root(1), 1e-4)
	assert.InDelta(t, 1.4289, root(10), 1e-4)
	deep := 0.0
	for _, d := range []float64{0.02, 0.03, 0.04, 0.06} {
		perM := float64(Reheat(d, 4, 150)) / d
		assert.Greater(t, perM, deep)
		deep = perM
	}
	assert.Less(t, Reheat(0.04, 4, 180), Reheat(0.04, 4, 150))
	assert.Less(t, Reheat(0.04, 30, 150), Reheat(0.04, 4, 150))
	assert.Positive(t, Reheat(0.04, 4, 70))
}

// Two hours to 21 °C, four more to 5 °C, from when it was put to cool; and what was late is told.
func TestTheCoolingClock(t *testing.T) {
	cut := time.Date(2026, 11, 28, 19, 0, 0, 0, time.UTC)
	at := func(h float64) time.Time { return cut.Add(time.Duration(h * float64(time.Hour))) }
	l := Of(cut, at(1), time.Time{})
	assert.Equal(t, []time.Time{at(2), at(3), at(7)}, []time.Time{l.Out, l.Cool, l.Cold})
	assert.Equal(t, "2 Dec", l.UseBy.Format("2 Jan"))
	assert.False(t, l.Late)
	assert.True(t, Of(cut, at(2.5), time.Time{}).Late)
	assert.True(t, Of(cut, at(1), at(7.5)).Late)
	assert.False(t, Of(cut, at(1), at(6)).Late)
}

func ExampleReheat() {
	fmt.Println(Reheat(0.04, 4, 150).Round(time.Minute))
	// Output: 50m0s
}
