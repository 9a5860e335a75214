// Package apptest runs the whole application for tests: a real MariaDB in a
// temporary folder, the API and the built pages, on loopback.
package apptest

import (
	"context"
	"net/http"
	"net/http/httptest"
	"sync/atomic"
	"testing"
	"time"

	"verjuice/internal/api"
	"verjuice/internal/demo"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
	"verjuice/internal/testdb"
	"verjuice/web"
)

// Now is the time it always is in a run of the tests.
var Now = testclock.Now()

// Main runs the tests of a package with one database server for all of them.
func Main(m *testing.M) { testdb.Main(m) }

// Holding is what a database holds to begin with.
type Holding string

// What there is. The demo and its logbook are made once in a run of the tests, and copied.
const (
	Nothing Holding = "nothing" // today's tables
	Demo    Holding = "demo"    // the rowing club's cooks
	Logbook Holding = "logbook" // the same with the cooks that are over and one on the fire
)

// Store is a database of the test's own.
func Store(t testing.TB, holds Holding) *store.Store {
	t.Helper()
	return open(t, filled(t, holds, Now))
}

func open(t testing.TB, dsn string) *store.Store {
	t.Helper()
	db, err := store.Open(t.Context(), dsn)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = db.Close() })
	return db
}

// filled is the address of a database that holds that at a time.
func filled(t testing.TB, holds Holding, now time.Time) string {
	t.Helper()
	kind := string(holds)
	if holds != Nothing {
		kind += now.Format(time.RFC3339Nano)
	}
	return testdb.Copy(t, kind, func(ctx context.Context, dsn string) error {
		db, err := store.Open(ctx, dsn)
		if err != nil {
			return err
		}
		defer db.Close()
		if holds != Nothing {
			err = demo.Load(ctx, db, now)
		}
		if err == nil && holds == Logbook {
			err = demo.LoadLogbook(ctx, db, now)
		}
		return err
	})
}

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
	// Bell is why its bell does not ring; nil while it does.
	Bell *bell
	// Clock is how far its clock has gone on since it was started, in nanoseconds.
	Clock *atomic.Int64
}

// bell stands in for the command that rings.
type bell struct{ why atomic.Pointer[string] }

// Breaks has the bell say why it does not ring.
func (b *bell) Breaks(why string) { b.why.Store(&why) }

// Broken is what it says.
func (b *bell) Broken() string {
	if why := b.why.Load(); why != nil {
		return *why
	}
	return ""
}

// Start runs the application until the test ends.
func Start(t testing.TB, holds Holding) App {
	t.Helper()
	return StartAt(t, holds, Now)
}

// StartAt runs the application with its clock fixed at a given time.
func StartAt(t testing.TB, holds Holding, now time.Time) App {
	t.Helper()
	dsn := filled(t, holds, now)
	db := open(t, dsn)
	var clock atomic.Int64
	rings := &bell{}
	cfg := api.Config{
		Store: db,
		Pages: web.Files(),
		Bell:  rings,
		Now:   func() time.Time { return now.Add(time.Duration(clock.Load())) },
	}
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
	return App{
		URL:     ts.URL,
		Store:   db,
		DSN:     dsn,
		Handler: api.New(api.Config{Store: db, Now: cfg.Now}),
		Silent:  silent,
		Unheard: unheard,
		Bell:    rings,
		Clock:   &clock,
	}
}
