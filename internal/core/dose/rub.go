package dose

import (
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// Rub is a dry mix on the coated surface: as thick as a coat, in the amount that the
// cook said, or in the one that was worked out for a target. One without rows is none.
type Rub struct {
	plain
	Formula formula.Formula // as typed
	Mix     formula.Mix
	Coat    formula.Coat
	Holds   float64       // of a coat, what the surface holds: 1, more with a binder
	Said    Said          // the amount that is sprinkled; else
	Solved  bool          // Mass is worked out; else the coat decides
	Mass    quantity.Mass // on one piece, when Solved
	Spare   float64       // mixed over what is needed, as a share of it
	Scale   []float64     // g of each row that were really weighed, for all pieces; nil until then
}

// ID implements Source.
func (Rub) ID() ID { return "rub" }

// Label implements Source.
func (r Rub) Label() Label { return Label{r.ID(), r.Formula.Name} }

// Nothing reports whether there is no rub.
func (r Rub) Nothing() bool { return len(r.Mix.Components) == 0 }

// saltAlone is the share of salt from which a mix is salt by itself, which hands
// sprinkle by its own habit.
const saltAlone = 0.9

// SaltByEye is how thick salt alone is sprinkled by eye, as a share of a rub's coat: a
// medium hand is about a teaspoon of fine salt a kilo, not a layer. Field judgement.
const SaltByEye = 0.2

// ByHabit reports whether the coat is of salt alone, judged by eye.
func (r Rub) ByHabit() bool { return !r.Solved && !r.Said.Given() && r.Mix.SaltShare() > saltAlone }

// Planned is the mass that is meant to lie on one piece.
func (r Rub) Planned(on Target) quantity.Mass {
	switch {
	case r.Solved:
		return r.Mass
	case r.Said.Given():
		return r.Said.One(on) * (1 - formula.SprinkleLoss)
	case r.ByHabit():
		return r.Mix.CoatMass(r.Coat.MLPerDM2*SaltByEye, on.Area)
	}
	return r.Mix.CoatMass(r.Coat.MLPerDM2*r.Holds, on.Area)
}

// On implements Source. A coat judged by eye varies by formula.CoatSpread, one that
// was weighed for a target does not.
func (r Rub) On(on Target) Brought {
	m := r.Planned(on)
	return Brought{
		Label: r.Label(), Mass: m, Salt: m * quantity.Mass(r.Mix.SaltShare()), Off: r.Spread(),
		Stays: formula.Stays(on.Wait), Place: salt.Surface, Mix: r.Mix,
	}
}

// Spread is how far what lies on the meat may be off, as a share of it.
func (r Rub) Spread() float64 {
	switch {
	case r.Scale != nil:
		return offs(ScaleOff, sprinkled)
	case r.Solved:
		return 0
	case r.Said.Given():
		return offs(r.Said.Off, sprinkled)
	}
	return formula.CoatSpread
}

// ToMix is what has to be mixed so that planned lies on each of n pieces: with what
// falls off while sprinkling, and the spare. Of an amount that the cook said there is no
// spare.
func (r Rub) ToMix(planned quantity.Mass, n int) quantity.Mass {
	spare := r.Spare
	if r.Said.Given() && !r.Solved {
		spare = 0
	}
	return planned * quantity.Mass(float64(n)*(1+spare)/(1-formula.SprinkleLoss))
}

// asMeasured is what was really weighed: as much more or less than planned, with the
// salt that is really in it.
func (r Rub) asMeasured(on Target) (Brought, bool) {
	b := r.On(on)
	if r.Scale == nil {
		return b, false
	}
	if r.Nothing() {
		return b, false
	}
	total, salty := 0.0, 0.0
	for i, g := range r.Scale {
		total += g
		salty += g * r.Mix.Components[i].Ingredient.Per100g.Salt / 100
	}
	b.Mass *= quantity.Mass(total / r.ToMix(b.Mass, on.Count).Grams())
	b.Salt = b.Mass * quantity.Mass(salty/total)
	return b, true
}

// Amount implements Source.
func (r Rub) Amount(on Target) trace.Figure {
	return trace.New("amount.on-meat", quantity.Within(r.Planned(on).KG(), r.Spread()))
}

// Uses implements Source.
func (r Rub) Uses(on Target) []Use {
	if r.Nothing() {
		return nil
	}
	return []Use{{Formula: r.Formula, Mix: r.Mix, Mass: r.ToMix(r.Planned(on), on.Count), For: r.ID()}}
}

// WithAmount implements Source.
func (r Rub) WithAmount(kg float64) Source {
	r.Solved, r.Mass, r.Said = true, quantity.Mass(kg), Said{}
	return r
}

// Check implements Source. More than a surface holds is not refused: the sheet says
// that it falls off.
func (r Rub) Check(on Target) field.Errors {
	var errs field.Errors
	if m := r.Planned(on); r.Said.Given() && m > on.Meat.Green {
		errs.Add("/amount", "dose.more-than-meat", "mass", m, "source", r.Label())
	}
	return errs
}
