package sheet

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/testclock"
)

var noon = testclock.Now()

func halfAndHalf(ingredient, form string, basis formula.Basis) formula.Formula {
	return formula.Formula{Name: "plain", Basis: basis, Rows: []formula.Row{
		{Ingredient: ingredient, Form: form, Parts: "1"}, {Ingredient: "black-pepper", Form: "coarse", Parts: "1"},
	}}
}

func coated(cut, weight string) Piece {
	return Piece{
		Cut: cut, Trimmed: weight,
		Season: Season{Formula: halfAndHalf("kosher-salt", "dense flake", formula.ByVolume), Mode: "coat", Coat: "medium"},
		Wait:   Wait{For: "12 h"},
	}
}

func supper(pieces ...Piece) Cook {
	return Cook{Name: "Supper", ServeAt: testclock.Saturday(), Zone: testclock.Zone, Guests: 8, Hands: 2, Pieces: pieces}
}

func compute(t *testing.T, c Cook) Sheet {
	t.Helper()
	s := Compute(c, Options{Now: noon})
	require.Empty(t, s.Errors)
	for _, p := range s.Pieces {
		require.True(t, p.Ready, p.Title)
	}
	return s
}

// The same coat on a rack and on a shoulder: salt differs by the factor that
// their surfaces say, and the sheet says why.
func TestSameCoatSaltsByItsSurface(t *testing.T) {
	day := supper(coated("pork-shoulder-bone-in", "3.6 kg"), coated("pork-spare-ribs-squared", "1.2 kg"))
	day.Quiet = "none" // both wait as long
	s := compute(t, day)
	shoulder, rack := s.Pieces[0], s.Pieces[1]
	salt := rack.Ledger.Percent.Value / shoulder.Ledger.Percent.Value
	surface := rack.Meat.PerKG.Value / shoulder.Meat.PerKG.Value
	assert.InEpsilon(t, surface, salt, 1e-9)
	assert.Greater(t, salt, 2.0)
	assert.Contains(t, rack.Ledger.Percent.Words, "So the same coat salts it 2.8 times as hard")
	assert.Contains(t, shoulder.Meat.Compare, "about as much as a pork shoulder")
}

// The field's figure: a 5 kg packer takes 60–90 g of salt and pepper.
func TestBrisketTakesWhatCooksUse(t *testing.T) {
	s := compute(t, supper(coated("beef-brisket-packer", "5 kg")))
	assert.InDelta(t, 75, s.Pieces[0].Season.OnMeat.Value, 15)
}

func TestSwappingTheSaltCrystal(t *testing.T) {
	with := func(ingredient, form string, basis formula.Basis) PieceSheet {
		p := coated("lamb-shoulder-bone-in", "2.4 kg")
		p.Season.Formula = halfAndHalf(ingredient, form, basis)
		if basis == formula.ByWeight {
			p.Season.Mode = "target" // the dose follows the salt, whatever its volume
		}
		return compute(t, supper(p)).Pieces[0]
	}
	fine, flake := with("table-salt", "fine", formula.ByVolume), with("kosher-salt", "hollow flake", formula.ByVolume)
	assert.Greater(t, fine.Ledger.Percent.Value, 1.8*flake.Ledger.Percent.Value, "by volume the salt column moves")
	assert.Greater(t, fine.Season.Rows[0].Mass.Value, 1.8*flake.Season.Rows[0].Mass.Value, "and so do the grams")

	fine, flake = with("table-salt", "fine", formula.ByWeight), with("kosher-salt", "hollow flake", formula.ByWeight)
	assert.InDelta(t, fine.Ledger.Percent.Value, flake.Ledger.Percent.Value, 1e-9)
	assert.InDelta(t, fine.Season.Rows[0].Mass.Value, flake.Season.Rows[0].Mass.Value, 1e-9, "by weight the grams stay")
	assert.NotEqual(t, fine.Season.Rows[0].Spoons.Text, flake.Season.Rows[0].Spoons.Text, "and only the spoons change")
}

func TestTargetIsMetAndGramsAddUp(t *testing.T) {
	p := coated("beef-chuck-roll", "5.6 kg")
	p.Count = 3
	p.Season.Mode, p.Season.Target, p.Season.Spare = "target", "1.1 %", "20 %"
	s := compute(t, supper(p)).Pieces[0]
	assert.InDelta(t, 1.1, s.Ledger.Percent.Value, 1e-9)
	sum := 0.0
	for _, r := range s.Season.Rows {
		sum += r.Mass.Value
	}
	assert.InEpsilon(t, s.Season.ToMix.Value, sum, 1e-9)
	assert.InEpsilon(t, s.Season.OnMeat.Value*1.2/0.9, sum, 1e-9)
}

func TestWeightsReadEveryWay(t *testing.T) {
	green := func(change func(*Piece)) float64 {
		p := coated("pork-shoulder-bone-in", "")
		change(&p)
		return compute(t, supper(p)).Pieces[0].Meat.Green.Value
	}
	assert.InDelta(t, 3.8, green(func(p *Piece) { p.Bought = "4 kg" }), 1e-9, "usual trim takes 5 %")
	assert.InDelta(t, 3.64, green(func(p *Piece) { p.Bought, p.TrimStyle = "4 kg", "close" }), 1e-9)
	assert.InDelta(t, 3.5, green(func(p *Piece) { p.Bought, p.Trimmed = "4 kg", "3,5 kg" }), 1e-9, "weighed beats estimated")
	assert.InDelta(t, 3.8, green(func(p *Piece) { p.Bought, p.Count, p.Together = "8 kg", 2, true }), 1e-9)
}

func TestUnitsChangeWordsNotFigures(t *testing.T) {
	c := supper(coated("pork-loin", "4 lb 6 oz"))
	metric, us := Compute(c, Options{Now: noon}), Compute(c, Options{Now: noon, Units: quantity.US, Spoons: quantity.MetricSpoons})
	assert.Equal(t, metric.Pieces[0].Ledger.Percent.Value, us.Pieces[0].Ledger.Percent.Value)
	assert.Equal(t, metric.Pieces[0].Season.Rows[0].Mass.Text, us.Pieces[0].Season.Rows[0].Mass.Text)
	assert.Equal(t, "1.98 kg", metric.Pieces[0].Meat.Green.Text)
	assert.Equal(t, "4 lb 6 oz", us.Pieces[0].Meat.Green.Text)
}

// Everything a cook can get wrong is told at its place, and nothing panics.
func TestMistakesArePointedAt(t *testing.T) {
	for name, c := range map[string]struct {
		change func(*Cook)
		at     string
		says   string
	}{
		"no name":          {func(c *Cook) { c.Name = " " }, "/name", "name"},
		"past":             {func(c *Cook) { c.ServeAt = testclock.At(-22, "18:30") }, "/serve_at", "days ago"},
		"no date":          {func(c *Cook) { c.ServeAt = "soon" }, "/serve_at", "day and a time"},
		"no zone":          {func(c *Cook) { c.Zone = "Atlantis/West" }, "/zone", "time zone"},
		"guests":           {func(c *Cook) { c.Guests = -3 }, "/guests", "guests"},
		"huge brisket":     {func(c *Cook) { c.Pieces[0].Cut, c.Pieces[0].Trimmed = "beef-brisket-packer", "900 kg" }, "/pieces/0/trimmed", "check the number"},
		"cups of meat":     {func(c *Cook) { c.Pieces[0].Trimmed = "2 cups" }, "/pieces/0/trimmed", "measures a volume"},
		"no weight":        {func(c *Cook) { c.Pieces[0].Trimmed = "" }, "/pieces/0/bought", "weight is needed"},
		"gained by trim":   {func(c *Cook) { c.Pieces[0].Bought = "2 kg" }, "/pieces/0/trimmed", "cannot weigh more"},
		"impossible block": {func(c *Cook) { c.Pieces[0].Thickness = "2 m" }, "/pieces/0/thickness", "measure again"},
		"thick as a house": {func(c *Cook) { c.Pieces[0].Thickness = "400 mm" }, "/pieces/0/thickness", "measure again"},
		"no such cut":      {func(c *Cook) { c.Pieces[0].Cut = "unicorn" }, "/pieces/0/cut", "choose a cut"},
		"parts all zero": {func(c *Cook) {
			c.Pieces[0].Season.Formula.Rows[0].Parts, c.Pieces[0].Season.Formula.Rows[1].Parts = "0", "0"
		}, "/pieces/0/season/formula/rows", "at least one"},
		"emoji parts":   {func(c *Cook) { c.Pieces[0].Season.Formula.Rows[1].Parts = "🌶" }, "/pieces/0/season/formula/rows/1/parts", "can't read"},
		"absurd target": {func(c *Cook) { c.Pieces[0].Season.Target = "40 %" }, "/pieces/0/season/target", "between"},
		"no salt to target": {func(c *Cook) {
			c.Pieces[0].Season.Mode = "target"
			c.Pieces[0].Season.Formula.Rows = c.Pieces[0].Season.Formula.Rows[1:]
		}, "/pieces/0/season/mode", "no salt"},
		"bare pit":     {func(c *Cook) { c.Pieces[0].Fire.Pit = "250" }, "/pieces/0/fire/pit", "250 °C or 250 °F"},
		"endless wait": {func(c *Cook) { c.Pieces[0].Wait.For = "30 d" }, "/pieces/0/wait/for", "ten days"},
		"warm fridge":  {func(c *Cook) { c.Fridge = "40 °C" }, "/fridge", "between"},
		"many kinds":   {func(c *Cook) { c.Pieces = make([]Piece, 25) }, "/pieces", "at most 24"},
		"long name":    {func(c *Cook) { c.Pieces[0].Label = strings.Repeat("x", 300) }, "/pieces/0/label", "at most"},
	} {
		t.Run(name, func(t *testing.T) {
			cook := supper(coated("pork-shoulder-bone-in", "3.6 kg"))
			c.change(&cook)
			errs := Compute(cook, Options{Now: noon}).Errors
			require.NotEmpty(t, errs)
			assert.Equal(t, c.at, errs[0].Pointer)
			assert.Contains(t, errs[0].Detail, c.says)
		})
	}
}

func TestAPassedServingTimeOnRecordIsNoMistake(t *testing.T) {
	c := supper(coated("pork-loin", "2 kg"))
	c.ServeAt = testclock.At(-51, "19:00")
	assert.Error(t, Check(c, Options{Now: noon}))
	assert.NoError(t, Check(c, Options{Now: noon, ServedAt: c.ServeAt}))
}

func TestClockIsCountedBack(t *testing.T) {
	p := coated("pork-shoulder-bone-in", "3.6 kg")
	p.Fire = Fire{Time: "8 h", Rest: "1 h", Temper: "30 min"}
	// A day of its own, since the words are compared.
	day := supper(p)
	day.ServeAt = "2026-11-28T18:30"
	on := func(date, hour int) *ClockSheet {
		s := Compute(day, Options{Now: time.Date(2026, 11, date, hour, 0, 0, 0, time.UTC)})
		require.Empty(t, s.Errors)
		return s.Pieces[0].Clock
	}
	k := on(23, 12)
	at := map[string]string{}
	for _, s := range k.Steps {
		at[s.Key] = s.Figure.Text
	}
	// 18:30 less 15 min slicing, 1 h rest and 10 h for the slow cook of ten.
	assert.Equal(t, "Sat 28 Nov 07:15", at["fire"])
	assert.Equal(t, "Sat 28 Nov 06:45", at["out"])
	assert.Equal(t, "Fri 27 Nov 19:15", at["salt"])
	assert.Empty(t, k.Late)

	assert.Contains(t, on(27, 23).Late, "leaves 8 h 05 to the fire")
	tooLate := Compute(day, Options{Now: time.Date(2026, 11, 28, 13, 0, 0, 0, time.UTC)})
	assert.Contains(t, tooLate.Pieces[0].Clock.Late, "It is late: on the fire at 13:50 it is off about 21:50")
	assert.Less(t, tooLate.Plan.Chance.Value, 5.0)
	assert.NotEmpty(t, tooLate.Plan.Safe)
}

func TestStartingAmongTheBeadsIsSaid(t *testing.T) {
	at := func(wait string) *DepthSheet {
		p := coated("pork-shoulder-bone-in", "3.6 kg")
		p.Wait.For = wait
		return compute(t, supper(p)).Pieces[0].Depth
	}
	assert.False(t, at("3 min").Worst)
	assert.True(t, at("20 min").Worst)
	assert.False(t, at("4 h").Worst)
	assert.Contains(t, at("12 h").EvenAt, "never even in practice")
}

func bottle(name, ingredient string) formula.Formula {
	return formula.Formula{Name: name, Basis: formula.ByWeight, Rows: []formula.Row{{Ingredient: ingredient, Parts: "1"}}}
}

// Every road salt comes by is in the one ledger, and the rub is solved around it.
func TestLayersAddUpAndTheRubGivesWay(t *testing.T) {
	p := coated("pork-loin", "2 kg")
	p.Season.Mode, p.Season.Target = "target", "1.2 %"
	p.Bath = &Bath{Kind: "equilibrium", Target: "0.6 %", Liquid: "3 L", Pot: "8 L", For: "36 h"}
	p.Inject = &Injection{Formula: bottle("stock", "stock"), Pump: "10 %"}
	p.Layers = []Layer{
		{Kind: "glaze", Formula: bottle("soy glaze", "soy-sauce"), Amount: "1 Tbsp"},
		{Kind: "finish", Formula: bottle("flakes", "sea-salt"), Amount: "1 g"},
	}
	s := compute(t, supper(p)).Pieces[0]
	sum := 0.0
	for _, l := range s.Ledger.Lines {
		sum += l.Percent
	}
	require.Len(t, s.Ledger.Lines, 5)
	assert.InDelta(t, 1.2, sum, 1e-9)
	assert.InDelta(t, s.Bath.Takes.Value, s.Ledger.Lines[0].Percent, 1e-9)
	assert.Less(t, s.Bath.Takes.Value, 0.6, "on its way to the target")
	assert.InDelta(t, 0.9*0.85, s.Inject.Salt.Value/0.1, 0.01, "a tenth of stock at 0.9 %, less what runs out")
	assert.InDelta(t, 0.98*0.975/2000*100, s.Ledger.Lines[3].Percent, 1e-9, "a gram of sea salt at the end")

	// What the others bring already cannot be taken back by the rub.
	p.Season.Target = "0.3 %"
	errs := Compute(supper(p), Options{Now: noon}).Errors
	require.NotEmpty(t, errs)
	assert.Equal(t, "/pieces/0/season", errs[0].Pointer)
	assert.Contains(t, errs[0].Detail, "the other sources alone bring")
}

// What was really weighed is what the ledger counts; the targets stay the plan's.
func TestWhatWasWeighedCounts(t *testing.T) {
	p := coated("pork-loin", "2 kg")
	plan := compute(t, supper(p)).Pieces[0]
	salt, pepper := plan.Season.Rows[0].Mass.Value, plan.Season.Rows[1].Mass.Value
	p.Weighed = []string{quantity.Number(salt * 1.2), quantity.Number(pepper)}
	real := compute(t, supper(p)).Pieces[0]
	assert.InEpsilon(t, 1.2, real.Ledger.Percent.Value/plan.Ledger.Percent.Value, 1e-3)
	assert.InDelta(t, salt, real.Season.Rows[0].Mass.Value, 1e-9)
	p.Weighed = p.Weighed[:1]
	assert.Equal(t, "/pieces/0/weighed", Compute(supper(p), Options{Now: noon}).Errors[0].Pointer)
}

func TestWetMistakesArePointedAt(t *testing.T) {
	for at, change := range map[string]func(*Piece){
		"/bath/kind":                        func(p *Piece) { p.Bath = &Bath{Kind: "bubble"} },
		"/bath/strength":                    func(p *Piece) { p.Bath = &Bath{Kind: "strong", Strength: "60 %"} },
		"/bath/liquid":                      func(p *Piece) { p.Bath = &Bath{Liquid: "3 kg"} },
		"/bath/for":                         func(p *Piece) { p.Bath = &Bath{For: "30 d"} },
		"/inject/pump":                      func(p *Piece) { p.Inject = &Injection{Formula: bottle("x", "stock"), Pump: "90 %"} },
		"/inject/formula/rows/0/ingredient": func(p *Piece) { p.Inject = &Injection{Formula: bottle("x", "plutonium")} },
		"/layers/0/amount":                  func(p *Piece) { p.Layers = []Layer{{Kind: "glaze", Formula: bottle("x", "honey"), Amount: "some"}} },
		"/layers/0/kind":                    func(p *Piece) { p.Layers = []Layer{{Kind: "paint", Formula: bottle("x", "honey"), Amount: "1 g"}} },
	} {
		p := coated("pork-loin", "2 kg")
		change(&p)
		errs := Compute(supper(p), Options{Now: noon}).Errors
		require.NotEmpty(t, errs, at)
		assert.Equal(t, "/pieces/0"+at, errs[0].Pointer)
	}
}

// Guests are told of every dose, not only of the rub, and of what is inside a
// formula inside another.
func TestCautionsLookAtEveryDose(t *testing.T) {
	find := func(id string) (formula.Formula, bool) { return bottle("sweet base", "honey"), id == "7" }
	p := coated("pork-loin", "2 kg")
	p.Inject = &Injection{Formula: bottle("butter", "butter-unsalted")}
	p.Layers = []Layer{
		{Kind: "glaze", Formula: bottle("soy glaze", "soy-sauce"), Amount: "1 Tbsp"},
		{Kind: "finish", Formula: bottle("cure", "curing-salt"), Amount: "10 g"},
		{Kind: "glaze", Formula: formula.Formula{Name: "nested", Basis: formula.ByWeight, Rows: []formula.Row{{Formula: "7", Parts: "1"}}}, Amount: "1 Tbsp"},
	}
	s := Compute(supper(p), Options{Now: noon, Shelf: formula.Shelf{Formula: find}})
	require.Empty(t, s.Errors)
	found := map[string]string{}
	for _, c := range s.Pieces[0].Cautions {
		found[c.ID] = string(c.Severity) + ": " + c.What
	}
	assert.Equal(t, "note: Contains milk, soy, wheat.", found["allergens"])
	assert.Contains(t, found["honey"], "care")
	assert.Contains(t, found["nitrite"], "stop: Curing salt here brings 312 ppm")
	assert.Contains(t, found["injected"], "care")
}

func TestGrainsAgainstTheBore(t *testing.T) {
	p := coated("beef-chuck-roll", "5 kg")
	p.Inject = &Injection{Formula: formula.Formula{Name: "peppered", Basis: formula.ByWeight, Rows: []formula.Row{
		{Ingredient: "stock", Parts: "95"}, {Ingredient: "black-pepper", Form: "coarse", Parts: "5"},
	}}, Bore: "3 mm"}
	in := compute(t, supper(p)).Pieces[0].Inject
	assert.True(t, in.Clogs)
	assert.Contains(t, in.Bore, "strain it")
	p.Inject.Formula.Rows[1].Form = "fine"
	in = compute(t, supper(p)).Pieces[0].Inject
	assert.False(t, in.Clogs)
	assert.InDelta(t, in.Volume.Value, in.PerSite.Value*in.Sites.Value, 1e-6)
	assert.Equal(t, float64(in.Across*in.Along), in.Sites.Value)
}

func BenchmarkSheet(b *testing.B) {
	c := supper(coated("pork-shoulder-bone-in", "3.6 kg"), coated("pork-spare-ribs-squared", "1.2 kg"), coated("beef-brisket-packer", "5 kg"),
		coated("chicken-leg", "300 g"), coated("venison-haunch", "1.8 kg"), coated("pork-loin", "2 kg"))
	b.ReportAllocs()
	for b.Loop() {
		Compute(c, Options{Now: noon})
	}
}

func BenchmarkScale(b *testing.B) {
	r := Request{Piece: coated("pork-shoulder-bone-in", "3.6 kg")}
	for b.Loop() {
		_, _ = Scale(r)
	}
}
