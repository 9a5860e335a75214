package larder

import (
	"math"
	"regexp"
	"strings"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/table"
)

// Count is a thing that cooks count instead of weighing it: an onion, a clove, a cube. Sizes are typical household
// measures of public food-composition tables, without what is peeled off; the spread is what sizes differ by.
type Count struct {
	Thing         string  `json:"thing" example:"clove"`
	Grams         float64 `json:"grams"`
	SpreadPercent float64 `json:"spread_percent" doc:"How far one differs from another, ± % of it"`

	words *regexp.Regexp
}

// counts are those of each ingredient, by its id.
var counts = func() map[string][]Count {
	out := map[string][]Count{}
	for _, r := range table.Read(data, "counts.csv") {
		id := r["ingredient"]
		out[id] = append(out[id], Count{
			Thing: r["thing"], Grams: r.Num("grams"), SpreadPercent: r.Num("spread_percent"),
			words: regexp.MustCompile(`(?i)^(.*?)\s*(?:\b(large|big|medium|small)\s+)?(?:fresh\s+)?\b(?:` + r["words"] + `)$`),
		})
	}
	return out
}()

// Counts are the things of an ingredient that can be counted.
func (i Ingredient) Counts() []Count { return counts[i.ID] }

// sizes are how much larger or smaller than the usual one is that is called so: field judgement.
var sizes = map[string]float64{"": 1, "medium": 1, "large": 1.5, "big": 1.5, "small": 0.6}

const packWords = `bottle|can|tin|jar|packet|pack|bag|box|carton|tub|tube|container`

var (
	juiceOf = regexp.MustCompile(`(?i)^(?:the\s+)?juice\s+(?:of\s+|from\s+)?`)
	article = regexp.MustCompile(`(?i)^(half|quarter|(?:one|a)\s+(?:half|quarter|third))\s+(?:of\s+)?an?$|^an?$|^the$|^one$`)
	// What is sold in many sizes is asked about.
	packs = regexp.MustCompile(`(?i)^(.*?)\s*\b(` + packWords + `)(?:s|es)?$`)
	// Two bottles of 500 mL, a can (400 g).
	sizedPacks = regexp.MustCompile(`(?i)^(.*?)\s*\b(?:` + packWords + `)(?:s|es)?,?\s*(?:of\s+|at\s+|à\s*|\()(\d[^()]*?)(?:\s+each)?\)?$`)
)

// usualPacks are the sizes that are offered for what is sold in packs, of liquids and of the rest.
var usualPacks = map[bool][]string{true: {"330 mL", "355 mL", "500 mL"}, false: {"100 g", "250 g", "500 g"}}

// Amount reads an amount of the ingredient: by weight or volume, or counted, as half an onion, 3 cloves, the juice of
// 2 lemons. Spoons and cups are those of set. The error is a field.Wrong; what is sold in many sizes is asked about,
// with some of them.
func (i Ingredient) Amount(typed string, set quantity.SpoonSet) (quantity.Amount, error) {
	text := strings.TrimSpace(typed)
	liquid := i.Kind == "liquid"
	said := strings.ToLower(text)
	if liquid {
		said = juiceOf.ReplaceAllString(said, "")
	}
	name := strings.TrimSuffix(said, " "+strings.ToLower(i.Name)) // 3 cloves of garlic
	ways := []string{said, name, strings.TrimSuffix(name, " of")}
	for _, said := range ways {
		for _, c := range i.Counts() {
			m := c.words.FindStringSubmatch(said)
			if m == nil {
				continue
			}
			if n, ok := howMany(m[1]); ok {
				one := quantity.Mass(c.Grams*sizes[strings.ToLower(m[2])]) * quantity.Gram
				return quantity.Amount{Mass: quantity.Mass(n) * one, Off: c.SpreadPercent / 100}, nil
			}
		}
	}
	if pinch, ok := quantity.Unmeasured(text); ok {
		return pinch, nil
	}
	amount, err := quantity.ParseAmount(text, liquid, set)
	if err == nil {
		return amount, nil
	}
	if n, size, ok := sized(said, liquid, set); ok {
		return size.times(n), nil
	}
	for _, said := range ways {
		if m := packs.FindStringSubmatch(said); m != nil {
			if n, ok := howMany(m[1]); ok {
				if i.Pack != (quantity.Amount{}) {
					return size{i.Pack}.times(n), nil
				}
				offers := []string{}
				for _, pack := range usualPacks[liquid] {
					offers = append(offers, strings.TrimSpace(text)+" of "+pack)
				}
				return amount, field.Because("amount.which-size", "thing", strings.ToLower(m[2]), "offers", offers)
			}
		}
	}
	return amount, err
}

// size is what one pack holds.
type size struct{ quantity.Amount }

func (s size) times(n float64) quantity.Amount {
	return quantity.Amount{Mass: quantity.Mass(n) * s.Mass, Volume: quantity.Volume(n) * s.Volume}
}

// sized reads packs whose size is said.
func sized(said string, liquid bool, set quantity.SpoonSet) (n float64, one size, ok bool) {
	m := sizedPacks.FindStringSubmatch(said)
	if m == nil {
		return 0, one, false
	}
	if n, ok = howMany(m[1]); !ok {
		return 0, one, false
	}
	amount, err := quantity.ParseAmount(strings.TrimSpace(m[2]), liquid, set)
	return n, size{amount}, err == nil && (amount.Mass > 0 || amount.Volume > 0)
}

// PackSaid is what one pack holds by an amount as it was typed, for the next time; empty where it says no size.
func PackSaid(typed string) string {
	m := sizedPacks.FindStringSubmatch(strings.TrimSpace(typed))
	if m == nil {
		return ""
	}
	if _, _, ok := sized(strings.TrimSpace(typed), true, quantity.USSpoons); !ok {
		return ""
	}
	return strings.TrimSpace(m[2])
}

// howMany reads the number in front of what is counted; none is one.
func howMany(words string) (float64, bool) {
	words = strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(words), " of"))
	if m := article.FindStringSubmatch(words); m != nil {
		if words = m[1]; words == "" {
			return 1, true
		}
	}
	if words == "" {
		return 1, true
	}
	n, err := quantity.ParseParts(words)
	return n, err == nil && n > 0 && !math.IsInf(n, 0)
}
