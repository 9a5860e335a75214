package facts_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
)

func id(n byte) string { return "00000000-0000-4000-8000-00000000000" + string('0'+n) }

// The last word counts, unless it is withdrawn; then the one before does.
func TestTheLastWordCounts(t *testing.T) {
	all := facts.Facts{
		{ID: id(1), Kind: facts.Done, Piece: "a", What: "fire", At: "2026-11-28T07:00"},
		{ID: id(2), Kind: facts.Done, Piece: "a", What: "fire", At: "2026-11-28T07:20"},
		{ID: id(3), Kind: facts.Done, Piece: "b", What: "fire", At: "2026-11-28T09:00"},
	}
	got, ok := all.Done("a", "fire")
	require.True(t, ok)
	assert.Equal(t, id(2), got.ID)
	all = append(all, facts.Fact{ID: id(4), Kind: facts.Withdrawn, What: id(2), At: "2026-11-28T07:30"})
	got, _ = all.Done("a", "fire")
	assert.Equal(t, id(1), got.ID)
	all = append(all, facts.Fact{ID: id(5), Kind: facts.Withdrawn, What: id(1), At: "2026-11-28T07:31"})
	_, ok = all.Done("a", "fire")
	assert.False(t, ok)
	assert.Len(t, all.Standing(), 1)
}

// A caution that was read counts as read while it says the same: whether its values
// came from the core or back through JSON.
func TestAcknowledgementsNameValues(t *testing.T) {
	all := facts.Facts{
		{
			ID:     id(1),
			Kind:   facts.Acknowledged,
			Piece:  "a",
			What:   "nitrite",
			At:     "2026-11-28T07:00",
			Values: field.Values{"ppm": 312.0, "way": "dry-cured"},
		},
	}
	_, ok := all.Acknowledged("a", "nitrite", field.Pairs("way", "dry-cured", "ppm", 312))
	assert.True(t, ok)
	for _, v := range []field.Values{{"ppm": 313, "way": "dry-cured"}, {"ppm": 312}, nil} {
		_, ok = all.Acknowledged("a", "nitrite", v)
		assert.False(t, ok, v)
	}
	_, ok = all.Acknowledged("b", "nitrite", field.Pairs("way", "dry-cured", "ppm", 312))
	assert.False(t, ok)
}

func TestFactsAreChecked(t *testing.T) {
	good := facts.Fact{ID: id(1), Kind: facts.Done, Piece: "a", What: "fire", At: "2026-11-28T07:20"}
	assert.Empty(t, good.Check())
	for at, change := range map[string]func(*facts.Fact){
		"/id":   func(f *facts.Fact) { f.ID = "1" },
		"/kind": func(f *facts.Fact) { f.Kind = "guessed" },
		"/what": func(f *facts.Fact) { f.What = "sleep" },
		"/at":   func(f *facts.Fact) { f.At = "noon" },

		// What a column holds, and a time that is valid but endless.
		"/piece":  func(f *facts.Fact) { f.Piece = strings.Repeat("x", 61) },
		"/author": func(f *facts.Fact) { f.Author = strings.Repeat("x", 201) },
		"/said":   func(f *facts.Fact) { f.Said = strings.Repeat("x", 1001) },
	} {
		f := good
		change(&f)
		errs := f.Check()
		require.NotEmpty(t, errs, at)
		assert.Equal(t, at, errs[0].Pointer)
	}
	endless := good
	endless.At = "2026-11-28T07:20:00." + strings.Repeat("0", 40) + "Z"
	assert.NotEmpty(t, endless.Check())
	dublin, err := time.LoadLocation("Europe/Dublin")
	require.NoError(t, err)
	here, err := good.Time(dublin)
	require.NoError(t, err)
	good.At = "2026-11-28T07:20:00Z"
	there, err := good.Time(time.UTC)
	require.NoError(t, err)
	assert.True(t, here.Equal(there), "as a local time and as a moment")
}

// Whatever table of readings is handed in is read within its bounds, or refused.
func FuzzHandIn(f *testing.F) {
	f.Add("pit:0,2026-11-28T07:20,230 °F\ncore:a,2026-11-28T07:20:15Z,67.8 C\n")
	f.Add("temperature,probe,at\n\"66\",core:a:flat,2026-11-28T07:21\n")
	f.Add("probe,probe,probe\n,,\n\"")
	f.Fuzz(func(t *testing.T, table string) {
		sent, err := facts.ReadCSV(strings.NewReader(table))
		if err != nil {
			return
		}
		read, err := facts.HandIn{ID: "00000000-0000-4000-8000-000000000001", Readings: sent}.Read(time.UTC)
		if err != nil {
			return
		}
		require.Len(t, read, len(sent))
		for _, r := range read {
			assert.True(t, float64(r.C) >= facts.LowRead && float64(r.C) <= facts.HighRead && facts.CanBe(r.At), "%+v", r)
			again, err := facts.ParseProbe(r.Probe)
			require.NoError(t, err)
			assert.Equal(t, r.Probe, again.String())
		}
	})
}
