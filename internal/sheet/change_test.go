package sheet_test

import (
	"encoding/json"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/sheet"
	"verjuice/internal/testclock"
)

// added is what is put into a file to change a thing: a line at its end, or text after the first place where
// another text stands.
type added struct{ after, text string }

// madeUp are a cut, a pit, a wrap, a move and a decision that there are not, by how the README calls them, and
// what is put into which file for each.
var madeUp = map[string]map[string]added{
	"A cut": {"internal/core/cut/cuts.csv": {"", "goat-rump,goat rump,lamb,pink,rump,1.5,1.2,1,0.9,0,2,5,10,70,6,1.2,0.5,2," +
		",120,20,none,0.9,1,6,0,pink,goat rump,2.2\n"}},
	"A kind of pit": {"internal/core/gear/pits.csv": {"", "clay,clay pit,slow to light,80,300,yes,30,6.2,500,0.2,charcoal,0.4,ash grate,no\n"}},
	"A wrap": {
		"internal/core/gear/wraps.csv":      {"", "leaf,big leaves,leaves,smells of grass,paper,1,0,leaf,yes,leaves\n"},
		"internal/core/larder/supplies.csv": {"", "leaf,big green leaves,wrap,0\n"},
	},
	"A kind of move": {"internal/core/move/moves.csv": {
		"", "fan,yes,no,yes,yes,no,7,,,every 40 min from bark set,,Fan the coals,fan the coals under %s,Fanned\n",
	}},
	"A decision of a stage": {
		"internal/core/decision/decision.go": {
			"var All = []Decision{\n",
			`{Key: Key{"hung"}, Stage: "fire", Values: []string{"no", "yes"}, applies: always, Usual: fixed("no")},` + "\n",
		},
		"internal/sheet/decisions.go": {
			"\tanswers map[string]answer\n}{\n",
			`"hung": {"Hung from a hook", map[string]answer{"no": {"no", ""}, "yes": {"yes", "from all sides"}}},` + "\n",
		},
	},
}

// program works out and writes a cook with all of them in it.
const program = `package main

import (
	"context"
	"encoding/json"
	"os"
	"time"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/sheet"
)

func main() {
	var c cook.Cook
	if err := json.NewDecoder(os.Stdin).Decode(&c); err != nil {
		panic(err)
	}
	at := cooking.Clock{Now: time.Date(2026, 11, 23, 12, 0, 0, 0, time.UTC), Forecast: forecast.SingleRun{}}
	r, err := cooking.CookRequest{Cook: c}.Work(context.Background(), cooking.Result{}, kitchen.Kitchen{}, at)
	if err != nil {
		panic(err)
	}
	out := map[string]any{"sheet": sheet.Write(r, sheet.Reader{}), "shopping": sheet.WriteShopping(r, sheet.Reader{}),
		"pits": sheet.Pits(), "moves": sheet.MoveChoices("metric")}
	if err := json.NewEncoder(os.Stdout).Encode(out); err != nil {
		panic(err)
	}
}
`

const page = `{"name": "Made up", "serve_at": "2026-11-28T18:30", "zone": "Europe/Dublin", "guests": "4",
	"pits": [{"name": "Mine", "kind": "clay"}],
	"pieces": [{"key": "a", "cut": "goat-rump", "count": "1", "trimmed": "1.2 kg",
		"season": {"coat": "light", "mode": "coat", "formula": {"name": "s", "basis": "weight",
			"rows": [{"ingredient": "table-salt", "form": "fine", "parts": "1"}]}},
		"wait": {"style": "overnight", "for": "12 h"}, "choices": {"wrap": "leaf", "hung": "yes"},
		"moves": [{"key": "m", "what": "fan", "when": "after 30 min"}]}]}`

// What the README says of how to change a thing is all that there is to do: with just the lines that it names,
// a made-up cut, pit, wrap, move and decision can be chosen, are worked out, and have their words.
func TestHowToChangeAThing(t *testing.T) {
	testclock.Once(t)
	root := filepath.Join("..", "..")
	readme, err := os.ReadFile(filepath.Join(root, "README.md"))
	require.NoError(t, err)
	house := t.TempDir()
	put := func(name string, raw []byte) {
		to := filepath.Join(house, name)
		require.NoError(t, os.MkdirAll(filepath.Dir(to), 0o755))
		require.NoError(t, os.WriteFile(to, raw, 0o600))
	}
	for _, name := range []string{"go.mod", "go.sum", "internal/core", "internal/sheet"} {
		require.NoError(t, filepath.WalkDir(filepath.Join(root, name), func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || strings.HasSuffix(path, "_test.go") {
				return err
			}
			raw, err := os.ReadFile(path)
			if err == nil {
				to, _ := filepath.Rel(root, path)
				put(to, raw)
			}
			return err
		}))
	}
	file := regexp.MustCompile("`(internal/[a-z/]+\\.(?:csv|go))`")
	for what, files := range madeUp {
		line := regexp.MustCompile(`(?m)^- \*\*` + what + `\*\*.*$`).FindString(string(readme))
		require.NotEmpty(t, line, what)
		named := map[string]bool{}
		for _, m := range file.FindAllStringSubmatch(line, -1) {
			named[m[1]] = true
		}
		for name, add := range files {
			assert.True(t, named[name], "the README names %s for %s", name, what)
			raw, err := os.ReadFile(filepath.Join(house, name))
			require.NoError(t, err)
			text := string(raw)
			require.Contains(t, text, add.after)
			if add.after == "" {
				text += add.text
			}
			put(name, []byte(strings.Replace(text, add.after, add.after+add.text, min(1, len(add.after)))))
		}
		assert.Len(t, files, len(named), "%s takes all that is named", what)
	}
	put("try/main.go", []byte(program))
	run := exec.CommandContext(t.Context(), "go", "run", "./try")
	run.Dir, run.Stdin = house, strings.NewReader(page)
	var complaint strings.Builder
	run.Stderr = &complaint
	raw, err := run.Output()
	require.NoError(t, err, complaint.String())
	var out struct {
		Sheet    sheet.Sheet
		Shopping sheet.Shopping
		Pits     []sheet.PitChoice
		Moves    []sheet.MoveChoice
	}
	require.NoError(t, json.Unmarshal(raw, &out))
	assert.Empty(t, out.Sheet.Errors)
	p := out.Sheet.Pieces[0]
	assert.Equal(t, "Goat rump", p.Title)
	require.NotNil(t, p.Clock)
	answers := map[string]string{}
	for _, d := range p.Decisions {
		for _, o := range d.Options {
			if o.Value == d.Value {
				answers[d.Label] = o.Label
			}
		}
	}
	assert.Equal(t, "yes", answers["Hung from a hook"])
	assert.Equal(t, "big leaves", answers["Wrap"])
	assert.Contains(t, string(raw), "Fan the coals under")
	assert.Contains(t, string(raw), "big green leaves")
	var pits, moves []string
	for _, one := range out.Pits {
		pits = append(pits, one.Name)
	}
	for _, one := range out.Moves {
		moves = append(moves, one.Label)
	}
	assert.Contains(t, pits, "clay pit")
	assert.Contains(t, moves, "Fan the coals")
	for _, task := range out.Sheet.Plan.Tasks {
		if task.Stage == "light" {
			assert.Len(t, task.Checks, 2)
		}
	}
}
