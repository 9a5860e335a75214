package dose

import (
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// Own is the salt that is in the meat when it is bought, as in a sausage.
type Own struct {
	plain
	Percent float64 // of the boneless meat
}

// ID implements Source.
func (Own) ID() ID { return "meat" }

// Label implements Source.
func (o Own) Label() Label { return Label{ID: o.ID()} }

// On implements Source.
func (o Own) On(on Target) Brought {
	m := quantity.Mass(o.Percent/100) * on.Meat.Edible()
	return Brought{Label: o.Label(), Mass: m, Salt: m, Off: 0.15, Stays: quantity.Exactly(1.0), Place: salt.Dissolved}
}

// WithAmount implements Source: it is as it is.
func (o Own) WithAmount(float64) Source { return o }

// Amount implements Source.
func (o Own) Amount(on Target) trace.Figure { return trace.Exact("amount.on-meat", o.On(on).Mass.KG()) }

// Uses implements Source: nothing has to be on hand for it.
func (Own) Uses(Target) []Use { return nil }

// Check implements Source.
func (Own) Check(Target) field.Errors { return nil }
