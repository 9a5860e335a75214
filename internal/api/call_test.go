package api_test

import (
	"bytes"
	"encoding/json"
	"io"
	"maps"
	"net/http"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-chi/chi/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/store"
)

type reply struct {
	*http.Response
	body []byte
}

func (r reply) into(t *testing.T, v any) {
	t.Helper()
	require.NoError(t, json.Unmarshal(r.body, v), string(r.body))
}

// items takes the lines of a list.
func (r reply) items(t *testing.T, v any) {
	t.Helper()
	var page struct{ Items json.RawMessage }
	r.into(t, &page)
	require.NoError(t, json.Unmarshal(page.Items, v), string(r.body))
}

func (r reply) problem(t *testing.T, status int) api.Problem {
	t.Helper()
	require.Equal(t, status, r.StatusCode, string(r.body))
	assert.Equal(t, "application/problem+json", r.Header.Get("Content-Type"))
	var p api.Problem
	r.into(t, &p)
	assert.Equal(t, status, p.Status)
	assert.NotEmpty(t, p.Detail)
	return p
}

// addressed puts the id of a record into a path that names it: {supper} is the one whose
// name has this in it, {} the only one.
func addressed(t testing.TB, app apptest.App, path string) string {
	t.Helper()
	return regexp.MustCompile(`(cooks|formulas|jars|ingredients)/\{(.*?)\}`).
		ReplaceAllStringFunc(path, func(part string) string {
			kind, name, _ := strings.Cut(strings.TrimSuffix(part, "}"), "/{")
			q := store.Query{Search: name, Gone: true}
			var id string
			var err error
			switch kind {
			case "cooks":
				id, err = first(app.Store.Cooks().List(t.Context(), q))
			case "formulas":
				id, err = first(app.Store.Formulas().List(t.Context(), q))
			case "jars":
				id, err = first(app.Store.Jars().List(t.Context(), q))
			case "ingredients":
				id, err = first(app.Store.Ingredients().List(t.Context(), q))
			}
			require.NoError(t, err)
			return kind + "/" + id
		})
}

func first[T any](list []store.Record[T], _ int64, err error) (string, error) {
	if len(list) == 0 {
		return "none", err
	}
	return list[0].ID, err
}

// client waits no longer for an answer than anything here may take.
var client = &http.Client{Timeout: 10 * time.Second}

// call sends body (JSON text, or a value to encode) with pairs of headers.
func call(t testing.TB, app apptest.App, method, path string, body any, headers ...string) reply {
	t.Helper()
	var raw []byte
	switch b := body.(type) {
	case nil:
	case string:
		raw = []byte(b)
	default:
		var err error
		raw, err = json.Marshal(b)
		require.NoError(t, err)
	}
	req, err := http.NewRequestWithContext(t.Context(), method, app.URL+addressed(t, app, path), bytes.NewReader(raw))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	for i := 0; i < len(headers); i += 2 {
		if headers[i] == "Host" {
			req.Host = headers[i+1]
		}
		req.Header.Set(headers[i], headers[i+1])
	}
	res, err := client.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	out, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	foreseen(t, method, req.URL.Path, res.StatusCode, string(out))
	return reply{res, out}
}

// beforehand are the problems that a request is answered by before any operation sees it: one of another site,
// to another address, by another method or about nothing of ours.
var beforehand = []int{http.StatusForbidden, http.StatusMisdirectedRequest, http.StatusMethodNotAllowed,
	http.StatusInternalServerError,
}

// operations finds the operation that a request is about, by its method and path.
var operations = sync.OnceValue(func() *chi.Mux {
	all := chi.NewMux()
	for path, methods := range description() {
		for method := range methods {
			all.MethodFunc(strings.ToUpper(method), path, func(http.ResponseWriter, *http.Request) {})
		}
	}
	return all
})

// foreseen fails where an operation is answered by what the API's description of it does not say.
func foreseen(t testing.TB, method, path string, status int, body string) {
	t.Helper()
	at := chi.NewRouteContext()
	if !operations().Match(at, method, path) || slices.Contains(beforehand, status) {
		return
	}
	said := description()[at.RoutePattern()][strings.ToLower(method)].Responses
	assert.Contains(t, slices.Sorted(maps.Keys(said)), strconv.Itoa(status), "%s %s: %s", method, path, body)
}
