package facts

import (
	"time"

	"verjuice/internal/core/quantity"
)

// What looks wrong in readings from elsewhere, by id.
const (
	AheadOfNow = "ahead"     // they are dated ahead of now
	AnotherDay = "other-day" // they begin days from when the first piece went on
	CannotBe   = "cannot-be" // some are set aside
)

// Doubt is something that looks wrong in readings from elsewhere, before they are taken.
type Doubt struct {
	ID         string
	Lit        time.Time        // the first piece went on, when they may begin instead; zero when that is not known
	Count      int              // of those that cannot be
	C          quantity.Celsius // the first of them
	At         time.Time        // when that was
	Fahrenheit bool             // so many cannot be that they may be in another unit
}

// farOff is how far from when the first piece went on readings may begin and be of the same cook.
const farOff = 3 * 24 * time.Hour

// strange is the share of readings that cannot be from which on their unit is asked about.
const strange = 1. / 3

// DoubtsOf says what looks wrong in readings, the earliest first, beside what happened at their cook. Zone is the
// cook's.
func DoubtsOf(read []Reading, happened Facts, zone *time.Location, now time.Time) []Doubt {
	var lit time.Time
	for _, f := range happened.Standing() {
		if at, err := f.Time(zone); err == nil && f.Kind == Done && f.What == "fire" && (lit.IsZero() || at.Before(lit)) {
			lit = at
		}
	}
	var out []Doubt
	switch first, last := read[0].At, read[len(read)-1].At; {
	case last.After(now.Add(ClockSkew)):
		out = append(out, Doubt{ID: AheadOfNow, Lit: lit})
	case !lit.IsZero() && first.Sub(lit).Abs() > farOff:
		out = append(out, Doubt{ID: AnotherDay, Lit: lit})
	}
	course := Course{}
	course.Add(read...)
	_, aside := course.Judged(nil)
	one := Doubt{ID: CannotBe}
	for _, a := range aside {
		one.Count += a.Count
	}
	if one.Count > 0 {
		one.C, one.At, one.Fahrenheit = aside[0].C, aside[0].From, float64(one.Count) > strange*float64(len(read))
		out = append(out, one)
	}
	return out
}
