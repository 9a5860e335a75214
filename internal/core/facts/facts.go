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
)

// Kind says what a fact tells.
type Kind string

// The kinds.
const (
	Done         Kind = "done"         // a stage of a piece was done at a time
	Ticked       Kind = "ticked"       // a line of a list was ticked off
	Acknowledged Kind = "acknowledged" // a stop was read
	Withdrawn    Kind = "withdrawn"    // another fact was said wrongly
)

var kinds = []Kind{Done, Ticked, Acknowledged, Withdrawn}

// Fact is one thing that happened.
type Fact struct {
	ID     string       `json:"id" doc:"A UUID of the sender's; the same fact sent twice is one" example:"0b0e7a52-6a1f-4c0e-9d53-0d5f3c1e8a11"`
	Kind   Kind         `json:"kind" enum:"done,ticked,acknowledged,withdrawn"`
	Piece  string       `json:"piece,omitempty" required:"false" doc:"Key of the piece; empty when it is of the whole cook"`
	What   string       `json:"what" doc:"The stage done, the line ticked, the caution read, or the fact withdrawn" example:"fire"`
	At     string       `json:"at" doc:"When it happened: local time of the cook (YYYY-MM-DDTHH:MM) or RFC 3339" example:"2026-11-28T07:20"`
	Author string       `json:"author,omitempty" required:"false" doc:"Who says so"`
	Values field.Values `json:"values,omitempty" required:"false" doc:"Of an acknowledgement: what the caution said"`
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

// Lengths in bytes.
const (
	local     = "2006-01-02T15:04"
	maxText   = 1000
	maxKey    = 60
	maxTime   = 40
	maxAuthor = 200
)

var uuid = regexp.MustCompile(`^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$`)

// Stages are the stages that can be done.
var Stages = []string{"thaw", "bath", "salt", "fire", "off"}

// Check returns what is wrong with f, with pointers into it.
func (f Fact) Check() field.Errors {
	var errs field.Errors
	if !uuid.MatchString(f.ID) {
		errs.Add("/id", "fact.id")
	}
	if !slices.Contains(kinds, f.Kind) {
		errs.Add("/kind", "choice.unknown", "choices", []string{"done", "ticked", "acknowledged", "withdrawn"})
	}
	if f.Kind == Done && !slices.Contains(Stages, f.What) {
		errs.Add("/what", "choice.unknown", "choices", Stages)
	}
	switch at, err := f.Time(time.UTC); {
	case err != nil:
		errs.Add("/at", "time.unreadable")
	case !CanBe(at):
		errs.Add("/at", "time.year", "first", FirstYear, "last", LastYear)
	}
	for _, text := range []struct {
		pointer, typed string
		most           int
	}{{"/piece", f.Piece, maxKey}, {"/what", f.What, maxText}, {"/at", f.At, maxTime}, {"/author", f.Author, maxAuthor}, {"/said", f.Said, maxText}} {
		if len(text.typed) > text.most {
			errs.Add(text.pointer, "text.too-long", "most", text.most)
		}
	}
	if raw, err := json.Marshal(f.Values); err != nil || len(raw) > 4*maxText {
		errs.Add("/values", "text.too-long", "most", 4*maxText)
	}
	return errs
}

// Time is when f happened; zone is the cook's.
func (f Fact) Time(zone *time.Location) (time.Time, error) {
	if t, err := time.ParseInLocation(local, f.At, zone); err == nil {
		return t, nil
	}
	t, err := time.Parse(time.RFC3339, f.At)
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

// Standing are the facts that were not withdrawn.
func (all Facts) Standing() Facts {
	gone := map[string]bool{}
	for _, f := range all {
		if f.Kind == Withdrawn {
			gone[f.What] = true
		}
	}
	return slices.DeleteFunc(slices.Clone(all), func(f Fact) bool { return f.Kind == Withdrawn || gone[f.ID] })
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
