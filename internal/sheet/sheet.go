package sheet

import (
	"fmt"
	"math"
	"reflect"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/provisions"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/shop"
)

// Closing is shown under every list of cautions.
const Closing = "Guidance for home cooks; local food codes and licensed practice come first."

// Sheet is every figure of a cook.
type Sheet struct {
	Errors         []Mistake    `json:"errors" nullable:"false" doc:"Mistakes, each with a pointer into the cook as typed; figures that depend on one are missing"`
	Serve          string       `json:"serve" doc:"Serving time in words; empty when none is given"`
	Away           string       `json:"away" doc:"How far off serving is, in words"`
	Servings       Figure       `json:"servings"`
	Verdict        string       `json:"verdict" doc:"Whether the meat feeds the guests, in a sentence; empty without guests"`
	Short          bool         `json:"short" doc:"There is too little meat"`
	Pieces         []PieceSheet `json:"pieces" nullable:"false"`
	Disclaimer     string       `json:"disclaimer" doc:"The line under every list of cautions"`
	PortionsNeeded Figure       `json:"portions_needed"`
	Buy            []BuyLine    `json:"buy" nullable:"false" doc:"For each piece, what to buy of it"`
	Cost           *CostSheet   `json:"cost,omitempty" doc:"Of all pieces; absent without prices"`
	CostPerPortion string       `json:"cost_per_portion" doc:"May be empty"`
	Plan           *PlanSheet   `json:"plan,omitempty" doc:"The days laid out; absent without a serving time or a piece"`
	Stages         CookStages   `json:"stages" doc:"One line for each stage of the whole cook"`
}

// CookStages say in a line how far each stage of the whole cook is.
type CookStages struct {
	Occasion string `json:"occasion"`
	Plan     string `json:"plan"`
	Shopping string `json:"shopping"`
}

// PieceSheet is every figure of one kind of piece.
type PieceSheet struct {
	Key       string          `json:"key" doc:"Of the piece"`
	Ready     bool            `json:"ready" doc:"False while there is a mistake in the piece; figures that depend on it are absent"`
	Title     string          `json:"title"`
	Noun      string          `json:"noun"`
	Count     int             `json:"count"`
	Meat      *Meat           `json:"meat,omitempty"`
	Bath      *BathSheet      `json:"bath,omitempty"`
	Inject    *InjectionSheet `json:"inject,omitempty"`
	Recipes   []string        `json:"recipes" nullable:"false" doc:"What goes into its bath and its injection, a line each, for the pit card"`
	Season    *SeasonSheet    `json:"season,omitempty"`
	NoRub     bool            `json:"no_rub,omitempty" doc:"The cook wants no rub on it"`
	Ledger    *LedgerSheet    `json:"ledger,omitempty"`
	Depth     *DepthSheet     `json:"depth,omitempty"`
	Clock     *ClockSheet     `json:"clock,omitempty"`
	Decisions []DecisionSheet `json:"decisions" nullable:"false" doc:"Decisions of the stages"`
	Moves     []MoveLine      `json:"moves" nullable:"false" doc:"All that is done to it, in order"`
	GrainNote string          `json:"grain_note" doc:"Which way to slice; empty when the grain is not marked"`
	UsualCore string          `json:"usual_core" doc:"Core temperature at which it is usually taken off"`
	UsualPit  string          `json:"usual_pit" doc:"Usual pit temperature of the cut, or the one that suits all on its pit"`
	PitNote   string          `json:"pit_note,omitempty" doc:"Why that is not the usual one of the cut"`
	UsualRest string          `json:"usual_rest" doc:"Usual rest of the cut"`
	Cautions  []Caution       `json:"cautions" nullable:"false"`
	Stages    PieceStages     `json:"stages" doc:"One line for each stage of the piece"`
}

// PieceStages say in a line how far each stage of a piece is.
type PieceStages struct {
	Piece  string `json:"piece"`
	Brine  string `json:"brine"`
	Season string `json:"season"`
	Wait   string `json:"wait"`
	Fire   string `json:"fire"`
	Moves  string `json:"moves"`
	Ahead  string `json:"ahead" doc:"The forecast"`
	Clock  string `json:"clock"`
}

// Meat is what is known of a piece before anything goes on it.
type Meat struct {
	Green      Figure      `json:"green" doc:"Weight of one after trimming"`
	AllGreen   Figure      `json:"all_green" doc:"Weight of all after trimming"`
	Thickness  Figure      `json:"thickness" doc:"At the thickest point"`
	Each       []EachSheet `json:"each" nullable:"false" doc:"Of pieces that are unlike, each"`
	Block      Figure      `json:"block" doc:"Thickness of a block of the same meat: what the heat and the salt go by"`
	Surface    Figure      `json:"surface" doc:"Area of one that takes a coat, dm²"`
	PerKG      Figure      `json:"per_kg" doc:"That area per kg of boneless meat"`
	Served     Figure      `json:"served" doc:"Cooked meat from all pieces"`
	Servings   Figure      `json:"servings"`
	OneBare    bool        `json:"one_bare" doc:"One broad face takes no coat"`
	Comparison string      `json:"comparison" doc:"How hard a coat salts this piece beside a pork shoulder"`
	Size       string      `json:"size" doc:"Length × width × thickness"`
}

// titles are what the pieces are called, by key.
func titles(r cooking.Result) map[string]string {
	out := map[string]string{}
	for _, p := range r.Pieces {
		out[p.Line.Key] = Title(p)
	}
	return out
}

// Title is what the cook calls a piece.
func Title(p cooking.Piece) string {
	name := p.Line.Typed.Label
	if name == "" {
		name = p.Line.Meat.Value.Cut.Name
	}
	if name == "" {
		return ""
	}
	return field.Capital(name)
}

func newWriter(r cooking.Result, as Reader) writer {
	return writer{Reader: as, pieces: titles(r), pits: r.Order.Setting.Value.Pits, skies: len(r.Order.Weather.Value) > 0}
}

// Written is a sheet with what it was written from.
type Written struct {
	Sheet  Sheet
	Result cooking.Result
	Kept   []bool // the pieces that were taken over from the sheet before
	by     writer
}

// WriteAfter says a result after another one: a piece of which nothing has changed is
// taken over as it was said then.
func WriteAfter(before Written, r cooking.Result, as Reader) Written {
	w := newWriter(r, as)
	alike := reflect.DeepEqual(before.by, w) && reflect.DeepEqual(before.Result.Facts, r.Facts)
	kept := make([]bool, len(r.Pieces))
	out := Sheet{
		Errors: w.mistakes(r.Mistakes), Pieces: make([]PieceSheet, len(r.Pieces)), Buy: []BuyLine{}, Disclaimer: Closing,
		Servings: w.figure(r.Servings), PortionsNeeded: w.figure(r.Needed),
	}
	if at := r.Order.Serving.Value.At; !at.IsZero() {
		out.Serve = at.Format("Monday 2 January 15:04")
		if !r.Now.IsZero() {
			if out.Away = away(at, r.Now); r.Past() {
				out.Away += ": told as a past cook-out"
			}
		}
	}
	out.Verdict, out.Short = verdict(r.Enough)
	for i, p := range r.Pieces {
		if kept[i] = alike && r.Kept[i] && r.Plan == before.Result.Plan; kept[i] {
			out.Pieces[i] = before.Sheet.Pieces[i]
			continue
		}
		moves := w.moves(r, i) // they tell of the plan, too
		if alike && r.Kept[i] {
			out.Pieces[i] = before.Sheet.Pieces[i]
			kept[i] = reflect.DeepEqual(moves, out.Pieces[i].Moves)
		} else {
			out.Pieces[i] = w.piece(p, r.Facts)
		}
		out.Pieces[i].Moves, out.Pieces[i].Stages.Moves = moves, movesLine(moves)
	}
	w.buy(&out, r)
	if r.Plan != nil {
		out.Plan = w.plan(r)
	}
	out.Stages = w.cookStages(r, out)
	return Written{out, r, kept, w}
}

// few writes a number of portions: under ten to the half.
func few(n float64) string {
	if n < 10 {
		return quantity.Number(max(0.5, math.Round(2*n)/2))
	}
	return decimal(n, 0)
}

// verdict says whether the portions feed the guests.
func verdict(e shop.Enough) (message string, short bool) {
	switch e.Verdict {
	case "short":
		return fmt.Sprintf("%s short for %.0f portions", few(e.Differs), e.Needed), true
	case "over":
		return fmt.Sprintf("enough for %.0f portions, with %s over", e.Needed, few(e.Differs)), false
	case "enough":
		return fmt.Sprintf("enough for %.0f portions", e.Needed), false
	}
	return "", false
}

// EachSheet is one of several unlike pieces.
type EachSheet struct {
	Weight    string `json:"weight" doc:"After trimming"`
	Thickness string `json:"thickness" doc:"At the thickest point"`
	Rub       string `json:"rub" doc:"Its part of what goes on all of them; empty without a rub"`
	Fire      string `json:"fire" doc:"Time on the fire; empty when it is typed or not known"`
}

func (w writer) each(p cooking.Piece) []EachSheet {
	out := []EachSheet{}
	for _, one := range p.Meat.Each {
		e := EachSheet{Weight: w.value(one.Green, ""), Thickness: w.value(one.Thickest, "")}
		if p.Season != nil {
			e.Rub = w.weight(quantity.Mass(p.Season.OnMeat.Mid * one.Share))
		}
		if one.Fire.Mid > 0 {
			e.Fire = duration(one.Fire.Mid)
		}
		out = append(out, e)
	}
	return out
}

// piece says everything of one piece.
func (w writer) piece(p cooking.Piece, f facts.Facts) PieceSheet {
	meat := p.Line.Meat.Value
	out := PieceSheet{
		Key: p.Line.Key, Ready: p.Ready, Title: w.pieces[p.Line.Key], Noun: meat.Cut.Noun,
		Count:     max(1, p.Line.Meat.Value.Count),
		Decisions: w.decisions(p.Decided), Cautions: w.cautions(p, f), Recipes: []string{}, Moves: []MoveLine{},
	}
	if p.Meat != nil {
		out.Meat = w.meat(p)
		out.UsualPit = w.value(p.Line.UsualPit(), "")
		if p.Line.Shared > 0 {
			out.PitNote = fmt.Sprintf("one for all on this pit; %s alone", w.value(quantity.Celsius(meat.Cut.PitC), ""))
		}
		out.UsualCore = w.value(quantity.Celsius(meat.Cut.DoneC()), "")
		out.UsualRest = duration(time.Duration(meat.Cut.RestMin * float64(time.Minute)))
	}
	if p.Bath != nil {
		out.Bath = w.bath(p.Bath)
		out.Recipes = append(out.Recipes, w.bathRecipe(p.Bath, out.Bath))
	}
	if p.Needle != nil {
		out.Inject = w.needle(p.Needle)
		out.Recipes = append(out.Recipes, needleRecipe(out.Inject))
	}
	if p.Season != nil {
		out.Season = w.season(p.Season)
	}
	out.NoRub = len(p.Line.Typed.Season.Formula.Rows) == 0
	if p.Ledger != nil {
		out.Ledger = w.ledger(p.Ledger)
	}
	if p.Depth != nil {
		out.Depth = w.depth(p.Depth, p.Line.Salting.Value.Band)
	}
	if p.Clock != nil {
		out.Clock = w.clock(p.Clock)
		if p.Line.Notes.Value.Marked {
			out.GrainNote = fmt.Sprintf("Grain marked at %s° to the length: slice across it.", p.Clock.Grain)
		}
	}
	out.Stages = w.pieceStages(out)
	return out
}

func (w writer) meat(p cooking.Piece) *Meat {
	m := p.Meat
	g := p.Line.Meat.Value.Geometry
	return &Meat{
		Green:      w.figure(m.Green),
		AllGreen:   w.figure(m.AllGreen),
		Thickness:  w.figure(m.Thickness),
		Each:       w.each(p),
		Block:      w.figure(m.Block),
		Surface:    w.figure(m.Surface),
		PerKG:      w.figure(m.PerKG),
		Served:     w.figure(m.Served),
		Servings:   w.figure(m.Servings),
		OneBare:    p.Line.Meat.Value.OneBare,
		Comparison: compare(m.Ratio),
		Size:       w.value(cooking.SizeOf(g), ""),
	}
}

// times writes a count before a name: "2 × Lamb shoulder".
func times(n int, name string) string {
	if n > 1 {
		return fmt.Sprintf("%d × %s", n, name)
	}
	return name
}

func (w writer) cookStages(r cooking.Result, s Sheet) CookStages {
	out := CookStages{Occasion: "who eats, and when", Plan: "when you serve", Shopping: "what to buy"}
	if people := r.Order.People.Value; people.Guests > 0 {
		out.Occasion = fmt.Sprintf("%d at table", people.Guests+people.Children)
	}
	if s.Plan != nil {
		for _, o := range s.Plan.Options {
			if o.Chosen {
				out.Plan = fmt.Sprintf("%s, %s %%", o.Name, s.Plan.Chance.Text)
			}
		}
	}
	if c := w.cost(provisions.List(r).Cost); c != nil && c.Total.Text != "" {
		out.Shopping = withUnit(c.Total.Text, c.Total.Unit)
	}
	return out
}

func (w writer) pieceStages(p PieceSheet) PieceStages {
	out := PieceStages{
		Piece:  "weight needed",
		Brine:  "neither",
		Season: "to choose",
		Wait:   "how long",
		Fire:   "which pit",
		Ahead:  "how it goes",
		Clock:  "counted back",
	}
	if p.Meat != nil {
		out.Piece = times(p.Count, p.Meat.Green.Text) + ", " + p.Meat.Thickness.Text
	}
	brine := ""
	if p.Bath != nil {
		brine = "bath " + p.Bath.Takes.Text + " %"
	}
	if p.Inject != nil {
		brine = join(brine, ", ", withUnit(p.Inject.Volume.Text, p.Inject.Volume.Unit)+" injected")
	}
	if brine != "" {
		out.Brine = brine
	}
	if p.Season != nil {
		out.Season = withUnit(p.Season.OnMeat.Text, p.Season.OnMeat.Unit) + " on the meat"
	} else if p.NoRub {
		out.Season = "no rub"
	}
	if p.Depth != nil && p.Depth.Depth.Value > 0 {
		out.Wait = p.Depth.Depth.Text + " deep"
	}
	if p.Clock != nil {
		out.Fire, out.Ahead = p.Clock.Fire, p.Clock.FireRange
		if salt, ok := p.Clock.step("salt"); ok {
			wait := "salt " + salt.Time
			if p.Depth != nil {
				wait += ", " + out.Wait
			}
			out.Wait = wait
		}
		if fire, ok := p.Clock.step("fire"); ok {
			out.Clock = "on at " + fire.Figure.Text
		}
	}
	return out
}
