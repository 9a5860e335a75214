package heat

import (
	"math"
	"slices"

	"verjuice/internal/core/gear"
	"verjuice/internal/core/thermal"
	"verjuice/internal/core/when"
)

// SetPoint is a temperature that the pit is set to, from an hour on.
type SetPoint struct{ AtH, SetC float64 }

// Wrap is put on at a moment.
type Wrap struct {
	Kind string // foil, paper, pan, boat, bacon; none takes it off again
	When when.When
	PitC float64 // the pit is set to this then; zero leaves it
	// It does not come before that, h: what has not been done by now is done from now on.
	NotBeforeH float64
}

// Visit is somebody who opens the pit for a look, a spritz or a baste, once or again and again.
type Visit struct {
	when.Every
	Shut bool // nobody opens the pit for it
	Wets bool // the surface; in a full wrap there is none, and the lid stays shut
}

// Programme is what is done to a piece from when it goes on.
type Programme struct {
	Pit     gear.Heat
	Steps   []SetPoint // at least one; the first is from the start
	Wraps   []Wrap     // in order
	Visits  []Visit    // at most MostVisits
	Ambient Ambient
	Skies   []Spell    // the weather later on, in order
	OpenMin float64    // the pit is opened every so often; zero never
	PitRead []SetPoint // what a thermometer beside the piece has read of the pit, in order
	Loose   float64    // what a wrap leaks against the usual
	Shine   float64    // what foil takes up of the heat against the usual; zero is as usual
	StartC  float64    // all through, before it stands on the counter
	TemperH float64    // on the counter before it goes on
	RoomC   float64    // there
	Sugar   float64    // share of the coat; it browns sooner
	Seen    SeenBark
}

// SeenBark is what a cook saw of a bark, h: it was set by then, and not until then. Zero is nothing.
type SeenBark struct{ SetH, NotH float64 }

// Ambient is the weather. Wind in m/s.
type Ambient struct {
	AirC, Wind float64
	Rain       bool
}

// Spell is weather from an hour on.
type Spell struct {
	AtH float64
	Ambient
}

// Member is what one member of an ensemble differs by: factors, 1 as usual, the pit's error
// in °C, and how often it is opened, per hour, when the cook does not tell.
type Member struct {
	Thick, Convect, Juice, Dry, Leak, Gap, Conduct float64
	PitC, Opened                                   float64
	Tender                                         float64 // hours in which it softens
	Colour                                         float64 // pace at which it browns
}

// Usual is a member without errors.
var Usual = Member{1, 1, 1, 1, 1, 1, 1, 0, 0, 1, 1}

// Mild is weather in which a pit holds what it is set to, °C.
const Mild = 15.0

const (
	lid      = 0.75   // share of the pit's heat that an open lid lets out
	coolS    = 1500.0 // a pit that is turned down falls with this time constant
	spritzKG = 0.010  // water that a spritz leaves, kg/m²

	counterH   = 4.5  // convection in still air, W/m²K
	roomVapour = 0.01 // density of vapour in a room, kg/m³
)

// fire is a pit with a piece on it, as time goes.
type fire struct {
	*Programme
	k     thermal.Constants
	m     Member
	set   float64
	pit   float64 // °C
	steps int
	sky   Ambient // the weather now
	skies int
	wraps int
	wrap  thermal.Wrapped
	every float64 // opened every so often, s
	open  float64 // next opening, s
	t     float64 // s
	read  int     // of PitRead
	off   float64 // how far what was read is from what the pit was set to, °C

	wrapped []float64 // when each wrap came, h
	visits  []visited
	bark    float64 // when it set, h
	colour  float64 // of the surface: 1 is a bark, or golden skin
}

// visited is how a visit stands.
type visited struct {
	began, ended float64 // h
	next         float64 // s
}

// within is p with each moment somewhere in the range that was said for it, −1 to 1.
func (p Programme) within(share float64) Programme {
	p.Wraps, p.Visits = slices.Clone(p.Wraps), slices.Clone(p.Visits)
	for i := range p.Wraps {
		p.Wraps[i].When = p.Wraps[i].When.Within(share)
	}
	for i := range p.Visits {
		v := &p.Visits[i].Every
		v.From, v.Until = v.From.Within(share), v.Until.Within(share)
	}
	return p
}

func (p *Programme) light(k thermal.Constants, m Member) *fire {
	never := math.Inf(1)
	out := &fire{
		Programme: p, k: k, m: m, set: p.Steps[0].SetC, steps: 1, sky: p.Ambient, open: never, bark: never,
		wrapped: make([]float64, len(p.Wraps)), visits: make([]visited, len(p.Visits)),
	}
	for i := range out.visits {
		out.visits[i] = visited{began: never, ended: never}
	}
	for i := range out.wrapped {
		out.wrapped[i] = never
	}
	if p.OpenMin > 0 {
		out.every = p.OpenMin * 60
		out.open = out.every
	} else if m.Opened > 0 {
		out.every = 3600 / m.Opened
		out.open = out.every
	}
	out.off = p.readOff()
	out.pit = out.goal()
	return out
}

// By which share of what makes a piece soft its fat has rendered, and its bones show: field judgement.
const fatIndex, bonesIndex = 0.5, 0.7

// now is what can be seen h hours in, with that core temperature.
func (r *fire) now(h, core float64, f *thermal.State) when.Now {
	out := when.Now{
		CoreC: core, Hours: h, Wrapped: -1, Unwrapped: -1, Soft: f.Soft >= 1, Fat: f.Soft >= fatIndex,
		Bones: f.Soft >= bonesIndex,
		Bark:  h >= r.bark, Colour: h >= r.bark && r.colour >= dark,
	}
	out.Surface = out.Bark || h > 0 && f.Surface > dryC && f.Wet < dryWet
	for i := range r.wraps {
		if r.Wraps[i].Kind == "none" {
			out.Unwrapped = h - r.wrapped[i]
		} else {
			out.Wrapped = h - r.wrapped[i]
		}
	}
	return out
}

// A surface has set when it is warm and no longer wet: field judgement.
const dryC, dryWet = 55.0, 0.35

// A bark is a dry surface that has browned: colour by time at surface temperature, of the first order,
//
//	dc/dt = (1 − w)·e^(−E/R·(1/T_s − 1/348 K)) / barkH
//
// with the wetness w, so that a spritz delays it; a bark at c = 1, dark at c = 1.6. The hours are fitted to the
// envelope in docs/models.md, E is at the lower end of browning's (100 to 130 kJ/mol). Skin is golden sooner than
// meat is dark; sugar browns, and an oven has no smoke: field judgement.
const (
	barkH     = 1.29 // of a dry surface at 75 °C, h
	barkFromC = 50.0
	dark      = 1.6
	golden    = 1.75
	smokeless = 0.8
	breathes  = 3.0 // a wrap lets this many times the share of steam through that leaves it, for colour
)

// brown lets a surface brown for dt seconds, until h, and keeps what was seen of it.
func (r *fire) brown(f *thermal.State, skin bool, h, dt float64) {
	if f.Surface > barkFromC {
		pace := r.m.Colour * (0.9 + 0.5*min(1, r.Sugar)) * max(0, 1-f.Wet) * r.k.Browns(f.Surface)
		if skin {
			pace *= golden
		}
		if r.Pit.Smokeless {
			pace *= smokeless
		}
		if c := r.wrap.Covers; c > 0 {
			pace *= 1 - c + c*min(1, breathes*r.wrap.Leak)
		}
		r.colour += pace * dt / 3600 / barkH
	}
	switch seen := r.Seen; {
	case h <= seen.NotH:
		r.colour, r.bark = min(r.colour, notYet), math.Inf(1)
	case seen.SetH > 0 && h < seen.SetH:
	case seen.SetH > 0 && math.IsInf(r.bark, 1):
		r.colour, r.bark = max(1, r.colour), seen.SetH
	case r.colour >= 1 && math.IsInf(r.bark, 1):
		r.bark = h
	}
}

// notYet is the most colour of a bark that was seen to scratch off.
const notYet = 0.9

// goal is what the pit would settle at: what it is set to, its error, and what the weather
// takes.
func (r *fire) goal() float64 {
	loses := r.loss(r.sky)
	if n := len(r.PitRead); n > 0 { // the weather until then is in what was read
		return r.set + r.off + r.m.PitC - loses + r.loss(r.skyAt(r.PitRead[n-1].AtH))
	}
	return r.set + r.m.PitC - loses
}

// loss is what weather takes of the pit, °C.
func (r *fire) loss(sky Ambient) float64 {
	share := max(0, Mild-sky.AirC)*0.004 + sky.Wind*0.006
	if sky.Rain {
		share += 0.02
	}
	return r.Pit.Thin * share * max(0, r.set-sky.AirC)
}

// skyAt is the weather at an hour.
func (p *Programme) skyAt(h float64) Ambient {
	out := p.Ambient
	for _, s := range p.Skies {
		if s.AtH <= h {
			out = s.Ambient
		}
	}
	return out
}

// lift opens the lid.
func (r *fire) lift() { r.pit -= lid * max(0, r.pit-r.sky.AirC) }

// happen does what is due at t seconds, from what is known then and nothing later.
func (r *fire) happen(t float64, f *thermal.State) {
	for r.steps < len(r.Steps) && t >= r.Steps[r.steps].AtH*3600 {
		r.set = r.Steps[r.steps].SetC
		r.steps++
	}
	for r.skies < len(r.Skies) && t >= r.Skies[r.skies].AtH*3600 {
		r.sky = r.Skies[r.skies].Ambient
		r.skies++
	}
	now := r.now(t/3600, f.Temp[0], f)
	r.t = t
	for r.wraps < len(r.Wraps) && t/3600 >= r.Wraps[r.wraps].NotBeforeH && r.Wraps[r.wraps].When.Met(now) {
		w := r.Wraps[r.wraps]
		was := r.wrap.Covers > 0
		r.wrap = r.k.Wrap(w.Kind, r.Loose*r.m.Leak, r.m.Gap)
		if was && r.wrap.Covers == 0 {
			f.Film = r.k.Film
		}
		if w.PitC > 0 {
			r.set = w.PitC
		}
		r.lift()
		r.wrapped[r.wraps] = t / 3600
		r.wraps++
		now = r.now(t/3600, f.Temp[0], f)
	}
	if t >= r.open {
		r.open += r.every
		r.lift()
	}
	for i := range r.Visits {
		r.visit(i, t, now, f)
	}
}

// visit is what visit i does t seconds in.
func (r *fire) visit(i int, t float64, now when.Now, f *thermal.State) {
	v, stands := &r.Visits[i], &r.visits[i]
	if t/3600 >= stands.ended || math.IsInf(stands.began, 1) && !v.From.Met(now) {
		return
	}
	if math.IsInf(stands.began, 1) {
		stands.began, stands.next = t/3600, t
	}
	if !v.Until.None() && v.Until.Met(now) {
		stands.ended = t / 3600
		return
	}
	if t < stands.next {
		return
	}
	if stands.next += v.Each.Seconds(); v.Each == 0 {
		stands.ended = t / 3600
	}
	if v.Shut || v.Wets && r.wrap.Covers == 1 {
		return
	}
	if v.Wets {
		f.Film = min(r.k.Film, f.Film+spritzKG)
	}
	r.lift()
}

// air of the pit after another dt seconds.
func (r *fire) air(dt float64) thermal.Air {
	goal, tau := r.goal(), r.Pit.RecoverS
	if r.pit > goal {
		tau = coolS
	}
	r.pit = goal + (r.pit-goal)*math.Exp(-dt/tau)
	if c, ok := r.reading(r.t); ok {
		r.pit, goal = c, c
	}
	rho := r.k.Vapour / (thermal.Steam * (r.pit + thermal.Zero))
	sat, _ := thermal.Saturation(min(r.pit, 120))
	return thermal.Air{
		C:      r.pit,
		Walls:  (r.pit + goal) / 2,
		H:      r.Pit.Convect * r.m.Convect,
		Emit:   r.k.Emit,
		Vapour: min(rho, 0.8*sat),
		Wrap:   r.wrap,
	}
}

// run follows a piece step by step until seen says that it has seen enough, or for so long.
func (p *Programme) run(
	b thermal.Body,
	m Member,
	n int,
	dt, longestH float64,
	seen func(h float64, f *thermal.State, r *fire) bool,
) (thermal.State, *fire) {
	return p.held(b, m, n, dt, longestH, 0, nil, seen)
}

// held is run with the core, so far off the coldest place, held to what was read; hold may be nil.
func (p *Programme) held(
	b thermal.Body,
	m Member,
	n int,
	dt, longestH, off float64,
	hold *held,
	seen func(h float64, f *thermal.State, r *fire) bool,
) (thermal.State, *fire) {
	k := thermal.Defaults
	if p.Shine > 0 {
		k.Foil.Emit *= p.Shine
	}
	usual := b.Matter(&k)
	b.HalfM *= m.Thick
	stuff := m.matter(usual)
	f := thermal.NewField(b, n, p.StartC)
	counter := thermal.Air{C: p.RoomC, Walls: p.RoomC, H: counterH, Emit: 0.9, Vapour: roomVapour, Sweat: b.Sweat}
	wet := k.Dry
	k.Dry = wet * m.Dry
	for t := 0.0; t < p.TemperH*3600; t += dt {
		f.Step(&stuff, &k, &counter, dt)
	}
	r := p.light(k, m)
	needs := 1.0
	for t := 0.0; t < longestH*3600; t += dt {
		r.happen(t, &f)
		a := r.air(dt)
		a.Sweat = b.Sweat
		before, h := f.At(off), (t+dt)/3600
		f.Step(&stuff, &k, &a, dt/needs)
		f.Soften(&k, b.TenderH*r.m.Tender, dt)
		r.brown(&f, b.Skin, h, dt)
		for hold.due(h) {
			hold.set(&f, &stuff, off, t/3600, before, h)
			r.undo(h, f.At(off), &f)
			if hold.over() {
				stuff, needs, k.Dry = hold.later.matter(usual), hold.needs, wet*hold.later.Dry
				r.become(hold.later)
			}
		}
		if !seen(h, &f, r) {
			break
		}
	}
	return f, r
}

// matter is what a member's meat is.
func (m Member) matter(usual thermal.Matter) thermal.Matter {
	usual.Juice *= m.Juice
	usual.Conduct *= m.Conduct
	return usual
}

// become makes another member of the fire.
func (r *fire) become(m Member) {
	r.m = m
	if r.wraps > 0 {
		r.wrap = r.k.Wrap(r.Wraps[r.wraps-1].Kind, r.Loose*m.Leak, m.Gap)
	}
}

// undo takes wraps off again whose moment had not come by what was read.
func (r *fire) undo(h, core float64, f *thermal.State) {
	for r.wraps > 0 && !r.Wraps[r.wraps-1].When.Met(r.now(h, core, f)) {
		r.wraps--
		r.wrapped[r.wraps] = math.Inf(1)
		r.wrap = thermal.Wrapped{}
		if r.wraps > 0 {
			r.wrap = r.k.Wrap(r.Wraps[r.wraps-1].Kind, r.Loose*r.m.Leak, r.m.Gap)
		}
	}
}
