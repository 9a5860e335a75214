package sheet_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/live"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/retelling"
	"verjuice/internal/sheet"
)

// past is a cook of one piece that is over.
func past(name string, change func(*logbook.Piece)) logbook.Outcome {
	p := logbook.Piece{
		Key: "a", Label: "pork loin, boneless", Cut: "pork-loin", PitName: "Kettle", PitKind: "kettle", Wrap: "none",
		GreenKG: 1.8, On: "2026-11-14T12:00:00Z", Off: "2026-11-14T14:30:00Z",
		Hours: 2.5, Predicted: logbook.Band{Low: 1.5, Mid: 2, High: 3}, CookedKG: 1.44, Yield: logbook.Band{Mid: 0.82},
		Salt: 0.9, MM: 80, SetC: 120, Scores: []logbook.Score{{Aspect: "salt", Value: 4}},
		Notes: []string{"First.", "Off at 60."},
	}
	change(&p)
	return logbook.Outcome{Name: name, Day: "2026-11-14", Finished: true, Pieces: []logbook.Piece{p}}
}

// A line of the logbook says what it took, by how much that was missed, what was eaten, how it was
// liked and what was to be changed; what is not known is left out.
func TestALineOfTheLogbook(t *testing.T) {
	l := sheet.WriteLogLine("id", past("Sunday loin", func(*logbook.Piece) {}))
	assert.Equal(t, "Sat 14 Nov 2026", l.Day)
	assert.Equal(
		t,
		[]string{"2 h 30", "30 min longer than forecast", "80 %", "Kettle, no wrap", "Off at 60."},
		[]string{strings.ReplaceAll(l.Hours, "2½ h", "2 h 30"), l.Miss, l.Yield, l.How, l.Note},
	)
	assert.Equal(t, "3.0", l.Score)
	quick := sheet.WriteLogLine("id", past("", func(p *logbook.Piece) { p.Hours = 1.5 }))
	assert.Equal(t, "30 min shorter than forecast", quick.Miss)
	bare := sheet.WriteLogLine("id", past("", func(p *logbook.Piece) {
		p.Hours, p.Predicted, p.CookedKG, p.Scores, p.Notes, p.PitName, p.Wrap = 0, logbook.Band{}, 0, nil, nil, "", "foil"
	}))
	assert.Equal(
		t,
		[]string{"", "", "", "", "", "kettle, foil"},
		[]string{bare.Hours, bare.Miss, bare.Yield, bare.Score, bare.Note, bare.How},
	)
	assert.NotPanics(t, func() { sheet.WriteLogLine("id", logbook.Outcome{}) })
}

// Cooks are compared on the piece of the same cut, on a common clock, with a text for each in each
// row; what is alike is not told as a difference.
func TestComparedPointByPoint(t *testing.T) {
	course := facts.Course{}
	on := time.Date(2026, 11, 14, 12, 0, 0, 0, time.UTC)
	for m := range 400 {
		course.Add(facts.Reading{Probe: "core:a", At: on.Add(time.Duration(m-30) * time.Minute), C: quantity.Celsius(m)})
	}
	other := past("Other", func(p *logbook.Piece) { p.Wrap, p.Hours = "paper", 2 })
	other.Pieces = append([]logbook.Piece{{Key: "z", Cut: "lamb-leg"}}, other.Pieces...)
	got := sheet.WriteCompared(
		[]logbook.Beside{
			{ID: "1", Outcome: past("One", func(*logbook.Piece) {}), Course: course},
			{ID: "2", Outcome: other, Course: course},
			{ID: "3", Outcome: logbook.Outcome{Name: "Nothing"}},
		},
		sheet.Reader{Units: quantity.US},
	)
	require.Len(t, got.Cooks, 2)
	assert.Equal(t, []string{"Nothing: nothing went on the fire"}, got.Missed)
	assert.Equal(t, "°F", got.Axis.Unit)
	first := got.Cooks[0].Read
	assert.GreaterOrEqual(t, first[0].H, 0.0, "from when it went on")
	assert.LessOrEqual(t, first[len(first)-1].H, 2.5, "until it came off")
	differs := map[string]bool{}
	for _, r := range got.Rows {
		require.Len(t, r.Texts, 2, r.Label)
		differs[r.Label] = r.Differs
	}
	assert.True(t, differs["Wrap"])
	assert.True(t, differs["On the fire"])
	assert.False(t, differs["Cut"])
	assert.False(t, differs["Set to"])
	assert.Empty(t, sheet.WriteCompared(nil, sheet.Reader{}).Rows)
}

// Trends hold every cook of a cut once, with its ends; a cut of one cook has no range.
func TestTrends(t *testing.T) {
	all := []logbook.Outcome{
		past("", func(*logbook.Piece) {}),
		past("", func(p *logbook.Piece) { p.CookedKG, p.GuessH = 1.35, 2 }),
		past("", func(p *logbook.Piece) { p.Cut, p.CookedKG = "lamb-leg-bone-in", 0 }),
	}
	got := sheet.WriteTrends(all, sheet.Reader{})
	require.Len(t, got.Cuts, 2)
	assert.Equal(t, 2, got.Cuts[0].Cooks)
	assert.Equal(t, "78 % (75–80)", got.Cuts[0].Yield)
	assert.Equal(t, "1.9 (1.9–1.9)", got.Cuts[0].Pace)
	assert.Equal(t, []string{"", "1.9"}, []string{got.Cuts[1].Yield, got.Cuts[1].Pace})
	assert.Len(t, got.Salt, 3)
	told := func(hours, guess float64) logbook.Outcome {
		return past("", func(p *logbook.Piece) {
			p.Hours, p.GuessH, p.Predicted = hours, guess, logbook.Band{Low: 3, Mid: 4, High: 5}
			if hours > 3 {
				p.AfterTwo = &logbook.Band{Low: 3.5, Mid: 4, High: 4.5}
			}
		})
	}
	got = sheet.WriteTrends([]logbook.Outcome{told(4, 3), told(4.8, 4.8), told(2.5, 0)}, sheet.Reader{})
	assert.Equal(t, "2 of 3 pieces were off within the hours that were forecast before they went on; eight in ten should. "+
		"After two hours of readings it was 1 of 2. Half of the forecasts were off by less than 20 %, "+
		"half of your guesses by less than 33 %.", got.Nearer)
}

// A lesson says what it is, which way, and how many cooks it rests on, in either kind of units.
func TestLessonsInWords(t *testing.T) {
	b := logbook.Lessons{
		Pits: map[string]logbook.PitLessons{
			"k": {
				Name: "Kettle",
				Off:  logbook.Lesson{Mid: -7, SD: 1, Cooks: 6},
				Pace: logbook.Lesson{Mid: 0.09, SD: 0.05, Cooks: 4},
			},
		},
		Yields: map[string]logbook.Lesson{
			"pork-loin":        {Mid: -0.05, SD: 0.02, Cooks: 1},
			"lamb-leg-bone-in": {Mid: 0.001, SD: 0.02, Cooks: 2},
		},
		Coat: logbook.Lesson{Mid: 0.18, SD: 0.05, Cooks: 3}, Salt: logbook.Lesson{Mid: 0.92, SD: 0.05, Cooks: 9},
	}
	texts := ""
	for _, l := range sheet.WriteLessons(b, sheet.Reader{}) {
		texts += l.Text + "|" + l.Range + "\n"
	}
	for _, want := range []string{
		"The Kettle runs 7\u00a0°C cooler than it is set to (from 6 cook-outs).|−8\u00a0°C to −6\u00a0°C",
		"Your last 4 cook-outs on the Kettle went 9 % slower than its temperature explains.",
		"gives 5 % less meat on the plates than is usual (from one cook-out).",
		"gives about what is usual (from 2 cook-outs).", "You put 20 % more rub on than the sheet says (from 3 cook-outs).",
		"Salt is just right for your table at about 0.92 % of the raw meat (from 9 cook-outs).|0.86–0.98 %",
	} {
		assert.Contains(t, texts, want)
	}
	us := sheet.WriteLessons(b, sheet.Reader{Units: quantity.US})
	assert.Contains(t, us[0].Text, "13\u00a0°F cooler")
	assert.Empty(t, sheet.WriteLessons(logbook.Lessons{}, sheet.Reader{}))
	for _, off := range []float64{0.4, -0.4} {
		b.Pits["k"] = logbook.PitLessons{Name: "Kettle", Off: logbook.Lesson{Mid: off, SD: 1, Cooks: 6}}
		assert.Contains(t, sheet.WriteLessons(b, sheet.Reader{})[0].Text, "keeps to what it is set to")
	}
}

// What was true is told beside what was done: which way the pit ran, and what each other way would
// have cost or saved.
func TestTheTruthInWords(t *testing.T) {
	on := time.Date(2026, 11, 14, 7, 0, 0, 0, time.UTC)
	truth := live.Truth{
		Piece: "a", PitOff: -6, Thick: 1.12, Hot: 0.8, On: on, Off: on.Add(8 * time.Hour), TargetC: 95, CoreC: 90,
		ShownC: 95.4,
		Ways: []live.Way{
			{ID: "did", Hours: 9.5, Done: true},
			{ID: "planned", Hours: 9.4, Done: true},
			{ID: "bare", Hours: 12, Done: true},
			{ID: "hotter", Hours: 30},
		},
	}
	p := sheet.WriteDebrief([]live.Truth{truth}, sheet.Reader{}).Pieces[0]
	assert.Equal(
		t,
		[]string{
			"The pit ran 6\u00a0°C cooler than it was set to.",
			"The piece was 12 % thicker than you were told.",
			"The air in the pit gave 20 % less heat than is usual.",
		},
		p.Hidden,
	)
	assert.Contains(t, p.Did, "really at 90.0°; the probe showed 95.4°")
	assert.Contains(t, p.Did, "It needed 1 h 30 more")
	costs := []string{}
	for _, w := range p.Ways {
		costs = append(costs, w.Cost)
	}
	assert.Equal(t, []string{"", "about the same", "2 h 30 later", ""}, costs)
	assert.Equal(t, "never done", p.Ways[3].Time)
	truth.Off = on.Add(12 * time.Hour)
	assert.Contains(
		t,
		sheet.WriteDebrief([]live.Truth{truth}, sheet.Reader{}).Pieces[0].Did,
		"It was there 2 h 30 before.",
	)
	calm := live.Truth{Thick: 1, Hot: 1, Ways: []live.Way{{ID: "did", Hours: 8, Done: true}}}
	assert.Equal(
		t,
		[]string{"The pit kept to what it was set to."},
		sheet.WriteDebrief([]live.Truth{calm}, sheet.Reader{}).Pieces[0].Hidden,
	)
}

// What was told is said back as it is understood, with what is not.
func TestATaleSaidBack(t *testing.T) {
	on := time.Date(2026, 11, 14, 7, 0, 0, 0, time.UTC)
	c, _ := cut.Find("pork-shoulder-bone-in")
	told := retelling.Read(
		"68 C was read at 2 h; pit up to 275 F after 5 h; wrapped in paper an hour later, 71 C; pulled at 9 h; "+
			"spritzed every 30 to 40 min from hour two until hour four; it hummed loudly at noon; a fine day",
		retelling.Scene{On: on, Cut: c},
	)
	out := sheet.WriteTold(told, nil, sheet.Reader{})
	labels := []string{}
	for _, l := range out.Acts {
		labels = append(labels, fmt.Sprint(l.Time, " ", l.Label))
	}
	assert.Equal(
		t,
		[]string{
			"Sat 09:00 Core at 68\u00a0°C",
			"Sat 09:00 Spritzed, every 35 min until 11:00, give or take 5 min",
			"Sat 12:00 Pit set to 135\u00a0°C",
			"Sat 13:00 Wrapped in paper, core at 71\u00a0°C",
		},
		labels,
	)
	require.Len(t, out.Asks, 2)
	assert.Equal(t, "“pulled at 9 h”: pulled off the fire, or pulled apart?", out.Asks[0].Question)
	assert.Equal(t, []sheet.ToldOffer{
		{Text: "it was taken off the fire", Edit: "took it off at 9 h"}, {Text: "it was pulled apart",
			Edit: "pulled apart at 9 h"},
	}, out.Asks[0].Offers)
	assert.Equal(t, "hummed", out.Unread[0].Text)
	assert.Equal(t, []string{"a fine day"}, out.Notes)
}
