package e2e

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/facts"

	"verjuice/internal/apptest"
)

// A cook with a phone in one hand: upright, on its side, and the smallest there is.
// Everything is a tap, and every page fits.
func TestByTouchOnAPhone(t *testing.T) {
	for _, size := range [][2]int64{{390, 844}, {844, 390}, {320, 640}} {
		t.Run(fmt.Sprint(size), func(t *testing.T) {
			b := start(t, apptest.Demo)
			b.onPhone(size[0], size[1])
			b.open("/")
			b.see("Autumn regatta supper")
			b.press(
				js[string](
					b,
					`[...document.querySelectorAll("#main a")].find((e) => e.innerText.includes("regatta supper")).innerText.replace(/\s+/g, " ").trim()`,
				),
			)
			b.until(`location.pathname.includes("/cooks/")`)
			if size[0] > 640 {
				b.press("The hours of every piece")
			}
			b.press("Pork loin, boneless")
			b.see("Salt and season: Pork loin")
			b.press("Piece and trim")
			b.see("of cooked meat")
			b.press("Salt and season")
			b.see("Salt and season: Pork loin")
			b.press("coat")
			b.press("heavy")
			b.until(`[...document.querySelectorAll(".chosen")].some((e) => e.innerText === "heavy")`)
			require.Eventually(
				t,
				func() bool { return b.cook("regatta").Doc.Pieces[2].Season.Coat == "heavy" },
				20*time.Second,
				50*time.Millisecond,
			)

			// A mark of the strip is read by pressing it, and pressing it fixes no time.
			planned := b.cook("regatta").Doc
			if js[bool](b, `!document.querySelector(".bar-wait")?.checkVisibility()`) {
				b.press("The hours of every piece")
			}
			b.press(js[string](b, `document.querySelector(".lane-now .bar-wait").parentElement.ariaLabel`))
			b.until(`document.querySelector(".strip-said").innerText.startsWith("Salted and waiting from")`)
			b.fits("a strip that was read")
			b.reachable("a strip that was read")
			b.accessible("a strip that was read")

			// In the shop: the whole line is there to press, also its price.
			b.press("Shopping")
			b.see("Everything else")
			line := js[string](b, `document.querySelector(".shop li:nth-child(2) label").innerText.replace(/\s+/g, " ").trim()`)
			b.press(line)
			b.until(`document.querySelectorAll(".shop :checked").length === 1`)
			b.press(line)
			b.until(`document.querySelectorAll(".shop :checked").length === 0`)
			assert.Equal(t, planned.Pieces, b.cook("regatta").Doc.Pieces)
			said, err := b.app.Store.Facts(t.Context(), b.cook("regatta").ID)
			assert.NoError(t, err)
			assert.Equal(t, []facts.Kind{facts.Ticked, facts.Withdrawn}, []facts.Kind{said[0].Kind, said[1].Kind})
		})
	}
}

// Keys alone: the stages are few presses away, and the marks of the strip can be read.
func TestByKeyboardAlone(t *testing.T) {
	for _, size := range [][2]int64{{1280, 800}, {390, 844}, {844, 390}, {320, 640}} {
		t.Run(fmt.Sprint(size), func(t *testing.T) {
			b := start(t, apptest.Demo)
			b.do(chromedp.EmulateViewport(size[0], size[1]))
			b.open("/cooks/{supper}/piece/1")
			b.see("at its thickest")
			b.do(chromedp.Evaluate[chromedp.Void](`document.activeElement.blur()`))
			tabs := 0
			here := func() string {
				return js[string](
					b,
					`document.activeElement.matches("a, button") ? document.activeElement.innerText.trim().split("\n")[0] : ""`,
				)
			}
			until := func(name string) {
				for here() != name {
					b.do(chromedp.KeyEvent(kb.Tab))
					if tabs++; tabs > 60 {
						t.Fatalf("no way to %q by Tab, now on %q", name, here())
					}
				}
			}
			until("skip to the page")
			b.do(chromedp.KeyEvent(kb.Enter))
			until("skip to the stages")
			b.do(chromedp.KeyEvent(kb.Enter))
			until("Salt and season")
			assert.LessOrEqual(t, tabs, 10, "presses of Tab to the season stage")
			b.do(chromedp.KeyEvent(kb.Enter))
			b.see("Salt and season: 2 × Lamb shoulder")
			b.until(`document.activeElement === document.querySelector(".stage")`)

			// The strip opens and closes by a key; arrows go from mark to mark.
			b.focus(".strip-open")
			b.do(chromedp.KeyEvent(kb.Enter))
			b.until(
				`document.querySelector(".strip-open").getAttribute("aria-expanded") === "true" && document.querySelector(".strip-legend")`,
			)
			b.focus(".lane:first-child .bar[tabindex='0']")
			for !strings.Contains(js[string](b, `document.activeElement.ariaLabel ?? ""`), "On the fire from") {
				was := js[float64](b, `document.activeElement.offsetLeft`)
				b.do(chromedp.KeyEvent(kb.ArrowRight))
				if js[float64](b, `document.activeElement.offsetLeft`) <= was {
					t.Fatal("the arrow leads to no mark further right")
				}
			}
			b.do(chromedp.KeyEvent(kb.Enter))
			b.until(`document.querySelector(".strip-said").innerText.startsWith("On the fire from")`)
			b.do(chromedp.KeyEvent(kb.Enter))
			b.until(`document.querySelector(".strip-said").innerText === ""`)
			b.focus(".strip-open")
			b.do(chromedp.KeyEvent(kb.Enter))
			b.until(`document.querySelector(".strip-open").getAttribute("aria-expanded") === "false"`)
		})
	}
}

// In a stage the strip is one line, so that the stage has the screen; a plan shows every lane.
func TestTheStripIsOneLine(t *testing.T) {
	b := start(t, apptest.Demo)
	for _, size := range [][3]int64{{1280, 800, 190}, {844, 390, 180}, {390, 844, 260}} {
		b.do(chromedp.EmulateViewport(size[0], size[1]))
		b.open("/cooks/{supper}/season/2")
		b.see("on the meat; mix")
		assert.LessOrEqual(t, js[float64](b, `document.querySelector(".strip").getBoundingClientRect().height`), 60.0)
		assert.LessOrEqual(
			t,
			js[float64](b, `document.querySelector(".stage").getBoundingClientRect().top`),
			float64(size[2]),
			"where the stage begins at %v",
			size,
		)
	}
	b.do(chromedp.EmulateViewport(1280, 800))
	b.open("/cooks/{supper}/plan")
	b.see("What to do when")
	assert.Equal(
		t,
		5.0,
		js[float64](b, `[...document.querySelectorAll(".lane-bars")].filter((e) => e.checkVisibility()).length`),
	)
	// Choices that say what they do stand in columns.
	b.open("/cooks/{supper}/fire/2")
	b.see("Wrap")
	edges := js[[]float64](
		b,
		`[...new Set([...document.querySelectorAll(".choice-told .ant-radio-wrapper")].map((e) => Math.round(e.getBoundingClientRect().left)))]`,
	)
	assert.LessOrEqual(t, len(edges), 4)
}

// Nothing is marked as wrong before anything was typed, and a page without a name says
// what it needs to be saved.
func TestANewCookOpensClean(t *testing.T) {
	b := start(t, apptest.Nothing)
	b.open("/cooks/new")
	b.see("Who eats, and when?")
	red := `[...document.querySelectorAll("[role=alert], .standing-bad, .rail-wrong, .typed-error, .ant-input-status-error")].filter((e) => e.checkVisibility() && (e.innerText !== "" || e.matches("svg, span.anticon"))).length`
	b.see("give it a name")
	b.until(`document.querySelector("[data-standing]").dataset.standing === "unnamed"`)
	assert.Zero(t, js[float64](b, red))
	b.accessible("a new cook")
	b.write("Adults", "12")
	b.see("12 at table")
	assert.Zero(t, js[float64](b, red))
	b.write("Adults", "a dozen or so")
	b.until(red + ` > 0`)
	b.write("Adults", "12")
	b.until(red + ` === 0`)
	b.press("give it a name")
	b.until(`document.activeElement === ` + field("Name of this cook-out"))
	b.do(chromedp.KeyEvent("Twelve at the lock"))
	b.saved()
	assert.True(t, strings.HasPrefix(b.cook("").Doc.Name, "Twelve"))
}

// What was deleted comes back from the bin, everything is found by one box, and keys lead from stage to stage.
func TestTheBinTheSearchAndTheKeys(t *testing.T) {
	b := start(t, apptest.Nothing)
	rec, err := b.app.Store.Cooks().Create(t.Context(), anycook.Supper(anycook.Coated("pork-loin", "2 kg")))
	require.NoError(t, err)
	b.open("/")
	b.see(rec.Doc.Name)
	b.press("Delete " + rec.Doc.Name)
	b.see("Put it back")
	b.open("/bin")
	b.see("cook-out, deleted just now")
	b.accessible("the bin")
	b.press("Bring back " + rec.Doc.Name)
	b.see("The bin is empty")
	b.do(chromedp.KeyEvent("/"))
	b.see("Search")
	b.until(`document.activeElement?.getAttribute("aria-label") === "Search everywhere"`)
	b.do(chromedp.KeyEvent(rec.Doc.Name))
	b.see("Cook-outs")
	b.write("Search everywhere", "stall")
	b.see("Words", "the core hardly rises")
	b.accessible("what was found")
	b.fits("what was found")
	b.press("Stall")
	b.see("Schools", "The next stage of the cook-out")
	b.open("/cooks/" + rec.ID + "/season/1")
	b.see("Salt and season")
	b.do(chromedp.KeyEvent("]"))
	b.until(`location.pathname.endsWith("/wait/1")`)
	b.do(chromedp.KeyEvent("["))
	b.do(chromedp.KeyEvent("["))
	b.until(`location.pathname.endsWith("/brine/1")`)
	b.do(chromedp.KeyEvent("w"))
	b.until(`location.pathname.endsWith("/weigh/1")`)
	b.open("/files")
	b.see("Download the whole book", "Read formulas from a file")
	b.accessible("files in and out")
}
