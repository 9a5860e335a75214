package instrument

import (
	"math"
	"math/rand/v2"

	"verjuice/internal/core/cut"
)

// Columns is a simulated piece whose parts are of unequal thickness and warm each other sideways. A bark
// grows on it and throttles its steam; collagen lets go of water in a second plateau. What decides its
// early hours (thickness, convection, conduction) and what decides its late ones (bark, collagen, wrap,
// fire) are drawn apart, so that an early pace says little of a late one.
type Columns struct {
	burner
	half, shape float64 // of the thickest column, m; 0 slab to 2 cube
	part        [columns]float64
	k, heat     float64 // W/mK, J/m³K
	water       float64 // that setting protein frees, kg/m³
	collagen    float64 // that collagen frees late, kg/m³
	convect     float64 // W/m²K
	emit        float64
	throttle    float64 // of the steam that a full bark holds back
	barkH       float64 // in which a hot surface grows most of it
	probeM      float64 // off the coldest point, m
	gapU, leak  float64 // W/m²K through a wrap, share of steam through it
	reopenH     float64 // a wrap is opened again that long after it came; 0 never

	cells   [columns][columnCells]cell
	film    [columns]float64 // kg/m²
	surface [columns]float64
	bark    float64 // 0 to 1
	seconds float64
	wrapped float64 // s at which it was wrapped; NaN while it is not
}

const (
	columns     = 4
	columnCells = 14
)

// cell is a part of a column: its temperature and what of its water is free.
type cell struct{ temp, set, collagen float64 }

// burner is a pit whose fire cycles, and sags until it is fed.
type burner struct {
	off, cycle, cycleS float64 // °C off, amplitude of the cycle and its length, s
	sag, sagH          float64 // °C that it falls until it is fed, each so many hours
	pit                float64
}

// newBurner of any kind.
func newBurner(r *rand.Rand) burner {
	return burner{
		off: 8 * r.NormFloat64(), cycle: 8 * r.Float64(), cycleS: 900 + 2400*r.Float64(),
		sag: max(0, 6+8*r.NormFloat64()), sagH: 2 + 4*r.Float64(), pit: math.NaN(),
	}
}

// air is the pit after another dt seconds.
func (b *burner) air(s Setting, seconds, dt float64) float64 {
	goal := s.SetC + b.off + b.cycle*math.Sin(2*math.Pi*seconds/b.cycleS)
	if h := seconds / 3600; h > b.sagH { // the first load of fuel is a good one
		goal -= b.sag * math.Mod(h, b.sagH) / b.sagH
	}
	if math.IsNaN(b.pit) {
		b.pit = goal
	}
	if every := s.OpenMin * 60; every > 0 && seconds > 0 && math.Mod(seconds, every) < dt {
		b.pit -= lid * (b.pit - s.AirC)
	}
	tau := 400.0
	if b.pit > goal {
		tau = 1400
	}
	b.pit += (goal - b.pit) * dt / tau
	return b.pit
}

// NewColumns puts a piece on, as NewFire does.
func NewColumns(c cut.Cut, g cut.Geometry, convect, startC float64, seed uint64) *Columns {
	r := rand.New(rand.NewPCG(seed, 0xc01))
	about := func(mid, spread float64) float64 { return mid * math.Exp(spread*r.NormFloat64()) }
	fat, bone := c.FatPercent/100, c.BoneShare()
	f := &Columns{
		burner: newBurner(r), half: about(1.1*believedHalf(c, g), 0.18),
		shape: float64(g.Thickness/g.Length + g.Thickness/g.Width), part: [columns]float64{1, 0.92, 0.78, 0.6},
		k: about(0.45-0.2*fat, 0.06), heat: (3.7 - 1.3*fat - 0.6*bone) * 1e6,
		convect: about(1.1*convect, 0.32), emit: about(0.78, 0.1),
		water: about(95, 0.35) * (1 - fat) * (1 - bone), collagen: about(17, 0.9) * (1 - bone),
		throttle: 0.3 + 0.6*r.Float64(), barkH: about(3, 0.3), probeM: 0.004 * math.Abs(r.NormFloat64()),
		gapU: about(9.8, 0.35), leak: about(0.006, 0.9), wrapped: math.NaN(),
	}
	if r.IntN(3) == 0 {
		f.reopenH = 0.7 + 2*r.Float64()
	}
	for j := range columns {
		f.surface[j] = startC
		for i := range columnCells {
			f.cells[j][i].temp = startC
		}
	}
	return f
}

// Hours is how long it has been on.
func (f *Columns) Hours() float64 { return f.seconds / 3600 }

// Core is what its thermometer reads, °C.
func (f *Columns) Core() float64 {
	at := f.probeM / f.half * columnCells
	i := min(int(at), columnCells-2)
	a, b := f.cells[0][i].temp, f.cells[0][i+1].temp
	return a + (at-float64(i))*(b-a)
}

// Run lets so many minutes pass.
func (f *Columns) Run(s Setting, minutes float64) {
	gap := f.half * f.part[columns-1] / columnCells
	stable := min(10, 0.35*gap*gap*f.heat/f.k)
	for end := f.seconds + minutes*60; f.seconds < end-1e-6; {
		dt := min(stable, end-f.seconds)
		f.air(s, f.seconds, dt)
		if !s.Wrapped {
			f.wrapped = math.NaN()
		} else if math.IsNaN(f.wrapped) {
			f.wrapped = f.seconds
		}
		f.step(dt)
		f.seconds += dt
	}
}

// open reports whether its surface is bare: not wrapped, or opened again for twenty minutes.
func (f *Columns) open() bool {
	if math.IsNaN(f.wrapped) {
		return true
	}
	since := (f.seconds - f.wrapped) / 3600
	return f.reopenH > 0 && since > f.reopenH && since < f.reopenH+0.35
}

func (f *Columns) step(dt float64) {
	was := f.cells
	for j := range columns {
		half := f.half * f.part[j]
		gap := half / columnCells
		freed, inner := 0.0, 0.0
		for i := range columnCells {
			c := &f.cells[j][i]
			out := float64(i+1) / columnCells
			in := float64(i) / columnCells
			volume := half * (math.Pow(out, 1+f.shape) - math.Pow(in, 1+f.shape)) / (1 + f.shape)
			outer := 0.0
			if i == columnCells-1 {
				outer = 2 * f.k / gap * (was[j][i].temp - f.surface[j])
			} else {
				outer = f.k / gap * math.Pow(out, f.shape) * (was[j][i].temp - was[j][i+1].temp)
			}
			flow := inner - outer
			for _, beside := range [2]int{j - 1, j + 1} { // sideways, over a width of the thickest column
				if beside >= 0 && beside < columns {
					flow += f.k * volume / (1.6 * f.half * f.half) * (was[beside][i].temp - was[j][i].temp)
				}
			}
			free, taken := c.release(dt, f.water, f.collagen)
			freed += free * volume
			c.temp += (flow*dt/volume - taken) / f.heat
			inner = outer
		}
		f.film[j] = min(0.05, f.film[j]+freed)
		f.outside(j, 2*f.k/gap, dt)
	}
	if f.surface[0] > 60 && f.open() {
		f.bark += (1 - f.bark) * dt / 3600 / f.barkH
	}
}

// release is the water that a cell lets go in dt seconds, kg/m³, and the heat that it takes, J/m³.
func (c *cell) release(dt, water, collagen float64) (free, taken float64) {
	if want := min(1, max(0, (c.temp-50)/32)); want > c.set {
		d := (want - c.set) * dt / 3000
		c.set += d
		free, taken = d*water, d*14e6
	}
	if c.temp > 66 {
		d := (1 - c.collagen) * dt / 3600 * 0.25 * math.Exp((c.temp-80)/8)
		c.collagen += d
		free, taken = free+d*collagen, taken+d*collagen*5e5
	}
	return free, taken
}

// outside finds the surface temperature of a column, and takes what evaporates off its film.
func (f *Columns) outside(j int, inwards, dt float64) {
	under := f.cells[j][columnCells-1].temp
	rho := func(t float64) float64 { return 611.2 * math.Exp(17.62*t/(243.12+t)) / (461.5 * (t + 273.15)) }
	wet := f.film[j] / (f.film[j] + 0.01)
	open := f.open()
	through := wet * (1 - f.throttle*f.bark) * f.convect / 900
	if !open {
		through = f.leak * f.convect / 900
	}
	low, high := -10.0, max(f.pit, 100)+20
	e := 0.0
	for range 28 {
		mid := (low + high) / 2
		e = through * max(0, rho(mid)-0.018)
		heat := f.gapU * (f.pit - mid)
		if open {
			hot, cold := f.pit-3+273.15, mid+273.15
			heat = f.convect*(f.pit-mid) + f.emit*5.67e-8*(hot*hot*hot*hot-cold*cold*cold*cold)
			e = min(e, f.film[j]/dt+0.02*f.convect/900*max(0, rho(mid)-0.018))
		}
		if heat-2.3e6*e-inwards*(mid-under) > 0 {
			low = mid
		} else {
			high = mid
		}
	}
	f.surface[j] = (low + high) / 2
	f.film[j] = max(0, f.film[j]-e*dt)
}
