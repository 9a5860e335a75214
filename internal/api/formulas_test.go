package api_test

import (
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/bench"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/sheet"
)

func bathFormula() formula.Formula {
	return formula.Formula{
		Name: "Slipway bath", Kind: formula.Bath, Note: "for legs", Tags: []string{"poultry", "cold"},
		Basis: formula.ByWeight, Spoons: quantity.USSpoons,
		Rows: []formula.Row{
			{Ingredient: "apple-juice", Form: "liquid", Parts: "1 L"},
			{Ingredient: "table-salt", Form: "fine", Parts: "6 %"},
		},
	}
}

func TestFormulaKeepsEveryVersion(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	made := call(t, app, "POST", "/api/formulas", bathFormula())
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	var rec api.FormulaRecord
	made.into(t, &rec)
	want := bathFormula()
	want.ID = rec.ID
	assert.Equal(t, want, rec.Doc)

	next := bathFormula()
	next.Rows[1].Parts = "5 %"
	next.Name = "Slipway brine"
	put := call(t, app, "PUT", "/api/formulas/{Slipway}", next, "If-Match", made.Header.Get("ETag"))
	require.Equal(t, http.StatusOK, put.StatusCode, string(put.body))
	same := call(t, app, "PUT", "/api/formulas/{Slipway}", next, "If-Match", put.Header.Get("ETag"))
	assert.Equal(t, put.Header.Get("ETag"), same.Header.Get("ETag"), "nothing new is no version")
	call(
		t,
		app,
		"PUT",
		"/api/formulas/{Slipway}",
		next,
		"If-Match",
		made.Header.Get("ETag"),
	).problem(t, http.StatusPreconditionFailed)

	var versions []api.FormulaVersion
	call(t, app, "GET", "/api/formulas/{Slipway}/versions", nil).items(t, &versions)
	require.Len(t, versions, 2)
	assert.Equal(t, []string{"renamed from Slipway bath", "table salt 5 % instead of 6 %"}, versions[0].Changes)
	assert.Equal(t, want, versions[1].Formula)

	gone := call(t, app, "DELETE", "/api/formulas/{Slipway}", nil, "If-Match", put.Header.Get("ETag"))
	require.Equal(t, http.StatusNoContent, gone.StatusCode)
	call(t, app, "GET", "/api/formulas/{Slipway}", nil).problem(t, http.StatusNotFound)
	assert.Equal(t, http.StatusOK, call(t, app, "POST", "/api/formulas/{Slipway}/restore", nil).StatusCode)
}

func TestFormulasAreFoundAndFollowed(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	var bath, two api.FormulaRecord
	call(t, app, "POST", "/api/formulas", bathFormula()).into(t, &bath)
	user := formula.Formula{
		Name:  "Bath for two",
		Basis: formula.ByWeight,
		Rows:  []formula.Row{{Formula: bath.ID, Parts: "1"}},
	}
	call(t, app, "POST", "/api/formulas", user).into(t, &two)
	find := func(query string) []string {
		var page api.ListPage[api.FormulaSummary]
		call(t, app, "GET", "/api/formulas?"+query, nil).into(t, &page)
		names := []string{}
		for _, f := range page.Items {
			names = append(names, f.Name)
		}
		return names
	}
	assert.Equal(t, []string{"Bath for two", "Slipway bath"}, find(""))
	assert.Equal(t, []string{"Slipway bath"}, find("search=legs"))
	assert.Equal(t, []string{"Slipway bath"}, find("tag=cold"))
	assert.Empty(t, find("tag=col"))
	assert.Equal(t, []string{"Bath for two"}, find("kind=rub"))

	// The first may not use the second, which uses it; nothing is changed.
	loop := bathFormula()
	loop.Rows = append(loop.Rows, formula.Row{Formula: two.ID, Parts: "1"})
	p := call(t, app, "PUT", "/api/formulas/{Slipway}", loop, "If-Match", `"1"`).problem(t, 422)
	assert.Equal(t, "/rows/2/formula", p.Errors[0].Pointer)
	assert.Equal(t, "a formula cannot use itself: Slipway bath → Bath for two → Slipway bath", p.Errors[0].Message)

	// A cook's rub may be one of them, and follows it.
	cook := supper()
	cook.Pieces = cook.Pieces[:1]
	cook.Pieces[0].Season.Formula = user
	cook.Pieces[0].Season.Mode = "coat"
	var before, after sheet.Sheet
	call(t, app, "POST", "/api/sheet", cook).into(t, &before)
	require.Empty(t, before.Errors)
	saltier := bathFormula()
	saltier.Rows[1].Parts = "12 %"
	require.Equal(t, 200, call(t, app, "PUT", "/api/formulas/{Slipway}", saltier, "If-Match", `"1"`).StatusCode)
	call(t, app, "POST", "/api/sheet", cook).into(t, &after)
	assert.InEpsilon(t, 2, after.Pieces[0].Season.SaltShare.Value/before.Pieces[0].Season.SaltShare.Value, 0.01)

	var worked sheet.FormulaSheet
	call(
		t,
		app,
		"POST",
		"/api/calc/formula",
		bench.Request{Formula: user, Batch: formula.Batch{Fix: "jar", Amount: "2 cups", Round: "1 g"}},
	).into(t, &worked)
	require.Empty(t, worked.Errors)
	assert.InDelta(t, 12, worked.Totals[0].Share.Value, 0.1)
	call(
		t,
		app,
		"POST",
		"/api/calc/formula",
		bench.Request{Formula: user, Batch: formula.Batch{Fix: "total", Amount: "many"}},
	).into(t, &worked)
	assert.Equal(t, "/batch/amount", worked.Errors[0].Pointer)

	var c sheet.Comparison
	call(t, app, "POST", "/api/calc/compare", bench.CompareRequest{Formulas: formula.ReadyMade()[:3]}).into(t, &c)
	assert.Equal(t, "Salt and pepper, 1 : 1 is the saltiest by weight: 1.3 times Pepper-heavy, 2 : 1.", c.Differences[0])
	call(t, app, "POST", "/api/calc/compare", bench.CompareRequest{Formulas: formula.ReadyMade()[:1]}).problem(t, 422)
	var label sheet.LabelSheet
	call(t, app, "POST", "/api/calc/label", formula.Label{Sodium: "900", Serving: "16 g"}).into(t, &label)
	assert.Equal(t, "14", label.Salt.Text)
	assert.Equal(
		t,
		"/weighs",
		call(t, app, "POST", "/api/calc/label", formula.Label{Sodium: "900", Serving: "1 tsp"}).problem(t,
			422).Errors[0].Pointer,
	)
}

// A bench of two thousand formulas, each with three versions, as a list sees it.
func BenchmarkBench2000(b *testing.B) {
	app := apptest.Start(b, apptest.Nothing)
	for i := range 2000 {
		f := bathFormula()
		f.Name = fmt.Sprintf("Bath %04d", i)
		r, err := app.Store.Formulas().Create(b.Context(), f, formula.Change{ID: "changed.new"})
		require.NoError(b, err)
		for v := range 2 {
			f.Note = fmt.Sprintf("version %d", v)
			r, err = app.Store.Formulas().
				Update(b.Context(), r.ID, r.Version, f, func(formula.Formula) []formula.Change { return nil })
			require.NoError(b, err)
		}
	}
	for _, path := range []string{"/api/formulas?page=20", "/api/formulas?search=1234",
		"/api/formulas?tag=cold&kind=bath", addressed(b, app, "/api/formulas/{1000}"),
		addressed(b, app, "/api/formulas/{1000}/versions")} {
		b.Run(path, func(b *testing.B) {
			for b.Loop() {
				if r := call(b, app, "GET", path, nil); r.StatusCode != http.StatusOK {
					b.Fatal(r.StatusCode)
				}
			}
		})
	}
}
