package cooking

import (
	"context"
	"slices"
	"strconv"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/uncertain"
	"verjuice/internal/core/weather"

	"verjuice/internal/core/order"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"

	"verjuice/internal/core/when"
)

// subject is a line of the page whose meat is sound, on its way through. Each phase
// makes a new one.
type subject struct {
	stands time.Time // goes on then, where nothing that the plan and its pit's list agree on was found
	line   order.Line
	meat   order.Meat
	base   order.Base
	moves  []order.Move
	asOf   Clock
	serve  time.Time // when it is eaten
	own    bool      // at a time of its own
	pit    gear.Pit
	sets   []when.Set
	skies  []weather.Spell
	probe  quantity.Celsius
	left   bool // some is kept for later

	clocked  bool                 // nothing that the clock needs is a mistake
	dosed    bool                 // nothing that the doses need is a mistake
	rubbed   bool                 // nothing that the amount of rub needs is a mistake
	fires    []forecast.FireInput // what decides how it fares on the fire, of each when they are unlike
	anchor   forecast.Anchor
	happened forecast.History
	lit      bool // it is on record that it went on
	fire     forecast.FireResult
	asked    time.Duration // the wait as typed
	on       dose.Target

	planned bool
	times   plan.Times
	done    bool // it is on record that it went on the fire
	salted  bool // and that it was salted
}

// newSubject is a line before the plan; nil when its meat, or what all pieces share,
// is not sound.
func newSubject(o order.Order, l order.Line, f facts.Facts, at Clock) *subject {
	if !l.Meat.OK() || !o.Base.OK() {
		return nil
	}
	s := &subject{
		line: l, meat: l.Meat.Value, base: o.Base.Value, moves: l.Sound(), asOf: at, serve: o.Serves(l),
		left: o.People.Value.Leftovers > 0 || l.KeptBack() > 0, probe: o.Probe.Value, skies: o.Weather.Value,
	}
	s.own = !l.Serving.Value.IsZero()
	s.clocked = l.Answers.OK() && l.Good(order.Wait, order.Temper, order.On, order.Off, order.Rest, order.Slice)
	s.dosed = l.Salting.OK() && l.GoodDoses() && l.Good(order.Wait)
	s.rubbed = s.dosed || l.Salting.OK() && l.GoodRub() && !l.Salting.Value.ByTarget
	s.asked = s.move(order.Wait).Lasts
	s.on = s.meat.Target(s.base.Fridge)
	s.on.Wait = s.asked
	if n := s.move(order.On).Pit; o.Setting.OK() && n < len(o.Setting.Value.Pits) {
		s.pit, s.sets = o.Setting.Value.Pits[n].Pit, o.Sets.Value[n]
	}
	if len(f) > 0 && o.Serving.Value.Zone != nil {
		s.happened, s.lit = forecast.HistoryOf(
			f,
			at.Read,
			forecast.Scope{
				Piece:  l.Key,
				Pit:    s.move(order.On).Pit,
				Zone:   o.Serving.Value.Zone,
				Now:    at.Now,
				ProbeC: float64(o.Probe.Value),
			},
		)
	}
	s.fires = s.firesWith(s.line.Answers.Value, s.meat)
	return s
}

// forecast is the piece with how it fares, where anything that is asked for depends on it.
func (s *subject) forecast(ctx context.Context, by forecast.Forecaster) *subject {
	if s == nil || !s.clocked || !s.asOf.Parts.has(Depths|Choices) {
		return s
	}
	next := *s
	next.fire = s.firesBy(ctx, by, s.fires)
	return &next
}

// past reports whether nothing can be too late any more.
func (s *subject) past() bool { return s.asOf.Now.IsZero() || s.serve.Before(s.asOf.Now) }

func (s *subject) move(k order.MoveKind) order.Move {
	m, _ := order.FindMove(s.moves, k)
	return m
}

// burns are what decides how the pieces fare with these answers.
func (s *subject) firesWith(a decision.Answers, m order.Meat) []forecast.FireInput {
	return s.firesBefore(a, m, false)
}

// burnt is burns, or how they were thought to be before anything happened.
func (s *subject) firesBefore(a decision.Answers, m order.Meat, thought bool) []forecast.FireInput {
	on, temper := s.move(order.On), s.move(order.Temper)
	like := forecast.FireInput{
		StartC: s.base.Fridge, Temper: temper.Lasts, RoomC: s.base.Room, PitC: on.Set,
		Core: s.move(order.Off).At.From.Core(), Pit: s.pit.ID, Number: on.Pit, Piece: forecast.Seed(s.line.Draws),
	}
	if s.line.Typed.Fire.Done == "" && s.line.Typed.When["off"] == "" {
		like.Core = quantity.Celsius(m.Cut.DoneC())
		if m.Cut.Family == cut.Rack {
			like.Core = 0 // by bend and bone
		}
	}
	like.PitC, like.Steps = s.anchor.Sets(s.sets, on.Set)
	like.Skies = weather.From(s.skies, s.anchor.On)
	out := s.line.Burns(a, m, like)
	for i := range out {
		if out[i] = s.anchor.Apply(out[i]).Shared(); s.lit && !thought {
			out[i] = s.happened.Apply(out[i])
		}
	}
	return out
}

// fares is how these fare until the slowest of them is off, in the time that the cook gave
// when one was. An error of the context leaves nothing.
func (s *subject) firesBy(
	ctx context.Context,
	by forecast.Forecaster,
	inputs []forecast.FireInput,
) forecast.FireResult {
	if s.timed() {
		by = forecast.SingleRun{}
	}
	fire, err := forecast.Slowest(ctx, by, inputs)
	if err == nil && s.timed() {
		on := s.move(order.On)
		if on.TimedOff > 0 {
			return fire.In(uncertain.Between(on.Timed-on.TimedOff, on.Timed+on.TimedOff, s.line.Key))
		}
		return fire.In(uncertain.Typed(on.Timed, s.line.Key))
	}
	return fire
}

// timed reports whether the cook gave the time on the fire.
func (s *subject) timed() bool { return s.line.Typed.Fire.Time != "" }

// plannable reports whether nothing that the plan needs is a mistake.
func (s *subject) plannable() bool {
	return s != nil && s.clocked && s.line.Serving.OK() && s.line.Good(order.Brine, order.Inject)
}

// in is the subject in the times that the plan gives it: waits and baths follow the
// clock.
func (s *subject) in(l *Plan) *subject {
	if s == nil {
		return nil
	}
	t, ok := l.times(s.line.Key)
	if !ok {
		return s
	}
	next := *s
	next.planned, next.times = true, t
	next.done, next.salted = l.isDone(s.line.Key, "fire"), l.isDone(s.line.Key, "salt")
	next.on.Wait = t.Wait.Round(time.Minute)
	if t.Lift.After(t.Bath) && !t.Bath.IsZero() {
		next.on.Soak = t.Lift.Sub(t.Bath).Round(time.Minute)
	}
	return &next
}

// work works out the piece in its times. The decisions are those that are shown until the
// forecast has come, if there are any.
func (s *subject) work(l order.Line, f facts.Facts, i int, shown []Decided) (Piece, field.Errors) {
	out := Piece{Line: l, Ready: len(l.Wrong()) == 0}
	if s == nil {
		out.Ready = false
		return out, nil
	}
	parts := s.asOf.Parts
	out.Meat = s.meatFigures()
	if out.Decided = shown; shown == nil && l.Answers.OK() && parts.has(Choices) {
		out.Decided = s.decided()
	}
	var wrong field.Errors
	sources := order.DosesOf(s.moves)
	free := dose.Free{}
	if s.dosed {
		var err error
		if sources, free, err = s.solve(sources); wrong.Take("/pieces/"+strconv.Itoa(i)+"/season", err) {
			s = s.undosed()
			out.Ready = false
		}
	}
	b := s.bring(sources)
	if bath, brought, ok := find[dose.Bath](b); ok && parts.has(Baths) {
		out.Bath = bathOf(bath, brought, s.on, s.meat, s.base.Room)
	}
	if needle, brought, ok := find[dose.Injection](b); ok && s.line.Good(order.Wait) && parts.has(Needles) {
		out.Needle = needleOf(needle, brought, s.on, s.meat, SizeOf(s.meat.Geometry))
	}
	taken := time.Duration(0)
	if s.rubbed {
		if rub, _ := b.rub(); !rub.Nothing() {
			out.Season = s.season(b)
		}
	}
	if s.dosed {
		tally := s.tally(b)
		if out.Season != nil {
			percent := s.percent(b, tally)
			out.Season.Percent = &percent
		}
		if parts.has(Depths) {
			course := salt.DryBrine(s.brine(b))
			taken = course.TakenUp
			out.Ledger, out.Depth = s.ledger(b, tally, course, free), s.depth(b, course)
		}
	}
	if len(wrong) == 0 && parts.has(Depths) {
		out.Findings = s.findings(b, out.Ledger, f)
	}
	out.Using = s.uses(b)
	if s.clocked {
		out.Clock, out.Fires, out.Fire = s.clock(taken), s.fires, s.fire
		out.Happened, out.Lit, out.Predicted = s.happened, s.lit, s.firesBefore(s.line.Answers.Value, s.meat, true)
	}
	return out, wrong
}

// undosed is the subject after a target that cannot be met.
func (s *subject) undosed() *subject {
	next := *s
	next.dosed, next.rubbed = false, false
	return &next
}

// solve puts the source that the cook left free in the amount that meets the target.
func (s *subject) solve(all []dose.Source) ([]dose.Source, dose.Free, error) {
	salting := s.line.Salting.Value
	if !salting.ByTarget {
		return all, dose.Free{}, nil
	}
	solved, free, err := dose.Solve(all, salting.Free, salting.Target, s.on)
	if err != nil {
		return all, free, err
	}
	out := slices.Clone(all)
	out[slices.IndexFunc(all, func(one dose.Source) bool { return one.ID() == salting.Free })] = solved
	return out, free, nil
}

// brought is what the sources bring to the piece, worked out once.
type brought struct {
	sources []dose.Source
	all     []dose.Brought
}

func (s *subject) bring(sources []dose.Source) brought {
	b := brought{sources: sources, all: make([]dose.Brought, len(sources))}
	for i, one := range sources {
		b.all[i] = dose.Bring(one, s.on)
	}
	return b
}

// find is the source of a kind, and what it brings; false when there is none.
func find[S dose.Source](b brought) (one S, brings dose.Brought, ok bool) {
	for i, source := range b.sources {
		if one, ok = dose.As[S](source); ok {
			return one, b.all[i], true
		}
	}
	return one, brings, false
}

// rub is the rub, and what it brings.
func (b brought) rub() (dose.Rub, dose.Brought) {
	rub, brings, _ := find[dose.Rub](b)
	return rub, brings
}

// brine is the dry brine of the piece, with the salt that is in it already.
func (s *subject) brine(b brought) salt.Brine {
	temperature := s.base.Fridge
	if s.move(order.Temper).Lasts >= s.on.Wait {
		temperature = s.base.Room // salted on the counter, while the fire comes up
	}
	out := salt.Brine{Path: s.meat.Geometry.Path(s.meat.OneBare), Temperature: temperature, Wait: s.on.Wait}
	out.Load, out.Before = dose.AtTheWait(b.sources, b.all, s.on, out.Path)
	return out
}

// leastRest is the shortest rest that the piece should have.
func (s *subject) leastRest() time.Duration {
	return max(s.line.Rests.Travel, min(s.move(order.Rest).Lasts, s.meat.Cut.Custom().LeastRest)) +
		plan.Job{Again: s.again()}.AgainBefore()
}
