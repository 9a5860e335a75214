package dose_test

import (
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/kitchen"

	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// sources are those of any piece, with what they go on.
func sources(t testing.TB, r *rand.Rand) ([]dose.Source, dose.Target) {
	for {
		p := anycook.Piece(r)
		p.Key = "one"
		line := order.Parse(anycook.Supper(p), kitchen.Kitchen{}).Lines[0]
		if len(line.Wrong()) > 0 {
			continue
		}
		on := line.Meat.Value.Target(4)
		on.Wait = 12 * time.Hour
		require.NotZero(t, on.Area)
		return order.DosesOf(line.Sound()), on
	}
}

// Whatever a source is, it brings no less of anything than nothing, keeps no more than all of
// its salt, says how much of it there is, and what has to be on hand is enough for what goes on.
func TestAnySource(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 41))
	kinds := map[dose.ID]int{}
	for range 150 {
		all, on := sources(t, r)
		seen := map[dose.ID]bool{}
		for _, s := range all {
			assert.False(t, seen[s.ID()], "no two have one id: %s", s.ID())
			seen[s.ID()] = true
			kinds[s.ID()]++
			if len(s.Check(on)) > 0 {
				continue
			}
			b := dose.Bring(s, on)
			assert.True(t, b.Mass >= 0 && b.Salt >= 0 && b.Off >= 0, "%s %+v", s.ID(), b)
			assert.LessOrEqual(t, b.Salt, b.Mass*(1+1e-9)+1e-12, "%s: salt is part of it", s.ID())
			assert.True(
				t,
				b.Stays.Low >= 0 && b.Stays.Low <= b.Stays.Mid && b.Stays.Mid <= b.Stays.High && b.Stays.High <= 1,
				"%s %+v",
				s.ID(),
				b.Stays,
			)
			amount := s.Amount(on)
			assert.NotEmpty(t, amount.Rule, s.ID())
			assert.True(t, amount.Low <= amount.Mid && amount.Mid <= amount.High, s.ID())
			for _, use := range s.Uses(on) {
				assert.GreaterOrEqual(t, use.Mass+use.Salt, quantity.Mass(0), s.ID())
				assert.Equal(t, s.ID(), use.For)
			}
		}
	}
	for _, id := range []dose.ID{"rub", "bath", "inject", "layer-0"} {
		assert.Greater(t, kinds[id], 5, id)
	}
}

// More of a source is never less salt in the meat, and twice the pieces are the same on each.
func TestMoreIsNotLess(t *testing.T) {
	r := rand.New(rand.NewPCG(59, 26))
	tried := 0
	for range 120 {
		all, on := sources(t, r)
		twice := on
		twice.Count = 2 * on.Count
		for _, s := range all {
			if len(s.Check(on)) > 0 {
				continue
			}
			last := -1.0
			for _, kg := range []float64{0, 0.0005, 0.002, 0.008, 0.02} {
				some := s.WithAmount(kg)
				if len(some.Check(on)) > 0 {
					break
				}
				b := dose.Bring(some, on)
				l, err := salt.Tally(on.Meat, dose.Lines([]dose.Brought{b}))
				require.NoError(t, err)
				assert.GreaterOrEqual(t, l.PercentRaw.Mid, last-1e-9, "%s with %g kg", s.ID(), kg)
				last = l.PercentRaw.Mid
				tried++
			}
		}
	}
	assert.Greater(t, tried, 400)
}

// What is pumped runs out again the more, the fuller the meat is; never all of it, and never
// less than nothing.
func TestWhatRunsOut(t *testing.T) {
	last := 0.0
	for pump := 0.0; pump < 1; pump += 0.01 {
		lost := dose.Lost(pump)
		assert.True(
			t,
			lost.Low >= 0 && lost.Low <= lost.Mid && lost.Mid <= lost.High && lost.High <= 1,
			"%.2f: %+v",
			pump,
			lost,
		)
		assert.GreaterOrEqual(t, lost.Mid, last-1e-9, "%.2f", pump)
		assert.GreaterOrEqual(
			t,
			pump*(1-lost.Mid),
			(pump-0.01)*(1-dose.Lost(max(0, pump-0.01)).Mid)-1e-9,
			"more pumped is not less kept, %.2f",
			pump,
		)
		last = lost.Mid
	}
	assert.InDelta(t, 0.15, dose.Lost(0.08).Mid, 1e-9)
}

// The chemicals of any piece are amounts that there can be, and so is the salt that waits on it.
func TestChemicalsOfAnyPiece(t *testing.T) {
	r := rand.New(rand.NewPCG(53, 58))
	for range 40 {
		all, on := sources(t, r)
		brought := make([]dose.Brought, len(all))
		for i, s := range all {
			brought[i] = dose.Bring(s, on)
		}
		in := dose.Within(all, brought, on)
		assert.True(t, in.NitritePPM >= 0 && in.PhosphatePercent >= 0 && in.SurfaceSugar >= 0 && in.SurfaceSugar <= 1)
		load, _ := dose.AtTheWait(all, brought, on, on.Path)
		assert.GreaterOrEqual(t, load, 0.0)
	}
}

// Kinds of layer are those that are known, and each has its id by its place.
func TestLayers(t *testing.T) {
	for _, kind := range dose.Kinds {
		assert.True(t, dose.IsKind(kind), kind)
	}
	assert.False(t, dose.IsKind("confetti"))
	assert.Equal(t, dose.ID("layer-0"), dose.LayerID(0))
	assert.NotEqual(t, dose.LayerID(1), dose.LayerID(11))
	binder := dose.UsualBinder()
	assert.Equal(t, "binder", binder.Kind)
	assert.NotEmpty(t, binder.Mix.Components)
}
