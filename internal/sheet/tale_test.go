package sheet_test

import (
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/retelling"
	"verjuice/internal/sheet"
)

// toldCook is a cook that could be told, in order: what was done to a piece at odd minutes, over up to two days.
func toldCook(r *rand.Rand, on time.Time) []retelling.Act {
	at := on
	later := func(most int) time.Time {
		at = at.Add(time.Duration(1+r.IntN(most)) * time.Minute)
		return at
	}
	var out []retelling.Act
	add := func(a retelling.Act) { out = append(out, a) }
	pick := func(of ...string) string { return of[r.IntN(len(of))] }
	core := 10.0
	read := func(a retelling.Act) retelling.Act {
		if r.IntN(2) == 0 {
			core = min(98, core+float64(1+r.IntN(12)))
			a.CoreC = core
			if r.IntN(3) == 0 {
				a.Place = pick("flat", "point", "thick end", "thigh", "breast")
			}
		}
		return a
	}
	for range r.IntN(6) {
		a := retelling.Act{What: pick("spritz", "baste", "glaze", "dust", "turn", "move", "look", "wood", "fuel",
			"read", "seen", "felt", "set"),
			At: later(150)}
		switch a.What {
		case "spritz", "baste":
			if r.IntN(2) == 0 {
				a.Every = time.Duration(15*(1+r.IntN(6))) * time.Minute
				a.Until = a.At.Add(a.Every * time.Duration(1+r.IntN(4)))
				at = a.Until
			}
		case "read":
			core = min(98, core+float64(1+r.IntN(12)))
			a.CoreC = core
		case "seen":
			a.Kind = pick("bark holds", "colour right", "bones show")
		case "felt":
			a.Kind = pick("soft", "firm", "tough", "nearly")
		case "set":
			a.SetC = float64(100 + 5*r.IntN(12))
		default:
			if r.IntN(3) == 0 {
				a.Slack = time.Duration(5*(1+r.IntN(6))) * time.Minute
			}
		}
		add(a)
	}
	if r.IntN(4) > 0 {
		add(read(retelling.Act{What: "wrap", At: later(200), Kind: pick("foil", "paper", "pan", "boat", "leaves",
			"brown-paper", "")}))
		if r.IntN(4) == 0 {
			add(retelling.Act{What: "unwrap", At: later(200), Kind: pick("", "opened", "vented")})
		}
	}
	if r.IntN(6) == 0 {
		add(retelling.Act{What: "out", At: later(100)})
		add(retelling.Act{What: "light", At: later(60)})
	}
	if r.IntN(4) == 0 {
		add(read(retelling.Act{What: "off", At: later(300), Which: pick("first", "second", "third", "other", "both", "all")}))
		add(retelling.Act{What: "off", At: later(60), Which: "last"})
		return out
	}
	add(read(retelling.Act{What: "off", At: later(300)}))
	if r.IntN(2) == 0 {
		rest := retelling.Act{What: "rest", At: at, Kind: pick("cooler", "oven", "counter", "board", "tray",
			"holder", "pit", "")}
		if r.IntN(2) == 0 {
			rest.Until = later(240)
		}
		add(rest)
	}
	add(retelling.Act{What: "slice", At: later(300), Kind: pick("sliced", "pulled", "chopped", "cubed", "burnt-ends", "")})
	return out
}

// What the program writes of a told cook is read back as the same acts.
func TestWhatIsWrittenOfAToldCookReadsTheSame(t *testing.T) {
	packer, _ := cut.Find("beef-brisket-packer")
	r := rand.New(rand.NewPCG(7, 11))
	for n := range 300 {
		on := time.Date(2026, 10, 3, r.IntN(24), r.IntN(60), 0, 0, time.UTC)
		want := toldCook(r, on)
		written := func(acts []retelling.Act, as sheet.Reader) string {
			var lines []string
			for _, a := range sheet.WriteTold(retelling.Told{Acts: acts}, nil, as).Acts {
				lines = append(lines, a.Time+" "+a.Label)
			}
			return strings.Join(lines, "\n")
		}
		for _, as := range []sheet.Reader{{Units: "metric"}, {Units: "us"}} {
			text := written(want, as)
			got := retelling.Read(text, retelling.Scene{On: on, Cut: packer})
			require.Empty(t, got.Asks, "%d: %s", n, text)
			require.Empty(t, got.Notes, "%d: %s", n, text)
			require.Equal(t, text, written(got.Acts, as), n)
		}
		got := retelling.Read(written(want, sheet.Reader{}), retelling.Scene{On: on, Cut: packer})
		for i := range got.Acts {
			got.Acts[i].From = [2]int{}
		}
		assert.Equal(t, want, got.Acts)
	}
}
