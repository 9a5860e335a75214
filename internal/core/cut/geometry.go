package cut

import (
	"math"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Geometry is the shape of one piece: a rounded block.
//
// The block has sides Length × Width × Thickness; rounding its edges takes the
// same factor φ off its volume and off its surface:
//
//	V = φ·L·W·T        S = φ·2(LW + LT + WT)
//
// That is exact for a slab (φ = 1), for a cylinder of any length (φ = π/4, W = T
// = diameter) and for a sphere (φ = π/6), and it keeps the ratio of surface to
// volume, which decides how hard a coat salts a piece, at 2(1/L + 1/W + 1/T).
type Geometry struct {
	Length    quantity.Length
	Width     quantity.Length
	Thickness quantity.Length
	Rounding  float64         // φ, 0.5 to 1
	Spread    float64         // real surface over the block's, 1 and more
	Thickest  quantity.Length // where a ruler is put; the block is thinner
	Mass      quantity.Mass
	Measured  bool // thickness was measured, not estimated
}

// New returns the geometry of a piece of c that weighs m (more than zero). A
// thickness above zero is that of the thickest point, as a ruler shows it: the block is
// Block times as thick, replaces the estimate and keeps the mass, so that the piece grows
// shorter and narrower. An error means that the thickness cannot belong to that weight.
func New(c Cut, m quantity.Mass, thickest quantity.Length) (Geometry, error) {
	g := Geometry{Rounding: c.Rounding, Spread: max(1, c.Surface), Mass: m}
	block := quantity.Length(c.Block)
	if block == 0 {
		block = 1
	}
	volume := float64(m) / c.Density() / c.Rounding
	k := math.Cbrt(volume / (c.Length * c.Width * c.Thickness))
	g.Length = quantity.Length(k * c.Length)
	g.Width = quantity.Length(k * c.Width)
	g.Thickness = quantity.Length(k * c.Thickness)
	estimate := g.Thickness
	g.Thickest = estimate / block
	if thickest <= 0 {
		return g, nil
	}
	thickness := thickest * block
	g.Measured, g.Thickness, g.Thickest = true, thickness, thickest
	side := math.Sqrt(volume / float64(thickness) / (c.Length * c.Width))
	g.Length, g.Width = quantity.Length(side*c.Length), quantity.Length(side*c.Width)
	if ratio := float64(thickness / estimate); ratio > 2.2 || ratio < 0.3 {
		return g, field.Because("meat.thickness", "mass", m, "noun", c.Noun, "usual", estimate/block)
	}
	return g, nil
}

// Surface is the area of all sides in m².
func (g Geometry) Surface() float64 {
	l, w, t := float64(g.Length), float64(g.Width), float64(g.Thickness)
	return g.Spread * g.Rounding * 2 * (l*w + l*t + w*t)
}

// Seasoned is the area in m² that takes a coat: all sides, or all but one broad
// face (a skin, fat cap or bone side that is left bare).
func (g Geometry) Seasoned(oneBare bool) float64 {
	if oneBare {
		return g.Surface() - g.Spread*g.Rounding*float64(g.Length*g.Width)
	}
	return g.Surface()
}

// Path is the way salt or heat takes into the piece, for the one-dimensional
// equation (1/xˢ) ∂/∂x (xˢ D ∂c/∂x).
type Path struct {
	Depth quantity.Length // from the coated face to the middle, or to the bare face
	Shape float64         // s: 0 slab, 1 long bar, 2 cube; between for stubby blocks
}

// Path returns the half-thickness a = T/2 with s = T/L + T/W, so that surface to
// volume (1+s)/a is that of the block. With one bare face the block is mirrored
// at that face: a = T and s = 2T/L + 2T/W. A piece with more surface than its block (a
// bird with its cavity) is as much thinner: its meat is, not its outline.
func (g Geometry) Path(oneBare bool) Path {
	s := float64(g.Thickness/g.Length + g.Thickness/g.Width)
	meat := g.Thickness / quantity.Length(g.Spread)
	if oneBare {
		return Path{Depth: meat, Shape: 2 * s}
	}
	return Path{Depth: meat / 2, Shape: s}
}
