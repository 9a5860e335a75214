// Package caution holds the food-safety rules: each is a condition computed from a
// piece's figures, with the values that its sentence names. What it says, what to do
// and the authority it restates are written by package sheet.
//
//	found := caution.Check(caution.Case{Cut: shoulder, Counter: 3 * time.Hour})
//	found[0].ID         // "counter-time"
//	found[0].Severity   // caution.Stop
//
// The rules inform; they do not lock a cook out. A stop is acknowledged as it stands:
// when its values change, it has to be read again.
package caution

import (
	"math"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Severity says how much weight a caution has.
type Severity string

// The severities. A stop has to be read and acknowledged.
const (
	Note Severity = "note"
	Care Severity = "care"
	Stop Severity = "stop"
)

// Finding is a rule that applies.
type Finding struct {
	ID       string
	Severity Severity
	Stage    string       // of the cook: piece, brine, season, wait, fire or rest
	Values   field.Values // rounded as they are told, so that a change that nobody sees is none
	Read     string       // when it was read and acknowledged; empty when it was not
}

// Case is what the rules look at.
type Case struct {
	Cut              cut.Cut
	Fridge           quantity.Celsius
	Room             quantity.Celsius
	Counter          time.Duration    // on the counter before the fire
	Wait             time.Duration    // salted, in the cold
	Soak             time.Duration    // in a bath, in the cold
	Longest          time.Duration    // that it keeps raw, in all
	Pit              quantity.Celsius // zero when not known
	SaltPercent      float64          // of raw boneless meat
	Band             string           // the cook's own choice
	SodiumMG         float64          // a serving
	SugarShare       float64          // of the sweetest dose on the surface, 0 to 1
	NitritePPM       float64          // ingoing, by all doses: mg per kg of green meat, or of meat and pickle
	PhosphatePercent float64          // phosphate salts that stay, % of the meat with what stays in it
	Injected         bool
	Opened           string  // needled, rolled or stuffed; empty or no when it is whole
	Trimmed          float64 // lost by trimming, % of the weight as bought; zero when not known
	Bath             bool
	Allergens        []string
	Honey            bool

	Frozen    bool
	Thaw      time.Duration    // in the fridge
	Done      quantity.Celsius // core temperature at which it is taken off; zero when not known
	WarmsIn   time.Duration    // core from the fridge to 60 °C, forecast; zero when not known
	Endless   bool             // it does not get done in this pit
	Lingers   time.Duration    // of that, between 10 and 54.4 °C
	Hold      time.Duration    // from off the fire to the knife
	Held      string           // where: one of cut.Rests
	Keeps     time.Duration    // that it stays hot enough there; zero when not known
	Chilled   bool             // cooked ahead, cooled and reheated
	Leftovers bool
	Burns     string // kind of pit; empty when not known
	Wrapped   bool
	Unsalted  bool // nothing brings it any salt
}

// pinkLongest is how long a roast that came off pink stands before the knife: the two hours of food that is neither
// hot nor cold (USDA FSIS).
const pinkLongest = 2 * time.Hour

// Published limits.
const (
	FridgeMax    = quantity.Celsius(4)
	ScorchAbove  = quantity.Celsius(150)
	SodiumDayMG  = 2300.0
	PhosphateMax = 0.5 // % of the product (9 CFR 424.21)
	sugarLed     = 0.15
	counterLimit = 2 * time.Hour
	counterHot   = time.Hour
	hotRoom      = quantity.Celsius(32)
)

type rule func(Case) (Finding, bool)

var rules = []rule{
	fridge, counter, keeping, nitrite, phosphate, injected, bath, oversalt, sodium, scorch, allergens, honey,
	thaw, coolPit, neverDone, slowToWarm, groundDone, poultryDone, wildDone, pinkFinish, hotHold, cooling, leftovers,
	fireAndAir, muchTrimmed, nothing, touched,
}

// Check returns the rules that apply, the gravest first.
func Check(c Case) []Finding {
	var found []Finding
	for _, want := range []Severity{Stop, Care, Note} {
		for _, r := range rules {
			if one, ok := r(c); ok && one.Severity == want {
				found = append(found, one)
			}
		}
	}
	return found
}

// finding makes a Finding with alternating names and values.
func finding(id string, s Severity, stage string, pairs ...any) Finding {
	return Finding{ID: id, Severity: s, Stage: stage, Values: field.Pairs(pairs...)}
}

// grave is stop when it is so, else care.
func grave(stop bool) Severity {
	if stop {
		return Stop
	}
	return Care
}

// round rounds v to so many decimals.
func round(v float64, decimals int) float64 {
	scale := math.Pow10(decimals)
	return math.Round(v*scale) / scale
}

// degree rounds t to a tenth.
func degree(t quantity.Celsius) quantity.Celsius { return quantity.Celsius(round(float64(t), 1)) }

// Nitrite limits, ppm ingoing (9 CFR 424.21 and .22): by what the product is and how the
// nitrite goes in.
const (
	nitriteGround    = 156.0
	nitriteWet       = 200.0 // pumped or immersed
	nitriteDry       = 625.0 // dry-cured whole muscle
	nitriteBellyWet  = 120.0 // bacon, pumped or immersed
	nitriteBellySkin = 108.0 // the same with the skin on
	nitriteBellyDry  = 200.0
)

// nitriteLimit is the limit of the product and of how nitrite goes in; more than one way
// used, the strictest of them.
func nitriteLimit(c Case) (limit float64, way string) {
	wet, dry := nitriteWet, nitriteDry
	switch {
	case c.Cut.Family == cut.Ground:
		return nitriteGround, "ground"
	case c.Cut.Noun == "belly":
		wet, dry = nitriteBellyWet, nitriteBellyDry
		if c.Cut.Sealed == "skin" {
			wet = nitriteBellySkin
		}
	}
	if c.Injected || c.Bath {
		return min(wet, dry), "wet"
	}
	return dry, "dry"
}

// cold is all of the time that the piece is raw in the cold.
func (c Case) cold() time.Duration { return c.Thaw + c.Soak + c.Wait }

func fridge(c Case) (Finding, bool) {
	return finding("cold-side", grave(c.Fridge > 8), "wait", "fridge", degree(c.Fridge)),
		c.Fridge > FridgeMax+0.5 && c.cold() > counterLimit
}

func counter(c Case) (Finding, bool) {
	limit := counterLimit
	if c.Room > hotRoom {
		limit = counterHot
	}
	return finding("counter-time", Stop, "fire", "counter", c.Counter, "limit", limit), c.Counter > limit
}

func keeping(c Case) (Finding, bool) {
	return finding(
			"raw-keeping",
			Care,
			"wait",
			"wait",
			c.cold().Round(time.Minute),
			"cut",
			c.Cut.Name,
			"longest",
			c.Longest,
		),
		c.cold() > c.Longest
}

func nitrite(c Case) (Finding, bool) {
	limit, way := nitriteLimit(c)
	return finding(
			"nitrite",
			grave(c.NitritePPM > limit),
			"season",
			"ppm",
			round(c.NitritePPM, 0),
			"limit",
			limit,
			"way",
			way,
		),
		c.NitritePPM > 0
}

func phosphate(c Case) (Finding, bool) {
	return finding("phosphate", Stop, "brine", "percent", round(c.PhosphatePercent, 2)), c.PhosphatePercent > PhosphateMax
}

func injected(c Case) (Finding, bool) { return finding("injected", Care, "brine"), c.Injected }

func bath(c Case) (Finding, bool) { return finding("bath", Care, "brine"), c.Bath }

func oversalt(c Case) (Finding, bool) {
	return finding("oversalt", Care, "season", "percent", round(c.SaltPercent, 2)),
		c.SaltPercent >= 2.5 || c.SaltPercent >= 1.8 && c.Band != "cured"
}

func sodium(c Case) (Finding, bool) {
	one := finding("sodium", Note, "season", "mg", round(c.SodiumMG, 0), "day", round(100*c.SodiumMG/SodiumDayMG, 0))
	if c.SodiumMG > SodiumDayMG {
		one.Severity = Care
	}
	return one, c.SodiumMG > SodiumDayMG/3
}

func scorch(c Case) (Finding, bool) {
	return finding("sugar-scorch", Care, "fire", "sugar", round(100*c.SugarShare, 0), "pit", degree(c.Pit)),
		c.SugarShare > sugarLed && c.Pit >= ScorchAbove
}

func allergens(c Case) (Finding, bool) {
	return finding("allergens", Note, "season", "allergens", c.Allergens), len(c.Allergens) > 0
}

func honey(c Case) (Finding, bool) { return finding("honey", Care, "season"), c.Honey }

// muchTrimmed asks about a weight that trimming hardly explains.
func muchTrimmed(c Case) (Finding, bool) {
	most := 1.5*c.Cut.TrimLoss.High + 10
	return finding(
			"much-trimmed",
			Note,
			"piece",
			"percent",
			round(c.Trimmed, 0),
			"low",
			round(c.Cut.TrimLoss.Low, 0),
			"high",
			round(c.Cut.TrimLoss.High, 0),
		),
		c.Trimmed > most
}

// nothing tells that no salt goes on.
func nothing(c Case) (Finding, bool) { return finding("no-salt", Note, "season"), c.Unsalted }

func touched(Case) (Finding, bool) { return finding("raw-touched", Note, "season"), true }
