package testclock

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The written list of days holds all that it says.
func TestDaysHoldWhatTheySay(t *testing.T) {
	var weekdays [7]bool
	var month, year, leap, forward, back, morning, noon, late bool
	for _, typed := range Days {
		at, err := time.Parse(time.RFC3339, typed)
		require.NoError(t, err)
		at = at.In(Place())
		next := at.AddDate(0, 0, 1)
		weekdays[at.Weekday()] = true
		month = month || next.Day() == 1 && next.Month() != time.January
		year = year || next.YearDay() == 1
		leap = leap || at.Month() == time.February && at.Day() == 29
		_, before := at.Zone()
		_, after := at.Add(2 * time.Hour).Zone()
		forward, back = forward || after > before, back || after < before
		clock := at.Format("15:04")
		morning, noon, late = morning ||
			clock > "05:00" && clock < "10:00", noon ||
			clock == "12:00", late ||
			clock == "23:50"
	}
	assert.Equal(t, [7]bool{true, true, true, true, true, true, true}, weekdays)
	assert.Equal(
		t,
		[8]bool{true, true, true, true, true, true, true, true},
		[8]bool{month, year, leap, forward, back, morning, noon, late},
	)
}
