package dose

import "verjuice/internal/core/formula"

// binderFilm is how thick a binder is brushed on, mL/dm²: a tablespoon on a pork
// shoulder. Field judgement.
const binderFilm = 1.0

// UsualBinder is what a ticked binder is when the cook names none: a film of prepared
// mustard, which brings salt, and mustard to the allergens.
func UsualBinder() Layer {
	f := formula.Formula{
		Name:  "prepared mustard",
		Basis: formula.ByWeight,
		Rows:  []formula.Row{{Ingredient: "prepared-mustard", Parts: "1"}},
	}
	mix, wrong := formula.Blend(f, nil)
	if len(wrong) > 0 {
		panic("dose: " + wrong.Error()) // the larder ships with it
	}
	return Layer{At: "binder", Kind: "binder", Formula: f, Mix: mix, CoatML: binderFilm}
}
