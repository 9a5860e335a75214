package quantity

import (
	"errors"
	"maps"
	"math"
	"regexp"
	"strings"
	"time"

	"verjuice/internal/core/field"
)

// maxInput bounds what is read: no amount is longer than this.
const maxInput = 80

type dimension int

const (
	none dimension = iota
	mass
	volume
	length
	temperature
	duration
	percent
	ambiguous
)

// name is what the dimension is called in values.
func (d dimension) name() string {
	return [...]string{"number", "weight", "volume", "length", "temperature", "time", "percentage", "unit"}[d]
}

type unit struct {
	dim    dimension
	factor float64  // SI units in one of this
	metric float64  // the same by metric spoons, where that differs
	pint   bool     // another one for cooks with metric spoons
	ask    string   // for ambiguous units: the id of the question
	offers []string // for ambiguous units: those that it may be
}

// units maps what people type, in lower case, to a unit. Single letters whose
// case matters are looked up before lowering (see lookup).
var units = func() map[string]unit {
	m := map[string]unit{}
	put := func(d dimension, factor float64, names ...string) {
		for _, n := range names {
			m[n] = unit{dim: d, factor: factor}
		}
	}
	us := USSpoons
	put(mass, 1, "kg", "kgs", "kilo", "kilos", "kilogram", "kilograms", "kilogramme", "kilogrammes")
	put(mass, 1e-3, "g", "gr", "gm", "gms", "gram", "grams", "gramme", "grammes")
	put(mass, 1e-6, "mg", "milligram", "milligrams")
	put(mass, float64(Pound), "lb", "lbs", "pound", "pounds", "#")
	put(mass, float64(Ounce), "oz", "ounce", "ounces")
	metric := MetricSpoons
	for _, spoon := range []struct {
		size  func(SpoonSet) Volume
		names []string
	}{
		{SpoonSet.Teaspoon, []string{"tsp", "tsps", "teaspoon", "teaspoons"}},
		{SpoonSet.Tablespoon, []string{"tbsp", "tbsps", "tbs", "tablespoon", "tablespoons"}},
		{SpoonSet.Cup, []string{"cup", "cups", "c"}},
	} {
		for _, n := range spoon.names {
			m[n] = unit{dim: volume, factor: float64(spoon.size(us)), metric: float64(spoon.size(metric))}
		}
	}
	put(volume, 6*float64(us.Teaspoon()), "floz", "fl oz", "fluid ounce", "fluid ounces")
	put(volume, 2*float64(us.Cup()), "us pint", "us pints")
	put(volume, imperialPint, "uk pint", "uk pints", "imperial pint", "imperial pints")
	for _, n := range []string{"pint", "pints", "pt"} {
		m[n] = unit{dim: volume, factor: 2 * float64(us.Cup()), pint: true}
	}
	put(volume, 4*float64(us.Cup()), "quart", "quarts", "qt", "qts")
	put(volume, 16*float64(us.Cup()), "gal", "gallon", "gallons")
	put(volume, 1e-6, "ml", "millilitre", "millilitres", "milliliter", "milliliters", "cc")
	put(volume, 1e-5, "cl")
	put(volume, 1e-4, "dl")
	put(volume, 1e-3, "l", "litre", "litres", "liter", "liters")
	put(length, 1e-3, "mm", "millimetre", "millimetres", "millimeter", "millimeters")
	put(length, 1e-2, "cm", "centimetre", "centimetres", "centimeter", "centimeters")
	put(length, float64(Inch), "in", "ins", "inch", "inches", `"`, "″", "”")
	put(temperature, 1, "°c", "celsius", "centigrade")
	put(temperature, 5.0/9, "f", "°f", "fahrenheit")
	put(duration, 60, "min", "mins", "minute", "minutes", "m")
	put(duration, 3600, "h", "hr", "hrs", "hour", "hours")
	put(duration, 86400, "d", "day", "days")
	put(percent, 1, "%", "percent", "pct")
	for _, n := range []string{"t", "spoon", "spoons", "spoonful", "spoonfuls"} {
		m[n] = unit{dim: ambiguous, ask: "teaspoon-or-tablespoon", offers: []string{"tsp", "Tbsp"}}
	}
	m["°"] = unit{dim: ambiguous, ask: "which-scale", offers: []string{"°C", "°F"}}
	for _, n := range containers {
		m[n] = unit{dim: ambiguous, ask: "how-much-is-one"}
		m[n+"s"] = unit{dim: ambiguous, ask: "how-much-is-one"}
	}
	delete(m, "dashs")
	m["dashes"], m["pinches"], m["bunches"] = m["dash"], m["pinch"], m["bunch"]
	return m
}()

// imperialPint is a pint in the United Kingdom (Weights and Measures Act 1985), m³.
const imperialPint = 0.56826125e-3

// containers hold or weigh as much as it says on them, which nobody else knows.
var containers = []string{"bottle", "can", "tin", "jar", "packet", "bag", "box", "carton", "tub", "tube",
	"clove", "head", "bulb", "bunch", "sprig", "leaf", "slice", "handful", "pinch", "dash", "splash", "drop", "cube",
	"piece"}

// term is one number with its unit.
type term struct {
	value     float64
	low, high float64 // of a range; else both are value
	spelt     bool    // a number word
	unit      string  // as typed
	unit_     unit
}

// asks returns the question that s raises, for package sheet to put in words.
func asks(id string, pairs ...any) error { return field.Because("quantity."+id, pairs...) }

// wanting adds to a question what would have been right.
func wanting(err error, want dimension) error {
	var why field.Wrong
	if !errors.As(err, &why) || why.Values["wanted"] != nil {
		return err
	}
	values := maps.Clone(why.Values)
	if values == nil {
		values = field.Values{}
	}
	values["wanted"] = want.name()
	return field.Wrong{ID: why.ID, Values: values}
}

// offering adds to a question the texts that would answer it, each in place of what was
// typed.
func offering(err error, texts ...string) error {
	var why field.Wrong
	if !errors.As(err, &why) || len(texts) == 0 {
		return err
	}
	values := maps.Clone(why.Values)
	if values == nil {
		values = field.Values{}
	}
	values["offers"] = texts
	return field.Wrong{ID: why.ID, Values: values}
}

// Asks tells whether err is the question of that id.
func Asks(err error, id string) bool {
	var why field.Wrong
	return errors.As(err, &why) && why.ID == "quantity."+id
}

// lookup finds the unit of a typed word in the dimension wanted. A word can
// mean two things (c: cup or Celsius, m: minute or metre); the wanted dimension
// decides.
func lookup(word string, want dimension) (unit, bool) {
	low := strings.TrimSuffix(strings.ToLower(word), ".")
	if want == temperature && low == "c" {
		return unit{dim: temperature, factor: 1}, true
	}
	if want == length && low == "m" {
		return unit{dim: length, factor: 1}, true
	}
	u, ok := units[low]
	return u, ok
}

// sum reads s as a sum of terms of one dimension, in SI units.
func sum(s string, want dimension) (float64, error) { return sumIn(s, want, USSpoons) }

// sumIn is sum with the spoons and cups of a set.
func sumIn(s string, want dimension, set SpoonSet) (float64, error) {
	terms, err := parseTerms(s, want)
	if err != nil {
		return 0, err
	}
	total := 0.0
	for _, t := range terms {
		switch {
		case t.unit == "":
			return 0, asks("no-unit", "number", Number(t.value), "wanted", want.name())
		case t.unit_.dim != want:
			return 0, asks("other-dimension", "unit", clip(t.unit), "is", t.unit_.dim.name(), "wanted", want.name())
		}
		factor := t.unit_.factor
		if set == MetricSpoons && t.unit_.pint {
			return 0, offering(asks("which-pint"), "473 mL", "568 mL")
		}
		if set == MetricSpoons && t.unit_.metric > 0 {
			factor = t.unit_.metric
		}
		total += t.value * factor
	}
	if total <= 0 {
		return 0, asks("not-positive")
	}
	return total, nil
}

// ParseMass reads a weight: "2.2 kg", "4 lb 6 oz", "38 oz", "2,2kg". The result
// is positive and finite.
func ParseMass(s string) (Mass, error) {
	v, err := sum(s, mass)
	return Mass(v), err
}

// ParseWeighed reads what a scale showed: a weight in any unit, a bare number is grams.
// Zero is allowed.
func ParseWeighed(s string) (Mass, error) {
	if g, err := ParseParts(s); err == nil {
		return Mass(g) * Gram, nil
	}
	return ParseMass(s)
}

// ParseVolume reads a volume in US customary or metric measure: "1 1/2 cups",
// "2 Tbsp + 1 tsp", "500 mL"; spoons and cups are those of set. An "oz" of liquid is
// refused: fl oz or weight?
func ParseVolume(s string, set SpoonSet) (Volume, error) {
	v, err := sumIn(s, volume, set)
	return Volume(v), err
}

// ParseLength reads a length: "85 mm", "8.5cm", "1 1/2 in".
func ParseLength(s string) (Length, error) {
	v, err := sum(s, length)
	return Length(v), err
}

// clockTime is a time span as a clock shows it: "1:30".
var clockTime = regexp.MustCompile(`^\s*([0-9]{1,2}):([0-5][0-9])\s*(?:h|hours?)?\s*$`)

// ParseDuration reads a time span: "90 min", "1h30", "1:30", "1 h 30 min", "2 d",
// "one hour". Of a range it is the middle.
func ParseDuration(s string) (time.Duration, error) {
	middle, _, err := parseDuration(s)
	return middle, err
}

// DurationOff is half of the range that was typed for a time span; zero where one figure was, or none is read.
func DurationOff(s string) time.Duration {
	_, off, _ := parseDuration(s)
	return off
}

// parseDuration is a time span, the middle of a range with half of it.
func parseDuration(s string) (middle, off time.Duration, err error) {
	s = clockTime.ReplaceAllString(s, "${1}h${2}")
	terms, err := parseTerms(s, duration)
	if err != nil {
		return 0, 0, err
	}
	// "1h30": a bare number after hours is minutes.
	if n := len(terms); n == 2 && terms[1].unit == "" && terms[0].unit_.factor == 3600 {
		terms[1].unit, terms[1].unit_ = "min", units["min"]
	}
	total, half := 0.0, 0.0
	for _, t := range terms {
		if t.unit == "" {
			return 0, 0, asks("no-unit", "number", Number(t.value), "wanted", duration.name())
		}
		if t.unit_.dim != duration {
			return 0, 0, asks("not-a", "unit", clip(t.unit), "wanted", duration.name())
		}
		total += t.value * t.unit_.factor
		half += (t.high - t.low) / 2 * t.unit_.factor
	}
	const tenYears = 10 * 366 * 86400
	if total > tenYears {
		return 0, 0, asks("endless", "wanted", duration.name())
	}
	seconds := func(s float64) time.Duration { return time.Duration(s * float64(time.Second)).Round(time.Second) }
	return seconds(total), seconds(half), nil
}

// areas are the units of a grate, in dm².
var areas = []struct {
	unit *regexp.Regexp
	dm2  float64
}{
	{regexp.MustCompile(`(?i)\s*(?:dm²|dm2)?\s*$`), 1},
	{regexp.MustCompile(`(?i)\s*(?:cm²|cm2)\s*$`), 0.01},
	{regexp.MustCompile(`(?i)\s*(?:m²|m2)\s*$`), 100},
	{regexp.MustCompile(`(?i)\s*(?:in²|in2|(?:sq\.?|square)\s*in(?:ch|ches)?\.?)\s*$`), float64(Inch*Inch) * 100},
}

// ParseArea reads the size of a grate, in dm²: "46 dm²", "4600 cm²", "700 sq in". A bare
// number is dm².
func ParseArea(s string) (float64, error) {
	for _, a := range areas {
		if n, err := ParseParts(a.unit.ReplaceAllString(s, "")); err == nil {
			return n * a.dm2, nil
		}
	}
	return 0, asks("area", "typed", clip(s))
}

// degrees are the ways to write the sign.
var degrees = regexp.MustCompile(`(?i)\s*(?:[°º˚]|\bdegrees?\b|\bdeg\b\.?|deg(?:[cf]))\s*`)

// oneSign is a temperature as it is typed with the sign for degrees.
func oneSign(s string) string {
	return degrees.ReplaceAllStringFunc(strings.TrimSpace(s), func(mark string) string {
		if last := mark[len(mark)-1]; strings.ContainsRune("cCfF", rune(last)) {
			return "°" + string(last)
		}
		return "°"
	})
}

// ParseTemperature reads a temperature: "250F", "121 °C", "250 degrees F", "-2 °C". A bare
// number is refused, since it could be of either scale.
func ParseTemperature(s string) (Celsius, error) { return ParseTemperatureWithin(s, -273, 5000) }

// ParseTemperatureWithin is ParseTemperature where only low to high makes sense: of a
// number without its unit, the scales in which it does are offered. Another
// temperature is returned all the same.
func ParseTemperatureWithin(s string, low, high Celsius) (Celsius, error) {
	s = oneSign(s)
	sign := 1.0
	for _, minus := range []string{"-", "−"} {
		if after, ok := strings.CutPrefix(s, minus); ok {
			s, sign = after, -1
		}
	}
	terms, err := parseTerms(s, temperature)
	if err != nil && !Asks(err, "which-scale") {
		return 0, err
	}
	if len(terms) != 1 {
		return 0, asks("one-only", "wanted", temperature.name())
	}
	t := terms[0]
	celsius, fahrenheit := Celsius(sign*t.value), FromFahrenheit(sign*t.value)
	switch {
	case err != nil || t.unit == "":
		number := Number(sign * t.value)
		if t.high > t.low {
			number = Number(t.low) + "–" + Number(t.high)
		}
		var offers []string
		if celsius >= low && celsius <= high {
			offers = append(offers, number+" °C")
		}
		if fahrenheit >= low && fahrenheit <= high {
			offers = append(offers, number+" °F")
		}
		return 0, offering(asks("celsius-or-fahrenheit", "number", number, "wanted", temperature.name()), offers...)
	case t.unit_.dim != temperature:
		return 0, asks("not-a", "unit", clip(t.unit), "wanted", temperature.name())
	case t.unit_.factor != 1:
		return fahrenheit, nil
	}
	return celsius, nil
}

// TemperatureOff is half of the range that was typed for a temperature, °C; zero where one figure was, or none is
// read.
func TemperatureOff(s string) Celsius {
	terms, err := parseTerms(oneSign(s), temperature)
	if err != nil || len(terms) != 1 {
		return 0
	}
	off := (terms[0].high - terms[0].low) / 2
	if terms[0].unit_.factor != 1 {
		off *= 5. / 9
	}
	return Celsius(off)
}

// ParsePercent reads a percentage with or without its sign: "0.9", "0,9 %".
// Zero is allowed.
func ParsePercent(s string) (Percent, error) {
	v, err := plain(s, percent)
	return Percent(v), err
}

// ParseParts reads the number of parts of a row: "2", "1 1/2", "½". Zero is
// allowed (the row is there, with nothing of it).
func ParseParts(s string) (float64, error) {
	return plain(partWord.ReplaceAllString(s, "$1"), none)
}

// partWord is what follows the number of parts: two parts.
var partWord = regexp.MustCompile(`(?i)(\S)\s+parts?\s*$`)

func plain(s string, want dimension) (float64, error) {
	terms, err := parseTerms(s, want)
	if err != nil {
		return 0, err
	}
	if len(terms) != 1 || (terms[0].unit != "" && terms[0].unit_.dim != want) {
		return 0, asks("one-only", "wanted", want.name())
	}
	if terms[0].spelt && bare[strings.ToLower(strings.TrimSpace(s))] {
		return 0, wanting(asks("unreadable", "typed", clip(s)), want)
	}
	return terms[0].value, nil
}

// bare are number words that are none by themselves.
var bare = map[string]bool{"a": true, "an": true}

// Amount is a quantity of an ingredient, by weight or by volume. Exactly one of
// the two is set.
type Amount struct {
	Mass   Mass
	Volume Volume
	Off    float64 // half of the range that was said, as a share of its middle; zero where one figure was
}

// off is half of the range of terms of one unit, as a share of their sum.
func off(terms []term) float64 {
	half, sum := 0.0, 0.0
	for _, t := range terms {
		half += t.unit_.factor * (t.high - t.low) / 2
		sum += t.unit_.factor * t.value
	}
	if sum <= 0 {
		return 0
	}
	return half / sum
}

// Of is the mass of a, of something that weighs gramsPerML.
func (a Amount) Of(gramsPerML float64) Mass {
	return a.Mass + Mass(a.Volume.ML()*gramsPerML)*Gram
}

// ParseAmount reads an amount of an ingredient by weight or by volume, in the spoons
// and cups of set, and "1 stick" (of butter, 113.4 g). For a liquid a bare "oz" is
// refused, because it could be a weight or a volume.
func ParseAmount(s string, liquid bool, set SpoonSet) (Amount, error) {
	low := strings.ToLower(strings.TrimSpace(s))
	for _, word := range []string{"sticks", "stick"} {
		if head, ok := strings.CutSuffix(low, word); ok {
			if head = strings.TrimSuffix(strings.TrimSpace(head), " a"); bare[head] {
				head = "1"
			}
			n, err := ParseParts(head)
			return Amount{Mass: Mass(n) * 4 * Ounce}, err
		}
	}
	s, more := level(s)
	terms, err := parseTerms(s, volume)
	if err != nil {
		return Amount{}, err
	}
	for _, t := range terms {
		if liquid && t.unit_.dim == mass && t.unit_.factor == float64(Ounce) {
			n := Number(t.value)
			return Amount{}, offering(asks("ounce-of-liquid"), n+" fl oz", Number(math.Round(t.value*Ounce.Grams()*10)/10)+" g")
		}
	}
	if terms[0].unit_.dim == mass {
		m, err := ParseMass(s)
		return Amount{Mass: m, Off: off(terms)}, err
	}
	v, err := ParseVolume(s, set)
	if more == 1 || err != nil {
		return Amount{Volume: v, Off: off(terms)}, err
	}
	if len(terms) > 1 { // 1 cup and 1 heaped tsp: it is the spoon that is heaped
		return Amount{}, asks("one-only", "wanted", volume.name())
	}
	return Amount{Volume: v * Volume(more), Off: math.Hypot(off(terms), heapedOff)}, nil
}
