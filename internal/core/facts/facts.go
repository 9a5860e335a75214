// Package facts is what happened at a cook: what was done and when, what was ticked
// off, which stops were read. Facts are only ever added. What was said wrongly is
// withdrawn by another fact, and the latest fact about the same thing counts.
//
//	all := facts.Facts{{ID: "…", Kind: facts.Done, Piece: "k1", What: "fire", At: "2026-11-28T07:20"}}
//	mark, ok := all.Done("k1", "fire")
//
// A cook's wishes (fixed times) are not facts: they are part of the cook.
package facts

import (
	"encoding/json"
	"reflect"
	"regexp"
	"slices"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/move"
	"verjuice/internal/core/quantity"
)

// Kind says what a fact tells.
type Kind string

// The kinds.
const (
	Done         Kind = "done"         // a stage or a move of a piece, or of a pit, was done at a time
	Seen         Kind = "seen"         // a sign was seen on a piece: Values say how it is, and where
	Weighed      Kind = "weighed"      // something of a piece was weighed: Values hold it as typed
	Scored       Kind = "scored"       // an aspect of a piece was scored by its author: Values hold it
	Noted        Kind = "noted"        // What is to be remembered, in words
	Corrected    Kind = "corrected"    // another fact happened at another time, which is At
	Ticked       Kind = "ticked"       // a line of a list was ticked off
	Acknowledged Kind = "acknowledged" // a stop was read
	Withdrawn    Kind = "withdrawn"    // another fact was said wrongly
	Uncounted    Kind = "uncounted"    // what the probe What showed from one time to another does not count
	Counted      Kind = "counted"      // it does, however unlikely it looks
)

var kinds = []Kind{Done, Seen, Weighed, Scored, Noted, Corrected, Ticked, Acknowledged, Withdrawn, Uncounted, Counted}

// kindNames are the kinds as text.
func kindNames() []string {
	out := make([]string, len(kinds))
	for i, k := range kinds {
		out[i] = string(k)
	}
	return out
}

// Fact is one thing that happened.
type Fact struct {
	ID     string       `json:"id" doc:"A UUID of the sender's; the same fact sent twice is one" example:"0b0e7a52-6a1f-4c0e-9d53-0d5f3c1e8a11"`
	Kind   Kind         `json:"kind" enum:"done,seen,weighed,scored,noted,corrected,ticked,acknowledged,withdrawn,uncounted,counted"`
	Piece  string       `json:"piece,omitempty" required:"false" doc:"Key of the piece; empty when it is of the whole cook"`
	What   string       `json:"what" doc:"The stage or move done, the sign seen, the line ticked, the caution read, or the fact withdrawn or corrected" example:"fire"`
	At     string       `json:"at" doc:"When it happened: local time of the cook (YYYY-MM-DDTHH:MM) or RFC 3339" example:"2026-11-28T07:20"`
	Author string       `json:"author,omitempty" required:"false" doc:"Who says so"`
	Device string       `json:"device,omitempty" required:"false" doc:"On which screen it was said"`
	Values field.Values `json:"values,omitempty" required:"false" doc:"Of an acknowledgement: what the caution said. Of a sign: how it is, and where. Of a weight: typed, what it weighs. Of a score: score, 1 to 5. Of a wrap: its kind; of a pit that is set: typed, what to, or c, °C; of a pit: pit, its number; of a move of the cook's own: move, its key. Of readings that count or do not: from and to, RFC 3339, both included"`
	Said   string       `json:"said,omitempty" required:"false" doc:"Of an acknowledgement from before cautions had values: its sentence"`
}

// Facts are a cook's facts, in the order they were said.
type Facts []Fact

// Most is how many facts a cook holds.
const Most = 5000

// Years that a log can be of.
const (
	FirstYear = 2000
	LastYear  = 2100
)

// CanBe reports whether a time can be one of a cook: a log that reaches back, or a plan.
func CanBe(t time.Time) bool { return t.Year() >= FirstYear && t.Year() <= LastYear }

// Lengths in characters.
const (
	local     = "2006-01-02T15:04"
	maxText   = 1000
	maxKey    = 60
	maxTime   = 40
	maxAuthor = 200
)

var uuid = regexp.MustCompile(`^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$`)

// Stages are the stages and moves that can be done, by the table of moves.
var Stages = move.Kinds(func(move.Move) bool { return true })

// Sign is something that is looked at or felt on a piece, and how it may be.
type Sign struct {
	ID   string
	Hows []string // in the order in which they come
}

// Signs are what a cook looks at, as a piece goes on.
var Signs = []Sign{
	{
		"surface",
		[]string{"wet", "set"},
	}, {"colour", []string{"pale", "red-brown", "mahogany", "black"}}, {"bark", []string{"scratches", "holds"}},
	{
		"fat",
		[]string{"springs", "stays"},
	}, {"bones", []string{"hidden", "show"}}, {"bend", []string{"stiff", "bends", "cracks"}},
	{"feel", []string{"tough", "firm", "nearly", "soft"}},
}

// How is how a sign was seen to be, and where; empty when f does not say.
func (f Fact) How() (how, place string) {
	how, _ = f.Values["how"].(string)
	place, _ = f.Values["place"].(string)
	return how, place
}

// What a pit can be set to, °C.
const LowSet, HighSet = 15, 350

// Set is what a pit was set to: Values hold it as typed, or as c, °C. The error is a field.Wrong.
func (f Fact) Set() (quantity.Celsius, error) {
	if c, ok := f.Values["c"].(float64); ok && c >= LowSet && c <= HighSet {
		return quantity.Celsius(c), nil
	}
	typed, _ := f.Values["typed"].(string)
	c, err := quantity.ParseTemperatureWithin(typed, LowSet, HighSet)
	if err == nil && (c < LowSet || c > HighSet) {
		err = field.Because("temperature.range", "low", quantity.Celsius(LowSet), "high", quantity.Celsius(HighSet))
	}
	return c, err
}

// checkSign returns what is wrong with a sign that was seen.
func (f Fact) checkSign(errs *field.Errors) {
	ids := make([]string, len(Signs))
	for i, s := range Signs {
		if ids[i] = s.ID; s.ID != f.What {
			continue
		}
		if how, _ := f.How(); !slices.Contains(s.Hows, how) {
			errs.Add("/values/how", "choice.unknown", "choices", s.Hows)
		}
		return
	}
	errs.Add("/what", "choice.unknown", "choices", ids)
}

// Check returns what is wrong with f, with pointers into it.
func (f Fact) Check() field.Errors {
	var errs field.Errors
	if !uuid.MatchString(f.ID) {
		errs.Add("/id", "fact.id")
	}
	if !slices.Contains(kinds, f.Kind) {
		errs.Add(
			"/kind",
			"choice.unknown",
			"choices",
			kindNames(),
		)
	}
	if f.Kind == Uncounted || f.Kind == Counted {
		_, err := ParseProbe(f.What)
		errs.Take("/what", err)
		if _, _, ok := f.Span(); !ok {
			errs.Add("/values/from", "time.form", "typed", f.Values["from"])
		}
	}
	if f.Kind == Seen {
		f.checkSign(&errs)
	}
	f.checkAfter(&errs)
	if f.Kind == Done && f.What == "set" {
		_, err := f.Set()
		errs.Take("/values/typed", err)
	}
	if _, told := f.Values["core_c"]; told {
		if _, ok := f.CoreC(); !ok {
			errs.Add("/values/core_c", "temperature.range", "low", quantity.Celsius(LowRead), "high", quantity.Celsius(HighRead))
		}
	}
	if f.Kind == Done && !slices.Contains(Stages, f.What) {
		errs.Add("/what", "choice.unknown", "choices", Stages)
	}
	switch at, err := f.Time(time.UTC); {
	case err != nil:
		errs.Add("/at", "time.form", "typed", f.At)
	case !CanBe(at):
		errs.Add("/at", "time.year", "first", FirstYear, "last", LastYear)
	}
	for _, text := range []struct {
		pointer, typed string
		most           int
	}{{"/piece", f.Piece, maxKey}, {"/what", f.What, maxText}, {"/at", f.At, maxTime}, {"/author", f.Author, maxAuthor},
		{"/device", f.Device, maxKey}, {"/said", f.Said, maxText}} {
		errs.Text(text.pointer, text.typed, text.most)
	}
	if raw, err := json.Marshal(f.Values); err != nil || len(raw) > 4*maxText {
		errs.Add("/values", "text.too-long", "most", 4*maxText)
	}
	return errs
}

// Time is when f happened; zone is the cook's.
func (f Fact) Time(zone *time.Location) (time.Time, error) {
	t, err := moment(f.At, zone)
	return t.In(zone), err
}

// Same reports whether f and g say the same.
func (f Fact) Same(g Fact) bool {
	a, b := f, g
	a.Values, b.Values = nil, nil
	return reflect.DeepEqual(a, b) && sameValues(f.Values, g.Values)
}

// sameValues compares as JSON, in which both have travelled.
func sameValues(a, b field.Values) bool {
	if len(a) == 0 && len(b) == 0 {
		return true
	}
	x, err := json.Marshal(a)
	if err != nil {
		return false
	}
	y, err := json.Marshal(b)
	return err == nil && string(x) == string(y)
}

// Standing are the facts that were not withdrawn, each at the time that was last said of it.
func (all Facts) Standing() Facts {
	gone, at := map[string]bool{}, map[string]string{}
	for _, f := range all {
		if f.Kind == Withdrawn {
			gone[f.What] = true
		}
	}
	for _, f := range all {
		if f.Kind == Corrected && !gone[f.ID] {
			at[f.What] = f.At
		}
	}
	out := slices.DeleteFunc(
		slices.Clone(all),
		func(f Fact) bool { return f.Kind == Withdrawn || f.Kind == Corrected || gone[f.ID] },
	)
	for i := range out {
		if t, ok := at[out[i].ID]; ok {
			out[i].At = t
		}
	}
	return out
}

// Done is the latest fact about a stage of a piece.
func (all Facts) Done(piece, stage string) (Fact, bool) {
	return all.last(func(f Fact) bool { return f.Kind == Done && f.Piece == piece && f.What == stage })
}

// Acknowledged is the acknowledgement of a rule that says just these values for a
// piece. One from before cautions had values counts when said, the sentence of the
// caution, is what was read.
func (all Facts) Acknowledged(piece, rule string, values field.Values) (Fact, bool) {
	return all.last(func(f Fact) bool {
		return f.Kind == Acknowledged && f.Piece == piece && f.What == rule && f.Said == "" && sameValues(f.Values, values)
	})
}

// AcknowledgedAs is the acknowledgement of a rule by the sentence that was read,
// from before cautions had values.
func (all Facts) AcknowledgedAs(piece, rule, said string) (Fact, bool) {
	return all.last(func(f Fact) bool {
		return f.Kind == Acknowledged && f.Piece == piece && f.What == rule && f.Said != "" && f.Said == said
	})
}

func (all Facts) last(is func(Fact) bool) (Fact, bool) {
	standing := all.Standing()
	for i := len(standing) - 1; i >= 0; i-- {
		if is(standing[i]) {
			return standing[i], true
		}
	}
	return Fact{}, false
}

// Ticked is the tick of a line of a list.
func (all Facts) Ticked(line string) (Fact, bool) {
	return all.last(func(f Fact) bool { return f.Kind == Ticked && f.What == line })
}
