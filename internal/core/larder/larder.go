// Package larder knows the ingredients: what a spoon of each weighs in the form
// it is bought or ground in, and what it is made of.
//
// The data is embedded: ingredients.csv (composition per 100 g, allergens),
// forms.csv (grams in a US teaspoon of 4.929 mL, its spread, particle size),
// counts.csv (what an onion, a clove or a cube weighs) and
// supplies.csv (fuel, wraps and wood, which have a price, too).
// Values are typical ones of public food-composition tables; a salt's and a
// spice's own packet may differ, which is what the spread stands for.
//
//	salt, ok := larder.Find("kosher-salt")
//	flake, ok := salt.Form("hollow flake")
//	flake.GramsPerML * quantity.USSpoons.Teaspoon().ML()   // g a teaspoon
package larder

import (
	"embed"
	"slices"
	"strings"

	"verjuice/internal/core/quantity"
	"verjuice/internal/core/table"
)

//go:embed ingredients.csv forms.csv supplies.csv counts.csv
var data embed.FS

// SaltPerSodium is the mass of NaCl holding one gram of sodium: 58.44/22.99.
const SaltPerSodium = 2.542

// Composition is grams per 100 g of an ingredient. Salt is the NaCl equivalent
// (sodium × 2.542); acid is counted as acetic or citric acid.
type Composition struct {
	Salt      float64 `json:"salt"`
	Sugar     float64 `json:"sugar"`
	Fat       float64 `json:"fat"`
	Water     float64 `json:"water"`
	Acid      float64 `json:"acid"`
	Nitrite   float64 `json:"nitrite"`
	Phosphate float64 `json:"phosphate"`
	Starch    float64 `json:"starch"`
}

// Form is a grind, crystal or state of an ingredient.
type Form struct {
	Name          string  `json:"name" example:"coarse"`
	GramsPerML    float64 `json:"grams_per_ml" doc:"Bulk density in g/mL"`
	SpreadPercent float64 `json:"spread_percent" doc:"How far the density of packets differs, ± % of it"`
	ParticleMM    float64 `json:"particle_mm" doc:"Typical particle size in mm; 0 for liquids and fats"`
}

// Ingredient is one ingredient, in one or more forms.
type Ingredient struct {
	ID        string      `json:"id" example:"black-pepper"`
	Name      string      `json:"name" example:"black pepper"`
	Kind      string      `json:"kind" enum:"salt,cure,pepper,spice,herb,sugar,starch,acid,liquid,fat"`
	Per100g   Composition `json:"per_100g"`
	Allergens []string    `json:"allergens" nullable:"false"`
	Forms     []Form      `json:"forms" nullable:"false"`
	SaltOff   float64     `json:"salt_off,omitempty" required:"false" doc:"How far its salt may be off, as a share of it, where nobody read a label"`
	Also      []string    `json:"also,omitempty" required:"false" doc:"Other names that it goes by"`
	// What a bottle, can or packet of it holds in this kitchen; nothing where nobody has said.
	Pack quantity.Amount `json:"-"`
}

// Form returns the form of that name; the empty name means the first.
func (i Ingredient) Form(name string) (Form, bool) {
	if name == "" {
		return i.Forms[0], true
	}
	for _, f := range i.Forms {
		if f.Name == name {
			return f, true
		}
	}
	return Form{}, false
}

// Dissolves reports whether water dissolves it: salt, sugar, dry acid, a stock cube and a
// phosphate leave no grains; the seed in celery salt does.
func (i Ingredient) Dissolves() bool {
	switch i.Kind {
	case "sugar", "acid", "cure":
		return true
	case "salt":
		return i.Per100g.Salt > 90 || strings.HasPrefix(i.ID, "stock-cube")
	}
	return false
}

var (
	all  []Ingredient
	byID map[string]Ingredient
)

// All returns every ingredient, in the order of the table. The slice is the
// caller's; the ingredients in it are shared and not to be changed.
func All() []Ingredient { return slices.Clone(all) }

// Find returns the ingredient with that id.
func Find(id string) (Ingredient, bool) {
	i, ok := byID[id]
	return i, ok
}

func init() {
	byID = map[string]Ingredient{}
	forms := map[string][]Form{}
	teaspoon := quantity.USSpoons.Teaspoon().ML()
	for _, r := range table.Read(data, "forms.csv") {
		forms[r["ingredient"]] = append(forms[r["ingredient"]], Form{
			Name: r["form"], GramsPerML: r.Num("g_per_tsp") / teaspoon,
			SpreadPercent: r.Num("spread_percent"), ParticleMM: r.Num("particle_mm"),
		})
	}
	for _, r := range table.Read(data, "ingredients.csv") {
		i := Ingredient{
			ID: r["id"], Name: r["name"], Kind: r["kind"], Forms: forms[r["id"]],
			Per100g: Composition{
				Salt: r.Num("salt"), Sugar: r.Num("sugar"), Fat: r.Num("fat"), Water: r.Num("water"),
				Acid: r.Num("acid"), Nitrite: r.Num("nitrite"), Phosphate: r.Num("phosphate"), Starch: r.Num("starch"),
			},
			Allergens: []string{},
		}
		if r["other_names"] != "" {
			i.Also = strings.Split(r["other_names"], ";")
		}
		if r["allergens"] != "" {
			i.Allergens = strings.Split(r["allergens"], ";")
		}
		all = append(all, i)
		byID[i.ID] = i
	}
	one := unread(unreadID, "bought rub, label not read", Form{Name: "as bought", GramsPerML: 2.6 / teaspoon,
		SpreadPercent: 25, ParticleMM: 0.5})
	one.Also = []string{"shop rub", "store-bought rub", "shop-bought rub", "ready rub", "seasoning mix", "packet rub"}
	all, byID[unreadID] = append(all, one), one
}
