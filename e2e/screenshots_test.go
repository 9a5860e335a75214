//go:build screenshots

package e2e

import (
	"math"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
)

// TestScreenshots draws the pictures of docs/screenshots from the demo data. It
// does so only for make screenshots, which says where they go.
func TestScreenshots(t *testing.T) {
	dir := os.Getenv("VERJUICE_SCREENSHOTS")
	require.NotEmpty(t, dir)
	b := start(t, apptest.Logbook)
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
		{"forecast", "/cooks/{supper}/forecast/2", "day", 1280, 800, "What would narrow this", ""},
		{"weigh-out-phone", "/cooks/{supper}/weigh/1", "night", 390, 844, "Connect a scale", ""},
		{"bench", "/bench", "day", 1280, 800, "Regatta lamb rub", ""},
		{"moves", "/cooks/{supper}/moves/1", "day", 1280, 800, "Off the fire", ""},
		{"wait", "/cooks/{supper}/wait/1", "day", 1280, 800, ": at the fire", ""},
		{"fire", "/cooks/{supper}/fire/2", "day", 1280, 800, "Wrap", ""},
		{"plan", "/cooks/{supper}/plan", "day", 1280, 800, "What to do when", ""},
		{"card", "/cooks/{supper}/card", "day", 1280, 800, "Guidance for home cooks", ""},
		{"after", "/cooks/{committee}/after", "day", 1280, 800, "as it was read", ""},
		{"log", "/log", "day", 1280, 800, "Trends", ""},
		{"meal", "/meals/{Crew lunch}", "day", 1280, 800, "First in at", ""},
		{"log-compare", "/log/compare?cooks={committee},{unwrapped}", "day", 1280, 800, "What came out", ""},
		{"pit", "/cooks/{supper}/pit", "night", 1280, 800, "in the last hour", ""},
		{"pit-phone", "/cooks/{supper}/pit", "night", 390, 844, "in the last hour", ""},
	} {
		if s.name == "pit" {
			b.intoTheStall("supper")
		}
		b.do(chromedp.EmulateViewport(s.width, s.height))
		b.open("/")
		b.do(
			chromedp.Evaluate[chromedp.Void](
				`localStorage.setItem("verjuice.prefs", JSON.stringify({ mode: ` + quote(s.mode) + ` }))`,
			),
		)
		b.open(s.path)
		b.see(s.see)
		if s.press != "" {
			b.press(s.press)
			b.see("Source:")
			b.until(`document.getAnimations().length === 0`)
		}
		b.until(`document.fonts.status === "loaded"`)
		png, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(dir, s.name+".png"), png, 0o644))
	}
}

// intoTheStall is the chuck roll of a cook on its pit since the evening, seven hours in.
func (b *browser) intoTheStall(name string) {
	b.t.Helper()
	rec := b.cook(name)
	zone, err := time.LoadLocation(rec.Doc.Zone)
	require.NoError(b.t, err)
	serve, err := time.ParseInLocation("2006-01-02T15:04", rec.Doc.ServeAt, zone)
	require.NoError(b.t, err)
	on := serve.Add(-20 * time.Hour)
	say := func(kind facts.Kind, what, piece string, h float64, values map[string]any) {
		f := facts.Fact{
			ID:     uuid.NewString(),
			Kind:   kind,
			What:   what,
			Piece:  piece,
			At:     on.Add(time.Duration(h * float64(time.Hour))).Format(time.RFC3339),
			Values: values,
			Author: "Odhran",
		}
		require.NoError(b.t, b.app.Store.AddFact(b.t.Context(), rec.ID, f))
	}
	for _, p := range rec.Doc.Pieces {
		say(facts.Done, "salt", p.Key, -8, nil)
		if p.Bath != nil {
			say(facts.Done, "bath", p.Key, -12, nil)
		}
	}
	roll := rec.Doc.Pieces[1].Key
	say(facts.Done, "fire", roll, 0, nil)
	say(facts.Done, "look", roll, 4, nil)
	say(facts.Seen, "surface", roll, 4, map[string]any{"how": "set"})
	say(facts.Seen, "colour", roll, 6.7, map[string]any{"how": "red-brown"})
	var read []facts.Reading
	for h := 0.1; h < 7; h += 0.1 {
		at := on.Add(time.Duration(h * float64(time.Hour)))
		read = append(
			read,
			facts.Reading{Probe: "core:" + roll, At: at, C: quantity.Celsius(4 + 65*(1-math.Exp(-math.Pow(h/2.7, 1.5))))},
			facts.Reading{Probe: "pit:0", At: at, C: quantity.Celsius(115 + 2*math.Sin(3*h))},
		)
	}
	require.NoError(b.t, b.app.Store.HandIn(b.t.Context(), rec.ID, facts.HandIn{ID: uuid.NewString()}, read))
	b.app.Clock.Store(int64(on.Add(7 * time.Hour).Sub(apptest.Now)))
}
