package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
	"verjuice/internal/core/facts"
	"verjuice/internal/store"
)

// A cook looks back: finds two lambs, compares them, opens one, weighs and scores it, leaves it out
// of what is learnt and takes it in again. Every page of it can be read on a phone, too.
func TestLookingBack(t *testing.T) {
	b := start(t, apptest.Logbook)
	b.open("/")
	b.press("Logbook")
	b.see("What it has learnt")
	b.see("The Pellet cabinet runs")
	b.write("Find in the logbook", "lamb")
	b.until(`document.querySelectorAll(".log-lines li").length === 3`)
	b.press("Compare Lamb for the committee")
	b.press("Compare Lamb, unwrapped")
	b.press("Compare 2")
	b.see("Compared")
	b.see("1 Lamb for the committee")
	b.until(`document.querySelectorAll(".curve path").length === 2`)
	b.accessible("two cook-outs compared")
	b.press("2 Lamb, unwrapped")
	b.see("How it went")
	b.see("A firm bark; no wrap is needed for lamb.")
	b.write("Bones, after it was eaten", "heavy")
	b.focus(".after-notes input")
	b.see("I can't read “heavy” as an amount")
	b.write("Bones, after it was eaten", "600 g")
	b.focus(".after-notes input")
	b.until(`!document.body.innerText.includes("I can't read")`)
	b.write("Who is tasting", "Ines")
	b.press("superb")
	b.until(`[...document.querySelectorAll("[aria-pressed=true]")].some((e) => e.innerText.includes("superb"))`)
	b.write("What to change next time", "Start earlier")
	b.until(`[...document.querySelectorAll("button")].find((e) => e.innerText.includes("Write it down"))?.disabled === false`)
	b.press("Write it down")
	b.see("Start earlier Ines")
	b.accessible("how it went")
	for _, path := range []string{b.app.URL + "/log", ""} {
		b.onPhone(390, 844)
		if path != "" {
			b.open("/log")
			b.see("Trends")
		}
		b.fits("the logbook on a phone")
	}
	b.accessible("the logbook")
}

// Something is on the fire that was never planned; its thermometer falls silent, and is missed until
// it shows something again. The clock of this browser is more than a year off all the while.
func TestOnTheFireAlready(t *testing.T) {
	b := start(t, apptest.Nothing)
	b.open("/")
	b.press("Something is on the fire now")
	b.pick("What is on", "pork shoulder, bone")
	b.write("Weight of one", "heavy")
	b.press("Go to the pit side")
	b.see("I can't read “heavy” as an amount")
	b.accessible("on the fire now")
	b.write("Weight of one", "3.6 kg")
	b.press("Go to the pit side")
	b.see("most likely off the fire")
	list, _, err := b.app.Store.Cooks().List(t.Context(), store.Query{})
	require.NoError(t, err)
	id := list[0].ID
	shows := func(fromH, hours float64) {
		t.Helper()
		var all []facts.Reading
		for m := 60 * fromH; m < 60*(fromH+hours); m++ {
			all = append(all, facts.Reading{Probe: "core:now", At: apptest.Now.Add(time.Duration(m) * time.Minute), C: 20})
		}
		require.NoError(t, b.app.Store.HandIn(t.Context(), id, facts.HandIn{ID: uuid.NewString()}, all))
		b.app.Clock.Store(int64((fromH + hours) * float64(time.Hour)))
	}
	shows(0.1, 1)
	b.see("20.0°")
	b.app.Clock.Store(int64(84 * time.Minute))
	b.see("No reading of pork shoulder, bone-in since", "No reading of Pork shoulder, bone-in since")
	shows(1.4, 0.2)
	b.until(`!document.body.innerText.includes("No reading of")`)
	b.press("Fire out")
	b.see("since when?")
	b.press("Since then")
	b.until(`[...document.querySelectorAll(".pit-log li")].some((e) => e.innerText.includes("Fire out"))`)
	assert.Equal(t, 1, b.done(id, "out"))
	b.press("Thermometers that send their readings")
	b.write("Name of a thermometer", "kitchen probe")
	b.press("Add")
	b.see("The key of kitchen probe")
	b.press("Remove kitchen probe")
	b.until(`!document.querySelector(".pit-devices li")`)
	b.fits("the pit side with a key")
}

// A newcomer gets from an empty list to a weighed rub by way of the words and the example, and
// writes an earlier cook-out down in a sentence.
func TestTheFirstMinutes(t *testing.T) {
	b := start(t, apptest.Nothing)
	b.open("/")
	b.press("Words, schools and a worked example")
	b.see("probe-tender")
	b.accessible("words and schools")
	b.fits("words and schools")
	b.press("Open a worked example")
	b.see("on the meat; mix")
	b.open("/past")
	b.pick("What it was", "brisket, whole")
	b.write("Weight of one", "5 kg")
	b.focus("textarea")
	b.paste("wrapped about four hours in, 165, foil; off at nine hours, 203")
	b.write("It went on", apptest.Now.AddDate(0, 0, -3).Format("2006-01-02")+" 05:00")
	b.focus("textarea")
	b.see("Wrapped in foil, core at 74")
	b.accessible("a past cook-out")
	// What is typed and sent at once, by Enter in its field, is what counts, not what stood there before.
	b.write("It went on", apptest.Now.AddDate(0, 0, -20).Format("2 Jan 2006")+" 5 am")
	b.do(chromedp.KeyEvent(kb.Enter))
	b.see("How it went")
	b.see("9 h")
	b.see(apptest.Now.AddDate(0, 0, -20).Format("Monday 2 January 2006"))
}

// A cook tells an earlier cook-out in ten clauses, answers what is asked with a press, puts it in the logbook, and
// tells it in other words afterwards.
func TestACookToldInWords(t *testing.T) {
	b := start(t, apptest.Nothing)
	b.open("/past")
	b.pick("What it was", "pork shoulder, bone-in")
	b.write("Weight of one", "3.6 kg")
	b.write("It went on", "some sunday")
	b.focus("textarea")
	b.see("“some” is not understood")
	b.write("It went on", apptest.Now.AddDate(0, 0, -20).Format("2 Jan")+" at 8 am")
	b.focus("textarea")
	b.until(`!document.body.textContent.includes("is not understood")`)
	b.until(field("It went on") + `.value === "` + apptest.Now.AddDate(0, 0, -20).Format("Mon 2 Jan 2006") + `, 08:00"`)
	b.focus("textarea")
	b.paste("spritzed every 45 min from hour two until the wrap; bark was set at 4 h; wrapped at five hours in foil, 165, " +
		"pit up to 135; 95 in the flat at three hours; probed like butter at 9 h; pulled at nine hours; " +
		"did not glaze; sliced at 8 pm; next time less salt")
	b.see("which scale?")
	b.see("pulled off the fire, or pulled apart?")
	b.see("Kept as remarks: did not glaze · next time less salt")
	b.accessible("a cook told in words")
	b.fits("a cook told in words")
	b.press("Put it in the logbook")
	b.see("something is not clear yet")
	b.press("95 °F")
	b.until(`!document.body.textContent.includes("which scale?")`)
	b.press("it was taken off the fire")
	b.until(`!document.body.textContent.includes("pulled off the fire, or")`)
	b.see("Wrapped in foil, core at 74")
	js[bool](b, `(() => { // a second press makes no second entry
		const button = [...document.querySelectorAll("button")].find((b) => b.textContent.includes("Put it in the logbook"));
		button.click();
		button.click();
		return true;
	})()`)
	b.see("How it went")
	b.see("9 h")
	_, made, err := b.app.Store.Cooks().List(t.Context(), store.Query{})
	require.NoError(t, err)
	assert.EqualValues(t, 1, made)
	b.see("In your own words")
	b.see("spritzed every 45 min from hour two")
	b.press("Change the words")
	b.paste("wrapped at five hours in paper; took it off at ten hours, 203")
	b.see("Wrapped in paper")
	b.press("Save these words")
	b.see("10 h")
	b.until(`!document.querySelector("textarea.told-words")`)
	b.until(`!document.body.textContent.includes("spritzed every 45 min")`)
	b.accessible("a cook told in other words")
}

// A cook-out that is over is planned as any other once its serving time is typed: nothing of it is due, and each of
// its pieces is told of in words.
func TestAPastCookInFull(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/occasion")
	b.write("Serving at (Europe/Dublin time)", "last saturday 18:00")
	b.do(chromedp.KeyEvent(kb.Enter))
	b.see("told as a past cook-out")
	b.saved()
	b.open("/cooks/{supper}/pit")
	b.see("Lamb shoulder")
	b.until(`!document.body.textContent.includes("due")`)
	b.open("/cooks/{supper}/after")
	b.see("Nothing was pressed while it cooked")
	b.press("Tell how it went")
	b.see("It went on")
	b.paste("wrapped at three hours in foil, 70 C; took it off at six hours, 94 in the thick end; rested one hour in the cooler")
	b.see("Taken off the fire, core at 94")
	b.accessible("a past cook-out, told")
	b.press("Save these words")
	b.see("Plan against actual")
	b.see("6 h")
	b.see("Change the words")
}

// A cook plans a later meal from what was kept: reads how many it feeds and when it goes in, mistypes
// and mends, reads the stop and says so, and finds all of it again after a reload and on a phone.
func TestALaterMeal(t *testing.T) {
	b := start(t, apptest.Logbook)
	b.open("/log")
	b.press("Later meals")
	b.see("Crew lunch")
	b.press("Plan a later meal")
	b.see("Waiting for the weight or the portions")
	b.until(`document.querySelectorAll(".typed-error").length === 0`) // nothing was done wrong yet
	b.write("Meal", "Lamb for the juniors")
	b.pick("Add something from a cook-out", "Lamb shoulder, bone-in · Lamb for the committee")
	b.until(`document.querySelectorAll(".meal-item").length === 2`)
	b.press("Take away Pulled, in a tray")
	b.press("Put it back")
	b.until(`document.querySelectorAll(".meal-item").length === 2`)
	b.press("Take away Pulled, in a tray")
	b.until(`document.querySelectorAll(".meal-item").length === 1`)
	b.see("for other meals")
	b.see("Its last day in the fridge was")
	b.press("I understand the risk")
	b.see("Read and acknowledged")
	b.press("freezer")
	b.until(`!document.body.innerText.includes("Its last day in the fridge was")`)
	b.until(`!document.body.innerText.includes("unverified")`)
	b.see("from the freezer to the fridge")
	b.write("Set to", "60 °C")
	b.see("a cooler oven never gets food to 74")
	b.see("Fix the fields marked in red")
	b.write("Set to", "160 °C")
	b.see("Heat the oven to 160")
	b.until(`location.pathname.length > 30 && document.querySelector(".meal-back").innerText.includes("saved")`)
	b.accessible("a later meal")
	b.open(js[string](b, `location.pathname`))
	b.see("Heat the oven to 160")
	b.until(`[...document.querySelectorAll("input")].some((e) => e.value === "Lamb for the juniors")`)
	b.onPhone(390, 844)
	b.fits("a later meal on a phone")
	b.press("Later meals")
	b.see("Crew lunch")
	b.fits("later meals on a phone")
	b.press("Delete Lamb for the juniors")
	b.until(`!document.querySelector(".meal-lines").innerText.includes("juniors")`)
	b.press("Put it back")
	b.see("Lamb for the juniors")
}

// Two files of temperatures that are as long as each other are two files: what is shown, and taken,
// is what was chosen last.
func TestASecondFileOfReadings(t *testing.T) {
	b := start(t, apptest.Logbook)
	b.open("/cooks/{committee}/after")
	b.see("Readings from a file")
	id := b.cook("committee").ID
	before, err := b.app.Store.Readings(t.Context(), id, 0, 0)
	require.NoError(t, err)
	day := apptest.Now.AddDate(0, 0, -9).Format(time.DateOnly)
	for _, c := range []string{"51.5", "62.5"} {
		file := filepath.Join(t.TempDir(), c+".csv")
		require.NoError(
			t,
			os.WriteFile(file, fmt.Appendf(nil, "time,core\n%[1]s 09:00,%[2]s\n%[1]s 09:05,%[2]s\n", day, c), 0o600),
		)
		b.upload(`.foreign input[type=file]`, file)
		b.until(
			`document.querySelector(".foreign")?.innerText.includes("It begins:") && document.querySelector(".foreign").innerText.includes("` + c + `")`,
		)
	}
	assert.NotContains(t, js[string](b, `document.querySelector(".foreign").innerText`), "51.5")
	b.press("Take these readings")
	b.see("2 readings are on record from this file")
	read, err := b.app.Store.Readings(t.Context(), id, 0, 0)
	require.NoError(t, err)
	require.Len(t, read, len(before)+2)
	assert.EqualValues(t, 62.5, read[len(before)].C)
}
