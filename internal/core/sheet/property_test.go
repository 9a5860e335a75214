package sheet

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

func pick[T any](r *rand.Rand, of []T) T { return of[r.IntN(len(of))] }

// anyMix is a mix of anything in any form, with some salt in it.
func anyMix(r *rand.Rand, name string) formula.Formula {
	f := formula.Formula{Name: name, Basis: pick(r, []formula.Basis{formula.ByVolume, formula.ByWeight}), Rows: []formula.Row{
		{Ingredient: "sea-salt", Form: "fine", Parts: quantity.Number(0.5 + 4*r.Float64())},
	}}
	for range r.IntN(6) {
		i := pick(r, larder.All())
		if i.Kind == "cure" {
			continue
		}
		f.Rows = append(f.Rows, formula.Row{Ingredient: i.ID, Form: pick(r, i.Forms).Name, Parts: quantity.Number(0.25 + 3*r.Float64())})
	}
	return f
}

// anyPiece is a piece as a cook might type it, whatever the cut.
func anyPiece(r *rand.Rand) Piece {
	c := pick(r, cut.All())
	kg := c.LowKG + (c.HighKG-c.LowKG)*r.Float64()
	p := Piece{
		Cut: c.ID, Count: 1 + r.IntN(6), Bought: fmt.Sprintf("%.3f kg", kg), TrimStyle: pick(r, []string{"", "light", "usual", "close"}),
		Faces: pick(r, []string{"", "all", "one"}),
		Season: Season{
			Formula: anyMix(r, "rub"), Mode: pick(r, []string{"", "coat", "target"}), Target: "1.6 %",
			Coat: pick(r, []string{"", "light", "medium", "heavy", "crust"}), Binder: r.IntN(2) == 0, Spare: pick(r, []string{"", "0 %", "25 %"}),
			Band: pick(r, []string{"", "mild", "seasoned", "bold", "cured"}),
		},
		Wait: Wait{Style: pick(r, []string{"minutes", "overnight", "day"}), For: fmt.Sprintf("%d min", 5+r.IntN(3*24*60)), Open: r.IntN(2) == 0},
	}
	if r.IntN(4) == 0 {
		p.Bath = &Bath{Kind: pick(r, []string{"strong", "equilibrium"}), Strength: "3 %", Target: "0.5 %", For: "8 h"}
	}
	if r.IntN(4) == 0 {
		p.Inject = &Injection{Formula: bottle("stock", "stock"), Pump: "6 %"}
	}
	if r.IntN(3) == 0 {
		p.Layers = []Layer{{Kind: pick(r, []string{"base", "dusting", "wrap", "glaze", "finish"}), Formula: anyMix(r, "more"), Amount: pick(r, []string{"0.2 %", "light"})}}
	}
	return p
}

// Whatever is typed that makes sense, the sheet holds together.
func TestAnySheetHoldsTogether(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 22))
	whole := 0
	for i := range 250 {
		p := anyPiece(r)
		s := Compute(supper(p), Options{Now: noon, Units: pick(r, []quantity.System{quantity.Metric, quantity.US}), Spoons: pick(r, []quantity.SpoonSet{quantity.USSpoons, quantity.MetricSpoons})})
		where := fmt.Sprintf("piece %d: %+v", i, p)
		for _, e := range s.Errors {
			// Only a target that the other sources overshoot may be refused.
			require.Equal(t, "/pieces/0/season", e.Pointer, "%s: %s", where, e.Detail)
			require.Contains(t, e.Detail, "the other sources alone bring")
		}
		if len(s.Errors) > 0 {
			continue
		}
		whole++
		one := s.Pieces[0]
		require.True(t, one.Ready, where)

		// The ledger is the sum of its lines, and the column's figure.
		sum := 0.0
		for _, l := range one.Ledger.Lines {
			sum += l.Percent
		}
		assert.InDelta(t, one.Ledger.Percent.Value, sum, 1e-9, where)
		assert.Equal(t, one.Ledger.Percent.Value, one.Season.Percent.Value, where)
		if one.Season.Mode == "target" {
			assert.InDelta(t, 1.6, sum, 1e-9, where)
		}
		assert.True(t, one.Ledger.Percent.Low <= sum+1e-9 && sum <= one.Ledger.Percent.High+1e-9, where)
		assert.Greater(t, one.Ledger.Plate.Value, one.Ledger.Percent.Value, "meat shrinks, salt stays: %s", where)

		// Grams are conserved, shares are whole.
		grams, weight, volume := 0.0, 0.0, 0.0
		for _, row := range one.Season.Rows {
			grams += row.Mass.Value
			weight += row.Weight
			volume += row.Volume
			assert.NotEmpty(t, row.Spoons.Text, where)
		}
		assert.InEpsilon(t, one.Season.ToMix.Value, grams, 1e-9, where)
		assert.InDelta(t, 100, weight, 1e-6, where)
		assert.InDelta(t, 100, volume, 1e-6, where)

		// Salt in motion stays inside the piece, and only goes inwards.
		last := 0.0
		for _, m := range one.Depth.Moments {
			// The depth itself may shrink again, when little salt thins out below notice.
			assert.True(t, m.DepthMM >= 0 && m.DepthMM <= one.Depth.PathMM+1e-9, where)
			assert.GreaterOrEqual(t, m.Centre, last-1e-12, where)
			assert.True(t, m.OnSurface >= 0 && m.OnSurface <= 100, where)
			last = m.Centre
		}
		require.Less(t, one.Depth.End, len(one.Depth.Moments), where)
		assert.Equal(t, "fire", one.Depth.Moments[one.Depth.End].Mark, where)

		// The clock runs forwards.
		before := time.Time{}
		for _, step := range one.Clock.Steps {
			if step.Key == "not-before" || step.Key == "bath" {
				continue
			}
			at, err := time.Parse(time.RFC3339, step.At)
			require.NoError(t, err)
			assert.False(t, at.Before(before), "%s: %s", step.Key, where)
			before = at
		}
	}
	assert.Greater(t, whole, 180, "most of them are whole")
}

// More of a thing that salts never makes meat less salty, on any cut.
func TestMoreIsNeverLess(t *testing.T) {
	r := rand.New(rand.NewPCG(23, 24))
	percent := func(p Piece) float64 {
		s := Compute(supper(p), Options{Now: noon})
		require.Empty(t, s.Errors)
		return s.Pieces[0].Ledger.Percent.Value
	}
	for range 40 {
		p := anyPiece(r)
		p.Season.Mode, p.Layers, p.Bath, p.Inject = "coat", nil, nil, nil
		last := 0.0
		for _, coat := range []string{"light", "medium", "heavy", "crust"} {
			p.Season.Coat = coat
			now := percent(p)
			assert.Greater(t, now, last, "%s on %s", coat, p.Cut)
			last = now
		}
		p.Season.Binder = false
		bare := percent(p)
		p.Season.Binder = true
		assert.InEpsilon(t, formula.BinderHolds*bare, percent(p), 1e-9, "a binder holds a fifth more")
		p.Layers = []Layer{{Kind: "finish", Formula: bottle("flakes", "sea-salt"), Amount: "0.1 %"}}
		assert.Greater(t, percent(p), formula.BinderHolds*bare)
		p.Layers, p.Bath = nil, &Bath{Kind: "strong", Strength: "5 %", For: "4 h"}
		four := percent(p)
		p.Bath.For = "16 h"
		assert.Greater(t, percent(p), four, "longer in the bath")
	}
}

// The figures of an injection and a bath hang together on any cut.
func TestWetFiguresHangTogether(t *testing.T) {
	r := rand.New(rand.NewPCG(25, 26))
	for range 60 {
		p := anyPiece(r)
		p.Season.Mode, p.Layers = "coat", nil
		p.Inject = &Injection{Formula: bottle("juice", "apple-juice"), Pump: "9 %", Spacing: pick(r, []string{"2 cm", "3 cm", "1 in"})}
		p.Bath = &Bath{Kind: "strong", Strength: "5 %", Pot: "40 L", For: fmt.Sprintf("%d h", 1+r.IntN(40))}
		s := Compute(supper(p), Options{Now: noon})
		require.Empty(t, s.Errors, p.Cut)
		in, b := s.Pieces[0].Inject, s.Pieces[0].Bath
		assert.InEpsilon(t, in.Volume.Value, in.Sites.Value*in.PerSite.Value, 1e-9)
		assert.GreaterOrEqual(t, in.Refills.Value*60, in.Volume.Value)
		assert.InDelta(t, 5, b.Strength.Value, 1e-9, "as strong as asked")
		assert.InEpsilon(t, b.Liquid.Value*998, b.Ice.Value+b.Hot.Value, 1e-6, "ice and boiled part are all of the water")
		last := 0.0
		for _, m := range b.At {
			assert.Greater(t, m.Percent, last, "the meat takes up more the longer it lies")
			assert.LessOrEqual(t, m.Centre, m.Percent*1.001)
			last = m.Percent
		}
		assert.True(t, b.Takes.Low <= b.Takes.Value && b.Takes.Value <= b.Takes.High)
	}
}
