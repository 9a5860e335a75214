package uncertain

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// A length made of a span has the span's tenth, middle and ninetieth among its members, its
// chances rise with the time that is left, and what is not over yet lasts longer.
func TestALengthFromItsSpan(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 8))
	for range 100 {
		mid := time.Duration((0.5 + 15*r.Float64()) * float64(time.Hour))
		s := Span{
			Low:  time.Duration(float64(mid) * (0.5 + 0.45*r.Float64())),
			Mid:  mid,
			High: time.Duration(float64(mid) * (1.05 + r.Float64())),
		}
		l := From(s, fmt.Sprint(r.Uint64()))
		assert.Equal(t, s, l.Span)
		for p, at := range map[float64]time.Duration{0.1: s.Low, 0.5: s.Mid, 0.9: s.High} {
			assert.InDelta(t, p, l.Chance(at), 0.006)
			assert.InDelta(t, float64(at), float64(l.At(p)), 0.02*float64(at))
		}
		last := 0.0
		for h := time.Duration(0); h < 3*s.High; h += s.High / 40 {
			now := l.Chance(h)
			assert.GreaterOrEqual(t, now, last)
			last = now
		}
		assert.Equal(t, 1.0, last)
		before := s
		for _, share := range []float64{0.5, 0.9, 1, 1.1} {
			elapsed := time.Duration(share * float64(s.Mid))
			after := l.After(elapsed)
			assert.GreaterOrEqual(t, after.Low, elapsed)
			assert.True(t, after.Low <= after.Mid && after.Mid <= after.High)
			assert.GreaterOrEqual(t, after.Mid+time.Minute, before.Mid)
			before = after
		}
		late := l.After(10 * s.High)
		assert.Greater(t, late.Mid, 10*s.High, "longer than anyone expects: any moment now")
	}
}

// Members are those that were given, in their order; their band is theirs.
func TestALengthFromItsMembers(t *testing.T) {
	members := make([]time.Duration, Members)
	for i := range members {
		members[i] = time.Duration((i*37)%Members+1) * time.Minute
	}
	l := Of(members)
	for i, m := range members {
		assert.Equal(t, m, l.Member(i))
		assert.Equal(t, m, l.Member(i+Members), "they repeat")
	}
	assert.InDelta(t, 20, l.Low.Minutes(), 2)
	assert.InDelta(t, 100, l.Mid.Minutes(), 2)
	assert.InDelta(t, 180, l.High.Minutes(), 2)
	assert.Equal(t, 0.25, l.Chance(50*time.Minute))
	assert.True(t, slices.IsSorted([]time.Duration{l.At(0.1), l.At(0.5), l.At(0.999)}))
	endless := Of(slices.Repeat([]time.Duration{Endless}, Members))
	assert.Equal(t, Endless, endless.Mid)
	assert.Zero(t, endless.Chance(36*time.Hour))
}

// Pieces of different keys have nothing to do with each other; the same key draws the same.
func TestKeysDrawApart(t *testing.T) {
	a, b, again := Typed(8*time.Hour, "a"), Typed(8*time.Hour, "b"), Typed(8*time.Hour, "a")
	same, both, either := 0, 0, 0
	for i := range Members {
		assert.Equal(t, a.Member(i), again.Member(i))
		if a.Member(i) == b.Member(i) {
			same++
		}
		early, other := a.Member(i) < 8*time.Hour, b.Member(i) < 8*time.Hour
		if early && other {
			both++
		}
		if early {
			either++
		}
	}
	assert.Less(t, same, Members/10)
	assert.InDelta(t, 0.25, float64(both)/Members, 0.1)
	assert.InDelta(t, 0.5, float64(either)/Members, 0.02)
	assert.Equal(t, Span{Low: 384 * time.Minute, Mid: 8 * time.Hour, High: 10 * time.Hour}.Mid, a.Rounded().Mid)
	assert.Zero(t, a.Rounded().Low%(5*time.Minute))
}

func ExampleTyped() {
	eight := Typed(8*time.Hour, "a")
	fmt.Printf("%.0f %%", 100*eight.Chance(9*time.Hour))
	// Output: 75 %
}
