package thermal

import (
	"math"

	"verjuice/internal/core/cut"
)

// Cells is how finely a piece is cut from its middle to its surface, at most.
const Cells = 20

// State is a piece at one moment. It is a value: stepping it allocates nothing.
type State struct {
	N            int
	Temp         [Cells]float64 // °C, from the coldest plane outwards
	Juice        [Cells]float64 // let go so far, kg per kg of lean
	Carry        [Cells]float64 // enthalpy that the linear step left over, J/m³
	Volume, face [Cells]float64 // of a cell and its outer side, per m² of surface
	gap          float64        // between the middles of cells, m
	Surface      float64        // °C
	Film         float64        // water on the surface, kg/m²
	Wet          float64        // wetness of the surface in the last step
	In           float64        // heat that reached the surface, J/m²
	Out          float64        // heat spent there on evaporation, J/m²
	Held         float64        // heat that was put in by hand, to meet what was read, J/m²
	Gone         float64        // water evaporated, kg/m²
	Dripped      float64        // juice that dripped off, kg/m²
	Soft         float64        // tenderness at the coldest plane; 1 is soft
}

func NewField(b Body, n int, startC float64) State {
	f := State{N: n, gap: b.HalfM / float64(n), Surface: startC}
	for i := range n {
		in, out := float64(i)/float64(n), float64(i+1)/float64(n)
		f.Volume[i] = b.HalfM * (math.Pow(out, 1+b.Shape) - math.Pow(in, 1+b.Shape)) / (1 + b.Shape)
		f.face[i] = math.Pow(out, b.Shape)
		f.Temp[i] = startC
	}
	return f
}

// Air is what is around a piece during a step.
type Air struct {
	C      float64 // °C
	Walls  float64 // that it radiates to, °C
	H      float64 // convection, W/m²K
	Emit   float64 // emissivity of the bare surface
	Vapour float64 // density of vapour, kg/m³
	Sweat  float64 // of what a bare surface evaporates
	Wrap   Wrapped
}

// Wrapped is what a wrap does. The zero value is none.
type Wrapped struct {
	Sheet
	Covers float64 // share of the surface under it
	Shut   float64 // share of that which takes no heat: the floor of a pan
	Holds  float64 // juice that stays inside, kg/m²
}

// Step moves the piece on by dt seconds. Conduction is implicit, eliminated from the middle
// outwards, so that the outermost cell is linear in the surface temperature; that is found by
// Newton's method from the balance at the surface
//
//	h·(T_air − T_s) + ε·σ·(T_walls⁴ − T_s⁴) = conduction inwards + λ·E
//	E = w·(h/(ρcₚ·Le^⅔))·(ρ_sat(T_s) − ρ_vapour)
//
// with the wetness w = w₀ + (1 − w₀)·film/cap, and the film at the end of the step.
func (f *State) Step(m *Matter, k *Constants, a *Air, dt float64) {
	released := f.release(m, k, dt)
	var old, p, q [Cells]float64 // temp[i] = p[i] + q[i]·temp[i+1]
	n, g, inner := f.N, m.Conduct/f.gap, 0.0
	for i := range n {
		old[i] = f.Temp[i]
		c := m.capacity(old[i]) * f.Volume[i] / dt
		outer := g * f.face[i]
		if i == n-1 {
			outer = 2 * g
		}
		diag, rhs := c+inner+outer, c*old[i]+f.Carry[i]*f.Volume[i]/dt
		if i > 0 {
			diag, rhs = diag-inner*q[i-1], rhs+inner*p[i-1]
		}
		p[i], q[i] = rhs/diag, outer/diag
		inner = outer
	}
	s := surface{
		a: a, k: k, flow: 2 * g * (1 - q[n-1]), base: 2 * g * p[n-1],
		mass: a.H / (airHeat * lewis) * a.Sweat, film: f.Film + released, dt: dt,
	}
	evaporates := s.solve(&f.Surface)
	f.Wet = s.wet
	inwards := s.flow*f.Surface - s.base
	f.In += (inwards + Latent*evaporates) * dt
	f.Out += Latent * evaporates * dt
	f.Gone += evaporates * dt
	f.Film = max(0, s.film-(evaporates-s.fromMeat)*dt)
	holds := k.Film
	if a.Wrap.Covers > 0 {
		holds = a.Wrap.Holds
	}
	if f.Film > holds {
		f.Dripped += f.Film - holds
		f.Film = holds
	}
	next := f.Surface
	for i := n - 1; i >= 0; i-- {
		next = p[i] + q[i]*next
		f.Temp[i] = next
		f.Carry[i] = m.capacity(old[i])*(next-old[i]) - (m.Enthalpy(next) - m.Enthalpy(old[i]))
	}
}

// Soften lets dt seconds soften the coldest plane as it is now: one in tenderH hours at 95 °C.
func (f *State) Soften(k *Constants, tenderH, dt float64) {
	f.Soft += dt / 3600 / tenderH * math.Exp(-k.TenderE/gas*(1/(f.Temp[0]+Zero)-1/(95+Zero)))
}

// Browns is the pace at which a dry surface browns at c °C, over that at 75 °C.
func (k *Constants) Browns(c float64) float64 {
	return math.Exp(-k.ColourE / gas * (1/(c+Zero) - 1/(75+Zero)))
}

// Hold moves the core by d °C and what is around it by d·(1 − x²), x from 0 at the coldest plane to 1 at the
// surface. The heat that it puts in or takes out is booked as Held.
func (f *State) Hold(m *Matter, d float64) {
	for i := range f.N {
		x := (float64(i) + 0.5) / float64(f.N)
		was := m.Enthalpy(f.Temp[i])
		f.Temp[i] += d * (1 - x*x)
		f.Held += f.Volume[i] * (m.Enthalpy(f.Temp[i]) - was)
	}
}

// tight is a temperature under which lean meat keeps its juice: a thousandth of it goes, °C.
const tight = 25.0

// release lets juice go towards the surface, kg per m² of it: each kilo of lean towards what
// it holds no longer at its temperature, and never takes it back.
func (f *State) release(m *Matter, k *Constants, dt float64) float64 {
	out := 0.0
	if m.Juice == 0 {
		return 0
	}
	for i := range f.N {
		if f.Temp[i] < tight {
			continue
		}
		if d := m.Juice/(1+math.Exp(-k.JuiceK*(f.Temp[i]-k.JuiceC))) - f.Juice[i]; d > 0 {
			d *= dt / (dt + k.JuiceTau)
			f.Juice[i] += d
			out += d * m.Lean * f.Volume[i]
		}
	}
	return out
}

// surface is the balance of heat at the surface during a step.
type surface struct {
	a          *Air
	k          *Constants
	flow, base float64 // conduction inwards is flow·T_s − base, W/m²
	mass       float64 // transfer of vapour, m/s
	film, dt   float64

	wet      float64 // wetness that was found
	fromMeat float64 // evaporation that the film does not feed, kg/m²s
}

// solve finds the surface temperature from where it was, and returns what evaporates, kg/m²s.
func (s *surface) solve(ts *float64) float64 {
	evaporates := 0.0
	for range 20 {
		heat, dheat, e, de := s.balance(*ts)
		evaporates = e
		d := (heat - Latent*e - s.flow**ts + s.base) / (dheat - Latent*de - s.flow)
		d = min(15, max(-15, d))
		*ts -= d
		if math.Abs(d) < 1e-10 {
			break
		}
	}
	return evaporates
}

// balance is the heat that reaches a surface at ts, W/m², what evaporates from it, kg/m²s,
// and how both change with ts.
func (s *surface) balance(ts float64) (heat, dheat, e, de float64) {
	a, k := s.a, s.k
	rho, slope := Saturation(ts)
	x, dx := s.mass*(rho-a.Vapour), s.mass*slope
	open := 1 - a.Wrap.Covers
	s.fromMeat = 0
	if open > 0 {
		w, dw := 1.0, 0.0 // dew falls on a cold piece whatever it is wet with
		if x > 0 {
			w, dw = s.wetness(x, dx, 1-k.Dry)
			w, dw = k.Dry+(1-k.Dry)*w, (1-k.Dry)*dw
			s.fromMeat = open * k.Dry * x
		}
		s.wet = w
		e, de = open*w*x, open*(w*dx+dw*x)
		t, walls := ts+Zero, a.Walls+Zero
		heat = open * (a.H*(a.C-ts) + a.Emit*sigma*(walls*walls*walls*walls-t*t*t*t))
		dheat = open * (-a.H - 4*a.Emit*sigma*t*t*t)
	}
	if c := a.Wrap.Covers; c > 0 {
		// Above 100 °C steam lifts the wrap.
		leak, dleak := a.Wrap.Leak, 0.0
		if ts > 100 {
			leak, dleak = leak+0.02*(ts-100), 0.02
		}
		if x > 0 {
			w, dw := s.wetness(x, dx, a.Wrap.Leak)
			e += c * leak * w * x
			de += c * (leak*w*dx + dleak*w*x + leak*dw*x)
		}
		if open == 0 {
			s.wet = leak
		}
		mean := (a.Walls+ts)/2 + Zero
		u := c * (1 - a.Wrap.Shut) / (1/(a.H+a.Wrap.Emit*4*sigma*mean*mean*mean) + a.Wrap.Gap)
		heat += u * (a.C - ts)
		dheat -= u
	}
	return heat, dheat, e, de
}

// wetness is how wet the surface is at the end of the step if a share of what a wet surface
// evaporates, x, comes from its film.
func (s *surface) wetness(x, dx, share float64) (w, dw float64) {
	dried := s.dt * share / s.k.Film
	w = s.film / (s.k.Film * (1 + dried*x))
	if w > 1 {
		return 1, 0
	}
	return w, -w * dried * dx / (1 + dried*x)
}

// At is the temperature so far from the coldest plane, as a share of the way out.
func (f *State) At(off float64) float64 {
	x := off*float64(f.N) - 0.5
	if x <= 0 {
		return f.Temp[0]
	}
	i := min(int(x), f.N-2)
	return f.Temp[i] + (x-float64(i))*(f.Temp[i+1]-f.Temp[i])
}

// Mean is the temperature averaged over the piece, °C.
func (f *State) Mean() float64 {
	sum, volume := 0.0, 0.0
	for i := range f.N {
		sum += f.Temp[i] * f.Volume[i]
		volume += f.Volume[i]
	}
	return sum / volume
}

// Lost is what the lean has lost, as a share of its weight, averaged over the piece.
func (f *State) Lost() float64 {
	sum, volume := 0.0, 0.0
	for i := range f.N {
		sum += cut.LossAt(f.Temp[i]) * f.Volume[i]
		volume += f.Volume[i]
	}
	return sum / volume
}
