package cooking_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/testclock"
)

// Whatever is typed that makes sense, the figures hold together.
func TestAnyCookHoldsTogether(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 22))
	whole := 0
	for i := range testclock.Rounds(250) {
		p := anycook.Piece(r)
		got := work(anycook.Supper(p))
		where := fmt.Sprintf("piece %d: %+v", i, p)
		for _, e := range got.Mistakes {
			// Only a target that the other sources overshoot may be refused.
			require.Equal(t, "salt.others-too-much", e.ID, where)
		}
		if len(got.Mistakes) > 0 {
			continue
		}
		whole++
		one := got.Pieces[0]
		require.True(t, one.Ready, where)

		// The ledger is the sum of its lines, and the column's figure.
		sum := 0.0
		for _, l := range one.Ledger.Lines {
			sum += l.Percent
		}
		assert.InDelta(t, one.Ledger.Percent.Mid, sum, 1e-9, where)
		assert.Equal(t, one.Ledger.Percent.Mid, one.Season.Percent.Mid, where)
		if one.Season.ByTarget {
			assert.InDelta(t, 1.6, sum, 1e-9, where)
		}
		assert.True(t, one.Ledger.Percent.Low <= sum+1e-9 && sum <= one.Ledger.Percent.High+1e-9, where)
		assert.Greater(t, one.Ledger.Plate.Mid, one.Ledger.Percent.Mid, "meat shrinks, salt stays: %s", where)

		// Mass is conserved, shares are whole.
		mass, weight, volume := 0.0, 0.0, 0.0
		for _, row := range one.Season.Rows {
			mass += row.Mass.Mid
			weight += row.WeightShare
			volume += row.VolumeShare
		}
		assert.InEpsilon(t, one.Season.ToMix.Mid, mass, 1e-9, where)
		assert.InDelta(t, 1, weight, 1e-9, where)
		assert.InDelta(t, 1, volume, 1e-9, where)

		// Salt in motion stays inside the piece, and only goes inwards.
		last := 0.0
		for _, m := range one.Depth.Course.Moments {
			// The depth itself may shrink again, when little salt thins out below notice.
			assert.True(t, m.Depth >= 0 && m.Depth <= one.Depth.Brine.Path.Depth+1e-12, where)
			assert.GreaterOrEqual(t, m.Centre, last-1e-12, where)
			assert.True(t, m.OnSurface >= 0 && m.OnSurface <= 1, where)
			last = m.Centre
		}
		assert.Equal(t, one.Depth.Wait, one.Depth.Course.End.At, where)

		// The clock runs forwards.
		before := time.Time{}
		times := one.Clock.Times
		for n, at := range []time.Time{times.Thaw, times.Bath, times.Lift, times.Prep, times.Salt, times.Out, times.Fire,
			times.Off} {
			if !at.IsZero() {
				assert.False(t, at.Before(before), "%d: %s", n, where)
				before = at
			}
		}
	}
	assert.Greater(t, whole, testclock.Rounds(180), "most of them are whole")
}

// More of a thing that salts never makes meat less salty, on any cut.
func TestMoreIsNeverLess(t *testing.T) {
	r := rand.New(rand.NewPCG(23, 24))
	percent := func(p cook.Piece) float64 { return sound(t, anycook.Supper(p)).Pieces[0].Ledger.Percent.Mid }
	for range testclock.Rounds(40) {
		p := anycook.Piece(r)
		p.Season.Mode, p.Season.Binder, p.Layers, p.Bath, p.Inject = "coat", false, nil, nil, nil
		last := 0.0
		for _, coat := range []string{"light", "medium", "heavy", "crust"} {
			p.Season.Coat = coat
			now := percent(p)
			assert.Greater(t, now, last, "%s on %s", coat, p.Cut)
			last = now
		}
		p.Season.Binder = true
		bound := percent(p)
		holds := formula.BinderHolds
		if sound(t, anycook.Supper(p)).Pieces[0].Season.ByHabit {
			holds = 1 // salt alone is no layer
		}
		assert.Greater(t, bound, holds*last, "a binder holds a fifth more, and brings salt of its own")
		p.Layers = []cook.Layer{{Kind: "finish", Formula: anycook.Bottle("flakes", "sea-salt"), Amount: "0.1 %"}}
		assert.Greater(t, percent(p), bound)
		p.Layers, p.Bath = nil, &cook.Bath{Kind: "strong", Strength: "5 %", For: "4 h"}
		four := percent(p)
		p.Bath.For = "16 h"
		assert.Greater(t, percent(p), four, "longer in the bath")
	}
}

// The figures of an injection and a bath hang together on any cut.
func TestWetFiguresHangTogether(t *testing.T) {
	r := rand.New(rand.NewPCG(25, 26))
	for range testclock.Rounds(60) {
		p := anycook.Piece(r)
		p.Season.Mode, p.Layers = "coat", nil
		p.Inject = &cook.Injection{
			Formula: anycook.Bottle("juice", "apple-juice"),
			Pump:    "9 %",
			Spacing: anycook.Pick(r, []string{"2 cm", "3 cm", "1 in"}),
		}
		p.Bath = &cook.Bath{Kind: "strong", Strength: "5 %", Pot: "40 L", For: fmt.Sprintf("%d h", 1+r.IntN(40))}
		one := sound(t, anycook.Supper(p)).Pieces[0]
		in, b := one.Needle, one.Bath
		assert.InEpsilon(t, in.Volume.Mid, in.Sites.Mid*in.PerSite.Mid, 1e-9)
		assert.GreaterOrEqual(t, in.Refills.Mid*60e-6, in.Volume.Mid)
		assert.InDelta(t, 5, b.Strength.Mid, 1e-9, "as strong as asked")
		assert.InEpsilon(t, b.Liquid.Mid*998, b.Ice.Mid+b.Hot.Mid, 1e-6, "ice and boiled part are all of the water")
		last := 0.0
		for _, m := range b.At {
			assert.Greater(t, m.Mean, last, "the meat takes up more the longer it lies")
			assert.LessOrEqual(t, m.Centre, m.Mean*1.001)
			last = m.Mean
		}
		assert.True(t, b.Takes.Low <= b.Takes.Mid && b.Takes.Mid <= b.Takes.High)
	}
}

// Whichever source is left free, on any cut, it brings the ledger to the target;
// and its amount typed in instead gives the same salt.
func TestAnySourceCanBeFree(t *testing.T) {
	testclock.Undated(t)
	r := rand.New(rand.NewPCG(31, 32))
	all := []string{"", "rub", "bath", "inject", "layer-0", "layer-1"}
	solved := map[string]int{}
	for range 120 {
		p := anycook.Piece(r)
		p.Season.Mode, p.Season.Target, p.Season.Coat, p.Season.Binder = "target", "2.2 %", "light", false
		p.Season.Formula = anycook.HalfAndHalf("kosher-salt", "hollow flake", formula.ByVolume)
		p.Bath = &cook.Bath{
			Kind:     anycook.Pick(r, []string{"strong", "equilibrium"}),
			Strength: "2 %",
			Target:   "0.2 %",
			For:      "20 h",
		}
		p.Inject = &cook.Injection{Formula: anycook.Brine("15 %"), Pump: "1 %"}
		p.Layers = []cook.Layer{
			{Kind: "glaze", Formula: anycook.Bottle("soy", "soy-sauce"), Amount: "0.1 %"},
			{Kind: "finish", Formula: anycook.Bottle("flakes", "sea-salt"), Amount: "0.1 %"},
		}
		p.Season.Free = anycook.Pick(r, all)
		day := anycook.Supper(p)
		day.Quiet = "none" // nothing is moved
		got := work(day)
		if len(got.Mistakes) > 0 { // the light coat on a thin piece alone may overshoot
			require.Equal(t, "/pieces/0/season", got.Mistakes[0].Pointer)
			continue
		}
		l := got.Pieces[0].Ledger
		assert.InDelta(t, 2.2, l.Percent.Mid, 1e-9, "%s on %s", p.Season.Free, p.Cut)
		solved[p.Season.Free]++
		if l.Freed == nil || l.Freed.ID == "bath" && l.Freed.Amount.Mid < 0.5 { // weaker than a cook may ask for
			continue
		}
		assert.Equal(t, l.Lines[l.Freed.Line].Label, l.Freed.Label)
		again := p
		again.Season.Mode, again.Season.Free = "coat", ""
		amount := func(unit string, scale float64) string { return fmt.Sprintf("%.9f %s", scale*l.Freed.Amount.Mid, unit) }
		switch id := p.Season.Free; id {
		case "bath":
			again.Bath = &cook.Bath{Kind: "strong", Strength: amount("%", 1), For: "20 h"}
		case "inject":
			again.Inject = &cook.Injection{Formula: anycook.Brine("15 %"), Pump: amount("%", 1)}
		default:
			again.Layers = slices.Clone(p.Layers)
			again.Layers[int(id[len("layer-")]-'0')].Amount = amount("g", 1000)
		}
		day.Pieces = []cook.Piece{again}
		assert.InDelta(t, 2.2, sound(t, day).Pieces[0].Ledger.Percent.Mid, 1e-6, "%s on %s", p.Season.Free, p.Cut)
	}
	for _, free := range all {
		assert.Greater(t, solved[free], 4, "%q was solved for", free)
	}
}

// The impossible is refused, with the reason.
func TestFreeSourceRefusesTheImpossible(t *testing.T) {
	for name, c := range map[string]struct {
		free, id string
		change   func(*cook.Piece)
	}{
		"too much already": {"layer-0", "salt.others-too-much", func(p *cook.Piece) { p.Season.Target = "0.1 %" }},
		"no salt in it": {"layer-0", "salt.none-in",
			func(p *cook.Piece) { p.Layers[0].Formula = anycook.Bottle("honey", "water") }},
		"a weak injection": {"inject", "inject.too-much", func(p *cook.Piece) { p.Inject.Formula = anycook.Brine("0.5 %") }},
		"a short bath": {"bath", "bath.cannot-hold",
			func(p *cook.Piece) { p.Bath.For = "10 min"; p.Season.Target = "4 %" }},
		"not a source": {"gravy", "season.free", func(*cook.Piece) {}},
	} {
		t.Run(name, func(t *testing.T) {
			p := anycook.Coated("pork-loin", "2 kg")
			p.Season.Mode, p.Season.Target, p.Season.Coat, p.Season.Free = "target", "2 %", "light", c.free
			p.Bath, p.Inject = &cook.Bath{
				Kind:     "strong",
				Strength: "1 %",
			}, &cook.Injection{
				Formula: anycook.Brine("5 %"),
				Pump:    "1 %",
			}
			p.Layers = []cook.Layer{{Kind: "glaze", Formula: anycook.Bottle("soy", "soy-sauce"), Amount: "1 g"}}
			c.change(&p)
			wrong := work(anycook.Supper(p)).Mistakes
			require.NotEmpty(t, wrong)
			assert.Equal(t, c.id, wrong[0].ID)
		})
	}
	p := anycook.Coated("pork-loin", "2 kg")
	p.Season.Mode, p.Season.Free = "target", "inject"
	assert.Empty(t, work(anycook.Supper(p)).Mistakes, "a source that is no longer there leaves the rub free")
}

// A bath of juice or pickle brine holds what it should: the salt that comes with it
// is counted, and at rest the meat has its target.
func TestBathWithJuice(t *testing.T) {
	for _, with := range [][2]string{{"apple-juice", "50 %"}, {"beer", "100 %"}, {"pickle-juice", "20 %"},
		{"white-sugar", "120 g"}, {"cider-vinegar", "1 cup"}} {
		p := anycook.Coated("turkey-breast", "1.5 kg")
		p.Bath = &cook.Bath{
			Kind:   "equilibrium",
			Target: "0.8 %",
			Liquid: "2 L",
			With:   []cook.Dose{{Formula: anycook.Bottle(with[0], with[0]), Amount: with[1]}},
		}
		got := sound(t, anycook.Supper(p)).Pieces[0]
		b, meat := got.Bath, got.Line.Meat.Value
		assert.InEpsilon(t, 0.008, b.One(meat.Target(4)).AtInfinity(), 1e-9, with[0])
		assert.InDelta(
			t,
			b.Brew.Salt.KG(),
			b.Salt.Mid+b.Brings.KG(),
			1e-12,
			"salt to add and salt that comes along are all of it",
		)
		assert.InDelta(t, 0.002, b.Liquid.Mid, 1e-12)
		assert.InDelta(t, b.Ice.Mid+b.Hot.Mid, b.Plain.Mid, 1e-9, "only water is boiled and goes in as ice")
		if wet := b.Water.KG() - b.Plain.Mid; wet > 0.001*b.Water.KG() {
			// Heat is kept: the plain water at 4 °C and the rest at 21 °C, from the shelf.
			assert.InDelta(t, b.Water.KG()*float64(b.Shelf), b.Plain.Mid*4+wet*21, 1e-9)
		}
	}
	p := anycook.Coated("turkey-breast", "1.5 kg")
	p.Bath = &cook.Bath{
		Kind:   "equilibrium",
		Target: "0.3 %",
		Liquid: "2 L",
		With:   []cook.Dose{{Formula: anycook.Bottle("pickle juice", "pickle-juice"), Amount: "100 %"}},
	}
	assert.Equal(t, "bath.too-salty-already", work(anycook.Supper(p)).Mistakes[0].ID)
	p.Bath.With[0].Amount = "3 L"
	assert.Equal(t, "/pieces/0/bath/with/0/amount", work(anycook.Supper(p)).Mistakes[0].Pointer)
}

// What to buy for so many feeds so many.
func TestBuyingFeedsTheGuests(t *testing.T) {
	r := rand.New(rand.NewPCG(61, 62))
	for range testclock.Rounds(80) {
		p, q := anycook.Piece(r), anycook.Piece(r)
		p.Season.Mode, q.Season.Mode = "coat", "coat"
		p.TrimStyle, q.TrimStyle = "", ""
		day := anycook.Supper(p, q)
		day.Guests = quantity.CountOf(3 + r.IntN(20))
		day.Children = quantity.CountOf(r.IntN(8))
		day.Appetite = anycook.Pick(r, []string{"light", "usual", "hearty"})
		got := sound(t, day)
		for i, b := range got.Buy {
			assert.True(t, b.Buy.Low <= b.Buy.Mid && b.Buy.Mid <= b.Buy.High)
			piece := &day.Pieces[i]
			piece.Count = quantity.CountOf(b.Count)
			piece.Bought = quantity.FormatMass(b.Each, quantity.Metric)
			piece.Trimmed = ""
			piece.Thickness = ""
		}
		again := work(day)
		if len(again.Mistakes) > 0 { // so little that there is no such piece of this cut
			require.Equal(t, "meat.weight", again.Mistakes[0].ID)
			continue
		}
		assert.InEpsilon(t, got.Needed.Mid, again.Servings.Mid, 0.02, "%+v", day)
		assert.NotEqual(t, "short", again.Enough.Verdict)
	}
}
