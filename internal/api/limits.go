package api

import (
	"math"
	"net/http"
	"strconv"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/field"
)

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
