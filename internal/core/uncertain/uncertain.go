// Package uncertain says how long something lasts, member by member of an ensemble.
//
//	eight := uncertain.Typed(8*time.Hour, "a")
//	eight.Chance(9 * time.Hour) // 0.75: that it is over within nine hours
package uncertain

import (
	"hash/fnv"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"verjuice/internal/core/quantity"
)

// Span is a duration with its likely range: one in ten is shorter than Low, one in
// ten longer than High.
type Span = quantity.Range[time.Duration]

// Members is how many members a forecast has for the plan.
const Members = 200

// Endless is how long a member takes that never gets done.
const Endless = 48 * time.Hour

// Duration is how long something lasts, with what each member of an ensemble says: member i of
// pieces on one pit shares the pit's error, so that they are late together.
type Duration struct {
	Span
	members []time.Duration
	sorted  []time.Duration
}

// Of is how long the members say; there has to be one.
func Of(members []time.Duration) Duration {
	sorted := slices.Sorted(slices.Values(members))
	return Duration{span(sorted), members, sorted}
}

// From has members whose tenth, middle and ninetieth are those of s: the logarithm of the
// length is taken as normal on either side of the middle. Two of different keys have nothing
// to do with each other.
func From(s Span, key string) Duration {
	members, sorted := make([]time.Duration, Members), make([]time.Duration, Members)
	seed := fnv.New64a()
	seed.Write([]byte(key))
	for i, at := range rand.New(rand.NewPCG(seed.Sum64(), 0)).Perm(Members) {
		members[i] = quantile(s, (float64(at)+0.5)/Members)
		sorted[at] = members[i]
	}
	return Duration{s, members, sorted}
}

// Between is how long something lasts that the cook gave from low to high.
func Between(low, high time.Duration, key string) Duration {
	return From(Span{Low: low.Round(five), Mid: ((low + high) / 2).Round(five), High: high.Round(five)}, key)
}

// Typed is how long something lasts whose time the cook gave: −20 to +25 %.
func Typed(mid time.Duration, key string) Duration {
	return From(Span{
		Low:  (mid * 80 / 100).Round(five),
		Mid:  mid.Round(five),
		High: (mid * 125 / 100).Round(five),
	}, key)
}

// Rounded is its likely range in steps of five minutes.
func (l Duration) Rounded() Span {
	return Span{Low: l.Low.Round(five), Mid: l.Mid.Round(five), High: l.High.Round(five)}
}

// Member is what member i says.
func (l Duration) Member(i int) time.Duration { return l.members[i%len(l.members)] }

// Chance is the probability that it is over within d.
func (l Duration) Chance(d time.Duration) float64 {
	return float64(l.within(d)) / float64(len(l.sorted))
}

// within is how many members are over within d.
func (l Duration) within(d time.Duration) int {
	n, _ := slices.BinarySearchFunc(l.sorted, d, func(m, d time.Duration) int {
		if m > d {
			return 1
		}
		return -1
	})
	return n
}

// At is the length that it stays under with probability p, 0 < p < 1.
func (l Duration) At(p float64) time.Duration {
	return l.sorted[min(len(l.sorted)-1, int(math.Ceil(p*float64(len(l.sorted)))))]
}

// After is the span of the whole length once it has lasted for elapsed and is not over.
func (l Duration) After(elapsed time.Duration) Span {
	left := l.sorted[l.within(elapsed):]
	if len(left) < 2 { // longer than anyone expects: any moment now
		return Span{Low: elapsed, Mid: elapsed + 15*time.Minute, High: elapsed + time.Hour}
	}
	return span(left)
}

// span of sorted lengths.
func span(sorted []time.Duration) Span {
	at := func(q float64) time.Duration {
		x := q * float64(len(sorted)-1)
		i := min(int(x), len(sorted)-1)
		j := min(i+1, len(sorted)-1)
		return sorted[i] + time.Duration((x-float64(i))*float64(sorted[j]-sorted[i]))
	}
	return Span{Low: at(0.1), Mid: at(0.5), High: at(0.9)}
}

// decile is the standard normal's 90 % point: Low and High of a Span lie so many
// standard deviations from the middle.
const decile = 1.2815515655446004

const five = 5 * time.Minute

// quantile is the length that a log-normal span stays under with probability p.
func quantile(s Span, p float64) time.Duration {
	if s.Mid <= 0 {
		return 0
	}
	z := math.Sqrt2 * math.Erfinv(2*p-1)
	end := s.Low
	if z > 0 {
		end = s.High
	}
	return time.Duration(float64(s.Mid) * math.Exp(math.Abs(z)/decile*math.Log(float64(end)/float64(s.Mid))))
}
