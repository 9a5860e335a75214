package retelling_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/core/retelling"
)

var on = time.Date(2026, 10, 3, 7, 0, 0, 0, time.UTC)

func told(text string) (out []string) {
	moves, wrong := retelling.Read(text, on)
	for _, m := range moves {
		line := m.What + " " + m.At.Format("15:04")
		if m.CoreC > 0 {
			line += fmt.Sprintf(" core %.0f", m.CoreC)
		}
		if m.SetC > 0 {
			line += fmt.Sprintf(" to %.0f", m.SetC)
		}
		if m.Kind != "" {
			line += " " + m.Kind
		}
		out = append(out, line)
	}
	for _, e := range wrong {
		out = append(out, e.Pointer+" "+e.ID)
	}
	return out
}

// A cook is told as cooks tell it: by hours, by the clock, in words and in figures, in either scale.
func TestAsCooksTellIt(t *testing.T) {
	for text, want := range map[string][]string{
		"wrapped about four hours in, 165, foil; off at nine hours, 203": {"wrap 11:00 core 74 foil",
			"off 16:00 core 95"},
		"Wrapped in butcher paper at 13:30, 71 °C. Pulled at 6pm, 95C.": {"wrap 13:30 core 71 paper",
			"off 18:00 core 95"},
		"pit up to 275 after 5 h; took it off 2 h later, 96":                 {"set 12:00 to 135", "off 14:00 core 96"},
		"spritzed after 2 hours\nlooked at 3 and a half hours\ndone at 8h30": {"spritz 09:00", "look 10:30", "off 15:30"},
		"stalled at 5 h, 68; off at 10 h; rested 2 hours; sliced at 19:30": {"read 12:00 core 68", "off 17:00",
			"rest 17:00", "slice 19:30"},
		"off at 1:15 am, 93 C":                   {"off 01:15 core 93"},
		"sang a song at noon":                    {"/0 tale.what"},
		"wrapped at some point; off at 9 h, 203": {"off 16:00 core 95", "/0 tale.when"},
		"off at 9 h, 500":                        {"/0 tale.degrees"},
		"off at 99 h":                            {"/0 tale.long"},
		" ; ":                                    {" tale.missing"},
	} {
		assert.Equal(t, want, told(text), text)
	}
}

func FuzzRead(f *testing.F) {
	f.Add("wrapped about four hours in, 165, foil; off at nine hours, 203")
	f.Add("off at 99999999999999999999 h 30 min, 1e9 C")
	f.Fuzz(func(t *testing.T, text string) {
		moves, _ := retelling.Read(text, on)
		for _, m := range moves {
			if m.At.Before(on) || m.At.Sub(on) > retelling.Longest || m.CoreC < 0 || m.CoreC > 110 {
				t.Fatalf("%q: %+v", text, m)
			}
		}
	})
}

func ExampleRead() {
	moves, _ := retelling.Read("off at nine hours, 203", on)
	fmt.Printf("%s %s %.0f °C\n", moves[0].What, moves[0].At.Format("15:04"), moves[0].CoreC)
	// Output: off 16:00 95 °C
}
