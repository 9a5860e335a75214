// Package weather reads what a cook says of the weather at the pit, over the day.
//
//	spells, err := weather.Parse("cold and windy until noon, then rain")
//	weather.From(spells, on)   // as the fire feels it, in hours from when the piece goes on
package weather

import (
	"math"
	"regexp"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// Spell is weather that lasts until the next one begins.
type Spell struct {
	heat.Ambient
	Kind string  // what it is nearest to of mild, cold, windy and wet
	Fuel float64 // that a pit burns in it, against calm and mild
	From string  // time of day at which it begins, 15:04; empty is from the start
}

// kind is a word for weather and what it does. Field judgement, in the middle of what people call so.
type kind struct {
	airC, wind, rain float64 // rain is 1, or 0 for dry; NaN says nothing of it
}

var unsaid = math.NaN()

var kinds = map[string]kind{
	"mild": {heat.Mild, unsaid, unsaid}, "warm": {22, unsaid, unsaid}, "hot": {30, unsaid, unsaid},
	"cool": {8, unsaid, unsaid}, "cold": {0, unsaid, unsaid}, "freezing": {-8, unsaid, unsaid},
	"still": {unsaid, 0, unsaid}, "sun": {unsaid, unsaid, 0}, "dry": {unsaid, unsaid, 0},
	"cloud": {unsaid, unsaid, unsaid}, "breeze": {unsaid, 3, unsaid}, "wind": {unsaid, 8, unsaid},
	"storm": {unsaid, 14, 1}, "rain": {8, 3, 1}, "snow": {-1, 3, 1},
}

// Wind cools and cold is seldom still: what goes with the one where nothing is said of the other. Field judgement.
const windyAirC, windyFrom, coldWind, coldUnder = 10, 5, 3, 5

// What weather takes of fuel more than calm and mild, as a share: for each degree under mild, each m/s of wind, and
// rain. Field experience: a cold day takes a quarter more, a windy one half, a wet one two fifths.
const coldFuel, windFuel, rainFuel = 1. / 210, 5. / 84, 79. / 420

// words are other words for a kind of weather.
var words = map[string]string{
	"chilly": "cool", "fresh": "cool", "frost": "freezing", "frosty": "freezing", "frozen": "freezing", "icy": "freezing",
	"ice": "freezing", "calm": "still", "clear": "sun", "sunny": "sun", "sunshine": "sun",
	"fine": "sun", "fair": "sun", "cloudy": "cloud", "clouds": "cloud", "overcast": "cloud", "fog": "cloud",
	"foggy": "cloud", "breezy": "breeze", "draughty": "breeze", "windy": "wind", "winds": "wind", "gusts": "wind",
	"gusty": "wind", "blowing": "wind", "stormy": "storm", "gale": "storm", "gales": "storm", "thunderstorm": "storm",
	"thunder": "storm", "rainy": "rain", "raining": "rain", "showers": "rain", "shower": "rain", "drizzle": "rain",
	"wet": "rain", "sleet": "snow", "hail": "rain", "snowy": "snow", "snowing": "snow", "heat": "hot",
	"lukewarm": "mild",
}

// filler are words that change nothing.
var filler = []string{
	"and", "with", "a", "an", "some", "the", "weather", "it", "is", "light", "bit", "of", "in", "then", "but", "very",
	"all", "day", "long", "be", "will", "strong", "later", "about",
}

// dayParts are parts of the day, as clocks.
var dayParts = strings.NewReplacer(
	"in the morning", "from 06:00", "in the afternoon", "from 12:00", "in the evening", "from 18:00",
	"at night", "from 22:00", "overnight", "from 22:00", "tonight", "from 18:00", "at dawn", "from 06:00",
	"the morning", "06:00", "the afternoon", "12:00", "the evening", "18:00", "dawn", "06:00", "dusk", "20:00",
)

// mostSpells is how many spells are read.
const mostSpells = 8

const clock = `\s+(noon|midday|midnight|\d{1,2}(?:[:.]\d\d)?\s*(?:am|pm|a\.m\.|p\.m\.|o.clock|h)?)(?:\s|$)`

var (
	spellParts = regexp.MustCompile(`\s*[,;]\s*|\s+then\s+`)
	from       = regexp.MustCompile(`\b(?:from|at|after|around)` + clock)
	until      = regexp.MustCompile(`\b(?:until|till|to|before)` + clock)
	hour       = regexp.MustCompile(`^\d+$`)
	speed      = regexp.MustCompile(`(\d+(?:[.,]\d+)?)\s*(m/s|km/h|kmh|kph|mph|kn|knots)(?:\s|$)`)
	degrees    = regexp.MustCompile(`[-−–]?\d+(?:[.,]\d+)?\s*(?:°\s*[cf]?|degrees?|[cf])(?:\s|$)`)
)

// perS is m/s in one of a unit of wind.
var perS = map[string]float64{
	"m/s": 1, "km/h": 1 / 3.6, "kmh": 1 / 3.6, "kph": 1 / 3.6, "mph": 0.44704, "kn": 0.5144, "knots": 0.5144,
}

// Parse reads weather over the day: "cold and windy until noon, then rain", "snow from 14:00", "3 °C, 20 km/h
// wind". What has no end goes on under what comes later. Nothing typed is no weather. The error is a field.Wrong.
func Parse(typed string) ([]Spell, error) {
	text := dayParts.Replace(strings.ToLower(strings.Trim(typed, " .\t\n")))
	if text == "" {
		return nil, nil
	}
	parts := spellParts.Split(text, -1)
	if len(parts) > mostSpells {
		return nil, field.Because("list.too-long", "most", mostSpells)
	}
	var (
		out   []Spell
		stays kind // what goes on under what comes later
		next  string
	)
	stays = nothing
	for _, part := range parts {
		begins, part, err := cutClock(from, part)
		if err != nil {
			return nil, err
		}
		ends, part, err := cutClock(until, part)
		if err != nil {
			return nil, err
		}
		says, err := parseKinds(part)
		if err != nil {
			return nil, err
		}
		if begins == "" {
			begins = next
		}
		if begins != "" && len(out) == 0 {
			out = append(out, stays.spell(""))
		}
		now := says.over(stays)
		if n := len(out); n > 0 && begins == "" {
			out[n-1] = now.spell(out[n-1].From) // said of the same time
		} else {
			out = append(out, now.spell(begins))
		}
		if next = ends; ends == "" {
			stays = now
		}
	}
	if next != "" {
		out = append(out, stays.spell(next))
	}
	return out, nil
}

// cutClock takes a time of day out of text, and what is left; empty when there is none.
func cutClock(of *regexp.Regexp, text string) (at, left string, err error) {
	m := of.FindStringSubmatchIndex(text)
	if m == nil {
		return "", text, nil
	}
	said := strings.TrimSpace(text[m[2]:m[3]])
	if hour.MatchString(said) {
		said += ":00"
	}
	w, err := when.Parse("at " + said)
	if err != nil {
		return "", text, err
	}
	return w.First.Clock, text[:m[0]] + " " + text[m[1]:], nil
}

// parseKinds reads weather of one time.
func parseKinds(text string) (kind, error) {
	out, typed := nothing, nothing
	if m := speed.FindStringSubmatchIndex(text); m != nil {
		v, err := quantity.ParseParts(text[m[2]:m[3]])
		if err != nil {
			return out, err
		}
		if typed.wind = v * perS[text[m[4]:m[5]]]; typed.wind > 40 {
			return out, field.Because("weather.wind")
		}
		text = text[:m[0]] + " " + text[m[1]:]
	}
	if m := degrees.FindStringIndex(text); m != nil {
		c, err := quantity.ParseTemperatureWithin(strings.TrimSpace(text[m[0]:m[1]]), -40, 55)
		if err != nil {
			return out, err
		}
		if c < -40 || c > 55 {
			return out, field.Because("temperature.range", "low", quantity.Celsius(-40), "high", quantity.Celsius(55))
		}
		typed.airC = float64(c)
		text = text[:m[0]] + " " + text[m[1]:]
	}
	for _, w := range strings.Fields(strings.NewReplacer("/", " ", "+", " ", "&", " ", ".", " ").Replace(text)) {
		if other := words[w]; other != "" {
			w = other
		}
		k, known := kinds[w]
		switch {
		case known:
			out = out.with(k)
		case !slices.Contains(filler, w):
			return out, field.Because("weather.unknown", "word", w)
		}
	}
	return typed.over(out), nil
}

var nothing = kind{unsaid, unsaid, unsaid}

// with is both kinds at once: the colder, the windier.
func (k kind) with(o kind) kind {
	return kind{pick(k.airC, o.airC, math.Min), pick(k.wind, o.wind, math.Max), pick(k.rain, o.rain, math.Max)}
}

func pick(a, b float64, of func(a, b float64) float64) float64 {
	switch {
	case math.IsNaN(a):
		return b
	case math.IsNaN(b):
		return a
	}
	return of(a, b)
}

// over is k, and what it does not say from o.
func (k kind) over(o kind) kind {
	first := func(a, _ float64) float64 { return a }
	return kind{pick(k.airC, o.airC, first), pick(k.wind, o.wind, first), pick(k.rain, o.rain, first)}
}

// spell is k as the fire feels it; what it does not say is mild and still.
func (k kind) spell(at string) Spell {
	said := func(usual, v float64) float64 {
		if math.IsNaN(v) {
			return usual
		}
		return v
	}
	usualC, usualWind := heat.Mild, 0.0
	if k.wind >= windyFrom {
		usualC = windyAirC
	}
	if k.airC < coldUnder {
		usualWind = coldWind
	}
	air := heat.Ambient{AirC: said(usualC, k.airC), Wind: said(usualWind, k.wind), Rain: k.rain == 1}
	out := Spell{Ambient: air, Kind: "mild", From: at}
	out.Fuel = 1 + coldFuel*max(0, heat.Mild-air.AirC) + windFuel*air.Wind
	if air.Rain {
		out.Fuel += rainFuel
	}
	switch {
	case air.Rain:
		out.Kind = "wet"
	case air.Wind >= windyFrom:
		out.Kind = "windy"
	case air.AirC < coldUnder:
		out.Kind = "cold"
	}
	return out
}

// Of is the weather of a choice, mild, cold, windy or wet, as the word is read; anything else is mild.
func Of(choice string) Spell {
	if all, err := Parse(choice); err == nil && len(all) == 1 {
		return all[0]
	}
	return nothing.spell("")
}

// From is the weather in hours from when a piece goes on, in order. A time of day is the one that lies between
// eight hours before that and sixteen after, and no earlier than the one before it. Without on it is as at the
// start.
func From(all []Spell, on time.Time) []heat.Spell {
	const ago = 8 * time.Hour
	var out []heat.Spell
	last := on.Add(-ago)
	for _, s := range all {
		switch {
		case s.From == "":
			out = append(out, heat.Spell{Ambient: s.Ambient})
			continue
		case on.IsZero():
			continue
		}
		last = when.Next(last, s.From)
		h := max(0, last.Sub(on).Hours())
		for len(out) > 0 && out[len(out)-1].AtH >= h {
			out = out[:len(out)-1]
		}
		out = append(out, heat.Spell{AtH: h, Ambient: s.Ambient})
	}
	return out
}

// Worst is the spell that takes most fuel; mild when there is none.
func Worst(all []Spell) Spell {
	out := nothing.spell("")
	for _, s := range all {
		if s.Fuel > out.Fuel {
			out = s
		}
	}
	return out
}
