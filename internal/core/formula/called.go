package formula

import (
	"slices"
	"strings"

	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// Called is f with a name that fits what is in it: one whose rows were changed since it was taken from a formula is not
// called as that one was, and one ingredient is not called as another. A name that the cook gave stays.
func Called(f Formula, own Lookup) Formula {
	if f.Name == "" || len(f.Rows) == 0 {
		return f
	}
	from, known := Find(f.ID, own)
	switch {
	case known && (from.Name != f.Name || from.SameMix(f)):
	case known:
		f.Name, f.Note = changed(from, f), ""
	case !named(f.Name, f.Rows[0], own) && slices.ContainsFunc(larder.All(),
		func(i larder.Ingredient) bool { return i.Name == f.Name }):
		if one, ok := FindIngredient(f.Rows[0].Ingredient, own); ok {
			f.Name = one.Name
		}
	}
	if len(f.Rows) > 1 && named(f.Name, f.Rows[0], own) { // ready stock, with something in it now
		f.Name += " and more"
	}
	return f
}

// named reports whether a row is of the ingredient of that name.
func named(name string, r Row, own Lookup) bool {
	one, ok := FindIngredient(r.Ingredient, own)
	return ok && one.Name == name
}

// changed is what a mix is called that was made of another one: with its new ratio where the name told the old one.
func changed(from, f Formula) string {
	head, ratio, told := strings.Cut(from.Name, ", ")
	if !told || !strings.Contains(ratio, " : ") || len(f.Rows) != len(from.Rows) {
		return from.Name + ", changed"
	}
	var parts []string
	for i, r := range f.Rows {
		n, err := quantity.ParseParts(r.Parts)
		if err != nil || r.Ingredient != from.Rows[i].Ingredient {
			return from.Name + ", changed"
		}
		parts = append(parts, quantity.Number(n))
	}
	if first, _, _ := strings.Cut(ratio, " : "); first != strings.TrimSpace(from.Rows[0].Parts) {
		slices.Reverse(parts) // the name tells the last row first
	}
	return head + ", " + strings.Join(parts, " : ")
}
