package heat

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/thermal"
)

// anyCook is a cook that makes sense: any cut, weight, pit, and what is done to it.
func anyCook(t testing.TB, r *rand.Rand) Cook {
	all := cut.All()
	c := all[r.IntN(len(all))]
	g, err := cut.New(c, quantity.Mass(c.LowKG+(c.HighKG-c.LowKG)*r.Float64()), 0)
	require.NoError(t, err)
	p := Programme{
		Pit: gear.Pits[r.IntN(len(gear.Pits))].Heat, Steps: []SetPoint{{0, 100 + 80*r.Float64()}}, Loose: 1,
		StartC: 2 + 15*r.Float64(), Ambient: Ambient{AirC: -10 + 40*r.Float64(), Wind: 8 * r.Float64(), Rain: r.IntN(4) == 0},
	}
	if r.IntN(2) == 0 {
		p.Steps = append(p.Steps, SetPoint{1 + 4*r.Float64(), 100 + 80*r.Float64()})
	}
	if r.IntN(2) == 0 {
		p.Wraps = []Wrap{
			{Kind: []string{"foil", "paper", "pan", "boat", "bacon"}[r.IntN(5)], When: atCore(55 + 25*r.Float64())},
		}
	}
	if r.IntN(3) == 0 {
		p.OpenMin = 30 + 60*r.Float64()
	}
	if r.IntN(3) == 0 {
		p.Visits = spritzed(20 + 60*r.Float64())
	}
	out := Cook{Cut: c, Geometry: g, Programme: p}
	out.Judged()
	return out
}

// Whatever is cooked, what came in through the surface less what evaporated, and what was put in to meet a reading,
// is what is in the meat, to 1e-9; temperatures stay between the coldest and the hottest thing about, juice is
// never taken back, and water that left is water that was there.
func TestEnergyAndWaterAddUp(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 7))
	for range 60 {
		c := anyCook(t, r)
		b := thermal.NewBody(c.Cut, c.Geometry, thermal.Defaults)
		m := b.Matter(&thermal.Defaults)
		start := thermal.NewField(b, thermal.Cells, c.Programme.StartC)
		hottest := c.Programme.Steps[0].SetC
		for _, s := range c.Programme.Steps {
			hottest = max(hottest, s.SetC)
		}
		last := start
		hold := &held{later: Usual, needs: 1.2}
		for h := 1.0; r.IntN(3) > 0 && h < 10; h += 1 + 2*r.Float64() {
			hold.read = append(hold.read, Reading{AtH: h, CoreC: 10 + 8*h + 10*r.Float64()})
		}
		watch := func(h float64, f *thermal.State, _ *fire) bool {
			for i := range f.N {
				within := f.Temp[i] > -20 && f.Temp[i] < max(hottest, 115)+1
				require.True(t, within, "%s: %.1f °C after %.2f h", c.Cut.ID, f.Temp[i], h)
				require.GreaterOrEqual(t, f.Juice[i], last.Juice[i])
			}
			require.True(t, f.Film >= 0 && f.Soft >= last.Soft && (h < 1 || f.Gone >= last.Gone))
			last = *f
			return true
		}
		end, _ := c.Programme.held(b, Usual, thermal.Cells, 60, 14, 0.05, hold, watch)
		held, before := 0.0, 0.0
		for i := range end.N {
			held += end.Volume[i] * (m.Enthalpy(end.Temp[i]) + end.Carry[i])
			before += end.Volume[i] * m.Enthalpy(start.Temp[i])
		}
		assert.InDelta(t, end.In-end.Out+end.Held, held-before, 1e-9*end.In, c.Cut.ID)
		assert.InDelta(t, end.Gone*thermal.Latent, end.Out, 1e-9*end.Out)
	}
}

// goesOn never ends a run.
func goesOn(float64, *thermal.State, *fire) bool { return true }

// body is the piece as heat sees it.
func (c Cook) body() thermal.Body { return thermal.NewBody(c.Cut, c.Geometry, thermal.Defaults) }

// Nothing acts before it happens: until a wrap, a raised pit or a first opening, the core is
// the same to the last bit.
func TestNothingActsBeforeItHappens(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 9))
	for range 20 {
		c := anyCook(t, r)
		c.Programme.Wraps, c.Programme.Steps, c.Programme.OpenMin = nil, c.Programme.Steps[:1], 0
		curve := func(p Programme) (out []float64) {
			p.run(
				thermal.NewBody(c.Cut, c.Geometry, thermal.Defaults),
				Usual,
				thermal.Cells,
				60,
				12,
				func(_ float64, f *thermal.State, _ *fire) bool {
					out = append(out, f.Temp[0])
					return true
				},
			)
			return out
		}
		bare := curve(c.Programme)
		for name, change := range map[string]func(p *Programme){
			"wrapped at a core":   func(p *Programme) { p.Wraps = []Wrap{{Kind: "foil", When: atCore(60)}} },
			"wrapped after hours": func(p *Programme) { p.Wraps = []Wrap{{Kind: "paper", When: afterHours(3), PitC: 150}} },
			"raised":              func(p *Programme) { p.Steps = append(p.Steps[:1:1], SetPoint{3, 180}) },
			"opened":              func(p *Programme) { p.OpenMin = 180 },
		} {
			p := c.Programme
			change(&p)
			other := curve(p)
			for i := range bare {
				if h := float64(i+1) / 60; h > 3 || name == "wrapped at a core" && bare[max(0, i-1)] >= 60 {
					break
				}
				require.Equal(t, bare[i], other[i], "%s %s, step %d", c.Cut.ID, name, i)
			}
		}
	}
}

// A thicker piece is never quicker, a hotter pit never slower, foil never slower than paper,
// paper never slower than an open surface, more openings never quicker.
func TestWhatIsNeverQuicker(t *testing.T) {
	// The lid is open while a piece is wrapped, and a big piece is dry by then: 1 % either way.
	within := 1e-9
	r := rand.New(rand.NewPCG(8, 1))
	for range 60 {
		c := anyCook(t, r)
		c.Programme.Wraps, c.Programme.Visits, c.Programme.OpenMin = nil, nil, 0
		c.Programme.Steps = []SetPoint{{0, 115 + 40*r.Float64()}}
		b := thermal.NewBody(c.Cut, c.Geometry, thermal.Defaults)
		reach := func(b thermal.Body, m Member, change func(p *Programme)) []float64 {
			p := c.Programme
			change(&p)
			cores := []float64{45, 60, 75, 85}
			out := make([]float64, len(cores))
			i := 0
			p.run(b, m, thermal.Cells, 60, 40, func(h float64, f *thermal.State, _ *fire) bool {
				for i < len(cores) && f.Temp[0] >= cores[i] {
					out[i] = h
					i++
				}
				return i < len(cores)
			})
			for ; i < len(cores); i++ {
				out[i] = math.Inf(1)
			}
			return out
		}
		notQuicker := func(name string, slow, quick []float64) {
			for i := range slow {
				assert.GreaterOrEqual(t, slow[i]*(1+within), quick[i], "%s: %s", c.Cut.ID, name)
			}
		}
		none := func(*Programme) {}
		usual := reach(b, Usual, none)
		thick := Usual
		thick.Thick = 1.1
		notQuicker("thicker", reach(b, thick, none), usual)
		notQuicker("hotter", usual, reach(b, Usual, func(p *Programme) { p.Steps = []SetPoint{{0, p.Steps[0].SetC + 10}} }))
		notQuicker("opened", reach(b, Usual, func(p *Programme) { p.OpenMin = 60 }), usual)
		in := func(kind string) []float64 {
			return reach(b, Usual, func(p *Programme) { p.Wraps = []Wrap{{Kind: kind, When: atCore(68)}} })
		}
		if c.Cut.Family == cut.Collagen || c.Cut.Family == cut.Rack {
			open := in("none")
			within = 0.01
			notQuicker("paper against foil", in("paper")[3:], in("foil")[3:])
			notQuicker("open against paper", open[3:], in("paper")[3:])
			within = 1e-9
		}
	}
}

// The stall is the surface's doing: where nothing evaporates the core does not slow down.
func TestTheStallComesOutOfTheBalance(t *testing.T) {
	c := envelope[2].cook(t)
	slow := func(m Member) float64 {
		quickest, slowest := math.Inf(1), 0.0
		last, lastH := 0.0, 0.0
		next := 50.0
		c.Programme.run(
			thermal.NewBody(c.Cut, c.Geometry, thermal.Defaults),
			m,
			thermal.Cells,
			60,
			40,
			func(h float64, f *thermal.State, _ *fire) bool {
				if f.Temp[0] >= next {
					if lastH > 0 {
						quickest, slowest = min(quickest, h-lastH), max(slowest, h-lastH)
					}
					last, lastH = f.Temp[0], h
					next += 5
				}
				_ = last
				return next <= 80
			},
		)
		return slowest / quickest
	}
	parched := Usual
	parched.Juice, parched.Dry = 1e-6, 1e-6
	assert.Greater(t, slow(Usual), 2.4)
	assert.Less(t, slow(parched), 1.6)
}

// What members are computed with is 1 to 2 % off a grid that is finer in both.
func TestTheGridOfMembers(t *testing.T) {
	for _, a := range envelope {
		if a.to == 0 {
			continue
		}
		c := a.cook(t)
		hours := func(n int, dt float64) (out float64) {
			c.Programme.run(
				thermal.NewBody(c.Cut, c.Geometry, thermal.Defaults),
				Usual,
				n,
				dt,
				40,
				func(h float64, f *thermal.State, _ *fire) bool {
					out = h
					return f.Temp[0] < a.to
				},
			)
			return out
		}
		fine := hours(thermal.Cells, 15)
		assert.InEpsilon(t, fine, hours(memberCells, memberStep), 0.03, a.name)
		assert.InEpsilon(t, fine, hours(thermal.Cells, 60), 0.015, a.name)
	}
}

func TestSteppingAllocatesNothing(t *testing.T) {
	c := envelope[2].cook(t)
	b := thermal.NewBody(c.Cut, c.Geometry, thermal.Defaults)
	once := testing.AllocsPerRun(3, func() {
		c.Programme.run(b, Usual, thermal.Cells, 60, 1, func(float64, *thermal.State, *fire) bool { return true })
	})
	long := testing.AllocsPerRun(3, func() {
		c.Programme.run(b, Usual, thermal.Cells, 60, 16, func(float64, *thermal.State, *fire) bool { return true })
	})
	assert.Equal(t, once, long)
}

func BenchmarkSixteenHours(b *testing.B) {
	c := envelope[2].cook(b)
	body := thermal.NewBody(c.Cut, c.Geometry, thermal.Defaults)
	for b.Loop() {
		c.Programme.run(body, Usual, thermal.Cells, 60, 16, func(float64, *thermal.State, *fire) bool { return true })
	}
}

func BenchmarkTwoHundredMembers(b *testing.B) {
	c := envelope[2].cook(b)
	for b.Loop() {
		if _, err := Of(b.Context(), c, Ask{}); err != nil {
			b.Fatal(err)
		}
	}
}

// pitHeat is how a kind of pit gives its heat.
func pitHeat(kind string) gear.Heat {
	pit, _ := gear.FindPit(kind)
	return pit.Heat
}

func BenchmarkTwelveReadings(b *testing.B) {
	c := envelope[2].cook(b)
	f, err := Of(b.Context(), c, Ask{})
	if err != nil {
		b.Fatal(err)
	}
	a := Ask{}
	for i := range fewest {
		h := 0.5 * float64(i+1)
		a.Readings = append(a.Readings, Reading{AtH: h, CoreC: f.Curve[int(h/every)].Core.Mid})
	}
	for b.Loop() {
		if _, err := Of(b.Context(), c, a); err != nil {
			b.Fatal(err)
		}
	}
}
