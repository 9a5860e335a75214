package caution

import (
	"fmt"
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
)

func thaw(f Facts) (Finding, bool) {
	return Finding{
		ID: "thawing", Severity: Note, Stage: "piece", Authority: "USDA FSIS: thawing in the refrigerator, 24 h for each 2.2 kg (5 lb)",
		What: fmt.Sprintf("Frozen, it takes about %s in the fridge. On the counter its outside is warm long before its middle thaws.", quantity.FormatDuration(f.Thaw)),
		Do:   "Thaw it in the cold, in a tray, below other food.",
	}, f.Frozen
}

func coolPit(f Facts) (Finding, bool) {
	return Finding{
		ID: "pit-cool", Severity: Care, Stage: "fire", Authority: "USDA FSIS, smoking meat: air at 107–149 °C / 225–300 °F",
		What: fmt.Sprintf("A pit at %s is below 107 °C / 225 °F: the meat warms too slowly through the range where germs grow.", both(f.Pit)),
		Do:   "Run it at 107 °C / 225 °F or above until the core has passed 60 °C / 140 °F.",
	}, f.Pit < PitLeast
}

// intact reports whether the inside is as sterile as it grew.
func intact(f Facts) bool { return !f.Injected && f.Cut.Family != cut.Ground }

func slowToWarm(f Facts) (Finding, bool) {
	one := Finding{
		ID: "slow-to-warm", Severity: Care, Stage: "fire", Authority: "the usual smoker’s rule: non-intact meat passes 4–60 °C / 40–140 °F within 4 h; forecast by experience",
		What: fmt.Sprintf("Its inside has been opened, and its core takes about %s to 60 °C / 140 °F; within four hours is the rule.", quantity.FormatDuration(f.WarmsIn.Round(10*time.Minute))),
		Do:   "Run the pit hotter at first, cook smaller pieces, or do not inject it.",
	}
	if f.WarmsIn > warmLimit*5/4 {
		one.Severity = Stop
	}
	return one, !intact(f) && f.WarmsIn > warmLimit
}

func groundDone(f Facts) (Finding, bool) {
	return Finding{
		ID: "ground-done", Severity: Stop, Stage: "fire", Authority: "USDA FSIS: ground meat and links 71 °C / 160 °F",
		What: fmt.Sprintf("Ground meat taken off at %s is not safe: what was outside is inside.", both(f.Done)),
		Do:   "Take it to 71 °C / 160 °F in the middle (74 °C / 165 °F for ground poultry).",
	}, f.Cut.Family == cut.Ground && f.Done < GroundMeat
}

func poultryDone(f Facts) (Finding, bool) {
	one := Finding{
		ID: "poultry-done", Severity: Stop, Stage: "fire", Authority: "USDA FSIS: poultry 74 °C / 165 °F",
		What: fmt.Sprintf("Poultry taken off at %s relies on what it warms after; it has to reach 74 °C / 165 °F in its thickest places.", both(f.Done)),
		Do:   "Log a reading of 74 °C / 165 °F during the rest, in breast and thigh, or put it back.",
	}
	if f.Done >= 70 {
		one.Severity = Care
	}
	return one, f.Cut.Family == cut.Poultry && f.Done < PoultryMeat
}

func wildDone(f Facts) (Finding, bool) {
	wild := strings.HasPrefix(f.Cut.ID, "boar") || strings.HasPrefix(f.Cut.ID, "bear")
	one := Finding{
		ID: "wild", Severity: Care, Stage: "fire", Authority: "CDC, trichinellosis; USDA FSIS: game 71 °C / 160 °F",
		What: "Wild pig and bear can carry trichinella, which freezing does not always kill.",
		Do:   "Cook it to 71 °C / 160 °F and more, everywhere.",
	}
	if f.Done < GroundMeat {
		one.Severity = Stop
	}
	return one, wild
}

func pinkFinish(f Facts) (Finding, bool) {
	muscle := f.Cut.Family != cut.Ground && f.Cut.Family != cut.Poultry
	one := Finding{
		ID: "pink-finish", Severity: Care, Stage: "fire", Authority: "USDA FSIS: whole muscle 63 °C / 145 °F and 3 minutes of rest",
		What: fmt.Sprintf("Taken off at %s it ends below 63 °C / 145 °F. A pink finish is your own choice, for meat whose inside was never opened.", both(f.Done)),
		Do:   "Sear every side, serve at once, and not to children, the old, the pregnant or the ill.",
	}
	if !intact(f) || f.Cut.Species == "pork" {
		one.Severity = Stop
		one.What = fmt.Sprintf("Taken off at %s it ends below 63 °C / 145 °F, and this is no meat for a pink finish: %s.", both(f.Done), whyNot(f))
		one.Do = "Take it to 63 °C / 145 °F and let it rest three minutes."
	}
	return one, muscle && f.Done < WholeMuscle
}

func whyNot(f Facts) string {
	if f.Injected {
		return "the needle has carried what was outside in"
	}
	return "pork is cooked through"
}

func hotHold(f Facts) (Finding, bool) {
	one := Finding{
		ID: "hot-hold", Severity: Note, Stage: "rest", Authority: "FDA Food Code: 57 °C / 135 °F; USDA FSIS, at home: 60 °C / 140 °F",
		What: fmt.Sprintf("It is held for %s: never under 60 °C / 140 °F in that time.", quantity.FormatDuration(f.Hold.Round(5*time.Minute))),
		Do:   "Warm the holder first, leave a probe in, and reheat to 74 °C / 165 °F or serve at once what comes near the floor.",
	}
	if f.Hold > 4*time.Hour && f.Held != "holder" || f.Hold > 90*time.Minute && f.Held == "counter" {
		one.Severity = Care
	}
	return one, f.Hold > time.Hour && !f.Chilled
}

func cooling(f Facts) (Finding, bool) {
	return Finding{
		ID: "cooling", Severity: Care, Stage: "rest", Authority: "FDA Food Code: 57→21 °C in 2 h, then to 5 °C in 4 h more (135→70→41 °F)",
		What: "Cooked ahead, it has to pass quickly from hot to cold, and once more from cold to hot.",
		Do:   "Cut or pull it, spread it in shallow trays with its juice, chill it at once, and reheat it covered to 74 °C / 165 °F.",
	}, f.Chilled
}

func leftovers(f Facts) (Finding, bool) {
	return Finding{
		ID: "leftovers", Severity: Note, Stage: "rest", Authority: "USDA FSIS: leftovers 3–4 days at 4 °C / 40 °F",
		What: "What is left keeps three to four days in the cold.", Do: "Chill it within two hours, in shallow trays; reheat it to 74 °C / 165 °F.",
	}, f.Leftovers
}

func fireAndAir(f Facts) (Finding, bool) {
	what := "Charcoal and wood give carbon monoxide: never indoors, in a garage or a tent. Hot ash stays hot for a day."
	if f.Wrapped {
		what += " A wrap that leaks fat on the fire flares, and its steam burns."
	}
	indoor := f.Burns == "oven" || f.Burns == "gas" || f.Burns == ""
	return Finding{
		ID: "fire-and-air", Severity: Note, Stage: "fire", Authority: "US CPSC and NFPA on grills and charcoal",
		What: what, Do: "Burn only clean, untreated wood, away from walls, with water at hand.",
	}, !indoor
}

func undated(f Facts) (Finding, bool) {
	return Finding{
		ID: "unverified", Severity: Care, Stage: "rest", Authority: "a temperature that was not read is not known",
		What: "It is off the fire and no core temperature is on record: unverified, not safe.",
		Do:   "Read it in the thickest place, and write it down.",
	}, f.Unlogged
}
