package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/formula"
	"verjuice/internal/testclock"

	"verjuice/internal/apptest"
)

// overnight is a shoulder for Saturday on a pellet cabinet, on record.
func (b *browser) overnight() string {
	made, err := b.app.Store.Cooks().Create(b.t.Context(), cook.Cook{
		Name: "Shoulder overnight", ServeAt: testclock.Saturday(), Zone: testclock.Zone, Guests: "12",
		Pits: []cook.Pit{{Name: "Cabinet", Kind: "pellet"}},
		Pieces: []cook.Piece{
			{
				Key:     "a",
				Cut:     "pork-shoulder-bone-in",
				Trimmed: "3.6 kg",
				Season:  cook.Season{Formula: formula.ReadyMade()[0]},
				Wait:    cook.Wait{For: "12 h"},
			},
		},
	})
	require.NoError(b.t, err)
	return made.ID
}

// label is the label of the line of the list that starts so, with what stands beside it.
func moveLine(label string) string {
	return `[...document.querySelectorAll(".move")].find((e) => e.querySelector(".move-label").innerText.startsWith(` + quote(
		label,
	) + `))?.innerText ?? ""`
}

// A cook writes a method for the night: the pit by the clock, spritzes between two moments, a
// wrap at a core or by colour; keeps it, and cooks another piece by it.
func TestAMethodForTheNight(t *testing.T) {
	b := start(t, apptest.Nothing)
	at := "/cooks/" + b.overnight()
	b.everyLook(map[string]string{at + "/moves/1": "Keep this method"})
	b.open(at + "/fire/1")
	b.press("Wrap: ")
	b.press("foil")
	b.saved()
	b.open(at + "/moves/1")
	b.see("Wrap in foil", "Off the fire")
	b.write("Set to", "107 °C from 20:00, 135 °C from 06:00, hot")
	b.see("I can't read “hot”")
	b.until(`document.querySelector(".move-time").innerText !== "–"`) // the plan stays meanwhile
	b.write("Set to", "107 °C from 20:00, 135 °C from 06:00")
	b.press("Change Wrap in foil")
	b.write("When", "71 or colour")
	b.see("71 of which scale?")
	b.press("71 °C")
	b.write("When", "71 °C or colour")
	b.see("at 71 °C or when the colour is right, whichever is first")
	b.press("Done with Wrap in foil")
	b.pick("Add a move", "Spritz")
	b.see("every 45 min once the bark is set, until the wrap")
	b.press("Add what goes on with it")
	b.see("ready stock")
	b.write("How much, all times together", "120 mL")
	b.saved()
	kept := b.cook("Shoulder").Doc
	assert.Equal(t, "107 °C from 20:00, 135 °C from 06:00", kept.Pits[0].Sets)
	assert.Equal(t, "71 °C or colour", kept.Pieces[0].When["wrap"])
	require.Len(t, kept.Pieces[0].Moves, 1)
	assert.Equal(t, "120 mL", kept.Pieces[0].Moves[0].Amount)

	// The plan, the forecast and the card tell of the same.
	b.open(at + "/plan")
	b.see("Spritz Pork shoulder, bone-in with ready stock")
	b.open(at + "/forecast/1")
	b.see("foil")
	b.open(at + "/moves/1")
	b.press("Take out Spritz")
	b.until(moveLine("Spritz") + ` === ""`)
	b.press("Put it back")
	b.until(moveLine("Spritz") + ` !== ""`)
	b.saved()

	// Kept under a name, and put on another piece.
	b.write("Name of the method", "By night")
	b.do(chromedp.KeyEvent(kb.Enter))
	b.until(named("Use a kept method") + ` !== undefined`)
	b.open(at + "/add")
	b.press("chuck roll, for pulling")
	b.see("Chuck roll, for pulling")
	b.saved()
	b.open(at + "/moves/2")
	b.pick("Use a kept method", "By night")
	b.see("Cooked by By night")
	b.see("at 71 °C or when the colour is right")
	b.saved()
	other := b.cook("Shoulder").Doc.Pieces[1]
	assert.Equal(t, "71 °C or colour", other.When["wrap"])
	assert.Len(t, other.Moves, 1)
	assert.NotEqual(t, "a", other.Key)

	// What a stage says has the last word: it is not said in two places.
	b.open(at + "/fire/1")
	b.press("66 °C")
	b.saved()
	assert.Empty(t, b.cook("Shoulder").Doc.Pieces[0].When["wrap"])
	assert.Equal(t, "66", b.cook("Shoulder").Doc.Pieces[0].Choices["wrap-at"])
}

// A move of the cook's own is put somewhere else by keyboard, and by a finger on a phone; what
// is on record as done stays.
func TestAMoveIsMoved(t *testing.T) {
	b := start(t, apptest.Nothing)
	id := b.overnight()
	rec, err := b.app.Store.Cooks().Get(t.Context(), id)
	require.NoError(t, err)
	rec.Doc.Pieces[0].Moves = []cook.Move{{Key: "t", What: "turn", When: "after 3 h"}}
	_, err = b.app.Store.Cooks().Update(t.Context(), id, rec.Version, rec.Doc)
	require.NoError(t, err)
	b.open("/cooks/" + id + "/moves/1")
	b.see("Turn")
	b.focus(`.move-handle`)
	b.do(chromedp.KeyEvent(" "))
	b.until(`document.querySelector(".move-dragged") !== null`)
	b.do(chromedp.KeyEvent(kb.ArrowDown))
	b.see("Turn it after Off the fire")
	b.do(chromedp.KeyEvent(" "))
	b.see("right after it is off")
	b.saved()
	assert.Equal(t, "right after it is off", b.cook("Shoulder").Doc.Pieces[0].Moves[0].When)
	b.press("Put it back")
	b.until(moveLine("Turn") + `.includes("after 3 h")`)
	b.saved()

	b.onPhone(390, 844)
	b.open("/cooks/" + id + "/moves/1")
	b.see("Keep this method")
	b.fits("moves")
	b.press("Take out Turn")
	b.until(moveLine("Turn") + ` === ""`)
	b.saved()
	assert.Empty(t, b.cook("Shoulder").Doc.Pieces[0].Moves)
}

// A shoulder on a kettle that has to be fed in the night is cooked another way, by one press, and
// nobody is woken.
func TestAnAlternativeSavesTheNight(t *testing.T) {
	b := start(t, apptest.Nothing)
	id := b.overnight()
	rec, err := b.app.Store.Cooks().Get(t.Context(), id)
	require.NoError(t, err)
	rec.Doc.Pieces[0].Fire.Pit, rec.Doc.Pits[0].Kind = "120 °C", "kettle"
	rec.Doc.ServeAt = rec.Doc.ServeAt[:len("2006-01-02T")] + "10:30"
	_, err = b.app.Store.Cooks().Update(t.Context(), id, rec.Version, rec.Doc)
	require.NoError(t, err)
	at := "/cooks/" + id
	b.open(at + "/plan")
	b.see("up once in the night")
	b.open(at + "/forecast/1")
	b.press("a hotter pit")
	b.see("Dotted: a hotter pit")
	b.press("Cook it so")
	b.saved()
	assert.Equal(t, "135 °C", b.cook("Shoulder").Doc.Pieces[0].Fire.Pit)
	b.open(at + "/plan")
	b.see("a full night’s sleep")
	b.until(`!document.querySelector(".plan-chosen").innerText.includes("in the night")`)
}

// A piece that is taken out takes along what hangs on it, times that were fixed among it, and
// brings all of it back; a pit that goes leaves its pieces on another one, and its list with it.
func TestNothingIsLeftHanging(t *testing.T) {
	b := start(t, apptest.Demo)
	rec := b.cook("supper")
	before := rec.Doc
	rec.Doc.Wishes = []cook.Wish{
		{Piece: before.Pieces[1].Key, Stage: "fire", At: before.ServeAt[:len("2006-01-02T")] + "05:00"},
	}
	_, err := b.app.Store.Cooks().Update(t.Context(), rec.ID, rec.Version, rec.Doc)
	require.NoError(t, err)
	b.open("/cooks/{supper}/piece/2")
	b.see("Chuck roll")
	b.press("Take this piece off")
	b.saved()
	b.until(`!document.querySelector(".strip")?.innerText.includes("Chuck roll")`)
	less := b.cook("supper").Doc
	require.Len(t, less.Pieces, len(before.Pieces)-1)
	for _, w := range less.Wishes {
		assert.NotEqual(t, before.Pieces[1].Key, w.Piece)
	}
	b.press("Put it back")
	b.saved()
	back := b.cook("supper").Doc
	assert.Equal(t, before.Pieces[1].Key, back.Pieces[1].Key)
	assert.NotEmpty(t, back.Wishes)

	b.open("/cooks/{supper}/plan")
	b.press("Leave out " + before.Pits[0].Name)
	b.until(named("Leave out "+before.Pits[0].Name) + " === undefined")
	b.saved()
	fewer := b.cook("supper").Doc
	require.Len(t, fewer.Pits, len(before.Pits)-1)
	for _, p := range fewer.Pieces {
		assert.Less(t, p.Fire.On, len(fewer.Pits))
	}
	b.until(`!document.querySelector(".rail-wrong")`)
}

// Ribs at noon and a brisket at night from one pit; the brisket's point goes on once more, in cubes: it is planned,
// stands in the calendar, and is pressed at the pit.
func TestTwoMealsFromOnePit(t *testing.T) {
	b := start(t, apptest.Nothing)
	made, err := b.app.Store.Cooks().Create(t.Context(), cook.Cook{
		Name: "Two meals", ServeAt: testclock.Saturday(), Zone: testclock.Zone, Guests: "6",
		Pits: []cook.Pit{{Name: "Cabinet", Kind: "pellet"}},
		Pieces: []cook.Piece{
			{Key: "r", Label: "Ribs", Cut: "pork-spare-ribs", Trimmed: "1.2 kg", Fire: cook.Fire{Pit: "120 °C"}},
			{Key: "b", Label: "Brisket", Cut: "beef-brisket-packer", Trimmed: "4 kg", Fire: cook.Fire{Pit: "120 °C"}},
		},
	})
	require.NoError(t, err)
	at := "/cooks/" + made.ID
	b.open(at + "/piece/1")
	b.see("Served at, if not with the rest")
	b.write("Served at, if not with the rest", "noon")
	b.do(chromedp.KeyEvent(kb.Enter))
	b.until(field("Served at, if not with the rest") + `.value.endsWith("12:00")`)
	b.saved()
	assert.Equal(t, testclock.Saturday()[:10]+"T12:00", b.cook("Two meals").Doc.Pieces[0].ServeAt, "of the same day")
	b.open(at + "/moves/2")
	b.see("Off the fire")
	b.pick("Add a move", "again")
	b.pick("How it goes on", "cubes in a pan")
	b.see("in cubes, in a pan", "once it is cut, until serving; for 1 h 15, pit at 135 °C")
	b.write("How long", "50 min")
	b.see("for 50 min")
	b.saved()
	b.open(at + "/plan")
	b.see("served at 12:00", "and cut cubes for the fire", "Take Brisket off the fire again")
	b.fits("a plan of two meals")

	b.onPhone(390, 844)
	b.open(at + "/pit/b")
	b.see("no reading of the core")
	for h, press := range []string{"On the fire", "Pulled off", "Sliced", "On again", "Off again"} {
		b.app.Clock.Store(int64(time.Duration(h) * time.Hour))
		b.press(press)
		if press == "On again" {
			b.see("just on again", "off again, as planned")
			b.fits("the pit side of what is on again")
		}
	}
	b.see("served")
	for _, what := range []string{"fire", "off", "slice", "again", "again-off"} {
		assert.Equal(t, 1, b.done(made.ID, what), what)
	}
}
