package caution

import (
	"strings"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// Temperatures of public guidance, °C.
const (
	WholeMuscle = quantity.Celsius(63) // and three minutes of rest
	GroundMeat  = quantity.Celsius(71)
	PoultryMeat = quantity.Celsius(74)
	PitLeast    = quantity.Celsius(107)
	HoldFloor   = quantity.Celsius(60)
	warmLimit   = 4 * time.Hour
	five        = 5 * time.Minute
	lingerLimit = 6 * time.Hour // between 10 and 54.4 °C (FSIS cooking guideline 2021, come-up time)
)

func thaw(c Case) (Finding, bool) { return finding("thawing", Note, "piece", "thaw", c.Thaw), c.Frozen }

func coolPit(c Case) (Finding, bool) {
	return finding("pit-cool", Care, "fire", "pit", degree(c.Pit)), c.Pit > 0 && c.Pit < PitLeast
}

// neverDone tells of a pit in which the piece does not get to where it is taken off.
func neverDone(c Case) (Finding, bool) {
	return finding("never-done", Care, "fire", "pit", degree(c.Pit), "core", degree(c.Done)), c.Endless
}

// under reports whether the piece is known to be taken off below a temperature.
func (c Case) under(least quantity.Celsius) bool { return c.Done > 0 && c.Done < least }

// intact reports whether the inside is as sterile as it grew.
func intact(c Case) bool {
	return !c.Injected && (c.Opened == "" || c.Opened == "no") && c.Cut.Family != cut.Ground
}

func slowToWarm(c Case) (Finding, bool) {
	return finding("slow-to-warm", grave(c.Lingers > lingerLimit), "fire", "warms_in", c.WarmsIn.Round(10*time.Minute)),
		!intact(c) && c.WarmsIn > warmLimit
}

func groundDone(c Case) (Finding, bool) {
	return finding("ground-done", Stop, "fire", "core", degree(c.Done)), c.Cut.Family == cut.Ground && c.under(GroundMeat)
}

func poultryDone(c Case) (Finding, bool) {
	return finding("poultry-done", grave(c.Done < 70), "fire", "core", degree(c.Done)),
		c.Cut.Family == cut.Poultry && c.under(PoultryMeat)
}

func wildDone(c Case) (Finding, bool) {
	because := ""
	switch kind, _, _ := strings.Cut(c.Cut.ID, "-"); kind {
	case "boar", "bear":
		because = "trichinella"
	case "rabbit":
		because = "tularemia"
	}
	return finding("wild", grave(c.under(GroundMeat)), "fire", "because", because), because != ""
}

func pinkFinish(c Case) (Finding, bool) {
	muscle := c.Cut.Family != cut.Ground && c.Cut.Family != cut.Poultry
	one := finding("pink-finish", Care, "fire", "core", degree(c.Done))
	switch {
	case !intact(c):
		opened := c.Opened
		if c.Injected {
			opened = "injected"
		}
		one = finding("pink-finish", Stop, "fire", "core", degree(c.Done), "because", opened)
	case c.Cut.Species == "pork":
		one = finding("pink-finish", Stop, "fire", "core", degree(c.Done), "because", "pork")
	}
	return one, muscle && c.under(WholeMuscle)
}

func hotHold(c Case) (Finding, bool) {
	if c.Done > 0 && c.Done < HoldFloor { // it was never as hot as what is held hot
		one := finding("pink-hold", Note, "rest", "hold", c.Hold.Round(5*time.Minute), "core", c.Done)
		if c.Hold > pinkLongest {
			one.Severity = Care
		}
		return one, c.Hold > time.Hour && !c.Chilled
	}
	one := finding("hot-hold", Note, "rest", "hold", c.Hold.Round(5*time.Minute))
	if c.Hold > c.Keeps+five {
		one.Severity = Care
	}
	return one, c.Hold > time.Hour && !c.Chilled
}

func cooling(c Case) (Finding, bool) { return finding("cooling", Care, "rest"), c.Chilled }

func leftovers(c Case) (Finding, bool) { return finding("leftovers", Note, "rest"), c.Leftovers }

func fireAndAir(c Case) (Finding, bool) {
	one := finding("fire-and-air", Note, "fire")
	if c.Wrapped {
		one = finding("fire-and-air", Note, "fire", "wrapped", "yes")
	}
	return one, c.Burns != "oven" && c.Burns != "gas" && c.Burns != ""
}
