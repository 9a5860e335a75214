// Package api serves Verjuice over HTTP: a JSON API described by OpenAPI, and
// the built pages.
//
//	h := api.New(api.Config{Store: db, Pages: web.Files(), Now: time.Now})
//	http.Serve(listener, h)
//
// Handlers are thin: decode, call the core or the store, encode. Errors are
// application/problem+json (RFC 9457) with a JSON pointer to each value that is
// wrong. Writes to a record need If-Match with the ETag it was read with.
package api

import (
	"context"
	"encoding/json"
	"io"
	"io/fs"
	"net/http"
	"reflect"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
	"github.com/klauspost/compress/gzip"

	"verjuice/internal/app"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/quantity"
	"verjuice/internal/instrument"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// Config is what the API needs.
type Config struct {
	Store    *store.Store
	Pages    fs.FS                        // the built pages; nil serves the API alone
	Now      func() time.Time             // the clock
	Stopping <-chan struct{}              // closed when the program stops, so that streams end; nil means never
	Scale    *instrument.Simulated        // the simulated scale; nil makes one
	Bell     interface{ Broken() string } // what rings at an alarm, and why it does not; nil is none
	Hosts    []string                     // host:port values that requests may be addressed to; empty allows any
}

type server struct {
	Config
	lives  *lives
	taking taking
	app    *app.App
}

// New returns the handler of the whole application.
func New(cfg Config) http.Handler {
	r := chi.NewRouter()
	numbers := map[string]bool{}
	r.Use(middleware.Recoverer, secure(cfg.Hosts), readable(numbers))
	// Figures are squeezed quickly, since a cook is typing; pages well.
	numbered(register(r.With(squeeze(1)), cfg), numbers)
	r.Route("/api", func(at chi.Router) { at.NotFound(noSuchPath(r)) })
	if cfg.Pages != nil {
		pages := servePages(cfg.Pages, cfg.Now)
		well := r.With(squeeze(5))
		well.Get("/*", pages)
		well.Head("/*", pages)
	}
	return r
}

// squeezed are the kinds of answer that are compressed. A stream says much the same again and
// again, which is then told in a few bytes.
var squeezed = []string{
	"application/json",
	"application/problem+json",
	"text/html",
	"text/css",
	"text/javascript",
	"application/javascript",
	"image/svg+xml",
	"text/plain",
	"text/csv",
	"text/event-stream",
}

// squeeze compresses answers, with a writer that is quicker than the standard library's.
func squeeze(level int) func(http.Handler) http.Handler {
	c := middleware.NewCompressor(level, squeezed...)
	c.SetEncoder("gzip", func(w io.Writer, level int) io.Writer {
		z, err := gzip.NewWriterLevel(w, level)
		if err != nil {
			panic(err) // only for a level that there is not
		}
		return z
	})
	return c.Handler
}

// OpenAPI returns the description of the API as indented JSON.
func OpenAPI() ([]byte, error) {
	return json.MarshalIndent(register(chi.NewRouter(), Config{}).OpenAPI(), "", "  ")
}

func register(r chi.Router, cfg Config) huma.API {
	c := huma.DefaultConfig("Verjuice", "1")
	c.Info.Description = "Rubs, dry brines and clocks for barbecue cooks."
	c.OpenAPIPath, c.DocsPath, c.SchemasPath = "/api/openapi", "", ""
	c.CreateHooks = nil
	c.Transformers = append(c.Transformers, inUnits)
	c.Formats = map[string]huma.Format{
		"application/json": {Marshal: huma.DefaultJSONFormat.Marshal, Unmarshal: unmarshal},
		"json":             {Marshal: huma.DefaultJSONFormat.Marshal, Unmarshal: unmarshal},
	}
	c.Components.Schemas.RegisterTypeAlias(reflect.TypeFor[quantity.Count](), reflect.TypeFor[countSchema]())
	a := humachi.New(r, c)
	a.UseMiddleware(limited)
	if cfg.Scale == nil {
		cfg.Scale = instrument.NewSimulated(1)
	}
	s := &server{Config: cfg, lives: newLives(), app: app.New(cfg.Store, cfg.Now)}
	s.registerFind(a)
	s.registerCatalogue(a)
	s.registerSheet(a)
	s.registerPage(a)
	s.registerWhere(a)
	s.registerCooks(a)
	s.registerFormulas(a)
	s.registerScale(a)
	s.registerLarder(a)
	s.registerPits(a)
	s.registerMethods(a)
	s.registerMeals(a)
	s.registerJars(a)
	s.registerExchange(a)
	s.registerGuess(a)
	s.registerHeat(a)
	s.registerCalendar(a)
	s.registerPhotos(a)
	s.registerFacts(a)
	s.registerLive(a)
	s.registerClock(a)
	huma.Register(a, op(http.MethodGet, "/api/health", "getHealth", "Whether the program and its database answer"), s.health)
	return a
}

// countSchema is how a count is written: as a number, or as it was typed.
type countSchema struct{}

// Schema implements huma.SchemaProvider.
func (countSchema) Schema(huma.Registry) *huma.Schema {
	long := 40
	return &huma.Schema{OneOf: []*huma.Schema{{Type: huma.TypeNumber}, {Type: huma.TypeString, MaxLength: &long}}}
}

// Measure is the units that a request wants its answer in.
type Measure struct {
	Units  quantity.System   `query:"units" enum:"metric,us" default:"metric" doc:"Units of weights, lengths and temperatures"`
	Spoons quantity.SpoonSet `query:"spoons" enum:"us,metric" default:"us" doc:"Which spoons the answer is in: us or metric"`
}

func (m Measure) reader() sheet.Reader { return sheet.Reader{Units: m.Units, Spoons: m.Spoons} }

// kitchen is what the cook has, with the formulas of the given ids.
func (s *server) kitchen(ctx context.Context, formulas ...string) (kitchen.Kitchen, error) {
	k, err := s.Store.Kitchen(ctx, s.Now(), formulas...)
	return k, problemOf(err)
}

// body is an answer.
type body[T any] struct{ Body T }

func answer[T any](v T) *body[T] { return &body[T]{Body: v} }

type health struct {
	Database string `json:"database" enum:"up"`
}

func (s *server) health(ctx context.Context, _ *struct{}) (*body[health], error) {
	if err := s.Store.Ping(ctx); err != nil {
		return nil, away()
	}
	return answer(health{Database: "up"}), nil
}
