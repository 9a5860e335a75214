package dose_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// soaked is a source of which ever less stays the more there is: what it brings is
// far from a straight line.
type soaked struct {
	dose.Own // for what is asked besides
	id       dose.ID
	kg       float64
}

func (s soaked) ID() dose.ID       { return s.id }
func (s soaked) Label() dose.Label { return dose.Label{ID: s.id} }
func (s soaked) On(dose.Target) dose.Brought {
	return dose.Brought{
		Label: s.Label(),
		Salt:  quantity.Mass(0.05 * (1 - math.Exp(-s.kg/0.02))),
		Stays: quantity.Exactly(0.9 - 0.3*math.Exp(-s.kg*30)),
	}
}
func (s soaked) WithAmount(kg float64) dose.Source { s.kg = kg; return s }
func (s soaked) Amount(dose.Target) trace.Figure   { return trace.Exact("amount.mass", s.kg) }
func (s soaked) Uses(dose.Target) []dose.Use       { return nil }
func (s soaked) Check(on dose.Target) field.Errors { return nil }

// Whatever the shape of the free source, the whole ledger meets the target.
func TestSolveBracketsTheWholeLedger(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	solved := 0
	for range 300 {
		on := dose.Target{
			Meat:  salt.Piece{Green: quantity.Mass(1 + 5*r.Float64()), BoneShare: 0.1, Yield: quantity.Between(0.57, 0.67)},
			Count: 1 + r.IntN(3),
		}
		var all []dose.Source
		for i := range 1 + r.IntN(5) {
			all = append(all, soaked{id: dose.ID(fmt.Sprint(i)), kg: r.Float64() * 0.004})
		}
		free := all[r.IntN(len(all))].ID()
		target := quantity.Percent(0.05 + 1.5*r.Float64())
		got, _, err := dose.Solve(all, free, target, on)
		var why field.Wrong
		if err != nil {
			require.ErrorAs(t, err, &why)
			require.Contains(t, []string{"salt.others-too-much", "salt.none-in"}, why.ID)
			continue
		}
		solved++
		var lines []dose.Brought
		for _, s := range all {
			if s.ID() == free {
				s = got
			}
			lines = append(lines, dose.Bring(s, on))
		}
		l, err := salt.Tally(on.Meat, dose.Lines(lines))
		require.NoError(t, err)
		assert.InDelta(t, float64(target), l.PercentRaw.Mid, 1e-9)
	}
	assert.Greater(t, solved, 150)
}

func TestSolveSaysWhyNot(t *testing.T) {
	on := dose.Target{Meat: salt.Piece{Green: 3.6, BoneShare: 0.13, Yield: quantity.Between(0.57, 0.67)}, Count: 1}
	all := []dose.Source{soaked{id: "a", kg: 1}, soaked{id: "b", kg: 0}}
	for name, c := range map[string]struct {
		id     dose.ID
		target quantity.Percent
		want   string
	}{
		"overshot":   {"b", 0.3, "salt.others-too-much"},
		"too much":   {"b", 4, "salt.none-in"},
		"not a dose": {"c", 1, "salt.no-such-source"},
	} {
		_, _, err := dose.Solve(all, c.id, c.target, on)
		var why field.Wrong
		require.ErrorAs(t, err, &why, name)
		assert.Equal(t, c.want, why.ID)
	}
}
