// Package retelling reads how a cook went as its cook tells it, afterwards and in a few words.
//
//	moves, errs := retelling.Read("wrapped about four hours in, 165, foil; off at nine hours, 203", on)
//	moves[0]   // a wrap in foil four hours after it went on, at a core of 74 °C
package retelling

import (
	"cmp"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/quantity"
)

// Move is something that was done, and when.
type Move struct {
	Said  string    // as it was told
	What  string    // one of facts.Stages, or read for a core that was read
	At    time.Time // when
	CoreC float64   // that was read then, °C; zero when none was
	SetC  float64   // what the pit was set to, °C, for set
	Kind  string    // of a wrap
}

// what are the words for what was done, the longer ones first.
var what = []struct {
	words *regexp.Regexp
	what  string
}{
	{regexp.MustCompile(`\b(?:unwrapped|unwrap|took (?:the )?(?:foil|paper) off)\b`), "unwrap"},
	{regexp.MustCompile(`\b(?:wrapped|wrap|foiled)\b`), "wrap"},
	{regexp.MustCompile(`\b(?:pit|cooker|smoker|oven|turned|raised|bumped|cranked)\b.*\b(?:up |down )?to\b`), "set"},
	{regexp.MustCompile(`\b(?:off|pulled|pull|took it off|came off|done)\b`), "off"},
	{regexp.MustCompile(`\b(?:rested|resting|rest|cooler)\b`), "rest"},
	{regexp.MustCompile(`\b(?:sliced|slice|carved|cut|served|ate)\b`), "slice"},
	{regexp.MustCompile(`\b(?:spritzed|spritz|sprayed)\b`), "spritz"},
	{regexp.MustCompile(`\b(?:basted|baste|mopped)\b`), "baste"},
	{regexp.MustCompile(`\b(?:glazed|glaze|sauced)\b`), "glaze"},
	{regexp.MustCompile(`\b(?:turned|flipped|rotated)\b`), "turn"},
	{regexp.MustCompile(`\b(?:looked|checked|opened)\b`), "look"},
	{regexp.MustCompile(`\b(?:fuel|charcoal|briquettes|pellets)\b`), "fuel"},
	{regexp.MustCompile(`\b(?:wood|chunk|chunks|log|split)\b`), "wood"},
	{regexp.MustCompile(`\b(?:was at|read|reading|showed|stall|stalled)\b`), "read"},
}

// wrapped is the wrap that a text names, the last word of its table first: a pan of foil is a pan.
func wrapped(text string) string {
	words := notLetters.Split(text, -1)
	for _, w := range slices.Backward(gear.Wraps) {
		if w.OnFire && (slices.Contains(words, w.ID) || w.Also != "" && slices.Contains(words, w.Also)) {
			return w.ID
		}
	}
	return ""
}

var notLetters = regexp.MustCompile(`[^a-z]+`)

var numbers = map[string]string{
	"half an": "0.5", "a half": "0.5", "half": "0.5", "an": "1", "one": "1", "two": "2", "three": "3", "four": "4",
	"five": "5", "six": "6", "seven": "7", "eight": "8", "nine": "9", "ten": "10",
	"eleven": "11", "twelve": "12", "thirteen": "13", "fourteen": "14", "fifteen": "15", "sixteen": "16", "twenty": "20",
	"thirty": "30", "forty": "40",
}

var (
	clauses = regexp.MustCompile(`[;\n]+|\.\s+|,?\s+then\s+`)
	wordNum = regexp.MustCompile(
		`\b(half an|a half|half|an|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|thirteen|fourteen|fifteen|sixteen|twenty|thirty|forty)\b(?: and a half)?(?:\s*-?\s*)(hours?|hrs?|h|minutes?|mins?|min)\b`,
	)
	duration = regexp.MustCompile(
		`(\d+(?:[.,]\d+)?)(?:\s*(½|and a half))?\s*(?:hours?|hrs?|h)\b(?:\s*(?:and\s*)?(\d+)\s*(?:minutes?|mins?|min|m)?\b)?|(\d+)\s*(?:minutes?|mins?|min)\b`,
	)
	clock   = regexp.MustCompile(`\b(\d{1,2}):(\d{2})\s*(am|pm)?\b|\b(\d{1,2})\s*(am|pm)\b`)
	halves  = regexp.MustCompile(`\b(\d+) and a half\b`)
	tight   = regexp.MustCompile(`\b(\d+)h(\d{1,2})\b`)
	later   = regexp.MustCompile(`\b(?:later|after that|more)\b`)
	degrees = regexp.MustCompile(`(\d+(?:[.,]\d+)?)\s*(?:°\s*)?(c|f|degrees)?\b`)
)

// Longest is how long a cook that is told may have gone on.
const Longest = 72 * time.Hour

// Read reads what was told of a piece that went on at a time. Mistakes point at the clause, from 0;
// the moves that are clear are given all the same.
func Read(told string, on time.Time) ([]Move, field.Errors) {
	var out []Move
	var wrong field.Errors
	last := on
	n := -1
	for _, said := range clauses.Split(strings.TrimSpace(told), -1) {
		if said = strings.TrimSpace(strings.TrimRight(said, ".")); said == "" {
			continue
		}
		n++
		m, err := clause(said, on, last)
		if wrong.Take("/"+strconv.Itoa(n), err) {
			continue
		}
		last = m.At
		out = append(out, m)
	}
	if n < 0 {
		wrong.Add("", "tale.missing")
	}
	return out, wrong
}

// clause reads one thing that was done.
func clause(said string, on, last time.Time) (Move, error) {
	text := strings.ToLower(said)
	m := Move{Said: said}
	for _, w := range what {
		if w.words.MatchString(text) {
			m.What = w.what
			break
		}
	}
	if m.What == "" {
		return m, field.Because("tale.what", "said", said)
	}
	text = tight.ReplaceAllString(halves.ReplaceAllString(text, "$1.5"), "$1 h $2 min")
	text = wordNum.ReplaceAllStringFunc(text, func(s string) string {
		g := wordNum.FindStringSubmatch(s)
		n := numbers[g[1]]
		if strings.Contains(s, "and a half") {
			n += ".5"
		}
		return n + " " + g[2]
	})
	rest, err := m.when(text, on, last)
	if err != nil {
		return m, err
	}
	return m, m.warm(rest)
}

// when finds the time of a move, and gives what is left of the text.
func (m *Move) when(text string, on, last time.Time) (string, error) {
	if g := clock.FindStringSubmatch(text); g != nil {
		h, _ := strconv.Atoi(g[1] + g[4])
		minutes, _ := strconv.Atoi(g[2])
		switch half := g[3] + g[5]; {
		case half == "pm" && h < 12:
			h += 12
		case half == "am" && h == 12:
			h = 0
		}
		if h > 23 || minutes > 59 {
			return text, field.Because("tale.when", "said", m.Said)
		}
		m.At = time.Date(last.Year(), last.Month(), last.Day(), h, minutes, 0, 0, last.Location())
		if m.At.Before(last) {
			m.At = m.At.AddDate(0, 0, 1)
		}
		return clock.ReplaceAllString(text, " "), m.bounded(on)
	}
	g := duration.FindStringSubmatch(text)
	if g == nil {
		return text, field.Because("tale.when", "said", m.Said)
	}
	number := func(s string) float64 {
		v, _ := strconv.ParseFloat(strings.ReplaceAll(s, ",", "."), 64)
		return v
	}
	hours := number(g[1]) + number(g[3])/60 + number(g[4])/60
	if g[2] != "" {
		hours += 0.5
	}
	from := on
	if later.MatchString(text) {
		from = last
	}
	m.At = from.Add(time.Duration(hours * float64(time.Hour))).Round(time.Minute)
	if m.What == "rest" && !later.MatchString(text) { // "rested 2 h": from when it came off
		m.At = last
	}
	return duration.ReplaceAllString(text, " "), m.bounded(on)
}

func (m *Move) bounded(on time.Time) error {
	if m.At.Before(on) || m.At.Sub(on) > Longest {
		return field.Because("tale.long", "said", m.Said)
	}
	return nil
}

// What a core and a pit can be, °C.
const lowCore, highCore, lowPit, highPit = 0, 110, 60, 350

// warm finds the temperature of a move, and what it was wrapped in.
func (m *Move) warm(text string) error {
	if m.What == "wrap" {
		m.Kind = cmp.Or(wrapped(text), "foil")
	}
	g := degrees.FindStringSubmatch(text)
	if g == nil {
		if m.What == "set" || m.What == "read" {
			return field.Because("tale.degrees", "said", m.Said)
		}
		return nil
	}
	unit := map[string]string{"c": " °C", "f": " °F"}[g[2]]
	low, high := quantity.Celsius(lowCore), quantity.Celsius(highCore)
	if m.What == "set" {
		low, high = lowPit, highPit
	}
	if v, _ := strconv.ParseFloat(strings.ReplaceAll(g[1], ",", "."), 64); unit == "" {
		if unit = " °C"; v > float64(high) || m.What == "set" && v >= 180 {
			unit = " °F"
		}
	}
	c, err := quantity.ParseTemperatureWithin(g[1]+unit, low, high)
	if err != nil || c < low || c > high {
		return field.Because("tale.degrees", "said", m.Said)
	}
	if m.What == "set" {
		m.SetC = float64(c)
	} else {
		m.CoreC = float64(c)
	}
	return nil
}
