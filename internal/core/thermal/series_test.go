package thermal_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/core/thermal"
)

// dry is meat that only conducts: no juice, no fat to melt, no protein to set.
var dry = thermal.Matter{Conduct: 0.45, Heat: 3.5e6}

// convected is air that only convects, without evaporation or radiation.
func convected(c, h float64) thermal.Air {
	return thermal.Air{C: c, Walls: c, H: h, Wrap: thermal.Wrapped{Covers: 1}}
}

// middle is the temperature at the coldest plane itself, from the means of the first two
// cells on the parabola that symmetry asks for.
func middle(f *thermal.State, shape float64) float64 {
	q := (1 + shape) / (3 + shape)
	second := q * (math.Pow(2, 3+shape) - 1) / (math.Pow(2, 1+shape) - 1)
	return f.Temp[0] - (f.Temp[1]-f.Temp[0])*q/(second-q)
}

// The full series for slab, long cylinder and sphere at three Biot numbers (Carslaw and
// Jaeger 1959, §3.11, §7.7 and §9.4): 0.5 % from Fo 0.05, 1 % from 0.02.
func TestAgainstTheSeries(t *testing.T) {
	const half = 0.04
	for shape, series := range map[float64]func(bi, fo float64) float64{0: slab, 1: cylinder, 2: sphere} {
		for _, bi := range []float64{0.5, 1, 4} {
			f := thermal.NewField(thermal.Body{HalfM: half, Shape: shape}, thermal.Cells, 0)
			a := convected(1, bi*dry.Conduct/half)
			k := thermal.Defaults
			const dt = 2.0
			diffusivity := dry.Conduct / dry.Heat
			for s := 1; ; s++ {
				f.Step(&dry, &k, &a, dt)
				fo := diffusivity * float64(s) * dt / (half * half)
				if fo > 2 {
					break
				}
				if fo < 0.02 || s%100 != 0 {
					continue
				}
				limit := 0.005
				if fo < 0.05 {
					limit = 0.01
				}
				assert.InDelta(t, series(bi, fo), 1-middle(&f, shape), limit, "shape %g, Bi %g, Fo %.3f", shape, bi, fo)
			}
		}
	}
	// The first root and its weight at Bi = 1.
	for shape, want := range map[float64][2]float64{0: {0.8603, 1.1191}, 1: {1.2558, 1.2071}, 2: {1.5708, 1.2732}} {
		z, c := first[shape](1)
		assert.InDelta(t, want[0], z, 1e-4)
		assert.InDelta(t, want[1], c, 1e-4)
	}
}

// roots of f between n·π/2 steps, by bisection.
func root(f func(z float64) float64, low, high float64) float64 {
	for range 200 {
		mid := (low + high) / 2
		if (f(low) > 0) == (f(mid) > 0) {
			low = mid
		} else {
			high = mid
		}
	}
	return (low + high) / 2
}

const terms = 12

func slab(bi, fo float64) float64 {
	sum := 0.0
	for n := range terms {
		z := root(
			func(z float64) float64 { return z*math.Sin(z) - bi*math.Cos(z) },
			float64(n)*math.Pi,
			float64(n)*math.Pi+math.Pi/2,
		)
		sum += 4 * math.Sin(z) / (2*z + math.Sin(2*z)) * math.Exp(-z*z*fo)
	}
	return sum
}

func sphere(bi, fo float64) float64 {
	sum := 0.0
	for n := range terms {
		z := root(
			func(z float64) float64 { return z*math.Cos(z) + (bi-1)*math.Sin(z) },
			float64(n)*math.Pi+1e-6,
			float64(n+1)*math.Pi-1e-6,
		)
		sum += 4 * (math.Sin(z) - z*math.Cos(z)) / (2*z - math.Sin(2*z)) * math.Exp(-z*z*fo)
	}
	return sum
}

func cylinder(bi, fo float64) float64 {
	sum, from := 0.0, 1e-6
	for range terms {
		f := func(z float64) float64 { return z*math.J1(z) - bi*math.J0(z) }
		to := from + 0.05
		for (f(from) > 0) == (f(to) > 0) {
			to += 0.05
		}
		z := root(f, to-0.05, to)
		from = to
		sum += 2 * math.J1(z) / (z * (math.J0(z)*math.J0(z) + math.J1(z)*math.J1(z))) * math.Exp(-z*z*fo)
	}
	return sum
}

// first is the first root and weight of each series.
var first = map[float64]func(bi float64) (z, c float64){
	0: func(bi float64) (float64, float64) { return pair(slab, bi) },
	1: func(bi float64) (float64, float64) { return pair(cylinder, bi) },
	2: func(bi float64) (float64, float64) { return pair(sphere, bi) },
}

// pair reads root and weight off a series where one term is left.
func pair(series func(bi, fo float64) float64, bi float64) (z, c float64) {
	a, b := series(bi, 3), series(bi, 4)
	z = math.Sqrt(math.Log(a / b))
	return z, a * math.Exp(z*z*3)
}
