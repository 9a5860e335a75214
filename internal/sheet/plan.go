package sheet

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/field"
	"verjuice/internal/core/move"
	"verjuice/internal/core/order"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
)

// PlanSheet is the days laid out.
type PlanSheet struct {
	Options   []PlanOption   `json:"options" nullable:"false" doc:"Up to three plans, the likeliest first"`
	Refused   []PlanRefusal  `json:"refused" nullable:"false" doc:"Why a plan cannot be, or does not go well"`
	Tasks     []TaskLine     `json:"tasks" nullable:"false" doc:"The chosen plan as a list"`
	Conflicts []PlanConflict `json:"conflicts" nullable:"false"`
	Rooms     []RoomSheet    `json:"rooms" nullable:"false"`
	Quiet     []Stretch      `json:"quiet" nullable:"false" doc:"Quiet hours within the plan"`
	Chance    Figure         `json:"chance" doc:"Of serving on time, %"`
	SaferAt   string         `json:"safer_at" doc:"The serving time that is safer, local YYYY-MM-DDTHH:MM; empty when this one is safe"`
	Safer     string         `json:"safer" doc:"The same in words"`
	Instead   string         `json:"instead" doc:"That the plan which was chosen cannot be, in a sentence; else empty"`
	Learnt    []string       `json:"learnt" nullable:"false" doc:"What earlier cooks tell of its pits, for which the forecasts allow"`
	Change    string         `json:"change" doc:"What the last thing that happened has changed, in a sentence"`
}

// PlanOption is one way to lay out the days.
type PlanOption struct {
	Kind    string `json:"kind" enum:"same-day,overnight,ahead"`
	Name    string `json:"name"`
	Summary string `json:"summary" doc:"What it means, in a sentence or two"`
	Chance  Figure `json:"chance"`
	Sleep   string `json:"sleep" doc:"How often it wakes the cook"`
	Wakings int    `json:"wakings"`
	Hold    string `json:"hold" doc:"The longest hold, in words"`
	First   string `json:"first" doc:"When it begins"`
	Outline string `json:"outline" doc:"Sleep, hold and beginning in a line"`
	Chosen  bool   `json:"chosen"`
	Late    bool   `json:"late" doc:"Some of it is in the past already"`
}

// PlanRefusal is a plan that cannot be.
type PlanRefusal struct {
	Kind   string       `json:"kind"`
	ID     string       `json:"id" doc:"Which rule it breaks"`
	Values field.Values `json:"values,omitempty"`
	Name   string       `json:"name"`
	Reason string       `json:"reason"`
	Offer  *Offer       `json:"offer,omitempty" doc:"The one change that would make it possible"`
}

// TaskLine is something to do.
type TaskLine struct {
	ID      string `json:"id" doc:"The same for the same task of the same piece"`
	Piece   int    `json:"piece" doc:"From 0; -1 for a pit"`
	Key     string `json:"key" doc:"Key of the piece"`
	Stage   string `json:"stage"`
	At      string `json:"at" doc:"RFC 3339"`
	Local   string `json:"local" doc:"The same as a wish is typed"`
	Day     string `json:"day"`
	Time    string `json:"time"`
	Label   string `json:"label"`
	Note    string `json:"note" doc:"What to know of it, and how long it takes"`
	Warning string `json:"warning" doc:"What conflicts with it; may be empty"`
	Until   string `json:"until" doc:"RFC 3339, when the hands are free again"`
	Lasts   string `json:"lasts" doc:"What it takes of a pair of hands, with its likely range"`
	Done    bool   `json:"done"`
	Fact    string `json:"fact" doc:"Id of the fact that says it is done; empty when none does"`
	Fixed   bool   `json:"fixed" doc:"The cook has fixed its time"`
	CanMark bool   `json:"can_mark" doc:"It can be marked as done"`
	CanFix  bool   `json:"can_fix" doc:"Its time can be fixed"`
	Wakes   bool   `json:"wakes"`
	Clash   bool   `json:"clash"`

	Checks []CheckLine `json:"checks,omitempty" nullable:"false" doc:"What is seen to before it, each to be ticked"`
}

// PlanConflict is something that does not go together.
type PlanConflict struct {
	Kind    string       `json:"kind"`
	ID      string       `json:"id" doc:"Which rule it breaks"`
	Values  field.Values `json:"values,omitempty"`
	Piece   int          `json:"piece" doc:"From 0; -1 when it is nobody's"`
	At      string       `json:"at"`
	Message string       `json:"message"`
}

// RoomSheet is a pit or the fridge and what is in it.
type RoomSheet struct {
	Name    string    `json:"name"`
	Message string    `json:"message"`
	Full    bool      `json:"full"`
	Uses    []RoomUse `json:"uses" nullable:"false"`
}

// RoomUse is a piece in a place.
type RoomUse struct {
	Title string  `json:"title"`
	From  string  `json:"from"`
	To    string  `json:"to"`
	DM2   float64 `json:"dm2"`
	Text  string  `json:"text" doc:"What lies there, and how much room it takes"`
}

// Stretch is a stretch of time.
type Stretch struct {
	From string `json:"from"`
	To   string `json:"to"`
	Says string `json:"says" doc:"The same in a sentence"`
}

var planNames = map[plan.Kind]string{
	plan.SameDay:   "Same day",
	plan.Overnight: "Overnight",
	plan.Ahead:     "The day before",
}

var planWords = map[plan.Kind]string{
	plan.SameDay:   "the same day",
	plan.Overnight: "overnight",
	plan.Ahead:     "the day before",
}

// plan writes the plans out.
func (w writer) plan(r cooking.Result) *PlanSheet {
	p := r.Plan
	chosen := p.Result.Plans[p.Chosen]
	out := &PlanSheet{
		Options:   []PlanOption{},
		Refused:   []PlanRefusal{},
		Tasks:     []TaskLine{},
		Conflicts: []PlanConflict{},
		Rooms:     []RoomSheet{},
		Quiet:     []Stretch{},
		Learnt:    w.allows(r.Order.Learnt, r.Order.Cook.Pits),
	}
	for i, one := range p.Result.Plans {
		o := w.option(one)
		o.Chance, o.Chosen = w.figure(p.Chances[i]), i == p.Chosen
		out.Options = append(out.Options, o)
	}
	out.Chance = w.figure(p.Chances[p.Chosen])
	number := map[string]int{"": -1}
	for i, piece := range r.Pieces {
		number[piece.Line.Key] = i
	}
	for _, one := range p.Result.Refused {
		no := PlanRefusal{
			Kind:   string(one.Kind),
			ID:     one.Why.ID,
			Values: one.Why.Values,
			Name:   planNames[one.Kind],
			Reason: w.about(one.Why, one.Key),
		}
		switch {
		case !one.ServeAt.IsZero():
			no.Offer = &Offer{
				"serve at " + day(one.ServeAt),
				[]Edit{{Pointer: servesAt(r.Order, number[one.Key]), Value: one.ServeAt.Format(timeLayout)}},
			}
		case one.Holder:
			no.Offer = &Offer{
				"rest it in a warm holder",
				[]Edit{{Pointer: fmt.Sprintf("/pieces/%d/choices/rest", number[one.Key]), Value: "holder"}},
			}
		}
		out.Refused = append(out.Refused, no)
	}
	for _, k := range chosen.Tasks {
		out.Tasks = append(out.Tasks, w.task(r, k, number[k.Key]))
	}
	for _, x := range chosen.Conflicts {
		out.Conflicts = append(
			out.Conflicts,
			PlanConflict{x.Kind, x.Why.ID, x.Why.Values, number[x.Key], iso(x.At), field.Capital(w.about(x.Why, x.Key))},
		)
	}
	for _, room := range chosen.Rooms {
		out.Rooms = append(out.Rooms, w.room(room))
	}
	for _, q := range p.Quiet {
		out.Quiet = append(
			out.Quiet,
			Stretch{iso(q.From), iso(q.To), "Quiet hours from " + hourOf(q.From) + " until " + hourOf(q.To) + "."},
		)
	}
	if chosen.Chance < 0.85 && chosen.Safe.After(p.Ask.Serve) {
		out.SaferAt, out.Safer = chosen.Safe.Format(timeLayout), day(chosen.Safe)
	}
	if asked := plan.Kind(r.Order.Cook.Plan); asked != "" && asked != chosen.Kind {
		out.Instead = fmt.Sprintf("%s was chosen and cannot be; this is %s.", planNames[asked], planWords[chosen.Kind])
	}
	if p.Change != nil {
		out.Change = w.change(*p.Change)
	}
	return out
}

// about says something about a piece, or a task of one.
func (w writer) about(why field.Wrong, key string) string {
	values := maps.Clone(why.Values)
	if values == nil {
		values = field.Values{}
	}
	if first, ok := values["piece"].(string); ok {
		values["first"] = w.pieces[first]
	}
	values["piece"] = w.pieces[key]
	if stage, ok := values["task"].(string); ok {
		pit, _ := values["pit"].(int)
		values["task"] = w.verb(stage, key, pit)
	}
	return w.say(field.Wrong{ID: why.ID, Values: values})
}

// servesAt is the field of when a piece is eaten: its own where it has one.
func servesAt(o order.Order, piece int) string {
	if piece >= 0 && piece < len(o.Lines) && !o.Lines[piece].Serving.Value.IsZero() {
		return fmt.Sprintf("/pieces/%d/serve_at", piece)
	}
	return "/serve_at"
}

// verb says a task of a stage: of a piece, or of a pit when key is empty.
func (w writer) verb(stage, key string, pit int) string {
	name := w.pieces[key]
	if key == "" {
		name = w.pit(pit)
	}
	verb, ok := taskVerbs[stage]
	if kind, known := move.Find(move.Kind(stage)); !ok && known {
		verb = field.Capital(kind.Verb)
	}
	return fmt.Sprintf(verb, name)
}

func (w writer) task(r cooking.Result, k plan.Task, piece int) TaskLine {
	id := k.Key
	if id == "" {
		id = fmt.Sprintf("pit%d", k.Pit)
	}
	out := TaskLine{
		ID:      join(k.Stage+"-"+id, "-", k.Move),
		Piece:   piece,
		Key:     k.Key,
		Stage:   k.Stage,
		At:      iso(k.At),
		Local:   k.At.Format(timeLayout),
		Day:     k.At.Format("Mon 2 Jan"),
		Time:    k.At.Format("15:04"),
		Label:   w.taskLabel(r, k, piece),
		Until:   iso(k.At.Add(k.Lasts)),
		Lasts:   handsFor(k.Lasts),
		Done:    k.Done,
		CanMark: k.Key != "" && slices.Contains(markable, k.Stage),
		CanFix:  k.Key != "" && slices.Contains(plan.Fixable, k.Stage),
		Wakes:   k.Wakes && !k.Done,
		Clash:   k.Clash && !k.Done,
	}
	if own, ok := ownMove(r, k, piece); ok {
		out.Note = w.ownNote(own, k)
	}
	if fact, ok := r.Facts.Done(k.Key, k.Stage); ok {
		out.Fact = fact.ID
	}
	out.Fixed = out.Fact == "" &&
		slices.ContainsFunc(r.Order.Wishes.Value, func(m plan.Mark) bool { return m.Key == k.Key && m.Stage == k.Stage })
	if k.Stage == "feed" || k.Stage == "set" {
		out.ID += fmt.Sprintf("-%d", k.Turn)
	}
	out.Checks = w.checks(r, k)
	switch {
	case k.Every > 0 && !k.Done:
		out.Note = fmt.Sprintf("every %s until %s", quantity.FormatDuration(k.Every), k.To.Format("15:04"))
	case k.Stage == "feed":
	case k.About && !k.Done && k.To.After(k.From):
		out.Note = fmt.Sprintf("between %s and %s", k.From.Format("15:04"), k.To.Format("15:04"))
	}
	if !k.Done {
		out.Note = join(out.Note, "; ", maybeNever(k.Never))
	}
	if piece >= 0 {
		out.Note = join(out.Note, "; ", w.taskNote(r.Pieces[piece], k.Stage))
	}
	if !k.Done && k.Stage != "fire" && k.Stage != "off" {
		out.Note = join(out.Note, "; ", out.Lasts)
	}
	if k.Waits && !k.Done {
		out.Note = join("its pit keeps it warm until you are up", "; ", out.Note)
	}
	out.Warning = warning(out)
	return out
}

// warning says what is awkward about a task.
func warning(k TaskLine) (out string) {
	if k.Wakes {
		out = "in the quiet hours"
	}
	if k.Clash {
		out = join(out, ", ", "more at once than there are hands")
	}
	return out
}

// ownNote says of a task that is a move of the cook's own what it waits for, or how long it is.
func (w writer) ownNote(own order.Move, k plan.Task) string {
	switch {
	case own.Kind != move.Again:
		return w.every(own.At)
	case k.Stage == string(move.Again):
		return w.againNote(own)
	}
	return ""
}

// heldWords say where a piece waits that has to wait longer than it keeps in its usual
// place.
var heldWords = map[string]string{
	"cooler": "in a dry cooler, wrapped in towels",
	"holder": "in a warm holder or a low oven",
}

// markable are the stages that can be marked as done.
var markable = []string{"thaw", "bath", "salt", "fire", "off"}

// handsFor is a piece of work with its likely range: some people are quicker than
// others by a third, and work takes half as long again as often.
func handsFor(d time.Duration) string {
	low, high := (d * 2 / 3).Round(time.Minute), (d * 3 / 2).Round(time.Minute)
	from := fmt.Sprintf("%.0f", low.Minutes())
	if high >= time.Hour { // then they are told in different units
		from = quantity.FormatDuration(low)
	}
	return fmt.Sprintf("%s (%s–%s)", quantity.FormatDuration(d), from, quantity.FormatDuration(high))
}

// taskNote is what to know of the piece at a stage.
func (w writer) taskNote(p cooking.Piece, stage string) string {
	c := p.Clock
	switch {
	case stage == "salt":
		note := p.Line.Salting.Value.Formula.Name
		switch {
		case len(p.Line.Typed.Season.Formula.Rows) == 0:
			note = "no rub"
		case note == "":
			note = "rub"
		}
		if p.Needle != nil {
			note = "mix and inject first; " + note
		}
		return note
	case c == nil:
		return ""
	case stage == "bath":
		return quantity.FormatDuration(c.Soak) + " cold"
	case stage == "fire":
		return "pit at " + w.value(c.Set, "")
	case stage == "wrap":
		return w.wrapNote(c)
	case stage == "off" && c.HeldIn != "":
		return w.offNote(c) + "; it waits " + heldWords[c.HeldIn]
	case stage == "off":
		return w.offNote(c)
	case stage == "spritz" && c.Spritz > 0:
		return "once the surface is set"
	case stage == "slice" && c.Grain != "" && c.Slice == "sliced":
		return fmt.Sprintf("sliced across the grain, which runs at %s° to the length", c.Grain) + ownServing(c)
	case stage == "slice":
		return c.Slice + ownServing(c)
	}
	return ""
}

// ownServing says when a piece is eaten that is not eaten with the rest.
func ownServing(c *cooking.PieceClock) string {
	if !c.Own {
		return ""
	}
	return ", served at " + c.Serve.Format("15:04")
}

func (w writer) option(p plan.Plan) PlanOption {
	o := PlanOption{
		Kind:    string(p.Kind),
		Name:    planNames[p.Kind],
		Wakings: p.Woken,
		Hold:    "longest hold " + quantity.FormatDuration(p.Hold.Round(5*time.Minute)),
		Late:    p.Overdue,
	}
	if p.Waking {
		o.Name = "A start in the night"
	}
	if p.Chilled {
		o.Hold = "some of it cooled and reheated"
	}
	switch {
	case p.Night > 0:
		o.Sleep = fmt.Sprintf("up %s in the night; no quiet hours are set", timesIn(p.Night))
	case p.Woken == 0:
		o.Sleep = "a full night’s sleep"
	default:
		o.Sleep = fmt.Sprintf("up %s in the night", timesIn(p.Woken))
	}
	if len(p.Tasks) > 0 {
		o.First = day(p.Tasks[0].At)
	}
	o.Outline = o.Sleep + "; " + o.Hold + "; begins " + o.First
	o.Summary = w.summary(p)
	return o
}

// timesIn says how often something is.
func timesIn(n int) string {
	if n == 1 {
		return "once"
	}
	return fmt.Sprintf("%d times", n)
}

// summary says what a plan means.
func (w writer) summary(p plan.Plan) string {
	var special []string
	first := time.Time{}
	for _, t := range p.Pieces {
		name := w.pieces[t.Key]
		if first.IsZero() || t.Fire.Before(first) {
			first = t.Fire
		}
		switch {
		case t.Kind == plan.Overnight:
			special = append(
				special,
				fmt.Sprintf("%s goes on %s and is held from about %s", name, t.Fire.Format("Mon 15:04"), t.Off.Format("15:04")),
			)
		case t.Kind == plan.Ahead && !t.Reheat.IsZero():
			special = append(
				special,
				fmt.Sprintf(
					"%s is cooked on %s, cooled fast and reheated from %s",
					name,
					t.Fire.Format("Monday"),
					t.Reheat.Format("Mon 15:04"),
				),
			)
		case t.Kind == plan.Ahead:
			special = append(
				special,
				fmt.Sprintf("%s is off about %s and held for %s", name, t.Off.Format("Mon 15:04"), quantity.FormatDuration(t.Hold)),
			)
		}
	}
	out := fmt.Sprintf("The first fire at %s.", first.Format("Mon 15:04"))
	if len(special) > 0 {
		out += " " + field.Capital(strings.Join(special, "; ")) + "."
	}
	return out
}

// grate writes an area of the grate.
func (w writer) grate(dm2 float64) string {
	if w.Units == quantity.US {
		return w.as(area, dm2/100)
	}
	return decimal(dm2, 0) + " dm²"
}

func (w writer) room(r plan.Room) RoomSheet {
	out := RoomSheet{
		Name:    w.pit(r.Pit),
		Uses:    []RoomUse{},
		Message: fmt.Sprintf("most at %s: %s", r.PeakAt.Format("Mon 15:04"), w.grate(r.Peak)),
	}
	if r.Limit > 0 {
		out.Message += " of " + w.grate(r.Limit)
		out.Full = r.Peak > r.Limit*1.02
	}
	for _, u := range r.Uses {
		out.Uses = append(
			out.Uses,
			RoomUse{w.pieces[u.Key], iso(u.From), iso(u.To), u.DM2, w.pieces[u.Key] + ": " + w.grate(u.DM2)},
		)
	}
	return out
}

var stageWords = map[string]string{
	"thaw": "thawing from",
	"bath": "in the bath",
	"salt": "salted",
	"fire": "on the fire",
	"off":  "off the fire",
}

// change tells in a sentence what the last thing that happened has moved.
func (w writer) change(c plan.Change) string {
	head := fmt.Sprintf(
		"%s: %s at %s, %s.",
		w.pieces[c.Mark.Key],
		stageWords[c.Mark.Stage],
		c.Mark.At.Format("15:04"),
		against(c.Late),
	)
	switch c.Mark.Stage {
	case "off":
		return head + fmt.Sprintf(" It rests %s before slicing.", quantity.FormatDuration(c.Now.Hold))
	case "fire":
		return head + fmt.Sprintf(
			" Off about %s instead of %s; the chance to serve on time is %.0f %%, was %.0f %%.",
			c.Now.Off.Format("15:04"),
			c.Was.Off.Format("15:04"),
			100*c.Chance,
			100*c.WasOf,
		)
	}
	return head + fmt.Sprintf(
		" It is salted %s before the fire instead of %s.",
		quantity.FormatDuration(c.Now.Wait),
		quantity.FormatDuration(c.Was.Wait),
	)
}

func against(d time.Duration) string {
	switch d = d.Round(time.Minute); {
	case d > 2*time.Minute:
		return quantity.FormatDuration(d) + " late"
	case d < -2*time.Minute:
		return quantity.FormatDuration(-d) + " early"
	}
	return "as planned"
}
