package quantity

import (
	"errors"
	"maps"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

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
	factor float64 // SI units in one of this
	metric float64 // the same by metric spoons, where that differs
	ask    string  // for ambiguous units: the id of the question
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
	put(volume, 2*float64(us.Cup()), "pint", "pints", "pt")
	put(volume, 4*float64(us.Cup()), "quart", "quarts", "qt", "qts")
	put(volume, 16*float64(us.Cup()), "gal", "gallon", "gallons")
	put(volume, 1e-6, "ml", "millilitre", "millilitres", "milliliter", "milliliters", "cc")
	put(volume, 1e-5, "cl")
	put(volume, 1e-4, "dl")
	put(volume, 1e-3, "l", "litre", "litres", "liter", "liters")
	put(length, 1e-3, "mm", "millimetre", "millimetres", "millimeter", "millimeters")
	put(length, 1e-2, "cm", "centimetre", "centimetres", "centimeter", "centimeters")
	put(length, float64(Inch), "in", "ins", "inch", "inches", `"`, "″", "”")
	put(temperature, 1, "°c", "ºc", "celsius", "degc")
	put(temperature, 5.0/9, "f", "°f", "ºf", "fahrenheit", "degf")
	put(duration, 60, "min", "mins", "minute", "minutes", "m")
	put(duration, 3600, "h", "hr", "hrs", "hour", "hours")
	put(duration, 86400, "d", "day", "days")
	put(percent, 1, "%", "percent", "pct")
	m["t"] = unit{dim: ambiguous, ask: "teaspoon-or-tablespoon"}
	return m
}()

// term is one number with its unit.
type term struct {
	value float64
	unit  string // as typed
	unit_ unit
}

// asks returns the question that s raises, for package sheet to put in words.
func asks(id string, pairs ...any) error { return field.Because("quantity."+id, pairs...) }

// wanting adds to a question what would have been right.
func wanting(err error, want dimension) error {
	var why field.Wrong
	if !errors.As(err, &why) || why.ID != "quantity.unreadable" {
		return err
	}
	values := maps.Clone(why.Values)
	values["wanted"] = want.name()
	return field.Wrong{ID: why.ID, Values: values}
}

// lookup finds the unit of a typed word in the dimension wanted. A word can
// mean two things (c: cup or Celsius, m: minute or metre); the wanted dimension
// decides.
func lookup(word string, want dimension) (unit, bool) {
	low := strings.TrimSuffix(strings.ToLower(word), ".")
	if want == temperature && (low == "c" || low == "°") {
		if low == "°" {
			return unit{dim: ambiguous, ask: "which-scale"}, true
		}
		return unit{dim: temperature, factor: 1}, true
	}
	if want == length && low == "m" {
		return unit{dim: length, factor: 1}, true
	}
	u, ok := units[low]
	return u, ok
}

// parseTerms splits s into numbers with units. want helps to read short units.
func parseTerms(s string, want dimension) ([]term, error) {
	if !utf8.ValidString(s) {
		return nil, asks("unreadable-text")
	}
	if len(s) > maxInput {
		return nil, asks("too-long", "wanted", want.name())
	}
	rest := strings.TrimSpace(s)
	if rest == "" {
		return nil, asks("missing", "wanted", want.name())
	}
	var terms []term
	for rest != "" {
		if len(terms) > 0 {
			rest = strings.TrimSpace(strings.TrimPrefix(strings.TrimPrefix(rest, "+"), "and "))
		}
		if strings.HasPrefix(rest, "-") || strings.HasPrefix(rest, "−") {
			return nil, asks("not-positive")
		}
		value, after, err := number(rest)
		if err != nil {
			return nil, wanting(err, want)
		}
		word, tail := unitWord(after)
		t := term{value: value, unit: word}
		if word != "" {
			u, ok := lookup(word, want)
			if !ok {
				return nil, asks("unknown-unit", "unit", clip(word), "wanted", want.name())
			}
			if u.dim == ambiguous {
				return nil, asks(u.ask)
			}
			t.unit_ = u
		}
		terms = append(terms, t)
		rest = strings.TrimSpace(tail)
	}
	return terms, nil
}

// unitWord splits the unit off the front of s: letters, degree and inch marks,
// and the two words of "fl oz".
func unitWord(s string) (word, rest string) {
	s = strings.TrimLeft(s, " ")
	end := 0
	for i, r := range s {
		if unicode.IsLetter(r) || strings.ContainsRune(`°º"″”%#.`, r) {
			end = i + utf8.RuneLen(r)
			continue
		}
		break
	}
	word, rest = s[:end], s[end:]
	low := strings.ToLower(word)
	if low == "and" {
		return "", s
	}
	if low == "fl" || low == "fl." || low == "fluid" {
		next, tail := unitWord(rest)
		if next != "" {
			return strings.TrimSuffix(low, ".") + " " + strings.TrimSuffix(strings.ToLower(next), "."), tail
		}
	}
	return word, rest
}

func clip(s string) string {
	r := []rune(s)
	if len(r) > 16 {
		return string(r[:16]) + "…"
	}
	return s
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

// ParseDuration reads a time span: "90 min", "1h30", "1 h 30 min", "2 d".
func ParseDuration(s string) (time.Duration, error) {
	terms, err := parseTerms(s, duration)
	if err != nil {
		return 0, err
	}
	// "1h30": a bare number after hours is minutes.
	if n := len(terms); n == 2 && terms[1].unit == "" && terms[0].unit_.factor == 3600 {
		terms[1].unit, terms[1].unit_ = "min", units["min"]
	}
	total := 0.0
	for _, t := range terms {
		if t.unit == "" {
			return 0, asks("no-unit", "number", Number(t.value), "wanted", duration.name())
		}
		if t.unit_.dim != duration {
			return 0, asks("not-a", "unit", clip(t.unit), "wanted", duration.name())
		}
		total += t.value * t.unit_.factor
	}
	const tenYears = 10 * 366 * 86400
	if total > tenYears {
		return 0, asks("endless")
	}
	return time.Duration(total * float64(time.Second)).Round(time.Second), nil
}

// ParseTemperature reads a temperature: "250F", "121 °C", "4 C", "-2 °C". A bare
// number is refused, since it could be of either scale.
func ParseTemperature(s string) (Celsius, error) {
	s = strings.TrimSpace(s)
	sign := 1.0
	for _, minus := range []string{"-", "−"} {
		if after, ok := strings.CutPrefix(s, minus); ok {
			s, sign = after, -1
		}
	}
	terms, err := parseTerms(s, temperature)
	if err != nil {
		return 0, err
	}
	if len(terms) != 1 {
		return 0, asks("one-only", "wanted", temperature.name())
	}
	t := terms[0]
	switch {
	case t.unit == "":
		return 0, asks("celsius-or-fahrenheit", "number", Number(sign*t.value))
	case t.unit_.dim != temperature:
		return 0, asks("not-a", "unit", clip(t.unit), "wanted", temperature.name())
	case t.unit_.factor != 1:
		return Celsius((sign*t.value - 32) * 5 / 9), nil
	}
	return Celsius(sign * t.value), nil
}

// ParsePercent reads a percentage with or without its sign: "0.9", "0,9 %".
// Zero is allowed.
func ParsePercent(s string) (Percent, error) {
	v, err := plain(s, percent)
	return Percent(v), err
}

// ParseParts reads the number of parts of a row: "2", "1 1/2", "½". Zero is
// allowed (the row is there, with nothing of it).
func ParseParts(s string) (float64, error) { return plain(s, none) }

func plain(s string, want dimension) (float64, error) {
	terms, err := parseTerms(s, want)
	if err != nil {
		return 0, err
	}
	if len(terms) != 1 || (terms[0].unit != "" && terms[0].unit_.dim != want) {
		return 0, asks("one-only", "wanted", want.name())
	}
	return terms[0].value, nil
}

// Amount is a quantity of an ingredient, by weight or by volume. Exactly one of
// the two is set.
type Amount struct {
	Mass   Mass
	Volume Volume
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
			n, err := ParseParts(head)
			return Amount{Mass: Mass(n) * 4 * Ounce}, err
		}
	}
	terms, err := parseTerms(s, volume)
	if err != nil {
		return Amount{}, err
	}
	for _, t := range terms {
		if liquid && t.unit_.dim == mass && t.unit_.factor == float64(Ounce) {
			return Amount{}, asks("ounce-of-liquid")
		}
	}
	if terms[0].unit_.dim == mass {
		m, err := ParseMass(s)
		return Amount{Mass: m}, err
	}
	v, err := ParseVolume(s, set)
	return Amount{Volume: v}, err
}
