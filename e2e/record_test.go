package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
)

// Two tabs show one cook. What is typed in one and cannot be saved is that one's own, and
// is still there when it is read again; what the other saves is on record.
func TestTwoTabs(t *testing.T) {
	one := start(t, apptest.Demo)
	one.open("/cooks/{supper}/piece/1")
	one.see("at its thickest")
	one.write("Thickest point", "2 cups")
	one.see("measures a volume")

	two := one.tab(t)
	two.open("/cooks/{supper}/piece/1")
	two.see("at its thickest")
	assert.Equal(t, "85 mm", js[string](two, field("Thickest point")+`.value`), "not what the first has typed")
	two.write("Your own name for it", "Ours")
	two.saved()
	assert.Equal(t, "Ours", one.cook("supper").Doc.Pieces[0].Label)

	one.open("/cooks/{supper}/piece/1")
	one.see("measures a volume")
	assert.Equal(t, "2 cups", js[string](one, field("Thickest point")+`.value`))
	// What each has changed elsewhere stays: nobody has to choose.
	one.write("Thickest point", "84 mm")
	one.saved()
	rec := one.cook("supper")
	assert.Equal(t, []string{"84 mm", "Ours"}, []string{rec.Doc.Pieces[0].Thickness, rec.Doc.Pieces[0].Label})
	// Where both changed one field, both see the two values of now.
	two.write("Thickest point", "83 mm")
	two.see("This cook-out was changed on another screen.", "84 mm there")
	two.write("Thickest point", "82 mm")
	two.see("82 mm here")
	two.press("Keep mine")
	two.saved()
	assert.Equal(t, "82 mm", one.cook("supper").Doc.Pieces[0].Thickness)
}

// An undo takes back its own edit, and keeps what was typed since.
func TestUndoTakesBackOneEdit(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/season/1")
	b.see("on the meat; mix")
	rows := b.cook("supper").Doc.Pieces[0].Season.Formula.Rows
	b.press("Leave out black pepper")
	b.see("is out of the mix")
	b.write("Spare mix", "12 %")
	b.write("Parts of garlic", "5")
	b.press("Put it back")
	b.until(named("Leave out black pepper") + ` !== undefined`)
	b.saved()
	season := b.cook("supper").Doc.Pieces[0].Season
	assert.Equal(t, "12 %", season.Spare)
	require.Len(t, season.Formula.Rows, len(rows))
	assert.Equal(t, rows[1], season.Formula.Rows[1])
	assert.Equal(t, "5", season.Formula.Rows[2].Parts)
}

// A mistake that stops the saving is named in the line that says so, marked on its stage,
// and one press leads to its field. The figures that hang on it stay, and are said to be old.
func TestAMistakeIsFound(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/occasion")
	b.see("enough for 51")
	b.write("Adults", "12.5")
	b.see("“12.5” is not a whole number")
	assert.Equal(t, "12.5", js[string](b, field("Adults")+`.value`))
	b.open("/cooks/{supper}/brine/4")
	b.see("in the meat when it comes out")
	b.press("strong bath")
	b.write("Strength", "60 %")
	b.until(`document.querySelector("[data-standing]").dataset.standing === "mistakes"`)
	b.see("in the meat when it comes out")
	b.until(`document.querySelector(".rail-wrong")`)
	b.press("Forecast")
	b.see("Forecast")
	b.until(`(() => { const a = document.querySelector(".standing a"); a?.click(); return a; })()`)
	b.until(`location.pathname.endsWith("/occasion")`)
	b.until(`document.activeElement === ` + field("Adults"))
	b.write("Adults", "34")
	b.until(
		`(() => { const a = document.querySelector(".standing a"); if (!a?.innerText.includes("%")) return false; a.click(); return true; })()`,
	)
	b.until(`document.activeElement === ` + field("Strength"))
	b.write("Strength", "6 %")
	b.write("Time in the bath", "1 h")
	b.saved()
	assert.Equal(t, "6 %", b.cook("supper").Doc.Pieces[3].Bath.Strength)
}

// Each stage names the page and takes the keyboard; the link at the top leads to it.
func TestWhereTheKeyboardIs(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/season/1")
	b.see("on the meat; mix")
	b.until(`document.title.startsWith("Salt and season · Lamb shoulder")`)
	b.do(
		chromedp.Evaluate[chromedp.Void](
			`[...document.querySelectorAll(".rail a")].find((a) => a.innerText.startsWith("Wait")).click()`,
		),
	)
	b.until(`document.title.startsWith("Wait · Lamb shoulder")`)
	b.until(`document.activeElement === document.querySelector(".stage")`)
	b.do(
		chromedp.Evaluate[chromedp.Void](`document.querySelector(".skip").focus(), document.querySelector(".skip").click()`),
	)
	b.until(`document.activeElement.id === "main"`)
}

// A save whose answer never came is on record all the same: whoever opens the page again
// is not told of another screen.
func TestASaveWithoutAnAnswer(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/occasion")
	b.see("You need")
	b.app.Unheard.Store(true)
	b.write("Adults", "41")
	require.Eventually(t, func() bool { return b.cook("supper").Doc.Guests == "41" }, 10*time.Second, 20*time.Millisecond)
	b.write("Portions for later", "7")
	b.see("saving")
	b.app.Unheard.Store(false)
	b.saved()
	assert.Equal(t, "7", string(b.cook("supper").Doc.Leftovers), "what was typed after it is saved, too")

	b.app.Unheard.Store(true)
	b.write("Adults", "43")
	require.Eventually(t, func() bool { return b.cook("supper").Doc.Guests == "43" }, 10*time.Second, 20*time.Millisecond)
	b.write("Portions for later", "8")
	b.see("saving")
	b.app.Unheard.Store(false)
	b.open("/cooks/{supper}/occasion")
	b.see("You need")
	b.saved()
	after := b.cook("supper").Doc
	assert.Equal(t, "43", string(after.Guests))
	assert.Equal(t, "8", string(after.Leftovers), "a page that is opened again finds it")
}

// While a field is wrong its piece keeps its lane on the strip and its place in the plan, as
// they were last.
func TestNothingVanishesWhileAFieldIsWrong(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/brine/4")
	b.see("Wet brine")
	bars := `document.querySelectorAll(".lane:nth-child(4) .bar").length`
	b.until(bars + ` > 2`)
	lanes := js[float64](b, bars)
	b.write("Salt, by your recipe", "2 Tbsp kosher salt in 5 qt")
	b.see("which salt?")
	assert.Equal(t, lanes, js[float64](b, bars))
	b.press("Plan")
	b.see("Chicken leg, thigh on: into the bath")
	b.press("12 × Chicken leg")
	b.see("Piece and trim")
	b.press("Brine and inject")
	b.press("2 Tbsp dense flake kosher salt in 5 qt")
	b.saved()
	assert.Equal(t, "2 Tbsp dense flake kosher salt in 5 qt", b.cook("supper").Doc.Pieces[3].Bath.Salt)
}

// Nothing jumps while a number is cleared and typed anew: neither the page nor its header moves by a pixel.
func TestNothingJumpsWhileTyping(t *testing.T) {
	b := start(t, apptest.Demo)
	for _, size := range [][2]int64{{1280, 800}, {390, 844}} {
		b.do(chromedp.EmulateViewport(size[0], size[1]))
		for path, fields := range map[string][]string{
			"/cooks/{supper}/piece/1":  {"Weight as bought", "After trimming, if weighed"},
			"/cooks/{supper}/season/2": {"Parts of kosher salt"},
			"/cooks/{supper}/fire/2":   {"Pit at"},
		} {
			b.open(path)
			b.see("On to: ", "saved")
			b.do(chromedp.Evaluate[chromedp.Void](`globalThis.moved = performance.now(); new PerformanceObserver((list) => {
				moved = performance.now(); }).observe({ type: "layout-shift", buffered: true }); 0`))
			b.until(`document.querySelector(".stage .amounts, .stage .row-grams button, .stage .fire-big") &&
				performance.now() - moved > 1000`)
			for _, label := range fields {
				find := field(label)
				// Who clears a number may think for a while: what is then said has its room. Only what was
				// weighed after trimming decides, when it is gone, that the trimming is asked about again.
				think := "2500"
				if label == "After trimming, if weighed" {
					think = "60"
				}
				b.until(find + ` !== undefined`)
				// Letter by letter within the page, so that no slow machine makes pauses that nobody makes.
				found := js[[][]any](b, `(async () => {
					const box = `+find+`, was = box.value || "120 °C", jumps = [];
					const seen = new PerformanceObserver((list) => {
						for (const e of list.getEntries()) jumps.push([e.value, ...e.sources.map((s) =>
							(s.node?.className ?? s.node?.nodeName) + " " + s.previousRect.y + ">" + s.currentRect.y)]);
					});
					seen.observe({ type: "layout-shift" });
					const type = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
					box.focus();
					for (let n = 0; n <= was.length; n++) {
						type.call(box, was.slice(0, n));
						box.dispatchEvent(new Event("input", { bubbles: true }));
						await new Promise((next) => setTimeout(next, n === 0 ? `+think+` : 60));
					}
					await new Promise((next) => setTimeout(next, 300));
					seen.disconnect();
					// What is drawn to scale moves by its figures, a little: nothing else does.
					return jumps.filter((j) => j[0] > 0.001);
				})()`, chromedp.EvalAwaitPromise)
				assert.Empty(t, found, "%s, %s at %v", path, label, size)
				b.saved()
			}
		}
	}
}

// A new cook-out that was begun and never named is gone on with, says so, and can be put aside for another.
func TestADraftIsGoneOnWith(t *testing.T) {
	b := start(t, apptest.Nothing)
	b.open("/cooks/new")
	b.see("Who eats, and when?")
	assert.False(t, js[bool](b, `document.body.innerText.includes("goes on with")`))
	b.write("Adults", "12")
	b.see("give it a name")
	b.open("/")
	b.see("What is the occasion?")
	b.open("/cooks/new")
	b.see("goes on with the cook-out that you began here")
	adults := field("Adults") + "?.value"
	assert.Equal(t, "12", js[string](b, adults))
	b.accessible("a draft that is gone on with")
	b.press("Begin a new one")
	b.until(adults + ` !== "12"`)
	b.press("Put it back")
	b.until(adults + ` === "12"`)
	b.see("goes on with the cook-out that you began here")
}
