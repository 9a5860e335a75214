package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/testclock"

	"verjuice/internal/apptest"
)

// A newcomer: from an empty list to a weighed rub and a clock, typing wrong
// things on the way, and back again after a reload.
func TestFromNothingToAWeighedRub(t *testing.T) {
	b := start(t, apptest.Nothing)
	b.open("/")
	b.see("What is the occasion?")
	b.accessible("the empty list")
	b.press("Plan your first cook")

	b.see("Who eats, and when?")
	b.write("Name of this cook-out", "Sunday at the lock")
	b.write("Adults", "8")
	b.saved()
	b.until(`/^\/cooks\/[0-9a-f-]{36}\/occasion/.test(location.pathname)`)
	b.press("Add a piece of meat")
	b.write("Find a cut", "shoulder bone-in pork")
	b.do(chromedp.KeyEvent(kb.Enter))

	// A wrong weight shows a mistake at its field, stays typed, and is not saved.
	b.see("Weight as bought")
	b.write("Weight as bought", "2 cups")
	b.see("measures a volume; a weight is needed here")
	b.until(`document.querySelector("[data-standing]").dataset.standing === "mistakes"`)
	b.accessible("a field with a mistake")
	b.open("/cooks/{}/piece/1")
	b.see("measures a volume")
	assert.Equal(t, "2 cups", js[string](b, field("Weight as bought")+`.value`), "what was typed survives a reload")
	b.write("Weight as bought", "900 kg")
	b.see("check the number and its unit")
	b.write("Weight as bought", "7 lb 15 oz")
	b.write("After trimming", "3,4 kg")
	b.saved()

	// The rub: a coat drives it, and the column moves.
	b.press("Salt and season")
	b.see("on the meat; mix")
	b.press("coat")
	b.until(
		`document.querySelector("[data-standing]").dataset.standing === "saved" && document.querySelector(".salt-column .pic-huge")`,
	)
	medium := b.percent()
	b.press("heavy")
	b.until(`document.querySelector(".salt-column .pic-huge").textContent !== ` + quote(medium))
	heavy := b.percent()
	assert.Greater(t, heavy, medium)

	// Another crystal in a mix by volume: other grams, other salt.
	grams := js[string](b, `document.querySelector(".row-grams").innerText`)
	b.pick("Ingredient 1", "kosher salt, hollow flake")
	b.until(`document.querySelector(".salt-column .pic-huge").textContent < ` + quote(heavy))
	assert.NotEqual(t, grams, js[string](b, `document.querySelector(".row-grams").innerText`))

	// Any figure says where it comes from.
	b.press("Rub on the meat:")
	b.see("The coat’s volume per area times the surface")
	b.until(`document.querySelector(".ask-answer").checkVisibility({ opacityProperty: true })`)
	b.accessible("an explanation")
	b.do(chromedp.KeyEvent(kb.Escape))

	b.write("Parts of kosher salt", "🌶")
	b.see("can't read")
	b.write("Parts of kosher salt", "1 1/2")
	b.saved()

	b.press("Wait")
	b.see("deep at the fire")
	b.write("Salted before the fire", "20 min")
	b.see("beads of water: the worst moment to start")
	b.press("a day or more")
	b.see("24 h: at the fire")
	b.press("Plan")
	b.see("salt at")
	b.see(friday(t))
	b.saved()

	rec := b.cook("")
	assert.Equal(t, "Sunday at the lock", rec.Doc.Name)
	assert.Equal(t, "7 lb 15 oz", rec.Doc.Pieces[0].Bought)
	assert.Equal(t, "3,4 kg", rec.Doc.Pieces[0].Trimmed)
	assert.Equal(t, "hollow flake", rec.Doc.Pieces[0].Season.Formula.Rows[0].Form)
	assert.Equal(t, "1 1/2", rec.Doc.Pieces[0].Season.Formula.Rows[0].Parts)

	b.press("Cook-outs")
	b.see("Sunday at the lock")
	b.see("Pork shoulder, bone-in")
}

// friday is the day before the usual Saturday, as pages write it.
func friday(t *testing.T) string {
	at, err := time.Parse("2006-01-02T15:04", testclock.Saturday())
	require.NoError(t, err)
	return at.AddDate(0, 0, -1).Format("Mon 2 Jan")
}

// A server that is away: what is typed stays, is said not to be saved, and is saved as
// soon as the server is back, whatever the browser thinks of the network. A page that
// cannot be fetched says so within the frame.
func TestASilentServer(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/occasion")
	b.see("You need")
	b.app.Silent.Store(true)
	b.write("Adults", "35")
	b.until(`document.querySelector("[data-standing]").dataset.standing === "unreachable"`)
	b.see("the program does not answer. It is kept on this screen")
	b.see("enough for") // the last figures stay
	b.do(
		chromedp.Evaluate[chromedp.Void](
			`Object.defineProperty(navigator, "onLine", { get: () => false }), window.dispatchEvent(new Event("offline"))`,
		),
	)
	b.app.Silent.Store(false)
	b.saved()
	rec := b.cook("supper")
	assert.EqualValues(t, "35", rec.Doc.Guests)

	b.do(command(network.SetCacheDisabled, network.SetCacheDisabledParams{CacheDisabled: true}))
	b.open("/")
	b.see("Launch day")
	b.app.Silent.Store(true)
	b.press("Bench")
	b.see("This page cannot be shown")
	b.accessible("a page that cannot be fetched")
	b.app.Silent.Store(false)
	b.press("Try again")
	b.see("Regatta lamb rub")
}

// A regular on the demo: every view in both sizes and modes, copy, delete and
// undo, two screens, and the whole of it without a mouse.
func TestARegularOnTheDemo(t *testing.T) {
	b := start(t, apptest.Demo)
	b.everyLook(map[string]string{
		"/": "Launch day", "/cooks/{supper}/occasion": "Portions for later", "/cooks/{supper}/add": "Which cut?",
		"/cooks/{supper}/piece/1": "at its thickest", "/cooks/{supper}/brine/2": "at each of",
		"/cooks/{supper}/brine/4":  "in the meat when it comes out",
		"/cooks/{supper}/season/1": "on the meat; mix", "/cooks/{supper}/wait/1": ": at the fire",
	})

	for view, want := range map[string][]string{
		"piece/1": {"picker", "where from", "time"}, "moves/1": {"picker", "move"}, "plan": {"where from", "fold"},
	} {
		one := visit(t, b.app)
		one.open("/cooks/{supper}/" + view)
		one.see("at its thickest", "Off the fire", "Counted back from serving")
		assert.Subset(t, one.opened(view), want, view)
	}

	b.open("/cooks/{supper}/season/1")
	b.see("on the meat; mix")
	b.press("Units:")
	b.see("5 lb 5 oz")
	b.press("Units:")

	// The depth is scrubbed by keys.
	b.open("/cooks/{supper}/wait/1")
	b.see(": at the fire")
	b.focus(`.stage [role=slider]`)
	b.do(chromedp.KeyEvent(kb.Home))
	b.see("still on the surface")

	// A piece taken off can be put back.
	b.open("/cooks/{supper}/piece/5")
	b.see("of cooked meat")
	b.press("Take this piece off")
	b.until(`!document.querySelector(".strip").innerText.includes("Venison")`)
	b.press("Put it back")
	b.until(`document.querySelector(".strip").innerText.includes("Venison")`)
	b.saved()

	// Another screen saves first: this one shows the conflict and keeps its changes.
	b.open("/cooks/{supper}/occasion")
	b.see("enough for 51")
	rec := b.cook("supper")
	rec.Doc.Guests = "40"
	_, err := b.app.Store.Cooks().Update(t.Context(), rec.ID, rec.Version, rec.Doc)
	require.NoError(t, err)
	b.write("Adults", "38")
	b.see("This cook-out was changed on another screen.")
	assert.Equal(t, "38", js[string](b, field("Adults")+`.value`))
	b.accessible("a conflict")
	b.press("Take theirs")
	b.until(field("Adults") + `?.value === "40"`)
	b.write("Adults", "36")
	b.saved()

	b.open("/")
	b.press("Copy Autumn regatta supper")
	b.see("Autumn regatta supper, again")
	b.see("no serving time yet")
	b.press("Cook-outs")
	b.press("Delete Autumn regatta supper, again")
	b.see("is off the list")
	b.until(`document.querySelectorAll(".cook-line").length === 3`)
	b.press("Put it back")
	b.until(`document.querySelectorAll(".cook-line").length === 4`)

	// By keyboard alone: the first cook, its second stage, its chosen coat.
	b.open("/cooks/{supper}/season/3")
	b.see("on the meat; mix")
	b.focus(`.season-drive input[value="medium"]`)
	b.do(chromedp.KeyEvent(kb.ArrowRight))
	b.until(`document.querySelector('.season-drive input[value="heavy"]').checked`)
	b.saved()
	rec = b.cook("supper")
	assert.Equal(t, "heavy", rec.Doc.Pieces[2].Season.Coat)

	b.open("/cooks/999")
	b.see("There is no such cook-out")
	b.open("/nowhere")
	b.see("There is no page at this address")
}
