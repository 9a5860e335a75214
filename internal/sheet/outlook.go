package sheet

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/gear"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/outlook"
	"verjuice/internal/core/quantity"
)

// OutlookSheet is a forecast as it is read.
type OutlookSheet struct {
	Title      string        `json:"title" doc:"Empty, like all of it, while the piece has a mistake that its fire depends on"`
	Heads      []BigFigure   `json:"heads" nullable:"false" doc:"The figures to read first"`
	Axis       Axis          `json:"axis" doc:"Of the curve"`
	Start      string        `json:"start" doc:"When it goes on, RFC 3339; empty without a serving time"`
	Curve      []DrawnPoint  `json:"curve" nullable:"false"`
	Marks      []CurveMark   `json:"marks" nullable:"false" doc:"What is done or seen, in order"`
	Spritzes   []float64     `json:"spritzes" nullable:"false" doc:"Hours after it goes on"`
	SpritzText string        `json:"spritz_text"`
	Stall      *StallSheet   `json:"stall,omitempty"`
	Rest       []DrawnPoint  `json:"rest" nullable:"false" doc:"The core after it is off, by hours from then"`
	RestText   string        `json:"rest_text"`
	Floor      float64       `json:"floor" doc:"Held food must not fall under it"`
	Reaches    []ReachLine   `json:"reaches" nullable:"false" doc:"When the core gets to what cooks look out for"`
	Says       []string      `json:"says" nullable:"false" doc:"Bark, tenderness, carry-over, yield, and what it does not know"`
	Narrows    []NarrowLine  `json:"narrows" nullable:"false" doc:"What to measure or tell, what helps most first"`
	Ways       []WayLine     `json:"ways" nullable:"false" doc:"The same supper, another way"`
	Other      *OtherCurve   `json:"other,omitempty" doc:"The way that was asked for, to draw beside this one"`
	Rules      []RuleLine    `json:"rules" nullable:"false" doc:"What rules of thumb say"`
	Doneness   DonenessSheet `json:"doneness"`
	Again      int           `json:"again" doc:"Seconds after which to ask again, since a piece is on the fire; 0 means that nothing is"`
}

// BigFigure is a figure to read first.
type BigFigure struct {
	Text string `json:"text"`
	Unit string `json:"unit"`
	Note string `json:"note"`
}

// DrawnPoint is the core at one time, in the reader's unit.
type DrawnPoint struct {
	H    float64 `json:"h"`
	Low  float64 `json:"low" doc:"One in ten is below"`
	Mid  float64 `json:"mid"`
	High float64 `json:"high"`
	Pit  float64 `json:"pit"`
}

// CurveMark is something done or seen at a time.
type CurveMark struct {
	Kind  string  `json:"kind" enum:"on,bark,wrap,off,knife"`
	H     float64 `json:"h"`
	Core  float64 `json:"core"`
	Label string  `json:"label"`
	Note  string  `json:"note"`
}

// StallSheet is where the core hardly rises.
type StallSheet struct {
	From float64 `json:"from"`
	To   float64 `json:"to"`
	Low  float64 `json:"low"`
	High float64 `json:"high"`
	Text string  `json:"text"`
}

// ReachLine is when the core gets to a temperature.
type ReachLine struct {
	Core  string `json:"core"`
	After string `json:"after" doc:"After it goes on"`
	Range string `json:"range"`
	Clock string `json:"clock" doc:"By the clock; empty without a serving time"`
}

// NarrowLine is something to measure or tell.
type NarrowLine struct {
	What  string `json:"what" enum:"thickness,grate,pit,openings,wrap,reading"`
	Label string `json:"label"`
	Less  string `json:"less" doc:"What it takes off the band"`
	Stage string `json:"stage" doc:"Where on the page it is told; empty when it is not told there"`
}

// WayLine is another way to cook it.
type WayLine struct {
	ID      string `json:"id"`
	Label   string `json:"label"`
	Note    string `json:"note"`
	Differs string `json:"differs" doc:"Time on the fire against this way"`
	Edits   []Edit `json:"edits" nullable:"false" doc:"What is typed where to cook it so; empty for what a cook does not choose"`
}

// OtherCurve is another way's curve.
type OtherCurve struct {
	Label string       `json:"label"`
	Curve []DrawnPoint `json:"curve" nullable:"false"`
	Text  string       `json:"text"`
}

// RuleLine is what a rule of thumb says.
type RuleLine struct {
	Label string `json:"label"`
	Says  string `json:"says"`
	Why   string `json:"why"`
}

// DonenessSheet is how to tell that it is done.
type DonenessSheet struct {
	Core string `json:"core"`
	Feel string `json:"feel"`
	Look string `json:"look"`
}

// WriteOutlook says the forecast of one piece.
func WriteOutlook(l outlook.Outlook, as Reader) OutlookSheet {
	out := OutlookSheet{
		Heads: []BigFigure{}, Curve: []DrawnPoint{}, Marks: []CurveMark{}, Spritzes: []float64{},
		Rest: []DrawnPoint{}, Reaches: []ReachLine{}, Says: []string{},
		Narrows: []NarrowLine{}, Ways: []WayLine{}, Rules: []RuleLine{},
	}
	w := newWriter(l.Cook, as)
	if out.Axis = w.axis(100); !l.Known {
		return out
	}
	out = w.outlook(out, l.Look)
	out.Says = append(w.allows(l.Cook.Order.Learnt, l.Cook.Order.Cook.Pits), out.Says...)
	for _, way := range l.Ways {
		out.Ways = append(out.Ways, w.way(way, l.Look))
	}
	drawn := hottest(out.Curve)
	if o := l.Other; o != nil {
		label := w.way(o.Way, l.Look).Label
		out.Other = &OtherCurve{
			Label: label,
			Curve: w.curve(o.Seen.Fire.Curve),
			Text:  fmt.Sprintf("%s: %s on the fire", label, hours(o.Seen.Fire.Done.Mid)),
		}
		drawn = append(drawn, hottest(out.Other.Curve)...)
	}
	out.Axis = w.axis(100, drawn...)
	return out
}

// degrees is a temperature as drawn, in the reader's unit.
func (w writer) degrees(c float64) float64 {
	if w.Units == quantity.US {
		return math.Round(10*(c*1.8+32)) / 10
	}
	return math.Round(10*c) / 10
}

func (w writer) curve(points []heat.Point) []DrawnPoint {
	out := []DrawnPoint{}
	for i, p := range points {
		if i%2 == 0 || i == len(points)-1 {
			pit := 0.0
			if p.PitC != 0 {
				pit = w.degrees(p.PitC)
			}
			out = append(
				out,
				DrawnPoint{math.Round(1000*p.H) / 1000, w.degrees(p.Core.Low), w.degrees(p.Core.Mid), w.degrees(p.Core.High), pit},
			)
		}
	}
	return out
}

// hours writes hours as a duration; one that never comes is said so.
func hours(h float64) string {
	if math.IsInf(h, 1) {
		return "over " + duration(heat.Longest*time.Hour)
	}
	return duration(time.Duration(h * float64(time.Hour)).Round(5 * time.Minute))
}

// hotterC is how far over the core it was to come off at a piece is that waited to be soft, °C.
const hotterC = 1.5

// between is the likely range of something that may never come.
func (w writer) between(b heat.Band) string {
	out := hours(b.Low) + "–" + hours(b.High)
	if math.IsInf(b.High, 1) {
		if out = "from " + hours(b.Low); math.IsInf(b.Low, 1) {
			out = hours(b.Low)
		}
	}
	return join(out, "; ", maybeNever(b.Never))
}

// maybeNever says how often something does not come, where that is worth a word.
func maybeNever(share float64) string {
	if share < 0.02 {
		return ""
	}
	return fmt.Sprintf("may not get there: %.0f in 100", 100*share)
}

func (w writer) outlook(out OutlookSheet, l outlook.Look) OutlookSheet {
	p := l.Piece
	c, fire := p.Clock, l.Fire
	out.Title = Title(p)
	out.Floor = w.degrees(heat.Floor)
	out.Curve, out.Rest = w.curve(fire.Curve), w.curve(l.Rest.Curve)
	clock := func(h float64) string { return "" }
	if c.Known {
		out.Start = iso(c.Times.Fire)
		clock = func(h float64) string {
			if math.IsInf(h, 1) {
				return ""
			}
			return c.Times.Fire.Add(time.Duration(h * float64(time.Hour))).Round(5 * time.Minute).Format("Mon 15:04")
		}
	}
	out.Heads = append(out.Heads, BigFigure{Text: hours(fire.Done.Mid), Note: "on the fire, " + w.between(fire.Done)})
	if c.Known {
		out.Heads = append(
			out.Heads,
			BigFigure{Text: c.Times.Fire.Format("15:04"), Note: "on the fire, " + c.Times.Fire.Format("Mon 2 Jan")},
			BigFigure{
				Text: fmt.Sprintf("%.0f", 100*math.Min(c.Times.Chance, 0.99)),
				Unit: "%",
				Note: "to be ready for the knife",
			},
		)
	}
	if p.Meat != nil {
		served := w.figure(p.Meat.Served)
		out.Heads = append(out.Heads, BigFigure{Text: served.Text, Unit: served.Unit, Note: "cooked meat, " + served.Range})
	}
	w.marks(&out, l, clock)
	if s := l.Stall; s != nil {
		out.Stall = &StallSheet{s.From, s.To, w.degrees(s.LowC), w.degrees(s.TopC), "the stall, " + hours(s.To-s.From)}
	}
	for i, core := range l.Cores {
		b := fire.Reach[i]
		if !math.IsInf(b.Mid, 1) {
			out.Reaches = append(
				out.Reaches,
				ReachLine{w.value(quantity.Celsius(core), ""), hours(b.Mid), w.between(b), clock(b.Mid)},
			)
		}
	}
	if l.Input.Core > 0 {
		out.Reaches = append(
			out.Reaches,
			ReachLine{w.value(l.Input.Core, "") + ", done", hours(fire.Done.Mid), w.between(fire.Done), clock(fire.Done.Mid)},
		)
	}
	out.Says, out.RestText = w.saysOf(l), w.restText(l)
	for _, n := range fire.Narrows {
		if line, ok := w.narrow(n, p); ok {
			out.Narrows = append(out.Narrows, line)
		}
	}
	out.Rules = w.rules(l)
	out.Doneness = w.doneness(p, l)
	return out
}

// marks are what is done or seen on the way.
func (w writer) marks(out *OutlookSheet, l outlook.Look, clock func(float64) string) {
	fire, c := l.Fire, l.Piece.Clock
	core := func(h float64) float64 {
		last := 0.0
		for _, p := range out.Curve {
			if p.H > h {
				break
			}
			last = p.Mid
		}
		return last
	}
	at := func(h float64) string {
		if t := clock(h); t != "" {
			return "about " + t
		}
		return "after about " + hours(h)
	}
	out.Marks = append(out.Marks, CurveMark{"on", 0, core(0), "on", clock(0)})
	done := fire.Done.Mid
	if b := fire.Bark.Mid; b < done {
		out.Marks = append(out.Marks, CurveMark{"bark", b, core(b), "bark set", at(b)})
	}
	wraps := l.Piece.Fire.Wraps.Mid
	w.changes(out, l, core, at)
	if !math.IsInf(done, 1) {
		label := "off: soft"
		if at := float64(l.Input.Core); at > 0 && core(done) < at+hotterC {
			label = "off at " + w.short(float64(l.Input.Core))
		}
		out.Marks = append(out.Marks, CurveMark{"off", done, core(done), label, at(done)})
	}
	if c.Known && c.Times.Slice.After(c.Times.Fire) {
		out.Marks = append(
			out.Marks,
			CurveMark{"knife", c.Times.Slice.Sub(c.Times.Fire).Hours(), 0, "slice", c.Times.Slice.Format("Mon 15:04")},
		)
	}
	slices.SortStableFunc(out.Marks, func(a, b CurveMark) int { return cmp.Compare(a.H, b.H) })
	if every := c.Spritz.Hours(); every > 0 && len(fire.Visits) > 0 {
		until := math.Min(done, fire.Ends[0].Mid)
		if wraps > 0 {
			until = math.Min(until, wraps.Hours())
		}
		for h := fire.Visits[0].Mid; h < until && len(out.Spritzes) < 200; h += every {
			out.Spritzes = append(out.Spritzes, h)
		}
		out.SpritzText = "spritz every " + duration(c.Spritz)
	}
}

// changes are the wraps, and what the pit is set to on the way.
func (w writer) changes(out *OutlookSheet, l outlook.Look, core func(h float64) float64, at func(h float64) string) {
	fire, done := l.Fire, l.Fire.Done.Mid
	for i, wrap := range l.Input.Wraps {
		h := fire.Wraps[i].Mid
		if h >= done {
			continue
		}
		label := wrapName(wrap.Kind)
		if wrap.When.Second.None() && wrap.When.First.CoreC > 0 {
			label += " at " + w.short(float64(wrap.When.First.CoreC))
		}
		out.Marks = append(out.Marks, CurveMark{"wrap", h, core(h), label, at(h)})
	}
	for _, set := range l.Input.Steps {
		if set.AtH < done {
			out.Marks = append(out.Marks, CurveMark{"set", set.AtH, core(set.AtH), "pit at " + w.short(set.SetC), at(set.AtH)})
		}
	}
}

// wrapName is a wrap as in "wrap in paper".
func wrapName(id string) string {
	wrap, _ := gear.FindWrap(id)
	return wrap.Said
}

// short is a temperature in the reader's unit alone.
func (w writer) short(c float64) string {
	unit := "°C"
	if w.Units == quantity.US {
		unit = "°F"
	}
	return fmt.Sprintf("%.0f\u00a0%s", w.degrees(c), unit)
}

// gap is a difference of temperature in the reader's unit.
func (w writer) gap(c float64) string {
	if w.Units == quantity.US {
		return fmt.Sprintf("%.0f\u00a0°F", 1.8*c)
	}
	return fmt.Sprintf("%.0f\u00a0°C", c)
}
