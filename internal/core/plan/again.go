package plan

import "time"

// Hands that it takes to put a piece on the fire once more, and off again.
const againOn, againOff = 10 * time.Minute, 5 * time.Minute

// AgainBefore is how much longer it takes from off the fire to the knife, by what goes on once more uncut.
func (j Job) AgainBefore() time.Duration {
	sum := time.Duration(0)
	for _, g := range j.Again {
		if !g.Cut && !g.Told {
			sum += againOn + g.Lasts
		}
	}
	for _, g := range j.Again {
		if !g.Cut && g.Told {
			sum = max(sum, g.After+g.Lasts)
		}
	}
	return sum
}

// AgainAfter is how long it takes from the knife to the table, by what goes on once more in cubes or slices.
func (j Job) AgainAfter() time.Duration {
	sum := time.Duration(0)
	for _, g := range j.Again {
		if g.Cut {
			sum += againOn + g.Lasts
		}
	}
	return sum
}

// again lays what goes on the fire once more: what is cut follows the knife, what is told to follows the fire, and the
// rest is done when it is cut. What was done stands as it was.
func (a Ask) again(j Job, t *Times) {
	t.Again = make([]Spell, len(j.Again))
	cut, whole := t.Slice.Add(j.Slice), t.Slice
	for i := len(j.Again) - 1; i >= 0; i-- {
		if g := j.Again[i]; !g.Cut && !g.Told {
			t.Again[i] = Spell{floor(whole.Add(-g.Lasts)), whole}
			whole = t.Again[i].On.Add(-againOn)
		}
	}
	ons, offs := a.dones(j, "again"), a.dones(j, "again-off")
	for i, g := range j.Again {
		s := &t.Again[i]
		switch {
		case g.Cut:
			s.On = cut.Add(againOn)
			s.Off = s.On.Add(g.Lasts)
			cut = s.Off
		case g.Told:
			s.On = floor(t.Off.Add(g.After))
			s.Off = s.On.Add(g.Lasts)
		}
		if i < len(ons) {
			*s = Spell{ons[i], ons[i].Add(g.Lasts)}
		}
		if i < len(offs) {
			s.Off = offs[i]
		}
	}
}

// dones are when a stage of a job was done, each time.
func (a Ask) dones(j Job, stage string) []time.Time {
	var out []time.Time
	for _, m := range a.Marks {
		if m.Key == j.Key && m.Stage == stage && m.Done {
			out = append(out, m.At)
		}
	}
	return out
}

// againTasks are what is done of it. What is cut goes into its pan while it is cut.
func (a Ask) againTasks(j Job, t Times) []Task {
	var out []Task
	ons, offs := a.dones(j, "again"), a.dones(j, "again-off")
	for i, g := range j.Again {
		s := t.Again[i]
		out = append(out,
			Task{Key: j.Key, Stage: "again", Move: g.Move, At: s.On, Lasts: againOn, SetC: g.SetC, Done: i < len(ons)},
			Task{Key: j.Key, Stage: "again-off", Move: g.Move, At: s.Off, Lasts: againOff, Done: i < len(offs)},
		)
	}
	return out
}

// lastFire is when a piece is off its fire for the last time.
func (t Times) lastFire() time.Time {
	last := t.Off
	for _, s := range t.Again {
		last = later(last, s.Off)
	}
	return last
}
