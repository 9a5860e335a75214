// Package plan lays out time: from the moment of serving back to the shopping, for
// all pieces at once, around quiet hours, pits and hands.
//
//	result := plan.Make(plan.Ask{Serve: serve, Quiet: quiet, Hands: 1, Pits: pits, Jobs: jobs})
//	result.Plans[0].Tasks   // what is to be done when, in the likeliest plan
package plan

import (
	"cmp"
	"slices"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/uncertain"
	"verjuice/internal/core/when"
)

// Kind is a way to lay out the days.
type Kind string

// The kinds of plan.
const (
	SameDay   Kind = "same-day"  // all of it on the day, lit in the morning
	Overnight Kind = "overnight" // what takes long cooks while you sleep
	Ahead     Kind = "ahead"     // what takes long is cooked the day before and held
)

// Kinds are the kinds of plan, the latest start first.
var Kinds = []Kind{SameDay, Overnight, Ahead}

// Fixable are the stages whose time a cook can fix.
var Fixable = []string{"thaw", "bath", "salt", "fire"}

// Job is what the planner has to know of one kind of piece.
type Job struct {
	Key   string
	Serve time.Time // when it is eaten; zero is with the rest, at Ask.Serve
	Pit   int       // in Ask.Pits
	PitC  quantity.Celsius

	Thaw                   time.Duration // in the cold; zero when it is not frozen
	Bath, BathMin, BathMax time.Duration // zero Bath is none
	Drain                  time.Duration
	Prep                   time.Duration // hands before salting is over: trim, inject, mix, salt
	Wait, WaitMin, WaitMax time.Duration // from salting to the fire
	Temper                 time.Duration // on the counter, the end of the wait
	Fire                   uncertain.Duration
	Wraps                  uncertain.Span // from when it goes on until it is wrapped; zero is never
	WrapNever              float64        // share of the members that are off before
	Rest, LeastRest        time.Duration
	HoldMax                time.Duration // the longest rest that it stands
	HoldBest               time.Duration // the longest that it stands anywhere
	Slice                  time.Duration // hands
	Dust                   bool          // a second dusting just before the fire
	Doings                 []Doing       // what else is done to it
	Again                  []Again       // on the fire once more, in that order
	Travel                 time.Duration // to where it is served, the end of the rest
	Glaze                  bool          // near the end
	Sauce                  bool          // something wet is made to glaze or finish it with
	Keeps                  bool          // may be cooked the day before
	RoomDM2                float64       // on the grate, all of them
	FridgeDM2              float64
}

// Doing is something that is done to a piece besides its stages: so long after it goes on, or so
// long after (before, when By is negative) another stage.
type Doing struct {
	Stage string // what is done
	Move  string // tells doings of one kind apart
	From  uncertain.Span
	Of    string // fire, off, slice or serve; empty goes by From
	By    time.Duration
	Every time.Duration  // again and again until it is over; zero is once
	Until uncertain.Span // from when it goes on; zero, or later than it is off, is until it is off
	Lasts time.Duration  // of a pair of hands
	Never float64        // share of the members in which it is off before
}

// Again is a piece that goes on the fire once more, after it was off: at the end, or so long after it came off.
type Again struct {
	Move  string
	Lasts time.Duration
	SetC  quantity.Celsius
	Cut   bool // by the knife before it goes on, in cubes or slices
	Told  bool // it goes on After it came off; then it does not wait for the knife
	After time.Duration
}

// Pit is one pit of the cook.
type Pit struct {
	gear.Pit
	Name string
	Room float64    // dm²
	Sets []when.Set // what it is set to over the day, when the cook has a list of that
}

// Window is how far from serving a mark can lie that the plan goes by: what is months away
// belongs to another day.
const Window = 60 * 24 * time.Hour

// InReach reports whether t lies within Window of the serving time.
func InReach(serve, t time.Time) bool {
	d := t.Sub(serve)
	return d <= Window && d >= -Window
}

// Mark is something that has happened, or a time that the cook has fixed.
type Mark struct {
	Key   string // of the job
	Stage string // thaw, bath, salt, fire or off
	At    time.Time
	Done  bool   // it happened so; else it is a wish
	Move  string // of a Doing, where that was said
}

// Ask is all that a plan is made from.
type Ask struct {
	Serve, Now time.Time // Now may be zero: then nothing is too late
	Quiet      QuietHours
	Hands      int // pairs of hands, at least one
	Pits       []Pit
	Jobs       []Job
	Marks      []Mark
	Chosen     Kind // by the cook; it is laid out even where it is not sound. Empty is the likeliest
}

// Times are one piece's times. A stage that it does not have is zero.
type Times struct {
	Key  string
	Kind Kind
	Thaw time.Time
	Bath time.Time // into it
	Lift time.Time // out of it
	Prep time.Time // hands begin: trim, inject, mix, salt
	Salt time.Time // salted
	Out  time.Time // of the fridge
	Fire time.Time
	Wrap time.Time
	// The likely range of the wrap.
	WrapFrom, WrapTo time.Time

	Early  time.Time // off: one in ten is earlier
	Off    time.Time
	Late   time.Time // one in ten is later
	Reheat time.Time // when it was chilled
	Slice  time.Time
	Again  []Spell // on the fire once more, one for each of the job

	Wait   time.Duration // salted before the fire
	Hold   time.Duration // expected, from off to the knife
	Chance float64       // that it is ready for the knife
	Over   bool          // it is off the fire
}

// Spell is a time on the fire.
type Spell struct{ On, Off time.Time }

// Task is something to do at a time.
type Task struct {
	Key   string           // of the job; empty for a pit
	Pit   int              // when Key is empty
	Turn  int              // which of the pit's feedings, or of its set-points, from 1
	SetC  quantity.Celsius // what the pit is set to
	Move  string           // of a Doing
	Every time.Duration    // from At to To again and again; zero is once
	Stage string           // thaw, bath, lift, prep, out, light, set, feed, fire, wrap, off, rest, reheat, slice
	At    time.Time
	Lasts time.Duration // of a pair of hands
	About bool          // it is ready when it is ready
	From  time.Time     // of the likely range, when About
	To    time.Time
	Never float64 // how often it does not come, 0 to 1
	Done  bool
	Waits bool // it was ready in the night, and its pit keeps it warm until then
	Wakes bool // in the quiet hours
	Clash bool // more at once than there are hands

	quiet bool // it falls in the quiet hours
}

// Conflict is a clash in a plan: of hands, room, heat or time.
type Conflict struct {
	Kind string // quiet, hands, room, heat, hold, wait or late
	Key  string // the piece; may be empty
	At   time.Time
	Why  field.Wrong // the id of what is wrong, and what a sentence about it names
}

// Plan is one way to lay out the days.
type Plan struct {
	Kind      Kind
	Pieces    []Times // one for each job
	Tasks     []Task  // in order
	Conflicts []Conflict
	Chance    float64       // of serving on time
	Woken     int           // times in the quiet hours
	Night     int           // times in the night, where there are no quiet hours
	Hold      time.Duration // the longest that is warm
	Chilled   bool          // some of it is cooled and reheated
	First     time.Time     // of all tasks
	Safe      time.Time     // the serving time that is nine in ten sure
	Rooms     []Room
	Feasible  bool // it can be done: nothing is too late, and there is time to thaw and rest
	Overdue   bool // some of it should have been done by now
	Waking    bool // a fire is lit in the night because nothing else is in time
}

// Result is the plans that are really different, and why an obvious one is not
// among them.
type Result struct {
	Plans   []Plan
	Refused []Refusal
}

// Refusal says why a kind of plan cannot be, or would not be made if it had not been chosen.
type Refusal struct {
	Kind Kind
	Key  string // the piece that stands in the way; may be empty
	Why  field.Wrong
	// What would make it possible, when one change does: serving at that time, or resting
	// the piece in a holder.
	ServeAt time.Time
	Holder  bool
}

// When a plan is worth offering.
const (
	worthIt = 0.75          // least chance of a morning start
	apart   = 2 * time.Hour // plans that start nearer to each other than this are the same
)

const five = 5 * time.Minute

func floor(t time.Time) time.Time { return t.Truncate(five) }
func ceil(t time.Time) time.Time  { return t.Add(five - 1).Truncate(five) }

// Make lays out the days. There is always at least one plan: when nothing else
// fits, one that wakes the cook and says how often.
//
// The jobs may come in any order: they are laid out by their keys, and the pieces of
// each plan stand in the order of the jobs asked for.
func Make(a Ask) Result {
	a.Hands = max(1, a.Hands)
	asked := a.Jobs
	a.Jobs = slices.Clone(a.Jobs)
	slices.SortFunc(a.Jobs, func(i, j Job) int { return cmp.Compare(i.Key, j.Key) })
	out := a.make()
	for i := range out.Plans {
		out.Plans[i].Pieces = inOrder(out.Plans[i].Pieces, asked)
	}
	return out
}

// inOrder puts times in the order of the jobs.
func inOrder(pieces []Times, jobs []Job) []Times {
	out := make([]Times, len(jobs))
	for i, j := range jobs {
		out[i] = pieces[slices.IndexFunc(pieces, func(t Times) bool { return t.Key == j.Key })]
	}
	return out
}

// make is Make for jobs that are sorted by their keys.
func (a Ask) make() Result {
	var out Result
	add := func(p Plan) {
		for _, other := range out.Plans {
			if !other.differs(p) {
				out.Refused = append(out.Refused, Refusal{Kind: p.Kind, Why: field.Because("plan.same", "as", string(other.Kind))})
				return
			}
		}
		out.Plans = append(out.Plans, p)
	}
	order := slices.Clone(Kinds)
	slices.SortStableFunc(order, func(i, j Kind) int { return cmp.Compare(step(j == a.Chosen), step(i == a.Chosen)) })
	for _, kind := range order {
		kinds, no := a.kinds(kind)
		if no != nil {
			out.Refused = append(out.Refused, *no)
			if kind == a.Chosen {
				kinds = a.insisted(kind)
			}
		}
		if kinds != nil {
			add(a.build(kind, kinds, false))
		}
	}
	possible := slices.ContainsFunc(out.Plans, func(p Plan) bool { return p.Feasible })
	if !possible {
		waking := a.build(SameDay, a.all(SameDay), true)
		if len(out.Plans) == 0 || waking.Feasible {
			rest := out.Plans
			out.Plans, out.Refused = nil, slices.DeleteFunc(out.Refused, func(r Refusal) bool { return r.Kind == SameDay })
			add(waking)
			for _, p := range rest {
				if p.Kind != SameDay {
					add(p)
				}
			}
		}
	}
	slices.SortStableFunc(out.Plans, func(p, q Plan) int { return cmp.Compare(q.rank(), p.rank()) })
	return out
}

// rank sorts the plans, best first.
func (p Plan) rank() float64 {
	r := p.Chance - 0.2*float64(p.Woken) - 0.02*p.Hold.Hours() - 0.1*float64(len(p.Conflicts))
	if p.Chilled {
		r -= 0.6
	}
	if !p.Feasible {
		r -= 10
	}
	return r
}

func (p Plan) differs(q Plan) bool {
	for i := range p.Pieces {
		if d := p.Pieces[i].Fire.Sub(q.Pieces[i].Fire); d >= apart || d <= -apart {
			return true
		}
	}
	return len(p.Pieces) == 0
}

func (a Ask) all(k Kind) []Kind {
	out := make([]Kind, len(a.Jobs))
	for i := range out {
		out[i] = k
	}
	return out
}

// slices gives each job the latest slot before it is served that a pair of hands has,
// those that can wait longest being sliced first.
func (a Ask) slices() []time.Time {
	order := make([]int, len(a.Jobs))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(i, j int) int {
		return cmp.Or(a.serves(a.Jobs[j]).Compare(a.serves(a.Jobs[i])), cmp.Compare(a.Jobs[i].HoldMax, a.Jobs[j].HoldMax))
	})
	free := make([]time.Time, a.Hands)
	for i := range free {
		free[i] = a.lastServing()
	}
	out := make([]time.Time, len(a.Jobs))
	for _, i := range order {
		hand := 0
		for h := range free {
			if free[h].After(free[hand]) {
				hand = h
			}
		}
		free[hand] = earlier(free[hand], a.serves(a.Jobs[i])).Add(-a.Jobs[i].Slice - a.Jobs[i].AgainAfter())
		out[i] = free[hand]
	}
	return out
}

// serves is when a job is eaten.
func (a Ask) serves(j Job) time.Time {
	if j.Serve.IsZero() {
		return a.Serve
	}
	return j.Serve
}

// lastServing is when the last of the jobs is eaten.
func (a Ask) lastServing() time.Time {
	last := time.Time{}
	for _, j := range a.Jobs {
		last = later(last, a.serves(j))
	}
	return last
}

// lead is how long before the fire somebody has to be up.
func (a Ask) lead(j Job) time.Duration { return max(a.pit(j).Preheat, j.Temper) }

func (a Ask) pit(j Job) Pit {
	if j.Pit < 0 || j.Pit >= len(a.Pits) {
		return UnknownPit()
	}
	return a.Pits[j.Pit]
}

// latest is when a piece has to be on the fire so that nine in ten are off in time
// to rest as long as asked; one that does not keep so long goes on as much later as it
// has to be not to wait past its best.
func latest(j Job, slice time.Time) time.Time {
	early := min(j.Rest+j.Fire.High-j.Fire.Mid, max(j.Rest, j.HoldMax))
	return floor(slice.Add(-j.Fire.Mid - early))
}
