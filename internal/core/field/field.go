// Package field carries errors to the place where the cook typed.
//
// A check does not stop at the first mistake: it adds each one to an Errors
// with a JSON pointer (RFC 6901) to the value that is wrong, so that the API can
// report all of them at once and a page can show each beside its input.
//
//	var errs field.Errors
//	errs.Add("/pieces/0/weight", "a weight is needed, for example 2.4 kg")
//	return errs.Err()
package field

import (
	"fmt"
	"strings"
)

// Error is one mistake: where it is, and a sentence that says what to do.
type Error struct {
	Pointer string `json:"pointer" doc:"JSON pointer to the value, as in RFC 6901" example:"/pieces/0/weight"`
	Detail  string `json:"detail" doc:"What is wrong and what to do, in a sentence"`
}

// Error implements error.
func (e Error) Error() string { return e.Pointer + ": " + e.Detail }

// Errors is a list of mistakes. Its zero value is an empty list.
type Errors []Error

// Key is a name as a part of a pointer: ~ and / written as RFC 6901 asks.
func Key(name string) string { return strings.NewReplacer("~", "~0", "/", "~1").Replace(name) }

// Add notes a mistake at pointer.
func (e *Errors) Add(pointer, format string, args ...any) {
	*e = append(*e, Error{Pointer: pointer, Detail: fmt.Sprintf(format, args...)})
}

// Take notes err at pointer when err is not nil, and reports whether it was.
func (e *Errors) Take(pointer string, err error) bool {
	if err != nil {
		e.Add(pointer, "%s", err.Error())
	}
	return err != nil
}

// Under reports whether a mistake is noted at pointer or below it.
func (e Errors) Under(pointer string) bool {
	for _, one := range e {
		if one.Pointer == pointer || strings.HasPrefix(one.Pointer, pointer+"/") {
			return true
		}
	}
	return false
}

// Err returns e as an error, or nil when the list is empty.
func (e Errors) Err() error {
	if len(e) == 0 {
		return nil
	}
	return e
}

// Error implements error: every mistake on a line of its own.
func (e Errors) Error() string {
	lines := make([]string, len(e))
	for i, one := range e {
		lines[i] = one.Error()
	}
	return strings.Join(lines, "\n")
}
