package plan

import (
	"slices"
	"testing"
	"time"

	"verjuice/internal/core/uncertain"

	"github.com/stretchr/testify/assert"
)

// Whatever is typed as quiet hours is read or refused; a night that is read ends after it begins,
// within the longest night, and holds the moments in it.
func FuzzParse(f *testing.F) {
	for _, s := range []string{"23:00-06:00", "22-5", "none", "22 to 7", "0-24", "25:00-1", "-", "1:60-2"} {
		f.Add(s, int64(1_790_000_000))
	}
	f.Fuzz(func(t *testing.T, typed string, unix int64) {
		hours, err := ParseQuiet(typed)
		if err != nil || hours.None() || unix < 0 || unix > 4e9 {
			return
		}
		at := time.Unix(unix, 0).UTC()
		if from, to, in := hours.Within(at); in {
			assert.True(t, from.Before(to) && to.Sub(from) <= 14*time.Hour, "%q: %s to %s", typed, from, to)
			assert.False(t, at.Before(from) || !at.Before(to), "%q: %s", typed, at)
		}
	})
}

// Nobody is said to sleep through a night in which something is to be done: a rhythm that runs into it, a piece that
// comes off in it unless its pit keeps that warm, and a fire that is lit late by one who has set no quiet hours.
func TestAFullNightIsOne(t *testing.T) {
	j := slow()
	j.Wraps = uncertain.Span{}
	h := func(x float64) time.Duration { return time.Duration(x * float64(time.Hour)) }
	span := func(x float64) uncertain.Span { return uncertain.Span{Low: h(x), Mid: h(x), High: h(x)} }
	j.Doings = []Doing{{Stage: "spritz", Move: "s", From: span(1), Every: 45 * time.Minute, Lasts: five}}
	a := ask(t, j)
	p := byKind(Make(a))[Overnight]
	assert.Greater(t, p.Woken, 5, "each spritz of the night")
	assert.NotEmpty(t, p.Conflicts)
	j.Doings = nil
	a.Jobs = []Job{j}
	off := func(p Plan) Task {
		i := slices.IndexFunc(p.Tasks, func(k Task) bool { return k.Stage == "off" })
		return p.Tasks[i]
	}
	a.Marks = []Mark{{Key: "a", Stage: "fire", At: a.Serve.Add(-h(27.5))}} // off in the night
	for _, holds := range []bool{true, false} {
		a.Pits[0].Holds = holds
		p := Make(a).Plans[0]
		_, _, quiet := a.Quiet.Within(off(p).At)
		assert.Equal(t, holds, !quiet)
		assert.Equal(t, holds, off(p).Waits)
		assert.Equal(t, !holds, p.Woken > 0)
	}
	a.Quiet, a.Marks = QuietHours{}, []Mark{{Key: "a", Stage: "fire", At: a.Serve.Add(-h(18.5))}}
	p = Make(a).Plans[0]
	assert.Zero(t, p.Woken)
	assert.Positive(t, p.Night, "lit before one")
}
