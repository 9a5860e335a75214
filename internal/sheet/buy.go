package sheet

import (
	"cmp"
	"fmt"
	"strings"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/provisions"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/shop"
)

// BuyLine is what of a piece feeds the guests.
type BuyLine struct {
	Title string     `json:"title"`
	Buy   Figure     `json:"buy" doc:"Raw weight to buy of it, all of its pieces, so that everyone eats"`
	Count int        `json:"count" doc:"How many pieces that is: as many as now, unless one would then be no such piece"`
	Typed string     `json:"typed" doc:"The same as the field takes it, for each or all as the piece is typed"`
	Cost  *CostSheet `json:"cost,omitempty" doc:"Of what is bought now, meat and mix"`
	Each  string     `json:"each" doc:"That cost for one portion; empty without a price"`
}

// CostSheet is what something costs.
type CostSheet struct {
	Total   Figure   `json:"total"`
	Missing []string `json:"missing" nullable:"false" doc:"What has no price and is not counted"`
	Note    string   `json:"note" doc:"The same in a few words; empty when all is counted"`
}

// cost writes a cost; nil stays nil.
func (w writer) cost(c *shop.Cost) *CostSheet {
	if c == nil {
		return nil
	}
	out := &CostSheet{Total: w.money(c.Total, c.Sign), Missing: w.missing(c.Missing)}
	if from := out.Total.Where; from != nil {
		from.Explanation = join(from.Explanation, " ", notCounted(out.Missing))
	}
	out.Note = without(out.Missing)
	return out
}

// missing names what has no price.
func (w writer) missing(ids []string) []string {
	out := []string{}
	for _, id := range ids {
		key, isPiece := strings.CutPrefix(id, shop.OfPiece)
		use, isMix := strings.CutPrefix(id, shop.OfMix)
		supply, isSupply := strings.CutPrefix(id, shop.OfSupply)
		switch {
		case isPiece:
			out = append(out, w.pieces[key])
		case isMix:
			out = append(out, mixFor(dose.ID(use)))
		case isSupply:
			known, _ := larder.FindSupply(supply)
			out = append(out, known.Name)
		default:
			out = append(out, id)
		}
	}
	return out
}

// mixFor names what is mixed for a use.
func mixFor(use dose.ID) string {
	switch use {
	case dose.Rub{}.ID():
		return "the rub"
	case dose.Bath{}.ID():
		return "the bath"
	case dose.Injection{}.ID():
		return "the injection"
	}
	return "what goes on besides the rub"
}

func notCounted(names []string) string {
	if len(names) == 0 {
		return ""
	}
	return "Not counted, because they have no price: " + strings.Join(names, ", ") + "."
}

// without names a few of what is not counted.
func without(names []string) string {
	const few = 4
	switch n := len(names); {
	case n == 0:
		return ""
	case n > few:
		return "not counting " + strings.Join(names[:few], ", ") + " and others: no price"
	}
	return "not counting " + strings.Join(names, ", ") + ": no price"
}

// buy adds what to buy and what it costs.
func (w writer) buy(s *Sheet, r cooking.Result) {
	for _, l := range r.Buy {
		line := BuyLine{Title: w.pieces[l.Key], Buy: Figure{}}
		if l.Sound {
			line.Buy = w.figure(l.Buy)
			line.Count = l.Count
			line.Typed = quantity.FormatMass(l.Each, w.Units)
			line.Cost = w.cost(l.Cost)
		}
		if l.Cost != nil && l.Share > 0 {
			line.Each = money(shop.Money{Value: l.Share, Sign: l.Cost.Sign})
		}
		s.Buy = append(s.Buy, line)
	}
	all := provisions.Cost(r)
	if s.Cost = w.cost(all); s.Cost != nil && r.Servings.Mid > 0 {
		s.CostPerPortion = money(shop.Money{Value: all.Total.Mid / r.Servings.Mid, Sign: all.Sign}) + " a portion"
	}
}

// Shopping is what to buy for a cook.
type Shopping struct {
	Errors    []Mistake  `json:"errors" nullable:"false"`
	Meat      []ShopLine `json:"meat" nullable:"false"`
	Groceries []ShopLine `json:"groceries" nullable:"false" doc:"What is missing of everything else, by kind"`
	Enough    string     `json:"enough" doc:"What there is enough of, in a sentence; may be empty"`
	Stock     []ShopLine `json:"stock" nullable:"false" doc:"What there is enough of"`
	Jars      []string   `json:"jars" nullable:"false" doc:"Mixes that are taken from a jar"`
	Cost      *CostSheet `json:"cost,omitempty" doc:"What it costs; absent without prices"`
}

// ShopLine is one thing to buy.
type ShopLine struct {
	ID      string   `json:"id" doc:"Of the ingredient or cut"`
	Tick    string   `json:"tick" doc:"Names the line with its amount: what is ticked is open again when another amount is needed"`
	Name    string   `json:"name"`
	Kind    string   `json:"kind"`
	Need    string   `json:"need"`
	InStock string   `json:"in_stock" doc:"Empty when nothing is"`
	Buy     string   `json:"buy" doc:"What is missing; empty when nothing is"`
	Grams   float64  `json:"grams" doc:"Of buy"`
	Cost    string   `json:"cost"`
	For     []string `json:"for" nullable:"false"`
	Note    string   `json:"note" doc:"What is in stock and what it is for, in a line"`
	Frozen  bool     `json:"frozen"`
	Ticked  bool     `json:"ticked"`
}

// WriteShopping says what to buy for a result.
func WriteShopping(r cooking.Result, as Reader) Shopping {
	w := newWriter(r, as)
	list := provisions.List(r)
	out := Shopping{
		Errors:    w.mistakes(r.Mistakes),
		Meat:      []ShopLine{},
		Groceries: []ShopLine{},
		Stock:     []ShopLine{},
		Jars:      []string{},
	}
	for _, item := range list.Meat {
		line := w.shopLine(item, r)
		line.Name = times(item.Count, w.pieces[item.For[0].Key])
		line.Need, line.Buy = w.value(item.Need, ""), w.value(item.Buy, "")
		line.For, line.Note = []string{}, ""
		out.Meat = append(out.Meat, line)
	}
	enough := []string{}
	for _, item := range list.Groceries {
		line := w.shopLine(item, r)
		if line.Buy == "" {
			out.Stock = append(out.Stock, line)
			enough = append(enough, fmt.Sprintf("%s (%s of %s)", line.Name, line.Need, line.InStock))
			continue
		}
		out.Groceries = append(out.Groceries, line)
	}
	for _, item := range list.Supplies {
		line := w.supply(item, r)
		if line.Buy == "" {
			out.Stock = append(out.Stock, line)
			enough = append(enough, fmt.Sprintf("%s (%s of %s)", line.Name, line.Need, line.InStock))
			continue
		}
		out.Groceries = append(out.Groceries, line)
	}
	if len(enough) > 0 {
		out.Enough = "You have enough " + strings.Join(enough, ", ") + "."
	}
	for _, j := range list.Jars {
		out.Jars = append(out.Jars, fmt.Sprintf("%.0f g of %s for %s", j.Mass.Grams(), j.Formula, w.pieces[j.Key]))
	}
	if list.Cost != nil && list.Cost.Total.Rule != "" {
		out.Cost = w.cost(list.Cost)
	}
	return out
}

// supply writes something for the fire or the wrap.
func (w writer) supply(item shop.Item, r cooking.Result) ShopLine {
	s := item.Supply
	known, _ := larder.FindSupply(s.ID)
	out := ShopLine{ID: s.ID, Name: known.Name, Kind: known.Kind, For: []string{}}
	switch {
	case s.Sheets == 1:
		out.Buy = "1 sheet, an arm long"
	case s.Sheets > 1:
		out.Buy = fmt.Sprintf("%d sheets, an arm long", s.Sheets)
	case s.Chunks > 0:
		out.Buy, out.Kind = counted(s.Chunks, "chunk", "chunks")+", the size of a fist", "for the smoke"
	default:
		out.Buy, out.Kind, out.Grams = "", "for the fire, with a quarter to spare", item.Buy.Grams()
		if item.Buy > 0 {
			out.Buy = w.packetMass(item.Buy)
		}
		out.Need = w.packetMass(item.Need)
	}
	if item.Have > 0 {
		out.InStock = w.packetMass(item.Have)
		out.Note = "you have " + out.InStock
	}
	if item.Cost != nil {
		out.Cost = money(*item.Cost)
	}
	out.Need, out.Tick = cmp.Or(out.Need, out.Buy), fmt.Sprintf("%s-%.1f-%d-%d", s.ID, item.Buy.KG(), s.Sheets, s.Chunks)
	_, out.Ticked = r.Facts.Ticked(out.Tick)
	return out
}

func (w writer) shopLine(item shop.Item, r cooking.Result) ShopLine {
	out := ShopLine{
		ID:     item.ID,
		Name:   item.Name,
		Kind:   item.Kind,
		Need:   w.packetMass(item.Need),
		Grams:  item.Buy.Grams(),
		For:    []string{},
		Frozen: item.Frozen,
	}
	if item.Have > 0 {
		out.InStock = w.packetMass(item.Have)
	}
	if item.Buy > 0 {
		out.Buy = w.packetMass(item.Buy)
	}
	if item.Cost != nil {
		out.Cost = money(*item.Cost)
	}
	for _, f := range item.For {
		name := w.pieces[f.Key]
		if f.Use == "bath" {
			name += ", bath"
		}
		if len(out.For) == 0 || out.For[len(out.For)-1] != name {
			out.For = append(out.For, name)
		}
	}
	if out.InStock != "" {
		out.Note = "you have " + out.InStock
	}
	if len(out.For) > 0 {
		out.Note = join(out.Note, "; ", "for "+strings.Join(out.For, ", "))
	}
	out.Tick = item.Tick()
	_, out.Ticked = r.Facts.Ticked(out.Tick)
	return out
}

// packetMass writes a mass as a packet is sold: in grams below a kilo.
func (w writer) packetMass(m quantity.Mass) string {
	if m >= 1 {
		return quantity.FormatMass(m, w.Units)
	}
	return w.weight(m)
}

// Changes writes what is different between two versions of a formula.
func Changes(changes []field.Wrong, as Reader) []string {
	out := []string{}
	for _, c := range changes {
		out = append(out, writer{Reader: as}.say(c))
	}
	return out
}
