package plan

import (
	"cmp"
	"slices"
	"time"

	"verjuice/internal/core/uncertain"
)

// build lays out one plan backwards, from slicing to thawing. A waking plan may light
// the fire in the quiet hours.
func (a Ask) build(kind Kind, kinds []Kind, waking bool) Plan {
	p := Plan{Kind: kind, Chance: 1, Feasible: true, Waking: waking, Pieces: make([]Times, len(a.Jobs))}
	cut := a.slices()
	for i, j := range a.Jobs {
		t := Times{Key: j.Key, Kind: kinds[i], Slice: cut[i]}
		if waking {
			t.Fire = latest(j, cut[i])
		} else {
			t.Fire = a.onAt(j, kinds[i], cut[i])
		}
		if m, ok := a.mark(j, "fire"); ok {
			t.Fire = m.At
		} else if soon := a.soonest(j); t.Fire.Before(soon) {
			t.Fire = soon // it can no longer be earlier
		}
		p.Pieces[i] = t
	}
	a.stagger(&p)
	for i, j := range a.Jobs {
		a.onFire(j, &p.Pieces[i])
		a.again(j, &p.Pieces[i])
		a.beforeFire(j, &p.Pieces[i])
	}
	a.share(&p)
	for i, j := range a.Jobs {
		a.thaw(j, &p.Pieces[i])
		if p.Pieces[i].Reheat.IsZero() {
			p.Hold = max(p.Hold, p.Pieces[i].Hold)
		} else {
			p.Chilled = true
		}
	}
	a.chances(&p)
	p.Tasks = a.tasks(p)
	p.Rooms = a.rooms(p)
	a.check(&p)
	p.Safe = a.safe(p)
	return p
}

// soonest is when a piece can be on the fire at the earliest, from now: once its
// pit is hot. The zero time when there is no now.
func (a Ask) soonest(j Job) time.Time {
	if a.Now.IsZero() {
		return time.Time{}
	}
	lead := a.pit(j).Preheat
	for _, other := range a.Jobs {
		if other.Pit == j.Pit && a.done(other, "fire") {
			lead = 0 // something is on it already
		}
	}
	return ceil(a.Now.Add(lead))
}

// stagger keeps pieces from going on all in the same five minutes.
func (a Ask) stagger(p *Plan) {
	order := a.order(func(i int) int64 { return -p.Pieces[i].Fire.Unix() })
	var taken []time.Time
	for _, i := range order {
		t := &p.Pieces[i]
		if !a.fixed(a.Jobs[i], "fire") {
			step := -five
			if t.Fire.Add(step).Before(a.soonest(a.Jobs[i])) {
				step = five
			}
			for count(taken, t.Fire) >= a.Hands {
				t.Fire = t.Fire.Add(step)
			}
		}
		taken = append(taken, t.Fire)
	}
}

func count(times []time.Time, t time.Time) int {
	n := 0
	for _, one := range times {
		if d := one.Sub(t); d > -five && d < five {
			n++
		}
	}
	return n
}

// order is the jobs sorted by a number, those that are equal by their keys.
func (a Ask) order(by func(i int) int64) []int {
	out := make([]int, len(a.Jobs))
	for i := range out {
		out[i] = i
	}
	slices.SortStableFunc(out, func(i, j int) int { return cmp.Compare(by(i), by(j)) })
	return out
}

// reheating is the time to bring a chilled piece back to 74 °C.
const reheating = 90 * time.Minute

// onFire works out when a piece is wrapped and off.
func (a Ask) onFire(j Job, t *Times) {
	span := j.Fire.Span
	if a.onNow(j, *t) {
		span = j.Fire.After(a.Now.Sub(t.Fire))
	}
	t.Early, t.Off, t.Late = floor(t.Fire.Add(span.Low)), floor(t.Fire.Add(span.Mid)), floor(t.Fire.Add(span.High))
	if off, ok := a.mark(j, "off"); ok && off.Done {
		t.Early, t.Off, t.Late, t.Over = off.At, off.At, off.At, true
	}
	if j.Wraps.Mid > 0 && j.Fire.Mid > 0 {
		pace := float64(t.Off.Sub(t.Fire)) / float64(j.Fire.Mid) // of a piece that is slower than it was thought
		at := func(d time.Duration) time.Time { return floor(t.Fire.Add(time.Duration(pace * float64(d)))) }
		t.WrapFrom, t.Wrap, t.WrapTo = at(j.Wraps.Low), at(j.Wraps.Mid), at(j.Wraps.High)
	}
	if wrap, ok := a.mark(j, "wrap"); ok && wrap.Done {
		t.WrapFrom, t.Wrap, t.WrapTo = wrap.At, wrap.At, wrap.At
	}
	t.Hold = max(0, t.Slice.Sub(t.Off))
	if t.Kind == Ahead && t.Hold > j.HoldMax {
		t.Reheat = floor(t.Slice.Add(-reheating))
	}
}

// onNow reports whether a piece is on the fire, and has been for some time.
func (a Ask) onNow(j Job, t Times) bool { return a.done(j, "fire") && a.Now.After(t.Fire) }

// chances counts the members in which each piece, and all of them, are off in time to rest.
// A piece that is on the fire and not off leaves out those that would be.
func (a Ask) chances(p *Plan) {
	left, inTime := uncertain.Members, 0 // of the members in which every piece stands as it does
	fits := make([]bool, uncertain.Members)
	stands := make([]bool, uncertain.Members)
	for m := range uncertain.Members {
		fits[m], stands[m] = true, true
	}
	p.Chance = 1
	for i, j := range a.Jobs {
		t := &p.Pieces[i]
		ready, on := t.Slice.Add(-j.LeastRest), a.onNow(j, *t)
		var alone, good int
		member := func(m int) (stands, fits bool) {
			d := j.Fire.Member(m)
			return !on || d > a.Now.Sub(t.Fire), d < uncertain.Endless && d <= ready.Sub(t.Fire)
		}
		for m := range uncertain.Members {
			if s, f := member(m); s {
				alone++
				if f {
					good++
				}
			}
		}
		switch {
		case t.Over:
			t.Chance = step(!t.Off.After(ready))
		case alone < 2: // longer than anyone expects: any moment now
			t.Chance = step(ready.After(a.Now))
		default:
			t.Chance = float64(good) / float64(alone)
			for m := range uncertain.Members {
				s, f := member(m)
				stands[m], fits[m] = stands[m] && s, fits[m] && f
			}
			continue
		}
		p.Chance *= t.Chance
	}
	for m := range uncertain.Members {
		switch {
		case !stands[m]:
			left--
		case fits[m]:
			inTime++
		}
	}
	if left > 1 {
		p.Chance *= float64(inTime) / float64(left)
		return
	}
	p.Chance = 1
	for _, t := range p.Pieces { // no member is as late as all of them together
		p.Chance *= t.Chance
	}
}

func step(yes bool) float64 {
	if yes {
		return 1
	}
	return 0
}

// beforeFire places the salting, and the bath before it: as long before the fire
// as the cook wants, moved out of the quiet hours within what the wait allows.
func (a Ask) beforeFire(j Job, t *Times) {
	t.Out = t.Fire.Add(-j.Temper)
	block := j.Prep // hands, and before them the draining
	if j.Bath > 0 {
		block += j.Drain
	}
	salt := t.Fire.Add(-j.Wait)
	if j.Wait >= 3*five {
		salt = floor(salt)
	}
	if m, ok := a.mark(j, "salt"); ok {
		salt = m.At
	} else {
		salt = a.awake(salt, block, t.Fire.Add(-j.WaitMax), t.Fire.Add(-j.WaitMin))
		if soon := ceil(a.Now.Add(block)); !a.Now.IsZero() && salt.Before(soon) && !a.done(j, "fire") {
			salt = soon // it can no longer be earlier
		}
		if salt.After(t.Fire) {
			salt = t.Fire
		}
	}
	a.setSalt(j, t, salt)
	a.placeBath(j, t)
}

// placeBath puts a piece into its bath as long before it is lifted as the cook
// wants, out of the quiet hours within what the bath allows.
func (a Ask) placeBath(j Job, t *Times) {
	if j.Bath == 0 {
		return
	}
	if m, ok := a.mark(j, "bath"); ok {
		t.Bath = m.At
		return
	}
	over := func(before time.Duration) time.Time { return t.Lift.Add(-before + bathHands) }
	into := a.awake(floor(over(j.Bath)), bathHands, over(j.BathMax), over(j.BathMin)).Add(-bathHands)
	if soon := ceil(a.Now); !a.Now.IsZero() && into.Before(soon) && !a.done(j, "salt") {
		into = soon
	}
	if into.After(t.Lift) {
		into = t.Lift
	}
	t.Bath = into
}

const bathHands = 15 * time.Minute

// setSalt puts the salting, and what hangs on it, at a time.
func (a Ask) setSalt(j Job, t *Times, salt time.Time) {
	t.Salt = salt
	t.Prep = salt.Add(-j.Prep)
	t.Wait = max(0, t.Fire.Sub(salt)) // a time that was fixed may lie after the fire
	if j.Bath > 0 {
		t.Lift = t.Prep.Add(-j.Drain)
	}
	if t.Out.Before(t.Salt) {
		t.Out = t.Salt // salted on the counter
	}
}

func (a Ask) done(j Job, stage string) bool {
	m, ok := a.mark(j, stage)
	return ok && m.Done
}

// awake moves a task that is over at end, and takes so long, out of the quiet
// hours: to the evening before or the morning after, whichever is nearer, within
// the limits. When neither is, it stays and wakes the cook.
func (a Ask) awake(end time.Time, takes time.Duration, earliest, last time.Time) time.Time {
	from, to, in := a.Quiet.Within(end.Add(-time.Second))
	if !in {
		if from, to, in = a.Quiet.Within(end.Add(-takes)); !in {
			return end
		}
	}
	evening, morning := floor(from), ceil(to.Add(takes))
	early := !evening.Before(earliest)
	late := !morning.After(last)
	switch {
	case early && late:
		if end.Sub(evening) <= morning.Sub(end) {
			return evening
		}
		return morning
	case early:
		return evening
	case late:
		return morning
	}
	return end
}

// share moves salting and bathing earlier until someone is free for each, or else later.
func (a Ask) share(p *Plan) {
	for _, i := range a.order(func(i int) int64 { return -p.Pieces[i].Salt.Unix() }) {
		j, t := a.Jobs[i], &p.Pieces[i]
		if !a.fixed(j, "salt") {
			earliest := t.Fire.Add(-j.WaitMax).Add(-j.Prep)
			if j.Bath > 0 && !a.Now.IsZero() { // what is lifted drains first
				earliest = later(earliest, a.Now.Add(j.Drain))
			}
			a.shift(p, i, j.Prep, t.Prep, earliest, t.Fire.Add(-j.WaitMin-j.Prep), func(start time.Time) {
				a.setSalt(j, t, start.Add(j.Prep))
				a.placeBath(j, t)
			})
		}
		if j.Bath > 0 && !a.fixed(j, "bath") {
			earliest, latest := t.Lift.Add(-j.BathMax), t.Lift.Add(-j.BathMin)
			a.shift(p, i, bathHands, t.Bath, earliest, latest, func(start time.Time) { t.Bath = start })
		}
	}
}

// shift moves a task of job i by fives until there are hands for it: earlier, not before
// earliest, nor into the past, or else later, not after latest; never into quiet hours. Else it stays.
func (a Ask) shift(
	p *Plan,
	i int,
	lasts time.Duration,
	start, earliest, latest time.Time,
	put func(time.Time),
) {
	for at := start; !at.Before(earliest) && start.Sub(at) <= 4*time.Hour; at = at.Add(-five) {
		if !a.Now.IsZero() && at.Before(a.Now) {
			break
		}
		if _, _, quiet := a.Quiet.Within(at); quiet && !at.Equal(start) {
			break
		}
		put(at)
		if a.meeting(p, i, at, lasts) < a.Hands {
			return
		}
	}
	for at := start.Add(five); !at.After(latest) && at.Sub(start) <= 4*time.Hour; at = at.Add(five) {
		if _, _, quiet := a.Quiet.Within(at.Add(lasts)); quiet {
			break
		}
		put(at)
		if a.meeting(p, i, at, lasts) < a.Hands {
			return
		}
	}
	put(start)
}

// meeting is how many other tasks fall between at and at+lasts, of those that are
// placed already. It may overcount, since two of them need not overlap each other.
func (a Ask) meeting(p *Plan, self int, at time.Time, lasts time.Duration) int {
	n := 0
	for k, j := range a.Jobs {
		t := p.Pieces[k]
		meets := func(start time.Time, takes time.Duration) {
			if !start.IsZero() && takes > 0 && start.Before(at.Add(lasts)) && at.Before(start.Add(takes)) {
				n++
			}
		}
		meets(t.Fire, five)
		if first := a.Use(*p, j.Pit).First; first.Equal(t.Fire) {
			meets(a.pit(j).lit(first), lighting)
		}
		if k == self {
			continue
		}
		meets(t.Prep, j.Prep)
		if j.Bath > 0 {
			meets(t.Bath, bathHands)
		}
	}
	return n
}

// thaw lays the thawing before the first handling.
func (a Ask) thaw(j Job, t *Times) {
	if j.Thaw == 0 {
		return
	}
	first := t.firstHandled()
	if m, ok := a.mark(j, "thaw"); ok {
		t.Thaw = m.At
		return
	}
	// Thawing a day longer does no harm; when it is late already, it thaws for less.
	start := first.Add(-j.Thaw)
	t.Thaw = a.awake(floor(start).Add(five), five, start.Add(five-24*time.Hour), start.Add(five)).Add(-five)
	if soon := ceil(a.Now); !a.Now.IsZero() && t.Thaw.Before(soon) && !a.done(j, "salt") && !a.done(j, "fire") {
		t.Thaw = soon
		if t.Thaw.After(first) {
			t.Thaw = first
		}
	}
}

// firstHandled is when a piece is first taken in hand, thawed.
func (t Times) firstHandled() time.Time {
	if !t.Bath.IsZero() {
		return t.Bath
	}
	return t.Prep
}
