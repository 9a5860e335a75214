package larder

// unreadID is the id of a rub from a shop whose label nobody read.
const unreadID = "bought-rub"

// What is usual of a rub from a shop while its label is not read: % by weight, and how far its salt may be off, as a
// share of it. Rubs sold for barbecue hold a seventh to two fifths salt (field judgement, as the ready-made formulas
// do).
const (
	unreadSalt, unreadSugar = 28, 25
	unreadOff               = 0.5
)

// unread is what a rub is taken to be whose label nobody read.
func unread(id, name string, form Form) Ingredient {
	return Ingredient{
		ID: id, Name: name, Kind: "spice", Per100g: Composition{Salt: unreadSalt, Sugar: unreadSugar, Fat: 4, Water: 4},
		Allergens: []string{"what its label says"}, Forms: []Form{form}, SaltOff: unreadOff,
	}
}
