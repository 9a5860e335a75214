package store

import (
	"bytes"
	"image"
	"image/jpeg"
	"sync/atomic"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/formula"
	"verjuice/internal/testclock"
)

// While little is free photographs and readings are refused and what is typed is saved; with next to
// nothing left nothing is written, and all can be read; with room again all is as before.
func TestADiskThatFills(t *testing.T) {
	var free atomic.Uint64
	free.Store(1 << 40)
	known := true
	s, err := Open(t.Context(), migrated(t), func() (uint64, bool) { return free.Load(), known })
	require.NoError(t, err)
	defer s.Close()
	rec, err := s.Cooks().Create(t.Context(), cook.Cook{Name: "Supper", Pieces: []cook.Piece{}})
	require.NoError(t, err)
	var dot bytes.Buffer
	require.NoError(t, jpeg.Encode(&dot, image.NewGray(image.Rect(0, 0, 2, 1)), nil))
	heavy := []func() error{
		func() error {
			_, err := s.AddPhoto(t.Context(), Photo{Cook: rec.ID, Width: 2, Height: 1, Data: dot.Bytes()})
			return err
		},
		func() error {
			return s.HandIn(
				t.Context(),
				rec.ID,
				facts.HandIn{ID: uuid.NewString()},
				[]facts.Reading{{Probe: "pit:0", At: testclock.Now(), C: 120}},
			)
		},
	}
	light := []func() error{
		func() error {
			_, err := s.Formulas().Create(t.Context(), formula.ReadyMade()[0], formula.Change{})
			return err
		},
		func() error {
			now, err := s.Cooks().Get(t.Context(), rec.ID)
			require.NoError(t, err)
			_, err = s.Cooks().Update(t.Context(), rec.ID, now.Version, cook.Cook{Name: "Lunch", Pieces: []cook.Piece{}})
			return err
		},
		func() error {
			return s.AddFact(
				t.Context(),
				rec.ID,
				facts.Fact{ID: uuid.NewString(), Kind: facts.Noted, What: "windy", At: "2026-11-28T07:00"},
			)
		},
		func() error { return s.PutThing(t.Context(), Thing{Thing: "sea-salt", Stock: "1 kg"}) },
		func() error {
			return s.SetClock(t.Context(), rec.ID, Clock{Began: testclock.Now(), At: testclock.Now(), Speed: 1})
		},
	}
	each := func(all []func() error, want error) {
		t.Helper()
		for n, write := range all {
			assert.ErrorIs(t, write(), want, "write %d", n)
		}
	}
	for range 2 {
		free.Store(1 << 40)
		each(append(heavy, light...), nil)
		free.Store(Reserve - 1)
		each(heavy, ErrReserve)
		each(light, nil)
		free.Store(LastReserve - 1)
		before := carried(t, s)
		each(append(heavy, light...), ErrDiskFull)
		assert.True(t, Full(light[0]()))
		assert.Equal(t, before, carried(t, s), "nothing half, and all of it can be read")
	}
	known = false // of a database elsewhere nothing is known
	each(append(heavy, light...), nil)
}
