package cooking

import (
	"slices"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/shop"
	"verjuice/internal/core/trace"
	"verjuice/internal/core/uncertain"
)

// Season is the rub, weighed out.
type Season struct {
	Formula    formula.Formula
	InJar      bool   // a jar of the same mix is there
	FromID     string // of the formula that it still is; empty when it was changed
	Mix        formula.Mix
	ByTarget   bool
	BySaid     bool // the cook said how much
	ByHabit    bool // salt alone, sprinkled by eye
	CoatChosen string
	UsualBy    bool          // the same when nothing is chosen
	OnMeat     trace.Figure  // kg, on all pieces
	ToMix      trace.Figure  // kg
	Salt       trace.Figure  // kg, on all pieces
	Percent    *trace.Figure // % of raw boneless meat, by all sources; nil while another dose has a mistake
	Coat       trace.Figure  // mL/dm²
	SaltShare  trace.Figure  // % by weight
	Rows       []dose.Row
	Mixed      quantity.Mass // of ToMix
	Weighed    bool          // the figures on the meat are of what was really weighed
	Cost       *shop.Cost    // of ToMix; nil while no price is known
}

// season is the rub of the piece, weighed out.
func (s *subject) season(b brought) *Season {
	rub, lies := b.rub()
	n := s.meat.Count
	all := lies.Mass * quantity.Mass(n)
	mixed := rub.ToMix(rub.Planned(s.on), n)
	area := s.on.Area * float64(n)
	coat := rub.Mix.CoatOf(lies.Mass, s.on.Area)
	within := func(m quantity.Mass) quantity.Range[float64] { return quantity.Within(m.KG(), rub.Spread()) }
	amount := "season.by-coat"
	switch {
	case rub.Scale != nil:
		amount = "season.weighed"
	case rub.Solved:
		amount = "season.by-target"
	case rub.Said.Given():
		amount = "season.by-amount"
	case rub.ByHabit():
		amount = "season.by-habit"
	}
	mixing, toMix, mixedOff := "season.to-mix", mixed, rub.Spread()
	if rub.Scale != nil {
		weighed := 0.0
		for _, g := range rub.Scale {
			weighed += g
		}
		mixing, toMix, mixedOff = "season.was-weighed", quantity.Mass(weighed)*quantity.Gram, dose.ScaleOff
	} else if rub.Said.Given() && !rub.Solved {
		mixing, mixedOff = "season.was-said", rub.Said.Off
	}
	share, spread := rub.Mix.SaltShare()*100, 0.0
	if s.line.Typed.Season.Formula.Basis == formula.ByVolume {
		spread = rub.Mix.SaltSpread()
	}
	perML := trace.Number{Value: rub.Mix.GramsPerML, Decimals: 2, Unit: "g"}
	salting := s.line.Salting.Value
	return &Season{
		Formula: salting.Formula, FromID: salting.FromID, Mix: rub.Mix, ByTarget: salting.ByTarget, BySaid: salting.BySaid,
		UsualBy: salting.UsualBy, ByHabit: rub.ByHabit(), CoatChosen: rub.Coat.Name,
		Weighed: rub.Scale != nil, Mixed: mixed, Rows: dose.Rows(s.line.Typed.Season.Formula, rub.Mix.Weigh(mixed)),
		OnMeat: trace.New(amount, within(all), "surface_of_all", Area(area), "coat", Coating(coat), "per_ml", perML),
		ToMix: trace.New(
			mixing,
			quantity.Within(toMix.KG(), mixedOff),
			"on_the_meat",
			trace.OfMass(all),
			"lost_sprinkling",
			trace.Number{Value: 100 * formula.SprinkleLoss, Unit: "%"},
			"spare",
			trace.Number{Value: 100 * rub.Spare, Unit: "%"},
		),
		Salt: trace.New(
			"season.salt",
			within(lies.Salt*quantity.Mass(n)),
			"salt_in_mix",
			trace.Number{Value: share, Unit: "%"},
			"on_the_meat",
			trace.OfMass(all),
		),
		Coat: trace.New(
			"season.coat",
			quantity.Within(coat, max(rub.Spread(), 0.1)),
			"on_the_meat",
			trace.OfMass(all),
			"surface_of_all",
			Area(area),
		),
		SaltShare: trace.New(
			"season.salt-share",
			quantity.Range[float64]{Low: share * (1 - spread), Mid: share, High: min(100, share*(1+spread))},
			"parts_by",
			string(s.line.Typed.Season.Formula.Basis),
			"per_ml",
			perML,
		),
	}
}

// Coating is a coat, mL/dm².
type Coating float64

// Ledger is the salt of one piece against the band that the cook chose.
type Ledger struct {
	Percent trace.Figure // % of raw boneless meat
	Plate   trace.Figure // % of served meat
	Sodium  trace.Figure // mg a serving
	Day     trace.Figure // of a serving, % of a day's sodium
	Outer   trace.Figure // % in the outer 5 mm when the fire starts
	Band    salt.Band
	Tastes  salt.Band
	Differs float64 // % points over the band; below zero when under it; zero within
	Lines   []LedgerLine
	Freed   *Freed
	Weigh   int     // which line would narrow the salt most if it were weighed; -1 for none
	Less    float64 // % points less between the ends of Percent then
}

// LedgerLine is one source of salt.
type LedgerLine struct {
	dose.Brought
	Percent float64 // of raw boneless meat, that stays
}

// Freed is the source that was adjusted to the target.
type Freed struct {
	ID     dose.ID
	Line   int // which line of the ledger it is
	Label  dose.Label
	Amount trace.Figure // kg; for an injection % of the trimmed weight, for a bath % salt
}

// tally adds up the salt of the piece.
func (s *subject) tally(b brought) salt.Ledger {
	l, err := salt.Tally(s.on.Meat, dose.Lines(b.all))
	if err != nil {
		panic("cooking: " + err.Error()) // sound meat weighs something
	}
	return l
}

// percent is the salt that stays in the piece, % of its raw boneless meat.
func (s *subject) percent(b brought, l salt.Ledger) trace.Figure {
	_, lies := b.rub()
	others := 0.0
	for i, one := range b.all {
		if one.Label.ID != lies.Label.ID {
			others += l.Lines[i].Mid
		}
	}
	return trace.New(
		"salt.percent",
		l.PercentRaw,
		"noun",
		s.meat.Cut.Noun,
		"salt_on_one",
		trace.OfMass(lies.Salt),
		"stays",
		Stays{lies.Stays, s.on.Wait},
		"boneless",
		s.on.Meat.Edible(),
		"surface",
		Area(s.on.Area),
		"other_sources",
		trace.Number{Value: others, Decimals: 2, Unit: "%"},
		"per_kilo",
		trace.Number{Value: s.ratio(), Decimals: 1},
	)
}

// ledger is the salt of the piece against the band that the cook chose.
func (s *subject) ledger(b brought, l salt.Ledger, course salt.Course, free dose.Free) *Ledger {
	_, lies := b.rub()
	mg := func(percent float64) float64 { return salt.SodiumMG(percent, s.base.Portion) }
	sodium := quantity.Range[float64]{
		Low:  mg(l.PercentPlate.Low),
		Mid:  mg(l.PercentPlate.Mid),
		High: mg(l.PercentPlate.High),
	}
	two := func(v float64) trace.Number { return trace.Number{Value: v, Decimals: 2, Unit: "%"} }
	salting := s.line.Salting.Value
	out := &Ledger{
		Percent: s.percent(b, l),
		Plate: trace.New(
			"salt.plate",
			l.PercentPlate,
			"salt_in_raw",
			two(l.PercentRaw.Mid),
			"cook_yield",
			trace.Number{Value: s.meat.Cut.CookYield.Mid, Unit: "%"},
		),
		Sodium: trace.New("salt.sodium", sodium, "salt_in_cooked", two(l.PercentPlate.Mid), "portion", s.base.Portion),
		Day: trace.New(
			"salt.day",
			quantity.Times(sodium, 100/caution.SodiumDayMG),
			"serving",
			trace.Number{Value: sodium.Mid, Unit: "mg"},
		),
		Outer: trace.New("salt.outer", quantity.Exactly(100*course.End.Outer), s.brineInputs(b)...),
		Band:  salting.Band, Tastes: salt.BandOf(l.PercentRaw.Mid),
	}
	for i, one := range b.all {
		out.Lines = append(out.Lines, LedgerLine{one, l.Lines[i].Mid})
	}
	out.Weigh, out.Less = salt.Narrows(s.on.Meat, dose.Lines(b.all), dose.WeighedOff)
	switch v := l.PercentRaw.Mid; {
	case v < salting.Band.Low-0.005:
		out.Differs = v - salting.Band.Low
	case v > salting.Band.High+0.005:
		out.Differs = v - salting.Band.High
	}
	if salting.ByTarget && salting.Free != lies.Label.ID {
		out.Freed = s.freed(b, free)
	}
	return out
}

func (s *subject) ratio() float64 { return s.on.Area / s.on.Meat.Edible().KG() / referencePerKG() }

// Stays is what of a coat stays after a wait.
type Stays struct {
	Share salt.Share
	Wait  time.Duration
}

// freed is the source that was adjusted to the target.
func (s *subject) freed(b brought, free dose.Free) *Freed {
	i := slices.IndexFunc(b.sources, func(one dose.Source) bool { return one.ID() == free.ID })
	one := b.all[i]
	out := &Freed{ID: free.ID, Line: i, Label: one.Label}
	out.Amount = b.sources[i].Amount(s.on)
	out.Amount.Inputs = trace.Inputs(
		"target",
		trace.Number{Value: float64(s.line.Salting.Value.Target), Decimals: 2, Unit: "%"},
		"noun",
		s.meat.Cut.Noun,
		"salt_wanted",
		trace.OfMass(free.Wanted),
		"stays",
		trace.Number{Value: 100 * one.Stays.Mid, Unit: "%"},
	)
	return out
}

// findings are the cautions of the piece, by what is known of it: without a ledger
// there is none about its salt, and without a pit none about its fire.
func (s *subject) findings(b brought, l *Ledger, f facts.Facts) []caution.Finding {
	on := s.move(order.On)
	_, injected := order.FindMove(s.moves, order.Inject)
	_, bathed := order.FindMove(s.moves, order.Brine)
	thaw, frozen := order.FindMove(s.moves, order.Thaw)
	done := s.move(order.Off).At.From.Core()
	c := caution.Case{
		Cut: s.meat.Cut, Fridge: s.base.Fridge, Room: s.base.Room, Counter: s.move(order.Temper).Lasts, Wait: s.on.Wait,
		Soak: s.soaks(), Longest: s.meat.Cut.Custom().Raw,
		Pit: on.Set, Injected: injected, Opened: s.line.Answers.Value.Chose(decision.Opened), Bath: bathed, Frozen: frozen,
		Thaw: thaw.Lasts, Done: done,
		Hold: s.times.Hold, Held: s.held(), Keeps: s.holdsIn(s.held()), Chilled: !s.times.Reheat.IsZero(),
		Leftovers: s.left, Burns: s.pit.ID,
		Wrapped: s.line.Answers.Value.Chose(decision.Wrap) != "none",
	}
	if l != nil {
		c.Unsalted = l.Percent.Mid == 0
		c.SaltPercent, c.Band, c.SodiumMG = l.Percent.Mid, l.Band.Name, l.Sodium.Mid
	}
	if s.clocked {
		c.WarmsIn, c.Lingers, c.Endless = s.fire.Warms, s.fire.Lingers, s.fire.Takes.Mid >= uncertain.Endless
	}
	if m := s.meat; m.Weighed && m.Bought > 0 {
		c.Trimmed = 100 * float64(1-m.Green.Mid/m.Bought)
	}
	in := dose.Within(b.sources, b.all, s.on)
	c.NitritePPM, c.PhosphatePercent, c.SugarShare = in.NitritePPM, in.PhosphatePercent, in.SurfaceSugar
	for _, one := range b.all {
		for _, mix := range append(one.Left, one.Mix) {
			c.Honey = c.Honey || mix.Honey
			c.Allergens = append(c.Allergens, mix.Allergens...)
		}
	}
	slices.Sort(c.Allergens)
	c.Allergens = slices.Compact(c.Allergens)
	found := caution.Check(c)
	for i := range found {
		if ack, ok := f.Acknowledged(s.line.Key, found[i].ID, found[i].Values); ok {
			found[i].Read = ack.At
		}
	}
	return found
}

// soaks is how long the piece is in its bath.
func (s *subject) soaks() time.Duration {
	if bath, ok := s.bath(); ok {
		return bath.Soaks(s.on)
	}
	return 0
}

// bath is the bath of the piece, as typed.
func (s *subject) bath() (dose.Bath, bool) { return dose.As[dose.Bath](s.move(order.Brine).Dose) }

// uses are what has to be on hand for the piece.
func (s *subject) uses(b brought) []dose.Use {
	out := []dose.Use{}
	for _, source := range b.sources {
		if _, isRub := dose.As[dose.Rub](source); isRub && !s.dosed {
			continue // its amount is not known
		}
		out = append(out, source.Uses(s.on)...)
	}
	return out
}
