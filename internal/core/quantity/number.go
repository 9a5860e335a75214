package quantity

import (
	"math"
	"strconv"
	"strings"
	"unicode/utf8"
)

var vulgar = map[rune]float64{
	'½': 1. / 2, '⅓': 1. / 3, '⅔': 2. / 3, '¼': 1. / 4, '¾': 3. / 4, '⅕': 1. / 5,
	'⅙': 1. / 6, '⅛': 1. / 8, '⅜': 3. / 8, '⅝': 5. / 8, '⅞': 7. / 8,
}

// number reads a number from the front of s: 2, 2.2, 2,2, 1/2, 1 1/2, 1½, ½.
func number(s string) (value float64, rest string, err error) {
	if r, size := utf8.DecodeRuneInString(s); vulgar[r] != 0 {
		return vulgar[r], s[size:], nil
	}
	digits, rest := leadingNumber(s)
	if digits == "" {
		return 0, s, asks("unreadable", "typed", clip(s))
	}
	whole, err := decimal(digits)
	if err != nil {
		return 0, s, err
	}
	isInt := !strings.ContainsAny(digits, ".,")
	if r, size := utf8.DecodeRuneInString(rest); vulgar[r] != 0 && isInt {
		return whole + vulgar[r], rest[size:], nil
	}
	if isInt && strings.HasPrefix(rest, "/") {
		return fraction(0, whole, rest)
	}
	// A mixed number: "1 1/2", "1-1/2".
	if after := strings.TrimLeft(strings.TrimPrefix(strings.TrimLeft(rest, " "), "-"), " "); isInt && after != rest {
		if r, size := utf8.DecodeRuneInString(after); vulgar[r] != 0 {
			return whole + vulgar[r], after[size:], nil
		}
		num, tail := leadingNumber(after)
		if num != "" && !strings.ContainsAny(num, ".,") && strings.HasPrefix(tail, "/") {
			n, err := decimal(num)
			if err != nil {
				return 0, s, err
			}
			return fraction(whole, n, tail)
		}
	}
	return whole, rest, nil
}

// fraction reads the "/ denominator" at the front of s.
func fraction(whole, numerator float64, s string) (float64, string, error) {
	digits, rest := leadingNumber(s[1:])
	if digits == "" || strings.ContainsAny(digits, ".,") {
		return 0, s, asks("fraction")
	}
	d, err := decimal(digits)
	if err != nil {
		return 0, s, err
	}
	if d == 0 {
		return 0, s, asks("over-zero")
	}
	return whole + numerator/d, rest, nil
}

func leadingNumber(s string) (digits, rest string) {
	end := 0
	for end < len(s) && (s[end] >= '0' && s[end] <= '9' || s[end] == '.' || s[end] == ',') {
		end++
	}
	digits = s[:end]
	trimmed := strings.TrimRight(digits, ".,")
	return trimmed, s[len(trimmed):]
}

func decimal(digits string) (float64, error) {
	if strings.Count(digits, ".")+strings.Count(digits, ",") > 1 {
		return 0, asks("several-ways", "typed", clip(digits))
	}
	if i := strings.Index(digits, ","); i > 0 && len(digits)-i-1 == 3 && digits[0] != '0' {
		return 0, asks(
			"thousand-or-decimal",
			"typed",
			digits,
			"decimal",
			digits[:i]+"."+digits[i+1:],
			"thousand",
			digits[:i]+digits[i+1:],
		)
	}
	v, err := strconv.ParseFloat(strings.Replace(digits, ",", ".", 1), 64)
	if err != nil || math.IsInf(v, 0) {
		return 0, asks("unusable-number", "typed", clip(digits))
	}
	return v, nil
}
