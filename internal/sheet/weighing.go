package sheet

import (
	"fmt"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
)

// WeighOut is where a weigh-out stands, with what to do.
type WeighOut struct {
	formula.WeighOut
	Message string    `json:"message" doc:"What to do, in a sentence"`
	Counted string    `json:"counted" doc:"What is counted once all is weighed, in a sentence"`
	Stands  []string  `json:"stands" nullable:"false" doc:"Of each ingredient, what is weighed of what is wanted"`
	Shown   ScaleUnit `json:"shown" doc:"The unit in which grams are shown"`
	Weighed []float64 `json:"weighed" nullable:"false" doc:"g of each ingredient, with what was asked to be put there"`
	Target  string    `json:"target" doc:"Of what is next, in that unit"`
}

// ScaleUnit is a unit in which a kitchen scale shows a weight.
type ScaleUnit struct {
	Name     string    `json:"name" example:"g"`
	Grams    float64   `json:"grams" doc:"g in one of it"`
	Decimals int       `json:"decimals" doc:"That a scale shows"`
	Pour     []float64 `json:"pour" nullable:"false" doc:"Handy amounts of it for the simulated scale"`
}

func (u ScaleUnit) text(g float64) string { return decimal(g/u.Grams, u.Decimals) }

var (
	scaleGrams  = ScaleUnit{"g", 1, 1, []float64{0.5, 2, 5, 20}}
	scaleOunces = ScaleUnit{"oz", quantity.Ounce.Grams(), 2, []float64{0.02, 0.1, 0.25, 1}}
)

// WriteWeighing says where a weigh-out stands.
func WriteWeighing(o formula.WeighOut, weighed []float64, units quantity.System) WeighOut {
	unit := scaleGrams
	if units == quantity.US {
		unit = scaleOunces
	}
	out := WeighOut{
		WeighOut: o,
		Shown:    unit,
		Weighed:  append([]float64{}, weighed...),
		Stands:   []string{},
		Counted:  "The salt column now counts what you really weighed.",
	}
	if o.Scale > 1 {
		out.Counted = fmt.Sprintf(
			"The salt column now counts what you really weighed, a batch %.0f %% bigger.",
			100*(o.Scale-1),
		)
	}
	if o.Next < len(o.Steps) {
		out.Target = unit.text(o.Steps[o.Next].Target)
	}
	for _, s := range o.Steps {
		out.Stands = append(out.Stands, unit.text(s.Weighed)+" of "+unit.text(s.Target)+" "+unit.Name)
	}
	switch {
	case o.Over >= 0:
		s := o.Steps[o.Over]
		out.Message = fmt.Sprintf("%s %s too much: take it out.", unit.text(-s.Remaining), unit.Name)
		if o.Grows > 0 {
			out.Message = fmt.Sprintf(
				"%s %s too much: take it out, or make the whole batch %.0f %% bigger.",
				unit.text(-s.Remaining),
				unit.Name,
				100*(o.Grows-1),
			)
		}
	case o.Next == len(o.Steps):
		out.Message = "All weighed. Shake it well: settled mixes separate."
	case o.Steps[o.Next].State == "under":
		out.Message = fmt.Sprintf("Add %s %s more.", unit.text(o.Steps[o.Next].Remaining), unit.Name)
	}
	return out
}

// OnScale is what lies on a scale beside what is wanted.
type OnScale struct {
	Stable   bool    `json:"stable" doc:"It has settled"`
	Overload bool    `json:"overload" doc:"More lies on it than it can weigh; the rest is not to be used"`
	Grams    float64 `json:"grams" doc:"That lie on it"`
	State    string  `json:"state" enum:"under,near,over"`
	Shows    string  `json:"shows" doc:"What is weighed with what was before, in the reader's unit"`
	Says     string  `json:"says" doc:"How far that is from what is wanted"`
	How      string  `json:"how" doc:"Whether it is steady, in a few words"`
	Share    float64 `json:"share" doc:"Of what is wanted, that is weighed"`
}

// WriteOnScale says what a scale shows, with weighed g from before, beside a target of so many g.
func WriteOnScale(grams, weighed, target float64, stable, overload bool, units quantity.System) OnScale {
	unit := scaleGrams
	if units == quantity.US {
		unit = scaleOunces
	}
	if overload {
		grams = 0
	}
	have := weighed + grams
	out := OnScale{
		Stable: stable, Overload: overload, Grams: grams, State: formula.Judge(target, have), Shows: unit.text(have),
		How: map[bool]string{true: "on the scale, steady", false: "on the scale, settling"}[stable],
	}
	if target > 0 {
		out.Share = brief(have / target)
	}
	switch out.State {
	case "near":
		out.Says = "that is it"
	case "over":
		out.Says = unit.text(have-target) + " " + unit.Name + " over"
	default:
		out.Says = unit.text(target-have) + " " + unit.Name + " to go"
	}
	if overload {
		out.How = "overload"
	}
	return out
}
