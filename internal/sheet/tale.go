package sheet

import (
	"cmp"
	"fmt"
	"math"

	"verjuice/internal/core/field"
	"verjuice/internal/core/retelling"
)

// ToldSheet is a text about a cook as it is understood.
type ToldSheet struct {
	Acts    []ToldAct    `json:"acts" nullable:"false" doc:"What was done, read, seen or felt, in the order of time"`
	Notes   []string     `json:"notes" nullable:"false" doc:"Remarks, word for word"`
	Weights []ToldWeight `json:"weights" nullable:"false"`
	Asks    []ToldAsk    `json:"asks" nullable:"false" doc:"What can be read two ways or not at all: it is no act until it is answered"`
	Unread  []ToldWord   `json:"unread" nullable:"false" doc:"Words that are not understood"`
	Errors  []Mistake    `json:"errors" nullable:"false" doc:"What is wrong with the request"`
}

// ToldAct is one thing that was done.
type ToldAct struct {
	What      string  `json:"what" enum:"fire,on,wrap,unwrap,set,spritz,baste,glaze,dust,turn,move,look,seen,felt,read,wood,fuel,out,light,off,rest,slice"`
	At        string  `json:"at" doc:"RFC 3339"`
	Until     string  `json:"until,omitempty" required:"false" doc:"RFC 3339; of what went on"`
	RepeatMin float64 `json:"repeat_min,omitempty" required:"false" doc:"Again and again until then, min"`
	SlackMin  float64 `json:"slack_min,omitempty" required:"false" doc:"How far the time may be off either way, where a range was told, min"`
	CoreC     float64 `json:"core_c,omitempty" required:"false" doc:"Core that was read then, °C"`
	SetC      float64 `json:"set_c,omitempty" required:"false" doc:"What the pit was set to, °C"`
	Kind      string  `json:"kind,omitempty" required:"false" doc:"Of a wrap, of where it rested, of what was seen and how, of how it felt, of how it was cut"`
	Place     string  `json:"place,omitempty" required:"false" doc:"In the piece"`
	Which     string  `json:"which,omitempty" required:"false" doc:"Of several pieces: first, second, other, last, both, all"`
	From      [2]int  `json:"from" nullable:"false" doc:"Where it stands in the text: first byte, and the one after the last"`
	Time      string  `json:"time" doc:"As it is shown"`
	Label     string  `json:"label" doc:"As it is shown"`
}

// ToldWeight is something that was weighed.
type ToldWeight struct {
	Of string  `json:"of" enum:"trimmed,cooked,bones,mixed,left,kept"`
	KG float64 `json:"kg"`
}

// ToldAsk is a question about a clause.
type ToldAsk struct {
	From     [2]int      `json:"from" nullable:"false" doc:"Bytes of the clause in the text"`
	Question string      `json:"question"`
	Offers   []ToldOffer `json:"offers" nullable:"false"`
}

// ToldOffer is one way to read a clause.
type ToldOffer struct {
	Text string `json:"text" doc:"As it is offered"`
	Edit string `json:"edit" doc:"What to put in place of the clause"`
}

// ToldWord is a word that is not understood.
type ToldWord struct {
	From [2]int `json:"from" nullable:"false" doc:"Bytes in the text"`
	Text string `json:"text"`
}

// WriteTold says how a text is understood.
func WriteTold(told retelling.Told, wrong field.Errors, as Reader) ToldSheet {
	w := writer{Reader: as}
	out := ToldSheet{
		Acts: []ToldAct{}, Notes: []string{}, Weights: []ToldWeight{}, Asks: []ToldAsk{}, Unread: []ToldWord{},
		Errors: append([]Mistake{}, Mistakes(wrong, as)...),
	}
	for _, a := range told.Acts {
		out.Acts = append(out.Acts, w.toldAct(a))
	}
	for _, n := range told.Notes {
		out.Notes = append(out.Notes, n.Text)
	}
	for _, g := range told.Weights {
		out.Weights = append(out.Weights, ToldWeight{g.Of, math.Round(1000*g.KG) / 1000})
	}
	for _, q := range told.Asks {
		ask := ToldAsk{From: q.From, Question: field.Capital(w.say(q.Why)), Offers: []ToldOffer{}}
		for _, o := range q.Offers {
			ask.Offers = append(ask.Offers, ToldOffer{w.say(o.Wrong), o.Edit})
		}
		out.Asks = append(out.Asks, ask)
	}
	for _, u := range told.Unread {
		out.Unread = append(out.Unread, ToldWord{u.From, u.Text})
	}
	return out
}

func (w writer) toldAct(a retelling.Act) ToldAct {
	out := ToldAct{
		What: a.What, At: iso(a.At), CoreC: math.Round(10*a.CoreC) / 10, SetC: math.Round(10*a.SetC) / 10,
		Kind: a.Kind, Place: a.Place,
		Which: a.Which, From: a.From, Time: a.At.Format("Mon 15:04"), RepeatMin: a.Every.Minutes(),
		SlackMin: a.Slack.Minutes(),
		Label:    toldWords[a.What],
	}
	if out.Label == "" {
		out.Label = pressed(a.What)
	}
	switch {
	case a.What == "set":
		out.Label = "Pit set to " + w.short(a.SetC)
	case a.What == "wrap" && a.Kind != "":
		out.Label += " in " + cmp.Or(toldWraps[a.Kind], wrapName(a.Kind))
	case a.What == "unwrap" && a.Kind == "opened":
		out.Label = "Opened the wrap"
	case a.What == "unwrap" && a.Kind == "vented":
		out.Label = "Vented"
	case a.What == "seen":
		out.Label = "Seen: " + a.Kind
	case a.What == "felt":
		out.Label = "Felt: " + a.Kind
	case a.What == "rest" && a.Kind != "":
		out.Label += " " + toldPlaces[a.Kind]
	case a.What == "slice":
		out.Label = field.Capital(toldCuts[a.Kind])
	case a.Kind != "":
		out.Label += ", " + a.Kind
	}
	switch {
	case a.What == "read":
		out.Label = "Core at " + w.short(a.CoreC)
	case a.CoreC > 0:
		out.Label += ", core at " + w.short(a.CoreC)
	}
	if a.Place != "" {
		out.Label += ", in the " + a.Place
	}
	if a.Which != "" {
		out.Label += ", " + toldWhich[a.Which]
	}
	if a.Every > 0 {
		out.Label += fmt.Sprintf(", every %s", duration(a.Every))
	}
	if !a.Until.IsZero() {
		out.Until = iso(a.Until)
		out.Label += " until " + a.Until.Format("15:04")
	}
	if a.Slack > 0 {
		out.Label += ", give or take " + duration(a.Slack)
	}
	return out
}

// toldWraps are wraps that are named otherwise than at the pit, or not made there.
var toldWraps = map[string]string{"brown-paper": "plain brown paper", "leaves": "leaves"}

// toldWhich are which of several pieces it was.
var toldWhich = map[string]string{
	"first": "the first one", "second": "the second one", "third": "the third one", "other": "the other one",
	"last": "the last one", "both": "both of them", "all": "all of them",
}

// toldPlaces are where it rested, toldCuts how it was cut.
var (
	toldPlaces = map[string]string{
		"cooler": "in a cooler", "oven": "in the oven", "counter": "on the counter", "board": "on a board",
		"tray":   "in a tray",
		"holder": "in a warm box", "pit": "in the pit",
	}
	toldCuts = map[string]string{
		"":       "served",
		"sliced": "sliced", "pulled": "pulled apart", "chopped": "chopped", "cubed": "cubed", "burnt-ends": "burnt ends made",
	}
)

// toldWords are acts that have no press of their own.
var toldWords = map[string]string{
	"on": "Put on again", "off": "Taken off the fire", "move": "Moved", "light": "Pit lit",
}
