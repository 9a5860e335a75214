package cooking_test

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/order"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
)

// tasksOf are the tasks of the chosen plan, by stage and move.
func tasksOf(r cooking.Result) map[string]plan.Task {
	out := map[string]plan.Task{}
	for _, k := range r.Plan.Result.Plans[r.Plan.Chosen].Tasks {
		out[k.Stage+k.Move] = k
	}
	return out
}

// overnight is a shoulder on a pit with a list of its own, with a method in the cook's words.
func overnight(sets string) cook.Cook {
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key, p.Choices = "a", map[string]string{"wrap": "foil"}
	p.When = map[string]string{
		"wrap":   "71 °C or colour",
		"spritz": "every 45 min from bark set until the wrap",
		"off":    "95 °C and soft",
	}
	p.Moves = []cook.Move{
		{Key: "turn", What: "turn", When: "after 3 h"},
		{Key: "table", What: "other", With: "lay the table", When: "1 h before serving"},
		{Key: "candles", What: "other", With: "light the candles", When: "17:40"},
		{Key: "pit", What: "clean", When: "21:00"},
	}
	p.Fire.Rest = "10 min vented, 1 h cooler, 30 min travel"
	c := anycook.Supper(p)
	c.Plan, c.Pits = "overnight", []cook.Pit{{Name: "one", Kind: "pellet", Sets: sets}}
	serve, err := time.Parse(cook.TimeLayout, c.ServeAt)
	if err != nil {
		panic(err)
	}
	c.Wishes = []cook.Wish{{Piece: "a", Stage: "fire", At: serve.AddDate(0, 0, -1).Format(time.DateOnly) + "T17:00"}}
	return c
}

// A method in the cook's own words has every move at its time: a rhythm between its two moments,
// the pit by its own list, travel before the knife.
func TestAMethodInTheCooksWords(t *testing.T) {
	r := sound(t, overnight("107 °C from 12:00, 135 °C from 20:00"))
	p, k := r.Pieces[0], tasksOf(r)
	on := k["fire"].At
	require.Len(t, p.Fires[0].Steps, 1)
	assert.EqualValues(t, 107, p.Fires[0].PitC)
	turned := on.Add(time.Duration(p.Fires[0].Steps[0].AtH * float64(time.Hour)))
	assert.InDelta(
		t,
		0,
		turned.Sub(time.Date(turned.Year(), turned.Month(), turned.Day(), 20, 0, 0, 0, turned.Location())).Minutes(),
		20,
		"by the clock",
	)
	assert.Equal(t, 45*time.Minute, k["spritz"].Every)
	assert.True(t, k["spritz"].At.After(on))
	assert.InDelta(t, 0, k["spritz"].To.Sub(k["wrap"].At).Minutes(), 15, "until the wrap")
	assert.InDelta(t, 3, k["turnturn"].At.Sub(on).Hours(), 0.2)
	serve := r.Order.Serving.Value.At
	assert.Equal(t, time.Hour, serve.Sub(k["othertable"].At))
	assert.Equal(t, serve.Format(time.DateOnly)+" 17:40", k["othercandles"].At.Format(time.DateOnly+" 15:04"))
	assert.Equal(t, serve.Format(time.DateOnly)+" 21:00", k["cleanpit"].At.Format(time.DateOnly+" 15:04"), "afterwards")
	for _, own := range []string{"othertable", "othercandles", "cleanpit"} {
		assert.Zero(t, k[own].Never, "%s: it comes whenever the piece is off", own)
	}
	assert.Equal(t, 30*time.Minute, k["slice"].At.Sub(k["travel"].At))
	assert.Equal(t, []string{"cooler"}, []string{p.Clock.RestIn})
	// Hotter at five is done sooner than at seven; a second look in the morning wakes nobody.
	later := sound(t, overnight("107 °C from 12:00, 135 °C from 23:00"))
	assert.Less(t, p.Fire.Takes.Mid, later.Pieces[0].Fire.Takes.Mid)
	cooler := sound(t, overnight("107 °C"))
	assert.Less(t, later.Pieces[0].Fire.Takes.Mid, cooler.Pieces[0].Fire.Takes.Mid)
	after := sound(t, overnight("107 °C, 150 °C once wrapped"))
	assert.Less(t, after.Pieces[0].Fire.Takes.Mid, cooler.Pieces[0].Fire.Takes.Mid)
	assert.InDelta(t, after.Pieces[0].Fire.Wraps.Mid.Hours(), after.Pieces[0].Fires[0].Steps[0].AtH, 0.3)
}

// Of two conditions the first, or both; what a piece is off before never becomes a job.
func TestTwoConditions(t *testing.T) {
	wrapped := func(typed string) time.Duration {
		c := overnight("120 °C")
		c.Pieces[0].When["wrap"] = typed
		return sound(t, c).Pieces[0].Fire.Wraps.Mid
	}
	core, hours := wrapped("71 °C"), wrapped("2 h")
	assert.InDelta(t, min(core, hours).Hours(), wrapped("71 °C or 2 h").Hours(), 0.02)
	assert.InDelta(t, max(core, hours).Hours(), wrapped("71 °C and 2 h").Hours(), 0.02)
	// What nobody opens the pit for has its moment all the same, and moves nothing.
	noted := overnight("120 °C")
	noted.Pieces[0].Moves = append(
		noted.Pieces[0].Moves,
		cook.Move{Key: "n", What: "other", With: "call the guests", When: "after 4 h"},
		cook.Move{Key: "c", What: "other", With: "call again", When: "21:30"},
	)
	plain, told := sound(t, overnight("120 °C")), sound(t, noted)
	k := tasksOf(told)
	assert.InDelta(t, 4, k["othern"].At.Sub(k["fire"].At).Hours(), 0.1)
	assert.Equal(t, "21:30", k["otherc"].At.Format("15:04"))
	assert.Equal(t, plain.Pieces[0].Fire.Takes.Span, told.Pieces[0].Fire.Takes.Span)
	c := overnight("120 °C")
	c.Pieces[0].Moves = append(c.Pieces[0].Moves, cook.Move{Key: "late", What: "look", When: "after 30 h"})
	assert.NotContains(t, tasksOf(sound(t, c)), "looklate")
	soft, sooner := overnight("120 °C"), overnight("120 °C")
	soft.Pieces[0].When["off"], sooner.Pieces[0].When["off"] = "88 °C and soft", "88 °C or soft"
	assert.Greater(t, sound(t, soft).Pieces[0].Fire.Takes.Mid, sound(t, sooner).Pieces[0].Fire.Takes.Mid)
}

// A dose is a line of the ledger whatever move brings it, and the same move without it changes
// no salt.
func TestADoseAtAnyMove(t *testing.T) {
	for what, when := range map[string]string{"dust": "10 min before it goes on", "mop": "after 3 h",
		"baste": "every 1 h from bark set until the wrap", "glaze": "20 min before it is off",
		"finish": "right after slicing", "wrap": "90 °C"} {
		c := overnight("120 °C")
		move := cook.Move{Key: "x", What: what, When: when, With: "foil"}
		c.Pieces[0].Moves = []cook.Move{move}
		plain := sound(t, c)
		salty := anycook.Bottle("soy", "soy-sauce")
		c.Pieces[0].Moves[0].Formula, c.Pieces[0].Moves[0].Amount = &salty, "60 mL"
		dosed := sound(t, c)
		assert.Greater(t, dosed.Pieces[0].Ledger.Percent.Mid, plain.Pieces[0].Ledger.Percent.Mid, what)
		assert.Contains(t, tasksOf(dosed), what+"x", what)
		assert.Len(t, dosed.Pieces[0].Ledger.Lines, len(plain.Pieces[0].Ledger.Lines)+1, what)
	}
}

// Whatever is added to a method, every move is a job at most once and within its piece's times,
// nothing is lost without a word, and the same page gives the same plan.
func TestAnyMethod(t *testing.T) {
	r := rand.New(rand.NewPCG(13, 13))
	whens := []string{
		"after 2 h",
		"60 °C",
		"bark set",
		"71 °C or 5 h",
		"07:00",
		"1 h after it goes on",
		"20 min before it is off",
		"every 30 min from 50 °C until 80 °C",
		"every 1 h",
		"1 h before serving",
		"10 min after the wrap",
	}
	for n := range 25 {
		c := overnight(anycook.Pick(r, []string{"", "110 °C from 23:00, 130 °C after 5 h", "120 °C, 140 °C once wrapped"}))
		c.Plan, c.Wishes = anycook.Pick(r, []string{"", "same-day", "overnight", "ahead"}), nil
		p := &c.Pieces[0]
		p.Moves = nil
		for i := range r.IntN(6) {
			p.Moves = append(
				p.Moves,
				cook.Move{
					Key:  fmt.Sprint("m", i),
					What: anycook.Pick(r, []string{"look", "turn", "baste", "wood", "probe", "other"}),
					When: anycook.Pick(r, whens),
					With: "something",
				},
			)
		}
		result := sound(t, c)
		k := tasksOf(result)
		assert.Len(t, k, len(result.Plan.Result.Plans[result.Plan.Chosen].Tasks), "twice the same job")
		for _, m := range p.Moves {
			task, ok := k[m.What+m.Key]
			if !ok {
				continue
			}
			assert.False(
				t,
				task.At.Before(k["fire"].At) || task.At.After(result.Order.Serving.Value.At),
				"%d: %s at %s",
				n,
				m.When,
				task.At,
			)
			if task.Every > 0 {
				assert.False(t, task.To.After(k["off"].At), "%d: %s until %s", n, m.When, task.To)
			}
		}
		assert.Equal(t, fmt.Sprint(result.Plan.Result.Plans), fmt.Sprint(sound(t, c).Plan.Result.Plans))
	}
}

// Of six racks five are chilled for later and one is turned halfway: no line of its own is needed, what is kept back
// is not counted at the table, and the turn stands in the middle of the fire.
func TestSomeOfThemGoAnotherWay(t *testing.T) {
	p := anycook.Coated("pork-back-ribs", "1 kg")
	p.Key, p.Count = "a", "6"
	all := sound(t, anycook.Supper(p))
	p.Moves = []cook.Move{
		{Key: "keep", What: "keep", When: "right after it is off", Some: "5"}, {Key: "turn", What: "turn", When: "halfway"},
		{Key: "oven", What: "oven", When: "after 1 h", Some: "1"},
	}
	some := sound(t, anycook.Supper(p))
	assert.InDelta(t, all.Servings.Mid/6, some.Servings.Mid, 0.01)
	k := tasksOf(some)
	fire := k["off"].At.Sub(k["fire"].At)
	assert.InDelta(t, fire.Hours()/2, k["turnturn"].At.Sub(k["fire"].At).Hours(), 0.3)
	assert.False(t, k["keepkeep"].At.Before(k["off"].At))
	assert.False(t, k["ovenoven"].At.IsZero())
	for some, id := range map[string]string{"7": "number.range", "0": "number.range", "most": "quantity.count"} {
		p.Moves[0].Some = quantity.Count(some)
		wrong := order.Parse(anycook.Supper(p), kitchen.Kitchen{}).Wrong()
		require.NotEmpty(t, wrong, some)
		assert.Equal(t, "/pieces/0/moves/0/some", wrong[0].Pointer, id)
	}
	p.Moves = []cook.Move{{Key: "w", What: "wrap", With: "foil", When: "after 2 h", Some: "2"}}
	assert.Equal(t, "move.some-wrapped", order.Parse(anycook.Supper(p), kitchen.Kitchen{}).Wrong()[0].ID)
}
