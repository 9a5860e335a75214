package api

import (
	"context"
	"math"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/field"
)

// How long a request may take: what reads and writes records answers within seconds, or says
// that the database does not; what computes or reads a file has longer. A stream has no end.
const (
	shortly  = 2800 * time.Millisecond
	patience = 45 * time.Second
)

// longer are the addresses that compute, or read files.
var longer = []string{
	"/api/calc/",
	"/api/forecast",
	"/api/page",
	"/api/sheet",
	"/api/shopping",
	"/api/exchange/",
	"/opened",
	"/overwritten",
	"/api/guess",
	"/photos",
	"/calendar.ics",
	"/api/photos",
	"/live",
	"/practise",
	"/readings",
	"/after",
	"/api/now",
	"/api/logbook",
	"/api/lessons",
	"/log.csv",
	"/api/past",
	"/table",
}

// limited gives each request its time, which its context passes on.
func limited(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Method == http.MethodGet && (r.URL.Path == "/api/scale" || strings.HasSuffix(r.URL.Path, "/live/stream")) ||
			r.URL.Path == "/api/book" ||
			!strings.HasPrefix(r.URL.Path, "/api/") {
			next.ServeHTTP(w, r)
			return
		}
		most := shortly
		for _, at := range longer {
			if strings.Contains(r.URL.Path, at) {
				most = patience
			}
		}
		ctx, cancel := context.WithTimeout(r.Context(), most)
		defer cancel()
		next.ServeHTTP(w, r.WithContext(ctx))
	})
}

// readable refuses addresses whose parameters are no text, and those of numbers that are none: NaN and
// Inf are read as numbers, and pass every bound.
func readable(numbers map[string]bool) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			for name, values := range r.URL.Query() {
				for _, v := range values {
					if v != field.Clean(v) {
						write(w, newProblem(http.StatusUnprocessableEntity, "A parameter of this address is not a text.").(*Problem))
						return
					}
					if f, err := strconv.ParseFloat(v, 64); numbers[name] && err == nil && (math.IsNaN(f) || math.IsInf(f, 0)) {
						write(
							w,
							newProblem(http.StatusUnprocessableEntity, "Some of what was asked cannot be used.",
								&huma.ErrorDetail{Location: "query." + name, Message: "a number is needed"}).(*Problem),
						)
						return
					}
				}
			}
			next.ServeHTTP(w, r)
		})
	}
}

// numbered are the parameters of addresses that are numbers, as the API describes itself.
func numbered(a huma.API, into map[string]bool) {
	for _, path := range a.OpenAPI().Paths {
		for _, o := range []*huma.Operation{path.Get, path.Post, path.Put, path.Delete} {
			if o == nil {
				continue
			}
			for _, p := range o.Parameters {
				if p.In == "query" && p.Schema != nil && p.Schema.Type == huma.TypeNumber {
					into[p.Name] = true
				}
			}
		}
	}
}
