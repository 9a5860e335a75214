package meal

import (
	"math"
	"time"
)

// Body is what is warmed again, covered.
type Body struct {
	Deep  float64 // how deep a tray is, or how thick a piece, m
	Shape float64 // s: 0 a tray or a slab, 1 a long bar, 2 a ball
	Gives float64 // what the oven gives it, W/m²K; zero is Gives
}

// What cooked meat in its juice is, about: W/mK and m²/s (Choi and Okos 1986). Gives is what an oven
// gives what is covered, W/m²K: field judgement.
const (
	conducts = 0.45
	diffuses = 1.3e-7
	Gives    = 25.0
)

// OvenLeastC is the coolest oven that warms anything within a meal's time, °C.
const OvenLeastC = WarmC + 16

// Reheat is how long it takes from one temperature to WarmC in the middle of it, in an oven, °C. It is
// conduction from all sides at once by the first term of its series, with the eigenvalue of a slab,
// bar or ball and of what lies between (Carslaw and Jaeger, Conduction of Heat in Solids, ch. 3, 7 and
// 9): good to 1 % where it takes longer than 0.2 of a²/α. An oven under OvenLeastC counts as one of
// it, and what has no depth takes no time.
func (b Body) Reheat(fromC, ovenC float64) time.Duration {
	half := b.Deep / 2
	if half <= 0 || fromC >= WarmC {
		return 0
	}
	gives := b.Gives
	if gives == 0 {
		gives = Gives
	}
	zeta, first := b.term(gives * half / conducts)
	ovenC = math.Max(ovenC, OvenLeastC)
	fo := math.Max(0, math.Log(first*(ovenC-fromC)/(ovenC-WarmC))/(zeta*zeta))
	return time.Duration(fo * half * half / diffuses * float64(time.Second))
}

// term is the first eigenvalue for a Biot number, and the factor of its term in the middle.
func (b Body) term(bi float64) (zeta, first float64) {
	low, high := 0.0, math.Pi*(1+b.Shape/2)/2+0.1 // past the first zero of the wave
	for range 60 {
		mid := (low + high) / 2
		if u, du := b.wave(mid); u > 0 && -mid*du < bi*u {
			low = mid
		} else {
			high = mid
		}
	}
	// The factor is the mean of the wave over the mean of its square, over the body.
	const steps = 200
	one, square := 0.0, 0.0
	for i := range steps {
		r := (float64(i) + 0.5) / steps
		u, _ := b.wave(low * r)
		weight := math.Pow(r, b.Shape)
		one, square = one+u*weight, square+u*u*weight
	}
	return low, one / square
}

// wave is the solution of u″ + s u′/x + u = 0 that is 1 in the middle, and its slope: a cosine for a
// slab, J₀ for a bar, sin x/x for a ball; by its series, which is quick for x below 4.
func (b Body) wave(x float64) (u, slope float64) {
	term := 1.0
	u = 1
	for k := 1.0; k < 20; k++ {
		term *= -x * x / (2 * k * (2*k - 1 + b.Shape))
		u += term
		if x > 0 {
			slope += 2 * k * term / x
		}
	}
	return u, slope
}
