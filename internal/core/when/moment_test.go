package when_test

import (
	"errors"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/field"
	"verjuice/internal/core/when"
)

// Monday 30 November 2026, 09:41.
var monday = time.Date(2026, 11, 30, 9, 41, 0, 0, time.UTC)

// A day and a time are read in every form that is shown, and as people write them.
func TestMomentsAsPeopleWriteThem(t *testing.T) {
	for typed, want := range map[string]string{
		"Sat 5 Dec 2026, 19:00": "2026-12-05T19:00", "2026-12-05T19:00": "2026-12-05T19:00",
		"2026-12-05 19:00": "2026-12-05T19:00", "Saturday 5 December 19:00": "2026-12-05T19:00",
		"Sat 5 Dec 19:00": "2026-12-05T19:00", "Sat 19:00": "2026-12-05T19:00", "5.12. 19:30": "2026-12-05T19:30",
		"5.12.2026 19.30": "2026-12-05T19:30", "5.12.26, 7:30 pm": "2026-12-05T19:30", "Dec 5, 7pm": "2026-12-05T19:00",
		"December 5th 2026 at 7 p.m.": "2026-12-05T19:00", "5/12 19:00": "2026-12-05T19:00",
		"the 5th of December at noon": "2026-12-05T12:00",
		"tomorrow 7pm":                "2026-12-01T19:00", "tonight at 8:15 pm": "2026-11-30T20:15",
		"today noon":        "2026-11-30T12:00",
		"midnight tomorrow": "2026-12-01T00:00", "yesterday 18:00": "2026-11-29T18:00", "saturday 7pm": "2026-12-05T19:00",
		"monday 9:00": "2026-12-07T09:00", "monday 10:00": "2026-11-30T10:00",
		"next friday 18:00": "2026-12-04T18:00", "last saturday 18:00": "2026-11-28T18:00",
		"19:00": "2026-11-30T19:00", "7 am": "2026-12-01T07:00", "19h": "2026-11-30T19:00", "7h30": "2026-12-01T07:30",
		"in 3 hours": "2026-11-30T12:41", "20 min ago": "2026-11-30T09:21", "now": "2026-11-30T09:41",
		"1 jan 18:00": "2027-01-01T18:00", "28 nov 18:00": "2026-11-28T18:00", "20 may 18:00": "2027-05-20T18:00",
		"29 nov 18:00": "2026-11-29T18:00",
		"29 Feb 12:00": "2028-02-29T12:00", "Tue 29 Feb 12:00": "2028-02-29T12:00",
		"2026-12-05T18:00:00Z": "2026-12-05T18:00",
		"12am 1.12.":           "2026-12-01T00:00", "12 pm 1.12.": "2026-12-01T12:00", "13/12 19:00": "2026-12-13T19:00",
	} {
		at, err := when.ReadMoment(typed, when.Around{Now: monday})
		require.NoError(t, err, typed)
		assert.Equal(t, want, at.Format("2006-01-02T15:04"), typed)
	}
	for typed, want := range map[string]string{
		"sunday 8:00": "2026-11-29T08:00", "monday 8:00": "2026-11-30T08:00", "monday 10:00": "2026-11-23T10:00",
		"22 nov 8:00": "2026-11-22T08:00", "5 dec 8:00": "2025-12-05T08:00", "8:00": "2026-11-30T08:00",
		"22:00": "2026-11-29T22:00", "last friday 8 am": "2026-11-27T08:00",
	} {
		at, err := when.ReadMoment(typed, when.Around{Now: monday, Past: true})
		require.NoError(t, err, typed)
		assert.Equal(t, want, at.Format("2006-01-02T15:04"), "%s, passed", typed)
	}
	was := time.Date(2026, 12, 5, 18, 30, 0, 0, time.UTC)
	for typed, want := range map[string]string{"19:00": "2026-12-05T19:00", "6 dec": "2026-12-06T18:30",
		"tomorrow": "2026-12-01T18:30"} {
		at, err := when.ReadMoment(typed, when.Around{Now: monday, Was: was})
		require.NoError(t, err, typed)
		assert.Equal(t, want, at.Format("2006-01-02T15:04"), "%s, where a time stood", typed)
	}
	at, err := when.ReadMoment("12/5 7:30 pm", when.Around{Now: monday, MonthFirst: true})
	require.NoError(t, err)
	assert.Equal(t, "2026-12-05T19:30", at.Format("2006-01-02T15:04"))
	day, err := when.ReadDay("Fri 27 Nov 2026", when.Around{Now: monday, Past: true})
	require.NoError(t, err)
	assert.Equal(t, "2026-11-27T00:00", day.Format("2006-01-02T15:04"))
}

// What cannot be read says why, and nothing is guessed from a part of it.
func TestDaysThatAreNone(t *testing.T) {
	for typed, id := range map[string]string{
		"soon": "moment.unread", "7": "moment.unread", "saturday": "moment.no-time", "5.12.": "moment.no-time",
		"31.2. 18:00": "moment.no-such-day", "30 Feb 2026 18:00": "moment.no-such-day", "5.13. 18:00": "moment.no-such-day",
		"Sun 5 Dec 2026 19:00": "moment.weekday", "25:00": "moment.unread", "7:75 pm": "moment.unread",
		"13 pm": "moment.unread", "5 Dec 6 Dec 18:00": "moment.unread", "18:00 19:00": "moment.unread", "": "moment.unread",
		"sat sun 18:00": "moment.unread", "dec": "moment.unread", "tomorrow 18:00 sharpish": "moment.unread",
		"in a while": "moment.unread",
	} {
		_, err := when.ReadMoment(typed, when.Around{Now: monday})
		var wrong field.Wrong
		require.True(t, errors.As(err, &wrong), typed)
		assert.Equal(t, id, wrong.ID, typed)
	}
	_, err := when.ReadDay("19:00", when.Around{Now: monday})
	assert.Error(t, err)
}

// Every minute is read back from each form in which it is shown, on both sides of the clock's changes.
func TestMomentsReadAsTheyAreShown(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Dublin")
	require.NoError(t, err)
	now := monday.In(zone)
	for at := now.AddDate(0, -5, 0); at.Before(now.AddDate(0, 5, 0)); at = at.Add(19*time.Hour + 17*time.Minute) {
		for _, layout := range []string{
			"Mon 2 Jan 2006, 15:04", "Mon 2 Jan 2006 15:04", "Monday 2 January 15:04", "Mon 2 Jan 15:04", "2006-01-02T15:04",
			"Monday 2 January 2006 3:04 pm", time.RFC3339,
		} {
			got, err := when.ReadMoment(at.Format(layout), when.Around{Now: now, Past: at.Before(now)})
			require.NoError(t, err, at.Format(layout))
			assert.Equal(t, at.Format("2006-01-02T15:04"), got.Format("2006-01-02T15:04"), at.Format(layout))
		}
	}
}

func FuzzDays(f *testing.F) {
	for _, typed := range []string{"Sat 5 Dec 2026, 19:00", "5.12. 19:30", "29 feb 1 am", "in 900000 h",
		"next next", "5/"} {
		f.Add(typed)
	}
	f.Fuzz(func(t *testing.T, typed string) {
		for _, a := range []when.Around{{Now: monday}, {Now: monday, Past: true, MonthFirst: true}} {
			at, err := when.ReadMoment(typed, a)
			assert.True(t, err != nil || !at.IsZero(), typed)
		}
	})
}
