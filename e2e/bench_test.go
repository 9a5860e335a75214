package e2e

import (
	"strconv"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
)

// The bench: a house formula made one's own, changed, saved as a version, used in
// a cook; two set side by side; a label read.
func TestTheBench(t *testing.T) {
	b := start(t, apptest.Demo)
	b.everyLook(map[string]string{
		"/bench": "Regatta lamb rub", "/bench/{Regatta}": "Versions", "/bench/boathouse-sweet": "brown sugar",
		"/compare": "salt in the meat", "/label": "Sodium of a serving",
	})

	b.open("/bench/boathouse-sweet")
	b.see("brown sugar")
	b.press("Make it mine")
	b.until(`/^\/bench\/[0-9a-f-]{36}$/.test(location.pathname)`)
	b.see("Versions")
	b.write("Parts of brown sugar", "6")
	b.see("changed; kept on this screen")
	b.open(js[string](b, `location.pathname`))
	b.see("changed; kept on this screen")
	b.press("Save as a new version")
	b.see("brown sugar 6 instead of 4")

	// From one thing that runs out, rounded to the scale.
	b.press("until one runs out")
	b.write("What is left of it", "30 g")
	b.until(`document.querySelector(".row-grams").innerText.startsWith("30")`)
	b.press("1 g")
	b.see("the worst row is")
	b.write("What is left of it", "lots")
	b.see("can't read")
	b.accessible("a batch with a mistake")

	// A formula that would use itself is refused, with the way it takes.
	b.open("/bench/{Regatta}")
	b.see("Versions")
	b.pick("Add an ingredient", "injection (a formula)")
	b.see("a formula cannot use itself: Regatta lamb rub → Lock-keeper’s injection → Regatta lamb rub")
	b.press("Undo the changes")
	b.until(`!document.body.innerText.includes("cannot use itself")`)

	// Taken up in a cook.
	b.open("/cooks/{supper}/season/1")
	b.see("on the meat; mix")
	before := b.percent()
	b.pick("Formula", "Regatta lamb rub")
	b.until(`document.querySelector(".salt-column .pic-huge").textContent < ` + quote(before))
	b.saved()
	rec := b.cook("supper")
	assert.Equal(t, "Regatta lamb rub", rec.Doc.Pieces[0].Season.Formula.Name)
	b.press("Keep this mix on the bench")
	b.see("It is on your bench.")

	b.open("/bench")
	b.see("Boathouse glaze") // the list of your own has come, and nothing moves any more
	b.press("Compare Salt and pepper, 1 : 1")
	b.press("Compare Pepper-heavy, 2 : 1")
	b.press("Compare Regatta lamb rub")
	b.press("Compare these 3")
	b.see("Salt and pepper, 1 : 1 is the saltiest by weight: 1.6 times Regatta lamb rub.")

	b.open("/label")
	b.write("Sodium of a serving", "230")
	b.write("A serving is", "0.7 g")
	b.see("Salt by weight 76–92 %")
	b.write("A serving is", "1/4 tsp")
	b.see("how much does a teaspoon of it weigh?")

	b.open("/bench")
	b.press("Delete Slipway spritz")
	b.see("is off the bench")
	b.press("Put it back")
	b.until(`[...document.querySelectorAll(".formula-line")].some((e) => e.innerText.includes("Slipway spritz"))`)
}

// Salt by every road: a bath, an injection and more layers on one piece, added up
// in the one column, with the rub giving way and the impossible refused.
func TestEveryRoadOfSalt(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/brine/3")
	b.see("Wet brine")
	b.press("equilibrium bath")
	b.see("in the meat when it comes out")
	b.write("The pot holds", "3 L")
	b.see("Does not fit")
	b.write("The pot holds", "10 L")
	b.see("Fits: ")
	b.write("Time in the bath", "3 kg")
	b.see("is not a time")
	b.write("Time in the bath", "24 h")
	b.press("inject")
	b.see("at each of")
	b.pick("What is injected", "Lock-keeper")
	b.see("block a bore of 2 mm")
	b.write("Pump, of the meat", "10 %")
	b.saved()

	b.press("Salt and season")
	b.see("What else goes on it")
	b.press("target salt")
	b.write("Salt in the meat", "1.2 %")
	b.until(`document.querySelector(".salt-column .pic-huge")?.textContent === "1.20"`)
	rub := js[string](b, `document.querySelector(".ask-huge").innerText`)
	b.pick("Add a layer", "glaze")
	b.until(`document.querySelectorAll(".layers li").length === 1`)
	b.pick("What layer 1 is", "soy-type sauce")
	b.until(`document.querySelectorAll(".salt-lines li").length === 5`) // the ticked binder is one
	b.until(`document.querySelector(".ask-huge").innerText !== ` + quote(rub))
	assert.Equal(t, "1.20", b.percent(), "the rub gives way")
	b.write("Salt in the meat", "0.2 %")
	b.see("without any")
	b.accessible("an impossible target")
	b.write("Salt in the meat", "1.2 %")
	b.saved()
	b.press("Plan")
	b.see("into the bath")

	rec := b.cook("supper")
	p := rec.Doc.Pieces[2]
	assert.Equal(t, "24 h", p.Bath.For)
	assert.Equal(t, "10 %", p.Inject.Pump)
	assert.Equal(t, "glaze", p.Layers[0].Kind)
}

// Weighed out with the scale, poured over, made bigger, finished by typing; the
// salt column counts what was really weighed.
func TestWeighingOut(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/season/2")
	b.see("Weigh it out")
	planned := b.percent()
	b.press("Weigh it out")
	b.see("1 of 2: kosher salt")
	b.accessible("weighing out")
	b.press("Connect a scale")
	b.press("Practise with a pretend one")
	b.see("on the scale")
	b.accessible("weighing out with a scale")
	for range 3 {
		b.press("+20 g")
	}
	b.until(
		`document.querySelector(".weigh-live").innerText.startsWith("60.0") && document.body.innerText.includes("steady")`,
	)
	b.press("Take this and go on")
	b.see("g too much: take it out, or make the whole batch")
	b.accessible("poured over")
	b.press("Make the batch bigger")
	b.see("2 of 2: black pepper")
	b.until(`document.querySelector(".weigh-live").innerText.startsWith("0.0")`)
	goal := js[string](b, `String(parseFloat(document.querySelector(".weigh-target").innerText))`)
	b.write("Or type what it weighs", goal)
	b.press("Keep")
	b.see("All weighed")
	b.saved()
	rec := b.cook("supper")
	assert.Equal(t, []string{"60", goal}, rec.Doc.Pieces[1].Weighed)
	b.press("Salt and season")
	b.see("on the meat; weighed")
	b.until(`document.querySelector(".salt-column .pic-huge").textContent > ` + quote(planned))
}

// A cook without a scale that talks weighs by keyboard alone: Enter says that what was asked is in, a number that it
// was something else.
func TestWeighingWithoutAScale(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/season/2")
	b.see("Weigh it out")
	b.do(chromedp.KeyEvent("w"))
	b.see("1 of 2: kosher salt")
	b.until(`document.activeElement?.getAttribute("aria-label") === "Or type what it weighs"`)
	goal := js[string](b, `String(parseFloat(document.querySelector(".weigh-target").innerText))`)
	b.do(chromedp.KeyEvent(kb.Enter))
	b.see("2 of 2: black pepper")
	second := js[string](b, `String(parseFloat(document.querySelector(".weigh-target").innerText))`)
	b.do(chromedp.KeyEvent(second))
	b.until(`document.activeElement?.value === ` + quote(second))
	b.do(chromedp.KeyEvent(kb.Enter))
	b.see("All weighed")
	b.until(`document.activeElement?.innerText === "On to the wait"`)
	b.saved()
	weighed := b.cook("supper").Doc.Pieces[1].Weighed
	if assert.Len(t, weighed, 2) {
		assert.Equal(t, second, weighed[1])
		grams, err := strconv.ParseFloat(weighed[0], 64)
		require.NoError(t, err)
		assert.InDelta(t, grams, js[float64](b, goal), 0.051)
	}
	b.do(chromedp.KeyEvent(kb.Enter))
	b.until(`location.pathname.endsWith("/wait/2")`)
}
