// Package amounts reads how much of something goes on, as cooks say it: 3/4 cup, 30 g each, a
// tablespoon a pound, all of it, one jar, 60 g of salt a litre.
//
//	as := amounts.Reader{Kitchen: k, Spoons: quantity.USSpoons}
//	amount, err := as.Amount("1 Tbsp/lb", amounts.Batch{Formula: rub, Mix: mix}, false)
package amounts

import (
	"errors"
	"math"
	"regexp"
	"slices"
	"strings"

	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// The words around an amount.
var (
	eachWords = regexp.MustCompile(
		`(?i)[\s,]*\b(?:each|apiece|(?:a|per|for each|on each|to a) (?:piece|side|rack|slab|bird|leg|thigh|wing|roast|steak|chop|half|shoulder|brisket))\s*$|` +
			`\s*/\s*(?:piece|side|rack|bird)\s*$`,
	)
	allWords = regexp.MustCompile(
		`(?i)[\s,]*\b(?:in all|altogether|in total|for all(?: of (?:it|them))?|over (?:all|them|the|both|two|three|four|five|six|eight|[0-9]+)\b.*)$`,
	)
	perWords = regexp.MustCompile(
		`(?i)\s*(?:/|\bper\b|\ban?\b|\bthe\b|\bfor every\b)\s*(kg|kilo|kilogram|lb|pound|#)\s*$`,
	)
	batchWords = regexp.MustCompile(
		`(?i)^(?:use\s+)?(?:(.*?)\s*(?:of\s+)?)?(?:all(?: of)?(?: it)?|it|(?:the|this|my|one|a|whole|entire|\s)*(?:batch|lot|mix|bowl)|(?:all |everything )?(?:that |what |as much as )?(?:i|we)(?:'ve| have)?\s+(?:mixed|made|had mixed|had made)(?: up)?|everything|what (?:was|is) mixed)$`,
	)
	jarWords = regexp.MustCompile(`(?i)^(.*?)\s*(?:of\s+)?(?:the|this|my)?\s*\bjars?$`)
)

// shares are the parts of a batch or a jar that have a word.
var shares = map[string]float64{
	"": 1, "the": 1, "a": 1, "one": 1, "all": 1, "whole": 1, "the whole": 1, "half": 0.5, "half a": 0.5, "half the": 0.5,
	"a half": 0.5, "a third": 1. / 3, "a quarter": 0.25,
	"two thirds": 2. / 3, "three quarters": 0.75, "two": 2, "three": 3,
}

// Reader reads amounts in a kitchen. Spoons and cups are those of Spoons.
type Reader struct {
	Kitchen kitchen.Kitchen
	Spoons  quantity.SpoonSet
}

// Batch is what was mixed: what was weighed, or what the formula says.
type Batch struct {
	Formula formula.Formula
	Mix     formula.Mix
	Weighed []float64 // g of each row; nil when nothing was weighed
}

// Amount reads how much of a mix goes on, as a cook says it: "3/4 cup", "85 g", "200 mL each",
// "1 Tbsp a pound", "8 %" (of the trimmed weight), "all of it", "half the batch", "one
// jar". An amount is for all pieces of the line unless it says each; one that does not
// say is for each when each is true. The error is a field.Wrong.
func (r Reader) Amount(typed string, b Batch, each bool) (dose.Said, error) {
	text := strings.TrimSpace(typed)
	if m, ok, err := r.mixed(text, b); ok || err != nil {
		return m, err
	}
	if m, ok := unmeasured(text, b); ok {
		return m, nil
	}
	if share, ok := strings.CutSuffix(text, "%"); ok {
		v, err := quantity.ParsePercent(share)
		return dose.Said{PerKG: float64(v) / 100, Off: dose.ScaleOff}, err
	}
	switch {
	case eachWords.MatchString(text):
		text, each = eachWords.ReplaceAllString(text, ""), true
	case allWords.MatchString(text):
		text, each = allWords.ReplaceAllString(text, ""), false
	}
	per := quantity.Mass(0)
	if m := perWords.FindStringSubmatch(text); m != nil {
		per, _ = quantity.ParseMass("1 " + m[1])
		text = perWords.ReplaceAllString(text, "")
	}
	if m, ok, err := r.mixed(text, b); ok || err != nil { // "all of it over six racks"
		return m, err
	}
	a, err := b.amount(text, r.Spoons)
	if err != nil {
		return dose.Said{}, err
	}
	out := dose.Said{Off: dose.ScaleOff}
	if a.Volume > 0 {
		out.Off = b.Mix.SpoonSpread()
	}
	out.Off = math.Hypot(out.Off, a.Off) // a range is known no better than its ends
	switch mass := a.Of(b.Mix.GramsPerML); {
	case per > 0:
		out.PerKG = float64(mass / per)
	case each:
		out.Each = mass
	default:
		out.All = mass
	}
	return out, nil
}

// amount reads an amount of the mix; of one ingredient alone it may be counted.
func (b Batch) amount(text string, set quantity.SpoonSet) (quantity.Amount, error) {
	if c := b.Mix.Components; len(c) == 1 && c[0].Ingredient.ID != "" {
		return c[0].Ingredient.Amount(text, set)
	}
	return quantity.ParseAmount(text, b.Mix.Per100g.Water > 50, set)
}

// mixed reads amounts of what there is already: of the batch that was mixed for this line,
// or of a jar.
func (r Reader) mixed(text string, b Batch) (dose.Said, bool, error) {
	if m := batchWords.FindStringSubmatch(text); m != nil {
		share, about, ok := partOf(m[1])
		if !ok {
			return dose.Said{}, false, nil
		}
		all, off := quantity.Mass(0), dose.ScaleOff
		for _, g := range b.Weighed {
			all += quantity.Mass(g) * quantity.Gram
		}
		if b.Weighed == nil {
			if !formula.AsWritten(b.Formula) {
				return dose.Said{}, false, field.Because("amount.no-batch")
			}
			all, off = quantity.Mass(b.Mix.Measured)*quantity.Gram, b.Mix.SpoonSpread()
		}
		return dose.Said{All: quantity.Mass(share) * all, Off: math.Hypot(off, about)}, true, nil
	}
	if m := jarWords.FindStringSubmatch(text); m != nil {
		share, ok := shareOf(m[1])
		if !ok {
			return dose.Said{}, false, nil
		}
		left := r.Kitchen.InJars(b.Formula)
		if left == 0 {
			return dose.Said{}, false, field.Because("amount.no-jar")
		}
		return dose.Said{All: quantity.Mass(share) * left, Off: dose.ScaleOff}, true, nil
	}
	return dose.Said{}, false, nil
}

// roughly are shares that are said without a number, and how far they may be off, as a share of them: field judgement.
var roughly = map[string][2]float64{
	"most": {0.8, 0.15}, "most of": {0.8, 0.15}, "nearly": {0.93, 0.06}, "nearly all": {0.93, 0.06},
	"nearly all of": {0.93, 0.06},
	"almost":        {0.93, 0.06}, "almost all": {0.93, 0.06}, "almost all of": {0.93, 0.06},
	"a good half of": {0.55, 0.1},
	"a good half":    {0.55, 0.1}, "more than half of": {0.6, 0.1}, "more than half": {0.6, 0.1},
	"less than half":    {0.4, 0.15},
	"less than half of": {0.4, 0.15}, "a bit of": {0.1, 0.6}, "a little of": {0.1, 0.6}, "some of": {0.3, 0.6},
}

// partOf is shareOf, or a share that is said without a number with how far it may be off.
func partOf(words string) (share, off float64, ok bool) {
	if r, known := roughly[strings.ToLower(strings.TrimSpace(words))]; known {
		return r[0], r[1], true
	}
	share, ok = shareOf(words)
	return share, 0, ok
}

// unmeasured reads an amount that nobody measured: it is for each piece, and a wide range.
func unmeasured(text string, b Batch) (dose.Said, bool) {
	a, ok := quantity.Unmeasured(eachWords.ReplaceAllString(text, ""))
	return dose.Said{Each: a.Of(b.Mix.GramsPerML), Off: a.Off}, ok
}

// shareOf reads "half", "1/2", "two thirds of" in front of a batch or a jar.
func shareOf(words string) (float64, bool) {
	words = strings.ToLower(strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(words), "of")))
	if share, ok := shares[strings.Join(strings.Fields(words), " ")]; ok {
		return share, true
	}
	share, err := quantity.ParseParts(words)
	return share, err == nil && share > 0
}

// The parts of a bath's recipe: "1 cup kosher salt in 1¼ gal", "60 g/L".
var (
	noSalt  = regexp.MustCompile(`(?i)^(?:none|no salt|nothing|0(?:\s*g)?)$`)
	saltIn  = regexp.MustCompile(`(?i)\s*(?:/|\b(?:in(?:to)?|to|per|for|an?|the)\b)\s*`)
	ofWater = regexp.MustCompile(`(?i)\s+(?:of\s+)?(?:cold\s+)?water$`)
	oneUnit = regexp.MustCompile(`^[\pL]`)
)

// crystals are the salts of a kitchen by the words that cooks use for them. The first whose
// words are all there is meant.
var crystals = []struct {
	words            []string
	ingredient, form string
	offer            string
}{
	{[]string{"hollow"}, "kosher-salt", "hollow flake", "hollow flake kosher salt"},
	{[]string{"dense"}, "kosher-salt", "dense flake", "dense flake kosher salt"},
	{[]string{"table"}, "table-salt", "fine", "table salt"},
	{[]string{"coarse", "sea"}, "sea-salt", "coarse crystals, 1–2 mm", ""},
	{[]string{"fine", "sea"}, "sea-salt", "fine", "fine sea salt"},
	{[]string{"rock"}, "rock-salt", "coarse", ""},
}

// crystal finds the salt that is meant.
func crystal(words string) (larder.Form, bool) {
	for _, c := range crystals {
		if !slices.ContainsFunc(c.words, func(w string) bool { return !strings.Contains(strings.ToLower(words), w) }) {
			i, _ := larder.Find(c.ingredient)
			return i.Form(c.form)
		}
	}
	return larder.Form{}, false
}

// inLiquid splits "60 g in 1 L" into its salt and the liquid it is for; given is that
// liquid, when it says how much there is and not only "a litre".
func (r Reader) inLiquid(text string) (head string, per, given quantity.Volume) {
	for _, at := range saltIn.FindAllStringIndex(text, -1) {
		tail := text[at[1]:]
		bare := oneUnit.MatchString(tail)
		if bare {
			tail = "1 " + tail
		}
		if v, err := quantity.ParseVolume(tail, r.Spoons); err == nil && at[0] > 0 {
			if !bare {
				given = v
			}
			return text[:at[0]], v, given
		}
	}
	return text, 0, 0
}

// Recipe reads the salt of a bath as a recipe says it, and the liquid that it names with
// it; zero when it names none. The error is a field.Wrong.
func (r Reader) Recipe(typed string) (*dose.Recipe, quantity.Volume, error) {
	text := ofWater.ReplaceAllString(strings.TrimSpace(typed), "")
	if noSalt.MatchString(text) {
		return &dose.Recipe{}, 0, nil
	}
	head, per, given := r.inLiquid(text)
	a, err := quantity.ParseAmount(head, false, r.Spoons)
	words := ""
	var why field.Wrong
	if errors.As(err, &why) && why.ID == "quantity.more-words" {
		words, _ = why.Values["words"].(string)
		kept, _ := why.Values["kept"].(string)
		if strings.Contains(strings.ToLower(words), "salt") {
			head = kept
			a, err = quantity.ParseAmount(kept, false, r.Spoons)
		}
	}
	if err != nil {
		return nil, 0, err
	}
	out := &dose.Recipe{Off: dose.ScaleOff}
	mass := a.Mass
	if a.Volume > 0 {
		form, ok := crystal(words)
		if !ok {
			offers := []string{}
			for _, c := range crystals {
				if rest := strings.TrimPrefix(strings.TrimPrefix(text, head), " "+words); c.offer != "" {
					offers = append(offers, head+" "+c.offer+rest)
				}
			}
			return nil, 0, field.Because("bath.which-salt", "offers", offers)
		}
		mass, out.Off = a.Of(form.GramsPerML), form.SpreadPercent/100
	}
	out.Off = math.Hypot(out.Off, a.Off)
	if per > 0 {
		out.PerCube = float64(mass) / float64(per)
	} else {
		out.Mass = mass
	}
	return out, given, nil
}
