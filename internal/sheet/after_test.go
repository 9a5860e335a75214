package sheet

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/quantity"
	"verjuice/internal/testclock"
)

// quick settles a forecast with a single run, for tests of what is not the heat.
type quick struct{}

func (quick) Forecast(ctx context.Context, b forecast.FireInput) (forecast.FireResult, error) {
	fire, err := forecast.SingleRun{}.Forecast(ctx, b)
	fire.Rough = false
	return fire, err
}

func written(t *testing.T, before Written, c cooking.CookRequest, k kitchen.Kitchen, at cooking.Clock) Written {
	t.Helper()
	r, err := c.Work(t.Context(), before.Result, k, at)
	require.NoError(t, err)
	return WriteAfter(before, r, Reader{})
}

func inJSON(t *testing.T, s Sheet) string {
	t.Helper()
	raw, err := json.Marshal(s)
	require.NoError(t, err)
	return string(raw)
}

// Whatever is changed on a page, worked out after the one before it is what it is by itself:
// nothing is taken over that would be other now.
func TestAPageAfterAnotherIsAPageByItself(t *testing.T) {
	testclock.Undated(t)
	for seed := range uint64(30) {
		r := rand.New(rand.NewPCG(seed, 9))
		c, f := anycook.Whole(r)
		c.Pieces[1].Season.Mode, c.Pieces[1].Season.Amount = "amount", "2 Tbsp" // which spoons are meant counts
		at := cooking.Clock{Now: testclock.Now(), Forecast: quick{}}
		k := kitchen.Kitchen{Stand: "one"}
		before := Written{}
		for step := range 8 {
			before = written(t, before, cooking.CookRequest{Cook: c, Facts: f}, k, at)
			alone := written(t, Written{}, cooking.CookRequest{Cook: c, Facts: f}, k, at)
			a, b := inJSON(t, alone.Sheet), inJSON(t, before.Sheet)
			differs := 0
			for differs < min(len(a), len(b)) && a[differs] == b[differs] {
				differs++
			}
			part := func(s string) string { return s[max(0, min(differs-200, len(s))):min(differs+100, len(s))] }
			require.Equal(t, part(a), part(b), "seed %d step %d", seed, step)
			var next cook.Cook // nothing of it shared with the one before
			raw, err := json.Marshal(c)
			require.NoError(t, err)
			require.NoError(t, json.Unmarshal(raw, &next))
			switch n := r.IntN(9); n {
			case 0:
				next.Pieces[0] = anycook.Piece(r)
				next.Pieces[0].Key = "a"
			case 1:
				next.Pieces[0], next.Pieces[1] = next.Pieces[1], next.Pieces[0]
			case 2:
				next.Fridge, next.Portion = anycook.Pick(r, []string{"3 °C", "38F", "warm"}), "200 g"
			case 3:
				next.Spoons = anycook.Pick(r, []quantity.SpoonSet{quantity.USSpoons, quantity.MetricSpoons})
			case 4:
				next.Pits = append(next.Pits, cook.Pit{Name: "three", Kind: "kettle"})
				next.Pieces[1].Fire.On = 2
			case 5:
				k.Stand += "+"
				f = f[:len(f)-min(len(f), 1)]
			case 6:
				at.Now = at.Now.Add(90e9)
				next.Plan = anycook.Pick(r, []string{"", "overnight", "ahead"})
			case 7:
				next.Pieces[1].Choices = map[string]string{
					"wrap":   anycook.Pick(r, []string{"foil", "paper", "none"}),
					"spritz": "45",
				}
			default:
				anycook.Spoil(r, &next.Pieces[r.IntN(2)], 1)
			}
			c = next
		}
	}
}

// While a weight is typed, what the answers do stands as it was until the forecast has settled;
// an answer that is pressed tells at once.
func TestWhatAnswersDoFollowsTheForecast(t *testing.T) {
	p := anycook.Coated("beef-chuck-roll", "2.2 kg")
	effects := func(w Written) string { return fmt.Sprint(w.Result.Pieces[0].Decided) }
	typing, settled := cooking.Clock{
		Now:      testclock.Now(),
		Forecast: forecast.WhileTyping{},
	}, cooking.Clock{
		Now: testclock.Now(),
	}
	k := kitchen.Kitchen{Stand: "one"}
	ask := func(weight, wrap string) cooking.CookRequest {
		q := p
		q.Trimmed, q.Choices = weight, map[string]string{"wrap": wrap}
		return cooking.CookRequest{Cook: anycook.Supper(q)}
	}
	was := written(t, Written{}, ask("2.213 kg", "foil"), k, settled)
	assert.False(t, was.Result.Rough)
	typed := written(t, was, ask("3.913 kg", "foil"), k, typing)
	require.True(t, typed.Result.Rough)
	assert.Equal(t, effects(was), effects(typed))
	assert.NotEqual(t, was.Sheet.Pieces[0].Clock.Fire, typed.Sheet.Pieces[0].Clock.Fire, "the fire itself moves at once")
	now := written(t, typed, ask("3.913 kg", "foil"), k, settled)
	assert.NotEqual(t, effects(was), effects(now))
	pressed := written(t, typed, ask("3.913 kg", "paper"), k, typing)
	assert.NotEqual(t, effects(typed), effects(pressed))
}
