package sheet

import (
	"math"
	"strings"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// signWords are what is waited for, in words.
var signWords = map[when.Sign]string{
	when.Surface: "when the surface is dry", when.Bark: "when the bark is set", when.Colour: "when the colour is right",
	when.Soft: "when a probe slides in", when.Fat: "when the fat has rendered", when.Bones: "when the bones show",
}

// ofWords are other moves, as a moment names them.
var ofWords = map[string]string{
	"on":     "it goes on",
	"wrap":   "the wrap",
	"unwrap": "it is unwrapped",
	"off":    "it is off",
	"slice":  "slicing",
	"serve":  "serving",
}

func (w writer) condition(c when.Cond) string {
	switch {
	case c.CoreC != 0 && c.OffC != 0:
		return "at " + ends(w.value(c.CoreC-c.OffC, ""), w.value(c.CoreC+c.OffC, ""))
	case c.CoreC != 0:
		return "at " + w.value(c.CoreC, "")
	case c.Sign != "":
		return signWords[c.Sign]
	case c.Clock != "":
		return "at " + c.Clock
	case c.Share == 0.5:
		return "halfway through"
	case c.Share != 0:
		return quantity.Number(math.Round(100*c.Share)) + " % of the way through"
	case c.Of != "" && c.By == 0:
		return "right after " + ofWords[c.Of]
	case c.Of != "" && c.By < 0:
		return span(-c.By, c.Off) + " before " + ofWords[c.Of]
	case c.Of != "":
		return span(c.By, c.Off) + " after " + ofWords[c.Of]
	case c.After > 0:
		return "after " + span(c.After, c.Off)
	}
	return "from the start"
}

// span is a time span, with the range that was said for it.
func span(mid, off time.Duration) string {
	if off == 0 {
		return duration(mid)
	}
	return ends(duration(mid-off), duration(mid+off))
}

// ends is a range by its ends, with its unit once where both have the same: 4–5 h, 74–77 °C, 2 h 30 min–3 h.
func ends(low, high string) string {
	unit := high[strings.LastIndex(high, " ")+1:]
	switch {
	case strings.Count(low, " ") == 1 && strings.HasSuffix(low, " "+unit):
		low = strings.TrimSuffix(low, " "+unit)
	case strings.Count(low, " ") == 2:
		low += " min"
	}
	return low + "–" + high
}

// waited is what is waited for, in words.
func (w writer) waited(m when.When) string {
	first := w.condition(m.First)
	if m.Second.None() {
		return first
	}
	second := w.condition(m.Second)
	if m.Both {
		return first + " and " + second
	}
	return first + " or " + second + ", whichever is first"
}

// every is a rhythm in words, or its one moment.
func (w writer) every(e when.Every) string {
	if e.Each == 0 {
		return w.waited(e.From)
	}
	out := "every " + duration(e.Each)
	switch c := e.From.First; {
	case !e.Begins():
	case e.From.Second.None() && c.CoreC != 0:
		out += " from " + strings.TrimPrefix(w.condition(c), "at ") + " on"
	case e.From.Second.None() && c.Sign != "":
		out += " once " + strings.TrimPrefix(signWords[c.Sign], "when ")
	default:
		out += " " + w.waited(e.From)
	}
	if !e.Until.None() {
		out += ", until " + strings.TrimPrefix(
			strings.TrimPrefix(strings.TrimPrefix(w.waited(e.Until), "right after "), "at "),
			"when ",
		)
	}
	return out
}

// offNote is when a piece is taken off.
func (w writer) offNote(c *cooking.PieceClock) string {
	if plainOff(c) {
		return "core " + w.value(c.Done, "") + w.probed(c, c.Done)
	}
	return w.waited(c.OffAt) + w.probed(c, c.OffAt.Core())
}

// probed is what a probe that is off will show then; empty for one that is right.
func (w writer) probed(c *cooking.PieceClock, core quantity.Celsius) string {
	if c.Probe == 0 || core == 0 {
		return ""
	}
	return " (your probe will show " + w.value(core+c.Probe, "") + ")"
}

// plainOff reports whether a core temperature alone says when a piece is taken off.
func plainOff(c *cooking.PieceClock) bool {
	return c.OffAt.Second.None() && (c.OffAt.First.CoreC > 0 || c.OffAt.None())
}
