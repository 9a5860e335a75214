package facts_test

import (
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
)

// A course with more readings is what it would be with all of them from the start, and the one before stays as
// it was: others may be reading it.
func TestACourseWithMore(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 9))
	began := time.Date(2026, 11, 28, 6, 0, 0, 0, time.UTC)
	some := func(n int) (out []facts.Reading) {
		for range n {
			at := began.Add(time.Duration(r.IntN(90*60)) * time.Second)
			probe := []string{"core:a", "core:a:flat", "pit:0"}[r.IntN(3)]
			out = append(out, facts.Reading{Probe: probe, At: at, C: quantity.Celsius(20 + 80*r.Float64())})
		}
		return out
	}
	for range 50 {
		first, more := some(r.IntN(60)), some(r.IntN(60))
		course, whole, alone := facts.Course{}, facts.Course{}, facts.Course{}
		course.Add(first...)
		alone.Add(first...)
		whole.Add(append(first, more...)...)
		assert.Equal(t, whole, course.With(more...))
		assert.Equal(t, alone, course)
	}
}
