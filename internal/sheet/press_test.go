package sheet_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/app"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/sheet"
	"verjuice/internal/testclock"
)

// pressed is one thing that is pressed at the pit.
type pressed struct {
	kind   facts.Kind
	what   string
	values field.Values
}

// everyPress is all that can be said to be done or seen, with and without a place.
func everyPress() []pressed {
	var out []pressed
	for _, what := range facts.Stages {
		out = append(
			out,
			pressed{facts.Done, what, map[string]field.Values{"set": {"pit": 0.0, "c": 130.0}, "wrap": {"kind": "foil"}}[what]},
		)
	}
	for _, s := range facts.Signs {
		for _, how := range s.Hows {
			out = append(
				out,
				pressed{facts.Seen, s.ID, field.Values{"how": how}},
				pressed{facts.Seen, s.ID, field.Values{"how": how, "place": "the flat"}},
			)
		}
	}
	return out
}

// Whatever is pressed, with thermometers and without one, for every cut and finish, before it is on
// the fire, on it, off it and sliced: how it stands can be told, in whole sentences and finite
// figures. Every press meets every state with and without readings; every cut and finish meets all
// of the states and a share of the presses.
func TestWhateverIsPressed(t *testing.T) {
	testclock.Undated(t)
	r := rand.New(rand.NewPCG(61, 62))
	all := everyPress()
	slices.SortStableFunc(
		all,
		func(a, b pressed) int { return strings.Compare(string(b.kind), string(a.kind)) },
	) // signs move no heat: two after each other share a forecast
	states := []struct {
		name string
		said []string
		h    float64
	}{{"before", nil, 0}, {"on", []string{"fire"}, 1}, {"off", []string{"fire", "off"}, 2},
		{"again", []string{"fire", "off", "again"}, 3},
		{"sliced", []string{"fire", "off", "slice"}, 3}}
	next, odd := map[string]int{}, false
	for _, c := range cut.All() {
		for _, finish := range c.Finishes {
			odd = !odd
			for i, state := range states {
				read := odd == (i%2 == 0)
				met := fmt.Sprint(state.name, read)
				for range 2 {
					next[met]++
					off := []string{"", "soft", "90 °C and soft"}[r.IntN(3)]
					stands(t, c, string(finish), off, state.said, state.h, read, all[next[met]%len(all)])
				}
			}
		}
	}
	require.Len(t, next, 2*len(states))
	for met, n := range next {
		assert.GreaterOrEqual(t, n, len(all), "%s: some are never pressed", met)
	}
}

// stands tells how a cut stands after one more press.
func stands(t *testing.T, c cut.Cut, finish, off string, said []string, h float64, read bool, p pressed) {
	t.Helper()
	what := fmt.Sprintf("%s %s, off at %q, after %v, read %v, %+v", c.ID, finish, off, said, read, p)
	on := time.Date(2026, 11, 28, 7, 0, 0, 0, time.UTC)
	at := func(h float64) time.Time { return on.Add(time.Duration(h * float64(time.Hour))) }
	one := anycook.Coated(c.ID, quantity.FormatMass(quantity.Mass(c.LowKG), quantity.Metric))
	usual, err := cut.New(c, quantity.Mass(c.LowKG), 0)
	require.NoError(t, err)
	one.Thickness = fmt.Sprintf("%.0f mm", 1000*0.35*float64(usual.Thickest)) // soon done, and soon worked out
	one.Key, one.Choices = "a", map[string]string{"finish": finish, "wrap": "paper"}
	one.When = map[string]string{"off": off}
	one.Moves = []cook.Move{
		{Key: "g", What: "again", With: "cubes in a pan"}, {Key: "o", What: "other", When: "1 h before serving",
			With: "warm the plates"},
		{Key: "t", What: "turn", When: "after 30 min"},
	}
	page := anycook.Supper(one)
	page.Zone, page.ServeAt, page.Pits = "UTC", at(
		10,
	).Format(cook.TimeLayout),
		[]cook.Pit{
			{Name: "Cabinet", Kind: "cabinet"},
		}
	var all facts.Facts
	for i, stage := range said {
		all = append(all, anycook.Done(i+1, "a", stage, at(float64(i)*h/2).Format(time.RFC3339)))
	}
	last := facts.Fact{
		ID:     anycook.Done(9, "", "", "").ID,
		Kind:   p.kind,
		What:   p.what,
		Piece:  "a",
		Values: p.values,
		At:     at(h).Format(time.RFC3339),
	}
	if p.what == "set" || p.what == "light" || p.what == "out" || p.what == "relit" || p.what == "fuel" ||
		p.what == "wood" ||
		p.what == "over" {
		last.Piece = ""
	}
	require.Empty(t, last.Check(), what)
	course := facts.Course{}
	for m := 0.0; read && m < h; m += 0.25 {
		course.Add(
			facts.Reading{Probe: "core:a", At: at(m), C: quantity.Celsius(5 + 50*m)},
			facts.Reading{Probe: "pit:0", At: at(m), C: 119},
		)
	}
	parsed, err := cooking.Work(
		t.Context(),
		order.Parse(page, kitchen.Kitchen{}),
		nil,
		kitchen.Kitchen{},
		cooking.Clock{Forecast: forecast.SingleRun{}},
	)
	require.NoError(t, err)
	require.Empty(t, parsed.Mistakes, what)
	stands, err := app.Inputs{
		CookRequest: cooking.CookRequest{Cook: page, Facts: append(all, last)},
		Now:         at(h), By: forecast.SingleRun{}, Course: course,
	}.Live(t.Context())
	require.NoError(t, err, what)
	out := sheet.WriteLive(stands, sheet.Reader{})
	require.Empty(t, out.Problem, what)
	require.Len(t, out.Pieces, 1, what)
	for _, n := range out.Next {
		if due, err := time.Parse(time.RFC3339, n.At); err != nil || due.After(at(h).Add(15*time.Minute)) {
			continue
		}
		assert.True(t, slices.ContainsFunc(out.Pieces[0].Done, func(p sheet.Press) bool { return p.What == n.What }),
			"%s: %s is due and cannot be pressed", what, n.Label)
	}
	raw, err := json.Marshal(out)
	require.NoError(t, err, what)
	for _, bad := range []string{"NaN", "Inf", "%!", "{{", "<nil>"} {
		require.False(t, strings.Contains(string(raw), bad), "%s: %s in %s", what, bad, raw)
	}
}
