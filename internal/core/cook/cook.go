// Package cook is the page as it was typed.
//
// A Cook holds amounts as typed ("4 lb 6 oz"), so that what a cook sees on return is
// what was written; nothing derived is stored. Empty fields mean the usual. Package order
// reads it.
//
//	c := cook.Cook{Name: "Supper", Pieces: []cook.Piece{{Cut: "pork-loin", Trimmed: "2 kg"}}}
package cook

import (
	"encoding/json"
	"fmt"
	"hash/fnv"
	"maps"
	"slices"
	"strconv"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// Cook is a cook's page as typed.
type Cook struct {
	Name      string            `json:"name" required:"false" doc:"What the cook-out is called" example:"Regatta supper"`
	ServeAt   string            `json:"serve_at" required:"false" doc:"Local time of serving, YYYY-MM-DDTHH:MM" example:"2026-11-28T18:30"`
	Zone      string            `json:"zone" required:"false" doc:"IANA time zone of the place; empty means UTC" example:"Europe/Dublin"`
	Guests    quantity.Count    `json:"guests" required:"false" doc:"Adults at table, 1 to 2000"`
	Children  quantity.Count    `json:"children,omitempty" required:"false" doc:"Children at table; one eats half a portion"`
	Appetite  string            `json:"appetite,omitempty" required:"false" doc:"light, usual or hearty; empty means usual"`
	Leftovers quantity.Count    `json:"leftovers,omitempty" required:"false" doc:"Portions wanted for later meals"`
	Portion   string            `json:"portion" required:"false" doc:"Cooked meat for one; empty means 180 g" example:"180 g"`
	Fridge    string            `json:"fridge" required:"false" doc:"Temperature of the fridge; empty means 4 °C"`
	Room      string            `json:"room" required:"false" doc:"Temperature where meat stands on the counter; empty means 21 °C"`
	Quiet     string            `json:"quiet,omitempty" required:"false" doc:"Hours in which nobody is woken; none, or empty for 23:00-06:00" example:"23:00-06:00"`
	Hands     quantity.Count    `json:"hands,omitempty" required:"false" doc:"Pairs of hands; empty means one"`
	Pits      []Pit             `json:"pits,omitempty" required:"false" nullable:"false" doc:"The pits; none means one that nothing is known of"`
	Weather   string            `json:"weather,omitempty" required:"false" doc:"The weather at the pits over the day; empty means mild, or what each piece says" example:"cold and windy until noon, then rain"`
	Probe     string            `json:"probe,omitempty" required:"false" doc:"What the probe shows in ice water; empty means 0 °C" example:"1.5 °C"`
	Plan      string            `json:"plan,omitempty" required:"false" doc:"Which plan was chosen: same-day, overnight or ahead; empty means the likeliest"`
	Wishes    []Wish            `json:"wishes,omitempty" required:"false" nullable:"false" doc:"Times that the cook has fixed"`
	Spoons    quantity.SpoonSet `json:"spoons,omitempty" required:"false" doc:"Whose spoons and cups are meant by the amounts of this page: us or metric; empty means us"`
	Pieces    []Piece           `json:"pieces" required:"false" nullable:"false"`
}

// Pit is one pit of the cook, as typed.
type Pit struct {
	ID   string `json:"id,omitempty" required:"false" maxLength:"36" doc:"Of the pit on record; empty when it has none"`
	Name string `json:"name" doc:"What the cook calls it" example:"Pellet cabinet"`
	Kind string `json:"kind" doc:"Kind of pit by id" example:"pellet"`
	Room string `json:"room" required:"false" doc:"Its grate, dm²; empty means the usual of its kind"`
	Sets string `json:"sets,omitempty" required:"false" doc:"What it is set to over the day, for all that is on it; empty means what each piece asks for" example:"107 °C from 23:00, 135 °C once wrapped"`
}

// Move is something that the cook does besides what the stages say, as typed.
type Move struct {
	Key     string           `json:"key,omitempty" required:"false" maxLength:"60" doc:"Tells moves of a piece apart"`
	What    string           `json:"what" doc:"spritz, baste, mop, look, turn, wood, fuel, probe, wrap, unwrap, dust, glaze, again, finish or other"`
	When    string           `json:"when" required:"false" doc:"As cooks say it" example:"every 45 min from bark set until the wrap"`
	With    string           `json:"with,omitempty" required:"false" doc:"Of a wrap: foil, paper, pan, boat or bacon; of an again: whole, or cubes or slices in a pan or on the grate; of an other: what is done, in words"`
	For     string           `json:"for,omitempty" required:"false" doc:"Of an again: how long it is on; empty means the usual" example:"1 to 1½ h"`
	Pit     string           `json:"pit,omitempty" required:"false" doc:"Of an again: what the pit is set to for it; empty means the usual" example:"135 °C"`
	Some    quantity.Count   `json:"some,omitempty" required:"false" doc:"For how many of the pieces; empty means all" example:"5"`
	Formula *formula.Formula `json:"formula,omitempty" required:"false" doc:"What it brings; absent for nothing"`
	Amount  string           `json:"amount,omitempty" required:"false" doc:"How much of it goes on, all times together"`
}

// Wish is a time that the cook has fixed for a stage of a piece.
type Wish struct {
	Piece string `json:"piece" doc:"Key of the piece"`
	Stage string `json:"stage" doc:"thaw, bath, salt or fire"`
	At    string `json:"at" doc:"Local time, YYYY-MM-DDTHH:MM"`
}

// Piece is one kind of piece, once or several times.
type Piece struct {
	Key       string            `json:"key,omitempty" required:"false" doc:"Tells it from the others of this cook, and stays"`
	Label     string            `json:"label" required:"false" doc:"The cook's own name for it; empty means the cut's"`
	ServeAt   string            `json:"serve_at,omitempty" required:"false" doc:"Local time at which this piece is served, YYYY-MM-DDTHH:MM; empty is with the rest" example:"2026-11-28T12:00"`
	Cut       string            `json:"cut" doc:"Cut id" example:"lamb-shoulder-bone-in"`
	Count     quantity.Count    `json:"count" required:"false" doc:"How many; empty means one"`
	Bought    string            `json:"bought" required:"false" doc:"Weight as bought" example:"2.7 kg"`
	Trimmed   string            `json:"trimmed" required:"false" doc:"Weight after trimming, if weighed; empty means by trim style" example:"2.4 kg"`
	Together  bool              `json:"together" required:"false" doc:"The weights are of all pieces together, not of each"`
	Each      []One             `json:"each,omitempty" required:"false" nullable:"false" doc:"Weights and thickness of each, when they are unlike; then count and the weights above do not count"`
	TrimStyle string            `json:"trim_style" required:"false" doc:"How it is trimmed when not weighed: light, usual, close; empty means usual"`
	Thickness string            `json:"thickness" required:"false" doc:"Measured at the thickest point; empty means estimated" example:"85 mm"`
	Faces     string            `json:"faces" required:"false" doc:"Where the coat goes: all, or one (one broad face is left bare); empty means as usual for the cut"`
	Season    Season            `json:"season" required:"false"`
	Bath      *Bath             `json:"bath,omitempty" doc:"A wet brine before the rub; absent when there is none"`
	Inject    *Injection        `json:"inject,omitempty" doc:"An injection before the rub; absent when there is none"`
	Layers    []Layer           `json:"layers,omitempty" required:"false" nullable:"false" doc:"More doses, in the order they go on"`
	Weighed   []string          `json:"weighed,omitempty" required:"false" nullable:"false" doc:"What was really weighed of each row of the rub, for all pieces, g; absent until it was"`
	Wait      Wait              `json:"wait" required:"false"`
	Fire      Fire              `json:"fire" required:"false"`
	When      map[string]string `json:"when,omitempty" required:"false" doc:"When moves of the stages are made, where that is more than a choice: wrap, off and spritz, as cooks say it"`
	Moves     []Move            `json:"moves,omitempty" required:"false" nullable:"false" doc:"What is done besides what the stages say"`
	Choices   map[string]string `json:"choices,omitempty" required:"false" doc:"Answers to the decisions of the stages, by key; what is missing means the usual"`
	Grain     string            `json:"grain,omitempty" required:"false" doc:"Which way the grain runs, degrees from the length, 0 to 179; empty is not marked"`
	TrimNote  string            `json:"trim_note,omitempty" required:"false" doc:"What to remember of the trimming"`
}

// One is one of several unlike pieces of a line.
type One struct {
	Bought    string `json:"bought,omitempty" required:"false" doc:"Weight as bought" example:"3.1 kg"`
	Trimmed   string `json:"trimmed,omitempty" required:"false" doc:"Weight after trimming, if weighed"`
	Thickness string `json:"thickness,omitempty" required:"false" doc:"Measured at the thickest point; empty means estimated"`
}

// Season is how a piece is salted and seasoned.
type Season struct {
	Formula formula.Formula `json:"formula" required:"false"`
	Mode    string          `json:"mode" required:"false" doc:"How the amount is set: target, coat or amount; empty means target for a salt-led mix, else coat"`
	Amount  string          `json:"amount,omitempty" required:"false" doc:"By amount: how much goes on all pieces, as a cook says it: 3/4 cup, 85 g, 30 g each, 1 Tbsp/lb, all of it, one jar" example:"3/4 cup"`
	Target  string          `json:"target" required:"false" doc:"Salt wanted, % of raw boneless meat; empty means 0.9 %" example:"0.9 %"`
	Coat    string          `json:"coat" required:"false" doc:"light, medium, heavy or crust; empty means medium"`
	Binder  bool            `json:"binder" required:"false" doc:"A binder is brushed on first: prepared mustard, unless a layer of kind binder says what"`
	Free    string          `json:"free,omitempty" required:"false" doc:"Which source gives way to the target: rub, bath, inject, or layer-N (from 0); empty means rub"`
	Band    string          `json:"band" required:"false" doc:"How salty the cook wants it: mild, seasoned, bold or cured; empty means seasoned"`
	Spare   string          `json:"spare" required:"false" doc:"Mixed over what is needed, %; empty means 10 %"`
}

// Bath is a wet brine before the rub.
type Bath struct {
	Kind     string `json:"kind" required:"false" doc:"strong (lifted out in time) or equilibrium (cannot overshoot); empty means equilibrium"`
	Strength string `json:"strength" required:"false" doc:"Of a strong bath, % of salt by weight; empty means 6 %"`
	Target   string `json:"target" required:"false" doc:"Salt wanted from the bath, % of raw boneless meat; empty means 0.7 %"`
	Salt     string `json:"salt,omitempty" required:"false" doc:"Salt that is added, as a recipe says it, instead of by strength or target: 250 g, 60 g/L, 1 cup table salt in 5 qt, none" example:"60 g/L"`
	Liquid   string `json:"liquid" required:"false" doc:"Liquid in the pot for all pieces; empty means what covers them" example:"4 L"`
	Pot      string `json:"pot" required:"false" doc:"What the pot holds" example:"10 L"`
	For      string `json:"for" required:"false" doc:"Time in the bath; empty means 18 h"`
	Hot      string `json:"hot" required:"false" doc:"Temperature of the part that is boiled up, before ice; empty means 95 °C"`
	With     []Dose `json:"with,omitempty" required:"false" nullable:"false" doc:"What goes into it besides salt: juice or beer instead of water, sugar, spice"`
}

// Dose is an amount of a formula.
type Dose struct {
	Formula formula.Formula `json:"formula"`
	Amount  string          `json:"amount" doc:"A share of the liquid in place of water (50 %), a weight or a measure" example:"50 %"`
}

// Injection is brine through the needle before the rub.
type Injection struct {
	Formula formula.Formula `json:"formula"`
	Amount  string          `json:"amount,omitempty" required:"false" doc:"How much goes into all pieces, as a cook says it: 6 cups, 200 mL each, all of it; empty means by pump" example:"6 cups"`
	Pump    string          `json:"pump" required:"false" doc:"Injected, % of the trimmed weight; empty means 8 %"`
	Spacing string          `json:"spacing" required:"false" doc:"Of the grid; empty means 2.5 cm"`
	Syringe string          `json:"syringe" required:"false" doc:"What the syringe holds; empty means 60 mL"`
	Bore    string          `json:"bore" required:"false" doc:"Of the needle; empty means 2 mm"`
	Avoid   []string        `json:"avoid,omitempty" required:"false" nullable:"false" doc:"Where the needle does not go: edge, bone (the middle, lengthwise), thin-end"`
}

// Layer is one more dose on a piece, besides its rub.
type Layer struct {
	Kind    string          `json:"kind" doc:"base, dusting, binder, spritz, wrap, glaze, finish or juices"`
	Formula formula.Formula `json:"formula"`
	Amount  string          `json:"amount" doc:"On one piece: a weight, a measure, so much a pound or kilo, % of its trimmed weight, or a coat (light, medium, heavy); in all means over all pieces" example:"2 Tbsp"`
}

// Wait is the time between salt and fire.
type Wait struct {
	Style string `json:"style" required:"false" doc:"minutes, overnight or day; empty means overnight"`
	For   string `json:"for" required:"false" doc:"How long; empty means the usual for the style" example:"12 h"`
	Open  bool   `json:"open" required:"false" doc:"Uncovered in the fridge, for a dry surface"`
}

// Fire is what the clock has to know of the fire so far.
type Fire struct {
	Pit    string `json:"pit" required:"false" doc:"Pit temperature; empty means the cut's usual" example:"120 °C"`
	Time   string `json:"time" required:"false" doc:"Time on the fire; empty means estimated" example:"7 h"`
	Rest   string `json:"rest" required:"false" doc:"Rest before slicing, one after another where there are several; empty means the cut's usual" example:"10 min vented, 3 h cooler, 40 min travel"`
	Temper string `json:"temper" required:"false" doc:"On the counter before the fire; empty means straight from the fridge"`
	On     int    `json:"on,omitempty" required:"false" doc:"Which of the cook's pits, from 0"`
	Wood   string `json:"wood,omitempty" required:"false" doc:"Woods in parts, where the decision on wood is mixed" example:"2 oak, 1 cherry"`
	Guess  string `json:"guess,omitempty" required:"false" doc:"What the cook thinks it takes, to be held against what it took: 8 h, or a rule by weight, 1 h/lb" example:"8 h"`
	Done   string `json:"done,omitempty" required:"false" doc:"Core temperature at which it is taken off; empty means the cut's usual" example:"95 °C"`
}

// MaxText is the longest text of a line, in characters.
const MaxText = 200

// TimeLayout is how times of day are typed.
const TimeLayout = "2006-01-02T15:04"

// Keyed returns c with a key for every piece that has none. Keys are set when a
// piece is made; one that comes without gets its key from what is typed of it, so
// that the order of the pieces plays no part. c is not changed.
func Keyed(c Cook) Cook {
	c.Pieces = slices.Clone(c.Pieces)
	taken := map[string]bool{}
	for _, p := range c.Pieces {
		taken[p.Key] = true
	}
	for i, p := range c.Pieces {
		if p.Key != "" {
			continue
		}
		raw, err := json.Marshal(p)
		if err != nil {
			raw = []byte(p.Cut)
		}
		sum := fnv.New64a()
		sum.Write(raw)
		base := fmt.Sprintf("k%08x", uint32(sum.Sum64()))
		key := base
		for n := 2; taken[key]; n++ {
			key = base + "-" + strconv.Itoa(n)
		}
		c.Pieces[i].Key, taken[key] = key, true
	}
	return c
}

// Packs are what bottles, cans and packets of an ingredient hold by c's amounts, by its id.
func (c Cook) Packs() map[string]string {
	out := map[string]string{}
	take := func(f formula.Formula, amount string) {
		maps.Copy(out, f.Packs())
		if size := larder.PackSaid(amount); size != "" && len(f.Rows) == 1 && f.Rows[0].Ingredient != "" {
			out[f.Rows[0].Ingredient] = size
		}
	}
	for _, p := range c.Pieces {
		take(p.Season.Formula, p.Season.Amount)
		if p.Bath != nil {
			for _, d := range p.Bath.With {
				take(d.Formula, d.Amount)
			}
		}
		if p.Inject != nil {
			take(p.Inject.Formula, p.Inject.Amount)
		}
		for _, l := range p.Layers {
			take(l.Formula, l.Amount)
		}
		for _, m := range p.Moves {
			if m.Formula != nil {
				take(*m.Formula, m.Amount)
			}
		}
	}
	return out
}

// Formulas are the ids of the formulas that c's doses are or use, those that ship
// with the program left out: what a kitchen has to hold to read it.
func (c Cook) Formulas() []string {
	var out []string
	take := func(f formula.Formula) {
		if _, shipped := formula.FindReadyMade(f.ID); f.ID != "" && !shipped {
			out = append(out, f.ID)
		}
		out = append(out, f.Uses()...)
	}
	for _, p := range c.Pieces {
		take(p.Season.Formula)
		if p.Bath != nil {
			for _, d := range p.Bath.With {
				take(d.Formula)
			}
		}
		if p.Inject != nil {
			take(p.Inject.Formula)
		}
		for _, l := range p.Layers {
			take(l.Formula)
		}
		for _, m := range p.Moves {
			if m.Formula != nil {
				take(*m.Formula)
			}
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}
