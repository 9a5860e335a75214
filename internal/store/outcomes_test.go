package store

import (
	"fmt"
	"slices"
	"strings"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/logbook"
	"verjuice/internal/testclock"
)

// opened is a database of a test's own.
func opened(t *testing.T) *Store {
	t.Helper()
	s, err := Open(t.Context(), migrated(t))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

// kept puts cooks with outcomes on record: each has a pit of its own and ran a little hot.
func kept(t *testing.T, db *Store, names ...string) (ids []string) {
	t.Helper()
	for n, name := range names {
		rec, err := db.Cooks().Create(t.Context(), cook.Cook{Name: name, Zone: "UTC", Pieces: []cook.Piece{}})
		require.NoError(t, err)
		o := logbook.Outcome{
			Model: logbook.Model, Name: name, Day: fmt.Sprintf("2026-11-%02d", 1+n), Finished: true, Weather: "cold",
			Notes: []string{},
			Pieces: []logbook.Piece{{
				Cut: "pork-loin", Finish: "pink", PitID: "k", PitName: "Kettle 100 %", Wrap: "none", Formula: "A_b|c", AirN: 100,
				AirOffC: 5, Notes: []string{},
				Scores: []logbook.Score{{Aspect: "bark", Value: 1 + n%5}},
			}},
		}
		require.NoError(t, db.PutOutcome(t.Context(), rec.ID, Told{Facts: 1, Version: 1}, o))
		ids = append(ids, rec.ID)
	}
	return ids
}

// A logbook is searched by words that are found as they are, whatever signs they have, and shows only
// cooks that are still on record, the latest first, page by page.
func TestFindingInTheLogbook(t *testing.T) {
	db := opened(t)
	ids := kept(t, db, "Lamb 50 %", "Lamb_one", "Loin “two”", "Last")
	find := func(q Sought) (names []string) {
		all, total, err := db.Logbook(t.Context(), q)
		require.NoError(t, err)
		if q.Limit == 0 {
			assert.EqualValues(t, len(all), total)
		}
		for _, l := range all {
			names = append(names, l.Outcome.Name)
		}
		return names
	}
	assert.Equal(t, []string{"Last", "Loin “two”", "Lamb_one", "Lamb 50 %"}, find(Sought{}))
	for search, want := range map[string][]string{
		"lamb": {"Lamb_one", "Lamb 50 %"}, "%": {"Last", "Loin “two”", "Lamb_one", "Lamb 50 %"}, "50 %": {"Lamb 50 %"}, "lamb_": {"Lamb_one"}, "“two”": {"Loin “two”"}, `\`: nil, "'; DROP TABLE outcomes": nil,
	} {
		assert.Equal(t, want, find(Sought{Search: search}), search)
	}
	for name, q := range map[string]Sought{"pit": {Pit: "Kettle 100 %"}, "formula": {Formula: "A_b c"},
		"weather": {Weather: "cold"}, "cut": {Cut: "pork-loin"}, "finish": {Finish: "pink"}, "wrap": {Wrap: "none"}} {
		assert.Len(t, find(q), 4, name)
	}
	for name, q := range map[string]Sought{"pit": {Pit: "Kettle"}, "cut": {Cut: "pork"},
		"any letter": {Formula: "AXb c"}, "weather": {Weather: "wet"}} {
		assert.Empty(t, find(q), name)
	}
	assert.Equal(t, []string{"Last", "Loin “two”"}, find(Sought{Score: 3}))
	assert.Equal(t, []string{"Loin “two”"}, find(Sought{Limit: 1, Offset: 1}))
	choices, err := db.LogChoices(t.Context())
	require.NoError(t, err)
	assert.Equal(t, []string{"Kettle 100 %"}, choices.Pits)
	assert.Equal(t, []string{"A_b c"}, choices.Formulas)
	require.NoError(t, db.Cooks().Delete(t.Context(), ids[3], 1))
	assert.Len(t, find(Sought{}), 3)
	for _, id := range ids[:3] {
		require.NoError(t, db.Cooks().Delete(t.Context(), id, 1))
	}
	none, err := db.LogChoices(t.Context())
	require.NoError(t, err)
	assert.Empty(
		t,
		slices.Concat(none.Cuts, none.Finishes, none.Pits, none.Wraps, none.Formulas, none.Weathers),
		"what only deleted cooks have is nothing to look for",
	)
	for _, id := range ids {
		_, err = db.Cooks().Restore(t.Context(), id)
		require.NoError(t, err)
	}
	again, err := db.LogChoices(t.Context())
	require.NoError(t, err)
	assert.Equal(t, choices, again)
	assert.Len(t, find(Sought{}), 4)
}

// What is worked out again replaces what was; words too long for a column are left out, not the cook.
func TestAnOutcomeIsReplaced(t *testing.T) {
	db := opened(t)
	id := kept(t, db, "One")[0]
	was, ok, err := db.Outcome(t.Context(), id)
	require.NoError(t, err)
	require.True(t, ok)
	assert.Equal(t, Told{Facts: 1, Version: 1}.String(), was.Told)
	next := was.Outcome
	next.Name = strings.Repeat("é", 400)
	for n := len(next.Pieces); n < 24; n++ {
		next.Pieces = append(
			next.Pieces,
			logbook.Piece{
				Cut:     fmt.Sprintf("cut-%d-%s", n, strings.Repeat("y", 100)),
				Formula: strings.Repeat("x", 120),
				Notes:   []string{},
				Scores:  []logbook.Score{},
			},
		)
	}
	require.NoError(t, db.PutOutcome(t.Context(), id, Told{Facts: 2}, next))
	is, _, err := db.Outcome(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, next, is.Outcome)
	_, ok, err = db.Outcome(t.Context(), uuid.NewString())
	require.NoError(t, err)
	assert.False(t, ok)
}

// Lessons follow the logbook; of many who leave cooks out at once nobody's word is lost.
func TestLessonsAtOnce(t *testing.T) {
	db := opened(t)
	l, err := db.Learn(t.Context(), nil)
	require.NoError(t, err)
	assert.Empty(t, l.Book.Pits, "nothing is learnt from nothing")
	ids := kept(t, db, "A", "B", "C", "D", "E", "F")
	l, err = db.Learn(t.Context(), nil)
	require.NoError(t, err)
	assert.Equal(t, 6, l.Book.Pits["k"].Off.Cooks)
	k, err := db.Kitchen(t.Context(), testclock.Now())
	require.NoError(t, err)
	assert.Equal(t, 6, k.Learnt.Pits["k"].Off.Cooks, "the kitchen knows")
	var all sync.WaitGroup
	for _, id := range ids[:4] {
		all.Go(func() {
			_, err := db.Learn(t.Context(), func(l *Lessons) { l.Without = append(l.Without, id) })
			assert.NoError(t, err)
		})
	}
	all.Wait()
	l, err = db.Learn(t.Context(), nil)
	require.NoError(t, err)
	assert.ElementsMatch(t, ids[:4], l.Without)
	assert.Equal(t, 2, l.Book.Pits["k"].Off.Cooks)
	k, err = db.Kitchen(t.Context(), testclock.Now())
	require.NoError(t, err)
	assert.Equal(t, 2, k.Learnt.Pits["k"].Off.Cooks)
	l, err = db.Learn(t.Context(), func(l *Lessons) { l.Since, l.Without = "2026-11-05", []string{} })
	require.NoError(t, err)
	assert.Equal(t, 2, l.Book.Pits["k"].Off.Cooks, "only two are from then on")
}

// A key opens the cook that it was made for, and no other; it is not kept, only its digest is.
func TestKeysOfDevices(t *testing.T) {
	db := opened(t)
	ids := kept(t, db, "A", "B")
	d, key, err := db.AddDevice(t.Context(), ids[0], "kitchen probe")
	require.NoError(t, err)
	is, err := db.DeviceOf(t.Context(), ids[0], key)
	require.NoError(t, err)
	assert.Equal(t, d.ID, is.ID)
	_, err = db.DeviceOf(t.Context(), ids[1], key)
	assert.ErrorIs(t, err, ErrOthersKey)
	for _, wrong := range []string{"", key[1:], key + key, strings.ToLower(key)} {
		_, err = db.DeviceOf(t.Context(), ids[0], wrong)
		assert.ErrorIs(t, err, ErrKey)
	}
	assert.ErrorIs(t, db.RemoveDevice(t.Context(), ids[1], d.ID), ErrNotFound)
	require.NoError(t, db.RemoveDevice(t.Context(), ids[0], d.ID))
	_, err = db.DeviceOf(t.Context(), ids[0], key)
	assert.ErrorIs(t, err, ErrKey)
	_, _, err = db.AddDevice(t.Context(), uuid.NewString(), "nowhere")
	assert.ErrorIs(t, err, ErrNotFound)
	for range MostDevices {
		_, _, err = db.AddDevice(t.Context(), ids[0], "one")
		require.NoError(t, err)
	}
	_, _, err = db.AddDevice(t.Context(), ids[0], "one too many")
	assert.ErrorIs(t, err, ErrManyDevices)
}
