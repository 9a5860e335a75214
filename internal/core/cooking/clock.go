package cooking

import (
	"time"

	"verjuice/internal/core/amounts"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/order"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/uncertain"
	"verjuice/internal/core/when"
)

// PieceClock is a piece's times, counted back from serving.
type PieceClock struct {
	Known   bool // false without a serving time: then only durations are given
	Serve   time.Time
	Own     bool // it is eaten at a time of its own
	Times   plan.Times
	Fire    uncertain.Span
	Timed   bool          // the time on the fire was typed
	TimedBy time.Duration // half of the range that was typed for it
	Wait    time.Duration
	Asked   time.Duration
	Open    bool
	Soak    time.Duration // in the bath; zero without one
	Thaws   time.Duration
	Longest time.Duration // that it keeps salted and raw
	Temper  time.Duration
	Rest    time.Duration
	Least   time.Duration // rest
	Set     quantity.Celsius
	Done    quantity.Celsius
	Wrap    string
	WrapAt  when.When
	OffAt   when.When
	Rests   amounts.Rests
	Probe   quantity.Celsius // that it shows too much
	RestIn  string           // the place where it is held, as chosen
	Slice   string
	HeldIn  string        // where it waits when that is another place than the usual; else empty
	Spritz  time.Duration // every so often; zero is never
	Grain   string        // degrees from the length; empty when it is not marked
	Over    string        // which planned time has already passed: late, not-taken-up, salted-late; empty when all is well
	TakenUp time.Duration
}

// clock is the piece's times.
func (s *subject) clock(taken time.Duration) *PieceClock {
	rest, wait, wrap, off := s.move(order.Rest), s.move(order.Wait), s.move(order.Wrap), s.move(order.Off)
	out := &PieceClock{
		Serve: s.serve, Own: s.own, Times: s.times, Fire: s.fire.Takes.Span, Timed: s.timed(),
		TimedBy: s.move(order.On).TimedOff, Wait: s.on.Wait,
		Asked: s.asked,
		Open:  wait.Open, Thaws: s.move(order.Thaw).Lasts, Longest: s.meat.Cut.Custom().Raw,
		Temper: s.move(order.Temper).Lasts, Rest: rest.Lasts, Least: s.leastRest(),
		Set: s.fires[0].PitC, Done: off.At.From.Core(), OffAt: off.At.From,
		Wrap: s.line.Answers.Value.Chose(decision.Wrap), WrapAt: wrap.At.From,
		Rests: s.line.Rests, RestIn: rest.With, Probe: s.probe,
		Slice: s.move(order.Slice).With, Grain: s.line.Notes.Value.Grain, TakenUp: taken,
	}
	out.Spritz = s.move(order.Spritz).At.Each
	if held := s.held(); held != rest.With && s.times.Reheat.IsZero() {
		out.HeldIn = held
	}
	out.Soak = s.soaks()
	if out.Known = s.planned && !s.serve.IsZero() && !s.times.Fire.IsZero(); out.Known {
		out.Over = s.over(taken)
	}
	return out
}

// over says which planned time has already passed.
func (s *subject) over(taken time.Duration) string {
	t, wait := s.times, s.on.Wait
	const slack = 20 * time.Minute
	switch {
	case s.past() || t.Over || s.done:
	case t.Off.After(t.Slice.Add(-s.leastRest())):
		return "late"
	case wait < taken && s.asked > wait+slack:
		return "not-taken-up"
	case s.asked > wait+slack && !s.salted:
		return "salted-late"
	}
	return ""
}
