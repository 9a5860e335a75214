package live

import (
	"fmt"
	"slices"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
)

// Alarm is something that somebody has to be called for.
type Alarm struct {
	ID    string // the same for the same thing, however often it is worked out
	Kind  string // pit-low, pit-high, probe, wrap, off, again, hold or feed
	Piece string // key; empty for a pit
	Pit   int
	C     quantity.Celsius // what was read; nothing of a piece that is done by feel alone
	Felt  bool             // it is done by feel alone: no core was read lately
	SetC  quantity.Celsius
	Since time.Time // a pit is so, or a probe shows nothing
}

// When to call somebody. Field judgement: an open lid or a gust of wind is over sooner.
const (
	lowBy, highBy = 15, 20           // °C that a pit is off what it is set to
	lowFor        = 20 * time.Minute // in all of that time
	quietFor      = 10 * time.Minute // since a probe showed anything
	lostFor       = 6 * time.Hour    // a probe that was silent so long is not missed any more
	nearFloor     = 64               // °C of a core that is held above 60
)

// Alarms are what somebody has to be called for now.
func Alarms(r cooking.Result, pieces []Piece, course facts.Course) []Alarm {
	var out []Alarm
	pits := map[int]bool{}
	for _, p := range pieces {
		key := p.Piece.Line.Key
		add := func(kind, more string, a Alarm) {
			a.ID, a.Kind, a.Piece, a.Pit = kind+":"+key+more, kind, key, p.Pit
			out = append(out, a)
		}
		switch p.State {
		case On:
			if p.Advice.Now {
				add("wrap", fmt.Sprint(":", len(p.Piece.Happened.Wraps)), Alarm{})
			}
			if p.Done() {
				done := Alarm{Felt: p.Core == nil}
				if p.Core != nil {
					done.C = p.Core.C
				}
				add("off", "", done)
			}
			if since, lost := silent(course, key, r.Now); lost && since.After(p.Piece.Happened.On) {
				add("probe", fmt.Sprint(":", since.Unix()), Alarm{Since: since})
			}
			if !pits[p.Pit] {
				pits[p.Pit] = true
				out = append(out, p.strays(course, r.Now)...)
			}
		case Again:
			if until := p.AgainUntil(); !until.IsZero() && !r.Now.Before(until) {
				add("again", fmt.Sprint(":", len(p.Piece.Happened.Again)), Alarm{})
			}
		case Resting:
			if p.Core != nil && p.Core.C < nearFloor && p.Piece.Line.Meat.Value.Cut.DoneC() > nearFloor {
				add("hold", "", Alarm{C: p.Core.C})
			}
		}
	}
	return append(out, hungry(r, pits)...)
}

// silent reports whether every probe of a piece stopped showing anything, and since when. What was read by eye is no
// probe: nobody waits for its next reading.
func silent(course facts.Course, key string, now time.Time) (since time.Time, lost bool) {
	stayed := false
	for _, probe := range course.Of(func(at facts.Probe) bool { return at.Piece == key }) {
		if last, ok := course.Until(probe, now); ok && last.At.After(since) {
			since, stayed = last.At, course.Stays(probe, last.At)
		}
	}
	gone := now.Sub(since)
	return since.Truncate(time.Minute), stayed && gone > quietFor && gone < lostFor
}

// strays are the alarms of the pit of a piece: it is far from what it is set to, all the time.
func (p *Piece) strays(course facts.Course, now time.Time) []Alarm {
	probe := facts.Probe{Pit: p.Pit}.String()
	since := func(is func(facts.Minute) bool) (time.Time, bool) {
		at := time.Time{}
		for _, m := range slices.Backward(course[probe]) {
			if m.At.After(now) {
				continue
			}
			if !is(m) || now.Sub(m.At) > lostFor {
				break
			}
			at = m.At
		}
		return at, !at.IsZero() && now.Sub(at) >= lowFor && p.Air != nil
	}
	began := p.Piece.Happened.On
	if n := len(p.Piece.Happened.Sets); n > 0 {
		began = p.Piece.Happened.Last["set"]
	}
	if now.Sub(began) < 2*lowFor { // it is still on its way there
		return nil
	}
	for kind, is := range map[string]func(facts.Minute) bool{
		"pit-low":  func(m facts.Minute) bool { return m.High < p.SetC-lowBy },
		"pit-high": func(m facts.Minute) bool { return m.Low > p.SetC+highBy },
	} {
		if at, ok := since(is); ok {
			return []Alarm{
				{ID: fmt.Sprint(kind, ":", p.Pit, ":", at.Unix()), Kind: kind, Pit: p.Pit, C: p.Air.C, SetC: p.SetC, Since: at},
			}
		}
	}
	return nil
}

// hungry are the pits in use that have to be fed now.
func hungry(r cooking.Result, used map[int]bool) []Alarm {
	if r.Plan == nil {
		return nil
	}
	fed := map[int]time.Time{}
	for _, f := range r.Facts.Standing() {
		pit, _ := f.Values["pit"].(float64)
		if at, err := f.Time(r.Now.Location()); err == nil && f.Kind == facts.Done &&
			(f.What == "fuel" || f.What == "wood") &&
			at.After(fed[int(pit)]) {
			fed[int(pit)] = at
		}
	}
	var out []Alarm
	for _, k := range r.Plan.Result.Plans[r.Plan.Chosen].Tasks {
		late := r.Now.Sub(k.At)
		if k.Stage == "feed" && used[k.Pit] && late >= 0 && late < time.Hour && fed[k.Pit].Before(k.At.Add(-30*time.Minute)) {
			out = append(out, Alarm{ID: fmt.Sprint("feed:", k.Pit, ":", k.At.Unix()), Kind: "feed", Pit: k.Pit, Since: k.At})
		}
	}
	return out
}
