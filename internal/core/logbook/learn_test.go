package logbook_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/core/heat"
	"verjuice/internal/core/logbook"
)

// ran is a cook on a pit that was so far off.
func ran(pit string, off float64) logbook.Outcome {
	return logbook.Outcome{Finished: true, Pieces: []logbook.Piece{{
		PitID: pit, PitName: "Kettle", AirN: 300, AirOffC: off, Pace: 0.1, Cut: "pork-loin", GreenKG: 2, CookedKG: 1.5,
		Yield: logbook.Band{Mid: 0.8},
		RubKG: 0.1, MixedKG: 0.2, LeftKG: 0.07, Salt: 1.2, Scores: []logbook.Score{{Aspect: "salt", Value: 4}},
	}}}
}

// Without cooks nothing is other than it was.
func TestNothingIsLearntFromNothing(t *testing.T) {
	b := logbook.Learn(nil)
	assert.Empty(t, b.Pits)
	assert.Empty(t, b.Yields)
	assert.Zero(t, b.Coat.Cooks+b.Salt.Cooks)
	assert.Equal(t, heat.Learnt{}, b.Pit("kettle"))
	assert.Equal(t, heat.Learnt{}, logbook.Lessons{}.Pit(""))
}

// One cook moves what is thought a little, many all of the way; each more leaves less to guess; the
// order in which they were cooked makes no difference.
func TestFewCooksMoveItLittle(t *testing.T) {
	last := logbook.Lesson{SD: math.Inf(1)}
	var all []logbook.Outcome
	for n := range 30 {
		all = append(all, ran("k", 6+float64(n%3)-1))
		p := logbook.Learn(all).Pits["k"]
		assert.Equal(t, n+1, p.Off.Cooks)
		assert.Less(t, p.Off.SD, last.SD)
		last = p.Off
	}
	assert.InDelta(t, 6, last.Mid, 0.2)
	b := logbook.Learn(all)
	assert.Less(t, logbook.Learn(all[:1]).Pits["k"].Pace.Mid, 0.03)
	assert.InDelta(t, 0.1, b.Pits["k"].Pace.Mid, 0.02)
	assert.InDelta(t, math.Log(1.3), b.Coat.Mid, 0.02)
	assert.InDelta(t, 1.2-0.25, b.Salt.Mid, 0.02, "it was a little too salty")
	assert.InDelta(t, math.Log(0.75/0.8), b.Yields["pork-loin"].Mid, 0.02)
	soft := slices.Clone(all)
	for i := range soft {
		soft[i].Pieces = slices.Clone(soft[i].Pieces)
		soft[i].Pieces[0].Tender = -0.2
	}
	assert.InDelta(t, -0.2, logbook.Learn(soft).Tender["pork-loin"].Mid, 0.02, "it was soft sooner")
	assert.Greater(t, logbook.Learn(soft[:1]).Tender["pork-loin"].Mid, -0.12)
	mixed := slices.Clone(all)
	rand.New(rand.NewPCG(1, 2)).Shuffle(len(mixed), func(i, j int) { mixed[i], mixed[j] = mixed[j], mixed[i] })
	assert.InDelta(t, b.Pits["k"].Off.Mid, logbook.Learn(mixed).Pits["k"].Off.Mid, 1e-9)
	assert.Greater(t, b.Pit("k").PitSD, last.SD, "no two cooks are quite alike")
}

// What was not measured tells nothing: a pit of which nothing was read, weights and scores that are
// not there, rub of which more was left than was mixed.
func TestWhatTellsNothing(t *testing.T) {
	c := ran("k", 9)
	p := &c.Pieces[0]
	p.AirN, p.CookedKG, p.LeftKG, p.Scores = 0, 0, 0.5, nil
	b := logbook.Learn([]logbook.Outcome{c})
	assert.Empty(t, b.Pits)
	assert.Empty(t, b.Yields)
	assert.Zero(t, b.Coat.Cooks+b.Salt.Cooks)
}

func ExampleLearn() {
	b := logbook.Learn([]logbook.Outcome{ran("k", 6), ran("k", 7), ran("k", 5)})
	fmt.Printf("%.0f °C hotter, by %d cooks\n", b.Pits["k"].Off.Mid, b.Pits["k"].Off.Cooks)
	// Output: 6 °C hotter, by 3 cooks
}
