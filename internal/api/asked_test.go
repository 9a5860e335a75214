package api_test

import (
	"encoding/csv"
	"encoding/json"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/meal"
	"verjuice/internal/exchange"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
)

// What is looked for and is not there is answered alike, whatever it is looked for by; a number that is
// none is a mistake.
func TestWhatIsSoughtInVain(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Logbook)
	total := func(path string) int64 {
		r := call(t, app, "GET", path, nil)
		require.Equal(t, http.StatusOK, r.StatusCode, path)
		var page struct {
			Items []json.RawMessage
			Total int64
		}
		r.into(t, &page)
		assert.NotNil(t, page.Items, path)
		return page.Total
	}
	require.Positive(t, total("/api/logbook"))
	for _, path := range []string{"/api/logbook?search=", "/api/logbook?cut=", "/api/logbook?finish=",
		"/api/logbook?pit=", "/api/logbook?wrap=", "/api/logbook?formula=", "/api/logbook?weather=", "/api/formulas?kind=",
		"/api/formulas?tag=", "/api/formulas?search=", "/api/cooks?search=", "/api/meals?search="} {
		for _, no := range []string{"unicorn", "%7C", "%25", "_", "%7Cx%7C", "%27"} {
			if strings.Contains(path, "search") && no == "%27" {
				continue // a name may have one
			}
			assert.Zero(t, total(path+no), path+no)
		}
	}
	for _, path := range []string{"/api/logbook?score=NaN", "/api/logbook?score=-Inf", "/api/jars?need=nan",
		"/api/jars?need=Infinity"} {
		p := call(t, app, "GET", path, nil).problem(t, http.StatusUnprocessableEntity)
		assert.Contains(t, p.Errors[0].Pointer, "/query/")
	}
	call(t, app, "GET", "/api/cooks/"+uuid.NewString()+"/live/stream", nil).problem(t, http.StatusNotFound)
}

// A key is told in any case of its scheme; one that is missing or wrong is asked for by name; a device is
// named in characters; and a hand-in that is ahead of the clock says why it is not shown.
func TestThermometersAreToldWhy(t *testing.T) {
	app := apptest.Start(t, apptest.Demo)
	id := addressed(t, app, "/api/cooks/{supper}")
	var made api.DeviceLine
	r := call(t, app, "POST", id+"/devices", api.DeviceNamed{Name: strings.Repeat("é", store.MostDeviceName)})
	require.Equal(t, http.StatusCreated, r.StatusCode, string(r.body))
	r.into(t, &made)
	call(
		t,
		app,
		"POST",
		id+"/devices",
		api.DeviceNamed{Name: strings.Repeat("é", store.MostDeviceName+1)},
	).problem(t, http.StatusUnprocessableEntity)
	read := func(at time.Time, headers ...string) reply {
		c := 60.0
		return call(
			t,
			app,
			"POST",
			id+"/readings",
			facts.HandIn{
				ID:       uuid.NewString(),
				Readings: []facts.ReadingSent{{Probe: "pit:0", At: at.Format(time.RFC3339), C: &c}},
			},
			headers...)
	}
	for _, scheme := range []string{"Bearer ", "bearer ", "BEARER   "} {
		r := read(testclock.Now(), "Authorization", scheme+made.Key)
		require.Equal(t, http.StatusCreated, r.StatusCode, string(r.body))
		assert.NotContains(t, string(r.body), "note")
	}
	for _, wrong := range []string{"Bearer x", "Basic " + made.Key, made.Key} {
		r := read(testclock.Now(), "Authorization", wrong)
		r.problem(t, http.StatusUnauthorized)
		assert.Contains(t, r.Header.Get("WWW-Authenticate"), "Bearer")
	}
	var handed api.HandedIn
	read(testclock.Now().Add(time.Hour)).into(t, &handed)
	assert.Contains(t, handed.Note, "dated ahead")
}

// No spreadsheet computes a cell of a table that is carried away, and each is read back as it was.
func TestTablesAreSafe(t *testing.T) {
	app := apptest.Start(t, apptest.Demo)
	id := addressed(t, app, "/api/cooks/{supper}")
	texts := []string{"=1+1", "+cmd", "-a", "@x", "\tq", "'quoted", "plain", "-5", "''twice", "-", "1e5"}
	for _, what := range texts {
		f := facts.Fact{
			ID:     uuid.NewString(),
			Kind:   facts.Noted,
			What:   "x",
			Author: what,
			At:     testclock.Now().Format(time.RFC3339),
		}
		require.Equal(t, http.StatusCreated, call(t, app, "POST", id+"/facts", f).StatusCode)
	}
	r := call(t, app, "GET", id+"/log.csv", nil)
	require.Equal(t, http.StatusOK, r.StatusCode)
	rows, err := csv.NewReader(strings.NewReader(string(r.body))).ReadAll()
	require.NoError(t, err)
	var back []string
	for _, row := range rows[1:] {
		for _, cell := range row {
			if cell != "" && strings.ContainsRune("=+@\t\r", rune(cell[0])) ||
				len(cell) > 1 && cell[0] == '-' && (cell[1] < '0' || cell[1] > '9') {
				t.Errorf("%q would be computed", cell)
			}
		}
		back = append(back, exchange.Unguard(row[7]))
	}
	assert.ElementsMatch(t, texts, back)
}

// A meal is made of what was cooked before it, and not years before.
func TestMealsAreDated(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	for day, status := range map[string]int{"2026-11-22": 201, "2026-12-24": 422, "2020-01-01": 422, "0001-01-01": 422,
		"9999-12-31": 422, "soon": 422} {
		m := meal.Meal{
			Name:    "Lunch",
			ServeAt: "2026-11-24T13:00",
			Zone:    testclock.Zone,
			Items:   []meal.Item{{Key: "a", Weight: "1 kg", Cooked: day}},
		}
		r := call(t, app, "POST", "/api/meals", m)
		assert.Equal(t, status, r.StatusCode, "%s: %s", day, r.body)
	}
}
