package memo_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/core/memo"
)

type held struct {
	Text   []string
	at     time.Duration
	Next   *held
	Number float64
}

// What is the same has the same key, whatever it is held in; what differs anywhere, hidden or pointed to, has
// another one, and texts do not run into each other.
func TestKeys(t *testing.T) {
	one := held{Text: []string{"a", "b"}, at: 1, Next: &held{Number: 2}}
	same := held{Text: append([]string{}, "a", "b"), at: 1, Next: &held{Number: 2}}
	assert.Equal(t, memo.KeyOf(one), memo.KeyOf(same))
	for name, other := range map[string]held{
		"a text":          {Text: []string{"a", "c"}, at: 1, Next: &held{Number: 2}},
		"texts in one":    {Text: []string{"ab"}, at: 1, Next: &held{Number: 2}},
		"texts apart":     {Text: []string{"ab", ""}, at: 1, Next: &held{Number: 2}},
		"what is hidden":  {Text: []string{"a", "b"}, at: 2, Next: &held{Number: 2}},
		"what is pointed": {Text: []string{"a", "b"}, at: 1, Next: &held{Number: 3}},
		"nothing there":   {Text: []string{"a", "b"}, at: 1},
	} {
		assert.NotEqual(t, memo.KeyOf(one), memo.KeyOf(other), name)
	}
	assert.Equal(t, memo.KeyOf(held{}), memo.KeyOf(held{Text: []string{}}), "none is none")
	dublin, err := time.LoadLocation("Europe/Dublin")
	assert.NoError(t, err)
	noon := time.Date(2026, 11, 28, 12, 0, 0, 0, time.UTC)
	assert.NotEqual(t, memo.KeyOf(noon), memo.KeyOf(noon.In(dublin)), "another clock shows it")
	assert.Panics(t, func() { memo.KeyOf(map[string]int{}) })
}
