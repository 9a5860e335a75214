package quantity

import (
	"errors"
	"regexp"
	"strings"
	"unicode"
	"unicode/utf8"

	"verjuice/internal/core/field"
)

// parseTerms splits s into numbers with units. want helps to read short units. Of a
// temperature whose scale is missing the term is returned with the question.
func parseTerms(s string, want dimension) ([]term, error) {
	out, err := readTerms(s, want)
	return out, wanting(err, want)
}

func readTerms(s string, want dimension) ([]term, error) {
	if !utf8.ValidString(s) {
		return nil, asks("unreadable-text")
	}
	if len(s) > maxInput {
		return nil, asks("too-long", "wanted", want.name())
	}
	s = strings.NewReplacer("⁄", "/", "∕", "/", "\u00a0", " ").Replace(strings.TrimSpace(s))
	if s == "" {
		return nil, asks("missing", "wanted", want.name())
	}
	s = sameEnds(heard(s))
	if t, ok := twoEnds(s, want); ok {
		return []term{t}, nil
	}
	return termsOf(s, want)
}

// bothEnds are the ends of a range that have units of their own: 45 min to 1 h 30, 1 h 30 to 2 h.
var bothEnds = regexp.MustCompile(`(?i)^(.*?(?:[a-z²]|\dh\s*\d\d|\d h(?:(?:ou)?rs?)? ?\d\d))\s*(?:–|—|-|\bto\b)\s*(.+)$`)

// twoEnds reads a range whose ends have units of their own: in the unit that the upper one begins with.
func twoEnds(s string, want dimension) (term, bool) {
	ends := bothEnds.FindStringSubmatch(s)
	if ends == nil || want == temperature {
		return term{}, false
	}
	end := func(s string) (float64, []term, bool) {
		terms, err := termsOf(s, want)
		total := 0.0
		for i, t := range terms {
			if want == duration && i == 1 && t.unit == "" && terms[0].unit_.factor == 3600 {
				t.unit_ = units["min"] // 1 h 30
			} else if t.unit == "" || t.unit_.dim != terms[0].unit_.dim {
				return 0, nil, false
			}
			total += t.value * t.unit_.factor
		}
		return total, terms, err == nil && total > 0
	}
	low, _, ok := end(ends[1])
	high, terms, also := end(ends[2])
	if !ok || !also || high <= low {
		return term{}, false
	}
	out := terms[0]
	f := out.unit_.factor
	out.value, out.low, out.high = middle(low/f, high/f), low/f, high/f
	return out, true
}

// termsOf reads terms one after another.
func termsOf(s string, want dimension) ([]term, error) {
	var terms []term
	for rest := s; rest != ""; {
		if len(terms) > 0 {
			rest = strings.TrimSpace(joiner.ReplaceAllString(rest, ""))
		}
		before := s[:len(s)-len(rest)]
		if strings.HasPrefix(rest, "-") || strings.HasPrefix(rest, "−") {
			return nil, asks("not-positive")
		}
		t, tail, err := nextTerm(before, rest, want)
		if err != nil && len(terms) > 0 && Asks(err, "unreadable") {
			kept := strings.TrimRight(before, " ,+")
			return nil, offering(asks("more-words", "typed", clip(rest), "words", rest, "kept", kept), kept)
		}
		if err != nil && !Asks(err, "which-scale") {
			return nil, err
		}
		// "an hour and a half": half of the hour.
		if t.spelt && t.unit == "" && t.value < 1 && len(terms) > 0 {
			t.unit, t.unit_ = terms[len(terms)-1].unit, terms[len(terms)-1].unit_
		}
		terms = append(terms, t)
		if err != nil {
			return terms, err
		}
		rest = strings.TrimSpace(tail)
	}
	return terms, nil
}

// joiner is what may stand between two terms.
var joiner = regexp.MustCompile(`^(?:,\s|\+|and\b|&)`)

// times is the mark between how many and how much each: "2 × 330 mL".
var times = regexp.MustCompile(`^\s*[x×*]\s*(?:[0-9½¼¾⅓⅔])`)

// upTo is the mark of a range: "1-2 Tbsp", "1 to 2 Tbsp".
var upTo = regexp.MustCompile(`^\s*(?:-|–|—|to\b)\s*`)

// nextTerm reads the number and the unit at the front of s, which stands after before.
func nextTerm(before, s string, want dimension) (term, string, error) {
	value, after, err := number(s)
	var t term
	if err != nil {
		if value, after, t.spelt = spelt(s); !t.spelt {
			return t, s, withOffers(err, before, s)
		}
	}
	if mark := times.FindString(after); mark != "" && !t.spelt {
		each, tail, err := number(strings.TrimLeft(after, " x×*"))
		if err != nil {
			return t, s, err
		}
		value, after = value*each, tail
	}
	t.value, t.low, t.high = value, value, value
	if high, tail, ok := rangeEnd(after); ok {
		end, _, err := number(high)
		if err != nil {
			return t, s, err
		}
		if end <= value {
			low := strings.TrimSpace(s[:len(s)-len(after)])
			return t, s, offering(asks("range"), before+join(low, tail), before+join(high, tail))
		}
		t.value, t.high, after = middle(value, end), end, tail
	}
	word, tail := unitWord(after)
	t.unit = word
	if word == "" {
		return t, tail, nil
	}
	u, ok := lookup(word, want)
	if !ok {
		return t, s, asks("unknown-unit", "unit", clip(word), "wanted", want.name())
	}
	t.unit_ = u
	if u.dim == ambiguous {
		err := asks(u.ask, "unit", strings.ToLower(word), "number", Number(value))
		var offers []string
		for _, one := range u.offers {
			offers = append(offers, before+Number(value)+" "+one+tail)
		}
		return t, tail, offering(err, offers...)
	}
	return t, tail, nil
}

func join(number, unit string) string {
	return strings.TrimSpace(number + " " + strings.TrimSpace(unit))
}

// rangeEnd splits "-2 Tbsp" into the number that a range ends at and what follows.
func rangeEnd(s string) (high, tail string, ok bool) {
	mark := upTo.FindString(s)
	if mark == "" {
		return "", "", false
	}
	_, tail, err := number(s[len(mark):])
	if err != nil {
		return "", "", false
	}
	return strings.TrimSpace(s[len(mark) : len(s)-len(tail)]), tail, true
}

// withOffers adds to the question of a number with a comma what it may be, in the text
// it stands in.
func withOffers(err error, before, s string) error {
	var why field.Wrong
	if !errors.As(err, &why) || why.ID != "quantity.thousand-or-decimal" {
		return err
	}
	typed, _ := why.Values["typed"].(string)
	decimal, _ := why.Values["decimal"].(string)
	thousand, _ := why.Values["thousand"].(string)
	return offering(err, before+strings.Replace(s, typed, decimal, 1), before+strings.Replace(s, typed, thousand, 1))
}

// numberWords are the numbers that cooks write out.
var numberWords = map[string]float64{
	"a": 1, "an": 1, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8,
	"nine": 9, "ten": 10, "eleven": 11, "twelve": 12, "half": 0.5, "quarter": 0.25,
}

// IsNumberWord reports whether a word is a number written out: "two", "half", "a".
func IsNumberWord(word string) bool { return numberWords[strings.ToLower(word)] > 0 }

// part is half or quarter after a number: "one and a half pounds", "half a cup".
var part = regexp.MustCompile(`(?i)^\s*and\s+an?\s+(half|quarter)\b`)
var ofOne = regexp.MustCompile(`(?i)^\s*an?\b`)

// spelt reads a number word from the front of s.
func spelt(s string) (value float64, rest string, ok bool) {
	end := strings.IndexFunc(s, func(r rune) bool { return !unicode.IsLetter(r) })
	if end < 0 {
		end = len(s)
	}
	word := strings.ToLower(s[:end])
	value, ok = numberWords[word]
	if !ok {
		return 0, s, false
	}
	rest = s[end:]
	switch word {
	case "half", "quarter":
		rest = rest[len(ofOne.FindString(rest)):]
	case "a", "an":
		if more, tail, ok := spelt(strings.TrimLeft(rest, " ")); ok && more < 1 {
			return more, tail, true
		}
	default:
		if m := part.FindStringSubmatch(rest); m != nil {
			value, rest = value+numberWords[strings.ToLower(m[1])], rest[len(m[0]):]
		}
	}
	return value, rest, true
}

// twoWords are the first words of units that have two.
var twoWords = map[string]bool{"fl": true, "fluid": true, "uk": true, "us": true, "imperial": true}

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
	low := strings.TrimSuffix(strings.ToLower(word), ".")
	if low == "and" {
		return "", s
	}
	if twoWords[low] {
		if next, tail := unitWord(rest); next != "" {
			return low + " " + strings.TrimSuffix(strings.ToLower(next), "."), tail
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
