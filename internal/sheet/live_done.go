package sheet

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/field"
	"verjuice/internal/core/live"
)

// LiveCaution is a caution at the pit.
type LiveCaution struct {
	ID       string           `json:"id"`
	Severity caution.Severity `json:"severity" enum:"care,stop"`
	Message  string           `json:"message"`
	Action   string           `json:"action"`
	Values   field.Values     `json:"values,omitempty" doc:"What an acknowledgement of it names"`
	Read     string           `json:"read,omitempty" doc:"When it was read and acknowledged; empty when it was not"`
}

// CatchLine is something that takes time off what is left or adds some, by one press.
type CatchLine struct {
	Label string `json:"label"`
	Note  string `json:"note" doc:"What it saves and costs, and the new chance"`
	Press Press  `json:"press" doc:"What is said to be done with it; its what is empty for another serving time"`
	Edits []Edit `json:"edits" nullable:"false" doc:"What it changes of the cook-out: another serving time; else nothing"`
}

func (w writer) liveCaution(f caution.Finding) LiveCaution {
	c := w.caution(f)
	return LiveCaution{c.ID, c.Severity, c.Message, c.Action, c.Values, c.Read}
}

// atPit are the cautions of a piece that matter at the pit.
func (w writer) atPit(p live.Piece) []LiveCaution {
	out := []LiveCaution{}
	for _, f := range p.Cautions() {
		out = append(out, w.liveCaution(f))
	}
	return out
}

// verdict says how done a piece is, by its places and its feel.
func (w writer) verdict(p live.Piece) string {
	d := p.Doneness
	places := func(ids []string) string {
		for i, id := range ids {
			ids[i] = cmp.Or(id, "the place you probed")
		}
		return strings.Join(ids, " and ")
	}
	switch soft, firm := places(slices.Clone(d.Soft)), places(slices.Clone(d.Firm)); {
	case p.Done() && len(d.Soft) > 0:
		return "Soft in " + soft + ": take it off."
	case p.Done() && d.Bent:
		return "It bends until it cracks: take it off."
	case p.Done() && len(p.Places) > 1:
		return "Every place is there: take it off."
	case len(d.Soft) > 0 && len(d.Firm) > 0:
		return fmt.Sprintf("Soft in %s, but not yet in %s: leave it on.", soft, firm)
	case d.Hot && len(d.Firm) > 0:
		return "Hot enough, but not soft in " + firm + ": leave it on, and probe again in half an hour."
	case d.Hot && d.Feel:
		return "Hot enough: it comes off when the probe goes in softly."
	case len(d.Cold) > 0 && len(d.Cold) < len(p.Places):
		return "Not there yet in " + places(slices.Clone(d.Cold)) + ": the coldest place counts."
	case d.Tender() && p.Core != nil:
		return fmt.Sprintf(
			"Soft already, at %s: probe it in other places before you take it off.",
			w.short(float64(p.Core.C)),
		)
	}
	return ""
}

// catch writes what would make up for being late, or for being early.
func (w writer) catch(c live.Catch, p live.Piece, servesAt string) CatchLine {
	percent := func(share float64) string { return fmt.Sprintf("%.0f %%", 100*math.Min(share, 0.99)) }
	by := duration(c.Saves.Abs().Round(5 * time.Minute))
	out := CatchLine{
		Edits: []Edit{},
		Note:  fmt.Sprintf("saves about %s: %s instead of %s to be ready in time", by, percent(c.Chance), percent(c.Was)),
	}
	set := Press{What: "set", Label: "Pit changed", Pit: true, Values: field.Values{"pit": p.Pit, "c": float64(c.SetC)}}
	switch c.ID {
	case "hotter":
		out.Label, out.Note, out.Press = "Pit up to "+w.short(float64(c.SetC)), out.Note+"; less time for smoke", set
	case "cooler":
		out.Label, out.Press = "Pit down to "+w.short(float64(c.SetC)), set
		out.Note = fmt.Sprintf(
			"it would be off long before it rests: about %s more for smoke, a shorter hold, still %s to be ready in time",
			by,
			percent(c.Chance),
		)
	case "later":
		day := ""
		if c.Serve.YearDay() != p.Piece.Clock.Serve.YearDay() {
			day = c.Serve.Format("Mon ")
		}
		out.Label = "Serve at " + day + c.Serve.Format("15:04")
		out.Edits = []Edit{{Pointer: servesAt, Value: c.Serve.Format(timeLayout)}}
		out.Note = fmt.Sprintf("%s later: %s instead of %s to be ready by then", by, percent(c.Chance), percent(c.Was))
	default:
		out.Label, out.Note = "Wrap in "+wrapName(c.Kind)+" now", out.Note+"; a softer bark"
		out.Press = Press{What: "wrap", Label: "Wrapped", Values: field.Values{"kind": c.Kind}}
	}
	return out
}
