// Package sheet is the cook sheet: it takes a cook's page as it was typed and
// gives back every figure on it, every mistake with the place it was made, and
// the cautions that apply.
//
//	s := sheet.Compute(cook, sheet.Options{Now: time.Now()})
//	s.Pieces[0].Season.OnMeat.Text   // "57"
//
// Amounts are kept as typed ("4 lb 6 oz"), so that what a cook sees on return is
// what was written; nothing derived is stored. Empty fields mean the usual.
package sheet

import (
	"strconv"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
)

// Cook is a cook's page as typed.
type Cook struct {
	Name      string     `json:"name" required:"false" doc:"What the cook is called" example:"Regatta supper"`
	ServeAt   string     `json:"serve_at" required:"false" doc:"Local time of serving, YYYY-MM-DDTHH:MM" example:"2026-11-28T18:30"`
	Zone      string     `json:"zone" required:"false" doc:"IANA time zone of the place; empty means UTC" example:"Europe/Dublin"`
	Guests    int        `json:"guests" required:"false" doc:"Grown-ups at table, 1 to 2000"`
	Children  int        `json:"children,omitempty" required:"false" doc:"Children at table; one eats half a portion"`
	Appetite  string     `json:"appetite,omitempty" required:"false" doc:"light, usual or hearty; empty means usual"`
	Leftovers int        `json:"leftovers,omitempty" required:"false" doc:"Portions to have left for later dishes"`
	Portion   string     `json:"portion" required:"false" doc:"Cooked meat for one; empty means 180 g" example:"180 g"`
	Fridge    string     `json:"fridge" required:"false" doc:"Temperature of the fridge; empty means 4 °C"`
	Room      string     `json:"room" required:"false" doc:"Temperature where meat stands on the counter; empty means 21 °C"`
	Quiet     string     `json:"quiet,omitempty" required:"false" doc:"Hours in which nobody is woken; none, or empty for 23:00-06:00" example:"23:00-06:00"`
	Hands     int        `json:"hands,omitempty" required:"false" doc:"Pairs of hands; 0 means one"`
	Pits      []PitTyped `json:"pits,omitempty" required:"false" nullable:"false" doc:"The pits; none means one that nothing is known of"`
	Plan      string     `json:"plan,omitempty" required:"false" doc:"Which plan was chosen: same-day, overnight or ahead; empty means the likeliest"`
	Marks     []Mark     `json:"marks,omitempty" required:"false" nullable:"false" doc:"Times fixed, and what has happened, in the order it was said"`
	Acks      []Ack      `json:"acks,omitempty" required:"false" nullable:"false" doc:"Stops that were read and acknowledged"`
	Pieces    []Piece    `json:"pieces" required:"false" nullable:"false"`
}

// Piece is one kind of piece, once or several times.
type Piece struct {
	Key       string            `json:"key,omitempty" required:"false" doc:"Tells it from the others of this cook, and stays"`
	Label     string            `json:"label" required:"false" doc:"The cook's own name for it; empty means the cut's"`
	Cut       string            `json:"cut" doc:"Cut id" example:"lamb-shoulder-bone-in"`
	Count     int               `json:"count" required:"false" doc:"How many; 0 means one"`
	Bought    string            `json:"bought" required:"false" doc:"Weight as bought" example:"2.7 kg"`
	Trimmed   string            `json:"trimmed" required:"false" doc:"Weight after trimming, if weighed; empty means by trim style" example:"2.4 kg"`
	Together  bool              `json:"together" required:"false" doc:"The weights are of all pieces together, not of each"`
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
	Choices   map[string]string `json:"choices,omitempty" required:"false" doc:"Answers to the decisions of the stages, by key; what is missing means the usual"`
	Grain     string            `json:"grain,omitempty" required:"false" doc:"Which way the grain runs, degrees from the length, 0 to 179; empty is not marked"`
	TrimNote  string            `json:"trim_note,omitempty" required:"false" doc:"What to remember of the trimming"`
}

// Season is how a piece is salted and seasoned.
type Season struct {
	Formula formula.Formula `json:"formula" required:"false"`
	Mode    string          `json:"mode" required:"false" doc:"What drives the amount: target or coat; empty means target for a salt-led mix, else coat"`
	Target  string          `json:"target" required:"false" doc:"Salt wanted, % of raw boneless meat; empty means 0.9 %" example:"0.9 %"`
	Coat    string          `json:"coat" required:"false" doc:"light, medium, heavy or crust; empty means medium"`
	Binder  bool            `json:"binder" required:"false" doc:"A binder is brushed on first"`
	Free    string          `json:"free,omitempty" required:"false" doc:"Which source gives way to the target: rub, bath, inject, or layer-N (from 0); empty means rub"`
	Band    string          `json:"band" required:"false" doc:"How salty the cook wants it: mild, seasoned, bold or cured; empty means seasoned"`
	Spare   string          `json:"spare" required:"false" doc:"Mixed over what is needed, %; empty means 10 %"`
}

// Bath is a wet brine before the rub.
type Bath struct {
	Kind     string `json:"kind" required:"false" doc:"strong (lifted out in time) or equilibrium (cannot overshoot); empty means equilibrium"`
	Strength string `json:"strength" required:"false" doc:"Of a strong bath, % of salt by weight; empty means 6 %"`
	Target   string `json:"target" required:"false" doc:"Salt wanted from the bath, % of raw boneless meat; empty means 0.7 %"`
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
	Amount  string          `json:"amount" doc:"On one piece: a weight, a measure, % of its trimmed weight, or a coat (light, medium, heavy)" example:"2 Tbsp"`
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
	Rest   string `json:"rest" required:"false" doc:"Rest before slicing; empty means the cut's usual" example:"45 min"`
	Temper string `json:"temper" required:"false" doc:"On the counter before the fire; empty means straight from the fridge"`
	On     int    `json:"on,omitempty" required:"false" doc:"Which of the cook's pits, from 0"`
	Done   string `json:"done,omitempty" required:"false" doc:"Core temperature at which it is taken off; empty means the cut's usual" example:"95 °C"`
}

// Options are the circumstances of a computation.
type Options struct {
	Units  quantity.System
	Spoons quantity.SpoonSet
	Now    time.Time // what time it is; the zero time switches off what depends on it
	// ServedAt is the serving time already on record: keeping it is no mistake
	// even when it has passed.
	ServedAt string
	// Shelf is what the kitchen has of its own: formulas, ingredients, prices.
	Shelf formula.Shelf
	// Forecast says how long a piece is on the fire; nil means by experience.
	Forecast plan.Forecaster
}

// Limits on a page.
const (
	MaxPieces = 24
	maxCount  = 500
	maxGuests = 2000
	maxText   = 200
	maxLayers = 12
	maxWith   = 8
)

// Usual values, shown where the cook has typed nothing.
const (
	UsualPortion = "180 g"
	UsualFridge  = "4 °C"
	UsualRoom    = "21 °C"
	UsualTarget  = "0.9 %"
	UsualSpare   = "10 %"
)

// usualWait is the wait of each style.
var usualWait = map[string]string{"minutes": "30 min", "overnight": "10 h", "day": "24 h"}

// Usual is what empty fields mean.
type Usual struct {
	Portion      string            `json:"portion"`
	Fridge       string            `json:"fridge"`
	Room         string            `json:"room"`
	Target       string            `json:"target"`
	Spare        string            `json:"spare"`
	Wait         map[string]string `json:"wait" doc:"By style of wait"`
	BathStrength string            `json:"bath_strength"`
	BathTarget   string            `json:"bath_target"`
	BathTime     string            `json:"bath_time"`
	BathHot      string            `json:"bath_hot"`
	Pump         string            `json:"pump"`
	Spacing      string            `json:"spacing"`
	Syringe      string            `json:"syringe"`
	Bore         string            `json:"bore"`
	Quiet        string            `json:"quiet"`
}

// UsualValues are the usual values of a page.
var UsualValues = Usual{
	UsualPortion, UsualFridge, UsualRoom, UsualTarget, UsualSpare, usualWait,
	UsualStrength, UsualBathTarget, UsualBathTime, UsualHot, UsualPump, UsualSpacing, UsualSyringe, UsualBore, UsualQuiet,
}

// NewPiece returns a piece of c at its usual weight, seasoned with the first of
// the formulas that ship with the program.
func NewPiece(c cut.Cut, units quantity.System) Piece {
	p := Piece{
		Cut: c.ID, Count: 1, TrimStyle: "usual",
		Bought: quantity.FormatMass(quantity.Mass(c.TypicalKG/(1-c.TrimLoss.Mid/100)), units),
		Season: Season{Formula: formula.House()[0], Target: UsualTarget, Coat: "medium", Band: "seasoned"},
		Wait:   Wait{Style: "overnight", Open: true},
	}
	return p
}

// NewCook returns an empty page for a Saturday evening ahead of now, which also
// gives the time zone.
func NewCook(now time.Time, guests int) Cook {
	days := (int(time.Saturday) - int(now.Weekday()) + 7) % 7
	if days < 2 {
		days += 7
	}
	day := now.AddDate(0, 0, days)
	serve := time.Date(day.Year(), day.Month(), day.Day(), 18, 30, 0, 0, now.Location())
	return Cook{ServeAt: serve.Format(timeLayout), Zone: now.Location().String(), Guests: guests, Pieces: []Piece{}}
}

const timeLayout = "2006-01-02T15:04"

func at(pointer string, i int) string { return pointer + "/" + strconv.Itoa(i) }

// Keyed gives every piece of c that has none a key of its own.
func Keyed(c Cook) Cook {
	taken := map[string]bool{}
	for _, p := range c.Pieces {
		taken[p.Key] = true
	}
	for i := range c.Pieces {
		for n := i + 1; c.Pieces[i].Key == ""; n++ {
			if key := "p" + strconv.Itoa(n); !taken[key] {
				c.Pieces[i].Key, taken[key] = key, true
			}
		}
	}
	return c
}
