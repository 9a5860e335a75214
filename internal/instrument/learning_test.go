package instrument

import (
	"math"
	"slices"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/gear"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/logbook"
)

// cooked is a trial on a pit that is the same for all of its book, as its cook would log it.
func cooked(t testing.TB, book, n uint64) (c trial, truth Truth, air []heat.SetPoint, done float64) {
	c = aTrial(t, 0, 1000*book+n)
	kind := []string{"pellet", "cabinet", "kettle", "drum", "offset"}[book%5]
	pit, _ := gear.FindPit(kind)
	c.cook.Programme.Pit = pit.Heat
	fire := NewFire(c.cook.Cut, c.cook.Geometry, pit.Heat.Convect, 4, 1000*book+n).OnPit(77 + book)
	done = math.Inf(1)
	for fire.Hours() < 34 && math.IsInf(done, 1) {
		fire.Run(c.set, 5)
		c.set.Wrapped = c.set.Wrapped || c.wrapC > 0 && fire.Core() >= c.wrapC
		if fire.Core() >= c.cook.DoneC {
			done = fire.Hours()
		}
		if fire.Hours() >= 0.5 {
			air = append(air, heat.SetPoint{AtH: fire.Hours(), SetC: fire.Pit()})
		}
	}
	return c, fire.Truth(), air, done
}

// became is what its cook would keep of it.
func became(t testing.TB, book, n uint64) logbook.Outcome {
	c, _, air, done := cooked(t, book, n)
	var off []float64
	for _, a := range air {
		off = append(off, a.SetC-c.set.SetC)
	}
	slices.Sort(off)
	c.cook.Programme.PitRead = air
	f, err := heat.Of(t.Context(), c.cook, heat.Ask{Members: 120, Seed: c.cook.Piece})
	require.NoError(t, err)
	p := logbook.Piece{
		PitID:   "pit",
		AirN:    5 * len(air),
		AirOffC: off[len(off)/2],
		Hours:   min(done, 34),
		Pace:    math.Log(min(done, 34) / f.Done.Mid),
	}
	return logbook.Outcome{Finished: true, Pieces: []logbook.Piece{p}}
}

// taught is how well pits are learnt from five cooks each.
type taught struct {
	offIn          int     // books in which the 80 % interval holds how far the pit really runs off
	hotIn          int     // likewise, how well its air really gives heat
	untaught, told float64 // error of the next forecast, without and with what was learnt: root mean square, ln
	inBand         int     // books in which the band of the next forecast holds, with it
	books          int
}

func teach(t testing.TB, n int) taught {
	out := taught{books: n}
	var mu sync.Mutex
	var untaught, told []float64
	var wait sync.WaitGroup
	gate := make(chan struct{}, 2)
	for book := range uint64(n) {
		wait.Add(1)
		go func() {
			defer wait.Done()
			gate <- struct{}{}
			defer func() { <-gate }()
			var all []logbook.Outcome
			for i := range uint64(5) {
				all = append(all, became(t, book, i))
			}
			pit := logbook.Learn(all).Pits["pit"]
			next, truth, _, done := cooked(t, book, 9)
			plain := before(t, next)
			next.cook.Learnt = logbook.Learn(all).Pit("pit")
			wise := before(t, next)
			mu.Lock()
			defer mu.Unlock()
			if pit.Off.Low() <= truth.PitOff && truth.PitOff <= pit.Off.High() {
				out.offIn++
			}
			known := logbook.Learn(all).Pit("pit")
			if hot := (logbook.Lesson{Mid: known.HeatLn, SD: known.HeatSD}); hot.Low() <= math.Log(truth.Hot) &&
				math.Log(truth.Hot) <= hot.High() {
				out.hotIn++
			}
			if wise.Done.Low <= done && done <= wise.Done.High {
				out.inBand++
			}
			if !math.IsInf(done, 1) {
				untaught = append(untaught, math.Log(plain.Done.Mid/done))
				told = append(told, math.Log(wise.Done.Mid/done))
			}
		}()
	}
	wait.Wait()
	out.untaught, out.told = rms(untaught), rms(told)
	return out
}

// before is what is forecast of a cook before anything is read of it.
func before(t testing.TB, c trial) heat.Forecast {
	f, err := heat.Of(t.Context(), c.cook, heat.Ask{Members: 120, Seed: c.cook.Piece})
	require.NoError(t, err)
	return f
}

func rms(v []float64) float64 {
	sum := 0.0
	for _, x := range v {
		sum += x * x
	}
	return math.Sqrt(sum / float64(len(v)))
}

// After five cooks on a pit its error, and how well its air gives heat, are known as well as is said,
// and the next forecast is nearer.
func TestPitsAreLearnt(t *testing.T) {
	got := teach(t, 40)
	t.Logf("%+v", got)
	assert.True(
		t,
		0.65 <= float64(got.offIn)/40 && float64(got.offIn)/40 <= 0.95,
		"what is true lies in the 80 %% interval in %d of 40",
		got.offIn,
	)
	assert.True(
		t,
		0.65 <= float64(got.hotIn)/40 && float64(got.hotIn)/40 <= 0.95,
		"how its air gives heat lies in the interval in %d of 40",
		got.hotIn,
	)
	assert.Less(t, got.told, got.untaught)
	assert.True(t, 0.65 <= float64(got.inBand)/40, "the next cook lies in its band in %d of 40", got.inBand)
}

// BenchmarkLearning prints how well two hundred pits are learnt.
func BenchmarkLearning(b *testing.B) {
	for b.Loop() {
		b.Logf("%+v", teach(b, 200))
	}
}
