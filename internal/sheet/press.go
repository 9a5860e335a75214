package sheet

import (
	"cmp"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/live"
	"verjuice/internal/core/move"
)

// Press is something that was done, to be said by one press.
type Press struct {
	What    string       `json:"what"`
	Label   string       `json:"label"`
	Last    string       `json:"last" doc:"When it was done last; may be empty"`
	Planned bool         `json:"planned" doc:"It is to be done about now"`
	Pit     bool         `json:"pit" doc:"It is done to the pit, not to the piece"`
	Asks    string       `json:"asks" enum:"temperature,since," doc:"What has to be said with it"`
	Values  field.Values `json:"values,omitempty" doc:"What the fact says besides"`
}

// SignLine is a sign, and how it may be.
type SignLine struct {
	Sign  string    `json:"sign"`
	Label string    `json:"label"`
	Hows  []SignHow `json:"hows" nullable:"false"`
}

// SignHow is how a sign may be.
type SignHow struct {
	How   string `json:"how"`
	Label string `json:"label"`
	Now   bool   `json:"now" doc:"It was seen so last"`
}

// ago says when something was done.
func ago(at, now time.Time) string {
	switch d := now.Sub(at); {
	case at.IsZero():
		return ""
	case d < time.Minute:
		return "just now"
	default:
		return duration(d) + " ago"
	}
}

// presses are what can be said to be done, by how far the piece has come.
func presses(p live.Piece, now time.Time, due []live.Due) []Press {
	out := []Press{}
	for _, one := range p.Presses(now, due) {
		press := writePress(p, one)
		press.Last, press.Planned = ago(one.Last, now), one.Planned
		out = append(out, press)
	}
	return out
}

// writePress is what is said by one press of a piece.
func writePress(p live.Piece, press live.Press) Press {
	one := Press{What: press.What, Label: pressed(press.What), Pit: press.OnPit()}
	switch press.What {
	case "wrap":
		one.Values = field.Values{"kind": press.Kind}
	case "set":
		one.Asks = "temperature"
	case "out":
		one.Asks = "since"
	case "off":
		if p.Piece.Line.Meat.Value.Count > 1 {
			one.Label = map[bool]string{true: "The last one off", false: "All pulled off"}[press.Left == 1]
		}
	}
	if one.Pit {
		one.Values = field.Values{"pit": p.Pit}
	}
	for _, m := range p.Piece.Line.Own {
		if press.Move == "" || m.Key != press.Move {
			continue
		}
		if one.Values == nil {
			one.Values = field.Values{}
		}
		if one.Values["move"] = m.Key; m.Kind == move.Other {
			one.Label = field.Capital(m.With)
		}
	}
	return one
}

// pressed is what was done, as it is pressed; empty for what is no move.
func pressed(what string) string {
	kind, _ := move.Find(move.Kind(what))
	return kind.Press
}

// seenWords are what is looked at.
var seenWords = map[string]string{
	"surface": "Surface", "colour": "Colour", "bark": "Bark", "fat": "Fat, pressed", "bones": "Bones", "bend": "Bend",
	"feel": "Probe feels",
}

// howWords are how a sign is, where its id is not the word.
var howWords = map[string]string{
	"scratches": "scratches off",
	"springs":   "springs back",
	"stays":     "stays pressed",
	"nearly":    "nearly soft",
}

// signs are what can be seen of a piece that is on.
func signs(p live.Piece) []SignLine {
	out := []SignLine{}
	for _, s := range p.Signs() {
		line := SignLine{Sign: s.ID, Label: seenWords[s.ID], Hows: []SignHow{}}
		seen, _ := p.Piece.Happened.Signs[s.ID].How()
		for _, how := range s.Hows {
			line.Hows = append(line.Hows, SignHow{how, field.Capital(cmp.Or(howWords[how], how)), how == seen})
		}
		out = append(out, line)
	}
	return out
}
