package e2e

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/apptest"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
	"verjuice/internal/practice"
	"verjuice/internal/testclock"
)

// shoulderAtThePit is a shoulder to be wrapped in foil, in a cook of its own.
func (b *browser) shoulderAtThePit() (id string) {
	b.t.Helper()
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key, p.Choices = "a", map[string]string{"wrap": "foil"}
	c := anycook.Supper(p)
	c.Name = "Lock gate supper"
	rec, err := b.app.Store.Cooks().Create(b.t.Context(), c)
	require.NoError(b.t, err)
	return rec.ID
}

// reads is what a thermometer in the shoulder, and one beside it, hand in of some hours.
func (b *browser) reads(cook string, fromH, hours, startC, perHour float64) {
	b.t.Helper()
	var all []facts.Reading
	for m := 60 * fromH; m < 60*(fromH+hours); m += 5 {
		at := apptest.Now.Add(time.Duration(m) * time.Minute)
		all = append(
			all,
			facts.Reading{Probe: "core:a", At: at, C: quantity.Celsius(startC + perHour*(m/60-fromH))},
			facts.Reading{Probe: "pit:0", At: at, C: 112},
		)
	}
	b.app.Clock.Store(int64((fromH + hours) * float64(time.Hour)))
	require.NoError(b.t, b.app.Store.HandIn(b.t.Context(), cook, facts.HandIn{ID: uuid.NewString()}, all))
}

// done is how often a cook has that on record, and not taken back.
func (b *browser) done(cook, what string) int {
	b.t.Helper()
	all, err := b.app.Store.Facts(b.t.Context(), cook)
	require.NoError(b.t, err)
	n := 0
	for _, f := range all.Standing() {
		if f.What == what {
			n++
		}
	}
	return n
}

// A phone at the pit: it goes on, is read, is looked at while the program does not answer, wrapped when
// that is advised, and comes off; each press is on record once, and one of them is taken back.
func TestAtThePit(t *testing.T) {
	b := start(t, apptest.Nothing)
	id := b.shoulderAtThePit()
	b.onPhone(390, 844)
	b.open("/cooks/" + id + "/plan")
	b.see("The plan")
	b.press("Pit side")
	b.see("no reading of the core")
	b.press("On the fire")
	b.see("Not yet: wrap")
	b.accessible("the pit side")
	b.fits("the pit side")
	b.reachable("the pit side")
	b.reads(id, 0, 4, 6, 13)
	b.until(`document.querySelector(".pit-core b")?.innerText.startsWith("5")`)
	for _, figure := range []string{".pit-core b", ".pit-air b", ".pit-next-in", ".pit-advice-figure"} {
		assert.GreaterOrEqual(
			t,
			js[float64](b, `parseFloat(getComputedStyle(document.querySelector("`+figure+`")).fontSize)`),
			60.0,
			figure,
		)
	}

	b.app.Silent.Store(true)
	for range 2 {
		b.press("Looked")
	}
	b.see("2 waiting to be handed in")
	b.app.Silent.Store(false)
	b.until(`!document.body.innerText.includes("waiting to be handed in")`)
	lookedTimes := func(n int) {
		b.until(
			fmt.Sprintf(
				`[...document.querySelectorAll(".pit-log li")].filter((e) => e.innerText.includes("Looked")).length === %d`,
				n,
			),
		)
		assert.Equal(t, n, b.done(id, "look"))
	}
	lookedTimes(2)
	b.press("Undo")
	lookedTimes(1)

	// It opens while the program does not answer, with what was shown last.
	b.until(`navigator.serviceWorker.controller`)
	b.until(
		`(globalThis.keptPage ??= caches.match(location.href).then((page) => (globalThis.isKept = Boolean(page))), globalThis.isKept)`,
	)
	b.app.Silent.Store(true)
	b.do(chromedp.Navigate(b.app.URL + "/cooks/" + id + "/pit"))
	b.see("Verjuice is not responding")
	b.see("Not yet: wrap")
	b.press("Looked")
	b.see("1 waiting to be handed in")
	b.app.Silent.Store(false)
	lookedTimes(2)

	b.reads(id, 4, 2, 57, 8)
	b.press("Scratches off")
	b.see("wrap when the bark holds")
	b.press("Holds")
	b.see("Wrap it now")
	assert.Equal(
		t,
		"Wrapped",
		js[string](b, `document.querySelector(".pit-thumb .press-planned").innerText.trim()`),
		"what is advised is under the thumb",
	)
	b.press("Wrapped")
	b.until(`!document.body.innerText.includes("Wrap it now")`)
	assert.Equal(t, 1, b.done(id, "wrap"))
	b.write("Your name, on what you press here", "Ines")
	b.press("Pit changed")
	b.write("The pit is set to", "hot")
	b.press("Set")
	b.see("I can't read “hot°C” as an amount", "I can't read “hot °C” as an amount")
	b.press("Pit changed")
	b.write("The pit is set to", "275F")
	b.press("Set")
	b.see("set to 135°")
	b.see("Pit set to 135 °C Ines", "Pit set to 135\u00a0°C Ines")
	b.write("Read by eye", "93,5")
	b.press("Core")
	b.see("93.5°")
	b.reads(id, 6, 1, 93.5, 2)
	b.see("take it off")
	b.press("Pulled off")
	b.see("Sliced")
	b.press("Sliced")
	b.see("served")
	b.accessible("the pit side, served")
	for _, what := range []string{"fire", "off", "slice", "set"} {
		assert.Equal(t, 1, b.done(id, what), what)
	}
}

// A cook who owns no thermometer cooks by the clock, the eye and the feel: nothing is ever read, and
// the pit side says when to wrap, when it is soft, and that it is to come off, to the end.
func TestWithoutAThermometer(t *testing.T) {
	b := start(t, apptest.Nothing)
	id := b.shoulderAtThePit()
	b.onPhone(390, 844)
	b.open("/cooks/" + id + "/pit")
	b.press("On the fire")
	b.see("no reading of the core")
	later := func(h float64) { b.app.Clock.Store(int64(h * float64(time.Hour))) }
	later(5)
	b.press("Mahogany")
	b.press("Holds")
	b.press("Wrapped")
	b.until(`!document.body.innerText.includes("Wrap it now")`)
	later(8)
	b.press("Tough")
	b.press("Soft")
	b.see("Soft in the place you probed: take it off.")
	b.until(`document.querySelector(".pit-alarms, [role=alert]")?.innerText.includes("is done by feel: take it off")`)
	b.accessible("the pit side of a cook without a thermometer")
	b.fits("the pit side of a cook without a thermometer")
	b.press("Pulled off")
	b.press("Sliced")
	b.see("served")
}

// Two screens beside one fire: what one says the other shows, at once and in both themes the
// same night; a laptop shows all of it side by side.
func TestTwoScreensAtThePit(t *testing.T) {
	b := start(t, apptest.Demo)
	id := b.cook("regatta").ID
	for _, size := range looks {
		b.do(chromedp.EmulateViewport(size[0], size[1]))
		b.open("/cooks/" + id + "/pit")
		b.see("Chuck roll, for pulling")
		b.accessible(fmt.Sprint("the pit side at ", size))
		b.fits(fmt.Sprint("the pit side at ", size))
	}
	f := facts.Fact{
		ID:     uuid.NewString(),
		Kind:   facts.Done,
		Piece:  b.cook("regatta").Doc.Pieces[0].Key,
		What:   "fire",
		At:     apptest.Now.Format(time.RFC3339),
		Author: "Odhran",
	}
	require.NoError(t, b.app.Store.AddFact(t.Context(), id, f))
	b.see("Odhran")
	b.open("/")
	b.press("Autumn regatta supper is on the fire")
	b.until(`location.pathname.endsWith("/pit")`)
	b.until(`document.querySelector("html").dataset.mode === "night"`)
}

// A cook is practised on a simulated pit as a copy, sixty times as fast: what it reads moves what
// is told, and the cook itself has had nothing happen to it.
func TestPractising(t *testing.T) {
	b := start(t, apptest.Demo)
	go practice.Run(
		t.Context(),
		b.app.Store,
		func() time.Time { return apptest.Now.Add(time.Duration(b.app.Clock.Load())) },
	)
	real := b.cook("regatta").ID
	b.open("/cooks/" + real + "/plan")
	b.see("The plan")
	b.press("Practise it")
	b.see("Practice: Autumn regatta supper")
	b.press("– Chuck roll")
	b.until(`document.querySelector(".pit-title").innerText.startsWith("Chuck roll")`)
	b.press("On the fire")
	b.see("No wrap, as you chose.")
	b.app.Clock.Store(int64(4 * time.Minute))
	b.until(`parseFloat(document.querySelector(".pit-core b").innerText) > 20`)
	b.see("most likely off the fire")
	b.press("240 ×")
	b.until(`document.querySelector(".pit-speed [aria-pressed=true]").innerText === "240 ×"`)
	all, err := b.app.Store.Facts(t.Context(), real)
	require.NoError(t, err)
	assert.Empty(t, all)
}

// A piece comes off, is sauced, and goes on again: the first fire stays what it was, and its review tells both.
func TestOffAndOnAgain(t *testing.T) {
	b := start(t, apptest.Nothing)
	made, err := b.app.Store.Cooks().Create(t.Context(), cook.Cook{
		Name: "Crisped", ServeAt: testclock.Saturday(), Zone: testclock.Zone, Guests: "4",
		Pits: []cook.Pit{{Name: "Cabinet", Kind: "pellet"}},
		Pieces: []cook.Piece{{Key: "r", Label: "Ribs", Cut: "pork-back-ribs", Trimmed: "1 kg", Fire: cook.Fire{Pit: "120 °C"},
			Moves: []cook.Move{{Key: "a", What: "again", With: "whole", When: "15 min after it is off", For: "10 min"}}}},
	})
	require.NoError(t, err)
	b.onPhone(390, 844)
	b.open("/cooks/" + made.ID + "/pit/r")
	b.see("no reading of the core")
	for n, press := range []string{"On the fire", "Pulled off", "On again", "Off again", "Sliced"} {
		b.app.Clock.Store(int64([]time.Duration{0, 240, 256, 266, 280}[n] * time.Minute))
		b.open("/cooks/" + made.ID + "/pit/r")
		b.see([]string{"12:00", "16:00", "16:16", "16:26", "16:40"}[n] + " serving at") // by its clock
		b.press(press)
		if press != "Sliced" {
			b.see(press + ", ") // it is kept, whatever comes next
		}
		switch press {
		case "Pulled off":
			b.see("On again")
		case "On again":
			b.see("just on again", "off again, as planned")
		}
	}
	b.see("served")
	for _, what := range []string{"fire", "off", "again", "again-off", "slice"} {
		assert.Equal(t, 1, b.done(made.ID, what), what)
	}
	b.open("/cooks/" + made.ID + "/after")
	b.see("4 h on the fire", "Off again")
}

// A reading that cannot be is set aside and asked about; one that was typed wrongly is put right or taken back, and
// moves nothing then.
func TestAReadingIsTakenBack(t *testing.T) {
	b := start(t, apptest.Nothing)
	id := b.shoulderAtThePit()
	b.onPhone(390, 844)
	b.open("/cooks/" + id + "/pit")
	b.press("On the fire")
	b.see("no reading of the core")
	b.app.Clock.Store(int64(3 * time.Hour))
	b.open("/cooks/" + id + "/pit")
	b.see("15:00 serving")
	// It went on a little before it was pressed: said by a press, and typed.
	b.press("Say when: On the fire")
	b.write("Time of: On the fire", "11:45")
	b.do(chromedp.KeyEvent(kb.Enter))
	b.until(`document.querySelector(".pit-log li b").innerText === "11:45"`)
	require.Eventually(t, func() bool {
		all, err := b.app.Store.Facts(t.Context(), id)
		require.NoError(t, err)
		return slices.ContainsFunc(all, func(f facts.Fact) bool { return f.Kind == facts.Corrected })
	}, 10*time.Second, 20*time.Millisecond)
	read := func(typed string) {
		b.write("Read by eye, °C", typed)
		b.press("Core")
	}
	read("515")
	b.see("515° at 15:00 is set aside", "a digit too many?", "no reading of the core")
	b.press("Take it back")
	b.until(`!document.body.innerText.includes("is set aside")`)
	b.see("Core of 15:00: taken back", "no reading of the core")
	read("51")
	b.see("51.0°")
	b.press("Change: Core 51 °C")
	b.write("Reading: Core 51", "57")
	b.press("Read so")
	b.see("57.0°")
	b.press("Undo: Core 57 °C")
	b.see("no reading of the core")
	b.accessible("the pit side after a reading was taken back")
}
