package cooking

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/testclock"
)

// byTheClock is a cook of one to three pieces on one pit, of which something is said by the clock.
func byTheClock(r *rand.Rand) cook.Cook {
	weights := map[string]string{
		"pork-shoulder-bone-in": "3.6 kg", "beef-brisket-packer": "5 kg", "beef-chuck-roll": "4 kg", "pork-loin": "2 kg",
		"beef-plate-ribs": "2.5 kg",
	}
	ids := []string{"pork-shoulder-bone-in", "beef-brisket-packer", "beef-chuck-roll", "pork-loin", "beef-plate-ribs"}
	var pieces []cook.Piece
	for range 1 + r.IntN(3) {
		id := anycook.Pick(r, ids)
		p := anycook.Coated(id, weights[id])
		p.Key = fmt.Sprint(len(pieces))
		p.Choices = map[string]string{"wrap": anycook.Pick(r, []string{"foil", "paper", "none"})}
		if r.IntN(2) == 0 && p.Choices["wrap"] != "none" {
			p.When = map[string]string{"wrap": fmt.Sprintf("%02d:00", r.IntN(24))}
		}
		pieces = append(pieces, p)
	}
	c := anycook.Supper(pieces...)
	c.Quiet = anycook.Pick(r, []string{"none", "", "22:00-06:00"})
	low, high := 70+5*r.IntN(8), 110+5*r.IntN(8)
	from := fmt.Sprintf("%02d:%02d", r.IntN(24), 30*r.IntN(2))
	pit := cook.Pit{Name: "Cabinet", Kind: anycook.Pick(r, []string{"pellet", "gas", "ceramic"})}
	pit.Sets = anycook.Pick(r, []string{
		fmt.Sprintf("%d °C, %d °C from %s", low, high, from),
		fmt.Sprintf("%d °C from 23:00, %d °C from %s", low, high, from),
		fmt.Sprintf("%d °C, %d °C 30 min after the wrap", high, high+15),
		fmt.Sprintf("%d °C from %s, %d °C after 8 h", high, from, high+10),
	})
	c.Pits = []cook.Pit{pit}
	return c
}

// started are the pieces of a cook before they are settled.
func started(t *testing.T, c cook.Cook, at Clock) (order.Order, []*subject) {
	t.Helper()
	o := order.Parse(c, kitchen.Kitchen{})
	require.Empty(t, o.Wrong())
	var out []*subject
	for _, l := range o.Lines {
		out = append(out, newSubject(o, l, nil, at))
	}
	return o, out
}

// Forecast and plan come to an end for whatever is said by the clock: nearly always where each piece stands
// where its hours were counted from, and then once more gives the same. What was there before is not changed,
// and a cook of which nothing is said by the clock takes one turn.
func TestSettleEnds(t *testing.T) {
	testclock.Undated(t)
	r := rand.New(rand.NewPCG(5, 6))
	at, by := Clock{Now: testclock.Now()}, forecast.SingleRun{}
	still, all := 0, 200
	for range all {
		o, subjects := started(t, byTheClock(r), at)
		was := make([]subject, len(subjects))
		for i, s := range subjects {
			was[i] = *s
		}
		out, err := settle(t.Context(), o, nil, at, by, subjects, nil)
		require.NoError(t, err)
		assert.LessOrEqual(t, out.turns, mostTurns*(1+len(tries))+len(starts)+mostAsked)
		for i, s := range subjects {
			assert.Equal(t, was[i], *s, "new ones are given")
		}
		if !out.still {
			continue
		}
		still++
		for _, s := range out.subjects {
			stands, known := out.plan.anchor(s)
			require.True(t, known)
			if s.byClock() {
				assert.Less(t, stands.On.Sub(s.anchor.On).Abs(), near)
			}
		}
		again, err := settle(t.Context(), o, nil, at, by, out.subjects, nil)
		require.NoError(t, err)
		assert.True(t, again.still)
		assert.Equal(t, 2, again.turns)
		assert.Equal(t, out.plan.Result, again.plan.Result)
	}
	assert.Greater(t, still, all*8/10)
	o, subjects := started(t, anycook.Supper(anycook.Coated("pork-loin", "2 kg")), at)
	out, err := settle(t.Context(), o, nil, at, by, subjects, nil)
	require.NoError(t, err)
	assert.Equal(t, 1, out.turns)
	assert.True(t, out.still)
}

// A pit that hardly heats by night, with a list that makes it hot in the morning, is lit in the evening before at the
// latest and not days before: the piece is done on the day, whatever the list.
func TestAColdNightAndAHotMorning(t *testing.T) {
	testclock.Undated(t)
	at := Clock{Now: testclock.Now()}
	for _, id := range []string{"pork-shoulder-bone-in", "beef-brisket-packer", "beef-chuck-roast"} {
		for _, sets := range []string{"77 °C, 115 °C from 07:00", "95 °C, 120 °C from 06:00", "107 °C, 135 °C from 07:00"} {
			c, _ := cut.Find(id)
			supper := anycook.Supper(anycook.Coated(id, quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric)))
			supper.Quiet, supper.Pits = "none", []cook.Pit{{Name: "Pit", Kind: "cabinet", Sets: sets}}
			r, err := Work(t.Context(), order.Parse(supper, kitchen.Kitchen{}), nil, kitchen.Kitchen{}, at)
			require.NoError(t, err)
			require.Empty(t, r.Mistakes)
			p := r.Pieces[0]
			assert.Less(t, p.Fire.Takes.Mid, 24*time.Hour, "%s at %s", id, sets)
			assert.Greater(t, p.Clock.Times.Chance, 0.4, "%s at %s", id, sets)
			assert.True(t, p.Clock.Times.Off.Before(p.Clock.Times.Slice), "%s at %s", id, sets)
		}
	}
}
