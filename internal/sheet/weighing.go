package sheet

import (
	"fmt"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
)

// WeighOut is where a weigh-out stands, with what to do.
type WeighOut struct {
	formula.WeighOut
	Message string   `json:"message" doc:"What to do, in a sentence"`
	Counted string   `json:"counted" doc:"What is counted once all is weighed, in a sentence"`
	Stands  []string `json:"stands" nullable:"false" doc:"Of each ingredient, what is weighed of what is wanted"`
}

// WriteWeighing says where a weigh-out stands.
func WriteWeighing(o formula.WeighOut) WeighOut {
	out := WeighOut{WeighOut: o, Stands: []string{}, Counted: "The salt column now counts what you really weighed."}
	if o.Scale > 1 {
		out.Counted = fmt.Sprintf("The salt column now counts what you really weighed, a batch %.0f %% bigger.", 100*(o.Scale-1))
	}
	for _, s := range o.Steps {
		out.Stands = append(out.Stands, fmt.Sprintf("%.1f of %.1f g", s.Weighed, s.Target))
	}
	tenth := func(g float64) string { return quantity.Number(float64(int(g*10+0.5)) / 10) }
	switch {
	case o.Over >= 0:
		s := o.Steps[o.Over]
		out.Message = fmt.Sprintf("%s g too much: take it out, or make the whole batch %.0f %% bigger.", tenth(-s.Remaining), 100*(s.Weighed/s.Target-1))
	case o.Next == len(o.Steps):
		out.Message = "All weighed. Shake it well: settled mixes separate."
	case o.Steps[o.Next].State == "under":
		out.Message = fmt.Sprintf("Add %s g more.", tenth(o.Steps[o.Next].Remaining))
	}
	return out
}
