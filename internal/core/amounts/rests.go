package amounts

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Rests are what is done between the fire and the knife.
type Rests struct {
	All    time.Duration
	Vents  bool // opened first, for Vent
	Vent   time.Duration
	First  []Rest // one after another, before the place where it is held
	Held   string // the place where it waits for the knife; empty when none is said
	Travel time.Duration
}

// Rest is so long in a place.
type Rest struct {
	Place string
	Lasts time.Duration
}

// Part is one of the rests, with how long after the fire it begins.
type Part struct {
	ID    string // vent, its number from 0, or held
	Place string // vent, or one of cut.Rests; empty where it is held and no place is said
	From  time.Duration
	Lasts time.Duration // as asked for; the last one is what is left of All
}

// Parts are the rests one after another, without the travel.
func (r Rests) Parts() []Part {
	var out []Part
	at := time.Duration(0)
	add := func(id, place string, lasts time.Duration) {
		out = append(out, Part{id, place, at, lasts})
		at += lasts
	}
	if r.Vent > 0 {
		add("vent", "vent", r.Vent)
	}
	for i, one := range r.First {
		add(strconv.Itoa(i), one.Place, one.Lasts)
	}
	add("held", r.Held, max(0, r.All-at-r.Travel))
	return out
}

// mostRests is how many rests one after another are taken.
const mostRests = 8

// places are the words for where a piece rests, by the answers of the rest.
var places = []struct {
	words *regexp.Regexp
	place string
}{
	{regexp.MustCompile(`\b(?:vent(?:ed|ing)?|open|steam(?:ing)? off)\b`), "vent"},
	{regexp.MustCompile(`\b(?:travel(?:l?ing)?|driv(?:e|ing)|car|on the road)\b`), "travel"},
	{regexp.MustCompile(`\b(?:cooler|cool ?box|towels?)\b`), "cooler"},
	{regexp.MustCompile(`\b(?:holder|warmer|hot ?box|low oven)\b`), "holder"},
	{regexp.MustCompile(`\boven\b`), "oven"},
	{regexp.MustCompile(`\b(?:pit|smoker)\b`), "pit"},
	{regexp.MustCompile(`\b(?:counter|table|bench|room)\b`), "counter"},
	{regexp.MustCompile(`\bboard\b`), "board"},
	{regexp.MustCompile(`\btray\b`), "tray"},
	{regexp.MustCompile(`\bwrap(?:ped)?\b`), "wrapped"},
}

var thens = regexp.MustCompile(`\s*(?:[,;]\s*(?:then\b|and\b)?|\bthen\b|\band\b)\s*`)

// restTime is the time that a part of a rest begins with, and what is said after it.
func restTime(part string) (d time.Duration, after string, ok bool) {
	words := strings.Fields(strings.TrimPrefix(part, "for "))
	for n := len(words); n > 0; n-- {
		if d, err := quantity.ParseDuration(strings.Join(words[:n], " ")); err == nil {
			return d, strings.Join(words[n:], " "), true
		}
	}
	return 0, "", false
}

// ParseRests reads a rest: a time, or several one after another, each with its place: "10 min
// vented, 3 h cooler, 40 min travel". The last place is where it is held. The error is a
// field.Wrong.
func ParseRests(typed string) (Rests, error) {
	all, simple := quantity.ParseDuration(typed)
	if simple == nil {
		return Rests{All: all}, nil
	}
	out := Rests{}
	parts := thens.Split(strings.ToLower(strings.TrimSpace(typed)), -1)
	if len(parts) > mostRests {
		return out, field.Because("list.too-long", "most", mostRests)
	}
	for i, part := range parts {
		d, after, ok := restTime(part)
		if !ok {
			return out, simple
		}
		place := ""
		for _, w := range slices.Backward(places) {
			if w.words.MatchString(after) {
				place = w.place
			}
		}
		out.All += d
		switch {
		case place == "" && len(parts) == 1:
			return out, simple // "1 h in a bucket" is no time
		case place == "":
			return out, field.Because("rest.place", "typed", strings.TrimSpace(part))
		case place == "vent" && i > 0:
			return out, field.Because("rest.vent-first")
		case place == "vent":
			out.Vents, out.Vent = true, d
		case place == "travel" && i < len(parts)-1:
			return out, field.Because("rest.travel-last")
		case place == "travel":
			out.Travel = d
		default:
			out.First = append(out.First, Rest{place, d})
		}
	}
	if n := len(out.First); n > 0 {
		out.Held, out.First = out.First[n-1].Place, out.First[:n-1]
	}
	return out, nil
}
