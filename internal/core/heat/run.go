package heat

import "math"

// SetPoint is a temperature that the pit is set to, from an hour on.
type SetPoint struct{ AtH, SetC float64 }

// Wrap is put on when the core reaches a temperature, or after so many hours; where both are
// given, whichever is first.
type Wrap struct {
	Kind  string  // foil, paper, pan, boat, bacon; none takes it off again
	CoreC float64 // zero: by the hours alone
	AtH   float64
	PitC  float64 // the pit is set to this then; zero leaves it
}

// Programme is what is done to a piece from when it goes on.
type Programme struct {
	Pit       Pit
	Steps     []SetPoint // at least one; the first is from the start
	Wraps     []Wrap     // in order
	Ambient   Ambient
	OpenMin   float64 // the pit is opened every so often; zero never
	SpritzMin float64 // and so often for a spritz, from two hours on; zero never
	Loose     float64 // what a wrap leaks against the usual
	StartC    float64 // all through, before it stands on the counter
	TemperH   float64 // on the counter before it goes on
	RoomC     float64 // there
}

// Pit is how a kind of pit gives its heat. Figures are field judgement: a fan moves the air,
// a thick wall keeps the weather out.
type Pit struct {
	Convect  float64 // W/m²K
	RecoverS float64 // time constant after the lid was open
	Thin     float64 // how much of the weather it feels
}

// Pits are the kinds of pit, by the ids of the plan.
var Pits = map[string]Pit{
	"pellet": {9.4, 420, 0.7}, "cabinet": {6, 480, 0.7}, "kettle": {6.9, 420, 1}, "drum": {6.9, 420, 1}, "ceramic": {5.6, 420, 0.3},
	"offset": {8.6, 540, 1.2}, "gas": {6, 420, 0.6}, "oven": {6.9, 300, 0},
}

// Ambient is the weather. Wind in m/s.
type Ambient struct {
	AirC, Wind float64
	Rain       bool
}

// Member is what one member of an ensemble differs by: factors, 1 as usual, the pit's error
// in °C, and how often it is opened, per hour, when the cook does not tell.
type Member struct {
	Thick, Convect, Juice, Dry, Leak, Gap, Conduct float64
	PitC, Opened                                   float64
}

// Usual is a member without errors.
var Usual = Member{1, 1, 1, 1, 1, 1, 1, 0, 0}

// Mild is weather in which a pit holds what it is set to, °C.
const Mild = 15.0

const (
	lid      = 0.75   // share of the pit's heat that an open lid lets out
	coolS    = 1500.0 // a pit that is turned down falls with this time constant
	spritzKG = 0.010  // water that a spritz leaves, kg/m²
	firstS   = 7200.0 // of the first spritz: the surface is set by then

	counterH   = 4.5  // convection in still air, W/m²K
	roomVapour = 0.01 // density of vapour in a room, kg/m³
)

// fire is a pit with a piece on it, as time goes.
type fire struct {
	*Programme
	k     Constants
	m     Member
	set   float64
	pit   float64 // °C
	steps int
	wraps int
	wrap  wrapped
	every float64 // opened every so often, s
	open  float64 // next opening, s
	spray float64 // next spritz, s
}

func (p *Programme) light(k Constants, m Member) *fire {
	out := &fire{Programme: p, k: k, m: m, set: p.Steps[0].SetC, steps: 1, open: math.Inf(1), spray: math.Inf(1)}
	if p.OpenMin > 0 {
		out.every = p.OpenMin * 60
		out.open = out.every
	} else if m.Opened > 0 {
		out.every = 3600 / m.Opened
		out.open = out.every
	}
	if p.SpritzMin > 0 {
		out.spray = max(firstS, p.SpritzMin*60)
	}
	out.pit = out.goal()
	return out
}

// goal is what the pit would settle at: what it is set to, its error, and what the weather
// takes.
func (r *fire) goal() float64 {
	loss := r.Pit.Thin * (max(0, Mild-r.Ambient.AirC)*0.004 + r.Ambient.Wind*0.006)
	if r.Ambient.Rain {
		loss += r.Pit.Thin * 0.02
	}
	return r.set + r.m.PitC - loss*max(0, r.set-r.Ambient.AirC)
}

// lift opens the lid.
func (r *fire) lift() { r.pit -= lid * max(0, r.pit-r.Ambient.AirC) }

// happen does what is due at t seconds, from what is known then and nothing later.
func (r *fire) happen(t float64, f *state) {
	for r.steps < len(r.Steps) && t >= r.Steps[r.steps].AtH*3600 {
		r.set = r.Steps[r.steps].SetC
		r.steps++
	}
	for r.wraps < len(r.Wraps) {
		w := r.Wraps[r.wraps]
		if !(w.CoreC > 0 && f.temp[0] >= w.CoreC) && !((w.AtH > 0 || w.CoreC == 0) && t >= w.AtH*3600) {
			break
		}
		was := r.wrap.covers > 0
		r.wrap = r.k.wrap(w.Kind, r.Loose*r.m.Leak, r.m.Gap)
		if was && r.wrap.covers == 0 {
			f.film = r.k.Film
		}
		if w.PitC > 0 {
			r.set = w.PitC
		}
		r.lift()
		r.wraps++
	}
	if t >= r.open {
		r.open += r.every
		r.lift()
	}
	if t >= r.spray {
		r.spray += r.SpritzMin * 60
		if r.wrap.covers < 1 {
			f.film = min(r.k.Film, f.film+spritzKG)
			r.lift()
		}
	}
}

// air of the pit after another dt seconds.
func (r *fire) air(dt float64) air {
	goal, tau := r.goal(), r.Pit.RecoverS
	if r.pit > goal {
		tau = coolS
	}
	r.pit = goal + (r.pit-goal)*math.Exp(-dt/tau)
	rho := r.k.Vapour / (steam * (r.pit + zero))
	sat, _ := saturation(min(r.pit, 120))
	return air{c: r.pit, walls: (r.pit + goal) / 2, h: r.Pit.Convect * r.m.Convect, emit: r.k.Emit, vapour: min(rho, 0.8*sat), wrap: r.wrap}
}

// run follows a piece step by step until seen says that it has seen enough, or for so long.
func (p *Programme) run(b Body, m Member, n int, dt, longestH float64, seen func(h float64, f *state, pitC float64) bool) state {
	k := Defaults
	k.Dry *= m.Dry
	b.HalfM *= m.Thick
	stuff := b.matter(&k)
	stuff.juice *= m.Juice
	stuff.conduct *= m.Conduct
	f := newField(b, n, p.StartC)
	counter := air{c: p.RoomC, walls: p.RoomC, h: counterH, emit: 0.9, vapour: roomVapour, sweat: b.Sweat}
	for t := 0.0; t < p.TemperH*3600; t += dt {
		f.step(&stuff, &k, &counter, dt)
	}
	r := p.light(k, m)
	for t := 0.0; t < longestH*3600; t += dt {
		r.happen(t, &f)
		a := r.air(dt)
		a.sweat = b.Sweat
		f.step(&stuff, &k, &a, dt)
		if !seen((t+dt)/3600, &f, r.pit) {
			break
		}
	}
	return f
}

// wrap of that kind. A pan is foil whose floor takes less heat; a boat is foil below and open
// above; bacon is a wet cover.
func (k *Constants) wrap(kind string, leak, gap float64) wrapped {
	sheet := func(s Sheet) Sheet { return Sheet{s.Emit, s.Gap * gap, min(1, s.Leak*leak)} }
	switch kind {
	case "foil":
		return wrapped{sheet(k.Foil), 1, 0, 1}
	case "paper", "brown-paper":
		return wrapped{sheet(k.Paper), 1, 0, k.Film}
	case "pan":
		return wrapped{sheet(k.Foil), 1, 0.15, 1}
	case "boat":
		return wrapped{sheet(k.Foil), 0.55, 0, 1}
	case "bacon":
		return wrapped{Sheet{k.Emit, k.Foil.Gap, damped}, 1, 0, k.Film}
	}
	return wrapped{}
}
