package heat

import (
	"math"
	"math/rand/v2"
	"slices"

	"verjuice/internal/core/thermal"
)

// What decides the early hours of a cook (thickness, convection) and what decides its late ones (bark,
// collagen, the fire, the wrap) are nearly independent in meat, and the model knows only some of them.
// So a member is held to what was read, and after the last reading it is another one. The figures are
// from simulated fires of other physics (docs/models.md).
const (
	same   = 0.9 // ρ: correlation of what a member is after the last reading with what it was before
	needsN = 0.2 // spread of the heat that remains to be taken up, ln
	// Above about 70 °C water that collagen lets go of, a sagging fire and a wrap that is opened again
	// only ever make it longer: by so much, ln, all of it from late on.
	longer          = 0.28
	lateFrom, lateC = 64.0, 82.0
)

// The seeds of what is drawn for after the last reading.
const (
	laterSeed = 0x1a7e
	heldSeed  = 0x4e1d
)

// held is a member that is held to what was read, and what it is from the last reading on.
type held struct {
	read  []Reading // each off by its thermometer
	later Member
	needs float64 // heat that remains, as a factor

	at     int       // of read: what comes next
	shifts []float64 // by how much each moved the core, °C
}

// later is what the members are after the last reading: u′ = ρu + √(1−ρ²)·z, where it may have changed. Pieces
// on one pit share its draw.
func (a Ask) later(all []draw, piece uint64) []draw {
	out := make([]draw, len(all))
	common, own := rand.New(rand.NewPCG(a.Seed, laterSeed)), rand.New(rand.NewPCG(a.Seed+piece, laterSeed+1))
	for i := range all {
		out[i] = all[i]
		for _, u := range []int{pitError, convection, juice, dryness, leak, gapWidth, conduction} {
			r := own
			if u == pitError || u == convection {
				r = common
			}
			out[i][u] = same*all[i][u] + math.Sqrt(1-same*same)*r.NormFloat64()
		}
	}
	return out
}

// hold is member i held to what was read.
func (c Cook) hold(a Ask, later draw, i int, spread *[unknowns]float64) *held {
	r := rand.New(rand.NewPCG(a.Seed+c.Piece, heldSeed+uint64(i)))
	read := thin(a.Readings)
	out := &held{later: later.member(spread, c.known()), read: slices.Clone(read), shifts: make([]float64, 0, len(read))}
	last := read[len(read)-1].CoreC
	late := min(1, max(0, (last-lateFrom)/(lateC-lateFrom)))
	out.needs = math.Exp(needsN*r.NormFloat64() + longer*late)
	for j := range read {
		out.read[j].CoreC += read[j].off() * r.NormFloat64()
	}
	return out
}

// due reports whether something was read within the hour.
func (h *held) due(hour float64) bool {
	return h != nil && h.at < len(h.read) && h.read[h.at].AtH <= hour
}

// set moves the core to what was read, of the step from a core at an hour to now.
func (h *held) set(f *thermal.State, m *thermal.Matter, off, fromH, fromC, hour float64) {
	r, core := h.read[h.at], f.At(off)
	says := fromC + (core-fromC)*(r.AtH-fromH)/(hour-fromH)
	f.Hold(m, r.CoreC-says)
	h.shifts = append(h.shifts, r.CoreC-says)
	h.at++
}

// over reports whether the last reading has been taken.
func (h *held) over() bool { return h == nil || h.at == len(h.read) }

// bend takes the jumps out of a curve with a point every so many hours: what a reading moved the core by came on
// since the one before.
func (h *held) bend(core []float64) {
	from := 0.0
	for i, shift := range h.shifts {
		to := h.read[i].AtH
		for s := range core {
			if t := float64(s) * every; t > from && t <= to {
				core[s] += shift * (t - from) / (to - from)
			}
		}
		from = to
	}
}
