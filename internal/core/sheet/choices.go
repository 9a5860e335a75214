package sheet

import (
	"fmt"
	"slices"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
)

// ChoiceSheet is a decision of a stage, with what each answer does.
type ChoiceSheet struct {
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

// choice is a decision that cooks make in working order.
type choice struct {
	key, stage, label string
	applies           func(cut.Cut) bool
	usual             func(cut.Cut) string
	options           []Option
	effect            func(p *piece, value string) string
}

func always(cut.Cut) bool { return true }

func family(of ...cut.Family) func(cut.Cut) bool {
	return func(c cut.Cut) bool { return slices.Contains(of, c.Family) }
}

func fixed(value string) func(cut.Cut) string { return func(cut.Cut) string { return value } }

// choices are all of them, in working order.
var choices []choice

func init() {
	choices = []choice{
		{
			key: "state", stage: "piece", label: "It comes", applies: always, usual: fixed("chilled"),
			options: []Option{{Value: "chilled", Label: "chilled", Note: "ready to trim"}, {Value: "frozen", Label: "frozen", Note: "thawed in the fridge, never on the counter"}},
			effect: func(p *piece, value string) string {
				if value != "frozen" {
					return ""
				}
				return quantity.FormatDuration(thawing(p.green)) + " to thaw"
			},
		},
		{
			key: "membrane", stage: "piece", label: "Membrane behind the bones", applies: family(cut.Rack),
			usual: func(c cut.Cut) string {
				if c.Species == "beef" {
					return "on"
				}
				return "off"
			},
			options: []Option{{Value: "off", Label: "pulled off", Note: "seasoning and teeth get through"}, {Value: "on", Label: "left on", Note: "holds the slab together, shields from below"}},
		},
		{
			key: "cap", stage: "piece", label: "Fat cap", applies: func(c cut.Cut) bool { return c.Family == cut.Collagen || c.Sealed == "fat" }, usual: fixed("6 mm"),
			options: []Option{{Value: "6 mm", Label: "6 mm", Note: "renders, and shields"}, {Value: "12 mm", Label: "12 mm", Note: "more shield, some stays fat"}, {Value: "bare", Label: "bare on top", Note: "salt reaches meat everywhere"}},
		},
		{
			key: "scored", stage: "piece", label: "Cap scored", applies: func(c cut.Cut) bool { return c.Family == cut.Collagen || c.Sealed != "" },
			usual: func(c cut.Cut) string {
				if c.Species == "pork" {
					return "yes"
				}
				return "no"
			},
			options: []Option{{Value: "no", Label: "not scored", Note: "juice stays under it"}, {Value: "yes", Label: "scored, shallow", Note: "seasoning gets in, fat runs out"}},
		},
		{
			key: "dry", stage: "piece", label: "Skin or surface before the fire", applies: always,
			usual:   fixed("pat"),
			options: []Option{{Value: "pat", Label: "patted dry"}, {Value: "open", Label: "open in the fridge", Note: "an hour or more: dry skin crisps, dry meat colours"}},
		},
		{
			key: "wood", stage: "fire", label: "Wood", applies: always,
			usual: func(c cut.Cut) string {
				switch c.Species {
				case "beef", "game":
					return "oak"
				case "poultry":
					return "fruit"
				}
				return "beech"
			},
			options: []Option{
				{Value: "fruit", Label: "fruit wood", Note: "mild: apple, cherry, pear"}, {Value: "beech", Label: "beech or alder", Note: "mild to middling"},
				{Value: "oak", Label: "oak", Note: "middling, burns long"}, {Value: "nut", Label: "nut wood", Note: "strong; hickory or walnut, sparingly"}, {Value: "none", Label: "no wood", Note: "heat only"},
			},
		},
		{
			key: "spritz", stage: "fire", label: "Look and spritz", applies: always,
			usual:   fixed("none"),
			options: []Option{{Value: "none", Label: "leave it shut", Note: "looking is not cooking"}, {Value: "60", Label: "every hour"}, {Value: "45", Label: "every 45 min"}, {Value: "30", Label: "every 30 min", Note: "once the surface is set; never before"}},
			effect:  fireEffect(func(b *plan.Burn, v string) { b.Looks = looks[v] }),
		},
		{
			key: "wrap", stage: "fire", label: "Wrap", applies: family(cut.Collagen, cut.Rack, cut.Whole),
			usual: func(c cut.Cut) string { return or(c.Wrap, "none") },
			options: []Option{
				{Value: "none", Label: "never", Note: "waits the stall out; the hardest bark"}, {Value: "paper", Label: "paper", Note: "slower than foil, keeps bark"},
				{Value: "foil", Label: "foil", Note: "fast, soft bark"}, {Value: "pan", Label: "pan and foil", Note: "keeps the juice"}, {Value: "boat", Label: "open boat", Note: "foil below, bark above"},
			},
			effect: fireEffect(func(b *plan.Burn, v string) { b.Wrap = v }),
		},
		{
			key: "wrap-at", stage: "fire", label: "Wrap when the core reads", applies: family(cut.Collagen, cut.Rack, cut.Whole), usual: fixed("71"),
			options: []Option{{Value: "66", Label: "66 °C / 150 °F", Note: "before the stall"}, {Value: "71", Label: "71 °C / 160 °F", Note: "in the stall, bark set"}, {Value: "77", Label: "77 °C / 170 °F", Note: "past it, for the bark"}},
		},
		{
			key: "rest", stage: "rest", label: "Rests", applies: always,
			usual: func(c cut.Cut) string {
				if c.Family == cut.Collagen || c.Family == cut.Whole {
					return "cooler"
				}
				return "counter"
			},
			options: []Option{
				{Value: "counter", Label: "on the counter", Note: "vented first, loosely covered"}, {Value: "cooler", Label: "dry cooler", Note: "wrapped in towels"},
				{Value: "oven", Label: "switched-off oven", Note: "falls slowly"}, {Value: "holder", Label: "warm holder", Note: "65 °C and steady, never under 60 °C / 140 °F"},
			},
			effect: func(p *piece, value string) string { return "holds " + quantity.FormatDuration(holdMax(p.cut, value)) },
		},
		{
			key: "slice", stage: "rest", label: "Served", applies: always,
			usual: func(c cut.Cut) string {
				switch c.Family {
				case cut.Collagen, cut.Whole:
					return "pulled"
				case cut.Poultry, cut.Ground:
					return "whole"
				}
				return "sliced"
			},
			options: []Option{{Value: "sliced", Label: "sliced", Note: "across the marked grain, a pencil wide"}, {Value: "pulled", Label: "pulled", Note: "with forks, juices back on"}, {Value: "whole", Label: "as it is"}},
		},
	}
}

// looks is minutes between spritzes.
var looks = map[string]int{"none": 0, "30": 30, "45": 45, "60": 60}

// wrapShare is how much of the time on the fire is over when the core reads so.
var wrapShare = map[string]float64{"66": 0.42, "71": 0.52, "77": 0.62}

func fireEffect(set func(*plan.Burn, string)) func(*piece, string) string {
	return func(p *piece, value string) string {
		if p.timed {
			return ""
		}
		b := p.burn()
		set(&b, value)
		return quantity.FormatDuration(p.opt.forecast().Fire(b).Mid) + " on the fire"
	}
}

// thawing is the time in the fridge that a piece takes: 24 h for 2.2 kg (5 lb).
func thawing(m quantity.Mass) time.Duration {
	return max(8*time.Hour, time.Duration(m.KG()/2.2*24*float64(time.Hour)).Round(time.Hour))
}

// holdMax is how long a cut keeps well after the fire, by where it rests; the
// floor of 60 °C / 140 °F is met with room to spare. Field experience.
func holdMax(c cut.Cut, place string) time.Duration {
	minutes := map[cut.Family]map[string]float64{
		cut.Pink:     {"counter": 50, "cooler": 90, "oven": 90, "holder": 150},
		cut.Collagen: {"counter": 90, "cooler": 270, "oven": 360, "holder": 16 * 60},
		cut.Rack:     {"counter": 50, "cooler": 120, "oven": 120, "holder": 240},
		cut.Poultry:  {"counter": 50, "cooler": 75, "oven": 90, "holder": 150},
		cut.Whole:    {"counter": 75, "cooler": 180, "oven": 240, "holder": 8 * 60},
		cut.Ground:   {"counter": 30, "cooler": 45, "oven": 60, "holder": 120},
	}[c.Family][place]
	return time.Duration(minutes) * time.Minute
}

// leastRest is the shortest rest that a cut should have.
func leastRest(c cut.Cut) time.Duration {
	switch c.Family {
	case cut.Collagen, cut.Whole:
		return 20 * time.Minute
	case cut.Rack, cut.Ground:
		return 5 * time.Minute
	}
	return 10 * time.Minute
}

// readChoices checks the answers given.
func (p *piece) readChoices(at string, errs *field.Errors) {
	if len(p.typed.Choices) > 2*len(choices) {
		errs.Add(at, "there are only %d choices", len(choices))
		return
	}
	for key, value := range p.typed.Choices {
		i := slices.IndexFunc(choices, func(c choice) bool { return c.key == key })
		if i < 0 {
			errs.Add(at+"/"+field.Key(key), "there is no such choice")
			continue
		}
		if value != "" && !slices.ContainsFunc(choices[i].options, func(o Option) bool { return o.Value == value }) {
			errs.Add(at+"/"+field.Key(key), "choose one of the answers")
		}
	}
}

// chose is the answer to a choice, or the usual one.
func (p *piece) chose(key string) string {
	for _, c := range choices {
		if c.key == key {
			return or(p.typed.Choices[key], c.usual(p.cut))
		}
	}
	return ""
}

// choiceSheets are the decisions of this cut.
func (p *piece) choiceSheets() []ChoiceSheet {
	out := []ChoiceSheet{}
	for _, c := range choices {
		if !c.applies(p.cut) || c.key == "wrap-at" && p.chose("wrap") == "none" {
			continue
		}
		s := ChoiceSheet{Key: c.key, Stage: c.stage, Label: c.label, Value: p.chose(c.key), Usual: c.usual(p.cut)}
		for _, o := range c.options {
			if c.effect != nil {
				o.Effect = c.effect(p, o.Value)
			}
			s.Options = append(s.Options, o)
		}
		out = append(out, s)
	}
	return out
}

// burn is what decides how long the piece is on the fire.
func (p *piece) burn() plan.Burn {
	return plan.Burn{Cut: p.cut, Thickness: p.geometry.Thickness, PitC: p.pit, Wrap: p.chose("wrap"), Looks: looks[p.chose("spritz")], Pit: p.pitKind()}
}

// pitKind is the pit that the piece goes on.
func (p *piece) pitKind() plan.PitKind {
	if p.on < len(p.pits) {
		return p.pits[p.on].PitKind
	}
	return plan.PitKind{}
}

func (o Options) forecast() plan.Forecaster {
	if o.Forecast != nil {
		return o.Forecast
	}
	return plan.Experience{}
}

// grainWords says which way to cut.
func grainWords(degrees string) string {
	if degrees == "" {
		return ""
	}
	return fmt.Sprintf("Grain marked at %s° to the length: slice across it.", degrees)
}
