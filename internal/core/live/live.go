// Package live is what stands at a pit now: what each piece reads, how it goes on from there,
// what moved against what was thought, and whether to wrap.
//
//	r, _ := cooking.Work(ctx, order, facts, k, cooking.Clock{Now: now, Read: course.Readings()})
//	pieces, err := live.Of(ctx, r, course)
//	pieces[0].Advice.Now   // wrap it
package live

import (
	"context"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// State is how far a piece has come.
type State string

// The states.
const (
	Before  State = "before" // it is not on the fire yet
	On      State = "on"
	Again   State = "again" // on the fire once more
	Resting State = "resting"
	Done    State = "done" // sliced
)

// Fresh is how long a reading says how it is now.
const Fresh = 15 * time.Minute

// Piece is a piece at the pit.
type Piece struct {
	Piece  cooking.Piece
	State  State
	Pit    int
	Core   *facts.Reading // of its coldest place, the last one; nil when none was read
	Places []facts.Reading
	Air    *facts.Reading // of its pit
	SetC   quantity.Celsius
	RateCH float64 // how the core rose in the last hour, °C/h; not a number when it is not known

	Seen   forecast.Seen // how it goes; empty before the fire, and when it is off
	Moved  time.Duration // how much later it will be off than was thought when it went on
	PitOff float64       // how far the pit ran from what it was set to, °C
	Advice Advice
	Doneness
	Catch []Catch           // what would make up for being late, or for being early
	Found []caution.Finding // by what was read and done
}

// Advice is whether to wrap.
type Advice struct {
	Kind   string // of the wrap; none is never, as the cook chose
	Done   bool   // it is wrapped
	Now    bool
	At     when.When     // what it waits for
	In     time.Duration // until that is expected
	Known  bool          // that there is such a time
	Bark   bool          // it would be time, but the bark still scratches off
	Saves  time.Duration // what wrapping now takes off the time on the fire
	Waited bool          // it is still waiting for At
}

// Of is how the pieces of a result stand at its time.
func Of(ctx context.Context, r cooking.Result, course facts.Course) ([]Piece, error) {
	out := make([]Piece, len(r.Pieces))
	for i, p := range r.Pieces {
		on, _ := order.FindMove(p.Line.Sound(), order.On)
		one := Piece{Piece: p, State: Before, Pit: on.Pit, RateCH: math.NaN()}
		if p.Clock != nil {
			one.SetC = p.Clock.Set
		}
		one.read(course, r.Now.Add(facts.ClockSkew), r.Order.Probe.Value)
		if p.Lit {
			if err := one.fire(ctx, r); err != nil {
				return nil, err
			}
			one.Found = caution.CheckLogged(one.logged(course, r))
			for i, f := range one.Found {
				if ack, ok := r.Facts.Acknowledged(p.Line.Key, f.ID, f.Values); ok {
					one.Found[i].Read = ack.At
				}
			}
		}
		out[i] = one
	}
	return out, nil
}

// read takes the last readings of a piece and its pit. In ice water its probes show probe0.
func (p *Piece) read(course facts.Course, now time.Time, probe0 quantity.Celsius) {
	for _, probe := range course.Of(func(at facts.Probe) bool { return at.Piece == p.Piece.Line.Key }) {
		last, ok := course.Until(probe, now)
		if !ok || now.Sub(last.At) > Fresh {
			continue
		}
		last.C -= probe0
		p.Places = append(p.Places, last)
		if p.Core == nil || last.C < p.Core.C {
			p.Core = &last
			p.RateCH = math.NaN()
			if before, ok := course.Until(probe, last.At.Add(-50*time.Minute)); ok && last.At.Sub(before.At) < 90*time.Minute {
				p.RateCH = float64(last.C+probe0-before.C) / last.At.Sub(before.At).Hours()
			}
		}
	}
	for _, probe := range course.Of(func(at facts.Probe) bool { return at.Piece == "" && at.Pit == p.Pit }) {
		if last, ok := course.Until(probe, now); ok && now.Sub(last.At) <= Fresh {
			p.Air = &last
		}
	}
}

// fire is how a piece that went on goes on from now.
func (p *Piece) fire(ctx context.Context, r cooking.Result) error {
	h, set := p.Piece.Happened, p.SetC
	for _, s := range h.Sets {
		switch s.Kind {
		case forecast.PitSet:
			set, p.SetC = s.C, s.C
		case forecast.PitOut:
			p.SetC = forecast.OutC
		case forecast.PitRelit:
			p.SetC = set
		}
	}
	switch {
	case h.Stands():
		p.State = Again
		return nil
	case !h.Last["slice"].IsZero() && !p.cubesToCome(r.Now):
		p.State = Done
		return nil
	case !h.Off.IsZero():
		p.State = Resting
		return nil
	}
	p.State = On
	input := forecast.SlowestOf(p.Piece.Fires)
	if len(h.Sets) == 0 {
		for _, s := range input.Steps {
			if s.AtH <= h.NowH {
				p.SetC = quantity.Celsius(s.SetC)
			}
		}
	}
	var err error
	if p.Seen, err = forecast.See(ctx, input); err != nil {
		return err
	}
	thought, err := forecast.Slowest(ctx, forecast.Ensemble{}, p.Piece.Predicted)
	if err != nil {
		return err
	}
	if done := p.Seen.Fire.Done.Mid; !math.IsInf(done, 1) {
		p.Moved = time.Duration(math.Max(done, h.NowH)*float64(time.Hour)) - thought.Takes.Mid
	}
	p.PitOff = p.Seen.Cook.Programme.PitOff()
	p.Advice = p.advise(input)
	p.Doneness = p.judge()
	p.catch(input)
	return nil
}

// darkens are how a colour is seen that is dark enough to wrap.
var darkens = []string{"mahogany", "black"}

// how is how a sign of the piece was seen to be last; empty when it was not seen.
func (p *Piece) how(sign string) string {
	how, _ := p.Piece.Happened.Signs[sign].How()
	return how
}

// now is what is known of the piece now that something may wait for.
func (p *Piece) now() when.Now {
	h := p.Piece.Happened
	out := when.Now{
		Hours:     h.NowH,
		Wrapped:   -1,
		Unwrapped: -1,
		Surface:   p.how("surface") == "set" || p.how("bark") == "holds",
		Bark:      p.how("bark") == "holds",
		Colour:    slices.Contains(darkens, p.how("colour")),
		Soft:      p.how("feel") == "soft",
		Fat:       p.how("fat") == "stays",
		Bones:     p.how("bones") == "show",
	}
	if p.Core != nil {
		out.CoreC = float64(p.Core.C)
	}
	for _, w := range h.Wraps {
		since := h.NowH - w.When.First.After.Hours()
		if w.Kind == "none" {
			out.Unwrapped = since
		} else {
			out.Wrapped = since
		}
	}
	return out
}

// advise says whether to wrap.
func (p *Piece) advise(input forecast.FireInput) Advice {
	h := p.Piece.Happened
	out := Advice{Kind: "none", Done: len(h.Wraps) > 0 && h.Wraps[len(h.Wraps)-1].Kind != "none"}
	next := len(h.Wraps)
	if out.Done || next >= len(input.Wraps) || input.Wraps[next].Kind == "none" {
		return out
	}
	w := input.Wraps[next]
	out.Kind, out.At, out.Waited = w.Kind, w.When, true
	out.Now = w.When.Met(p.now())
	if out.Now && p.how("bark") == "scratches" && w.When.Core() != 0 {
		out.Now, out.Bark = false, true
	}
	if all := p.Seen.Fire.Wraps; next < len(all) && !math.IsInf(all[next].Mid, 1) {
		out.Known, out.In = true, max(0, time.Duration((all[next].Mid-h.NowH)*float64(time.Hour)))
	}
	if !out.Now {
		sooner := input
		sooner.Wraps = slices.Clone(input.Wraps)
		sooner.Wraps[next].When = when.At(when.Cond{After: max(time.Minute, time.Duration(h.NowH*float64(time.Hour)))})
		out.Saves = forecast.Alone([]forecast.FireInput{input}) - forecast.Alone([]forecast.FireInput{sooner})
	}
	return out
}

// FireOut is what is said next of the fire: that it went out, or that it is lit again.
func (p Piece) FireOut() string {
	last := p.Piece.Happened.Last
	if last["out"].After(last["relit"]) {
		return "relit"
	}
	return "out"
}
