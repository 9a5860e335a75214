package plan

import (
	"cmp"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/uncertain"
)

// safe is the serving time that nine in ten of each piece make; one that is eaten at a time of its own moves that
// alone.
func (a Ask) safe(p Plan) time.Time {
	out := time.Time{}
	for i, j := range a.Jobs {
		t := p.Pieces[i]
		if !j.Serve.IsZero() {
			continue
		}
		if at := t.Late.Add(j.LeastRest).Add(a.Serve.Sub(t.Slice)); at.After(out) {
			out = at
		}
	}
	return ceil(out)
}

// note adds a conflict.
func (p *Plan) note(kind, key string, at time.Time, id string, pairs ...any) {
	p.Conflicts = append(p.Conflicts, Conflict{kind, key, at, field.Because("conflict."+id, pairs...)})
}

// check finds the conflicts of a plan.
func (a Ask) check(p *Plan) {
	for i, j := range a.Jobs {
		a.checkPiece(p, j, p.Pieces[i])
	}
	for _, k := range p.Tasks {
		a.checkTask(p, k)
	}
	if p.Woken = p.wakings(a.Quiet); a.Quiet.None() {
		p.Night = p.wakings(usualNight)
	}
	for _, r := range p.Rooms {
		if r.Limit > 0 && r.Peak > r.Limit*1.02 {
			p.note("room", "", r.PeakAt, "room", "pit", r.Pit, "limit", r.Limit, "at", r.PeakAt, "peak", r.Peak)
		}
	}
	a.heats(p)
	slices.SortStableFunc(
		p.Conflicts,
		func(c, d Conflict) int { return cmp.Or(c.At.Compare(d.At), cmp.Compare(c.Key, d.Key)) },
	)
}

func (a Ask) checkPiece(p *Plan, j Job, t Times) {
	if t.Wait < j.WaitMin {
		p.note("wait", j.Key, t.Salt, "wait-short", "wait", t.Wait, "least", j.WaitMin)
	}
	if t.Wait > j.WaitMax {
		p.note("wait", j.Key, t.Salt, "wait-long", "wait", t.Wait, "most", j.WaitMax)
	}
	if t.Hold > j.HoldMax+15*time.Minute && t.Reheat.IsZero() && !t.Over {
		p.note("hold", j.Key, t.Off, "hold", "hold", t.Hold, "most", j.HoldMax)
	}
	if first := t.firstHandled(); !t.Thaw.IsZero() && first.Sub(t.Thaw) < j.Thaw*9/10 {
		p.note("thaw", j.Key, t.Thaw, "thaw", "has", first.Sub(t.Thaw), "needs", j.Thaw)
		p.Feasible = false
	}
	if j.Fire.Mid >= uncertain.Endless && !t.Over {
		p.note("never", j.Key, t.Fire, "never", "set", j.PitC)
		p.Feasible = false
		return
	}
	if t.Off.After(t.Slice.Add(-j.LeastRest)) {
		p.Feasible = p.Feasible && t.Over
		p.note("late", j.Key, t.Off, "late", "off", t.Off, "slice", t.Slice)
	}
}

// sameWaking is how near to each other the jobs of one waking are.
const sameWaking = 30 * time.Minute

// wakings are how often somebody is up in quiet hours for what is to be done. Jobs close to each other wake the cook
// once.
func (p Plan) wakings(quiet QuietHours) int {
	var all []time.Time
	for _, k := range p.Tasks {
		if !k.Done {
			all = append(all, k.atNight(quiet)...)
		}
	}
	slices.SortFunc(all, time.Time.Compare)
	n := 0
	for i, at := range all {
		if i == 0 || at.Sub(all[i-1]) > sameWaking {
			n++
		}
	}
	return n
}

// checkTask finds what is wrong with a task.
func (a Ask) checkTask(p *Plan, k Task) {
	if at := k.atNight(a.Quiet); len(at) > 0 && !k.Done {
		p.note("quiet", k.Key, at[0], "quiet", "task", k.Stage, "pit", k.Pit, "at", at[0])
	}
	if k.Clash && !k.Done {
		p.note("hands", k.Key, k.At, "hands", "task", k.Stage, "pit", k.Pit, "at", k.At, "hands", a.Hands)
	}
	if !a.Now.IsZero() && k.At.Before(a.Now.Add(-five)) && !k.Done && !k.About {
		p.Feasible, p.Overdue = false, true
		p.note("late", k.Key, k.At, "overdue", "task", k.Stage, "pit", k.Pit, "at", k.At)
	}
}

// stay is a time on the fire, at what the pit has to be set to for it.
type stay struct {
	Spell
	setC quantity.Celsius
}

// stays are the times on the fire of a job.
func (t Times) stays(j Job) []stay {
	out := []stay{{Spell{t.Fire, t.Off}, j.PitC}}
	for i, s := range t.Again {
		out = append(out, stay{s, j.Again[i].SetC})
	}
	return out
}

// heats finds pieces that need one pit at two temperatures.
func (a Ask) heats(p *Plan) {
	const near = 8 // °C, nearer than dials are true
	for i, j := range a.Jobs {
		for k := i + 1; k < len(a.Jobs); k++ {
			o := a.Jobs[k]
			if j.Pit != o.Pit || len(a.pit(j).Sets) > 0 {
				continue
			}
			for _, one := range p.Pieces[i].stays(j) {
				for _, other := range p.Pieces[k].stays(o) {
					apart := math.Abs(float64(one.setC-other.setC)) > near
					if at := later(one.On, other.On); apart && at.Before(earlier(one.Off, other.Off)) {
						p.note("heat", o.Key, at, "heat", "piece", j.Key, "pit", j.Pit, "set", one.setC, "other_set", other.setC)
					}
				}
			}
		}
	}
}
