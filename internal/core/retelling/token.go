package retelling

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"
)

// token is a word, a number or a mark of what was told.
type token struct {
	kind     kind
	text     string // lower case
	value    float64
	from, to int // bytes of what was told
}

type kind int

const (
	word   kind = iota
	number      // value
	clock       // 13:30, value in minutes
	mixed       // 8h30, value in minutes
	mark        // punctuation
)

// lexemes are what tokens look like, the longer ones first.
var lexemes = regexp.MustCompile(`(?i)` + strings.Join([]string{
	`(\d{1,2}:\d{2})`,
	`(\d{1,2}\s?h\s?\d{2}\b|\d{1,2}h\d{1,2}\b)`,
	`(\d+[ \x{00a0}-]\d/\d|\d+\s?[½¼¾⅓⅔]|\d/\d|[½¼¾⅓⅔]|\d+(?:[.,]\d+)?)`,
	`([ap]\.m\.?|\p{L}+(?:['’]\p{L}+)*)`,
	`(\.{2,}|\n|[^\s\x{00a0}\x{202f}])`,
}, "|"))

var fractions = map[string]float64{"½": 0.5, "¼": 0.25, "¾": 0.75, "⅓": 1.0 / 3, "⅔": 2.0 / 3}

// tokens takes a text apart.
func tokens(text string) []token {
	var out []token
	for _, m := range lexemes.FindAllStringSubmatchIndex(text, -1) {
		t := token{text: strings.ToLower(strings.ReplaceAll(text[m[0]:m[1]], "’", "'")), from: m[0], to: m[1]}
		group := 1
		for m[2*group] < 0 {
			group++
		}
		switch group {
		case 1:
			h, minutes, _ := strings.Cut(t.text, ":")
			t.kind, t.value = clock, 60*float(h)+float(minutes)
		case 2:
			h, minutes, _ := strings.Cut(t.text, "h")
			t.kind, t.value = mixed, 60*float(h)+float(minutes)
		case 3:
			t.kind, t.value = number, fraction(t.text)
		case 4:
			t.kind, t.text = word, strings.ReplaceAll(t.text, ".", "")
		default:
			t.kind = mark
		}
		out = append(out, t)
	}
	return spelt(meant(out))
}

// meant puts what is written short in words: w/ and @.
func meant(in []token) []token {
	var out []token
	for i := 0; i < len(in); i++ {
		t := in[i]
		switch {
		case t.text == "@":
			t.kind, t.text = word, "at"
		case t.text == "w" && i+1 < len(in) && in[i+1].text == "/":
			t.text, t.to = "with", in[i+1].to
			i++
		case t.text == "~":
			t.kind, t.text = word, "about"
		}
		out = append(out, t)
	}
	return out
}

func float(s string) float64 {
	v, _ := strconv.ParseFloat(strings.ReplaceAll(strings.TrimSpace(s), ",", "."), 64)
	return v
}

// fraction is the value of 7, 7.5, 7½, 7 1/2 or 1/2.
func fraction(s string) float64 {
	r, size := utf8.DecodeLastRuneInString(s)
	if f, ok := fractions[string(r)]; ok {
		return float(s[:len(s)-size]) + f
	}
	top, below, is := strings.Cut(s, "/")
	if !is {
		return float(s)
	}
	whole := 0.0
	if i := strings.LastIndexAny(top, " -\u00a0"); i >= 0 {
		whole, top = float(strings.TrimRight(top[:i], "\u00a0")), strings.TrimLeft(top[i:], " -\u00a0")
	}
	if float(below) == 0 {
		return whole
	}
	return whole + float(top)/float(below)
}

// Numbers in words.
var (
	ones = map[string]float64{
		"zero": 0, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9,
		"ten": 10, "eleven": 11, "twelve": 12, "thirteen": 13, "fourteen": 14, "fifteen": 15, "sixteen": 16, "seventeen": 17,
		"eighteen": 18, "nineteen": 19, "oh": 0,
	}
	tens = map[string]float64{
		"twenty": 20, "thirty": 30, "forty": 40, "fourty": 40, "fifty": 50, "sixty": 60, "seventy": 70, "eighty": 80,
		"ninety": 90,
	}
)

// spelt puts numbers in words together: forty five, two hundred and three, one sixty-five, two oh three.
//
// It has many branches because each way to say it is one of them, and none nests in another.
//
//gocyclo:ignore
func spelt(in []token) []token {
	var out []token
	at := func(i int) string {
		if i < len(in) && in[i].kind != number {
			return in[i].text
		}
		return ""
	}
	skip := func(i int) int { // a hyphen between two number words
		if at(i) == "-" {
			_, one := ones[at(i+1)]
			_, ten := tens[at(i+1)]
			if one || ten || at(i+1) == "hundred" {
				return i + 1
			}
		}
		return i
	}
	below := func(i int) (v float64, next int, ok bool) { // 0 to 99
		if t, is := tens[at(i)]; is {
			j := skip(i + 1)
			if o, is := ones[at(j)]; is && o < 10 && at(j) != "oh" && at(j) != "zero" {
				return t + o, j + 1, true
			}
			return t, i + 1, true
		}
		if o, is := ones[at(i)]; is && at(i) != "oh" {
			return o, i + 1, true
		}
		return 0, i, false
	}
	for i := 0; i < len(in); {
		v, next, ok := below(i)
		if at(i) == "a" && at(i+1) == "hundred" {
			v, next, ok = 1, i+1, true
		}
		if !ok {
			out = append(out, in[i])
			i++
			continue
		}
		switch j := skip(next); {
		case at(j) == "hundred":
			v, next = 100*v, j+1
			k := skip(next)
			if at(k) == "and" {
				k++
			}
			if rest, after, is := below(k); is {
				v, next = v+rest, after
			}
		case v >= 1 && v <= 3 && at(j) == "oh": // two oh three
			if o, is := ones[at(skip(j+1))]; is {
				v, next = 100*v+o, skip(j+1)+1
			}
		case v >= 1 && v <= 3:
			if rest, after, is := below(j); is && rest >= 10 { // one sixty five
				v, next = 100*v+rest, after
			}
		}
		out = append(out, token{number, "", v, in[i].from, in[next-1].to})
		i = next
	}
	return out
}

// oneOf reports whether a word is one of some.
func oneOf(w string, of ...string) bool { return slices.Contains(of, w) }
