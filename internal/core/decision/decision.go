// Package decision has the choices that cooks make in working order, with what is usual
// for each cut.
//
//	a := decision.Answers{Cut: c, Typed: map[string]string{"wrap": "foil"}}
//	a.Chose(decision.Rest)   // the usual place for that cut
package decision

import (
	"maps"
	"slices"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/gear"
)

// Key names a decision. There are no others than those below, so that one that is misspelt does not build.
type Key struct{ id string }

// String is the id of the decision, as a page has it.
func (k Key) String() string { return k.id }

// The decisions.
var (
	State      = Key{"state"}
	Finish     = Key{"finish"}
	Membrane   = Key{"membrane"}
	TrimmedOff = Key{"trimmed-off"}
	Opened     = Key{"opened"}
	Dry        = Key{"dry"}
	Wood       = Key{"wood"}
	Spritz     = Key{"spritz"}
	Lid        = Key{"lid"}
	Weather    = Key{"weather"}
	Wrap       = Key{"wrap"}
	WrapAt     = Key{"wrap-at"}
	Tight      = Key{"tight"}
	Shine      = Key{"shine"}
	InWrap     = Key{"in-wrap"}
	Side       = Key{"side"}
	Lies       = Key{"lies"}
	Pan        = Key{"pan"}
	Feel       = Key{"feel"}
	Rest       = Key{"rest"}
	Vent       = Key{"vent"}
	PitVents   = Key{"pit-vents"}
	Slice      = Key{"slice"}
)

// Decision is a choice that cooks make in working order.
type Decision struct {
	Key     Key
	Stage   string                 // where it is decided: piece, fire, rest or forecast
	Values  []string               // the answers, by id
	of      func(cut.Cut) []string // those that a cut has, when not all
	applies func(cut.Cut) bool
	Usual   func(cut.Cut) string // the answer when none is given
}

func always(cut.Cut) bool { return true }

func fixed(value string) func(cut.Cut) string { return func(cut.Cut) string { return value } }

// All are all of them, in working order.
var All = []Decision{
	{Key: State, Stage: "piece", Values: []string{"chilled", "frozen"}, applies: always, Usual: fixed("chilled")},
	{
		Key:     Finish,
		Stage:   "piece",
		Values:  finishes,
		of:      finishesOf,
		applies: func(c cut.Cut) bool { return len(c.Finishes) > 1 },
		Usual:   func(c cut.Cut) string { return string(c.Finishes[0]) },
	},
	{
		Key:     Membrane,
		Stage:   "piece",
		Values:  []string{"off", "on"},
		applies: func(c cut.Cut) bool { return c.Family == cut.Rack || c.Sealed == "bone" },
		Usual: func(c cut.Cut) string {
			if c.Sealed == "bone" || c.Species == "beef" {
				return "on"
			}
			return "off"
		},
	},
	{
		Key:     TrimmedOff,
		Stage:   "piece",
		Values:  []string{"nothing", "silver-skin", "deckle", "skin", "fat-kept", "bone-ends"},
		of:      trims,
		applies: func(c cut.Cut) bool { return len(trims(c)) > 1 },
		Usual:   fixed("nothing"),
	},
	{
		Key:     Opened,
		Stage:   "piece",
		Values:  []string{"no", "needled", "rolled", "stuffed"},
		applies: func(c cut.Cut) bool { return c.Family != cut.Ground },
		Usual:   fixed("no"),
	},
	{Key: Dry, Stage: "piece", Values: []string{"pat", "open"}, applies: always, Usual: fixed("pat")},
	{
		Key:     Wood,
		Stage:   "fire",
		Values:  []string{"fruit", "beech", "oak", "oak-fruit", "nut", "pecan", "mesquite", "mixed", "none"},
		applies: always,
		Usual: func(c cut.Cut) string {
			switch c.Species {
			case "beef", "game":
				return "oak"
			case "poultry":
				return "fruit"
			}
			return "beech"
		},
	},
	{Key: Spritz, Stage: "fire", Values: []string{"none", "60", "45", "30"}, applies: always, Usual: fixed("none")},
	{
		Key:     Lid,
		Stage:   "forecast",
		Values:  []string{"unknown", "shut", "120", "60", "30"},
		applies: always,
		Usual:   fixed("unknown"),
	},
	{
		Key:     Weather,
		Stage:   "forecast",
		Values:  []string{"mild", "cold", "windy", "wet"},
		applies: always,
		Usual:   fixed("mild"),
	},
	{
		Key:     Wrap,
		Stage:   "fire",
		Values:  gear.WrapIDs(gear.Any),
		applies: always,
		Usual:   func(c cut.Cut) string { return c.Wrap },
	},
	{
		Key:     WrapAt,
		Stage:   "fire",
		Values:  []string{"0", "49", "60", "66", "71", "77"},
		of:      wrapsAt,
		applies: always,
		Usual: func(c cut.Cut) string {
			if slices.Contains([]cut.Family{cut.Collagen, cut.Rack, cut.Whole}, c.Family) {
				return "71"
			}
			return "49"
		},
	},
	{
		Key:     Tight,
		Stage:   "forecast",
		Values:  []string{"unknown", "tight", "usual", "loose"},
		applies: always,
		Usual:   fixed("unknown"),
	},
	{
		Key:     Shine,
		Stage:   "forecast",
		Values:  []string{"unknown", "shiny", "dull"},
		applies: always,
		Usual:   fixed("unknown"),
	},
	{
		Key:     InWrap,
		Stage:   "fire",
		Values:  []string{"nothing", "butter", "fat", "juice"},
		applies: always,
		Usual:   fixed("nothing"),
	},
	{
		Key:     Side,
		Stage:   "fire",
		Values:  []string{"fat-up", "fat-down"},
		applies: func(c cut.Cut) bool { return c.Family == cut.Collagen || c.Sealed == "fat" },
		Usual:   fixed("fat-up"),
	},
	{
		Key:     Lies,
		Stage:   "fire",
		Values:  []string{"unsaid", "near", "middle", "far", "top", "low"},
		applies: always,
		Usual:   fixed("unsaid"),
	},
	{Key: Pan, Stage: "fire", Values: []string{"none", "water"}, applies: always, Usual: fixed("none")},
	{
		Key:     Feel,
		Stage:   "fire",
		Values:  []string{"core", "probe", "bend", "bone", "wobble"},
		of:      feels,
		applies: func(c cut.Cut) bool { return len(feels(c)) > 1 },
		Usual:   func(c cut.Cut) string { return feels(c)[0] },
	},
	{
		Key:     Rest,
		Stage:   "rest",
		Values:  cut.Rests,
		applies: always,
		Usual:   func(c cut.Cut) string { return c.Custom().Rest },
	},
	{Key: Vent, Stage: "rest", Values: []string{"0", "5", "10", "15"}, applies: always, Usual: func(c cut.Cut) string {
		if c.Family == cut.Collagen {
			return "10"
		}
		return "0"
	}},
	{Key: PitVents, Stage: "rest", Values: []string{"open", "shut"}, applies: always, Usual: fixed("open")},
	{
		Key:     Slice,
		Stage:   "rest",
		Values:  []string{"sliced", "pulled", "whole", "separated"},
		of:      services,
		applies: always,
		Usual:   func(c cut.Cut) string { return c.Custom().Slice },
	},
}

var finishes = []string{"pink", "sliced", "pulled", "bones", "done", "whole"}

func finishesOf(c cut.Cut) []string {
	out := []string{}
	for _, f := range c.Finishes {
		out = append(out, string(f))
	}
	return out
}

// wrapsAt are core temperatures at which a cut is wrapped: meat that is taken off pink is
// wrapped from the start or never far on.
func wrapsAt(c cut.Cut) []string {
	if c.DoneC() > 80 {
		return []string{"60", "66", "71", "77"}
	}
	return []string{"0", "49", "60"}
}

// trims are what is taken off a cut besides its fat.
func trims(c cut.Cut) []string {
	out := []string{"nothing"}
	if c.Family == cut.Pink && c.Species != "pork" {
		out = append(out, "silver-skin")
	}
	if c.Noun == "brisket" || c.Noun == "point" {
		out = append(out, "deckle", "fat-kept")
	}
	if c.Sealed == "skin" {
		out = append(out, "skin")
	}
	if c.Family == cut.Rack || c.Sealed == "bone" {
		out = append(out, "bone-ends")
	}
	return out
}

// services are how a cut may be served; a whole brisket may be parted into point and flat.
func services(c cut.Cut) []string {
	out := []string{"sliced", "pulled", "whole"}
	if c.Noun == "brisket" {
		out = append(out, "separated")
	}
	return out
}

// feels are the ways to feel that a cut is done.
func feels(c cut.Cut) []string {
	switch c.Family {
	case cut.Collagen, cut.Whole:
		if c.BonePercent > 0 {
			return []string{"probe", "bone", "wobble"}
		}
		return []string{"probe", "wobble"}
	case cut.Rack:
		return []string{"bend", "bone", "probe"}
	}
	return []string{"core"}
}

// Of are the answers that a cut has.
func (d Decision) Of(c cut.Cut) []string {
	if d.of != nil {
		return d.of(c)
	}
	return d.Values
}

// retired are decisions of older pages that changed nothing.
var retired = []string{"cap", "scored"}

// Answers are the decisions of the stages of a piece of a cut.
type Answers struct {
	Typed map[string]string
	Cut   cut.Cut
}

func find(id string) int {
	return slices.IndexFunc(All, func(d Decision) bool { return d.Key.id == id })
}

// Chose is the answer to a decision, or the usual one; empty for one that the cut
// does not have.
func (a Answers) Chose(key Key) string {
	i := find(key.id)
	if i < 0 || a.Cut.ID == "" || !All[i].applies(a.Cut) {
		return ""
	}
	if typed := a.Typed[key.id]; typed != "" {
		return typed
	}
	return All[i].Usual(a.Cut)
}

// With returns the answers with one of them changed.
func (a Answers) With(key Key, value string) Answers {
	typed := maps.Clone(a.Typed)
	if typed == nil {
		typed = map[string]string{}
	}
	typed[key.id] = value
	return Answers{typed, a.Cut}
}

// Offered are the decisions that this cut has, with these answers.
func (a Answers) Offered() []*Decision {
	all := make([]*Decision, len(All))
	for i := range All {
		all[i] = &All[i]
	}
	wrapped := a.Chose(Wrap) != "none"
	inPit := a.Chose(Rest) == "pit" || a.Chose(Rest) == "pit-cooler"
	return slices.DeleteFunc(all, func(d *Decision) bool {
		return !d.applies(a.Cut) || !wrapped && (d.Key == WrapAt || d.Key == InWrap || d.Key == Tight) ||
			!inPit && d.Key == PitVents
	})
}

// Wrong is what is wrong with the answers, with pointers below them: an answer to a
// question that the cut does not have, or one that it does not know.
func (a Answers) Wrong() field.Errors {
	var out field.Errors
	if len(a.Typed) > 2*len(All) {
		out.Add("", "list.too-long", "most", len(All))
		return out
	}
	for _, key := range slices.Sorted(maps.Keys(a.Typed)) {
		value, i := a.Typed[key], find(key)
		switch {
		case slices.Contains(retired, key) || value == "":
		case i < 0:
			out.Add("/"+field.Key(key), "decision.unknown")
		case !slices.Contains(All[i].Values, value):
			out.Add("/"+field.Key(key), "choice.unknown", "choices", All[i].Of(a.Cut))
		case !slices.Contains(All[i].Of(a.Cut), value), !All[i].applies(a.Cut) && value != All[i].Usual(a.Cut):
			out.Add("/"+field.Key(key), "decision.not-this-cut", "cut", a.Cut.Name)
		}
	}
	return out
}
