package thermal

import (
	"math"

	"verjuice/internal/core/cut"
)

// Body is a piece of meat as heat sees it: a way from its surface to its coldest plane.
type Body struct {
	HalfM   float64 // from the surface to the coldest plane, m
	Shape   float64 // s: 0 slab, 1 long bar, 2 cube
	Bone    float64 // share of the mass
	Fat     float64 // share of the boneless mass
	TenderH float64 // at 95 °C in which its collagen softens, h
	Skin    bool    // of a bird: it is golden sooner than meat is dark
	Sweat   float64 // of what a bare surface evaporates; skin or a cap of fat holds some back
}

// damped is what skin, a cap of fat or bacon lets through of the steam under it: field judgement.
const damped = 0.2

// NewBody is a piece of that cut and shape. The way to the coldest plane is half the block's
// thickness, longer where the thickest point stands out of the block; a hollow bird's is half
// its meat. Behind a cavity or rib bones the plane lies further in.
func NewBody(c cut.Cut, g cut.Geometry, k Constants) Body {
	half := float64(g.Thickness) / 2 / g.Spread
	if !c.Hollow() {
		half = float64(g.Thickness) / 2 * math.Pow(float64(g.Thickness/g.Thickest), k.Thick)
	}
	switch {
	case c.Family == cut.Rack:
		half *= 1 + k.Rack
	case c.Weak():
		half *= 1 + k.Weak
	}
	sweat := 1.0
	if c.Covered() {
		sweat = 1 - (1-damped)/2 // one face of two
	}
	return Body{
		HalfM: half,
		Shape: float64(g.Thickness/g.Length + g.Thickness/g.Width),
		Bone:  c.BoneShare(),
		Fat:   c.FatPercent / 100,
		Sweat: sweat, TenderH: c.TenderH, Skin: c.Species == "poultry",
	}
}

func (b Body) density() float64 {
	if b.Bone > 0 {
		return 1100
	}
	return 1050
}

// Matter is what a cubic metre of a piece is.
type Matter struct {
	Conduct float64 // W/mK
	Heat    float64 // J/m³K
	melt    float64 // to melt its fat, J/m³
	set     float64 // to set its protein, J/m³
	Lean    float64 // kg/m³
	Juice   float64 // that its lean lets go, kg/kg
}

// Matter after Choi and Okos (1986) at about 60 °C: lean is three quarters water; bone 2.4
// MJ/m³K and 0.4 W/mK; fat takes 100 kJ/kg to melt, lean 15 kJ/kg to set.
func (b Body) Matter(k *Constants) Matter {
	bone := b.Bone * b.density() / 1300 // by volume
	meat := b.density() * (1 - b.Bone)  // kg/m³
	return Matter{
		Conduct: (1-bone)*((1-b.Fat)*0.49+b.Fat*0.20) + bone*0.4,
		Heat:    (1-bone)*1050*((1-b.Fat)*3620+b.Fat*2050) + bone*2.4e6,
		melt:    100e3 * meat * b.Fat, set: 15e3 * meat * (1 - b.Fat), Lean: meat * (1 - b.Fat), Juice: k.Juice,
	}
}

// Fat melts and protein sets between these, °C.
const (
	meltFrom, meltTo = 25.0, 45.0
	setFrom, setTo   = 55.0, 85.0
)

// capacity of a cubic metre at c °C, J/m³K.
func (m *Matter) capacity(c float64) float64 {
	out := m.Heat
	if c > meltFrom && c < meltTo {
		out += m.melt / (meltTo - meltFrom)
	}
	if c > setFrom && c < setTo {
		out += m.set / (setTo - setFrom)
	}
	return out
}

// Enthalpy of a cubic metre at c °C over that at 0 °C, J/m³: the integral of capacity.
func (m *Matter) Enthalpy(c float64) float64 {
	return m.Heat*c + m.melt*min(
		1,
		max(0, (c-meltFrom)/(meltTo-meltFrom)),
	) + m.set*min(
		1,
		max(0, (c-setFrom)/(setTo-setFrom)),
	)
}
