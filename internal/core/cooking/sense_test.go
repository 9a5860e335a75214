package cooking_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/starter"
	"verjuice/internal/testclock"
)

// A newcomer's cook, with everything as usual: every cut alone, served at 18:30 in a week,
// with one pair of hands. Nothing in its plan clashes, is late, or is held with care.
func TestAnyCutAloneMakesSense(t *testing.T) {
	for _, c := range cut.All() {
		for _, pits := range [][]cook.Pit{nil, {{Name: "pellet", Kind: "pellet"}}} {
			day := cook.Cook{
				Name:    "Supper",
				ServeAt: testclock.At(7, "18:30"),
				Zone:    testclock.Zone,
				Guests:  "8",
				Pits:    pits,
				Pieces:  []cook.Piece{starter.NewPiece(c, quantity.Metric)},
			}
			r := work(day)
			require.Empty(t, r.Mistakes, c.ID)
			chosen := r.Plan.Result.Plans[r.Plan.Chosen]
			what := c.ID + " " + string(chosen.Kind)
			if len(pits) > 0 {
				what += " in a " + pits[0].Kind
			}
			for _, one := range chosen.Conflicts {
				assert.Failf(t, "a clash", "%s: %s %v", what, one.Why.ID, one.Why.Values)
			}
			assert.True(t, chosen.Feasible, what)
			for _, f := range r.Pieces[0].Findings {
				grave := f.Severity == caution.Stop || f.Severity == caution.Care
				assert.False(
					t,
					grave &&
						slices.Contains([]string{"hot-hold", "raw-keeping", "counter-time", "pit-cool", "slow-to-warm", "cooling"}, f.ID),
					"%s: %s %s %v",
					what,
					f.Severity,
					f.ID,
					f.Values,
				)
			}
			// Nothing is worse for an hour later or earlier of serving.
			for _, at := range []string{"17:00", "20:00"} {
				day.ServeAt = testclock.At(7, at)
				other := work(day).Plan
				assert.Empty(t, other.Result.Plans[other.Chosen].Conflicts, "%s at %s", what, at)
			}
		}
	}
}
