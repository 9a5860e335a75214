// Package caution holds the food-safety rules: each is a condition computed from
// a piece's figures, a sentence that says what and why, what to do, and the
// authority it restates.
//
// The rules inform; they do not lock a cook out.
package caution

import (
	"fmt"
	"strings"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// Closing is shown with every list of cautions.
const Closing = "Guidance for home cooks; local food codes and licensed practice come first."

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
	ID        string   `json:"id" example:"counter-time"`
	Severity  Severity `json:"severity" enum:"note,care,stop"`
	Stage     string   `json:"stage" doc:"Stage of the cook it belongs to" enum:"piece,brine,season,wait,fire,rest"`
	What      string   `json:"what"`
	Do        string   `json:"do"`
	Authority string   `json:"authority"`
	Read      string   `json:"read,omitempty" doc:"When it was read and acknowledged, RFC 3339; empty when it was not"`
}

// Facts are what the rules look at.
type Facts struct {
	Cut         cut.Cut
	Fridge      quantity.Celsius
	Room        quantity.Celsius
	Counter     time.Duration // on the counter before the fire
	Wait        time.Duration // salted, in the cold
	Longest     time.Duration // that it keeps so
	Pit         quantity.Celsius
	SaltPercent float64 // of raw boneless meat
	Band        string  // the cook's own choice
	SodiumMG    float64 // a serving
	SugarShare  float64 // of the rub, 0 to 1
	NitritePPM  float64 // ingoing, mg per kg of green meat
	// NitriteLimit is the limit for the way the nitrite goes in, ppm; zero means dry-cured.
	NitriteLimit     float64
	PhosphatePercent float64 // of the pumped meat
	Injected         bool
	Bath             bool
	Allergens        []string
	Honey            bool

	Frozen    bool
	Thaw      time.Duration    // in the fridge
	Done      quantity.Celsius // core temperature at which it is taken off
	WarmsIn   time.Duration    // core from the fridge to 60 °C, forecast; zero when not known
	Hold      time.Duration    // from off the fire to the knife
	Held      string           // where: counter, cooler, oven or holder
	Chilled   bool             // cooked ahead, cooled and reheated
	Leftovers bool
	Burns     string // kind of pit; empty when not known
	Wrapped   bool
	Unlogged  bool // it is off the fire, and no core temperature is on record
}

// Published limits.
const (
	FridgeMax   = quantity.Celsius(4)
	ScorchAbove = quantity.Celsius(150)
	SodiumDayMG = 2300.0
	NitriteDry  = 625.0 // ppm, dry-cured (9 CFR 424.21)
	// NitritePumped is the limit for pumped or immersed meat, ppm.
	NitritePumped = 200.0
	PhosphateMax  = 0.5 // % of the product (9 CFR 424.21)
	sugarLed      = 0.15
	counterLimit  = 2 * time.Hour
	counterHot    = time.Hour
	hotRoom       = quantity.Celsius(32)
)

type rule func(Facts) (Finding, bool)

var rules = []rule{
	fridge, counter, keeping, nitrite, phosphate, injected, bath, oversalt, sodium, scorch, allergens, honey,
	thaw, coolPit, slowToWarm, groundDone, poultryDone, wildDone, pinkFinish, hotHold, cooling, leftovers, fireAndAir, undated, touched,
}

// Check returns the rules that apply, the gravest first.
func Check(f Facts) []Finding {
	var found []Finding
	for _, want := range []Severity{Stop, Care, Note} {
		for _, r := range rules {
			if one, ok := r(f); ok && one.Severity == want {
				found = append(found, one)
			}
		}
	}
	return found
}

func fridge(f Facts) (Finding, bool) {
	one := Finding{
		ID: "cold-side", Severity: Care, Stage: "wait", Authority: "USDA FSIS: raw meat at or below 4 °C / 40 °F",
		What: fmt.Sprintf("Your fridge is at %s. Above 4 °C / 40 °F germs grow on raw and salted meat.", both(f.Fridge)),
		Do:   "Turn it down, or keep the meat on ice, and check with a thermometer before salting.",
	}
	if f.Fridge > 8 {
		one.Severity = Stop
	}
	return one, f.Fridge > FridgeMax+0.5 && f.Wait > counterLimit
}

func counter(f Facts) (Finding, bool) {
	limit, words := counterLimit, "2 h"
	if f.Room > hotRoom {
		limit, words = counterHot, "1 h above 32 °C / 90 °F"
	}
	return Finding{
		ID: "counter-time", Severity: Stop, Stage: "fire", Authority: "USDA FSIS: the two-hour rule, 4–60 °C / 40–140 °F",
		What: fmt.Sprintf("%s on the counter is over the limit of %s: raw meat between 4 and 60 °C / 40 and 140 °F grows germs fast.",
			capital(quantity.FormatDuration(f.Counter)), words),
		Do: "Shorten it, or go to the fire straight from the fridge: a cold, wet surface takes more smoke anyway.",
	}, f.Counter > limit
}

func keeping(f Facts) (Finding, bool) {
	return Finding{
		ID: "raw-keeping", Severity: Care, Stage: "wait", Authority: "USDA FSIS cold storage chart",
		What: fmt.Sprintf("%s is longer than raw %s keeps at 4 °C / 40 °F (%s).",
			capital(quantity.FormatDuration(f.Wait)), f.Cut.Name, quantity.FormatDuration(f.Longest)),
		Do: "Salt it later, or buy it later.",
	}, f.Wait > f.Longest
}

func nitrite(f Facts) (Finding, bool) {
	limit, way := NitriteDry, "dry-cured"
	if f.NitriteLimit > 0 && f.NitriteLimit != NitriteDry {
		limit, way = f.NitriteLimit, "pumped or immersed"
	}
	one := Finding{
		ID: "nitrite", Severity: Care, Stage: "season", Authority: fmt.Sprintf("9 CFR 424.21: %.0f ppm ingoing for %s meat", limit, way),
		What: fmt.Sprintf("Curing salt here brings %.0f ppm nitrite; the limit for %s meat is %.0f ppm. It is not a seasoning, and a spoon of it taken for table salt is dangerous.", f.NitritePPM, way, limit),
		Do:   "Weigh it to 0.1 g, keep it apart and labelled, and follow a tested cure.",
	}
	if f.NitritePPM > limit {
		one.Severity = Stop
		one.Do = "Take curing salt out of this mix, or so much of it that the figure falls below the limit."
	}
	return one, f.NitritePPM > 0
}

func phosphate(f Facts) (Finding, bool) {
	return Finding{
		ID: "phosphate", Severity: Stop, Stage: "brine", Authority: "9 CFR 424.21: 0.5 % of the product",
		What: fmt.Sprintf("The injection leaves %.2f %% phosphate in the meat; the limit is 0.5 %%.", f.PhosphatePercent),
		Do:   "Use less of the blend, or pump less.",
	}, f.PhosphatePercent > PhosphateMax
}

func injected(f Facts) (Finding, bool) {
	return Finding{
		ID: "injected", Severity: Care, Stage: "brine", Authority: "USDA FSIS: non-intact meat; used injection is thrown away",
		What: "Injected meat is no longer sterile inside, so a pink finish is not for it. The needle carries raw germs back into the cup.",
		Do:   "Cook it through: 63 °C / 145 °F and three minutes for whole muscle, 74 °C / 165 °F for poultry. Inject cool liquid (never above 40 °C / 104 °F), keep the meat at or under 4 °C / 40 °F, pour off only what you use, throw the rest away, wash and count the needles.",
	}, f.Injected
}

func bath(f Facts) (Finding, bool) {
	return Finding{
		ID: "bath", Severity: Care, Stage: "brine", Authority: "USDA FSIS: brining at or below 4 °C / 40 °F",
		What: "A bath is safe only cold, and never twice. Salt and acid eat bare aluminium and galvanised pails.",
		Do:   "Chill it to 4 °C / 40 °F before the meat goes in, in a food-grade pot of steel, glass or plastic, and throw it away after.",
	}, f.Bath
}

func oversalt(f Facts) (Finding, bool) {
	return Finding{
		ID: "oversalt", Severity: Care, Stage: "season", Authority: "salt bands by % of raw boneless meat",
		What: fmt.Sprintf("%.2f %% salt in the meat is more than most people like (ham is 1.8–2.5 %%). It cannot be taken out again.", f.SaltPercent),
		Do:   "Use a lighter coat, or a mix with less salt.",
	}, f.SaltPercent >= 2.5 || f.SaltPercent >= 1.8 && f.Band != "cured"
}

func sodium(f Facts) (Finding, bool) {
	one := Finding{
		ID: "sodium", Severity: Note, Stage: "season", Authority: "US dietary guideline: 2 300 mg sodium a day",
		What: fmt.Sprintf("A serving brings %.0f mg sodium, %.0f %% of a day’s 2 300 mg.", f.SodiumMG, 100*f.SodiumMG/SodiumDayMG),
		Do:   "Keep sauce and sides low in salt; tell guests who watch theirs.",
	}
	if f.SodiumMG > SodiumDayMG {
		one.Severity = Care
	}
	return one, f.SodiumMG > SodiumDayMG/3
}

func scorch(f Facts) (Finding, bool) {
	return Finding{
		ID: "sugar-scorch", Severity: Care, Stage: "fire", Authority: "sugar darkens fast above about 150 °C / 300 °F",
		What: fmt.Sprintf("This rub is %.0f %% sugar and the pit is at %s: it will darken and then scorch.", 100*f.SugarShare, both(f.Pit)),
		Do:   "Run the pit below 150 °C / 300 °F, or put the sugar on late, in the glaze.",
	}, f.SugarShare > sugarLed && f.Pit >= ScorchAbove
}

func allergens(f Facts) (Finding, bool) {
	return Finding{
		ID: "allergens", Severity: Note, Stage: "season", Authority: "declared per ingredient; read the packet, which decides",
		What: "Contains " + strings.Join(f.Allergens, ", ") + ".",
		Do:   "Tell your guests.",
	}, len(f.Allergens) > 0
}

func honey(f Facts) (Finding, bool) {
	return Finding{
		ID: "honey", Severity: Care, Stage: "season", Authority: "CDC: no honey under 12 months",
		What: "Honey can carry spores that harm infants.", Do: "Not for children under 12 months.",
	}, f.Honey
}

func touched(Facts) (Finding, bool) {
	return Finding{
		ID: "raw-touched", Severity: Note, Stage: "season", Authority: "USDA FSIS: cross-contamination",
		What: "Rub that has touched raw meat, or the hand that did, carries its germs.",
		Do:   "Portion the rub into a bowl first; what is left in that bowl is thrown away.",
	}, true
}

func both(t quantity.Celsius) string {
	return quantity.FormatTemperature(t, quantity.Metric) + " / " + quantity.FormatTemperature(t, quantity.US)
}

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }
