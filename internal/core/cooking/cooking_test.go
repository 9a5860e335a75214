package cooking_test

import (
	"context"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/caution"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/testclock"
)

var (
	noon    = testclock.Now()
	nothing = kitchen.Kitchen{}
)

// workWith works a page out, mistakes and all.
func workWith(c cook.Cook, f facts.Facts, k kitchen.Kitchen, at cooking.Clock) cooking.Result {
	if at.Forecast == nil {
		at.Forecast = forecast.WhileTyping{} // an ensemble for each of many pieces takes minutes
	}
	r, err := cooking.Work(context.Background(), order.Parse(c, k), f, k, at)
	if err != nil {
		panic(err) // nobody has given up waiting
	}
	return r
}

func work(c cook.Cook, f ...facts.Fact) cooking.Result {
	return workWith(c, f, nothing, cooking.Clock{Now: noon})
}

// sound works out a page in which nothing is wrong.
func sound(t *testing.T, c cook.Cook, f ...facts.Fact) cooking.Result {
	t.Helper()
	r := work(c, f...)
	require.Empty(t, r.Mistakes)
	for _, p := range r.Pieces {
		require.True(t, p.Ready, p.Line.Typed.Cut)
	}
	return r
}

// The same coat on a rack and on a shoulder: salt differs by the factor that their
// surfaces say.
func TestSameCoatSaltsByItsSurface(t *testing.T) {
	day := anycook.Supper(
		anycook.Coated("pork-shoulder-bone-in", "3.6 kg"),
		anycook.Coated("pork-spare-ribs-squared", "1.2 kg"),
	)
	day.Quiet = "none" // both wait as long
	r := sound(t, day)
	shoulder, rack := r.Pieces[0], r.Pieces[1]
	salt := rack.Ledger.Percent.Mid / shoulder.Ledger.Percent.Mid
	assert.InEpsilon(t, rack.Meat.PerKG.Mid/shoulder.Meat.PerKG.Mid, salt, 1e-9)
	assert.Greater(t, salt, 2.0)
	assert.InDelta(t, 2.8, rack.Meat.Ratio, 0.05)
	assert.InDelta(t, 1, shoulder.Meat.Ratio, 0.05)
}

// The field's figure: a 5 kg packer takes 60–90 g of salt and pepper.
func TestBrisketTakesWhatCooksUse(t *testing.T) {
	r := sound(t, anycook.Supper(anycook.Coated("beef-brisket-packer", "5 kg")))
	assert.InDelta(t, 0.075, r.Pieces[0].Season.OnMeat.Mid, 0.015)
}

func TestSwappingTheSaltCrystal(t *testing.T) {
	with := func(ingredient, form string, basis formula.Basis) cooking.Piece {
		p := anycook.Coated("lamb-shoulder-bone-in", "2.4 kg")
		p.Season.Formula = anycook.HalfAndHalf(ingredient, form, basis)
		if basis == formula.ByWeight {
			p.Season.Mode = "target" // the dose follows the salt, whatever its volume
		}
		return sound(t, anycook.Supper(p)).Pieces[0]
	}
	fine, flake := with("table-salt", "fine", formula.ByVolume), with("kosher-salt", "hollow flake", formula.ByVolume)
	assert.Greater(t, fine.Ledger.Percent.Mid, 1.8*flake.Ledger.Percent.Mid, "by volume the salt column moves")
	assert.Greater(t, fine.Season.Rows[0].Mass.Mid, 1.8*flake.Season.Rows[0].Mass.Mid, "and so do the grams")

	fine, flake = with("table-salt", "fine", formula.ByWeight), with("kosher-salt", "hollow flake", formula.ByWeight)
	assert.InDelta(t, fine.Ledger.Percent.Mid, flake.Ledger.Percent.Mid, 1e-9)
	assert.InDelta(t, fine.Season.Rows[0].Mass.Mid, flake.Season.Rows[0].Mass.Mid, 1e-12, "by weight the grams stay")
	assert.Greater(t, flake.Season.Rows[0].Volume, 1.8*fine.Season.Rows[0].Volume, "and only the spoons change")
}

func TestTargetIsMetAndGramsAddUp(t *testing.T) {
	p := anycook.Coated("beef-chuck-roll", "5.6 kg")
	p.Count = "3"
	p.Season.Mode, p.Season.Target, p.Season.Spare = "target", "1.1 %", "20 %"
	s := sound(t, anycook.Supper(p)).Pieces[0]
	assert.InDelta(t, 1.1, s.Ledger.Percent.Mid, 1e-9)
	sum := 0.0
	for _, r := range s.Season.Rows {
		sum += r.Mass.Mid
	}
	assert.InEpsilon(t, s.Season.ToMix.Mid, sum, 1e-9)
	assert.InEpsilon(t, s.Season.OnMeat.Mid*1.2/0.9, sum, 1e-9)
}

func TestWeightsReadEveryWay(t *testing.T) {
	green := func(change func(*cook.Piece)) float64 {
		p := anycook.Coated("pork-shoulder-bone-in", "")
		change(&p)
		return sound(t, anycook.Supper(p)).Pieces[0].Meat.Green.Mid
	}
	assert.InDelta(t, 3.8, green(func(p *cook.Piece) { p.Bought = "4 kg" }), 1e-9, "usual trim takes 5 %")
	assert.InDelta(t, 3.64, green(func(p *cook.Piece) { p.Bought, p.TrimStyle = "4 kg", "close" }), 1e-9)
	assert.InDelta(
		t,
		3.5,
		green(func(p *cook.Piece) { p.Bought, p.Trimmed = "4 kg", "3,5 kg" }),
		1e-9,
		"weighed beats estimated",
	)
	assert.InDelta(t, 3.8, green(func(p *cook.Piece) { p.Bought, p.Count, p.Together = "8 kg", "2", true }), 1e-9)
}

// Every road salt comes by is in the one ledger, and the rub is solved around it.
func TestLayersAddUpAndTheRubGivesWay(t *testing.T) {
	p := anycook.Coated("pork-loin", "2 kg")
	p.Season.Mode, p.Season.Target = "target", "1.2 %"
	p.Bath = &cook.Bath{Kind: "equilibrium", Target: "0.6 %", Liquid: "3 L", Pot: "8 L", For: "36 h"}
	p.Inject = &cook.Injection{Formula: anycook.Bottle("stock", "stock"), Pump: "10 %"}
	p.Layers = []cook.Layer{
		{Kind: "glaze", Formula: anycook.Bottle("soy glaze", "soy-sauce"), Amount: "1 Tbsp"},
		{Kind: "finish", Formula: anycook.Bottle("flakes", "sea-salt"), Amount: "1 g"},
	}
	s := sound(t, anycook.Supper(p)).Pieces[0]
	sum := 0.0
	for _, l := range s.Ledger.Lines {
		sum += l.Percent
	}
	require.Len(t, s.Ledger.Lines, 5)
	assert.InDelta(t, 1.2, sum, 1e-9)
	assert.InDelta(t, s.Bath.Takes.Mid, s.Ledger.Lines[0].Percent, 1e-9)
	assert.Less(t, s.Bath.Takes.Mid, 0.6, "on its way to the target")
	assert.InDelta(t, 0.9*0.83, s.Needle.Salt.Mid/0.1, 0.01, "a tenth of stock at 0.9 %, less what runs out")
	flakes := slices.IndexFunc(s.Ledger.Lines, func(l cooking.LedgerLine) bool { return l.Label.ID == "layer-1" })
	assert.InDelta(t, 0.98*0.975/2000*100, s.Ledger.Lines[flakes].Percent, 1e-9, "a gram of sea salt at the end")

	// What the others bring already cannot be taken back by the rub.
	p.Season.Target = "0.3 %"
	wrong := work(anycook.Supper(p)).Mistakes
	require.NotEmpty(t, wrong)
	assert.Equal(t, "/pieces/0/season", wrong[0].Pointer)
	assert.Equal(t, "salt.others-too-much", wrong[0].ID)
}

// What was really weighed is what the ledger counts; the targets stay the plan's.
func TestWhatWasWeighedCounts(t *testing.T) {
	p := anycook.Coated("pork-loin", "2 kg")
	plan := sound(t, anycook.Supper(p)).Pieces[0]
	salt, pepper := 1000*plan.Season.Rows[0].Mass.Mid, 1000*plan.Season.Rows[1].Mass.Mid
	p.Weighed = []string{quantity.Number(salt * 1.2), quantity.Number(pepper)}
	real := sound(t, anycook.Supper(p)).Pieces[0]
	assert.InEpsilon(t, 1.2, real.Ledger.Percent.Mid/plan.Ledger.Percent.Mid, 1e-3)
	assert.InDelta(t, salt, 1000*real.Season.Rows[0].Mass.Mid, 1e-9)
}

// found are the findings of a piece, by id.
func found(p cooking.Piece) map[string]caution.Finding {
	out := map[string]caution.Finding{}
	for _, f := range p.Findings {
		out[f.ID] = f
	}
	return out
}

// Cautions cover every dose, not only the rub, and what is inside a
// formula inside another.
func TestCautionsLookAtEveryDose(t *testing.T) {
	k := kitchen.Kitchen{Formulas: map[string]formula.Formula{"7": anycook.Bottle("sweet base", "honey")}}
	p := anycook.Coated("pork-loin", "2 kg")
	p.Inject = &cook.Injection{Formula: anycook.Bottle("butter", "butter-unsalted")}
	p.Layers = []cook.Layer{
		{Kind: "glaze", Formula: anycook.Bottle("soy glaze", "soy-sauce"), Amount: "1 Tbsp"},
		{Kind: "finish", Formula: anycook.Bottle("cure", "curing-salt"), Amount: "10 g"},
		{
			Kind:    "glaze",
			Formula: formula.Formula{Name: "nested", Basis: formula.ByWeight, Rows: []formula.Row{{Formula: "7", Parts: "1"}}},
			Amount:  "1 Tbsp",
		},
	}
	r := workWith(anycook.Supper(p), nil, k, cooking.Clock{Now: noon})
	require.Empty(t, r.Mistakes)
	all := found(r.Pieces[0])
	assert.Equal(t, caution.Note, all["allergens"].Severity)
	assert.Equal(t, []string{"gluten", "milk", "soy", "wheat"}, all["allergens"].Values["allergens"])
	assert.Equal(t, caution.Care, all["honey"].Severity)
	assert.Equal(t, caution.Care, all["injected"].Severity)
	assert.Equal(t, caution.Stop, all["nitrite"].Severity)
	assert.InDelta(t, 312, all["nitrite"].Values["ppm"], 1)
}

// A stop that was read is marked as read, until its figures change.
func TestAcknowledging(t *testing.T) {
	p := anycook.Coated("pork-loin", "2 kg")
	p.Key, p.Fire.Done = "a", "60 °C"
	day := anycook.Supper(p)
	said := facts.Facts{}
	stop := func() caution.Finding { return found(sound(t, day, said...).Pieces[0])["pink-finish"] }
	first := stop()
	require.Equal(t, caution.Stop, first.Severity)
	assert.Empty(t, first.Read)
	said = append(
		said,
		facts.Fact{
			ID:     "00000000-0000-4000-8000-000000000001",
			Kind:   facts.Acknowledged,
			Piece:  "a",
			What:   first.ID,
			Values: first.Values,
			At:     "2026-11-23T12:00:00Z",
		},
	)
	assert.Equal(t, "2026-11-23T12:00:00Z", stop().Read)
	day.Pieces[0].Fire.Done = "55 °C"
	assert.Empty(t, stop().Read, "it says something else now")
	day.Pieces[0].Fire.Done = "63 °C"
	assert.Empty(t, stop().ID)
	day.Pieces[0].Fire.Done = "60 °C"
	said = append(
		said,
		facts.Fact{
			ID:   "00000000-0000-4000-8000-000000000002",
			Kind: facts.Withdrawn,
			What: said[0].ID,
			At:   "2026-11-23T12:00:00Z",
		},
	)
	assert.Empty(t, stop().Read, "and it can be withdrawn")
}

func TestGrainsAgainstTheBore(t *testing.T) {
	p := anycook.Coated("beef-chuck-roll", "5 kg")
	p.Inject = &cook.Injection{Formula: formula.Formula{Name: "peppered", Basis: formula.ByWeight, Rows: []formula.Row{
		{Ingredient: "stock", Parts: "95"}, {Ingredient: "black-pepper", Form: "coarse", Parts: "5"},
	}}, Bore: "3 mm"}
	in := sound(t, anycook.Supper(p)).Pieces[0].Needle
	assert.True(t, in.Clogs)
	p.Inject.Formula.Rows[1].Form = "fine"
	in = sound(t, anycook.Supper(p)).Pieces[0].Needle
	assert.False(t, in.Clogs)
	assert.InDelta(t, in.Volume.Mid, in.PerSite.Mid*in.Sites.Mid, 1e-12)
	assert.Equal(t, in.Across*in.Along, len(in.Pattern))
}

// Sites that are avoided get nothing, and the others as much more.
func TestSitesToAvoid(t *testing.T) {
	p := anycook.Coated("beef-chuck-roll", "4.5 kg")
	p.Inject = &cook.Injection{Formula: anycook.Brine("3 %")}
	whole := sound(t, anycook.Supper(p)).Pieces[0].Needle
	last := whole.Sites.Mid + 1
	for _, avoid := range [][]string{nil, {"bone"}, {"bone", "thin-end"}, {"bone", "thin-end", "edge"}} {
		q := p
		q.Inject = &cook.Injection{Formula: anycook.Brine("3 %"), Avoid: avoid}
		in := sound(t, anycook.Supper(q)).Pieces[0].Needle
		used := 0.0
		for _, s := range in.Pattern {
			if s.Use {
				used++
			}
		}
		assert.Equal(t, in.Sites.Mid, used)
		assert.Less(t, used, last)
		assert.InEpsilon(t, whole.Volume.Mid, used*in.PerSite.Mid, 1e-9)
		last = used
	}
	for i := 1; i < len(whole.Pockets); i++ {
		assert.GreaterOrEqual(t, whole.Pockets[i].Even, whole.Pockets[i-1].Even-1e-9, "pockets only spread")
	}
}

// Salt follows the clock: a later salting is a shorter wait, a shallower salt and a
// smaller share taken up; a late fire is a smaller chance, and it is said when the
// meal would be safe.
func TestSaltFollowsTheClock(t *testing.T) {
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key, p.Fire.Time = "a", "6 h"
	day := anycook.Supper(p)
	planned := sound(t, day)
	fire := planned.Pieces[0].Clock.Times.Fire
	last := planned.Pieces[0]
	for n, hours := range []int{8, 4, 1} {
		now := sound(t, day, anycook.Done(n, "a", "salt",
			fire.Add(-time.Duration(hours)*time.Hour).Format(cook.TimeLayout))).Pieces[0]
		assert.Less(t, now.Depth.Depth.Mid, last.Depth.Depth.Mid, "%d h", hours)
		assert.LessOrEqual(t, now.Ledger.Percent.Mid, last.Ledger.Percent.Mid)
		last = now
	}
	late := sound(t, day, anycook.Done(9, "a", "fire", fire.Add(2*time.Hour).Format(cook.TimeLayout))).Plan
	require.NotNil(t, late.Change)
	assert.Equal(t, 2*time.Hour, late.Change.Late.Round(time.Minute))
	chosen := func(p *cooking.Plan) float64 { return p.Chances[p.Chosen].Mid }
	assert.Less(t, chosen(late), chosen(planned.Plan))
	safe := late.Result.Plans[late.Chosen].Safe
	require.False(t, safe.IsZero())
	day.ServeAt = safe.In(fire.Location()).Format(cook.TimeLayout)
	again := sound(t, day, anycook.Done(9, "a", "fire", fire.Add(2*time.Hour).Format(cook.TimeLayout))).Plan
	assert.Greater(t, chosen(again), 0.85, "serving when it says is sure")
}

// Every decision has its usual answer among its answers, and every answer is taken.
func TestEveryDecision(t *testing.T) {
	testclock.Undated(t)
	seen := map[decision.Key]bool{}
	for _, c := range cut.All() {
		p := anycook.Coated(c.ID, quantity.FormatMass(quantity.Mass(c.TypicalKG), quantity.Metric))
		if c.ID == "beef-shank" {
			p.Choices = map[string]string{"rest": "pit"} // its vents are asked for there alone
		}
		for _, one := range sound(t, anycook.Supper(p)).Pieces[0].Decided {
			seen[one.Key] = true
			for _, value := range one.Choices {
				q := p
				q.Choices = map[string]string{one.Key.String(): value}
				require.Empty(t, work(anycook.Supper(q)).Mistakes, "%s %s on %s", one.Key, value, c.ID)
			}
			assert.Contains(t, one.Choices, one.Usual)
			assert.Len(t, one.Effects, len(one.Choices))
		}
	}
	assert.Len(t, seen, len(decision.All), "each concerns some cut")
}

// What a cook of their own holds counts as if it had shipped: an ingredient, a
// formula inside another.
func TestTheKitchenIsRead(t *testing.T) {
	typed := kitchen.Typed{Formulas: map[string]formula.Formula{"7": anycook.Bottle("base", "table-salt")}}
	k, wrong := typed.Read(nothing)
	require.Empty(t, wrong)
	p := anycook.Coated("pork-loin", "2 kg")
	p.Season.Formula = formula.Formula{
		Name:  "nested",
		Basis: formula.ByWeight,
		Rows:  []formula.Row{{Formula: "7", Parts: "1"}, {Ingredient: "black-pepper", Form: "coarse", Parts: "1"}},
	}
	r := workWith(anycook.Supper(p), nil, k, cooking.Clock{Now: noon})
	require.Empty(t, r.Mistakes)
	assert.InDelta(t, 49.775, r.Pieces[0].Season.SaltShare.Mid, 0.01)
	gone := work(anycook.Supper(p)).Mistakes
	require.NotEmpty(t, gone)
	assert.Equal(
		t,
		field.Error{Pointer: "/pieces/0/season/formula/rows/0/formula", Wrong: field.Because("formula.gone")},
		gone[0],
	)
}

// A cancelled request is not worked out, and its error says so.
func TestStopping(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	stop()
	r, err := cooking.Work(
		ctx,
		order.Parse(anycook.Supper(anycook.Coated("pork-loin", "2 kg")), nothing),
		nil,
		nothing,
		cooking.Clock{Now: noon},
	)
	require.ErrorIs(t, err, context.Canceled)
	assert.Empty(t, r.Pieces)
}

// Six pieces, which is a big cook.
func BenchmarkCook(b *testing.B) {
	c := anycook.Supper(
		anycook.Coated("pork-shoulder-bone-in", "3.6 kg"),
		anycook.Coated("pork-spare-ribs-squared", "1.2 kg"),
		anycook.Coated("beef-brisket-packer", "5 kg"),
		anycook.Coated(
			"chicken-leg",
			"300 g",
		),
		anycook.Coated("venison-haunch", "1.8 kg"),
		anycook.Coated("pork-loin", "2 kg"),
	)
	b.ReportAllocs()
	for b.Loop() {
		work(c)
	}
}

// One rub on one piece.
func BenchmarkScale(b *testing.B) {
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	b.ReportAllocs()
	for b.Loop() {
		_, _ = cooking.One(b.Context(), p, cook.Cook{}, nothing, cooking.Seasons)
	}
}
