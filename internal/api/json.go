package api

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"strconv"
	"strings"

	"verjuice/internal/core/field"
)

// unreadable is a body that is not the JSON we can use, with the place.
type unreadable struct{ pointer, detail string }

func (u unreadable) Error() string { return u.detail }

// unreadableBody is where a body cannot be read, and why; false when it is JSON. Errors of reading pass through
// huma as their text alone, together with the body.
func unreadableBody(body string) (unreadable, bool) {
	var any any
	var why unreadable
	ok := errors.As(unmarshal([]byte(body), &any), &why)
	return why, ok
}

// unmarshal reads JSON and says in a cook's words, with a pointer, what of it
// cannot be used.
func unmarshal(data []byte, v any) error {
	err := json.Unmarshal(data, v)
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &syntax):
		return unreadable{
			pointerAt(data, syntax.Offset),
			fmt.Sprintf("this is not JSON: %v at byte %d", syntax, syntax.Offset),
		}
	case errors.As(err, &kind):
		return unreadable{pointerAt(data, kind.Offset), fmt.Sprintf("%s is out of range or of the wrong kind", kind.Value)}
	case err != nil:
		return unreadable{"", "this is not usable JSON"}
	}
	field.CleanAll(v)
	return nil
}

// pointerAt returns the JSON pointer of the value that ends at byte offset, or one
// byte before it: encoding/json counts the delimiter after a number.
func pointerAt(data []byte, offset int64) string {
	type level struct {
		array bool
		key   string
		n     int  // elements seen, of an array
		value bool // an object's key has been read and its value is next
	}
	var path []level
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.UseNumber()
	for dec.InputOffset() < offset-1 {
		token, err := dec.Token()
		if err != nil {
			break
		}
		delim, isDelim := token.(json.Delim)
		if isDelim && (delim == '}' || delim == ']') {
			path = path[:len(path)-1]
			continue
		}
		if n := len(path); n > 0 {
			top := &path[n-1]
			switch {
			case top.array:
				top.key = strconv.Itoa(top.n)
				top.n++
			case !top.value:
				top.key, _ = token.(string)
				top.value = true
				continue
			default:
				top.value = false
			}
		}
		if isDelim {
			path = append(path, level{array: delim == '['})
		}
	}
	var out strings.Builder
	for _, l := range path {
		if l.key != "" {
			out.WriteString("/" + field.Key(l.key))
		}
	}
	return out.String()
}
