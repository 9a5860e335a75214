package api_test

import (
	"encoding/json"
	"net/http"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/facts"
	"verjuice/internal/testclock"
)

// Facts need no version: they are added once, kept with their cook, and never changed.
func TestFactsOverHTTP(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	var second api.CookRecord
	require.Equal(t, http.StatusCreated, call(t, app, "POST", "/api/cooks", supper()).StatusCode)
	later := supper()
	later.Name = "Later"
	call(t, app, "POST", "/api/cooks", later).into(t, &second)
	fact := facts.Fact{
		ID:    "0b0e7a52-6a1f-4c0e-9d53-0d5f3c1e8a11",
		Kind:  facts.Done,
		Piece: "k1",
		What:  "salt",
		At:    testclock.At(2, "20:00"),
	}
	for range 3 { // a sender that heard no answer sends again
		require.Equal(t, http.StatusCreated, call(t, app, "POST", "/api/cooks/{supper}/facts", fact).StatusCode)
	}
	var list facts.Facts
	call(t, app, "GET", "/api/cooks/{supper}/facts", nil).into(t, &list)
	assert.Equal(t, facts.Facts{fact}, list)
	call(t, app, "POST", "/api/cooks/"+second.ID+"/facts", fact).problem(t, http.StatusConflict)
	other := fact
	other.At = testclock.At(2, "21:00")
	call(t, app, "POST", "/api/cooks/{supper}/facts", other).problem(t, http.StatusConflict)
	call(t, app, "POST", "/api/cooks/9/facts", fact).problem(t, http.StatusNotFound)
	call(t, app, "GET", "/api/cooks/9/facts", nil).problem(t, http.StatusNotFound)
	other.ID, other.What = "nobody", "sleep"
	p := call(t, app, "POST", "/api/cooks/{supper}/facts", other).problem(t, http.StatusUnprocessableEntity)
	require.Len(t, p.Errors, 2)
	assert.Equal(t, "/id", p.Errors[0].Pointer)
	for _, broken := range []string{"", "[]", "null", `{"id":7}`, `{"id":"x","kind":"done"`, `{"surprise":1}`} {
		got := call(t, app, "POST", "/api/cooks/{supper}/facts", broken)
		assert.GreaterOrEqual(t, got.StatusCode, 400, broken)
		assert.Less(t, got.StatusCode, 500, broken)
	}

	// A copy of the cook has had nothing happen to it; a restored one has all of it.
	var copied api.CookRecord
	call(t, app, "POST", "/api/cooks/{supper}/duplicate", nil).into(t, &copied)
	call(t, app, "GET", "/api/cooks/"+copied.ID+"/facts", nil).into(t, &list)
	assert.Empty(t, list)
	require.Equal(
		t,
		http.StatusNoContent,
		call(t, app, "DELETE", "/api/cooks/{supper}", nil, "If-Match", `"1"`).StatusCode,
	)
	call(t, app, "GET", "/api/cooks/{supper}/facts", nil).problem(t, http.StatusNotFound)
	call(t, app, "POST", "/api/cooks/{supper}/facts", fact).problem(t, http.StatusNotFound)
	require.Equal(t, http.StatusOK, call(t, app, "POST", "/api/cooks/{supper}/restore", nil).StatusCode)
	call(t, app, "GET", "/api/cooks/{supper}/facts", nil).into(t, &list)
	assert.Equal(t, facts.Facts{fact}, list)
}

// What a phone kept under the program of November 2026 is still taken when it comes.
func TestWhatAPhoneKept(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Demo)
	raw, err := os.ReadFile("../../web/src/pit/outbox-2026.json")
	require.NoError(t, err)
	var parcels []struct {
		To   string
		Body map[string]any
	}
	require.NoError(t, json.Unmarshal(raw, &parcels))
	require.Len(t, parcels, 3)
	for _, p := range parcels {
		r := call(t, app, "POST", addressed(t, app, "/api/cooks/{supper}/")+p.To, p.Body)
		assert.Equal(t, http.StatusCreated, r.StatusCode, string(r.body))
	}
}
