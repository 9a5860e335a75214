package heat

import (
	"math"
	"math/rand/v2"

	"gonum.org/v1/gonum/mat"
)

// assimilations is in how many rounds readings are taken in: the relation between the
// unknowns and the core is bent, and small steps follow the bend (multiple data
// assimilation; Emerick and Reynolds 2013, Comput. Geosci. 55, 3).
const assimilations = 3

// What is read differs from the model by more than the thermometer: the model leaves out what goes on for
// hours, so that a hundred readings of one probe say little more than a few. The covariance of two
// readings is
//
//	R(i, j) = s_m²·e^(−|t_i − t_j|/τ) + s_r²·δ(i, j)
//
// with s_r of the thermometer, and s_m and τ from simulated fires of other physics (docs/models.md).
const (
	modelC    = 2.5 // s_m, °C
	modelTauH = 2.5 // τ, h
	probeC    = 1.0 // s_r of a probe that stays in, °C
	eyeC      = 2.0 // s_r of a thermometer that is put in and read, °C
)

// off is how far off a reading is by its thermometer, °C.
func (r Reading) off() float64 {
	if r.ByEye {
		return eyeC
	}
	return probeC
}

// More readings than these are thinned to this many, the first and the last kept.
const fewest = 12

// A bark is seen set so much early or late, ln: a look now and then, and eyes differ.
const barkOff = 0.25

// observations are what was read and seen, with the covariance of what each is off by.
type observations struct {
	values []float64
	of     []func(p *path) float64 // what a member says of it
	errors *mat.SymDense
}

func (a Ask) observations() observations {
	read := thin(a.Readings)
	n := len(read)
	var out observations
	for _, r := range read {
		out.values = append(out.values, r.CoreC)
		out.of = append(out.of, func(p *path) float64 { return p.read(r.AtH) })
	}
	if a.Bark.SetH > 0 {
		out.values = append(out.values, math.Log(a.Bark.SetH))
		out.of = append(out.of, func(p *path) float64 { return math.Log(min(p.bark, a.seen())) })
	}
	out.errors = mat.NewSymDense(len(out.values), nil)
	for i, r := range read {
		for j, q := range read[:i+1] {
			out.errors.SetSym(i, j, modelC*modelC*math.Exp(-math.Abs(r.AtH-q.AtH)/modelTauH))
		}
		out.errors.SetSym(i, i, out.errors.At(i, i)+r.off()*r.off())
	}
	if a.Bark.SetH > 0 {
		out.errors.SetSym(n, n, barkOff*barkOff)
	}
	return out
}

// assimilate moves the members towards what was read: an ensemble smoother on their
// unknowns, one of several rounds, each with the readings' errors widened so that all
// rounds together weigh them once.
func assimilate(all []draw, paths []path, o observations, random *rand.Rand) {
	n, d := len(all), len(o.values)
	var root mat.Cholesky
	if !root.Factorize(o.errors) {
		return
	}
	var lower mat.TriDense
	root.LTo(&lower)
	says := mat.NewDense(d, n, nil)
	miss := mat.NewDense(d, n, nil) // what each member would have read, and how far off that is
	unknown := mat.NewDense(unknowns, n, nil)
	z, off := mat.NewVecDense(d, nil), mat.NewVecDense(d, nil)
	for j := range n {
		for i := range d {
			z.SetVec(i, math.Sqrt(assimilations)*random.NormFloat64())
		}
		off.MulVec(&lower, z)
		for i := range d {
			says.Set(i, j, o.of[i](&paths[j]))
			miss.Set(i, j, o.values[i]+off.AtVec(i)-says.At(i, j))
		}
		for u := range unknowns {
			unknown.Set(u, j, all[j][u])
		}
	}
	aboutMean(says)
	aboutMean(unknown)
	var cross, spread mat.Dense
	cross.Mul(unknown, says.T())
	spread.Mul(says, says.T())
	errors := mat.NewSymDense(d, nil)
	for i := range d {
		for j := i; j < d; j++ {
			errors.SetSym(i, j, spread.At(i, j)/float64(n-1)+assimilations*o.errors.At(i, j))
		}
	}
	var chol mat.Cholesky
	var solved, move mat.Dense
	if !chol.Factorize(errors) || chol.SolveTo(&solved, miss) != nil {
		return // the readings say nothing that can be used
	}
	move.Mul(&cross, &solved)
	for j := range n {
		for u := range unknowns {
			all[j][u] += move.At(u, j) / float64(n-1)
		}
	}
}

// aboutMean takes each row's mean off it.
func aboutMean(m *mat.Dense) {
	rows, columns := m.Dims()
	for i := range rows {
		mean := mat.Sum(m.RowView(i)) / float64(columns)
		for j := range columns {
			m.Set(i, j, m.At(i, j)-mean)
		}
	}
}

// read is the core at an hour, °C.
func (p *path) read(h float64) float64 {
	at := h / every
	i := int(at)
	if i+1 >= len(p.core) {
		return p.core[len(p.core)-1]
	}
	return p.core[i] + (at-float64(i))*(p.core[i+1]-p.core[i])
}

func thin(readings []Reading) []Reading {
	if len(readings) <= fewest {
		return readings
	}
	out := make([]Reading, fewest)
	for i := range out {
		out[i] = readings[i*(len(readings)-1)/(fewest-1)]
	}
	return out
}
