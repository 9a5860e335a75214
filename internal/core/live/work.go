package live

import (
	"context"
	"slices"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/move"
	"verjuice/internal/core/plan"
)

// Result is what stands at the pit now, of all pieces.
type Result struct {
	Cook   cooking.Result
	Pieces []Piece
	Next   []Due // the soonest first
	Alarms []Alarm
	ByEye  []facts.Reading // what was read by eye, the last first
	Aside  []facts.Aside   // readings that do not count; who loads them says so
}

// mostByEye is how many readings by eye are told.
const mostByEye = 12

// Work says how the pieces of a result stand, what is to be done next and what somebody has to be called
// for. The error is that of ctx.
func Work(ctx context.Context, r cooking.Result, course facts.Course) (Result, error) {
	pieces, err := Of(ctx, r, course)
	if err != nil {
		return Result{}, err
	}
	return Result{
		Cook: r, Pieces: pieces, Next: next(r, pieces), Alarms: Alarms(r, pieces, course),
		ByEye: course.ByEye(r.Now.Add(facts.ClockSkew), mostByEye),
	}, nil
}

// Due is a job that is still to be done.
type Due struct {
	Task  plan.Task
	At    time.Time
	Piece int    // which, from 0; -1 for a pit
	What  string // the press that says it is done; empty when there is none
}

// soonest is how many of the jobs that come next are told.
const soonest = 5

// next are the jobs of the chosen plan that come next. One with a rhythm is due so long after it was done
// last, until its rhythm ends; slicing is over when it is long past.
func next(r cooking.Result, pieces []Piece) []Due {
	if r.Plan == nil || over(r, pieces) {
		return nil
	}
	number := map[string]int{"": -1}
	for i, p := range r.Pieces {
		number[p.Line.Key] = i
	}
	var out []Due
	for _, k := range r.Plan.Result.Plans[r.Plan.Chosen].Tasks {
		one := Due{Task: k, At: k.At, Piece: number[k.Key], What: pressOf(k.Stage)}
		if k.Done || k.Stage == "slice" && k.At.Add(overAfter).Before(r.Now) ||
			one.Piece >= 0 && pieces[one.Piece].passed(k, r.Now) {
			continue
		}
		if k.Every > 0 {
			last := time.Time{}
			if one.Piece >= 0 {
				last = pieces[one.Piece].Piece.Happened.Last[k.Stage]
			}
			if !last.IsZero() {
				one.At = last.Add(k.Every)
			} else if one.At.Before(r.Now) {
				one.At = r.Now
			}
			if one.At.After(k.To) {
				continue
			}
		}
		out = append(out, one)
	}
	slices.SortStableFunc(out, func(a, b Due) int { return a.At.Compare(b.At) })
	return out[:min(soonest, len(out))]
}

// pressOf is the press that says that a task of a stage is done; empty when there is none.
func pressOf(stage string) string {
	switch {
	case stage == "out": // of the fridge; what is pressed as out is a fire
		return "temper"
	case stage == "feed":
		return "fuel"
	case slices.Contains(facts.Stages, stage):
		return stage
	}
	return ""
}

// Stages in which a task of a piece may be done, by how far the piece is: those before the fire are over once it is on,
// and so on.
var (
	beforeFire = []string{"thaw", "bath", "lift", "salt", "out", "fire"}
	afterFire  = []string{"rest", "vent", "travel", "reheat", "slice", "again", "again-off", "finish", "other",
		"clean", "keep", "oven"}
	atTable = []string{"slice", "again", "again-off", "finish"}
)

// finishing is how long after its time something on the slices is still due.
const finishing = time.Hour

// passed reports whether the stage of a task of the piece is over, so that nobody will do it any more.
func (p Piece) passed(k plan.Task, now time.Time) bool {
	h := p.Piece.Happened
	sliced := h.Last["slice"]
	switch {
	case !p.Piece.Lit:
		return false
	case slices.Contains(beforeFire, k.Stage) || k.At.Before(h.On):
		return true
	case p.State == Done && k.Stage == string(move.Clean):
		return false
	case p.State == Done:
		return k.Stage != "finish" || k.At.Add(finishing).Before(now)
	case !sliced.IsZero() && k.Stage != string(move.Clean) && !slices.Contains(atTable, k.Stage):
		return true
	}
	return !h.Off.IsZero() && !slices.Contains(afterFire, k.Stage)
}

// overAfter is how long after it was to be served a cook of which nothing is on the fire is over.
const overAfter = 6 * time.Hour

// over reports whether a cook is over: it was to be served long ago, and nothing of it is on the fire or rests.
func over(r cooking.Result, pieces []Piece) bool {
	serve := r.Order.LastServing()
	return !serve.IsZero() && serve.Add(overAfter).Before(r.Now) &&
		!slices.ContainsFunc(pieces, func(p Piece) bool { return p.State == On || p.State == Again || p.State == Resting })
}

// Press is something that was done, to be said by one press.
type Press struct {
	What    string    // one of facts.Stages
	Last    time.Time // when it was done last; zero when it was not
	Planned bool      // it is to be done about now
	Kind    string    // of a wrap
	Move    string    // of the cook's own, that it is
	Left    int       // pieces of the line that are still on, of one that comes off
}

// soon is how long before its time a job is offered as the one that is done.
const soon = 20 * time.Minute

// OnPit reports whether it is done to the pit, not to the piece.
func (p Press) OnPit() bool {
	kind, _ := move.Find(move.Kind(p.What))
	return kind.OnPit
}

// Press is what is said by one press of the piece.
func (p Piece) Press(what string) Press {
	out := Press{What: what, Last: p.Piece.Happened.Last[what]}
	switch what {
	case "wrap":
		if out.Kind = p.Advice.Kind; out.Kind == "" || out.Kind == "none" {
			out.Kind = "foil"
		}
	case "off":
		out.Left = p.Piece.Line.Meat.Value.Count - p.Piece.Happened.Some
	}
	return out
}

// Presses are what can be said to be done at now, by how far the piece has come. First comes what is to be
// done about now: that it is done, that it is to be wrapped, or else the job that is due.
func (p Piece) Presses(now time.Time, due []Due) []Press {
	whats := p.usual()
	planned, isDue := "", false
	own := map[string]string{}
	for _, d := range due {
		mine := d.Task.Key == p.Piece.Line.Key || d.Task.Key == "" && d.Task.Pit == p.Pit
		far := d.Task.Key == "" && d.What != "light" && d.At.Sub(now) >= soon // what is done to the pit for hours on
		if !mine || far || d.What == "" {
			continue
		}
		if planned == "" {
			planned, isDue = d.What, d.At.Sub(now) < soon && d.What != "wrap" // of which the advice decides
		}
		if !slices.Contains(whats, d.What) && d.At.Sub(now) < soon {
			whats = append(whats, d.What) // what is due can be pressed
		}
		if _, ok := own[d.What]; !ok {
			own[d.What] = d.Task.Move
		}
	}
	switch {
	case p.Done():
		planned, isDue = "off", true
	case p.Advice.Now:
		planned, isDue = "wrap", true
	}
	// That it is off is not to lie under the thumb for hours.
	if i := slices.Index(whats, planned); i > 0 && (isDue || planned != "off") {
		whats = slices.Insert(slices.Delete(whats, i, i+1), 0, planned)
	}
	out := []Press{}
	for _, what := range whats {
		one := p.Press(what)
		one.Move = own[what]
		one.Planned = isDue && what == planned
		out = append(out, one)
	}
	return out
}

// usual is what can be pressed at any time, by how far the piece has come.
func (p Piece) usual() (whats []string) {
	switch p.State {
	case Before:
		whats = []string{"light", "fire"}
	case On:
		wrap := "wrap"
		if p.Advice.Done {
			wrap = "unwrap"
		}
		whats = []string{"look", "spritz", wrap, "off", "set", "turn", "wood", "fuel", "baste", "glaze", p.FireOut()}
		if p.Piece.Line.Meat.Value.Count-p.Piece.Happened.Some > 1 {
			whats = slices.Insert(whats, 3, "some-off")
		}
	case Again:
		whats = []string{"look", "glaze", "again-off", "set", "turn", "wood", "fuel", p.FireOut()}
	case Resting:
		whats = []string{"vent", "rest", "slice", "again"}
	}
	return whats
}

// Signs are what can be seen of the piece while it is on: bones and bend of racks alone.
func (p Piece) Signs() []facts.Sign {
	if p.State != On {
		return nil
	}
	rack := p.Piece.Line.Meat.Value.Cut.Family == cut.Rack
	var out []facts.Sign
	for _, s := range facts.Signs {
		if rack || s.ID != "bones" && s.ID != "bend" {
			out = append(out, s)
		}
	}
	return out
}

// instead are cautions of what was planned that what was read says better.
var instead = map[string]string{
	"slow-to-warm": "warmed-slowly",
	"hot-hold":     "held-cool",
	"poultry-done": "poultry-shown",
}

// Cautions are those that matter from the fire on and were not read: of what was read, and of what is
// planned until it is over.
func (p Piece) Cautions() []caution.Finding {
	var out []caution.Finding
	add := func(f caution.Finding) {
		if f.Severity != caution.Note && f.Read == "" {
			out = append(out, f)
		}
	}
	for _, f := range p.Found {
		add(f)
	}
	for _, f := range p.Piece.Findings {
		over := p.State == Done || (p.State == Resting || p.State == Again) && f.Stage == "fire" && f.ID != "poultry-done"
		told := slices.ContainsFunc(p.Found, func(g caution.Finding) bool { return g.ID == instead[f.ID] })
		if (f.Stage == "fire" || f.Stage == "rest") && !over && !told {
			add(f)
		}
	}
	return out
}
