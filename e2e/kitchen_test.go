package e2e

import (
	"testing"

	"verjuice/internal/store"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
)

// Prices and jars: what things cost is typed, wrongly first; a batch goes into a
// jar; a cook takes its rub from there, and puts it back.
func TestLarderAndJars(t *testing.T) {
	b := start(t, apptest.Demo)
	b.everyLook(map[string]string{
		"/jars": "Past its use-by", "/larder": "kosher salt", "/guess": "Your guess", "/read": "or paste it here",
	})
	b.open("/larder")
	b.write("Find an ingredient, a cut, fuel or a wrap", "allspice")
	b.write("Price of allspice", "cheap")
	b.write("In stock of allspice", "40 g")
	b.see("give the money and what it buys")
	b.accessible("a price that cannot be read")
	b.write("Price of allspice", "€4.40 for 100 g\r")
	b.until(`!document.body.innerText.includes("give the money")`)

	b.write("Find an ingredient, a cut, fuel or a wrap", "no such thing")
	b.see("Nothing here is called that")
	b.press("New ingredient")
	b.write("What you call it", "Lock salt")
	b.write("Salt, by weight", "80 %")
	b.write("Sugar, by weight", "40 %")
	b.press("Put it in the larder")
	b.see("add up to 120 %")
	b.accessible("an ingredient with a mistake")
	b.write("Sugar, by weight", "4 %")
	b.press("Put it in the larder")
	b.see("80 % salt, 4 % sugar")

	b.open("/bench/fennel-house")
	b.see("it costs")
	b.pick("Add an ingredient", "Lock salt")
	b.see("not counting rosemary, Lock salt", "not counting Lock salt")
	b.press("for the meat")
	b.write("The meat weighs", "4 kg")
	b.write("Salt in the meat", "1 %")
	b.until(`parseFloat(document.querySelector(".formula-totals .ask-huge").innerText) > 60`)

	b.open("/bench/{Regatta}")
	b.press("this much")
	b.write("All of it", "250 g")
	b.until(`document.querySelector(".formula-totals .ask-huge").innerText.startsWith("250")`)
	b.press("Put this batch in a jar")
	b.until(`location.pathname === "/jars" && document.querySelectorAll(".jar-one").length === 4`)

	b.open("/cooks/{supper}/season/1")
	b.see("on the meat; mix")
	b.pick("Formula", "Regatta lamb rub")
	b.saved()
	b.see("A jar of it, made")
	b.press("Take")
	b.see("Taken for this piece")
	b.press("Put it back")
	b.until(`!document.body.innerText.includes("Taken for this piece")`)
}

// A label becomes an ingredient; a recipe from elsewhere is read, asked about and
// put on the bench; a broken file says where.
func TestFromElsewhere(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/label")
	b.write("What you call it", "Blue tin")
	b.write("Sodium of a serving", "410")
	b.write("A serving is", "3 g")
	b.press("Keep it as an ingredient")
	b.see("It is in your larder")

	b.open("/read")
	b.paste(`{"@type":"Recipe",` + "\n" + `"name": }`)
	b.press("Read what is pasted")
	b.see("line 2: this is not JSON")
	b.accessible("a broken file")
	b.paste(
		`{"@type":"Recipe","name":"From a friend","recipeIngredient":["2 tsp Blue tin","1 Tbsp salt","2 tsp smoked paprika","a pinch of starlight"]}`,
	)
	b.press("Read what is pasted")
	b.see("2 lines are not clear")
	b.accessible("lines that are asked")
	b.fits("lines that are asked")
	b.press("Put it on the bench")
	b.see("nothing was saved")
	b.press("kosher salt, dense flake")
	b.see("One line is not clear")
	b.open("/read")
	b.see("One line is not clear") // it is kept while the cook looks elsewhere
	b.press("Leave out this ingredient")
	b.press("Put it on the bench")
	b.until(`/^\/bench\/[0-9a-f-]{36}$/.test(location.pathname)`)
	b.see("From a friend")
	b.see("read from a file")
	list, _, err := b.app.Store.Formulas().List(t.Context(), store.Query{Search: "From a friend"})
	require.NoError(t, err)
	require.Len(t, list, 1)
	require.Len(t, list[0].Doc.Rows, 3)
	own, _, err := b.app.Store.Ingredients().List(t.Context(), store.Query{})
	require.NoError(t, err)
	require.Len(t, own, 2)
	assert.Contains(t, []string{store.OwnID(own[0].ID), store.OwnID(own[1].ID)}, list[0].Doc.Rows[0].Ingredient)
	b.press("Save as table")
}

// Ten rounds of guessing; what cannot be read is not counted.
func TestGuessing(t *testing.T) {
	b := start(t, apptest.Nothing)
	b.open("/guess")
	b.write("Your guess", "a lot")
	b.press("That is my guess")
	b.until(`document.querySelector(".typed-error")`)
	for round := range 10 {
		b.write("Your guess", "20")
		b.press("That is my guess")
		b.see("guessed")
		if round == 0 {
			b.accessible("a guess judged")
		}
		if round < 9 {
			b.press("Next piece")
		}
	}
	b.press("See how it went")
	b.see("points of 100")
	b.do(chromedp.EmulateViewport(390, 844))
	b.fits("the end of a game")
	b.accessible("the end of a game")
	b.press("Ten more")
	b.see("0 of 10")
}

// The bath of juice, the needle kept from the bone, and the injection giving way.
func TestWhateverIsFree(t *testing.T) {
	b := start(t, apptest.Demo)
	b.open("/cooks/{supper}/brine/4")
	b.see("in the meat when it comes out")
	b.press("Juice, beer, sugar or spice in it")
	b.see("of the liquid, plain water")
	b.write("How much", "120 %")
	b.see("more than the liquid")
	b.write("How much", "100 %")
	b.see("it stays near the surface")
	b.accessible("a bath of juice")
	b.saved()
	b.open("/cooks/{supper}/brine/2")
	b.see("72")
	b.press("the edge")
	b.until(`document.querySelectorAll(".needle-out").length > 20`)
	b.saved()
	b.press("Salt and season")
	b.press("the injection")
	b.see("is adjusted")
	assert.Equal(t, "1.10", b.percent())
	b.accessible("the injection gives way")
	b.do(chromedp.EmulateViewport(390, 844))
	b.fits("the injection gives way")
	b.saved()
	rec := b.cook("supper")
	assert.Equal(t, "inject", rec.Doc.Pieces[1].Season.Free)
	assert.Equal(t, []string{"edge"}, rec.Doc.Pieces[1].Inject.Avoid)
}
