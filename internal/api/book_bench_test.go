//go:build benchbook

package api_test

import (
	"context"
	"database/sql"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	_ "github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
	"verjuice/internal/book"
	"verjuice/internal/core/cook"
	"verjuice/internal/store"
)

// TestBenchBook fills a book with VERJUICE_COOKS cooks (10 000) of two thousand readings each, and
// tells how quickly it is listed, searched, opened and compared, and what carrying it away and taking
// it in again need. It does so only for make bench-book.
func TestBenchBook(t *testing.T) {
	cooks, err := strconv.Atoi(os.Getenv("VERJUICE_COOKS"))
	require.NoError(t, err)
	app := apptest.Start(t, apptest.Logbook)
	began := time.Now()
	grow(t, app.DSN, cooks)
	t.Logf("%d cooks with 2000 readings each, made in %s", cooks, time.Since(began).Round(time.Second))

	ids := []string{}
	for n := range 5 {
		ids = append(ids, fmt.Sprintf("00000000-0000-4000-8000-%012d", n))
	}
	for _, path := range []string{
		"/api/logbook?page=1", fmt.Sprintf("/api/logbook?page=%d", cooks/20), "/api/logbook?search=loin+77",
		"/api/logbook?cut=pork-loin&wrap=none&score=3", "/api/logbook?search=nothing+of+that",
		"/api/logbook/compare?cooks=" + strings.Join(ids, ","), "/api/cooks/" + ids[0] + "/review",
		"/api/cooks/" + ids[0] + "/opened", "/api/cooks?page=1", "/api/meals/choices", "/api/logbook/trends",
	} {
		times := []time.Duration{}
		for range 20 {
			at := time.Now()
			res, err := http.Get(app.URL + path)
			require.NoError(t, err)
			_, err = io.Copy(io.Discard, res.Body)
			require.NoError(t, err)
			require.NoError(t, res.Body.Close())
			require.Equal(t, http.StatusOK, res.StatusCode, path)
			times = append(times, time.Since(at))
		}
		first := times[0]
		slices.Sort(times)
		t.Logf(
			"%-60.60s first %s, p50 %s, p95 %s",
			path,
			first.Round(time.Millisecond),
			times[10].Round(time.Millisecond),
			times[18].Round(time.Millisecond),
		)
	}

	file := filepath.Join(t.TempDir(), "book.zip")
	weighed(t, "carried away", func() int64 {
		f, err := os.Create(file)
		require.NoError(t, err)
		var lines int64
		require.NoError(t, book.Write(t.Context(), app.Store, f, func(p book.Point) { lines = p.Lines }))
		require.NoError(t, f.Close())
		return lines
	})
	is, err := os.Stat(file)
	require.NoError(t, err)
	t.Logf("the file has %d MB", is.Size()>>20)
	empty := apptest.Start(t, apptest.Nothing)
	weighed(t, "taken in", func() int64 { return takeIn(t, empty.Store, file) })
	again := weighed(t, "taken in once more", func() int64 { return takeIn(t, empty.Store, file) })
	require.Zero(t, again)
}

// TestBenchLongest carries a cook with as many readings as one holds away, puts it back in its place,
// and makes minutes of it.
func TestBenchLongest(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	rec, err := app.Store.Cooks().Create(t.Context(), cook.Cook{Name: "Two days", Pieces: []cook.Piece{}})
	require.NoError(t, err)
	db, err := sql.Open("mysql", app.DSN)
	require.NoError(t, err)
	defer db.Close()
	const handIn = "CONCAT('00000000-0000-4000-8000-', LPAD(s.seq DIV 5000, 12, '0'))"
	for _, one := range []string{
		"INSERT INTO hand_ins (id, cook, device, digest, count, created_at) SELECT CONCAT('00000000-0000-4000-8000-', LPAD(s.seq, 12, '0')), ?, 'probe', SHA2(s.seq, 256), 5000, '2026-01-01' FROM seq_0_to_199 s",
		"INSERT INTO readings (cook, hand_in, probe, at_ms, celsius) SELECT ?, " + handIn + ", CONCAT('pit:', s.seq % 6), 1700000000000 + 1000 * (s.seq DIV 6), 20 + s.seq % 97 FROM seq_0_to_999999 s",
	} {
		_, err := db.ExecContext(t.Context(), one, rec.ID)
		require.NoError(t, err, one)
	}
	file := filepath.Join(t.TempDir(), "book.zip")
	weighed(t, "a million readings, carried away", func() int64 {
		f, err := os.Create(file)
		require.NoError(t, err)
		defer f.Close()
		require.NoError(t, book.Write(t.Context(), app.Store, f, nil))
		return 1_000_000
	})
	weighed(t, "put back in their place", func() int64 {
		f, err := os.Open(file)
		require.NoError(t, err)
		defer f.Close()
		is, err := f.Stat()
		require.NoError(t, err)
		b, err := book.Open(t.Context(), f, is.Size())
		require.NoError(t, err)
		taken, err := b.Replace(t.Context(), app.Store, nil)
		require.NoError(t, err)
		return taken.Added
	})
	weighed(t, "made into minutes", func() int64 {
		require.NoError(t, app.Store.Thin(t.Context(), time.Now().AddDate(1, 0, 0)))
		var left, minutes int64
		require.NoError(
			t,
			db.QueryRowContext(t.Context(), "SELECT (SELECT COUNT(*) FROM readings), (SELECT SUM(count) FROM minutes)").
				Scan(&left, &minutes),
		)
		require.Zero(t, left)
		return minutes
	})
}

func takeIn(t *testing.T, db *store.Store, file string) int64 {
	f, err := os.Open(file)
	require.NoError(t, err)
	defer f.Close()
	is, err := f.Stat()
	require.NoError(t, err)
	carried, err := book.Open(t.Context(), f, is.Size())
	require.NoError(t, err)
	taken, err := carried.TakeIn(t.Context(), db, nil)
	require.NoError(t, err)
	return taken.Added
}

// weighed tells how long do took, and how much memory it had at most.
func weighed(t *testing.T, what string, do func() int64) int64 {
	runtime.GC()
	var most atomic.Uint64
	heap := func() uint64 {
		var m runtime.MemStats
		runtime.ReadMemStats(&m)
		return m.HeapInuse
	}
	before := heap()
	ctx, stop := context.WithCancel(t.Context())
	go func() {
		for tick := time.NewTicker(50 * time.Millisecond); ctx.Err() == nil; <-tick.C {
			most.Store(max(most.Load(), heap()))
		}
	}()
	began := time.Now()
	lines := do()
	took := time.Since(began)
	stop()
	t.Logf(
		"%s: %d lines in %s, heap %d MB before, %d MB at most",
		what,
		lines,
		took.Round(time.Second),
		before>>20,
		most.Load()>>20,
	)
	return lines
}

// grow multiplies the cooks of the logbook, each with two thousand readings of its core by the minute.
func grow(t *testing.T, dsn string, cooks int) {
	db, err := sql.Open("mysql", dsn)
	require.NoError(t, err)
	defer db.Close()
	const id = "CONCAT('00000000-0000-4000-8000-', LPAD(s.seq, 12, '0'))"
	for _, one := range []string{
		"CREATE TABLE kinds AS SELECT ROW_NUMBER() OVER (ORDER BY day) - 1 n, o.* FROM outcomes o",
		"INSERT INTO records (id, kind, version, name, served_at, body, created_at, updated_at) SELECT " + id + ", 'cook', 1, CONCAT(r.name, ' ', s.seq), DATE_FORMAT(DATE_SUB(k.day, INTERVAL s.seq % 3650 DAY), '%Y-%m-%dT18:30'), JSON_SET(r.body, '$.name', CONCAT(r.name, ' ', s.seq)), NOW(3), NOW(3) FROM seq_0_to_LAST s JOIN kinds k ON k.n = s.seq % KINDS JOIN records r ON r.id = k.cook",
		"INSERT INTO outcomes (cook, day, name, finished, cuts, finishes, pits, wraps, formulas, weather, score, model, told, body, updated_at) SELECT " + id + ", DATE_SUB(k.day, INTERVAL s.seq % 3650 DAY), CONCAT(k.name, ' ', s.seq), k.finished, k.cuts, k.finishes, k.pits, k.wraps, k.formulas, k.weather, k.score, k.model, k.told, k.body, NOW(3) FROM seq_0_to_LAST s JOIN kinds k ON k.n = s.seq % KINDS",
		"INSERT INTO facts (id, cook, kind, piece, what, happened, author, body, created_at) SELECT UUID(), " + id + ", f.kind, f.piece, f.what, f.happened, f.author, f.body, f.created_at FROM seq_0_to_LAST s JOIN kinds k ON k.n = s.seq % KINDS JOIN facts f ON f.cook = k.cook",
		"INSERT INTO minutes SELECT " + id + ", 'core:p1', k.began + 60000 * m.seq, k.began + 60000 * m.seq, k.began + 60000 * m.seq, 4 + 0.045 * m.seq, 4 + 0.045 * m.seq, 4 + 0.045 * m.seq, 4 + 0.045 * m.seq, 1 FROM seq_0_to_LAST s JOIN (SELECT n, 60000 * FLOOR(UNIX_TIMESTAMP(LEFT(JSON_VALUE(body, '$.pieces[0].on'), 19)) / 60) began FROM kinds) k ON k.n = s.seq % KINDS JOIN seq_0_to_1999 m",
		"DROP TABLE kinds",
	} {
		var kinds int
		if strings.Contains(one, "KINDS") {
			require.NoError(t, db.QueryRowContext(t.Context(), "SELECT COUNT(*) FROM kinds").Scan(&kinds))
		}
		one = strings.NewReplacer("LAST", strconv.Itoa(cooks-1), "KINDS", strconv.Itoa(kinds)).Replace(one)
		_, err := db.ExecContext(t.Context(), one)
		require.NoError(t, err, one)
	}
}
