// Package salt answers the question a cook cannot see: how much salt ends up in
// the meat, by every road it takes, and where in the meat it is when.
//
// Tally adds the sources of one piece up (the ledger); DryBrine follows a coat into
// the meat, Bath a wet brine, Injected the pockets of an injection.
//
//	course := salt.DryBrine(salt.Brine{Load: 0.3, Path: geometry.Path(false), Temperature: 4, Wait: 12 * time.Hour})
//	course.End.Depth.MM()   // mm that taste of salt
package salt

import (
	"math"
	"slices"

	"verjuice/internal/core/field"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// Share is a retained fraction with its likely range, 0 to 1.
type Share = quantity.Range[float64]

// Source is one road by which salt comes to a piece.
type Source struct {
	ID    string
	Salt  quantity.Mass // NaCl that reaches the piece
	Off   float64       // how far Salt may be off, as a share of it
	Stays Share         // of it that ends in the meat, at most 1
	Place Place
}

// Place is where a source's salt sits when it arrives.
type Place string

// The places.
const (
	Surface   Place = "surface"
	Pockets   Place = "pockets"
	Dissolved Place = "dissolved"
)

// Piece is what the ledger has to know of the meat.
type Piece struct {
	Green     quantity.Mass // raw, trimmed
	BoneShare float64       // inedible share of Green, 0 to 0.6
	Yield     Share         // served meat over raw boneless meat
}

// Edible is the raw boneless mass, by which cooks dose.
func (p Piece) Edible() quantity.Mass { return quantity.Mass(float64(p.Green) * (1 - p.BoneShare)) }

// Served is the mass on the plates.
func (p Piece) Served() quantity.Mass { return quantity.Mass(float64(p.Edible()) * p.Yield.Mid) }

// Ledger is the salt of one piece.
type Ledger struct {
	Lines        []Share // % of raw boneless meat, a source each
	PercentRaw   Share   // % of raw boneless meat
	PercentPlate Share   // % of served meat
}

// Tally adds up the salt of a piece: what stays of each source, as a share of
// the raw boneless meat and of the served meat. The spreads of different sources
// are independent, so they add as squares. The meat's own salt (0.1–0.2 %) is
// not counted. An error means that the piece weighs nothing.
func Tally(p Piece, sources []Source) (Ledger, error) {
	edible := float64(p.Edible())
	if edible <= 0 || p.Yield.Mid <= 0 {
		return Ledger{}, field.Because("salt.no-meat")
	}
	l := Ledger{Lines: make([]Share, len(sources))}
	down, up := 0.0, 0.0
	for i, s := range sources {
		per := 100 * float64(s.Salt) / edible
		line := s.share(per)
		l.Lines[i] = line
		l.PercentRaw.Mid += line.Mid
		down += (line.Mid - line.Low) * (line.Mid - line.Low)
		up += (line.High - line.Mid) * (line.High - line.Mid)
	}
	l.PercentRaw.Low = max(0, l.PercentRaw.Mid-math.Sqrt(down))
	l.PercentRaw.High = l.PercentRaw.Mid + math.Sqrt(up)
	l.PercentPlate = Share{
		Low: l.PercentRaw.Low / p.Yield.High, Mid: l.PercentRaw.Mid / p.Yield.Mid, High: l.PercentRaw.High / p.Yield.Low,
	}
	return l, nil
}

// Narrows is which of the sources would take most off the band of the salt if it were known so
// well, and by how much, in % points between its ends; below zero for none.
func Narrows(p Piece, sources []Source, off float64) (source int, less float64) {
	was, err := Tally(p, sources)
	if err != nil {
		return -1, 0
	}
	source = -1
	known := slices.Clone(sources)
	for i, s := range sources {
		if s.Off <= off {
			continue
		}
		known[i].Off = off
		if now, err := Tally(p, known); err == nil {
			if d := was.PercentRaw.High - was.PercentRaw.Low - (now.PercentRaw.High - now.PercentRaw.Low); d > less {
				source, less = i, d
			}
		}
		known[i] = s
	}
	return source, less
}

// share is what stays of a source, of which per is all. How far the amount is off and how
// much of it stays have nothing to do with one another.
func (s Source) share(per float64) Share {
	out := quantity.Times(s.Stays, per)
	if s.Off > 0 && s.Stays.Mid > 0 {
		out.Low = out.Mid * max(0, 1-math.Hypot(s.Off, 1-s.Stays.Low/s.Stays.Mid))
		out.High = out.Mid * (1 + math.Hypot(s.Off, s.Stays.High/s.Stays.Mid-1))
	}
	return out
}

// SodiumMG is the sodium in mg of a serving of the given mass of served meat,
// salted by plate percent.
func SodiumMG(platePercent float64, serving quantity.Mass) float64 {
	return platePercent / 100 * serving.Grams() / larder.SaltPerSodium * 1000
}

// Wanted is the salt that a piece is to hold, % of its raw boneless meat.
type Wanted = quantity.Percent

// Band is a range of salt that tastes a certain way.
type Band struct {
	Name string  `json:"name" enum:"flat,mild,seasoned,bold,cured,too salty"`
	Low  float64 `json:"low" doc:"% of raw boneless meat"`
	High float64 `json:"high" doc:"% of raw boneless meat"`
}

// Bands are the bands by % of raw boneless meat, upwards. A cook chooses one of
// the middle four.
var Bands = []Band{
	{"flat", 0, 0.5},
	{"mild", 0.5, 0.8},
	{"seasoned", 0.8, 1.3},
	{"bold", 1.3, 1.8},
	{"cured", 1.8, 2.5},
	{"too salty", 2.5, 4},
}

// BandOf returns the band that percent falls in, to the hundredth that is told.
func BandOf(percent float64) Band {
	percent = math.Round(percent*100) / 100 // as it is told
	for _, b := range Bands {
		if percent < b.High {
			return b
		}
	}
	return Bands[len(Bands)-1]
}

// FindBand returns the band of that name.
func FindBand(name string) (Band, bool) {
	for _, b := range Bands {
		if b.Name == name {
			return b, true
		}
	}
	return Band{}, false
}

// BandNames are the bands that a cook may choose, upwards.
var BandNames = []string{"mild", "seasoned", "bold", "cured"}
