package sheet

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cut"
)

// Salt follows the clock: a later salting is a shorter wait, a shallower salt and
// a smaller share taken up.
func TestSaltFollowsTheClock(t *testing.T) {
	p := coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key, p.Fire.Time = "a", "6 h"
	day := supper(p)
	planned := compute(t, day)
	fire, err := time.Parse(time.RFC3339, planned.Pieces[0].Clock.step("fire").At)
	require.NoError(t, err)
	last := planned.Pieces[0]
	for _, hours := range []int{8, 4, 1} {
		day.Marks = []Mark{{Piece: "a", Stage: "salt", At: fire.Add(-time.Duration(hours) * time.Hour).Format(timeLayout), Done: true}}
		now := compute(t, day).Pieces[0]
		assert.Less(t, now.Depth.Depth.Value, last.Depth.Depth.Value, "%d h", hours)
		assert.LessOrEqual(t, now.Ledger.Percent.Value, last.Ledger.Percent.Value)
		last = now
	}
	day.Marks = []Mark{{Piece: "a", Stage: "fire", At: fire.Add(2 * time.Hour).Format(timeLayout), Done: true}}
	late := compute(t, day)
	assert.Contains(t, late.Plan.Told, "2 h late")
	assert.Less(t, late.Plan.Chance.Value, planned.Plan.Chance.Value)
	assert.NotEmpty(t, late.Plan.SafeAt)
	day.ServeAt = late.Plan.SafeAt
	assert.Greater(t, compute(t, day).Plan.Chance.Value, 85.0, "serving when it says is sure")
}

func (c *ClockSheet) step(key string) Step {
	for _, s := range c.Steps {
		if s.Key == key {
			return s
		}
	}
	return Step{}
}

// What to buy for so many feeds so many.
func TestBuyingFeedsTheGuests(t *testing.T) {
	r := rand.New(rand.NewPCG(61, 62))
	for range 80 {
		p, q := anyPiece(r), anyPiece(r)
		p.Season.Mode, q.Season.Mode = "coat", "coat"
		p.TrimStyle, q.TrimStyle = "", ""
		day := supper(p, q)
		day.Guests, day.Children, day.Appetite = 3+r.IntN(20), r.IntN(8), pick(r, []string{"light", "usual", "hearty"})
		s := compute(t, day)
		for i := range day.Pieces {
			assert.True(t, s.Buy[i].Buy.Low <= s.Buy[i].Buy.Value && s.Buy[i].Buy.Value <= s.Buy[i].Buy.High)
		}
		for i := range day.Pieces {
			day.Pieces[i].Count, day.Pieces[i].Bought, day.Pieces[i].Trimmed, day.Pieces[i].Thickness = s.Buy[i].Count, s.Buy[i].Typed, "", ""
		}
		again := Compute(day, Options{Now: noon})
		if len(again.Errors) > 0 { // so little that there is no such piece of this cut
			require.Contains(t, again.Errors[0].Detail, "weighs between")
			continue
		}
		assert.InEpsilon(t, s.Demand.Value, again.Servings.Value, 0.02, "%+v", day)
		assert.False(t, again.Short)
	}
	for place, c := range map[string]Cook{"/children": {Children: -1}, "/appetite": {Appetite: "wolfish"}, "/leftovers": {Leftovers: 5000}, "/quiet": {Quiet: "late"}, "/hands": {Hands: 99},
		"/pits/0/kind": {Pits: []PitTyped{{Kind: "volcano"}}}, "/pits/0/room": {Pits: []PitTyped{{Kind: "drum", Room: "wide"}}}, "/plan": {Plan: "never"},
		"/marks/0/at": {Marks: []Mark{{Stage: "fire", At: "noon"}}}, "/marks/0/stage": {Marks: []Mark{{Stage: "sleep", At: "2026-11-28T10:00"}}}} {
		c.Name = "x"
		errs := Compute(c, Options{}).Errors
		require.Len(t, errs, 1, place)
		assert.Equal(t, place, errs[0].Pointer)
	}
}

// A stop that was read is marked as read, until it says something else.
func TestAcknowledging(t *testing.T) {
	p := coated("pork-loin", "2 kg")
	p.Key, p.Fire.Done = "a", "60 °C"
	day := supper(p)
	stop := func() caution.Finding {
		for _, c := range compute(t, day).Pieces[0].Cautions {
			if c.ID == "pink-finish" {
				return c
			}
		}
		return caution.Finding{}
	}
	first := stop()
	require.Equal(t, caution.Stop, first.Severity)
	assert.Empty(t, first.Read)
	day.Acks = []Ack{{Piece: "a", Rule: first.ID, What: first.What, At: "2026-11-23T12:00:00Z"}}
	assert.Equal(t, "2026-11-23T12:00:00Z", stop().Read)
	day.Pieces[0].Fire.Done = "55 °C"
	assert.Empty(t, stop().Read, "it says something else now")
	day.Pieces[0].Fire.Done = "63 °C"
	assert.Empty(t, stop().ID)
}

// Every decision has its usual answer among its answers, and every answer is taken.
func TestEveryDecision(t *testing.T) {
	seen := map[string]bool{}
	for _, c := range cut.All() {
		p := coated(c.ID, fmt.Sprintf("%.2f kg", c.TypicalKG))
		for _, one := range compute(t, supper(p)).Pieces[0].Choices {
			seen[one.Key] = true
			values := []string{}
			for _, o := range one.Options {
				values = append(values, o.Value)
				q := p
				q.Choices = map[string]string{one.Key: o.Value}
				require.Empty(t, Compute(supper(q), Options{Now: noon}).Errors, "%s %s on %s", one.Key, o.Value, c.ID)
			}
			assert.Contains(t, values, one.Usual)
		}
	}
	assert.Len(t, seen, len(choices), "each concerns some cut")
	p := coated("pork-loin", "2 kg")
	p.Choices, p.Grain = map[string]string{"wrap": "silk", "hat": "straw"}, "200"
	errs := Compute(supper(p), Options{}).Errors
	require.Len(t, errs, 3)
}
