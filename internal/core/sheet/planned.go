package sheet

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

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
