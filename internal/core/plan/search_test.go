package plan

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/uncertain"
)

// Two jobs against every pair of fire times there is, in steps of a quarter of an hour: no
// same-day pair of morning starts is likelier by more than a few in a hundred than the plan,
// unless it wakes the cook, holds a piece longer than it keeps, or needs more hands than there
// are at once.
func TestTwoJobsAgainstEveryPairOfTimes(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 34))
	tried := 0
	for range 60 {
		a := evening(1)
		for i := range 2 {
			mid := hours(1 + 5*r.Float64())
			j := onFor(0)
			j.Key, j.PitC, j.RoomDM2 = fmt.Sprint(i), 120, 8
			j.Fire = uncertain.Typed(mid, fmt.Sprint(i, r.Uint64()))
			j.Rest, j.LeastRest, j.Prep = hours(0.75), 15*time.Minute, 15*time.Minute
			j.Wait, j.WaitMax, j.HoldMax = hours(12), hours(48), hours(1.5+2*r.Float64())
			a.Jobs = append(a.Jobs, j)
		}
		result := Make(a)
		at := slices.IndexFunc(result.Plans, func(p Plan) bool { return p.Kind == SameDay && !p.Waking })
		if at < 0 {
			continue
		}
		tried++
		got := result.Plans[at]
		_, wake := a.Quiet.Before(got.Pieces[0].Slice)
		best, when := 0.0, ""
		starts := func(i int) (out []time.Time) {
			j := a.Jobs[i]
			for s := wake.Add(a.lead(j)); s.Before(got.Pieces[i].Slice); s = s.Add(15 * time.Minute) {
				if got.Pieces[i].Slice.Sub(s.Add(j.Fire.Mid)) <= j.HoldMax {
					out = append(out, s)
				}
			}
			return out
		}
		for _, x := range starts(0) {
			for _, y := range starts(1) {
				if x.Equal(y) {
					continue // one pair of hands
				}
				in := 0
				for m := range uncertain.Members {
					if !x.Add(a.Jobs[0].Fire.Member(m)).After(got.Pieces[0].Slice.Add(-a.Jobs[0].LeastRest)) &&
						!y.Add(a.Jobs[1].Fire.Member(m)).After(got.Pieces[1].Slice.Add(-a.Jobs[1].LeastRest)) {
						in++
					}
				}
				if c := float64(in) / uncertain.Members; c > best {
					best, when = c, fmt.Sprint(x.Format("15:04"), " and ", y.Format("15:04"))
				}
			}
		}
		assert.GreaterOrEqual(
			t,
			got.Chance,
			best-0.13,
			"starting at %s instead of %s and %s",
			when,
			got.Pieces[0].Fire.Format("15:04"),
			got.Pieces[1].Fire.Format("15:04"),
		)
		for i, j := range a.Jobs {
			assert.LessOrEqual(t, got.Pieces[i].Hold, j.HoldMax+15*time.Minute)
			assert.Less(t, got.Pieces[i].Chance-1e-9, 1.0000001)
			assert.GreaterOrEqual(t, got.Pieces[i].Chance, got.Chance-1e-9, "all of them are no likelier than one")
		}
	}
	assert.Greater(t, tried, 30)
}

// The chance of a plan is between that of its least likely piece and the product of all, when
// pieces share a pit's error; with pieces that have nothing to do with each other it is near
// the product.
func TestTheChanceOfAllTogether(t *testing.T) {
	ask := func(second uncertain.Duration) Plan {
		a := evening(2)
		for i, fire := range []uncertain.Duration{uncertain.Typed(hours(5), "one"), second} {
			j := onFor(0)
			j.Key, j.Fire = fmt.Sprint(i), fire
			j.Rest, j.LeastRest, j.Wait, j.WaitMax, j.HoldMax = hours(0.5), hours(0.25), hours(12), hours(48), hours(0.6)
			a.Jobs = append(a.Jobs, j)
		}
		return Make(a).Plans[0]
	}
	apart, twin := ask(uncertain.Typed(hours(5), "two")), ask(uncertain.Typed(hours(5), "one"))
	product := apart.Pieces[0].Chance * apart.Pieces[1].Chance
	assert.InDelta(t, product, apart.Chance, 0.06)
	assert.Greater(t, twin.Chance, twin.Pieces[0].Chance*twin.Pieces[1].Chance+0.02, "twins are late together")
	assert.InDelta(t, min(twin.Pieces[0].Chance, twin.Pieces[1].Chance), twin.Chance, 0.03)
}

// As time goes and nothing comes off, the chance falls and the end moves; once it is off, it is
// certain. What is too late by far still has an end.
func TestWaitingForAPiece(t *testing.T) {
	j := onFor(6)
	j.Wraps = uncertain.Span{Low: hours(2), Mid: hours(3), High: hours(4)}
	j.LeastRest, j.Wait, j.WaitMax, j.HoldMax = hours(0.5), hours(12), hours(48), hours(3)
	a := evening(1, j)
	lit := a.Serve.Add(-hours(8))
	a.Marks = []Mark{{Key: "a", Stage: "fire", At: lit, Done: true}}
	lastOff, lastChance := time.Time{}, 1.0
	for h := 0.5; h < 20; h += 0.5 {
		a.Now = lit.Add(hours(h))
		if a.Now.After(a.Serve) {
			a.Serve = a.Now.Add(hours(1))
		}
		p := Make(a).Plans[0]
		piece := p.Pieces[0]
		require.False(t, piece.Off.Before(lastOff), "after %.1f h", h)
		assert.False(t, piece.Early.After(piece.Off) || piece.Off.After(piece.Late), "after %.1f h", h)
		assert.False(t, piece.Wrap.After(piece.Off), "wrapped before it is off")
		assert.False(t, piece.WrapFrom.After(piece.Wrap) || piece.Wrap.After(piece.WrapTo))
		if h < 7 {
			assert.LessOrEqual(t, piece.Chance, lastChance+0.05, "after %.1f h", h)
			lastChance = piece.Chance
		}
		lastOff = piece.Off
	}
	a.Marks = append(a.Marks, Mark{Key: "a", Stage: "off", At: a.Now, Done: true})
	done := Make(a).Plans[0]
	assert.True(t, done.Pieces[0].Over)
	assert.Equal(t, a.Now, done.Pieces[0].Off)
}

// A piece that never gets done is a clash that is told, and no plan of it can be.
func TestAPieceThatNeverGetsDone(t *testing.T) {
	j := onFor(0)
	j.PitC, j.Fire = 85, uncertain.Of(slices.Repeat([]time.Duration{uncertain.Endless}, uncertain.Members))
	j.LeastRest, j.Wait, j.WaitMax, j.HoldMax = hours(0.5), hours(12), hours(48), hours(3)
	a := evening(1, j)
	for _, p := range Make(a).Plans {
		assert.False(t, p.Feasible)
		assert.Zero(t, p.Chance)
		assert.True(
			t,
			slices.ContainsFunc(p.Conflicts, func(c Conflict) bool { return c.Kind == "never" && c.Key == "a" }),
			"%+v",
			p.Conflicts,
		)
	}
}

// A mark from months away is out of reach; the day before is not.
func TestMarksInReach(t *testing.T) {
	serve := time.Date(2026, 11, 28, 18, 30, 0, 0, dublin)
	for days, in := range map[int]bool{-1: true, -30: true, -59: true, 1: true, -61: false, 61: false, -365: false,
		36500: false} {
		assert.Equal(t, in, InReach(serve, serve.AddDate(0, 0, days)), "%d days", days)
	}
}
