package store

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
	"verjuice/internal/testclock"
)

// Every reading that was handed in still counts in its minute when it is thinned, whatever came
// when and in which order; the same hand-in sent again afterwards adds nothing.
func TestThinnedReadingsStillCount(t *testing.T) {
	s, err := Open(t.Context(), migrated(t))
	require.NoError(t, err)
	defer s.Close()
	rec, err := s.Cooks().Create(t.Context(), cook.Cook{Name: "Long ago", Pieces: []cook.Piece{}})
	require.NoError(t, err)
	r := rand.New(rand.NewPCG(5, 8))
	began := time.Date(2026, 11, 1, 6, 0, 0, 0, time.UTC)
	want := facts.Course{}
	hand := func(h facts.HandIn, read []facts.Reading) { require.NoError(t, s.HandIn(t.Context(), rec.ID, h, read)) }
	some := func() (facts.HandIn, []facts.Reading) {
		var read []facts.Reading
		for range 300 {
			at := began.Add(time.Duration(r.IntN(3*3600_000)) * time.Millisecond)
			read = append(
				read,
				facts.Reading{Probe: []string{"core:a", "pit:0"}[r.IntN(2)], At: at, C: quantity.Celsius(100 * r.Float64())},
			)
		}
		return facts.HandIn{ID: uuid.NewString()}, read
	}
	now := testclock.Now()
	handed := func(ago time.Duration) {
		require.NoError(t, s.db.Exec("UPDATE hand_ins SET created_at = ?", now.Add(-ago)).Error)
	}
	check := func(kept int) {
		t.Helper()
		got, _, err := s.Course(t.Context(), rec.ID)
		require.NoError(t, err)
		assert.Equal(t, want, got)
		single, err := s.Readings(t.Context(), rec.ID, 0, 0)
		require.NoError(t, err)
		assert.Len(t, single, kept)
	}
	first, read := some()
	hand(first, read)
	want.Add(read...)
	handed(20 * time.Hour)
	require.NoError(t, s.Thin(t.Context(), now))
	check(300)
	handed(30 * time.Hour)
	require.NoError(t, s.Thin(t.Context(), now))
	check(0)
	hand(first, read)
	second, more := some()
	hand(second, more)
	want.Add(more...)
	check(300)
	handed(30 * time.Hour)
	for range 2 {
		require.NoError(t, s.Thin(t.Context(), now))
		check(0)
	}
	other := more
	other[0].C++
	assert.ErrorIs(t, s.HandIn(t.Context(), rec.ID, second, other), ErrOther)
}

// What cannot be put into minutes is told, keeps nothing else, and is done the next time.
func TestThinningGoesOn(t *testing.T) {
	thinned = 50
	t.Cleanup(func() { thinned = 20_000 })
	s, err := Open(t.Context(), migrated(t))
	require.NoError(t, err)
	defer s.Close()
	var ids []string
	for n := range 3 {
		ids = append(ids, aCook(t, s, fmt.Sprint("Cook ", n), 120))
	}
	require.NoError(t, s.db.Exec("UPDATE hand_ins SET created_at = ?", testclock.Now().Add(-30*time.Hour)).Error)
	require.NoError(
		t,
		s.db.Exec(
			"CREATE TRIGGER broken BEFORE INSERT ON minutes FOR EACH ROW IF NEW.cook = '"+ids[1]+"' THEN SIGNAL SQLSTATE '45000'; END IF",
		).Error,
	)
	left := func(id string) int {
		single, err := s.Readings(t.Context(), id, 0, 0)
		require.NoError(t, err)
		course, _, err := s.Course(t.Context(), id)
		require.NoError(t, err)
		assert.Equal(t, 120, count(course), "each counts once")
		return len(single)
	}
	require.ErrorContains(t, s.Thin(t.Context(), testclock.Now()), "readings 101 to 150")
	assert.Positive(t, left(ids[1]))
	assert.Zero(t, left(ids[2])/50, "but for a batch that it shares")
	require.NoError(t, s.db.Exec("DROP TRIGGER broken").Error)
	require.NoError(t, s.Thin(t.Context(), testclock.Now()))
	for _, id := range ids {
		assert.Zero(t, left(id))
	}
}

func count(c facts.Course) (n int) {
	for _, minutes := range c {
		for _, m := range minutes {
			n += m.Count
		}
	}
	return n
}

// A cook of a year ago, sixteen hours of six probes.
func BenchmarkCourse(b *testing.B) {
	s, err := Open(b.Context(), migrated(b))
	require.NoError(b, err)
	defer s.Close()
	rec, err := s.Cooks().Create(b.Context(), cook.Cook{Name: "Long ago", Pieces: []cook.Piece{}})
	require.NoError(b, err)
	began := time.Date(2025, 11, 1, 6, 0, 0, 0, time.UTC)
	for m := range 16 * 60 {
		var read []facts.Reading
		for p := range 6 {
			for second := range 6 {
				read = append(
					read,
					facts.Reading{
						Probe: facts.Probe{Pit: p}.String(),
						At:    began.Add(time.Duration(m)*time.Minute + time.Duration(10*second)*time.Second),
						C:     quantity.Celsius(m),
					},
				)
			}
		}
		require.NoError(b, s.HandIn(b.Context(), rec.ID, facts.HandIn{ID: uuid.NewString()}, read))
	}
	require.NoError(b, s.Thin(b.Context(), testclock.Now().AddDate(100, 0, 0)))
	for b.Loop() {
		if _, _, err := s.Course(b.Context(), rec.ID); err != nil {
			b.Fatal(err)
		}
	}
}
