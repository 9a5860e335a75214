package quantity

import (
	"regexp"
	"strings"
)

// pinches are amounts that nobody measures: mL, and how far they may be off, as a share. Field judgement:
// a pinch is a sixteenth of a teaspoon, and a little is a teaspoon or two.
var pinches = []struct {
	words   *regexp.Regexp
	ml, off float64
}{
	{regexp.MustCompile(`(?i)^(?:just )?(?:a|one|1) (?:small )?pinch(?: of it)?$`), 0.3, 0.5},
	{regexp.MustCompile(`(?i)^(?:a|one) (?:good|big|large|generous) pinch(?: of it)?$|^(?:a )?(?:couple of|two|2|few) pinches$`), 0.7, 0.5},
	{regexp.MustCompile(`(?i)^(?:a|one) (?:dash|shake|smidgen)$`), 0.6, 0.5},
	{regexp.MustCompile(`(?i)^(?:just )?(?:a (?:little|bit)(?: bit)?(?: of it)?|some|a sprinkle|a sprinkling|a dusting|a light (?:dusting|sprinkle|sprinkling))$`), 8, 0.6},
	{regexp.MustCompile(`(?i)^(?:to taste|as needed|as much as (?:is )?needed|not (?:told|measured|much)|no idea|unknown|\?)$`), 10, 0.7},
	{regexp.MustCompile(`(?i)^(?:a|one) (?:good |small )?handful$`), 40, 0.5},
	{regexp.MustCompile(`(?i)^(?:a|one) (?:splash|drizzle|squirt)$`), 15, 0.5},
	{regexp.MustCompile(`(?i)^(?:a|one) (?:good )?glug$`), 30, 0.5},
}

// Unmeasured reads an amount that nobody measures: a pinch, a handful, a little. It is known no better than Off says;
// false for any other text.
func Unmeasured(s string) (Amount, bool) {
	s = strings.TrimSpace(s)
	for _, p := range pinches {
		if p.words.MatchString(s) {
			return Amount{Volume: Volume(p.ml) * Millilitre, Off: p.off}, true
		}
	}
	return Amount{}, false
}
