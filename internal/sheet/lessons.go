package sheet

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/logbook"
)

// LessonLine is something that was learnt.
type LessonLine struct {
	ID    string `json:"id"`
	Text  string `json:"text" doc:"In a sentence, with how many cooks it rests on"`
	Range string `json:"range" doc:"In what range it likely is: eight in ten"`
	Cooks int    `json:"cooks"`
}

// LessonsSheet is what was learnt from the logbook.
type LessonsSheet struct {
	Lines   []LessonLine `json:"lines" nullable:"false" doc:"Empty while no cook is over"`
	Without []LessonCook `json:"without" nullable:"false" doc:"Cooks that are left out"`
	Since   string       `json:"since" doc:"Cooks from before that day teach nothing; else empty"`
}

// LessonCook is a cook that is left out.
type LessonCook struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// cooks says how many cooks something rests on.
func cooks(n int) string {
	if n == 1 {
		return "one cook-out"
	}
	return fmt.Sprintf("%d cook-outs", n)
}

// WriteLessons says what was learnt.
func WriteLessons(b logbook.Lessons, as Reader) []LessonLine {
	w := writer{Reader: as}
	out := []LessonLine{}
	for _, id := range slices.SortedFunc(maps.Keys(b.Pits), func(x,
		y string) int {
		return b.Pits[y].Off.Cooks - b.Pits[x].Off.Cooks
	}) {
		p := b.Pits[id]
		if p.Off.Cooks > 0 {
			runs := field.Capital(w.runs(p)) + "."
			out = append(out, LessonLine{"off:" + id, runs, w.gap2(p.Off.Low(), p.Off.High()), p.Off.Cooks})
		}
		if p.Pace.Cooks > 0 && math.Abs(p.Pace.Mid) > 0.02 {
			out = append(out, LessonLine{"pace:" + id, field.Capital(paces(p)) + ".", percents(p.Pace), p.Pace.Cooks})
		}
	}
	ofCuts := func(kind string, lessons map[string]logbook.Lesson, least float64, usual, other string) {
		for _, id := range slices.Sorted(maps.Keys(lessons)) {
			l := lessons[id]
			c, _ := cut.Find(id)
			text := fmt.Sprintf(usual, c.Name, cooks(l.Cooks))
			if math.Abs(l.Mid) >= least {
				text = fmt.Sprintf(other, c.Name, moreOrLess(l.Mid), cooks(l.Cooks))
			}
			out = append(out, LessonLine{kind + ":" + id, text, percents(l), l.Cooks})
		}
	}
	ofCuts("yield", b.Yields, 0.015, "Your %s gives about what is usual (from %s).",
		"Your %s gives %s meat on the plates than is usual (from %s).")
	ofCuts("soft", b.Tender, 0.03, "Your %s is soft about when it usually is (from %s).",
		"Your %s takes %s time at a high core than is usual until it is soft (from %s).")
	if b.Coat.Cooks > 0 {
		out = append(
			out,
			LessonLine{
				"coat",
				fmt.Sprintf("You put %s rub on than the sheet says (from %s).", moreOrLess(b.Coat.Mid), cooks(b.Coat.Cooks)),
				percents(b.Coat),
				b.Coat.Cooks,
			},
		)
	}
	if b.Salt.Cooks > 0 {
		out = append(
			out,
			LessonLine{
				"salt",
				fmt.Sprintf(
					"Salt is just right for your table at about %.2f %% of the raw meat (from %s).",
					b.Salt.Mid,
					cooks(b.Salt.Cooks),
				),
				fmt.Sprintf("%.2f–%.2f %%", b.Salt.Low(), b.Salt.High()),
				b.Salt.Cooks,
			},
		)
	}
	return out
}

// runs says how a pit runs: "the Kettle runs 11 °C hotter than it is set to (from 3 cook-outs)".
func (w writer) runs(p logbook.PitLessons) string {
	if math.Abs(p.Off.Mid) < 1 {
		return fmt.Sprintf("the %s keeps to what it is set to (from %s)", p.Name, cooks(p.Off.Cooks))
	}
	return fmt.Sprintf(
		"the %s runs %s %s than it is set to (from %s)",
		p.Name,
		w.gap(math.Abs(p.Off.Mid)),
		map[bool]string{true: "hotter", false: "cooler"}[p.Off.Mid > 0],
		cooks(p.Off.Cooks),
	)
}

// paces says how fast a pit cooks: "your last 6 cook-outs on the Kettle went 9 % slower than forecast".
func paces(p logbook.PitLessons) string {
	by := 100 * (math.Exp(p.Pace.Mid) - 1)
	return fmt.Sprintf(
		"your last %s on the %s went %.0f %% %s than its temperature explains",
		cooks(p.Pace.Cooks),
		p.Name,
		math.Abs(by),
		map[bool]string{true: "slower", false: "faster"}[by > 0],
	)
}

// gap2 is a range of differences of temperature, with their signs.
func (w writer) gap2(low, high float64) string {
	sign := func(v float64) string { return map[bool]string{true: "+", false: "−"}[v >= 0] + w.gap(math.Abs(v)) }
	return sign(low) + " to " + sign(high)
}

// moreOrLess says a factor, ln, as so much more or less.
func moreOrLess(ln float64) string {
	by := 100 * (math.Exp(ln) - 1)
	return fmt.Sprintf("%.0f %% %s", math.Abs(by), map[bool]string{true: "more", false: "less"}[by > 0])
}

// percents is the range of a factor, ln.
func percents(l logbook.Lesson) string {
	return strings.ReplaceAll(
		fmt.Sprintf("%+.0f to %+.0f %%", 100*(math.Exp(l.Low())-1), 100*(math.Exp(l.High())-1)),
		"-",
		"−",
	)
}

// allows says what earlier cooks tell of the pits of a cook, since its forecast allows for it.
func (w writer) allows(b logbook.Lessons, pits []cook.Pit) []string {
	out := []string{}
	for _, p := range pits {
		if known, ok := b.Pits[p.ID]; ok && p.ID != "" && known.Off.Cooks > 0 {
			text := field.Capital(w.runs(known))
			if math.Abs(known.Pace.Mid) > 0.02 {
				text += "; " + paces(known)
			}
			out = append(out, text+": the forecast allows for it.")
		}
	}
	return slices.Compact(out)
}
