package facts

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/quantity"
)

// What keeps a reading from counting.
const (
	TooHot   = "too-hot"   // for meat that holds water, or for any pit
	TooCold  = "too-cold"  // for meat that goes on a fire
	Jump     = "jump"      // from what was read before, faster than meat can change
	TookBack = "took-back" // somebody said so
)

// Aside are readings of a probe that do not count, one after another.
type Aside struct {
	Probe    string
	From, To time.Time
	C        quantity.Celsius // the first of them
	Why      string
	Count    int
}

// A core cannot be over the boiling of its water, nor far below any freezer; what it changes by in a minute is less
// than steepest, and two places of a piece differ by less than apart. Field judgement, on the generous side: what is
// set aside is shown, and counts when somebody says so.
const (
	hottestCore, coldestCore = 108.0, -30.0
	hottestPit               = 450.0
	steepest, apart          = 4.0, 15.0 // °C a minute, °C
	// A probe that shows something else for so long was moved.
	movedAfter, movedReadings = 10 * time.Minute, 3
)

// span is what somebody said of the readings of a probe between two times.
type span struct {
	from, to time.Time
	counts   bool
}

// spans are what was said of readings, by probe, in the order in which it was said.
func (all Facts) spans() map[string][]span {
	out := map[string][]span{}
	for _, f := range all.Standing() {
		if f.Kind == Uncounted || f.Kind == Counted {
			if from, to, ok := f.Span(); ok {
				out[f.What] = append(out[f.What], span{from, to, f.Kind == Counted})
			}
		}
	}
	return out
}

// Span is between which times readings count or do not, both included, by a fact that says so.
func (f Fact) Span() (from, to time.Time, ok bool) {
	at := func(key string) time.Time {
		text, _ := f.Values[key].(string)
		t, err := time.Parse(time.RFC3339Nano, text)
		if err != nil {
			return time.Time{}
		}
		return t
	}
	from, to = at("from"), at("to")
	return from, to, !from.IsZero() && !to.Before(from)
}

// Judged is the course as it counts, and what is set aside of it: what somebody took back, and what cannot be. The
// readings stay on record as they came; c is not changed.
func (c Course) Judged(all Facts) (Course, []Aside) {
	said := all.spans()
	out, aside := c, []Aside{}
	for _, probe := range slices.Sorted(maps.Keys(c)) {
		p, err := ParseProbe(probe)
		if err != nil {
			continue
		}
		j := judge{core: p.Piece != "", said: said[probe]}
		whys := j.points(c[probe])
		if !slices.ContainsFunc(whys, func(w string) bool { return w != "" }) {
			continue
		}
		if len(aside) == 0 {
			out = maps.Clone(c)
		}
		kept := []Minute{}
		for i, m := range c[probe] {
			first, last := whys[2*i], whys[2*i+1]
			switch {
			case first == "" && last == "":
				kept = append(kept, m.within())
			case first == "":
				kept = append(kept, Minute{m.At, m.First, m.First, m.First, m.First, m.FirstAt, m.FirstAt, max(1, m.Count-1)})
			case last == "":
				kept = append(kept, Minute{m.At, m.Last, m.Last, m.Last, m.Last, m.LastAt, m.LastAt, max(1, m.Count-1)})
			}
			one := Aside{Probe: probe, From: m.FirstAt, To: m.LastAt, C: m.First, Why: first, Count: m.Count}
			switch {
			case first == "" && last == "":
				continue
			case first == "":
				one.From, one.C, one.Why, one.Count = m.LastAt, m.Last, last, 1
			case last == "":
				one.To, one.Count = m.FirstAt, 1
			}
			if n := len(aside); n > 0 && aside[n-1].Probe == probe && aside[n-1].Why == one.Why &&
				one.From.Sub(aside[n-1].To) < 5*time.Minute {
				aside[n-1].To = one.To
				aside[n-1].Count += one.Count
				continue
			}
			aside = append(aside, one)
		}
		if out[probe] = kept; len(kept) == 0 {
			delete(out, probe)
		}
	}
	slices.SortStableFunc(aside, func(a, b Aside) int { return cmp.Compare(a.From.UnixNano(), b.From.UnixNano()) })
	return out, aside
}

// within is m without what lies outside its first and last reading where that cannot be.
func (m Minute) within() Minute {
	if m.High > max(m.First, m.Last)+apart {
		m.High = max(m.First, m.Last)
	}
	if m.Low < min(m.First, m.Last)-apart {
		m.Low = min(m.First, m.Last)
	}
	return m
}

// judge says what keeps readings of one probe from counting, in the order of time.
type judge struct {
	core   bool
	said   []span
	last   *point // that counts by itself
	stands *point // that counts because somebody said so
	differ []int  // those that jump, one like another, since then
}

// point is a reading of the probe that is judged.
type point struct {
	at time.Time
	c  float64
}

// points says of the first and the last reading of each minute what keeps it from counting.
func (j *judge) points(minutes []Minute) []string {
	all := make([]point, 0, 2*len(minutes))
	for _, m := range minutes {
		all = append(all, point{m.FirstAt, float64(m.First)}, point{m.LastAt, float64(m.Last)})
	}
	told := j.told(all)
	out := make([]string, 0, len(all))
	for i, p := range all {
		if i%2 == 1 && p.at.Equal(all[i-1].at) && p.c == all[i-1].c { // one reading
			out = append(out, out[i-1])
			continue
		}
		why := j.why(p, told[i])
		out = append(out, why)
		differs := len(j.differ) > 0 && !all[j.differ[len(j.differ)-1]].near(p, 3)
		switch {
		case told[i] != nil && why == "":
			j.stands = &p // what is beside it may go on from it, or from what was before
		case why == Jump:
			if differs {
				j.differ = nil
			}
			j.differ = append(j.differ, i)
			if len(j.differ) < movedReadings || p.at.Sub(all[j.differ[0]].at) < movedAfter {
				continue
			}
			j.believe(out)
			j.last = &p
		case why == "":
			if len(j.differ) >= movedReadings && !differs {
				j.believe(out) // it goes on from there, so it was moved
			}
			j.last = &p
		}
		j.differ = nil
	}
	return out
}

// told is what somebody said last of each reading, in the order of time; nil of one of which nobody said anything.
func (j *judge) told(all []point) []*span {
	out := make([]*span, len(all))
	next := make([]int, len(all)+1) // from each on, the first of which nothing is said
	for i := range next {
		next[i] = i
	}
	free := func(i int) int {
		for next[i] != i {
			next[i] = next[next[i]]
			i = next[i]
		}
		return i
	}
	for n := len(j.said) - 1; n >= 0; n-- {
		s := &j.said[n]
		from, _ := slices.BinarySearchFunc(all, s.from, func(p point, t time.Time) int { return p.at.Compare(t) })
		for i := free(from); i < len(all) && !all[i].at.After(s.to); i = free(i) {
			out[i], next[i] = s, i+1
		}
	}
	return out
}

// believe lets those that jumped, one like another, count.
func (j *judge) believe(whys []string) {
	for k := j.differ[0]; k < len(whys); k++ {
		if whys[k] == Jump {
			whys[k] = ""
		}
	}
}

// near reports whether meat can show both, with so much between two places of it, °C.
func (p point) near(q point, between float64) bool {
	return math.Abs(q.c-p.c) <= between+steepest*q.at.Sub(p.at).Minutes()
}

// why is what keeps a reading from counting, with what somebody said of it; empty for one that does.
func (j *judge) why(p point, told *span) string {
	switch {
	case told != nil && told.counts:
		return ""
	case told != nil:
		return TookBack
	case j.core && p.c > hottestCore, !j.core && p.c > hottestPit:
		return TooHot
	case j.core && p.c < coldestCore:
		return TooCold
	case j.core && j.last != nil && !j.last.near(p, apart) && (j.stands == nil || !j.stands.near(p, apart)):
		return Jump
	}
	return ""
}

// ByEye are the readings up to now that were read once and not again and again: by eye, or by a probe that was put in
// for a moment. The latest come first, most of them at most.
func (c Course) ByEye(now time.Time, most int) []Reading {
	var out []Reading
	for probe, minutes := range c {
		n := 0
		for _, m := range slices.Backward(minutes) {
			if n++; n > 10*most {
				break
			}
			if m.FirstAt.After(now) || c.Stays(probe, m.LastAt) || c.Stays(probe, m.LastAt.Add(steadyFor)) {
				continue
			}
			out = append(out, Reading{probe, m.LastAt, m.Last})
			if !m.FirstAt.Equal(m.LastAt) {
				out = append(out, Reading{probe, m.FirstAt, m.First})
			}
		}
	}
	slices.SortFunc(out, func(a, b Reading) int { return cmp.Or(b.At.Compare(a.At), cmp.Compare(a.Probe, b.Probe)) })
	return out[:min(most, len(out))]
}
