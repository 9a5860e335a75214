// Package salt answers the question a cook cannot see: how much salt ends up in
// the meat, by every road it takes, and where in the meat it is when.
//
// Tally adds the sources of one piece up (the ledger); Solve turns it round;
// DryBrine follows a coat into the meat.
package salt

import (
	"fmt"
	"math"

	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// Share is a retained fraction with its likely range, 0 to 1.
type Share struct{ Low, Mid, High float64 }

// Source is one road by which salt comes to a piece.
type Source struct {
	Name  string
	Salt  quantity.Mass // NaCl that reaches the piece
	Stays Share         // of it that ends in the meat
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

// Range is a value with its likely range.
type Range struct{ Low, Mid, High float64 }

// Ledger is the salt of one piece.
type Ledger struct {
	Lines        []Range // % of raw boneless meat, a source each
	PercentRaw   Range   // % of raw boneless meat
	PercentPlate Range   // % of served meat
}

// Tally adds up the salt of a piece: what stays of each source, as a share of
// the raw boneless meat and of the served meat. The spreads of different sources
// are independent, so they add as squares. The meat's own salt (0.1–0.2 %) is
// not counted. An error means that the piece weighs nothing.
func Tally(p Piece, sources []Source) (Ledger, error) {
	edible := float64(p.Edible())
	if edible <= 0 || p.Yield.Mid <= 0 {
		return Ledger{}, fmt.Errorf("there is no meat to salt")
	}
	l := Ledger{Lines: make([]Range, len(sources))}
	down, up := 0.0, 0.0
	for i, s := range sources {
		per := 100 * float64(s.Salt) / edible
		line := Range{per * s.Stays.Low, per * s.Stays.Mid, per * s.Stays.High}
		l.Lines[i] = line
		l.PercentRaw.Mid += line.Mid
		down += (line.Mid - line.Low) * (line.Mid - line.Low)
		up += (line.High - line.Mid) * (line.High - line.Mid)
	}
	l.PercentRaw.Low = max(0, l.PercentRaw.Mid-math.Sqrt(down))
	l.PercentRaw.High = l.PercentRaw.Mid + math.Sqrt(up)
	l.PercentPlate = Range{
		l.PercentRaw.Low / p.Yield.High, l.PercentRaw.Mid / p.Yield.Mid, l.PercentRaw.High / p.Yield.Low,
	}
	return l, nil
}

// SodiumMG is the sodium in mg of a serving of the given mass of served meat,
// salted by plate percent.
func SodiumMG(platePercent float64, serving quantity.Mass) float64 {
	return platePercent / 100 * serving.Grams() / larder.SaltPerSodium * 1000
}

// Impossible is the answer when no amount of the free source meets a target.
type Impossible struct {
	Target, Others float64 // % of raw boneless meat
	Free           string
}

// Error implements error.
func (e Impossible) Error() string {
	return fmt.Sprintf("the other sources alone bring %.2f %%; no %s gets you down to %.2f %%", e.Others, e.Free, e.Target)
}

// Solve returns how much salt the source numbered free must bring so that the
// piece holds target percent (of raw boneless meat). The salt given for that
// source is ignored. It returns Impossible when the others bring more already.
func Solve(p Piece, sources []Source, free int, target quantity.Percent) (quantity.Mass, error) {
	others := 0.0
	for i, s := range sources {
		if i != free {
			others += float64(s.Salt) * s.Stays.Mid
		}
	}
	f := sources[free]
	want := float64(target)/100*float64(p.Edible()) - others
	if want < 0 {
		return 0, Impossible{Target: float64(target), Others: 100 * others / float64(p.Edible()), Free: f.Name}
	}
	if f.Stays.Mid <= 0 {
		return 0, fmt.Errorf("nothing of the %s stays in the meat", f.Name)
	}
	return quantity.Mass(want / f.Stays.Mid), nil
}

// Band is a range of salt that tastes a certain way.
type Band struct {
	Name string  `json:"name" enum:"flat,mild,seasoned,bold,cured,too salty"`
	Low  float64 `json:"low" doc:"% of raw boneless meat"`
	High float64 `json:"high" doc:"% of raw boneless meat"`
	Note string  `json:"note"`
}

// Bands are the bands by % of raw boneless meat, upwards. A cook chooses one of
// the middle four.
var Bands = []Band{
	{"flat", 0, 0.5, "tastes unsalted"},
	{"mild", 0.5, 0.8, "salt comes from the sauce"},
	{"seasoned", 0.8, 1.3, "what most tables call right"},
	{"bold", 1.3, 1.8, "as bark lovers like it"},
	{"cured", 1.8, 2.5, "like ham"},
	{"too salty", 2.5, 4, "too salty for most"},
}

// BandOf returns the band that percent falls in.
func BandOf(percent float64) Band {
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
