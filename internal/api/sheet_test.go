package api_test

import (
	"encoding/json"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/firecalc"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/larder"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
)

func TestSheetAndCalcAgree(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	typed := supper()
	// One piece alone has neither a serving time nor a choice of pits.
	typed.ServeAt, typed.Pieces[0].Fire.On, typed.Wishes = "", 0, nil
	typed.Pieces[0].ServeAt = ""
	var s sheet.Sheet
	call(t, app, "POST", "/api/sheet?units=us&where=true", typed).into(t, &s)
	require.Empty(t, s.Errors)
	assert.Equal(t, "7 lb 15 oz", s.Pieces[0].Meat.Green.Text)

	req := cooking.PieceRequest{
		Piece:   typed.Pieces[0],
		Portion: typed.Portion,
		Fridge:  typed.Fridge,
		Room:    typed.Room,
		Meant:   typed.Spoons,
	}
	var scaled sheet.SeasonSheet
	call(t, app, "POST", "/api/calc/scale?units=us", req).into(t, &scaled)
	assert.Equal(t, *s.Pieces[0].Season, scaled)
	var ledger sheet.LedgerSheet
	call(t, app, "POST", "/api/calc/ledger?units=us", req).into(t, &ledger)
	assert.Equal(t, *s.Pieces[0].Ledger, ledger)
	var depth sheet.DepthSheet
	call(t, app, "POST", "/api/calc/drybrine?units=us", req).into(t, &depth)
	assert.Equal(t, *s.Pieces[0].Depth, depth)

	var bath sheet.BathSheet
	call(t, app, "POST", "/api/calc/bath?units=us", req).into(t, &bath)
	assert.Equal(t, *s.Pieces[0].Bath, bath)
	var inject sheet.InjectionSheet
	call(t, app, "POST", "/api/calc/injection?units=us", req).into(t, &inject)
	assert.Equal(t, *s.Pieces[0].Inject, inject)
	require.Len(t, s.Pieces[0].Ledger.Lines, 6, "bath, injection, binder, rub, glaze, mop")
	call(t, app, "POST", "/api/calc/bath", cooking.PieceRequest{Piece: typed.Pieces[1]}).problem(t, 422)

	req.Piece.Season.Target = "40 %"
	p := call(t, app, "POST", "/api/calc/ledger?units=us", req).problem(t, 422)
	assert.Equal(t, "/piece/season/target", p.Errors[0].Pointer)

	// A page with a mistake in one piece still has the figures of the other.
	typed.Pieces[0].Trimmed = "heavy"
	call(t, app, "POST", "/api/sheet", typed).into(t, &s)
	assert.Equal(t, "/pieces/0/trimmed", s.Errors[0].Pointer)
	assert.False(t, s.Pieces[0].Ready)
	assert.True(t, s.Pieces[1].Ready)
}

// A shell without a database answers the same as the API with one, when the request
// brings what the database holds.
func TestARequestMayBringItsKitchen(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	own := larder.Own{Name: "Seasoned salt", Salt: "60 %"}
	held, err := app.Store.Ingredients().Create(t.Context(), own)
	require.NoError(t, err)
	id := store.OwnID(held.ID)
	require.NoError(t, app.Store.PutThing(t.Context(), store.Thing{Thing: id, Price: "€9 per kg", Stock: "20 g"}))
	c := cook.Cook{
		Name:   "x",
		Guests: "4",
		Pieces: []cook.Piece{
			{Key: "a", Cut: "pork-loin", Trimmed: "2 kg", Season: cook.Season{Mode: "coat", Formula: formula.Formula{
				Name: "mine", Basis: formula.ByWeight, Rows: []formula.Row{{Ingredient: id, Parts: "1"},
					{Ingredient: "black-pepper", Form: "coarse", Parts: "1"}},
			}}},
		},
	}
	brought := &kitchen.Typed{
		Ingredients: map[string]larder.Own{id: own},
		Prices:      map[string]string{id: "€9 per kg"},
		Stock:       map[string]string{id: "20 g"},
	}
	for path, answer := range map[string]func(cooking.Result) any{
		"/api/sheet":    func(r cooking.Result) any { return sheet.Write(r, sheet.Reader{Brief: true}) },
		"/api/shopping": func(r cooking.Result) any { return sheet.WriteShopping(r, sheet.Reader{Brief: true}) },
	} {
		got := call(t, app, "POST", path, cooking.CookRequest{Cook: c})
		require.Equal(t, http.StatusOK, got.StatusCode, string(got.body))
		request, none := cooking.CookRequest{Cook: c, Kitchen: brought}, kitchen.Kitchen{}
		r, err := request.Work(t.Context(), cooking.Result{}, none, cooking.Clock{Now: apptest.Now})
		require.NoError(t, err)
		want, err := json.Marshal(answer(r))
		require.NoError(t, err)
		var a, b map[string]any
		got.into(t, &a)
		require.NoError(t, json.Unmarshal(want, &b))
		delete(a, "$schema")
		assert.Equal(t, b, a, path)
	}
}

func TestEveryStarterIsSound(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	var shelf api.Catalogue
	call(t, app, "GET", "/api/catalogue", nil).into(t, &shelf)
	for _, units := range []string{"metric", "us"} {
		typed := supper()
		typed.Pieces = nil
		for i, c := range shelf.Cuts {
			var p cook.Piece
			call(t, app, "GET", "/api/new/piece?cut="+c.ID+"&units="+units, nil).into(t, &p)
			typed.Pieces = append(typed.Pieces, p)
			if len(typed.Pieces) < 24 && i+1 < len(shelf.Cuts) {
				continue
			}
			r, err := cooking.CookRequest{Cook: typed}.
				Work(t.Context(), cooking.Result{}, kitchen.Kitchen{}, cooking.Clock{Now: apptest.Now})
			require.NoError(t, err)
			s := sheet.Write(r, sheet.Reader{})
			require.Empty(t, s.Errors, "up to %s", c.ID)
			typed.Pieces = nil
		}
	}
}

// A new cook-out is for the next Saturday that is two days away, where it is cooked.
func TestANewCookOutIsForSaturday(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	var fresh cook.Cook
	call(t, app, "GET", "/api/new/cook?zone=Europe/Dublin", nil).into(t, &fresh)
	assert.Equal(t, testclock.Saturday(), fresh.ServeAt)
}

// The fire in numbers: what the shell answers, and a mistake at its field.
func TestForecastInNumbers(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	req := firecalc.FireRequest{
		Piece: firecalc.FirePiece{
			Cut:    "pork-shoulder-bone-in",
			MassKG: 3.6,
		}, Pit: firecalc.FirePit{Steps: []firecalc.FireStep{{SetC: 120}}},
		ThresholdsC: []float64{60, 150}, Members: 40,
	}
	var got firecalc.FireAnswer
	call(t, app, "POST", "/api/calc/fire", req).into(t, &got)
	want, err := firecalc.Calc(t.Context(), req)
	require.NoError(t, err)
	assert.Equal(t, want, got)
	assert.Nil(t, got.Thresholds[1].P50)

	req.Pit.Kind, req.Piece.MassKG = "campfire", -1
	at := []string{}
	for _, e := range call(t, app, "POST", "/api/calc/fire", req).problem(t, 422).Errors {
		at = append(at, e.Pointer)
		assert.NotEmpty(t, e.Message)
	}
	assert.ElementsMatch(t, []string{"/piece/mass_kg", "/pit/kind"}, at)

	var cooled firecalc.RestAnswer
	rest := firecalc.RestRequest{Piece: req.Piece, FromC: 95, Wrap: "foil", Place: "counter"}
	call(t, app, "POST", "/api/calc/rest", rest).problem(t, 422)
	rest.Piece.MassKG = 3.6
	call(t, app, "POST", "/api/calc/rest", rest).into(t, &cooled)
	assert.Less(t, *cooled.Floor.P10, *cooled.Floor.P90)
}
