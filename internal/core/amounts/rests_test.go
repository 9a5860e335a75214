package amounts_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/amounts"
)

// Rests are read one after another; the last place is where it is held.
func TestRestsOneAfterAnother(t *testing.T) {
	r, err := amounts.ParseRests("10 min vented, 30 min on the counter, then 3 h in a cooler and 40 min driving")
	require.NoError(t, err)
	assert.Equal(t, amounts.Rests{
		All: 4*time.Hour + 20*time.Minute, Vents: true, Vent: 10 * time.Minute,
		First: []amounts.Rest{{Place: "counter", Lasts: 30 * time.Minute}}, Held: "cooler", Travel: 40 * time.Minute,
	}, r)
	r, err = amounts.ParseRests("45 min")
	require.NoError(t, err)
	assert.Equal(t, amounts.Rests{All: 45 * time.Minute}, r)
	for _, wrong := range []string{"", "a while", "30 min counter, 2 h nowhere", "40 min travel, 1 h cooler",
		"1 h cooler, 10 min vented", "1 h in foil"} {
		_, err := amounts.ParseRests(wrong)
		assert.Error(t, err, wrong)
	}
}

// Whatever is typed, the parts of a rest add up to all of it.
func FuzzRests(f *testing.F) {
	for _, s := range []string{"10 min vented, 3 h cooler, 40 min travel", "1h30", "½ h board; 2 h pit", "1 h, , 2 h"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, typed string) {
		r, err := amounts.ParseRests(typed)
		if err != nil {
			return
		}
		sum := r.Travel
		if r.Vents {
			sum += r.Vent
		}
		for _, one := range r.First {
			sum += one.Lasts
		}
		require.LessOrEqual(t, sum, r.All, "%q", typed)
		require.GreaterOrEqual(t, r.All, time.Duration(0), "%q", typed)
	})
}
