//go:build screenshots

package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// TestScreenshots draws the pictures of docs/screenshots from the demo data. It
// does so only for make screenshots, which says where they go.
func TestScreenshots(t *testing.T) {
	dir := os.Getenv("VERJUICE_SCREENSHOTS")
	require.NotEmpty(t, dir)
	b := start(t, true)
	for _, s := range []struct {
		name, path, mode string
		width, height    int64
		see, press       string
	}{
		{"cooks", "/", "day", 1280, 800, "Launch day", ""},
		{"occasion", "/cooks/{supper}/occasion", "day", 1280, 800, "enough for 51", ""},
		{"piece", "/cooks/{supper}/piece/1", "day", 1280, 800, "at its thickest", ""},
		{"season", "/cooks/{supper}/season/1", "day", 1280, 800, "on the meat; mix", ""},
		{"where-from", "/cooks/{supper}/season/1", "day", 1280, 800, "on the meat; mix", "Salt in the meat:"},
		{"brine", "/cooks/{supper}/brine/4", "day", 1280, 800, "in the meat when it comes out", ""},
		{"injection", "/cooks/{supper}/brine/2", "day", 1280, 800, "at each of", ""},
		{"forecast", "/cooks/{supper}/forecast/2", "day", 1280, 800, "What would narrow this", ""},
		{"weigh-out-phone", "/cooks/{supper}/weigh/1", "night", 390, 844, "on the scale", "+20 g"},
		{"bench", "/bench", "day", 1280, 800, "Regatta lamb rub", ""},
		{"formula", "/bench/{Regatta}", "day", 1280, 800, "Versions", ""},
		{"compare", "/compare", "day", 1280, 800, "salt in the meat", ""},
		{"jars", "/jars", "day", 1280, 800, "Past its use-by", ""},
		{"moves", "/cooks/{supper}/moves/1", "day", 1280, 800, "Off the fire", ""},
		{"wait", "/cooks/{supper}/wait/1", "day", 1280, 800, ": at the fire", ""},
		{"fire", "/cooks/{supper}/fire/2", "day", 1280, 800, "Wrap", ""},
		{"plan", "/cooks/{supper}/plan", "day", 1280, 800, "What to do when", ""},
		{"card", "/cooks/{supper}/card", "day", 1280, 800, "Guidance for home cooks", ""},
		{"plan-phone-night", "/cooks/{supper}/plan", "night", 390, 844, "What to do when", ""},
	} {
		b.do(chromedp.EmulateViewport(s.width, s.height))
		b.open("/")
		b.do(chromedp.Evaluate[chromedp.Void](`localStorage.setItem("verjuice.prefs", JSON.stringify({ mode: ` + quote(s.mode) + ` }))`))
		b.open(s.path)
		b.see(s.see)
		if s.press != "" {
			b.press(s.press)
			if s.name == "where-from" {
				b.see("Source:")
			} else {
				b.until(`document.querySelector(".weigh-live")?.innerText.startsWith("20.0")`)
			}
			b.until(`document.getAnimations().length === 0`)
		}
		b.until(`document.fonts.status === "loaded"`)
		png, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(dir, s.name+".png"), png, 0o644))
	}
}
