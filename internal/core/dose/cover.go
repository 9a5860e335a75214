package dose

import "verjuice/internal/core/formula"

// baconFilm is how thick slices of bacon lie on a piece that is covered in them, mL/dm²: two millimetres, lapped over
// each other. Field judgement.
const baconFilm = 24.0

// BaconCover is the bacon of a piece that is covered in it: it brings salt and fat.
func BaconCover() Layer {
	f := formula.Formula{
		Name:  "bacon cover",
		Basis: formula.ByWeight,
		Rows:  []formula.Row{{Ingredient: "bacon", Form: "sliced", Parts: "1"}},
	}
	mix, wrong := formula.Blend(f, nil)
	if len(wrong) > 0 {
		panic("dose: " + wrong.Error()) // the larder ships with it
	}
	return Layer{At: "cover", Kind: "wrap", Formula: f, Mix: mix, CoatML: baconFilm}
}
