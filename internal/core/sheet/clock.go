package sheet

import (
	"fmt"
	"math"
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
	Key    string       `json:"key" enum:"thaw,bath,not-before,salt,out,fire,wrap,off,reheat,serve"`
	Label  string       `json:"label"`
	At     string       `json:"at" doc:"RFC 3339; empty when not known"`
	Figure trace.Figure `json:"figure" doc:"Value in hours before serving; text is the local day and time"`
	Note   string       `json:"note"`
}

// Bar is a stretch of time on a strip. Between late and to it fades.
type Bar struct {
	Kind  string `json:"kind" enum:"thaw,bath,wait,fire,chill,rest"`
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
	if !out.Known || p.times.Fire.IsZero() {
		out.Known = false
		return out
	}
	t := p.times
	inputs := []trace.Input{
		{Name: "serving", Text: plan.Day(p.serve)}, {Name: "to the knife", Text: plan.Day(t.Slice)},
		{Name: "rest", Text: quantity.FormatDuration(p.rest)}, {Name: "on the fire", Text: out.Fire},
		{Name: "salted before the fire", Text: quantity.FormatDuration(p.wait)},
	}
	add := func(key, label string, at time.Time, note, words string) {
		if at.IsZero() {
			return
		}
		hours := p.serve.Sub(at).Hours()
		f := trace.Exact(hours, 1, "", trace.Origin{Words: words, Source: out.From, Inputs: inputs})
		f.Text = plan.Day(at)
		out.Steps = append(out.Steps, Step{Key: key, Label: label, At: iso(at), Figure: f, Note: note})
	}
	add("thaw", "thaw from", t.Thaw, "in the fridge, "+quantity.FormatDuration(thawing(p.green)), "24 h in the cold for 2.2 kg (5 lb).")
	if p.bath != nil {
		add("bath", "into the bath", t.Bath, quantity.FormatDuration(p.bath.lasts)+", then drained and dried", "The salting less the time in the bath and half an hour to drain.")
	}
	longest := quantity.FormatDuration(plan.LongestWait(p.cut))
	add("not-before", "not before", t.Fire.Add(-plan.LongestWait(p.cut)), "raw, it keeps "+longest+" salted", "The fire less the longest time that this raw meat keeps in the cold.")
	add("salt", "salt at", t.Salt, "wait "+quantity.FormatDuration(p.wait)+p.covered()+p.moved(), "The fire less the wait, out of the quiet hours and when there are hands for it.")
	if p.temper > 0 && t.Out.After(t.Salt) {
		add("out", "out of the fridge", t.Out, quantity.FormatDuration(p.temper)+" on the counter", "The fire less the time on the counter.")
	}
	add("fire", "fire at", t.Fire, "pit at "+quantity.FormatTemperature(p.pit, p.opt.Units), "The knife less the rest and the slow cook of ten, so that nine in ten are in time; by the plan you chose.")
	add("wrap", "wrap about", t.Wrap, p.taskNote("wrap"), "The share of the time on the fire at which the core reads so.")
	off := "between " + t.Early.Format("15:04") + " and " + t.Late.Format("15:04")
	if t.Over {
		off = "it is off"
	}
	add("off", "off the fire", t.Off, off, "The fire and the usual time on it.")
	add("reheat", "reheat from", t.Reheat, "covered, to 74 °C / 165 °F", "Cooked ahead it was cooled fast; reheating takes an hour and a half.")
	add("serve", "serve", p.serve, fmt.Sprintf("rested at least %s; in time with %.0f %%", quantity.FormatDuration(p.leastRest()), 100*math.Min(t.Chance, 0.99)), "As you set it.")
	out.Late = p.late(t, takenUp)
	bar := func(kind, label string, from, sure, to time.Time) {
		if !from.IsZero() && to.After(from) {
			out.Lane = append(out.Lane, Bar{Kind: kind, Label: label, From: iso(from), Sure: iso(sure), To: iso(to)})
		}
	}
	if !t.Thaw.IsZero() {
		end := t.Prep
		if !t.Bath.IsZero() {
			end = t.Bath
		}
		bar("thaw", "thaw", t.Thaw, end, end)
	}
	if p.bath != nil {
		bar("bath", "bath "+quantity.FormatDuration(p.bath.lasts), t.Bath, t.Lift, t.Lift)
	}
	bar("wait", "salted "+quantity.FormatDuration(p.wait), t.Salt, t.Fire, t.Fire)
	bar("fire", "fire "+quantity.FormatDuration(t.Off.Sub(t.Fire)), t.Fire, t.Early, t.Late)
	rest := t.Late
	if rest.After(t.Slice) {
		rest = t.Off
	}
	switch {
	case !t.Reheat.IsZero():
		bar("chill", "cold", rest, t.Reheat, t.Reheat)
		bar("rest", "reheat", t.Reheat, t.Slice, t.Slice)
	case t.Hold > p.rest+2*time.Hour:
		bar("rest", "held "+quantity.FormatDuration(t.Hold.Round(5*time.Minute)), rest, t.Slice, t.Slice)
	default:
		bar("rest", "rest", rest, t.Slice, t.Slice)
	}
	return out
}

func (p *piece) leastRest() time.Duration { return min(p.rest, leastRest(p.cut)) }

// moved says how far the plan's wait is from the one that was asked.
func (p *piece) moved() string {
	if d := p.wait - p.asked; p.asked > 0 && (d > 20*time.Minute || d < -20*time.Minute) {
		return ", instead of " + quantity.FormatDuration(p.asked)
	}
	return ""
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
func (p *piece) late(t plan.Times, takenUp time.Duration) string {
	now := p.opt.Now
	switch {
	case now.IsZero() || p.serve.Before(now) || t.Over || p.marked("fire"):
		return ""
	case t.Off.After(t.Slice.Add(-p.leastRest())):
		return fmt.Sprintf("It is late: on the fire at %s it is off about %s. Serve later, or choose a thinner cut.", t.Fire.Format("15:04"), t.Off.Format("15:04"))
	case p.wait < takenUp && p.asked > p.wait+20*time.Minute:
		return fmt.Sprintf("Salting now leaves %s to the fire, less than the coat needs to be taken up (%s).", quantity.FormatDuration(p.wait), quantity.FormatDuration(takenUp))
	case p.asked > p.wait+20*time.Minute && !p.marked("salt"):
		return fmt.Sprintf("By the clock this was to be salted %s before the fire. Salting only now leaves %s to the fire.", quantity.FormatDuration(p.asked), quantity.FormatDuration(p.wait))
	}
	return ""
}

// marked reports whether a stage of the piece is done.
func (p *piece) marked(stage string) bool {
	for _, m := range p.marks {
		if m.Key == p.typed.Key && m.Stage == stage && m.Done {
			return true
		}
	}
	return false
}
