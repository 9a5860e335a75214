package sheet

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// appetites are portions eaten for each one counted.
var appetites = map[string]float64{"light": 0.8, "usual": 1, "hearty": 1.25}

// childPortion is what a child eats of a portion. Field judgement.
const childPortion = 0.5

// demand is the portions that are wanted: grown-ups, children at half, by
// appetite, and what is to be left for later dishes.
func (c Cook) demand(errs *field.Errors) float64 {
	a, ok := appetites[or(c.Appetite, "usual")]
	if !ok {
		errs.Add("/appetite", "light, usual or hearty")
	}
	if c.Children < 0 || c.Children > maxGuests {
		errs.Add("/children", "between 0 and %d children", maxGuests)
	}
	if c.Leftovers < 0 || c.Leftovers > maxGuests {
		errs.Add("/leftovers", "between 0 and %d portions", maxGuests)
	}
	return (float64(c.Guests)+childPortion*float64(c.Children))*a + float64(c.Leftovers)
}

// BuyLine is what of a piece feeds the guests.
type BuyLine struct {
	Title string       `json:"title"`
	Buy   trace.Figure `json:"buy" doc:"Raw weight to buy of it, all of its pieces, so that all pieces together go round"`
	Count int          `json:"count" doc:"How many pieces that is: as many as now, unless one would then be no such piece"`
	Typed string       `json:"typed" doc:"The same as the field takes it, for each or all as the piece is typed"`
	Cost  *CostSheet   `json:"cost,omitempty" doc:"Of what is bought now, meat and mix"`
	Each  string       `json:"each" doc:"That cost for one serving; empty without a price"`
}

// buyLines share the demand among the pieces as they feed now, and turn each
// share back into raw weight through cook loss, bone and trim.
func buyLines(pieces []*piece, sheets []PieceSheet, demand float64) []BuyLine {
	total := 0.0
	for _, s := range sheets {
		if s.Meat != nil {
			total += s.Meat.Servings.Value
		}
	}
	out := []BuyLine{}
	for i, p := range pieces {
		if p == nil || sheets[i].Meat == nil {
			out = append(out, BuyLine{Title: sheets[i].Title})
			continue
		}
		line := BuyLine{Title: sheets[i].Title}
		served := sheets[i].Meat.Servings.Value
		factor := 1.0
		if total > 0 && demand > 0 {
			factor = demand / total
		}
		kg := func(trim, yield float64) float64 {
			return served * factor * p.portion.KG() / (yield / 100) / (1 - p.cut.BoneShare()) / (1 - trim/100)
		}
		trim, yield := p.cut.TrimLoss, p.cut.CookYield
		mid := kg(trim.Mid, yield.Mid)
		line.Buy = trace.New(mid, kg(trim.Low, yield.High), kg(trim.High, yield.Low), 2, "kg", trace.Origin{
			Words:  "The portions this piece stands for, over what is left after the cook, the bone and the trim.",
			Source: cut.Source,
			Inputs: []trace.Input{
				{Name: "portions", Text: fmt.Sprintf("%.1f of %s", served*factor, quantity.FormatMass(p.portion, p.opt.Units))},
				{Name: "left after the cook", Text: fmt.Sprintf("%.0f %% (%.0f–%.0f %%)", yield.Mid, yield.Low, yield.High)},
				{Name: "bone", Text: fmt.Sprintf("%.0f %%", p.cut.BonePercent)},
				{Name: "trim", Text: fmt.Sprintf("%.0f %% (%.0f–%.0f %%)", trim.Mid, trim.Low, trim.High)},
			}})
		line.Buy.Text, line.Buy.Unit = quantity.FormatMass(quantity.Mass(mid), p.opt.Units), ""
		line.Buy.Range = rangeText(quantity.Mass(line.Buy.Low), quantity.Mass(line.Buy.High), p.opt.Units)
		line.Count = p.count
		if each := mid / float64(p.count); each > p.cut.HighKG || each < p.cut.LowKG {
			line.Count = int(math.Max(1, math.Round(mid/p.cut.TypicalKG)))
		}
		each := quantity.Mass(mid)
		if !p.typed.Together {
			each /= quantity.Mass(line.Count)
		}
		line.Typed = quantity.FormatMass(each, p.opt.Units)
		line.Cost = p.cost(sheets[i].Season)
		if line.Cost != nil && served > 0 {
			line.Each = fmt.Sprintf("%.2f %s", line.Cost.Total.Value/served, line.Cost.Total.Unit)
		}
		out = append(out, line)
	}
	return out
}

// whole is the weight as bought of all pieces, or what it must have been.
func (p *piece) whole() quantity.Mass {
	each := p.bought
	if each == 0 {
		each = p.green / quantity.Mass(1-p.cut.TrimLoss.Mid/100)
	}
	return each * quantity.Mass(p.count)
}

// cost is what the meat and its rub cost; nil without a price of the meat.
func (p *piece) cost(season *SeasonSheet) *CostSheet {
	price, ok := p.opt.Shelf.PriceOf(p.cut.ID)
	if !ok {
		return nil
	}
	meat := p.whole().Grams() * price.PerGram(p.cut.Density()/1000)
	inputs := []trace.Input{{Name: "meat, " + quantity.FormatMass(p.whole(), p.opt.Units), Text: fmt.Sprintf("%.2f %s", meat, price.Sign)}}
	missing := []string{}
	if season != nil && season.Cost != nil {
		inputs = append(inputs, trace.Input{Name: "rub", Text: season.Cost.Total.Text + " " + season.Cost.Total.Unit})
		meat += season.Cost.Total.Value
		missing = season.Cost.Missing
	} else {
		missing = append(missing, "the rub")
	}
	return &CostSheet{Total: money(meat, price.Sign, trace.Origin{Words: "Weight as bought times its price, and the mix that is made for it.", Source: costSource, Inputs: inputs}), Missing: missing}
}

// Shopping is what to buy for a cook.
type Shopping struct {
	Errors field.Errors  `json:"errors" nullable:"false"`
	Meat   []ShopLine    `json:"meat" nullable:"false"`
	Shelf  []ShopLine    `json:"shelf" nullable:"false" doc:"Everything else, by kind"`
	Jars   []string      `json:"jars" nullable:"false" doc:"Mixes that are taken from a jar"`
	Total  *trace.Figure `json:"total,omitempty" doc:"What it costs; absent without prices"`
	NoCost []string      `json:"no_cost" nullable:"false" doc:"What has no price and is not counted"`
}

// ShopLine is one thing to buy.
type ShopLine struct {
	Thing  string   `json:"thing"`
	Name   string   `json:"name"`
	Kind   string   `json:"kind"`
	Need   string   `json:"need"`
	Have   string   `json:"have" doc:"What is here; empty when nothing is"`
	Buy    string   `json:"buy" doc:"What is missing; empty when nothing is"`
	Grams  float64  `json:"grams" doc:"Of Buy"`
	Cost   string   `json:"cost"`
	For    []string `json:"for" nullable:"false"`
	Frozen bool     `json:"frozen"`
}

// wanted adds up what a cook uses of each thing.
type wanted struct {
	line  ShopLine
	grams float64
	perML float64
}

// Shop lists what a cook needs over all its pieces, less what is in the larder
// and in jars.
func Shop(c Cook, opt Options) Shopping {
	out := Shopping{Errors: field.Errors{}, Meat: []ShopLine{}, Shelf: []ShopLine{}, Jars: []string{}, NoCost: []string{}}
	s, pieces := work(c, opt)
	sheets := s.Pieces
	out.Errors = s.Errors
	sum, sign := 0.0, ""
	pay := func(l *ShopLine, grams, perML float64) {
		p, ok := opt.Shelf.PriceOf(l.Thing)
		if !ok {
			out.NoCost = append(out.NoCost, l.Name)
			return
		}
		cost := grams * p.PerGram(perML)
		sum, sign = sum+cost, p.Sign
		l.Cost = fmt.Sprintf("%.2f %s", cost, p.Sign)
	}
	var order []string
	things := map[string]*wanted{}
	take := func(leaf formula.Component, grams float64, title string) {
		if leaf.Ingredient.ID == "water" || grams <= 0 {
			return
		}
		w, ok := things[leaf.Ingredient.ID]
		if !ok {
			w = &wanted{line: ShopLine{Thing: leaf.Ingredient.ID, Name: leaf.Ingredient.Name, Kind: leaf.Ingredient.Kind, For: []string{}}, perML: leaf.Form.GramsPerML}
			things[leaf.Ingredient.ID] = w
			order = append(order, leaf.Ingredient.ID)
		}
		w.grams += grams
		if !slices.Contains(w.line.For, title) {
			w.line.For = append(w.line.For, title)
		}
	}
	jars := map[string]float64{}
	mix := func(m formula.Mix, f formula.Formula, grams float64, title string) {
		if f.ID != "" && opt.Shelf.Jar != nil {
			left, asked := jars[f.ID]
			if !asked {
				left = opt.Shelf.Jar(f.ID).Grams()
			}
			if from := math.Min(left, grams); from > 0 {
				out.Jars = append(out.Jars, fmt.Sprintf("%.0f g of %s for %s", from, f.Name, title))
				grams -= from
				left -= from
			}
			jars[f.ID] = left
		}
		for _, leaf := range m.Leaves() {
			take(leaf, grams*leaf.WeightShare, title)
		}
	}
	for i, p := range pieces {
		if p == nil {
			continue
		}
		l := ShopLine{Thing: p.cut.ID, Name: p.name(), Kind: p.cut.Species, Need: quantity.FormatMass(p.whole(), opt.Units), For: []string{}, Frozen: p.chose("state") == "frozen"}
		l.Buy, l.Grams = l.Need, p.whole().Grams()
		if p.count > 1 {
			l.Name = fmt.Sprintf("%d × %s", p.count, l.Name)
		}
		pay(&l, p.whole().Grams(), p.cut.Density()/1000)
		out.Meat = append(out.Meat, l)
		if sheets[i].Season != nil {
			mix(p.mix, p.typed.Season.Formula, sheets[i].Season.ToMix.Value, p.name())
		}
		if p.inject != nil && sheets[i].Inject != nil {
			mix(p.inject.mix, p.typed.Inject.Formula, sheets[i].Inject.Batch.Value, p.name())
		}
		for n, layer := range p.layers {
			mix(layer.mix, p.typed.Layers[n].Formula, layer.mass.Grams()*float64(p.count), p.name())
		}
		if p.bath != nil && sheets[i].Bath != nil {
			salt, _ := larder.Find("table-salt")
			take(formula.Component{Ingredient: salt, Form: salt.Forms[0]}, sheets[i].Bath.Salt.Value, p.name()+", bath")
			for n, d := range p.bath.with {
				mix(d.mix, p.typed.Bath.With[n].Formula, d.mass.Grams(), p.name()+", bath")
			}
		}
	}
	slices.SortStableFunc(order, func(a, b string) int {
		return slices.Index(larder.Kinds, things[a].line.Kind) - slices.Index(larder.Kinds, things[b].line.Kind)
	})
	for _, id := range order {
		w := things[id]
		have := 0.0
		if opt.Shelf.Stock != nil {
			if a, ok := opt.Shelf.Stock(id); ok {
				have = a.Mass.Grams() + a.Volume.ML()*w.perML
			}
		}
		w.line.Need = gramText(w.grams, opt)
		if have > 0 {
			w.line.Have = gramText(have, opt)
		}
		if short := w.grams - have; short > 0.05 {
			w.line.Buy, w.line.Grams = gramText(short, opt), short
			pay(&w.line, short, w.perML)
		}
		out.Shelf = append(out.Shelf, w.line)
	}
	if sum > 0 {
		f := money(sum, sign, trace.Origin{Words: "What is missing, each at its price. " + notCounted(out.NoCost), Source: costSource})
		out.Total = &f
	}
	return out
}

func notCounted(names []string) string {
	if len(names) == 0 {
		return ""
	}
	return "Not counted, for want of a price: " + strings.Join(names, ", ") + "."
}

func gramText(g float64, opt Options) string {
	m := quantity.Mass(g) * quantity.Gram
	if g >= 1000 {
		return quantity.FormatMass(m, opt.Units)
	}
	return quantity.FormatGrams(m) + " g"
}
