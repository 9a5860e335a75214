// Package logbook is what became of cooks, and what a book of them teaches: what each weighed, how long it
// took, what its pit did and how it tasted, as plain values to keep, compare and learn from.
//
//	loin := logbook.Piece{Cut: "pork-loin", Hours: 2.4, Predicted: logbook.Band{Low: 2, Mid: 2.5, High: 3}}
//	o := logbook.Outcome{Pieces: []logbook.Piece{loin}}
//	o.Pieces[0].Late()   // −0.04: a little quicker than thought
//	logbook.Learn(all).Pits["…"].Off.Mid   // °C that this pit runs over what it is set to
package logbook

import (
	"math"

	"verjuice/internal/core/facts"
)

// Model is the version of the models that an Outcome was worked out with. One of an older version is
// worked out again.
const Model = 2

// Band is where a figure was thought to lie.
type Band struct {
	Low  float64 `json:"low"`
	Mid  float64 `json:"mid"`
	High float64 `json:"high"`
}

// Outcome is what became of a cook.
type Outcome struct {
	Model    int      `json:"model"`
	Name     string   `json:"name"`
	Day      string   `json:"day" doc:"When it was eaten, or else when it came off (YYYY-MM-DD)"`
	ServeAt  string   `json:"serve_at,omitempty" required:"false" doc:"When it was to be eaten, RFC 3339"`
	ServedAt string   `json:"served_at,omitempty" required:"false" doc:"When the first of it was sliced, RFC 3339"`
	Weather  string   `json:"weather,omitempty" required:"false"`
	Finished bool     `json:"finished" doc:"The cook has said that it is over"`
	Misread  bool     `json:"misread,omitempty" required:"false" doc:"Told in words that were not kept, by a version that may have misread them: it teaches nothing"`
	Pieces   []Piece  `json:"pieces" nullable:"false"`
	Notes    []string `json:"notes" nullable:"false" doc:"What to remember of the whole cook"`
}

// Piece is what became of a piece. What is not known is zero.
type Piece struct {
	Key     string  `json:"key"`
	Label   string  `json:"label"`
	Cut     string  `json:"cut"`
	Finish  string  `json:"finish"`
	Count   int     `json:"count"`
	PitID   string  `json:"pit_id,omitempty" required:"false" doc:"Of the pit on record"`
	PitKind string  `json:"pit_kind"`
	PitName string  `json:"pit_name,omitempty" required:"false"`
	Formula string  `json:"formula,omitempty" required:"false" doc:"Name of the rub"`
	Wrap    string  `json:"wrap" doc:"none, or what it was wrapped in"`
	GreenKG float64 `json:"green_kg" doc:"Trimmed, of all"`

	On        string  `json:"on" doc:"RFC 3339"`
	Off       string  `json:"off,omitempty" required:"false" doc:"RFC 3339"`
	Sliced    string  `json:"sliced,omitempty" required:"false" doc:"RFC 3339"`
	Chilled   string  `json:"chilled,omitempty" required:"false" doc:"What is left was put to cool, RFC 3339"`
	Cold      string  `json:"cold,omitempty" required:"false" doc:"It was cold, RFC 3339"`
	Hours     float64 `json:"hours" doc:"On the fire"`
	Predicted Band    `json:"thought" doc:"Hours, as they were thought when it went on"`
	AfterTwo  *Band   `json:"after_two,omitempty" required:"false" doc:"Hours, as they were thought after two hours of readings"`
	GuessH    float64 `json:"guess_h,omitempty" required:"false" doc:"Hours, as the cook guessed"`
	SetC      float64 `json:"set_c" doc:"What the pit was set to at first, °C"`
	AirN      int     `json:"air_n" doc:"Readings of the pit, by the minute"`
	AirOffC   float64 `json:"air_off_c" doc:"How far they were from what it was set to, in the middle, °C"`
	Pace      float64 `json:"pace,omitempty" required:"false" doc:"How much longer the core took than it would have by the pit as it was read, ln; zero when that is not known"`
	Tender    float64 `json:"tender,omitempty" required:"false" doc:"Tenderness by the model when it was felt soft, ln; zero when that was not felt"`
	CoreC     float64 `json:"core_c,omitempty" required:"false" doc:"Highest core on record, °C"`
	MM        float64 `json:"mm" doc:"Thickest point"`

	CookedKG float64 `json:"cooked_kg,omitempty" required:"false" doc:"Weighed off the fire, of all"`
	BonesKG  float64 `json:"bones_kg,omitempty" required:"false" doc:"Weighed after it was eaten, of all"`
	KeptKG   float64 `json:"kept_kg,omitempty" required:"false" doc:"Meat that was kept for later, without bones"`
	Yield    Band    `json:"yield" doc:"Served meat, share of the trimmed weight, as it was thought"`
	MixedKG  float64 `json:"mixed_kg,omitempty" required:"false" doc:"Rub that was mixed"`
	LeftKG   float64 `json:"left_kg,omitempty" required:"false" doc:"Rub that was left"`
	RubKG    float64 `json:"rub_kg" doc:"Rub that was to go on all pieces"`
	Salt     float64 `json:"salt" doc:"% of the raw boneless meat"`

	Made   []Made   `json:"made,omitempty" required:"false" doc:"What was done to it and to its pit while it was on and after"`
	Asked  []string `json:"asked,omitempty" required:"false" doc:"What was weighed that cannot be, and was not said to be right: it counts nowhere"`
	Scores []Score  `json:"scores" nullable:"false"`
	Notes  []string `json:"notes" nullable:"false" doc:"What to change next time"`
}

// MostMade is how many moves of a piece are kept.
const MostMade = 60

// Made is a move that was made, so many times.
type Made struct {
	What  string  `json:"what"`
	With  string  `json:"with,omitempty" required:"false" doc:"Of a wrap: its kind"`
	Times int     `json:"times"`
	FromH float64 `json:"from_h" doc:"Hours since it went on, the first time"`
	SetC  float64 `json:"set_c,omitempty" required:"false" doc:"What a pit was set to, °C"`
}

// Right is the score of salt that is just right: 1 is far too little, 5 far too much. Of the other
// aspects 5 is the best.
const Right = 3

// Score is how something tasted to somebody.
type Score struct {
	Aspect string `json:"aspect"`
	By     string `json:"by,omitempty" required:"false"`
	Value  int    `json:"value"`
}

// Late is by how much it took longer than was thought, ln; below zero it was quicker.
func (p Piece) Late() float64 {
	return off(p.Hours, p.Predicted.Mid)
}

// Guessed is by how much it took longer than the cook had guessed, ln.
func (p Piece) Guessed() float64 { return off(p.Hours, p.GuessH) }

// mostOff is the most that is told of how far a time was off, ln: twenty times as long is no other
// lesson than thirty times.
const mostOff = 3

// off is the ratio of two times, ln; zero when one is not known.
func off(is, thought float64) float64 {
	if is <= 0 || thought <= 0 {
		return 0
	}
	return min(max(math.Log(is)-math.Log(thought), -mostOff), mostOff)
}

// Served is the share of the trimmed weight that was eaten; zero when it was not weighed, or
// that cannot be. Bones
// that were not weighed are the share of the cut's.
func (p Piece) Served(boneShare float64) float64 {
	if p.CookedKG <= 0 || p.GreenKG <= 0 {
		return 0
	}
	bones := p.BonesKG
	if bones == 0 {
		bones = boneShare * p.GreenKG
	}
	served := math.Max(0, p.CookedKG-bones) / p.GreenKG
	if served > mostServed {
		return 0
	}
	return served
}

// mostServed is the largest share of the trimmed weight that can be eaten: sauce was weighed with it.
const mostServed = 1.3

// Used is the rub that went on, over what was to go on; zero when it was not weighed.
func (p Piece) Used() float64 {
	if p.MixedKG <= 0 || p.RubKG <= 0 || p.LeftKG >= p.MixedKG {
		return 0
	}
	return (p.MixedKG - p.LeftKG) / p.RubKG
}

// Mean is the middle of the scores of an aspect; false when nobody scored it.
func (p Piece) Mean(aspect string) (float64, bool) {
	sum, n := 0.0, 0
	for _, s := range p.Scores {
		if s.Aspect == aspect {
			sum, n = sum+float64(s.Value), n+1
		}
	}
	return sum / math.Max(1, float64(n)), n > 0
}

// Score is the middle of all scores but salt's, and of how far that is from just right, from 1 to 5;
// zero when nothing was scored.
func (c Outcome) Score() float64 {
	sum, n := 0.0, 0
	for _, p := range c.Pieces {
		for _, s := range p.Scores {
			v := float64(s.Value)
			if s.Aspect == "salt" {
				v = 5 - 2*math.Abs(v-Right)
			}
			sum, n = sum+v, n+1
		}
	}
	return sum / math.Max(1, float64(n))
}

// Likely are the lowest and the highest weight, kg, that something of a piece can have beside what else
// is known of it: green, what it weighed trimmed, planned, what that was thought to be, and rub, what was
// to go on. What lies outside was typed wrongly, more likely than not. Zero is no bound. Field judgement,
// far wider than any cook's: meat that was weighed wet with sauce, a rub mixed for ten suppers.
func LikelyWeight(what string, green, planned, rub float64) (low, high float64) {
	switch what {
	case "trimmed":
		return 0.4 * planned, 2 * planned
	case "cooked":
		return 0.2 * green, 1.3 * green
	case "bones":
		return 0, 0.7 * green
	case "kept":
		return 0, 1.3 * green
	case "mixed", "left":
		return 0, max(5, 20*rub)
	}
	return 0, 0
}

// Beside is a cook that is compared with others: what became of it, and what was read.
type Beside struct {
	ID      string
	Outcome Outcome
	Course  facts.Course
}
