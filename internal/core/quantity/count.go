package quantity

import (
	"bytes"
	"encoding/json"
	"regexp"
	"strconv"
	"strings"
)

// Count is how many whole things there are, as typed: "34". Empty is not given.
type Count string

// CountOf is n as it would be typed; zero is not given.
func CountOf(n int) Count {
	if n == 0 {
		return ""
	}
	return Count(strconv.Itoa(n))
}

var plainCount = regexp.MustCompile(`^[1-9][0-9]{0,8}$`)

// Parse reads a count; an empty one is 0. The error is about what was typed.
func (c Count) Parse() (int, error) {
	typed := strings.TrimSpace(string(c))
	if typed == "" {
		return 0, nil
	}
	n, err := strconv.Atoi(typed)
	if err != nil {
		return 0, asks("count", "typed", clip(typed))
	}
	return n, nil
}

// Int is the count, or 0 when it cannot be read.
func (c Count) Int() int {
	n, _ := c.Parse()
	return n
}

// MarshalJSON writes a plain count as a number and anything else as it was typed.
func (c Count) MarshalJSON() ([]byte, error) {
	if plainCount.MatchString(string(c)) {
		return []byte(c), nil
	}
	return json.Marshal(string(c))
}

// UnmarshalJSON reads a number or a text. Pages from before counts were typed hold 0
// for one that is not given.
func (c *Count) UnmarshalJSON(raw []byte) error {
	if len(raw) > 0 && raw[0] != '"' && !bytes.Equal(raw, []byte("null")) {
		var n json.Number
		if err := json.Unmarshal(raw, &n); err != nil {
			return err
		}
		if *c = Count(n); n == "0" {
			*c = ""
		}
		return nil
	}
	return json.Unmarshal(raw, (*string)(c))
}
