package sheet

import (
	"fmt"
	"strings"
	"time"

	"verjuice/internal/core/live"
	"verjuice/internal/core/meal"
	"verjuice/internal/core/quantity"
)

// LeftoverSheet is what to do with what is left of a piece.
type LeftoverSheet struct {
	Lines   []string `json:"lines" nullable:"false"`
	Late    string   `json:"late" doc:"Why it has to be thrown away; else empty"`
	Chilled string   `json:"chilled" doc:"When it was put to cool; else empty"`
	Cold    string   `json:"cold" doc:"When it was cold; else empty"`
	UseBy   string   `json:"use_by"`
}

// trays are how deep trays are told of, m; an oven is set to ovenC, the food comes from fridgeC.
var trays = []float64{0.025, 0.05}

const ovenC, fridgeC = 150.0, 4.0

// leftovers says what to do with what is left of a piece; nothing until it is sliced, nor when it is
// long past its last day.
func (w writer) leftovers(p live.Piece, keptKG float64, now time.Time) *LeftoverSheet {
	last := p.Piece.Happened.Last
	if last["slice"].IsZero() {
		return nil
	}
	l := meal.LeftOf(last["slice"], last["chill"], last["cold"])
	if now.After(l.UseBy.AddDate(0, 0, 1)) {
		return nil
	}
	clock := func(t time.Time) string { return t.In(last["slice"].Location()).Format("Mon 15:04") }
	out := &LeftoverSheet{Lines: []string{}, UseBy: l.UseBy.Format("Monday 2 January")}
	if l.Chilled.IsZero() {
		out.Lines = append(
			out.Lines,
			fmt.Sprintf("Cut or pull it, spread it in shallow trays with its juice and put it in the cold by %s.", clock(l.Out)),
		)
	} else {
		out.Chilled = clock(l.Chilled)
	}
	if l.Reached.IsZero() {
		out.Lines = append(
			out.Lines,
			fmt.Sprintf(
				"It has to be at %s by %s and at %s by %s.",
				w.short(meal.CoolC),
				clock(l.Cool),
				w.short(meal.ColdC),
				clock(l.Cold),
			),
		)
	} else {
		out.Cold = clock(l.Reached)
	}
	out.Lines = append(out.Lines, fmt.Sprintf("In the fridge at %s it keeps until %s.", w.short(fridgeC), out.UseBy))
	depth := func(m float64) string {
		if w.short(0) != "0\u00a0°C" {
			return fmt.Sprintf("%.0f in", m/0.0254)
		}
		return fmt.Sprintf("%g cm", 100*m)
	}
	out.Lines = append(
		out.Lines,
		fmt.Sprintf(
			"Warm it covered at %s to %s in the middle: about %s for a tray %s deep, %s for %s.",
			w.short(ovenC),
			w.short(meal.WarmC),
			duration(
				meal.Body{Deep: trays[0]}.Reheat(fridgeC, ovenC).Round(5*time.Minute),
			),
			depth(trays[0]),
			duration(meal.Body{Deep: trays[1]}.Reheat(fridgeC, ovenC).Round(5*time.Minute)),
			depth(trays[1]),
		),
	)
	if makes := w.makes(keptKG); makes != "" && !l.Late {
		out.Lines = append(out.Lines, makes)
	}
	if l.Late {
		out.Late = "It cooled too slowly: throw it away. Hot food has to be at 21 °C / 70 °F within two hours and at 5 °C / 41 °F within four more (FDA Food Code)."
	}
	return out
}

// makes says what was kept makes; empty when nothing was weighed.
func (w writer) makes(keptKG float64) string {
	var of []string
	for _, d := range meal.Dishes {
		switch n := int(1000 * keptKG / d.Grams); {
		case n > 0 && len(of) == 0:
			of = append(of, fmt.Sprintf("%s %s", counted(n, "portion", "portions"), d.Many))
		case n > 0:
			of = append(of, fmt.Sprintf("%d %s", n, d.Many))
		}
	}
	if len(of) == 0 {
		return ""
	}
	last := len(of) - 1
	return fmt.Sprintf(
		"The %s that you kept makes %s.",
		quantity.FormatMass(quantity.Mass(keptKG), w.Units),
		join(strings.Join(of[:last], ", "), " or ", of[last]),
	)
}
