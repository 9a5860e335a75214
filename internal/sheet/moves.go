package sheet

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/amounts"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/move"
	"verjuice/internal/core/order"
	"verjuice/internal/core/plan"
)

// MoveLine is one thing that is done to a piece, with when.
type MoveLine struct {
	ID      string `json:"id" doc:"The same for the same move"`
	What    string `json:"what" doc:"Its kind"`
	Own     int    `json:"own" doc:"Number of a move of the cook's own, from 0; -1 for one of the stages"`
	Label   string `json:"label"`
	When    string `json:"when" doc:"What it waits for, in words; may be empty"`
	Field   string `json:"field" doc:"Pointer to what is typed of its moment; empty where a stage says it"`
	Time    string `json:"time" doc:"When that is expected; may be empty"`
	Range   string `json:"range" doc:"Between which times; may be empty"`
	Note    string `json:"note"`
	Never   string `json:"never" doc:"Why it never comes, in a sentence; empty for one that does"`
	Stage   string `json:"stage" doc:"Where else it is changed"`
	Clears  []Edit `json:"clears" nullable:"false" doc:"What its moment is instead of, taken back when that is typed"`
	Drags   bool   `json:"drags" doc:"It can be put somewhere else"`
	Drop    string `json:"drop" doc:"The moment of a move that is put right after this one, as it is typed; empty where that is told by the clock alone"`
	Removes []Edit `json:"removes" nullable:"false" doc:"What takes it out; none for a move that has to be"`
}

func (w writer) ownLabel(m order.Move, piece string) string {
	known, _ := move.Find(m.Kind)
	if m.Some > 0 && piece == "it" {
		piece = "them"
	}
	out := fmt.Sprintf(known.Verb, piece)
	if m.Some > 0 {
		out = fmt.Sprintf("%d of them: %s", m.Some, out)
	}
	switch {
	case m.Kind == move.Other:
		out = m.With + ": " + piece
	case m.Kind == order.Wrap:
		out += " in " + wrapName(m.With)
	case m.Kind == move.Again && m.With != move.Whole:
		out += " in " + againWords[m.With]
	}
	if layer, ok := dose.As[dose.Layer](m.Dose); ok && layer.Formula.Name != "" {
		out += " with " + layer.Formula.Name
	}
	return out
}

// forTheFire says what is cut for the fire once more.
func forTheFire(p cooking.Piece) string {
	for _, m := range p.Line.Own {
		if m.AfterKnife() {
			return ", and cut " + strings.Fields(m.With)[0] + " for the fire"
		}
	}
	return ""
}

// againWords are how what is cut goes on the fire once more, after in.
var againWords = map[string]string{
	"cubes in a pan": "cubes, in a pan", "slices in a pan": "slices, in a pan",
	"cubes on the grate": "cubes, on the grate", "slices on the grate": "slices, on the grate",
}

// againNote says of what goes on the fire once more how long, and at what.
func (w writer) againNote(m order.Move) string {
	return fmt.Sprintf("for %s, pit at %s", duration(m.Lasts), w.value(m.Set, ""))
}

// ownMove is the move of the cook's own that a task is.
func ownMove(r cooking.Result, k plan.Task, piece int) (order.Move, bool) {
	if k.Move == "" || piece < 0 {
		return order.Move{}, false
	}
	own := r.Pieces[piece].Line.Own
	i := slices.IndexFunc(own, func(m order.Move) bool { return m.Key == k.Move })
	if i < 0 {
		return order.Move{}, false
	}
	return own[i], true
}

// taskLabel is what is done in a task.
func (w writer) taskLabel(r cooking.Result, k plan.Task, piece int) string {
	if piece < 0 {
		return w.pitLabel(k)
	}
	p := r.Pieces[piece]
	if own, ok := ownMove(r, k, piece); ok && k.Stage == string(own.Kind) {
		return field.Capital(w.ownLabel(own, w.pieces[k.Key]))
	}
	switch {
	case k.Stage == "salt" && len(p.Line.Typed.Season.Formula.Rows) == 0:
		return field.Capital(w.verb("prepare", k.Key, k.Pit))
	case p.Clock == nil:
	case k.Stage == "slice":
		if verb, ok := map[string]string{"pulled": "pull", "whole": "serve"}[p.Clock.Slice]; ok {
			return field.Capital(w.verb(verb, k.Key, k.Pit)) + forTheFire(p)
		}
		return field.Capital(w.verb(k.Stage, k.Key, k.Pit)) + forTheFire(p)
	case k.Stage == "rest":
		for _, part := range p.Clock.Rests.Parts() {
			if part.ID == k.Move {
				return field.Capital(w.pieces[k.Key]) + ": " + restLabel(p, part)
			}
		}
	}
	return field.Capital(w.verb(k.Stage, k.Key, k.Pit))
}

// stageLines are the moves of the stages that are lines of the list, with what they are called and
// where they are changed.
var stageLines = map[order.MoveKind]struct{ label, stage, task string }{
	order.Thaw: {
		"thaw in the fridge",
		"piece",
		"thaw",
	}, order.Brine: {"into the bath", "brine", "bath"}, order.Inject: {"inject", "brine", "salt"},
	order.Wait: {
		"salt and season",
		"season",
		"salt",
	}, order.Temper: {"out of the fridge", "wait", "out"}, order.On: {"on the fire", "fire", "fire"},
	order.Spritz: {
		"spritz",
		"fire",
		"spritz",
	}, order.Wrap: {"wrap", "fire", "wrap"}, order.Off: {"off the fire", "fire", "off"},
	order.Rest: {"rest", "fire", ""}, order.Slice: {"slice", "fire", "slice"},
}

// moves are all that is done to a piece, in the order of the clock.
func (w writer) moves(r cooking.Result, n int) []MoveLine {
	p, out, times := r.Pieces[n], []MoveLine{}, []time.Time{}
	tasks := map[string]plan.Task{}
	if r.Plan != nil {
		for _, k := range r.Plan.Result.Plans[r.Plan.Chosen].Tasks {
			if k.Key == p.Line.Key {
				tasks[join(k.Stage, "-", k.Move)] = k
			}
		}
	}
	add := func(l MoveLine, k plan.Task) {
		if !k.At.IsZero() {
			l.Time = k.At.Format("Mon 15:04")
			if k.About && k.Every == 0 && k.To.After(k.From) {
				l.Range = k.From.Format("15:04") + "–" + k.To.Format("15:04")
			}
		}
		if l.Removes == nil {
			l.Removes = []Edit{}
		}
		if l.Clears == nil {
			l.Clears = []Edit{}
		}
		l.Drop = drop(l, k, p)
		out, times = append(out, l), append(times, k.At)
	}
	at := "/pieces/" + strconv.Itoa(n)
	for _, m := range p.Line.Sound() {
		if m.Key != "" {
			continue // below, where its mistakes are told, too
		}
		s, ok := stageLines[m.Kind]
		if _, layer := dose.As[dose.Layer](m.Dose); !ok || layer {
			continue
		}
		l := MoveLine{ID: string(m.Kind), What: string(m.Kind), Own: -1, Label: field.Capital(s.label), Stage: s.stage}
		w.stageMove(&l, m, p, at)
		if m.Kind == order.Rest {
			w.rests(p, tasks, add)
			continue
		}
		if m.Kind == order.Temper && m.Lasts == 0 {
			continue
		}
		if m.Kind == order.Wrap && p.Fire.Takes.Mid > 0 && p.Fire.Wraps.Mid == 0 && r.Plan != nil {
			l.Never = offBefore
		}
		add(l, tasks[s.task])
	}
	w.pitLines(r, p, add)
	w.ownLines(r, p, at, tasks, add)
	return sorted(out, times)
}

// againWhen is when a piece goes on the fire once more of which that is not said.
func againWhen(way string) string {
	if way == move.Whole {
		return "right before slicing"
	}
	return "once it is cut, until serving"
}

// offBefore is why a move of a piece never comes.
const offBefore = "It is off the fire before this comes."

// ownLines are the moves of the cook's own, those with a mistake too.
func (w writer) ownLines(
	r cooking.Result,
	p cooking.Piece,
	at string,
	tasks map[string]plan.Task,
	add func(MoveLine, plan.Task),
) {
	for i, typed := range p.Line.Typed.Moves {
		pointer := fmt.Sprintf("%s/moves/%d", at, i)
		l := MoveLine{
			ID:      fmt.Sprintf("own-%d", i),
			What:    typed.What,
			Own:     i,
			Label:   moveName(typed.What),
			Field:   pointer + "/when",
			Removes: []Edit{{Pointer: pointer, Remove: true}},
		}
		task := plan.Task{}
		if k := slices.IndexFunc(p.Line.Own, func(m order.Move) bool {
			return m.Key == typed.Key || typed.Key == "" &&
				m.Key == strconv.Itoa(i)
		}); k >= 0 {
			m := p.Line.Own[k]
			l.Drags = m.At.Each == 0
			l.Label, l.When = field.Capital(strings.TrimSuffix(w.ownLabel(m, "it"), ": it")), w.every(m.At)
			if m.Kind == move.Again {
				l.Drags, l.Note = false, w.againNote(m)
				if m.At.From.None() {
					l.When = againWhen(m.With)
				}
			}
			var planned bool
			task, planned = tasks[join(string(m.Kind), "-", m.Key)]
			if r.Plan != nil && !planned && p.Clock != nil {
				l.Never = offBefore
			}
		}
		add(l, task)
	}
}

// moveName is what a kind of move is called; what is no kind is a move.
func moveName(kind string) string {
	if known, ok := move.Find(move.Kind(kind)); ok && known.Name != "" {
		return known.Name
	}
	return "A move"
}

// dropped are the moments of a move that is put right after one of the stages.
var dropped = map[string]string{
	"on":    "right after it goes on",
	"wrap":  "right after the wrap",
	"off":   "right after it is off",
	"slice": "right after slicing",
}

// drop is the moment of a move that is put right after a line.
func drop(l MoveLine, k plan.Task, p cooking.Piece) string {
	if words, ok := dropped[l.What]; ok && l.Own < 0 {
		return words
	}
	if l.What == "travel" || l.What == "rest" {
		return "right after it is off"
	}
	if p.Clock == nil || !p.Clock.Known || k.At.IsZero() {
		return ""
	}
	if after := k.At.Sub(p.Clock.Times.Fire); after >= 5*time.Minute && k.At.Before(p.Clock.Times.Off) {
		return "after " + duration(after.Round(5*time.Minute))
	}
	if k.At.Before(p.Clock.Times.Fire) {
		return "10 min before it goes on"
	}
	return ""
}

// stageMove says of a move of the stages what it waits for.
func (w writer) stageMove(l *MoveLine, m order.Move, p cooking.Piece, at string) {
	typed := p.Line.Typed
	switch m.Kind {
	case order.Spritz, order.Wrap, order.Off:
		l.Field = at + "/when/" + string(m.Kind)
		l.When = w.every(m.At)
		if m.Kind == order.Off && m.At.From.None() {
			l.When = "when it is soft"
		}
		if core := m.At.From.Core(); p.Clock != nil && m.At.Each == 0 {
			l.When += w.probed(p.Clock, core)
		}
		if m.Kind == order.Wrap {
			l.Label = "Wrap in " + wrapName(m.With)
		}
		l.Clears = map[order.MoveKind][]Edit{
			order.Wrap: {{Pointer: at + "/choices/wrap-at"}}, order.Spritz: {{Pointer: at + "/choices/spritz"}},
			order.Off: {{Pointer: at + "/fire/done"}},
		}[m.Kind]
		if m.Kind != order.Off {
			l.Removes = []Edit{
				{Pointer: at + "/choices/" + string(m.Kind), Value: "none"},
				{Pointer: at + "/when/" + string(m.Kind)},
			}
		}
	case order.On:
		if l.Note = "pit at " + w.value(m.Set, ""); p.Clock != nil {
			l.Note = "pit at " + w.value(p.Clock.Set, "")
		}
	case order.Wait:
		if l.Note = duration(m.Lasts) + " before the fire"; p.Clock != nil {
			l.Note = saltNote(p.Clock)
		}
		if len(typed.Season.Formula.Rows) == 0 {
			l.Label = "Prepare it"
		}
	case order.Brine:
		l.Note = "for " + duration(m.Lasts)
		l.Removes = []Edit{{Pointer: at + "/bath", Remove: true}}
	case order.Inject:
		l.Removes = []Edit{{Pointer: at + "/inject", Remove: true}}
	case order.Temper:
		l.Note = duration(m.Lasts) + " on the counter"
		l.Removes = []Edit{{Pointer: at + "/fire/temper"}}
	case order.Slice:
		l.Label = map[string]string{"pulled": "Pull it", "whole": "Serve it whole"}[m.With]
		if l.Label == "" {
			l.Label = "Slice it"
		}
		l.Label += forTheFire(p)
	}
}

// restWords are where a piece rests, in the list of moves.
var restWords = map[string]string{
	"counter": "rest on the counter", "wrapped": "rest in its wrap", "board": "rest on the board",
	"tray": "rest in a tray", "cooler": "rest in a dry cooler", "oven": "rest in the oven, switched off",
	"pit": "rest in the pit, shut down", "pit-cooler": "rest in the pit, then in a cooler",
	"holder": "hold in a warm holder",
}

// restLabel is what is done in a part of the rest.
func restLabel(p cooking.Piece, part amounts.Part) string {
	switch {
	case part.Place == "vent":
		return "open it and let it steam off"
	case part.ID == "held":
		return restWords[cmp.Or(p.Clock.HeldIn, p.Clock.RestIn)]
	}
	return restWords[part.Place]
}

// rests are what is done between the fire and the knife, one after another.
func (w writer) rests(p cooking.Piece, tasks map[string]plan.Task, add func(MoveLine, plan.Task)) {
	if p.Clock == nil {
		return
	}
	parts, off := p.Clock.Rests.Parts(), tasks["off"]
	for i, part := range parts {
		l := MoveLine{ID: "rest-" + part.ID, What: "rest", Own: -1, Label: field.Capital(restLabel(p, part)), Stage: "fire"}
		lasts := part.Lasts
		if i == len(parts)-1 && p.Clock.Known && p.Clock.Times.Reheat.IsZero() {
			lasts = max(lasts, (p.Clock.Times.Hold - part.From - p.Clock.Rests.Travel).Round(5*time.Minute))
		}
		if lasts > 0 {
			l.Note = duration(lasts)
		}
		task, own := tasks["rest-"+part.ID]
		if !own && !off.At.IsZero() {
			task = plan.Task{At: off.At}
		}
		add(l, task)
	}
	if rests := p.Clock.Rests; rests.Travel > 0 {
		add(
			MoveLine{ID: "travel", What: "travel", Own: -1, Label: "Travel", Note: duration(rests.Travel), Stage: "fire"},
			tasks["travel"],
		)
	}
}

// pitLines are what is done to the pit: it is lit, fed, and set to something else on the way.
func (w writer) pitLines(r cooking.Result, p cooking.Piece, add func(MoveLine, plan.Task)) {
	if len(p.Fires) == 0 || p.Clock == nil {
		return
	}
	on := p.Line.Typed.Fire.On
	if r.Plan == nil || on >= len(r.Plan.Ask.Pits) {
		return
	}
	sets, comes := r.Plan.Ask.Pits[on].Sets, map[int]bool{}
	line := func(k plan.Task) MoveLine {
		l := MoveLine{ID: fmt.Sprintf("%s-%d", k.Stage, k.Turn), What: k.Stage, Own: -1, Label: w.pitLabel(k), Stage: "plan"}
		if k.Stage == "set" {
			l.Field, l.When = fmt.Sprintf("/pits/%d/sets", on), w.condition(sets[k.Turn-1].At)
		}
		return l
	}
	for _, k := range r.Plan.Result.Plans[r.Plan.Chosen].Tasks {
		if k.Key != "" || k.Pit != on {
			continue
		}
		comes[k.Turn] = comes[k.Turn] || k.Stage != "feed"
		l := line(k)
		if k.Every > 0 {
			l.Note = fmt.Sprintf("every %s until %s", duration(k.Every), k.To.Format("15:04"))
		}
		add(l, k)
	}
	for i, set := range sets {
		if comes[i+1] || i > 0 && set.C == sets[i-1].C {
			continue
		}
		l := line(plan.Task{Stage: "set", Pit: on, Turn: i + 1, SetC: set.C})
		l.Never = "By then the pit is at a later one of its list, or nothing is on it."
		if set.At.Of == "wrap" {
			l.Never = "Nothing on this pit is wrapped."
		}
		add(l, plan.Task{})
	}
}

// pitLabel is a task of a pit.
func (w writer) pitLabel(k plan.Task) string {
	switch {
	case k.Stage == "set":
		return "Set the " + w.pit(k.Pit) + " to " + w.short(float64(k.SetC))
	case k.SetC != 0:
		return field.Capital(w.verb(k.Stage, "", k.Pit)) + ", at " + w.short(float64(k.SetC))
	}
	return field.Capital(w.verb(k.Stage, "", k.Pit))
}

// movesLine says in a line how many moves there are.
func movesLine(all []MoveLine) string {
	own := 0
	for _, l := range all {
		if l.Own >= 0 {
			own++
		}
	}
	if own > 0 {
		return fmt.Sprintf("%d, %d of yours", len(all), own)
	}
	return fmt.Sprintf("%d in all", len(all))
}

// sorted are the lines in the order of their times; those without one stay after what they
// stood behind.
func sorted(lines []MoveLine, times []time.Time) []MoveLine {
	last := time.Time{}
	order := make([]int, len(lines))
	for i := range lines {
		order[i] = i
		if times[i].IsZero() {
			times[i] = last
		}
		last = times[i]
	}
	slices.SortStableFunc(order, func(a, b int) int { return times[a].Compare(times[b]) })
	out := make([]MoveLine, len(lines))
	for i, k := range order {
		out[i] = lines[k]
	}
	return out
}
