// Package testclock is the day that tests think it is. It stands still, so that a
// test says the same on any day; VERJUICE_TEST_NOW moves it, and make test-days
// runs the suite with it on days that are easily got wrong.
//
//	clock := testclock.Now()            // Monday 23 November 2026, noon, or as the environment says
//	serve := testclock.At(5, "18:30")   // five days later, as a cook types it
package testclock

import (
	"os"
	"time"
	_ "time/tzdata" // zones on machines without a zone database
)

// Zone is the place where tests cook.
const Zone = "Europe/Dublin"

var now = func() time.Time {
	typed := os.Getenv("VERJUICE_TEST_NOW")
	if typed == "" {
		return time.Date(2026, 11, 23, 12, 0, 0, 0, time.UTC)
	}
	t, err := time.Parse(time.RFC3339, typed)
	if err != nil {
		panic("VERJUICE_TEST_NOW: " + err.Error())
	}
	return t.UTC()
}()

// Now is the present moment of the tests, in UTC.
func Now() time.Time { return now }

// Day is the date so many days from now, YYYY-MM-DD.
func Day(days int) string { return now.AddDate(0, 0, days).Format(time.DateOnly) }

// At is a time of day so many days from now, as a cook types it: YYYY-MM-DDTHH:MM.
func At(days int, clock string) string { return Day(days) + "T" + clock }

// Saturday is the evening for which a new cook-out is planned: 18:30 on the next
// Saturday that is at least two days away, as it is typed.
func Saturday() string {
	here, err := time.LoadLocation(Zone)
	if err != nil {
		panic(err)
	}
	local := now.In(here)
	days := (int(time.Saturday) - int(local.Weekday()) + 7) % 7
	if days < 2 {
		days += 7
	}
	return local.AddDate(0, 0, days).Format(time.DateOnly) + "T18:30"
}
