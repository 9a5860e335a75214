package sheet

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
)

// Finding is something that goes by what was typed.
type Finding struct {
	Kind string `json:"kind" enum:"cook,formula,jar,meal,ingredient,word" doc:"What it is"`
	ID   string `json:"id" doc:"Of the record, or of what ships with the program; a word is its own"`
	Name string `json:"name"`
	Note string `json:"note" doc:"When it is, or what it means; may be empty"`
}

// named is how well a name answers what was typed: 0 is just that, then one that begins so, then one with all the words
// in it; 9 is none.
func named(typed string, names ...string) int {
	out := 9
	for _, n := range names {
		n = strings.ToLower(n)
		switch {
		case n == typed:
			return 0
		case strings.HasPrefix(n, typed):
			out = min(out, 1)
		case !slices.ContainsFunc(strings.Fields(typed), func(w string) bool { return !strings.Contains(n, w) }):
			out = min(out, 2)
		}
	}
	return out
}

// FindShipped finds among what ships with the program: ready-made formulas, ingredients by every name, and words. At
// most most of each, the best first.
func FindShipped(text string, most int) []Finding {
	typed := strings.ToLower(strings.TrimSpace(text))
	if typed == "" {
		return nil
	}
	var out []Finding
	take := func(all []ranked) {
		slices.SortStableFunc(all, func(a, b ranked) int { return cmp.Compare(a.rank, b.rank) })
		for _, r := range all[:min(most, len(all))] {
			out = append(out, r.Finding)
		}
	}
	var formulas, ingredients, terms []ranked
	for _, f := range formula.ReadyMade() {
		if n := named(typed, f.Name); n < 9 {
			formulas = append(formulas, ranked{n, Finding{"formula", f.ID, f.Name, "ready-made"}})
		}
	}
	for _, i := range larder.All() {
		if n := named(typed, append([]string{i.Name}, i.Also...)...); n < 9 {
			ingredients = append(ingredients, ranked{n, Finding{"ingredient", i.ID, field.Capital(i.Name), strings.Join(i.Also, ", ")}})
		}
	}
	for _, t := range words {
		switch n := named(typed, t.Word); {
		case n < 9:
			terms = append(terms, ranked{n, Finding{"word", t.Word, field.Capital(t.Word), t.Means}})
		case strings.Contains(strings.ToLower(t.Means), typed):
			terms = append(terms, ranked{8, Finding{"word", t.Word, field.Capital(t.Word), t.Means}})
		}
	}
	take(formulas)
	take(ingredients)
	take(terms)
	return out
}

type ranked struct {
	rank int
	Finding
}

// Binned is something that was deleted.
type Binned struct {
	Kind    string `json:"kind" enum:"cook,formula,ingredient,jar,meal,pit,method"`
	ID      string `json:"id"`
	Name    string `json:"name"`
	Deleted string `json:"deleted" doc:"When, in words"`
}

// BinKept is how long what was deleted is told.
const BinKept = 30 * 24 * time.Hour

// Ago is how long ago a time was, in words.
func Ago(t, now time.Time) string {
	if now.Sub(t) < time.Minute {
		return "just now"
	}
	return away(t, now)
}

// WhenServed is a serving time on record in words; empty for none.
func WhenServed(typed string) string {
	t, err := time.Parse("2006-01-02T15:04", typed)
	if err != nil {
		return ""
	}
	return t.Format("Mon 2 Jan 2006 15:04")
}
