// Package gear knows what a fire is made of and what meat is wrapped in: the kinds of pit and of wrap, one line
// of a table each. All that is known of one stands there: how it heats, what it burns, how long it runs by
// itself, how it is called.
//
//	kettle, ok := gear.FindPit("kettle")
//	kettle.Alone   // 6 h that it runs unattended
//	foil, ok := gear.FindWrap("foil")
//	foil.Covers    // 1: all of the piece
package gear

import (
	"embed"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/table"
)

//go:embed *.csv
var data embed.FS

// Pit is a kind of pit. Figures are field experience in round numbers.
type Pit struct {
	ID      string        `json:"id"`
	Name    string        `json:"name"`
	Note    string        `json:"note" doc:"What it asks of the cook, in a few words"`
	Preheat time.Duration `json:"-"` // from lighting to settled
	Alone   time.Duration `json:"-"` // that it runs unattended
	Holds   bool          `json:"holds" doc:"It can be left to keep meat warm by itself"`
	RoomDM2 float64       `json:"room_dm2" doc:"Usual grate, dm²"`
	Heat    Heat          `json:"-"`
	Fuel    string        `json:"-"` // a supply of the larder; empty when it burns none
	FuelKG  float64       `json:"-"` // burnt in an hour at 110 to 130 °C in calm weather
	Checks  string        `json:"-"` // what is seen to before it is lit, ids with spaces between them
}

// Heat is how a kind of pit gives its heat: a fan moves the air, a thick wall keeps the weather out. Field
// judgement.
type Heat struct {
	Convect  float64 // W/m²K
	RecoverS float64 // time constant after the lid was open
	Thin     float64 // how much of the weather it feels

	Smokeless bool // a bark takes longer
}

// Wrap is a kind of wrap.
type Wrap struct {
	ID     string
	Name   string  // as it is chosen
	Said   string  // as in "wrap in paper"
	Note   string  // what it does, in a few words
	Sheet  string  // what it is made of: foil, paper, or a cover of fat; empty is no wrap
	Covers float64 // share of the piece
	Floor  float64 // heat that its floor takes up, share of what the piece would; 0 when it has none
	Supply string  // of the larder; empty when it uses none up
	OnFire bool    // it can be put on in the middle of a cook
	Also   string  // another word for it
}

// Pits and Wraps are all of them, in the order in which they are offered.
var (
	Pits  []Pit
	Wraps []Wrap
)

func init() {
	for _, r := range table.Read(data, "pits.csv") {
		minutes := func(column string) time.Duration { return time.Duration(r.Num(column)) * time.Minute }
		Pits = append(Pits, Pit{
			ID: r["id"], Name: r["name"], Note: r["note"], Preheat: minutes("preheat_min"), Alone: minutes("alone_min"),
			Holds: r.Yes("holds"), RoomDM2: r.Num("room_dm2"),
			Heat: Heat{r.Num("convect"), r.Num("recover_s"), r.Num("thin"), r.Yes("smokeless")},
			Fuel: r["fuel"], FuelKG: r.Num("fuel_kg_h"), Checks: r["checks"],
		})
	}
	for _, r := range table.Read(data, "wraps.csv") {
		Wraps = append(Wraps, Wrap{
			ID: r["id"], Name: r["name"], Said: r["said"], Note: r["note"], Sheet: r["sheet"], Covers: r.Num("covers"),
			Floor: r.Num("floor"), Supply: r["supply"], OnFire: r.Yes("on_fire"), Also: r["also"],
		})
	}
}

// FindPit returns the kind of that id.
func FindPit(id string) (Pit, bool) {
	i := slices.IndexFunc(Pits, func(p Pit) bool { return p.ID == id })
	if i < 0 {
		return Pit{}, false
	}
	return Pits[i], true
}

// usual is the pit that one burns like of which nothing is known.
const usual = "cabinet"

// UsualPit is the kind of that id, or the usual one for a cook who has named none.
func UsualPit(id string) (kind Pit, named bool) {
	if kind, named = FindPit(id); !named {
		kind, _ = FindPit(usual)
	}
	return kind, named
}

// Before is what is seen to before the pit is lit, by id.
func (p Pit) Before() []string { return strings.Fields(p.Checks) }

// NoWrap is the wrap of a piece that is left bare.
const NoWrap = "none"

// FindWrap returns the kind of that id.
func FindWrap(id string) (Wrap, bool) {
	i := slices.IndexFunc(Wraps, func(w Wrap) bool { return w.ID == id })
	if i < 0 {
		return Wrap{}, false
	}
	return Wraps[i], true
}

// WrapIDs are the ids of the wraps that a test is true for.
func WrapIDs(which func(Wrap) bool) []string {
	var out []string
	for _, w := range Wraps {
		if which(w) {
			out = append(out, w.ID)
		}
	}
	return out
}

// OnFire reports whether the wrap can be put on in the middle of a cook.
func OnFire(w Wrap) bool { return w.OnFire }

// Any is true for every wrap, none too.
func Any(Wrap) bool { return true }
