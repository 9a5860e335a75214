package formula

import "slices"

// The formulas that ship with the program: the three schools of plain salt and
// pepper, and four of the house.
var house = []Formula{
	{
		ID: "equal-parts", Name: "Salt and pepper, 1 : 1", Basis: ByVolume,
		Note: "The plainest rub: as many spoons of pepper as of salt. By weight it is two parts salt to one of pepper.",
		Rows: []Row{{"kosher-salt", "dense flake", "1"}, {"black-pepper", "coarse", "1"}},
	},
	{
		ID: "pepper-forward", Name: "Pepper-forward, 3 : 2", Basis: ByVolume,
		Note: "Three spoons of pepper to two of salt. A little less salt in the same coat, more bark.",
		Rows: []Row{{"kosher-salt", "dense flake", "2"}, {"black-pepper", "coarse", "3"}},
	},
	{
		ID: "pepper-heavy", Name: "Pepper-heavy, 2 : 1", Basis: ByVolume,
		Note: "Two spoons of pepper to one of salt: about equal by weight. Room for a heavy coat on a big cut.",
		Rows: []Row{{"kosher-salt", "dense flake", "1"}, {"black-pepper", "coarse", "2"}},
	},
	{
		ID: "fennel-house", Name: "Fennel house rub", Basis: ByVolume,
		Note: "Savoury, for lamb and pork shoulders. No sugar, so it takes a hot pit.",
		Rows: []Row{
			{"kosher-salt", "dense flake", "4"}, {"black-pepper", "coarse", "3"}, {"garlic", "granulated", "2"},
			{"fennel-seed", "ground", "2"}, {"mustard", "powder", "1"}, {"rosemary", "dried leaf", "1"},
		},
	},
	{
		ID: "boathouse-sweet", Name: "Boathouse sweet rub", Basis: ByVolume,
		Note: "Led by brown sugar: dark and sweet on a loin or a rack, at a gentle pit.",
		Rows: []Row{
			{"brown-sugar", "loose", "4"}, {"paprika", "powder", "3"}, {"kosher-salt", "dense flake", "2"},
			{"mild-chilli", "powder", "1"}, {"garlic", "granulated", "1"}, {"onion", "granulated", "1"},
			{"cayenne", "powder", "1/4"},
		},
	},
	{
		ID: "juniper-coffee", Name: "Juniper and coffee rub", Basis: ByWeight,
		Note: "For venison and beef. Weighed, so the salt is the same whatever the crystal.",
		Rows: []Row{
			{"sea-salt", "fine", "30"}, {"black-pepper", "coarse", "20"}, {"coffee", "espresso grind", "20"},
			{"juniper", "crushed", "12"}, {"thyme", "dried leaf", "6"}, {"raw-sugar", "coarse crystals", "8"},
			{"allspice", "ground", "4"},
		},
	},
	{
		ID: "lemon-herb", Name: "Lemon and herb rub", Basis: ByWeight,
		Note: "For poultry: salt-led and free of sugar, so the skin dries instead of scorching.",
		Rows: []Row{
			{"kosher-salt", "dense flake", "55"}, {"black-pepper", "medium", "12"}, {"lemon-peel", "ground", "10"},
			{"garlic", "granulated", "10"}, {"thyme", "ground", "6"}, {"celery-seed", "ground", "4"}, {"paprika", "powder", "8"},
		},
	},
}

// House returns the formulas that ship with the program.
func House() []Formula {
	out := slices.Clone(house)
	for i := range out {
		out[i].Rows = slices.Clone(out[i].Rows)
	}
	return out
}
