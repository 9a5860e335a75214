package cooking

import (
	"slices"
	"time"

	"verjuice/internal/core/forecast"
	"verjuice/internal/core/order"
	"verjuice/internal/core/when"
)

// near is how far a piece may still be from where its hours were counted from.
const near = 10 * time.Minute

// anchored puts the pieces that say something by the clock, or share a pit's own list, where the
// plan has them, and reports whether any has moved by more than a little: then their forecasts
// have to be made again.
func anchored(subjects []*subject, l *Plan) bool {
	moved, by := false, func(a, b time.Time) bool { return a.Sub(b).Abs() < near }
	for _, s := range subjects {
		if !s.byClock() {
			continue
		}
		now, known := l.anchor(s)
		was, is := s.anchor.Pit, now.Pit
		if !known ||
			by(s.anchor.On, now.On) && by(was.First, is.First) && by(was.Wraps, is.Wraps) && by(was.Until, is.Until) {
			continue
		}
		s.anchor, moved = now, true
		s.fires = s.firesWith(s.line.Answers.Value, s.meat)
	}
	return moved
}

// byClock reports whether how the piece fares depends on when it goes on.
func (s *subject) byClock() bool {
	clock := func(c when.Cond) bool { return c.Clock != "" }
	return s != nil &&
		(len(s.sets) > 0 || slices.ContainsFunc(s.moves,
			func(m order.Move) bool { return m.At.From.Some(clock) || m.At.Until.Some(clock) }))
}

// anchor is where the plan has a piece and its pit.
func (p *Plan) anchor(s *subject) (out forecast.Anchor, known bool) {
	own, ok := p.times(s.line.Key)
	if !ok {
		return out, false
	}
	return forecast.Anchor{On: own.Fire, Pit: p.Ask.Use(p.Result.Plans[p.Chosen], s.move(order.On).Pit)}, true
}
