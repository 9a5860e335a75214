package sheet

import (
	"cmp"
	"slices"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/live"
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

// soon is how long before its time a job is offered as the one that is done.
const soon = 20 * time.Minute

// presses are what can be said to be done, by how far the piece has come.
func (w writer) presses(p live.Piece, now time.Time, next []LiveNext) []Press {
	h := p.Piece.Happened
	var whats []string
	switch p.State {
	case live.Before:
		whats = []string{"light", "fire"}
	case live.On:
		wrap := "wrap"
		if p.Advice.Done {
			wrap = "unwrap"
		}
		whats = []string{"look", "spritz", wrap, "off", "set", "turn", "wood", "fuel", "baste", "glaze", p.FireOut()}
		if n := p.Piece.Line.Meat.Value.Count; n-h.Some > 1 {
			whats = slices.Insert(whats, 3, "some-off")
		}
	case live.Resting:
		whats = []string{"vent", "rest", "slice"}
	}
	planned, due := "", false
	for _, n := range next {
		if n.Piece == p.Piece.Line.Key && n.What != "" || n.Piece == "" && n.What == "light" {
			at, err := time.Parse(time.RFC3339, n.At)
			planned, due = n.What, err == nil && at.Sub(now) < soon && n.What != "wrap" // of which the advice decides
			break
		}
	}
	switch {
	case p.Done():
		planned, due = "off", true
	case p.Advice.Now:
		planned, due = "wrap", true
	}
	if i := slices.Index(whats, planned); i > 0 &&
		(due || planned != "off") { // which is not to lie under the thumb for hours
		whats = slices.Insert(slices.Delete(whats, i, i+1), 0, planned)
	}
	out := []Press{}
	for _, what := range whats {
		one := press(p, what)
		one.Last, one.Planned = ago(h.Last[what], now), due && what == planned
		out = append(out, one)
	}
	return out
}

// press is what is said by one press of a piece.
func press(p live.Piece, what string) Press {
	one := Press{What: what, Label: pressWords[what], Pit: slices.Contains(pitWork, what)}
	switch what {
	case "wrap":
		if kind := p.Advice.Kind; kind != "none" && kind != "" {
			one.Values = field.Values{"kind": kind}
		} else {
			one.Values = field.Values{"kind": "foil"}
		}
	case "set":
		one.Asks = "temperature"
	case "out":
		one.Asks = "since"
	case "off":
		if n := p.Piece.Line.Meat.Value.Count; n > 1 {
			one.Label = map[bool]string{true: "The last one off", false: "All pulled off"}[n-p.Piece.Happened.Some == 1]
		}
	}
	if one.Pit {
		if one.Values == nil {
			one.Values = field.Values{}
		}
		one.Values["pit"] = p.Pit
	}
	return one
}

// pitWork is what is done to a pit.
var pitWork = []string{"light", "set", "wood", "fuel", "out", "relit"}

// pressWords are what was done, as it is pressed.
var pressWords = map[string]string{
	"thaw": "Thawing", "bath": "In its bath", "salt": "Salted", "light": "Pit lit", "fire": "On the fire",
	"look": "Looked", "spritz": "Spritzed", "baste": "Basted", "mop": "Mopped", "turn": "Turned", "wood": "Wood on",
	"fuel": "Fuel on", "set": "Pit changed",
	"wrap": "Wrapped", "unwrap": "Unwrapped", "glaze": "Glazed", "dust": "Dusted", "some-off": "One pulled off",
	"off": "Pulled off", "vent": "Vented", "rest": "Put to rest", "slice": "Sliced", "probe": "Probed",
	"chill": "Put to cool", "cold": "Cold", "finish": "Finished", "over": "Over", "out": "Fire out",
	"relit": "Lit again", "other": "Done",
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
func (w writer) signs(p live.Piece) []SignLine {
	out := []SignLine{}
	if p.State != live.On {
		return out
	}
	rack := p.Piece.Line.Meat.Value.Cut.Family == cut.Rack
	for _, s := range facts.Signs {
		if (s.ID == "bones" || s.ID == "bend") && !rack {
			continue
		}
		line := SignLine{Sign: s.ID, Label: seenWords[s.ID], Hows: []SignHow{}}
		seen, _ := p.Piece.Happened.Signs[s.ID].How()
		for _, how := range s.Hows {
			line.Hows = append(line.Hows, SignHow{how, upper(cmp.Or(howWords[how], how)), how == seen})
		}
		out = append(out, line)
	}
	return out
}
