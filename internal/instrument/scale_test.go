package instrument

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

func TestTheScaleSettlesTaresAndOverloads(t *testing.T) {
	now := time.Date(2026, 11, 28, 9, 0, 0, 0, time.UTC)
	s := NewSimulated(1)
	read := func(after time.Duration) Reading { now = now.Add(after); return s.Read(now) }
	assert.Equal(t, Reading{Stable: true}, read(0))
	s.Put(250)
	first := read(100 * time.Millisecond)
	assert.False(t, first.Stable)
	assert.True(t, first.Grams > 10 && first.Grams < 240, "on its way: %v", first.Grams)
	assert.Equal(t, Reading{Grams: 250, Stable: true}, read(5*time.Second))
	s.Tare()
	assert.Equal(t, Reading{Stable: true}, read(time.Second))
	s.Put(12.34)
	assert.InDelta(t, 12.3, read(5*time.Second).Grams, 1e-9, "to a tenth of a gram")
	s.Put(-1000)
	assert.InDelta(t, -250, read(5*time.Second).Grams, 1e-9, "the bowl taken off")
	s.Put(6000)
	assert.True(t, read(5*time.Second).Overload)
	s.Clear()
	assert.Equal(t, Reading{Stable: true}, read(5*time.Second))
}
