package gear

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWoodsInParts(t *testing.T) {
	for typed, want := range map[string]map[string]float64{
		"2 oak, 1 cherry":                    {"oak": 2. / 3, "cherry": 1. / 3},
		"two parts of oak to one of cherry":  {"oak": 2. / 3, "cherry": 1. / 3},
		"half oak, half apple":               {"oak": 0.5, "apple": 0.5},
		"oak and cherry":                     {"oak": 0.5, "cherry": 0.5},
		"70 % hickory and 30 % apple":        {"hickory": 0.7, "apple": 0.3},
		"70/30 hickory and cherry pellets":   {"hickory": 0.7, "cherry": 0.3},
		"3 chunks of oak, 1 chunk of pecan":  {"oak": 0.75, "pecan": 0.25},
		"Mostly oak with a little mesquite":  {"oak": 6. / 7, "mesquite": 1. / 7},
		"one third beech, two thirds alder ": {"beech": 1. / 3, "alder": 2. / 3},
		"oak":                                {"oak": 1},
	} {
		got, err := ParseWoods(typed)
		require.NoError(t, err, typed)
		require.Len(t, got, len(want), typed)
		for _, w := range got {
			assert.InDelta(t, want[w.Name], w.Share, 1e-9, "%s: %s", typed, w.Name)
		}
	}
	woods, err := ParseWoods("3 chunks of oak, 1 of cherry")
	require.NoError(t, err)
	assert.Equal(t, map[string]int{"oak": 3, "fruit": 1}, Chunked(woods, 3))
	woods, err = ParseWoods("4 oak, 1 cherry")
	require.NoError(t, err)
	assert.Equal(t, map[string]int{"oak": 2, "fruit": 1}, Chunked(woods, 3))
	for _, typed := range []string{"2 plastic, 1 oak", "oak, 0 of 3", "0 oak", "1,000 oak"} {
		_, err := ParseWoods(typed)
		assert.Error(t, err, typed)
	}
}
