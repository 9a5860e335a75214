// Package field carries mistakes to the place where the cook typed.
//
// A check does not stop at the first mistake: it adds each one to an Errors with a
// JSON pointer (RFC 6901) to the value that is wrong, the id of the rule that it
// breaks and the values that a sentence about it names. The sentences themselves
// are written by package sheet, in the reader's units.
//
//	var errs field.Errors
//	errs.Add("/pieces/0/count", "count.range", "most", 500)
//	return errs.Err()
package field

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"unicode/utf8"
)

// Values are what a sentence names, by name: numbers, texts as typed, quantities,
// durations, other Wrongs, or lists of texts.
type Values map[string]any

// Pairs makes Values of alternating names and values.
func Pairs(pairs ...any) Values {
	if len(pairs) == 0 {
		return nil
	}
	v := Values{}
	for i := 0; i+1 < len(pairs); i += 2 {
		v[pairs[i].(string)] = pairs[i+1]
	}
	return v
}

// Wrong is why something cannot be: the id of the rule, and what its sentence names.
type Wrong struct {
	ID     string `json:"id"`
	Values Values `json:"values,omitempty"`
}

// Because returns the Wrong of that id, with alternating names and values.
func Because(id string, pairs ...any) Wrong { return Wrong{ID: id, Values: Pairs(pairs...)} }

// Error implements error for logs and tests; cooks read package sheet's sentence.
func (w Wrong) Error() string {
	parts := []string{}
	for _, k := range slices.Sorted(maps.Keys(w.Values)) {
		parts = append(parts, fmt.Sprintf("%s=%v", k, w.Values[k]))
	}
	return w.ID + "(" + strings.Join(parts, " ") + ")"
}

// Error is one mistake: where it is, and why.
type Error struct {
	Pointer string
	Wrong
}

// Error implements error.
func (e Error) Error() string { return e.Pointer + ": " + e.Wrong.Error() }

// Errors is a list of mistakes. Its zero value is an empty list.
type Errors []Error

// Key is a name as a part of a pointer: ~ and / written as RFC 6901 asks.
func Key(name string) string { return strings.NewReplacer("~", "~0", "/", "~1").Replace(name) }

// Add notes a mistake at pointer, with alternating names and values.
func (e *Errors) Add(pointer, id string, pairs ...any) {
	*e = append(*e, Error{Pointer: pointer, Wrong: Because(id, pairs...)})
}

// Text adds a text of more than so many characters as a mistake, spaces at its ends counted, too.
func (e *Errors) Text(pointer, typed string, most int) {
	if utf8.RuneCountInString(typed) > most {
		e.Add(pointer, "text.too-long", "most", most)
	}
}

// Take notes err at pointer when err is not nil, and reports whether it was. Any
// error but a Wrong is a defect of the program and keeps its text under the id
// "unexpected".
func (e *Errors) Take(pointer string, err error) bool {
	switch err := err.(type) {
	case nil:
		return false
	case Wrong:
		*e = append(*e, Error{Pointer: pointer, Wrong: err})
	default:
		e.Add(pointer, "unexpected", "text", err.Error())
	}
	return true
}

// Put notes mistakes found below pointer.
func (e *Errors) Put(pointer string, found Errors) {
	for _, one := range found {
		*e = append(*e, Error{Pointer: pointer + one.Pointer, Wrong: one.Wrong})
	}
}

// Err returns e as an error, or nil when the list is empty.
func (e Errors) Err() error {
	if len(e) == 0 {
		return nil
	}
	return e
}

// Error implements error: one mistake a line.
func (e Errors) Error() string {
	lines := make([]string, len(e))
	for i, one := range e {
		lines[i] = one.Error()
	}
	return strings.Join(lines, "\n")
}
