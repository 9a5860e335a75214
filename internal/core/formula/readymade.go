package formula

import "slices"

// readyMade are the formulas that ship with the program: the three schools of plain
// salt and pepper, and four flavour rubs.
var readyMade = []Formula{
	{
		ID: "equal-parts", Name: "Salt and pepper, 1 : 1", Basis: ByVolume,
		Note: "The plainest rub: as many spoons of pepper as of salt. By weight it is two parts salt to one of pepper.",
		Rows: []Row{
			{Ingredient: "kosher-salt", Form: "dense flake", Parts: "1"},
			{Ingredient: "black-pepper", Form: "coarse", Parts: "1"},
		},
	},
	{
		ID: "pepper-forward", Name: "Pepper-forward, 3 : 2", Basis: ByVolume,
		Note: "Three spoons of pepper to two of salt. A little less salt in the same coat, more bark.",
		Rows: []Row{
			{Ingredient: "kosher-salt", Form: "dense flake", Parts: "2"},
			{Ingredient: "black-pepper", Form: "coarse", Parts: "3"},
		},
	},
	{
		ID: "pepper-heavy", Name: "Pepper-heavy, 2 : 1", Basis: ByVolume,
		Note: "Two spoons of pepper to one of salt: about equal by weight. Room for a heavy coat on a big cut.",
		Rows: []Row{
			{Ingredient: "kosher-salt", Form: "dense flake", Parts: "1"},
			{Ingredient: "black-pepper", Form: "coarse", Parts: "2"},
		},
	},
	{
		ID: "fennel-house", Name: "Fennel house rub", Basis: ByVolume,
		Note: "Savoury, for lamb and pork shoulders. No sugar, so it takes a hot pit.",
		Rows: []Row{
			{
				Ingredient: "kosher-salt",
				Form:       "dense flake",
				Parts:      "4",
			}, {Ingredient: "black-pepper", Form: "coarse", Parts: "3"}, {Ingredient: "garlic", Form: "granulated", Parts: "2"},
			{
				Ingredient: "fennel-seed",
				Form:       "ground",
				Parts:      "2",
			}, {Ingredient: "mustard", Form: "powder", Parts: "1"}, {Ingredient: "rosemary", Form: "dried leaf", Parts: "1"},
		},
	},
	{
		ID: "boathouse-sweet", Name: "Boathouse sweet rub", Basis: ByVolume,
		Note: "Led by brown sugar: dark and sweet on a loin or a rack, at a gentle pit.",
		Rows: []Row{
			{
				Ingredient: "brown-sugar",
				Form:       "loose",
				Parts:      "4",
			}, {Ingredient: "paprika", Form: "powder", Parts: "3"}, {Ingredient: "kosher-salt", Form: "dense flake", Parts: "2"},
			{
				Ingredient: "mild-chilli",
				Form:       "powder",
				Parts:      "1",
			}, {Ingredient: "garlic", Form: "granulated", Parts: "1"}, {Ingredient: "onion", Form: "granulated", Parts: "1"},
			{Ingredient: "cayenne", Form: "powder", Parts: "1/4"},
		},
	},
	{
		ID: "juniper-coffee", Name: "Juniper and coffee rub", Basis: ByWeight,
		Note: "For venison and beef. Weighed, so the salt is the same whatever the crystal.",
		Rows: []Row{
			{
				Ingredient: "sea-salt",
				Form:       "fine",
				Parts:      "30",
			}, {Ingredient: "black-pepper", Form: "coarse", Parts: "20"},
			{Ingredient: "coffee", Form: "espresso grind", Parts: "20"},
			{
				Ingredient: "juniper",
				Form:       "crushed",
				Parts:      "12",
			}, {Ingredient: "thyme", Form: "dried leaf", Parts: "6"}, {Ingredient: "raw-sugar", Form: "coarse crystals",
				Parts: "8"},
			{Ingredient: "allspice", Form: "ground", Parts: "4"},
		},
	},
	{
		ID: "lemon-herb", Name: "Lemon and herb rub", Basis: ByWeight,
		Note: "For poultry: salt-led and free of sugar, so the skin dries instead of scorching.",
		Rows: []Row{
			{
				Ingredient: "kosher-salt",
				Form:       "dense flake",
				Parts:      "55",
			}, {Ingredient: "black-pepper", Form: "medium", Parts: "12"},
			{Ingredient: "lemon-peel", Form: "ground", Parts: "10"},
			{
				Ingredient: "garlic",
				Form:       "granulated",
				Parts:      "10",
			}, {Ingredient: "thyme", Form: "ground", Parts: "6"}, {Ingredient: "celery-seed", Form: "ground", Parts: "4"},
			{Ingredient: "paprika", Form: "powder", Parts: "8"},
		},
	},
}

// readyMadeByID finds them by id.
var readyMadeByID = func() map[string]Formula {
	byID := map[string]Formula{}
	for _, f := range readyMade {
		byID[f.ID] = f
	}
	return byID
}()

// ReadyMade returns the formulas that ship with the program.
func ReadyMade() []Formula {
	out := slices.Clone(readyMade)
	for i := range out {
		out[i].Rows = slices.Clone(out[i].Rows)
	}
	return out
}

// FindReadyMade returns the formula of that id that ships with the program.
func FindReadyMade(id string) (Formula, bool) {
	f, ok := readyMadeByID[id]
	return f, ok
}
