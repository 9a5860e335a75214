package larder

import (
	"slices"

	"verjuice/internal/core/table"
)

// Kinds of what a cook needs besides food.
const (
	Fuel = "fuel"
	Wrap = "wrap" // from a roll: it is priced by its length
	Wood = "wood" // in chunks, for smoke
)

// Supply is something for the fire or the wrap.
type Supply struct {
	ID         string  `json:"id" example:"charcoal"`
	Name       string  `json:"name"`
	Kind       string  `json:"kind" enum:"fuel,wrap,wood"`
	GramsPerML float64 `json:"grams_per_ml" doc:"Heaped, about; 0 for a wrap"`
}

var supplies []Supply

func init() {
	for _, r := range table.Read(data, "supplies.csv") {
		supplies = append(supplies, Supply{r["id"], r["name"], r["kind"], r.Num("per_ml")})
	}
}

// Supplies are all of them, by kind.
func Supplies() []Supply { return slices.Clone(supplies) }

// FindSupply returns the supply with that id.
func FindSupply(id string) (Supply, bool) {
	i := slices.IndexFunc(supplies, func(s Supply) bool { return s.ID == id })
	if i < 0 {
		return Supply{}, false
	}
	return supplies[i], true
}
