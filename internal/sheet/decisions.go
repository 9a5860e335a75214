package sheet

import (
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/quantity"
)

// DecisionSheet is a decision of a stage, with what each answer does.
type DecisionSheet struct {
	Key     string   `json:"key"`
	Stage   string   `json:"stage" enum:"piece,fire,rest,forecast" doc:"Where it is decided"`
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
	"state": {
		"Bought",
		map[string]answer{
			"chilled": {"chilled", "ready to trim"},
			"frozen":  {"frozen", "thawed in the fridge, never on the counter"},
		},
	},
	"trimmed-off": {
		"Also taken off",
		map[string]answer{
			"nothing":     {"nothing else", ""},
			"silver-skin": {"silver skin", "it never gets tender"},
			"deckle":      {"the hard deckle", "the fat between flat and point"},
			"skin":        {"the skin", "salt and smoke reach that side, too"},
			"fat-kept":    {"loose ends, kept as fat", "rendered into tallow for the wrap"},
			"bone-ends":   {"meat cut back from the bone ends", "clean handles; how far the bones show says less then"},
		},
	},
	"opened": {
		"Opened before the fire",
		map[string]answer{
			"no":      {"whole", "not cut open, not pierced"},
			"needled": {"needled or tenderised", "blades push germs from the outside in"},
			"rolled":  {"boned and rolled", "germs from the outside are now inside"},
			"stuffed": {"stuffed", "the stuffing has to be done, too"},
		},
	},
	"membrane": {
		"Membrane behind the bones",
		map[string]answer{
			"off": {"pulled off", "the seasoning gets in, and it bites cleanly"},
			"on":  {"left on", "holds the slab together, shields from below"},
		},
	},
	"finish": {
		"Finish",
		map[string]answer{
			"pink":   {"pink, sliced", "tender, and juicy while it is pink"},
			"sliced": {"soft, sliced", "bends over a finger and holds together"},
			"pulled": {"soft, pulled", "falls apart under two forks"},
			"bones": {
				"to the bone",
				"bends and cracks, the bones show",
			},
			"done":  {"cooked through", "safe and juicy"},
			"whole": {"soft, served whole", "one to a plate"},
		},
	},
	"dry": {
		"Skin or surface before the fire",
		map[string]answer{
			"pat":  {"patted dry", ""},
			"open": {"open in the fridge", "an hour or more: dry skin crisps, dry meat colours"},
		},
	},
	"wood": {
		"Wood",
		map[string]answer{
			"fruit":     {"fruit wood", "mild: apple, cherry, pear; instead: beech"},
			"beech":     {"beech or alder", "mild to medium; instead: fruit wood, or birch without its bark"},
			"oak":       {"oak", "medium, burns for long; instead: beech with a chunk of hickory"},
			"oak-fruit": {"oak and fruit", "medium: two chunks of oak to one of fruit wood; instead: oak alone"},
			"nut": {
				"hickory or walnut",
				"strong, two or three chunks are enough; instead: more oak",
			},
			"pecan":    {"pecan", "nutty, softer than hickory; instead: half hickory, half fruit wood"},
			"mesquite": {"mesquite", "very strong: one chunk, or for hot and quick fires; instead: hickory"},
			"mixed":    {"several, in parts", "two of oak to one of cherry"},
			"none":     {"no wood", "heat only"},
		},
	},
	"spritz": {
		"Spritz",
		map[string]answer{
			"none": {"leave it shut", "each look adds time"},
			"60":   {"every hour", ""},
			"45":   {"every 45 min", ""},
			"30":   {"every 30 min", "once the surface is set; never before"},
		},
	},
	"wrap": {"Wrap", wrapAnswers()},
	"wrap-at": {
		"Wrap when the core reads",
		map[string]answer{
			"0":  {"from the start", "keeps lean meat moist, no bark"},
			"49": {"49 °C / 120 °F", "coloured, still pink"},
			"60": {"60 °C / 140 °F", "before the stall"},
			"66": {"66 °C / 150 °F", "as the stall begins"},
			"71": {"71 °C / 160 °F", "in the stall, bark set"},
			"77": {"77 °C / 170 °F", "after the stall, for more bark"},
		},
	},
	"tight": {
		"How tight the wrap is",
		map[string]answer{
			"unknown": {"not said", "the forecast allows for any"},
			"tight":   {"tight", "two layers, pressed on, edges folded"},
			"usual":   {"as usual", ""},
			"loose":   {"loose", "a tent, or one thin layer"},
		},
	},
	"shine": {
		"How the foil looks",
		map[string]answer{
			"unknown": {"not said", "the forecast takes it as it looks after some smoke"},
			"shiny":   {"shiny side out, new", "takes up less heat, so it is slower"},
			"dull":    {"dull or smoked", "takes up more"},
		},
	},
	"lid": {
		"How often the pit is opened",
		map[string]answer{
			"unknown": {"not said", "the forecast allows for a look now and then"},
			"shut":    {"never", "looking is not cooking"},
			"120":     {"every 2 hours", ""},
			"60":      {"every hour", "adds about a fifth"},
			"30":      {"every 30 min", "adds about two fifths"},
		},
	},
	"weather": {
		"Weather at the pit",
		map[string]answer{
			"mild":  {"mild and still", "15 °C / 59 °F"},
			"cold":  {"cold", "0 °C / 32 °F, a breeze"},
			"windy": {"windy", "8 m/s, 10 °C / 50 °F"},
			"wet":   {"rain", "and a breeze, 8 °C / 46 °F"},
		},
	},
	"vent": {
		"Opened first, to stop the cooking",
		map[string]answer{
			"0":  {"not at all", "carries on rising"},
			"5":  {"5 min", ""},
			"10": {"10 min", ""},
			"15": {"15 min", "about 10 °C / 18 °F off"},
		},
	},
	"pit-vents": {
		"The pit that was switched off",
		map[string]answer{
			"open": {"its vents open", "cools in half an hour or so"},
			"shut": {"its vents shut", "stays warm for hours"},
		},
	},
	"in-wrap": {
		"With it in the wrap",
		map[string]answer{
			"nothing": {"nothing", ""},
			"butter":  {"a few knobs of butter", "richer, softer bark; count it as a dose for its salt"},
			"fat":     {"a spoonful of tallow or lard", "richer, browns less"},
			"juice":   {"juice or broth", "steams: soft and quick"},
		},
	},
	"side": {
		"Which side is down",
		map[string]answer{
			"fat-up":   {"fat side up", "the usual; fat bastes as it melts"},
			"fat-down": {"fat side down", "shields from a fire below"},
		},
	},
	"lies": {
		"Where it lies",
		map[string]answer{
			"unsaid": {"not told", "told, it stands beside how it turned out"},
			"near":   {"near the fire", "hotter on one side: turn it, or shield it"},
			"middle": {"in the middle", "the most even place"},
			"far":    {"far from the fire", "gentler and slower"},
			"top":    {"on a top rack", "often hotter than the grate: probe there"},
			"low":    {"on a low rack", "catches what drips from above"},
		},
	},
	"pan": {
		"Water pan",
		map[string]answer{
			"none":  {"none", "the meat’s own water is enough in a small pit"},
			"water": {"a pan of hot water", "steadies the fire and shields from it; hardly changes the hours"},
		},
	},
	"feel": {
		"Done when",
		map[string]answer{
			"core":  {"the core is at its temperature", "in the thickest place"},
			"probe": {"a probe slides in", "in two places, like soft butter"},
			"bend":  {"it bends and cracks", "picked up a third of the way along with tongs"},
			"bone": {
				"the bone turns",
				"it is loose, and a thumb’s width of it shows",
			},
			"wobble": {"it wobbles", "shakes like a set custard"},
		},
	},
	"rest": {
		"Rest",
		map[string]answer{
			"counter":    {"on the counter", "vented first, loosely covered"},
			"cooler":     {"dry cooler", "wrapped in towels"},
			"oven":       {"switched-off oven", "falls slowly"},
			"pit":        {"switched-off pit", "cools slowly, still in smoke"},
			"wrapped":    {"in its wrap", "opened a little first, so that it stops cooking"},
			"pit-cooler": {"switched-off pit, then a cooler", "moved over before it falls to 65 °C / 150 °F"},
			"board":      {"on a board", "for a short rest before slicing"},
			"tray":       {"in the tray, with its juice", "covered; the juice goes back on"},
			"holder":     {"warm holder", "65 °C / 150 °F and steady"},
		},
	},
	"slice": {
		"Serve it",
		map[string]answer{
			"sliced":    {"sliced", "across the marked grain, a pencil wide"},
			"pulled":    {"pulled", "with forks, juices back on"},
			"whole":     {"as it is", ""},
			"separated": {"point and flat parted", "each sliced across its own grain; the point chopped for burnt ends"},
		},
	},
}

// wrapAnswers are the wraps of their table.
func wrapAnswers() map[string]answer {
	out := map[string]answer{}
	for _, w := range gear.Wraps {
		out[w.ID] = answer{w.Name, w.Note}
	}
	return out
}

// decisions are those of a piece; what was told of the weather for all of them is not asked again.
func (w writer) decisions(decided []cooking.Decided) []DecisionSheet {
	out := []DecisionSheet{}
	for _, d := range decided {
		if d.Key == decision.Weather && w.skies {
			continue
		}
		text := decisionTexts[d.Key.String()]
		one := DecisionSheet{Key: d.Key.String(), Stage: d.Stage, Label: text.label, Value: d.Value, Usual: d.Usual}
		for i, v := range d.Choices {
			one.Options = append(
				one.Options,
				Option{Value: v, Label: text.answers[v].label, Note: text.answers[v].note, Effect: effect(d.Effects[i])},
			)
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
		return onFire(time.Duration(v)) + " on the fire"
	case cooking.Holds:
		return "holds " + quantity.FormatDuration(time.Duration(v))
	}
	return ""
}
