package exchange

import (
	"os"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
)

// The rub, an injection that holds it, and a bath in percent.
var mine = kitchen.Kitchen{Formulas: own}

var own = map[string]formula.Formula{
	"1": {
		ID:    "1",
		Name:  "=Crew rub, \"hot\"",
		Basis: formula.ByVolume,
		Tags:  []string{"a", "b"},
		Note:  "two\nlines",
		Rows: []formula.Row{
			{
				Ingredient: "kosher-salt",
				Form:       "hollow flake",
				Parts:      "1 1/2",
			}, {Ingredient: "black-pepper", Form: "coarse", Parts: "2 Tbsp"},
			{Ingredient: "brown-sugar", Form: "loose", Parts: "10 %"},
		},
	},
	"2": {ID: "2", Name: "Steeped", Kind: formula.Injection, Basis: formula.ByWeight, Rows: []formula.Row{
		{
			Ingredient: "stock",
			Form:       "liquid",
			Parts:      "400 g",
		}, {Formula: "1", Parts: "5 %"}, {Ingredient: "sea-salt", Form: "coarse crystals, 1–2 mm", Parts: "3"},
	}},
	"3": {ID: "3", Name: "Shares", Kind: formula.Bath, Basis: formula.ByWeight, Rows: []formula.Row{
		{Ingredient: "water", Form: "liquid", Parts: "94 %"}, {Ingredient: "table-salt", Form: "fine", Parts: "6 %"},
	}},
}

// What is written is read back as the same mixes, in every format, with nothing
// to ask; and written again it is the same file.
func TestRoundTrip(t *testing.T) {
	sets := [][]formula.Formula{{own["1"]}, {own["2"]}, {own["3"], own["2"]}, formula.ReadyMade()}
	for _, as := range []Format{JSON, LD, CSV} {
		for _, fs := range sets {
			all, err := gather(fs, mine)
			require.NoError(t, err)
			data, err := Write(fs, as, mine)
			require.NoError(t, err)
			found, err := Read(data, kitchen.Kitchen{})
			require.NoError(t, err, "%s", data)
			require.Len(t, found, len(all))
			inFile := kitchen.Kitchen{Formulas: map[string]formula.Formula{}}
			for i := range found {
				inFile.Formulas[FilePrefix+string(rune('0'+i))] = found[i].Formula
			}
			for i, f := range found {
				assert.Empty(t, f.Asks, "%s of %s", as, data)
				assert.Equal(t, oneLine(all[i].Name), f.Formula.Name)
				want, errs := formula.Blend(all[i], mine)
				require.Empty(t, errs)
				got, errs := formula.Blend(f.Formula, inFile)
				require.Empty(t, errs)
				for n := range want.Components {
					assert.InDelta(
						t,
						want.Components[n].WeightShare,
						got.Components[n].WeightShare,
						1e-5,
						"%s row %d as %s",
						f.Formula.Name,
						n,
						as,
					)
				}
				if as == JSON {
					assert.Equal(t, all[i].Note, f.Formula.Note)
					assert.Equal(t, all[i].Tags, f.Formula.Tags)
				}
			}
		}
	}
}

// Lines as people write them: known, or asked with what they may be; never
// dropped.
func TestLinesOfARecipe(t *testing.T) {
	page := `[{"@type":"WebPage"},{"@context":"https://schema.org","@graph":[{"@type":["Thing","Recipe"],"name":"A rub","keywords":["hot"],"recipeIngredient":[
		"2 tablespoons (30 g) smoked paprika", "1 1/2 cups packed brown sugar",
		"½ tsp ground cayenne pepper", "2 Tbsp + 1 tsp garlic powder",
		"1 tsp salt", "2 tsp kosher salt", "1 Tbsp grains of paradise", "black pepper to taste", "1 cup cider vinegar"]}]}]`
	found, err := Read([]byte(page), kitchen.Kitchen{})
	require.NoError(t, err)
	f := found[0]
	require.Len(t, f.Formula.Rows, 9)
	got := []string{}
	for _, r := range f.Formula.Rows {
		got = append(got, r.Parts+"|"+r.Ingredient+"|"+r.Form)
	}
	assert.Equal(t, []string{
		"2 tablespoons|smoked-paprika|powder", "1 1/2 cups|brown-sugar|packed", "½ tsp|cayenne|powder",
		"2 Tbsp + 1 tsp|garlic|powder",
		"1 tsp||", "2 tsp||", "1 Tbsp||", "||", "1 cup|cider-vinegar|liquid",
	}, got)
	require.Len(t, f.Asks, 4)
	assert.Equal(t, "1 tsp salt", f.Asks[0].Written)
	assert.GreaterOrEqual(t, len(f.Asks[0].Maybe), 4, "which salt is asked")
	assert.Equal(t, "kosher salt, dense flake", f.Asks[1].Maybe[0].Name, "a spoon of one salt is twice that of another")
	assert.Equal(t, "1 Tbsp grains of paradise", f.Asks[2].Written)
	assert.Contains(t, f.Asks[3].Why, "How much of it?")
}

// Units are kept, other names are found, and an amount that nobody can know is asked.
func TestAmountsOfARecipe(t *testing.T) {
	for line, want := range map[string]string{
		"2 oz black pepper, coarse": "2 oz|black-pepper|coarse", "1 cup apple cider vinegar": "1 cup|cider-vinegar|liquid",
		"2 cups beef broth": "2 cups|stock|liquid",
		"1 cup ketchup":     "1 cup|ketchup|liquid", "500 ml sweet cider": "500 ml|sweet-cider|liquid",
		"1 stick butter":   "1 stick|butter-salted|soft",
		"2 Tbsp soy sauce": "2 Tbsp|soy-sauce|liquid", "1-1/2 Tbsp paprika": "1-1/2 Tbsp|paprika|powder",
		"1-2 Tbsp paprika":               "1-2 Tbsp|paprika|powder",
		"half a cup brown sugar, packed": "half a cup|brown-sugar|packed",
		"6 cloves garlic, fresh":         "?", "2 bottles beer": "?", "2 sticks cinnamon": "?", "2-1 Tbsp paprika": "?",
		"4 oz apple juice": "?", "1 t cayenne": "?", "2 handfuls parsley": "?",
	} {
		found, err := Read(
			[]byte("{\"@type\":\"Recipe\",\"name\":\"x\",\"recipeIngredient\":[\""+line+"\"]}"),
			kitchen.Kitchen{},
		)
		require.NoError(t, err, line)
		r := found[0].Formula.Rows[0]
		if want == "?" {
			assert.Empty(t, r.Parts, line)
			require.Len(t, found[0].Asks, 1, line)
			assert.NotContains(t, found[0].Asks[0].Why, "does not say", line)
			continue
		}
		assert.Equal(t, want, r.Parts+"|"+r.Ingredient+"|"+r.Form, line)
		assert.Empty(t, found[0].Asks, line)
	}
	found, err := Read(
		[]byte(`{"@type":"Recipe","name":"x","recipeIngredient":["2 oz black pepper, coarse"]}`),
		kitchen.Kitchen{},
	)
	require.NoError(t, err)
	mix, wrong := formula.Blend(found[0].Formula, nil)
	require.Empty(t, wrong)
	assert.InDelta(t, 56.7, mix.Measured, 0.01)
}

// Hostile, broken and huge files are refused with the place; none panics.
func TestBadFiles(t *testing.T) {
	for name, c := range map[string]struct{ in, want string }{
		"empty":                {"  \n", "the file is empty"},
		"not text":             {"amount,ingredient\n1,\xff\xfe", "line 2: this is not text in UTF-8"},
		"huge":                 {strings.Repeat("a", MaxBytes+1), "larger than a megabyte"},
		"broken JSON":          {"{\n\"format\": ,", "line 2: this is not JSON"},
		"wrong kind":           {`{"format":"verjuice-formulas","version":1,"formulas":[{"name":"x","rows":7}]}`, "$.formulas.rows: there is a number"},
		"another format":       {`{"format":"else"}`, "$.format: “else” is not a format"},
		"from the future":      {`{"format":"verjuice-formulas","version":9}`, "$.version"},
		"no ingredient":        {`{"format":"verjuice-formulas","version":1,"formulas":[{"name":"x","rows":[{"amount":"1"}]}]}`, "$.formulas[0].rows[0]: the ingredient is missing"},
		"no name":              {`{"format":"verjuice-formulas","version":1,"formulas":[{"rows":[]}]}`, "$.formulas[0].name"},
		"no rows":              {`{"format":"verjuice-formulas","version":1,"formulas":[{"name":"x"}]}`, "$.formulas[0].rows: there are no ingredients"},
		"no recipe":            {`{"@type":"Person"}`, "neither a formula nor a recipe"},
		"ingredients not text": {`{"@type":"Recipe","name":"x","recipeIngredient":["1 g salt",{"a":1}]}`, "$.recipeIngredient[1]"},
		"deep":                 {strings.Repeat("[", 20000), "not JSON"},
		"not a table":          {"Dear all, the rub is", "line 1: this is neither"},
		"torn quotes":          {"amount,ingredient\n1,\"salt", "line 2: this is not a proper table"},
		"no ingredient cell":   {"amount,ingredient\n1,table salt\n2,", "line 3: the ingredient is missing"},
		"long cell":            {"amount,ingredient\n1," + strings.Repeat("x", 3000), "line 2: a cell is longer"},
		"too many rows": {"amount,ingredient\n" + strings.Repeat("1,table salt\n", 41),
			"line 2: a formula has at most 40"},
	} {
		t.Run(name, func(t *testing.T) {
			_, err := Read([]byte(c.in), kitchen.Kitchen{})
			require.Error(t, err)
			assert.Contains(t, err.Error(), c.want)
		})
	}
}

// A spreadsheet must not compute what we write.
func TestSpreadsheetsDoNotCompute(t *testing.T) {
	data, err := Write([]formula.Formula{own["1"]}, CSV, mine)
	require.NoError(t, err)
	assert.Contains(t, string(data), `"'=Crew rub, ""hot"""`)
}

// The examples of docs/formats.md can be read, and ask nothing.
func TestDocumentedExamples(t *testing.T) {
	doc, err := os.ReadFile("../../docs/formats.md")
	require.NoError(t, err)
	blocks := regexp.MustCompile("(?s)```(?:json|csv) example\n(.*?)```").FindAllSubmatch(doc, -1)
	require.Len(t, blocks, 3)
	for _, b := range blocks {
		found, err := Read(b[1], kitchen.Kitchen{})
		require.NoError(t, err)
		assert.Empty(t, found[0].Asks)
	}
}

func FuzzRead(f *testing.F) {
	for _, as := range []Format{JSON, LD, CSV} {
		data, _ := Write(formula.ReadyMade()[:1], as, mine)
		f.Add(data)
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		found, err := Read(data, kitchen.Kitchen{})
		if err == nil && len(found) == 0 {
			t.Fatal("nothing read, and no error")
		}
		for _, one := range found {
			formula.Blend(one.Formula, mine)
		}
	})
}
