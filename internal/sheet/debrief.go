package sheet

import (
	"fmt"
	"math"
	"time"

	"verjuice/internal/core/live"
)

// Debrief is what was true of a cook that was practised.
type Debrief struct {
	Pieces []DebriefPiece `json:"pieces" nullable:"false" doc:"Empty while one of them is still on the fire"`
}

// DebriefPiece is what was hidden of a piece, beside what was decided.
type DebriefPiece struct {
	Key    string       `json:"key"`
	Did    string       `json:"did" doc:"When it came off, and how it really was"`
	Hidden []string     `json:"hidden" nullable:"false" doc:"What could only be guessed, a sentence each"`
	Ways   []DebriefWay `json:"ways" nullable:"false" doc:"What other decisions would have come to"`
}

// DebriefWay is one way to have cooked a piece.
type DebriefWay struct {
	Label string `json:"label"`
	Time  string `json:"time" doc:"How long its coldest place would have taken"`
	Cost  string `json:"cost" doc:"Against what was done; may be empty"`
}

var pathWords = map[string]string{
	"did": "As you did it", "planned": "As it was planned", "bare": "The same, never wrapped",
	"foil": "The same, wrapped in foil at %s", "hotter": "As planned, with the pit %s hotter",
}

// WriteDebrief says what was true of a cook that was practised.
func WriteDebrief(all []live.Truth, as Reader) Debrief {
	w := writer{Reader: as}
	out := Debrief{Pieces: []DebriefPiece{}}
	for _, t := range all {
		out.Pieces = append(out.Pieces, w.debrief(t))
	}
	return out
}

func (w writer) debrief(t live.Truth) DebriefPiece {
	hours := func(h float64) string {
		return duration(time.Duration(h * float64(time.Hour)).Round(5 * time.Minute))
	}
	out := DebriefPiece{Key: t.Piece, Hidden: w.hidden(t), Ways: []DebriefWay{}}
	out.Did = fmt.Sprintf(
		"You pulled it after %s. Its coldest place was really at %s; the probe showed %s, and the aim was %s.",
		duration(t.Off.Sub(t.On).Round(time.Minute)),
		w.warm(t.CoreC, 1),
		w.warm(t.ShownC, 1),
		w.short(t.TargetC),
	)
	did := t.Ways[0]
	if early := did.Hours - t.Off.Sub(t.On).Hours(); did.Done && early > 0.25 && t.CoreC < t.TargetC-1 {
		out.Did += fmt.Sprintf(" It needed %s more.", hours(early))
	}
	if over := t.Off.Sub(t.On).Hours() - did.Hours; did.Done && over > 0.25 {
		out.Did += fmt.Sprintf(" It was there %s before.", hours(over))
	}
	for _, way := range t.Ways {
		one := DebriefWay{Label: pathWords[way.ID], Time: "never done"}
		switch way.ID {
		case "foil":
			one.Label = fmt.Sprintf(one.Label, w.short(70))
		case "hotter":
			one.Label = fmt.Sprintf(one.Label, w.gap(15))
		}
		if way.Done {
			one.Time = "done after " + hours(way.Hours)
		}
		if way.ID != "did" && way.Done && did.Done {
			one.Cost = "about the same"
			if d := way.Hours - did.Hours; math.Abs(d) >= 1.0/6 {
				one.Cost = hours(math.Abs(d)) + map[bool]string{true: " later", false: " sooner"}[d > 0]
			}
		}
		out.Ways = append(out.Ways, one)
	}
	return out
}

// hidden says what could only be guessed.
func (w writer) hidden(t live.Truth) []string {
	out := []string{"The pit kept to what it was set to."}
	if math.Abs(t.PitOff) >= 1 {
		out[0] = fmt.Sprintf(
			"The pit ran %s %s than it was set to.",
			w.gap(math.Abs(t.PitOff)),
			map[bool]string{true: "hotter", false: "cooler"}[t.PitOff > 0],
		)
	}
	if off := 100 * (t.Thick - 1); math.Abs(off) >= 3 {
		out = append(
			out,
			fmt.Sprintf(
				"The piece was %.0f %% %s than you were told.",
				math.Abs(off),
				map[bool]string{true: "thicker", false: "thinner"}[off > 0],
			),
		)
	}
	if off := 100 * (t.Hot - 1); math.Abs(off) >= 5 {
		out = append(
			out,
			fmt.Sprintf(
				"The air in the pit gave %.0f %% %s heat than is usual.",
				math.Abs(off),
				map[bool]string{true: "more", false: "less"}[off > 0],
			),
		)
	}
	return out
}
