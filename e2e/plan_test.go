package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/starter"
	"verjuice/internal/testclock"
)

// From nothing to a plan for a supper: who eats and when, two pieces, pits, quiet
// hours typed wrongly first, and what is to be done when.
func TestPlanningFromNothing(t *testing.T) {
	b := start(t, apptest.Nothing)
	b.open("/cooks/new")
	b.write("Name of this cook-out", "Lock supper")
	b.write("Adults", "32")
	b.write("Children", "4")
	b.saved()
	b.until(`/^\/cooks\/[0-9a-f-]{36}\/occasion/.test(location.pathname)`)
	for _, piece := range [][2]string{
		{"lamb shoulder, bone-in", "2.7 kg"}, {"chuck roll, for pulling", "4.4 kg"}, {"pork loin, boneless", "1.8 kg"},
		{"chicken leg, thigh on", "300 g"}, {"venison haunch roast", "2 kg"},
	} {
		b.press("Add a piece of meat")
		b.press(piece[0])
		b.see("after trimming")
		b.write("Weight as bought", piece[1])
		b.press("Occasion")
	}
	b.saved()
	b.see("You need")
	b.press("hearty")
	b.see("42.5")
	b.press("Use these weights")
	b.see("enough for 43", "enough for 42")
	b.press("Put it back")
	b.see("short for 43", "short for 42")
	b.press("Use these weights")
	b.see("enough for 43", "enough for 42")
	b.press("The plan")
	b.see("What to do when")
	for i, pit := range []string{"pellet cabinet", "kettle with a fuse"} {
		b.pick("Add a pit", pit)
		b.until(fmt.Sprintf(`document.querySelectorAll(".pits li").length === %d`, i+1))
	}
	b.write("Quiet hours", "from late")
	b.see("are no quiet hours")
	b.accessible("quiet hours that cannot be read")
	b.write("Quiet hours", "22:30-06:30")
	b.see("What to do when")
	b.see("to serve on time")
	b.press("Shopping")
	b.see("Everything else")
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector(".shop input").click()`))
	b.saved()
	b.open("/cooks/{}/shopping")
	b.until(`document.querySelector(".shop input")?.checked`)
	rec := b.cook("")
	assert.Equal(t, "22:30-06:30", rec.Doc.Quiet)
	assert.Equal(t, "kettle", rec.Doc.Pits[1].Kind)
	require.Len(t, rec.Doc.Pieces, 5)
	assert.NotEqual(t, rec.Doc.Pieces[0].Key, rec.Doc.Pieces[1].Key)
}

// The serving time is dragged and everything moves; a bar is dragged and its time
// is fixed; what is done is marked and withdrawn.
func TestMovingThePlan(t *testing.T) {
	b := start(t, apptest.Demo)
	b.everyLook(
		map[string]string{
			"/cooks/{supper}/plan":     "What to do when",
			"/cooks/{supper}/shopping": "Everything else",
			"/cooks/{supper}/fire/2":   "Wrap",
			"/cooks/{supper}/card":     "Guidance for home cooks",
		},
	)
	b.open("/cooks/{supper}/plan")
	b.see("What to do when")
	fire := js[string](
		b,
		`[...document.querySelectorAll(".task")].find((e) => e.innerText.includes("Pork loin, boneless: on the fire")).querySelector("b").innerText`,
	)
	b.drag(".strip-serve button", -60)
	b.until(`!document.querySelector(".cook-serve").innerText.includes("18:30")`)
	b.until(
		`[...document.querySelectorAll(".task")].find((e) => e.innerText.includes("Pork loin, boneless: on the fire")).querySelector("b").innerText < ` + quote(
			fire,
		),
	)
	b.saved()
	b.focus(".strip-serve button")
	b.do(chromedp.KeyEvent(kb.ArrowRight))
	b.saved()

	// A time alone keeps the day, and Enter takes it as it is shown.
	b.open("/cooks/{supper}/occasion")
	b.see("You need")
	b.write("Serving at (Europe/Dublin time)", "19:00")
	b.do(chromedp.KeyEvent(kb.Enter))
	b.until(field("Serving at (Europe/Dublin time)") + `.value === "Sat 28 Nov 2026, 19:00"`)
	require.Eventually(t, func() bool { return b.cook("supper").Doc.ServeAt == "2026-11-28T19:00" },
		10*time.Second, 20*time.Millisecond)
	b.open("/cooks/{supper}/plan")
	b.see("What to do when")

	b.drag(".lane:nth-child(3) .bar-wait", -30)
	b.until(`document.querySelectorAll("[aria-label='its time is set']").length === 1`)
	b.press("let it move")
	b.until(`document.querySelectorAll("[aria-label='its time is set']").length === 0`)
	b.press("Set the time of: Venison haunch roast: on the fire")
	b.accessible("fixing a time")
	b.do(chromedp.KeyEvent(kb.Escape + kb.Tab))

	b.press("Done now: Prepare and salt Lamb shoulder, bone-in")
	b.see("It is salted")
	b.see("early")
	b.accessible("something done")
	b.press("Say when: Prepare and salt Lamb shoulder, bone-in")
	b.until(`document.activeElement.closest(".pick-time")`)
	b.do(chromedp.KeyEvent(kb.Escape + kb.Tab))
	b.press("not done")
	b.until(`!document.querySelector(".plan-told")`)
	b.press("Remind me")
	b.see("reminders here", "Reminders are on")

	b.open("/cooks/{supper}/fire/1")
	b.write("Out of the fridge", "3 h")
	b.saved()
	b.open("/cooks/{supper}/plan")
	b.press("I understand the risk")
	b.see("Read and acknowledged")
	b.saved()
	said, err := b.app.Store.Facts(t.Context(), b.cook("supper").ID)
	require.NoError(t, err)
	kinds := []facts.Kind{}
	for _, f := range said {
		kinds = append(kinds, f.Kind)
	}
	assert.Equal(t, []facts.Kind{facts.Done, facts.Withdrawn, facts.Acknowledged}, kinds, "nothing that was said is lost")
	assert.Equal(t, said[0].ID, said[1].What)
	assert.Equal(t, "counter-time", said[2].What)
	_, done := said.Done(said[0].Piece, said[0].What)
	assert.False(t, done)
}

// What was typed a moment before the page is left is saved: the card shows it, and so
// does the list; a drag that is broken off changes nothing.
func TestLeavingInAHurry(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/plan")
	b.see("What to do when")
	b.write("Quiet hours", "20:00-08:00")
	b.press("Pit card")
	b.until(`document.querySelector(".card")`)
	rec := b.cook("supper")
	assert.Equal(t, "20:00-08:00", rec.Doc.Quiet, "the card waited for it")
	card := js[string](b, `document.querySelector(".card").innerText`)
	b.press("Back to the plan")
	b.see("What to do when")
	b.press("Done now: Prepare and salt Lamb shoulder, bone-in")
	b.see("It is salted")
	b.until(`document.querySelector("[data-standing]").dataset.standing === "saved"`)
	b.press("Pit card")
	b.until(`document.querySelector(".card")`)
	assert.NotEqual(
		t,
		card,
		js[string](b, `document.querySelector(".card").innerText`),
		"what was done moves the card, too",
	)
	b.open("/cooks/{supper}/occasion")
	b.see("You need")
	b.write("Adults", "41")
	b.press("Cook-outs")
	b.see("Launch day")
	require.Eventually(t, func() bool {
		rec := b.cook("supper")
		return rec.Doc.Guests == "41"
	}, 10*time.Second, 20*time.Millisecond)

	b.open("/cooks/{supper}/plan")
	b.see("What to do when")
	b.do(chromedp.Evaluate[chromedp.Void](`(() => {
		const bar = document.querySelector(".lane:nth-child(3) .bar-wait");
		const at = bar.getBoundingClientRect();
		const send = (type, x, kind) => bar.dispatchEvent(new PointerEvent(type, {
			bubbles: true, cancelable: true, pointerId: 1, pointerType: kind, clientX: x, clientY: at.y + 4, button: 0 }));
		bar.setPointerCapture = () => {};
		send("pointerdown", at.x + 20, "mouse"), send("pointermove", at.x - 30, "mouse");
		send("pointercancel", at.x - 30, "mouse");
		send("pointerdown", at.x + 20, "touch"), send("pointermove", at.x - 30, "touch");
		send("pointerup", at.x - 30, "touch");
	})()`))
	// The next edit saves whatever they have changed.
	b.write("Quiet hours", "22:00-06:00")
	b.saved()
	rec = b.cook("supper")
	assert.Equal(t, "22:00-06:00", rec.Doc.Quiet)
	assert.Empty(t, rec.Doc.Wishes)
}

// The decisions of the stages, the grain and a photograph.
func TestDecisionsGrainAndPhotograph(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/fire/2")
	b.until(`document.querySelector(".fire-big")`)
	before := js[string](b, `document.querySelector(".fire-big").innerText`)
	b.press("Wrap: ")
	b.press("foil")
	b.until(`document.querySelector(".fire-big").innerText !== ` + quote(before))
	b.see("Wrap when the core reads")
	b.write("Take off at (core)", "hot")
	b.until(`document.querySelector(".typed-error")`)
	b.write("Take off at (core)", "203 F")
	b.until(`!document.querySelector(".typed-error")`)
	b.press("Piece and trim")
	b.press("frozen")
	b.see("to thaw")
	b.press("Mark which way it runs")
	b.focus("[aria-label='Direction of the grain']")
	b.do(chromedp.KeyEvent(kb.ArrowRight + kb.ArrowRight))
	b.see("Grain marked at 10° to the length")
	b.accessible("the grain")
	b.saved()

	img := image.NewRGBA(image.Rect(0, 0, 600, 400))
	for x := range 600 {
		for y := range 400 {
			img.Set(x, y, color.RGBA{uint8(x / 4), 90, uint8(y / 4), 255})
		}
	}
	var raw bytes.Buffer
	require.NoError(t, jpeg.Encode(&raw, img, nil))
	file := filepath.Join(t.TempDir(), "cut.jpg")
	require.NoError(t, os.WriteFile(file, raw.Bytes(), 0o600))
	b.upload("input[type=file]", file)
	b.until(`document.querySelector(".photos img")?.naturalWidth === 600`)
	b.accessible("a photograph")
	require.NoError(t, os.WriteFile(file, []byte("no picture"), 0o600))
	b.upload("input[type=file]", file)
	b.see("this is not a photograph that can be read here")
	b.press("Take this photograph away")
	b.until(`!document.querySelector(".photos img")`)
	b.press("Put it back")
	b.until(`document.querySelector(".photos img")`)
	rec := b.cook("supper")
	assert.Equal(t, "foil", rec.Doc.Pieces[1].Choices["wrap"])
	assert.Equal(t, "10", rec.Doc.Pieces[1].Grain)
	assert.Equal(t, "203 F", rec.Doc.Pieces[1].Fire.Done)
}

// The pit card and a formula's print on A5, black on white, all of it; how a cook-out went on a whole
// page, with its curve.
func TestCardsAndReportsPrint(t *testing.T) {
	b := start(t, apptest.Logbook)
	for _, is := range []struct {
		path, see, width, height string
		pages                    int
	}{
		{"/cooks/{supper}/card", "Guidance for home cooks", `^(419|420)`, `^(594|595)`, 2},
		{"/bench/{Regatta lamb rub}/card", "A level tablespoon weighs", `^(419|420)`, `^(594|595)`, 1},
		{"/cooks/{committee}/after", "as it was read", `^(595|612)`, `^(79|84)`, 4},
	} {
		b.open(is.path)
		b.see(is.see)
		pdf := b.pdf()
		assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF-")))
		boxes := regexp.MustCompile(`/MediaBox ?\[0 0 ([0-9.]+) ([0-9.]+)\]`).FindAllSubmatch(pdf, -1)
		require.NotEmpty(t, boxes)
		assert.LessOrEqual(t, len(boxes), is.pages, is.path)
		for _, box := range boxes {
			assert.Regexp(t, is.width, string(box[1]), is.path)
			assert.Regexp(t, is.height, string(box[2]), is.path)
		}
		assert.Greater(t, len(pdf), 8000, "with the whole list on it")
		if strings.HasSuffix(is.path, "/card") {
			shown := js[string](b, `getComputedStyle(document.querySelector(".card")).backgroundColor`)
			assert.Equal(t, "rgb(255, 255, 255)", shown)
			b.accessible(is.path)
		}
	}
}

// Two plans that are really different: chosen by the keyboard, each with its own
// list, and kept; on a phone there is the list, and the strip's hours are away.
func TestChoosingAPlan(t *testing.T) {
	b := start(t, apptest.Nothing)
	two := starter.New(apptest.Now, 8)
	two.Name = "Two ways"
	two.ServeAt = strings.Replace(testclock.Saturday(), "18:30", "18:00", 1)
	two.Zone = testclock.Zone
	two.Pits = []cook.Pit{{Name: "Pellets", Kind: "pellet"}}
	shoulder, ok := cut.Find("pork-shoulder-bone-in")
	require.True(t, ok)
	piece := starter.NewPiece(shoulder, "metric")
	piece.Choices = map[string]string{"rest": "holder"}
	two.Pieces = []cook.Piece{piece}
	_, err := b.app.Store.Cooks().Create(t.Context(), two)
	require.NoError(t, err)

	b.open("/cooks/{}/plan")
	b.see("What to do when")
	require.Equal(t, 2.0, js[float64](b, `document.querySelectorAll(".plan").length`))
	first := js[string](b, `document.querySelector(".agenda ol").innerText`)
	b.focus(".plan-chosen input")
	b.do(chromedp.KeyEvent(kb.ArrowDown))
	b.until(`document.querySelector(".agenda ol").innerText !== ` + quote(first))
	b.saved()
	rec := b.cook("")
	assert.Equal(t, "ahead", rec.Doc.Plan)
	b.see("Reheat Pork shoulder, bone-in")
	b.see("shallow trays")
	b.accessible("another plan")

	// The same cook on a phone by night.
	b.do(chromedp.EmulateViewport(390, 844))
	b.press("More")
	b.press("night")
	b.open("/cooks/{}/plan")
	b.see("What to do when")
	assert.Zero(t, js[float64](b, `document.querySelector(".strip-ruler").getClientRects().length`))
	b.fits("a plan on a phone")
	b.reachable("a plan on a phone")

	// Without a serving time there is one step to take, and it is offered.
	rec = b.cook("")
	rec.Doc.ServeAt = ""
	_, err = b.app.Store.Cooks().Update(t.Context(), rec.ID, rec.Version, rec.Doc)
	require.NoError(t, err)
	b.open("/cooks/{}/plan")
	b.see("everything is counted back from it")
	b.press("Set the serving time")
	b.until(`location.pathname.endsWith("/occasion")`)
}
