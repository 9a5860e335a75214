package exchange

import (
	"cmp"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
)

// place finds what every row is, or asks.
func place(raws []raw, p known) ([]Found, error) {
	inFile := map[string]string{}
	for i, r := range raws {
		inFile[strings.ToLower(r.name)] = fmt.Sprintf("%s%d", FilePrefix, i)
	}
	entries := p.index()
	out := make([]Found, len(raws))
	for i, r := range raws {
		if len(r.rows) == 0 {
			return nil, wrong(r.place, "there are no ingredients in it")
		}
		if len(r.rows) > formula.MaxRows {
			return nil, wrong(r.place, "a formula has at most %d ingredients; this one has %d", formula.MaxRows, len(r.rows))
		}
		f := formula.Formula{
			Name:  oneLine(r.name),
			Kind:  kindOf(r.kind),
			Note:  strings.TrimSpace(r.note),
			Tags:  r.tags,
			Basis: formula.Basis(r.basis),
		}
		if f.Basis != formula.ByVolume {
			f.Basis = formula.ByWeight
		}
		found := Found{Asks: []Ask{}}
		for n, row := range r.rows {
			got, ask := p.find(row, entries, inFile, fmt.Sprintf("%s%d", FilePrefix, i))
			f.Rows = append(f.Rows, got)
			if ask != nil {
				ask.Row = n
				found.Asks = append(found.Asks, *ask)
			}
		}
		found.Formula = f
		out[i] = found
	}
	return out, nil
}

// kindOf is the kind that a word means; a rub when the word is unknown.
func kindOf(word string) formula.Kind {
	word = strings.ToLower(strings.TrimSpace(word))
	for _, k := range formula.Kinds {
		if word == string(k) {
			return k
		}
	}
	switch {
	case strings.Contains(word, "brine"):
		return formula.Bath
	case strings.Contains(word, "sauce"):
		return formula.Sauce
	case strings.Contains(word, "glaze"):
		return formula.Glaze
	}
	return formula.Rub
}

// find makes a row of r, with a question when it is not clear what it is.
func (p known) find(r rawRow, entries []entry, inFile map[string]string, self string) (formula.Row, *Ask) {
	out := formula.Row{Parts: strings.TrimSpace(r.amount)}
	ask := &Ask{Written: clip(r.written), Maybe: []Choice{}}
	if id := inFile[strings.ToLower(strings.TrimSpace(r.name))]; id != "" && id != self && r.id == "" {
		out.Formula = id
	} else if id := p.formulas[strings.ToLower(strings.TrimSpace(r.name))]; id != "" && r.id == "" {
		out.Formula = id
	} else if i, ok := p.byID(r.id); ok {
		out.Ingredient, out.Form = i.ID, i.Forms[0].Name
		if f, ok := i.Form(r.form); ok && r.form != "" {
			out.Form = f.Name
		} else if r.form != "" {
			ask.Why = fmt.Sprintf("%s does not come as “%s”.", i.Name, clip(r.form))
		}
	} else {
		best, sure := match(entries, strings.TrimSpace(r.name+" "+r.form))
		ask.Maybe = append(ask.Maybe, best...)
		if sure {
			out.Ingredient, out.Form = best[0].Ingredient, best[0].Form
		} else {
			ask.Why = "What is this?"
		}
	}
	if why := p.unclearAmount(out); why != "" {
		ask.Why, out.Parts = strings.TrimSpace(ask.Why+" "+why), ""
	} else if out.Parts == "" {
		ask.Why = strings.TrimSpace(ask.Why + " How much of it? The file does not say.")
	}
	if ask.Why == "" {
		return out, nil
	}
	return out, ask
}

// unclearAmount says what has to be asked about the amount of a row; empty when nothing.
func (p known) unclearAmount(r formula.Row) string {
	i, _ := p.byID(r.Ingredient)
	if stick.MatchString(r.Parts) && !strings.HasPrefix(r.Ingredient, "butter") {
		return "How much is one stick? Write its weight."
	}
	if !strings.ContainsFunc(r.Parts, unicode.IsLetter) && !strings.Contains(r.Parts, "-") {
		return ""
	}
	_, err := i.Amount(r.Parts, quantity.USSpoons)
	return unclear(err)
}

func (p known) byID(id string) (larder.Ingredient, bool) {
	for _, i := range p.ingredients {
		if i.ID == id && id != "" {
			return i, true
		}
	}
	return larder.Ingredient{}, false
}

var (
	brackets = regexp.MustCompile(`\([^)]*\)`)
	idle     = map[string]bool{
		"of": true, "the": true, "a": true, "an": true, "freshly": true, "fresh": true, "finely": true, "coarsely": true,
		"dried": true,
		"and":   true, "or": true, "more": true, "about": true, "to": true, "good": true, "quality": true, "for": true,
		"plus": true, "taste": true,
	}
	sameWord = map[string]string{
		"cracked":        "coarse",
		"grounded":       "ground",
		"granules":       "granulated",
		"chili":          "chilli",
		"chile":          "chilli",
		"worcestershire": "worcestershire-type",
		"soy":            "soy-type",
	}
)

// words are the words of s that mean something, singular.
func words(s string) []string {
	var out []string
	s = brackets.ReplaceAllString(strings.ToLower(s), " ")
	for _, w := range strings.FieldsFunc(s, func(r rune) bool {
		return !unicode.IsLetter(r) && !unicode.IsDigit(r) &&
			r != '-'
	}) {
		if w == "coarsely" {
			w = "coarse"
		}
		if idle[w] {
			continue
		}
		if to, ok := sameWord[w]; ok {
			w = to
		}
		if len(w) > 3 && strings.HasSuffix(w, "s") && !strings.HasSuffix(w, "ss") {
			w = strings.TrimSuffix(w, "s")
		}
		out = append(out, w)
	}
	return out
}

// entry is an ingredient with the words that name it and its forms.
type entry struct {
	larder.Ingredient
	name  []string
	forms [][]string
}

func (p known) index() []entry {
	var out []entry
	for _, one := range p.ingredients {
		forms := [][]string{}
		for _, f := range one.Forms {
			forms = append(forms, words(f.Name))
		}
		for _, name := range append([]string{one.Name}, one.Also...) {
			out = append(out, entry{Ingredient: one, name: words(name), forms: forms})
		}
	}
	return out
}

// match looks text up among the ingredients and their forms, best first. It is
// sure when one ingredient alone explains every word, in a form that is
// named or makes no difference.
func match(entries []entry, text string) (best []Choice, sure bool) {
	want := words(text)
	type hit struct {
		Choice
		score float64
		whole bool // the ingredient's whole name, and nothing that is not of it
		form  bool // the form is named, or makes no difference to speak of
	}
	var hits []hit
	for _, e := range entries {
		i, name := e.Ingredient, e.name
		for n, f := range i.Forms {
			form := e.forms[n]
			inName, inForm, other := 0, 0, 0
			for _, w := range want {
				switch {
				case slices.Contains(name, w):
					inName++
				case slices.Contains(form, w):
					inForm++
				case w == "ground": // most forms are
				default:
					other++
				}
			}
			if inName == 0 {
				continue
			}
			missing := 0
			for _, w := range name {
				if !slices.Contains(want, w) {
					missing++
				}
			}
			score := float64(inName)*3 + float64(inForm) - float64(missing)*2 - float64(other) - float64(n)*0.01
			hits = append(
				hits,
				hit{Choice{i.ID, f.Name, i.Name + ", " + f.Name}, score, missing == 0 && other == 0, inForm > 0 || alike(i.Forms)},
			)
		}
	}
	slices.SortStableFunc(hits, func(a, b hit) int { return cmp.Compare(b.score, a.score) })
	for _, h := range hits {
		if len(best) < 6 && !slices.Contains(best, h.Choice) {
			best = append(best, h.Choice)
		}
	}
	if len(hits) == 0 || !hits[0].whole || !hits[0].form {
		return best, false
	}
	for _, h := range hits[1:] {
		if h.whole && h.Ingredient != hits[0].Ingredient && h.score > hits[0].score-0.5 {
			return best, false
		}
	}
	return best, true
}

// alike reports whether a spoon of any of the forms weighs about the same.
func alike(forms []larder.Form) bool {
	low, high := forms[0].GramsPerML, forms[0].GramsPerML
	for _, f := range forms {
		low, high = min(low, f.GramsPerML), max(high, f.GramsPerML)
	}
	return high < 1.25*low
}

// unclear says what has to be asked about an amount; empty when it is something else that
// is wrong.
func unclear(err error) string {
	var why field.Wrong
	if !errors.As(err, &why) {
		return ""
	}
	switch why.ID {
	case "quantity.how-much-is-one":
		return fmt.Sprintf("How much is one %v? Write the weight or the volume of all of them.", why.Values["unit"])
	case "amount.which-size":
		return fmt.Sprintf("How much is in one %v? Write the weight or the volume of all of them.", why.Values["thing"])
	case "quantity.range":
		return "Which of the two amounts?"
	case "quantity.teaspoon-or-tablespoon":
		return "Is t a teaspoon or a tablespoon?"
	case "quantity.ounce-of-liquid":
		return "Is it ounces by weight or fluid ounces?"
	}
	return ""
}

// stick is butter in quarter pounds, and for anything else a piece of wood.
var stick = regexp.MustCompile(`(?i)\bsticks?$`)

// maxAmountWords bounds how many words of a line can be its amount.
const maxAmountWords = 6

// split takes the amount off the front of a line such as "1 1/2 Tbsp paprika".
func split(line string) (amount, rest string) {
	line = oneLine(brackets.ReplaceAllString(line, " "))
	fields := strings.Fields(line)
	for n := min(maxAmountWords, len(fields)-1); n > 0; n-- {
		head := strings.Join(fields[:n], " ")
		if !strings.ContainsFunc(head, unicode.IsNumber) && !quantity.IsNumberWord(fields[0]) {
			continue
		}
		_, errAmount := quantity.ParseAmount(head, false, quantity.USSpoons)
		_, errParts := quantity.ParseParts(head)
		if errAmount == nil || errParts == nil || strings.HasSuffix(head, "%") || unclear(errAmount) != "" {
			return head, strings.Join(fields[n:], " ")
		}
	}
	return "", line
}

func clip(s string) string {
	s = oneLine(s)
	if r := []rune(s); len(r) > 120 {
		return string(r[:120]) + "…"
	}
	return s
}
