package forecast

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/move"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// Scope is which piece is asked for, and when.
type Scope struct {
	Piece string
	Pit   int
	Zone  *time.Location
	Now   time.Time
	// ProbeC is what the probes show in ice water, °C: it is taken off all that they read of a core.
	ProbeC float64
}

// History is what happened to a piece, in hours since it went on: what was read, seen and done instead
// of what was planned.
type History struct {
	On     time.Time // it went on
	Off    time.Time // it came off, or the last one of its line did; zero while it is on
	Some   int       // of its line that came off before
	Again  []Spell   // on the fire once more, after that
	NowH   float64   // h since it went on, until now or until it came off
	Core   []heat.Reading
	Pit    []heat.SetPoint // as it was read
	Sets   []PitChange     // what was done to it, in order
	Wraps  []heat.Wrap
	Opened []float64             // h at which the pit was opened
	Bark   heat.SeenBark         // what was seen of its bark
	Felt   Felt                  // when its probe slid in
	told   []heat.Reading        // cores that were told with what was done
	Last   map[string]time.Time  // what was done last, by its stage; of its pit, too
	Signs  map[string]facts.Fact // what was seen last, by its sign
	Feel   map[string]string     // how the probe felt last, by the place; empty is no place in particular
}

// Spell is a time on the fire; it is not off yet while Off is zero.
type Spell struct{ On, Off time.Time }

// Felt is when a piece on the fire was first felt soft, and last felt not to be before that, h; zero when it was not.
type Felt struct{ SoftH, NotH float64 }

// PitChange is something that was done to the fire of a pit.
type PitChange struct {
	H    float64 // since the piece went on; before it when below zero
	Kind PitChangeKind
	C    quantity.Celsius // what it was set to, of a PitSet

	at time.Time
}

// PitChangeKind is what was done to the fire of a pit.
type PitChangeKind string

// The kinds.
const (
	PitSet   PitChangeKind = "set"
	PitOut   PitChangeKind = "out"   // its fire went out
	PitRelit PitChangeKind = "relit" // it was lit again, at what it was set to before
)

// Stands reports whether the piece stands on the fire once more.
func (h History) Stands() bool {
	n := len(h.Again)
	return n > 0 && h.Again[n-1].Off.IsZero()
}

// thinned is how far apart readings are that the heat is told of.
const thinned = 5 * time.Minute

// HistoryOf is what happened to a piece up to now; false when nothing says that it went on.
func HistoryOf(all facts.Facts, read []facts.Reading, at Scope) (History, bool) {
	out := History{Last: map[string]time.Time{}, Signs: map[string]facts.Fact{}, Feel: map[string]string{}}
	standing := all.Played(at.Zone).ByTime(at.Zone)
	moment := func(f facts.Fact) time.Time {
		t, _ := f.Time(at.Zone)
		return t
	}
	for _, f := range standing {
		pit, _ := f.Values["pit"].(float64)
		own := f.Piece == at.Piece
		if when := moment(f); !when.After(at.Now.Add(facts.ClockSkew)) && (own || f.Piece == "" && int(pit) == at.Pit) {
			out.add(f, when, own)
		}
	}
	if out.On.IsZero() {
		return out, false
	}
	until := at.Now
	if !out.Off.IsZero() && out.Off.Before(until) {
		until = out.Off
	}
	out.NowH = max(0, until.Sub(out.On).Hours())
	out.read(read, at, until)
	return out, true
}

// add takes a fact in. It has many branches because each kind of fact and press is one of them, and none
// nests in another.
//
//gocyclo:ignore
func (h *History) add(f facts.Fact, at time.Time, own bool) {
	since := at.Sub(h.On).Hours()
	if c, read := f.CoreC(); read && own && !h.On.IsZero() && since >= 0 {
		h.told = append(h.told, heat.Reading{AtH: since, CoreC: c, ByEye: true})
	}
	switch {
	case f.Kind == facts.Seen && own:
		h.Signs[f.What] = f
		how, place := f.How()
		if f.What == "feel" {
			h.Feel[place] = how
			if !h.On.IsZero() && h.Off.IsZero() {
				h.feel(how == "soft", since)
			}
		}
		if f.What == "bark" && !h.On.IsZero() {
			h.seeBark(how == "holds", max(0.1, since))
		}
	case f.Kind != facts.Done:
	case f.What == "fire" && own:
		h.On = at
	case f.What == "some-off" && own:
		h.Some++
	case f.What == "off" && own:
		h.Off = at
	case f.What == "again" && own && !h.Off.IsZero():
		h.Again = append(h.Again, Spell{On: at})
	case f.What == "again-off" && own && len(h.Again) > 0:
		h.Again[len(h.Again)-1].Off = at
	case (f.What == "out" || f.What == "relit") && !own:
		h.Sets = append(h.Sets, PitChange{Kind: PitChangeKind(f.What), at: at})
	case f.What == "set" && !own:
		if c, err := f.Set(); err == nil {
			h.Sets = append(h.Sets, PitChange{Kind: PitSet, C: c, at: at})
		}
	case (f.What == "wrap" || f.What == "unwrap") && own && !h.On.IsZero():
		kind, _ := f.Values["kind"].(string)
		if f.What == "unwrap" {
			kind = "none"
		}
		h.Wraps = append(h.Wraps, heat.Wrap{Kind: kind, When: when.At(when.Cond{After: max(time.Minute, at.Sub(h.On))})})
	}
	if f.Kind == facts.Done {
		h.Last[f.What] = at
		if kind, _ := move.Find(move.Kind(f.What)); kind.Opens && !h.On.IsZero() {
			h.Opened = append(h.Opened, since)
		}
	}
}

// seeBark takes in that a bark held, or did not yet.
func (h *History) seeBark(holds bool, at float64) {
	switch {
	case !holds:
		h.Bark = heat.SeenBark{NotH: at} // it was not set before either
	case h.Bark.SetH == 0:
		h.Bark.SetH = at
	}
}

// feel takes in that it was felt.
func (h *History) feel(soft bool, at float64) {
	switch {
	case !soft:
		h.Felt = Felt{NotH: at} // a soft place is not all of it
	case h.Felt.SoftH == 0:
		h.Felt.SoftH = at
	}
}

// OutC is what a pit falls to whose fire is out: field judgement, °C.
const OutC = 30

// A core on the fire does not fall by more than that in five minutes, nor rise by more: then the
// probe is out, or at the bone, and what it shows is left out, °C.
const fallsC, risesC = 6, 15

// settles is how long a pit is left to settle after a piece goes on, before what it reads counts, h.
const settles = 0.5

// read takes the readings in: of the piece its coldest place, and of its pit. It has many branches because each
// kind of reading, and each reason to leave one out, is one of them.
//
//gocyclo:ignore
func (h *History) read(read []facts.Reading, at Scope, until time.Time) {
	core, pit := map[int64]heat.Reading{}, map[int64]heat.Reading{}
	for _, r := range read {
		p, err := facts.ParseProbe(r.Probe)
		if err != nil || r.At.Before(h.On) || r.At.After(until) {
			continue
		}
		slot, one := int64(r.At.Sub(h.On)/thinned), heat.Reading{AtH: r.At.Sub(h.On).Hours(), CoreC: float64(r.C)}
		if p.Piece != "" {
			one.CoreC -= at.ProbeC
		}
		// What runs now counts with its first reading, so that a forecast does not change with each.
		runs := h.Off.IsZero() && slot == int64(until.Sub(h.On)/thinned)
		switch {
		case p.Piece == "" && p.Pit == at.Pit:
			if _, ok := pit[slot]; !ok || !runs {
				pit[slot] = one // the last of it
			}
		case p.Piece == at.Piece:
			if was, ok := core[slot]; !ok || !runs && one.CoreC < was.CoreC {
				core[slot] = one
			}
		}
	}
	for _, r := range h.told {
		slot := int64(r.AtH / thinned.Hours())
		if _, there := core[slot]; !there && r.AtH <= until.Sub(h.On).Hours()+1e-9 {
			core[slot] = r
		}
	}
	cores := sorted(core)
	for i, r := range cores {
		r.ByEye = byEye(cores, i)
		if i > 0 && len(h.Core) > 0 {
			was := h.Core[len(h.Core)-1]
			slots := max(1, (r.AtH-was.AtH)/thinned.Hours())
			if r.CoreC < was.CoreC-fallsC || r.CoreC > was.CoreC+risesC*slots {
				continue
			}
		}
		h.Core = append(h.Core, r)
	}
	if h.NowH < settles {
		clear(pit)
	}
	for _, r := range sorted(pit) {
		h.Pit = append(h.Pit, heat.SetPoint{AtH: r.AtH, SetC: r.CoreC})
	}
	for i := range h.Sets {
		h.Sets[i].H = h.Sets[i].at.Sub(h.On).Hours()
	}
}

// aloneH is how far apart readings are that nobody's probe stayed in for, h.
const aloneH = 0.3

// byEye reports whether reading i is one of a thermometer that was put in and read: no other is near it.
func byEye(all []heat.Reading, i int) bool {
	near := func(j int) bool { return j >= 0 && j < len(all) && math.Abs(all[j].AtH-all[i].AtH) < aloneH }
	return !near(i-1) && !near(i+1)
}

func sorted(m map[int64]heat.Reading) []heat.Reading {
	return slices.SortedFunc(maps.Values(m), func(a, b heat.Reading) int { return cmp.Compare(a.AtH, b.AtH) })
}

// Until is what had happened so many hours after it went on.
func (h History) Until(hour float64) History {
	if h.NowH <= hour {
		return h
	}
	out := h
	out.NowH, out.Off = hour, time.Time{}
	out.Core = slices.DeleteFunc(slices.Clone(h.Core), func(r heat.Reading) bool { return r.AtH > hour })
	out.Pit = slices.DeleteFunc(slices.Clone(h.Pit), func(s heat.SetPoint) bool { return s.AtH > hour })
	out.Sets = slices.DeleteFunc(slices.Clone(h.Sets), func(c PitChange) bool { return c.H > hour })
	later := func(w heat.Wrap) bool { return w.When.First.After.Hours() > hour }
	out.Wraps = slices.DeleteFunc(slices.Clone(h.Wraps), later)
	if out.Bark.SetH > hour {
		out.Bark.SetH = 0
	}
	if out.Bark.NotH > hour {
		out.Bark.NotH = 0
	}
	return out
}

// Apply is b with what happened in it: what was done stands when it was done, and what is still to
// be done comes from now on.
func (h History) Apply(b FireInput) FireInput {
	b.Read, b.PitRead, b.Bark = h.Core, h.Pit, h.Bark
	if n := len(h.Core); n > 0 && h.Core[n-1].CoreC < float64(b.Core) {
		b.UndoneH = h.Core[n-1].AtH
	}
	b.Wraps, b.Steps = slices.Clone(b.Wraps), slices.Clone(b.Steps)
	for i, done := range h.Wraps {
		if i >= len(b.Wraps) {
			b.Wraps = append(b.Wraps, done)
			continue
		}
		w := &b.Wraps[i]
		w.When, w.Kind = done.When, cmp.Or(done.Kind, w.Kind)
		if w.PitC > 0 { // it was set then, like by a list
			b.Steps = append(b.Steps, heat.SetPoint{AtH: done.When.First.After.Hours(), SetC: w.PitC})
			w.PitC = 0
		}
	}
	for i := len(h.Wraps); i < len(b.Wraps); i++ {
		b.Wraps[i].NotBeforeH = math.Floor(h.NowH/thinned.Hours()) * thinned.Hours()
	}
	h.change(&b)
	slices.SortStableFunc(b.Steps, func(s, t heat.SetPoint) int { return cmp.Compare(s.AtH, t.AtH) })
	return b
}

// change puts what was done to the pit into b instead of what was planned up to now.
func (h History) change(b *FireInput) {
	if len(h.Sets) == 0 {
		return
	}
	first := h.Sets[0].H
	b.Steps = slices.DeleteFunc(b.Steps, func(s heat.SetPoint) bool { return s.AtH >= first && s.AtH <= h.NowH })
	plan := *b
	for i, change := range h.Sets {
		c := float64(change.C)
		switch change.Kind {
		case PitOut:
			c = OutC
		case PitRelit:
			c = h.relitAt(plan, i)
		}
		if change.H <= 0 {
			b.PitC = quantity.Celsius(c)
			continue
		}
		b.Steps = append(b.Steps, heat.SetPoint{AtH: change.H, SetC: c})
	}
}

// relitAt is what a pit is at that was lit again: what it was set to last by hand, or else what was planned.
func (h History) relitAt(plan FireInput, n int) float64 {
	for _, change := range slices.Backward(h.Sets[:n]) {
		if change.Kind == PitSet {
			return float64(change.C)
		}
	}
	c := float64(plan.PitC)
	for _, s := range plan.Steps {
		if s.AtH <= h.Sets[n].H {
			c = s.SetC
		}
	}
	return c
}
