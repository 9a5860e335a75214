package instrument

import (
	"math"
	"math/rand/v2"

	"verjuice/internal/core/cut"
)

// Fire is a simulated piece on a simulated pit: what a thermometer would read of it. Its
// physics are on purpose not those of the forecast: the surface dries inwards to a front from
// which steam has to find its way out, protein sets by first-order kinetics, the pit drifts,
// and the probe lags and sits off the coldest place. What is true of it is hidden; the same
// seed gives the same fire.
type Fire struct {
	half, shape float64 // m, and 0 slab to 2 cube
	k, heat     float64 // W/mK, J/m³K
	water       float64 // that setting protein frees, kg/m³
	convect     float64 // W/m²K
	emit        float64
	crust       float64 // through which steam passes, m²/s
	loose       float64 // water in what dries, kg/m³
	offC        float64 // the pit's error
	drift       [3]float64
	phase       [3]float64
	probe       float64 // share of the way out at which it sits
	lagS        float64
	foil, leak  float64 // W/m²K through a wrap, share of steam through it

	temp, free [fireCells]float64
	volume     [fireCells]float64
	face       [fireCells]float64
	surface    float64
	front      float64 // depth to which it is dry, m
	pit        float64
	read       float64
	seconds    float64
	wrapped    bool
	thick, hot float64 // the truth over what is believed: thickness, and heat from the air
	late       *late   // of a turning one
	burner     *burner // of a turning one, instead of a drift
	collagen   [fireCells]float64
}

const fireCells = 32

// Setting is what a cook does to a simulated fire.
type Setting struct {
	SetC    float64
	AirC    float64
	Wrapped bool // in foil
	OpenMin float64
}

// NewFire puts a piece on. The thickest point in m and the convection, W/m²K, are what a cook
// believes; the truth is drawn around them.
func NewFire(c cut.Cut, g cut.Geometry, convect, startC float64, seed uint64) *Fire {
	r := rand.New(rand.NewPCG(seed, 0xf12e))
	about := func(mid, spread float64) float64 { return mid * math.Exp(spread*r.NormFloat64()) }
	half := believedHalf(c, g)
	fat, bone := c.FatPercent/100, c.BoneShare()
	f := &Fire{
		half: about(half, 0.14), shape: float64(g.Thickness/g.Length + g.Thickness/g.Width),
		k: about(0.46-0.2*fat, 0.06), heat: (3.65-1.3*fat-0.6*bone)*1e6 + 0.15e6,
		water: about(105, 0.3) * (1 - fat) * (1 - bone), convect: about(convect, 0.25), emit: about(0.62, 0.1),
		crust: about(0.75e-6, 0.4), loose: 240, offC: 6 * r.NormFloat64(), probe: 0.12 * r.Float64(), lagS: about(60, 0.4),
		foil: about(7.3, 0.2), leak: about(0.004, 0.8), pit: math.NaN(),
	}
	f.thick, f.hot = f.half/half, f.convect/convect
	for i := range f.drift {
		f.drift[i], f.phase[i] = 2.5*r.NormFloat64(), 2*math.Pi*r.Float64()
	}
	for i := range fireCells {
		in, out := float64(i)/fireCells, float64(i+1)/fireCells
		f.volume[i] = f.half * (math.Pow(out, 1+f.shape) - math.Pow(in, 1+f.shape)) / (1 + f.shape)
		f.face[i] = math.Pow(out, f.shape)
		f.temp[i] = startC
	}
	f.surface, f.read = startC, startC
	return f
}

// believedHalf is the way from the surface to the coldest place as a cook believes it to be, m.
func believedHalf(c cut.Cut, g cut.Geometry) float64 {
	half := 1.1 * float64(g.Thickness) / 2 / g.Spread
	if !c.Hollow() {
		half *= math.Pow(float64(g.Thickest/g.Thickness), 0.3)
	}
	if c.Weak() {
		half *= 1.25
	}
	return half
}

// late is what a fire's later hours are, whatever its early ones were.
type late struct {
	plateau float64 // water that collagen frees, kg/m³
	turnC   float64 // at which the thermometer reads so, the rest begins:
	hot     float64 // heat from the air, over that of before
	crust   float64 // way of the steam, over that of before
	grows   float64 // bark: how much narrower that way gets an hour
	reopenH float64 // a wrap is opened again that long after it came; 0 never
	turned  bool
	shutS   float64 // s at which it was wrapped
}

// NewTurning puts a piece on whose late hours have nothing to do with its early ones: its air, crust and
// bark are drawn again on the way, its fire cycles and sags, collagen makes a second plateau, and a wrap
// is sometimes opened again.
func NewTurning(c cut.Cut, g cut.Geometry, convect, startC float64, seed uint64) *Fire {
	f := NewFire(c, g, convect, startC, seed)
	r := rand.New(rand.NewPCG(seed, 0x7042))
	about := func(mid, spread float64) float64 { return mid * math.Exp(spread*r.NormFloat64()) }
	f.late = &late{
		plateau: about(11, 0.6) * (1 - c.BoneShare()), turnC: 58 + 8*r.Float64(), hot: about(1, 0.2),
		crust: about(1, 0.4), grows: about(0.06, 0.7),
	}
	f.crust, f.emit, f.water, f.foil = 0.6*f.crust, 1.15*f.emit, 0.8*f.water, 1.25*f.foil
	if r.IntN(3) == 0 {
		f.late.reopenH = 0.7 + 2*r.Float64()
	}
	b := newBurner(r)
	b.off = f.offC
	f.burner = &b
	return f
}

// turn is what the late hours change, once they have come.
func (f *Fire) turn(dt float64) {
	l := f.late
	if l == nil {
		return
	}
	if !l.turned && f.read > l.turnC {
		l.turned = true
		f.convect, f.crust = f.convect*l.hot, f.crust*l.crust
	}
	if l.turned && !f.wrapped {
		f.crust *= math.Exp(-l.grows * dt / 3600)
	}
}

// OnPit puts f on a pit of its own seed, so that every piece that is ever put on that pit shares what
// is hidden of it: how far it runs off, how much it drifts, and how well its air gives heat. When it
// drifts is another matter each time.
func (f *Fire) OnPit(seed uint64) *Fire {
	r := rand.New(rand.NewPCG(seed, 0x917))
	usual := f.convect / f.hot
	f.hot = math.Exp(0.25 * r.NormFloat64())
	f.convect, f.offC = usual*f.hot, 6*r.NormFloat64()
	for i := range f.drift {
		f.drift[i] = 2.5 * r.NormFloat64()
	}
	return f
}

// Truth is what is hidden of a simulated fire.
type Truth struct {
	PitOff float64 // °C that the pit runs off what it is set to, over the hours
	Thick  float64 // thickness over what was believed
	Hot    float64 // how well the air gives heat, over what was believed
}

// Truth is what is hidden of f.
func (f *Fire) Truth() Truth { return Truth{f.offC, f.thick, f.hot} }

// Hours is how long it has been on.
func (f *Fire) Hours() float64 { return f.seconds / 3600 }

// Core is what its thermometer reads, °C; True is the coldest place itself.
func (f *Fire) Core() float64 { return f.read }

// True is the coldest place itself, °C.
func (f *Fire) True() float64 { return f.temp[0] }

// Pit is what the pit really is at, °C.
func (f *Fire) Pit() float64 { return f.pit }

// Run lets so many minutes pass.
func (f *Fire) Run(s Setting, minutes float64) {
	gap := f.half / fireCells
	stable := min(10, 0.4*gap*gap*f.heat/f.k) // s, as an explicit step has to be
	for end := f.seconds + minutes*60; f.seconds < end-1e-6; {
		dt := min(stable, end-f.seconds)
		f.air(s, dt)
		f.step(dt)
		f.seconds += dt
	}
}

// Rest lets so many minutes pass off the fire, in air that is at airC, or so far under the meat's
// own surface where that is warmer: it warms the box that it lies in.
func (f *Fire) Rest(airC, under float64, wrapped bool, minutes float64) {
	off, drift := f.offC, f.drift
	f.offC, f.drift = 0, [3]float64{}
	f.pit = math.Max(airC, f.surface-under)
	f.Run(Setting{SetC: f.pit, AirC: airC, Wrapped: wrapped}, minutes)
	f.offC, f.drift = off, drift
}

// lid is the share of the pit's heat that an open lid lets out.
const lid = 0.75

// Lift opens the lid for a moment.
func (f *Fire) Lift(airC float64) {
	if !math.IsNaN(f.pit) {
		f.pit -= lid * (f.pit - airC)
	}
}

// air moves the pit: it drifts in slow waves, falls when it is opened and comes back.
func (f *Fire) air(s Setting, dt float64) {
	if f.burner != nil {
		f.pit = f.burner.air(s, f.seconds, dt)
		if l := f.late; s.Wrapped && l.reopenH > 0 { // for twenty minutes
			if l.shutS == 0 {
				l.shutS = f.seconds
			}
			since := (f.seconds - l.shutS) / 3600
			s.Wrapped = since < l.reopenH || since > l.reopenH+0.35
		}
		f.wrap(s)
		f.turn(dt)
		return
	}
	goal := s.SetC + f.offC
	for i, d := range f.drift {
		goal += d * math.Sin(f.phase[i]+2*math.Pi*f.seconds/3600/[]float64{0.7, 2.3, 6}[i])
	}
	if math.IsNaN(f.pit) {
		f.pit = goal
	}
	if every := s.OpenMin * 60; every > 0 && f.seconds > 0 && math.Mod(f.seconds, every) < dt {
		f.Lift(s.AirC)
	}
	tau := 450.0
	if f.pit > goal {
		tau = 1500
	}
	f.pit += (goal - f.pit) * dt / tau
	f.wrap(s)
}

// wrap puts it in foil or takes it out.
func (f *Fire) wrap(s Setting) {
	if s.Wrapped && !f.wrapped {
		f.front = 0
	}
	f.wrapped = s.Wrapped
}

// step conducts explicitly, small step by small step.
func (f *Fire) step(dt float64) {
	gap := f.half / fireCells
	g := f.k / gap
	freed := 0.0
	var flow [fireCells + 1]float64
	for i := 1; i < fireCells; i++ {
		flow[i] = g * f.face[i-1] * (f.temp[i-1] - f.temp[i])
	}
	flow[fireCells] = 2 * g * (f.temp[fireCells-1] - f.surface)
	for i := range fireCells {
		sink := 0.0
		// Water that protein no longer holds: more of it the hotter, at a rate of its own.
		if want := min(1, max(0, (f.temp[i]-52)/30)); want > f.free[i] {
			d := (want - f.free[i]) * dt / 3300
			f.free[i] += d
			freed += d * f.water * f.volume[i]
			sink = d * 15e6 / dt
		}
		if f.late != nil && f.temp[i] > 66 {
			d := (1 - f.collagen[i]) * dt / 3600 * 0.25 * math.Exp((f.temp[i]-80)/8)
			f.collagen[i] += d
			freed += d * f.late.plateau * f.volume[i]
			sink += d * f.late.plateau * 5e5 / dt
		}
		f.temp[i] += dt * ((flow[i]-flow[i+1])/f.volume[i] - sink) / f.heat
	}
	steam := f.outside(2 * g)
	if !f.wrapped {
		f.front = max(0, f.front+(steam*dt-freed)/f.loose)
	}
	at := f.probe * fireCells
	i := min(int(at), fireCells-2)
	real := f.temp[i] + (at-float64(i))*(f.temp[i+1]-f.temp[i])
	f.read += (real - f.read) * dt / f.lagS
}

// outside finds the surface temperature by bisection, and returns the steam, kg/m²s.
func (f *Fire) outside(inwards float64) float64 {
	vapour := 0.018
	steam := func(t float64) float64 {
		p := 611.2 * math.Exp(17.62*t/(243.12+t))
		return p/(461.5*(t+273.15)) - vapour
	}
	balance := func(t float64) (heat, e float64) {
		if f.wrapped {
			return f.foil * (f.pit - t), f.leak * f.convect / 900 * max(0, steam(t))
		}
		e = steam(t) / (900/f.convect + f.front/f.crust)
		hot, cold := f.pit-4+273.15, t+273.15
		return f.convect*(f.pit-t) + f.emit*5.67e-8*(hot*hot*hot*hot-cold*cold*cold*cold), e
	}
	low, high := -10.0, max(f.pit, 100)+20
	e := 0.0
	for range 30 {
		mid := (low + high) / 2
		var heat float64
		heat, e = balance(mid)
		if heat-2.3e6*e-inwards*(mid-f.temp[fireCells-1]) > 0 {
			low = mid
		} else {
			high = mid
		}
	}
	f.surface = (low + high) / 2
	return e
}
