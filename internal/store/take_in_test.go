package store

import (
	"encoding/json"
	"fmt"
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

// carried are the lines of all that is on record.
func carried(t *testing.T, s *Store) (out []any) {
	t.Helper()
	require.NoError(t, s.Carry(t.Context(), func(line any) error {
		out = append(out, line)
		return nil
	}))
	return out
}

// takes takes lines in.
func takes(t *testing.T, s *Store, lines []any) Taken {
	t.Helper()
	got, err := s.TakeIn(t.Context(), func(take func(any) error) error {
		for _, l := range lines {
			if err := take(l); err != nil {
				return err
			}
		}
		return nil
	})
	require.NoError(t, err)
	return got
}

// aCook is a cook with a fact and some readings.
func aCook(t *testing.T, s *Store, name string, readings int) string {
	t.Helper()
	rec, err := s.Cooks().
		Create(t.Context(), cook.Cook{Name: name, Zone: "UTC",
			Pieces: []cook.Piece{{Key: "a", Cut: "pork-loin", Trimmed: "2 kg"}}})
	require.NoError(t, err)
	require.NoError(
		t,
		s.AddFact(
			t.Context(),
			rec.ID,
			facts.Fact{ID: uuid.NewString(), Kind: facts.Done, Piece: "a", What: "fire", At: "2026-11-28T07:20"},
		),
	)
	var read []facts.Reading
	for m := range readings {
		read = append(
			read,
			facts.Reading{Probe: "core:a", At: testclock.Now().Add(time.Duration(m) * time.Second), C: quantity.Celsius(m % 90)},
		)
	}
	if readings > 0 {
		require.NoError(t, s.HandIn(t.Context(), rec.ID, facts.HandIn{ID: uuid.NewString(), Device: "probe"}, read))
	}
	return rec.ID
}

// What is here already stays as it is: a record that was changed since, a hand-in with its readings;
// what is new beside it is added, readings among it, however many lines there are.
func TestWhatIsHereStays(t *testing.T) {
	s := opened(t)
	first := aCook(t, s, "First", 1300)
	lines := carried(t, s)
	rec, err := s.Cooks().Get(t.Context(), first)
	require.NoError(t, err)
	changed := rec.Doc
	changed.Name = "Changed since"
	_, err = s.Cooks().Update(t.Context(), first, rec.Version, changed)
	require.NoError(t, err)
	second := aCook(t, s, "Second", 700)
	took := takes(t, s, lines)
	assert.Zero(t, took.Added)
	assert.EqualValues(t, len(lines), took.Here)
	rec, err = s.Cooks().Get(t.Context(), first)
	require.NoError(t, err)
	assert.Equal(t, "Changed since", rec.Doc.Name)
	all := carried(t, s)
	require.NoError(t, s.Together(t.Context(), func(s *Store) error { return s.empty(t.Context()) }))
	assert.Empty(t, carried(t, s))
	takes(t, s, lines)
	took = takes(t, s, all)
	assert.Positive(t, took.Added)
	for id, want := range map[string]int{first: 1300, second: 700} {
		read, err := s.Readings(t.Context(), id, 0, 0)
		require.NoError(t, err)
		assert.Len(t, read, want)
		for i := 1; i < len(read); i++ {
			require.False(t, read[i].At.Before(read[i-1].At), "in the order in which they came")
		}
	}
}

// A line that cannot be ends it all, and nothing before it is kept.
func TestALineThatCannotBe(t *testing.T) {
	s := opened(t)
	there := opened2(t)
	id := aCook(t, s, "One", 10)
	lines := carried(t, s)
	for name, bad := range map[string]any{
		"another kind": CarriedRecord{ID: uuid.NewString(), Kind: "throne", Doc: json.RawMessage("{}")},
		"no id":        CarriedRecord{ID: "one", Kind: "cook", Doc: json.RawMessage("{}")},
		"no document":  CarriedRecord{ID: uuid.NewString(), Kind: "cook", Doc: json.RawMessage("[]")},
		"no fact":      CarriedFact{Cook: id, Fact: facts.Fact{ID: uuid.NewString(), Kind: "guessed"}},
		"of no cook": CarriedFact{Cook: uuid.NewString(), Fact: facts.Fact{ID: uuid.NewString(), Kind: facts.Noted,
			What: "x", At: "2026-11-28T07:20"}},
		"of no record": CarriedVersion{Record: uuid.NewString(), Version: 1, Doc: json.RawMessage("{}"),
			Changes: json.RawMessage("[]")},
		"another picture": CarriedPhoto{Cook: id, SHA256: "00", Data: []byte("x")},
		"something else":  7,
	} {
		_, err := there.TakeIn(t.Context(), func(take func(any) error) error {
			for _, l := range append(lines[:len(lines):len(lines)], bad) {
				if err := take(l); err != nil {
					return err
				}
			}
			return nil
		})
		require.ErrorIs(t, err, ErrCarried, name)
		assert.Empty(t, carried(t, there), name)
	}
}

// A book is as it was at one moment, whoever writes meanwhile: what is added after it began is not in
// it, and what it names is.
func TestABookIsOfOneMoment(t *testing.T) {
	s := opened(t)
	for n := range 5 {
		aCook(t, s, fmt.Sprint("Before ", n), 50)
	}
	began := false
	records, others := map[string]bool{}, 0
	require.NoError(t, s.Carry(t.Context(), func(line any) error {
		if !began {
			began = true
			aCook(t, s, "After", 50)
		}
		switch l := line.(type) {
		case CarriedRecord:
			records[l.ID] = true
		case CarriedFact:
			assert.True(t, records[l.Cook])
			others++
		case CarriedReading:
			assert.True(t, records[l.Cook])
			others++
		}
		return nil
	}))
	assert.Len(t, records, 5)
	assert.Equal(t, 5*51, others)
}

// opened2 is another database of a test's own.
func opened2(t *testing.T) *Store {
	t.Helper()
	s, err := Open(t.Context(), migrated(t))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}
