package sheet_test

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/app"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/quantity"
	"verjuice/internal/sheet"
	"verjuice/internal/testclock"
)

// endless are figures that are none, as a text would show them.
var endless = regexp.MustCompile(`\bNaN\b|\bInf\b|(^|[^-0-9])\d{9,}|\de\+\d|�`)

// finite asserts that an answer can be written as JSON, and holds no figure that is none.
func finite(t *testing.T, v any, msg ...any) {
	t.Helper()
	raw, err := json.Marshal(v)
	require.NoError(t, err, msg...)
	var all any
	require.NoError(t, json.Unmarshal(raw, &all))
	var look func(at string, v any)
	look = func(at string, v any) {
		switch v := v.(type) {
		case map[string]any:
			for k, one := range v {
				look(at+"/"+k, one)
			}
		case []any:
			for i, one := range v {
				look(fmt.Sprint(at, "/", i), one)
			}
		case string:
			assert.NotRegexp(t, endless, v, at)
		case float64:
			assert.Less(t, math.Abs(v), 1e9, at)
		}
	}
	look("", all)
}

// extreme is a cook that can be kept, with figures from the ends of what can be.
func extreme(r *rand.Rand) logbook.Outcome {
	v := func(most float64) float64 {
		return anycook.Pick(r, []float64{0, 0, math.SmallestNonzeroFloat64, 1e-9, 1e-3, 0.5, 1, most * r.Float64(), most})
	}
	p := logbook.Piece{
		Key:       "a",
		Cut:       anycook.Pick(r, []string{"pork-loin", "beef-chuck-roll", "gone"}),
		PitID:     "k",
		PitName:   "Kettle",
		Wrap:      "none",
		Count:     r.IntN(3),
		On:        "2026-11-14T12:00:00Z",
		GreenKG:   v(1e6),
		CookedKG:  v(1e6),
		BonesKG:   v(1e6),
		KeptKG:    v(1e6),
		MixedKG:   v(1e6),
		LeftKG:    v(1e6),
		RubKG:     v(1e6),
		Salt:      v(100),
		MM:        v(1e4),
		Hours:     v(1e6),
		GuessH:    v(1e6),
		Predicted: logbook.Band{Low: v(1e6), Mid: v(1e6), High: v(1e6)},
		Yield:     logbook.Band{Low: v(1), Mid: v(100), High: v(1)},
		SetC:      v(1000),
		AirOffC:   v(1000) - v(1000),
		CoreC:     v(1000),
		Pace:      v(100) - v(100),
		AirN:      r.IntN(500),
		Scores:    []logbook.Score{{Aspect: "salt", Value: 1 + r.IntN(5)}},
		Notes:     []string{},
	}
	return logbook.Outcome{Name: "x", Day: "2026-11-14", Finished: true, Notes: []string{}, Pieces: []logbook.Piece{p}}
}

// Whatever can be kept of cooks, what is told of them and learnt from them has no end: no figure that
// is none, and no lesson further off than a cook can be.
func TestNoFigureIsEndless(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	for range 400 {
		var all []logbook.Outcome
		for range 1 + r.IntN(6) {
			c := extreme(r)
			require.True(t, c.Sound(), "%+v", c)
			all = append(all, c)
		}
		b := logbook.Learn(all)
		finite(t, b, all)
		for _, as := range []sheet.Reader{{}, {Units: quantity.US}} {
			finite(t, sheet.WriteLessons(b, as), all)
			finite(t, sheet.WriteTrends(all, as), all)
			finite(
				t,
				sheet.WriteCompared(
					[]logbook.Beside{
						{ID: "a", Outcome: all[0], Course: facts.Course{}},
						{ID: "b", Outcome: all[len(all)-1], Course: facts.Course{}},
					},
					as,
				),
				all,
			)
			finite(t, sheet.WriteLogLine("id", all[0]))
			finite(t, sheet.WriteProposals(anycook.Supper(anycook.Coated("pork-loin", "2 kg")), all[0]), all[0])
		}
		for id, l := range b.Yields {
			assert.Less(t, math.Abs(l.Mid), 0.5, id)
		}
		assert.Less(t, math.Abs(b.Coat.Mid), 1.4)
		assert.InDelta(t, 0.95, b.Salt.Mid, 1.2)
	}
}

// afterward is how a loin of two kilos went, with what else was said of it.
func afterward(t *testing.T, more ...facts.Fact) (sheet.AfterSheet, logbook.Outcome) {
	t.Helper()
	p := anycook.Coated("pork-loin", "2 kg")
	p.Key = "a"
	c := anycook.Supper(p)
	c.ServeAt = ""
	done := func(n int, piece, what, at string) facts.Fact {
		return facts.Fact{
			ID:    fmt.Sprintf("00000000-0000-4000-8000-0000000001%02d", n),
			Kind:  facts.Done,
			Piece: piece,
			What:  what,
			At:    at,
		}
	}
	all := append(
		facts.Facts{
			done(1, "a", "fire", "2026-11-14T12:00:00Z"),
			done(2, "a", "off", "2026-11-14T15:00:00Z"),
			done(3, "", "over", "2026-11-14T17:00:00Z"),
		},
		more...)
	went, err := app.Inputs{
		CookRequest: cooking.CookRequest{Cook: c, Facts: all}, Now: testclock.Now(), By: forecast.SingleRun{},
	}.Review(t.Context())
	require.NoError(t, err)
	return sheet.WriteReview(went, sheet.Reader{}), went.Outcome
}

// A weight that cannot be is kept as it was typed and asked about; it counts nowhere until the cook says
// that it is right.
func TestAWeightThatCannotBe(t *testing.T) {
	testclock.Undated(t)
	for typed, asks := range map[string]bool{"1.4 kg": false, "1800 kg": true, "20 g": true, "2.5 kg": false} {
		for _, sure := range []bool{false, true} {
			w := facts.Fact{
				ID:    fmt.Sprintf("00000000-0000-4000-8000-00000000000%d", 2),
				Kind:  facts.Weighed,
				Piece: "a",
				What:  "cooked",
				At:    "2026-11-14T16:00:00Z",
			}
			w.Values = map[string]any{"typed": typed}
			if sure {
				w.Values["sure"] = true
			}
			out, became := afterward(t, w)
			line := out.Pieces[0].Weights[1]
			assert.Equal(t, "cooked", line.What)
			assert.Equal(t, typed, line.Typed)
			assert.Equal(t, asks && !sure, line.Ask != "", "%s %v: %s", typed, sure, line.Ask)
			assert.Equal(t, asks && !sure, became.Pieces[0].CookedKG == 0)
			finite(t, out)
		}
	}
}
