//go:build benchpage

package e2e

import (
	"fmt"
	"io"
	"math"
	"net/http"
	"os"
	"runtime"
	"strconv"
	"sync/atomic"
	"syscall"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
)

// TestBenchPit runs sixteen hours of a cook with six probes, a reading each second of its clock, 240
// times as fast as the clock on the wall, while fifty look on and one of them is a page; and prints
// what that takes. VERJUICE_PIT_HOURS is another number of hours. It fails for nothing.
func TestBenchPit(t *testing.T) {
	const speed, viewers = 240, 50
	hours := 16.0
	if h, err := strconv.ParseFloat(os.Getenv("VERJUICE_PIT_HOURS"), 64); err == nil {
		hours = h
	}
	b := start(t, apptest.Nothing)
	id := b.shoulderAtThePit()
	require.NoError(
		t,
		b.app.Store.AddFact(
			t.Context(),
			id,
			facts.Fact{ID: uuid.NewString(), Kind: facts.Done, Piece: "a", What: "fire", At: apptest.Now.Format(time.RFC3339)},
		),
	)
	var wire atomic.Int64
	for range viewers - 1 {
		go func() {
			req, err := http.NewRequestWithContext(t.Context(), "GET", b.app.URL+"/api/cooks/"+id+"/live/stream", nil)
			if err != nil {
				return
			}
			req.Header.Set("Accept-Encoding", "gzip")
			res, err := http.DefaultTransport.RoundTrip(req)
			if err != nil {
				return
			}
			defer res.Body.Close()
			buf := make([]byte, 32<<10)
			for {
				n, err := res.Body.Read(buf)
				wire.Add(int64(n))
				if err == io.EOF || err != nil {
					return
				}
			}
		}()
	}
	b.open("/cooks/" + id + "/pit")
	b.see("Not yet: wrap")
	js[bool](
		b,
		`(globalThis.long = [], new PerformanceObserver((l) => long.push(...l.getEntries().map((e) => e.duration))).observe({ type: "longtask" }), true)`,
	)
	cpu := func() time.Duration {
		var u syscall.Rusage
		_ = syscall.Getrusage(syscall.RUSAGE_SELF, &u)
		return time.Duration(u.Utime.Nano() + u.Stime.Nano())
	}
	tell := func(h float64) {
		var m runtime.MemStats
		runtime.GC()
		runtime.ReadMemStats(&m)
		page := js[float64](b, `performance.memory.usedJSHeapSize / 1e6`)
		fmt.Printf("%4.1f h: program %3.0f MB of heap, page %5.1f MB\n", h, float64(m.HeapAlloc)/1e6, page)
	}
	tell(0)
	began, used, slowest := time.Now(), cpu(), time.Duration(0)
	tick := time.NewTicker(250 * time.Millisecond)
	defer tick.Stop()
	step := 250 * time.Millisecond * speed
	for at := time.Duration(0); at.Hours() < hours; at += step {
		<-tick.C
		var all []facts.Reading
		for s := time.Duration(0); s < step; s += time.Second {
			h := (at + s).Hours()
			when := apptest.Now.Add(at + s)
			core := quantity.Celsius(4 + 92*(1-math.Exp(-h/5)))
			for _, place := range []string{"", ":thick end", ":blade", ":shank end"} {
				all = append(all, facts.Reading{Probe: "core:a" + place, At: when, C: core})
			}
			all = append(all, facts.Reading{Probe: "pit:0", At: when, C: 112}, facts.Reading{Probe: "pit:1", At: when, C: 108})
		}
		b.app.Clock.Store(int64(at + step))
		asked := time.Now()
		require.NoError(t, b.app.Store.HandIn(t.Context(), id, facts.HandIn{ID: uuid.NewString()}, all))
		slowest = max(slowest, time.Since(asked))
		if n := int(at / step); n > 0 && n%(int(hours*3600/step.Seconds())/4) == 0 {
			tell(at.Hours())
		}
	}
	took := time.Since(began)
	tell(hours)
	long := js[[]float64](b, "long")
	over, longest := 0, 0.0
	for _, l := range long {
		longest = max(longest, l)
		if l > 50 {
			over++
		}
	}
	fmt.Printf(
		"%.0f s on the wall; processor %.0f %% of one, viewers and hand-ins among it; %.0f B/s a viewer; slowest hand-in %v; page: %d tasks over 50 ms, longest %.0f ms\n",
		took.Seconds(),
		100*(cpu()-used).Seconds()/took.Seconds(),
		float64(wire.Load())/took.Seconds()/(viewers-1),
		slowest.Round(time.Millisecond),
		over,
		longest,
	)
}
