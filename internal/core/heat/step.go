package heat

import "math"

// cells is how finely a piece is cut from its middle to its surface, at most.
const cells = 20

// state is a piece at one moment. It is a value: stepping it allocates nothing.
type state struct {
	n            int
	temp         [cells]float64 // °C, from the coldest plane outwards
	juice        [cells]float64 // let go so far, kg per kg of lean
	carry        [cells]float64 // enthalpy that the linear step left over, J/m³
	volume, face [cells]float64 // of a cell and its outer side, per m² of surface
	gap          float64        // between the middles of cells, m
	surface      float64        // °C
	film         float64        // water on the surface, kg/m²
	wet          float64        // wetness of the surface in the last step
	in           float64        // heat that reached the surface, J/m²
	out          float64        // heat spent there on evaporation, J/m²
	gone         float64        // water evaporated, kg/m²
	dripped      float64        // juice that dripped off, kg/m²
	soft         float64        // tenderness at the coldest plane; 1 is soft
}

func newField(b Body, n int, startC float64) state {
	f := state{n: n, gap: b.HalfM / float64(n), surface: startC}
	for i := range n {
		in, out := float64(i)/float64(n), float64(i+1)/float64(n)
		f.volume[i] = b.HalfM * (math.Pow(out, 1+b.Shape) - math.Pow(in, 1+b.Shape)) / (1 + b.Shape)
		f.face[i] = math.Pow(out, b.Shape)
		f.temp[i] = startC
	}
	return f
}

// air is what is around a piece during a step.
type air struct {
	c      float64 // °C
	walls  float64 // that it radiates to, °C
	h      float64 // convection, W/m²K
	emit   float64 // emissivity of the bare surface
	vapour float64 // density of vapour, kg/m³
	sweat  float64 // of what a bare surface evaporates
	wrap   wrapped
}

// wrapped is what a wrap does. The zero value is none.
type wrapped struct {
	Sheet
	covers float64 // share of the surface under it
	shut   float64 // share of that which takes no heat: the floor of a pan
	holds  float64 // juice that stays inside, kg/m²
}

// step moves the piece on by dt seconds. Conduction is implicit, eliminated from the middle
// outwards, so that the outermost cell is linear in the surface temperature; that is found by
// Newton's method from the balance at the surface
//
//	h·(T_air − T_s) + ε·σ·(T_walls⁴ − T_s⁴) = conduction inwards + λ·E
//	E = w·(h/(ρcₚ·Le^⅔))·(ρ_sat(T_s) − ρ_vapour)
//
// with the wetness w = w₀ + (1 − w₀)·film/cap, and the film at the end of the step.
func (f *state) step(m *matter, k *Constants, a *air, dt float64) {
	released := f.release(m, k, dt)
	var old, p, q [cells]float64 // temp[i] = p[i] + q[i]·temp[i+1]
	n, g, inner := f.n, m.conduct/f.gap, 0.0
	for i := range n {
		old[i] = f.temp[i]
		c := m.capacity(old[i]) * f.volume[i] / dt
		outer := g * f.face[i]
		if i == n-1 {
			outer = 2 * g
		}
		diag, rhs := c+inner+outer, c*old[i]+f.carry[i]*f.volume[i]/dt
		if i > 0 {
			diag, rhs = diag-inner*q[i-1], rhs+inner*p[i-1]
		}
		p[i], q[i] = rhs/diag, outer/diag
		inner = outer
	}
	s := surface{
		a: a, k: k, flow: 2 * g * (1 - q[n-1]), base: 2 * g * p[n-1],
		mass: a.h / (airHeat * lewis) * a.sweat, film: f.film + released, dt: dt,
	}
	evaporates := s.solve(&f.surface)
	f.wet = s.wet
	inwards := s.flow*f.surface - s.base
	f.in += (inwards + latent*evaporates) * dt
	f.out += latent * evaporates * dt
	f.gone += evaporates * dt
	f.film = max(0, s.film-(evaporates-s.fromMeat)*dt)
	holds := k.Film
	if a.wrap.covers > 0 {
		holds = a.wrap.holds
	}
	if f.film > holds {
		f.dripped += f.film - holds
		f.film = holds
	}
	next := f.surface
	for i := n - 1; i >= 0; i-- {
		next = p[i] + q[i]*next
		f.temp[i] = next
		f.carry[i] = m.capacity(old[i])*(next-old[i]) - (m.enthalpy(next) - m.enthalpy(old[i]))
	}
	f.soft += dt / 3600 / k.Tender * math.Exp(-k.TenderE/gas*(1/(f.temp[0]+zero)-1/(95+zero)))
}

// tight is a temperature under which lean meat keeps its juice: a thousandth of it goes, °C.
const tight = 25.0

// release lets juice go towards the surface, kg per m² of it: each kilo of lean towards what
// it holds no longer at its temperature, and never takes it back.
func (f *state) release(m *matter, k *Constants, dt float64) float64 {
	out := 0.0
	if m.juice == 0 {
		return 0
	}
	for i := range f.n {
		if f.temp[i] < tight {
			continue
		}
		if d := m.juice/(1+math.Exp(-k.JuiceK*(f.temp[i]-k.JuiceC))) - f.juice[i]; d > 0 {
			d *= dt / (dt + k.JuiceTau)
			f.juice[i] += d
			out += d * m.lean * f.volume[i]
		}
	}
	return out
}

// surface is the balance of heat at the surface during a step.
type surface struct {
	a          *air
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
		d := (heat - latent*e - s.flow**ts + s.base) / (dheat - latent*de - s.flow)
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
	rho, slope := saturation(ts)
	x, dx := s.mass*(rho-a.vapour), s.mass*slope
	open := 1 - a.wrap.covers
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
		t, walls := ts+zero, a.walls+zero
		heat = open * (a.h*(a.c-ts) + a.emit*sigma*(walls*walls*walls*walls-t*t*t*t))
		dheat = open * (-a.h - 4*a.emit*sigma*t*t*t)
	}
	if c := a.wrap.covers; c > 0 {
		// Above 100 °C steam lifts the wrap.
		leak, dleak := a.wrap.Leak, 0.0
		if ts > 100 {
			leak, dleak = leak+0.02*(ts-100), 0.02
		}
		if x > 0 {
			w, dw := s.wetness(x, dx, a.wrap.Leak)
			e += c * leak * w * x
			de += c * (leak*w*dx + dleak*w*x + leak*dw*x)
		}
		if open == 0 {
			s.wet = leak
		}
		mean := (a.walls+ts)/2 + zero
		u := c * (1 - a.wrap.shut) / (1/(a.h+a.wrap.Emit*4*sigma*mean*mean*mean) + a.wrap.Gap)
		heat += u * (a.c - ts)
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
