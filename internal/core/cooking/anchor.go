package cooking

import (
	"slices"
	"time"

	"verjuice/internal/core/anchor"
	"verjuice/internal/core/method"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/when"
)

// near is how far a piece may still be from where its hours were counted from.
const near = 10 * time.Minute

// anchored puts the pieces that say something by the clock, or share a pit's own list, where the
// plan has them, and reports whether any has moved by more than a little: then their forecasts
// have to be made again.
func anchored(subjects []*subject, l *Plan) bool {
	moved := false
	for _, s := range subjects {
		if !s.byClock() {
			continue
		}
		now, known := l.anchor(s, subjects)
		if d := now.On.Sub(s.anchor.On); !known || d > -near && d < near && now.Wraps.Sub(s.anchor.Wraps).Abs() < near && now.First.Sub(s.anchor.First).Abs() < near && now.Until.Sub(s.anchor.Until).Abs() < near {
			continue
		}
		s.anchor, moved = now, true
		s.burning = s.burns(s.line.Answers.Value, s.meat)
	}
	return moved
}

// byClock reports whether how the piece fares depends on when it goes on.
func (s *subject) byClock() bool {
	clock := func(c when.Cond) bool { return c.Clock != "" }
	return s != nil && (len(s.sets) > 0 || slices.ContainsFunc(s.moves, func(m method.Move) bool { return m.At.From.Some(clock) || m.At.Until.Some(clock) }))
}

// anchor is where the plan has a piece and its pit.
func (p *Plan) anchor(s *subject, all []*subject) (out anchor.Anchor, known bool) {
	own, ok := p.times(s.line.Key)
	if !ok {
		return out, false
	}
	out.On, out.First = own.Fire, own.Fire
	for _, other := range all {
		if other == nil || other.move(method.On).Pit != s.move(method.On).Pit {
			continue
		}
		if t, ok := p.times(other.line.Key); ok {
			if t.Fire.Before(out.First) {
				out.First = t.Fire
			}
			if t.Wrap.After(out.Wraps) {
				out.Wraps = t.Wrap
			}
			until := t.Slice
			if t.Kind == plan.Ahead {
				until = t.Off
			}
			if until.After(out.Until) {
				out.Until = until
			}
		}
	}
	return out, true
}
