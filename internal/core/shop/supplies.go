package shop

import (
	"cmp"
	"slices"
	"time"

	"verjuice/internal/core/gear"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// Burning is a pit in use.
type Burning struct {
	Pit  int           // its number
	Kind string        // id of its kind
	For  time.Duration // from lighting to the last piece off
	Hard float64       // what the weather takes more, as a factor; zero is calm and mild
	Mass quantity.Mass // what was weighed to have burnt; zero when nothing was
}

// Supply is something for the fire or the wrap.
type Supply struct {
	ID     string        // of a fuel, a wood or a wrap
	Mass   quantity.Mass // of a fuel, that is burnt
	Sheets int           // of a wrap
	Chunks int           // of wood
}

// spare is how much more fuel is bought than is thought to be burnt: a quarter.
const spare = 1.25

// ToBuy is how much of a fuel to have on hand.
func (s Supply) ToBuy() quantity.Mass { return spare * s.Mass }

func (s Supply) perML() float64 {
	known, _ := larder.FindSupply(s.ID)
	return known.GramsPerML
}

// A sheet is an arm long; a chunk of the size of a fist is about so heavy. Kitchen measures.
const sheetM, chunkG = 0.75, 90

// Wrapped is a line of pieces that is wrapped, and over which wood.
type Wrapped struct {
	Wrap  string      // none, or a wrap
	Wood  string      // none, mixed, or a wood
	Woods []gear.Wood // of mixed
	Count int
	Mass  quantity.Mass // of one
}

// sheetsFor is how many sheets of an arm's length wrap one piece.
func sheetsFor(m quantity.Mass) int {
	if m > 1 {
		return 2
	}
	return 1
}

// smokes is how many chunks of wood smoke what is on. Field experience.
const smokes = 3

// Supplies are what a cook uses up besides food: fuel of the pits, wraps and wood. Pits that burn wood of
// their own take no chunks.
func Supplies(pits []Burning, lines []Wrapped) []Supply {
	sums := map[string]*Supply{}
	of := func(id string) *Supply {
		if sums[id] == nil {
			sums[id] = &Supply{ID: id}
		}
		return sums[id]
	}
	chunks := len(pits) == 0
	for _, p := range pits {
		pit, _ := gear.FindPit(p.Kind)
		if pit.Fuel != "" {
			of(pit.Fuel).Mass += cmp.Or(p.Mass, quantity.Mass(pit.FuelKG*p.For.Hours()*cmp.Or(p.Hard, 1)))
		}
		chunks = chunks || pit.Fuel == "charcoal" || pit.Fuel == "gas"
	}
	for _, l := range lines {
		if wrap, _ := gear.FindWrap(l.Wrap); wrap.Supply != "" {
			of(wrap.Supply).Sheets += l.Count * sheetsFor(l.Mass)
		}
		switch {
		case !chunks || l.Wood == "" || l.Wood == "none":
		case l.Wood == "mixed":
			for wood, n := range gear.Chunked(l.Woods, smokes) {
				of("wood-" + wood).Chunks = max(n, of("wood-"+wood).Chunks)
			}
		default:
			of("wood-" + l.Wood).Chunks = max(smokes, of("wood-"+l.Wood).Chunks)
		}
	}
	out := []Supply{}
	for _, s := range sums {
		out = append(out, *s)
	}
	slices.SortFunc(out, func(a, b Supply) int { return cmp.Compare(a.ID, b.ID) })
	return out
}
