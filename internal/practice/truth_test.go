package practice

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/live"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
	"verjuice/internal/testdb"
)

// practised is a shoulder that is practised, and what is done to it, by hours.
type practised struct {
	t     *testing.T
	db    *store.Store
	cook  string
	began time.Time
	clock store.Clock
}

func practise(t *testing.T, seed uint64) *practised {
	t.Helper()
	db, err := store.Open(t.Context(), testdb.Empty(t))
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key, p.Choices = "a", map[string]string{"wrap": "foil"}
	rec, err := db.Cooks().Create(t.Context(), anycook.Supper(p))
	require.NoError(t, err)
	began := testclock.Now().Truncate(time.Minute)
	out := &practised{t, db, rec.ID, began, store.Clock{Began: began, At: began, Speed: 60, Seed: seed, Running: true}}
	require.NoError(t, db.SetClock(t.Context(), rec.ID, out.clock))
	return out
}

func (p *practised) say(what string, h float64, values field.Values) {
	at := p.began.Add(time.Duration(h * float64(time.Hour)))
	f := facts.Fact{
		ID:     uuid.NewString(),
		Kind:   facts.Done,
		Piece:  "a",
		What:   what,
		At:     at.Format(time.RFC3339),
		Values: values,
	}
	if what == "fuel" {
		f.Piece = ""
	}
	require.NoError(p.t, p.db.AddFact(p.t.Context(), p.cook, f))
}

func (p *practised) told(h float64) []live.Truth {
	p.t.Helper()
	out, err := Told(p.t.Context(), p.db, p.cook, p.clock, p.began.Add(time.Duration(h*float64(time.Hour))))
	require.NoError(p.t, err)
	return out
}

// The truth is told once everything is off the fire, the same each time; what was done stands first,
// and never wrapping takes longer than wrapping did. What its probe showed is near what it was.
func TestTheTruth(t *testing.T) {
	testclock.Undated(t)
	p := practise(t, 5)
	assert.Empty(t, p.told(1), "nothing is on")
	p.say("fire", 0, nil)
	p.say("wrap", 5, field.Values{"kind": "foil"})
	assert.Empty(t, p.told(8), "it is on the fire")
	p.say("off", 9, nil)
	all := p.told(9.5)
	require.Len(t, all, 1)
	one := all[0]
	assert.Equal(t, all, p.told(20), "the same is the same again")
	assert.Equal(t, "a", one.Piece)
	assert.InDelta(t, one.CoreC, one.ShownC, 12)
	assert.InDelta(t, 9, one.Off.Sub(one.On).Hours(), 0.01)
	hours := map[string]float64{}
	for _, w := range one.Ways {
		hours[w.ID] = w.Hours
	}
	assert.Equal(t, "did", one.Ways[0].ID)
	assert.Greater(t, hours["bare"], hours["did"])
	assert.Less(t, hours["hotter"], hours["planned"])
	other := practise(t, 6)
	other.say("fire", 0, nil)
	other.say("off", 9, nil)
	two := other.told(10)[0]
	assert.NotEqual(t, one.Thick, two.Thick, "another seed is another piece")
	assert.Equal(t, "foil", two.Ways[2].ID, "it was never wrapped")
}

// Off the fire the piece cools in its rest, more slowly where it rests in a box, and its thermometer
// goes on until it is sliced; then the practice comes to an end.
func TestTheRestIsSimulated(t *testing.T) {
	testclock.Undated(t)
	p := practise(t, 5)
	p.say("fire", 0, nil)
	p.say("off", 6, nil)
	r := &rig{cook: p.cook}
	for h := 0.0; h <= 9; h += 0.5 {
		require.NoError(t, r.read(t.Context(), p.db, p.clock, p.began.Add(time.Duration(h*float64(time.Hour)))))
	}
	course, _, err := p.db.Course(t.Context(), p.cook)
	require.NoError(t, err)
	at := func(h float64) float64 {
		read, ok := course.Until("core:a", p.began.Add(time.Duration(h*float64(time.Hour))))
		require.True(t, ok)
		return float64(read.C)
	}
	assert.Less(t, at(8.9), at(6.5))
	assert.Greater(t, at(8.9), 25.0)
	last, ok := course.Until("pit:0", p.began.Add(9*time.Hour))
	require.True(t, ok)
	assert.True(t, last.At.Before(p.began.Add(6*time.Hour+2*time.Minute)), "nobody reads a pit that nothing is on")
	p.say("slice", 9, nil)
	require.NoError(t, (&rig{cook: p.cook}).read(t.Context(), p.db, p.clock, p.began.Add(10*time.Hour)))
	clock, err := p.db.Clock(t.Context(), p.cook)
	require.NoError(t, err)
	assert.False(t, clock.Running, "it is over")
	for place, box := range rests {
		assert.True(t, box.airC >= 15 && box.airC <= 70 && box.under >= 5, place)
	}
}

// A practice that was left alone comes to an end by itself.
func TestAPracticeThatWasLeft(t *testing.T) {
	p := practise(t, 5)
	r := &rig{cook: p.cook}
	for h := 0.0; h < 60 && p.clock.Running; h += 3 {
		require.NoError(t, r.read(t.Context(), p.db, p.clock, p.began.Add(time.Duration(h*float64(time.Hour)))))
		clock, err := p.db.Clock(t.Context(), p.cook)
		require.NoError(t, err)
		p.clock = clock
	}
	assert.False(t, p.clock.Running)
}
