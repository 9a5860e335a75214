package sheet

import (
	"fmt"
	"slices"
	"strings"

	"verjuice/internal/core/bench"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// FormulaSheet is every figure of a formula.
type FormulaSheet struct {
	Errors    []Mistake  `json:"errors" nullable:"false" doc:"Mistakes, with pointers into the request"`
	Ready     bool       `json:"ready"`
	Batch     Figure     `json:"batch" doc:"All of it, g"`
	Spoons    string     `json:"spoons"`
	Rows      []RowSheet `json:"rows" nullable:"false"`
	SaltBy    Shares     `json:"salt_by" doc:"Salt in the mix by volume and by weight, in words"`
	Rounded   []string   `json:"rounded" nullable:"false" doc:"Each row rounded as asked; empty when not asked"`
	RoundNote string     `json:"round_note" doc:"What rounding does to the mix, in words"`
	Totals    []Total    `json:"totals" nullable:"false"`
	Spoon     Figure     `json:"spoon" doc:"A level tablespoon of it, g"`
	SpoonSalt Figure     `json:"spoon_salt" doc:"Salt in that tablespoon, g"`
	Coarse    string     `json:"coarse" doc:"Largest grain, in words"`
	Allergens []string   `json:"allergens" nullable:"false"`
	Contains  string     `json:"contains" doc:"The allergens in a sentence"`
	SaltLed   bool       `json:"salt_led"`
	Cost      *CostSheet `json:"cost,omitempty" doc:"Absent while no price is known"`
	Keeping   string     `json:"keeping" doc:"How long it keeps, and how, in words"`
}

// Total is what a batch holds of one thing.
type Total struct {
	Name   string `json:"name"`
	Share  Figure `json:"share" doc:"% by weight"`
	Amount string `json:"amount" doc:"In this batch"`
}

// WriteFormula says a formula worked out.
func WriteFormula(r bench.Result, as Reader) FormulaSheet {
	w := writer{Reader: as}
	none := Figure{}
	out := FormulaSheet{
		Errors:    w.mistakes(r.Mistakes),
		Ready:     r.Ready,
		Rows:      []RowSheet{},
		Rounded:   []string{},
		Totals:    []Total{},
		Allergens: []string{},
		Batch:     none,
		Spoon:     none,
		SpoonSalt: none,
	}
	if !r.Ready {
		return out
	}
	out.Batch, out.Spoon, out.SpoonSalt = w.figure(r.Batch), w.figure(r.Spoon), w.figure(r.SpoonSalt)
	out.Spoons = quantity.FormatSpoons(r.Mix.Volume(r.Size), w.Spoons).Text
	out.Rows, out.Totals, out.Cost = w.rows(r.Rows), w.totals(r.Totals), w.cost(r.Cost)
	out.SaltBy = saltShares(r.Rows)
	out.Allergens, out.Contains = append(out.Allergens, r.Mix.Allergens...), "No listed allergens; the packet decides."
	if len(out.Allergens) > 0 {
		out.Contains = "Contains " + strings.Join(out.Allergens, ", ") + ". The packet decides."
	}
	out.SaltLed, out.Coarse = r.Mix.SaltLed(), coarse(r.Mix.CoarseMM)
	out.Keeping = fmt.Sprintf("Keeps %s: %s.", quantity.FormatDays(r.KeepsDays), keepings[r.Keeps])
	if rounded := r.Rounded; rounded != nil {
		out.Rounded = rounded.Text
		out.RoundNote = fmt.Sprintf(
			"Rounded, the worst row is %.0f %% off, and the mix holds %.1f %% salt instead of %.1f %%.",
			rounded.Worst,
			100*rounded.Salt,
			100*r.Mix.SaltShare(),
		)
	}
	return out
}

func (w writer) totals(all []bench.Total) []Total {
	out := []Total{}
	for _, t := range all {
		out = append(out, Total{Name: t.Of, Share: w.figure(t.Share), Amount: w.weight(t.Mass)})
	}
	return out
}

// keepings say how a mix is kept, by how it keeps.
var keepings = map[string]string{
	"dry":   "dry, dark and closed; ground spice fades after half a year",
	"salty": "in the fridge, at or under 4 °C / 40 °F",
	"fresh": "in the fridge, at or under 4 °C / 40 °F: as long as leftovers, three days",
}

func coarse(mm float64) string {
	switch {
	case mm == 0:
		return "liquid"
	case mm < 0.4:
		return fmt.Sprintf("powder-fine (%.1f mm): cakes into a crust on meat", mm)
	case mm < 1:
		return fmt.Sprintf("medium (%.1f mm)", mm)
	default:
		return fmt.Sprintf("coarse (%s mm): makes bark", quantity.Number(mm))
	}
}

// SaltNote says how much salt is in a mix.
func SaltNote(m formula.Mix) string { return fmt.Sprintf("%.0f %% salt", 100*m.SaltShare()) }

// OwnNote says what an ingredient of the cook's own is.
func OwnNote(o larder.Own) string {
	out := []string{o.Kind}
	if one, _ := o.Ingredient(""); one.SaltOff > 0 {
		salt := one.Per100g.Salt
		return fmt.Sprintf("%s, label not read: counts as %.0f to %.0f %% salt", o.Kind, salt*(1-one.SaltOff), salt*(1+one.SaltOff))
	}
	for _, part := range [][2]string{{o.Salt, "salt"}, {o.Sugar, "sugar"}} {
		if typed := strings.TrimSpace(part[0]); typed != "" {
			out = append(out, strings.TrimRight(strings.TrimSuffix(typed, "%"), " ")+" % "+part[1])
		}
	}
	return strings.Join(slices.DeleteFunc(out, func(s string) bool { return s == "" }), ", ")
}

// CurrencyName is a currency as a message names it.
func CurrencyName(sign string) string {
	if strings.TrimSpace(sign) == "" {
		return "plain numbers"
	}
	return "“" + sign + "”"
}
