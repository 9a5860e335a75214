package sheet

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/live"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/move"
	"verjuice/internal/core/provisions"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/retelling"
	"verjuice/internal/core/review"
	"verjuice/internal/core/shop"
)

// AfterSheet is how a cook went, and what is to be written down of it.
type AfterSheet struct {
	Name     string       `json:"name"`
	Day      string       `json:"day"`
	Served   string       `json:"served" doc:"When it was served beside when it was to be, in a sentence; may be empty"`
	Cost     string       `json:"cost" doc:"Of a portion by what was weighed, in a sentence; may be empty"`
	Finished bool         `json:"finished" doc:"The cook has said that it is over"`
	Over     string       `json:"over" doc:"Id of the fact that says so; else empty"`
	Practice bool         `json:"practice" doc:"It was only practised: nothing is learnt from it"`
	Moves    []AfterMove  `json:"moves" nullable:"false" doc:"Plan against actual, in order"`
	Pieces   []AfterPiece `json:"pieces" nullable:"false"`
	Notes    []AfterNote  `json:"notes" nullable:"false" doc:"Of the whole cook"`
	Fuel     []AfterFuel  `json:"fuel" nullable:"false" doc:"What each pit burnt"`
	Tellings []Telling    `json:"tellings" nullable:"false" doc:"Pieces that can be told of in words"`
}

// Telling is a piece that can be told of in words.
type Telling struct {
	Piece   string `json:"piece"`
	Name    string `json:"name" doc:"What it is called, where there are several; else empty"`
	Cut     string `json:"cut"`
	On      string `json:"on" doc:"When it went on, or was to; may be empty"`
	Pressed bool   `json:"pressed" doc:"That it went on then was pressed, and stays"`
	Zone    string `json:"zone"`
	Words   string `json:"words" doc:"In which it was told; empty when it was not, or they were not kept"`
	Before  bool   `json:"before" doc:"It was told before"`
}

// AfterFuel is the fuel of a pit, to weigh.
type AfterFuel struct {
	AfterWeight
	Pit int `json:"pit" doc:"Number of the pit"`
}

// AfterMove is something that was planned, or done, or both.
type AfterMove struct {
	Label   string `json:"label"`
	Planned string `json:"planned" doc:"May be empty"`
	Actual  string `json:"actual" doc:"May be empty"`
	Late    string `json:"late" doc:"How much later or sooner; may be empty"`
	Off     bool   `json:"off" doc:"It was half an hour off and more"`
}

// AfterPiece is how a piece went.
type AfterPiece struct {
	Key      string         `json:"key"`
	Title    string         `json:"title"`
	Hours    BigFigure      `json:"hours" doc:"On the fire, beside what was thought"`
	Core     BigFigure      `json:"core" doc:"The highest that was read"`
	Yield    BigFigure      `json:"yield" doc:"Served meat, beside what was thought; without weights its text is empty"`
	Rub      BigFigure      `json:"rub" doc:"Rub that went on, beside what was to go on; likewise"`
	Salt     BigFigure      `json:"salt" doc:"By the ledger"`
	Miss     string         `json:"miss" doc:"How far readings and forecast were apart, in a sentence; may be empty"`
	Curve    []DrawnPoint   `json:"curve" nullable:"false" doc:"As it was thought when it went on"`
	Read     []ReadPoint    `json:"read" nullable:"false" doc:"As it was read"`
	Target   float64        `json:"target" doc:"Core at which it was to come off; zero is by feel"`
	Axis     Axis           `json:"axis" doc:"Of the curve and what was read"`
	OffH     float64        `json:"off_h" doc:"Hours at which it came off; zero when it did not"`
	Weights  []AfterWeight  `json:"weights" nullable:"false"`
	Scores   []AfterScore   `json:"scores" nullable:"false"`
	Notes    []AfterNote    `json:"notes" nullable:"false"`
	Lay      string         `json:"lay" doc:"Where it lay, of one that turned out dry; else empty"`
	Cautions []LiveCaution  `json:"cautions" nullable:"false"`
	Left     *LeftoverSheet `json:"left,omitempty" doc:"What to do with what is left; absent until it is sliced"`
}

// AfterWeight is something to weigh.
type AfterWeight struct {
	What  string `json:"what"`
	Label string `json:"label"`
	Typed string `json:"typed" doc:"As it was typed last; may be empty"`
	Usual string `json:"usual" doc:"What it is thought to be"`
	Ask   string `json:"ask" doc:"Why it cannot be, in a sentence that asks; empty when it can be, or was said to be right"`
}

// AfterScore is an aspect to score.
type AfterScore struct {
	Aspect string       `json:"aspect"`
	Label  string       `json:"label"`
	Words  []string     `json:"words" nullable:"false" doc:"What each score says, from 1"`
	Given  []AfterGiven `json:"given" nullable:"false"`
}

// AfterGiven is a score that somebody gave.
type AfterGiven struct {
	By    string `json:"by"`
	Score int    `json:"score"`
}

// AfterNote is something to remember.
type AfterNote struct {
	ID   string `json:"id" doc:"Of the fact"`
	Text string `json:"text"`
	By   string `json:"by"`
}

var weightWords = map[string]string{
	"trimmed": "Trimmed, as it went on", "cooked": "Off the fire, with its bones", "bones": "Bones, after it was eaten",
	"mixed": "Rub mixed", "left": "Rub left over", "kept": "Meat kept for later, without bones",
}

var aspectWords = map[string][]string{
	"salt": {
		"Salt",
		"far too bland",
		"a little bland",
		"just right",
		"a little salty",
		"too salty",
	}, "bark": {"Bark", "none", "poor", "fair", "good", "superb"},
	"tenderness": {
		"Tenderness",
		"tough",
		"chewy",
		"fair",
		"tender",
		"superb",
	}, "moisture": {"Moisture", "dry", "a little dry", "fair", "moist", "superb"},
	"smoke": {"Smoke", "none", "faint", "fair", "good", "superb"},
}

// WriteReview says how a cook went.
func WriteReview(a review.Review, as Reader) AfterSheet {
	r := a.Cook
	w := newWriter(r, as)
	out := AfterSheet{
		Name:     r.Order.Cook.Name,
		Moves:    []AfterMove{},
		Pieces:   []AfterPiece{},
		Notes:    notes(r.Facts.Notes("")),
		Finished: a.Outcome.Finished,
	}
	if f, ok := r.Facts.Done("", "over"); ok {
		out.Over = f.ID
	}
	out.Tellings = tellings(r)
	if day, err := time.Parse(time.DateOnly, a.Outcome.Day); err == nil {
		out.Day = day.Format("Monday 2 January 2006")
	}
	out.Served, out.Cost = servedWords(a.Outcome), w.costServed(r, a.Outcome)
	for _, m := range a.Moves {
		out.Moves = append(out.Moves, w.afterMove(r, m))
	}
	out.Fuel = w.fuel(r)
	kept := map[string]logbook.Piece{}
	for _, p := range a.Outcome.Pieces {
		kept[p.Key] = p
	}
	for _, p := range a.Pieces {
		if o, ok := kept[p.Live.Piece.Line.Key]; ok {
			out.Pieces = append(out.Pieces, w.afterPiece(r.Facts, p, o, r.Now))
		}
	}
	return out
}

// tellings are the pieces that can be told of in words, each with when it was to go on where nothing says more.
func tellings(r cooking.Result) []Telling {
	out := []Telling{}
	c := r.Order.Cook
	for _, t := range retelling.Tellings(c, r.Facts, r.Order.Serving.Value.At, r.Now) {
		one := Telling{Piece: t.Piece, Cut: t.Cut, On: t.On, Pressed: t.Pressed, Zone: c.Zone, Words: t.Words,
			Before: t.Before}
		for i, p := range c.Pieces {
			if p.Key != t.Piece {
				continue
			}
			if len(c.Pieces) > 1 {
				one.Name = cutName(p)
			}
			if clock := r.Pieces[i].Clock; one.On == "" && clock != nil && clock.Known {
				one.On = clock.Times.Fire.Format(cook.TimeLayout)
			}
		}
		out = append(out, one)
	}
	return out
}

// costServed says what a portion cost by what was weighed of every piece; empty without prices, or
// while one was not weighed.
func (w writer) costServed(r cooking.Result, o logbook.Outcome) string {
	cost := provisions.Spent(r)
	if cost == nil || len(o.Pieces) < len(r.Pieces) || !r.Order.Base.OK() {
		return ""
	}
	served := 0.0
	for _, p := range o.Pieces {
		c, _ := cut.Find(p.Cut)
		share := p.Served(c.BoneShare())
		if share == 0 {
			return ""
		}
		served += share * p.GreenKG
	}
	portion := r.Order.Base.Value.Portion.KG()
	each := money(shop.Money{Value: cost.Total.Mid * portion / served, Sign: cost.Sign})
	out := fmt.Sprintf(
		"A portion of %s cost %s, based on what was served: meat, mixes, fuel and wraps.",
		quantity.FormatMass(r.Order.Base.Value.Portion, w.Units),
		each,
	)
	if missing := w.missing(cost.Missing); len(missing) > 0 {
		out += " " + field.Capital(without(missing)) + "."
	}
	return out
}

// servedWords says when it was served beside when it was to be.
func servedWords(o logbook.Outcome) string {
	served, err := time.Parse(time.RFC3339, o.ServedAt)
	if err != nil {
		return ""
	}
	planned, err := time.Parse(time.RFC3339, o.ServeAt)
	if err != nil {
		return "Served from " + served.Format("15:04") + "."
	}
	switch late := served.Sub(planned).Round(5 * time.Minute); {
	case late.Abs() < 10*time.Minute:
		return "Served at " + served.In(planned.Location()).Format("15:04") + ", on time."
	case late > 0:
		return fmt.Sprintf("Served at %s, %s late.", served.In(planned.Location()).Format("15:04"), duration(late))
	default:
		return fmt.Sprintf("Sliced at %s, %s before serving.", served.In(planned.Location()).Format("15:04"), duration(-late))
	}
}

func (w writer) afterMove(r cooking.Result, m review.Move) AfterMove {
	name := w.pit(m.Pit)
	if m.Piece != "" {
		name = w.pieces[m.Piece]
	}
	what := lower(cmp.Or(pressed(m.Stage), m.Stage))
	switch {
	case m.SetC != 0:
		what = "set to " + w.short(float64(m.SetC))
	case m.Kind != "" && m.Kind != "none":
		what += " in " + wrapName(m.Kind)
	}
	for _, p := range r.Pieces {
		for _, own := range p.Line.Own {
			if p.Line.Key == m.Piece && own.Key == m.Own && own.Kind == move.Other {
				what = own.With
			}
		}
	}
	out := AfterMove{Label: join(field.Capital(name), ": ", what)}
	zone := cmp.Or(r.Order.Serving.Value.Zone, time.UTC)
	if !m.Planned.IsZero() {
		out.Planned = m.Planned.In(zone).Format("Mon 15:04")
	}
	if !m.Actual.IsZero() {
		out.Actual = m.Actual.In(zone).Format("Mon 15:04")
		if m.Times > 1 {
			out.Actual += fmt.Sprintf(" to %s, %d times", m.Last.In(zone).Format("15:04"), m.Times)
		}
	}
	if late, ok := m.Late(); ok {
		out.Late, out.Off = "on time", late.Abs() >= 30*time.Minute
		if late = late.Round(5 * time.Minute); late.Abs() >= 10*time.Minute {
			out.Late = duration(late.Abs()) + map[bool]string{true: " later", false: " sooner"}[late > 0]
		}
	}
	return out
}

func notes(all []facts.Fact) []AfterNote {
	out := []AfterNote{}
	for _, f := range all {
		out = append(out, AfterNote{f.ID, f.What, f.Author})
	}
	return out
}

func (w writer) afterPiece(f facts.Facts, p review.Piece, o logbook.Piece, now time.Time) AfterPiece {
	out := AfterPiece{
		Key: o.Key, Title: Title(p.Live.Piece), Curve: w.curve(p.Predicted), Read: []ReadPoint{}, OffH: o.Hours,
		Target:  0,
		Weights: w.afterWeights(f, o), Scores: []AfterScore{}, Notes: notes(f.Notes(o.Key)), Cautions: []LiveCaution{},
	}
	for i, r := range p.Read {
		if i%(1+len(p.Read)/160) == 0 || i == len(p.Read)-1 {
			out.Read = append(out.Read, ReadPoint{math.Round(1000*r.AtH) / 1000, w.degrees(r.CoreC)})
		}
	}
	if c := p.Live.Piece.Clock; c != nil && c.Done > 0 {
		out.Target = w.degrees(float64(c.Done))
	}
	drawn := append(cores(out.Read), out.Target)
	for _, point := range out.Curve {
		drawn = append(drawn, point.High)
	}
	out.Axis = w.axis(60, drawn...)
	w.afterFigures(&out, p, o)
	out.Left = w.leftovers(p.Live, o.KeptKG, now)
	for _, aspect := range facts.Aspects {
		words := aspectWords[aspect]
		line := AfterScore{Aspect: aspect, Label: words[0], Words: words[1:], Given: []AfterGiven{}}
		for _, s := range o.Scores {
			if s.Aspect == aspect {
				line.Given = append(line.Given, AfterGiven{s.By, s.Value})
			}
		}
		out.Scores = append(out.Scores, line)
	}
	out.Lay = w.lay(p, o)
	for _, c := range p.Found {
		out.Cautions = append(out.Cautions, w.liveCaution(c))
	}
	return out
}

// dry is the score of moisture up to which it is told where a piece lay.
const dry = 2

// lay says where a piece lay that turned out dry; empty when it did not, or that was not told.
func (w writer) lay(p review.Piece, o logbook.Piece) string {
	mean, ok := o.Mean("moisture")
	if !ok || mean > dry+0.5 {
		return ""
	}
	a, lay := p.Live.Piece.Line.Answers.Value, []string{}
	for _, key := range []decision.Key{decision.Lies, decision.Side} {
		if said := a.Typed[key.String()]; said != "" && said != "unsaid" {
			lay = append(lay, decisionTexts[key.String()].answers[said].label)
		}
	}
	if len(lay) == 0 {
		return "Where it lay was not told: next time tell it under Fire, to see whether that dries it."
	}
	return "It turned out dry. It lay " + strings.Join(lay, ", ") + "."
}

// lower begins s with a small letter.
func lower(s string) string {
	first, size := utf8.DecodeRuneInString(s)
	return string(unicode.ToLower(first)) + s[size:]
}

// afterFigures puts in the figures of a piece beside what was thought of them.
func (w writer) afterFigures(out *AfterPiece, p review.Piece, o logbook.Piece) {
	of := func(h float64) string { return hours(h) }
	if o.Hours > 0 {
		out.Hours = BigFigure{Text: of(o.Hours), Note: "on the fire"}
		if o.Predicted.Mid > 0 && o.Predicted.Mid < 40 {
			out.Hours.Note = fmt.Sprintf(
				"on the fire; forecast %s (%s–%s)",
				of(o.Predicted.Mid),
				of(o.Predicted.Low),
				of(o.Predicted.High),
			)
		}
		if o.GuessH > 0 {
			nearer := "the forecast was nearer"
			if math.Abs(o.GuessH-o.Hours) < math.Abs(o.Predicted.Mid-o.Hours) {
				nearer = "you were nearer"
			}
			out.Hours.Note += fmt.Sprintf("; you guessed %s: %s", of(o.GuessH), nearer)
		}
	} else if p.Live.State == live.On {
		out.Hours = BigFigure{Text: of(p.Live.Piece.Happened.NowH), Note: "on the fire so far"}
	}
	if o.CoreC > 0 {
		out.Core = BigFigure{Text: w.warm(o.CoreC, 1), Note: "the highest core that was read"}
		if len(p.Highest) > 1 {
			var by []string
			for _, place := range slices.Sorted(maps.Keys(p.Highest)) {
				by = append(by, cmp.Or(place, "first probe")+" "+w.warm(float64(p.Highest[place]), 1))
			}
			out.Core.Note += ": " + strings.Join(by, ", ")
		}
	}
	thought := fmt.Sprintf("%.0f–%.0f %%", 100*o.Yield.Low, 100*o.Yield.High)
	out.Yield.Note = "of the trimmed weight on the plates; expected " + thought
	if served := o.Served(p.Live.Piece.Line.Meat.Value.Cut.BoneShare()); served > 0 {
		out.Yield.Text = fmt.Sprintf("%.0f %%", 100*served)
	}
	if o.RubKG > 0 {
		out.Rub.Note = "rub on the meat; it was to be " + quantity.FormatMass(quantity.Mass(o.RubKG), w.Units)
	}
	if o.MixedKG > 0 {
		out.Rub.Text = quantity.FormatMass(quantity.Mass(math.Max(0, o.MixedKG-o.LeftKG)), w.Units)
	}
	if o.Salt > 0 {
		out.Salt = BigFigure{Text: fmt.Sprintf("%.2f %%", o.Salt), Note: "salt in the raw meat, by the ledger"}
	}
	if !math.IsNaN(p.MissC) {
		out.Miss = fmt.Sprintf("Half of the readings were within %s of the forecast.", w.gap(p.MissC))
		if math.Abs(o.AirOffC) >= 2 && o.AirN > 0 {
			out.Miss += fmt.Sprintf(
				" The pit ran %s %s than it was set to.",
				w.gap(math.Abs(o.AirOffC)),
				map[bool]string{true: "hotter", false: "cooler"}[o.AirOffC > 0],
			)
		}
	}
}

// fuel is what each pit burnt, to weigh.
func (w writer) fuel(r cooking.Result) []AfterFuel {
	out := []AfterFuel{}
	for _, b := range provisions.Burnt(r) {
		label := field.Capital(w.pit(b.Pit)) + ": fuel burnt"
		one := AfterFuel{Pit: b.Pit, AfterWeight: AfterWeight{What: facts.Fuel, Label: label}}
		if _, said, ok := r.Facts.Burnt(b.Pit); ok {
			one.Typed, _ = said.Values["typed"].(string)
		}
		for _, s := range shop.Supplies([]shop.Burning{{Kind: b.Kind, For: b.For, Hard: b.Hard}}, nil) {
			known, _ := larder.FindSupply(s.ID)
			about := fmt.Sprintf("%.1f kg", s.Mass.KG())
			if w.Units == quantity.US {
				about = fmt.Sprintf("%.0f lb", float64(s.Mass/quantity.Pound))
			}
			one.Usual = fmt.Sprintf("about %s of %s", about, known.Name)
		}
		if one.Usual != "" {
			out = append(out, one)
		}
	}
	return out
}

// beside says what a weight is held against.
func beside(what string, o logbook.Piece, w writer) string {
	if what == "mixed" || what == "left" {
		return fmt.Sprintf("%s of rub", quantity.FormatMass(quantity.Mass(o.RubKG), w.Units))
	}
	return fmt.Sprintf("a piece of %s", quantity.FormatMass(quantity.Mass(o.GreenKG), w.Units))
}

// afterWeights are what is to be weighed of a piece.
func (w writer) afterWeights(f facts.Facts, o logbook.Piece) []AfterWeight {
	usual := review.UsualWeights(o)
	out := []AfterWeight{}
	for _, what := range facts.Weights {
		one := AfterWeight{What: what, Label: weightWords[what]}
		if _, said, ok := f.Weighed(o.Key, what); ok {
			one.Typed, _ = said.Values["typed"].(string)
		}
		if slices.Contains(o.Asked, what) {
			one.Ask = fmt.Sprintf(
				"This cannot be right for %s. Check the number and its unit; it is not counted until you confirm it.",
				beside(what, o, w),
			)
		}
		if v := usual[what]; v > 0 {
			one.Usual = "about " + quantity.FormatMass(quantity.Mass(v), w.Units)
		}
		out = append(out, one)
	}
	return out
}
