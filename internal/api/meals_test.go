package api_test

import (
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/meal"
	"verjuice/internal/sheet"
)

// A later meal is from what was kept of a cook-out: what one meal takes is not there for another, and
// how the meat was kept is told. It is changed by version, deleted and brought back, and goes to the
// calendar.
func TestLaterMeals(t *testing.T) {
	app := apptest.Start(t, apptest.Logbook)
	var choices api.MealChoices
	call(t, app, "GET", "/api/meals/choices", nil).into(t, &choices)
	require.NotEmpty(t, choices.Kept)
	from := choices.Kept[0]
	assert.Regexp(t, `^Lamb for the committee, .* kept$`, from.Note)
	var m meal.Meal
	call(t, app, "GET", "/api/new/meal?zone=Europe/Dublin&cook="+from.Cook+"&piece="+from.Piece, nil).into(t, &m)
	require.Len(t, m.Items, 1)
	assert.Equal(t, "pulled", m.Items[0].Form)

	// The demo's lunch has taken four portions of flatbread of it.
	out := func(m meal.Meal, id string) (s sheet.MealSheet) {
		call(t, app, "POST", "/api/calc/meal?id="+id, m).into(t, &s)
		return s
	}
	fresh := out(m, "")
	assert.Contains(t, fresh.Items[0].From, ", 360 g of it for other meals")
	// Kept in the fridge for so long it is not eaten any more, and the risk can be taken only by name.
	require.NotEmpty(t, fresh.Cautions)
	assert.Equal(t, "reheat-too-old", fresh.Cautions[0].ID)
	m.Read = map[string]string{fresh.Cautions[0].Acknowledge: "2026-11-28T10:00:00Z"}
	assert.NotEmpty(t, out(m, "").Cautions[0].Read)
	m.Items[0].Kept = "freezer"
	for _, c := range out(m, "").Cautions {
		assert.NotEqual(t, "stop", string(c.Severity), c.Message)
	}
	m.Items[0].Weight = "3 kg"
	assert.Contains(t, out(m, "").Items[0].Problem, "more than is left of it")

	var rec api.DocRecord[meal.Meal]
	call(t, app, "POST", "/api/meals", m).into(t, &rec)
	assert.NotContains(t, out(rec.Doc, rec.ID).Items[0].From, "3.36 kg", "what it takes itself is not taken elsewhere")
	m.Set = "hot"
	bad := call(t, app, "PUT", "/api/meals/"+rec.ID, m, "If-Match", `"1"`).problem(t, http.StatusUnprocessableEntity)
	assert.Equal(t, "/set", bad.Errors[0].Pointer)
	m.Set = "160 °C"
	assert.Equal(t, http.StatusOK, call(t, app, "PUT", "/api/meals/"+rec.ID, m, "If-Match", `"1"`).StatusCode)
	call(t, app, "PUT", "/api/meals/"+rec.ID, m, "If-Match", `"1"`).problem(t, http.StatusPreconditionFailed)
	ics := call(t, app, "GET", "/api/meals/"+rec.ID+"/calendar.ics", nil)
	assert.Contains(t, string(ics.body), "SUMMARY:Heat the oven to 160")
	assert.Equal(t, strings.Count(string(ics.body), "BEGIN:VEVENT"), len(out(m, rec.ID).Tasks))
	list := func() (l api.ListPage[sheet.MealLine]) {
		call(t, app, "GET", "/api/meals", nil).into(t, &l)
		return l
	}
	assert.EqualValues(t, 2, list().Total)
	assert.Equal(t, http.StatusNoContent, call(t, app, "DELETE", "/api/meals/"+rec.ID, nil, "If-Match", `"2"`).StatusCode)
	assert.EqualValues(t, 1, list().Total)
	call(t, app, "POST", "/api/meals/"+rec.ID+"/restore", nil)
	assert.EqualValues(t, 2, list().Total)
	call(t, app, "GET", "/api/new/meal?zone=Nowhere", nil).problem(t, http.StatusUnprocessableEntity)
}
