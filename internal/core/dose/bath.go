package dose

import (
	"strconv"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// Bath is a wet brine, for all pieces of a line in one pot. Its salt follows from
// the strength (a strong bath) or from the target (an equilibrium bath), unless a recipe
// says it or Salt is given.
type Bath struct {
	plain
	Equilibrium bool
	Strength    float64         // of a strong one, kg/kg
	Target      float64         // of an equilibrium one, kg/kg of raw boneless meat
	Recipe      *Recipe         // salt as a recipe says it; nil when it follows from the rest
	Given       quantity.Volume // liquid in the pot as typed; zero is what covers the meat
	With        []Stirred       // besides water and salt
	Salt        quantity.Mass   // of all of it, when it was worked out
	Pot         quantity.Volume // what the pot holds; zero when it is not known
	Lasts       time.Duration   // as asked
	Hot         quantity.Celsius
}

// Recipe is the plain salt that goes into a bath, as a recipe says it. Its zero value is
// none: the salt comes with what is stirred in.
type Recipe struct {
	Mass    quantity.Mass
	PerCube float64 // kg a m³ of liquid, besides
	Off     float64 // how far it may be off, as a share of it
}

// Stirred is something in a bath besides water and salt. Its amount is one of Share,
// Mass and Volume.
type Stirred struct {
	Formula formula.Formula // as typed
	Mix     formula.Mix
	Share   float64 // of the liquid, by volume
	Amount  quantity.Amount
}

// waterPerML is the mass of a mL of cold water, g.
const waterPerML = 0.998

// MaxStrength is the salt that water holds in the cold, % by weight.
const MaxStrength = 26.0

// ID implements Source.
func (Bath) ID() ID { return "bath" }

// Label implements Source.
func (b Bath) Label() Label { return Label{ID: b.ID()} }

// Liquid is the liquid in the pot.
func (b Bath) Liquid(on Target) quantity.Volume {
	if b.Given > 0 {
		return b.Given
	}
	return salt.Cover(on.Volume * quantity.Volume(on.Count))
}

// mass is how much of s goes into so much liquid.
func (s Stirred) mass(liquid quantity.Volume) quantity.Mass {
	if s.Share > 0 {
		return quantity.Mass(s.Share*liquid.ML()*s.Mix.GramsPerML) * quantity.Gram
	}
	return s.Amount.Of(s.Mix.GramsPerML)
}

// watery reports whether s takes the place of water in the pot; the rest is stirred
// in.
func (s Stirred) watery() bool { return s.Mix.Per100g.Water > 50 }

// Brew is a bath worked out.
type Brew struct {
	Liquid quantity.Volume
	Water  quantity.Mass   // in all that is poured in
	Plain  quantity.Mass   // poured in as water
	Brings quantity.Mass   // salt that comes with what is stirred in
	Salt   quantity.Mass   // in all of it
	Parts  []quantity.Mass // of each of With
}

// Brew works out what is in the pot.
func (b Bath) Brew(on Target) Brew {
	out := Brew{Liquid: b.Liquid(on)}
	room := out.Liquid.ML() // left for plain water
	with := 0.0             // water that comes with the rest, g
	for _, s := range b.With {
		m := s.mass(out.Liquid)
		if s.watery() {
			room -= m.Grams() / s.Mix.GramsPerML
		}
		with += m.Grams() * s.Mix.Per100g.Water / 100
		out.Brings += m * quantity.Mass(s.Mix.SaltShare())
		out.Parts = append(out.Parts, m)
	}
	out.Water = quantity.Mass(max(0, room)*waterPerML+with) * quantity.Gram
	out.Plain = out.Water
	for i, s := range b.With {
		out.Plain -= out.Parts[i] * quantity.Mass(s.Mix.Per100g.Water/100)
	}
	out.Plain = max(0, out.Plain)
	switch {
	case b.Salt > 0:
		out.Salt = b.Salt
	case b.Recipe != nil:
		out.Salt = out.Brings + b.Recipe.Mass + quantity.Mass(b.Recipe.PerCube*float64(out.Liquid))
	case b.Equilibrium:
		out.Salt = salt.EquilibriumSalt(on.Meat.Edible()*quantity.Mass(on.Count), out.Water, b.Target)
	default:
		out.Salt = quantity.Mass(b.Strength/(1-b.Strength)) * out.Water
	}
	return out
}

// Percent is the strength of the brine by weight.
func (w Brew) Percent() float64 { return 100 * float64(w.Salt/(w.Salt+w.Water)) }

// One is the share of the bath that belongs to one piece.
func (w Brew) One(on Target) salt.Bath {
	n := quantity.Mass(on.Count)
	return salt.Bath{Water: w.Water / n, Salt: w.Salt / n, Meat: on.Meat.Edible(), Path: on.Path, Temperature: on.Fridge}
}

// Soaks is how long the meat is in it.
func (b Bath) Soaks(on Target) time.Duration {
	if on.Soak > 0 {
		return on.Soak
	}
	return b.Lasts
}

// Aim is the salt that the bath is meant to bring, kg/kg of raw boneless meat; for
// one whose salt was worked out, took is what it brings in its time.
func (b Bath) Aim(w Brew, on Target, took float64) float64 {
	switch {
	case b.Salt == 0 && b.Recipe == nil:
		return b.Target
	case b.Equilibrium:
		return w.One(on).AtInfinity()
	}
	return took
}

// On implements Source: what one piece takes up in its time, with the range that the
// diffusivity allows.
func (b Bath) On(on Target) Brought {
	one := b.Brew(on).One(on)
	lasts := b.Soaks(on)
	took := func(factor float64) float64 { return one.After(lasts, factor).Mean }
	mid := took(1)
	out := Brought{
		Label: b.Label(),
		Salt:  quantity.Mass(mid) * one.Meat,
		Place: salt.Dissolved,
		Stays: quantity.Exactly(1.0),
	}
	out.Mass = out.Salt
	if b.Recipe != nil && b.Salt == 0 {
		out.Off = b.Recipe.Off
	}
	for _, s := range b.With {
		out.Left = append(out.Left, s.Mix)
	}
	if mid > 0 {
		low, high := took(1-salt.DiffusivitySpread)/mid, took(1+salt.DiffusivitySpread)/mid
		out.Off = offs(out.Off, (high-low)/2)
	}
	return out
}

// Amount implements Source: the strength, % by weight.
func (b Bath) Amount(on Target) trace.Figure {
	return trace.Exact("amount.strength", b.Brew(on).Percent())
}

// Uses implements Source.
func (b Bath) Uses(on Target) []Use {
	w := b.Brew(on)
	out := []Use{{Salt: max(0, w.Salt-w.Brings), For: b.ID()}}
	for i, s := range b.With {
		out = append(out, Use{Formula: s.Formula, Mix: s.Mix, Mass: w.Parts[i], For: b.ID()})
	}
	return out
}

// WithAmount implements Source.
func (b Bath) WithAmount(kg float64) Source {
	b.Salt = quantity.Mass(max(kg, 1e-12))
	return b
}

// Check implements Source.
func (b Bath) Check(on Target) field.Errors {
	var errs field.Errors
	w := b.Brew(on)
	ml := w.Liquid.ML()
	room := ml
	for i, s := range b.With {
		at := "/with/" + strconv.Itoa(i) + "/amount"
		if s.watery() {
			room -= w.Parts[i].Grams() / s.Mix.GramsPerML
		}
		if room < -1e-6*ml || w.Parts[i].Grams() > 2*ml {
			errs.Add(at, "bath.more-than-liquid")
			return errs
		}
	}
	switch {
	case w.Water <= 0:
		errs.Add("/with", "bath.no-water")
	case w.Brings > w.Salt*1.0001:
		errs.Add("/with", "bath.too-salty-already", "brings", w.Brings, "wanted", w.Salt)
	case b.Salt == 0 && b.Recipe != nil && w.Percent() > MaxStrength:
		errs.Add("/salt", "bath.cannot-hold", "most", MaxStrength)
	case b.Salt > 0 && w.Percent() > MaxStrength:
		errs.Add("/strength", "bath.cannot-hold", "most", MaxStrength)
	}
	return errs
}

// leaves implements Source: the salt lies as it came in, when that was by the same path.
func (b Bath) leaves(on Target, path cut.Path, stays float64) salt.Before {
	if on.Path != path {
		return salt.Even(stays)
	}
	return b.Brew(on).One(on).After(b.Soaks(on), 1).Left()
}

// adds implements Source: nitrite of meat and pickle together. Phosphate is taken to go in with the salt.
func (b Bath) adds(on Target, one Brought) added {
	w := b.Brew(on)
	curing, phosphates := 0.0, 0.0
	for n, with := range b.With {
		curing += w.Parts[n].KG() * with.Mix.Per100g.Nitrite / 100
		phosphates += w.Parts[n].KG() * with.Mix.Per100g.Phosphate / 100
	}
	out := added{nitritePPM: 1e6 * curing / (on.Meat.Green.KG()*float64(on.Count) + (w.Water + w.Salt).KG())}
	if w.Salt > 0 {
		out.phosphate = phosphates * float64(one.Salt/w.Salt)
	}
	return out
}
