package api_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/demo"
)

// description is what the program says of its own API, as far as a stranger needs it to send
// anything anywhere.
type description struct {
	Paths map[string]map[string]struct {
		Parameters []struct {
			Name, In string
			Schema   schema
		}
		RequestBody struct {
			Content map[string]struct{ Schema schema }
		}
	}
	Components struct{ Schemas map[string]schema }
}

type schema struct {
	Ref        string `json:"$ref"`
	Type       any
	Properties map[string]schema
	Items      *schema
	Enum       []any
	Format     string
	More       any `json:"additionalProperties"`
}

// hostile makes values: most of them as the schema asks, some of them as nobody does.
type hostile struct {
	*rand.Rand
	of *description
	// odd is how often a value is one that nobody would send.
	odd float64
}

// What is typed by those who make no mistake, and by those who make all of them.
var sound = []string{"2.4 kg", "5 lb 4 oz", "1 1/2 cups", "85 mm", "120 °C", "250F", "90 min", "12 h", "0.9 %", "2", "8", "60 g/L", "pork-shoulder-bone-in", "kosher-salt", "coat", "medium", "foil", "seasoned", "Europe/Dublin", "2026-11-28T18:30", "23:00-06:00", "cabinet", ""}

var strange = []string{
	"", " ", "\u0000", "-1 kg", "1e999 g", "NaN", "∞", "1/0", "9999999999999999999999 kg", "2 cups or maybe 3 lb", "12,5", "1.000.000", "🌶🌶🌶", "\u202eexe.gpj", "' OR 1=1 --",
	"<script>alert(1)</script>", "../../../../etc/passwd", "0026-01-01T00:00", "9999-12-31T23:59", "2026-02-30T25:61", "Local", "23:00-23:00", "{{.}}", "%s%n", "null", "\ufeff2 kg",
	strings.Repeat("9", 400), strings.Repeat("x", 5000), strings.Repeat("( ", 900), strings.Repeat("1 kg + ", 300),
}

var numbers = []any{0, -1, 1, 3, 1.5, 1e308, -1e308, 5e-324, 9007199254740993, json.Number("1e400"), json.Number("-0"), 1000000}

func pick[T any](h *hostile, of []T) T { return of[h.IntN(len(of))] }

func (h *hostile) value(s schema, depth int) any {
	if s.Ref != "" {
		s = h.of.Components.Schemas[s.Ref[strings.LastIndex(s.Ref, "/")+1:]]
	}
	if h.Float64() < h.odd {
		return pick(h, []any{nil, true, pick(h, numbers), pick(h, strange), []any{}, map[string]any{}, []any{pick(h, strange), nil}, map[string]any{pick(h, strange): pick(h, numbers)}})
	}
	kind := fmt.Sprint(s.Type)
	switch {
	case len(s.Enum) > 0 && h.Float64() > h.odd:
		return pick(h, s.Enum)
	case strings.Contains(kind, "object"):
		out := map[string]any{}
		for _, name := range sorted(s.Properties) {
			if name != "$schema" && depth < 9 && h.Float64() > 0.15 {
				out[name] = h.value(s.Properties[name], depth+1)
			}
		}
		if s.Properties == nil {
			for range h.IntN(3) {
				out[pick(h, sound)] = pick(h, sound)
			}
		}
		return out
	case strings.Contains(kind, "array"):
		out := []any{}
		most := 3
		if h.Float64() < 0.03 {
			most = 120
		}
		for range h.IntN(most) {
			out = append(out, h.value(*s.Items, depth+1))
		}
		return out
	case strings.Contains(kind, "boolean"):
		return h.IntN(2) == 0
	case strings.Contains(kind, "integer"):
		return h.IntN(5)
	case strings.Contains(kind, "number"):
		return pick(h, []any{0, 1, 2.5, 4, 60, 95, 120})
	case s.Format == "uuid":
		return fmt.Sprintf("%08x-0000-4000-8000-%012x", h.Uint32(), h.IntN(3))
	}
	if h.Float64() < 2*h.odd {
		return pick(h, strange)
	}
	return pick(h, sound)
}

func sorted[T any](m map[string]T) []string {
	out := []string{}
	for k := range m {
		out = append(out, k)
	}
	slices.Sort(out)
	return out
}

// Whatever is sent, each address answers: soon, never with a failure of the program, and a
// refusal is a problem that says what was wrong. Nothing refused changes what is on record.
func TestWhateverIsSent(t *testing.T) {
	app := apptest.Start(t)
	require.NoError(t, demo.Load(t.Context(), app.Store, apptest.Now))
	raw, err := api.OpenAPI()
	require.NoError(t, err)
	var of description
	require.NoError(t, json.Unmarshal(raw, &of))
	known := []string{}
	for _, path := range []string{"/cooks/{supper}", "/formulas/{Regatta}"} {
		at := addressed(t, app, path)
		known = append(known, at[strings.LastIndex(at, "/")+1:])
	}
	h := &hostile{Rand: rand.New(rand.NewPCG(16, 2026)), of: &of}
	sent, refused := 0, 0
	for _, path := range sorted(of.Paths) {
		for _, method := range sorted(of.Paths[path]) {
			operation := of.Paths[path][method]
			if path == "/api/scale" {
				continue // a stream, which has no end
			}
			for n := range 40 {
				h.odd = []float64{0, 0.02, 0.1, 0.3}[n%4]
				at, query, headers := path, url.Values{}, []string{}
				for _, p := range operation.Parameters {
					value := fmt.Sprint(h.value(p.Schema, 0))
					switch {
					case p.In == "path":
						if h.Float64() < 0.6 {
							value = pick(h, known)
						}
						at = strings.ReplaceAll(at, "{"+p.Name+"}", url.PathEscape(strings.ReplaceAll(value, "\u0000", "")))
					case p.In == "query" && h.IntN(2) == 0:
						query.Set(p.Name, value)
					case p.In == "header" && h.IntN(2) == 0 && !strings.ContainsAny(value, "\u0000\r\n"):
						headers = append(headers, p.Name, value)
					}
				}
				if len(query) > 0 {
					at += "?" + query.Encode()
				}
				var body any
				if content, ok := operation.RequestBody.Content["application/json"]; ok {
					text, err := json.Marshal(h.value(content.Schema, 0))
					require.NoError(t, err)
					body = string(text)
					if h.Float64() < 0.04 {
						body = pick(h, []string{"", "{", "[]", "null", "\xff\xfe", `{"a":` + strings.Repeat("[", 3000)})
					}
				}
				onRecord := func() string {
					if method == "get" {
						return ""
					}
					return string(call(t, app, "GET", "/api/cooks/"+known[0], nil).body) + string(call(t, app, "GET", "/api/formulas/"+known[1], nil).body)
				}
				before := onRecord()
				start := time.Now()
				got := call(t, app, strings.ToUpper(method), at, body, headers...)
				took := time.Since(start)
				sent++
				what := fmt.Sprintf("%s %s\n%.600v\n→ %d %.300s", method, at, body, got.StatusCode, got.body)
				assert.Less(t, got.StatusCode, 500, what)
				assert.Less(t, took, 10*time.Second, what)
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
	}
	assert.Greater(t, refused, sent/5, "most of it is nonsense")
	assert.Less(t, refused, sent*9/10, "but some of it is not")
	// The program is as well as it was, and what was there is there.
	assert.Equal(t, http.StatusOK, call(t, app, "GET", "/api/health", nil).StatusCode)
	assert.Equal(t, http.StatusOK, call(t, app, "GET", "/api/catalogue", nil).StatusCode)
}
