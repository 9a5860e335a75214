package instrument

import (
	"math"
	"math/rand/v2"
	"slices"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// trial is a cook as its cook believes it to be, and the true one that the forecast has not
// seen.
type trial struct {
	cook  heat.Cook
	wrapC float64 // foiled when the core reads so; 0 never
	fire  *Fire
	set   Setting
}

// aTrial is any cook that is wrapped in the stall or not, on any pit.
func aTrial(t testing.TB, seed uint64) trial {
	r := rand.New(rand.NewPCG(seed, 404))
	ids := []string{
		"pork-shoulder-bone-in",
		"beef-brisket-packer",
		"beef-plate-ribs",
		"beef-chuck-roast",
		"pork-neck",
		"lamb-shoulder-bone-in",
	}
	c, ok := cut.Find(ids[r.IntN(len(ids))])
	require.True(t, ok)
	g, err := cut.New(c, quantity.Mass(c.TypicalKG*(0.7+0.7*r.Float64())), 0)
	require.NoError(t, err)
	kinds := []string{"pellet", "cabinet", "kettle", "drum", "offset"}
	kind, _ := gear.FindPit(kinds[r.IntN(len(kinds))])
	pit := kind.Heat
	set := Setting{SetC: 112 + 23*r.Float64(), AirC: 15}
	if r.IntN(3) == 0 {
		set.OpenMin = 60
	}
	out := trial{
		cook: heat.Cook{Cut: c, Geometry: g, DoneC: 93, Piece: seed, Programme: heat.Programme{
			Pit: pit, Steps: []heat.SetPoint{{SetC: set.SetC}}, OpenMin: set.OpenMin, Loose: 1, StartC: 4,
			Ambient: heat.Ambient{AirC: 15},
		}},
		fire: NewFire(c, g, pit.Convect, 4, seed), set: set,
	}
	if r.IntN(2) == 0 {
		out.wrapC = 70
		out.cook.Programme.Wraps = []heat.Wrap{{Kind: "foil", When: when.At(when.Cond{CoreC: quantity.Celsius(out.wrapC)})}}
	}
	return out
}

const wrapsAt = 70.0

// run cooks it, and gives what was read every half hour, when it read 70 °C and when it was done.
func (c trial) run() (readings []heat.Reading, toWrap, done float64) {
	toWrap, done = math.Inf(1), math.Inf(1)
	for c.fire.Hours() < 34 && math.IsInf(done, 1) {
		c.fire.Run(c.set, 5)
		if math.IsInf(toWrap, 1) && c.fire.Core() >= wrapsAt {
			toWrap = c.fire.Hours()
			c.set.Wrapped = c.wrapC > 0
		}
		if c.fire.Core() >= c.cook.DoneC {
			done = c.fire.Hours()
		}
		readings = append(readings, heat.Reading{AtH: c.fire.Hours(), CoreC: c.fire.Core()})
	}
	return readings, toWrap, done
}

// calibration is how the forecast does on cooks whose physics it does not know.
type calibration struct {
	wrapIn, doneIn     float64 // shares in the band
	wrapHalf, doneHalf float64 // median width with readings over that without
	wrapOff, doneOff   float64 // median error of the middle
	lateOff            float64 // of the time to done with four readings
	lateIn             float64 // share in the band then
}

func calibrate(t testing.TB, n int) calibration {
	var out calibration
	var mu sync.Mutex
	var wrapRatio, doneRatio, wrapErr, doneErr, lateErr []float64
	var wait sync.WaitGroup
	gate := make(chan struct{}, 2)
	for seed := range n {
		wait.Add(1)
		go func() {
			defer wait.Done()
			gate <- struct{}{}
			defer func() { <-gate }()
			c := aTrial(t, uint64(seed))
			readings, toWrap, done := c.run()
			first := forecast(t, c, nil)
			early := forecast(t, c, pick(readings, 0.25*toWrap, 0.5*toWrap, 0.7*toWrap, 0.85*toWrap))
			late := forecast(t, c, pick(readings, 0.5*toWrap, 0.85*toWrap, toWrap+0.35*(done-toWrap), toWrap+0.6*(done-toWrap)))
			mu.Lock()
			defer mu.Unlock()
			if first.Reach[0].Low <= toWrap && toWrap <= first.Reach[0].High {
				out.wrapIn++
			}
			if first.Done.Low <= done && done <= first.Done.High {
				out.doneIn++
			}
			if late.Done.Low <= done && done <= late.Done.High {
				out.lateIn++
			}
			if math.IsInf(done, 1) {
				return // it never gets there: only the band can be right or wrong
			}
			wrapRatio = append(wrapRatio, width(early.Reach[0])/width(first.Reach[0]))
			doneRatio = append(doneRatio, width(late.Done)/width(first.Done))
			wrapErr = append(wrapErr, math.Abs(first.Reach[0].Mid/toWrap-1))
			doneErr = append(doneErr, math.Abs(first.Done.Mid/done-1))
			lateErr = append(lateErr, math.Abs(late.Done.Mid/done-1))
		}()
	}
	wait.Wait()
	out.wrapIn, out.doneIn, out.lateIn = out.wrapIn/float64(n), out.doneIn/float64(n), out.lateIn/float64(n)
	out.wrapHalf, out.doneHalf = median(wrapRatio), median(doneRatio)
	out.wrapOff, out.doneOff, out.lateOff = median(wrapErr), median(doneErr), median(lateErr)
	return out
}

func forecast(t testing.TB, c trial, readings []heat.Reading) heat.Forecast {
	f, err := heat.Of(
		t.Context(),
		c.cook,
		heat.Ask{Cores: []float64{wrapsAt}, Readings: readings, Members: 120, Seed: c.cook.Piece},
	)
	require.NoError(t, err)
	return f
}

func pick(all []heat.Reading, at ...float64) (out []heat.Reading) {
	for _, h := range at {
		if i := int(min(h, 1e3) * 12); i < len(all) {
			out = append(out, all[max(0, i-1)])
		}
	}
	return out
}

func width(b heat.Band) float64 { return b.High - b.Low }

func median(v []float64) float64 {
	slices.Sort(v)
	return v[len(v)/2]
}

// The forecast's band holds what a fire of other physics does, and readings narrow it.
func TestTheForecastOnOtherPhysics(t *testing.T) {
	got := calibrate(t, 60)
	t.Logf("%+v", got)
	assert.True(
		t,
		0.7 <= got.wrapIn && got.wrapIn <= 0.95,
		"the time to the wrap lies in the band in %.0f %%",
		100*got.wrapIn,
	)
	assert.True(t, 0.7 <= got.doneIn && got.doneIn <= 0.95, "the time to done lies in the band in %.0f %%", 100*got.doneIn)
	assert.LessOrEqual(t, got.wrapHalf, 0.5, "four readings halve the band of the time to the wrap")
	assert.LessOrEqual(t, got.doneHalf, 0.5, "two readings after the wrap halve that of the time to done")
	assert.LessOrEqual(t, got.lateOff, 0.08)
}

// BenchmarkCalibration prints how the forecast does on two hundred such cooks.
func BenchmarkCalibration(b *testing.B) {
	for b.Loop() {
		b.Logf("%+v", calibrate(b, 200))
	}
}

// The same seed is the same fire; a probe lags behind what it measures; an opened lid is seen.
func TestASimulatedFire(t *testing.T) {
	one, two := aTrial(t, 5), aTrial(t, 5)
	for range 30 {
		one.fire.Run(one.set, 7)
		two.fire.Run(two.set, 7)
	}
	assert.Equal(t, one.fire.Core(), two.fire.Core())
	open := aTrial(t, 6)
	open.set.OpenMin = 0
	open.fire.Run(open.set, 59)
	before := open.fire.Pit()
	open.set.OpenMin = 60
	open.fire.Run(open.set, 2)
	assert.Less(t, open.fire.Pit(), before-40)
	hot := open.fire.Core()
	open.fire.Run(open.set, 240)
	assert.Greater(t, open.fire.Core(), hot)
	assert.InDelta(t, open.fire.True(), open.fire.Core(), 12)
}
