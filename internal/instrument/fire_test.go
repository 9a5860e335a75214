package instrument

import (
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// fires are the kinds of other physics.
var fires = []struct {
	name string
	put  func(c cut.Cut, g cut.Geometry, convect, startC float64, seed uint64) simulated
}{
	{"a drying front", func(c cut.Cut, g cut.Geometry, convect, startC float64, seed uint64) simulated {
		return NewFire(c, g, convect, startC, seed)
	}},
	{"late hours of their own", func(c cut.Cut, g cut.Geometry, convect, startC float64, seed uint64) simulated {
		return NewTurning(c, g, convect, startC, seed)
	}},
	{"unequal columns", func(c cut.Cut, g cut.Geometry, convect, startC float64, seed uint64) simulated {
		return NewColumns(c, g, convect, startC, seed)
	}},
}

// simulated is a piece on a pit that the forecast has not seen.
type simulated interface {
	Run(s Setting, minutes float64)
	Hours() float64
	Core() float64
}

// trial is a cook as its cook believes it to be, and the true one.
type trial struct {
	cook  heat.Cook
	wrapC float64 // foiled when the core reads so; 0 never
	fire  simulated
	set   Setting
}

// aTrial is any cook that is wrapped in the stall or not, on any pit.
func aTrial(t testing.TB, kind int, seed uint64) trial {
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
	pit, _ := gear.FindPit(kinds[r.IntN(len(kinds))])
	set := Setting{SetC: 112 + 23*r.Float64(), AirC: 15}
	if r.IntN(3) == 0 {
		set.OpenMin = 60
	}
	out := trial{
		cook: heat.Cook{Cut: c, Geometry: g, DoneC: 93, Piece: seed, Programme: heat.Programme{
			Pit: pit.Heat, Steps: []heat.SetPoint{{SetC: set.SetC}}, OpenMin: set.OpenMin, Loose: 1, StartC: 4,
			Ambient: heat.Ambient{AirC: 15},
		}},
		fire: fires[kind].put(c, g, pit.Heat.Convect, 4, seed), set: set,
	}
	if r.IntN(2) == 0 {
		out.wrapC = wrapsAt
		out.cook.Programme.Wraps = []heat.Wrap{{Kind: "foil", When: when.At(when.Cond{CoreC: wrapsAt})}}
	}
	return out
}

const wrapsAt = 70

// run cooks it, and gives what was read every five minutes until it was done; false when it never was.
func (c trial) run() (readings []heat.Reading, done bool) {
	r := rand.New(rand.NewPCG(c.cook.Piece, 0xad))
	for c.fire.Hours() < 34 {
		c.fire.Run(c.set, 5)
		core := c.fire.Core()
		c.set.Wrapped = c.set.Wrapped || c.wrapC > 0 && core >= c.wrapC
		readings = append(readings, heat.Reading{AtH: c.fire.Hours(), CoreC: core + 0.3*r.NormFloat64()})
		if core >= c.cook.DoneC {
			return readings, true
		}
	}
	return readings, false
}

// stages of a cook: what has been read by then, of all that there is to read. None is before it gets there.
var stages = []struct {
	name string
	of   func(all []heat.Reading) []heat.Reading
}{
	{"nothing", func([]heat.Reading) []heat.Reading { return nil }},
	{"2 h", func(all []heat.Reading) []heat.Reading { return all[:min(24, len(all)-6)] }},
	{"to 60 °C", func(all []heat.Reading) []heat.Reading { return until(all, 60) }},
	{"one at 60 °C", func(all []heat.Reading) []heat.Reading { return last(until(all, 60)) }},
	{"to 70 °C", func(all []heat.Reading) []heat.Reading { return until(all, 70) }},
	{"60 and 70 °C", func(all []heat.Reading) []heat.Reading {
		return append(last(until(all, 60)), last(until(all, 70))...)
	}},
	{"to 85 °C", func(all []heat.Reading) []heat.Reading { return until(all, 85) }},
}

// until is what was read until it read so.
func until(all []heat.Reading, c float64) []heat.Reading {
	at := slices.IndexFunc(all, func(r heat.Reading) bool { return r.CoreC >= c })
	return all[: at+1 : at+1]
}

func last(all []heat.Reading) []heat.Reading { return slices.Clone(all[len(all)-1:]) }

// knows is the cook as the program has it, with what was read: what was done stands, and what was not
// done by then comes later.
func (c trial) knows(all, read []heat.Reading) heat.Cook {
	out := c.cook
	if len(read) == 0 {
		return out
	}
	now := read[len(read)-1].AtH
	out.UndoneH = now
	if out.Programme.Wraps = slices.Clone(out.Programme.Wraps); c.wrapC > 0 {
		w, at := &out.Programme.Wraps[0], last(until(all, c.wrapC))[0].AtH
		if w.NotBeforeH = now; at <= now {
			w.When = when.At(when.Cond{After: time.Duration(at * float64(time.Hour))})
		}
	}
	return out
}

// calibration is how the forecasts of a stage did, of what remained.
type calibration struct {
	n                   int
	ends                struct{ in, before, after int }
	in, before, after   float64   // shares that end in the band, before and after it
	off, score, widths  []float64 // error of the middle, CRPS, width of the band: over what remained
	errorOf, crps, wide float64   // their medians and mean
	bias                float64   // median of ln(remained / middle)
	logs                []float64
}

func (c *calibration) add(f heat.Forecast, now, done float64) {
	c.n++
	switch {
	case done < f.Done.Low:
		c.ends.before++
	case done > f.Done.High:
		c.ends.after++
	default:
		c.ends.in++
	}
	left := done - now
	c.off = append(c.off, math.Abs(f.Done.Mid-done)/left)
	c.widths = append(c.widths, (min(f.Done.High, heat.Longest)-f.Done.Low)/left)
	c.score = append(c.score, crps(f.Hours, done)/left)
	c.logs = append(c.logs, math.Log(left/max(0.01, f.Done.Mid-now)))
}

// pool puts another one's cooks to c.
func (c *calibration) pool(of calibration) {
	c.n += of.n
	c.ends.in, c.ends.before, c.ends.after = c.ends.in+of.ends.in, c.ends.before+of.ends.before, c.ends.after+of.ends.after
	c.off, c.score = append(c.off, of.off...), append(c.score, of.score...)
	c.widths, c.logs = append(c.widths, of.widths...), append(c.logs, of.logs...)
}

// sum works the figures out.
func (c *calibration) sum() {
	n := float64(c.n)
	c.in, c.before, c.after = float64(c.ends.in)/n, float64(c.ends.before)/n, float64(c.ends.after)/n
	c.errorOf, c.wide, c.bias = median(c.off), median(c.widths), median(c.logs)
	c.crps = stat.Mean(c.score, nil)
}

func (c calibration) String() string {
	return fmt.Sprintf("n %3d · in %3.0f %%, before %3.0f %%, after %3.0f %% · error %4.1f %% · CRPS %.2f · width %.2f · bias %+.2f",
		c.n, 100*c.in, 100*c.before, 100*c.after, 100*c.errorOf, c.crps, c.wide, c.bias)
}

// crps is the continuous ranked probability score of members, hours: their mean distance from the truth less
// half of that from each other (Gneiting and Raftery 2007, J. Am. Stat. Assoc. 102, 359, eq. 21). A member
// that is never done counts as done at last.
func crps(hours []float64, truth float64) float64 {
	h := slices.Clone(hours)
	for i := range h {
		h[i] = min(h[i], heat.Longest)
	}
	slices.Sort(h)
	n, away, apart := float64(len(h)), 0.0, 0.0
	for i, v := range h {
		away += math.Abs(v - truth)
		apart += v * (2*float64(i) - n + 1)
	}
	return away/n - apart/(n*n)
}

// calibrate forecasts n cooks of a kind of fire at each stage, with so many members.
func calibrate(t testing.TB, kind, n, members int) []calibration {
	out := make([]calibration, len(stages))
	var mu sync.Mutex
	var wait sync.WaitGroup
	gate := make(chan struct{}, 2)
	for seed := range n {
		wait.Add(1)
		go func() {
			defer wait.Done()
			gate <- struct{}{}
			defer func() { <-gate }()
			c := aTrial(t, kind, uint64(seed))
			all, done := c.run()
			if !done {
				return
			}
			for i, s := range stages {
				read := s.of(all)
				now := 0.0
				if len(read) > 0 {
					now = read[len(read)-1].AtH
				}
				f, err := heat.Of(t.Context(), c.knows(all, read), heat.Ask{Readings: read, Members: members, Seed: uint64(seed)})
				require.NoError(t, err)
				mu.Lock()
				out[i].add(f, now, all[len(all)-1].AtH)
				mu.Unlock()
			}
		}()
	}
	wait.Wait()
	for i := range out {
		out[i].sum()
	}
	return out
}

func median(v []float64) float64 {
	v = slices.Clone(v)
	slices.Sort(v)
	return v[len(v)/2]
}

// Over forty cooks of each kind of fire the band of 80 % holds in 70 to 90 % once something was read, at every
// stage and over all, and the middle is no further off than it is stated to be in docs/models.md.
func TestTheForecastOnOtherPhysics(t *testing.T) {
	var all calibration
	pooled := make([]calibration, len(stages))
	for kind := range fires {
		for i, c := range calibrate(t, kind, 40, 60) {
			pooled[i].pool(c)
			if i > 0 {
				all.pool(c)
			}
		}
	}
	for i := range pooled {
		pooled[i].sum()
		t.Log(stages[i].name, pooled[i])
		in := pooled[i].in
		assert.True(t, 0.7 <= in && in <= 0.9, "%s: %.0f %% lie in the band", stages[i].name, 100*in)
	}
	all.sum()
	t.Log("all that was read", all)
	assert.True(t, 0.7 <= all.in && all.in <= 0.9, "%.0f %% lie in the band", 100*all.in)
	assert.LessOrEqual(t, all.errorOf, 0.18)
	assert.LessOrEqual(t, all.crps, 0.17)
	assert.Less(t, all.after, 0.15, "not all of what is missed ends late")
}

// BenchmarkCalibration prints how the forecast does on two hundred cooks of each kind of fire.
func BenchmarkCalibration(b *testing.B) {
	n := 200
	if v, err := strconv.Atoi(os.Getenv("VERJUICE_COOKS")); err == nil {
		n = v
	}
	for b.Loop() {
		for kind, f := range fires {
			fmt.Println(f.name)
			for i, c := range calibrate(b, kind, n, 200) {
				fmt.Printf("%-13s %s\n", stages[i].name, c)
			}
		}
	}
}

// The same seed is the same fire; a probe lags behind what it measures; an opened lid is seen.
func TestASimulatedFire(t *testing.T) {
	one, two := aTrial(t, 0, 5), aTrial(t, 0, 5)
	for range 30 {
		one.fire.Run(one.set, 7)
		two.fire.Run(two.set, 7)
	}
	assert.Equal(t, one.fire.Core(), two.fire.Core())
	open := aTrial(t, 0, 6)
	open.set.OpenMin = 0
	open.fire.Run(open.set, 59)
	before := open.fire.(*Fire).Pit()
	open.set.OpenMin = 60
	open.fire.Run(open.set, 2)
	assert.Less(t, open.fire.(*Fire).Pit(), before-40)
	hot := open.fire.Core()
	open.fire.Run(open.set, 240)
	assert.Greater(t, open.fire.Core(), hot)
	assert.InDelta(t, open.fire.(*Fire).True(), open.fire.Core(), 12)
}
