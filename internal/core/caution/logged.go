package caution

import (
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/quantity"
)

// Logged is what is on record of a piece, from when it went on the fire. Temperatures of the core
// are those of its coldest place.
type Logged struct {
	Cut      cut.Cut
	Injected bool
	Opened   string // needled, rolled or stuffed; empty or no when it is whole

	Off    bool // it is off the fire
	Served bool // and sliced
	Read   bool // a core was read at all

	Highest quantity.Celsius // core, until now; on the fire and off it
	Warming time.Duration    // core from 4 to 60 °C, until now
	Lingers time.Duration    // of that, between 10 and 54.4 °C
	Cool    time.Duration    // pit under PitLeast while the core was under 60 °C
	CoolC   quantity.Celsius // what it showed then, in the middle
	Under   time.Duration    // core under HoldFloor while it was held
	Lowest  quantity.Celsius // core while it was held
}

// How long a pit may be cool before it is told: a lid that was open is over sooner. Field judgement.
const coolFor = 20 * time.Minute

// CheckLogged returns the rules that apply to what was read, the gravest first.
func CheckLogged(l Logged) []Finding {
	var found []Finding
	for _, want := range []Severity{Stop, Care} {
		for _, r := range []func(Logged) (Finding, bool){unread, poultryShown, warmedSlowly, ranCool, heldCool} {
			if one, ok := r(l); ok && one.Severity == want {
				found = append(found, one)
			}
		}
	}
	return found
}

func unread(l Logged) (Finding, bool) { return finding("unverified", Care, "rest"), l.Off && !l.Read }

func poultryShown(l Logged) (Finding, bool) {
	return finding("poultry-shown", grave(l.Served), "rest", "core", degree(l.Highest)),
		l.Cut.Family == cut.Poultry && l.Off && l.Read && l.Highest < PoultryMeat
}

func warmedSlowly(l Logged) (Finding, bool) {
	open := !intact(Case{Cut: l.Cut, Injected: l.Injected, Opened: l.Opened})
	return finding("warmed-slowly", grave(l.Lingers > lingerLimit), "fire", "warming", l.Warming.Round(10*time.Minute)),
		open && l.Warming > warmLimit
}

func ranCool(l Logged) (Finding, bool) {
	return finding("ran-cool", Care, "fire", "cool", l.Cool.Round(five), "pit", degree(l.CoolC)), l.Cool > coolFor
}

func heldCool(l Logged) (Finding, bool) {
	return finding(
			"held-cool",
			grave(l.Under > counterLimit),
			"rest",
			"core",
			degree(l.Lowest),
			"under",
			l.Under.Round(five),
		),
		l.Under > 0
}
