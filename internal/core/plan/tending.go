package plan

import (
	"time"

	"verjuice/internal/core/when"
)

// Use is the time that pit n is in use in a plan; the zero Use when nothing is on it.
func (a Ask) Use(p Plan, n int) (out when.Use) {
	for i, j := range a.Jobs {
		if j.Pit != n {
			continue
		}
		t := p.Pieces[i]
		if out.First.IsZero() || t.Fire.Before(out.First) {
			out.First = t.Fire
		}
		if t.Wrap.After(out.Wraps) {
			out.Wraps = t.Wrap
		}
		until := t.Slice
		if t.Kind == Ahead {
			until = t.Off
		}
		until = later(until, t.lastFire())
		if until.After(out.Until) {
			out.Until = until
		}
	}
	return out
}

// lighting is how long hands are needed to light a pit.
const lighting = 10 * time.Minute

// lit is when a pit is lit for what goes on it first.
func (p Pit) lit(first time.Time) time.Time { return floor(first.Add(-p.Preheat)) }

// tending is what is done to the pits: each is lit, set as its list says, and fed.
func (a Ask) tending(p Plan) []Task {
	var out []Task
	for n, pit := range a.Pits {
		use := a.Use(p, n)
		if use.First.IsZero() {
			continue
		}
		last, lit := time.Time{}, false
		for i, j := range a.Jobs {
			if j.Pit == n {
				lit = lit || a.done(j, "fire")
				last = later(last, p.Pieces[i].lastFire())
			}
		}
		light := Task{Pit: n, Stage: "light", At: pit.lit(use.First), Lasts: lighting, Done: lit}
		if len(pit.Sets) > 0 {
			light.SetC, light.Turn = pit.Sets[0].C, 1
		}
		sets := a.setting(n, &light, use, last)
		out = append(append(out, light), sets...)
		if pit.Alone > 0 {
			out = append(out, a.feeding(n, use.First, last)...)
		}
	}
	return out
}

func later(a, b time.Time) time.Time {
	if b.After(a) {
		return b
	}
	return a
}

// setting is when pit n is set to something else, from its lighting until nothing is on it. It is
// lit at the last temperature that comes before that.
func (a Ask) setting(n int, light *Task, use when.Use, last time.Time) []Task {
	var out []Task
	sets := a.Pits[n].Sets
	now := light.SetC
	for i, at := range use.Times(sets) {
		c := sets[i].C
		switch {
		case at.IsZero() || !at.Before(last):
			continue
		case !at.After(light.At):
			light.SetC, light.Turn, now = c, i+1, c
			continue
		case c == now:
			continue
		}
		now = c
		k := Task{
			Pit:   n,
			Stage: "set",
			Turn:  i + 1,
			SetC:  c,
			At:    floor(at),
			Lasts: five,
			From:  floor(at),
			To:    floor(at),
			Done:  !a.Now.IsZero() && at.Before(a.Now),
		}
		k.About = sets[i].At.Of == "wrap"
		out = append(out, k)
	}
	return out
}

// feeding is when a pit that does not burn alone so long is fed. A feeding in the night is done
// before it where it can be, and one that is nearly due when the night is over waits for the
// morning.
func (a Ask) feeding(n int, first, last time.Time) []Task {
	var out []Task
	pit := a.Pits[n]
	fed, turn := first, 0
	for at := first.Add(pit.Alone); at.Before(last.Add(-five)); at = fed.Add(pit.Alone) {
		if from, to, quiet := a.Quiet.Within(at); quiet {
			if before := from.Add(-winding); before.After(fed) {
				at = before
			} else if to.Sub(at) <= pit.Alone/10 {
				at = to
			}
		}
		fed, turn = at, turn+1
		_, _, quiet := a.Quiet.Within(at)
		if k := len(out) - 1; turn > 1 && !quiet && !out[k].quiet && at.Sub(out[k].To) <= pit.Alone+five {
			out[k].To, out[k].Every = floor(at), pit.Alone // by day: one line with a rhythm
			continue
		}
		out = append(
			out,
			Task{
				Pit:   n,
				Stage: "feed",
				Turn:  turn,
				quiet: quiet,
				At:    floor(at),
				Lasts: five,
				About: true,
				From:  floor(at),
				To:    floor(at),
				Done:  !a.Now.IsZero() && at.Before(a.Now),
			},
		)
	}
	return out
}
