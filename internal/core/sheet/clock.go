package sheet

import (
	"fmt"
	"time"

	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// draining is the time to drain and dry a piece after its bath.
const draining = 30 * time.Minute

// ClockSheet is a piece's times, counted back from serving.
type ClockSheet struct {
	Known bool   `json:"known" doc:"False without a serving time: then only durations are given"`
	Steps []Step `json:"steps" nullable:"false"`
	Late  string `json:"late" doc:"What no longer fits, in a sentence; empty when all is well"`
	Fire  string `json:"fire" doc:"Time on the fire in words"`
	From  string `json:"from" doc:"Where that comes from"`
	Pit   string `json:"usual_pit" doc:"Usual pit temperature of the cut"`
	Rest  string `json:"usual_rest" doc:"Usual rest of the cut"`
	Lane  []Bar  `json:"lane" nullable:"false" doc:"The same as bars for a time strip"`
}

// Step is one time of the clock.
type Step struct {
	Key    string       `json:"key" enum:"bath,not-before,salt,out,fire,off,slice,serve"`
	Label  string       `json:"label"`
	At     string       `json:"at" doc:"RFC 3339; empty when not known"`
	Figure trace.Figure `json:"figure" doc:"Value in hours before serving; text is the local day and time"`
	Note   string       `json:"note"`
}

// Bar is a stretch of time on a strip. Between late and to it fades.
type Bar struct {
	Kind  string `json:"kind" enum:"bath,wait,fire,rest"`
	Label string `json:"label"`
	From  string `json:"from"`
	Sure  string `json:"sure" doc:"It lasts at least until here"`
	To    string `json:"to" doc:"It may last until here"`
}

func (p *piece) clockSheet(takenUp time.Duration) *ClockSheet {
	out := &ClockSheet{
		Known: !p.serve.IsZero(), Steps: []Step{}, Lane: []Bar{},
		Fire: quantity.FormatDuration(p.fire.Mid) + " (" + quantity.FormatDuration(p.fire.Low) + "–" + quantity.FormatDuration(p.fire.High) + ")",
		From: plan.TimingSource,
		Pit:  quantity.FormatTemperature(quantity.Celsius(p.cut.PitC), p.opt.Units),
		Rest: quantity.FormatDuration(time.Duration(p.cut.RestMin * float64(time.Minute))),
	}
	if p.timed {
		out.From = "the time you gave, −20 to +25 %"
	}
	if !out.Known {
		return out
	}
	c := plan.CountBack(plan.Needs{Serve: p.serve, Fire: p.fire, Rest: p.rest, Wait: p.wait, Temper: p.temper, Longest: plan.LongestWait(p.cut)})
	inputs := []trace.Input{
		{Name: "serving", Text: plan.Day(p.serve)}, {Name: "slicing", Text: quantity.FormatDuration(plan.Slicing)},
		{Name: "rest", Text: quantity.FormatDuration(p.rest)}, {Name: "on the fire", Text: out.Fire},
		{Name: "salted before the fire", Text: quantity.FormatDuration(p.wait)},
	}
	add := func(key, label string, t time.Time, note, words string) {
		hours := p.serve.Sub(t).Hours()
		f := trace.Exact(hours, 1, "", trace.Origin{Words: words, Source: out.From, Inputs: inputs})
		f.Text = plan.Day(t)
		out.Steps = append(out.Steps, Step{Key: key, Label: label, At: t.Format(time.RFC3339), Figure: f, Note: note})
	}
	salted := c.Salt
	if p.bath != nil {
		into := c.Salt.Add(-p.bath.lasts - draining)
		add("bath", "into the bath", into, quantity.FormatDuration(p.bath.lasts)+", then drained and dried", "The salting less the time in the bath and half an hour to drain.")
		salted = into
	}
	longest := quantity.FormatDuration(plan.LongestWait(p.cut))
	add("not-before", "not before", c.NotBefore, "raw, it keeps "+longest+" salted", "The fire less the longest time that this raw meat keeps in the cold.")
	add("salt", "salt at", c.Salt, "wait "+quantity.FormatDuration(p.wait)+p.covered(), "The fire less the wait.")
	if p.temper > 0 {
		add("out", "out of the fridge", c.Out, quantity.FormatDuration(p.temper)+" on the counter", "The fire less the time on the counter.")
	}
	add("fire", "fire at", c.Fire, "pit at "+quantity.FormatTemperature(p.pit, p.opt.Units), "Serving less slicing, the rest and the slow cook of ten, so that nine in ten are in time.")
	add("off", "off the fire", c.Off, "between "+c.OffEarly.Format("15:04")+" and "+c.OffLate.Format("15:04"), "The fire and the usual time on it.")
	add("serve", "serve", c.Serve, "rested at least "+quantity.FormatDuration(p.rest), "As you set it.")
	out.Late = p.late(c, takenUp)
	iso := func(t time.Time) string { return t.Format(time.RFC3339) }
	out.Lane = []Bar{}
	if p.bath != nil {
		lifted := c.Salt.Add(-draining)
		out.Lane = append(out.Lane, Bar{Kind: "bath", Label: "bath " + quantity.FormatDuration(p.bath.lasts), From: iso(salted), Sure: iso(lifted), To: iso(lifted)})
	}
	out.Lane = append(out.Lane, []Bar{
		{Kind: "wait", Label: "salted " + quantity.FormatDuration(p.wait), From: iso(c.Salt), Sure: iso(c.Fire), To: iso(c.Fire)},
		{Kind: "fire", Label: "fire " + quantity.FormatDuration(p.fire.Mid), From: iso(c.Fire), Sure: iso(c.OffEarly), To: iso(c.OffLate)},
		{Kind: "rest", Label: "rest", From: iso(c.OffLate), Sure: iso(c.Slice), To: iso(c.Slice)},
	}...)
	return out
}

func (p *piece) covered() string {
	switch {
	case p.wait <= 2*time.Hour:
		return ""
	case p.typed.Wait.Open:
		return ", open"
	default:
		return ", covered"
	}
}

// late says what the present moment has overtaken.
func (p *piece) late(c plan.Clock, takenUp time.Duration) string {
	now := p.opt.Now
	switch {
	case now.IsZero() || now.Before(c.Salt) || p.serve.Before(now):
		return ""
	case now.After(c.Fire):
		return fmt.Sprintf("The fire should have been lit %s. Serve later, or choose a thinner cut.", plan.Away(c.Fire, now))
	default:
		left := quantity.FormatDuration(c.Fire.Sub(now))
		if c.Fire.Sub(now) < takenUp {
			return fmt.Sprintf("Salting now leaves %s to the fire, less than the coat needs to be taken up (%s).", left, quantity.FormatDuration(takenUp))
		}
		return fmt.Sprintf("By the clock this was salted %s. Salting only now leaves %s to the fire.", plan.Away(c.Salt, now), left)
	}
}
