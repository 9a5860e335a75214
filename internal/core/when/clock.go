package when

import (
	"slices"
	"time"
)

// Use is the time that a pit is in use.
type Use struct {
	First time.Time // the first piece goes on
	Wraps time.Time // the last piece is wrapped; zero for never
	Until time.Time // nothing is on it any more: it is served, or off when it is cooked ahead
}

// Next is the first time at or after t that the clock there shows that; t when that is no time of
// day.
func Next(t time.Time, clock string) time.Time {
	at, err := time.Parse("15:04", clock)
	if err != nil {
		return t
	}
	y, m, d := t.Date()
	out := time.Date(y, m, d, at.Hour(), at.Minute(), 0, 0, t.Location())
	if out.Before(t) {
		out = time.Date(y, m, d+1, at.Hour(), at.Minute(), 0, 0, t.Location())
	}
	return out
}

// last is the last time before t that the clock shows that.
func last(t time.Time, clock string) time.Time {
	at := Next(t.AddDate(0, 0, -2), clock)
	for next := Next(at.Add(time.Minute), clock); next.Before(t); next = Next(at.Add(time.Minute), clock) {
		at = next
	}
	return at
}

// Times are when a pit is set to each of its temperatures, zero for one that never comes. Times of
// day are the last ones, in the order of the list, before nothing is on the pit any more; the
// first of the list is from the start when it has no moment. One that is still to come when a
// later one of the list has come is passed over: "125 °C from 06:30, 140 °C once wrapped" is at
// 140 °C for good when it is wrapped at 06:10.
func (u Use) Times(all []Set) []time.Time {
	out, until := make([]time.Time, len(all)), u.Until
	for i, s := range slices.Backward(all) {
		if s.At.Clock != "" {
			out[i] = last(until, s.At.Clock)
			until = out[i]
		}
	}
	for i, s := range all {
		switch {
		case s.At.Clock != "":
		case s.At.Of == "wrap" && u.Wraps.IsZero():
		case s.At.Of == "wrap":
			out[i] = u.Wraps.Add(s.At.By)
		case s.At.Of == "on":
			out[i] = u.First.Add(s.At.By)
		default:
			out[i] = u.First.Add(s.At.After)
		}
	}
	next := time.Time{}
	for i, at := range slices.Backward(out) {
		switch {
		case at.IsZero():
		case next.IsZero() || at.Before(next):
			next = at
		default:
			out[i] = time.Time{}
		}
	}
	return out
}
