package sheet

import (
	"math"
	"reflect"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/outlook"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/starter"
	"verjuice/internal/testclock"
)

func ahead(t *testing.T, c cook.Cook, compare string, as Reader) OutlookSheet {
	t.Helper()
	out, err := outlook.OutlookRequest{Cook: c, Compare: compare}.Work(t.Context(), nothing, noon)
	require.NoError(t, err)
	return WriteOutlook(out, as)
}

func shoulder(change func(p *cook.Piece)) cook.Cook {
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key = "one"
	if change != nil {
		change(&p)
	}
	c := anycook.Supper(p)
	c.Pits = []cook.Pit{{Name: "Cabinet", Kind: "cabinet"}}
	return c
}

// Whatever the cut, every text of its forecast is finished, every figure is a number, the
// curve rises in its bands, and the marks are in order and on the curve.
func TestEveryForecastIsFinished(t *testing.T) {
	testclock.Undated(t)
	for _, c := range cut.All() {
		p := starter.NewPiece(c, quantity.Metric)
		p.Key = "one"
		page := anycook.Supper(p)
		page.Pits = []cook.Pit{{Name: "Cabinet", Kind: "cabinet"}}
		for _, as := range []Reader{{}, {Units: quantity.US}} {
			out := ahead(t, page, "", as)
			require.NotEmpty(t, out.Title, c.ID)
			texts(reflect.ValueOf(out), c.ID, func(at, text string) {
				assert.NotRegexp(t, `[{}]|NaN|Inf|%!|\bnil\b`, text, at)
				assert.NotContains(t, text, "  ", at)
			})
			last := -1.0
			for _, q := range out.Curve {
				assert.True(t, q.H > last && q.Low <= q.Mid && q.Mid <= q.High, "%s at %.2f h", c.ID, q.H)
				assert.False(t, math.IsNaN(q.Mid+q.Low+q.High+q.Pit))
				last = q.H
			}
			require.NotEmpty(t, out.Marks)
			assert.Equal(t, "on", out.Marks[0].Kind)
			before := -1.0
			for _, m := range out.Marks {
				assert.GreaterOrEqual(t, m.H, before, "%s %s", c.ID, m.Kind)
				before = m.H
			}
			assert.NotEmpty(t, out.Doneness.Core)
			assert.NotEmpty(t, out.Doneness.Feel)
			assert.NotEmpty(t, out.Doneness.Look)
			assert.NotEmpty(t, out.RestText)
			assert.NotEmpty(t, out.Ways)
		}
	}
}

// Units change how a forecast is written, not what it says: the same hours, and temperatures
// that are the same.
func TestAForecastInOtherUnits(t *testing.T) {
	metric, us := ahead(t, shoulder(nil), "", Reader{}), ahead(t, shoulder(nil), "", Reader{Units: quantity.US})
	assert.Equal(t, "°C", metric.Axis.Unit)
	assert.Equal(t, "°F", us.Axis.Unit)
	require.Len(t, us.Curve, len(metric.Curve))
	for i := range metric.Curve {
		assert.Equal(t, metric.Curve[i].H, us.Curve[i].H)
		assert.InDelta(t, metric.Curve[i].Mid*1.8+32, us.Curve[i].Mid, 0.2)
		assert.InDelta(t, metric.Curve[i].Pit*1.8+32, us.Curve[i].Pit, 0.2)
	}
	assert.Equal(t, metric.Heads[0], us.Heads[0])
	for i := range metric.Reaches {
		assert.Equal(t, metric.Reaches[i].After, us.Reaches[i].After)
		assert.Contains(t, us.Reaches[i].Core, "°F")
	}
	assert.NotRegexp(t, `\d °C`, strings.Join(us.Says, " "))
	assert.InDelta(t, 140, us.Floor, 0.1)
}

// What is told is asked for no more, and what would narrow most comes first.
func TestWhatIsAskedFor(t *testing.T) {
	asked := func(change func(p *cook.Piece), kind string) (out []string) {
		c := shoulder(func(p *cook.Piece) {
			p.Choices = map[string]string{"wrap": "foil"}
			if change != nil {
				change(p)
			}
		})
		if kind != "" {
			c.Pits[0].Kind = kind
		}
		last := math.Inf(1)
		for _, n := range ahead(t, c, "", Reader{}).Narrows {
			out = append(out, n.What)
			d, err := quantity.ParseDuration(strings.TrimPrefix(n.Less, "narrows it by "))
			require.NoError(t, err, n.Less)
			assert.LessOrEqual(t, d.Hours(), last)
			last = d.Hours()
		}
		return out
	}
	plain := asked(nil, "")
	assert.Contains(t, plain, "thickness")
	assert.Contains(t, plain, "grate")
	assert.NotContains(t, asked(func(p *cook.Piece) { p.Thickness = "140 mm" }, ""), "thickness")
	assert.NotContains(t, asked(func(p *cook.Piece) { p.Choices["tight"] = "tight" }, ""), "wrap")
	for _, lid := range []string{"shut", "60"} {
		assert.NotContains(t, asked(func(p *cook.Piece) { p.Choices["lid"] = lid }, ""), "openings")
	}
	for _, n := range ahead(t, shoulder(nil), "", Reader{}).Narrows {
		assert.Contains(t, []string{"", "piece", "plan", "fire", "forecast"}, n.Stage)
	}
}

// Another way is drawn when it is asked for; one that there is not is none.
func TestAnotherWayIsDrawn(t *testing.T) {
	out := ahead(t, shoulder(nil), "wrap-foil", Reader{})
	require.NotNil(t, out.Other)
	assert.Greater(t, len(out.Other.Curve), 20)
	assert.Contains(t, out.Other.Text, "wrap it in foil: ")
	at := slices.IndexFunc(out.Ways, func(w WayLine) bool { return w.ID == "wrap-foil" })
	require.GreaterOrEqual(t, at, 0)
	assert.Equal(t, []Edit{{Pointer: "/pieces/0/choices/wrap", Value: "foil"}}, out.Ways[at].Edits)
	assert.Regexp(t, regexp.MustCompile(`^− `), out.Ways[at].Differs, "foil is quicker")
	for _, none := range []string{"", "wrap-silk", "../../etc", strings.Repeat("x", 40)} {
		assert.Nil(t, ahead(t, shoulder(nil), none, Reader{}).Other, none)
	}
	for _, w := range out.Ways {
		assert.NotEmpty(t, w.Label)
		assert.True(
			t,
			strings.HasPrefix(w.Differs, "+ ") || strings.HasPrefix(w.Differs, "− ") || w.Differs == "the same time",
			w.Differs,
		)
	}
}

// What the cook thinks is held against the forecast with its chance.
func TestWhatTheCookThinks(t *testing.T) {
	line := func(guess string) RuleLine {
		out := ahead(t, shoulder(func(p *cook.Piece) { p.Fire.Guess = guess }), "", Reader{})
		return out.Rules[len(out.Rules)-1]
	}
	early, late := line("5 h"), line("30 h")
	assert.Equal(t, "What you think", early.Label)
	assert.Equal(t, "5 h", early.Says)
	assert.Regexp(t, `^\d of 100 such cooks are done by then`, early.Why)
	assert.Regexp(t, `^(9\d|100) of 100`, late.Why)
	assert.NotEqual(t, "What you think", line("").Label)
}

// Without a serving time there are hours and no clock; with a mistake there is nothing, and no
// error.
func TestAForecastOfLess(t *testing.T) {
	c := shoulder(nil)
	c.ServeAt = ""
	out := ahead(t, c, "", Reader{})
	assert.Empty(t, out.Start)
	assert.NotEmpty(t, out.Curve)
	for _, r := range out.Reaches {
		assert.Empty(t, r.Clock)
	}
	for _, bad := range []cook.Cook{shoulder(func(p *cook.Piece) { p.Trimmed = "heavy" }),
		shoulder(func(p *cook.Piece) { p.Fire.Pit = "hot" }), shoulder(func(p *cook.Piece) { p.Cut = "unicorn" }), {}} {
		none := ahead(t, bad, "hotter", Reader{})
		assert.Empty(t, none.Title)
		assert.NotNil(t, none.Curve, "lists are empty, not absent")
		assert.NotNil(t, none.Ways)
	}
}

// A page that was asked for settled says the same as its forecast.
func TestThePageAndItsForecastAgree(t *testing.T) {
	at := noon
	at.Forecast = forecast.Ensemble{}
	c := shoulder(nil)
	s := told(cooking.CookRequest{Cook: c}, at, Reader{})
	looked, err := outlook.OutlookRequest{Cook: c}.Work(t.Context(), nothing, at)
	require.NoError(t, err)
	out := WriteOutlook(looked, Reader{})
	assert.Equal(t, s.Pieces[0].Clock.Fire, out.Heads[0].Text)
	assert.Equal(t, "on the fire, "+s.Pieces[0].Clock.FireRange, out.Heads[0].Note)
	start, err := time.Parse(time.RFC3339, out.Start)
	require.NoError(t, err)
	fire, _ := s.Pieces[0].Clock.step("fire")
	on, err := time.Parse(time.RFC3339, fire.At)
	require.NoError(t, err)
	assert.True(t, on.Equal(start), "%s and %s", on, start)
}

// Before it is lit there is a short list for each kind of pit, whose every line has its words,
// and a tick is kept with its pit alone.
func TestBeforeLighting(t *testing.T) {
	for _, kind := range gear.Pits {
		c := shoulder(nil)
		c.Pits = []cook.Pit{{Name: "First", Kind: kind.ID}, {Name: "Second", Kind: kind.ID}}
		second := c.Pieces[0]
		second.Key, second.Fire.On = "two", 1
		c.Pieces = append(c.Pieces, second)
		lists := func(said facts.Facts) map[string][]CheckLine {
			out := map[string][]CheckLine{}
			for _, task := range told(cooking.CookRequest{Cook: c, Facts: said}, noon, Reader{}).Plan.Tasks {
				if task.Stage == "light" {
					out[task.ID] = task.Checks
				} else {
					assert.Empty(t, task.Checks, task.Stage)
				}
			}
			return out
		}
		fresh := lists(nil)
		require.Len(t, fresh, 2, kind.ID)
		for id, list := range fresh {
			assert.GreaterOrEqual(t, len(list), 2, "%s %s", kind.ID, id)
			for _, line := range list {
				assert.NotEmpty(t, line.Text, "%s %s", kind.ID, line.Tick)
				assert.False(t, line.Ticked)
			}
		}
		tick := fresh["light-pit0"][0].Tick
		f := facts.Fact{ID: "00000000-0000-4000-8000-000000000005", Kind: facts.Ticked, What: tick, At: "2026-11-28T05:00"}
		kept := lists(facts.Facts{f})
		assert.True(t, kept["light-pit0"][0].Ticked, kind.ID)
		assert.False(t, kept["light-pit0"][1].Ticked)
		assert.False(t, kept["light-pit1"][0].Ticked, "the other pit has its own")
		gone := facts.Fact{
			ID:   "00000000-0000-4000-8000-000000000006",
			Kind: facts.Withdrawn,
			What: f.ID,
			At:   "2026-11-28T05:01",
		}
		assert.False(t, lists(facts.Facts{f, gone})["light-pit0"][0].Ticked)
	}
}
