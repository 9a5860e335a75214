package dose

import (
	"math"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// Rub is a dry mix on the coated surface: as thick as a coat, or in the amount that
// was worked out for a target.
type Rub struct {
	Formula formula.Formula // as typed
	Mix     formula.Mix
	Coat    formula.Coat
	Holds   float64       // of a coat, what the surface holds: 1, more with a binder
	Solved  bool          // Mass is worked out; else the coat decides
	Mass    quantity.Mass // on one piece, when Solved
	Spare   float64       // mixed over what is needed, as a share of it
	Scale   []float64     // g of each row that were really weighed, for all pieces; nil until then
}

// ID implements Source.
func (Rub) ID() ID { return "rub" }

// Label implements Source.
func (r Rub) Label() Label { return Label{r.ID(), r.Formula.Name} }

// Planned is the mass that is meant to lie on one piece.
func (r Rub) Planned(on Target) quantity.Mass {
	if r.Solved {
		return r.Mass
	}
	return r.Mix.CoatMass(r.Coat.MLPerDM2*r.Holds, on.Area)
}

// On implements Source. A coat judged by eye varies by formula.CoatSpread, one that
// was weighed for a target does not.
func (r Rub) On(on Target) Brought {
	m := r.Planned(on)
	return Brought{
		Label: r.Label(), Mass: m, Salt: m * quantity.Mass(r.Mix.SaltShare()), Stays: r.stays(on), Place: salt.Surface, Mix: r.Mix,
	}
}

func (r Rub) stays(on Target) salt.Share {
	s := formula.Stays(on.Wait)
	if r.Solved {
		return s
	}
	return salt.Share{
		Low: s.Mid * (1 - math.Hypot(formula.CoatSpread, 1-s.Low/s.Mid)),
		Mid: s.Mid, High: s.Mid * (1 + math.Hypot(formula.CoatSpread, s.High/s.Mid-1)),
	}
}

// Spread is how far the amount may be off, as a share of it.
func (r Rub) Spread() float64 {
	if r.Solved {
		return 0
	}
	return formula.CoatSpread
}

// ToMix is what has to be mixed so that planned lies on each of n pieces: with what
// falls off while sprinkling, and the spare.
func (r Rub) ToMix(planned quantity.Mass, n int) quantity.Mass {
	return planned * quantity.Mass(float64(n)*(1+r.Spare)/(1-formula.SprinkleLoss))
}

// asMeasured is what was really weighed: as much more or less than planned, with the
// salt that is really in it.
func (r Rub) asMeasured(on Target) (Brought, bool) {
	b := r.On(on)
	if r.Scale == nil {
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
	return []Use{{Formula: r.Formula, Mix: r.Mix, Mass: r.ToMix(r.Planned(on), on.Count), For: r.ID()}}
}

// WithAmount implements Source.
func (r Rub) WithAmount(kg float64) Source {
	r.Solved, r.Mass = true, quantity.Mass(kg)
	return r
}

// Check implements Source. More than a surface holds is not refused: the sheet says
// that it falls off.
func (r Rub) Check(Target) field.Errors { return nil }
