package sheet

import (
	"fmt"

	"verjuice/internal/core/field"
	"verjuice/internal/core/retelling"
)

// TaleSheet is how a past cook is understood.
type TaleSheet struct {
	Lines  []TaleLine `json:"lines" nullable:"false" doc:"What was done, in the order in which it was told"`
	Errors []Mistake  `json:"errors" nullable:"false" doc:"What is not understood"`
}

// TaleLine is one thing that was done.
type TaleLine struct {
	Time  string `json:"time"`
	Label string `json:"label"`
}

// WriteTale says how what was told is understood.
func WriteTale(moves []retelling.Move, wrong field.Errors, as Reader) TaleSheet {
	w := writer{Reader: as}
	out := TaleSheet{Lines: []TaleLine{}, Errors: append([]Mistake{}, Mistakes(wrong, as)...)}
	for _, m := range moves {
		label := pressed(m.What)
		if m.What == "read" {
			label = "Core read"
		}
		if m.SetC > 0 {
			label = "Pit set to " + w.short(m.SetC)
		}
		if m.Kind != "" {
			label += " in " + wrapName(m.Kind)
		}
		if m.CoreC > 0 {
			label += fmt.Sprintf(", core at %s", w.short(m.CoreC))
		}
		out.Lines = append(out.Lines, TaleLine{m.At.Format("Mon 15:04"), label})
	}
	return out
}
