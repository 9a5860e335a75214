package sheet

import (
	"cmp"
	"fmt"
	"math"
	"strings"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/field"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/outlook"
)

func (w writer) saysOf(l outlook.Look) []string {
	f := l.Fire
	out := []string{}
	if !math.IsInf(f.Bark.Mid, 1) && f.Bark.Mid < f.Done.Mid {
		out = append(out, fmt.Sprintf("The bark is set after about %s (%s).", hours(f.Bark.Mid), w.between(f.Bark)))
	}
	if l.Stall != nil {
		out = append(
			out,
			fmt.Sprintf(
				"It stalls for about %s, between %s and %s: the surface sweats as fast as the heat comes in.",
				hours(l.Stall.To-l.Stall.From),
				w.short(l.Stall.LowC),
				w.short(l.Stall.TopC),
			),
		)
	}
	if l.Input.Cut.DoneC() > 80 {
		out = append(
			out,
			fmt.Sprintf(
				"Tenderness when it comes off: %.1f (%.1f–%.1f), where 1 is soft to a probe.",
				f.Soft.Mid,
				f.Soft.Low,
				f.Soft.High,
			),
		)
	}
	if f.Carry.Mid >= 0.5 {
		out = append(
			out,
			fmt.Sprintf(
				"Off the fire the core still rises by about %s (%s–%s).",
				w.gap(f.Carry.Mid),
				strings.Split(w.gap(f.Carry.Low), "\u00a0")[0],
				w.gap(f.Carry.High),
			),
		)
	}
	// The same figure as at the head of the page: what earlier cooks weighed counts in it.
	if m := l.Piece.Meat; m != nil && m.AllGreen.Mid > 0 {
		share := func(kg float64) float64 { return 100 * kg / m.AllGreen.Mid }
		out = append(
			out,
			fmt.Sprintf(
				"Served: %.0f %% of the trimmed weight (%.0f–%.0f\u00a0%%).",
				share(m.Served.Mid),
				share(m.Served.Low),
				share(m.Served.High),
			),
		)
	}
	if f.Done.Never > 0.02 {
		out = append(
			out,
			fmt.Sprintf(
				"%.0f in 100 are not done within %s in a pit like this.",
				100*f.Done.Never,
				duration(heat.Longest*time.Hour),
			),
		)
	}
	return append(
		out,
		"It has learnt nothing from your cook-outs yet. It cannot know how true your pit’s dial is, how wet the meat is, or exactly where your probe sits.",
	)
}

// placeWords say where it rests.
var placeWords = map[string]string{
	"counter":  "on the counter",
	"cooler":   "in a dry cooler",
	"oven_off": "in the switched-off oven",
	"pit_off":  "in the switched-off pit, its vents open",
	"pit_shut": "in the switched-off pit, its vents shut",
	"holder":   "in a warm holder",
}

func (w writer) restText(l outlook.Look) string {
	where := placeWords[l.Place]
	floor := w.short(heat.Floor)
	if l.From < heat.Floor {
		return fmt.Sprintf("It comes off at %s: rest it for as long as asked, and serve it.", w.short(l.From))
	}
	if math.IsInf(l.Rest.Floor.Low, 1) {
		return fmt.Sprintf("%s it stays above %s.", field.Capital(where), floor)
	}
	return fmt.Sprintf(
		"%s it falls to %s after %s at the earliest, more likely after %s. Serve it before that.",
		field.Capital(where),
		floor,
		hours(l.Rest.Floor.Low),
		hours(l.Rest.Floor.Mid),
	)
}

// narrowings say what to measure or tell, and on which stage.
var narrowings = map[string][2]string{
	"thickness": {"measure the thickest point", "piece"},
	"grate":     {"read the pit at the grate with a second thermometer", ""},
	"pit":       {"say which kind of pit it is", "plan"},
	"openings":  {"say how often the pit is opened", "forecast"},
	"wrap":      {"say how tight the wrap is", "forecast"},
	"reading":   {"read the core after two hours", ""},
}

func (w writer) narrow(n heat.Narrowing, _ cooking.Piece) (NarrowLine, bool) {
	text, ok := narrowings[n.What]
	if n.Hours < 1.0/12 || !ok {
		return NarrowLine{}, false
	}
	return NarrowLine{n.What, text[0], "narrows it by " + hours(n.Hours), text[1]}, true
}

// wayWords name the other ways.
var wayWords = map[string][2]string{
	"wrap-foil": {
		"wrap it in foil",
		"quick, softer bark",
	}, "wrap-paper": {"wrap it in paper", "firmer bark than foil"}, "wrap-pan": {"a pan and foil", "keeps the juice"},
	"wrap-none": {"never wrap it", "the firmest bark"},
	"wrap-earlier": {
		"wrap it earlier",
		"softer bark, less smoke",
	}, "hotter": {"a hotter pit", "less time for smoke"}, "cooler": {"a cooler pit", "more time for smoke"},
	"halves": {"cut it in two", "quicker, more bark; two to turn and to probe"},
	"low-night": {
		"a low pit overnight",
		"it cooks while you sleep",
	}, "holder": {"hold it in a warm holder", "it may be done hours early"},
	"temper": {"leave it out of the fridge for an hour", "a warmer start"},
	"fan": {
		"if the pit had a fan",
		"as a pellet cabinet has",
	}, "still": {"if the pit had no fan", "as a charcoal cabinet"},
	"cold": {
		"if it is cold at the pit",
		"",
	}, "windy": {"if it is windy", ""}, "thicker": {"if it is 15 % thicker than estimated", ""},
}

func (w writer) way(o outlook.Way, l outlook.Look) WayLine {
	words := wayWords[o.ID]
	out := WayLine{ID: o.ID, Label: words[0], Note: words[1], Edits: []Edit{}, Differs: "the same time"}
	if o.ID == "hotter" || o.ID == "cooler" || o.ID == "low-night" {
		out.Label += ", " + w.short(float64(o.Input.PitC))
	}
	switch d := o.Fire.Mid - l.Piece.Fire.Takes.Mid; {
	case d >= 5*time.Minute:
		out.Differs = "+ " + duration(d.Round(5*time.Minute))
	case d <= -5*time.Minute:
		out.Differs = "− " + duration((-d).Round(5*time.Minute))
	}
	if share := 100 * (o.Yield - 1); math.Abs(share) >= 1 {
		out.Note = join(
			out.Note,
			"; ",
			fmt.Sprintf("%s%.0f %% meat", map[bool]string{true: "+ ", false: "− "}[share > 0], math.Abs(share)),
		)
	}
	if o.Plan != "" {
		sleep := "a full night’s sleep"
		if o.Woken > 0 {
			sleep = fmt.Sprintf("up %d × in the night", o.Woken)
		}
		out.Note = join(out.Note, "; ", fmt.Sprintf("%.0f %% on time, %s", 100*math.Min(o.Chance, 0.99), sleep))
	}
	if !o.Happens {
		for _, e := range o.Edits {
			out.Edits = append(out.Edits, Edit{Pointer: e.Pointer, Value: e.Value})
		}
	}
	return out
}

var ruleNames = map[string]string{
	"pound":      "An hour a pound",
	"pound-half": "An hour and a half a pound",
	"nine-two":   "Nine hours, and two of rest",
}

func (w writer) rules(l outlook.Look) []RuleLine {
	out := []RuleLine{}
	line := func(label string, says time.Duration, byWeight bool) {
		long, short := "it is one figure for every piece", "it is one figure for every piece"
		if byWeight {
			long, short = "it goes by weight, and this piece is not that thick",
				"it goes by weight, and the way to the middle is what takes time"
		}
		off := says.Hours() - l.Fire.Done.Mid
		why := "close to the forecast"
		switch {
		case math.IsInf(l.Fire.Done.Mid, 1):
			why = "it won’t finish in this pit at all"
		case off > 0.5:
			why = hours(off) + " more than the forecast: " + long
		case off < -0.5:
			why = hours(-off) + " less than the forecast: " + short
		}
		out = append(out, RuleLine{label, duration(says.Round(5 * time.Minute)), why})
	}
	for _, r := range l.Rules() {
		line(ruleNames[r.ID], time.Duration(r.Hours*float64(time.Hour)), r.ID != "nine-two")
	}
	if guess := l.Piece.Line.Guess.Value; l.Piece.Line.Guess.OK() && guess > 0 {
		line("What you think", guess, false)
		chance := l.Piece.Fire.Takes.Chance(guess)
		out[len(out)-1].Why = fmt.Sprintf("%.0f of 100 such cooks are done by then", 100*chance)
	}
	return out
}

// doneness is how to tell that it is done.
func (w writer) doneness(p cooking.Piece, l outlook.Look) DonenessSheet {
	out := DonenessSheet{Core: w.value(p.Clock.Done, "") + " in the thickest place"}
	c := p.Line.Meat.Value.Cut
	text := decisionTexts["feel"].answers[cmp.Or(p.Line.Answers.Value.Chose(decision.Feel), "core")]
	out.Feel = join(text.label, ": ", text.note)
	switch {
	case c.Family == cut.Rack:
		out.Core = "about " + w.value(p.Clock.Done, "") + "; go by the bend, not by the number"
		out.Look = "a thumb’s width of bone shows, and the top cracks when it is bent"
	case c.Finish == cut.PinkSliced:
		out.Look = "springs back like the ball of your thumb; clear pink juice"
	case c.Family == cut.Poultry:
		out.Look = "the leg turns easily; juice runs clear, but go by the temperature"
	case c.Family == cut.Ground:
		out.Look = "firm, no pink, and always by the temperature"
	case c.Finish == cut.Pulled:
		out.Look = "dark bark; the blade bone or a fork turns without effort"
	default:
		out.Look = "dark bark; it bends over a hand and holds together"
	}
	return out
}
