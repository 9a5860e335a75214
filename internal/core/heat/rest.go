package heat

import (
	"math"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/thermal"
)

// Rest is a piece that comes off the fire and cools, or is held.
type Rest struct {
	Cut      cut.Cut
	Geometry cut.Geometry
	FromC    float64 // all through
	Wrap     string  // as on the fire; none is bare
	VentMin  float64 // opened first, min
	Place    string  // counter, cooler, oven_off, pit_off (its vents open), pit_shut or holder
	PlaceC   float64 // what the place is at, °C; zero for the usual
	RoomC    float64 // zero for 21
	First    []Phase // where it rests before that, in order
}

// Phase is a part of a rest.
type Phase struct {
	Place string
	H     float64
}

// InPit reports whether it waits in the pit that it came from.
func (r Rest) InPit() bool { return r.Place == "pit_off" || r.Place == "pit_shut" }

// phase is where the piece rests t seconds after venting began, and since when, s.
func (r Rest) phase(t float64) (place string, from float64) {
	until := r.VentMin * 60
	for _, p := range r.First {
		if until += p.H * 3600; t < until {
			return p.Place, from
		}
		from = until
	}
	return r.Place, from
}

// Places are where a piece rests, with what they usually are at, °C.
var Places = map[string]float64{
	"counter": 21, "cooler": 21, "oven_off": 95, "pit_off": 120, "pit_shut": 120, "holder": 65,
}

// Cooled is how a rest goes.
type Cooled struct {
	Curve  []Point
	Floor  Band // hours to the floor; infinite when it stays above
	FloorC float64
}

// Floor is under which food that is held warm must not fall, °C (USDA FSIS, at home).
const Floor = 60.0

// losesHeat is how far the loss to a place is off either way, as a factor: towels, draughts,
// a lid that fits.
const losesHeat = 1.3

// Of follows a rest for so many hours. The early end of the floor is what cautions use.
func (r Rest) Of(hours float64) Cooled {
	out := Cooled{FloorC: Floor, Floor: Band{Low: math.Inf(1), Mid: math.Inf(1), High: math.Inf(1)}}
	var lines [3][]float64
	for i, factor := range []float64{losesHeat, 1, 1 / losesHeat} {
		at := []*float64{&out.Floor.Low, &out.Floor.Mid, &out.Floor.High}[i]
		f := r.start(thermal.Cells)
		lines[i] = append(lines[i], f.Temp[0])
		next, last, lastH := every, f.Temp[0], 0.0
		r.cool(&f, factor, hours, 60, func(h float64) bool {
			core := f.Temp[0]
			if math.IsInf(*at, 1) && core < Floor && last >= Floor {
				*at = lastH + (h-lastH)*(last-Floor)/(last-core)
			}
			if h >= next-1e-9 {
				lines[i] = append(lines[i], core)
				next += every
			}
			last, lastH = core, h
			return true
		})
	}
	for s := range lines[1] {
		core := Band{Low: lines[0][s], Mid: lines[1][s], High: lines[2][s]}
		out.Curve = append(out.Curve, Point{H: float64(s) * every, Core: core})
	}
	return out
}

// Early is the early end of the hours it stays above the floor, of so many; a coarse run.
func (r Rest) Early(hours float64) float64 {
	f, out := r.start(coarseCells), hours
	r.cool(&f, losesHeat, hours, coarseStep, func(h float64) bool {
		if f.Temp[0] < Floor {
			out = h
		}
		return f.Temp[0] >= Floor
	})
	return out
}

// cooked is the matter of a cooked piece: its juice is gone, its proteins are set.
var cooked = thermal.Matter{Conduct: 0.45, Heat: 3.5e6}

// start is the cooked piece: what is left of its mass, with its real surface.
func (r Rest) start(n int) thermal.State {
	left := 0.70*(1-r.Cut.BoneShare()) + r.Cut.BoneShare() // with the juice in the wrap
	g := r.Geometry
	b := thermal.Body{
		HalfM: float64(g.Thickness) / 2 / g.Spread * math.Cbrt(left),
		Shape: float64(g.Thickness/g.Length + g.Thickness/g.Width),
	}
	return thermal.NewField(b, n, r.FromC)
}

// cool steps the field through the rest, until seen has seen enough.
func (r Rest) cool(f *thermal.State, factor, hours, dt float64, seen func(h float64) bool) {
	k := thermal.Defaults
	room := r.RoomC
	if room == 0 {
		room = 21
	}
	around := k.Wrap(r.Wrap, 1, 1)
	around.Shut = under
	open := around.Covers == 0
	f.Film = 0.5 * k.Film
	for t := 0.0; t < hours*3600-1e-9; t += dt {
		place, since := r.phase(t)
		at := Places[place]
		if place == r.Place && r.PlaceC != 0 {
			at = r.PlaceC
		}
		a := thermal.Air{C: room, Walls: room, H: counterH * factor, Emit: 0.9, Vapour: roomVapour, Sweat: 1, Wrap: around}
		switch {
		case t < r.VentMin*60:
			// The wet surface steams off.
			a.Wrap = thermal.Wrapped{Sheet: thermal.Sheet{Emit: 0.9, Leak: ventWet}, Covers: 1, Holds: 1}
			f.Film = 1
		case place == "cooler":
			a.H, a.C = 1.5*factor, at
			a.Wrap = thermal.Wrapped{Covers: 1, Shut: 0.2}
		case place == "oven_off", place == "pit_shut":
			a.C = room + (at-room)*math.Exp(-max(0, t-since)/(offTau/factor))
			a.Walls, a.H = a.C, counterH
			k.Dry = shutDry
		case place == "pit_off":
			a.C = room + (at-room)*math.Exp(-max(0, t-since)/(openTau/factor))
			a.Walls, a.H = a.C, openH*factor
		case place == "holder":
			a.C, a.Walls, a.H = at, at, 6
			if rho, _ := thermal.Saturation(at); open {
				a.Vapour = 0.7 * rho
			}
		default:
			a.C, a.Walls = at, at
		}
		f.Step(&cooked, &k, &a, dt)
		if !seen((t + dt) / 3600) {
			return
		}
	}
}

const (
	under   = 0.35         // share of a wrapped piece that lies on a board or in a tray
	ventWet = 0.3          // wetness of a piece that is opened: about 10 °C off its mean in a quarter of an hour
	offTau  = 1.5 * 3600.0 // time constant of an oven, or a pit with its vents shut, that was switched off, s
	openTau = 2100.0       // and of a steel pit with its vents open
	openH   = 3.0          // convection there, W/m²K
	shutDry = 0.02         // wetness of bare meat in still, hot air
)
