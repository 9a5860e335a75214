package logbook_test

import (
	"encoding/json"
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/logbook"
)

// The score of a cook is the mean of all of them; salt counts by how far it is from just right, so
// that too salty is as bad as too bland.
func TestTheScoreOfACook(t *testing.T) {
	of := func(scores ...logbook.Score) float64 {
		return logbook.Outcome{Pieces: []logbook.Piece{{Scores: scores}}}.Score()
	}
	assert.Zero(t, of())
	assert.InDelta(t, 4, of(logbook.Score{Aspect: "bark", Value: 3}, logbook.Score{Aspect: "smoke", Value: 5}), 1e-9)
	right := of(logbook.Score{Aspect: "salt", Value: 3})
	bland := of(logbook.Score{Aspect: "salt", Value: 2})
	salty := of(logbook.Score{Aspect: "salt", Value: 4})
	assert.InDelta(t, 5, right, 1e-9)
	assert.InDelta(t, bland, salty, 1e-9)
	assert.Less(t, of(logbook.Score{Aspect: "salt", Value: 5}), salty)
	two := logbook.Outcome{
		Pieces: []logbook.Piece{
			{Scores: []logbook.Score{{Aspect: "bark", Value: 2}}},
			{Scores: []logbook.Score{{Aspect: "bark", Value: 4}}},
		},
	}
	assert.InDelta(t, 3, two.Score(), 1e-9)
}

// Several tasters count alike, aspect by aspect.
func TestTheMeanOfTasters(t *testing.T) {
	p := logbook.Piece{
		Scores: []logbook.Score{
			{Aspect: "salt", By: "Ines", Value: 2},
			{Aspect: "salt", By: "Odhran", Value: 4},
			{Aspect: "bark", By: "Ines", Value: 5},
		},
	}
	mean, ok := p.Mean("salt")
	assert.True(t, ok)
	assert.InDelta(t, 3, mean, 1e-9)
	_, ok = p.Mean("smoke")
	assert.False(t, ok)
}

// What was not weighed is not known: no share is made up of it, and none is below nothing.
func TestWhatWasWeighed(t *testing.T) {
	whole := logbook.Piece{GreenKG: 4, CookedKG: 2.8, BonesKG: 0.6, RubKG: 0.1, MixedKG: 0.2, LeftKG: 0.08}
	assert.InDelta(t, 0.55, whole.Served(0.2), 1e-9)
	assert.InDelta(t, 1.2, whole.Used(), 1e-9)
	for name, change := range map[string]func(*logbook.Piece){
		"no bones weighed": func(p *logbook.Piece) { p.BonesKG = 0 }, "all bone": func(p *logbook.Piece) { p.BonesKG = 9 },
	} {
		p := whole
		change(&p)
		got := p.Served(0.2)
		assert.True(t, got >= 0 && got <= 1, "%s: %v", name, got)
	}
	bare := whole
	bare.BonesKG = 0
	assert.InDelta(t, (2.8-0.2*4)/4, bare.Served(0.2), 1e-9, "the bones are those of the cut")
	for name, change := range map[string]func(*logbook.Piece){
		"not weighed": func(p *logbook.Piece) { p.CookedKG = 0 }, "nothing trimmed": func(p *logbook.Piece) { p.GreenKG = 0 },
	} {
		p := whole
		change(&p)
		assert.Zero(t, p.Served(0.2), name)
	}
	for name, change := range map[string]func(*logbook.Piece){
		"nothing mixed":        func(p *logbook.Piece) { p.MixedKG = 0 },
		"more left than mixed": func(p *logbook.Piece) { p.LeftKG = 0.3 }, "no rub": func(p *logbook.Piece) { p.RubKG = 0 },
	} {
		p := whole
		change(&p)
		assert.Zero(t, p.Used(), name)
	}
}

// How late a piece was is told against what was thought; of one that is not off yet, nothing.
func TestHowLate(t *testing.T) {
	p := logbook.Piece{Hours: 9, Predicted: logbook.Band{Low: 6, Mid: 7.5, High: 10}}
	assert.InDelta(t, math.Log(9/7.5), p.Late(), 1e-9)
	p.Hours = 6
	assert.Negative(t, p.Late())
	assert.Zero(t, logbook.Piece{Hours: 6}.Late())
	assert.Zero(t, logbook.Piece{Predicted: logbook.Band{Mid: 6}}.Late())
}

// It comes back from JSON as it was, whatever is in it.
func TestItComesBack(t *testing.T) {
	was := logbook.Outcome{
		Model: logbook.Model, Name: "Lamb “for” the\ncommittee", Day: "2026-11-14", Finished: true, Weather: "cold",
		Notes: []string{"é"},
		Pieces: []logbook.Piece{
			{
				Key:     "p1",
				Cut:     "lamb-leg",
				Hours:   1.0 / 3,
				Pace:    -0.1,
				AirOffC: 1e-17,
				Scores:  []logbook.Score{{Aspect: "salt", By: "Ines", Value: 3}},
				Notes:   []string{""},
			},
		},
	}
	raw, err := json.Marshal(was)
	require.NoError(t, err)
	var is logbook.Outcome
	require.NoError(t, json.Unmarshal(raw, &is))
	assert.Equal(t, was, is)
}

func ExamplePiece_Late() {
	p := logbook.Piece{Hours: 8, Predicted: logbook.Band{Mid: 10}}
	fmt.Printf("%.0f %%\n", 100*(math.Exp(p.Late())-1))
	// Output: -20 %
}
