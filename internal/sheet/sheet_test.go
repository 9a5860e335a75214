package sheet

import (
	"context"
	"encoding/json"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"math/rand/v2"
	"path/filepath"
	"reflect"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/bench"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/guess"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/quantity"
	"verjuice/internal/testclock"
)

var (
	noon    = cooking.Clock{Now: testclock.Now(), Forecast: forecast.WhileTyping{}}
	nothing = kitchen.Kitchen{}
)

// told is the page of a request, mistakes and all.
func told(r cooking.CookRequest, at cooking.Clock, as Reader) Sheet {
	out, err := r.Work(context.Background(), cooking.Result{}, nothing, at)
	if err != nil {
		panic(err) // nobody has given up waiting
	}
	return Write(out, as)
}

func page(t *testing.T, c cook.Cook, as Reader) Sheet {
	t.Helper()
	s := told(cooking.CookRequest{Cook: c}, noon, as)
	require.Empty(t, s.Errors)
	return s
}

// idsIn are the ids that the sources below dir give to a call of one of these names,
// as its argument of that number.
func idsIn(t *testing.T, dir string, calls map[string]int) map[string]string {
	out := map[string]string{}
	require.NoError(t, filepath.WalkDir(dir, func(path string, _ fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		if err != nil {
			return err
		}
		ast.Inspect(file, func(n ast.Node) bool {
			call, ok := n.(*ast.CallExpr)
			if !ok {
				return true
			}
			fun, ok := call.Fun.(*ast.SelectorExpr)
			if !ok {
				return true
			}
			name := fun.Sel.Name
			if from, ok := fun.X.(*ast.Ident); ok {
				name = from.Name + "." + name
			}
			for want, arg := range calls {
				if (name == want || strings.HasSuffix(name, want) && strings.HasPrefix(want, ".")) && arg < len(call.Args) {
					if lit, ok := call.Args[arg].(*ast.BasicLit); ok && lit.Kind == token.STRING {
						id, _ := strconv.Unquote(lit.Value)
						out[id] = path
					}
				}
			}
			return true
		})
		return nil
	}))
	return out
}

var asID = regexp.MustCompile(`^[a-z]+[a-z-]*\.[a-z-]+$`)

// Every id of the core has its sentence here.
func TestEveryIDHasItsSentence(t *testing.T) {
	wrong := idsIn(t, "..", map[string]int{".Add": 1, "field.Because": 0})
	found := 0
	for id, path := range wrong {
		if asID.MatchString(id) {
			found++
			assert.Contains(t, messages, id, path)
		}
	}
	assert.Greater(t, found, 80)
	figures := idsIn(t, "..", map[string]int{"trace.New": 0, "trace.Exact": 0})
	for id, path := range figures {
		assert.Contains(t, rules, id, path)
	}
	assert.Greater(t, len(figures), 35)
}

// texts are all texts of an answer, with where they stand.
func texts(v reflect.Value, at string, take func(at, text string)) {
	switch v.Kind() {
	case reflect.String:
		take(at, v.String())
	case reflect.Pointer, reflect.Interface:
		if !v.IsNil() {
			texts(v.Elem(), at, take)
		}
	case reflect.Slice:
		for i := range v.Len() {
			texts(v.Index(i), at, take)
		}
	case reflect.Struct:
		if f, ok := v.Interface().(Figure); ok && f.ID == "" {
			return // a figure that depends on a mistake is absent
		}
		for i := range v.NumField() {
			if f := v.Type().Field(i); f.IsExported() && f.Name != "Values" {
				texts(v.Field(i), at+"."+f.Name, take)
			}
		}
	}
}

// finished fails for what a cook should never read: an unfilled hole, an id, Go's own
// way of writing values, an empty figure.
func finished(t *testing.T, answer any) {
	t.Helper()
	texts(reflect.ValueOf(answer), "", func(at, text string) {
		mistake := strings.HasSuffix(at, "Errors.Message") || strings.HasSuffix(at, ".Name") ||
			strings.HasSuffix(at, ".Recipes") // which may name what was typed
		for _, bad := range []string{"{", "%!", "map[", "<nil>", "NaN", "+Inf", "0001-01-01"} {
			assert.False(t, !mistake && strings.Contains(text, bad), "%s: %s", at, text)
		}
		if strings.HasSuffix(at, "Errors.Message") || strings.HasSuffix(at, ".Explanation") ||
			strings.HasSuffix(at, ".Action") {
			assert.NotEmpty(t, text, at)
			assert.False(t, asID.MatchString(text), "%s: %s", at, text)
		}
	})
}

// Whatever is typed wherever, every text of every page is finished, in any units.
func TestEveryTextIsFinished(t *testing.T) {
	r := rand.New(rand.NewPCG(71, 72))
	mistakes := map[string]bool{}
	said := map[string]bool{}
	for n := range testclock.Rounds(160) {
		c, f := anycook.Whole(r)
		if n%3 > 0 {
			anycook.Spoil(r, &c, 1+r.IntN(4))
		}
		req := cooking.CookRequest{Cook: c, Facts: f}
		as := Reader{
			Units:  anycook.Pick(r, []quantity.System{quantity.Metric, quantity.US}),
			Spoons: anycook.Pick(r, []quantity.SpoonSet{quantity.USSpoons, quantity.MetricSpoons}),
		}
		s := told(req, noon, as)
		finished(t, s)
		if as.Units == quantity.US && n%3 == 0 {
			customary(t, s)
		}
		_, err := json.Marshal(s) // fails on what is not a number
		require.NoError(t, err)
		for _, e := range s.Errors {
			mistakes[e.ID] = true
		}
		for _, p := range s.Pieces {
			for _, one := range p.Cautions {
				said[one.ID] = true
			}
		}
		result, err := req.Work(t.Context(), cooking.Result{}, nothing, noon)
		require.NoError(t, err)
		shopping := WriteShopping(result, as)
		finished(t, shopping)
		if as.Units == quantity.US && n%3 == 0 {
			customary(t, shopping)
		}
	}
	assert.Greater(t, len(mistakes), testclock.Rounds(25))
	assert.Greater(t, len(said), testclock.Rounds(10)-1)
}

// The same for a formula on the bench, a comparison, a jar, a label and a game.
func TestEveryTextOfTheBenchIsFinished(t *testing.T) {
	r := rand.New(rand.NewPCG(73, 74))
	as := Reader{Units: quantity.US, Spoons: quantity.MetricSpoons}
	for range 500 {
		q := bench.Request{Formula: anycook.Mix(r, "x"), Batch: formula.Batch{
			Fix:    anycook.Pick(r, []string{"", "total", "row", "jar", "guests", "salt", "coat", "pump", "pot"}),
			Amount: "5 %",
			Guests: "4",
			Meat:   "2 kg",
			Cut:    "pork-loin",
			Round:  anycook.Pick(r, []string{"", "spoons", "1 g"}),
		}}
		anycook.Spoil(r, &q, r.IntN(3))
		finished(t, WriteFormula(bench.WorkOut(q, nothing, as.Spoons), as))
	}
	all := formula.ReadyMade()
	c, err := bench.Compare(t.Context(), bench.CompareRequest{Formulas: all[:3]}, nothing, as.Spoons)
	require.NoError(t, err)
	finished(t, WriteComparison(c, as))
	label := formula.Label{Name: "red", Sodium: "310", Serving: "1.2 g", Sugar: "0 g"}
	read, wrong := formula.ReadLabel(label)
	require.Empty(t, wrong)
	finished(t, WriteLabel(label, read, as))
	for _, guesses := range [][]string{{}, {"40 g", "1 %"}, {"40", "1", "20", "40", "1", "20", "40", "1", "20", "40"}} {
		g, err := guess.Play(t.Context(), guess.Game{Seed: 7, Guesses: guesses})
		require.NoError(t, err)
		finished(t, WriteGame(g, as))
	}
	jar := formula.Jar{Formula: all[0], Made: "2026-11-01", Amount: "500 g"}
	stand, wrong := jar.Stand(nil, time.Date(2027, 11, 23, 0, 0, 0, 0, time.UTC))
	require.Empty(t, wrong)
	jarSheet := WriteJar(stand, nil, 0.1, as)
	finished(t, jarSheet)
	assert.Contains(t, jarSheet.Summary, "past its use-by")
	before, after := all[0], all[1]
	for _, change := range Changes(formula.Changes(before, after, nothing), as) {
		assert.NotContains(t, change, "{")
		assert.NotContains(t, change, "changed.")
	}
}

// What is read follows the reader; what is meant does not.
func TestUnitsChangeTextsNotFigures(t *testing.T) {
	c := anycook.Supper(anycook.Coated("pork-loin", "4 lb 6 oz"))
	c.Pieces[0].Season.Formula.Rows[0].Parts = "2 Tbsp"
	c.Pieces[0].Season.Formula.Rows[1].Parts = "20 g"
	metric, us := page(t, c, Reader{}), page(t, c, Reader{Units: quantity.US, Spoons: quantity.MetricSpoons})
	assert.Equal(t, metric.Pieces[0].Ledger.Percent.Value, us.Pieces[0].Ledger.Percent.Value)
	assert.Equal(t, metric.Pieces[0].Season.Rows[0].Mass.Value, us.Pieces[0].Season.Rows[0].Mass.Value)
	assert.Equal(t, "1.98 kg", metric.Pieces[0].Meat.Green.Text)
	assert.Equal(t, "4 lb 6 oz", us.Pieces[0].Meat.Green.Text)
	// Whose tablespoon is meant stands in the formula, and for other amounts in the page.
	c.Pieces[0].Season.Formula.Spoons = quantity.MetricSpoons
	meant := page(t, c, Reader{})
	assert.NotEqual(t, metric.Pieces[0].Ledger.Percent.Value, meant.Pieces[0].Ledger.Percent.Value)
	c.Pieces[0].Layers = []cook.Layer{{Kind: "glaze", Formula: anycook.Bottle("soy", "soy-sauce"), Amount: "2 Tbsp"}}
	glazed := page(t, c, Reader{}).Pieces[0].Ledger.Percent.Value
	c.Spoons = quantity.MetricSpoons
	assert.Greater(t, page(t, c, Reader{}).Pieces[0].Ledger.Percent.Value, glazed)
	share := func(meant quantity.SpoonSet) float64 {
		c.Pieces[0].Season.Formula.Spoons = meant
		return page(t, c, Reader{}).Pieces[0].Season.SaltShare.Value
	}
	assert.Equal(t, share(quantity.MetricSpoons), share(""), "a formula that does not say means those of its page")
	assert.Less(t, share(quantity.USSpoons), share(""))
}

// What was ticked off stays ticked in other units, and is open again when another
// amount is needed.
func TestTicksSurviveUnits(t *testing.T) {
	c := anycook.Supper(anycook.Coated("pork-loin", "2 kg"))
	c.Pieces[0].Key = "a"
	list := func(f facts.Facts, as Reader) Shopping {
		r, err := cooking.CookRequest{Cook: c, Facts: f}.Work(t.Context(), cooking.Result{}, nothing, noon)
		require.NoError(t, err)
		return WriteShopping(r, as)
	}
	open := list(nil, Reader{})
	said := facts.Facts{}
	for i, line := range append(open.Meat, open.Groceries...) {
		tick := anycook.Done(i, "", "", testclock.At(1, "10:00"))
		tick.Kind, tick.What = facts.Ticked, line.Tick
		said = append(said, tick)
	}
	for _, as := range []Reader{{}, {Units: quantity.US, Spoons: quantity.MetricSpoons}} {
		done := list(said, as)
		for _, line := range append(done.Meat, done.Groceries...) {
			assert.True(t, line.Ticked, line.Name)
		}
	}
	c.Pieces[0].Trimmed = "3 kg"
	done := list(said, Reader{})
	for _, line := range append(done.Meat, done.Groceries...) {
		assert.Equal(t, strings.HasSuffix(line.Buy, "a fist"), line.Ticked, "%s: as much wood smokes more meat", line.Name)
	}
}

func TestClockIsCountedBack(t *testing.T) {
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Fire = cook.Fire{Time: "8 h", Rest: "1 h", Temper: "30 min"}
	// A day of its own, since the texts are compared.
	day := anycook.Supper(p)
	day.ServeAt = "2026-11-28T18:30"
	at := func(date, hour int) Sheet {
		at := cooking.Clock{Now: time.Date(2026, 11, date, hour, 0, 0, 0, time.UTC)}
		s := told(cooking.CookRequest{Cook: day}, at, Reader{})
		require.Empty(t, s.Errors)
		return s
	}
	k := at(23, 12).Pieces[0].Clock
	times := map[string]string{}
	for _, s := range k.Steps {
		times[s.Key] = s.Figure.Text
	}
	// 18:30 less 15 min slicing, 1 h rest and 10 h for the slow cook of ten.
	assert.Equal(t, "Sat 28 Nov 07:15", times["fire"])
	assert.Equal(t, "Sat 28 Nov 06:45", times["out"])
	assert.Equal(t, "Fri 27 Nov 19:15", times["salt"])
	assert.Empty(t, k.LateNote)

	assert.Contains(t, at(27, 23).Pieces[0].Clock.LateNote, "leaves 8 h 05 to the fire")
	tooLate := at(28, 13)
	assert.Contains(t, tooLate.Pieces[0].Clock.LateNote, "It is late: on the fire at 13:50, it comes off at about 21:50")
	assert.Less(t, tooLate.Plan.Chance.Value, 5.0)
	assert.NotEmpty(t, tooLate.Plan.SaferAt)
}

// The page says what the last fact moved, and by how much.
func TestWhatHappenedIsTold(t *testing.T) {
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key, p.Fire.Time = "a", "6 h"
	day := anycook.Supper(p)
	planned := page(t, day, Reader{})
	fire := ""
	for _, s := range planned.Pieces[0].Clock.Steps {
		if s.Key == "fire" {
			fire = s.At
		}
	}
	when, err := time.Parse(time.RFC3339, fire)
	require.NoError(t, err)
	s := told(
		cooking.CookRequest{
			Cook:  day,
			Facts: facts.Facts{anycook.Done(1, "a", "fire", when.Add(2*time.Hour).Format(cook.TimeLayout))},
		},
		noon,
		Reader{},
	)
	require.Empty(t, s.Errors)
	assert.Contains(t, s.Plan.Change, "2 h late")
	bad := told(
		cooking.CookRequest{Cook: day, Facts: facts.Facts{{ID: "1", Kind: facts.Done, What: "fire", At: "noon"}}},
		noon,
		Reader{},
	)
	require.NotEmpty(t, bad.Errors)
	assert.Equal(t, "/facts/0/id", bad.Errors[0].Pointer)
}

func TestStartingAmongTheBeadsIsSaid(t *testing.T) {
	at := func(wait string) *DepthSheet {
		p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
		p.Wait.For = wait
		return page(t, anycook.Supper(p), Reader{}).Pieces[0].Depth
	}
	assert.False(t, at("3 min").BadMoment)
	assert.True(t, at("20 min").BadMoment)
	assert.False(t, at("4 h").BadMoment)
	assert.Contains(t, at("12 h").EvenAt, "never evens out")
}
