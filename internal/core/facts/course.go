package facts

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/quantity"
)

// Minute is what a probe showed in a minute.
type Minute struct {
	At                     time.Time // the minute begins
	First, Last, Low, High quantity.Celsius
	FirstAt, LastAt        time.Time
	Count                  int
}

// Course is what each probe showed, minute by minute: whatever order the readings come in, it is
// the same.
type Course map[string][]Minute

// Add takes readings in.
func (c Course) Add(all ...Reading) {
	for _, r := range all {
		at := r.At.Truncate(time.Minute)
		minutes := c[r.Probe]
		i, there := slices.BinarySearchFunc(minutes, at, func(m Minute, t time.Time) int { return m.At.Compare(t) })
		if !there {
			c[r.Probe] = slices.Insert(minutes, i, Minute{at, r.C, r.C, r.C, r.C, r.At, r.At, 1})
			continue
		}
		minutes[i] = minutes[i].With(Minute{at, r.C, r.C, r.C, r.C, r.At, r.At, 1})
	}
}

// With is the course with more readings; c stays as it is.
func (c Course) With(all ...Reading) Course {
	if len(all) == 0 {
		return c
	}
	out := maps.Clone(c)
	for _, r := range all {
		if minutes := out[r.Probe]; len(minutes) > 0 && len(c[r.Probe]) > 0 && &minutes[0] == &c[r.Probe][0] {
			out[r.Probe] = slices.Clone(minutes)
		}
		out.Add(r)
	}
	return out
}

// With is a minute with what else was read in it. Of two readings at one moment the lower one
// counts as the first and the higher one as the last, whichever came first.
func (m Minute) With(n Minute) Minute {
	m.Count += n.Count
	m.Low, m.High = min(m.Low, n.Low), max(m.High, n.High)
	if d := n.FirstAt.Compare(m.FirstAt); d < 0 || d == 0 && n.First < m.First {
		m.First, m.FirstAt = n.First, n.FirstAt
	}
	if d := n.LastAt.Compare(m.LastAt); d > 0 || d == 0 && n.Last > m.Last {
		m.Last, m.LastAt = n.Last, n.LastAt
	}
	return m
}

// Until is the last thing that a probe showed up to a time; false when it showed nothing.
func (c Course) Until(probe string, now time.Time) (Reading, bool) {
	for _, m := range slices.Backward(c[probe]) {
		if !m.LastAt.After(now) {
			return Reading{probe, m.LastAt, m.Last}, true
		}
		if !m.FirstAt.After(now) {
			return Reading{probe, m.FirstAt, m.First}, true
		}
	}
	return Reading{}, false
}

// Stays reports whether a probe that showed something at a time had stayed in by then: it showed something again
// and again in the twenty minutes before. What was read by eye is read once.
func (c Course) Stays(probe string, at time.Time) bool {
	n := 0
	for _, m := range slices.Backward(c[probe]) {
		if m.At.After(at) {
			continue
		}
		if at.Sub(m.At) > steadyFor {
			break
		}
		n++
	}
	return n >= steady
}

// A probe that stays in shows something so often in so long.
const (
	steadyFor = 20 * time.Minute
	steady    = 3
)

// Readings are one for each minute and probe, the last of it, in the order of time.
func (c Course) Readings() []Reading {
	var out []Reading
	for probe, minutes := range c {
		for _, m := range minutes {
			out = append(out, Reading{probe, m.LastAt, m.Last})
		}
	}
	slices.SortFunc(out, func(a, b Reading) int { return cmp.Or(a.At.Compare(b.At), strings.Compare(a.Probe, b.Probe)) })
	return out
}

// Of are the probes of a piece, or of a pit.
func (c Course) Of(is func(Probe) bool) []string {
	var out []string
	for text := range c {
		if p, err := ParseProbe(text); err == nil && is(p) {
			out = append(out, text)
		}
	}
	slices.Sort(out)
	return out
}

// Sound reports whether m is a minute that readings can make: within itself, in order, of temperatures
// and a count that there can be.
func (m Minute) Sound() bool {
	for _, c := range []quantity.Celsius{m.First, m.Last, m.Low, m.High} {
		if math.IsNaN(float64(c)) || c < LowRead || c > HighRead || c < m.Low || c > m.High {
			return false
		}
	}
	end := m.At.Add(time.Minute)
	return CanBe(m.At) && m.At.Equal(m.At.Truncate(time.Minute)) && !m.FirstAt.Before(m.At) &&
		!m.LastAt.Before(m.FirstAt) &&
		m.LastAt.Before(end) &&
		m.Count >= 1 &&
		m.Count <= MostReadings
}
