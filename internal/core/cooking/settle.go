package cooking

import (
	"context"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/order"
	"verjuice/internal/core/uncertain"
	"verjuice/internal/core/when"
)

// settled are the pieces as they fare, with the plan that was laid of just these.
type settled struct {
	subjects []*subject
	plan     *Plan
	turns    int  // that were taken
	still    bool // each piece stands where its hours were counted from
}

// near is how far the plan may have a piece from where its hours were counted from.
const near = 10 * time.Minute

// Turns that are taken at most, with single runs, which take a millisecond, and then with the forecasts
// that were asked for.
const (
	mostTurns = 16
	mostAsked = 3
)

// settle forecasts the pieces and lays the plan of them, until the two agree. The plan decides when a piece
// goes on; where a cook says something by the clock ("wrapped at 07:00"), or a pit has its own list over the
// day, that decides how long the piece takes; and how long it takes decides the plan.
//
// Its fixed point: every such piece stands in the plan within near of where its hours were counted from,
// itself and the use of its pit. A piece that says nothing by the clock is at it from the start. It is looked
// for with single runs by a secant for each piece (the gap between where it was counted from and where the
// plan then has it, of two turns), since a pit that hardly heats by night brings plain repetition a little
// nearer with each turn only, and from other starts where it is never done from the first; then with the
// forecasts that were asked for. It ends after mostTurns from each start and mostAsked turns: should a plan that
// jumps (around quiet hours) have no such point, the last plan and the forecasts that it was laid of are given, still
// false.
func settle(
	ctx context.Context,
	o order.Order,
	f facts.Facts,
	at Clock,
	by forecast.Forecaster,
	subjects []*subject,
	before *Plan,
) (settled, error) {
	turns := 0
	turn := func(by forecast.Forecaster) settled {
		turns++
		out := settled{subjects: make([]*subject, len(subjects)), turns: turns}
		each(len(subjects), func(i int) { out.subjects[i] = subjects[i].forecast(ctx, by) })
		if ctx.Err() == nil {
			out.plan = lay(o, f, at, out.subjects, before)
		}
		return out
	}
	// seek looks for the point from where the subjects stand, and gives what it came to.
	seek := func() (now settled) {
		gaps := make([]gap, len(subjects))
		for n := 0; n < mostTurns && ctx.Err() == nil; n++ {
			now = turn(forecast.SingleRun{})
			if subjects, now.still = now.anchored(gaps); now.still {
				break
			}
		}
		return now
	}
	if slices.ContainsFunc(subjects, (*subject).byClock) {
		now := seek()
		for _, h := range tries {
			if ctx.Err() != nil || !now.endless() {
				break
			}
			subjects = now.before(h)
			now = seek()
		}
		if ctx.Err() == nil && now.endless() {
			var best []*subject
			latest := time.Duration(0)
			for _, h := range starts {
				subjects = now.before(h)
				one := turn(forecast.SingleRun{})
				if early := one.early(); best == nil || early > latest && latest < enough {
					latest, best = early, one.stand()
				}
			}
			subjects = best
		}
	}
	for n := 1; ; n++ {
		out := turn(by)
		if err := ctx.Err(); err != nil {
			return settled{}, err
		}
		next, still := out.anchored(nil)
		if out.still = still; still || n == mostAsked {
			return out, nil
		}
		subjects = next
	}
}

// tries are how long before serving pieces are put on to look for the point again where they are never done from
// where it was found: a pit that is cold by night and hot from the morning on does it when they go on late enough,
// and never when they go on two days before. Hours.
var tries = []float64{16, 20, 12, 26}

// Where there is no such point at all, since a pit that hardly heats by night makes a piece take as much longer as it
// goes on earlier, pieces go on at the latest of these hours before serving by which the middle of the forecast has
// them off early enough, or else at that which has them off first.
var starts = []float64{5, 8, 10, 12, 14, 16, 18, 20, 22, 24, 28}

// enough is how long before its least rest the middle of a forecast has a piece off then.
const enough = 90 * time.Minute

// early is how long before they have to be the last of the pieces by the clock is off.
func (s settled) early() time.Duration {
	out := time.Duration(math.MaxInt64)
	for _, one := range s.subjects {
		if one.byClock() {
			off := one.anchor.On.Add(min(one.fire.Takes.Mid, uncertain.Endless))
			out = min(out, one.serve.Add(-one.leastRest()).Sub(off))
		}
	}
	return out
}

// stand fixes the pieces by the clock where they stand.
func (s settled) stand() []*subject {
	next := slices.Clone(s.subjects)
	for i, one := range next {
		if one.byClock() {
			fixed := *one
			fixed.stands = one.anchor.On
			next[i] = &fixed
		}
	}
	return next
}

// endless reports whether a piece that says something by the clock is never done.
func (s settled) endless() bool {
	return slices.ContainsFunc(s.subjects, func(one *subject) bool {
		return one.byClock() && one.fire.Takes.Mid >= uncertain.Endless
	})
}

// before are the pieces put on so many hours before serving, whatever the plan says.
func (s settled) before(h float64) []*subject {
	next := slices.Clone(s.subjects)
	for i, one := range next {
		if now, known := s.plan.anchor(one); one.byClock() && known {
			on := one.serve.Add(-time.Duration(h * float64(time.Hour)))
			shift := on.Sub(now.On)
			now.On, now.Pit.First = on, now.Pit.First.Add(shift)
			if !now.Pit.Wraps.IsZero() {
				now.Pit.Wraps = now.Pit.Wraps.Add(shift)
			}
			next[i] = one.at(now)
		}
	}
	return next
}

// gap is how far the plan had a piece from where its hours were counted from, at the turn before.
type gap struct {
	on    time.Time
	apart time.Duration
}

// anchored are the pieces put where the plan has them, and whether all of them stood there already. With
// gaps, where that is estimated by the turn before instead.
func (s settled) anchored(gaps []gap) (next []*subject, still bool) {
	next, still = slices.Clone(s.subjects), true
	by := func(a, b time.Time) bool { return a.Sub(b).Abs() < near }
	for i, one := range s.subjects {
		if !one.byClock() {
			continue
		}
		now, known := s.plan.anchor(one)
		was, is := one.anchor.Pit, now.Pit
		if !known || by(one.anchor.On, now.On) && by(was.First, is.First) && by(was.Wraps, is.Wraps) &&
			by(was.Until, is.Until) {
			continue
		}
		still = false
		if gaps != nil && !one.anchor.On.IsZero() {
			now = gaps[i].secant(one.anchor.On, now)
		}
		next[i] = one.at(now)
	}
	return next, still
}

// farthest is how far a piece is moved at most against where the plan has it.
const farthest = 12 * time.Hour

// secant is where the gap between asked and planned closes, by this turn and the one before: planned, while
// that cannot be told.
func (g *gap) secant(asked time.Time, planned forecast.Anchor) forecast.Anchor {
	was := *g
	*g = gap{asked, planned.On.Sub(asked)}
	moved, closed := asked.Sub(was.on), was.apart-g.apart
	if was.on.IsZero() || closed == 0 || g.apart.Abs() > was.apart.Abs() {
		return planned
	}
	step := time.Duration(float64(g.apart) * float64(moved) / float64(closed))
	shift := (step - g.apart).Round(time.Minute)
	if shift.Abs() > farthest {
		return planned
	}
	later := func(t time.Time) time.Time {
		if t.IsZero() {
			return t
		}
		return t.Add(shift)
	}
	pit := planned.Pit
	return forecast.Anchor{
		On:  planned.On.Add(shift),
		Pit: when.Use{First: later(pit.First), Wraps: later(pit.Wraps), Until: later(pit.Until)},
	}
}

// byClock reports whether how the piece fares depends on when it goes on.
func (s *subject) byClock() bool {
	clock := func(c when.Cond) bool { return c.Clock != "" }
	return s != nil &&
		(len(s.sets) > 0 || slices.ContainsFunc(s.moves,
			func(m order.Move) bool { return m.At.From.Some(clock) || m.At.Until.Some(clock) }))
}

// at is the piece standing there on the clock.
func (s *subject) at(a forecast.Anchor) *subject {
	next := *s
	next.anchor = a
	next.fires = next.firesWith(s.line.Answers.Value, s.meat)
	return &next
}

// anchor is where the plan has a piece and its pit.
func (p *Plan) anchor(s *subject) (out forecast.Anchor, known bool) {
	own, ok := p.times(s.line.Key)
	if !ok {
		return out, false
	}
	return forecast.Anchor{On: own.Fire, Pit: p.Ask.Use(p.Result.Plans[p.Chosen], s.move(order.On).Pit)}, true
}
