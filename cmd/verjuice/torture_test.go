package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/formula"
	"verjuice/internal/hostile"
)

// running is the program as it is shipped, with a database of its own.
type running struct {
	t        *testing.T
	program  string
	dir, url string
	log      *os.File
	mu       sync.Mutex
	cmd      *exec.Cmd
}

func run(t *testing.T) *running {
	t.Helper()
	dir := t.TempDir()
	r := &running{t: t, dir: dir, program: program(t)}
	free, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	r.url = "http://" + free.Addr().String()
	require.NoError(t, free.Close())
	r.log, err = os.Create(filepath.Join(dir, "log"))
	require.NoError(t, err)
	r.start()
	t.Cleanup(func() { r.stop(os.Interrupt) })
	return r
}

func (r *running) start() {
	_, port, err := net.SplitHostPort(strings.TrimPrefix(r.url, "http://"))
	require.NoError(r.t, err)
	cmd := exec.Command(r.program, "serve", "--demo", "--port", port, "--var", filepath.Join(r.dir, "var"))
	cmd.Stdout, cmd.Stderr = r.log, r.log
	require.NoError(r.t, cmd.Start())
	r.mu.Lock()
	r.cmd = cmd
	r.mu.Unlock()
	require.Eventually(r.t, func() bool {
		res, err := http.Get(r.url + "/api/health")
		if err != nil {
			return false
		}
		defer res.Body.Close()
		return res.StatusCode == http.StatusOK
	}, 90*time.Second, 50*time.Millisecond, "it starts")
}

func (r *running) stop(how os.Signal) {
	r.mu.Lock()
	defer r.mu.Unlock()
	_ = r.cmd.Process.Signal(how)
	_ = r.cmd.Wait()
}

// killDatabase ends the private database as a fault would.
func (r *running) killDatabase() {
	pids, _ := filepath.Glob(filepath.Join(r.dir, "var", "*", "data", "*.pid"))
	more, _ := filepath.Glob(filepath.Join(r.dir, "var", "data", "*.pid"))
	for _, at := range append(pids, more...) {
		if raw, err := os.ReadFile(at); err == nil {
			_ = exec.Command("kill", "-9", strings.TrimSpace(string(raw))).Run()
		}
	}
}

// resident is the memory that the program holds, in bytes.
func (r *running) resident() int64 {
	r.mu.Lock()
	defer r.mu.Unlock()
	raw, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", r.cmd.Process.Pid))
	if err != nil {
		return 0
	}
	_, rest, _ := strings.Cut(string(raw), "VmRSS:")
	kb, _ := strconv.ParseInt(strings.Fields(rest)[0], 10, 64)
	return kb << 10
}

// send makes a request, and gives status 0 when there was no answer.
func (r *running) send(ctx context.Context, method, at, body string, headers ...string) (int, http.Header, []byte) {
	req, err := http.NewRequestWithContext(ctx, method, r.url+at, strings.NewReader(body))
	if err != nil {
		return http.StatusBadRequest, nil, nil // no client could send it
	}
	req.Header.Set("Content-Type", "application/json")
	for i := 0; i+1 < len(headers); i += 2 {
		req.Header.Set(headers[i], headers[i+1])
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return 0, nil, nil
	}
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	if err != nil {
		return 0, nil, nil
	}
	return res.StatusCode, res.Header, raw
}

// kept is what one writer was told is kept.
type kept struct {
	id      string
	version int
	etag    string
	facts   map[string]bool
	handed  map[string]bool // hand-ins of one reading, by what it read
}

// write saves a cook and says facts until ctx is over; only what was acknowledged is noted.
func (r *running) write(ctx context.Context, who int, mine *kept, acknowledged *atomic.Int32) {
	for n := 0; ctx.Err() == nil; n++ {
		c := cook.Cook{
			Name:   fmt.Sprintf("Cook %d, %d", who, n),
			Guests: "8",
			Pieces: []cook.Piece{
				{Key: "a", Cut: "pork-loin", Trimmed: "2 kg", Season: cook.Season{Formula: formula.ReadyMade()[0]}},
			},
		}
		raw, _ := json.Marshal(c)
		method, at, headers := "POST", "/api/cooks", []string{}
		if mine.id != "" {
			method, at, headers = "PUT", "/api/cooks/"+mine.id, []string{"If-Match", mine.etag}
		}
		status, head, body := r.send(ctx, method, at, string(raw), headers...)
		var rec struct {
			ID      string
			Version int
		}
		switch {
		case status/100 == 2 && json.Unmarshal(body, &rec) == nil:
			mine.id, mine.version, mine.etag = rec.ID, rec.Version, head.Get("ETag")
			acknowledged.Add(1)
		case mine.id != "": // it may have been saved before the answer was lost
			if status, head, body := r.send(ctx, "GET", "/api/cooks/"+mine.id, ""); status == http.StatusOK &&
				json.Unmarshal(body, &rec) == nil {
				mine.version, mine.etag = rec.Version, head.Get("ETag")
			}
		}
		if mine.id == "" {
			continue
		}
		f := facts.Fact{
			ID:   fmt.Sprintf("00000000-0000-4000-8000-%06d%06d", who, n),
			Kind: facts.Ticked,
			What: "salt",
			At:   "2026-11-28T07:00",
		}
		raw, _ = json.Marshal(f)
		for range 1 + n%2 { // said twice is once
			if status, _, _ := r.send(ctx, "POST", "/api/cooks/"+mine.id+"/facts", string(raw)); status/100 == 2 {
				mine.facts[f.ID] = true
				acknowledged.Add(1)
			}
		}
		read := float64(n) / 100
		h := facts.HandIn{
			ID:       fmt.Sprintf("00000000-0000-4001-8000-%06d%06d", who, n),
			Readings: []facts.ReadingSent{{Probe: "core:a", At: "2026-11-28T07:00:00Z", C: &read}},
		}
		raw, _ = json.Marshal(h)
		for range 1 + n%2 {
			if status, _, _ := r.send(ctx, "POST", "/api/cooks/"+mine.id+"/readings", string(raw)); status/100 == 2 {
				mine.handed[h.ID] = true
				acknowledged.Add(1)
			}
		}
	}
}

// The program and its database are killed again and again while people save and strangers attack:
// what was acknowledged is there, once; no answer is a failure of the program; and in the end,
// under attack alone, its memory stays where it was.
func TestTheProgramOutlivesItsKills(t *testing.T) {
	long := 14 * time.Second
	if told, err := time.ParseDuration(os.Getenv("VERJUICE_TORTURE")); err == nil {
		long = told
	}
	r := run(t)
	description, err := api.OpenAPI()
	require.NoError(t, err)
	var acknowledged, attacks, failures atomic.Int32
	attack := func(ctx context.Context, seed uint64) {
		h, err := hostile.New(description, seed)
		if !assert.NoError(t, err) {
			return
		}
		operations := h.Operations()
		for ctx.Err() == nil {
			one := operations[h.IntN(len(operations))]
			h.Odd = []float64{0, 0.02, 0.1, 0.3}[h.IntN(4)]
			req := h.Request(one[0], one[1], nil)
			status, _, body := r.send(ctx, req.Method, req.At, req.Body, req.Headers...)
			attacks.Add(1)
			if status >= 500 && status != http.StatusServiceUnavailable {
				failures.Add(1)
				t.Errorf("%s %s\n%.500s\n→ %d %.300s", req.Method, req.At, req.Body, status, body)
			}
		}
	}
	all := make([]kept, 4)
	var hands sync.WaitGroup
	ctx, over := context.WithTimeout(t.Context(), long/2)
	for who := range all {
		all[who].facts, all[who].handed = map[string]bool{}, map[string]bool{}
		hands.Go(func() { r.write(ctx, who, &all[who], &acknowledged) })
	}
	for n := range uint64(2) {
		hands.Go(func() { attack(ctx, n) })
	}
	kills := 0
	for rest := rand.New(rand.NewPCG(1, 1)); ctx.Err() == nil; kills++ {
		select {
		case <-ctx.Done():
		case <-time.After(time.Duration(700+rest.IntN(1800)) * time.Millisecond):
			if kills%3 == 2 {
				r.killDatabase()
			} else {
				r.stop(os.Kill)
				r.start()
			}
		}
	}
	over()
	hands.Wait()
	require.Eventually(t, func() bool {
		status, _, _ := r.send(t.Context(), "GET", "/api/health", "")
		return status == http.StatusOK
	}, 60*time.Second, 100*time.Millisecond)
	r.check(all)

	// Under attack alone: memory settles, and stays.
	calm, end := context.WithTimeout(t.Context(), long/2)
	defer end()
	var strangers sync.WaitGroup
	for n := range uint64(3) {
		strangers.Go(func() { attack(calm, 100+n) })
	}
	<-time.After(long / 4)
	warm := r.resident()
	strangers.Wait()
	last := r.resident()
	assert.Less(t, float64(last), 1.1*float64(warm)+48<<20, "memory grows")
	assert.Less(t, last, int64(400<<20))
	log, err := os.ReadFile(r.log.Name())
	require.NoError(t, err)
	assert.False(t, bytes.Contains(log, []byte("panic")), "%.2000s", log)
	r.check(all)
	t.Logf(
		"%d kills; %d writes acknowledged, none lost, none twice; %d attacks, %d failures; memory %d MB, then %d MB",
		kills,
		acknowledged.Load(),
		attacks.Load(),
		failures.Load(),
		warm>>20,
		last>>20,
	)
}

// check holds what is on record against what was acknowledged.
func (r *running) check(all []kept) {
	r.t.Helper()
	for who, want := range all {
		require.NotEmpty(r.t, want.id, "writer %d", who)
		status, _, body := r.send(r.t.Context(), "GET", "/api/cooks/"+want.id, "")
		require.Equal(r.t, http.StatusOK, status)
		var rec struct {
			Version int
			Doc     cook.Cook
		}
		require.NoError(r.t, json.Unmarshal(body, &rec))
		assert.GreaterOrEqual(r.t, rec.Version, want.version, "what was acknowledged is there")
		assert.True(r.t, strings.HasPrefix(rec.Doc.Name, fmt.Sprintf("Cook %d, ", who)), rec.Doc.Name)
		_, _, body = r.send(r.t.Context(), "GET", "/api/cooks/"+want.id+"/facts", "")
		var said []facts.Fact
		require.NoError(r.t, json.Unmarshal(body, &said), string(body))
		times := map[string]int{}
		for _, f := range said {
			times[f.ID]++
		}
		for id := range want.facts {
			assert.Equal(r.t, 1, times[id], "fact %s of writer %d", id, who)
		}
		for after := uint64(0); ; {
			_, _, body = r.send(r.t.Context(), "GET", fmt.Sprintf("/api/cooks/%s/readings?after=%d", want.id, after), "")
			var page api.ReadingsPage
			require.NoError(r.t, json.Unmarshal(body, &page), string(body))
			for _, one := range page.Items {
				times[one.HandIn]++
			}
			if after = page.Last; len(page.Items) == 0 {
				break
			}
		}
		for id := range want.handed {
			assert.Equal(r.t, 1, times[id], "hand-in %s of writer %d", id, who)
		}
	}
}
