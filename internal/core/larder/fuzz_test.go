package larder

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
)

// Whatever is typed as a price is read or refused; what is read costs something.
func FuzzPrice(f *testing.F) {
	for _, s := range []string{"€9 per kg", "3.20 for 500 g", "$1.50/lb", "12", "1e999 per kg", "per per per"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, typed string) {
		for _, thing := range []string{"honey", "foil"} {
			p, err := PriceOf(thing, typed)
			if err == nil {
				require.False(t, math.IsNaN(p.Money) || math.IsInf(p.Money, 0) || p.Money < 0, "%q", typed)
			}
		}
	})
}
