package exchange

import (
	"encoding/json"
	"fmt"
	"strings"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/quantity"
)

const schemaOrg = "https://schema.org"

type recipe struct {
	Type        string   `json:"@type"`
	Name        string   `json:"name"`
	Description string   `json:"description,omitempty"`
	Category    string   `json:"recipeCategory,omitempty"`
	Keywords    string   `json:"keywords,omitempty"`
	Yield       string   `json:"recipeYield,omitempty"`
	Ingredients []string `json:"recipeIngredient"`
}

// writeLD writes recipes in measures that anyone can use: a part by volume is a
// teaspoon, a part by weight a gram, a share so many grams.
func writeLD(fs []formula.Formula, k kitchen.Kitchen) ([]byte, error) {
	graph := []recipe{}
	for _, f := range fs {
		mix, errs := formula.Blend(f, k)
		if len(errs) > 0 {
			return nil, wrong("", "“%s” has a mistake: open it, and fix the fields marked in red.", f.Name)
		}
		whole := mix.Measured
		if whole == 0 {
			whole = 100 // shares alone
		}
		r := recipe{
			Type: "Recipe", Name: f.Name, Description: f.Note, Category: string(kindOr(f.Kind)),
			Keywords: strings.Join(f.Tags, ", "),
			Yield:    quantity.Number(whole) + " g",
		}
		for i, row := range f.Rows {
			name := formula.RowName(row, k)
			if row.Form != "" {
				name += ", " + row.Form
			}
			r.Ingredients = append(r.Ingredients, measure(f, i, mix, whole)+" "+name)
		}
		graph = append(graph, r)
	}
	if len(graph) == 1 {
		return indented(struct {
			Context string `json:"@context"`
			recipe
		}{schemaOrg, graph[0]})
	}
	return indented(struct {
		Context string   `json:"@context"`
		Graph   []recipe `json:"@graph"`
	}{schemaOrg, graph})
}

// measure is a row's amount as a measure.
func measure(f formula.Formula, i int, mix formula.Mix, whole float64) string {
	typed := strings.TrimSpace(f.Rows[i].Parts)
	if strings.HasSuffix(typed, "%") {
		return fmt.Sprintf("%.6g g", mix.Components[i].WeightShare*whole)
	}
	if _, err := quantity.ParseParts(typed); err == nil {
		if f.Basis == formula.ByVolume {
			return typed + " tsp"
		}
		return typed + " g"
	}
	return typed
}

// readLD finds the recipes of a JSON-LD document: at the top, in a list, in a
// graph, or as what a page is about.
func readLD(top any) ([]raw, error) {
	var out []raw
	var look func(v any, path string, depth int) error
	look = func(v any, path string, depth int) error {
		if depth > 4 {
			return nil
		}
		switch v := v.(type) {
		case []any:
			for i, one := range v {
				if err := look(one, fmt.Sprintf("%s[%d]", path, i), depth+1); err != nil {
					return err
				}
			}
		case map[string]any:
			if isRecipe(v["@type"]) {
				r, err := readRecipe(v, path)
				out = append(out, r)
				return err
			}
			for _, key := range []string{"@graph", "mainEntity", "mainEntityOfPage"} {
				if err := look(v[key], path+"."+key, depth+1); err != nil {
					return err
				}
			}
		}
		return nil
	}
	if err := look(top, "$", 0); err != nil {
		return nil, err
	}
	if len(out) == 0 {
		return nil, wrong("$", "there is neither a formula nor a recipe in it")
	}
	return out, nil
}

func isRecipe(t any) bool {
	switch t := t.(type) {
	case string:
		return t == "Recipe" || strings.HasSuffix(t, "schema.org/Recipe")
	case []any:
		for _, one := range t {
			if isRecipe(one) {
				return true
			}
		}
	}
	return false
}

func readRecipe(v map[string]any, path string) (raw, error) {
	text := func(key string) string {
		switch t := v[key].(type) {
		case string:
			return t
		case []any:
			var parts []string
			for _, one := range t {
				if s, ok := one.(string); ok {
					parts = append(parts, s)
				}
			}
			return strings.Join(parts, ", ")
		}
		return ""
	}
	r := raw{
		name:  text("name"),
		note:  text("description"),
		kind:  text("recipeCategory"),
		basis: string(formula.ByWeight),
		place: path + ".recipeIngredient",
	}
	if strings.TrimSpace(r.name) == "" {
		return r, wrong(path+".name", "the name is missing")
	}
	for _, t := range strings.Split(text("keywords"), ",") {
		if t = strings.TrimSpace(t); t != "" && len(t) <= 30 && len(r.tags) < 12 {
			r.tags = append(r.tags, t)
		}
	}
	if note := []rune(r.note); len(note) > 600 {
		r.note = string(note[:600]) + "…"
	}
	list := v["recipeIngredient"]
	if list == nil {
		list = v["ingredients"] // its name until 2013
	}
	if s, ok := list.(string); ok {
		lines := []any{}
		for _, line := range strings.Split(s, "\n") {
			lines = append(lines, line)
		}
		list = lines
	}
	lines, ok := list.([]any)
	if !ok {
		return r, wrong(path+".recipeIngredient", "the ingredients are missing")
	}
	for i, one := range lines {
		line, ok := one.(string)
		if !ok {
			raw, _ := json.Marshal(one)
			return r, wrong(fmt.Sprintf("%s.recipeIngredient[%d]", path, i), "this is not a line of text: %s", clip(string(raw)))
		}
		if len(line) > maxCell {
			return r, wrong(fmt.Sprintf("%s.recipeIngredient[%d]", path, i), "this is longer than %d characters", maxCell)
		}
		if strings.TrimSpace(line) == "" {
			continue
		}
		amount, name := split(line)
		r.rows = append(r.rows, rawRow{amount: amount, name: name, written: line})
	}
	return r, nil
}
