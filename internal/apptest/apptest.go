// Package apptest runs the whole application for tests: a real MariaDB in a
// temporary folder, the API and the built pages, on loopback.
package apptest

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"sync/atomic"
	"testing"
	"time"

	"verjuice/internal/api"
	"verjuice/internal/localdb"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
	"verjuice/internal/testdb"
	"verjuice/web"
)

// Now is the time it always is in a run of the tests.
var Now = testclock.Now()

var (
	server *localdb.Server
	count  atomic.Int32
)

// Main runs the tests of a package with one database server for all of them.
func Main(m *testing.M) { testdb.Main(m, &server) }

// App is a running application with a database of its own.
type App struct {
	URL   string
	Store *store.Store
	DSN   string
	// Handler answers as the application does, without the network.
	Handler http.Handler
	// Silent makes the server hang up on every request, as one that is away.
	Silent *atomic.Bool
	// Unheard makes the server do what is asked and keep the answer to every save back.
	Unheard *atomic.Bool
	// Clock is how far its clock has gone on since it was started, in nanoseconds.
	Clock *atomic.Int64
}

// Start runs the application until the test ends.
func Start(t testing.TB) App {
	t.Helper()
	return StartAt(t, Now)
}

// StartAt runs the application with its clock fixed at a given time.
func StartAt(t testing.TB, now time.Time) App {
	t.Helper()
	name := fmt.Sprintf("verjuice_%d", count.Add(1))
	if err := server.Create(t.Context(), name, true); err != nil {
		t.Fatal(err)
	}
	dsn := server.DSN(name)
	db, err := store.Open(t.Context(), dsn)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = db.Close() })
	var clock atomic.Int64
	cfg := api.Config{Store: db, Pages: web.Files(), Now: func() time.Time { return now.Add(time.Duration(clock.Load())) }}
	// The port is known only once the listener is there, and is part of the
	// host that requests may be addressed to.
	ts := httptest.NewUnstartedServer(nil)
	cfg.Hosts = []string{ts.Listener.Addr().String()}
	silent, unheard := &atomic.Bool{}, &atomic.Bool{}
	handler := api.New(cfg)
	ts.Config.Handler = http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if silent.Load() {
			panic(http.ErrAbortHandler)
		}
		if r.Method == http.MethodPut && unheard.Load() {
			handler.ServeHTTP(httptest.NewRecorder(), r)
			<-r.Context().Done()
			return
		}
		handler.ServeHTTP(w, r)
	})
	ts.Start()
	t.Cleanup(ts.Close)
	return App{URL: ts.URL, Store: db, DSN: dsn, Handler: api.New(api.Config{Store: db, Now: cfg.Now}), Silent: silent, Unheard: unheard, Clock: &clock}
}
