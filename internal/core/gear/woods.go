package gear

import (
	"cmp"
	"math"
	"regexp"
	"slices"
	"strings"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/table"
)

// Wood is one of several that are burnt together.
type Wood struct {
	Name   string  // as the cook calls it: cherry
	Supply string  // of the larder, without wood-: fruit
	Share  float64 // of all of it; they add up to 1
	Chunks int     // where the cook counted them; else zero
}

// supplyOf is which wood of the larder a name stands for.
var supplyOf = map[string]string{}

func init() {
	for _, r := range table.Read(data, "woods.csv") {
		supplyOf[r["name"]] = r["supply"]
	}
}

// mostWoods is how many are burnt together.
const mostWoods = 6

var (
	woodParts = regexp.MustCompile(`\s*[,;+&/]\s*|\s+(?:and|with|to)\s+`)
	woodNamed = regexp.MustCompile(`([a-z]+)(?:\s+wood)?(?:\s+(?:chunks?|pellets?|splits?|logs?|chips?|sticks?))?$`)
	counted   = regexp.MustCompile(`\s+(?:chunks?|logs?|splits?|sticks?)\b`)
	partsOf   = regexp.MustCompile(`\s*(?:%|\bparts?|\bpellets|\bchips)?(?:\s+of)?\s*$`)
	slashed   = regexp.MustCompile(`^(\d+)\s*[/:]\s*(\d+)\s+(?:of\s+)?(.+?)\s*(?:/|,|\band\b|\bto\b)\s*(.+)$`)
)

// ParseWoods reads woods in parts: "2 oak, 1 cherry", "half oak, half apple", "70 % hickory, 30 % apple", "3 chunks
// of oak and 1 of cherry", "70/30 hickory and apple". Nothing typed is none. The error is a field.Wrong.
func ParseWoods(typed string) ([]Wood, error) {
	text := strings.ToLower(strings.TrimSpace(typed))
	if text == "" {
		return nil, nil
	}
	if m := slashed.FindStringSubmatch(text); m != nil {
		text = m[1] + " " + m[3] + ", " + m[2] + " " + m[4]
	}
	parts := woodParts.Split(text, -1)
	if len(parts) > mostWoods {
		return nil, field.Because("list.too-long", "most", mostWoods)
	}
	var out []Wood
	sum, chunks := 0.0, false
	for _, part := range parts {
		m := woodNamed.FindStringSubmatchIndex(part)
		if m == nil {
			return nil, field.Because("wood.unknown", "word", part, "known", woodNames())
		}
		name, share := part[m[2]:m[3]], part[:m[0]]
		if supplyOf[name] == "" {
			return nil, field.Because("wood.unknown", "word", name, "known", woodNames())
		}
		chunks = chunks || counted.MatchString(part)
		n, err := parseShare(counted.ReplaceAllString(share, ""))
		if err != nil {
			return nil, err
		}
		out, sum = append(out, Wood{Name: name, Supply: supplyOf[name], Share: n}), sum+n
	}
	if sum <= 0 {
		return nil, field.Because("wood.nothing")
	}
	for i := range out {
		if n := out[i].Share; chunks && n == math.Trunc(n) {
			out[i].Chunks = int(n)
		}
		out[i].Share /= sum
	}
	return out, nil
}

// parseShare reads how many parts; one where none are told, and half of one for a little.
func parseShare(text string) (float64, error) {
	text = strings.TrimSpace(partsOf.ReplaceAllString(text, ""))
	switch text {
	case "", "equal", "the rest", "rest":
		return 1, nil
	case "a little", "a bit", "some":
		return 0.5, nil
	case "mostly":
		return 3, nil
	case "a third":
		return 1. / 3, nil
	case "two thirds":
		return 2. / 3, nil
	}
	return quantity.ParseParts(text)
}

// Chunked is how many chunks of each wood are bought when most are burnt in all: at least one of each.
func Chunked(all []Wood, most int) map[string]int {
	out := map[string]int{}
	for _, w := range all {
		if w.Share > 0 {
			out[w.Supply] += cmp.Or(w.Chunks, max(1, int(math.Round(w.Share*float64(most)))))
		}
	}
	return out
}

// woodNames are the names of woods that are read.
func woodNames() []string {
	var out []string
	for name := range supplyOf {
		out = append(out, name)
	}
	slices.Sort(out)
	return out
}
