package sheet

import (
	"fmt"
	"strings"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/plan"
)

// Line is a cook in a list.
type Line struct {
	Serve  string
	Away   string
	Past   bool
	Pieces []string
}

// Headline returns the line of c in a list, at the time now.
func Headline(c Cook, now time.Time) Line {
	line := Line{Pieces: []string{}}
	var errs field.Errors
	if serve, _ := readServe(c, Options{}, &errs); !serve.IsZero() {
		line.Serve, line.Away, line.Past = plan.Day(serve), plan.Away(serve, now), serve.Before(now)
	}
	for _, p := range c.Pieces {
		known, _ := cut.Find(p.Cut)
		name := title(p, known)
		if p.Count > 1 {
			name = fmt.Sprintf("%d × %s", p.Count, name)
		}
		line.Pieces = append(line.Pieces, name)
	}
	return line
}

// Check returns every mistake in c as a field.Errors, or nil.
func Check(c Cook, opt Options) error { return Compute(c, opt).Errors.Err() }

// Copy returns c for another occasion: the same pieces, no date, and a name that
// tells it from the first.
func Copy(c Cook) Cook {
	const mark = ", again"
	if !strings.HasSuffix(c.Name, mark) && len(c.Name)+len(mark) <= maxText {
		c.Name += mark
	}
	c.ServeAt, c.Marks, c.Acks, c.Plan = "", nil, nil, ""
	return c
}
