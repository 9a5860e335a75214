package review_test

import (
	"fmt"
	"math"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/review"
)

// told is a shoulder on a pit of its own, as it is told to be.
type told struct {
	t      *testing.T
	on     time.Time
	c      cook.Cook
	all    facts.Facts
	course facts.Course
}

func shoulder(t *testing.T) *told {
	t.Helper()
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key, p.Choices, p.Fire.Guess = "a", map[string]string{"wrap": "foil"}, "10 h"
	c := anycook.Supper(p)
	c.Zone, c.Pits = "UTC", []cook.Pit{{ID: "kettle", Name: "Kettle", Kind: "kettle"}}
	on := time.Date(2026, 11, 28, 7, 0, 0, 0, time.UTC)
	c.ServeAt = on.Add(12 * time.Hour).Format(cook.TimeLayout)
	return &told{t: t, on: on, c: c, course: facts.Course{}}
}

func (s *told) at(h float64) time.Time { return s.on.Add(time.Duration(h * float64(time.Hour))) }

func (s *told) say(kind facts.Kind, what string, h float64, values field.Values) {
	piece := "a"
	if what == "light" || what == "set" || what == "over" {
		piece = ""
	}
	s.all = append(
		s.all,
		facts.Fact{
			ID:     uuid.NewString(),
			Kind:   kind,
			Piece:  piece,
			What:   what,
			At:     s.at(h).Format(time.RFC3339),
			Values: values,
			Author: "Ines",
		},
	)
}

func (s *told) read(hours, perHour, air float64) {
	for h := 0.0; h < hours; h += 1.0 / 60 {
		s.course.Add(
			facts.Reading{Probe: "core:a", At: s.at(h), C: quantity.Celsius(5 + perHour*h)},
			facts.Reading{Probe: "pit:0", At: s.at(h), C: quantity.Celsius(air)},
		)
	}
}

func (s *told) went() (review.Review, logbook.Piece) {
	s.t.Helper()
	r, err := cooking.Work(
		s.t.Context(),
		order.Parse(s.c, kitchen.Kitchen{}),
		s.all,
		kitchen.Kitchen{},
		cooking.Clock{Now: s.at(20), Read: s.course.Readings()},
	)
	require.NoError(s.t, err)
	require.Empty(s.t, r.Mistakes)
	a, err := review.Of(s.t.Context(), r, s.course)
	require.NoError(s.t, err)
	require.Len(s.t, a.Outcome.Pieces, 1)
	return a, a.Outcome.Pieces[0]
}

// What is kept of a cook is what was said and read of it: hours, pit, wrap, weights, scores, notes.
func TestWhatIsKept(t *testing.T) {
	s := shoulder(t)
	s.say(facts.Done, "light", -0.5, field.Values{"pit": 0.0})
	s.say(facts.Done, "fire", 0, nil)
	s.say(facts.Done, "wrap", 6, field.Values{"kind": "paper"})
	s.say(facts.Done, "off", 9, nil)
	s.say(facts.Done, "slice", 10.5, nil)
	s.read(9, 10, 128)
	for what, typed := range map[string]string{"trimmed": "3.5 kg", "cooked": "2.4 kg", "bones": "400 g",
		"mixed": "120 g", "left": "20 g"} {
		s.say(facts.Weighed, what, 11, field.Values{"typed": typed})
	}
	s.say(facts.Scored, "salt", 11, field.Values{"score": 2.0})
	s.say(facts.Scored, "bark", 11, field.Values{"score": 5.0})
	s.say(facts.Noted, "Start earlier.", 11, nil)
	a, p := s.went()
	assert.InDelta(t, 9, p.Hours, 1e-9)
	assert.InDelta(t, 10, p.GuessH, 1e-9)
	assert.Equal(t, []string{"paper", "kettle", "Kettle", "kettle"}, []string{p.Wrap, p.PitID, p.PitName, p.PitKind})
	assert.InDelta(t, 8, p.AirOffC, 0.01, "it was set to 120 °C")
	assert.Greater(t, p.AirN, 400)
	assert.InDelta(t, 95, p.CoreC, 1)
	assert.InDelta(t, 3.5, p.GreenKG, 1e-9)
	assert.InDelta(t, 2.0/3.5, p.Served(0.18), 1e-9)
	assert.InDelta(t, 0.1/p.RubKG, p.Used(), 1e-9)
	assert.Equal(
		t,
		[]logbook.Score{{Aspect: "salt", By: "Ines", Value: 2}, {Aspect: "bark", By: "Ines", Value: 5}},
		p.Scores,
	)
	assert.Equal(t, []string{"Start earlier."}, p.Notes)
	assert.InDelta(t, (5+3.0)/2, a.Outcome.Score(), 1e-9, "a little bland is one off of five")
	assert.False(t, a.Outcome.Finished)
	s.say(facts.Done, "over", 12, nil)
	a, _ = s.went()
	assert.True(t, a.Outcome.Finished)
	assert.Equal(t, "2026-11-28", a.Outcome.Day)
	assert.Equal(t, s.at(10.5).Format(time.RFC3339), a.Outcome.ServedAt)
}

// A core that rose slower than the pit explains is a slow pace; as fast as it explains is none; a pit
// of which nothing was read, or a core that hardly rose, tells nothing.
func TestThePace(t *testing.T) {
	paces := map[string]float64{}
	for name, c := range map[string]struct{ perHour, air, hours float64 }{"slow": {7, 120, 9}, "quick": {14, 120, 6},
		"hot": {14, 150, 6}, "short": {10, 120, 2}} {
		s := shoulder(t)
		s.say(facts.Done, "fire", 0, nil)
		s.say(facts.Done, "off", c.hours, nil)
		s.read(c.hours, c.perHour, c.air)
		_, p := s.went()
		paces[name] = p.Pace
	}
	assert.Greater(t, paces["slow"], paces["quick"]+0.3)
	assert.Greater(t, paces["hot"], paces["quick"], "the heat of the pit explains some of it")
	assert.Zero(t, paces["short"])
	s := shoulder(t)
	s.say(facts.Done, "fire", 0, nil)
	s.say(facts.Done, "off", 9, nil)
	_, p := s.went()
	assert.Zero(t, p.Pace)
	assert.Zero(t, p.AirN)
	assert.True(t, math.IsNaN(func() float64 { a, _ := s.went(); return a.Pieces[0].MissC }()))
}

// Moves stand beside what was planned before the first of them; a correction moves what was done,
// what was never planned stands by itself, and what was never done has no time.
func TestPlanAgainstActual(t *testing.T) {
	s := shoulder(t)
	s.say(facts.Done, "fire", 0, nil)
	fire := s.all[0]
	s.say(facts.Done, "off", 9, nil)
	find := func(a review.Review, stage string) review.Move {
		for _, m := range a.Moves {
			if m.Stage == stage {
				return m
			}
		}
		t.Fatalf("no %s in %v", stage, a.Moves)
		return review.Move{}
	}
	a, _ := s.went()
	on := find(a, "fire")
	assert.Equal(t, s.on, on.Actual)
	assert.False(t, on.Planned.IsZero())
	late, ok := on.Late()
	assert.True(t, ok)
	assert.Equal(t, on.Actual.Sub(on.Planned), late)
	assert.True(t, find(a, "salt").Actual.IsZero())
	_, ok = find(a, "salt").Late()
	assert.False(t, ok)
	s.all = append(
		s.all,
		facts.Fact{ID: uuid.NewString(), Kind: facts.Corrected, What: fire.ID, At: s.at(0.5).Format(time.RFC3339)},
	)
	b, p := s.went()
	assert.Equal(t, s.at(0.5), find(b, "fire").Actual)
	assert.InDelta(t, 8.5, p.Hours, 1e-9)
	for i := 1; i < len(a.Moves); i++ {
		when := func(m review.Move) time.Time {
			if m.Actual.IsZero() {
				return m.Planned
			}
			return m.Actual
		}
		assert.False(t, when(a.Moves[i]).Before(when(a.Moves[i-1])), "in the order of time")
	}
	c := shoulder(t)
	c.c.ServeAt = ""
	c.say(facts.Done, "fire", 0, nil)
	open, _ := c.went()
	require.Len(t, open.Moves, 1)
	assert.True(t, open.Moves[0].Planned.IsZero())
}

func ExampleMove_Late() {
	at := time.Date(2026, 11, 28, 7, 0, 0, 0, time.UTC)
	late, _ := review.Move{Planned: at, Actual: at.Add(25 * time.Minute)}.Late()
	fmt.Println(late)
	// Output: 25m0s
}

// The weight that is hinted at is the one that teaches nothing: with the bone, as it comes off the fire.
func TestTheUsualWeightTeachesNothing(t *testing.T) {
	for _, c := range cut.All() {
		usual := 0.45
		o := logbook.Piece{Cut: c.ID, GreenKG: 3, Yield: logbook.Band{Low: 0.4, Mid: usual, High: 0.5}}
		o.CookedKG = review.UsualWeights(o)["cooked"]
		assert.InDelta(t, usual, o.Served(c.BoneShare()), 1e-9, c.ID)
	}
}

// Every move that was made is told: what was done again and again on one line, each change of the pit by itself, a
// second fire, and the highest core of each place.
func TestEveryMoveIsTold(t *testing.T) {
	s := shoulder(t)
	s.say(facts.Done, "fire", 0, nil)
	for _, h := range []float64{3, 3.75, 4.5} {
		s.say(facts.Done, "spritz", h, nil)
	}
	s.say(facts.Done, "set", 5, field.Values{"pit": 0.0, "typed": "135 °C"})
	s.say(facts.Done, "wrap", 5.5, field.Values{"kind": "paper"})
	s.say(facts.Done, "set", 7, field.Values{"pit": 0.0, "typed": "107 °C"})
	s.say(facts.Done, "off", 9, nil)
	s.say(facts.Done, "again", 10, nil)
	s.say(facts.Done, "again-off", 11, nil)
	for _, place := range []string{"", ":flat"} {
		s.course.Add(facts.Reading{Probe: "core:a" + place, At: s.at(8), C: quantity.Celsius(90 + len(place))})
	}
	a, p := s.went()
	said := map[string]string{}
	for _, m := range a.Moves {
		if !m.Actual.IsZero() {
			said[fmt.Sprint(m.Stage, m.SetC, m.Kind)] = fmt.Sprint(m.Times, " ", m.Actual.Sub(s.on), " ", m.Last.Sub(s.on))
		}
	}
	assert.Equal(t, map[string]string{
		"fire0": "1 0s 0s", "spritz0": "3 3h0m0s 4h30m0s", "set135": "1 5h0m0s 5h0m0s", "wrap0paper": "1 5h30m0s 5h30m0s",
		"set107": "1 7h0m0s 7h0m0s", "off0": "1 9h0m0s 9h0m0s", "again0": "1 10h0m0s 10h0m0s",
		"again-off0": "1 11h0m0s 11h0m0s",
	}, said)
	require.Len(t, p.Made, 6, "without what is kept besides")
	assert.Equal(t, logbook.Made{What: "spritz", Times: 3, FromH: 3}, p.Made[0])
	assert.Equal(t, 9.0, p.Hours, "the second fire is no part of the first")
	assert.Len(t, a.Pieces[0].Highest, 2)
}

// A piece that is wrapped, opened and wrapped again, and one that goes on twice more, have each of it told.
func TestWhatIsDoneTwiceIsToldTwice(t *testing.T) {
	s := shoulder(t)
	s.say(facts.Done, "fire", 0, nil)
	s.say(facts.Done, "wrap", 4, field.Values{"kind": "foil"})
	s.say(facts.Done, "unwrap", 6, nil)
	s.say(facts.Done, "wrap", 7, field.Values{"kind": "foil"})
	s.say(facts.Done, "off", 9, nil)
	a, p := s.went()
	for _, m := range a.Moves {
		if m.Stage == "wrap" {
			assert.Equal(t, 2, m.Times)
			assert.Equal(t, s.at(4), m.Actual, "the first stands beside the plan")
			assert.Equal(t, s.at(7), m.Last)
		}
	}
	assert.Equal(t, 2, p.Made[0].Times)
}
