package salt

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/quantity"
)

var shoulder = Piece{Green: 3.6, BoneShare: 0.13, Yield: Share{0.57, 0.62, 0.67}}

func sources(r *rand.Rand) []Source {
	out := make([]Source, 1+r.IntN(5))
	for i := range out {
		mid := 0.5 + r.Float64()*0.4
		out[i] = Source{Name: "any", Salt: quantity.Mass(r.Float64() * 0.02), Stays: Share{mid * 0.8, mid, mid * 1.1}}
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

func TestSolvedSourceMeetsTheTarget(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for range 200 {
		all := sources(r)
		free := r.IntN(len(all))
		target := quantity.Percent(0.1 + r.Float64()*2)
		grams, err := Solve(shoulder, all, free, target)
		if err != nil {
			assert.ErrorAs(t, err, &Impossible{})
			all[free].Salt = 0
			l, _ := Tally(shoulder, all)
			assert.Greater(t, l.PercentRaw.Mid, float64(target))
			continue
		}
		all[free].Salt = grams
		l, err := Tally(shoulder, all)
		require.NoError(t, err)
		assert.InDelta(t, float64(target), l.PercentRaw.Mid, 1e-9)
	}
}

func TestImpossibleSaysWhy(t *testing.T) {
	brine := Source{Name: "injection", Salt: 0.06, Stays: Share{1, 1, 1}}
	_, err := Solve(shoulder, []Source{brine, {Name: "rub", Stays: Share{0.8, 0.9, 1}}}, 1, 1.3)
	assert.EqualError(t, err, "the other sources alone bring 1.92 %; no rub gets you down to 1.30 %")
}

func TestSodium(t *testing.T) {
	// 150 g of meat at 1 % salt: 1.5 g NaCl, 590 mg sodium.
	assert.InDelta(t, 590, SodiumMG(1, 0.150), 1)
	assert.Equal(t, "seasoned", BandOf(1).Name)
	assert.Equal(t, "too salty", BandOf(9).Name)
}

func BenchmarkTally(b *testing.B) {
	all := sources(rand.New(rand.NewPCG(7, 8)))
	for b.Loop() {
		_, _ = Tally(shoulder, all)
	}
}
