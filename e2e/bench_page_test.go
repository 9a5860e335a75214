//go:build benchpage

package e2e

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
)

// TestBenchPage measures how quick the pages are, and prints it: how long a letter takes
// until it is painted while the processor is slowed four times, what a letter sends and
// gets, and what opening the first page and a cook takes. It fails for nothing.
func TestBenchPage(t *testing.T) {
	b := start(t, apptest.Demo)
	b.do(chromedp.EmulateViewport(390, 844))
	var requests []string
	var bytes float64
	err := chromedp.Listen(b.ctx, func(ev any) {
		b.mu.Lock()
		defer b.mu.Unlock()
		switch ev := ev.(type) {
		case *network.EventRequestWillBeSent:
			requests = append(requests, ev.Request.Method+" "+ev.Request.URL)
		case *network.EventLoadingFinished:
			bytes += ev.EncodedDataLength
		}
	})
	require.NoError(t, err)
	counted := func(what string, do func()) {
		b.mu.Lock()
		requests, bytes = nil, 0
		b.mu.Unlock()
		do()
		time.Sleep(1500 * time.Millisecond) // what comes late counts, too
		b.mu.Lock()
		defer b.mu.Unlock()
		fmt.Printf("%-22s %3d requests, %6.1f kB\n", what, len(requests), bytes/1000)
		if len(requests) > 5 {
			for _, r := range requests {
				fmt.Println("   ", r)
			}
		}
	}
	b.do(command(network.SetCacheDisabled, network.SetCacheDisabledParams{CacheDisabled: true}))
	counted("first page", func() { b.open("/"); b.see("Autumn regatta supper") })
	counted("a cook from there", func() {
		b.do(chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll(".cook-open")].find((a) => a.innerText.includes("regatta")).click()`))
		b.see("on the meat; mix")
	})
	counted("a cook", func() { b.open("/cooks/{supper}/season/1"); b.see("on the meat; mix") })
	b.do(command(emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: 4}))
	b.do(chromedp.Navigate(b.app.URL + "/"))
	b.see("Autumn regatta supper")
	fmt.Printf("first list              seen after %.0f ms, everything fetched anew\n", js[float64](b,
		`performance.getEntriesByType("paint").find((e) => e.name === "first-contentful-paint").startTime`))
	fmt.Printf("                        the last paint of a large part after %.0f ms\n", js[float64](b, `new Promise((done) =>
		new PerformanceObserver((l) => done(l.getEntries().at(-1).startTime)).observe({ type: "largest-contentful-paint", buffered: true }))`,
		chromedp.EvalAwaitPromise))
	b.do(command(emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: 1}))
	b.do(command(network.SetCacheDisabled, network.SetCacheDisabledParams{}))
	for _, place := range []struct{ what, path, field, text string }{
		{"a rub", "/cooks/{supper}/season/1", "Parts of black pepper", "1 1/2 and 2.5 parts "},
		{"a weight", "/cooks/{supper}/piece/1", "After trimming", "2.345 kg and no more "},
	} {
		b.open(place.path)
		b.see("on the meat; mix", "at its thickest")
		b.until(field(place.field) + ` !== undefined`)
		b.do(chromedp.Evaluate[chromedp.Void](field(place.field) + `.focus(), ` + field(place.field) + `.select()`))
		b.do(command(emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: 4}))
		b.do(chromedp.Evaluate[chromedp.Void](`(() => {
			window.took = []; window.long = [];
			new PerformanceObserver((l) => window.took.push(
				...l.getEntries().filter((e) => e.name === "keydown" || e.name === "input").map((e) => e.duration)))
				.observe({ type: "event", durationThreshold: 16 });
			new PerformanceObserver((l) => window.long.push(...l.getEntries().map((e) => e.duration)))
				.observe({ type: "longtask" });
		})()`))
		for _, letter := range place.text {
			b.do(chromedp.KeyEvent(string(letter)))
			time.Sleep(120 * time.Millisecond)
		}
		time.Sleep(2 * time.Second)
		took, long := js[[]float64](b, `window.took`), js[[]float64](b, `window.long`)
		b.do(command(emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: 1}))
		// An event that took less than 16 ms is not told of.
		for len(took) < len(place.text) {
			took = append(took, 16)
		}
		slices.Sort(took)
		slices.Sort(long)
		at := func(share float64) float64 { return took[int(share*float64(len(took)-1))] }
		longest := 0.0
		if len(long) > 0 {
			longest = long[len(long)-1]
		}
		fmt.Printf(
			"20 letters into %-9s event to paint p50 %3.0f ms, p90 %3.0f ms, longest %3.0f ms; %d long tasks, the longest %3.0f ms\n",
			place.what,
			at(0.5),
			at(0.9),
			took[len(took)-1],
			len(long),
			longest,
		)
	}
}
