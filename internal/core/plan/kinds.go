package plan

import (
	"time"

	"verjuice/internal/core/field"
)

// kinds says for each job how it is cooked in a plan of the kind, or why there is no
// such plan.
func (a Ask) kinds(kind Kind) (kinds []Kind, no *Refusal) {
	refuse := func(j Job, id string, pairs ...any) ([]Kind, *Refusal) {
		return nil, &Refusal{Kind: kind, Key: j.Key, Why: field.Because("plan."+id, pairs...)}
	}
	kinds = a.all(SameDay)
	slice := a.slices()
	special := 0
	for i, j := range a.Jobs {
		on := latest(j, slice[i])
		night, wake := a.Quiet.Before(slice[i])
		inTime := !on.Add(-a.lead(j)).Before(wake)
		switch kind {
		case SameDay:
			if inTime || a.fixed(j, "fire") {
				continue
			}
			first := ceil(wake.Add(a.lead(j)))
			if c := j.Fire.Chance(slice[i].Sub(first) - j.LeastRest); c < worthIt && !a.Quiet.None() {
				_, no := refuse(j, "too-long-for-a-morning", "on", on, "up", first, "chance", c)
				no.ServeAt = ceil(first.Add(j.Fire.At(worthIt+0.05) + j.LeastRest + a.serves(j).Sub(slice[i])))
				return nil, no
			}
		case Overnight:
			if inTime {
				continue
			}
			on := a.onAt(j, Overnight, slice[i])
			if hold := slice[i].Sub(on.Add(j.Fire.Mid)); hold > j.HoldMax {
				_, no := refuse(j, "holds-too-long", "off", on.Add(j.Fire.Mid), "hold", hold, "most", j.HoldMax)
				no.Holder = hold <= j.HoldBest
				return nil, no
			}
			kinds[i] = Overnight
			special++
		case Ahead:
			if !j.Keeps || j.Fire.Mid < 3*time.Hour {
				continue
			}
			_, before := a.Quiet.Before(night)
			if on := a.onAt(j, Ahead, slice[i]); on.Add(-a.lead(j)).Before(before) {
				return refuse(j, "too-long-for-a-day", "needs", j.Fire.High, "from", before, "to", night)
			}
			kinds[i] = Ahead
			special++
		}
	}
	if kind == Overnight && special == 0 {
		return refuse(Job{}, "no-need-of-night")
	}
	if kind == Ahead && special == 0 {
		return refuse(Job{}, "no-gain-from-ahead")
	}
	return kinds, nil
}

// insisted is how each job is cooked in a plan of a kind that would not be made, and was chosen:
// those that take long, or all of them. Nil when nothing can be cooked in that way.
func (a Ask) insisted(kind Kind) []Kind {
	out, some := a.all(SameDay), false
	for i, j := range a.Jobs {
		if long := j.Fire.Mid >= 3*time.Hour; kind == Overnight && long || kind == Ahead && long && j.Keeps {
			out[i], some = kind, true
		}
	}
	if kind != SameDay && !some {
		return nil
	}
	return out
}

// winding is how long before the quiet hours the last job is done.
const winding = 15 * time.Minute

func earlier(a, b time.Time) time.Time {
	if a.Before(b) {
		return a
	}
	return b
}

// onAt is when a job goes on the fire, cooked in that way.
func (a Ask) onAt(j Job, kind Kind, slice time.Time) time.Time {
	on := latest(j, slice)
	night, wake := a.Quiet.Before(slice)
	switch kind {
	case Overnight:
		on = earlier(on, floor(night.Add(-winding)))
		// A wrap in the night would wake the cook: rather an evening's start, where it is held longer.
		if _, _, wakes := a.Quiet.Within(on.Add(j.Wraps.Mid)); j.Wraps.Mid > 0 && wakes {
			if evening := floor(night.Add(-winding - j.Wraps.Mid)); slice.Sub(evening.Add(j.Fire.Mid)) <= j.HoldMax {
				return evening
			}
		}
	case Ahead:
		return earlier(on, floor(night.Add(-30*time.Minute-j.Fire.High)))
	default:
		// A morning start: not before the cook is up.
		if first := ceil(wake.Add(a.lead(j))); on.Before(first) && !a.Quiet.None() {
			return first
		}
	}
	return on
}

// mark is what is known or fixed of a stage of a job, the latest that was said.
func (a Ask) mark(j Job, stage string) (Mark, bool) {
	for i := len(a.Marks) - 1; i >= 0; i-- {
		if m := a.Marks[i]; m.Key == j.Key && m.Stage == stage {
			return m, true
		}
	}
	return Mark{}, false
}

func (a Ask) fixed(j Job, stage string) bool {
	_, ok := a.mark(j, stage)
	return ok
}
