package quantity

import (
	"math"
	"regexp"
	"strings"
)

// heard is an amount as cooks say it in the form that is read: without about and or so, with its numbers in figures,
// between 2 and 3 as 2 to 3. What is a range of two ends stays one; it is read as its middle.
func heard(s string) string {
	if m := asFigures.FindStringSubmatch(s); m != nil { // nearly all that is typed: it is read on each letter
		if _, known := units[strings.ToLower(m[1])]; known || m[1] == "" {
			return s
		}
	}
	for _, r := range hearing {
		s = r.said.ReplaceAllString(s, r.means)
	}
	return strings.TrimSpace(s)
}

// asFigures is a figure with its unit, which is said no other way.
var asFigures = regexp.MustCompile(`^[\d.,/½¼¾⅓⅔]+\s*(?:°\s*)?([a-zA-Z%″"]*)$`)

// hearing are what cooks say, and what it means, in the order in which they are put in place. Fractions are
// written with a slash, so that they stay what they are.
var hearing = func() (out []struct {
	said  *regexp.Regexp
	means string
}) {
	put := func(said, means string) {
		out = append(out, struct {
			said  *regexp.Regexp
			means string
		}{regexp.MustCompile(`(?i)` + said), means})
	}
	const some = `one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve`
	put(`^\s*(?:(?:only|maybe|probably|some|somewhere|say)\s+)?(?:about|around|roughly|approx(?:imately|\.)?|circa|ca\.|~|nearly|almost|`+
		`just (?:under|over|below|above|short of)|a (?:bit|little) (?:under|over|more than|less than))\s*`, "")
	put(`\s+(?:or so|internally|internal|in the core|in the middle)\s*$`, "")
	put(`(\d)\s*-?ish\b`, "$1")
	put(`([cf])-?ish\b`, "$1")
	put(`^\s*between\s+(.+?)\s+and\s+`, "$1 to ")
	put(`^\s*an?\s+(hour|day|minute|pound|kilo|cup|tablespoon|teaspoon|tbsp|tsp|ounce)\s+or\s+(?:two|so|2)\s*$`, "1 to 2 ${1}s")
	put(`\b(?:a\s+)?couple\b(?:\s+of\b)?\s*`, "2 ")
	put(`\ba\s+few\b`, "2 to 4")
	put(`\bhalf\s+a\s+dozen\b`, "6")
	put(`\ba\s+dozen\b`, "12")
	for _, f := range [][2]string{
		{`three[ -]quarters?`, "3/4"}, {`two[ -]thirds?`, "2/3"}, {`(?:an?|one)[ -]third`, "1/3"},
		{`(?:an?|one)[ -]eighth`, "1/8"},
	} {
		put(`\b`+f[0]+`(?:\s+of)?(?:\s+an?)?\b`, f[1])
	}
	put(`\b(half|quarter)\s+of\s+(an?)\b`, "$1 $2")
	put(`(\d)\s+and\s+(?:an?\s+)?half\b`, "$1 1/2")
	put(`(\d)\s+and\s+(?:an?\s+)?quarter\b`, "$1 1/4")
	for n, word := range strings.Split(some, "|") { // one to two hours
		put(`\b`+word+`(\s+(?:to|or)\s+(?:`+some+`|\d))`, Number(float64(n+1))+"$1")
		put(`(\d\s*(?:to|or|-|–)\s*)`+word+`\b`, "${1}"+Number(float64(n+1)))
	}
	put(`(\d)\s+or\s+(\d)`, "$1 to $2")
	put(`\bplus\b`, "+")
	put(`\bmils?\b`, "mL")
	put(`\b(?:level|flat)\s+(t|tbsp|tsp|tea|table)`, "$1")
	// A can of 300 g is 300 g; two bottles of 330 mL are twice that.
	const held = `(\d[\d.,]*\s*(?:g|kg|ml|cl|dl|l|oz|fl oz|lb)\.?)\s*(?:can|tin|jar|bottle|packet|bag|box|carton|tub|tube)s?\s*$`
	put(`^\s*(?:an?|one|1)\s+`+held, "$1")
	put(`^\s*(\d+)\s+`+held, "$1 × $2")
	for n, word := range strings.Split(some, "|") {
		put(`^\s*`+word+`\s+`+held, Number(float64(n+1))+" × $1")
	}
	// The scale or unit may stand at both ends of a range.
	put(`^\s*(\d[\d.,/½¼¾⅓⅔ ]*?)\s*(°?\s*[a-z]+)\s*(to|-|–|—)\s*(\d[\d.,/½¼¾⅓⅔ ]*?)\s*(°?\s*[a-z]+)\s*$`, "$1\x00$2\x00$3\x00$4\x00$5")
	return out
}()

// sameEnds puts a range whose unit stands at both of its ends back together: 165 F to 170 F is 165 to 170 F. Another
// unit at its end is left as it was typed.
func sameEnds(s string) string {
	part := strings.Split(s, "\x00")
	if len(part) != 5 {
		return s
	}
	if strings.EqualFold(strings.ReplaceAll(part[1], " ", ""), strings.ReplaceAll(part[4], " ", "")) {
		return part[0] + " " + part[2] + " " + part[3] + " " + part[4]
	}
	return part[0] + " " + part[1] + " " + part[2] + " " + part[3] + " " + part[4]
}

// heaped are how much more or less a spoon holds that is not struck off level: field judgement.
var heaped = map[string]float64{
	"heaped": 1.5, "heaping": 1.5, "rounded": 1.25, "scant": 0.9, "good": 1.1, "generous": 1.1, "big": 1.1, "small": 0.9,
}

// heapedSpoon finds such a word before a spoon or a cup, and takes it out.
var heapedSpoon = regexp.MustCompile(`(?i)\b(heaped|heaping|rounded|scant|good|generous|big|small)\s+((?:[\d./½¼¾⅓⅔]+\s+|(?:a\s+)?(?:half|quarter|third)\s+(?:of\s+)?(?:an?\s+)?)?(?:tsps?|tbsps?|tbs|teaspoons?|tablespoons?|spoonfuls?|cups?))\b`)

// heapedOff is how far a spoon that is not struck off level may be off, as a share: field judgement.
const heapedOff = 0.25

// oneOf is the article before a number: a scant 1/4 cup.
var oneOf = regexp.MustCompile(`(?i)^\s*an?\s+(\d)`)

// level is an amount with its spoons struck off level, and how much more they hold.
func level(s string) (string, float64) {
	m := heapedSpoon.FindStringSubmatch(s)
	if m == nil {
		return s, 1
	}
	return oneOf.ReplaceAllString(strings.Replace(s, m[0], m[2], 1), "$1"), heaped[strings.ToLower(m[1])]
}

// middle is the value of a range.
func middle(low, high float64) float64 { return low + math.Abs(high-low)/2 }
