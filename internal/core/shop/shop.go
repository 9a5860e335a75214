// Package shop is what to buy: how much raw meat feeds so many, what else a cook
// takes less what is in stock and in jars, and what it all costs.
//
//	lines := shop.ToBuy(pieces, 42.5, k)
//	lines[0].Buy.Mid   // kg of raw meat
package shop

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// Piece is what buying has to know of a line of the page. It counts when Sound.
type Piece struct {
	Key      string
	Sound    bool
	Meat     order.Meat
	Together bool // its weights are typed for all pieces together
	Frozen   bool
	Portion  quantity.Mass
	Portions float64 // that it feeds now
	Uses     []dose.Use
}

// whole is the weight as bought of all pieces, or what it must have been.
func (p Piece) whole() quantity.Mass {
	each := p.Meat.Bought
	if each == 0 {
		each = p.Meat.Green.Mid / quantity.Mass(1-p.Meat.Cut.TrimLoss.Mid/100)
	}
	return each * quantity.Mass(p.Meat.Count)
}

// Line is what of a piece feeds the guests.
type Line struct {
	Key   string
	Sound bool
	Buy   trace.Figure  // kg of raw meat, all of its pieces
	Count int           // as many as now, unless one would then be no such piece
	Each  quantity.Mass // for the field: of one, or of all as the piece is typed
	Cost  *Cost         // of what is bought now, meat and all that is mixed for it; nil without a price of the meat
	Share float64       // of that cost, for one portion
}

// ToBuy shares the portions needed among the pieces as they feed now, and turns each
// share back into raw weight through cook loss, bone and trim.
func ToBuy(pieces []Piece, needed float64, k kitchen.Kitchen) []Line {
	feeds := slices.Clone(pieces)
	slices.SortFunc(feeds, func(a, b Piece) int { return cmp.Compare(a.Key, b.Key) })
	total := 0.0
	for _, p := range feeds {
		total += p.Portions
	}
	factor := 1.0
	if total > 0 && needed > 0 {
		factor = needed / total
	}
	out := make([]Line, len(pieces))
	for i, p := range pieces {
		out[i] = Line{Key: p.Key}
		if p.Sound {
			out[i] = p.line(p.Portions*factor, k)
		}
	}
	return out
}

// line is what of p to buy for so many portions.
func (p Piece) line(portions float64, k kitchen.Kitchen) Line {
	c := p.Meat.Cut
	kg := func(trim, yield float64) float64 {
		return portions * p.Portion.KG() / (yield / 100) / (1 - c.BoneShare()) / (1 - trim/100)
	}
	trim, yield := c.TrimLoss, c.CookYield
	mid := kg(trim.Mid, yield.Mid)
	out := Line{Key: p.Key, Sound: true, Count: p.Meat.Count, Buy: trace.New(
		"buy.raw",
		quantity.Range[float64]{Low: kg(trim.Low, yield.High), Mid: mid, High: kg(trim.High, yield.Low)},
		"portions",
		Portions{portions, p.Portion},
		"cook_yield",
		Percent(yield),
		"bone",
		trace.Number{Value: c.BonePercent, Unit: "%"},
		"trim",
		Percent(trim),
	)}
	if each := mid / float64(p.Meat.Count); each > c.HighKG || each < c.LowKG {
		out.Count = int(math.Max(1, math.Round(mid/c.TypicalKG)))
	}
	out.Each = quantity.Mass(mid)
	if !p.Together {
		out.Each /= quantity.Mass(out.Count)
	}
	out.Cost = p.cost(k)
	if out.Cost != nil && p.Portions > 0 {
		out.Share = out.Cost.Total.Mid / p.Portions
	}
	return out
}

// Portions are so many of a mass.
type Portions struct {
	Count float64
	Of    quantity.Mass
}

// Percent is a share in percent with its range, told with its middle.
type Percent cut.Span

// List is what to buy for a cook.
type List struct {
	Meat      []Item
	Groceries []Item // everything but the meat, by kind
	Supplies  []Item // for the fire and the wrap
	Jars      []FromJar
	Cost      *Cost
}

// Item is one thing to buy.
type Item struct {
	Supply Supply // of something for the fire or the wrap
	ID     string
	Name   string // of an ingredient; empty for meat, which goes by its Keys
	Kind   string
	Count  int
	Need   quantity.Mass
	Have   quantity.Mass // in stock
	Buy    quantity.Mass // what is missing
	Cost   *Money
	For    []For
	Frozen bool
}

// Tick names the item with the amount to buy, in grams: a tick of it no longer counts
// when another amount is needed, and does not depend on words or units.
func (i Item) Tick() string {
	of := i.ID
	if i.Name == "" && len(i.For) > 0 {
		of += ":" + i.For[0].Key
	}
	return of + ":" + quantity.FormatGrams(i.Buy)
}

// For is what an item is for.
type For struct {
	Key string // of the piece
	Use dose.ID
}

// FromJar is a mix that is taken from a jar.
type FromJar struct {
	Mass    quantity.Mass
	Formula string
	Key     string // of the piece
}

// Shopping lists what the pieces take, and supplies for the fire and the wrap, less what is
// in stock and in jars. Jars are given out in the order of the pieces' keys.
func Shopping(pieces []Piece, supplies []Supply, k kitchen.Kitchen) List {
	out := List{}
	sum := purse{missing: []string{}}
	for _, p := range pieces {
		item := Item{
			ID:     p.Meat.Cut.ID,
			Kind:   p.Meat.Cut.Species,
			Count:  p.Meat.Count,
			Need:   p.whole(),
			Buy:    p.whole(),
			For:    []For{{Key: p.Key}},
			Frozen: p.Frozen,
		}
		if cost, ok := sum.pay("piece:"+p.Key, p.Meat.Cut.ID, item.Need.Grams(), p.Meat.Cut.Density()/1000, k); ok {
			item.Cost = &Money{cost, sum.sign}
		}
		out.Meat = append(out.Meat, item)
	}
	sorted := slices.Clone(pieces)
	slices.SortFunc(sorted, func(a, b Piece) int { return cmp.Compare(a.Key, b.Key) })
	s := basket{kitchen: k, things: map[string]*thing{}, jars: map[int]quantity.Mass{}}
	for _, p := range sorted {
		for _, u := range p.Uses {
			s.take(u, p.Key)
		}
	}
	out.Jars = s.drawn
	for _, t := range s.sorted() {
		if have, ok := k.Stock[t.item.ID]; ok {
			t.item.Have = have.Of(t.perML)
		}
		if short := t.item.Need - t.item.Have; short.Grams() > 0.05 {
			t.item.Buy = short
			if cost, ok := sum.pay(t.item.Name, t.item.ID, short.Grams(), t.perML, k); ok {
				t.item.Cost = &Money{cost, sum.sign}
			}
		}
		out.Groceries = append(out.Groceries, t.item)
	}
	for _, s := range supplies {
		item := Item{ID: s.ID, Supply: s, Need: s.ToBuy()}
		item.Have = min(item.Need, k.Stock[s.ID].Of(s.perML()))
		item.Buy = item.Need - item.Have
		if cost, ok := sum.supply(s, item.Buy, k); ok {
			item.Cost = &Money{cost, sum.sign}
		}
		out.Supplies = append(out.Supplies, item)
	}
	out.Cost = sum.cost("cost.shopping")
	if out.Cost == nil && len(sum.missing) > 0 {
		out.Cost = &Cost{Missing: sum.missing}
	}
	return out
}

// thing is one item of the basket, being added up.
type thing struct {
	item  Item
	perML float64
}

// basket adds up what is taken of each thing.
type basket struct {
	kitchen kitchen.Kitchen
	things  map[string]*thing
	jars    map[int]quantity.Mass // taken of each jar of the kitchen
	drawn   []FromJar
}

// take adds what a use takes, first from jars of the same mix.
func (s *basket) take(u dose.Use, key string) {
	if u.Salt > 0 {
		salt, _ := larder.Find("table-salt")
		s.add(salt, salt.Forms[0], u.Salt, For{key, u.For})
	}
	left := u.Mass
	for i, j := range s.kitchen.Jars {
		if from := min(left, j.Left-s.jars[i]); from > 0 && j.Formula.SameMix(u.Formula) {
			s.jars[i] += from
			left -= from
			s.drawn = append(s.drawn, FromJar{from, u.Formula.Name, key})
		}
	}
	for _, leaf := range u.Mix.Leaves() {
		s.add(leaf.Ingredient, leaf.Form, left*quantity.Mass(leaf.WeightShare), For{key, u.For})
	}
}

func (s *basket) add(i larder.Ingredient, form larder.Form, m quantity.Mass, f For) {
	if i.ID == "water" || m <= 0 {
		return
	}
	t, ok := s.things[i.ID]
	if !ok {
		t = &thing{item: Item{ID: i.ID, Name: i.Name, Kind: i.Kind}, perML: form.GramsPerML}
		s.things[i.ID] = t
	}
	t.item.Need += m
	if !slices.Contains(t.item.For, f) {
		t.item.For = append(t.item.For, f)
	}
}

// sorted are the things by kind, then by name.
func (s *basket) sorted() []*thing {
	out := []*thing{}
	for _, t := range s.things {
		out = append(out, t)
	}
	slices.SortFunc(out, func(a, b *thing) int {
		return cmp.Or(
			slices.Index(larder.Kinds, a.item.Kind)-slices.Index(larder.Kinds, b.item.Kind),
			strings.Compare(a.item.Name, b.item.Name),
		)
	})
	return out
}
