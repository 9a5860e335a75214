package dose

import (
	"maps"
	"slices"
	"strconv"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// stays is how much of a layer's salt ends on the plate with the meat, by where it
// goes: what runs into the pan or the fire is lost. Field judgement, told as a range.
// A base layer is under the rub and waits with it.
var stays = map[string]salt.Share{
	"dusting": quantity.Between(0.70, 0.90), // a second dose of rub before the fire
	"binder":  quantity.Between(0.50, 0.90),
	"spritz":  quantity.Between(0.20, 0.60),
	"wrap":    quantity.Between(0.30, 0.70), // the rest is in the juices
	"glaze":   quantity.Between(0.70, 0.95),
	"finish":  quantity.Between(0.95, 1.00),
	"juices":  quantity.Between(0.80, 1.00), // back on the slices
	"base":    {},
}

// Kinds are the kinds of layer, in the order they go on.
var Kinds = []string{"base", "binder", "dusting", "spritz", "wrap", "glaze", "finish", "juices"}

// IsKind reports whether there is a layer of that kind.
func IsKind(kind string) bool { return slices.Contains(slices.Collect(maps.Keys(stays)), kind) }

// Layer is one more dose on a piece, besides its rub: as thick as a coat, or as much as
// was said.
type Layer struct {
	plain
	At      ID
	Kind    string          // of Kinds
	Formula formula.Formula // as typed
	Mix     formula.Mix
	Said    Said
	CoatML  float64 // mL/dm² of its coat
}

// LayerID is the id of the layer numbered i.
func LayerID(i int) ID { return ID("layer-" + strconv.Itoa(i)) }

// ID implements Source.
func (l Layer) ID() ID { return l.At }

// Label implements Source.
func (l Layer) Label() Label {
	if l.Formula.Name == "" {
		return Label{l.At, l.Kind}
	}
	return Label{l.At, l.Formula.Name}
}

// On implements Source.
func (l Layer) On(on Target) Brought {
	m, off := l.Said.One(on), l.Said.Off
	if l.CoatML > 0 {
		m, off = l.Mix.CoatMass(l.CoatML, on.Area), formula.CoatSpread
	}
	b := Brought{
		Label: l.Label(),
		Mass:  m,
		Salt:  m * quantity.Mass(l.Mix.SaltShare()),
		Off:   off,
		Stays: stays[l.Kind],
		Place: salt.Surface,
		Mix:   l.Mix,
	}
	if l.Kind == "base" {
		b.Stays = formula.Stays(on.Wait)
	}
	return b
}

// Amount implements Source.
func (l Layer) Amount(on Target) trace.Figure {
	return trace.Exact("amount.on-meat", l.On(on).Mass.KG())
}

// Uses implements Source.
func (l Layer) Uses(on Target) []Use {
	return []Use{{Formula: l.Formula, Mix: l.Mix, Mass: l.On(on).Mass * quantity.Mass(on.Count), For: l.At}}
}

// WithAmount implements Source.
func (l Layer) WithAmount(kg float64) Source {
	l.Said, l.CoatML = Said{Each: quantity.Mass(kg)}, 0
	return l
}

// Check implements Source.
func (l Layer) Check(on Target) field.Errors {
	var errs field.Errors
	if m := l.On(on).Mass; m > on.Meat.Green {
		errs.Add("/amount", "dose.more-than-meat", "mass", m, "source", l.Label())
	}
	return errs
}

// waits implements Source: what goes on later than the rub is not there yet.
func (l Layer) waits() bool { return l.Kind == "base" || l.Kind == "binder" }
