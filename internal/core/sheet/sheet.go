package sheet

import (
	"fmt"
	"slices"
	"sync"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/field"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// Sheet is every figure of a cook.
type Sheet struct {
	Errors   field.Errors `json:"errors" nullable:"false" doc:"Mistakes, each with a pointer into the cook as typed; figures that depend on one are missing"`
	Serve    string       `json:"serve" doc:"Serving time in words; empty when none is given"`
	Away     string       `json:"away" doc:"How far off serving is, in words"`
	Servings trace.Figure `json:"servings"`
	Verdict  string       `json:"verdict" doc:"Whether the meat goes round, in a sentence; empty without guests"`
	Short    bool         `json:"short" doc:"There is too little meat"`
	Pieces   []PieceSheet `json:"pieces" nullable:"false"`
	Closing  string       `json:"closing" doc:"The line under every list of cautions"`
	Demand   trace.Figure `json:"demand" doc:"Portions wanted"`
	Buy      []BuyLine    `json:"buy" nullable:"false" doc:"For each piece, what to buy of it"`
	Cost     *CostSheet   `json:"cost,omitempty" doc:"Of all pieces; absent without prices"`
	CostEach string       `json:"cost_each" doc:"That for one portion; may be empty"`
	Plan     *PlanSheet   `json:"plan,omitempty" doc:"The days laid out; absent without a serving time or a piece"`
}

// PieceSheet is every figure of one kind of piece.
type PieceSheet struct {
	Ready    bool              `json:"ready" doc:"False while there is a mistake in the piece; figures that depend on it are absent"`
	Title    string            `json:"title"`
	Noun     string            `json:"noun"`
	Count    int               `json:"count"`
	Meat     *Meat             `json:"meat,omitempty"`
	Bath     *BathSheet        `json:"bath,omitempty"`
	Inject   *InjectionSheet   `json:"inject,omitempty"`
	Season   *SeasonSheet      `json:"season,omitempty"`
	Ledger   *LedgerSheet      `json:"ledger,omitempty"`
	Depth    *DepthSheet       `json:"depth,omitempty"`
	Clock    *ClockSheet       `json:"clock,omitempty"`
	Choices  []ChoiceSheet     `json:"choices" nullable:"false" doc:"Decisions of the stages"`
	GrainSay string            `json:"grain_says" doc:"Which way to slice; empty when the grain is not marked"`
	Done     string            `json:"usual_done" doc:"Core temperature at which it is usually taken off"`
	Cautions []caution.Finding `json:"cautions" nullable:"false"`
}

// Meat is what is known of a piece before anything goes on it.
type Meat struct {
	Green      trace.Figure `json:"green" doc:"Weight of one after trimming"`
	AllGreen   trace.Figure `json:"all_green" doc:"Weight of all after trimming"`
	Thickness  trace.Figure `json:"thickness"`
	Surface    trace.Figure `json:"surface" doc:"Area of one that takes a coat, dm²"`
	PerKG      trace.Figure `json:"per_kg" doc:"That area per kg of boneless meat"`
	Served     trace.Figure `json:"served" doc:"Cooked meat from all pieces"`
	Servings   trace.Figure `json:"servings"`
	OneBare    bool         `json:"one_bare" doc:"One broad face takes no coat"`
	Compare    string       `json:"compare" doc:"How hard a coat salts this piece beside a pork shoulder"`
	SizeInWord string       `json:"size" doc:"Length × width × thickness"`
}

// Compute works out c. It does not fail: what is wrong stands in Errors, and
// every figure that does not depend on it is there.
func Compute(c Cook, opt Options) Sheet {
	s, pieces := work(c, opt)
	demand := c.demand(&field.Errors{})
	s.Buy = buyLines(pieces, s.Pieces, demand)
	s.addCosts()
	return s
}

// work works out c, and gives its pieces as they were understood; nil for one
// with a mistake in what the plan needs.
func work(c Cook, opt Options) (Sheet, []*piece) {
	c.Pieces = slices.Clone(c.Pieces) // the caller's stay without keys
	c = Keyed(c)
	s := Sheet{Errors: field.Errors{}, Pieces: []PieceSheet{}, Buy: []BuyLine{}, Closing: caution.Closing}
	if or(c.Name, "") == "" {
		s.Errors.Add("/name", "give the cook a name, for example Sunday shoulder")
	} else if len(c.Name) > maxText {
		s.Errors.Add("/name", "a name has at most %d letters", maxText)
	}
	if c.Guests < 0 || c.Guests > maxGuests {
		s.Errors.Add("/guests", "between 1 and %d guests", maxGuests)
	}
	demand := c.demand(&s.Errors)
	k := readKitchen(c, opt, &s.Errors)
	if !k.serve.IsZero() {
		s.Serve = k.serve.Format("Monday 2 January 15:04")
		if !opt.Now.IsZero() {
			s.Away = plan.Away(k.serve, opt.Now)
		}
	}
	planned := !slices.ContainsFunc([]string{"/quiet", "/hands", "/pits", "/marks", "/acks", "/plan"}, s.Errors.Under)
	sound := onlyAbout(s.Errors, "/name", "/guests", "/serve_at", "/children", "/appetite", "/leftovers", "/quiet", "/hands", "/pits", "/marks", "/acks", "/plan")
	if len(c.Pieces) > MaxPieces {
		s.Errors.Add("/pieces", "a cook has at most %d kinds of piece", MaxPieces)
		return s, nil
	}
	// Pieces do not depend on one another but for the plan, and their diffusion is
	// most of the work.
	read := make([]piece, len(c.Pieces))
	wrong := make([]field.Errors, len(c.Pieces))
	each(len(c.Pieces), func(i int) { read[i], _ = readPiece(c.Pieces[i], k, at("/pieces", i), &wrong[i]) })
	pieces := make([]*piece, len(c.Pieces))
	for i := range read {
		if sound && read[i].plannable(wrong[i], at("/pieces", i)) {
			pieces[i] = &read[i]
			pieces[i].estimate()
		}
	}
	laid := laidOut{chosen: -1}
	if planned {
		laid = layOut(c, k, pieces)
	}
	s.Pieces = make([]PieceSheet, len(c.Pieces))
	each(len(c.Pieces), func(i int) {
		s.Pieces[i] = read[i].sheet(&wrong[i], at("/pieces", i), sound)
		acknowledge(s.Pieces[i].Cautions, c.Pieces[i].Key, c.Acks)
	})
	servings := 0.0
	inputs := []trace.Input{}
	for i, one := range s.Pieces {
		s.Errors = append(s.Errors, wrong[i]...)
		if one.Meat != nil {
			servings += one.Meat.Servings.Value
			inputs = append(inputs, trace.Input{Name: one.Title, Text: one.Meat.Servings.Text})
		}
	}
	s.Servings = trace.New(servings, servings*0.9, servings*1.1, 0, "portions", trace.Origin{
		Words: "The portions of all pieces added up.", Inputs: inputs, Source: "this cook",
	})
	s.Demand = trace.Exact(demand, decimals(demand), "portions", trace.Origin{
		Words: "Grown-ups, and children at half, times the appetite; and what is to be left.", Source: "field judgement",
		Inputs: []trace.Input{{Name: "grown-ups", Text: fmt.Sprint(c.Guests)}, {Name: "children", Text: fmt.Sprint(c.Children)}, {Name: "appetite", Text: or(c.Appetite, "usual")}, {Name: "to be left", Text: fmt.Sprint(c.Leftovers)}},
	})
	s.Verdict, s.Short = goesRound(servings, demand)
	s.Plan = laid.sheet(c, pieces)
	return s, pieces
}

// decimals is how many a number of portions needs.
func decimals(v float64) int {
	if v == float64(int(v)) {
		return 0
	}
	return 1
}

// each runs do for 0 to n-1 side by side.
func each(n int, do func(i int)) {
	var all sync.WaitGroup
	for i := range n {
		all.Go(func() { do(i) })
	}
	all.Wait()
}

// plannable reports whether nothing that the plan needs is a mistake.
func (p *piece) plannable(errs field.Errors, at string) bool {
	for _, part := range []string{"/cut", "/count", "/bought", "/trimmed", "/trim_style", "/thickness", "/wait", "/fire", "/choices", "/bath", "/inject"} {
		if errs.Under(at + part) {
			return false
		}
	}
	return p.green > 0
}

// addCosts adds the pieces' costs up.
func (s *Sheet) addCosts() {
	sum, sign, missing := 0.0, "", []string{}
	inputs := []trace.Input{}
	for _, b := range s.Buy {
		if b.Cost == nil {
			missing = append(missing, b.Title)
			continue
		}
		sum, sign = sum+b.Cost.Total.Value, b.Cost.Total.Unit
		inputs = append(inputs, trace.Input{Name: b.Title, Text: b.Cost.Total.Text + " " + b.Cost.Total.Unit})
	}
	if sum == 0 {
		return
	}
	s.Cost = &CostSheet{Total: money(sum, sign, trace.Origin{Words: "Meat and mixes of all pieces. " + notCounted(missing), Source: costSource, Inputs: inputs}), Missing: missing}
	if s.Servings.Value > 0 {
		s.CostEach = fmt.Sprintf("%.2f %s a portion", sum/s.Servings.Value, sign)
	}
}

// acknowledge marks the stops that were read: as they stood then, for that piece.
func acknowledge(found []caution.Finding, key string, acks []Ack) {
	for i := range found {
		for _, a := range acks {
			if a.Piece == key && a.Rule == found[i].ID && a.What == found[i].What {
				found[i].Read = a.At
			}
		}
	}
}

// goesRound says whether the portions feed the guests.
func goesRound(servings, g float64) (verdict string, short bool) {
	switch {
	case g <= 0 || servings == 0:
		return "", false
	case servings < 0.95*g:
		return fmt.Sprintf("%.0f short for %.0f portions", g-servings, g), true
	case servings > 1.25*g:
		return fmt.Sprintf("enough for %.0f portions, with %.0f over", g, servings-g), false
	default:
		return fmt.Sprintf("enough for %.0f portions", g), false
	}
}

// onlyAbout reports whether every mistake is at one of the pointers or below it.
func onlyAbout(errs field.Errors, pointers ...string) bool {
	return !slices.ContainsFunc(errs, func(e field.Error) bool {
		return !slices.ContainsFunc(pointers, field.Errors{e}.Under)
	})
}

// sheet computes the figures of a piece that do not depend on a mistake noted in
// errs. Without a sound kitchen there are none.
func (p *piece) sheet(errs *field.Errors, at string, sound bool) PieceSheet {
	one := PieceSheet{Title: p.name(), Noun: p.cut.Noun, Count: p.count, Cautions: []caution.Finding{}, Choices: []ChoiceSheet{}}
	wrong := func(parts ...string) bool {
		return slices.ContainsFunc(parts, func(part string) bool { return errs.Under(at + part) })
	}
	if !sound || wrong("/cut", "/count", "/bought", "/trimmed", "/trim_style", "/thickness", "/faces") {
		return one
	}
	one.Meat = p.meatSheet()
	timed := !wrong("/wait", "/fire", "/choices")
	if timed {
		p.estimate()
		one.Choices, one.GrainSay = p.choiceSheets(), grainWords(p.typed.Grain)
		one.Done = quantity.FormatTemperature(quantity.Celsius(p.cut.DoneC()), p.opt.Units)
	}
	dosed := !wrong("/season", "/weighed", "/wait", "/bath", "/inject", "/layers")
	if dosed && errs.Take(at+"/season", p.solveFree()) {
		dosed = false
	}
	if p.bath != nil && !wrong("/bath") {
		one.Bath = p.bathSheet()
	}
	if p.inject != nil && !wrong("/inject", "/wait") {
		one.Inject = p.injectionSheet()
	}
	var takenUp time.Duration
	if dosed {
		d, err := p.dose()
		if errs.Take(at+"/season", err) {
			return one
		}
		course := p.course(d)
		takenUp = course.TakenUp
		one.Season, one.Ledger, one.Depth = p.seasonSheet(d), p.ledgerSheet(d, course), p.depthSheet(d, course)
		one.Cautions = p.cautions(d, one.Ledger)
	}
	if timed {
		one.Clock = p.clockSheet(takenUp)
	}
	one.Ready = len(*errs) == 0
	return one
}

func (p *piece) meatSheet() *Meat {
	sys := p.opt.Units
	m := p.meat()
	area := p.salted() * 100
	perKG := area / m.Edible().KG()
	spread := 0.15 // of an estimated surface; 0.08 when the thickness was measured
	thickSpread := 0.2
	thickWords := "Estimated from the cut’s proportions and its weight; measure the thickest point to replace it."
	if p.geometry.Measured {
		spread, thickSpread = 0.08, 0
		thickWords = "As you measured it; length and width follow from the weight."
	}
	weighWords := "As you weighed it after trimming."
	if !p.weighed {
		weighWords = "Weight as bought less what this trim style usually takes off."
	}
	mass := func(each quantity.Mass, n float64, words string) trace.Figure {
		f := trace.New(float64(each)*n, float64(p.greenLow)*n, float64(p.greenHigh)*n, 2, "kg", trace.Origin{Words: words, Source: cutSource,
			Inputs: []trace.Input{{Name: "as bought", Text: p.boughtText()}, {Name: "trim style", Text: or(p.typed.TrimStyle, "usual")},
				{Name: "usual trim", Text: fmt.Sprintf("%g–%g %%", p.cut.TrimLoss.Low, p.cut.TrimLoss.High)}}})
		f.Low, f.High = min(f.Low, f.High), max(f.Low, f.High)
		f.Range = rangeText(p.greenLow*quantity.Mass(n), p.greenHigh*quantity.Mass(n), sys)
		f.Text, f.Unit = quantity.FormatMass(each*quantity.Mass(n), sys), ""
		return f
	}
	served := m.Served() * quantity.Mass(p.count)
	low, high := served.KG()*m.Yield.Low/m.Yield.Mid, served.KG()*m.Yield.High/m.Yield.Mid
	yieldInputs := []trace.Input{
		{Name: "trimmed weight", Text: quantity.FormatMass(p.green*quantity.Mass(p.count), sys)},
		{Name: "bone", Text: fmt.Sprintf("%.0f %%", p.cut.BonePercent)},
		{Name: "cook yield", Text: fmt.Sprintf("%.0f–%.0f %% of the boneless meat", p.cut.CookYield.Low, p.cut.CookYield.High)},
		{Name: "portion", Text: quantity.FormatMass(p.portion, sys)},
	}
	servedFig := trace.New(served.KG(), low, high, 2, "kg", trace.Origin{
		Words: "Trimmed weight less bone, times what is left of the meat after the cook.", Source: cutSource, Inputs: yieldInputs})
	servedFig.Text, servedFig.Unit = quantity.FormatMass(served, sys), ""
	servedFig.Range = rangeText(quantity.Mass(low), quantity.Mass(high), sys)
	per := 1 / p.portion.KG()
	thick := p.geometry.Thickness
	thickFig := trace.New(thick.MM(), thick.MM()*(1-thickSpread), thick.MM()*(1+thickSpread), 0, "mm", trace.Origin{
		Words: thickWords, Source: cutSource, Inputs: []trace.Input{{Name: "trimmed weight", Text: quantity.FormatMass(p.green, sys)},
			{Name: "length : width : thickness", Text: fmt.Sprintf("%g : %g : 1", p.cut.Length, p.cut.Width)}}})
	thickFig.Text, thickFig.Unit = quantity.FormatLength(thick, sys), ""
	return &Meat{
		Green:     mass(p.green, 1, weighWords),
		AllGreen:  mass(p.green, float64(p.count), weighWords),
		Thickness: thickFig,
		Surface: trace.New(area, area*(1-spread), area*(1+spread), 1, "dm²", trace.Origin{
			Words:  "The sides of a rounded block of this length, width and thickness" + bareWords(p.oneBare) + ". 1 dm² is 100 cm².",
			Source: "geometry of a rounded block, exact for slab, cylinder and sphere",
			Inputs: []trace.Input{{Name: "size", Text: p.size()}, {Name: "rounding", Text: fmt.Sprintf("%.2f of the block", p.geometry.Rounding)}}}),
		PerKG: trace.New(perKG, perKG*(1-spread), perKG*(1+spread), 1, "dm²/kg", trace.Origin{
			Words: "Coated surface over boneless meat: how hard the same coat salts this piece.", Source: cutSource,
			Inputs: []trace.Input{{Name: "surface", Text: trace.Decimal(area, 1) + " dm²"}, {Name: "boneless meat", Text: quantity.FormatMass(m.Edible(), sys)}}}),
		Served: servedFig,
		Servings: trace.New(served.KG()*per, low*per, high*per, 0, "portions", trace.Origin{
			Words: "Cooked meat over one portion.", Source: cutSource, Inputs: yieldInputs}),
		OneBare: p.oneBare, Compare: p.compare(perKG), SizeInWord: p.size(),
	}
}

func (p *piece) boughtText() string {
	if p.bought == 0 {
		return "not given"
	}
	return quantity.FormatMass(p.bought, p.opt.Units)
}

func (p *piece) size() string {
	g, sys := p.geometry, p.opt.Units
	return fmt.Sprintf("%s × %s × %s", quantity.FormatLength(g.Length, sys), quantity.FormatLength(g.Width, sys), quantity.FormatLength(g.Thickness, sys))
}

func bareWords(oneBare bool) string {
	if oneBare {
		return ", one broad face left bare"
	}
	return ""
}

// rangeText writes a range of masses; empty when both ends read the same.
func rangeText(low, high quantity.Mass, sys quantity.System) string {
	l, h := quantity.FormatMass(min(low, high), sys), quantity.FormatMass(max(low, high), sys)
	if l == h {
		return ""
	}
	return l + "–" + h
}
