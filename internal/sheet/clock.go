package sheet

import (
	"fmt"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/uncertain"
)

// ClockSheet is a piece's times, counted back from serving.
type ClockSheet struct {
	Known     bool   `json:"known" doc:"False without a serving time: then only durations are given"`
	Steps     []Step `json:"steps" nullable:"false"`
	LateNote  string `json:"late_note" doc:"What no longer fits, in a sentence; empty when all is well"`
	Fire      string `json:"fire" doc:"Time on the fire"`
	FireRange string `json:"fire_range" doc:"Its likely range"`
	Source    string `json:"source" doc:"Where that comes from"`
	PitAt     string `json:"pit_at" doc:"What the pit is at when it goes on"`
	OffAt     string `json:"off_at" doc:"What it is taken off at"`
	Lane      []Bar  `json:"lane" nullable:"false" doc:"The same as bars for a time strip"`
}

// Step is one time of the clock.
type Step struct {
	Key    string `json:"key" enum:"thaw,bath,not-before,salt,out,fire,wrap,off,reheat,serve"`
	Label  string `json:"label"`
	At     string `json:"at" doc:"RFC 3339; empty when not known"`
	Day    string `json:"day" doc:"Local day"`
	Time   string `json:"time" doc:"Local time of day"`
	Figure Figure `json:"figure" doc:"Value in hours before serving; text is the local day and time"`
	Note   string `json:"note"`
}

// Bar is a stretch of time on a strip. Between sure and to it fades.
type Bar struct {
	Kind  string `json:"kind" enum:"thaw,bath,wait,fire,chill,rest,again,serve"`
	Stage string `json:"stage" doc:"Stage whose time its beginning is, and which dragging it fixes; empty when it has none"`
	Label string `json:"label"`
	Says  string `json:"says" doc:"What it means, with its times, in a sentence"`
	From  string `json:"from"`
	Local string `json:"local" doc:"The same as a wish is typed"`
	Sure  string `json:"sure" doc:"It lasts at least until here"`
	To    string `json:"to" doc:"It may last until here"`
}

func (c *ClockSheet) step(key string) (Step, bool) {
	i := slices.IndexFunc(c.Steps, func(s Step) bool { return s.Key == key })
	if i < 0 {
		return Step{}, false
	}
	return c.Steps[i], true
}

func iso(t time.Time) string { return t.Format(time.RFC3339) }

func duration(d time.Duration) string { return quantity.FormatDuration(d) }

// onFire is a time on the fire; no cook goes on so long as one that never gets done.
func onFire(d time.Duration) string {
	if d >= uncertain.Endless {
		return "over " + duration(heat.Longest*time.Hour)
	}
	return duration(d)
}

func (w writer) clock(c *cooking.PieceClock) *ClockSheet {
	out := &ClockSheet{
		Known: c.Known, Steps: []Step{}, Lane: []Bar{}, Fire: onFire(c.Fire.Mid),
		FireRange: duration(c.Fire.Low) + "–" + onFire(c.Fire.High),
		Source:    timingSource, PitAt: w.value(c.Set, ""), OffAt: w.value(c.Done, ""),
	}
	if !plainOff(c) {
		out.OffAt = w.waited(c.OffAt)
	}
	if c.Timed {
		out.Source = "the time you gave, −20 to +25 %"
		if c.TimedBy > 0 {
			out.Source = "the time you gave"
		}
	}
	if c.Known {
		out.Steps = w.steps(c, out)
		out.LateNote = lateNote(c)
		out.Lane = w.lane(c)
	}
	return out
}

// steps are the times of the clock, in working order.
func (w writer) steps(c *cooking.PieceClock, sheet *ClockSheet) []Step {
	t := c.Times
	out := []Step{}
	inputs := []Input{
		{"serving", "serving", day(c.Serve)}, {"knife", "slicing at", day(t.Slice)}, {"rest", "rest", duration(c.Rest)},
		{
			"fire",
			"on the fire",
			sheet.Fire + " (" + sheet.FireRange + ")",
		}, {"wait", "salted before the fire", duration(c.Wait)},
	}
	add := func(key, label string, at time.Time, note, why string) {
		if at.IsZero() {
			return
		}
		hours := brief(c.Serve.Sub(at).Hours())
		f := Figure{ID: "clock." + key, Value: hours, Low: hours, High: hours, Text: day(at)}
		if !w.Brief {
			f.Where = &Where{Explanation: why, Source: sheet.Source, Inputs: inputs}
		}
		out = append(
			out,
			Step{
				Key:    key,
				Label:  label,
				At:     iso(at),
				Day:    at.Format("Mon 2 Jan"),
				Time:   at.Format("15:04"),
				Figure: f,
				Note:   note,
			},
		)
	}
	add("thaw", "thaw from", t.Thaw, "in the fridge, "+duration(c.Thaws), "24 h in the cold for 2.2 kg (5 lb).")
	if c.Soak > 0 {
		add(
			"bath",
			"into the bath",
			t.Bath,
			duration(c.Soak)+", then drained and dried",
			"Salting time minus the bath and half an hour to drain.",
		)
	}
	add(
		"not-before",
		"not before",
		t.Fire.Add(-c.Longest),
		"keeps "+duration(c.Longest)+" once salted",
		"Fire time minus the longest that this meat keeps in the cold once salted.",
	)
	add(
		"salt",
		"salt at",
		t.Salt,
		saltNote(c),
		"Fire time minus the wait, moved out of your quiet hours and to when there are hands for it.",
	)
	if c.Temper > 0 && t.Out.After(t.Salt) {
		add(
			"out",
			"out of the fridge",
			t.Out,
			duration(c.Temper)+" on the counter",
			"Fire time minus the time on the counter.",
		)
	}
	add(
		"fire",
		"fire at",
		t.Fire,
		"pit at "+w.value(c.Set, ""),
		"Slicing time minus the rest and a slow cook, so that it is ready nine times in ten. Moved as your plan needs.",
	)
	add(
		"wrap",
		"wrap about",
		t.Wrap,
		w.wrapNote(c),
		"When the core should reach that temperature, from the time on the fire.",
	)
	off := "between " + t.Early.Format("15:04") + " and " + t.Late.Format("15:04")
	if t.Over {
		off = "it is off"
	}
	add("off", "off the fire", t.Off, off, "When it goes on, plus the usual time on the fire.")
	add(
		"reheat",
		"reheat from",
		t.Reheat,
		"covered, to 74 °C / 165 °F",
		"Cooked ahead it was cooled fast; reheating takes an hour and a half.",
	)
	add(
		"serve",
		"serve",
		c.Serve,
		fmt.Sprintf("rested at least %s; %.0f %% sure to be in time", duration(c.Least), 100*math.Min(t.Chance, 0.99)),
		"As you set it.",
	)
	return out
}

func saltNote(c *cooking.PieceClock) string {
	out := "wait " + duration(c.Wait)
	switch {
	case c.Wait <= 2*time.Hour:
	case c.Open:
		out += ", open"
	default:
		out += ", covered"
	}
	if asked, moved := movedFrom(c.Wait, c.Asked); moved {
		out += ", instead of " + duration(asked)
	}
	return out
}

func (w writer) wrapNote(c *cooking.PieceClock) string {
	if one := c.WrapAt.First; one.CoreC > 0 && c.WrapAt.Second.None() {
		return fmt.Sprintf("%s, core about %s", c.Wrap, w.value(one.CoreC, "")) + w.probed(c, one.CoreC)
	}
	if first := c.WrapAt.First; first.After > 0 && first.After <= time.Minute {
		return c.Wrap + ", as it goes on"
	}
	return c.Wrap + ", " + w.waited(c.WrapAt) + w.probed(c, c.WrapAt.Core())
}

// lateNote says which planned time has already passed.
func lateNote(c *cooking.PieceClock) string {
	t := c.Times
	switch c.Over {
	case "late":
		return fmt.Sprintf(
			"It is late: on the fire at %s, it comes off at about %s. Serve later, or choose a thinner cut.",
			t.Fire.Format("15:04"),
			t.Off.Format("15:04"),
		)
	case "not-taken-up":
		return fmt.Sprintf(
			"Salting now leaves %s to the fire, less than the coat needs to be taken up (%s).",
			duration(c.Wait),
			duration(c.TakenUp),
		)
	case "salted-late":
		return fmt.Sprintf(
			"Planned: salt %s before the fire. Salting only now leaves %s to the fire.",
			duration(c.Asked),
			duration(c.Wait),
		)
	}
	return ""
}

// lane are the times as bars for a time strip.
func (w writer) lane(c *cooking.PieceClock) []Bar {
	t := c.Times
	out := []Bar{}
	bar := func(kind, stage, label, says string, from, sure, to time.Time) {
		if from.IsZero() || !to.After(from) {
			return
		}
		until := hourOf(to)
		if sure.Before(to) {
			until = "between " + hourOf(sure) + " and " + hourOf(to)
		}
		out = append(out, Bar{
			Kind: kind, Stage: stage, Label: label, Says: says + " from " + hourOf(from) + " until " + until + ".",
			From: iso(from), Local: from.Format(timeLayout), Sure: iso(sure), To: iso(to),
		})
	}
	if !t.Thaw.IsZero() {
		end := t.Prep
		if !t.Bath.IsZero() {
			end = t.Bath
		}
		bar("thaw", "thaw", "thaw", "Thaws in the fridge", t.Thaw, end, end)
	}
	if c.Soak > 0 {
		bar("bath", "bath", "bath "+duration(c.Soak), "In the bath", t.Bath, t.Lift, t.Lift)
	}
	bar("wait", "salt", "salted "+duration(c.Wait), "Salted and waiting", t.Salt, t.Fire, t.Fire)
	bar("fire", "fire", "fire "+onFire(t.Off.Sub(t.Fire)), "On the fire", t.Fire, t.Early, t.Late)
	rest := t.Late
	if rest.After(t.Slice) {
		rest = t.Off
	}
	switch {
	case !t.Reheat.IsZero():
		bar("chill", "", "cold", "Cooked and kept cold", rest, t.Reheat, t.Reheat)
		bar("rest", "", "reheat", "Reheats", t.Reheat, t.Slice, t.Slice)
	case t.Hold > c.Rest+2*time.Hour:
		bar("rest", "", "held "+duration(t.Hold.Round(5*time.Minute)), "Held warm", rest, t.Slice, t.Slice)
	default:
		bar("rest", "", "rest", "Rests", rest, t.Slice, t.Slice)
	}
	for _, s := range t.Again {
		bar("again", "", "again "+duration(s.Off.Sub(s.On)), "On the fire again", s.On, s.Off, s.Off)
	}
	if c.Own {
		bar("serve", "", "served "+c.Serve.Format("15:04"), "Sliced and served", t.Slice, c.Serve, c.Serve)
	}
	return out
}

func hourOf(t time.Time) string { return t.Format("Mon 15:04") }

const timeLayout = "2006-01-02T15:04"
