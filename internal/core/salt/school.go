package salt

import "time"

// School is how the wait stands to what its style asks for.
type School struct {
	ID  string        // empty when it is as asked; else short, long and the style
	By  time.Duration // so much too short or too long
	Per time.Duration // what the coat needs, of minutes
}

// SurfaceAt is what the cook sees when the fire starts. Beads stand on the meat until
// the coat is taken up; starting the fire among them steams the bark. The id
// is bare, dry, beads, glisten, ready or tacky.
func SurfaceAt(wait, taken time.Duration, load float64, open bool) string {
	switch {
	case load <= 0:
		return "bare"
	case wait < 5*time.Minute:
		return "dry"
	case wait < taken:
		return "beads"
	case wait < 2*taken+30*time.Minute || wait < 3*time.Hour:
		return "glisten"
	case open:
		return "ready"
	}
	return "tacky"
}

// SchoolOf holds the wait against what its style asks for: minutes while the fire
// comes up, a night of 8 to 12 hours, or a day and more.
func SchoolOf(style string, wait, taken time.Duration) School {
	const slack = 20 * time.Minute
	const told = 3 * time.Minute // times are told to five minutes: waiting as told is enough
	const night, nightMost, day = 8 * time.Hour, 16 * time.Hour, 20 * time.Hour
	fives := func(d time.Duration) time.Duration { return d.Round(5 * time.Minute) }
	switch {
	case style == "minutes" && wait < taken-told && wait >= 5*time.Minute:
		return School{"short-minutes", (taken - wait).Round(time.Minute), taken}
	case style == "minutes" && wait > taken+90*time.Minute && wait > 2*time.Hour:
		return School{"long-minutes", wait - taken, taken}
	case style == "day" && wait < day-slack:
		return School{ID: "short-day", By: fives(day - wait)}
	case style == "overnight" && wait < night-slack:
		return School{ID: "short-overnight", By: fives(night - wait)}
	case style == "overnight" && wait > nightMost:
		return School{ID: "long-overnight", By: fives(wait - 12*time.Hour)}
	}
	return School{}
}
