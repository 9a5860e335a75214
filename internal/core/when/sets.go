package when

import (
	"regexp"
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Pit temperatures that can be typed, °C: from cold smoke to searing. The cautions say what is
// risky.
const LowPit, HighPit = 15, 350

// Set is what a pit is set to, from a moment on.
type Set struct {
	C  quantity.Celsius
	At Cond // by the clock, by hours on the fire, or once the last piece is wrapped; none is from the start
}

// mostSets is how many temperatures a pit's list takes.
const mostSets = 8

var (
	setParts = regexp.MustCompile(`\s*[,;]\s*(?:then\s+)?`)
	setWhen  = regexp.MustCompile(
		`^(.*?)\s+(?:(?:from|at|once|when)\s+(.+)|((?:[\d½¼¾]\S*(?:\s+[a-z]+)?\s+)*(?:after|before) .+))$`,
	)
)

// ParseSets reads what a pit is set to over the day: "107 °C from 23:00, 135 °C once wrapped".
// Nothing typed is no list. The error is a field.Wrong.
func ParseSets(typed string) ([]Set, error) {
	if typed = strings.TrimSpace(typed); typed == "" {
		return nil, nil
	}
	parts, out := setParts.Split(typed, -1), []Set{}
	if len(parts) > mostSets {
		return nil, field.Because("list.too-long", "most", mostSets)
	}
	for i, part := range parts {
		text, moment := part, ""
		if m := setWhen.FindStringSubmatch(part); m != nil {
			text, moment = m[1], m[2]+m[3]
		}
		var s Set
		var err error
		if s.C, err = quantity.ParseTemperatureWithin(text, LowPit, HighPit); err != nil {
			return nil, err
		}
		if s.C < LowPit || s.C > HighPit {
			return nil, field.Because("temperature.range", "low", quantity.Celsius(LowPit), "high", quantity.Celsius(HighPit))
		}
		switch {
		case moment != "":
			w, err := Parse(moment)
			if err != nil {
				return nil, err
			}
			if c := w.First; !w.Second.None() || c.CoreC != 0 || c.Sign != "" || c.Share != 0 || c.Of != "" &&
				c.Of != "wrap" && c.Of != "on" {
				return nil, field.Because("pit.sets-moment", "typed", clip(part))
			}
			s.At = w.First
		case i > 0:
			return nil, field.Because("pit.sets-when", "typed", clip(part))
		}
		out = append(out, s)
	}
	return out, nil
}

// Typed is a list of set-points as it is typed; ParseSets reads it back.
func Typed(all []Set) string {
	parts := make([]string, len(all))
	for i, s := range all {
		parts[i] = quantity.Number(float64(s.C)) + " °C"
		if moment := s.At.typed(); moment != "" {
			parts[i] += " " + moment
		}
	}
	return strings.Join(parts, ", ")
}

// typed is the moment of a set-point as it is typed.
func (c Cond) typed() string {
	of := map[string]string{"wrap": "the wrap", "on": "it goes on"}[c.Of]
	switch {
	case c.Clock != "":
		return "from " + c.Clock
	case of != "" && c.By == 0:
		return "after " + of
	case of != "" && c.By < 0:
		return span(-c.By) + " before " + of
	case of != "":
		return span(c.By) + " after " + of
	case c.After > 0:
		return "after " + span(c.After)
	}
	return ""
}

func span(d time.Duration) string {
	if d%time.Hour == 0 {
		return quantity.Number(d.Hours()) + " h"
	}
	return quantity.Number(d.Minutes()) + " min"
}
