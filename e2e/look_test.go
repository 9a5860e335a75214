package e2e

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// accessible fails on serious violations of the accessibility rules. The empty
// listbox that the library keeps beside an open list for screen readers takes no
// name from us; the field that owns it has one. The columns of hours are scrolled with
// the field's own keys, and the library names the buttons above the days its own way.
func (b *browser) accessible(view string) {
	b.t.Helper()
	b.axe(view, "", "")
}

// opened opens what can be opened on a view, one of each kind after another, and fails on violations in what comes up:
// pickers, days and hours, where a figure is from, the fields of a move, what is folded. It returns which were there.
func (b *browser) opened(view string) []string {
	b.t.Helper()
	kinds := js[[]string](b, `(() => {
		const kinds = {
			picker: ".ant-select:not(.formula-tags)", "where from": ".ask", time: ".pick-open",
			move: "[aria-label^='Change '][aria-expanded=false]", fold: "details:not([open]) > summary",
		};
		document.querySelectorAll("[data-opens]").forEach((e) => e.removeAttribute("data-opens"));
		return Object.entries(kinds).flatMap(([kind, of]) => {
			const e = [...document.querySelectorAll("#main :is(" + of + ")")].find((e) => e.getClientRects().length > 0);
			if (e) e.dataset.opens = kind;
			return e ? [kind] : [];
		});
	})()`)
	for _, kind := range kinds {
		at := fmt.Sprintf(`(document.querySelector("[data-opens='%s']") ?? undefined)`, kind)
		if !js[bool](b, at+` !== undefined`) {
			continue // what was opened before took its place
		}
		b.pressOn(at)
		up := map[string]string{
			"picker": ".ant-select-dropdown", "where from": ".ask-answer", "time": ".pick-popup",
			"move": "#main", "fold": "#main",
		}[kind]
		b.until(`[...document.querySelectorAll(` + quote(up) + `)].some((e) => e.getClientRects().length > 0)`)
		b.axe(view+" with its "+kind+" open", "", up)
		if up != "#main" {
			b.do(chromedp.KeyEvent(kb.Escape))
			b.until(`[...document.querySelectorAll(` + quote(up) + `)].every((e) => e.getClientRects().length === 0 ||
				getComputedStyle(e).pointerEvents === "none" || /leave|hidden/.test(e.className))`)
		}
	}
	return kinds
}

// contrasts fails where letters do not stand out from what is behind them: all that a theme changes.
func (b *browser) contrasts(view string) {
	b.t.Helper()
	b.axe(view, `runOnly: ["color-contrast"], `, "")
}

// axe runs these rules of it on a part of the view; all rules on all of it where none is named.
func (b *browser) axe(view, only, part string) {
	b.t.Helper()
	if !js[bool](b, `"axe" in globalThis`) {
		axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
		require.NoError(b.t, err)
		b.do(chromedp.Evaluate[chromedp.Void](string(axe) + "; 0"))
	}
	include := ""
	if part != "" {
		include = "include: [" + quote(part) + "], "
	}
	found := js[[]string](
		b,
		`axe.run({ `+include+`exclude: ["[role=listbox]", ".ant-picker-time-panel-column", ".ant-picker-header-view"] }, {`+only+`resultTypes: ["violations"]}).then(r => r.violations
		.filter(v => v.impact === "serious" || v.impact === "critical")
		.map(v => v.id + ": " + v.help + " — " + v.nodes.slice(0, 3).map(n => n.html.slice(0, 160) + " " + (n.any[0]?.message ?? "")).join(" | ")))`,
		chromedp.EvalAwaitPromise,
	)
	assert.Empty(b.t, found, "accessibility of %s", view)
}

// fits fails when the page is wider than its window.
func (b *browser) fits(view string) {
	b.t.Helper()
	over := js[float64](b, `document.documentElement.scrollWidth - innerWidth`)
	assert.LessOrEqual(b.t, over, 0.0, "%s is wider than the window", view)
}

// looks are a laptop, a phone upright and on its side, and the smallest phone, which is
// also what a laptop at four times its size of text shows.
var looks = [][2]int64{{1280, 800}, {390, 844}, {844, 390}, {320, 640}}

// everyLook opens views, each in a browser of its own with what is to be seen on it, in every size, and checks that
// they fit, and are accessible on a laptop and a phone, and that letters stand out by night.
func (b *browser) everyLook(views map[string]string) {
	b.t.Helper()
	b.t.Run("looks", func(t *testing.T) { // ends when all of them have been looked at
		for path, sees := range views {
			t.Run(strings.ReplaceAll(path, "/", " "), func(t *testing.T) {
				t.Parallel()
				one := visit(t, b.app)
				one.open(path)
				one.see(sees)
				for n, size := range looks {
					one.do(chromedp.EmulateViewport(size[0], size[1]))
					one.see(sees)
					one.fits(path)
					if size[0] < 1000 {
						one.reachable(path)
					}
					if n < 2 { // a laptop and a phone: the others show the same, wrapped
						one.accessible(fmt.Sprint(path, " at ", size))
						one.opened(fmt.Sprint(path, " at ", size))
					}
				}
				one.press("More")
				one.press("night")
				one.see(sees)
				one.contrasts(path + " by night")
			})
		}
	})
}

// reachable fails when a button or a link that stands alone is too low for a thumb.
func (b *browser) reachable(view string) {
	b.t.Helper()
	small := js[[]string](
		b,
		`[...document.querySelectorAll("#main button, #main a, #main input:not([type=radio], [type=checkbox], [type=file])")]
		.filter((e) => e.getClientRects().length > 0 && e.getBoundingClientRect().height < 43.5 && !e.matches(".skip") && !e.closest("p, svg, label, .ant-select, .ant-input-affix-wrapper, .strip-serve, .read-in"))
		.map((e) => (e.innerText || e.getAttribute("aria-label") || e.outerHTML.slice(0, 80)) + " " + e.getBoundingClientRect().height)`,
	)
	assert.Empty(b.t, small, "too small on %s", view)
}
