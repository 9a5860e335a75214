package plan

import (
	"slices"
	"time"
)

// tasks are the plan as a list, in order.
func (a Ask) tasks(p Plan) []Task {
	var out []Task
	for i, j := range a.Jobs {
		out = append(out, a.pieceTasks(j, p.Pieces[i])...)
	}
	out = append(out, a.tending(p)...)
	byTime := func(x, y Task) int { return x.At.Compare(y.At) }
	slices.SortStableFunc(out, byTime)
	a.lightEarlier(out)
	slices.SortStableFunc(out, byTime)
	for i := range out {
		k := &out[i]
		k.Wakes = len(k.atNight(a.Quiet)) > 0
		k.Clash = !k.About && !k.Done && crowd(out, i) > a.Hands
	}
	return out
}

// pieceTasks are what is done to one piece.
func (a Ask) pieceTasks(j Job, t Times) []Task {
	var out []Task
	add := func(stage string, at time.Time, lasts time.Duration) {
		if at.IsZero() {
			return
		}
		_, done := a.mark(j, stage)
		if done {
			done = a.done(j, stage)
		}
		out = append(out, Task{Key: j.Key, Stage: stage, At: at, Lasts: lasts, Done: done || a.passed(j, stage)})
	}
	about := func(stage string, at, from, to time.Time, lasts time.Duration) {
		add(stage, at, lasts)
		if n := len(out) - 1; !at.IsZero() {
			out[n].About, out[n].From, out[n].To = true, earlier(from, at), later(at, to)
		}
	}
	add("thaw", t.Thaw, five)
	if j.Bath > 0 {
		add("bath", t.Bath, bathHands)
		add("lift", t.Lift, five)
	}
	add("salt", t.Prep, j.Prep)
	if j.Temper > 0 && t.Out.After(t.Salt) {
		add("out", t.Out, five)
	}
	if j.Dust {
		about("dust", t.Fire.Add(-10*time.Minute), t.Fire.Add(-15*time.Minute), t.Fire, five)
	}
	add("fire", t.Fire, five)
	if !t.Wrap.IsZero() {
		about("wrap", t.Wrap, t.WrapFrom, t.WrapTo, 10*time.Minute)
		out[len(out)-1].Never = j.WrapNever
	}
	if j.Sauce {
		about("sauce", floor(t.Off.Add(-saucing)), t.Fire, t.Off.Add(-glazing), 15*time.Minute)
	}
	if j.Glaze {
		about("glaze", floor(t.Off.Add(-glazing)), t.Early.Add(-glazing), t.Late.Add(-glazing), five)
	}
	about("off", t.Off, t.Early, t.Late, five)
	if t.Over {
		out[len(out)-1].About = false
	}
	out = append(append(out, a.doings(j, t)...), a.againTasks(j, t)...)
	if j.Travel > 0 {
		add("travel", t.Slice.Add(-j.Travel), j.Travel)
	}
	add("reheat", t.Reheat, five)
	add("slice", t.Slice, j.Slice)
	a.untilMorning(j, t, out)
	return out
}

// doings are what is done to a piece besides its stages. One that was done so often is done, the
// first of its kind first; what is done again and again is done when the piece is off.
func (a Ask) doings(j Job, t Times) []Task {
	var out []Task
	did, just := map[string]int{}, map[string]bool{}
	for _, m := range a.Marks {
		switch {
		case m.Key != j.Key || !m.Done:
		case m.Move != "":
			just[m.Move] = true
		default:
			did[m.Stage]++
		}
	}
	for _, d := range j.Doings {
		k, ok := t.doing(d, j, a.serves(j))
		if !ok {
			continue
		}
		if d.Every > 0 {
			k.Done = a.done(j, "off")
		} else if k.Done = just[d.Move] || did[d.Stage] > 0; !just[d.Move] {
			did[d.Stage]--
		}
		out = append(out, k)
	}
	return out
}

// A glaze sets for so long before a piece is off; its sauce or glaze is made so long before.
const (
	glazing = 25 * time.Minute
	saucing = time.Hour
)

// doing is a doing as a task; false when the piece is off before it comes.
func (t Times) doing(d Doing, j Job, serve time.Time) (Task, bool) {
	pace := 1.0 // of a piece that is slower than it was thought
	if j.Fire.Mid > 0 {
		pace = float64(t.Off.Sub(t.Fire)) / float64(j.Fire.Mid)
	}
	// the nearest five minutes
	after := func(by time.Duration) time.Time { return floor(t.Fire.Add(time.Duration(pace*float64(by)) + five/2)) }
	k := Task{Key: j.Key, Stage: d.Stage, Move: d.Move, Every: d.Every, Lasts: d.Lasts, About: true, Never: d.Never}
	switch d.Of {
	case "fire":
		k.At = floor(t.Fire.Add(d.By))
		k.From, k.To = k.At, k.At
	case "slice":
		k.At = floor(t.Slice.Add(d.By))
		k.From, k.To = k.At, k.At
	case "serve":
		k.At = floor(serve.Add(d.By))
		k.From, k.To = k.At, k.At
	case "off":
		k.At, k.From, k.To = floor(t.Off.Add(d.By)), floor(t.Early.Add(d.By)), floor(t.Late.Add(d.By))
	default:
		if d.From.Mid >= j.Fire.Mid {
			return k, false
		}
		k.At, k.From, k.To = after(d.From.Mid), after(d.From.Low), after(d.From.High)
	}
	if d.Every > 0 {
		if k.To = t.Off; d.Until.Mid > 0 && d.Until.Mid < j.Fire.Mid {
			k.To = after(d.Until.Mid)
		}
		return k, !k.To.Before(k.At)
	}
	k.From, k.To = earlier(k.From, k.At), later(k.At, k.To)
	return k, true
}

// lightEarlier lights a pit up to an hour earlier when nobody is free for it: a pit that
// waits does no harm.
func (a Ask) lightEarlier(all []Task) {
	for i := range all {
		if all[i].Stage != "light" || all[i].Done {
			continue
		}
		at := all[i].At
		for shift := five; crowd(all, i) > a.Hands && shift <= time.Hour; shift += five {
			all[i].At = at.Add(-shift)
			if _, _, quiet := a.Quiet.Within(all[i].At); quiet || !a.Now.IsZero() && all[i].At.Before(a.Now) {
				all[i].At = at
				break
			}
		}
		if crowd(all, i) > a.Hands {
			all[i].At = at
		}
	}
}

// crowd is how many tasks are done at once at most while task i is.
func crowd(all []Task, i int) int {
	most := 1
	for _, from := range all { // the most are at once when one of them begins
		if at := from.At; at.Before(all[i].At) || !at.Before(all[i].At.Add(all[i].Lasts)) {
			continue
		}
		n := 0
		for _, k := range all {
			if !k.About && !k.Done && !k.At.After(from.At) && from.At.Before(k.At.Add(k.Lasts)) {
				n++
			}
		}
		most = max(most, n)
	}
	return most
}

// atNight are the times of a task that fall in quiet hours: with a rhythm, each of them.
func (k Task) atNight(quiet QuietHours) []time.Time {
	var out []time.Time
	for at := k.At; ; at = at.Add(k.Every) {
		if _, _, in := quiet.Within(at); in {
			out = append(out, at)
		}
		// Feedings are put around the night one by one, and told by day as a rhythm.
		if k.Every <= 0 || k.Stage == "feed" || at.Add(k.Every).After(k.To) {
			return out
		}
	}
}

// untilMorning leaves a piece that is done in the night in its pit until the night is over, where that keeps it warm by
// itself. Of one that is on the fire somebody is called when it is done.
func (a Ask) untilMorning(j Job, t Times, tasks []Task) {
	_, morning, quiet := a.Quiet.Within(t.Off)
	if !quiet || t.Over || a.done(j, "fire") || !a.pit(j).Holds || !morning.Before(t.Slice.Add(-j.LeastRest)) {
		return
	}
	for i := range tasks {
		k := &tasks[i]
		if k.Stage != "off" && k.Stage != "rest" || !k.At.Before(morning) {
			continue
		}
		k.At, k.Waits = k.At.Add(morning.Sub(t.Off)), k.Stage == "off"
		k.From, k.To = later(k.From, k.At), later(k.To, k.At)
	}
}

// passed reports whether a stage is over because a later one is done.
func (a Ask) passed(j Job, stage string) bool {
	order := []string{"thaw", "bath", "lift", "salt", "out", "fire", "wrap", "off"}
	at := slices.Index(order, stage)
	if at < 0 {
		return false
	}
	for _, later := range order[at+1:] {
		if a.done(j, later) {
			return true
		}
	}
	return false
}

// rooms are the pits and the fridge over time.
func (a Ask) rooms(p Plan) []Room {
	var out []Room
	for n, pit := range a.Pits {
		r := Room{Pit: n, Limit: pit.Room}
		for i, j := range a.Jobs {
			if t := p.Pieces[i]; j.Pit == n && j.RoomDM2 > 0 {
				r.Uses = append(r.Uses, RoomUse{Key: j.Key, From: t.Fire, To: t.Off, DM2: j.RoomDM2})
				for _, s := range t.Again {
					r.Uses = append(r.Uses, RoomUse{Key: j.Key, From: s.On, To: s.Off, DM2: j.RoomDM2})
				}
			}
		}
		if len(r.Uses) > 0 {
			out = append(out, r.Peaked())
		}
	}
	fridge := Room{Pit: Fridge}
	for i, j := range a.Jobs {
		t := p.Pieces[i]
		from := t.Prep
		for _, earlier := range []time.Time{t.Bath, t.Thaw} {
			if !earlier.IsZero() && earlier.Before(from) {
				from = earlier
			}
		}
		if t.Out.Sub(from) > time.Hour {
			fridge.Uses = append(fridge.Uses, RoomUse{Key: j.Key, From: from, To: t.Out, DM2: j.FridgeDM2})
		}
		if !t.Reheat.IsZero() {
			fridge.Uses = append(
				fridge.Uses,
				RoomUse{Key: j.Key, From: t.Off.Add(2 * time.Hour), To: t.Reheat, DM2: j.FridgeDM2},
			)
		}
	}
	if len(fridge.Uses) > 0 {
		out = append(out, fridge.Peaked())
	}
	return out
}

// Burning is how long each pit is in use, by its number.
func (p Plan) Burning() map[int]time.Duration {
	out := map[int]time.Duration{}
	for _, r := range p.Rooms {
		if r.Pit == Fridge {
			continue
		}
		first := slices.MinFunc(r.Uses, func(a, b RoomUse) int { return a.From.Compare(b.From) }).From
		last := slices.MaxFunc(r.Uses, func(a, b RoomUse) int { return a.To.Compare(b.To) }).To
		out[r.Pit] = last.Sub(first)
	}
	return out
}
