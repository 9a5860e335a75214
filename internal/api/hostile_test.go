package api_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/hostile"
	"verjuice/internal/testclock"
)

// Whatever is sent, each address answers: soon, never with a failure of the program, and a
// refusal is a problem that says what was wrong. Nothing refused changes what is on record.
func TestWhateverIsSent(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Demo)
	raw, err := api.OpenAPI()
	require.NoError(t, err)
	h, err := hostile.New(raw, 16)
	require.NoError(t, err)
	known := []string{}
	for _, path := range []string{"/cooks/{supper}", "/formulas/{Regatta}"} {
		at := addressed(t, app, path)
		known = append(known, at[strings.LastIndex(at, "/")+1:])
	}
	sent, refused := 0, 0
	for _, operation := range h.Operations() {
		path, method := operation[0], operation[1]
		for n := range 40 {
			h.Odd = []float64{0, 0.02, 0.1, 0.3}[n%4]
			r := h.Request(path, method, known)
			var body any
			if r.HasBody {
				body = r.Body
			}
			onRecord := func() string {
				if method == "get" {
					return ""
				}
				return string(
					call(t, app, "GET", "/api/cooks/"+known[0], nil).body,
				) + string(
					call(t, app, "GET", "/api/formulas/"+known[1], nil).body,
				)
			}
			before := onRecord()
			got := call(t, app, r.Method, r.At, body, r.Headers...)
			sent++
			what := fmt.Sprintf("%s %s\n%.600v\n→ %d %.300s", method, r.At, body, got.StatusCode, got.body)
			assert.Less(t, got.StatusCode, 500, what)
			assert.Less(t, len(got.body), 8<<20, what)
			if got.StatusCode >= 400 {
				refused++
				assert.Equal(t, "application/problem+json", got.Header.Get("Content-Type"), what)
				var p api.Problem
				assert.NoError(t, json.Unmarshal(got.body, &p), what)
				assert.NotEmpty(t, p.Detail+p.Title, what)
				assert.Equal(t, before, onRecord(), what)
			}
			if t.Failed() {
				t.FailNow()
			}
		}
	}
	assert.Greater(t, refused, sent/5, "most of it is nonsense")
	assert.Less(t, refused, sent*9/10, "but some of it is not")
	// The program is as well as it was, and what was there is there.
	assert.Equal(t, http.StatusOK, call(t, app, "GET", "/api/health", nil).StatusCode)
	assert.Equal(t, http.StatusOK, call(t, app, "GET", "/api/catalogue", nil).StatusCode)
}
