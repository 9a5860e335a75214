package sheet

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
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

// PlanSheet is the days laid out.
type PlanSheet struct {
	Options   []PlanOption   `json:"options" nullable:"false" doc:"Up to three plans, the likeliest first"`
	Refused   []PlanRefusal  `json:"refused" nullable:"false" doc:"Why another plan cannot be"`
	Tasks     []TaskLine     `json:"tasks" nullable:"false" doc:"The chosen plan as a list"`
	Conflicts []PlanConflict `json:"conflicts" nullable:"false"`
	Rooms     []RoomSheet    `json:"rooms" nullable:"false"`
	Quiet     []Stretch      `json:"quiet" nullable:"false" doc:"Quiet hours within the plan"`
	Chance    trace.Figure   `json:"chance" doc:"Of serving on time, %"`
	SafeAt    string         `json:"safe_at" doc:"The serving time that is surer, local YYYY-MM-DDTHH:MM; empty when this one is sure"`
	Safe      string         `json:"safe" doc:"The same in words"`
	Told      string         `json:"told" doc:"What the last thing that happened has changed, in a sentence"`
}

// PlanOption is one way to lay out the days.
type PlanOption struct {
	Kind   string       `json:"kind" enum:"same-day,overnight,ahead"`
	Name   string       `json:"name"`
	Says   string       `json:"says" doc:"What it means, in a sentence or two"`
	Chance trace.Figure `json:"chance"`
	Sleep  string       `json:"sleep" doc:"How often it wakes the cook"`
	Woken  int          `json:"woken"`
	Hold   string       `json:"hold" doc:"The longest hold, in words"`
	First  string       `json:"first" doc:"When it begins"`
	Chosen bool         `json:"chosen"`
	Late   bool         `json:"late" doc:"Some of it is in the past already"`
}

// PlanRefusal is a plan that cannot be.
type PlanRefusal struct {
	Name string `json:"name"`
	Why  string `json:"why"`
}

// TaskLine is something to do.
type TaskLine struct {
	ID    string `json:"id" doc:"The same for the same task of the same piece"`
	Piece int    `json:"piece" doc:"From 0; -1 for a pit"`
	Key   string `json:"key" doc:"Key of the piece"`
	Stage string `json:"stage"`
	At    string `json:"at" doc:"RFC 3339"`
	Local string `json:"local" doc:"The same as a mark is typed"`
	Day   string `json:"day"`
	Time  string `json:"time"`
	Label string `json:"label"`
	Note  string `json:"note"`
	Until string `json:"until" doc:"RFC 3339, when the hands are free again"`
	Lasts string `json:"lasts" doc:"What it takes of a pair of hands, with its likely range"`
	Done  bool   `json:"done"`
	Can   bool   `json:"can" doc:"It can be marked as done"`
	Wakes bool   `json:"wakes"`
	Clash bool   `json:"clash"`
}

// PlanConflict is something that does not go together.
type PlanConflict struct {
	Kind  string `json:"kind"`
	Piece int    `json:"piece" doc:"From 0; -1 when it is nobody's"`
	At    string `json:"at"`
	What  string `json:"what"`
}

// RoomSheet is a place and what stands in it.
type RoomSheet struct {
	Name string    `json:"name"`
	Says string    `json:"says"`
	Full bool      `json:"full"`
	Uses []RoomUse `json:"uses" nullable:"false"`
}

// RoomUse is a piece in a place.
type RoomUse struct {
	Title string  `json:"title"`
	From  string  `json:"from"`
	To    string  `json:"to"`
	DM2   float64 `json:"dm2"`
}

// Stretch is a stretch of time.
type Stretch struct {
	From string `json:"from"`
	To   string `json:"to"`
}

var planNames = map[plan.Kind]string{plan.SameDay: "Same day", plan.Overnight: "Overnight", plan.Ahead: "The day before"}

func iso(t time.Time) string { return t.Format(time.RFC3339) }

// sheet writes the plans out.
func (l laidOut) sheet(c Cook, pieces []*piece) *PlanSheet {
	if l.chosen < 0 {
		return nil
	}
	out := &PlanSheet{
		Options: []PlanOption{}, Refused: []PlanRefusal{}, Tasks: []TaskLine{}, Conflicts: []PlanConflict{}, Rooms: []RoomSheet{}, Quiet: []Stretch{},
	}
	for i, p := range l.result.Plans {
		out.Options = append(out.Options, l.option(p, i == l.chosen))
	}
	for _, r := range l.result.Refused {
		out.Refused = append(out.Refused, PlanRefusal{planNames[r.Kind], r.Why})
	}
	p := l.result.Plans[l.chosen]
	out.Chance = chanceFigure(p, l.ask)
	of := map[string]int{"": -1}
	for i, job := range l.piece {
		if job >= 0 {
			of[c.Pieces[i].Key] = i
		}
	}
	for _, k := range p.Tasks {
		line := TaskLine{
			ID: k.Stage + "-" + or(k.Key, fmt.Sprintf("pit%d", k.Pit)), Piece: of[k.Key], Key: k.Key, Stage: k.Stage, At: iso(k.At), Local: k.At.Format(timeLayout),
			Day: k.At.Format("Mon 2 Jan"), Time: k.At.Format("15:04"), Label: upper(plan.Verb(k.Stage, l.ask.Name(k))), Until: iso(k.At.Add(k.Lasts)), Lasts: lasting(k.Lasts),
			Done: k.Done, Can: slices.Contains(markable, k.Stage), Wakes: k.Wakes && !k.Done, Clash: k.Clash && !k.Done,
		}
		if k.Stage == "feed" {
			line.ID += k.At.Format("-1504")
		}
		if k.About && !k.Done {
			line.Note = fmt.Sprintf("between %s and %s", k.From.Format("15:04"), k.To.Format("15:04"))
		}
		if i := of[k.Key]; i >= 0 {
			line.Note = joinWords(line.Note, pieces[i].taskNote(k.Stage))
		}
		out.Tasks = append(out.Tasks, line)
	}
	for _, x := range p.Conflicts {
		out.Conflicts = append(out.Conflicts, PlanConflict{x.Kind, of[x.Key], iso(x.At), upper(x.What)})
	}
	for _, r := range p.Rooms {
		out.Rooms = append(out.Rooms, l.room(r))
	}
	if n := len(p.Tasks); n > 0 && l.ask.Quiet.String() != "none" {
		first := p.Tasks[0].At
		for t := first.AddDate(0, 0, -1); t.Before(l.ask.Serve.AddDate(0, 0, 1)); t = t.AddDate(0, 0, 1) {
			noon := time.Date(t.Year(), t.Month(), t.Day(), 12, 0, 0, 0, t.Location())
			from, to := l.ask.Quiet.Before(noon.AddDate(0, 0, 1))
			if to.After(first) && from.Before(l.ask.Serve) {
				out.Quiet = append(out.Quiet, Stretch{iso(from), iso(to)})
			}
		}
	}
	if p.Chance < 0.85 && p.Safe.After(l.ask.Serve) {
		out.SafeAt, out.Safe = p.Safe.Format(timeLayout), plan.Day(p.Safe)
	}
	out.Told = l.told()
	return out
}

// lasting is a piece of work with its likely range: some hands are quicker than
// others by a third, and work takes half as long again as often.
func lasting(d time.Duration) string {
	low, high := (d * 2 / 3).Round(time.Minute), (d * 3 / 2).Round(time.Minute)
	return fmt.Sprintf("%s (%.0f–%s)", quantity.FormatDuration(d), low.Minutes(), quantity.FormatDuration(high))
}

func joinWords(a, b string) string {
	if a == "" || b == "" {
		return a + b
	}
	return a + "; " + b
}

func chanceFigure(p plan.Plan, a plan.Ask) trace.Figure {
	inputs := []trace.Input{}
	for i, t := range p.Pieces {
		inputs = append(inputs, trace.Input{Name: a.Jobs[i].Name, Text: fmt.Sprintf("%.0f %%, on at %s", 100*t.Chance, plan.Day(t.Fire))})
	}
	return trace.Exact(100*math.Min(p.Chance, 0.99), 0, "%", trace.Origin{
		Words:  "The chance that each piece is off and has had its least rest before the knife, multiplied: as if each went its own way. The time on the fire spreads as the forecast says.",
		Source: plan.TimingSource, Inputs: inputs,
	})
}

func (l laidOut) option(p plan.Plan, chosen bool) PlanOption {
	hold := "longest hold " + quantity.FormatDuration(p.Hold.Round(5*time.Minute))
	if p.Chilled {
		hold = "some of it cooled and reheated"
	}
	o := PlanOption{
		Kind: string(p.Kind), Name: planNames[p.Kind], Chance: chanceFigure(p, l.ask), Woken: p.Woken,
		Hold: hold, Chosen: chosen, Late: !p.Feasible,
	}
	switch p.Woken {
	case 0:
		o.Sleep = "a whole night"
	case 1:
		o.Sleep = "woken once"
	default:
		o.Sleep = fmt.Sprintf("woken %d times", p.Woken)
	}
	if len(p.Tasks) > 0 {
		o.First = plan.Day(p.Tasks[0].At)
	}
	var special []string
	first := time.Time{}
	for i, t := range p.Pieces {
		if first.IsZero() || t.Fire.Before(first) {
			first = t.Fire
		}
		switch {
		case t.Kind == plan.Overnight:
			special = append(special, fmt.Sprintf("%s goes on %s and is held from about %s", l.ask.Jobs[i].Name, t.Fire.Format("Mon 15:04"), t.Off.Format("15:04")))
		case t.Kind == plan.Ahead && !t.Reheat.IsZero():
			special = append(special, fmt.Sprintf("%s is cooked on %s, cooled fast and reheated from %s", l.ask.Jobs[i].Name, t.Fire.Format("Monday"), t.Reheat.Format("Mon 15:04")))
		case t.Kind == plan.Ahead:
			special = append(special, fmt.Sprintf("%s is off about %s and held for %s", l.ask.Jobs[i].Name, t.Off.Format("Mon 15:04"), quantity.FormatDuration(t.Hold)))
		}
	}
	o.Says = upper(fmt.Sprintf("the first fire at %s.", first.Format("Mon 15:04")))
	if len(special) > 0 {
		o.Says += " " + upper(strings.Join(special, "; ")) + "."
	}
	return o
}

func (l laidOut) room(r plan.Room) RoomSheet {
	out := RoomSheet{Name: r.Name, Uses: []RoomUse{}, Says: fmt.Sprintf("most at %s: %.0f dm²", r.PeakAt.Format("Mon 15:04"), r.Peak)}
	if r.Limit > 0 {
		out.Says += fmt.Sprintf(" of %.0f", r.Limit)
		out.Full = r.Peak > r.Limit*1.02
	}
	for _, u := range r.Uses {
		out.Uses = append(out.Uses, RoomUse{l.ask.Name(plan.Task{Key: u.Key}), iso(u.From), iso(u.To), u.DM2})
	}
	return out
}

// told compares the plan with the one before the last thing that happened.
func (l laidOut) told() string {
	last := -1
	for i, m := range l.ask.Marks {
		if m.Done {
			last = i
		}
	}
	if last < 0 {
		return ""
	}
	before := l.ask
	before.Marks = slices.Delete(slices.Clone(l.ask.Marks), last, last+1)
	kind := l.result.Plans[l.chosen].Kind
	was := plan.Make(before).Plans
	i := slices.IndexFunc(was, func(p plan.Plan) bool { return p.Kind == kind })
	if i < 0 {
		i = 0
	}
	m, now := l.ask.Marks[last], l.result.Plans[l.chosen]
	return changed(l.ask, m, was[i], now)
}

// changed tells in a sentence what a mark has moved.
func changed(a plan.Ask, m plan.Mark, was, now plan.Plan) string {
	for i, j := range a.Jobs {
		if j.Key != m.Key {
			continue
		}
		w, n := was.Pieces[i], now.Pieces[i]
		planned := map[string]time.Time{"thaw": w.Thaw, "bath": w.Bath, "salt": w.Salt, "fire": w.Fire, "off": w.Off}[m.Stage]
		head := fmt.Sprintf("%s: %s at %s, %s.", j.Name, stageWords[m.Stage], m.At.Format("15:04"), against(m.At.Sub(planned)))
		switch {
		case m.Stage == "off":
			return head + fmt.Sprintf(" It holds %s to the knife.", quantity.FormatDuration(n.Hold))
		case m.Stage == "fire":
			return head + fmt.Sprintf(" Off about %s instead of %s; the chance to serve on time is %.0f %%, was %.0f %%.", n.Off.Format("15:04"), w.Off.Format("15:04"), 100*now.Chance, 100*was.Chance)
		}
		return head + fmt.Sprintf(" It is salted %s before the fire instead of %s.", quantity.FormatDuration(n.Wait), quantity.FormatDuration(w.Wait))
	}
	return ""
}

var stageWords = map[string]string{"thaw": "thawing from", "bath": "in the bath", "salt": "salted", "fire": "on the fire", "off": "off the fire"}

func against(d time.Duration) string {
	switch d = d.Round(time.Minute); {
	case d > 2*time.Minute:
		return quantity.FormatDuration(d) + " late"
	case d < -2*time.Minute:
		return quantity.FormatDuration(-d) + " early"
	}
	return "as planned"
}

// taskNote is what to know of the piece at a stage.
func (p *piece) taskNote(stage string) string {
	switch stage {
	case "salt":
		return or(p.typed.Season.Formula.Name, "rub")
	case "bath":
		return quantity.FormatDuration(p.bath.lasts) + " cold"
	case "fire":
		return "pit at " + quantity.FormatTemperature(p.pit, p.opt.Units)
	case "wrap":
		at, _ := strconv.ParseFloat(p.chose("wrap-at"), 64)
		return fmt.Sprintf("%s, core about %s", p.chose("wrap"), quantity.FormatTemperature(quantity.Celsius(at), p.opt.Units))
	case "off":
		return "core " + quantity.FormatTemperature(p.done, p.opt.Units)
	case "slice":
		if p.typed.Grain != "" && p.chose("slice") == "sliced" {
			return fmt.Sprintf("sliced across the grain, which runs at %s° to the length", p.typed.Grain)
		}
		return p.chose("slice")
	}
	return ""
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
