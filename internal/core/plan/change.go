package plan

import (
	"slices"
	"time"
)

// Change is what the last thing that happened has moved.
type Change struct {
	Mark    Mark
	Late    time.Duration // against the plan; below zero when it was early
	Was     Times         // of the piece, before
	Now     Times
	WasOf   float64 // chance of serving on time, before
	Chance  float64
	Planned time.Time
}

// told are the stages of which is told what they have changed: what is done to a piece on the way
// besides changes nothing in the plan.
var told = []string{"thaw", "bath", "salt", "fire", "wrap", "off"}

// Changed compares the chosen plan with the one before the last thing that happened.
// It is false when nothing has happened, or not to a piece of the plan.
func Changed(a Ask, chosen Plan) (Change, bool) {
	last := -1
	for i, m := range a.Marks {
		if m.Done && slices.Contains(told, m.Stage) {
			last = i
		}
	}
	if last < 0 {
		return Change{}, false
	}
	m := a.Marks[last]
	at := slices.IndexFunc(a.Jobs, func(j Job) bool { return j.Key == m.Key })
	if at < 0 {
		return Change{}, false
	}
	before := a
	before.Marks = slices.Delete(slices.Clone(a.Marks), last, last+1)
	plans := Make(before).Plans
	i := max(0, slices.IndexFunc(plans, func(p Plan) bool { return p.Kind == chosen.Kind }))
	was := plans[i].Pieces[at]
	planned := map[string]time.Time{"thaw": was.Thaw, "bath": was.Bath, "salt": was.Salt, "fire": was.Fire,
		"wrap": was.Wrap, "off": was.Off}[m.Stage]
	return Change{
		Mark: m, Late: m.At.Sub(planned), Was: was, Now: chosen.Pieces[at], WasOf: plans[i].Chance, Chance: chosen.Chance,
		Planned: planned,
	}, true
}
