package formula_test

import (
	"fmt"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
)

// Salt and pepper by the spoon, weighed out for a batch of 100 g.
func ExampleBlend() {
	mix, errs := formula.Blend(formula.Formula{Name: "One to one", Basis: formula.ByVolume, Rows: []formula.Row{
		{Ingredient: "kosher-salt", Form: "dense flake", Parts: "1"},
		{Ingredient: "black-pepper", Form: "coarse", Parts: "1"},
	}}, nil)
	if len(errs) > 0 {
		panic(errs)
	}
	for _, row := range mix.Weigh(100 * quantity.Gram) {
		fmt.Printf("%.1f g %s\n", row.Mass.Grams(), row.Ingredient.Name)
	}
	fmt.Printf("%.0f %% salt\n", 100*mix.SaltShare())
	// Output:
	// 69.6 g kosher salt
	// 30.4 g black pepper
	// 69 % salt
}
