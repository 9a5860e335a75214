// Package practice runs the simulated pits and thermometers of cooks that are practised: it hands
// in what they would read, as a thermometer beside the pit would.
//
//	go practice.Run(ctx, db, time.Now)
//
// What is true of a pit and its meat comes from a seed, and what is done to them from the facts, so
// that a program that starts again goes on where the last one was. Several programs may run the
// same cook: a minute is handed in under an id of its own, and is there once.
package practice

import (
	"context"
	"fmt"
	"math/rand/v2"
	"time"

	"github.com/google/uuid"

	"verjuice/internal/app"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/gear"

	"verjuice/internal/core/heat"

	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/instrument"
	"verjuice/internal/store"
)

// How often the instruments are read: on the wall, and by the clock of the cook.
const (
	tick  = 500 * time.Millisecond
	reads = 15 * time.Second
)

// learns is how often it is asked what the pit is to be set to, since that follows the plan.
const learns = 20 * time.Minute

// most is how much of a cook is read at one tick, so that one that was left for long catches up
// bit by bit.
const most = 3 * time.Hour

// Run reads the instruments of every cook that is practised until the context ends.
func Run(ctx context.Context, db *store.Store, now func() time.Time) {
	rigs := map[string]*rig{}
	for {
		all, err := db.Practised(ctx, now())
		if err == nil {
			for id := range rigs {
				if _, still := all[id]; !still {
					delete(rigs, id)
				}
			}
			for id, clock := range all {
				if rigs[id] == nil {
					rigs[id] = &rig{cook: id}
				}
				if err := rigs[id].read(ctx, db, clock, clock.Now(now())); err != nil {
					delete(rigs, id) // it begins anew, from what is on record
				}
			}
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(tick):
		}
	}
}

// CatchUp reads the instruments of one cook up to now, all that was not read yet.
func CatchUp(ctx context.Context, db *store.Store, cook string, clock store.Clock, now time.Time) error {
	r := &rig{cook: cook}
	for r.zone == nil || r.until.Add(most).Before(now) {
		if err := r.read(ctx, db, clock, now); err != nil {
			return err
		}
	}
	return r.read(ctx, db, clock, now)
}

// rig is the instruments of one cook.
type rig struct {
	cook   string
	told   store.Told
	learnt time.Time // by the clock of the cook
	facts  facts.Facts
	zone   *time.Location
	began  time.Time // by the clock of the cook
	until  time.Time // up to there it was handed in
	lines  []line
}

// line is a piece on its simulated fire.
type line struct {
	key   string
	pit   int
	rest  string             // where it rests: one of cut.Rests
	input forecast.FireInput // as it is planned
	fire  *instrument.Fire
	at    time.Time // up to there the fire was followed
}

// read hands in what the instruments show up to now.
func (r *rig) read(ctx context.Context, db *store.Store, clock store.Clock, now time.Time) error {
	told, err := db.Told(ctx, r.cook)
	if err != nil {
		return err
	}
	if told.Facts != r.told.Facts || told.Version != r.told.Version || r.zone == nil || now.Sub(r.learnt) > learns {
		if err := r.learn(ctx, db, clock, now); err != nil {
			return err
		}
		r.told, r.learnt = told, now
	}
	if now.Sub(r.until) > most {
		now = r.until.Add(most)
	}
	if r.until.Sub(r.began) > longestCook || r.over() {
		clock.Running = false
		return db.SetClock(ctx, r.cook, clock)
	}
	for ; r.until.Add(time.Minute).Before(now); r.until = r.until.Add(time.Minute) {
		read := r.minute(r.until, clock.Seed)
		if len(read) == 0 {
			continue
		}
		id := uuid.NewSHA1(uuid.Nil, fmt.Appendf(nil, "%s %d %d", r.cook, clock.Seed, r.until.Unix()))
		h := facts.HandIn{ID: id.String(), Device: "simulated"}
		if err := db.HandIn(ctx, r.cook, h, read); err != nil && err != store.ErrOther &&
			err != store.ErrFullOfReadings { // another program knew of a press before this one
			return err
		}
	}
	return nil
}

// longestCook is how much of a cook is simulated at most: one that was left alone comes to an end.
const longestCook = 40 * time.Hour

// over reports whether every piece that went on was sliced, and there is one.
func (r *rig) over() bool {
	for _, l := range r.lines {
		if _, sliced := r.facts.Done(l.key, "slice"); !sliced {
			return false
		}
	}
	return len(r.lines) > 0
}

// learn reads the cook anew, and what happened at it.
func (r *rig) learn(ctx context.Context, db *store.Store, clock store.Clock, now time.Time) error {
	in, err := app.New(db, func() time.Time { return clock.At }).Load(ctx, r.cook)
	if err != nil {
		return err
	}
	in.Now, in.Course = now, nil
	result, err := in.Planned(ctx)
	if err != nil {
		return err
	}
	first := r.zone == nil
	r.facts, r.zone = in.Facts, time.UTC
	if z := result.Order.Serving.Value.Zone; z != nil {
		r.zone = z
	}
	if first {
		r.began = clock.At.Truncate(time.Minute)
		if r.until, err = r.resumes(ctx, db); err != nil {
			return err
		}
	}
	was := r.lines
	r.lines = nil
	for _, p := range result.Pieces {
		if len(p.Predicted) == 0 {
			continue
		}
		on, _ := order.FindMove(p.Line.Sound(), order.On)
		one := line{key: p.Line.Key, pit: on.Pit, input: p.Predicted[0]}
		if p.Clock != nil {
			one.rest = p.Clock.RestIn
		}
		for _, w := range was {
			if w.key == one.key {
				one.fire, one.at = w.fire, w.at
			}
		}
		r.lines = append(r.lines, one)
	}
	return nil
}

// resumes is up to when the instruments were read already.
func (r *rig) resumes(ctx context.Context, db *store.Store) (time.Time, error) {
	course, _, err := db.Course(ctx, r.cook)
	out := r.began
	for _, minutes := range course {
		if at := minutes[len(minutes)-1].At.Add(time.Minute); at.After(out) {
			out = at
		}
	}
	return out, err
}

// minute is what the instruments show in a minute.
func (r *rig) minute(from time.Time, seed uint64) []facts.Reading {
	noise := rand.New(rand.NewPCG(seed, uint64(from.Unix())))
	var out []facts.Reading
	for at := from; at.Before(from.Add(time.Minute)); at = at.Add(reads) {
		pits := map[int]bool{}
		for i := range r.lines {
			l := &r.lines[i]
			h, on := forecast.HistoryOf(r.facts, nil, forecast.Scope{Piece: l.key, Pit: l.pit, Zone: r.zone, Now: at})
			if sliced := h.Last["slice"]; !on || !sliced.IsZero() {
				continue
			}
			if l.follow(h, at, seed); l.fire.Hours() == 0 {
				continue // it goes on at this moment
			}
			if core, shows := troubled(l.fire.Core()+0.15*noise.NormFloat64(), l.fire.Pit(), seed^forecast.Seed(l.key),
				at); shows {
				out = append(out, facts.Reading{Probe: facts.Probe{Piece: l.key}.String(), At: at, C: quantity.Celsius(core)})
			}
			if !pits[l.pit] && h.Off.IsZero() {
				pits[l.pit] = true
				out = append(
					out,
					facts.Reading{
						Probe: facts.Probe{Pit: l.pit}.String(),
						At:    at,
						C:     quantity.Celsius(l.fire.Pit() + 0.6*noise.NormFloat64()),
					},
				)
			}
		}
	}
	return out
}

// troubled is what a probe shows that now and then is disturbed, as its seed has it for that hour:
// it shows nothing for some minutes, or touches the bone, or is pulled out. False when it shows
// nothing.
func troubled(core, pit float64, seed uint64, at time.Time) (float64, bool) {
	r := rand.New(rand.NewPCG(seed, uint64(at.Truncate(time.Hour).Unix())))
	trouble, from, lasts := r.Float64(), 5+40*r.Float64(), 3+12*r.Float64()
	if minute := float64(at.Minute()) + float64(at.Second())/60; minute < from || minute > from+lasts {
		return core, true
	}
	switch {
	case trouble < 0.06:
		return 0, false
	case trouble < 0.1: // at the bone, which is warmer
		return core + 0.25*(pit-core), true
	case trouble < 0.13: // out, and in the air of the pit
		return pit, true
	}
	return core, true
}

// burnsOut is how long a fire that wants fuel takes to go out.
const burnsOut = 90 * time.Minute

// fed is what a pit is at that is set to setC, for want of fuel: it was fed last at some time, or
// lit so much before the first piece went on.
func (l *line) fed(h forecast.History, setC float64, at time.Time) float64 {
	last := h.On
	for _, what := range []string{"light", "fuel", "wood", "relit"} {
		if t := h.Last[what]; t.After(last) {
			last = t
		}
	}
	kind, _ := gear.FindPit(l.input.Pit)
	late := at.Sub(last) - kind.Alone
	if kind.Alone == 0 || late <= 0 {
		return setC
	}
	return heat.Mild + (setC-heat.Mild)*max(0, 1-float64(late)/float64(burnsOut))
}
