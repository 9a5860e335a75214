package heat

import (
	"context"
	"math"
	"math/rand/v2"
	"slices"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/thermal"
	"verjuice/internal/core/when"
)

// Cook is a piece on a pit, from when it goes on.
type Cook struct {
	Cut       cut.Cut // with its finish
	Geometry  cut.Geometry
	Programme Programme
	Measured  bool      // the thickness was measured
	DoneC     float64   // core temperature at which it is taken off; zero when it is judged by feel alone
	DoneOff   float64   // half of the range that was said for DoneC, °C
	PitOff    float64   // half of the range that was said for what the pit is set to, °C
	Feel      bool      // it is done only when it is soft
	Off       when.When // what it is done by, where that is more than DoneC and Feel; else none
	Piece     uint64    // tells pieces on one pit apart
	Learnt    Learnt    // of its pit, by earlier cooks
	UndoneH   float64   // up to then it was read not to be done, h
}

// Reading is a core temperature that was read.
type Reading struct {
	AtH, CoreC float64
	ByEye      bool // with a thermometer that is put in and read
}

// Ask is what is wanted of a forecast.
type Ask struct {
	Cores    []float64 // °C
	Readings []Reading
	Bark     SeenBark // what was seen of its bark
	Members  int
	Seed     uint64
	// Tightness says that the cook has told how tight the wrap is: less is left to guess.
	Tightness bool
	KnowsPit  bool // the kind of pit was told
	KnowsLid  bool // that it stays shut was told
}

// Forecast is what an ensemble says of a cook.
type Forecast struct {
	Reach  []Band    // hours to each core temperature; infinite when a member never gets there
	Done   Band      // hours
	Hours  []float64 // to done, member by member; infinite for one that never is
	Curve  []Point
	Yield  Band   // served meat, share of the trimmed weight
	Soft   Band   // tenderness when it is done: 1 is soft
	Carry  Band   // how far the core rises after it is off, °C
	Stall  Band   // hours at which the core is slowest between 55 and 85 °C
	Bark   Band   // hours to a dry, dark surface
	Wraps  []Band // hours to each wrap
	Visits []Band // and until each visit begins
	Ends   []Band // and until it is over; infinite where it goes on until the piece is off
	// What a cook could measure or tell, and what each would take off the band of Done.
	Narrows []Narrowing
}

// Point is the core at one time.
type Point struct {
	H    float64
	Core Band
	PitC float64
}

// Longest is how long a cook is followed, h.
const Longest = 36

// Each member is computed on a coarser grid than one cook by itself: 1 % off.
const (
	memberCells = 12
	memberStep  = 120.0
)

// path is what a forecast keeps of one member.
type path struct {
	core  []float64 // each 5 min
	reach []float64
	done  float64
	yield float64
	carry float64
	soft  float64
	stall float64
	bark  float64
	pit   []float64

	wraps  []float64
	visits []visited
}

const every = 5.0 / 60

// slots is how many points a curve has.
const slots = Longest*12 + 1

// Of forecasts a cook. The context may end it early, with an error.
func Of(ctx context.Context, c Cook, a Ask) (Forecast, error) {
	c.UndoneH = max(c.UndoneH, c.undone(a))
	spread := c.spreads(a)
	n := a.members()
	all := draws(n, a.Seed, c.Piece)
	paths := make([]path, n)
	simulate := func(until float64, hold func(i int) *held) error {
		each(n, func(i int) {
			if ctx.Err() == nil {
				c.follow(&paths[i], all[i], &spread, a.Cores, until, hold(i))
			}
		})
		return ctx.Err()
	}
	free := func(int) *held { return nil }
	if a.seen() > 0 {
		o, random := a.observations(), rand.New(rand.NewPCG(a.Seed, 0x5eed))
		for range assimilations {
			if err := simulate(a.seen(), free); err != nil {
				return Forecast{}, err
			}
			assimilate(all, paths, o, random)
		}
	}
	c.Programme.Seen = a.Bark
	hold := free
	if len(a.Readings) > 0 {
		later := a.later(all, c.Piece)
		hold = func(i int) *held { return c.hold(a, later[i], i, &spread) }
	}
	if err := simulate(Longest, hold); err != nil {
		return Forecast{}, err
	}
	out := c.sum(paths, a)
	out.Narrows = c.narrow(all, paths, a, out.Done)
	return out, nil
}

// undone is until when what was read says that it was not done, h.
func (c Cook) undone(a Ask) float64 {
	if n := len(a.Readings); n > 0 && a.Readings[n-1].CoreC < c.DoneC && c.Off.None() {
		return a.Readings[n-1].AtH
	}
	return 0
}

// spreads are how far each unknown is off with what was told.
func (c Cook) spreads(a Ask) [unknowns]float64 {
	spread := Spreads
	if c.Cut.Family == cut.Pink { // what is off early has no long stall in which errors even out
		spread[thickness], spread[conduction] = pinkThickness, pinkConduction
	}
	if c.Measured {
		spread[thickness] = measured
	}
	if c.Programme.OpenMin > 0 || a.KnowsLid {
		spread[opening] = 0
	}
	spread[doneAt], spread[setAt], spread[saidAt] = c.DoneOff, c.PitOff, 1
	if len(c.Programme.PitRead) > 0 {
		spread[pitError], spread[setAt] = readC, 0
	}
	c.Learnt.narrowed(&spread, len(c.Programme.PitRead) > 0)
	if a.Tightness {
		spread[leak], spread[gapWidth] = tighter*spread[leak], 0.7*spread[gapWidth]
	}
	return spread
}

// ranged reports whether a range was said for when something is done.
func (c Cook) ranged() bool {
	return c.Off.Ranged() ||
		slices.ContainsFunc(c.Programme.Wraps, func(w Wrap) bool { return w.When.Ranged() }) ||
		slices.ContainsFunc(c.Programme.Visits, func(v Visit) bool { return v.From.Ranged() || v.Until.Ranged() })
}

// known is what counts of what was learnt: what was read of the pit today says where it is.
func (c Cook) known() Learnt {
	l := c.Learnt
	if len(c.Programme.PitRead) > 0 {
		l.PitC = 0
	}
	return l
}

func (a Ask) members() int {
	if a.Members == 0 {
		return 200
	}
	return a.Members
}

// seen is how long a member is followed to be compared with what was read and seen, h; zero
// when nothing was.
func (a Ask) seen() float64 {
	until := 0.0
	if n := len(a.Readings); n > 0 {
		until = a.Readings[n-1].AtH + every
	}
	if at := a.Bark.SetH; at > 0 {
		until = max(until, min(Longest, 2*at+2)) // a member whose bark comes much later counts as one that has none
	}
	return until
}

// follow runs one member and keeps its path.
func (c Cook) follow(p *path, d draw, spread *[unknowns]float64, cores []float64, until float64, hold *held) {
	m := d.member(spread, c.known())
	if c.DoneC > 0 {
		c.DoneC += spread[doneAt] * d.within(doneAt)
	}
	if at := spread[saidAt] * d.within(saidAt); c.ranged() {
		c.Off, c.Programme = c.Off.Within(at), c.Programme.within(at)
	}
	k := thermal.Defaults
	b := thermal.NewBody(c.Cut, c.Geometry, k)
	// The probe sits a little off the coldest place: it reads the mean of a few cells there.
	off := math.Abs(spread[probe] * d[probe])
	if p.core == nil {
		p.core, p.pit, p.reach = make([]float64, 0, slots), make([]float64, 0, slots), make([]float64, len(cores))
	}
	p.core, p.pit = append(p.core[:0], c.Programme.StartC), append(p.pit[:0], c.Programme.Steps[0].SetC)
	for i := range p.reach {
		p.reach[i] = math.Inf(1)
	}
	p.done, p.bark, p.stall, p.yield, p.carry = math.Inf(1), math.Inf(1), math.Inf(1), 0, 0
	slowest := math.Inf(1)
	last, lastH := c.Programme.StartC, 0.0
	next := every
	highest := c.DoneC
	for _, t := range cores {
		highest = max(highest, t)
	}
	served := func(f *thermal.State) float64 { return c.Cut.Served(f.Lost()*math.Pow(m.Juice, 0.2), f.Mean()) }
	step := func(h float64, f *thermal.State, r *fire) bool {
		core := f.At(off)
		now := r.now(h, core, f)
		for i, want := range cores {
			if math.IsInf(p.reach[i], 1) && core >= want {
				p.reach[i] = crossing(lastH, last, h, core, want)
			}
		}
		for h >= next-1e-9 {
			p.core = append(p.core, last+(core-last)*(next-lastH)/(h-lastH))
			p.pit = append(p.pit, r.pit)
			next += every
		}
		p.bark = r.bark
		if math.IsInf(p.done, 1) && h >= c.UndoneH && c.done(now) {
			p.done = h
			if !c.Feel && c.Off.None() {
				p.done = math.Max(c.UndoneH, crossing(lastH, last, h, core, c.DoneC))
			}
			p.carry, p.yield, p.soft = carryOver(f, off), served(f), f.Soft
		}
		if rate := (core - last) / (h - lastH); core > 55 && core < 85 && rate < slowest && math.IsInf(p.done, 1) {
			slowest, p.stall = rate, h
		}
		last, lastH = core, h
		return math.IsInf(p.done, 1) || core < highest || !hold.over()
	}
	end, fire := c.Programme.held(b, m, memberCells, memberStep, until, off, hold, step)
	p.wraps, p.visits = fire.wrapped, fire.visits
	if hold != nil {
		hold.bend(p.core)
		p.cross(cores, hold.read[len(hold.read)-1].AtH)
	}
	if math.IsInf(p.done, 1) {
		p.yield = served(&end) // it is never done: what there is of it when nobody waits any longer
	}
}

// cross finds again when the core passed what it had passed by the last reading, on the curve that was bent to
// what was read.
func (p *path) cross(cores []float64, lastH float64) {
	for i, want := range cores {
		if p.reach[i] > lastH {
			continue
		}
		p.reach[i] = lastH
		for s := 0; s < len(p.core) && float64(s)*every < lastH; s++ {
			if h := float64(s) * every; p.core[s] >= want {
				p.reach[i] = h
				if s > 0 {
					p.reach[i] = crossing(h-every, p.core[s-1], h, p.core[s], want)
				}
				break
			}
		}
	}
}

// done reports whether it is taken off now.
func (c *Cook) done(n when.Now) bool {
	if !c.Off.None() {
		return c.Off.Met(n)
	}
	return (c.DoneC == 0 || n.CoreC >= c.DoneC) && (!c.Feel || n.Soft)
}

// crossing is when a line from one time and temperature to another passes a temperature; at
// once where it starts above.
func crossing(h0, c0, h1, c1, want float64) float64 {
	if c0 >= want {
		return h0
	}
	return h0 + (h1-h0)*(want-c0)/(c1-c0)
}

// carryOver is how far the core still rises, where the probe sits, once the piece is off and
// on the counter, loosely covered.
func carryOver(f *thermal.State, probe float64) float64 {
	off, k := *f, thermal.Defaults
	off.Carry = [thermal.Cells]float64{}
	a := thermal.Air{C: 21, Walls: 21, H: counterH, Emit: 0.9, Vapour: roomVapour, Sweat: 1, Wrap: k.Wrap("foil", 1, 1)}
	from := off.At(probe)
	highest := from
	for range 45 {
		off.Step(&cooked, &k, &a, memberStep)
		if off.At(probe) < highest {
			break
		}
		highest = off.At(probe)
	}
	return highest - from
}

func (c Cook) sum(paths []path, a Ask) Forecast {
	n := len(paths)
	out := Forecast{Reach: make([]Band, len(a.Cores))}
	column := make([]float64, n)
	fill := func(of func(*path) float64) []float64 {
		for i := range paths {
			column[i] = of(&paths[i])
		}
		return column
	}
	gather := func(of func(*path) float64) Band { return band(fill(of)) }
	onTheWay := func(of func(*path) float64) Band { return bandOfThose(fill(of)) }
	for t := range a.Cores {
		out.Reach[t] = gather(func(p *path) float64 { return p.reach[t] })
	}
	out.Done = gather(func(p *path) float64 { return p.done })
	for i := range paths {
		out.Hours = append(out.Hours, paths[i].done)
	}
	out.Yield = gather(func(p *path) float64 { return p.yield })
	out.Soft = gather(func(p *path) float64 { return p.soft })
	out.Carry = gather(func(p *path) float64 { return p.carry })
	out.Stall = gather(func(p *path) float64 { return p.stall })
	out.Bark = onTheWay(func(p *path) float64 { return p.bark })
	for i := range c.Programme.Wraps {
		out.Wraps = append(out.Wraps, onTheWay(func(p *path) float64 { return p.wraps[i] }))
	}
	for i := range c.Programme.Visits {
		out.Visits = append(out.Visits, onTheWay(func(p *path) float64 { return p.visits[i].began }))
		out.Ends = append(out.Ends, onTheWay(func(p *path) float64 { return p.visits[i].ended }))
	}
	last := 0
	for i := range paths {
		last = max(last, len(paths[i].core))
	}
	if !math.IsInf(out.Done.High, 1) {
		last = min(last, int(out.Done.High/every)+2)
	}
	for s := range last {
		// A member that is off the fire counts with its last temperature.
		core := gather(func(p *path) float64 { return p.core[min(s, len(p.core)-1)] })
		pit := gather(func(p *path) float64 { return p.pit[min(s, len(p.pit)-1)] })
		out.Curve = append(out.Curve, Point{float64(s) * every, core, pit.Mid})
	}
	return out
}

// Judged says how a cut is judged done: racks by feel, others by their core.
func (c *Cook) Judged() {
	if c.Cut.Family == cut.Rack {
		c.Feel, c.DoneC = true, 0
		return
	}
	c.DoneC = c.Cut.DoneC()
}
