package formula

import (
	"math"
	"regexp"
	"strings"

	"verjuice/internal/core/field"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// Label is what a nutrition label says of a shop-bought rub, sauce or injection.
type Label struct {
	Name    string            `json:"name" required:"false" doc:"What the cook calls it"`
	Sodium  string            `json:"sodium" doc:"Sodium of a serving in mg, as printed" example:"260"`
	Serving string            `json:"serving" doc:"Serving as printed, by weight or by volume: 0.9 g, 1/4 tsp, 30 mL, 1/2 cup (124 g)" example:"0.9 g"`
	Weighs  string            `json:"weighs,omitempty" required:"false" doc:"What a teaspoon of it weighs; needed for a serving by volume" example:"2.8 g"`
	Sugar   string            `json:"sugar" required:"false" doc:"Sugars of a serving in g, as printed"`
	Powder  string            `json:"powder" required:"false" doc:"For a packet that is mixed: how much powder" example:"1/3 cup"`
	Liquid  string            `json:"liquid" required:"false" doc:"To how much liquid" example:"1 cup"`
	Spoons  quantity.SpoonSet `json:"spoons,omitempty" required:"false" doc:"Whose spoons and cups those are: us or metric; empty means us"`
}

// Reading is a share that a label allows, in % by weight.
type Reading = quantity.Range[float64]

// LabelReading is what follows from a label.
type LabelReading struct {
	Salt  Reading
	Sugar Reading
	Mixed *Reading // salt of the packet mixed with its liquid
}

// powderDensity is the bulk density of a packet's powder, g/mL, ± 20 %.
const powderDensity = 0.9

// ReadLabel turns a label's figures into shares with the band that its rounding
// allows (21 CFR 101.9(c): sodium to 5 mg up to 140 mg and to 10 mg above, sugars to
// 1 g): sodium × 2.542 over the serving. A tiny serving gives a wide band.
// Mistakes come back with pointers into the label.
func ReadLabel(l Label) (LabelReading, field.Errors) {
	var errs field.Errors
	sodium, err := printed(l.Sodium, "mg")
	if !errs.Take("/sodium", err) && sodium > 40000 {
		errs.Add("/sodium", "label.more-than-salt")
	}
	serving, off := l.serving(&errs)
	var out LabelReading
	if len(errs) > 0 {
		return out, errs
	}
	g := serving.Grams()
	low, high := g-off, g+off
	if low <= 0 {
		low = g / 2
	}
	half := 2.5
	if sodium > 140 {
		half = 5
	}
	share := func(mg, grams float64) float64 {
		return math.Min(100, math.Max(0, mg)/1000*larder.SaltPerSodium/grams*100)
	}
	out.Salt = Reading{Low: share(sodium-half, high), Mid: share(sodium, g), High: share(sodium+half, low)}
	if sodium/1000*larder.SaltPerSodium > high {
		errs.Add(
			"/sodium",
			"label.impossible",
			"serving",
			l.Serving,
			"sodium_mg",
			math.Round(sodium),
			"most_mg",
			math.Round(g/larder.SaltPerSodium*1000),
		)
		return out, errs
	}
	if strings.TrimSpace(l.Sugar) != "" {
		sugar, err := printed(l.Sugar, "g")
		if !errs.Take("/sugar", err) {
			out.Sugar = Reading{
				Low:  math.Max(0, sugar-0.5) / high * 100,
				Mid:  math.Min(100, sugar/g*100),
				High: math.Min(100, (sugar+0.5)/low*100),
			}
		}
	}
	if strings.TrimSpace(l.Powder+l.Liquid) != "" {
		out.Mixed = mixedPacket(l, out.Salt, &errs)
	}
	return out, errs
}

// inBrackets is a weight beside a measure: "1/2 cup (124 g)".
var inBrackets = regexp.MustCompile(`\(([^)]*)\)`)

// spoonOff is how far a serving measured by spoon may be off, as a share of it.
const spoonOff = 0.15

// serving reads a serving's weight and how far it may be off. Of a serving by volume a
// teaspoon's weight has to be given.
func (l Label) serving(errs *field.Errors) (mass quantity.Mass, off float64) {
	text := l.Serving
	if m := inBrackets.FindStringSubmatch(text); m != nil {
		if g, err := quantity.ParseMass(m[1]); err == nil {
			return g, printedStep(m[1]) / 2
		}
		text = inBrackets.ReplaceAllString(text, "")
	}
	a, err := quantity.ParseAmount(text, false, l.Spoons)
	if errs.Take("/serving", err) {
		return 0, 0
	}
	if a.Volume == 0 {
		return a.Mass, printedStep(text) / 2
	}
	if strings.TrimSpace(l.Weighs) == "" {
		errs.Add("/weighs", "label.weighs", "offers", []string{"2.5 g", "5 g"})
		return 0, 0
	}
	spoon, err := quantity.ParseMass(l.Weighs)
	if errs.Take("/weighs", err) {
		return 0, 0
	}
	mass = a.Of(spoon.Grams() / l.Spoons.Teaspoon().ML())
	return mass, spoonOff * mass.Grams()
}

// mixedPacket is the salt of powder in its liquid, % by weight.
func mixedPacket(l Label, salt Reading, errs *field.Errors) *Reading {
	powder, err := quantity.ParseAmount(l.Powder, false, l.Spoons)
	errs.Take("/powder", err)
	liquid, err := quantity.ParseAmount(l.Liquid, true, l.Spoons)
	errs.Take("/liquid", err)
	if len(*errs) > 0 {
		return nil
	}
	water := liquid.Mass.Grams() + liquid.Volume.ML()
	part := func(density float64) float64 {
		g := powder.Mass.Grams() + powder.Volume.ML()*density
		return g / (g + water)
	}
	return &Reading{
		Low:  part(powderDensity*0.8) * salt.Low,
		Mid:  part(powderDensity) * salt.Mid,
		High: part(powderDensity*1.2) * salt.High,
	}
}

// printed reads a number with or without its unit.
func printed(s, unit string) (float64, error) {
	s = strings.TrimSpace(s)
	if head, ok := strings.CutSuffix(s, unit); ok {
		s = head
	}
	return quantity.ParseParts(s)
}

// printedStep is the last digit that a weight is printed with, in grams: 0.1 for
// "0.9 g", 1 for "28 g", an ounce's tenth for "1.5 oz".
func printedStep(s string) float64 {
	digits := 0
	if i := strings.IndexAny(s, ".,"); i >= 0 {
		for _, r := range s[i+1:] {
			if r < '0' || r > '9' {
				break
			}
			digits++
		}
	}
	step := math.Pow10(-digits)
	if strings.Contains(strings.ToLower(s), "oz") {
		step *= quantity.Ounce.Grams()
	}
	return step
}
