package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
)

// Before the fire: how the core will go, another way beside it, taken by one press and put
// back by another; what is told narrows it, what the cook thinks is held against it.
func TestTheForecast(t *testing.T) {
	b := start(t, apptest.Demo)
	b.everyLook(map[string]string{"/cooks/{supper}/forecast/2": "What would narrow this"})
	b.open("/cooks/{supper}/forecast/2")
	b.see("the stall, ")
	b.see("off at 95")
	b.until(`document.title.includes("Forecast")`)
	paths := `document.querySelectorAll(".fan-other").length`
	assert.Equal(t, 0.0, js[float64](b, paths))
	b.press("wrap it in foil")
	b.see("Dotted: wrap it in foil")
	b.until(paths + ` === 1`)
	b.press("Cook it so")
	b.see("foil at 71")
	b.saved()
	assert.Equal(t, "foil", b.cook("supper").Doc.Pieces[1].Choices["wrap"])
	b.see("never wrap it")
	b.press("Put it back")
	b.until(`!document.querySelector(".fan").innerText.includes("foil at 71")`)
	b.saved()
	assert.NotEqual(t, "foil", b.cook("supper").Doc.Pieces[1].Choices["wrap"])

	// What is told is asked for no more, and moves the times.
	b.press("How often the pit is opened: ")
	b.press("every hour")
	b.until(`!document.querySelector(".forecast").innerText.includes("say how often the pit is opened")`)
	b.write("You think it takes", "soon")
	b.see("can't read", "can’t read")
	b.write("You think it takes", "1 h/lb")
	b.see("What you think: 9 h")
	b.saved()
	assert.Equal(t, "1 h/lb", b.cook("supper").Doc.Pieces[1].Fire.Guess)

	// A measured thickness is no longer asked for; a pit that is too cool never gets there, and says so.
	b.press("measure the thickest point")
	b.write("Thickest point, if measured", "150 mm")
	b.saved()
	b.open("/cooks/{supper}/forecast/2")
	b.see("What would narrow this")
	b.until(`!document.querySelector(".forecast").innerText.includes("measure the thickest point")`)
	b.open("/cooks/{supper}/fire/2")
	b.write("Pit at", "90 °C")
	b.see("over 36 h")
	b.see("does not get to 95")
	b.open("/cooks/{supper}/plan")
	b.see("it won’t finish")
}

// typedPit is a pit that no forecast was made for in this process.
var typedPit = 150

// While a page is typed a single run stands in; the forecast follows by itself, and the plan
// with it.
func TestTheForecastFollowsWhatIsTyped(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/fire/2")
	b.see("on the fire, ")
	fire := func() string { return js[string](b, `document.querySelector(".fire-big").innerText`) }
	was := fire()
	typedPit++
	b.write("Pit at", fmt.Sprintf("%d °C", typedPit))
	b.until(`document.querySelector(".fire-big").innerText !== ` + quote(was))
	b.until(`performance.getEntriesByType("resource").some((r) => r.name.includes("settled=true"))`)
	var last string
	require.Eventually(t, func() bool {
		now := fire()
		same := now == last
		last = now
		return same
	}, 10*time.Second, 400*time.Millisecond)
	b.saved()
	b.open("/cooks/{supper}/forecast/2")
	b.until(`document.querySelector(".forecast-big")?.innerText === ` + quote(last))
}

// By keyboard alone: from the stages to another way, drawn, taken and put back.
func TestTheForecastByKeyboard(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/forecast/2")
	b.see("Same supper, another way")
	reach := func(text string) {
		t.Helper()
		for range 90 {
			b.do(chromedp.KeyEvent(kb.Tab))
			if js[bool](b, `(document.activeElement?.innerText ?? "").startsWith(`+quote(text)+`)`) {
				return
			}
		}
		t.Fatalf("%q is not reached by Tab", text)
	}
	reach("wrap it in foil")
	b.until(`document.activeElement.getAttribute("aria-pressed") === "false"`)
	b.do(chromedp.KeyEvent(kb.Enter))
	b.see("Dotted: wrap it in foil")
	b.until(`document.activeElement.getAttribute("aria-pressed") === "true"`)
	reach("Cook it so")
	b.do(chromedp.KeyEvent(kb.Enter))
	b.see("foil at 71")
	b.saved()
	assert.Equal(t, "foil", b.cook("supper").Doc.Pieces[1].Choices["wrap"])
}

// On a phone, by thumb: the picture keeps its letters, nothing is wider than the window, and
// another way is taken by two presses.
func TestTheForecastOnAPhone(t *testing.T) {
	b := start(t, apptest.Demo)
	b.onPhone(390, 844)
	b.open("/cooks/{supper}/forecast/2")
	b.see("off at 95")
	b.fits("forecast")
	size := js[float64](
		b,
		`Math.min(...[...document.querySelectorAll(".fan text")].map((e) => e.getBoundingClientRect().height))`,
	)
	assert.Greater(t, size, 13.0, "letters at arm's length")
	over := js[[]string](
		b,
		`[...document.querySelectorAll(".fan text")].filter((e) => { const r = e.getBoundingClientRect(); return r.left < -1 || r.right > innerWidth + 1; }).map((e) => e.textContent)`,
	)
	assert.Empty(t, over, "labels that are cut off")
	b.press("a hotter pit")
	b.see("Dotted: a hotter pit")
	b.press("Cook it so")
	b.until(`document.querySelector(".fan").innerText.includes("pit 135")`)
	b.saved()
	assert.Equal(t, "135 °C", b.cook("supper").Doc.Pieces[1].Fire.Pit)
	// A mistake leads to the field, and the forecast waits for it.
	b.open("/cooks/{supper}/fire/2")
	b.write("Pit at", "hot")
	b.see("can't read", "can’t read")
	b.open("/cooks/{supper}/forecast/2")
	b.see("have to be right first")
}

// Before lighting: what is seen to is ticked on the plan, stays ticked, and is open again when
// the tick is taken back.
func TestBeforeLighting(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/plan")
	b.see("ash out, air holes free")
	ticked := `document.querySelector(".task-checks input").checked`
	b.until(`!` + ticked)
	b.press("ash out, air holes free")
	b.until(ticked)
	b.open("/cooks/{supper}/plan")
	b.see("probes read 0 °C")
	b.until(ticked)
	b.press("ash out, air holes free")
	b.until(`!` + ticked)
	said, err := b.app.Store.Facts(t.Context(), b.cook("supper").ID)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, len(said), 2, "a tick and what took it back are both on record")
}
