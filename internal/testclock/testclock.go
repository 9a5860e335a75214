// Package testclock is the day that tests think it is. It stands still, so that a test says the
// same on any day, at any hour and in any zone of the machine; VERJUICE_TEST_NOW moves it, and
// make test runs what knows dates on each of Days.
//
//	clock := testclock.Now()            // Monday 23 November 2026, noon, or as the environment says
//	serve := testclock.At(5, "18:30")   // five days later, as a cook types it
package testclock

import (
	"os"
	"testing"
	"time"
	_ "time/tzdata" // zones on machines without a zone database
)

// Zone is the place where tests cook.
const Zone = "Europe/Dublin"

// Env names the environment variable that moves the clock of the tests, RFC 3339.
const Env = "VERJUICE_TEST_NOW"

// Days are a written list on which dates are easily got wrong: every weekday, the end of a month
// and of a year, 29 February, both nights in which the clocks change where the tests cook; a
// morning, a noon, and ten minutes before midnight. The first is that of a usual run.
var Days = []string{
	"2026-11-23T12:00:00Z", // Monday
	"2028-02-29T07:30:00Z", // Tuesday
	"2026-09-30T22:50:00Z", // Wednesday
	"2026-12-31T23:50:00Z", // Thursday
	"2027-01-01T07:30:00Z", // Friday
	"2027-03-27T23:50:00Z", // Saturday, 70 minutes before the clocks go forward
	"2026-10-25T00:30:00Z", // Sunday, half an hour before they go back
}

var now = func() time.Time {
	typed := os.Getenv(Env)
	if typed == "" {
		typed = Days[0]
	}
	t, err := time.Parse(time.RFC3339, typed)
	if err != nil {
		panic(Env + ": " + err.Error())
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
	local := now.In(Place())
	days := (int(time.Saturday) - int(local.Weekday()) + 7) % 7
	if days < 2 {
		days += 7
	}
	return local.AddDate(0, 0, days).Format(time.DateOnly) + "T18:30"
}

// Place is the time zone where tests cook.
func Place() *time.Location {
	here, err := time.LoadLocation(Zone)
	if err != nil {
		panic(err)
	}
	return here
}

// Undated ends a test that takes long and asks for no date, where only those that do are run.
func Undated(t testing.TB) {
	t.Helper()
	if testing.Short() {
		t.Skip("asks for no date")
	}
}

// Rounds is how often something random is tried: n times, or a tenth of it where only what knows
// dates is run.
func Rounds(n int) int {
	if testing.Short() {
		return max(1, n/10)
	}
	return n
}

// Within fails a test in which do takes longer than that; it does not wait for it.
func Within(t testing.TB, most time.Duration, do func()) {
	t.Helper()
	alarm := time.AfterFunc(most, func() { t.Errorf("this takes longer than %s", most) })
	defer alarm.Stop()
	do()
}

// Once leaves a test that knows no date to the first of Days.
func Once(t *testing.T) {
	t.Helper()
	if day := os.Getenv(Env); day != "" && day != Days[0] {
		t.Skip("runs on the first day alone")
	}
}
