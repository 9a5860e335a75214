package plan

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/gear"
	"verjuice/internal/core/uncertain"
)

// slow is a piece that takes the night, wrapped half way.
func slow() Job {
	hours := func(h float64) time.Duration { return time.Duration(h * float64(time.Hour)) }
	return Job{
		Key:       "a",
		Prep:      30 * time.Minute,
		Wait:      10 * time.Hour,
		WaitMin:   4 * time.Hour,
		WaitMax:   48 * time.Hour,
		Fire:      uncertain.From(uncertain.Span{Low: hours(9), Mid: hours(11), High: hours(13.5)}, "a"),
		Wraps:     uncertain.Span{Low: hours(4), Mid: hours(5.5), High: hours(7)},
		Rest:      time.Hour,
		LeastRest: 20 * time.Minute,
		HoldMax:   16 * time.Hour,
		HoldBest:  16 * time.Hour,
		Slice:     15 * time.Minute,
		Keeps:     true,
		RoomDM2:   10,
	}
}

func ask(t *testing.T, jobs ...Job) Ask {
	t.Helper()
	quiet, err := ParseQuiet("23:00-06:00")
	require.NoError(t, err)
	cabinet, _ := gear.FindPit("cabinet")
	serve := time.Date(2026, 11, 28, 18, 30, 0, 0, time.UTC)
	return Ask{
		Serve: serve,
		Now:   serve.AddDate(0, 0, -5),
		Quiet: quiet,
		Hands: 1,
		Pits:  []Pit{{Pit: cabinet, Name: "cabinet", Room: 60}},
		Jobs:  jobs,
	}
}

func byKind(r Result) map[Kind]Plan {
	out := map[Kind]Plan{}
	for _, p := range r.Plans {
		out[p.Kind] = p
	}
	return out
}

// Minutes are moved before methods: what goes on for the night goes on so early that
// neither its wrap nor its fire wakes anybody, where it can be held so long.
func TestANightIsLeftInPeace(t *testing.T) {
	p := byKind(Make(ask(t, slow())))[Overnight]
	assert.Zero(t, p.Woken, "%+v", p.Conflicts)
	assert.Empty(t, p.Conflicts)
	assert.True(t, p.Pieces[0].Wrap.Hour() < 23 && p.Pieces[0].Wrap.Hour() > 12)
	for _, k := range p.Tasks {
		if k.Stage == "feed" {
			assert.False(t, k.Wakes, "fed before the night")
		}
	}
	// Where it cannot be held so long, the wrap is a wake-up like any other.
	short := slow()
	short.HoldMax, short.HoldBest = 9*time.Hour, 9*time.Hour
	p = byKind(Make(ask(t, short)))[Overnight]
	assert.Equal(t, 1, p.Woken)
	// Cooling and reheating are offered, and not chosen for a wake-up.
	r := Make(ask(t, short))
	assert.NotEqual(t, Ahead, r.Plans[0].Kind)
	assert.Contains(t, byKind(r), Ahead)
}

// A pit is lit earlier when nobody is free for it, and waits.
func TestAPitIsLitEarlier(t *testing.T) {
	j := slow()
	j.Fire = uncertain.From(uncertain.Span{Low: 2 * time.Hour, Mid: 150 * time.Minute, High: 3 * time.Hour}, "a")
	j.Wraps = uncertain.Span{}
	j.Wait = 45 * time.Minute
	j.WaitMin = 45 * time.Minute
	j.WaitMax = 45 * time.Minute
	p := Make(ask(t, j)).Plans[0]
	assert.Empty(t, p.Conflicts)
	for _, k := range p.Tasks {
		assert.False(t, k.Clash, "%+v", k)
		if k.Stage == "light" {
			assert.True(t, !k.At.After(p.Pieces[0].Fire.Add(-50*time.Minute)), "hot in time")
		}
	}
}

// A refusal has one reason, and the one change that would make it possible makes it.
func TestARefusalOffersItsRemedy(t *testing.T) {
	a := ask(t, slow())
	for _, no := range Make(a).Refused {
		if no.Kind != SameDay {
			continue
		}
		require.False(t, no.ServeAt.IsZero())
		a.Serve = no.ServeAt
		assert.Contains(t, byKind(Make(a)), SameDay, "served at %s", no.ServeAt)
	}
	short := slow()
	short.HoldMax = time.Hour
	found := false
	for _, no := range Make(ask(t, short)).Refused {
		found = found || no.Kind == Overnight && no.Holder
	}
	assert.True(t, found, "a holder would do")
	short.HoldBest = time.Hour
	for _, no := range Make(ask(t, short)).Refused {
		assert.False(t, no.Holder)
	}
}

// Late is only what now has passed, and every job has its place in the list.
func TestJobsOfADay(t *testing.T) {
	j := slow()
	j.Dust, j.Glaze, j.Sauce = true, true, true
	j.Doings = []Doing{
		{
			Stage: "spritz",
			From:  uncertain.Span{Low: 2 * time.Hour, Mid: 2 * time.Hour, High: 2 * time.Hour},
			Every: 45 * time.Minute,
			Until: j.Wraps,
			Lasts: 5 * time.Minute,
		},
	}
	a := ask(t, j)
	for _, p := range Make(a).Plans {
		assert.False(t, p.Overdue, p.Kind)
		stages := map[string]time.Time{}
		for _, k := range p.Tasks {
			stages[k.Stage] = k.At
		}
		order := []string{"salt", "dust", "fire", "spritz", "wrap", "sauce", "glaze", "off", "slice"}
		for i, stage := range order[1:] {
			assert.False(t, stages[stage].Before(stages[order[i]]), "%s: %s before %s", p.Kind, stage, order[i])
		}
		assert.Contains(t, stages, "feed")
	}
	a.Now = a.Serve.Add(-2 * time.Hour)
	for _, p := range Make(a).Plans {
		assert.False(t, p.Feasible)
	}
}
