package sheet

import (
	"regexp"
	"strconv"
	"strings"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/move"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// CoatChoice is a coat with what it looks like.
type CoatChoice struct {
	formula.Coat
	Note string `json:"note"`
}

// BandChoice is a salt band with how it tastes.
type BandChoice struct {
	salt.Band
	Note string `json:"note"`
}

// PitChoice is a kind of pit with what it asks of the cook.
type PitChoice struct {
	gear.Pit
	Room   string `json:"room" doc:"Usual grate as it is typed, metric"`
	RoomUS string `json:"room_us" doc:"Usual grate as it is typed, US"`
}

// Coats are the coats that cooks tell apart, upwards.
func Coats() []CoatChoice {
	notes := map[string]string{
		"light": "meat shows everywhere", "medium": "meat shows through between the grains",
		"heavy": "hardly any meat shows", "crust": "a packed layer",
	}
	out := []CoatChoice{}
	for _, c := range formula.Coats {
		out = append(out, CoatChoice{c, notes[c.Name]})
	}
	return out
}

// Bands are the bands of salt, upwards.
func Bands() []BandChoice {
	notes := map[string]string{
		"flat": "tastes unsalted", "mild": "salt comes from the sauce", "seasoned": "what most tables call right",
		"bold":  "for a thick bark",
		"cured": "like ham", "too salty": "too salty for most",
	}
	out := []BandChoice{}
	for _, b := range salt.Bands {
		out = append(out, BandChoice{b, notes[b.Name]})
	}
	return out
}

// UsualValues are what empty fields mean, in the reader's units: a US one reads the same
// amounts as near as that cook would say them.
func UsualValues(units quantity.System) cook.Usual {
	out := cook.UsualValues
	if units == quantity.US {
		out.Portion, out.Fridge, out.Room, out.BathHot = "6.3 oz", "39 °F", "70 °F", "203 °F"
		out.Spacing, out.Syringe, out.Bore = "1 in", "2 fl oz", "0.08 in"
	}
	return out
}

// Pits are the kinds of pit.
func Pits() []PitChoice {
	out := []PitChoice{}
	for _, p := range gear.Pits {
		room := func(units quantity.System) string { return writer{Reader: Reader{Units: units}}.grate(p.RoomDM2) }
		out = append(out, PitChoice{p, room(quantity.Metric), room(quantity.US)})
	}
	return out
}

// LayerChoice is a kind of layer, with what a new one starts from.
type LayerChoice struct {
	Kind    string           `json:"kind"`
	Label   string           `json:"label"`
	Amount  string           `json:"amount" doc:"Of a new one"`
	Formula *formula.Formula `json:"formula,omitempty" doc:"Of a new one; absent for the piece's own rub"`
}

// Layers are the kinds of layer, in the order they go on.
func Layers() []LayerChoice {
	one := func(name, ingredient, form string) *formula.Formula {
		return &formula.Formula{
			Name:  name,
			Basis: formula.ByWeight,
			Rows:  []formula.Row{{Ingredient: ingredient, Form: form, Parts: "1"}},
		}
	}
	stock, mustard := one("ready stock", "stock", "liquid"), dose.UsualBinder().Formula
	texts := map[string]LayerChoice{
		"base":    {"base", "base layer, under the rub", "light", nil},
		"binder":  {"binder", "binder", "1 Tbsp", &mustard},
		"dusting": {"dusting", "second dusting", "light", nil},
		"spritz":  {"spritz", "spritz", "4 Tbsp", stock},
		"wrap":    {"wrap", "in the wrap", "1/4 cup", stock},
		"glaze":   {"glaze", "glaze", "2 Tbsp", stock},
		"finish":  {"finish", "finishing salt", "2 g", one("sea salt", "sea-salt", "flakes")},
		"juices":  {"juices", "juices back on", "1/4 cup", stock},
	}
	out := []LayerChoice{}
	for _, kind := range dose.Kinds {
		out = append(out, texts[kind])
	}
	return out
}

// PlaceChoice is a place that a needle may be kept out of.
type PlaceChoice struct {
	Place string `json:"place"`
	Label string `json:"label"`
}

// WordAsk is a word that does not say which of several is meant.
type WordAsk struct {
	Word string `json:"word" example:"salt"`
	Ask  string `json:"ask"`
}

// WordAsks are the words for an ingredient that are asked about, so that nothing is picked by them alone.
func WordAsks() []WordAsk {
	return []WordAsk{{"salt", field.Capital(messages["bath.which-salt"])}}
}

// NeedlePlaces are the places that a needle may be kept out of.
func NeedlePlaces() []PlaceChoice {
	labels := map[string]string{
		"edge":     "the edge",
		"bone":     "the bone (the middle, lengthwise)",
		"thin-end": "the thin end",
	}
	out := []PlaceChoice{}
	for _, p := range dose.Avoidable {
		out = append(out, PlaceChoice{p, labels[p]})
	}
	return out
}

// MoveChoice is a kind of move that a cook can add, with what a new one starts from.
type MoveChoice struct {
	What   string                `json:"what"`
	Label  string                `json:"label"`
	When   string                `json:"when" doc:"Of a new one"`
	With   string                `json:"with" doc:"Of a new one; empty where it has none"`
	Withs  []string              `json:"withs" nullable:"false" doc:"What it can be with; none for words"`
	Usual  map[string]AgainUsual `json:"usual" nullable:"false" doc:"Of each way to go on the fire again: how long, and at what"`
	Brings bool                  `json:"brings" doc:"It can bring something"`
	Amount string                `json:"amount" doc:"Of what a new one brings; empty where it brings nothing"`
	Some   bool                  `json:"some" doc:"It can be of some pieces of a line alone"`
}

// AgainUsual is what is usual of a way to go on the fire again.
type AgainUsual struct {
	For string `json:"for"`
	Pit string `json:"pit"`
}

// MoveChoices are the kinds of move that a cook can add, in units.
func MoveChoices(units quantity.System) []MoveChoice {
	at := typedIn(units)
	out := []MoveChoice{}
	for _, m := range move.All {
		if !m.Own {
			continue
		}
		one := MoveChoice{
			What: string(m.Kind), Label: m.Name, With: m.With, Withs: []string{}, Usual: map[string]AgainUsual{},
			Brings: m.Layer != "", Amount: m.Amount, Some: m.ForSome(),
			When: inBraces.ReplaceAllStringFunc(m.When, func(c string) string {
				core, _ := strconv.ParseFloat(strings.Trim(c, "{}"), 64)
				return at(core)
			}),
		}
		switch m.Kind {
		case move.Wrap:
			one.Withs = gear.WrapIDs(gear.OnFire)
		case move.Again:
			one.Withs = move.Ways
			for _, way := range move.Ways {
				lasts, set := order.UsualAgain(way)
				one.Usual[way] = AgainUsual{lasts, at(float64(set))}
			}
		}
		out = append(out, one)
	}
	return out
}

// inBraces is a core in a moment of the table of moves, °C.
var inBraces = regexp.MustCompile(`\{\d+\}`)

// typedIn writes temperatures as they are typed in units.
func typedIn(units quantity.System) func(c float64) string {
	w := writer{Reader: Reader{Units: units}}
	return func(c float64) string { return strings.ReplaceAll(w.short(c), "\u00a0", " ") }
}

// MomentExamples are moments as they may be typed, in units.
func MomentExamples(units quantity.System) []string {
	at := typedIn(units)
	return []string{
		at(71),
		at(71) + " or 8 h",
		"after 4 h",
		"bark set",
		"07:00",
		"30 min before serving",
		"every 45 min from bark set until the wrap",
	}
}

// PitExamples are lists of what a pit is set to over the day, as they may be typed, in units.
func PitExamples(units quantity.System) []string {
	at := typedIn(units)
	low, mid, high := at(107), at(110), at(135)
	return []string{
		low + " from 23:00, " + high + " from 07:00",
		low + ", " + high + " once wrapped",
		mid + ", " + high + " after 8 h",
	}
}
