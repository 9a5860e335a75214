package salt

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/quantity"
)

var shoulder = Piece{Green: 3.6, BoneShare: 0.13, Yield: Share{Low: 0.57, Mid: 0.62, High: 0.67}}

func sources(r *rand.Rand) []Source {
	out := make([]Source, 1+r.IntN(5))
	for i := range out {
		mid := 0.5 + r.Float64()*0.4
		out[i] = Source{
			ID:    "any",
			Salt:  quantity.Mass(r.Float64() * 0.02),
			Stays: Share{Low: mid * 0.8, Mid: mid, High: mid * 1.1},
		}
	}
	return out
}

func TestLedgerIsAdditiveAndOrderIndependent(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for range 200 {
		all := sources(r)
		l, err := Tally(shoulder, all)
		require.NoError(t, err)
		sum := 0.0
		for _, s := range all {
			one, err := Tally(shoulder, []Source{s})
			require.NoError(t, err)
			sum += one.PercentRaw.Mid
		}
		assert.InDelta(t, sum, l.PercentRaw.Mid, 1e-12)
		r.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
		again, _ := Tally(shoulder, all)
		assert.InDelta(t, l.PercentRaw.Low, again.PercentRaw.Low, 1e-12)
		assert.True(t, l.PercentRaw.Low <= l.PercentRaw.Mid && l.PercentRaw.Mid <= l.PercentRaw.High)
	}
}

func TestSodium(t *testing.T) {
	// 150 g of meat at 1 % salt: 1.5 g NaCl, 590 mg sodium.
	assert.InDelta(t, 590, SodiumMG(1, 0.150), 1)
	assert.Equal(t, "seasoned", BandOf(1).Name)
	assert.Equal(t, "too salty", BandOf(9).Name)
}

// What is known worst, and brings most, is what weighing helps with; what was weighed already
// helps no more.
func TestWhatNarrowsTheSalt(t *testing.T) {
	p := Piece{Green: 2, Yield: quantity.Exactly(0.6)}
	stays := quantity.Exactly(0.9)
	coat, spoon, weighed := Source{
		Salt:  0.02,
		Stays: stays,
		Off:   0.3,
	}, Source{
		Salt:  0.002,
		Stays: stays,
		Off:   0.3,
	}, Source{
		Salt:  0.02,
		Stays: stays,
		Off:   0.01,
	}
	at, less := Narrows(p, []Source{spoon, coat, weighed}, 0.01)
	assert.Equal(t, 1, at)
	whole, err := Tally(p, []Source{spoon, coat, weighed})
	require.NoError(t, err)
	assert.Greater(t, less, 0.5*(whole.PercentRaw.High-whole.PercentRaw.Low))
	at, less = Narrows(p, []Source{weighed}, 0.01)
	assert.Equal(t, -1, at)
	assert.Zero(t, less)
}

func BenchmarkTally(b *testing.B) {
	all := sources(rand.New(rand.NewPCG(7, 8)))
	for b.Loop() {
		_, _ = Tally(shoulder, all)
	}
}
