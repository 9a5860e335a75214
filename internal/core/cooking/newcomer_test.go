package cooking_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cut"
)

// Two pieces of any cut on one pit, with all the rest left as it is, have a plan without a conflict: hands enough, one
// temperature, time enough.
func TestThePlanMakesNoConflictOfItsOwn(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 0))
	for range 40 {
		one, other := anycook.Pick(r, cut.All()), anycook.Pick(r, cut.All())
		a := anycook.Coated(one.ID, fmt.Sprintf("%.2f kg", one.TypicalKG))
		b := anycook.Coated(other.ID, fmt.Sprintf("%.2f kg", other.TypicalKG))
		a.Key, b.Key = "a", "b"
		p := work(anycook.Supper(a, b)).Plan
		for _, c := range p.Result.Plans[p.Chosen].Conflicts {
			// Two that both need the night may have to be wrapped in it.
			assert.Equal(t, "quiet", c.Kind, "%s and %s: %v", one.Name, other.Name, c)
		}
	}
}
