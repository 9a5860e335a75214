package salt

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

const thick = 0.03 // m, half-thickness in these tests

// run advances m to Dt/a² = fo in steps that grow as the square.
func run(m *medium, fo float64, steps int, b boundary) {
	t, end := 0.0, fo*thick*thick/Diffusivity5C
	for i := range steps {
		share := float64(i+1) / float64(steps)
		next := end * share * share
		m.step(next-t, Diffusivity5C, b)
		t = next
	}
}

// constantSurface is Crank, The Mathematics of Diffusion, 2nd ed., eq. 4.18:
// the uptake of a slab whose face is kept at one concentration, over the final.
func constantSurface(fo float64) float64 {
	sum := 0.0
	for n := range 200 {
		k := float64(2*n+1) * math.Pi
		sum += 8 / (k * k) * math.Exp(-k*k*fo/4)
	}
	return 1 - sum
}

// limitedVolume is Crank, eq. 4.37: uptake of a slab from a stirred bath of ratio
// alpha (bath over slab), over the final; q solves tan q = −alpha q.
func limitedVolume(fo, alpha float64) float64 {
	sum := 0.0
	for n := 1; n <= 60; n++ {
		lo, hi := (float64(n)-0.5)*math.Pi+1e-12, float64(n)*math.Pi
		for range 200 {
			mid := (lo + hi) / 2
			if (math.Sin(mid)+alpha*mid*math.Cos(mid) > 0) == (n%2 == 0) {
				hi = mid
			} else {
				lo = mid
			}
		}
		q := (lo + hi) / 2
		sum += 2 * alpha * (1 + alpha) / (1 + alpha + alpha*alpha*q*q) * math.Exp(-q*q*fo)
	}
	return 1 - sum
}

var slab = cut.Path{Depth: thick}

func TestUptakeAgainstCrank(t *testing.T) {
	for _, fo := range []float64{0.01, 0.03, 0.1, 0.3, 1, 2} {
		m := newMedium(slab, gridCells)
		run(m, fo, 200, hold(1))
		assert.InDelta(t, constantSurface(fo), m.held()/thick, 0.005, "constant surface, Dt/l² = %g", fo)
		for _, alpha := range []float64{0.3, 1, 5} {
			m := newMedium(slab, gridCells)
			m.addBath(alpha*thick, 1)
			run(m, fo, 200, sealed)
			final := thick * alpha / (1 + alpha)
			assert.InDelta(t, limitedVolume(fo, alpha), m.held()/final, 0.005, "bath %g, Dt/l² = %g", alpha, fo)
		}
	}
}

func TestSphereAgainstSeries(t *testing.T) {
	// Crank eq. 6.20: uptake of a sphere, 1 − 6/π² Σ exp(−n²π²Fo)/n².
	fo, sum := 0.1, 0.0
	for n := 1.0; n < 100; n++ {
		sum += math.Exp(-n*n*math.Pi*math.Pi*fo) / (n * n)
	}
	m := newMedium(cut.Path{Depth: thick, Shape: 2}, gridCells)
	run(m, fo, 200, hold(1))
	assert.InDelta(t, 1-6/(math.Pi*math.Pi)*sum, m.mean(), 0.005)
}

func TestSecondOrder(t *testing.T) {
	// A smooth start, so that the order of the scheme shows: cos(πx/a) decays as
	// exp(−π²Fo). Halving cells and steps together quarters the error.
	errorAt := func(n int) float64 {
		m := newMedium(slab, n)
		for i := range m.c {
			lo, hi := m.faces[i], m.faces[i+1]
			m.c[i] = thick / math.Pi * (math.Sin(math.Pi*hi/thick) - math.Sin(math.Pi*lo/thick)) / (hi - lo)
		}
		start := append([]float64(nil), m.c...)
		for range n {
			m.step(0.1*thick*thick/Diffusivity5C/float64(n), Diffusivity5C, sealed)
		}
		sum := 0.0
		for i := range m.c {
			d := m.c[i] - start[i]*math.Exp(-math.Pi*math.Pi*0.1)
			sum += d * d * m.volume[i] / thick
		}
		return math.Sqrt(sum)
	}
	order := math.Log2(errorAt(20) / errorAt(40))
	assert.InDelta(t, 2, order, 0.3)
}

func TestSaltIsConserved(t *testing.T) {
	for _, shape := range []float64{0, 0.7, 2} {
		for _, load := range []float64{0.02, 0.2, 1.5} {
			b := Brine{Load: load, Path: cut.Path{Depth: thick, Shape: shape}, Temperature: 4, Wait: 31 * time.Hour}
			for _, m := range DryBrine(b).Moments {
				volume := thick / (1 + shape)
				total := m.Mean*volume*MeatDensity + m.OnSurface*load
				require.InEpsilon(t, load, total, 1e-9, "shape %g load %g at %v", shape, load, m.At)
			}
		}
	}
	m := newMedium(slab, gridCells)
	m.addBath(2*thick, 0.06)
	run(m, 0.5, 100, sealed)
	assert.InEpsilon(t, 2*thick*0.06, m.held()+m.volume[gridCells]*m.c[gridCells], 1e-9)
}

func TestDepthGrowsWithTimeLoadAndWarmth(t *testing.T) {
	base := Brine{Load: 0.15, Path: slab, Temperature: 4, Wait: 20 * time.Hour}
	course := DryBrine(base)
	for i := 1; i < len(course.Moments); i++ {
		assert.GreaterOrEqual(t, course.Moments[i].Depth, course.Moments[i-1].Depth)
		assert.GreaterOrEqual(t, course.Moments[i].Centre, course.Moments[i-1].Centre-1e-15)
	}
	more, warmer := base, base
	more.Load *= 1.5
	warmer.Temperature = 8
	assert.Greater(t, DryBrine(more).End.Depth, course.End.Depth)
	assert.Greater(t, DryBrine(warmer).End.Depth, course.End.Depth)
	assert.Greater(t, DryBrine(more).TakenUp, course.TakenUp)
}

func TestFasterDiffusionReachesDeeper(t *testing.T) {
	b := Brine{Load: 0.15, Path: slab, Temperature: 4, Wait: 20 * time.Hour}
	slow, mid, fast := EndOfWait(b, 1-DiffusivitySpread), EndOfWait(b, 1), EndOfWait(b, 1+DiffusivitySpread)
	assert.Less(t, slow.Depth, mid.Depth)
	assert.Less(t, mid.Depth, fast.Depth)
	assert.InEpsilon(t, float64(DryBrine(b).End.Depth), float64(mid.Depth), 0.01)
}

func TestDepthDoesNotDependOnTheGrid(t *testing.T) {
	depth := func(n int) float64 {
		m := newMedium(slab, n)
		run(m, 0.02, 400, hold(Saturation))
		return m.depth(Noticed).MM()
	}
	assert.InDelta(t, depth(200), depth(100), 0.05)
}

// The round figures cooks can check: a medium coat of salt and pepper on a thick
// cut in the cold, and when thin and thick cuts are even.
func TestDryBrineAgainstExperience(t *testing.T) {
	c := DryBrine(Brine{Load: 0.15, Path: cut.Path{Depth: 0.05, Shape: 0.8}, Temperature: 4, Wait: 12 * time.Hour})
	want := map[time.Duration]float64{3 * time.Hour: 5, 12 * time.Hour: 10, 24 * time.Hour: 14, 72 * time.Hour: 20}
	for _, m := range c.Moments {
		if mm, ok := want[m.At]; ok {
			assert.InDelta(t, mm, m.Depth.MM(), 2.2, "depth at %v", m.At)
			delete(want, m.At)
		}
	}
	assert.Empty(t, want)
	assert.Zero(t, c.Even, "a thick cut is never even in practice")
	assert.InDelta(t, 30, c.TakenUp.Minutes(), 20)

	light := DryBrine(Brine{Load: 0.04, Path: slab, Temperature: 4, Wait: time.Hour})
	assert.Less(t, light.TakenUp, 6*time.Minute)

	rack, _ := cut.Find("pork-spare-ribs-squared")
	g, err := cut.New(rack, quantity.Mass(rack.TypicalKG), 0)
	require.NoError(t, err)
	even := DryBrine(Brine{Load: 0.1, Path: g.Path(false), Temperature: 4, Wait: time.Hour}).Even
	assert.InDelta(t, 2.5, even.Hours()/24, 0.8, "days until a rack is even")
}

func BenchmarkDryBrine72h(b *testing.B) {
	brine := Brine{Load: 0.15, Path: cut.Path{Depth: 0.05, Shape: 0.8}, Temperature: 4, Wait: Horizon}
	b.ReportAllocs()
	for b.Loop() {
		brine.Load += 1e-9 // another one each time: results are kept
		DryBrine(brine)
	}
}
