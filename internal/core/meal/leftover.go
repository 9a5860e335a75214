package meal

import "time"

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

// Left is what is left of a cook: until when it has to be cool and cold, and how long it keeps.
type Left struct {
	Out     time.Time // into trays and to the cold by then
	Cool    time.Time // at 21 °C by then
	Cold    time.Time // at 5 °C by then
	UseBy   time.Time // the last day
	Chilled time.Time // it was put to cool; zero when nothing says so
	Reached time.Time // it was cold; zero when nothing says so
	Late    bool      // it was put to cool, or was cold, too late: it is thrown away
}

// LeftOf is what is left of a piece that was sliced, put to cool and cold at these times; the last two
// are zero while nothing says so.
func LeftOf(sliced, chilled, cold time.Time) Left {
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
