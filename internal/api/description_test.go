package api_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"net/http"
	"slices"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/doctable"
)

// described is what the API says of one operation.
type described struct {
	OperationID string
	Summary     string
	Tags        []string
	Responses   map[string]struct {
		Content map[string]struct{ Schema map[string]any }
		Headers map[string]any
	}
}

// description is what the API says of itself, by path and method.
var description = sync.OnceValue(func() map[string]map[string]described {
	raw, err := api.OpenAPI()
	var out struct {
		Paths map[string]map[string]described
	}
	if err = errors.Join(err, json.Unmarshal(raw, &out)); err != nil {
		panic(err)
	}
	return out.Paths
})

// Every operation says what it does and is about, has an id of a verb and what it is done to, and declares the
// problems that it may be answered by as the one model of them; what makes a record says where it is.
func TestEveryOperationIsDescribed(t *testing.T) {
	verbs := []string{
		"get", "list", "create", "save", "delete", "restore", "calc", "import", "export", "preview", "stream", "duplicate",
		"repeat", "compare", "new", "reset", "leaveOut", "play", "clear", "put", "tare", "with", "without",
	}
	seen := map[string]bool{}
	for path, methods := range description() {
		for method, o := range methods {
			what := method + " " + path
			assert.False(t, seen[o.OperationID], o.OperationID)
			seen[o.OperationID] = true
			assert.NotEmpty(t, o.Summary, what)
			assert.Len(t, o.Tags, 1, what)
			assert.True(t, slices.ContainsFunc(verbs, func(v string) bool { return strings.HasPrefix(o.OperationID, v) }),
				"%s: %s", what, o.OperationID)
			problems := 0
			for status, r := range o.Responses {
				if status < "4" {
					continue
				}
				problems++
				assert.Equal(t, "#/components/schemas/Problem", r.Content["application/problem+json"].Schema["$ref"], "%s %s",
					what, status)
			}
			assert.Positive(t, problems, what)
			if created, ok := o.Responses["201"]; ok && created.Headers["ETag"] != nil {
				assert.Contains(t, created.Headers, "Location", what)
			}
		}
	}
	assert.Greater(t, len(seen), 100)
}

// docs/api.md lists every operation as the API describes it.
func TestTheDocumentListsEveryOperation(t *testing.T) {
	rows := []string{"| operation | what it does | problems |", "|---|---|---|"}
	all := description()
	for _, path := range slices.Sorted(maps.Keys(all)) {
		for _, method := range slices.Sorted(maps.Keys(all[path])) {
			o := all[path][method]
			problems := []string{}
			for _, status := range slices.Sorted(maps.Keys(o.Responses)) {
				if status >= "4" && status != "500" {
					problems = append(problems, status)
				}
			}
			rows = append(rows, fmt.Sprintf("| `%s %s` (%s) | %s | %s |",
				strings.ToUpper(method), path, o.OperationID, o.Summary, strings.Join(problems, " ")))
		}
	}
	doctable.Holds(t, "../../docs/api.md", rows)
}

// What is made says where it is, and is there; a page that nobody may change is told by its version.
func TestWhatIsMadeSaysWhereItIs(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	made := call(t, app, "POST", "/api/cooks", anycook.Supper(anycook.Coated("pork-loin", "2 kg")))
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	at := made.Header.Get("Location")
	got := call(t, app, "GET", at, nil)
	require.Equal(t, http.StatusOK, got.StatusCode)
	assert.Equal(t, made.Header.Get("ETag"), got.Header.Get("ETag"))
	again := call(t, app, "POST", at+"/duplicate", nil)
	require.Equal(t, http.StatusCreated, again.StatusCode)
	assert.NotEqual(t, at, again.Header.Get("Location"))
	for _, weak := range []string{"", "W/"} {
		match := weak + got.Header.Get("ETag")
		var rec api.CookRecord
		got.into(t, &rec)
		saved := call(t, app, "PUT", at, rec.Doc, "If-Match", match)
		require.Equal(t, http.StatusOK, saved.StatusCode, string(saved.body))
		got = call(t, app, "GET", at, nil)
		call(t, app, "PUT", at, rec.Doc, "If-Match", match).problem(t, http.StatusPreconditionFailed)
	}
	call(t, app, "DELETE", at, nil).problem(t, http.StatusPreconditionRequired)
}
