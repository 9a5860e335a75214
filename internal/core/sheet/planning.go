package sheet

import (
	"math"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
)

// PitTyped is one pit of the cook, as typed.
type PitTyped struct {
	Name string `json:"name" doc:"What the cook calls it" example:"Pellet cabinet"`
	Kind string `json:"kind" doc:"Kind of pit by id" example:"pellet"`
	Room string `json:"room" required:"false" doc:"Its grate, dm²; empty means the usual of its kind"`
}

// Mark is a time that the cook has fixed, or something that has happened.
type Mark struct {
	Piece string `json:"piece" doc:"Key of the piece"`
	Stage string `json:"stage" doc:"thaw, bath, salt, fire or off"`
	At    string `json:"at" doc:"Local time, YYYY-MM-DDTHH:MM"`
	Done  bool   `json:"done" required:"false" doc:"It happened then; else it is a wish"`
}

// Ack is a stop that was read and acknowledged.
type Ack struct {
	Piece string `json:"piece" doc:"Key of the piece"`
	Rule  string `json:"rule" doc:"Id of the caution"`
	What  string `json:"what" doc:"What it said"`
	At    string `json:"at" doc:"When, RFC 3339"`
}

// UsualQuiet are the quiet hours when none are typed.
const UsualQuiet = "23:00-06:00"

// Bounds on what a cook's plan holds.
const (
	maxPits  = 6
	maxMarks = 400
	maxHands = 12
)

// markable are the stages that can be fixed or done.
var markable = []string{"thaw", "bath", "salt", "fire", "off"}

// readPlanning reads what the plan needs besides the pieces.
func (k *kitchen) readPlanning(c Cook, errs *field.Errors) {
	var err error
	k.quiet, err = plan.ParseQuiet(or(c.Quiet, UsualQuiet))
	errs.Take("/quiet", err)
	if k.hands = max(1, c.Hands); c.Hands < 0 || c.Hands > maxHands {
		errs.Add("/hands", "between one and %d pairs of hands", maxHands)
	}
	if len(c.Pits) > maxPits {
		errs.Add("/pits", "at most %d pits", maxPits)
		return
	}
	for i, t := range c.Pits {
		kind, ok := plan.FindPit(t.Kind)
		if !ok {
			errs.Add(at("/pits", i)+"/kind", "choose a kind of pit")
		}
		if len(t.Name) > maxText {
			errs.Add(at("/pits", i)+"/name", "a name has at most %d letters", maxText)
		}
		p := plan.Pit{PitKind: kind, Name: or(t.Name, kind.Name), Room: kind.RoomDM2}
		if strings.TrimSpace(t.Room) != "" {
			v, err := quantity.ParseParts(strings.TrimSuffix(strings.TrimSpace(t.Room), "dm²"))
			if !errs.Take(at("/pits", i)+"/room", err) && (v < 2 || v > 1000) {
				errs.Add(at("/pits", i)+"/room", "a grate has between 2 and 1000 dm² (1 dm² is 100 cm²)")
			}
			p.Room = v
		}
		k.pits = append(k.pits, p)
	}
	if len(k.pits) == 0 {
		usual, _ := plan.FindPit("cabinet")
		usual.RoomDM2 = 0 // not known
		k.pits = []plan.Pit{{PitKind: usual, Name: "pit"}}
	}
	if len(c.Marks) > maxMarks {
		errs.Add("/marks", "more has happened than a cook's record holds")
		return
	}
	for i, m := range c.Marks {
		here := at("/marks", i)
		if !slices.Contains(markable, m.Stage) {
			errs.Add(here+"/stage", "thaw, bath, salt, fire or off")
		}
		when, err := time.ParseInLocation(timeLayout, m.At, k.zone)
		if err != nil {
			errs.Add(here+"/at", "give a day and a time, for example 2026-11-28T07:15")
		}
		k.marks = append(k.marks, plan.Mark{Key: m.Piece, Stage: m.Stage, At: when, Done: m.Done})
	}
	for i, a := range c.Acks {
		if len(a.What) > 1000 || len(a.Rule) > 60 || len(a.Piece) > 60 || len(c.Acks) > 200 {
			errs.Add(at("/acks", i), "this is not an acknowledgement of ours")
		}
	}
	if c.Plan != "" && !slices.Contains([]string{string(plan.SameDay), string(plan.Overnight), string(plan.Ahead)}, c.Plan) {
		errs.Add("/plan", "same-day, overnight or ahead")
	}
}

// job is what the planner has to know of the piece.
func (p *piece) job(key string) plan.Job {
	n := float64(p.count)
	area := float64(p.geometry.Length) * float64(p.geometry.Width) * 100 * n
	minutes := func(m float64) time.Duration { return time.Duration(math.Round(m/5)*5) * time.Minute }
	prep := 10 + 2*n
	if !p.weighed {
		prep += 5 + 2*n // trimming
	}
	if p.inject != nil {
		prep += 10 + 3*n
	}
	slice := map[cut.Family]float64{cut.Collagen: 15, cut.Whole: 20, cut.Pink: 10, cut.Rack: 5, cut.Poultry: 5, cut.Ground: 5}[p.cut.Family]
	j := plan.Job{
		Key: key, Name: p.name(), Pit: p.on, PitC: p.pit, Prep: minutes(min(60, prep)),
		Wait: p.wait, WaitMin: min(p.wait, 40*time.Minute), WaitMax: max(p.wait, plan.LongestWait(p.cut)), Temper: p.temper,
		Fire: p.fire, Rest: p.rest, LeastRest: min(p.rest, leastRest(p.cut)), HoldMax: max(p.rest, holdMax(p.cut, p.chose("rest"))),
		Slice: minutes(min(30, slice*(1+0.2*(n-1)))), Keeps: slices.Contains([]cut.Family{cut.Collagen, cut.Whole, cut.Rack}, p.cut.Family),
		RoomDM2: area * 1.15, FridgeDM2: area,
	}
	if style := or(p.typed.Wait.Style, "overnight"); style == "minutes" && p.wait <= 2*time.Hour {
		j.WaitMax = max(p.wait, 2*time.Hour)
		j.WaitMin = min(p.wait, 10*time.Minute)
	} else {
		j.WaitMin = max(j.WaitMin, p.wait*2/5)
	}
	if p.chose("state") == "frozen" {
		j.Thaw = thawing(p.green)
	}
	if w := p.chose("wrap"); w != "none" && j.Keeps {
		j.Wrap = wrapShare[p.chose("wrap-at")]
	}
	if p.bath != nil {
		j.Bath, j.Drain = p.bath.lasts, draining
		j.BathMin, j.BathMax = p.bath.lasts*9/10, p.bath.lasts*11/10
		if p.bath.equilibrium {
			j.BathMin, j.BathMax = p.bath.lasts*7/10, max(p.bath.lasts, min(2*p.bath.lasts, 72*time.Hour))
		}
	}
	return j
}

// laidOut is the planner's answer for a cook.
type laidOut struct {
	ask    plan.Ask
	result plan.Result
	chosen int   // of result.Plans; -1 without a plan
	piece  []int // job of each piece; -1 when it has a mistake
}

// layOut makes the plans of the pieces that have no mistake, and gives each piece
// its times in the chosen one: waits and baths follow the clock.
func layOut(c Cook, k kitchen, pieces []*piece) laidOut {
	out := laidOut{chosen: -1, piece: make([]int, len(pieces))}
	out.ask = plan.Ask{Serve: k.serve, Quiet: k.quiet, Hands: k.hands, Pits: k.pits, Marks: k.marks}
	if !k.opt.Now.IsZero() && k.serve.After(k.opt.Now) {
		out.ask.Now = k.opt.Now.In(k.serve.Location())
	}
	for i, p := range pieces {
		out.piece[i] = -1
		if p != nil {
			out.piece[i] = len(out.ask.Jobs)
			out.ask.Jobs = append(out.ask.Jobs, p.job(c.Pieces[i].Key))
		}
	}
	if k.serve.IsZero() || len(out.ask.Jobs) == 0 {
		return out
	}
	out.result = plan.Make(out.ask)
	out.chosen = 0
	for i, p := range out.result.Plans {
		if string(p.Kind) == c.Plan {
			out.chosen = i
		}
	}
	for i, p := range pieces {
		if p == nil {
			continue
		}
		t := out.result.Plans[out.chosen].Pieces[out.piece[i]]
		p.times, p.asked = t, p.wait
		p.wait = t.Wait.Round(time.Minute)
		if p.bath != nil && t.Lift.After(t.Bath) {
			p.bath.lasts = t.Lift.Sub(t.Bath).Round(time.Minute)
			p.bath.uptake = nil
		}
	}
	return out
}

// Plan lays out the days of c alone. The error is a field.Errors.
func Plan(c Cook, opt Options) (*PlanSheet, error) {
	s, _ := work(c, opt)
	if s.Plan == nil {
		if err := s.Errors.Err(); err != nil {
			return nil, err
		}
		return nil, field.Errors{{Pointer: "/serve_at", Detail: "say when you serve: everything is counted back from there"}}
	}
	return s.Plan, nil
}
