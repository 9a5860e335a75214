package e2e

import (
	"os"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

func TestZZ(t *testing.T) {
	b := start(t, true)
	for _, one := range strings.Split(os.Getenv("SHOTS"), ",") {
		p := strings.Split(one, "|")
		b.do(chromedp.EmulateViewport(1280, 800))
		if len(p) > 2 && p[2] == "phone" {
			b.do(chromedp.EmulateViewport(390, 844))
		}
		b.open(p[1])
		time.Sleep(1500 * time.Millisecond)
		png, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
		if err != nil {
			t.Fatal(err)
		}
		_ = os.WriteFile("/tmp/shot/"+p[0]+".png", png, 0o644)
	}
}
