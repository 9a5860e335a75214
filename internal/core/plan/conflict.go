package plan

import (
	"fmt"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/quantity"
)

// safe is the serving time that nine in ten of each piece make.
func (a Ask) safe(p Plan) time.Time {
	out := time.Time{}
	for i, j := range a.Jobs {
		t := p.Pieces[i]
		if at := t.Late.Add(j.LeastRest).Add(a.Serve.Sub(t.Slice)); at.After(out) {
			out = at
		}
	}
	return ceil(out)
}

// check notes what does not go together.
func (a Ask) check(p *Plan) {
	note := func(kind, key string, at time.Time, format string, args ...any) {
		p.Conflicts = append(p.Conflicts, Conflict{kind, key, at, fmt.Sprintf(format, args...)})
	}
	for i, j := range a.Jobs {
		t := p.Pieces[i]
		if t.Wait < j.WaitMin {
			note("wait", j.Key, t.Salt, "%s: salted only %s before the fire; at least %s is better", j.Name, quantity.FormatDuration(t.Wait), quantity.FormatDuration(j.WaitMin))
		}
		if t.Wait > j.WaitMax {
			note("wait", j.Key, t.Salt, "%s: salted %s before the fire is too long; raw, it keeps %s", j.Name, quantity.FormatDuration(t.Wait), quantity.FormatDuration(j.WaitMax))
		}
		if t.Hold > j.HoldMax+15*time.Minute && t.Reheat.IsZero() && !t.Over {
			note("hold", j.Key, t.Off, "%s stands for %s after the fire; it keeps well for %s", j.Name, quantity.FormatDuration(t.Hold), quantity.FormatDuration(j.HoldMax))
		}
		if first := t.firstHandled(); !t.Thaw.IsZero() && first.Sub(t.Thaw) < j.Thaw*9/10 {
			note("thaw", j.Key, t.Thaw, "%s has %s to thaw; it needs %s in the fridge", j.Name, quantity.FormatDuration(first.Sub(t.Thaw)), quantity.FormatDuration(j.Thaw))
			p.Feasible = false
		}
		if t.Off.After(t.Slice.Add(-j.LeastRest)) {
			p.Feasible = p.Feasible && t.Over
			note("late", j.Key, t.Off, "%s is off about %s, too late to rest and be sliced at %s", j.Name, t.Off.Format("15:04"), t.Slice.Format("15:04"))
		}
	}
	for _, k := range p.Tasks {
		if k.Wakes && !k.Done {
			p.Woken++
			note("quiet", k.Key, k.At, "%s in the quiet hours, at %s", a.verb(k), k.At.Format("15:04"))
		}
		if k.Clash && !k.Done {
			note("hands", k.Key, k.At, "%s at %s: more at once than %s", a.verb(k), k.At.Format("15:04"), handWords(a.Hands))
		}
		if !a.Now.IsZero() && k.At.Before(a.Now.Add(-five)) && !k.Done && !k.About {
			p.Feasible = false
			note("late", k.Key, k.At, "%s should have been at %s", a.verb(k), k.At.Format("Mon 15:04"))
		}
	}
	for _, r := range p.Rooms {
		if r.Limit > 0 && r.Peak > r.Limit*1.02 {
			note("room", "", r.PeakAt, "%s holds %.0f dm²; at %s there are %.0f dm² on it", r.Name, r.Limit, r.PeakAt.Format("Mon 15:04"), r.Peak)
		}
	}
	a.heats(p, note)
	slices.SortStableFunc(p.Conflicts, func(c, d Conflict) int { return c.At.Compare(d.At) })
}

func handWords(n int) string {
	if n == 1 {
		return "one pair of hands can do"
	}
	return fmt.Sprintf("%d pairs of hands can do", n)
}

func both(t quantity.Celsius) string {
	return quantity.FormatTemperature(t, quantity.Metric) + " / " + quantity.FormatTemperature(t, quantity.US)
}

// heats notes pieces that want one pit at two temperatures.
func (a Ask) heats(p *Plan, note func(kind, key string, at time.Time, format string, args ...any)) {
	const near = 8 // °C, nearer than dials are true
	for i, j := range a.Jobs {
		for k := i + 1; k < len(a.Jobs); k++ {
			o := a.Jobs[k]
			s, t := p.Pieces[i], p.Pieces[k]
			if j.Pit != o.Pit || math.Abs(float64(j.PitC-o.PitC)) <= near || !s.Fire.Before(t.Off) || !t.Fire.Before(s.Off) {
				continue
			}
			at := s.Fire
			if t.Fire.After(at) {
				at = t.Fire
			}
			note("heat", o.Key, at, "%s wants the %s at %s, %s at %s: one pit has one heat", j.Name, a.pit(j).Name, both(j.PitC), o.Name, both(o.PitC))
		}
	}
}
