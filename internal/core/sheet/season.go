package sheet

import (
	"fmt"
	"math"
	"slices"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

const cutSource = cut.Source

// referenceCut is the piece that cooks have in mind when they judge a coat.
const referenceCut = "pork-shoulder-bone-in"

// SeasonSheet is the rub, weighed out.
type SeasonSheet struct {
	Cost      *CostSheet   `json:"cost,omitempty" doc:"What the mix costs; absent while no price is known"`
	UsualMode string       `json:"usual_mode" doc:"What drives the amount of this mix when nothing is chosen: target or coat"`
	Mode      string       `json:"mode" doc:"What drives it now"`
	OnMeat    trace.Figure `json:"on_meat" doc:"Rub on all pieces, g"`
	ToMix     trace.Figure `json:"to_mix" doc:"Rub to mix, g: with what is lost while sprinkling and the margin"`
	Salt      trace.Figure `json:"salt" doc:"Salt of the rub on all pieces, g"`
	Percent   trace.Figure `json:"percent" doc:"Salt it leaves in the meat, % of raw boneless meat"`
	Coat      trace.Figure `json:"coat" doc:"mL on 100 cm²"`
	CoatWords string       `json:"coat_words"`
	TooThick  bool         `json:"too_thick" doc:"The surface does not hold that much"`
	Spoons    string       `json:"spoons" doc:"All of the mix in spoons and cups"`
	Rows      []RowSheet   `json:"rows" nullable:"false"`
	SaltShare trace.Figure `json:"salt_share" doc:"Salt in the mix by weight, %"`
	SugarPart float64      `json:"sugar_share" doc:"Sugar in the mix by weight, %"`
	Allergens []string     `json:"allergens" nullable:"false"`
	Weighed   bool         `json:"weighed" doc:"The figures on the meat are of what was really weighed"`
}

// RowSheet is one ingredient of it.
type RowSheet struct {
	Name   string          `json:"name"`
	Form   string          `json:"form"`
	Kind   string          `json:"kind"`
	Mass   trace.Figure    `json:"mass" doc:"To weigh out, g"`
	Spoons quantity.Spoons `json:"spoons"`
	Weight float64         `json:"weight_share" doc:"% of the mix by weight"`
	Volume float64         `json:"volume_share" doc:"% of the mix by volume"`
}

// dose is the rub on one piece.
type dose struct {
	plan  quantity.Mass // meant to lie on it
	mass  quantity.Mass // that lies on it
	salt  quantity.Mass // NaCl in that
	stays salt.Share    // of it, taken up
	coat  float64       // mL/dm²
}

// dose works out the rub on one piece: from the coat, or from the salt wanted.
func (p *piece) dose() (dose, error) {
	low, mid, high := formula.Stays(p.wait.Hours())
	d := dose{stays: salt.Share{Low: low, Mid: mid, High: high}}
	share := p.mix.SaltShare()
	if p.rubSolved() {
		rub := salt.Source{Name: p.rubName(), Stays: d.stays, Place: salt.Surface}
		wanted, err := salt.Solve(p.meat(), append(p.others(), rub), len(p.others()), p.target)
		if err != nil {
			return d, err
		}
		d.salt = wanted
		d.mass = quantity.Mass(float64(wanted) / share)
	} else {
		d.mass = p.mix.CoatMass(p.coatWanted(), p.salted())
		d.salt = quantity.Mass(float64(d.mass) * share)
	}
	d.plan = d.mass
	p.asWeighed(&d)
	d.coat = p.mix.CoatOf(d.mass, p.salted())
	return d, nil
}

// toMix is what has to be mixed so that planned lies on each piece: with what
// falls off while sprinkling, and the margin.
func (p *piece) toMix(planned quantity.Mass) quantity.Mass {
	return planned * quantity.Mass(float64(p.count)*(1+p.spare)/(1-formula.SprinkleLoss))
}

// readWeighed reads what was really weighed.
func (p *piece) readWeighed(at string, errs *field.Errors) {
	if len(p.typed.Weighed) == 0 {
		return
	}
	if len(p.typed.Weighed) != len(p.mix.Components) {
		errs.Add(at, "the mix has other ingredients than when it was weighed: weigh it again")
		return
	}
	total := 0.0
	for i, typed := range p.typed.Weighed {
		g, err := quantity.ParseParts(typed)
		if errs.Take(fmt.Sprintf("%s/%d", at, i), err) {
			return
		}
		p.onScale = append(p.onScale, g)
		total += g
	}
	if total <= 0 || total > 100e3 {
		errs.Add(at, "that is no batch of a rub: weigh it again")
		p.onScale = nil
	}
}

// asWeighed makes the dose what was really weighed: as much more or less than
// planned, with the salt that is really in it.
func (p *piece) asWeighed(d *dose) {
	if p.onScale == nil {
		return
	}
	total, salty := 0.0, 0.0
	for i, g := range p.onScale {
		total += g
		salty += g * p.mix.Components[i].Ingredient.Per100g.Salt / 100
	}
	d.mass = d.plan * quantity.Mass(total/p.toMix(d.plan).Grams())
	d.salt = d.mass * quantity.Mass(salty/total)
}

func (p *piece) coatWanted() float64 {
	c := p.coat.MLPerDM2
	if p.typed.Season.Binder {
		c *= formula.BinderHolds
	}
	return c
}

func (p *piece) rubName() string { return or(p.typed.Season.Formula.Name, "rub") }

// source is the dose as a line of the salt ledger. A coat judged by eye varies
// more than one that was weighed for a target.
func (p *piece) source(d dose) salt.Source {
	s := salt.Source{Name: p.rubName(), Salt: d.salt, Stays: d.stays, Place: salt.Surface}
	if !p.rubSolved() {
		s.Stays.Low = d.stays.Mid * (1 - math.Hypot(formula.CoatSpread, 1-d.stays.Low/d.stays.Mid))
		s.Stays.High = d.stays.Mid * (1 + math.Hypot(formula.CoatSpread, d.stays.High/d.stays.Mid-1))
	}
	return s
}

func (p *piece) seasonSheet(d dose) *SeasonSheet {
	n := float64(p.count)
	all := d.mass * quantity.Mass(n)
	mixed := p.toMix(d.plan)
	spread := 0.0
	if !p.rubSolved() {
		spread = formula.CoatSpread
	}
	area := p.salted() * 100 * n
	amountWords := "The coat’s volume per area times the surface, times what a mL of this mix weighs."
	if p.rubSolved() {
		amountWords = "The salt wanted in the boneless meat, over what stays of a coat and the share of salt in this mix."
	}
	s := &SeasonSheet{
		Weighed:   p.onScale != nil,
		UsualMode: modeName(p.mix.SaltLed()), Mode: modeName(p.byTarget),
		CoatWords: formula.DescribeCoat(d.coat), TooThick: d.coat > formula.MaxCoat,
		SaltShare: p.mixSalt(), SugarPart: p.mix.Per100g.Sugar,
		Allergens: append([]string{}, p.mix.Allergens...),
		Spoons:    quantity.FormatSpoons(p.mix.Volume(mixed), p.opt.Spoons).Text,
	}
	s.OnMeat = grams{p.opt}.figure(all, spread, amountWords, formula.CoatSource, []trace.Input{
		{Name: "surface of all", Text: trace.Decimal(area, 1) + " dm²"},
		{Name: "coat", Text: trace.Decimal(d.coat, 1) + " mL/dm²"},
		{Name: "a mL of this mix", Text: trace.Decimal(p.mix.GramsPerML, 2) + " g"},
	})
	s.ToMix = grams{p.opt}.figure(mixed, spread, "What lies on the meat, and what falls off while sprinkling, and your margin.", formula.CoatSource, []trace.Input{
		{Name: "on the meat", Text: quantity.FormatGrams(all) + " g"},
		{Name: "lost while sprinkling", Text: fmt.Sprintf("%.0f %%", 100*formula.SprinkleLoss)},
		{Name: "margin", Text: fmt.Sprintf("%.0f %%", 100*p.spare)},
	})
	s.Salt = grams{p.opt}.figure(d.salt*quantity.Mass(n), spread, "Salt in the rub on the meat: each ingredient’s salt by weight.", larder.Source, []trace.Input{
		{Name: "salt in this mix", Text: fmt.Sprintf("%.0f %% by weight", s.SaltShare.Value)},
		{Name: "rub on the meat", Text: quantity.FormatGrams(all) + " g"},
	})
	s.Coat = trace.New(d.coat, d.coat*(1-formula.CoatSpread), d.coat*(1+formula.CoatSpread), 1, "mL/dm²", trace.Origin{
		Words: "Volume of rub on 100 cm² of surface: light 2.5, medium 4, heavy 6, crust 9.", Source: formula.CoatSource,
		Inputs: []trace.Input{{Name: "rub on the meat", Text: quantity.FormatGrams(all) + " g"}, {Name: "surface of all", Text: trace.Decimal(area, 1) + " dm²"}},
	})
	if l, err := salt.Tally(p.meat(), p.sources(d)); err == nil {
		s.Percent = p.percentFigure(l, d)
	}
	s.Rows = grams{p.opt}.rows(p.typed.Season.Formula, p.mix.Weigh(mixed))
	s.Cost = costSheet(p.mix, mixed, p.opt)
	return s
}

// mixSalt is the salt of the mix by weight. By volume it varies with what a spoon
// of each salty ingredient weighs.
func (p *piece) mixSalt() trace.Figure {
	share, spread := 100*p.mix.SaltShare(), 0.0
	if p.typed.Season.Formula.Basis == formula.ByVolume {
		spread = p.mix.SaltSpread()
	}
	return trace.New(share, share*(1-spread), min(100, share*(1+spread)), 0, "%", trace.Origin{
		Words: "Each ingredient’s share of the mix by weight, times the salt it holds.", Source: larder.Source,
		Inputs: []trace.Input{{Name: "parts by", Text: string(p.typed.Season.Formula.Basis)}, {Name: "a mL of this mix", Text: trace.Decimal(p.mix.GramsPerML, 2) + " g"}},
	})
}

func modeName(byTarget bool) string {
	if byTarget {
		return "target"
	}
	return "coat"
}

// grams makes figures in grams.
type grams struct{ opt Options }

// figure is a mass at a scale's step, ± spread of it.
func (grams) figure(m quantity.Mass, spread float64, words, source string, inputs []trace.Input) trace.Figure {
	g := m.Grams()
	_, decimals := quantity.RoundGrams(g)
	f := trace.New(g, g*(1-spread), g*(1+spread), decimals, "g", trace.Origin{Words: words, Source: source, Inputs: inputs})
	f.Text = quantity.FormatGrams(m)
	return f
}

// rows are the ingredients of f weighed out.
func (g grams) rows(f formula.Formula, weighed []formula.Weighed) []RowSheet {
	out := make([]RowSheet, len(weighed))
	for i, w := range weighed {
		out[i] = RowSheet{
			Name: w.Ingredient.Name, Form: w.Form.Name, Kind: w.Ingredient.Kind,
			Mass: g.figure(w.Mass, 0, fmt.Sprintf("Its share of the mix by weight. Measured by spoon instead it is ±%.0f %% off.", w.Form.SpreadPercent), larder.Source, []trace.Input{
				{Name: "as written", Text: f.Rows[i].Parts + ", parts by " + string(f.Basis)},
				{Name: "share by weight", Text: fmt.Sprintf("%.1f %%", 100*w.WeightShare)},
				{Name: "a level teaspoon weighs", Text: trace.Decimal(w.Form.GramsPerML*g.opt.Spoons.Teaspoon().ML(), 1) + " g"},
			}),
			Spoons: quantity.FormatSpoons(w.Volume, g.opt.Spoons),
			Weight: 100 * w.WeightShare, Volume: 100 * w.VolumeShare,
		}
	}
	return out
}

func (p *piece) percentFigure(l salt.Ledger, d dose) trace.Figure {
	return trace.New(l.PercentRaw.Mid, l.PercentRaw.Low, l.PercentRaw.High, 2, "%", trace.Origin{
		Words:  "Salt that stays in the meat over its raw boneless weight. " + p.compare(p.salted()*100/p.meat().Edible().KG()),
		Source: formula.CoatSource,
		Inputs: []trace.Input{
			{Name: "salt on one " + p.cut.Noun, Text: quantity.FormatGrams(d.salt) + " g"},
			{Name: "of it stays", Text: fmt.Sprintf("%.0f %% (%.0f–%.0f %%) after %s", 100*d.stays.Mid, 100*d.stays.Low, 100*d.stays.High, quantity.FormatDuration(p.wait))},
			{Name: "boneless meat of one", Text: quantity.FormatMass(p.meat().Edible(), p.opt.Units)},
			{Name: "surface", Text: trace.Decimal(p.salted()*100, 1) + " dm²"},
			{Name: "other sources", Text: p.otherWords()},
		},
	})
}

// compare says how hard a coat salts this piece beside a pork shoulder of usual
// weight, which is what a coat is mostly judged on.
func (p *piece) compare(perKG float64) string {
	ref, _ := cut.Find(referenceCut)
	g, err := cut.New(ref, quantity.Mass(ref.TypicalKG), 0)
	if err != nil {
		return ""
	}
	of := g.Surface() * 100 / (ref.TypicalKG * (1 - ref.BoneShare()))
	ratio := perKG / of
	if ratio > 0.9 && ratio < 1.1 {
		return fmt.Sprintf("It has %.1f dm² of coated surface to a kg of boneless meat, about as much as a pork shoulder.", perKG)
	}
	return fmt.Sprintf("It has %.1f dm² of coated surface to a kg of boneless meat; a pork shoulder has %.1f. So the same coat salts it %.1f times as hard.", perKG, of, ratio)
}

// LedgerSheet is the salt of one piece against the band the cook chose.
type LedgerSheet struct {
	Percent trace.Figure `json:"percent" doc:"% of raw boneless meat"`
	Plate   trace.Figure `json:"plate" doc:"% of served meat"`
	Sodium  trace.Figure `json:"sodium" doc:"mg a serving"`
	Day     trace.Figure `json:"day" doc:"Sodium of a serving, % of a day's 2 300 mg"`
	Outer   trace.Figure `json:"outer" doc:"Salt in the outer 5 mm when the fire starts, %"`
	Band    salt.Band    `json:"band" doc:"The band the cook chose"`
	Tastes  string       `json:"tastes" doc:"The band it falls in"`
	Verdict string       `json:"verdict" doc:"How it stands to the chosen band"`
	InBand  bool         `json:"in_band"`
	Lines   []LedgerLine `json:"lines" nullable:"false"`
	Bands   []salt.Band  `json:"bands" nullable:"false" doc:"All bands, upwards"`
	Freed   *Freed       `json:"freed,omitempty" doc:"The source that gave way to the target, when it is not the rub"`
}

// LedgerLine is one source of salt.
type LedgerLine struct {
	Name    string     `json:"name"`
	Percent float64    `json:"percent" doc:"% of raw boneless meat that stays"`
	Salt    string     `json:"salt" doc:"Salt on one piece"`
	Place   salt.Place `json:"place" enum:"surface,pockets,dissolved"`
	Stays   string     `json:"stays" doc:"How much of it stays, with its range"`
}

func (p *piece) ledgerSheet(d dose, course salt.Course) *LedgerSheet {
	sources := p.sources(d)
	l, err := salt.Tally(p.meat(), sources)
	if err != nil {
		return nil
	}
	mg := func(percent float64) float64 { return salt.SodiumMG(percent, p.portion) }
	sodium := mg(l.PercentPlate.Mid)
	out := &LedgerSheet{
		Percent: p.percentFigure(l, d),
		Plate: trace.New(l.PercentPlate.Mid, l.PercentPlate.Low, l.PercentPlate.High, 2, "%", trace.Origin{
			Words: "The same salt over the cooked meat: the meat shrinks, the salt stays.", Source: cutSource,
			Inputs: []trace.Input{{Name: "salt in the raw meat", Text: trace.Decimal(l.PercentRaw.Mid, 2) + " %"}, {Name: "cook yield", Text: fmt.Sprintf("%.0f %%", p.cut.CookYield.Mid)}}}),
		Sodium: trace.New(sodium, mg(l.PercentPlate.Low), mg(l.PercentPlate.High), 0, "mg", trace.Origin{
			Words:  "Salt of a portion of cooked meat over 2.542, the mass of salt that holds one of sodium. Added salt only; meat has 50–80 mg in 100 g of its own.",
			Source: larder.Source, Inputs: []trace.Input{{Name: "salt in the cooked meat", Text: trace.Decimal(l.PercentPlate.Mid, 2) + " %"}, {Name: "portion", Text: quantity.FormatMass(p.portion, p.opt.Units)}}}),
		Day: trace.New(100*sodium/caution.SodiumDayMG, 100*mg(l.PercentPlate.Low)/caution.SodiumDayMG, 100*mg(l.PercentPlate.High)/caution.SodiumDayMG, 0, "%", trace.Origin{
			Words: "Sodium of a serving over a day’s 2 300 mg.", Source: "US dietary guideline",
			Inputs: []trace.Input{{Name: "a serving", Text: trace.Decimal(sodium, 0) + " mg"}}}),
		Outer: trace.Exact(100*course.End.Outer, 1, "%", trace.Origin{
			Words:  "The rub’s salt in the outer 5 mm when the fire starts: what the first bite tastes. What a bath, a needle or another layer brings comes on top.",
			Source: salt.DiffusionSource, Inputs: p.brineInputs(d)}),
		Band: p.band, Tastes: salt.BandOf(l.PercentRaw.Mid).Name, Bands: salt.Bands,
		Lines: []LedgerLine{}, Freed: p.freed,
	}
	for i, src := range sources {
		out.Lines = append(out.Lines, LedgerLine{
			Name: src.Name, Percent: l.Lines[i].Mid, Salt: quantity.FormatGrams(src.Salt) + " g", Place: src.Place,
			Stays: fmt.Sprintf("%.0f %% (%.0f–%.0f %%)", 100*src.Stays.Mid, 100*src.Stays.Low, 100*src.Stays.High),
		})
	}
	switch v := l.PercentRaw.Mid; {
	case v < p.band.Low-0.005:
		out.Verdict = fmt.Sprintf("%.2f short of %s", p.band.Low-v, p.band.Name)
	case v > p.band.High+0.005:
		out.Verdict = fmt.Sprintf("%.2f over %s", v-p.band.High, p.band.Name)
	default:
		out.Verdict, out.InBand = "within "+p.band.Name, true
	}
	return out
}

func (p *piece) cautions(d dose, l *LedgerSheet) []caution.Finding {
	type portion struct {
		mix  formula.Mix
		mass quantity.Mass
	}
	doses := []portion{{p.mix, d.mass}}
	nitriteLimit, phosphate := caution.NitriteDry, 0.0
	if p.inject != nil {
		doses = append(doses, portion{p.inject.mix, p.inject.mass})
		nitriteLimit = caution.NitritePumped
		phosphate = p.inject.mass.KG() * (1 - injectionLoss.mid()) * p.inject.mix.Per100g.Phosphate / p.green.KG()
	}
	for _, l := range p.layers {
		doses = append(doses, portion{l.mix, l.mass})
	}
	if p.bath != nil {
		for _, b := range p.bath.with {
			doses = append(doses, portion{b.mix, 0}) // what it brings but salt stays in the pot
		}
	}
	honey, nitrite, allergens := false, 0.0, []string{}
	for _, one := range doses {
		honey = honey || one.mix.Honey
		nitrite += one.mass.KG() * one.mix.Per100g.Nitrite / 100
		allergens = append(allergens, one.mix.Allergens...)
	}
	slices.Sort(allergens)
	return caution.Check(caution.Facts{
		NitriteLimit: nitriteLimit, PhosphatePercent: phosphate, Injected: p.inject != nil, Bath: p.bath != nil,
		Cut: p.cut, Fridge: p.fridge, Room: p.room, Counter: p.temper, Wait: p.wait, Longest: plan.LongestWait(p.cut),
		Pit: p.pit, SaltPercent: l.Percent.Value, Band: p.band.Name, SodiumMG: l.Sodium.Value,
		SugarShare: p.mix.Per100g.Sugar / 100, NitritePPM: 1e6 * nitrite / p.green.KG(),
		Allergens: slices.Compact(allergens), Honey: honey,
		Frozen: p.chose("state") == "frozen", Thaw: thawing(p.green), Done: p.done, WarmsIn: plan.WarmsIn(p.fire, p.pit, float64(p.done)),
		Hold: p.times.Hold, Held: p.chose("rest"), Chilled: !p.times.Reheat.IsZero(), Leftovers: p.leftovers, Burns: p.pitKind().ID,
		Wrapped: p.chose("wrap") != "none", Unlogged: p.times.Over,
	})
}
