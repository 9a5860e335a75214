package cook

import (
	"slices"

	"verjuice/internal/core/cut"
)

// Decision is a choice that cooks make in working order.
type Decision struct {
	Key     string
	Stage   string   // where it is decided: piece, fire or rest
	Values  []string // the answers, by id
	applies func(cut.Cut) bool
	Usual   func(cut.Cut) string // the answer when none is given
}

func always(cut.Cut) bool { return true }

func family(of ...cut.Family) func(cut.Cut) bool {
	return func(c cut.Cut) bool { return slices.Contains(of, c.Family) }
}

func fixed(value string) func(cut.Cut) string { return func(cut.Cut) string { return value } }

// Decisions are all of them, in working order.
var Decisions = []Decision{
	{Key: "state", Stage: "piece", Values: []string{"chilled", "frozen"}, applies: always, Usual: fixed("chilled")},
	{Key: "membrane", Stage: "piece", Values: []string{"off", "on"}, applies: family(cut.Rack), Usual: func(c cut.Cut) string {
		if c.Species == "beef" {
			return "on"
		}
		return "off"
	}},
	{Key: "cap", Stage: "piece", Values: []string{"6 mm", "12 mm", "bare"}, applies: func(c cut.Cut) bool { return c.Family == cut.Collagen || c.Sealed == "fat" }, Usual: fixed("6 mm")},
	{Key: "scored", Stage: "piece", Values: []string{"no", "yes"}, applies: func(c cut.Cut) bool { return c.Family == cut.Collagen || c.Sealed != "" }, Usual: func(c cut.Cut) string {
		if c.Species == "pork" {
			return "yes"
		}
		return "no"
	}},
	{Key: "dry", Stage: "piece", Values: []string{"pat", "open"}, applies: always, Usual: fixed("pat")},
	{Key: "wood", Stage: "fire", Values: []string{"fruit", "beech", "oak", "nut", "none"}, applies: always, Usual: func(c cut.Cut) string {
		switch c.Species {
		case "beef", "game":
			return "oak"
		case "poultry":
			return "fruit"
		}
		return "beech"
	}},
	{Key: "spritz", Stage: "fire", Values: []string{"none", "60", "45", "30"}, applies: always, Usual: fixed("none")},
	{Key: "wrap", Stage: "fire", Values: []string{"none", "paper", "foil", "pan", "boat"}, applies: family(cut.Collagen, cut.Rack, cut.Whole), Usual: func(c cut.Cut) string { return or(c.Wrap, "none") }},
	{Key: "wrap-at", Stage: "fire", Values: []string{"66", "71", "77"}, applies: family(cut.Collagen, cut.Rack, cut.Whole), Usual: fixed("71")},
	{Key: "rest", Stage: "rest", Values: cut.Rests, applies: always, Usual: func(c cut.Cut) string { return c.Custom().Rest }},
	{Key: "slice", Stage: "rest", Values: []string{"sliced", "pulled", "whole"}, applies: always, Usual: func(c cut.Cut) string { return c.Custom().Slice }},
}
