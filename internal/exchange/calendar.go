package exchange

import (
	"fmt"
	"time"

	ics "github.com/arran4/golang-ical"

	"verjuice/internal/core/cook"
	"verjuice/internal/sheet"
)

// Calendar writes a cook's plan as iCalendar (RFC 5545): an event for each task
// still to do, with a reminder. The events keep their UIDs when the plan moves, so
// that a calendar that has them is updated; sequence is the cook's version.
func Calendar(id string, sequence uint, c cook.Cook, p *sheet.PlanSheet, now time.Time) (string, error) {
	cal := ics.NewCalendar()
	cal.SetMethod(ics.MethodPublish)
	cal.SetProductId("-//Verjuice//Cook plan//EN")
	cal.SetName(oneLine(c.Name))
	if p == nil {
		return cal.Serialize(ics.WithNewLineWindows), nil
	}
	for _, t := range p.Tasks {
		if t.Done {
			continue
		}
		at, err := time.Parse(time.RFC3339, t.At)
		if err != nil {
			return "", err
		}
		until, err := time.Parse(time.RFC3339, t.Until)
		if err != nil {
			return "", err
		}
		e := cal.AddEvent(fmt.Sprintf("cook-%s-%s@verjuice", id, t.ID))
		e.SetDtStampTime(now)
		e.SetSequence(int(sequence))
		e.SetStartAt(at)
		e.SetEndAt(until)
		e.SetSummary(oneLine(t.Label))
		e.SetDescription(oneLine(t.Note))
		alarm := e.AddAlarm()
		alarm.SetAction(ics.ActionDisplay)
		alarm.SetTrigger("-PT10M")
		alarm.SetDescription(oneLine(t.Label))
	}
	serve, err := time.ParseInLocation("2006-01-02T15:04", c.ServeAt, zone(c.Zone))
	if err != nil {
		return "", err
	}
	e := cal.AddEvent(fmt.Sprintf("cook-%s-serve@verjuice", id))
	e.SetDtStampTime(now)
	e.SetSequence(int(sequence))
	e.SetStartAt(serve)
	e.SetEndAt(serve.Add(time.Hour))
	e.SetSummary(oneLine("Serve: " + c.Name))
	return cal.Serialize(ics.WithNewLineWindows), nil
}

func zone(name string) *time.Location {
	if l, err := time.LoadLocation(name); err == nil {
		return l
	}
	return time.UTC
}
