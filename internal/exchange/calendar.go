package exchange

import (
	"time"

	ics "github.com/arran4/golang-ical"
)

// Event is an entry of a calendar.
type Event struct {
	ID          string // the same when its time moves
	From, Until time.Time
	Label       string
	Note        string // may be empty
	Reminds     bool   // ten minutes before it
}

// Calendar writes events as iCalendar (RFC 5545). They keep their UIDs when their times move, so that a
// calendar that has them is updated; sequence is the version of what they are of.
func Calendar(name string, sequence uint, now time.Time, events []Event) string {
	cal := ics.NewCalendar()
	cal.SetMethod(ics.MethodPublish)
	cal.SetProductId("-//Verjuice//EN")
	cal.SetName(oneLine(name))
	for _, one := range events {
		e := cal.AddEvent(one.ID + "@verjuice")
		e.SetDtStampTime(now)
		e.SetSequence(int(sequence))
		e.SetStartAt(one.From)
		e.SetEndAt(one.Until)
		e.SetSummary(oneLine(one.Label))
		if !one.Reminds {
			continue
		}
		e.SetDescription(oneLine(one.Note))
		alarm := e.AddAlarm()
		alarm.SetAction(ics.ActionDisplay)
		alarm.SetTrigger("-PT10M")
		alarm.SetDescription(oneLine(one.Label))
	}
	return cal.Serialize(ics.WithNewLineWindows)
}
