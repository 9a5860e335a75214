package heat

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"verjuice/internal/core/gear"
	"verjuice/internal/core/when"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/thermal"
)

// programme is a fire as anybody might plan it.
func programme(r *rand.Rand) Programme {
	p := Programme{
		Pit:     gear.Pits[r.IntN(len(gear.Pits))].Heat,
		Steps:   []SetPoint{{0, 80 + 140*r.Float64()}},
		Loose:   1,
		StartC:  1 + 15*r.Float64(),
		Ambient: Ambient{AirC: -10 + 35*r.Float64(), Wind: 8 * r.Float64()},
	}
	for h := 1.0; r.IntN(2) == 0 && h < 12; h += 1 + 3*r.Float64() {
		p.Steps = append(p.Steps, SetPoint{h, 80 + 140*r.Float64()})
	}
	for core := 45.0; r.IntN(2) == 0 && core < 90; core += 10 + 15*r.Float64() {
		p.Wraps = append(
			p.Wraps,
			Wrap{
				Kind: []string{"foil", "paper", "pan", "boat", "none"}[r.IntN(5)],
				When: atCore(core),
				PitC: []float64{0, 0, 150}[r.IntN(3)],
			},
		)
	}
	if r.IntN(3) == 0 {
		p.OpenMin = 30 + 90*r.Float64()
	}
	if r.IntN(3) == 0 {
		p.Visits = spritzed(30 + 60*r.Float64())
	}
	for r.IntN(2) == 0 {
		p.Visits = append(
			p.Visits,
			Visit{
				when.Every{
					Each:  time.Duration(r.IntN(90)) * time.Minute,
					From:  moment(r),
					Until: []when.When{{}, moment(r)}[r.IntN(2)],
				},
				r.IntN(4) == 0,
				r.IntN(2) == 0,
			},
		)
	}
	if r.IntN(3) == 0 {
		p.TemperH, p.RoomC = 2*r.Float64(), 15+10*r.Float64()
	}
	return p
}

// moment is anything that may be waited for.
func moment(r *rand.Rand) when.When {
	one := func() when.Cond {
		switch r.IntN(4) {
		case 0:
			return when.Cond{CoreC: quantity.Celsius(40 + 50*r.Float64())}
		case 1:
			return when.Cond{Sign: []when.Sign{when.Surface, when.Bark, when.Colour, when.Soft}[r.IntN(4)]}
		case 2:
			return when.Cond{Of: []string{"on", "wrap", "unwrap"}[r.IntN(3)], By: time.Duration(r.IntN(120)) * time.Minute}
		}
		return when.Cond{After: time.Duration(1+r.IntN(600)) * time.Minute}
	}
	out := when.At(one())
	if r.IntN(2) == 0 {
		out.Second, out.Both = one(), r.IntN(2) == 0
	}
	return out
}

// some is a piece of any cut.
func some(t testing.TB, r *rand.Rand) (cut.Cut, cut.Geometry) {
	c := cut.All()[r.IntN(len(cut.All()))]
	g, err := cut.New(c, quantity.Mass(c.LowKG+(c.HighKG-c.LowKG)*r.Float64()), 0)
	require.NoError(t, err)
	return c, g
}

// track is the core every minute of so many hours.
func track(p *Programme, b thermal.Body, m Member, hours float64) []float64 {
	var out []float64
	p.run(b, m, thermal.Cells, 60, hours, func(_ float64, f *thermal.State, _ *fire) bool {
		out = append(out, f.Temp[0])
		return true
	})
	return out
}

// Whatever is planned, nothing acts before it happens: two fires that are the same until an
// hour are the same until then to the last bit, and no number is out of the world.
func TestNothingActsBeforeItHappensInAnyFire(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 141))
	for n := range 80 {
		c, g := some(t, r)
		b := thermal.NewBody(c, g, thermal.Defaults)
		one := programme(r)
		at := 0.5 + 5*r.Float64()
		other := one
		other.Steps = slices.DeleteFunc(slices.Clone(one.Steps), func(s SetPoint) bool { return s.AtH >= at })
		other.Steps = append(other.Steps, SetPoint{at, 70 + 150*r.Float64()})
		one.Steps = slices.DeleteFunc(slices.Clone(one.Steps), func(s SetPoint) bool { return s.AtH >= at })
		x, y := track(&one, b, Usual, 8), track(&other, b, Usual, 8)
		until := int(at*60) - 1
		assert.Equal(t, x[:until], y[:until], "%s, fire %d", c.ID, n)
		for i, v := range x {
			require.False(t, math.IsNaN(v) || v < -20 || v > 320, "%s after %d min: %g", c.ID, i, v)
		}
	}
}

// Whatever a method waits for, a move that is added changes nothing before it is made; and both
// of two moments are no earlier than either.
func TestAMoveChangesNothingBeforeIt(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 88))
	made := 0
	for range 80 {
		c, g := some(t, r)
		b := thermal.NewBody(c, g, thermal.Defaults)
		one := programme(r)
		for i := range one.Wraps {
			one.Wraps[i].When = moment(r)
		}
		more := one
		if r.IntN(2) == 0 {
			more.Visits = append(slices.Clone(one.Visits), Visit{when.Every{From: moment(r)}, false, r.IntN(2) == 0})
		} else {
			more.Wraps = append(slices.Clone(one.Wraps), Wrap{Kind: "foil", When: moment(r)})
		}
		at := math.Inf(1) // when the added move is made
		more.run(b, Usual, thermal.Cells, 60, 10, func(_ float64, _ *thermal.State, f *fire) bool {
			if len(more.Wraps) > len(one.Wraps) {
				at = f.wrapped[len(f.wrapped)-1]
			} else {
				at = f.visits[len(f.visits)-1].began
			}
			return true
		})
		x, y := track(&one, b, Usual, 10), track(&more, b, Usual, 10)
		until := len(x)
		if !math.IsInf(at, 1) {
			made++
			until = int(math.Round(at * 60))
		}
		require.Equal(t, x[:until], y[:until], "%s, made after %g h", c.ID, at)
	}
	assert.Greater(t, made, 20)
	for range 40 {
		c, g := some(t, r)
		first, second := moment(r).First, moment(r).First
		reached := func(w when.When) float64 {
			p := Programme{
				Pit:    pitHeat("cabinet"),
				Steps:  []SetPoint{{0, 120}},
				Loose:  1,
				StartC: 4,
				Wraps:  []Wrap{{Kind: "foil", When: w}},
			}
			_, f := p.run(
				thermal.NewBody(c, g, thermal.Defaults),
				Usual,
				thermal.Cells,
				60,
				12,
				func(float64, *thermal.State, *fire) bool { return true },
			)
			return f.wrapped[0]
		}
		a, b := reached(when.At(first)), reached(when.At(second))
		assert.InDelta(t, math.Min(a, b), reached(when.When{First: first, Second: second}), 1e-9)
		assert.GreaterOrEqual(t, reached(when.When{First: first, Second: second, Both: true}), math.Max(a, b))
	}
}

// A wrap acts from its core temperature on, whatever it is: until then the piece is as one that
// is never wrapped.
func TestAWrapActsFromThenOn(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 26))
	for range 40 {
		c, g := some(t, r)
		b := thermal.NewBody(c, g, thermal.Defaults)
		bare := programme(r)
		bare.Wraps = nil
		wrapped := bare
		at := 40 + 35*r.Float64()
		wrapped.Wraps = []Wrap{{Kind: []string{"foil", "paper", "pan", "boat"}[r.IntN(4)], When: atCore(at)}}
		x, y := track(&bare, b, Usual, 10), track(&wrapped, b, Usual, 10)
		for i := range x {
			if x[i] >= at {
				break
			}
			require.Equal(t, x[i], y[i], "%s after %d min, wrapped at %.0f °C", c.ID, i, at)
		}
	}
}

// Heat adds up in every fire: what came through the surface is in the piece, to 1e-9 of it.
func TestEnergyInAnyFire(t *testing.T) {
	r := rand.New(rand.NewPCG(58, 97))
	for range 60 {
		c, g := some(t, r)
		b := thermal.NewBody(c, g, thermal.Defaults)
		p := programme(r)
		p.TemperH = 0
		m := b.Matter(&thermal.Defaults)
		start := thermal.NewField(b, thermal.Cells, p.StartC)
		before := 0.0
		for i := range start.N {
			before += m.Enthalpy(start.Temp[i]) * start.Volume[i]
		}
		end, _ := p.run(
			b,
			Usual,
			thermal.Cells,
			60,
			1+8*r.Float64(),
			func(float64, *thermal.State, *fire) bool { return true },
		)
		after, left := 0.0, 0.0
		for i := range end.N {
			after += m.Enthalpy(end.Temp[i]) * end.Volume[i]
			left += end.Carry[i] * end.Volume[i]
		}
		gained := end.In - end.Out
		assert.InDelta(t, 0, (after-before+left-gained)/math.Max(1, math.Abs(end.In)), 1e-9, c.ID)
	}
}

// Thicker is never quicker, hotter never slower, colder weather never quicker, opened never
// quicker: on any cut, in any fire without a wrap. The visits go by the clock: one that waits
// for the bark comes later to a slower piece, which may then be the earlier for it.
func TestMoreIsNeverTheOtherWay(t *testing.T) {
	r := rand.New(rand.NewPCG(27, 18))
	reach := func(p *Programme, b thermal.Body, m Member, core float64) float64 {
		at := math.Inf(1)
		last, lastH := p.StartC, 0.0
		p.run(b, m, thermal.Cells, 60, 30, func(h float64, f *thermal.State, _ *fire) bool {
			if f.Temp[0] >= core {
				at = crossing(lastH, last, h, f.Temp[0], core)
				return false
			}
			last, lastH = f.Temp[0], h
			return true
		})
		return at
	}
	compared := 0
	for range 60 {
		c, g := some(t, r)
		b := thermal.NewBody(c, g, thermal.Defaults)
		p := programme(r)
		p.Wraps, p.OpenMin = nil, 0
		for i := range p.Visits {
			every := &p.Visits[i].Every
			every.From, every.Until = when.At(when.Cond{After: time.Duration(1+r.IntN(300)) * time.Minute}), when.When{}
		}
		core := 50 + 25*r.Float64()
		usual := reach(&p, b, Usual, core)
		thick := b
		thick.HalfM *= 1.1
		hot := p
		hot.Steps = slices.Clone(p.Steps)
		for i := range hot.Steps {
			hot.Steps[i].SetC += 12
		}
		cold := p
		cold.Ambient.AirC -= 15
		opened := p
		opened.OpenMin = 45
		if !math.IsInf(usual, 1) {
			compared++
		}
		const slack = 0.02 // of a step or two
		for name, slower := range map[string]float64{"thicker": reach(&p, thick, Usual, core),
			"colder": reach(&cold, b, Usual, core), "opened": reach(&opened, b, Usual, core)} {
			assert.GreaterOrEqual(t, slower+slack, usual, "%s %s to %.0f °C", c.ID, name, core)
		}
		assert.LessOrEqual(t, reach(&hot, b, Usual, core), usual+slack, "%s hotter to %.0f °C", c.ID, core)
	}
	assert.Greater(t, compared, 30)
}

// Members are drawn again the same by their seed, from any number of processors, and more of
// them say the same of the middle.
func TestEnsemblesAgree(t *testing.T) {
	c := envelope[4].cook(t)
	of := func(members int, seed uint64) Forecast {
		f, err := Of(t.Context(), c, Ask{Members: members, Seed: seed, Cores: []float64{60, 74}})
		require.NoError(t, err)
		return f
	}
	one, again := of(100, 5), of(100, 5)
	assert.Equal(t, one.Hours, again.Hours)
	assert.Equal(t, fmt.Sprintf("%+v", one.Done), fmt.Sprintf("%+v", again.Done))
	for _, other := range []Forecast{of(100, 6), of(400, 5), of(60, 1)} {
		assert.InEpsilon(t, one.Done.Mid, other.Done.Mid, 0.08)
		assert.InEpsilon(t, one.Reach[1].Mid, other.Reach[1].Mid, 0.08)
	}
	assert.Len(t, one.Hours, 100)
	low := 0
	for _, h := range one.Hours {
		if h < one.Done.Low {
			low++
		}
	}
	assert.InDelta(t, 10, low, 1)
}
