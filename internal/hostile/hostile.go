// Package hostile makes requests as strangers send them, from what the program says of its own
// API: most of them sensible, some that nobody would send.
//
//	m, err := hostile.New(openAPI, 7)
//	r := m.Request("/api/cooks", "post", nil)   // r.Method, r.At, r.Body, r.Headers
package hostile

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/url"
	"slices"
	"strings"
)

// Request is one request.
type Request struct {
	Method, At string // At with its query
	Body       string
	HasBody    bool
	Headers    []string // names and values in turn
}

// New makes requests for an API that is described so, always the same for a seed.
func New(openAPI []byte, seed uint64) (*Maker, error) {
	var of description
	err := json.Unmarshal(openAPI, &of)
	return &Maker{Rand: rand.New(rand.NewPCG(seed, 2026)), of: &of}, err
}

// Operations are the addresses of the API with their methods, streams left out, since they have
// no end.
func (h *Maker) Operations() [][2]string {
	var out [][2]string
	for _, path := range sorted(h.of.Paths) {
		for _, method := range sorted(h.of.Paths[path]) {
			if path != "/api/scale" && !strings.HasSuffix(path, "/stream") {
				out = append(out, [2]string{path, method})
			}
		}
	}
	return out
}

// Request is a request to an address; ids that exist are used now and then.
func (h *Maker) Request(path, method string, known []string) Request {
	operation := h.of.Paths[path][method]
	out := Request{Method: strings.ToUpper(method), At: path}
	query := url.Values{}
	for _, p := range operation.Parameters {
		value := fmt.Sprint(h.value(p.Schema, 0))
		switch {
		case p.In == "path":
			if len(known) > 0 && h.Float64() < 0.6 {
				value = pick(h, known)
			}
			out.At = strings.ReplaceAll(out.At, "{"+p.Name+"}", url.PathEscape(strings.ReplaceAll(value, "\u0000", "")))
		case p.In == "query" && h.IntN(2) == 0:
			query.Set(p.Name, value)
		case p.In == "header" && h.IntN(2) == 0 && !strings.ContainsAny(value, "\u0000\r\n"):
			out.Headers = append(out.Headers, p.Name, value)
		}
	}
	if len(query) > 0 {
		out.At += "?" + query.Encode()
	}
	content, ok := operation.RequestBody.Content["application/json"]
	if !ok {
		return out
	}
	text, err := json.Marshal(h.value(content.Schema, 0))
	if err != nil {
		panic(err) // plain values
	}
	if out.Body, out.HasBody = string(text), true; h.Float64() < 0.04 {
		out.Body = pick(h, []string{"", "{", "[]", "null", "\xff\xfe", `{"a":` + strings.Repeat("[", 3000)})
	}
	return out
}

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

// Maker makes values: most of them as the schema asks, some of them as nobody does.
type Maker struct {
	*rand.Rand
	of *description
	// Odd is how often a value is one that nobody would send.
	Odd float64
}

// What is typed by those who make no mistake, and by those who make all of them.
var sound = []string{
	"2.4 kg",
	"5 lb 4 oz",
	"1 1/2 cups",
	"85 mm",
	"120 °C",
	"250F",
	"90 min",
	"12 h",
	"0.9 %",
	"2",
	"8",
	"60 g/L",
	"pork-shoulder-bone-in",
	"kosher-salt",
	"coat",
	"medium",
	"foil",
	"seasoned",
	"Europe/Dublin",
	"2026-11-28T18:30",
	"23:00-06:00",
	"cabinet",
	"",
}

var strange = []string{
	"", " ", "\u0000", "-1 kg", "1e999 g", "NaN", "∞", "1/0", "9999999999999999999999 kg", "2 cups or maybe 3 lb",
	"12,5", "1.000.000", "🌶🌶🌶", "\u202eexe.gpj", "' OR 1=1 --",
	"<script>alert(1)</script>", "../../../../etc/passwd", "0026-01-01T00:00", "9999-12-31T23:59", "2026-02-30T25:61",
	"Local", "23:00-23:00", "{{.}}", "%s%n", "null", "\ufeff2 kg",
	strings.Repeat("9", 400), strings.Repeat("x", 5000), strings.Repeat("( ", 900), strings.Repeat("1 kg + ", 300),
}

var numbers = []any{
	0,
	-1,
	1,
	3,
	1.5,
	1e308,
	-1e308,
	5e-324,
	9007199254740993,
	json.Number("1e400"),
	json.Number("-0"),
	1000000,
}

func pick[T any](h *Maker, of []T) T { return of[h.IntN(len(of))] }

func (h *Maker) value(s schema, depth int) any {
	if s.Ref != "" {
		s = h.of.Components.Schemas[s.Ref[strings.LastIndex(s.Ref, "/")+1:]]
	}
	if h.Float64() < h.Odd {
		return pick(
			h,
			[]any{
				nil,
				true,
				pick(h, numbers),
				pick(h, strange),
				[]any{},
				map[string]any{},
				[]any{pick(h, strange), nil},
				map[string]any{pick(h, strange): pick(h, numbers)},
			},
		)
	}
	kind := fmt.Sprint(s.Type)
	switch {
	case len(s.Enum) > 0 && h.Float64() > h.Odd:
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
	if h.Float64() < 2*h.Odd {
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
