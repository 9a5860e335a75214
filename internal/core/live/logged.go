package live

import (
	"slices"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
)

// Where germs grow most, °C (FSIS cooking guideline 2021, come-up time), and the cold side of it.
const growLowC, growHighC, coldC = 10, 54.4, 4

// minute is what was read in a minute: of the coldest place of a piece, and of its pit.
type minute struct {
	at        time.Time
	core, air quantity.Celsius
	hasCore   bool
	hasAir    bool
}

// minutes are what was read from when the piece went on, in the order of time. Of several places
// the coldest counts.
func (p *Piece) minutes(course facts.Course, until time.Time, probe0 quantity.Celsius) []minute {
	by := map[time.Time]minute{}
	each := func(probe string, take func(*minute, facts.Minute)) {
		for _, m := range course[probe] {
			if m.LastAt.Before(p.Piece.Happened.On) || m.At.After(until) {
				continue
			}
			one := by[m.At]
			one.at = m.At
			take(&one, m)
			by[m.At] = one
		}
	}
	for _, probe := range course.Of(func(at facts.Probe) bool { return at.Piece == p.Piece.Line.Key }) {
		each(probe, func(one *minute, m facts.Minute) {
			if c := m.Last - probe0; !one.hasCore || c < one.core {
				one.core, one.hasCore = c, true
			}
		})
	}
	each(facts.Probe{Pit: p.Pit}.String(), func(one *minute, m facts.Minute) { one.air, one.hasAir = m.Last, true })
	out := make([]minute, 0, len(by))
	for _, m := range by {
		out = append(out, m)
	}
	slices.SortFunc(out, func(a, b minute) int { return a.at.Compare(b.at) })
	return out
}

// longGap is over how long without a reading the last one still stands.
const longGap = time.Hour

// logged is what is on record of a piece that went on. Where a core is said to have been somewhere
// for some time, that is between readings that were there. It has many branches because each figure of
// caution.Logged is filled by a condition of its own.
//
//gocyclo:ignore
func (p *Piece) logged(course facts.Course, r cooking.Result) caution.Logged {
	h, meat := p.Piece.Happened, p.Piece.Line.Meat.Value
	_, injected := order.FindMove(p.Piece.Line.Sound(), order.Inject)
	out := caution.Logged{
		Cut:      meat.Cut,
		Injected: injected,
		Opened:   p.Piece.Line.Answers.Value.Chose(decision.Opened),
		Off:      !h.Off.IsZero(),
		Served:   !h.Last["slice"].IsZero(),
	}
	chilled := p.Piece.Clock != nil && !p.Piece.Clock.Times.Reheat.IsZero()
	until := r.Now
	if out.Served {
		until = h.Last["slice"]
	}
	all := p.minutes(course, r.Now, r.Order.Probe.Value)
	var cool []quantity.Celsius
	core, warmed := quantity.Celsius(coldC), false
	for i, m := range all {
		if m.at.After(until) { // it was put back on the heat, or probed again: only that it got there counts
			if m.hasCore {
				out.Read, out.Highest = true, max(out.Highest, m.core)
			}
			continue
		}
		lasts := min(longGap, until.Sub(m.at))
		if i+1 < len(all) {
			lasts = min(lasts, all[i+1].at.Sub(m.at))
		}
		if m.hasCore {
			out.Read, core = true, m.core
			warmed = warmed || core >= caution.HoldFloor
			out.Highest = max(out.Highest, core)
		}
		off := out.Off && !m.at.Before(h.Off)
		switch {
		case !off && !warmed && out.Read:
			if core >= coldC {
				out.Warming += lasts
			}
			if core >= growLowC && core <= growHighC {
				out.Lingers += lasts
			}
		case off && warmed && !chilled && m.hasCore && meat.Cut.DoneC() > nearFloor && core < caution.HoldFloor:
			if out.Under == 0 {
				out.Lowest = core
			}
			out.Under, out.Lowest = out.Under+lasts, min(out.Lowest, core)
		}
		if settled := m.at.Sub(h.On) > 2*lowFor; m.hasAir && !off && !warmed && settled && m.air < caution.PitLeast {
			out.Cool += lasts
			cool = append(cool, m.air)
		}
	}
	if n := len(cool); n > 0 {
		slices.Sort(cool)
		out.CoolC = cool[n/2]
	}
	return out
}
