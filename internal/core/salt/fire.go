package salt

import (
	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// Warmth is a piece on the fire at one moment, from its coldest plane to its surface at equal
// steps.
type Warmth struct {
	AtS     float64   // s since it went on
	TempC   []float64 // °C
	Juice   []float64 // lost so far, kg per kg of lean: what evaporated and what ran off
	Dripped float64   // share of all of it that ran off
}

// Held is the salt of a piece after the fire, kg per kg of raw boneless meat unless it says
// otherwise.
type Held struct {
	Mean    float64
	Outer   float64 // of the outer 5 mm
	Middle  float64
	Lost    float64 // that went with the juice
	Profile []float64
	// The same of the meat as it is served, which has lost water: kg/kg.
	ServedMean, ServedOuter, ServedMiddle float64
}

// ThroughFire lets diffusion run on while a piece cooks: at each depth with the diffusivity of
// its own temperature (Diffusivity, carried on above 60 °C by the same Arrhenius law). Juice
// takes the salt of its water along, towards the surface: what evaporates there leaves its
// salt behind, what drips takes it away. Nothing before the first moment counts.
func ThroughFire(b Before, p cut.Path, fire []Warmth) Held {
	m := newMedium(p, gridCells)
	m.lay(b)
	total := 0.0
	for i := range m.cells() {
		total += m.volume[i]
	}
	base := append([]float64(nil), m.conduct...)
	lost, dripped := 0.0, 0.0
	at := func(v []float64, i int) float64 { // at the middle of cell i
		x := (m.faces[i] + m.faces[i+1]) / 2 / m.faces[m.cells()] * float64(len(v)-1)
		n := min(int(x), len(v)-2)
		return v[n] + (x-float64(n))*(v[n+1]-v[n])
	}
	for k := 1; k < len(fire); k++ {
		was, now := fire[k-1], fire[k]
		for i := range base {
			m.conduct[i] = base[i] * Diffusivity(celsius((at(now.TempC, i)+at(now.TempC, i+1))/2))
		}
		m.step(now.AtS-was.AtS, 1, sealed)
		// What drips of this step's juice, as its share of all that was let go.
		share := 0.0
		letBefore, let := 0.0, 0.0
		for i := range m.cells() {
			letBefore += m.volume[i] * at(was.Juice, i)
			let += m.volume[i] * at(now.Juice, i)
		}
		if let > letBefore {
			share = min(1, max(0, (now.Dripped*let-dripped)/(let-letBefore)))
		}
		dripped = now.Dripped * let
		carried := 0.0
		for i := range m.cells() {
			d := max(0, at(now.Juice, i)-at(was.Juice, i)) / (meatWater - at(was.Juice, i))
			went := m.c[i] * min(1, d)
			m.c[i] -= went
			carried += went * m.volume[i]
		}
		lost += carried * share
		m.c[m.cells()-1] += carried * (1 - share) / m.volume[m.cells()-1]
	}
	last := fire[len(fire)-1]
	left := func(i int) float64 { return 1 - at(last.Juice, i) } // of a kilo of lean
	out := Held{
		Mean:    m.mean(),
		Outer:   m.outer(outerBite),
		Middle:  m.centre(),
		Lost:    lost / total,
		Profile: m.sample(graphPoints),
	}
	kept := 0.0
	for i := range m.cells() {
		kept += m.volume[i] * left(i) / total
	}
	out.ServedMean, out.ServedMiddle, out.ServedOuter = out.Mean/kept, out.Middle/left(0), out.Outer/left(m.cells()-1)
	return out
}

func celsius(c float64) quantity.Celsius { return quantity.Celsius(max(c, -2)) }
