package cooking_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/caution"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// one works out a page with one piece in which nothing is wrong.
func one(t *testing.T, p cook.Piece) cooking.Piece {
	t.Helper()
	p.Key = "one" // as on the page: it stays while the piece is typed, and with it the draw of its forecast
	return sound(t, anycook.Supper(p)).Pieces[0]
}

// An amount that a cook says is what is mixed, less what falls off while sprinkling; the
// salt is that of the amount, and never more than there is in it.
func TestAnAmountIsWhatIsUsed(t *testing.T) {
	p := anycook.Coated("pork-spare-ribs-squared", "1.2 kg")
	p.Count, p.Season.Mode, p.Season.Amount, p.Season.Spare = "6", "amount", "118 g", "50 %"
	s := one(t, p)
	assert.InDelta(t, 0.118, s.Season.ToMix.Mid, 1e-9, "no spare is added to what the cook said")
	assert.InDelta(t, 0.118*0.9, s.Season.OnMeat.Mid, 1e-9)
	assert.Less(t, s.Season.OnMeat.High, 0.118, "no more lies on the meat than there was")
	assert.Greater(t, s.Season.OnMeat.Low, 0.118*0.83)
	sum := 0.0
	for _, r := range s.Season.Rows {
		sum += r.Mass.Mid
	}
	assert.InDelta(t, 0.118, sum, 1e-9)
	salty := s.Season.Mix.SaltShare() * 118 / 6
	meat := s.Line.Meat.Value.Salt().Edible().Grams()
	assert.Less(t, s.Ledger.Percent.High, 100*salty/meat, "not more salt than was sprinkled")

	for _, line := range s.Ledger.Lines {
		assert.LessOrEqual(t, line.Stays.High, 1.0, "no more than all of it stays")
	}
	// The same by the pound, by the piece and as the batch that was mixed.
	percent := s.Ledger.Percent.Mid
	p.Season.Amount = quantity.Number(118.0/6) + " g each"
	assert.InEpsilon(t, percent, one(t, p).Ledger.Percent.Mid, 1e-4)
	p.Season.Amount = quantity.Number(118/7.2) + " g/kg"
	assert.InEpsilon(t, percent, one(t, p).Ledger.Percent.Mid, 1e-4)
	p.Season.Formula.Rows[0].Parts, p.Season.Formula.Rows[1].Parts, p.Season.Amount = "1/4 cup", "1/2 cup", "all of it"
	batch := one(t, p)
	assert.InDelta(t, 0.25*230.4+0.5*100.8, 1000*batch.Season.ToMix.Mid, 1e-6)
	assert.InDelta(t, 0.25*230.4, 1000*batch.Season.Rows[0].Mass.Mid, 1e-6, "as it was mixed")

	// More than there is meat is refused at its field.
	p.Season.Amount = "10 kg"
	wrong := work(anycook.Supper(p)).Mistakes
	require.Len(t, wrong, 1)
	assert.Equal(t, "/pieces/0/season/amount dose.more-than-meat", wrong[0].Pointer+" "+wrong[0].ID)
}

// What was weighed has the scale's uncertainty and that of sprinkling, not the eye's.
func TestWeighedIsNotByEye(t *testing.T) {
	p := anycook.Coated("pork-spare-ribs-squared", "1.2 kg")
	p.Count, p.Season.Spare = "6", "0 %"
	for _, mode := range []string{"coat", "target"} {
		p.Season.Mode, p.Weighed = mode, []string{"60", "2 oz"}
		s := one(t, p)
		total := 60 + 2*quantity.Ounce.Grams()
		assert.InDelta(t, total, 1000*s.Season.ToMix.Mid, 1e-9, mode)
		assert.InDelta(t, 0.9*total, 1000*s.Season.OnMeat.Mid, 1e-9, mode)
		assert.Less(t, 1000*s.Season.OnMeat.High, total, mode)
		assert.Greater(t, 1000*s.Season.OnMeat.Low, 0.84*total, mode)
		brought := float64(s.Ledger.Lines[0].Salt.Grams())
		assert.InDelta(t, 0.9*60*0.995/6, brought, 0.01, mode)
	}
}

// A medium hand of fine salt on a rack is a pinch of grams, not a coat of spice; a target
// drives it when nothing is chosen.
func TestSaltAloneHasItsOwnHabit(t *testing.T) {
	p := anycook.Coated("pork-spare-ribs-squared", "1.2 kg")
	p.Season.Formula = anycook.Bottle("table salt", "table-salt")
	p.Season.Mode = ""
	assert.True(t, one(t, p).Season.ByTarget)
	p.Season.Mode = "coat"
	s := one(t, p)
	assert.True(t, s.Season.ByHabit)
	assert.Less(t, 1000*s.Season.OnMeat.Mid, 15.0, "a rack")
	assert.Greater(t, 1000*s.Season.OnMeat.Mid, 5.0, "a rack")
	for _, cut := range []string{"pork-shoulder-bone-in", "beef-brisket-packer", "chicken-leg"} {
		p.Cut, p.Trimmed = cut, map[string]string{"chicken-leg": "300 g"}[cut]
		if p.Trimmed == "" {
			p.Trimmed = "4 kg"
		}
		percent := one(t, p).Ledger.Percent.Mid
		assert.Greater(t, percent, 0.2, cut)
		assert.Less(t, percent, 1.6, cut)
	}
}

// Six cups into a shoulder of 6 kg: less stays of more, and what the meat does not take is
// left over.
func TestAnInjectionAsItIsPoured(t *testing.T) {
	p := anycook.Coated("pork-shoulder-bone-in", "6 kg")
	p.Inject = &cook.Injection{Formula: anycook.Bottle("stock", "stock"), Amount: "6 cups"}
	s := one(t, p)
	poured := quantity.Volume(6) * quantity.USSpoons.Cup()
	assert.InDelta(t, poured.ML(), s.Needle.Volume.Mid*1e6, 1e-6)
	assert.InDelta(t, 24, s.Needle.Pump, 0.5)
	assert.Zero(t, s.Needle.Over)
	p.Inject.Amount = "12 cups"
	more := one(t, p)
	assert.InDelta(t, dose.MaxPump, more.Needle.Pump, 1e-9)
	assert.InDelta(t, 2*poured.ML(), more.Needle.Volume.Mid*1e6+more.Needle.Over.ML(), 1e-6, "nothing is lost sight of")
	p.Inject.Amount, p.Inject.Pump = "", "24 %"
	assert.InDelta(t, one(t, p).Needle.Pump, 24, 1e-9)
	// Of each further millilitre less stays, and never less than of fewer in all.
	share, kept := 1.0, 0.0
	for pump := 0.005; pump < 3; pump += 0.005 {
		lost := dose.Lost(pump)
		assert.True(t, 0 < lost.Low && lost.Low < lost.Mid && lost.Mid <= lost.High && lost.High <= 1, "%g: %+v", pump, lost)
		assert.Less(t, 1-lost.Mid, share)
		assert.Greater(t, pump*(1-lost.Mid), kept)
		share, kept = 1-lost.Mid, pump*(1-lost.Mid)
	}
	assert.InDelta(t, 0.15, dose.Lost(0.08).Mid, 1e-12)
}

// A bath is what its recipe says, whatever the strength and the target would have it.
func TestABathByItsRecipe(t *testing.T) {
	p := anycook.Coated("chicken-whole", "1.8 kg")
	for salty, grams := range map[string]float64{"60 g/L": 240, "250 g": 250, "1 cup table salt in 4 L": 288} {
		p.Bath = &cook.Bath{Kind: "strong", Salt: salty, Liquid: "4 L", For: "12 h"}
		b := one(t, p).Bath
		assert.InDelta(t, grams, 1000*b.Salt.Mid, 1e-6, salty)
		assert.InDelta(t, 100*grams/(grams+3992), b.Strength.Mid, 1e-6, salty)
	}
	// The liquid that a recipe names is in the pot, unless another is typed.
	p.Bath = &cook.Bath{Kind: "strong", Salt: "1 cup table salt in 1 1/4 gal", For: "12 h"}
	assert.InDelta(t, 4.7318e-3, one(t, p).Bath.Liquid.Mid, 1e-6)
	p.Bath.Liquid = "2.5 gal"
	assert.InDelta(t, 0.576, one(t, p).Bath.Salt.Mid, 1e-6, "as strong in more of it")
	// A brine from the bench is all of the bath.
	p.Bath = &cook.Bath{
		Kind:   "strong",
		Salt:   "none",
		Liquid: "3 L",
		For:    "12 h",
		With:   []cook.Dose{{Formula: anycook.Brine("6 g"), Amount: "100 %"}},
	}
	b := one(t, p).Bath
	assert.Zero(t, b.Salt.Mid)
	assert.InDelta(t, 100*0.995*6/106/(0.995*6/106+100.012/106), b.Strength.Mid, 0.01)
	// More than water holds is refused at its field; which salt is asked.
	p.Bath.Salt, p.Bath.With = "2 kg", nil
	assert.Equal(t, "/pieces/0/bath/salt", work(anycook.Supper(p)).Mistakes[0].Pointer)
	p.Bath.Salt = "1 cup kosher salt"
	assert.Equal(t, "bath.which-salt", work(anycook.Supper(p)).Mistakes[0].ID)
}

// A piece with a bath or an injection only has no rub, which stops nothing.
func TestNoRubIsNoMistake(t *testing.T) {
	p := anycook.Coated("pork-loin", "2 kg")
	p.Season = cook.Season{}
	nothing := one(t, p)
	assert.Nil(t, nothing.Season)
	assert.Zero(t, nothing.Ledger.Percent.Mid)
	p.Bath = &cook.Bath{Kind: "equilibrium", Target: "0.8 %", For: "24 h"}
	p.Inject = &cook.Injection{Formula: anycook.Brine("5 g"), Pump: "8 %"}
	s := one(t, p)
	assert.InDelta(t, s.Bath.Takes.Mid+s.Needle.Salt.Mid, s.Ledger.Percent.Mid, 1e-9)
	assert.NotNil(t, s.Depth)
	// The bath may be what is adjusted to a target.
	p.Season = cook.Season{Mode: "target", Target: "1.2 %", Free: "bath"}
	assert.InDelta(t, 1.2, one(t, p).Ledger.Percent.Mid, 1e-9)
	p.Season.Free = ""
	assert.NotEqual(t, 1.2, one(t, p).Ledger.Percent.Mid, "there is no rub that could give way")
}

// What dissolves does not block a needle, ground spice does, and salt does not dissolve in
// fat.
func TestWhatBlocksANeedle(t *testing.T) {
	mix := func(rows ...formula.Row) formula.Formula {
		return formula.Formula{Name: "mix", Basis: formula.ByWeight, Rows: rows}
	}
	water := formula.Row{Ingredient: "water", Parts: "100"}
	row := func(id, form string) formula.Row { return formula.Row{Ingredient: id, Form: form, Parts: "3"} }
	for name, try := range map[string]struct {
		formula formula.Formula
		clogs   bool
	}{
		"flake salt":  {mix(water, row("kosher-salt", "dense flake")), false},
		"sea salt":    {mix(water, row("sea-salt", "coarse crystals, 1–2 mm")), false},
		"sugar":       {mix(water, row("brown-sugar", "")), false},
		"stock cube":  {mix(water, row("stock-cube", "")), false},
		"phosphate":   {mix(water, row("phosphate-blend", "")), false},
		"pepper":      {mix(water, row("black-pepper", "medium")), true},
		"flakes":      {mix(water, row("chilli-flakes", "")), true},
		"salt in fat": {mix(formula.Row{Ingredient: "ghee", Parts: "100"}, row("kosher-salt", "dense flake")), true},
	} {
		p := anycook.Coated("pork-loin", "2 kg")
		p.Inject = &cook.Injection{Formula: try.formula, Pump: "5 %"}
		assert.Equal(t, try.clogs, one(t, p).Needle.Clogs, name)
	}
}

// A bath's hydrometer sees its sugar.
func TestSugarShowsOnAHydrometer(t *testing.T) {
	p := anycook.Coated("chicken-whole", "1.8 kg")
	p.Bath = &cook.Bath{Kind: "strong", Salt: "200 g", Liquid: "4 L", For: "12 h"}
	plain := one(t, p).Bath.Density.Mid
	p.Bath.With = []cook.Dose{{Formula: anycook.Bottle("sugar", "white-sugar"), Amount: "220 g"}}
	assert.InDelta(t, plain+salt.SugarDensity*5, one(t, p).Bath.Density.Mid, 0.5, "five percent of sugar")
}

// Nitrite adds up over every dose, a bath's over meat and pickle; phosphate counts what
// stays, as phosphate salts on the meat with what stays in it.
func TestChemicalsAddUp(t *testing.T) {
	ppm := func(p cook.Piece) (float64, caution.Severity) {
		f := found(one(t, p))["nitrite"]
		v, _ := f.Values["ppm"].(float64)
		return v, f.Severity
	}
	cure := func(grams string) formula.Formula {
		return formula.Formula{
			Name:  "pickle",
			Basis: formula.ByWeight,
			Rows: []formula.Row{
				{Ingredient: "water", Parts: "1000 g"},
				{Ingredient: "table-salt", Parts: "40 g"},
				{Ingredient: "curing-salt", Parts: grams},
			},
		}
	}
	p := anycook.Coated("pork-loin", "2 kg")
	p.Inject = &cook.Injection{Formula: cure("25 g"), Pump: "10 %"}
	pumped, _ := ppm(p)
	assert.InDelta(t, 1e6*0.0625*25/1065*0.1, pumped, 1)
	p.Bath = &cook.Bath{
		Kind:   "strong",
		Salt:   "none",
		Liquid: "2 L",
		For:    "24 h",
		With:   []cook.Dose{{Formula: cure("20 g"), Amount: "100 %"}},
	}
	both, severity := ppm(p)
	b := one(t, p).Bath
	pickle := (b.Water + b.Brew.Salt).KG()
	curing := 0.0625 * 20 / 1060 * b.Brew.Parts[0].KG()
	assert.InDelta(t, pumped+1e6*curing/(2+pickle), both, 1.5)
	assert.Equal(t, caution.Stop, severity, "together over 200 ppm")
	p.Inject = nil
	bathed, _ := ppm(p)
	assert.InDelta(t, both-pumped, bathed, 1.5)

	p = anycook.Coated("pork-loin", "2 kg")
	p.Inject = &cook.Injection{
		Formula: formula.Formula{
			Name:  "straight",
			Basis: formula.ByWeight,
			Rows:  []formula.Row{{Ingredient: "water", Parts: "1000 g"}, {Ingredient: "tripolyphosphate", Parts: "70 g"}},
		},
		Pump: "12 %",
	}
	f := found(one(t, p))["phosphate"]
	stays := 0.12 * (1 - dose.Lost(0.12).Mid)
	assert.InDelta(t, 100*stays*70*0.99/1070/(1+stays), f.Values["percent"], 0.01)
	assert.Equal(t, caution.Stop, f.Severity)
}

// The sweetest dose on the surface scorches, whichever it is; what the cook says of the
// meat's inside is heard.
func TestCautionsHearEverything(t *testing.T) {
	p := anycook.Coated("pork-loin", "2 kg")
	p.Fire.Pit = "165 °C"
	assert.NotContains(t, found(one(t, p)), "sugar-scorch")
	p.Layers = []cook.Layer{{Kind: "glaze", Formula: anycook.Bottle("honey glaze", "honey"), Amount: "2 Tbsp"}}
	assert.Contains(t, found(one(t, p)), "sugar-scorch")
	p = anycook.Coated("beef-round", "2 kg")
	assert.Equal(t, caution.Care, found(one(t, p))["pink-finish"].Severity)
	p.Choices = map[string]string{"opened": "rolled"}
	assert.Equal(t, caution.Stop, found(one(t, p))["pink-finish"].Severity)
	p.Bought, p.Trimmed = "5 kg", "2.4 kg"
	assert.Equal(t, 52.0, found(one(t, p))["much-trimmed"].Values["percent"])
}
