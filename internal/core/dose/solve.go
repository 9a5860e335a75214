package dose

import (
	"math"
	"slices"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// Free is the source that was adjusted to a target.
type Free struct {
	ID     ID
	Others float64 // % of raw boneless meat that all others bring
	Wanted quantity.Mass
}

// Solve returns the source of that id in the amount at which the ledger of all of
// them holds what is wanted. It brackets the whole ledger: what a source brings may
// grow with its amount in any way, as long as more is never less. The amount given
// for it is ignored.
//
// The error is a field.Wrong: salt.others-too-much when the others bring more
// already, salt.none-in when no amount of the source brings any, or what the
// source's own Check finds.
func Solve(all []Source, id ID, wanted salt.Wanted, on Target) (Source, Free, error) {
	at := slices.IndexFunc(all, func(s Source) bool { return s.ID() == id })
	if at < 0 {
		return nil, Free{}, field.Because("salt.no-such-source", "source", string(id))
	}
	source := all[at]
	others := 0.0 // kg that stays
	for i, s := range all {
		if i != at {
			b := Bring(s, on)
			others += float64(b.Salt) * b.Stays.Mid
		}
	}
	edible := float64(on.Meat.Edible())
	free := Free{ID: id, Others: 100 * others / edible}
	need := float64(wanted)/100*edible - others
	if need < 0 {
		return nil, free, field.Because(
			"salt.others-too-much",
			"others",
			free.Others,
			"source",
			source.Label(),
			"target",
			float64(wanted),
		)
	}
	stays := func(kg float64) float64 {
		b := source.WithAmount(kg).On(on)
		return float64(b.Salt) * b.Stays.Mid
	}
	kg, ok := bracket(stays, need)
	if !ok {
		return nil, free, field.Because("salt.none-in", "source", source.Label())
	}
	solved := source.WithAmount(kg)
	brought := solved.On(on)
	free.Wanted = brought.Salt
	if wrong := solved.Check(on); len(wrong) > 0 {
		return nil, free, wrong[0].Wrong
	}
	return solved, free, nil
}

// most is more of anything than goes on one piece, kg.
const most = 1e4

// bracket finds x ≥ 0 with f(x) = need to a part in 10¹², for f that never falls. It
// is false when f does not get there.
func bracket(f func(float64) float64, need float64) (x float64, ok bool) {
	low, high := 0.0, 1e-3
	atLow, atHigh := f(low), f(high)
	if need <= atLow {
		return 0, true
	}
	for atHigh < need {
		if high > most {
			return 0, false
		}
		low, atLow = high, atHigh
		high *= 4
		if grown := f(high); grown <= atHigh && grown < need*1e-6 {
			return 0, false
		} else {
			atHigh = grown
		}
	}
	for range 200 {
		// The straight line through both ends, or the middle where that stands still.
		x = low + (need-atLow)*(high-low)/(atHigh-atLow)
		if x <= low || x >= high {
			x = (low + high) / 2
		}
		got := f(x)
		if math.Abs(got-need) <= 1e-12*need {
			return x, true
		}
		if got < need {
			low, atLow = x, got
		} else {
			high, atHigh = x, got
		}
		if high-low <= 1e-15*high {
			return x, true
		}
	}
	return x, true
}
