// Package e2e drives the real interface: real server, real database, a real
// browser, as a cook would.
package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"net/url"
	"os"
	"os/exec"
	"regexp"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/log"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
	"verjuice/internal/core/cook"
	"verjuice/internal/store"
	"verjuice/internal/testdb"
)

func TestMain(m *testing.M) {
	code := testdb.Run(m)
	closeChromium()
	os.Exit(code)
}

// browser is one tab on a running application.
type browser struct {
	t   *testing.T
	ctx context.Context
	app apptest.App
	// touch presses with a finger instead of the mouse.
	touch bool
	mu    sync.Mutex
	bad   []string // console errors, refused requests, requests to elsewhere
}

// closeChromium ends the browser of the run, where one was started.
var closeChromium = func() {}

// chromium is the browser of the run: each journey has a context of its own in it, with its own
// cookies, storage and workers.
var chromium = sync.OnceValues(func() (context.Context, error) {
	options := append(
		chromedp.DefaultExecAllocatorOptions[:],
		chromedp.NoSandbox,
		chromedp.DisableGPU,
		chromedp.WindowSize(1280, 800),
		chromedp.Flag(
			"disable-quic",
			true,
		),
		chromedp.Flag("lang", "en-GB"),
		chromedp.Flag("accept-lang", "en-GB"),
		chromedp.Env("TZ=Europe/Dublin", "LANGUAGE=en_GB"),
		chromedp.Flag("force-prefers-reduced-motion", true),
		chromedp.Flag("hide-scrollbars", true),
	)
	if shell, err := exec.LookPath("chromium-headless-shell"); err == nil { // without windows that nobody sees
		options = append(options, chromedp.ExecPath(shell))
	}
	alloc, cancelAlloc := chromedp.NewExecAllocator(context.Background(), options...)
	ctx, cancel := chromedp.NewContext(alloc)
	closeChromium = func() {
		cancel()
		cancelAlloc()
	}
	return ctx, chromedp.Do(ctx)
})

// start opens a browser on a fresh application that holds that.
func start(t *testing.T, holds apptest.Holding) *browser {
	t.Helper()
	t.Parallel()
	return visit(t, apptest.Start(t, holds))
}

// visit opens a browser on a running application.
func visit(t *testing.T, app apptest.App) *browser {
	t.Helper()
	whole, err := chromium()
	require.NoError(t, err)
	ctx, cancel := chromedp.NewContext(whole, chromedp.WithNewBrowserContext())
	t.Cleanup(cancel)
	b := &browser{t: t, ctx: ctx, app: app}
	b.begin()
	return b
}

// tab is another tab of the same browser, in a window of its own: one behind another draws nothing.
func (b *browser) tab(t *testing.T) *browser {
	ctx, cancel := chromedp.NewContext(b.ctx, chromedp.WithNewWindow(true))
	t.Cleanup(cancel)
	out := &browser{t: t, ctx: ctx, app: b.app}
	out.begin()
	return out
}

// begin has a tab watched, and its clock wrong.
func (b *browser) begin() {
	b.t.Helper()
	b.watch()
	b.do(
		command(page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: wrongClock}),
		command(emulation.SetFocusEmulationEnabled, emulation.SetFocusEmulationEnabledParams{Enabled: true}),
	)
}

// wrongClock has the browser begin at a written moment, 400 days before the tests' own: pages take
// today and now from the server, and the machine's clock plays no part.
const wrongClock = `(() => {
	const began = Date.UTC(2025, 9, 19, 9, 41), Right = Date;
	globalThis.Date = class extends Right {
		constructor(...args) { args.length ? super(...args) : super(began + performance.now()); }
		static now() { return began + performance.now(); }
	};
})()`

// watch collects what a page must not do: errors, refused styles or scripts, and
// requests that leave the machine.
func (b *browser) watch() {
	own, _ := url.Parse(b.app.URL)
	note := func(format string, args ...any) {
		b.mu.Lock()
		defer b.mu.Unlock()
		b.bad = append(b.bad, fmt.Sprintf(format, args...))
	}
	err := chromedp.Listen(b.ctx, func(ev any) {
		switch e := ev.(type) {
		case *network.EventRequestWillBeSent:
			to, err := url.Parse(e.Request.URL)
			if err == nil && to.Host != "" && to.Host != own.Host {
				note("a request to %s", e.Request.URL)
			}
		case *runtime.EventExceptionThrown:
			note("exception: %s %v", e.ExceptionDetails.Text, e.ExceptionDetails.Exception)
		case *log.EventEntryAdded:
			// Refusals of the content security policy are told here; so are
			// answers of the API that are no success, which tests ask for.
			if e.Entry.Level == log.EntryLevelError && e.Entry.Source != log.EntrySourceNetwork {
				note("log: %s at %s", e.Entry.Text, e.Entry.URL)
			}
		}
	})
	require.NoError(b.t, err)
	b.t.Cleanup(func() {
		b.mu.Lock()
		defer b.mu.Unlock()
		assert.Empty(b.t, b.bad, "what the pages did besides")
	})
}

func (b *browser) do(actions ...chromedp.Action[chromedp.Void]) {
	b.t.Helper()
	if err := chromedp.Do(b.ctx, actions...); err != nil {
		b.fail(err)
	}
}

// fail ends the test with what was on the screen.
func (b *browser) fail(err error) {
	b.t.Helper()
	ctx, cancel := context.WithTimeout(context.WithoutCancel(b.ctx), 5*time.Second)
	defer cancel()
	text, _ := chromedp.Run(ctx, chromedp.Evaluate[string](`location.pathname + "\n" + document.body.innerText`))
	png, _ := chromedp.Run(ctx, chromedp.CaptureScreenshot())
	if dir := os.Getenv("VERJUICE_E2E_FAILURES"); dir != "" {
		_ = os.WriteFile(dir+"/"+strings.ReplaceAll(b.t.Name(), "/", "-")+".png", png, 0o644)
	}
	b.t.Fatalf("%v\n--- on the screen:\n%s", err, text)
}

// until waits until the JavaScript expression holds: it is asked again whenever anything of the page
// has changed.
func (b *browser) until(js string) {
	b.t.Helper()
	ctx, cancel := context.WithTimeout(b.ctx, 40*time.Second)
	defer cancel()
	for {
		ok, err := chromedp.Run(ctx, chromedp.Evaluate[bool](fmt.Sprintf(holds, js), chromedp.EvalAwaitPromise))
		if ok {
			return
		}
		if ctx.Err() != nil { // else the page has gone meanwhile, and it is asked of the next one
			b.fail(fmt.Errorf("waiting for %s: %w", js, err))
		}
	}
}

// holds is a promise that is kept once an expression holds. Nearly all that is waited for changes the
// document; what changes without it (a field's value, what the browser stores) is looked for ten
// times a second.
const holds = `new Promise((done) => {
	const holds = () => { try { return Boolean(%s); } catch { return false; } };
	if (holds()) return done(true);
	let asked = false;
	const again = () => {
		asked = false;
		if (!holds()) return;
		seen.disconnect();
		clearInterval(beat);
		done(true);
	};
	const ask = () => { if (!asked) { asked = true; requestAnimationFrame(again); } };
	const seen = new MutationObserver(ask);
	seen.observe(document, { subtree: true, childList: true, attributes: true, characterData: true });
	const beat = setInterval(again, 100);
	(globalThis.waited ??= []).push(done);
})`

func quote(s string) string {
	raw, _ := json.Marshal(s)
	return string(raw)
}

// see waits until one of the texts stands somewhere on the page.
func (b *browser) see(texts ...string) {
	b.t.Helper()
	raw, _ := json.Marshal(texts)
	b.until(fmt.Sprintf(`%s.some((text) => document.body.innerText.includes(text))`, raw))
}

// saved waits until what is on the screen is on record.
func (b *browser) saved() {
	b.t.Helper()
	b.until(`document.querySelector("[data-standing]")?.dataset.standing === "saved"`)
}

// cook is the one whose name has this in it, as it is on record.
func (b *browser) cook(name string) store.Record[cook.Cook] {
	b.t.Helper()
	list, _, err := b.app.Store.Cooks().List(b.t.Context(), store.Query{Search: name})
	require.NoError(b.t, err)
	require.NotEmpty(b.t, list, name)
	return list[0]
}

// address puts ids into a path that names records: {supper} is the cook or formula whose
// name has this in it.
func (b *browser) address(path string) string {
	b.t.Helper()
	path = regexp.MustCompile(`([=,])\{(.*?)\}`).ReplaceAllStringFunc(path, func(part string) string {
		return part[:1] + b.cook(part[2:len(part)-1]).ID
	})
	return regexp.MustCompile(`/(cooks|bench|meals)/\{(.*?)\}`).ReplaceAllStringFunc(path, func(part string) string {
		kind, name, _ := strings.Cut(strings.TrimSuffix(part, "}"), "/{")
		if kind == "/cooks" {
			return kind + "/" + b.cook(name).ID
		}
		if kind == "/meals" {
			list, _, err := b.app.Store.Meals().List(b.t.Context(), store.Query{Search: name})
			require.NoError(b.t, err)
			require.NotEmpty(b.t, list, name)
			return kind + "/" + list[0].ID
		}
		list, _, err := b.app.Store.Formulas().List(b.t.Context(), store.Query{Search: name})
		require.NoError(b.t, err)
		require.NotEmpty(b.t, list, name)
		return kind + "/" + list[0].ID
	})
}

func (b *browser) open(path string) {
	b.t.Helper()
	b.do(chromedp.Navigate(b.app.URL + b.address(path)))
	b.until(`document.querySelector("#main")`)
}

// named is the JavaScript of the visible control with that accessible name.
func named(name string) string {
	return fmt.Sprintf(`(() => {
		const want = %s;
		const all = [...document.querySelectorAll("button, a, summary, input, [role=combobox], [role=slider], label, [role=option], .ant-select-item-option")];
		const shown = (e) => e.getClientRects().length > 0;
		const text = (e) => (e.getAttribute("aria-label") ?? (e.labels?.[0] ?? e).innerText ?? e.textContent).replace(/\s+/g, " ").trim();
		return all.find((e) => shown(e) && text(e) === want) ?? all.find((e) => shown(e) && text(e).startsWith(want));
	})()`, quote(name))
}

// press clicks the control of that name. Where something else has moved under the pointer since it
// was looked for, nothing is clicked, and it is looked for again; so it is where it was drawn anew
// between the press and the release, of which a browser makes no click.
func (b *browser) press(name string) {
	b.t.Helper()
	b.pressOn(named(name))
}

// pressOn presses the control that an expression finds; undefined is none yet.
func (b *browser) pressOn(control string) {
	b.t.Helper()
	for range 20 {
		b.until(control + ` !== undefined`)
		b.pressAt(js[[]float64](b, fmt.Sprintf(aimed, control), chromedp.EvalAwaitPromise))
		again := `globalThis.aim?.missed === true`
		if !b.touch {
			again += ` || globalThis.aim?.clicked === false && ` + control + ` !== undefined`
		}
		if missed, _ := chromedp.Run(b.ctx, chromedp.Evaluate[bool](again)); !missed {
			return
		}
	}
	b.fail(fmt.Errorf("%s does not stand still", control))
}

// aimed is where a control is once it has stopped moving. A press that then falls on something
// else is kept from it.
const aimed = `(async () => {
	const e = %s;
	e.scrollIntoView({ block: "nearest" });
	const where = () => { const r = e.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2]; };
	const frame = () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
	let last = where();
	for (let now; ; last = now) {
		await frame();
		now = where();
		if (String(now) === String(last)) break;
	}
	if (!globalThis.aim) {
		const keep = (event) => {
			const aim = globalThis.aim;
			if (event.type === "pointerdown" || event.type === "pointerup" && !aim.missed) { // it may move in between, too
				const whole = (e) => e?.closest?.("label, button, a, [role=option], .ant-select") ?? e; // a finger may land beside its middle
				const on = (a, b) => whole(a) === whole(b) || a?.contains(b);
				aim.missed = aim.at !== null && aim.at.isConnected && !on(aim.at, event.target);
			}
			if (event.type === "click") aim.clicked = true;
			if (aim.missed) {
				event.stopImmediatePropagation();
				event.preventDefault();
			}
		};
		for (const type of ["pointerdown", "mousedown", "touchstart", "pointerup", "mouseup", "touchend", "click"])
			globalThis.addEventListener(type, keep, { capture: true, passive: false });
	}
	globalThis.aim = { at: document.elementFromPoint(...last), clicked: false };
	return last;
})()`

// pressAt clicks, or touches, a point of the window.
func (b *browser) pressAt(at []float64) {
	b.t.Helper()
	if !b.touch {
		b.do(chromedp.MouseClickXY(at[0], at[1]))
		return
	}
	finger := []*input.TouchPoint{{X: at[0], Y: at[1]}}
	b.do(
		command(input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: "touchStart", TouchPoints: finger}),
		command(
			input.DispatchTouchEvent,
			input.DispatchTouchEventParams{Type: "touchEnd", TouchPoints: []*input.TouchPoint{}},
		),
	)
}

// onPhone gives the page a phone's window and a finger.
func (b *browser) onPhone(width, height int64) {
	b.t.Helper()
	b.touch = true
	b.do(
		chromedp.EmulateViewport(width, height),
		command(emulation.SetTouchEmulationEnabled, emulation.SetTouchEmulationEnabledParams{Enabled: true}),
	)
}

// field is the input under a label.
func field(label string) string {
	return fmt.Sprintf(
		`([...document.querySelectorAll("input")].find((e) => (e.getAttribute("aria-label") ?? e.labels?.[0]?.innerText ?? "").startsWith(%s)))`,
		quote(label),
	)
}

// write replaces what stands in a field, key by key.
func (b *browser) write(label, text string) {
	b.t.Helper()
	b.until(field(label) + ` !== undefined`)
	b.do(chromedp.Evaluate[chromedp.Void](field(label) + `.focus(), ` + field(label) + `.select()`))
	if text == "" {
		b.do(chromedp.KeyEvent(kb.Delete))
		return
	}
	b.do(chromedp.KeyEvent(text))
}

// pick chooses from a list that can be searched.
func (b *browser) pick(label, search string) {
	b.t.Helper()
	b.press(label)
	b.do(chromedp.KeyEvent(search))
	b.until(
		fmt.Sprintf(
			`[...document.querySelectorAll(".ant-select-item-option")].some((e) => e.getClientRects().length > 0 && e.innerText.includes(%s))`,
			quote(search),
		),
	)
	b.do(chromedp.KeyEvent(kb.Enter))
}

// js is the value of a JavaScript expression.
func js[T any](b *browser, expression string, opts ...chromedp.EvaluateOption) T {
	b.t.Helper()
	out, err := chromedp.Run(b.ctx, chromedp.Evaluate[T](expression, opts...))
	if err != nil {
		b.fail(err)
	}
	return out
}

// focus puts the keyboard on the element of a CSS selector.
func (b *browser) focus(selector string) {
	b.t.Helper()
	b.until(`document.querySelector(` + quote(selector) + `)`)
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector(` + quote(selector) + `).focus()`))
}

// percent is the big figure of the salt column.
func (b *browser) percent() string {
	return js[string](b, `document.querySelector(".salt-column .pic-huge")?.textContent ?? ""`)
}

// paste replaces what stands in the page's text area.
func (b *browser) paste(text string) {
	b.t.Helper()
	b.until(`document.querySelector("textarea")`)
	b.do(
		chromedp.Evaluate[chromedp.Void](
			`document.querySelector("textarea").focus(), document.querySelector("textarea").select()`,
		),
	)
	b.do(chromedp.KeyEvent(text))
}

// drag pulls the element of a CSS selector so many pixels sideways.
func (b *browser) drag(selector string, by float64) {
	b.t.Helper()
	b.until(`document.querySelector(` + quote(selector) + `)`)
	at := js[[]float64](
		b,
		`(() => { const r = document.querySelector(`+quote(
			selector,
		)+`).getBoundingClientRect(); return [r.x + Math.min(r.width, 60) / 2, r.y + r.height / 2]; })()`,
	)
	b.do(
		chromedp.MouseEvent(chromedp.MouseMoved, at[0], at[1]),
		chromedp.MouseEvent(chromedp.MousePressed, at[0], at[1], chromedp.ButtonLeft, chromedp.ClickCount(1)),
		chromedp.MouseEvent(chromedp.MouseMoved, at[0]+by/2, at[1], chromedp.ButtonLeft),
		chromedp.MouseEvent(chromedp.MouseMoved, at[0]+by, at[1], chromedp.ButtonLeft),
		chromedp.MouseEvent(chromedp.MouseReleased, at[0]+by, at[1], chromedp.ButtonLeft, chromedp.ClickCount(1)),
	)
}

// upload gives a file to the first file field of a CSS selector.
func (b *browser) upload(selector, path string) {
	b.t.Helper()
	b.do(chromedp.SetUploadFiles(selector, []string{path}))
}

// pdf prints the page as its own style sheet says.
func (b *browser) pdf() []byte {
	b.t.Helper()
	out, err := chromedp.Run(b.ctx, chromedp.PrintToPDF(chromedp.PDFPreferCSSPageSize(), chromedp.PDFPrintBackground()))
	if err != nil {
		b.fail(err)
	}
	return out
}

// command sends a command of the browser's protocol.
func command[P, R any](c cdp.Command[P, R], params P) chromedp.Action[chromedp.Void] {
	return chromedp.Func(func(ctx context.Context, _ *chromedp.Target) error {
		_, err := chromedp.Call(ctx, c, params)
		return err
	})
}
