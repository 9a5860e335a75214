package sheet

import (
	"fmt"
	"math/rand/v2"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/salt"
)

func brine(percent string) formula.Formula {
	return formula.Formula{Name: "brine", Basis: formula.ByWeight, Rows: []formula.Row{
		{Ingredient: "water", Parts: "100 g"}, {Ingredient: "table-salt", Parts: percent},
	}}
}

// Whichever source is left free, on any cut, it brings the ledger to the target;
// and its amount typed in instead gives the same salt.
func TestAnySourceCanBeFree(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 32))
	solved := map[string]int{}
	for range 120 {
		p := anyPiece(r)
		p.Season.Mode, p.Season.Target, p.Season.Coat, p.Season.Binder = "target", "2.2 %", "light", false
		p.Season.Formula = halfAndHalf("kosher-salt", "hollow flake", formula.ByVolume)
		p.Bath = &Bath{Kind: pick(r, []string{"strong", "equilibrium"}), Strength: "2 %", Target: "0.2 %", For: "20 h"}
		p.Inject = &Injection{Formula: brine("15 %"), Pump: "1 %"}
		p.Layers = []Layer{{Kind: "glaze", Formula: bottle("soy", "soy-sauce"), Amount: "0.1 %"}, {Kind: "finish", Formula: bottle("flakes", "sea-salt"), Amount: "0.1 %"}}
		p.Season.Free = pick(r, []string{"", "rub", "bath", "inject", "layer-0", "layer-1"})
		day := supper(p)
		day.Quiet = "none" // nothing is moved
		s := Compute(day, Options{Now: noon})
		if len(s.Errors) > 0 { // the light coat on a thin piece alone may overshoot
			require.Equal(t, "/pieces/0/season", s.Errors[0].Pointer)
			continue
		}
		l := s.Pieces[0].Ledger
		assert.InDelta(t, 2.2, l.Percent.Value, 1e-9, "%s on %s", p.Season.Free, p.Cut)
		solved[p.Season.Free]++
		if l.Freed == nil {
			continue
		}
		assert.Equal(t, l.Lines[l.Freed.Line].Name, l.Freed.Name)
		again := p
		again.Season.Mode, again.Season.Free = "coat", ""
		amount := strconv.FormatFloat(l.Freed.Amount.Value, 'f', 9, 64)
		switch p.Season.Free {
		case "bath":
			again.Bath = &Bath{Kind: "strong", Strength: amount + " %", For: "20 h"}
		case "inject":
			again.Inject = &Injection{Formula: brine("15 %"), Pump: amount + " %"}
		default:
			i := int(p.Season.Free[len("layer-")] - '0')
			again.Layers = append([]Layer{}, p.Layers...)
			again.Layers[i].Amount = amount + " g"
		}
		day.Pieces = []Piece{again}
		assert.InDelta(t, 2.2, compute(t, day).Pieces[0].Ledger.Percent.Value, 1e-6, "%s %s on %s", p.Season.Free, amount, p.Cut)
	}
	for _, free := range []string{"", "rub", "bath", "inject", "layer-0", "layer-1"} {
		assert.Greater(t, solved[free], 4, "%q was solved for", free)
	}
}

// The impossible is refused in words that say why.
func TestFreeSourceRefusesTheImpossible(t *testing.T) {
	for name, c := range map[string]struct {
		free, want string
		change     func(*Piece)
	}{
		"too much already": {"layer-0", "the other sources alone bring", func(p *Piece) { p.Season.Target = "0.1 %" }},
		"no salt in it": {"layer-0", "honey holds no salt", func(p *Piece) {
			p.Layers[0].Formula = bottle("honey", "apple-juice")
			p.Layers[0].Formula.Name = "honey"
		}},
		"a weak injection": {"inject", "meat does not hold more than 30 %", func(p *Piece) { p.Inject.Formula = brine("0.5 %") }},
		"a short bath":     {"bath", "leave it in longer", func(p *Piece) { p.Bath.For = "10 min"; p.Season.Target = "4 %" }},
		"not a source":     {"gravy", "rub, bath, inject or layer-0", func(*Piece) {}},
	} {
		t.Run(name, func(t *testing.T) {
			p := coated("pork-loin", "2 kg")
			p.Season.Mode, p.Season.Target, p.Season.Coat, p.Season.Free = "target", "2 %", "light", c.free
			p.Bath, p.Inject = &Bath{Kind: "strong", Strength: "1 %"}, &Injection{Formula: brine("5 %"), Pump: "1 %"}
			p.Layers = []Layer{{Kind: "glaze", Formula: bottle("soy", "soy-sauce"), Amount: "1 g"}}
			c.change(&p)
			s := Compute(supper(p), Options{Now: noon})
			require.NotEmpty(t, s.Errors)
			assert.Contains(t, s.Errors[0].Detail, c.want)
		})
	}
	p := coated("pork-loin", "2 kg")
	p.Season.Mode, p.Season.Free = "target", "inject"
	assert.Empty(t, Compute(supper(p), Options{Now: noon}).Errors, "a source that is no longer there leaves the rub free")
}

// A bath of juice or pickle brine holds what it should: the salt that comes with it
// is counted, and at rest the meat has its target.
func TestBathWithJuice(t *testing.T) {
	for _, with := range []struct {
		ingredient, amount string
	}{{"apple-juice", "50 %"}, {"beer", "100 %"}, {"pickle-juice", "20 %"}, {"white-sugar", "120 g"}, {"cider-vinegar", "1 cup"}} {
		p := coated("turkey-breast", "1.5 kg")
		p.Bath = &Bath{Kind: "equilibrium", Target: "0.8 %", Liquid: "2 L", With: []Dose{{Formula: bottle(with.ingredient, with.ingredient), Amount: with.amount}}}
		b := compute(t, supper(p)).Pieces[0].Bath
		var errs = Compute(supper(p), Options{Now: noon}).Errors
		require.Empty(t, errs)
		k := readKitchen(supper(), Options{}, &errs)
		got, ok := readPiece(p, k, "", &errs)
		require.True(t, ok)
		assert.InEpsilon(t, 0.008, got.bath.one(&got).AtInfinity(), 1e-9, with.ingredient)
		assert.InDelta(t, got.bath.salt.Grams(), b.Salt.Value+got.bath.brings.Grams(), 1e-9, "salt to add and salt that comes along are all of it")
		assert.InDelta(t, 2, b.Liquid.Value, 1e-9)
		assert.InDelta(t, b.Ice.Value+b.Hot.Value, got.bath.water.Grams(), 1)
		assert.LessOrEqual(t, b.Ice.Value, b.Water.Value+1e-9, "only water goes in as ice")
	}
	p := coated("turkey-breast", "1.5 kg")
	p.Bath = &Bath{Kind: "equilibrium", Target: "0.3 %", Liquid: "2 L", With: []Dose{{Formula: bottle("pickle juice", "pickle-juice"), Amount: "100 %"}}}
	assert.Contains(t, Compute(supper(p), Options{Now: noon}).Errors[0].Detail, "alone brings")
	p.Bath.With[0].Amount = "3 L"
	assert.Contains(t, Compute(supper(p), Options{Now: noon}).Errors[0].Detail, "more than the liquid")
}

// Sites that are avoided get nothing, and the others as much more.
func TestSitesToAvoid(t *testing.T) {
	all := coated("beef-chuck-roll", "4.5 kg")
	all.Inject = &Injection{Formula: brine("3 %")}
	whole := compute(t, supper(all)).Pieces[0].Inject
	last := whole.Sites.Value + 1
	for _, avoid := range [][]string{nil, {"bone"}, {"bone", "thin-end"}, {"bone", "thin-end", "edge"}} {
		p := all
		p.Inject = &Injection{Formula: brine("3 %"), Avoid: avoid}
		in := compute(t, supper(p)).Pieces[0].Inject
		used := 0.0
		for _, s := range in.Pattern {
			if s.Use {
				used++
			}
		}
		assert.Equal(t, in.Sites.Value, used)
		assert.Less(t, used, last)
		assert.InEpsilon(t, whole.Volume.Value, used*in.PerSite.Value, 1e-9)
		last = used
	}
	for i := 1; i < len(whole.Spread); i++ {
		assert.GreaterOrEqual(t, whole.Spread[i].Even, whole.Spread[i-1].Even-1e-9, "pockets only spread")
	}
}

// A player who knows the answers gets every point; one who does not, fewer; the
// question does not give the answer away.
func TestTrainer(t *testing.T) {
	for _, off := range []float64{1, 1.6} {
		g := TrainerGame{Seed: 7, Guesses: []string{}}
		for range TrainerRounds {
			s, err := Trainer(g, Options{})
			require.NoError(t, err)
			require.NotNil(t, s.Next)
			_, answer := trainerRound(g.Seed, len(g.Guesses), Options{})
			g.Guesses = append(g.Guesses, fmt.Sprintf("%.6f", answer.Value*off))
		}
		s, err := Trainer(g, Options{})
		require.NoError(t, err)
		assert.Nil(t, s.Next)
		if off == 1 {
			assert.Equal(t, 100, s.Points)
			assert.Contains(t, s.Says, "neither way")
		} else {
			assert.Less(t, s.Points, 70)
			assert.Contains(t, s.Says, "60 % high")
		}
	}
	_, err := Trainer(TrainerGame{Guesses: []string{"lots"}}, Options{})
	assert.Contains(t, err.Error(), "/guesses/0")
}

// A batch for so much meat is what the cook sheet puts on it.
func TestBatchForTheMeat(t *testing.T) {
	f := halfAndHalf("sea-salt", "fine", formula.ByWeight)
	s := WorkOut(FormulaRequest{Formula: f, Batch: formula.Batch{Fix: "salt", Amount: "1 %", Meat: "4 kg", Cut: "lamb-shoulder-bone-in"}}, Options{})
	require.Empty(t, s.Errors)
	p := coated("lamb-shoulder-bone-in", "4 kg")
	p.Season = Season{Formula: f, Mode: "target", Target: "1 %"}
	undated := supper(p)
	undated.ServeAt = "" // so that the wait is as it was asked
	assert.InEpsilon(t, compute(t, undated).Pieces[0].Season.OnMeat.Value, s.Batch.Value, 1e-9, "the bench and the sheet agree")
	s = WorkOut(FormulaRequest{Formula: f, Batch: formula.Batch{Fix: "coat", Amount: "heavy", Meat: "4 kg", Cut: "lamb-shoulder-bone-in"}}, Options{})
	p.Season = Season{Formula: f, Mode: "coat", Coat: "heavy"}
	assert.InEpsilon(t, compute(t, supper(p)).Pieces[0].Season.OnMeat.Value, s.Batch.Value, 1e-9)
	s = WorkOut(FormulaRequest{Formula: brine("6 %"), Batch: formula.Batch{Fix: "pump", Amount: "10 %", Meat: "4 kg"}}, Options{})
	assert.InEpsilon(t, 400, s.Batch.Value, 1e-9)
	s = WorkOut(FormulaRequest{Formula: brine("6 %"), Batch: formula.Batch{Fix: "pot", Amount: "10 L", Meat: "4.4 kg"}}, Options{})
	assert.InDelta(t, 5500, s.Batch.Value, 300, "what is left in the pot beside the meat")
	for _, b := range []formula.Batch{{Fix: "salt", Amount: "1 %"}, {Fix: "coat", Amount: "thick", Meat: "1 kg"}, {Fix: "pot", Amount: "2 L", Meat: "4 kg"}, {Fix: "salt", Amount: "40 %", Meat: "1 kg"}, {Fix: "pump", Amount: "5 %", Meat: "1 kg", Cut: "unicorn"}} {
		assert.NotEmpty(t, WorkOut(FormulaRequest{Formula: f, Batch: b}, Options{}).Errors, "%+v", b)
	}
}

// Brine in pockets keeps its salt while it spreads.
func TestPocketsKeepTheirSalt(t *testing.T) {
	in := salt.Injected{Spacing: 0.025, Share: 0.1, Temperature: 4}
	for _, m := range in.Course(0, 3600e9, 12*3600e9, 72*3600e9) {
		sum, area := 0.0, 0.0
		for i, v := range m.Profile {
			r := float64(i) / float64(len(m.Profile)-1)
			sum += v * r
			area += r
		}
		assert.InDelta(t, 1, sum/area, 0.12, "%v", m.At)
	}
}
