package retelling

import (
	"math"
)

// span of hours or of degrees that was told; both ends alike where it was one figure.
type span struct{ low, high float64 }

func (s span) mid() float64 { return (s.low + s.high) / 2 }

// reader goes through the tokens of a text.
type reader struct {
	all []token
	// The text has times that only a clock of 24 hours shows: 10:30 is in the morning in it.
	all24 bool
}

// tells24 reports whether some time of a text is one that only a clock of 24 hours shows: 13:30, or 06:15.
func tells24(all []token) bool {
	for i, t := range all {
		half := i+1 < len(all) && oneOf(all[i+1].text, "am", "pm")
		if t.kind == clock && !half && (t.value >= 13*60 || t.text[0] == '0') {
			return true
		}
	}
	return false
}

func (r reader) at(i int) token {
	if i < 0 || i >= len(r.all) {
		return token{kind: mark}
	}
	return r.all[i]
}

// text of token i, where it is a word or a mark.
func (r reader) text(i int) string {
	if t := r.at(i); t.kind == word || t.kind == mark {
		return t.text
	}
	return ""
}

// is reports whether the words from i on are these, and where they end.
func (r reader) is(i int, phrase ...string) (int, bool) {
	for k, w := range phrase {
		if r.text(i+k) != w {
			return i, false
		}
	}
	return i + len(phrase), true
}

// amount is a number with its range: 4, four and a half, 4 to 5, between 4 and 5, a couple of, half an.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (r reader) amount(i int) (span, int, bool) {
	one := func(i int) (float64, int, bool) {
		switch t := r.at(i); {
		case t.kind == number:
			v, next := t.value, i+1
			if r.text(next) == "ish" || r.text(next) == "-" && r.text(next+1) == "ish" {
				if next++; r.text(next) == "ish" {
					next++
				}
			}
			for _, part := range []struct {
				words []string
				v     float64
			}{
				{[]string{"and", "a", "half"}, 0.5}, {[]string{"and", "a", "quarter"}, 0.25}, {[]string{"and", "half"}, 0.5},
			} {
				if j, ok := r.is(next, part.words...); ok {
					return v + part.v, j, true
				}
			}
			if j, ok := r.is(next, "and"); ok && r.at(j).kind == number && r.at(j).value == 3 &&
				(r.text(j+1) == "quarters" || r.text(j+1) == "quarter" && unitOf(r.text(j+2)) > 0) {
				return v + 0.75, j + 2, true
			}
			if j, ok := r.is(next, "quarters", "of", "an"); ok && v == 3 {
				return 0.75, j, true
			}
			if j, ok := r.is(next, "and"); ok && r.at(j).kind == number && r.at(j).value < 1 && r.at(j).value > 0 {
				return v + r.at(j).value, j + 1, true
			}
			return v, next, true
		case t.text == "half":
			if j, ok := r.is(i+1, "an"); ok {
				return 0.5, j, true
			}
			if j, ok := r.is(i+1, "a"); ok {
				return 0.5, j, true
			}
			return 0.5, i + 1, unitOf(r.text(i+1)) > 0
		}
		for _, p := range []struct {
			words []string
			v     float64
		}{
			{[]string{"a", "couple", "of"}, 2}, {[]string{"couple", "of"}, 2}, {[]string{"a", "couple"}, 2},
			{[]string{"a", "few"}, 3},
			{[]string{"a", "quarter", "of", "an"}, 0.25}, {[]string{"quarter", "of", "an"}, 0.25}, {[]string{"a",
				"quarter"}, 0.25},
			{[]string{"an"}, 1}, {[]string{"a"}, 1}, {[]string{"a", "half"}, 0.5},
		} {
			if j, ok := r.is(i, p.words...); ok && unitOf(r.text(r.hyphen(j))) > 0 {
				return p.v, j, true
			}
		}
		return 0, i, false
	}
	if j, ok := r.is(i, "between"); ok {
		if a, k, ok := one(j); ok && r.text(k) == "and" {
			if b, n, ok := one(k + 1); ok {
				return span{min(a, b), max(a, b)}, n, true
			}
		}
	}
	a, next, ok := one(i)
	if !ok {
		return span{}, i, false
	}
	if w := r.text(next); (oneOf(w, "to", "-", "–", "or")) && a > 0 {
		if b, n, ok := one(next + 1); ok && b > a && b < 4*a+3 {
			return span{a, b}, n, true
		}
	}
	return span{a, a}, next, true
}

// hyphen steps over one: 4-hour.
func (r reader) hyphen(i int) int {
	if r.text(i) == "-" {
		return i + 1
	}
	return i
}

// unitOf is how many hours a unit has; zero for another word.
func unitOf(w string) float64 {
	switch w {
	case "h", "hr", "hrs", "hour", "hours":
		return 1
	case "m", "min", "mins", "minute", "minutes":
		return 1.0 / 60
	case "day", "days":
		return 24
	}
	return 0
}

// lasting is a length of time: 4 h, 2 hours 30, an hour and a half, half an hour, an hour or two, 8h30. Hours.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func (r reader) lasting(i int) (span, int, bool) {
	if t := r.at(i); t.kind == mixed {
		return span{t.value / 60, t.value / 60}, i + 1, true
	}
	v, next, ok := r.amount(i)
	if !ok {
		return span{}, i, false
	}
	next = r.hyphen(next)
	if oneOf(r.text(next), "more", "extra") && unitOf(r.text(next+1)) > 0 { // ten more minutes
		next++
	}
	unit := unitOf(r.text(next))
	if unit == 0 {
		return span{}, i, false
	}
	out := span{v.low * unit, v.high * unit}
	next++
	for _, more := range []struct {
		words []string
		v     float64
	}{{[]string{"and", "a", "half"}, 0.5}, {[]string{"and", "a", "quarter"}, 0.25}} {
		if j, ok := r.is(next, more.words...); ok && unitOf(r.text(j)) == 0 {
			return span{out.low + more.v*unit, out.high + more.v*unit}, j, true
		}
	}
	if j, ok := r.is(next, "and"); ok && unit == 1 && r.at(j).kind == number {
		n := r.at(j).value
		switch last := j+1 >= len(r.all) || r.at(j+1).kind == mark || ends(r.at(j+1)); {
		case n == 3 && r.text(j+1) == "quarters": // an hour and three quarters
			return span{out.low + 0.75, out.high + 0.75}, j + 2, true
		case last && n >= 5 && n < 60 && math.Mod(n, 5) == 0: // an hour and twenty
			return span{out.low + n/60, out.high + n/60}, j + 1, true
		}
	}
	if r.text(next) == "or" && r.at(next+1).kind == number {
		if b := r.at(next+1).value * unit; b > out.low && unitOf(r.text(next+2)) == 0 {
			return span{out.low, b}, next + 2, true
		}
	}
	if j, ok := r.is(next, "or", "so"); ok {
		return out, j, true
	}
	j := next
	if r.text(j) == "and" {
		j++
	}
	if unit == 1 {
		if more, k, ok := r.amount(j); ok {
			k = r.hyphen(k)
			switch u := unitOf(r.text(k)); {
			case u > 0 && u < 1:
				return span{out.low + more.low*u, out.high + more.high*u}, k + 1, true
			case u == 0 && j == next && more.low >= 1 && more.low < 60 && more.low == more.high &&
				r.all[k-1].kind == number && !r.degree(k):
				return span{out.low + more.low/60, out.high + more.low/60}, k, true
			}
		}
	}
	return out, next, true
}

// degree reports whether what follows makes a number a temperature.
func (r reader) degree(i int) bool {
	switch r.text(i) {
	case "°", "º", "degrees", "degree", "deg", "c", "f", "celsius", "fahrenheit":
		return true
	}
	return false
}

// heatOf is a temperature as it was told: its scale is c, f, or empty.
type heatOf struct {
	span
	scale string
}

// temperature reads 165, 165 F, 95 °C, 165 to 170 degrees.
func (r reader) temperature(i int) (h heatOf, next int, ok bool) {
	v, k, ok := r.amount(i)
	if !ok || r.at(i).kind != number && r.text(i) != "between" {
		return h, i, false
	}
	scale, sign := "", false
	// 165 F to 170 F: the scale stands at the first as well.
	for {
		switch w := r.text(k); w {
		case "°", "º", "degrees", "degree", "deg", "ish":
			sign = true
			k++
			continue
		case "-":
			if r.text(k+1) == "ish" {
				k += 2
				continue
			}
		case "c", "f", "celsius", "fahrenheit":
			scale = w[:1]
			sign = true
			k++
		}
		break
	}
	if scale != "" && v.low == v.high && (oneOf(r.text(k), "to", "-", "–")) && r.at(k+1).kind == number {
		if more, n, ok := r.temperature(k + 1); ok && more.scale == scale && more.low > v.low {
			return heatOf{span{v.low, more.high}, scale}, n, true
		}
	}
	if !sign && (v.low < 30 || v.high > 400 || v.low != math.Trunc(v.low*2)/2 || unitOf(r.text(k)) > 0 ||
		massOf(r.text(k)) > 0 || r.text(k) == "%") {
		return h, i, false
	}
	return heatOf{v, scale}, k, true
}

// massOf is how many kilograms a unit has; zero for another word.
func massOf(w string) float64 {
	switch w {
	case "kg", "kgs", "kilo", "kilos", "kilogram", "kilograms":
		return 1
	case "g", "gram", "grams":
		return 0.001
	case "lb", "lbs", "pound", "pounds":
		return 0.45359237
	case "oz", "ounce", "ounces":
		return 0.028349523
	}
	return 0
}
