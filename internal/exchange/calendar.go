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
		remind(event(cal, fmt.Sprintf("cook-%s-%s@verjuice", id, t.ID), sequence, now, at, until), t.Label, t.Note)
	}
	serve, err := time.ParseInLocation("2006-01-02T15:04", c.ServeAt, zone(c.Zone))
	if err != nil {
		return "", err
	}
	event(
		cal,
		fmt.Sprintf("cook-%s-serve@verjuice", id),
		sequence,
		now,
		serve,
		serve.Add(time.Hour),
	).SetSummary(oneLine("Serve: " + c.Name))
	return cal.Serialize(ics.WithNewLineWindows), nil
}

// MealCalendar writes what is to be done for a later meal, likewise.
func MealCalendar(id string, sequence uint, name string, tasks []sheet.MealTask, now time.Time) (string, error) {
	cal := ics.NewCalendar()
	cal.SetMethod(ics.MethodPublish)
	cal.SetProductId("-//Verjuice//Later meal//EN")
	cal.SetName(oneLine(name))
	for i, t := range tasks {
		at, err := time.Parse(time.RFC3339, t.At)
		if err != nil {
			return "", err
		}
		remind(
			event(cal, fmt.Sprintf("meal-%s-%d@verjuice", id, i), sequence, now, at, at.Add(10*time.Minute)),
			t.Label,
			t.Note,
		)
	}
	return cal.Serialize(ics.WithNewLineWindows), nil
}

func event(cal *ics.Calendar, id string, sequence uint, now, from, until time.Time) *ics.VEvent {
	e := cal.AddEvent(id)
	e.SetDtStampTime(now)
	e.SetSequence(int(sequence))
	e.SetStartAt(from)
	e.SetEndAt(until)
	return e
}

// remind says what an event is, ten minutes before it.
func remind(e *ics.VEvent, label, note string) {
	e.SetSummary(oneLine(label))
	e.SetDescription(oneLine(note))
	alarm := e.AddAlarm()
	alarm.SetAction(ics.ActionDisplay)
	alarm.SetTrigger("-PT10M")
	alarm.SetDescription(oneLine(label))
}

func zone(name string) *time.Location {
	if l, err := time.LoadLocation(name); err == nil {
		return l
	}
	return time.UTC
}
