package formula

import (
	"slices"
	"strings"
	"unicode"

	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// Lookup finds what a cook has besides what ships with the program: formulas and
// ingredients of their own. A kitchen.Kitchen is one; nil finds nothing.
type Lookup interface {
	OwnFormula(id string) (Formula, bool)
	OwnIngredient(id string) (larder.Ingredient, bool)
	// Pack is what a bottle, can or packet of an ingredient holds; nothing where nobody has said.
	Pack(id string) quantity.Amount
}

// Find returns the formula of that id, a ready-made or one of the cook's own.
func Find(id string, own Lookup) (Formula, bool) {
	if f, ok := readyMadeByID[id]; ok || own == nil {
		return f, ok
	}
	return own.OwnFormula(id)
}

// FindIngredient returns the ingredient of that id, the larder's or the cook's own.
func FindIngredient(id string, own Lookup) (larder.Ingredient, bool) {
	i, ok := larder.Find(id)
	if own == nil {
		return i, ok
	}
	if !ok {
		i, ok = own.OwnIngredient(id)
	}
	i.Pack = own.Pack(id)
	return i, ok
}

// RowName is what a row's ingredient or formula is called; empty when it is gone.
func RowName(r Row, own Lookup) string {
	if r.Formula == "" {
		i, _ := FindIngredient(r.Ingredient, own)
		return i.Name
	}
	f, _ := Find(r.Formula, own)
	return f.Name
}

// SameMix reports whether f and g are the same mix: the same rows in the same
// measures, whatever they are called. Whose spoons are meant makes a difference only
// to rows that name a measure.
func (f Formula) SameMix(g Formula) bool {
	measured := slices.ContainsFunc(f.Rows, func(r Row) bool { return strings.ContainsFunc(r.Parts, unicode.IsLetter) })
	return f.Basis == g.Basis && (!measured || (f.Spoons == "metric") == (g.Spoons == "metric")) &&
		slices.EqualFunc(f.Rows, g.Rows, func(a, b Row) bool {
			a.Parts, b.Parts = strings.TrimSpace(a.Parts), strings.TrimSpace(b.Parts)
			return a == b
		})
}

// Uses are the ids of the formulas that f's rows use, without those that ship with
// the program.
func (f Formula) Uses() []string {
	var out []string
	for _, r := range f.Rows {
		if _, shipped := readyMadeByID[r.Formula]; r.Formula != "" && !shipped {
			out = append(out, r.Formula)
		}
	}
	return out
}

// Packs are what bottles, cans and packets hold by f's rows, by the id of their ingredient.
func (f Formula) Packs() map[string]string {
	out := map[string]string{}
	for _, r := range f.Rows {
		if size := larder.PackSaid(r.Parts); size != "" && r.Ingredient != "" {
			out[r.Ingredient] = size
		}
	}
	return out
}

// Leaves are the ingredients of m with those of formulas inside it laid open, in
// the order they come: each once, with its share of the whole by weight.
func (m Mix) Leaves() []Component {
	var out []Component
	place := map[string]int{}
	m.leaves(1, func(c Component) {
		key := c.Ingredient.ID + "|" + c.Form.Name
		if i, seen := place[key]; seen {
			out[i].WeightShare += c.WeightShare
			return
		}
		place[key] = len(out)
		out = append(out, c)
	})
	return out
}

func (m Mix) leaves(share float64, take func(Component)) {
	for _, c := range m.Components {
		if c.inner != nil {
			c.inner.leaves(share*c.WeightShare, take)
			continue
		}
		c.WeightShare *= share
		take(c)
	}
}
