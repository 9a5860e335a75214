package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"

	"verjuice/internal/apptest"
)

// hand is how long a person takes who does what the browser does here, by the keystroke-level model
// (Card, Moran and Newell, 1980, Commun. ACM 23, 396): 1.35 s to think, 1.1 s to point, 0.2 s to press,
// 0.4 s from the mouse to the keys and 0.28 s a letter of somebody who does not type for a living.
type hand struct {
	*browser
	took time.Duration
}

func (h *hand) spend(s float64) { h.took += time.Duration(s * float64(time.Second)) }

func (h *hand) press(name string) {
	h.browser.press(name)
	h.spend(1.35 + 1.1 + 0.2)
}

func (h *hand) write(name, text string) {
	h.browser.write(name, text)
	h.spend(1.35 + 1.1 + 0.2 + 0.4 + 0.28*float64(len(text)))
}

// The first weighed rub takes a newcomer less than two minutes from an empty list, with fifteen seconds
// for the eyes on each new page and ten to pour each ingredient.
func TestTheFirstRubIsQuick(t *testing.T) {
	h := &hand{browser: start(t, apptest.Nothing)}
	const read, pour = 15, 10
	h.open("/")
	h.see("What is the occasion?")
	h.spend(read)
	h.press("Weigh out a rub first")
	h.see("Which cut?")
	h.browser.write("Find a cut", "pork shoulder")
	h.spend(1.35 + 0.28*13)
	h.do(chromedp.KeyEvent(kb.Enter))
	h.spend(0.28)
	h.see("Weight as bought")
	h.spend(read)
	h.write("Weight as bought", "3.6 kg")
	h.press("Salt and season")
	h.see("on the meat; mix")
	h.spend(read)
	h.press("Weigh it out")
	many := 0
	for n := 1; ; n++ {
		h.until(
			`document.body.innerText.includes("All weighed") || document.querySelector("#main h2")?.innerText.startsWith("` + fmt.Sprint(
				n,
			) + ` of ")`,
		)
		if js[bool](h.browser, `document.body.innerText.includes("All weighed")`) {
			many = n - 1
			break
		}
		h.write(
			"Or type what it weighs",
			js[string](h.browser, `String(parseFloat(document.querySelector(".weigh-target").innerText))`),
		)
		h.spend(pour)
		h.press("Keep")
	}
	assert.GreaterOrEqual(t, many, 2)
	t.Logf("%d ingredients, %s", many, h.took.Round(time.Second))
	assert.Less(t, h.took, 2*time.Minute)
}
