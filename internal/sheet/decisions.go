package sheet

import (
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/quantity"
)

// DecisionSheet is a decision of a stage, with what each answer does.
type DecisionSheet struct {
	Key     string   `json:"key"`
	Stage   string   `json:"stage" enum:"piece,fire,rest" doc:"Where it is decided"`
	Label   string   `json:"label"`
	Value   string   `json:"value" doc:"The answer given, or the usual one"`
	Usual   string   `json:"usual"`
	Options []Option `json:"options" nullable:"false"`
}

// Option is one answer.
type Option struct {
	Value  string `json:"value"`
	Label  string `json:"label"`
	Note   string `json:"note" doc:"What the school says"`
	Effect string `json:"effect" doc:"What it does to this piece's numbers; may be empty"`
}

// answer is how an answer is written.
type answer struct{ label, note string }

// decisionTexts tell the decisions and their answers, by key and value.
var decisionTexts = map[string]struct {
	label   string
	answers map[string]answer
}{
	"state":    {"Bought", map[string]answer{"chilled": {"chilled", "ready to trim"}, "frozen": {"frozen", "thawed in the fridge, never on the counter"}}},
	"membrane": {"Membrane behind the bones", map[string]answer{"off": {"pulled off", "seasoning and teeth get through"}, "on": {"left on", "holds the slab together, shields from below"}}},
	"cap":      {"Fat cap", map[string]answer{"6 mm": {"6 mm / ¼ in", "renders, and shields"}, "12 mm": {"12 mm / ½ in", "more shield, some stays fat"}, "bare": {"bare on top", "salt reaches meat everywhere"}}},
	"scored":   {"Cap scored", map[string]answer{"no": {"not scored", "juice stays under it"}, "yes": {"scored, shallow", "seasoning gets in, fat runs out"}}},
	"dry":      {"Skin or surface before the fire", map[string]answer{"pat": {"patted dry", ""}, "open": {"open in the fridge", "an hour or more: dry skin crisps, dry meat colours"}}},
	"wood": {"Wood", map[string]answer{"fruit": {"fruit wood", "mild: apple, cherry, pear"}, "beech": {"beech or alder", "mild to middling"}, "oak": {"oak", "middling, burns long"},
		"nut": {"nut wood", "strong; hickory or walnut, sparingly"}, "none": {"no wood", "heat only"}}},
	"spritz": {"Spritz", map[string]answer{"none": {"leave it shut", "each look adds time"}, "60": {"every hour", ""}, "45": {"every 45 min", ""}, "30": {"every 30 min", "once the surface is set; never before"}}},
	"wrap": {"Wrap", map[string]answer{"none": {"never", "waits the stall out; the hardest bark"}, "paper": {"paper", "slower than foil, keeps bark"}, "foil": {"foil", "fast, soft bark"},
		"pan": {"pan and foil", "keeps the juice"}, "boat": {"open boat", "foil below, bark above"}}},
	"wrap-at": {"Wrap when the core reads", map[string]answer{"66": {"66 °C / 150 °F", "before the stall"}, "71": {"71 °C / 160 °F", "in the stall, bark set"}, "77": {"77 °C / 170 °F", "past it, for the bark"}}},
	"rest": {"Rest", map[string]answer{"counter": {"on the counter", "vented first, loosely covered"}, "cooler": {"dry cooler", "wrapped in towels"}, "oven": {"switched-off oven", "falls slowly"},
		"holder": {"warm holder", "65 °C / 150 °F and steady, never under 60 °C / 140 °F"}}},
	"slice": {"Serve it", map[string]answer{"sliced": {"sliced", "across the marked grain, a pencil wide"}, "pulled": {"pulled", "with forks, juices back on"}, "whole": {"as it is", ""}}},
}

func (w writer) decisions(decided []cooking.Decided) []DecisionSheet {
	out := []DecisionSheet{}
	for _, d := range decided {
		text := decisionTexts[d.Key]
		one := DecisionSheet{Key: d.Key, Stage: d.Stage, Label: text.label, Value: d.Value, Usual: d.Usual}
		for i, v := range d.Values {
			one.Options = append(one.Options, Option{Value: v, Label: text.answers[v].label, Note: text.answers[v].note, Effect: effect(d.Effects[i])})
		}
		out = append(out, one)
	}
	return out
}

// effect says what an answer does to the clock.
func effect(v any) string {
	switch v := v.(type) {
	case cooking.Thaws:
		return quantity.FormatDuration(time.Duration(v)) + " to thaw"
	case cooking.Burns:
		return quantity.FormatDuration(time.Duration(v)) + " on the fire"
	case cooking.Holds:
		return "holds " + quantity.FormatDuration(time.Duration(v))
	}
	return ""
}
