// Package thermal is a piece of meat in hot air: conduction to its middle, what its surface takes
// and evaporates, the juice that feeds it, and what wraps change. It takes a step at a time.
//
//	f := thermal.NewField(thermal.NewBody(cut, geometry, thermal.Defaults), 20, 4)
//	f.Step(&matter, &thermal.Defaults, &air, 60)
//	f.Temp[0]   // °C, at the coldest plane
package thermal

import (
	"math"

	"verjuice/internal/core/gear"
)

// Constants of nature and of air about the meat, SI.
const (
	sigma  = 5.670374e-8 // Stefan–Boltzmann, W/m²K⁴
	Latent = 2.3e6       // of water at the surface, J/kg
	gas    = 8.314       // J/mol·K
	Steam  = 461.5       // gas constant of water vapour, J/kg·K
	Zero   = 273.15      // 0 °C in K

	airHeat = 960 // ρcₚ of the air at the surface, J/m³K
	lewis   = 0.9 // Le^⅔ of vapour in air (Chilton and Colburn)
)

// Constants is what the model was fitted with: one set for all cuts, fitted to the field
// envelope in docs/models.md and to nothing else.
type Constants struct {
	Juice    float64 // J_max: what lean meat lets go towards its surface, kg/kg
	JuiceC   float64 // temperature at which half of it would be let go, °C
	JuiceK   float64 // steepness of that, 1/°C
	JuiceTau float64 // time constant with which it is let go, s
	Film     float64 // water that a surface holds before it drips, kg/m²
	Dry      float64 // w₀: wetness of a dry surface
	Emit     float64 // emissivity between meat and pit
	Vapour   float64 // pressure of vapour in a pit, Pa
	Thick    float64 // power of the block : thickest ratio in the way to the probe
	Weak     float64 // how much further the coldest plane is behind a weak face
	Rack     float64 // and between the bones of a rack, which are most of one of its faces

	Foil, Paper Sheet

	TenderE float64 // activation energy of collagen's softening, J/mol
	ColourE float64 // activation energy of a surface's browning, J/mol
}

// Sheet is what a wrap is made of.
type Sheet struct {
	Emit float64 // emissivity, as it looks after some smoke
	Gap  float64 // resistance of the air under it, m²K/W
	Leak float64 // share of an open wet surface through which steam leaves
}

// Defaults are the constants in use. Vapour and the activation energies are set, the others
// fitted.
var Defaults = Constants{
	Juice: 0.235, JuiceC: 66, JuiceK: 0.18, JuiceTau: 3700, Film: 0.023, Dry: 0.003, Emit: 0.6, Vapour: 3000,
	Thick: -0.32, Weak: 0.29, Rack: 0.5,
	Foil:    Sheet{Emit: 0.33, Gap: 0.014, Leak: 0.002},
	Paper:   Sheet{Emit: 0.76, Gap: 0.006, Leak: 0.09},
	TenderE: 55e3, ColourE: 100e3,
}

// Saturation is the density of vapour over water at c °C, kg/m³, and its slope (Alduchov and
// Eskridge 1996, J. Appl. Meteorol. 35, 601, eq. 21).
func Saturation(c float64) (rho, slope float64) {
	k := c + Zero
	rho = 610.94 * math.Exp(17.625*c/(c+243.04)) / (Steam * k)
	return rho, rho * (17.625*243.04/((c+243.04)*(c+243.04)) - 1/k)
}

// Wrap of that kind: its sheet, as tight as leak and gap say against the usual; a cover is fat, wet as a
// surface. A kind that there is not is none.
func (k *Constants) Wrap(kind string, leak, gap float64) Wrapped {
	wrap, _ := gear.FindWrap(kind)
	sheet := func(s Sheet) Sheet { return Sheet{s.Emit, s.Gap * gap, min(1, s.Leak*leak)} }
	switch wrap.Sheet {
	case "foil":
		return Wrapped{sheet(k.Foil), wrap.Covers, wrap.Floor, 1}
	case "paper":
		return Wrapped{sheet(k.Paper), wrap.Covers, wrap.Floor, k.Film}
	case "cover":
		return Wrapped{Sheet{k.Emit, k.Foil.Gap, damped}, wrap.Covers, wrap.Floor, k.Film}
	}
	return Wrapped{}
}
