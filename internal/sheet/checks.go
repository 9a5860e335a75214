package sheet

import (
	"fmt"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/plan"
)

// CheckLine is something to see to.
type CheckLine struct {
	Tick   string `json:"tick" doc:"Names the line in the fact that says it was seen to"`
	Text   string `json:"text"`
	Ticked bool   `json:"ticked"`
}

// checkTexts are what is seen to before a pit is lit.
var checkTexts = map[string]string{
	"ash": "ash out, air holes free", "pellets": "dry pellets for all the hours, and half as much again",
	"charcoal": "dry charcoal for all the hours, and half as much again",
	"wood":     "dry splits for all the hours, and half as much again",
	"gas":      "a full bottle, or a second one", "tray": "drip tray in and lined",
	"water": "water pan filled with hot water, if you use one", "grate": "grate brushed and oiled",
	"probes":  "probes read 0 °C / 32 °F in ice water",
	"shelter": "out of the wind and the rain, well away from walls and roofs",
}

// checks are what is seen to before a task, each as it was ticked: before a pit is lit.
func (w writer) checks(r cooking.Result, k plan.Task) []CheckLine {
	if k.Stage != "light" || k.Pit >= len(w.pits) {
		return nil
	}
	var out []CheckLine
	for _, id := range w.pits[k.Pit].Before() {
		line := CheckLine{Tick: fmt.Sprintf("before:%d:%s", k.Pit, id), Text: checkTexts[id]}
		_, line.Ticked = r.Facts.Ticked(line.Tick)
		out = append(out, line)
	}
	return out
}
