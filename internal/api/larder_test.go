package api_test

import (
	"encoding/json"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/bench"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/guess"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/meal"
	"verjuice/internal/exchange"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
)

// A jar is made, drawn from, overdrawn in vain, put back, and kept from being
// changed on two screens at once.
func TestJars(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	jar := formula.Jar{Formula: formula.ReadyMade()[3], Made: testclock.Day(-3), Amount: "200 g", Draws: []formula.Draw{}}
	made := call(t, app, "POST", "/api/jars", jar)
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	for range 2 { // a screen that heard no answer sends again
		call(t, app, "POST", "/api/jars/{}/draws", formula.Draw{ID: "one", Amount: "60 g", For: "supper"})
	}
	p := call(
		t,
		app,
		"POST",
		"/api/jars/{}/draws",
		formula.Draw{Amount: "150 g"},
	).problem(t, http.StatusUnprocessableEntity)
	assert.Equal(t, "/amount", p.Errors[0].Pointer)
	assert.Equal(t, "there is only 140 g left in it", p.Errors[0].Message)
	lines := func(query string) []api.JarLine {
		var out []api.JarLine
		call(t, app, "GET", "/api/jars"+query, nil).items(t, &out)
		return out
	}
	of := func(f formula.Formula) []api.JarLine {
		var out []api.JarLine
		call(t, app, "POST", "/api/jars/of", f).items(t, &out)
		return out
	}
	edited := jar.Formula
	edited.Rows = edited.Rows[1:]
	require.Len(t, of(jar.Formula), 1)
	assert.Empty(t, of(edited), "an edited rub is no longer the mix of the jar")
	enough, short := lines("?need=100.04")[0], lines("?need=200")[0]
	assert.Equal(t, []string{"100.0 g", ""}, []string{enough.Take, enough.Short})
	assert.Equal(t, []string{"140.0 g", "60 g"}, []string{short.Take, short.Short})
	one := lines("")[0]
	assert.InDelta(t, 140, one.LeftGrams, 1e-9)
	assert.Equal(t, []string{"60 g"}, one.Taken)
	assert.Equal(t, testclock.Day(0), one.Jar.Draws[0].Day)
	call(
		t,
		app,
		"DELETE",
		"/api/jars/{}",
		nil,
		"If-Match",
		made.Header.Get("ETag"),
	).problem(t, http.StatusPreconditionFailed)
	call(t, app, "DELETE", "/api/jars/{}", nil).problem(t, http.StatusPreconditionRequired)
	require.Equal(
		t,
		http.StatusNoContent,
		call(t, app, "DELETE", "/api/jars/{}/draws/"+one.Jar.Draws[0].ID, nil).StatusCode,
	)
	call(t, app, "DELETE", "/api/jars/{}/draws/"+one.Jar.Draws[0].ID, nil).problem(t, http.StatusNotFound)
	assert.InDelta(t, 1, lines("")[0].LeftShare, 1e-12)
	require.Equal(t, http.StatusNoContent, call(t, app, "DELETE", "/api/jars/{}", nil, "If-Match", `"3"`).StatusCode)
	assert.Empty(t, lines(""))
	require.Equal(t, http.StatusOK, call(t, app, "POST", "/api/jars/{}/restore", nil).StatusCode)
	assert.Len(t, lines(""), 1)
	undated := jar
	undated.Made = ""
	require.Equal(t, http.StatusCreated, call(t, app, "POST", "/api/jars", undated).StatusCode)
	assert.Equal(t, testclock.Day(0), lines("")[1].Jar.Made, "made today, as the server counts days")
	jar.Amount = "much"
	assert.Equal(
		t,
		"/amount",
		call(t, app, "POST", "/api/jars", jar).problem(t, http.StatusUnprocessableEntity).Errors[0].Pointer,
	)
}

// Prices make costs; an ingredient of one's own is chosen, mixed, and stays in old
// formulas when it is taken off the shelf.
func TestLarder(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	put := func(thing string, v api.LarderThing) reply { return call(t, app, "PUT", "/api/larder/"+thing, v) }
	require.Equal(
		t,
		http.StatusNoContent,
		put("kosher-salt", api.LarderThing{Price: "€3 for 1 kg", Stock: "500 g"}).StatusCode,
	)
	require.Equal(t, http.StatusNoContent, put("pork-loin", api.LarderThing{Price: "€9/kg"}).StatusCode)
	p := put(
		"black-pepper",
		api.LarderThing{Price: "£9 for 1 kg", Stock: "some"},
	).problem(t, http.StatusUnprocessableEntity)
	require.Len(t, p.Errors, 2)
	assert.Contains(t, p.Errors[1].Message, "the other prices are in “€”")
	put("unicorn", api.LarderThing{Price: "1/kg"}).problem(t, http.StatusNotFound)

	var l api.Larder
	call(t, app, "GET", "/api/larder", nil).into(t, &l)
	assert.Equal(
		t,
		map[string]api.LarderThing{"kosher-salt": {Price: "€3 for 1 kg", Stock: "500 g"}, "pork-loin": {Price: "€9/kg"}},
		l.Things,
	)

	made := call(t, app, "POST", "/api/ingredients", larder.Own{Name: "The red jar", Salt: "40 %", Allergens: []string{}})
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	var own api.DocRecord[larder.Own]
	made.into(t, &own)
	f := formula.Formula{
		Name:  "Mine",
		Basis: formula.ByWeight,
		Rows:  []formula.Row{{Ingredient: store.OwnID(own.ID), Parts: "1"}, {Ingredient: "kosher-salt", Parts: "1"}},
	}
	require.Equal(t, http.StatusCreated, call(t, app, "POST", "/api/formulas", f).StatusCode)
	require.Equal(
		t,
		http.StatusNoContent,
		call(t, app, "DELETE", "/api/ingredients/{}", nil, "If-Match", made.Header.Get("ETag")).StatusCode,
	)
	var s sheet.FormulaSheet
	call(
		t,
		app,
		"POST",
		"/api/calc/formula",
		bench.Request{Formula: f, Batch: formula.Batch{Fix: "total", Amount: "200 g"}},
	).into(t, &s)
	require.Empty(t, s.Errors)
	assert.Equal(t, "0.30", s.Cost.Total.Text)
	assert.Equal(t, "€", s.Cost.Total.Unit)
	assert.Equal(t, []string{"The red jar"}, s.Cost.Missing)
	var shelf api.Catalogue
	call(t, app, "GET", "/api/catalogue", nil).into(t, &shelf)
	for _, i := range shelf.Ingredients {
		assert.NotEqual(t, store.OwnID(own.ID), i.ID, "what was taken off is not offered")
	}
	require.Equal(t, http.StatusNoContent, put("kosher-salt", api.LarderThing{}).StatusCode)
}

// Text is as long as it is typed: what is too long or holds what a column cannot is refused in
// words, for every kind of record that has a name, and never a failure of the program.
func TestNamesOfAnyLength(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	rub := formula.ReadyMade()[3]
	rub.ID = ""
	named := map[string]func(name string) any{
		"/api/cooks":       func(n string) any { c := supper(); c.Name = n; return c },
		"/api/formulas":    func(n string) any { f := rub; f.Name = n; return f },
		"/api/ingredients": func(n string) any { return larder.Own{Name: n, Salt: "10 %"} },
		"/api/pits":        func(n string) any { return cook.Pit{Name: n, Kind: "kettle"} },
		"/api/methods":     func(n string) any { return cook.Method{Name: n, Cut: "pork-loin"} },
		"/api/meals": func(n string) any {
			return meal.Meal{
				Name:    n,
				ServeAt: testclock.At(2, "13:00"),
				Zone:    testclock.Zone,
				Items:   []meal.Item{{Key: "a", Title: "Ribs", Form: "pulled", Weight: "1 kg"}},
			}
		},
		"/api/jars": func(n string) any {
			f := rub
			f.Name = n
			return formula.Jar{Formula: f, Amount: "250 g"}
		},
	}
	for path, doc := range named {
		for _, name := range []string{strings.Repeat(" ", 1000) + "x", "x" + strings.Repeat(" ", 1000),
			strings.Repeat("x", 5000), strings.Repeat("🔥", 201), strings.Repeat("\u0301", 300) + "x"} {
			call(t, app, "POST", path, doc(name)).problem(t, http.StatusUnprocessableEntity)
		}
		short := call(t, app, "POST", path, doc(strings.Repeat("ü", 60)))
		assert.Equal(t, http.StatusCreated, short.StatusCode, "%s %s", path, short.body)
	}
}

// A weight that is not in the batch is to be taken out: the batch cannot grow so far.
func TestAWeightThatIsNotInTheBatch(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	for _, target := range []string{"0", "1e-5"} {
		r := call(t, app, "POST", "/api/calc/weighing", `{"targets":[`+target+`,5],"weighed":[3],"rescale":true}`)
		require.Equal(t, http.StatusOK, r.StatusCode, string(r.body))
		assert.NotContains(t, string(r.body), "bigger")
		assert.Contains(t, string(r.body), "take it out.")
		assert.Contains(t, string(r.body), `"grows":0`)
	}
}

// A draw is of a day that can be.
func TestADrawHasADay(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	rub := formula.ReadyMade()[3]
	rub.ID = ""
	for day, good := range map[string]bool{"": false, "yesterday": false, "2026-02-30": false, testclock.Day(30): false,
		testclock.Day(0): true, testclock.Day(-3): true} {
		jar := formula.Jar{
			Formula: rub,
			Made:    testclock.Day(-5),
			Amount:  "250 g",
			Draws:   []formula.Draw{{ID: "a", Amount: "20 g", Day: day}},
		}
		r := call(t, app, "POST", "/api/jars", jar)
		if good {
			assert.Equal(t, http.StatusCreated, r.StatusCode, string(r.body))
			continue
		}
		assert.Equal(t, "/draws/0/day", r.problem(t, http.StatusUnprocessableEntity).Errors[0].Pointer, "%q", day)
	}
}

// What the bench holds goes out as a file and comes in again, with the formulas
// that it uses; a bad file and a circle are refused, and nothing is half kept.
func TestFilesOutAndIn(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	rub := formula.ReadyMade()[3]
	rub.ID, rub.Name = "", "Crew rub"
	var first api.FormulaRecord
	call(t, app, "POST", "/api/formulas", rub).into(t, &first)
	steeped := formula.Formula{
		Name:  "Crew injection",
		Kind:  formula.Injection,
		Basis: formula.ByWeight,
		Rows:  []formula.Row{{Ingredient: "stock", Parts: "500 g"}, {Formula: first.ID, Parts: "5 %"}},
	}
	for _, as := range []string{"json", "jsonld", "csv"} {
		out := call(t, app, "POST", "/api/exchange/write?as="+as, []formula.Formula{steeped})
		require.Equal(t, http.StatusOK, out.StatusCode, string(out.body))
		other := apptest.Start(t, apptest.Nothing)
		read := call(t, other, "POST", "/api/exchange/read", string(out.body), "Content-Type", "application/octet-stream")
		require.Equal(t, http.StatusOK, read.StatusCode, string(read.body))
		var found []exchange.Found
		read.into(t, &found)
		require.Len(t, found, 2)
		assert.Empty(t, found[1].Asks)
		var fs []formula.Formula
		for i := range found { // in any order
			fs = append(fs, found[len(found)-1-i].Formula)
		}
		fs[0].Rows[1].Formula = "file-1"
		kept := call(t, other, "POST", "/api/exchange/keep", fs)
		require.Equal(t, http.StatusCreated, kept.StatusCode, string(kept.body))
		var records []api.FormulaRecord
		kept.into(t, &records)
		assert.Equal(t, records[1].ID, records[0].Doc.Rows[1].Formula)
	}
	bad := call(
		t,
		app,
		"POST",
		"/api/exchange/read",
		"amount,ingredient\n1,",
		"Content-Type",
		"application/octet-stream",
	).problem(t, http.StatusUnprocessableEntity)
	assert.Equal(t, "line 2", bad.Errors[0].Pointer)
	call(
		t,
		app,
		"POST",
		"/api/exchange/read",
		string(make([]byte, exchange.MaxBytes+2)),
		"Content-Type",
		"application/octet-stream",
	).problem(t, http.StatusRequestEntityTooLarge)
	circle := []formula.Formula{
		{Name: "a", Basis: formula.ByWeight, Rows: []formula.Row{{Formula: "file-1", Parts: "1"}}},
		{Name: "b", Basis: formula.ByWeight, Rows: []formula.Row{{Formula: "file-0", Parts: "1"}}},
	}
	p := call(t, app, "POST", "/api/exchange/keep", circle).problem(t, http.StatusUnprocessableEntity)
	assert.Contains(t, p.Errors[0].Message, "a formula cannot use itself")
	half := []formula.Formula{rub, {Name: "no rows", Basis: formula.ByWeight, Rows: []formula.Row{}}}
	assert.Equal(
		t,
		"/1/rows",
		call(t, app, "POST", "/api/exchange/keep", half).problem(t, http.StatusUnprocessableEntity).Errors[0].Pointer,
	)
	var page api.ListPage[api.FormulaSummary]
	call(t, app, "GET", "/api/formulas", nil).into(t, &page)
	assert.EqualValues(t, 1, page.Total, "nothing is half kept")

	var game sheet.GuessSheet
	call(t, app, "POST", "/api/guess", guess.Game{Seed: 3, Guesses: []string{"40"}}).into(t, &game)
	require.Len(t, game.Answers, 1)
	raw, err := json.Marshal(game.Next)
	require.NoError(t, err)
	assert.NotContains(t, string(raw), `"answer"`)
}

// How large a bottle is is asked once: told with an amount, it counts from then on, in every cook.
func TestABottleIsAskedAboutOnce(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	mop := func(parts string) formula.Formula {
		return formula.Formula{Name: "Beer mop", Kind: "baste", Basis: "volume", Rows: []formula.Row{
			{Ingredient: "beer", Form: "liquid", Parts: parts}, {Ingredient: "sea-salt", Form: "fine", Parts: "10 g"},
		}}
	}
	asked := call(t, app, "POST", "/api/formulas", mop("2 bottles")).problem(t, http.StatusUnprocessableEntity)
	assert.Contains(t, asked.Errors[0].Message, "it is remembered")
	require.NotEmpty(t, asked.Errors[0].Offers)
	made := call(t, app, "POST", "/api/formulas", mop(asked.Errors[0].Offers[2].Edits[0].Value))
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	made = call(t, app, "POST", "/api/formulas", mop("3 bottles"))
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	var out api.Larder
	require.NoError(t, json.Unmarshal(call(t, app, "GET", "/api/larder", nil).body, &out))
	assert.Equal(t, "500 mL", out.Things["beer"].Pack)
	put := call(t, app, "PUT", "/api/larder/beer", api.LarderThing{})
	require.Equal(t, http.StatusNoContent, put.StatusCode)
	call(t, app, "POST", "/api/formulas", mop("3 bottles")).problem(t, http.StatusUnprocessableEntity)
}
