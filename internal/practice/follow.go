package practice

import (
	"context"
	"math"
	"time"

	"verjuice/internal/core/forecast"
	"verjuice/internal/core/gear"

	"verjuice/internal/core/heat"
	"verjuice/internal/core/live"
	"verjuice/internal/core/when"
	"verjuice/internal/instrument"
	"verjuice/internal/store"
)

// fresh is the piece on its fire, from the beginning.
func (l line) fresh(seed uint64) *instrument.Fire {
	pit, _ := gear.UsualPit(l.input.Pit)
	own := seed ^ forecast.Seed(l.key)
	fire := instrument.NewFire(l.input.Cut, l.input.Geometry, pit.Heat.Convect, float64(l.input.StartC), own)
	return fire.OnPit(seed + uint64(l.pit))
}

// follow lets the fire of a piece go on up to a time, and then its rest.
func (l *line) follow(h forecast.History, at time.Time, seed uint64) {
	if l.fire == nil {
		l.fire, l.at = l.fresh(seed), h.On
	}
	input := h.Apply(l.input)
	for step := reads; l.at.Before(at); l.at = l.at.Add(step) {
		step = min(l.at.Truncate(reads).Add(reads).Sub(l.at), at.Sub(l.at)) // the same steps, however often it is read
		if !h.Off.IsZero() && !l.at.Before(h.Off) {
			place := rests[l.rest]
			l.fire.Rest(place.airC, place.under, len(h.Wraps) > 0, step.Minutes())
			continue
		}
		now := l.at.Sub(h.On).Hours()
		s := instrument.Setting{SetC: setAt(input, now), AirC: heat.Mild}
		for _, w := range h.Wraps {
			if w.When.First.After.Hours() <= now {
				s.Wrapped = w.Kind != "none"
			}
		}
		s.SetC = l.fed(h, s.SetC, l.at)
		for _, at := range h.Opened {
			if at >= now && at < now+step.Hours() {
				l.fire.Lift(s.AirC)
			}
		}
		l.fire.Run(s, step.Minutes())
	}
}

// setAt is what a pit is set to so many hours after a piece went on.
func setAt(b forecast.FireInput, h float64) float64 {
	out := float64(b.PitC)
	for _, set := range b.Steps {
		if set.AtH <= h {
			out = set.SetC
		}
	}
	return out
}

// resting is how warm it is around a piece that rests.
type resting struct {
	airC  float64 // °C
	under float64 // in a closed box, so far under the surface of the meat, °C
}

// rests are the places where a piece rests, one of cut.Rests each. Field judgement.
var rests = map[string]resting{
	"": {22, 200}, "counter": {22, 200}, "wrapped": {22, 60}, "board": {22, 200}, "tray": {22, 60},
	"cooler": {22, 8}, "pit-cooler": {22, 8}, "oven": {45, 10}, "pit": {45, 10}, "holder": {65, 10},
}

// longest is how long a way is followed that does not get done, h.
const longest = 30

// Told is what was true of the pieces of a cook that was practised, and what other decisions would
// have come to; nil while one of them is still on the fire, or none went on.
func Told(ctx context.Context, db *store.Store, cook string, clock store.Clock, now time.Time) ([]live.Truth, error) {
	r := &rig{cook: cook}
	if err := r.learn(ctx, db, clock, now); err != nil {
		return nil, err
	}
	course, _, err := db.Course(ctx, cook)
	if err != nil {
		return nil, err
	}
	var out []live.Truth
	for i := range r.lines {
		l := &r.lines[i]
		at := forecast.Scope{Piece: l.key, Pit: l.pit, Zone: r.zone, Now: now}
		h, on := forecast.HistoryOf(r.facts, course.Readings(), at)
		if !on || h.Off.IsZero() {
			return nil, nil
		}
		out = append(out, l.truth(h, clock.Seed))
	}
	return out, ctx.Err()
}

// truth is what was true of a piece that is off the fire.
func (l *line) truth(h forecast.History, seed uint64) live.Truth {
	l.fire = nil
	l.follow(h, h.Off, seed)
	hidden := l.fire.Truth()
	target := float64(l.input.Core)
	if target == 0 {
		target = l.input.Cut.DoneC()
	}
	out := live.Truth{
		Piece:   l.key,
		PitOff:  hidden.PitOff,
		Thick:   hidden.Thick,
		Hot:     hidden.Hot,
		On:      h.On,
		Off:     h.Off,
		TargetC: target,
		CoreC:   l.fire.True(),
		ShownC:  l.fire.Core(),
	}
	did := h.Apply(l.input)
	wrapped := len(h.Wraps) > 0
	way := func(id string, b forecast.FireInput, wraps []heat.Wrap) {
		hours := l.done(h, b, wraps, target, seed)
		out.Ways = append(out.Ways, live.Way{ID: id, Hours: hours, Done: hours < longest})
	}
	way("did", did, h.Wraps)
	way("planned", l.input, l.input.Wraps)
	if wrapped {
		way("bare", did, nil)
	} else if target > 80 {
		way("foil", did, []heat.Wrap{{Kind: "foil", When: when.At(when.Cond{CoreC: 70})}})
	}
	hot := l.input
	hot.PitC += 15
	way("hotter", hot, l.input.Wraps)
	return out
}

// done is after how many hours the coldest place is at its target, with a pit and wraps as given,
// looked after as it was.
func (l *line) done(h forecast.History, b forecast.FireInput, wraps []heat.Wrap, target float64, seed uint64) float64 {
	fire, on, wrapped := l.fresh(seed), -1.0, 0
	for fire.Hours() < longest && fire.True() < target {
		now := fire.Hours()
		n := when.Now{
			CoreC:     fire.Core(),
			Hours:     now,
			Wrapped:   math.Max(-1, now-on),
			Unwrapped: -1,
			Surface:   now > 2,
			Bark:      now > 3,
			Colour:    now > 4,
		}
		if wrapped < len(wraps) && wraps[wrapped].When.Met(n) {
			wrapped, on = wrapped+1, now
		}
		covered := wrapped > 0 && wraps[wrapped-1].Kind != "none"
		for _, at := range h.Opened {
			if at >= now && at < now+1.0/60 {
				fire.Lift(heat.Mild)
			}
		}
		fire.Run(instrument.Setting{SetC: setAt(b, now), AirC: heat.Mild, Wrapped: covered}, 1)
	}
	return fire.Hours()
}
