package salt

import (
	"math"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// Constants of salt in lean meat.
const (
	// Diffusivity5C is the diffusivity of chloride in lean muscle at 5 °C, m²/s.
	// Fox (1980), J. Food Sci. 45, 1740, gives 2.2–3 × 10⁻¹⁰.
	Diffusivity5C = 2.6e-10
	// DiffusivitySpread is the half-spread of that value (later work on pork:
	// 1.5–4 × 10⁻¹⁰ m²/s).
	DiffusivitySpread = 0.35
	// MeatDensity in kg/m³.
	MeatDensity = 1050.0
	// Saturation is the salt in the meat, kg/kg, at a surface covered with salt:
	// saturated brine holds 0.264 kg/kg, and lean meat is 74 % water.
	Saturation = 0.264 * 0.74
	// Noticed is the salt above the meat's own, kg/kg, that counts as reached.
	Noticed = 0.0025

	activation  = 25e3  // J/mol, Arrhenius, for chloride in meat
	gasConstant = 8.314 // J/mol·K
)

// Diffusivity returns the diffusivity of salt in lean meat at t, m²/s, by
// Arrhenius from Diffusivity5C with 25 kJ/mol. Meant for −2 to 60 °C.
func Diffusivity(t quantity.Celsius) float64 {
	return Diffusivity5C * math.Exp(activation/gasConstant*(1/278.15-1/t.Kelvin()))
}

// medium is a piece cut into finite volumes along its Path, centre first, for
//
//	∂c/∂t = (1/xˢ) ∂/∂x (xˢ D ∂c/∂x),  0 < x < a,  no flux at x = 0.
//
// Areas are relative to the coated face, so that a volume is in m³ per m² of
// face. Cells shrink towards the face in proportion to 1/n², which keeps second
// order and resolves the first minute of a dry brine. A stirred bath is one more
// cell (see addBath).
//
// Time steps are TR-BDF2 (Bank et al. 1985, IEEE Trans. CAD 4, 436): second
// order and L-stable, so large steps after a sudden start do not ring as plain
// Crank–Nicolson does. Salt is conserved to rounding.
type medium struct {
	faces   []float64 // n+1 distances from the centre, m
	volume  []float64 // m³ per m² of face
	conduct []float64 // conductance between cell i and i+1 at D = 1
	face    float64   // conductance between the last cell and the face at D = 1
	c       []float64 // concentration, kg/kg
	bath    bool      // the last cell is a bath

	// scratch, so that a step allocates nothing
	lower, diag, rhs, mid, saved []float64
}

// newMedium returns a salt-free medium of n cells along p.
func newMedium(p cut.Path, n int) *medium {
	a, s := float64(p.Depth), p.Shape
	m := &medium{faces: make([]float64, n+1)}
	for i := range m.faces {
		left := 1 - float64(i)/float64(n)
		m.faces[i] = a * (1 - left*left)
	}
	area := func(x float64) float64 { return math.Pow(x/a, s) }
	m.volume = make([]float64, n, n+1)
	m.conduct = make([]float64, n-1, n)
	for i := range m.volume {
		lo, hi := m.faces[i], m.faces[i+1]
		m.volume[i] = a / (s + 1) * (math.Pow(hi/a, s+1) - math.Pow(lo/a, s+1))
		if i > 0 {
			m.conduct[i-1] = area(lo) / ((hi - m.faces[i-1]) / 2)
		}
	}
	m.face = 1 / ((a - m.faces[n-1]) / 2)
	m.allocate(n)
	for i := range m.c {
		m.c[i] = saltFree
	}
	return m
}

// saltFree stands for no salt: far below anything that counts, and far enough above
// the smallest float that the front's exponential tail does not fall into the
// slow arithmetic of subnormal numbers.
const saltFree = 1e-25

func (m *medium) allocate(n int) {
	grow := func(s []float64) []float64 { return append(s, make([]float64, n-len(s))...) }
	m.c, m.lower, m.diag = grow(m.c), grow(m.lower), grow(m.diag)
	m.rhs, m.mid, m.saved = grow(m.rhs), grow(m.mid), grow(m.saved)
}

// addBath couples a well-stirred bath of the given volume (m³ per m² of face,
// already divided by the partition between meat and brine) at concentration c
// (times that partition).
func (m *medium) addBath(volume, c float64) {
	m.volume = append(m.volume, volume)
	m.conduct = append(m.conduct, m.face)
	m.allocate(len(m.volume))
	m.c[len(m.c)-1] = c
	m.bath = true
}

// cells is the number of cells of meat.
func (m *medium) cells() int { return len(m.faces) - 1 }

// held is the salt in the meat, in kg/kg × m³ per m² of face.
func (m *medium) held() float64 {
	sum := 0.0
	for i := range m.cells() {
		sum += m.volume[i] * m.c[i]
	}
	return sum
}

// boundary says what passes the face during a step: hold keeps the face at a
// concentration, flow lets a fixed amount per second through.
type boundary struct {
	fixed bool
	value float64
}

func hold(c float64) boundary { return boundary{fixed: true, value: c} }
func flow(q float64) boundary { return boundary{value: q} }

var sealed = flow(0)

const (
	gamma = 2 - math.Sqrt2
	alpha = gamma / 2
)

// step advances c by dt seconds at diffusivity d.
func (m *medium) step(dt, d float64, b boundary) {
	n := len(m.c)
	h := alpha * dt * d
	last := n - 1
	source := alpha * dt * b.value // added to the last cell, times its volume
	faceLoss := 0.0
	if b.fixed {
		faceLoss = h * m.face
		source = faceLoss * b.value
	}
	// Factor (V + h·K), the same matrix for both stages; diag keeps the inverse
	// of the pivots.
	for i := range n {
		m.diag[i] = m.volume[i]
		if i > 0 {
			m.diag[i] += h * m.conduct[i-1]
		}
		if i < last {
			m.diag[i] += h * m.conduct[i]
		}
	}
	m.diag[last] += faceLoss
	m.diag[0] = 1 / m.diag[0]
	for i := 1; i < n; i++ {
		off := h * m.conduct[i-1]
		m.lower[i] = off * m.diag[i-1]
		m.diag[i] = 1 / (m.diag[i] - m.lower[i]*off)
	}
	// Stage 1: trapezoidal rule over γ·dt.
	for i := range n {
		flux := 0.0
		if i > 0 {
			flux += m.conduct[i-1] * (m.c[i-1] - m.c[i])
		}
		if i < last {
			flux += m.conduct[i] * (m.c[i+1] - m.c[i])
		}
		m.rhs[i] = m.volume[i]*m.c[i] + h*flux
	}
	m.rhs[last] += 2*source - faceLoss*m.c[last]
	m.solve(m.mid)
	// Stage 2: second backward difference over the rest.
	const w = 1 / (gamma * (2 - gamma))
	const old = (1 - gamma) * (1 - gamma) * w
	for i := range n {
		m.rhs[i] = m.volume[i] * (w*m.mid[i] - old*m.c[i])
	}
	m.rhs[last] += source
	m.solve(m.c)
}

// solve writes the solution of the factored system with m.rhs into out.
func (m *medium) solve(out []float64) {
	n := len(m.rhs)
	rhs, lower, inverse := m.rhs[:n], m.lower[:n], m.diag[:n]
	out = out[:n]
	for i := 1; i < n; i++ {
		rhs[i] += lower[i] * rhs[i-1]
	}
	out[n-1] = rhs[n-1] * inverse[n-1]
	for i := n - 2; i >= 0; i-- {
		out[i] = rhs[i]*inverse[i] + lower[i+1]*out[i+1]
	}
}

// centre is the salt in the middle.
func (m *medium) centre() float64 { return m.c[0] }

// mean is the salt averaged over the meat.
func (m *medium) mean() float64 {
	total := 0.0
	for i := range m.cells() {
		total += m.volume[i]
	}
	return m.held() / total
}

// outer is the salt averaged over the outer layer of the given thickness.
func (m *medium) outer(layer quantity.Length) float64 {
	n := m.cells()
	edge := m.faces[n] - float64(layer)
	salt, volume := 0.0, 0.0
	for i := n - 1; i >= 0; i-- {
		share := 1.0
		if m.faces[i] < edge {
			share = (m.faces[i+1] - edge) / (m.faces[i+1] - m.faces[i])
		}
		if share <= 0 {
			break
		}
		salt += share * m.volume[i] * m.c[i]
		volume += share * m.volume[i]
	}
	return salt / volume
}

// depth is how far below the face the salt exceeds level, found between cell
// centres by straight lines; the whole path when the middle exceeds it.
func (m *medium) depth(level float64) quantity.Length {
	n := m.cells()
	surface := m.faces[n]
	at := func(i int) float64 { return surface - (m.faces[i]+m.faces[i+1])/2 }
	if m.c[0] > level {
		return quantity.Length(surface)
	}
	for i := 1; i < n; i++ {
		if m.c[i] > level {
			share := (level - m.c[i]) / (m.c[i-1] - m.c[i])
			return quantity.Length(at(i) + share*(at(i-1)-at(i)))
		}
	}
	return 0
}
