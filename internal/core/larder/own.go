package larder

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Own is an ingredient of the cook's own, as typed: a shop-bought rub read off its
// label, a spice that is not in the larder. Empty shares mean none.
type Own struct {
	Name      string   `json:"name" example:"The red jar"`
	Kind      string   `json:"kind" required:"false" doc:"salt, cure, pepper, spice, herb, sugar, starch, acid, liquid, fat or rub (a mix from a shop: without its salt it counts as usual); empty means spice"`
	Grind     string   `json:"grind" required:"false" doc:"powder, medium or coarse; empty means powder; nothing for liquids and fats"`
	Teaspoon  string   `json:"teaspoon" required:"false" doc:"What a level US teaspoon weighs; empty means the usual of its kind" example:"2.4 g"`
	Salt      string   `json:"salt" required:"false" doc:"% by weight"`
	Sugar     string   `json:"sugar" required:"false" doc:"% by weight"`
	Fat       string   `json:"fat" required:"false" doc:"% by weight"`
	Water     string   `json:"water" required:"false" doc:"% by weight"`
	Nitrite   string   `json:"nitrite" required:"false" doc:"% by weight, for a curing salt"`
	Phosphate string   `json:"phosphate" required:"false" doc:"% by weight"`
	Allergens []string `json:"allergens" required:"false" nullable:"false"`
}

// Kinds are the kinds of ingredient.
var Kinds = []string{"salt", "cure", "pepper", "spice", "herb", "sugar", "starch", "acid", "liquid", "fat"}

// boughtMix is the kind of a mix from a shop.
const boughtMix = "rub"

// usualTeaspoon is what a teaspoon of each kind weighs when it is not given, g.
var usualTeaspoon = map[string]float64{
	"salt": 5, "cure": 5.6, "pepper": 2.2, "spice": 2.3, "herb": 1.1, "sugar": 4, "starch": 2.7, "acid": 4.5,
	"liquid": 5.1, "fat": 4.5,
}

var grinds = map[string]float64{"": 0.3, "powder": 0.3, "medium": 0.7, "coarse": 1.2}

// Ingredient is o as the larder knows ingredients, under the given id. Mistakes
// come back with pointers into o.
func (o Own) Ingredient(id string) (Ingredient, field.Errors) {
	var errs field.Errors
	name := strings.TrimSpace(o.Name)
	if name == "" || utf8.RuneCountInString(o.Name) > 80 {
		errs.Add("/name", "name.needed", "most", 80)
	}
	kind := o.Kind
	if kind == "" {
		kind = "spice"
	}
	bought := kind == boughtMix
	if bought {
		kind = "spice"
	}
	if !slices.Contains(Kinds, kind) {
		errs.Add("/kind", "choice.unknown", "choices", append(slices.Clone(Kinds), boughtMix))
	}
	share := func(pointer, typed string) float64 {
		if strings.TrimSpace(typed) == "" {
			return 0
		}
		p, err := quantity.ParsePercent(typed)
		if !errs.Take(pointer, err) && p > 100 {
			errs.Add(pointer, "percent.range", "low", 0.0, "high", 100.0)
		}
		return float64(p)
	}
	c := Composition{
		Salt:      share("/salt", o.Salt),
		Sugar:     share("/sugar", o.Sugar),
		Fat:       share("/fat", o.Fat),
		Water:     share("/water", o.Water),
		Nitrite:   share("/nitrite", o.Nitrite),
		Phosphate: share("/phosphate", o.Phosphate),
	}
	if sum := c.Salt + c.Sugar + c.Fat + c.Water + c.Nitrite; len(errs) == 0 && sum > 100.5 {
		errs.Add("/salt", "ingredient.adds-up", "percent", math.Round(sum))
	}
	grams := usualTeaspoon[kind]
	spread := 25.0
	if strings.TrimSpace(o.Teaspoon) != "" {
		m, err := quantity.ParseMass(o.Teaspoon)
		if !errs.Take("/teaspoon", err) && (m.Grams() < 0.2 || m.Grams() > 12) {
			errs.Add("/teaspoon", "ingredient.teaspoon")
		}
		grams, spread = m.Grams(), 10
	}
	form := Form{Name: "as bought", GramsPerML: grams / quantity.USSpoons.Teaspoon().ML(), SpreadPercent: spread}
	if kind != "liquid" && kind != "fat" {
		mm, ok := grinds[o.Grind]
		if !ok {
			errs.Add("/grind", "choice.unknown", "choices", []string{"powder", "medium", "coarse"})
		}
		form.ParticleMM = mm
	}
	allergens := []string{}
	for i, a := range o.Allergens {
		if a = strings.ToLower(strings.TrimSpace(a)); a == "" || len(a) > 30 {
			errs.Add(fmt.Sprintf("/allergens/%d", i), "ingredient.allergen")
		}
		allergens = append(allergens, a)
	}
	if len(allergens) > 20 {
		errs.Add("/allergens", "list.too-long", "most", 20)
	}
	if bought && strings.TrimSpace(o.Salt) == "" {
		one := unread(id, name, form)
		if one.Allergens = allergens; len(allergens) == 0 {
			one.Allergens = []string{"what its label says"}
		}
		return one, errs
	}
	return Ingredient{ID: id, Name: name, Kind: kind, Per100g: c, Allergens: allergens, Forms: []Form{form}}, errs
}
