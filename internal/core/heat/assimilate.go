package heat

import (
	"math"
	"math/rand/v2"

	"gonum.org/v1/gonum/mat"
)

// assimilations is in how many rounds readings are taken in: the relation between the
// unknowns and the core is bent, and small steps follow the bend (multiple data
// assimilation; Emerick and Reynolds 2013, Comput. Geosci. 55, 3).
const assimilations = 4

// A reading is off by the thermometer, by where the probe sits, and by what the model
// leaves out, °C.
const readingC = 0.8

// More readings than these are thinned to this many, the first and the last kept.
const fewest = 12

// A bark is seen set so much early or late, ln: a look now and then, and eyes differ.
const barkOff = 0.25

// observation is something that was read or seen, and what each member says of it.
type observation struct {
	value, off float64
	of         func(p *path) float64
}

func (a Ask) observations() []observation {
	var out []observation
	for _, r := range thin(a.Readings) {
		out = append(out, observation{r.CoreC, readingC, func(p *path) float64 { return p.read(r.AtH) }})
	}
	if a.BarkH > 0 {
		out = append(
			out,
			observation{math.Log(a.BarkH), barkOff, func(p *path) float64 { return math.Log(min(p.bark, a.seen())) }},
		)
	}
	return out
}

// assimilate moves the members towards what was read: an ensemble smoother on their
// unknowns, one of several rounds, each with the readings' errors widened so that all
// rounds together weigh them once.
func assimilate(all []draw, paths []path, a Ask) {
	r := a.observations()
	n, d := len(all), len(r)
	random := rand.New(rand.NewPCG(a.Seed, 0x5eed))
	says := mat.NewDense(d, n, nil)
	miss := mat.NewDense(d, n, nil) // what each member would have read, and how far off that is
	unknown := mat.NewDense(unknowns, n, nil)
	for j := range n {
		for i := range d {
			says.Set(i, j, r[i].of(&paths[j]))
			miss.Set(i, j, r[i].value+math.Sqrt(assimilations)*r[i].off*random.NormFloat64()-says.At(i, j))
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
			errors.SetSym(i, j, spread.At(i, j)/float64(n-1))
		}
		errors.SetSym(i, i, errors.At(i, i)+assimilations*r[i].off*r[i].off)
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
