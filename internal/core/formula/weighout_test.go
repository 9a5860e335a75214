package formula

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestWeighingStepByStep(t *testing.T) {
	targets := []float64{31, 10, 6.1}
	w := Weighing(targets, nil, false)
	assert.Equal(t, 0, w.Next)
	w = Weighing(targets, []float64{30.6}, false)
	assert.Equal(t, 1, w.Next, "within two in a hundred is reached")
	w = Weighing(targets, []float64{31, 7}, false)
	assert.Equal(t, "under", w.Steps[1].State)
	assert.InDelta(t, 3, w.Steps[1].Remaining, 1e-9)
	w = Weighing(targets, []float64{31, 12.5}, false)
	assert.Equal(t, 1, w.Over)
	assert.InDelta(t, -2.5, w.Steps[1].Remaining, 1e-9)

	w = Weighing(targets, []float64{31, 12.5}, true)
	assert.Equal(t, -1, w.Over)
	assert.InDelta(t, 1.25, w.Scale, 1e-9)
	assert.Equal(t, 0, w.Next, "what was weighed needs topping up")
	assert.InDelta(t, 7.75, w.Steps[0].Remaining, 1e-9)
	w = Weighing(targets, []float64{38.75, 12.5, 7.6}, true)
	assert.Equal(t, 3, w.Next)
}

// Whatever was poured, rescaling leaves nothing over and keeps the proportions.
func TestRescalingKeepsProportions(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	for range 300 {
		targets, weighed := make([]float64, 1+r.IntN(8)), []float64{}
		for i := range targets {
			targets[i] = 0.5 + r.Float64()*50
			weighed = append(weighed, targets[i]*r.Float64()*2)
		}
		w := Weighing(targets, weighed, true)
		assert.Equal(t, -1, w.Over)
		for i, s := range w.Steps {
			assert.InEpsilon(t, targets[i]/targets[0], s.Target/w.Steps[0].Target, 1e-9)
		}
	}
}
