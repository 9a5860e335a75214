package cut

import (
	"math"
	"time"

	"verjuice/internal/core/quantity"
	"verjuice/internal/core/table"
)

// Family says how a cut is judged done.
type Family string

// The families of doneness.
const (
	Pink     Family = "pink"     // tender muscle, cooked to a finish and sliced
	Collagen Family = "collagen" // cooked far past done until a probe slides in
	Rack     Family = "rack"     // judged by bend and bone
	Poultry  Family = "poultry"  // 74 °C in the thickest place
	Whole    Family = "whole"    // several muscles at once
	Ground   Family = "ground"   // links and loaves
)

// Custom is how a family of cuts is handled after the fire, and how long it keeps
// raw: field experience in round numbers, but for Raw (USDA FSIS cold storage chart,
// its lower figures), kept in families.csv.
type Custom struct {
	Hold      map[string]time.Duration // how long a thick piece keeps well, by where it rests
	LeastRest time.Duration            // the shortest rest it should have
	Rest      string                   // where it usually rests
	Slicing   time.Duration            // hands for one of them
	Slice     string                   // how it is usually served
	Keeps     bool                     // it may be cooked the day before
	Raw       time.Duration            // salted and raw at 4 °C
}

var customs = func() map[Family]Custom {
	out := map[Family]Custom{}
	for _, r := range table.Read(data, "families.csv") {
		minutes := func(column string) time.Duration { return time.Duration(r.Num(column)) * time.Minute }
		hold := map[string]time.Duration{}
		for _, place := range Rests {
			hold[place] = minutes("hold_" + place)
		}
		out[Family(r["family"])] = Custom{
			Hold: hold, LeastRest: minutes("least_rest"), Rest: r["rest"], Slicing: minutes("slice_min"), Slice: r["slice"],
			Keeps: r["keeps"] == "yes", Raw: time.Duration(r.Num("raw_hours")) * time.Hour,
		}
	}
	return out
}()

// Rests are the places where meat rests.
var Rests = []string{"counter", "wrapped", "board", "tray", "cooler", "oven", "pit", "pit-cooler", "holder"}

// Custom returns how c is handled, with its finish.
func (c Cut) Custom() Custom {
	out := customs[c.Family]
	switch c.Finish {
	case PinkSliced, Sliced, Bones:
		out.Slice = "sliced"
	case Pulled:
		out.Slice = "pulled"
	case AsIs:
		out.Slice = "whole"
	}
	return out
}

// holdThickness is the thickness that the holds of families.csv are for.
const holdThickness = 65 * quantity.MM

// HoldsIn is how long a piece of that thickness keeps well, and above 60 °C, where it
// rests: a thick one longer, except in a holder, which keeps any.
func (c Cut) HoldsIn(place string, thickness quantity.Length) time.Duration {
	hold := c.Custom().Hold[place]
	if place == "holder" {
		return hold
	}
	scale := min(1.5, max(0.6, math.Pow(float64(thickness/holdThickness), 1.2)))
	return time.Duration(float64(hold) * scale).Round(5 * time.Minute)
}

// Thawing is the time in the fridge that a piece of mass m takes: 24 h for 2.2 kg
// (5 lb), and never less than a night (USDA FSIS).
func Thawing(m quantity.Mass) time.Duration {
	return max(8*time.Hour, time.Duration(m.KG()/2.2*24*float64(time.Hour)).Round(time.Hour))
}
