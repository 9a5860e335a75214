package api_test

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"hash/crc32"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/facts"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
)

// blank is a PNG of that size, which is small as a file.
func blank(t *testing.T, w, h int) string {
	t.Helper()
	var out, data bytes.Buffer
	z := zlib.NewWriter(&data)
	row := make([]byte, 3*w+1)
	for range h {
		_, err := z.Write(row)
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	chunk := func(kind string, body []byte) {
		_ = binary.Write(&out, binary.BigEndian, uint32(len(body)))
		out.WriteString(kind)
		out.Write(body)
		_ = binary.Write(&out, binary.BigEndian, crc32.ChecksumIEEE(append([]byte(kind), body...)))
	}
	out.WriteString("\x89PNG\r\n\x1a\n")
	head := make([]byte, 13)
	binary.BigEndian.PutUint32(head, uint32(w))
	binary.BigEndian.PutUint32(head[4:], uint32(h))
	head[8], head[9] = 8, 2
	chunk("IHDR", head)
	chunk("IDAT", data.Bytes())
	chunk("IEND", nil)
	return out.String()
}

// Photographs that would fill the memory are refused before they are read; many at once wait
// for each other; what is cut short or is none is refused in words.
func TestPhotographsThatFillTheMemory(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	require.Equal(t, http.StatusCreated, call(t, app, "POST", "/api/cooks", supper()).StatusCode)
	const octets = "application/octet-stream"
	path := addressed(t, app, "/api/cooks/{}/photos")
	p := call(
		t,
		app,
		"POST",
		path,
		blank(t, 30000, 3000),
		"Content-Type",
		octets,
	).problem(t, http.StatusUnprocessableEntity)
	assert.Contains(t, p.Detail, "30000 × 3000")
	good := blank(t, 2400, 1600)
	for _, bad := range []string{"", "GIF89a", good[:len(good)/2], good[:40], strings.Replace(good, "IDAT", "IDAX", 1),
		"\xff\xd8\xff\xe0" + strings.Repeat("x", 1000)} {
		r := call(t, app, "POST", path, bad, "Content-Type", octets)
		assert.True(t, r.StatusCode >= 400 && r.StatusCode < 500, "%.10q: %d %s", bad, r.StatusCode, r.body)
	}
	var done sync.WaitGroup
	var kept atomic.Int32
	for range 8 {
		done.Go(func() {
			if r := call(t, app, "POST", path, good, "Content-Type", octets); r.StatusCode == http.StatusCreated {
				kept.Add(1)
			}
		})
	}
	done.Wait()
	assert.Equal(t, int32(8), kept.Load())
	var list []api.PhotoLine
	call(t, app, "GET", path, nil).items(t, &list)
	require.Len(t, list, 8)
	assert.Equal(t, []int{1600, 1067}, []int{list[0].Width, list[0].Height})
	call(t, app, "POST", path+"?note=%ff", good, "Content-Type", octets).problem(t, http.StatusUnprocessableEntity)
}

// People who save their own cooks at one moment, and many who look at the list meanwhile, are
// all served; two who save one cook are told apart.
func TestManyAtOnce(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	const people, saves = 8, 6
	var wrong atomic.Int32
	var all sync.WaitGroup
	for who := range people {
		all.Go(func() {
			c := supper()
			c.Name = fmt.Sprint("Cook ", who)
			made := call(t, app, "POST", "/api/cooks", c)
			var rec api.CookRecord
			if made.StatusCode != http.StatusCreated || json.Unmarshal(made.body, &rec) != nil {
				wrong.Add(1)
				return
			}
			tag := made.Header.Get("ETag")
			for n := range saves {
				c.Name = fmt.Sprintf("Cook %d, %d", who, n)
				r := call(t, app, "PUT", "/api/cooks/"+rec.ID, c, "If-Match", tag)
				if r.StatusCode != http.StatusOK {
					wrong.Add(1)
				}
				tag = r.Header.Get("ETag")
			}
		})
	}
	for range 60 {
		all.Go(func() {
			if r := call(t, app, "GET", "/api/cooks", nil); r.StatusCode != http.StatusOK {
				wrong.Add(1)
			}
		})
	}
	all.Wait()
	assert.Zero(t, wrong.Load())
	list, total, err := app.Store.Cooks().List(t.Context(), store.Query{})
	require.NoError(t, err)
	assert.EqualValues(t, people, total)
	for _, one := range list {
		assert.EqualValues(t, saves+1, one.Version, one.Doc.Name)
		assert.True(t, strings.HasSuffix(one.Doc.Name, fmt.Sprint(", ", saves-1)), "the last save stands: %s", one.Doc.Name)
	}
	// Of two who save one cook over the same version, one is told.
	id := list[0].ID
	codes := make([]int, 12)
	for i := range codes {
		all.Go(func() {
			c := list[0].Doc
			c.Name = fmt.Sprint("Race ", i)
			codes[i] = call(t, app, "PUT", "/api/cooks/"+id, c, "If-Match", fmt.Sprintf(`"%d"`, list[0].Version)).StatusCode
		})
	}
	all.Wait()
	won := 0
	for _, code := range codes {
		assert.Contains(t, []int{http.StatusOK, http.StatusPreconditionFailed}, code)
		if code == http.StatusOK {
			won++
		}
	}
	assert.Equal(t, 1, won)
}

// still is a way to the database that can be made to stand still: connections are taken, and
// nothing goes through.
type still struct {
	net.Listener
	to     string
	frozen atomic.Bool
}

func standsStill(t *testing.T, to string) *still {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	s := &still{Listener: l, to: to}
	t.Cleanup(func() { _ = l.Close() })
	go func() {
		for {
			in, err := l.Accept()
			if err != nil {
				return
			}
			out, err := net.Dial("tcp", to)
			if err != nil {
				_ = in.Close()
				continue
			}
			go s.pass(in, out)
			go s.pass(out, in)
		}
	}()
	return s
}

func (s *still) pass(from, to net.Conn) {
	defer from.Close()
	defer to.Close()
	part := make([]byte, 32<<10)
	for {
		n, err := from.Read(part)
		for s.frozen.Load() {
			time.Sleep(5 * time.Millisecond)
		}
		if n > 0 {
			if _, err := to.Write(part[:n]); err != nil {
				return
			}
		}
		if err != nil {
			return
		}
	}
}

// A database that stands still is 503 within three seconds at every address that needs it, with
// a time to ask again; what was acknowledged before is there when it moves again.
func TestADatabaseThatStandsStill(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	cfg, err := mysql.ParseDSN(app.DSN)
	require.NoError(t, err)
	way := standsStill(t, cfg.Addr)
	cfg.Addr = way.Addr().String()
	db, err := store.Open(t.Context(), cfg.FormatDSN())
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	ts := httptest.NewUnstartedServer(nil)
	ts.Config.Handler = api.New(
		api.Config{Store: db, Hosts: []string{ts.Listener.Addr().String()}, Now: func() time.Time { return apptest.Now }},
	)
	ts.Start()
	t.Cleanup(ts.Close)
	slow := apptest.App{URL: ts.URL, Store: app.Store}
	made := call(t, slow, "POST", "/api/cooks", supper())
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	var rec api.CookRecord
	made.into(t, &rec)
	way.frozen.Store(true)
	fact := facts.Fact{
		ID:   "00000000-0000-4000-8000-000000000009",
		Kind: facts.Ticked,
		What: "salt",
		At:   "2026-11-28T07:00",
	}
	var all sync.WaitGroup
	for _, one := range []struct {
		method, path string
		body         any
	}{
		{"GET", "/api/health", nil}, {"GET", "/api/cooks", nil}, {"GET", "/api/cooks/" + rec.ID, nil},
		{"POST", "/api/cooks", supper()}, {"PUT", "/api/cooks/" + rec.ID, supper()},
		{"GET", "/api/formulas", nil}, {"GET", "/api/jars", nil}, {"POST", "/api/cooks/" + rec.ID + "/facts", fact},
		{"GET", "/api/cooks/" + rec.ID + "/facts", nil},
	} {
		all.Go(func() {
			var r reply
			testclock.Within(t, 3500*time.Millisecond, func() {
				r = call(t, slow, one.method, one.path, one.body, "If-Match", made.Header.Get("ETag"))
			})
			assert.Equal(t, http.StatusServiceUnavailable, r.StatusCode, "%s %s %s", one.method, one.path, r.body)
			assert.NotEmpty(t, r.Header.Get("Retry-After"), one.path)
		})
	}
	all.Wait()
	assert.Equal(t, http.StatusOK, call(t, slow, "GET", "/api/clock", nil).StatusCode)
	way.frozen.Store(false)
	require.Eventually(t, func() bool {
		return call(t, slow, "GET", "/api/cooks/"+rec.ID, nil).StatusCode == http.StatusOK
	}, 20*time.Second, 100*time.Millisecond, "it goes on by itself")
	var again api.CookRecord
	call(t, slow, "GET", "/api/cooks/"+rec.ID, nil).into(t, &again)
	assert.Equal(t, rec.Doc, again.Doc)
}
