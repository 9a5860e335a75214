package outlook_test

import (
	"context"
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/order"
	"verjuice/internal/core/outlook"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/starter"
	"verjuice/internal/testclock"
)

// supper is a cook-out of one piece of a cut, with everything else as usual.
func supper(id string, change func(p *cook.Piece)) cook.Cook {
	c, ok := cut.Find(id)
	if !ok {
		panic(id)
	}
	p := starter.NewPiece(c, quantity.Metric)
	p.Key = "one"
	if change != nil {
		change(&p)
	}
	return cook.Cook{
		Name:    "Supper",
		ServeAt: testclock.At(7, "18:30"),
		Zone:    testclock.Zone,
		Guests:  "8",
		Pits:    []cook.Pit{{Name: "pellet", Kind: "pellet"}},
		Pieces:  []cook.Piece{p},
	}
}

var now = cooking.Clock{Now: testclock.Now()}

func look(t *testing.T, c cook.Cook) outlook.Look {
	t.Helper()
	r, err := cooking.Work(t.Context(), order.Parse(c, kitchen.Kitchen{}), nil, kitchen.Kitchen{}, now)
	require.NoError(t, err)
	l, ok, err := outlook.Of(t.Context(), r, 0)
	require.NoError(t, err)
	require.True(t, ok)
	return l
}

// What is looked at is what the plan is made from: the same middle, the same band; the curve
// rises to where it is taken off, and its milestones are in order.
func TestTheOutlookIsThePlansForecast(t *testing.T) {
	for _, id := range []string{"pork-shoulder-bone-in", "beef-brisket-packer", "chicken-leg", "pork-spare-ribs",
		"venison-haunch"} {
		l := look(t, supper(id, nil))
		fire := l.Piece.Fire.Takes
		assert.InDelta(t, fire.Mid.Hours(), l.Fire.Done.Mid, 0.05, id)
		assert.InDelta(t, fire.Low.Hours(), l.Fire.Done.Low, 0.05, id)
		last := 0.0
		for i, core := range l.Cores {
			at := l.Fire.Reach[i].Mid
			assert.GreaterOrEqual(t, at, last, "%s %g °C", id, core)
			if core <= float64(l.Input.Core) {
				assert.LessOrEqual(t, at, l.Fire.Done.Mid+1e-9, "%s %g °C", id, core)
			}
			last = at
		}
	}
}

// A shoulder stalls for hours in the range that cooks name; what is taken off pink, or cooked
// hot and thin, does not.
func TestTheStallIsFoundWhereThereIsOne(t *testing.T) {
	stall := look(t, supper("pork-shoulder-bone-in", nil)).Stall
	require.NotNil(t, stall)
	assert.Greater(t, stall.To-stall.From, 1.0)
	assert.True(t, stall.LowC > 58 && stall.TopC < 82, "%+v", stall)
	for _, id := range []string{"beef-tri-tip", "chicken-wing", "pork-tenderloin"} {
		assert.Nil(t, look(t, supper(id, nil)).Stall, id)
	}
}

// Where it rests decides how long it keeps hot: a cooler longer than a counter, a holder for as
// long as it is asked to; minutes of venting take some of it away.
func TestTheRestFollowsItsPlace(t *testing.T) {
	floor := func(rest, vent string) float64 {
		l := look(t, supper("beef-brisket-packer", func(p *cook.Piece) {
			p.Choices = map[string]string{"rest": rest, "vent": vent, "wrap": "foil"}
		}))
		return l.Rest.Floor.Low
	}
	counter, cooler, pit := floor("counter", "0"), floor("cooler", "0"), floor("pit", "0")
	assert.Greater(t, cooler, 1.5*counter)
	assert.Greater(t, pit, counter)
	assert.True(t, math.IsInf(floor("holder", "0"), 1), "it stays above the floor")
	assert.Less(t, floor("cooler", "15"), cooler)
	for _, place := range cut.Rests {
		_, known := heat.Places[forecast.FireInput{}.Place(place)]
		assert.True(t, known, place)
	}
}

// ways are the other ways of the first piece of a cook.
func ways(t *testing.T, c cook.Cook) []outlook.Way {
	t.Helper()
	out, err := outlook.OutlookRequest{Cook: c}.Work(t.Context(), kitchen.Kitchen{}, now)
	require.NoError(t, err)
	return out.Ways
}

// Each other way is what working the page out with its edits gives; what it promises of time
// has the right sign, and none of them adds a caution of care or a stop.
func TestOtherWaysKeepTheirWord(t *testing.T) {
	testclock.Undated(t)
	for _, id := range []string{"pork-shoulder-bone-in", "beef-brisket-packer", "turkey-breast", "pork-spare-ribs",
		"beef-round"} {
		c := supper(id, nil)
		ways := ways(t, c)
		require.NotEmpty(t, ways, id)
		l := look(t, c)
		grave := func(r cooking.Result) map[string]bool {
			out := map[string]bool{}
			for _, f := range r.Pieces[0].Findings {
				out[f.ID] = f.Severity != caution.Note
			}
			return out
		}
		work := func(c cook.Cook) cooking.Result {
			r, err := cooking.Work(t.Context(), order.Parse(c, kitchen.Kitchen{}), nil, kitchen.Kitchen{}, now)
			require.NoError(t, err)
			return r
		}
		was := grave(work(c))
		seen := map[string]outlook.Way{}
		for _, w := range ways {
			what := id + " " + w.ID
			seen[w.ID] = w
			assert.True(t, w.Chance >= 0 && w.Chance <= 1 && w.Fire.Mid > 0 && w.Yield > 0.7 && w.Yield < 1.3, "%s %+v", what, w)
			changed := c
			p := c.Pieces[0]
			p.Choices = map[string]string{}
			for k, v := range c.Pieces[0].Choices {
				p.Choices[k] = v
			}
			for _, e := range w.Edits {
				switch at := strings.TrimPrefix(e.Pointer, "/pieces/0/"); {
				case strings.HasSuffix(at, "/kind"):
					changed.Pits = []cook.Pit{{Name: c.Pits[0].Name, Kind: e.Value}}
				case e.Pointer == "/plan":
					changed.Plan = e.Value
				case at == "fire/pit":
					p.Fire.Pit = e.Value
				case at == "fire/temper":
					p.Fire.Temper = e.Value
				case at == "thickness":
					p.Thickness = e.Value
				case at == "count":
					p.Count = quantity.Count(e.Value)
				case at == "bought":
					p.Bought = e.Value
				case at == "trimmed":
					p.Trimmed = e.Value
				default:
					p.Choices[strings.TrimPrefix(at, "choices/")] = e.Value
				}
			}
			changed.Pieces = []cook.Piece{p}
			r := work(changed)
			require.Empty(t, r.Mistakes, what)
			assert.InEpsilon(t, r.Pieces[0].Fire.Takes.Mid.Hours(), w.Fire.Mid.Hours(), 0.12, what)
			if !w.Happens {
				for caution, is := range grave(r) {
					assert.False(t, is && !was[caution], "%s adds %s", what, caution)
				}
			}
		}
		mid := l.Piece.Fire.Takes.Mid
		p := work(c).Plan
		for _, w := range ways {
			if w.Fire.Mid <= mid {
				assert.GreaterOrEqual(t, w.Chance, p.Result.Plans[p.Chosen].Chance-0.03, "%s %s is quicker", id, w.ID)
			}
		}
		for id, longer := range map[string]bool{"hotter": false, "cooler": true, "low-night": true, "halves": false,
			"cold": true, "windy": true, "thicker": true} {
			if w, ok := seen[id]; ok {
				assert.Equal(t, longer, w.Fire.Mid > mid, "%s %s: %v against %v", c.Pieces[0].Cut, id, w.Fire.Mid, mid)
			}
		}
	}
}

// A pit that is set below what public guidance names is not offered to save a night.
func TestNoOtherWayIsACoolPit(t *testing.T) {
	for _, w := range ways(t, supper("pork-shoulder-bone-in", func(p *cook.Piece) { p.Fire.Pit = "110 °C" })) {
		assert.True(t, w.Happens || w.Input.PitC >= 107, w.ID)
	}
}

// Where a pit has its own list, a hotter or a cooler pit is that list, hotter or cooler.
func TestAPitsListIsMadeHotterWhole(t *testing.T) {
	c := supper("pork-shoulder-bone-in", nil)
	c.Pits = []cook.Pit{{Name: "Cabinet", Kind: "pellet", Sets: "118 °C from 21:00, 135 °C 30 min after the wrap"}}
	typed := map[string]string{}
	for _, w := range ways(t, c) {
		if w.Edits[0].Pointer == "/pits/0/sets" {
			typed[w.ID] = w.Edits[0].Value
		}
	}
	assert.Equal(t, map[string]string{
		"hotter":    "133 °C from 21:00, 150 °C 30 min after the wrap",
		"cooler":    "108 °C from 21:00, 125 °C 30 min after the wrap",
		"low-night": "107 °C from 21:00, 107 °C 30 min after the wrap",
	}, typed)
}

// Rules of thumb go by weight alone: the forecast does not.
func TestRulesOfThumb(t *testing.T) {
	l := look(t, supper("pork-shoulder-bone-in", func(p *cook.Piece) { p.Bought, p.Trimmed = "", "4.536 kg" }))
	rules := map[string]outlook.Rule{}
	for _, r := range l.Rules() {
		rules[r.ID] = r
		assert.InDelta(t, r.Hours-l.Fire.Done.Mid, r.Off, 1e-9)
	}
	assert.InDelta(t, 10, rules["pound"].Hours, 0.01)
	assert.InDelta(t, 15, rules["pound-half"].Hours, 0.01)
	assert.Equal(t, 2.0, rules["nine-two"].Rest)
	flat := look(t, supper("beef-brisket-flat", func(p *cook.Piece) { p.Bought, p.Trimmed = "", "4.536 kg" }))
	assert.Greater(t, l.Fire.Done.Mid, flat.Fire.Done.Mid, "the same weight, thicker")
}

// A piece with a mistake has no outlook; one whose cook has left is not worked out.
func TestWithoutAnOutlook(t *testing.T) {
	for _, c := range []cook.Cook{
		supper("pork-shoulder-bone-in", func(p *cook.Piece) { p.Trimmed, p.Bought = "heavy", "" }),
		supper("pork-shoulder-bone-in", func(p *cook.Piece) { p.Fire.Pit = "hot" }),
	} {
		r, err := cooking.Work(t.Context(), order.Parse(c, kitchen.Kitchen{}), nil, kitchen.Kitchen{}, now)
		require.NoError(t, err)
		for _, i := range []int{-1, 0, 7} {
			_, ok, err := outlook.Of(t.Context(), r, i)
			require.NoError(t, err)
			assert.False(t, ok)
		}
		assert.Empty(t, ways(t, c))
	}
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	testclock.Within(t, time.Second, func() {
		_, err := outlook.OutlookRequest{Cook: supper("beef-chuck-roll", nil)}.Work(ctx, kitchen.Kitchen{}, now)
		assert.ErrorIs(t, err, context.Canceled)
	})
}

// How a pork shoulder is going to go.
func ExampleOf() {
	c := supper("pork-shoulder-bone-in", nil)
	r, err := cooking.Work(context.Background(), order.Parse(c, kitchen.Kitchen{}), nil, kitchen.Kitchen{}, now)
	if err != nil {
		panic(err)
	}
	l, _, err := outlook.Of(context.Background(), r, 0)
	if err != nil {
		panic(err)
	}
	fmt.Printf("off at %.0f °C, stalls: %v\n", l.From, l.Stall != nil)
	// Output: off at 95 °C, stalls: true
}
