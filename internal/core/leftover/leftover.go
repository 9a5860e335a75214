// Package leftover is what is left of a cook: until when it has to be cool and cold, how long it
// keeps, and how long it takes to warm again.
//
//	l := leftover.Of(sliced, chilled, cold)
//	l.Cool          // at or under 21 °C by then
//	leftover.Reheat(0.04, 4, 150)   // a covered tray 4 cm deep: 50 min
package leftover

import (
	"math"
	"time"
)

// Limits of public guidance: hot food is at 21 °C / 70 °F within two hours and at 5 °C / 41 °F within
// four more (FDA Food Code 3-501.14); it is in the cold within two hours and keeps three to four days
// (USDA FSIS); it is warmed to 74 °C / 165 °F.
const (
	coolWithin = 2 * time.Hour
	coldWithin = 6 * time.Hour
	outAtMost  = 2 * time.Hour
	keepsDays  = 4
	WarmC      = 74.0
	CoolC      = 21.0
	ColdC      = 5.0
)

// Left is what is left of a cook.
type Left struct {
	Out     time.Time // into trays and to the cold by then
	Cool    time.Time // at 21 °C by then
	Cold    time.Time // at 5 °C by then
	UseBy   time.Time // the last day
	Chilled time.Time // it was put to cool; zero when nothing says so
	Reached time.Time // it was cold; zero when nothing says so
	Late    bool      // it was put to cool, or was cold, too late: it is thrown away
}

// Of is what is left of a piece that was sliced, put to cool and cold at these times; the last two
// are zero while nothing says so.
func Of(sliced, chilled, cold time.Time) Left {
	out := Left{Out: sliced.Add(outAtMost), Chilled: chilled, Reached: cold, UseBy: sliced.AddDate(0, 0, keepsDays)}
	from := sliced.Add(outAtMost)
	if !chilled.IsZero() {
		from = chilled
		out.Late = chilled.After(out.Out)
	}
	out.Cool, out.Cold = from.Add(coolWithin), from.Add(coldWithin)
	out.Late = out.Late || !cold.IsZero() && cold.After(out.Cold)
	return out
}

// What cooked meat in its juice is, about: W/mK and m²/s (Choi and Okos 1986), and what an oven gives a
// covered tray, W/m²K: field judgement.
const conducts, diffuses, gives = 0.45, 1.3e-7, 25.0

// Reheat is how long a covered tray takes from one temperature to WarmC in the middle of it, in an
// oven, °C; deep is in m. It is conduction into a slab from both faces, by the first term of its
// series (Incropera, Fundamentals of Heat and Mass Transfer, eq. 5.43): good to 1 % where it takes
// longer than 0.2 of a²/α. An oven that is not hotter than WarmC never gets there: it is an hour for
// each centimetre then.
func Reheat(deep, fromC, ovenC float64) time.Duration {
	half := deep / 2
	if ovenC <= WarmC+5 || deep <= 0 {
		return time.Duration(100 * deep * float64(time.Hour))
	}
	zeta := root(gives * half / conducts)
	first := 4 * math.Sin(zeta) / (2*zeta + math.Sin(2*zeta))
	left := (WarmC - ovenC) / (fromC - ovenC)
	fo := math.Max(0, math.Log(first/left)/(zeta*zeta))
	return time.Duration(fo * half * half / diffuses * float64(time.Second))
}

// root is the first root of ζ tan ζ = Bi.
func root(bi float64) float64 {
	low, high := 0.0, math.Pi/2
	for range 60 {
		mid := (low + high) / 2
		if mid*math.Tan(mid) < bi {
			low = mid
		} else {
			high = mid
		}
	}
	return (low + high) / 2
}
