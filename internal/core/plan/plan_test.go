package plan

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/gear"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/uncertain"
	"verjuice/internal/core/when"
)

var dublin = func() *time.Location {
	l, err := time.LoadLocation("Europe/Dublin")
	if err != nil {
		panic(err)
	}
	return l
}()

var night = QuietHours{From: 23 * 60, To: 6 * 60}

func hours(h float64) time.Duration { return time.Duration(h * float64(time.Hour)) }

// onFor is a piece that is on the fire for so many hours.
func onFor(h float64) Job {
	return Job{
		Key:       "a",
		Fire:      uncertain.Typed(hours(h), "a"),
		Rest:      hours(1),
		LeastRest: 10 * time.Minute,
		Wait:      hours(10),
		WaitMin:   hours(1),
		WaitMax:   hours(72),
		HoldMax:   hours(4),
		Slice:     10 * time.Minute,
		Prep:      10 * time.Minute,
	}
}

// evening is a supper at half past six, from one pit and with so many hands.
func evening(hands int, jobs ...Job) Ask {
	return Ask{
		Serve: time.Date(2026, 11, 28, 18, 30, 0, 0, dublin),
		Quiet: night,
		Hands: hands,
		Pits:  []Pit{{Pit: gear.Pits[0], Name: "pit", Room: 40}},
		Jobs:  jobs,
	}
}

// anyJob is a piece as a cook may have it.
func anyJob(r *rand.Rand, key string) Job {
	mid := hours(0.75 + 14*r.Float64()*r.Float64())
	j := Job{
		Key:       key,
		Pit:       r.IntN(2),
		PitC:      120,
		Prep:      15 * time.Minute,
		Fire:      uncertain.Typed(mid, key),
		Rest:      45 * time.Minute,
		LeastRest: 15 * time.Minute,
		Wait:      hours(float64(1 + r.IntN(30))),
		WaitMin:   40 * time.Minute,
		WaitMax:   hours(72),
		HoldMax:   hours(2),
		Slice:     10 * time.Minute,
		RoomDM2:   5,
		FridgeDM2: 5,
	}
	if mid > hours(5) {
		j.HoldMax = hours(14)
		j.Keeps = true
		j.Wraps = uncertain.Span{Low: mid * 45 / 100, Mid: mid * 55 / 100, High: mid * 70 / 100}
	}
	if r.IntN(3) == 0 {
		j.Bath, j.BathMin, j.BathMax, j.Drain = hours(18), hours(12), hours(30), 30*time.Minute
	}
	if r.IntN(4) == 0 {
		j.Thaw = hours(40)
	}
	if r.IntN(3) == 0 {
		j.Temper = 40 * time.Minute
	}
	return j
}

func anyAsk(r *rand.Rand) Ask {
	pellet, _ := gear.FindPit("pellet")
	offset, _ := gear.FindPit("offset")
	// Also the nights on which the clocks change.
	day := []time.Time{time.Date(2026, 11, 28, 0, 0, 0, 0, dublin), time.Date(2026, 10, 25, 0, 0, 0, 0, dublin),
		time.Date(2027, 3, 28, 0, 0, 0, 0, dublin)}[r.IntN(3)]
	a := Ask{
		Serve: day.Add(time.Duration(12*60+15*r.IntN(36)) * time.Minute), Quiet: night, Hands: 1 + r.IntN(2),
		Pits: []Pit{{Pit: pellet, Name: "pellet", Room: 40}, {Pit: offset, Name: "offset", Room: 50}},
	}
	for i := range 1 + r.IntN(5) {
		a.Jobs = append(a.Jobs, anyJob(r, fmt.Sprint(i)))
	}
	return a
}

// several has some jobs eaten at times of their own, and some on the fire once more.
func several(r *rand.Rand, a Ask) Ask {
	for i := range a.Jobs {
		j := &a.Jobs[i]
		if r.IntN(3) == 0 {
			j.Serve = a.Serve.Add(time.Duration(15*(r.IntN(64)-40)) * time.Minute)
		}
		for n := range r.IntN(6) - 3 {
			j.Again = append(j.Again, Again{
				Move: fmt.Sprint(n), Lasts: time.Duration(15+r.IntN(60)) * time.Minute, SetC: 135, Cut: r.IntN(2) == 0,
				Told: r.IntN(2) == 0, After: time.Duration(r.IntN(40)) * time.Minute,
			})
			j.Again[n].Told = j.Again[n].Told && !j.Again[n].Cut
		}
	}
	return a
}

// In every plan, whatever is cooked: each piece's stages follow one another, the
// fire is lit before it is needed, and nobody is woken unless the plan says so.
func TestPlansHoldTogether(t *testing.T) {
	r := rand.New(rand.NewPCG(51, 52))
	own := rand.New(rand.NewPCG(153, 154))
	kinds := map[Kind]int{}
	for range 600 {
		a := several(own, anyAsk(r))
		if r.IntN(2) == 0 {
			a.Now = a.Serve.Add(-hours(90 * r.Float64()))
		}
		out := Make(a)
		require.NotEmpty(t, out.Plans)
		require.Equal(t, 3, len(out.Plans)+len(out.Refused), "each kind is there, or why not")
		for n, p := range out.Plans {
			kinds[p.Kind]++
			for _, q := range out.Plans[:n] {
				assert.True(t, p.differs(q))
			}
			waking := map[string]bool{}
			for i, s := range p.Pieces {
				j := a.Jobs[i]
				last := time.Time{}
				for stage, at := range []time.Time{s.Thaw, s.Bath, s.Lift, s.Prep, s.Salt, s.Out, s.Fire, s.Early, s.Off, s.Late} {
					if at.IsZero() {
						continue
					}
					assert.False(t, at.Before(last), "stage %d of %+v", stage, s)
					last = at
				}
				assert.False(t, s.Slice.Add(j.Slice+j.AgainAfter()).After(a.serves(j)))
				fires(t, a, j, s)
				assert.InDelta(t, s.Fire.Sub(s.Salt).Minutes(), s.Wait.Minutes(), 0.1)
				assert.LessOrEqual(t, s.Wait, j.WaitMax)
				assert.True(t, s.Chance >= 0 && s.Chance <= 1)
				if a.Now.IsZero() && s.Kind != SameDay {
					assert.GreaterOrEqual(t, s.Chance, 0.89, "a longer rest makes it surer")
				}
			}
			woken, up := 0, time.Time{}
			for i, k := range p.Tasks {
				if i > 0 {
					assert.False(t, k.At.Before(p.Tasks[i-1].At), "in order")
				}
				_, _, quiet := night.Within(k.At)
				if quiet && !k.About && !k.Done {
					assert.True(t, k.Wakes, "%+v", k)
				}
				if k.Wakes && !k.Done {
					if up.IsZero() || k.At.Sub(up) > 30*time.Minute {
						woken++ // jobs close to each other wake once
					}
					up = k.At
					waking[k.Key] = true
				}
			}
			assert.Equal(t, woken, p.Woken, "and it says how often")
		}
	}
	for _, k := range []Kind{SameDay, Overnight, Ahead} {
		assert.Greater(t, kinds[k], 40, k)
	}
}

// fires checks the times of what is on the fire once more.
func fires(t *testing.T, a Ask, j Job, s Times) {
	t.Helper()
	for n, g := range j.Again {
		on := s.Again[n]
		assert.InDelta(t, g.Lasts.Minutes(), on.Off.Sub(on.On).Minutes(), 5, "as long as it was asked to")
		assert.False(t, g.Cut && on.On.Before(s.Slice.Add(j.Slice)), "what is cut follows the knife")
		assert.False(t, g.Cut && on.Off.After(a.serves(j)))
		assert.False(t, !g.Cut && !g.Told && on.Off.After(s.Slice))
	}
}

// The order of the pieces on the page makes no difference.
func TestOrderPlaysNoPart(t *testing.T) {
	r := rand.New(rand.NewPCG(59, 60))
	for range 100 {
		a := anyAsk(r)
		if r.IntN(2) == 0 {
			a.Now = a.Serve.Add(-hours(60 * r.Float64()))
		}
		b := a
		b.Jobs = slices.Clone(a.Jobs)
		r.Shuffle(len(b.Jobs), func(i, j int) { b.Jobs[i], b.Jobs[j] = b.Jobs[j], b.Jobs[i] })
		x, y := Make(a), Make(b)
		require.Len(t, y.Plans, len(x.Plans))
		for i, p := range x.Plans {
			q := y.Plans[i]
			assert.ElementsMatch(t, p.Pieces, q.Pieces)
			assert.Equal(t, p.Tasks, q.Tasks)
			assert.InDelta(t, p.Chance, q.Chance, 1e-12)
		}
	}
}

// With time enough no plan wakes anyone for what can be moved, and the hands that
// salt do so one after the other.
func TestNobodyIsWokenNeedlessly(t *testing.T) {
	r := rand.New(rand.NewPCG(53, 54))
	for range 300 {
		a := anyAsk(r)
		a.Hands = 1
		for _, p := range Make(a).Plans {
			for i, k := range p.Tasks {
				if k.Stage == "salt" || k.Stage == "bath" {
					_, _, quiet := night.Within(k.At)
					assert.False(t, quiet, "%s at %v", k.Stage, k.At)
				}
				for _, l := range p.Tasks[:i] {
					if k.Stage == "salt" && l.Stage == "salt" && overlaps(k, l) {
						assert.True(t, k.Clash && l.Clash, "two at once are flagged")
					}
				}
			}
		}
	}
}

// Serving later never makes impossible what was possible.
func TestLaterIsNeverHarder(t *testing.T) {
	r := rand.New(rand.NewPCG(55, 56))
	feasible := func(a Ask) bool {
		for _, p := range Make(a).Plans {
			if p.Feasible {
				return true
			}
		}
		return false
	}
	was := 0
	own := rand.New(rand.NewPCG(155, 156))
	for range 300 {
		a := several(own, anyAsk(r))
		a.Now = a.Serve.Add(-hours(2 + 40*r.Float64()))
		if !feasible(a) {
			continue
		}
		was++
		for _, later := range []time.Duration{15 * time.Minute, hours(1), hours(5), hours(24)} {
			b := a
			b.Serve, b.Jobs = a.Serve.Add(later), slices.Clone(a.Jobs)
			for i := range b.Jobs {
				if !b.Jobs[i].Serve.IsZero() {
					b.Jobs[i].Serve = b.Jobs[i].Serve.Add(later)
				}
			}
			assert.True(t, feasible(b), "%v later", later)
		}
	}
	assert.Greater(t, was, 100)
}

// A fire lit earlier has a longer hold and a better chance; a span's chances are
// what its ends say.
func TestChancesRiseWithTheHold(t *testing.T) {
	r := rand.New(rand.NewPCG(57, 58))
	for range 200 {
		a := anyAsk(r)
		a.Jobs = a.Jobs[:1]
		base := Make(a).Plans[0].Pieces[0]
		last, hold := -1.0, time.Duration(-1)
		for _, earlier := range []float64{-2, -1, -0.5, 0, 0.5, 1, 2, 4} {
			b := a
			b.Marks = []Mark{{Key: a.Jobs[0].Key, Stage: "fire", At: base.Fire.Add(-hours(earlier))}}
			p := Make(b).Plans[0].Pieces[0]
			assert.GreaterOrEqual(t, p.Chance, last-1e-12)
			assert.GreaterOrEqual(t, p.Hold, hold)
			last, hold = p.Chance, p.Hold
		}
		s := a.Jobs[0].Fire
		assert.InDelta(t, 0.1, s.Chance(s.Low), 0.006)
		assert.InDelta(t, 0.5, s.Chance(s.Mid), 0.006)
		assert.InDelta(t, 0.9, s.Chance(s.High), 0.006)
		assert.InDelta(t, 0.73, s.Chance(s.At(0.73)), 0.006)
		on := s.After(s.Mid)
		assert.Greater(t, on.Low, s.Mid, "what is not done by now is done later")
		assert.InDelta(t, s.High.Hours(), on.Mid.Hours(), 0.35*s.High.Hours())
	}
}

// What was done keeps its time; only later stages move.
func TestMarksMoveWhatIsLeft(t *testing.T) {
	j := onFor(8)
	j.LeastRest, j.Wait, j.HoldMax = 20*time.Minute, hours(14), hours(10)
	j.Slice, j.Prep = 15*time.Minute, 20*time.Minute
	a := evening(2, j)
	plan := Make(a).Plans[0].Pieces[0]
	salted := plan.Salt.Add(hours(2))
	a.Marks = []Mark{{Key: "a", Stage: "salt", At: salted, Done: true}}
	late := Make(a).Plans[0].Pieces[0]
	assert.Equal(t, salted, late.Salt)
	assert.Equal(t, plan.Fire, late.Fire, "the fire does not wait")
	assert.Equal(t, plan.Wait-hours(2), late.Wait.Round(time.Minute))
	lit := plan.Fire.Add(hours(1))
	a.Marks = append(a.Marks, Mark{Key: "a", Stage: "fire", At: lit, Done: true})
	a.Now = lit.Add(hours(0.5))
	on := Make(a).Plans[0]
	assert.Equal(t, lit, on.Pieces[0].Fire)
	assert.Less(t, on.Pieces[0].Chance, plan.Chance)
	assert.True(t, on.Safe.After(a.Serve), "it says when it would be sure")
	a.Now = lit.Add(hours(9))
	assert.True(t, Make(a).Plans[0].Pieces[0].Off.After(a.Now), "still on the fire, so still to come off")
	a.Marks = append(a.Marks, Mark{Key: "a", Stage: "off", At: lit.Add(hours(7)), Done: true})
	done := Make(a).Plans[0]
	assert.Equal(t, 1.0, done.Chance)
	assert.Equal(t, lit.Add(hours(7)), done.Pieces[0].Off)
}

// A fire that was not lit in time is lit now: the plan says how likely it still is,
// and when it would be safe; a piece that cannot thaw in time is reported.
func TestRunningLate(t *testing.T) {
	a := evening(1, onFor(5))
	base := Make(a).Plans[0]
	lastChance, lastSafe := base.Chance, base.Safe
	for _, late := range []float64{0.5, 1, 2, 4} {
		b := a
		b.Now = base.Pieces[0].Fire.Add(hours(late))
		p := Make(b).Plans[0]
		assert.False(t, p.Pieces[0].Fire.Before(b.Now.Add(gear.Pits[0].Preheat)), "once the pit is hot")
		assert.Less(t, p.Chance, lastChance, "%.1f h late", late)
		assert.False(t, p.Safe.Before(lastSafe))
		lastChance, lastSafe = p.Chance, p.Safe
		b.Serve = p.Safe
		assert.True(t, Make(b).Plans[0].Feasible, "serving when it says is possible")
	}
	frozen := a
	frozen.Jobs = []Job{a.Jobs[0]}
	frozen.Jobs[0].Thaw = hours(48)
	frozen.Now = a.Serve.Add(-hours(40))
	p := Make(frozen).Plans[0]
	assert.False(t, p.Feasible)
	require.NotEmpty(t, p.Conflicts)
	assert.Equal(t, "thaw", p.Conflicts[0].Kind)
}

// Too little room, two temperatures in one pit, too few hands and quiet hours are found.
func TestConflictsAreFound(t *testing.T) {
	kettle, _ := gear.FindPit("kettle")
	job := func(key string, c quantity.Celsius) Job {
		j := onFor(3)
		j.Key, j.PitC, j.RoomDM2 = key, c, 12
		j.Rest, j.WaitMax, j.HoldMax, j.Prep = 30*time.Minute, hours(48), hours(1), 15*time.Minute
		return j
	}
	a := evening(1, job("a", 110), job("b", 135))
	a.Pits = []Pit{{Pit: kettle, Name: "kettle", Room: 20}}
	kinds := map[string]bool{}
	for _, c := range Make(a).Plans[0].Conflicts {
		kinds[c.Kind] = true
	}
	assert.True(t, kinds["room"] && kinds["heat"], "%v", kinds)
	long := job("c", 110)
	long.Fire = uncertain.Typed(hours(16), "a")
	a.Jobs = []Job{long}
	out := Make(a)
	for _, r := range out.Refused {
		assert.NotEmpty(t, r.Why.ID)
	}
	assert.True(t, out.Refused[0].Key == "c" || out.Refused[1].Key == "c", "the piece in the way is named")
}

// A plan that the cook chose is laid out even where it would not be made by itself, and says why;
// the others are still there.
func TestWhatIsChosenStays(t *testing.T) {
	a, quick := evening(1), onFor(5)
	quick.Keeps = true
	slow := quick
	slow.Fire = uncertain.Typed(hours(14), "a")
	for _, kind := range Kinds {
		for _, j := range []Job{quick, slow} {
			a.Chosen, a.Jobs = kind, []Job{j}
			out := Make(a)
			assert.True(
				t,
				slices.ContainsFunc(out.Plans, func(p Plan) bool { return p.Kind == kind }),
				"%s of %v",
				kind,
				j.Fire.Mid,
			)
		}
	}
	a.Chosen, a.Jobs = Overnight, []Job{quick}
	out := Make(a)
	assert.Len(t, out.Plans, 3)
	assert.Equal(t, "plan.no-need-of-night", out.Refused[0].Why.ID)
	a.Chosen, a.Jobs[0].Keeps = Ahead, false
	assert.False(
		t,
		slices.ContainsFunc(Make(a).Plans, func(p Plan) bool { return p.Kind == Ahead }),
		"what does not keep cannot be cooked the day before",
	)
}

// What a pit is set to over the day is a job at each change: not what it is lit at, nor what comes
// when nothing is on it any more; one in the night wakes.
func TestAPitsOwnListIsDone(t *testing.T) {
	j := onFor(14)
	j.Wraps = uncertain.Span{Low: hours(5), Mid: hours(6), High: hours(7)}
	j.LeastRest, j.WaitMin, j.HoldMax, j.Prep = 0, 0, hours(9), 0
	a := evening(1, j)
	a.Chosen = Overnight
	for typed, want := range map[string]string{
		"107 °C from 18:00, 120 °C from 07:00":                                "107 | 07:00 120",
		"80 °C from 14:00, 107 °C at 15:00, 120 °C from 03:00":                "107 | 03:00 120 wakes",
		"107 °C, 107 °C after 1 h, 130 °C once wrapped":                       "107 | wrap 130 wakes",
		"107 °C, 110 °C after 2 h, 140 °C after 20 h, 90 °C from 18:00":       "107 | 120m 110 wakes",
		"107 °C, 125 °C after 8 h, 130 °C once wrapped":                       "107 | wrap 130 wakes",
		"107 °C from 20:00, 95 °C from 05:00, 120 °C 30 min after it goes on": "107 | 30m 120 wakes",
	} {
		sets, err := when.ParseSets(typed)
		require.NoError(t, err, typed)
		a.Pits[0].Sets = sets
		p := Make(a).Plans[0]
		got := []string{}
		for _, k := range p.Tasks {
			at := k.At.Format("15:04")
			switch fire := p.Pieces[0].Fire; {
			case k.Stage == "light":
				got = append(got, fmt.Sprint(k.SetC))
				continue
			case k.Stage != "set":
				continue
			case k.At.Equal(floor(p.Pieces[0].Wrap)):
				at = "wrap"
			case sets[k.Turn-1].At.Clock == "":
				at = fmt.Sprint(k.At.Sub(fire).Minutes(), "m")
			}
			got = append(got, strings.TrimSpace(fmt.Sprintf("%s %v %s", at, k.SetC, map[bool]string{true: "wakes"}[k.Wakes])))
		}
		assert.Equal(t, want, got[0]+" | "+strings.Join(got[1:], ", "), typed)
	}
}

func TestQuietHours(t *testing.T) {
	for typed, want := range map[string]string{"23:00-06:00": "23:00-06:00", "22 to 5:30": "22:00-05:30", "none": "none",
		"13-15": "13:00-15:00", "22-24": "22:00-00:00", "11 pm to 6 am": "23:00-06:00", "10:30pm – 5:30AM": "22:30-05:30"} {
		q, err := ParseQuiet(typed)
		require.NoError(t, err, typed)
		assert.Equal(t, want, q.String())
	}
	for _, typed := range []string{"", "late", "23:00", "25-6", "6-6", "06:00-23:00", "23:00x-6", "-3-6", "13 pm-6 am"} {
		_, err := ParseQuiet(typed)
		assert.Error(t, err, typed)
	}
	// The night the clocks go back has an hour more, the one they go forward an hour less.
	back, forward := time.Date(2026, 10, 24, 20, 0, 0, 0, dublin), time.Date(2027, 3, 27, 20, 0, 0, 0, dublin)
	assert.Equal(t, 8*time.Hour, night.Overlap(back, back.Add(24*time.Hour)))
	assert.Equal(t, 6*time.Hour, night.Overlap(forward, forward.Add(20*time.Hour)))
}

// Five pieces on two pits.
func BenchmarkPlan(b *testing.B) {
	r := rand.New(rand.NewPCG(1, 2))
	a := anyAsk(r)
	for len(a.Jobs) < 5 {
		a.Jobs = append(a.Jobs, anyJob(r, fmt.Sprint("x", len(a.Jobs))))
	}
	for b.Loop() {
		Make(a)
	}
}

// overlaps reports whether two tasks that have their times need hands at once.
func overlaps(x, y Task) bool {
	return !x.About && !y.About && x.At.Before(y.At.Add(y.Lasts)) && y.At.Before(x.At.Add(x.Lasts))
}

// A second fire wants its heat like a first one: beside a piece that wants another it is a conflict, and else it is
// none.
func TestASecondFireNeedsItsHeat(t *testing.T) {
	heats := func(set quantity.Celsius) (n int) {
		long, again := onFor(8), onFor(3)
		long.PitC, again.Key, again.PitC = 110, "b", 110
		again.Again = []Again{{Move: "g", Lasts: hours(1), SetC: set, Told: true}}
		long.LeastRest, long.Rest, again.Rest = 0, 0, hours(3)
		for _, c := range Make(evening(2, long, again)).Plans[0].Conflicts {
			if c.Kind == "heat" {
				n++
			}
		}
		return n
	}
	assert.Equal(t, 1, heats(150))
	assert.Zero(t, heats(110))
}
