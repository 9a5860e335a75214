package memo_test

import (
	"fmt"
	"math"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/core/memo"
)

// What is asked for again is worked out once, as long as not too much else was asked for
// meanwhile; what nobody asks for goes, and nothing is ever wrong.
func TestWhatIsAskedForAgain(t *testing.T) {
	var m memo.Of[int, int]
	worked := 0
	square := func(k int) int { worked++; return k * k }
	for range 5 {
		for k := range 100 {
			assert.Equal(t, k*k, m.Get(k, square))
		}
	}
	assert.Equal(t, 100, worked)
	_, kept := m.Kept(7)
	assert.True(t, kept)
	for k := 1000; k < 3000; k++ {
		assert.Equal(t, k*k, m.Get(k, square))
		m.Get(7, square) // looked at all the time
	}
	assert.Equal(t, 2100, worked, "what is looked at stays")
	_, kept = m.Kept(8)
	assert.False(t, kept, "what is not goes")
	m.Keep(8, 64)
	v, kept := m.Kept(8)
	assert.True(t, kept && v == 64)
}

// Many may ask at once.
func TestManyAskAtOnce(t *testing.T) {
	var m memo.Of[string, float64]
	var wrong atomic.Int32
	var all sync.WaitGroup
	for who := range 16 {
		all.Go(func() {
			for n := range 2000 {
				k := (n*31 + who) % 700
				if m.Get(fmt.Sprint(k), func(string) float64 { return math.Sqrt(float64(k)) }) != math.Sqrt(float64(k)) {
					wrong.Add(1)
				}
			}
		})
	}
	all.Wait()
	assert.Zero(t, wrong.Load())
}

func ExampleOf() {
	var roots memo.Of[float64, float64]
	fmt.Println(roots.Get(9, math.Sqrt), roots.Get(9, math.Sqrt))
	// Output: 3 3
}
