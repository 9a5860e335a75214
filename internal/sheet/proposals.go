package sheet

import (
	"fmt"
	"math"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/field"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/starter"
)

// ProposalLine is something to do otherwise next time.
type ProposalLine struct {
	ID   string `json:"id"`
	Text string `json:"text"`
	Why  string `json:"why"`
}

// WriteProposals says what a cook that is over proposes for the next one like it.
func WriteProposals(c cook.Cook, o logbook.Outcome) []ProposalLine {
	labels := map[string]string{}
	for _, p := range o.Pieces {
		labels[p.Key] = field.Capital(p.Label)
	}
	out := []ProposalLine{}
	for _, p := range starter.Propose(c, o) {
		line := ProposalLine{ID: p.ID}
		label := labels[p.Piece] + ": "
		switch {
		case p.Note != "":
			line.Text, line.Why = label+"keep the note “"+p.Note+"”", "It is shown where the piece is trimmed."
		case p.Kind != "":
			line.Text, line.Why = label+"wrap in "+wrapName(p.Kind), "That is what you did."
			if p.Kind == "none" {
				line.Text = label + "no wrap"
			}
		case p.Score != 0:
			line.Text = fmt.Sprintf("%ssalt to %.2f %% instead of %.2f %%", label, p.To, p.Was)
			line.Why = "It was " + aspectWords["salt"][min(5, max(1, int(math.Round(p.Score))))] + "."
		default:
			line.Text = label + "take " + hours(p.To) + " on the fire as your own guess"
			line.Why = "That is how long it took; the forecast is held against it."
		}
		out = append(out, line)
	}
	return out
}
