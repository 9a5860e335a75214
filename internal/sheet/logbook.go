package sheet

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/quantity"
)

// LogLine is a cook in the logbook.
type LogLine struct {
	ID     string   `json:"id"`
	Name   string   `json:"name"`
	Day    string   `json:"day"`
	Over   bool     `json:"over" doc:"The cook has said that it is over"`
	Pieces []string `json:"pieces" nullable:"false"`
	Hours  string   `json:"hours" doc:"On the fire, of the one that took longest; may be empty"`
	Miss   string   `json:"miss" doc:"Against the forecast; may be empty"`
	Yield  string   `json:"yield" doc:"May be empty"`
	Score  string   `json:"score" doc:"From 1 to 5; may be empty"`
	How    string   `json:"how" doc:"Pit and wrap"`
	Note   string   `json:"note" doc:"What was to be changed next time; may be empty"`
}

// WriteLogLine says a cook in a line.
func WriteLogLine(id string, o logbook.Outcome) LogLine {
	out := LogLine{ID: id, Name: o.Name, Over: o.Finished, Pieces: []string{}}
	if day, err := time.Parse(time.DateOnly, o.Day); err == nil {
		out.Day = day.Format("Mon 2 Jan 2006")
	}
	var longest logbook.Piece
	var how []string
	for _, p := range o.Pieces {
		out.Pieces = append(out.Pieces, p.Label)
		if p.Hours > longest.Hours {
			longest = p
		}
		how = append(how, pitAndWrap(p))
		if len(p.Notes) > 0 && out.Note == "" {
			out.Note = p.Notes[len(p.Notes)-1]
		}
		if c, ok := cut.Find(p.Cut); ok && out.Yield == "" {
			if served := p.Served(c.BoneShare()); served > 0 {
				out.Yield = fmt.Sprintf("%.0f %%", 100*served)
			}
		}
	}
	out.How = strings.Join(slices.Compact(how), " · ")
	if longest.Hours > 0 {
		out.Hours, out.Miss = hours(longest.Hours), missed(longest)
	}
	if s := o.Score(); s > 0 {
		out.Score = fmt.Sprintf("%.1f", s)
	}
	return out
}

func pitAndWrap(p logbook.Piece) string {
	wrap := "no wrap"
	if p.Wrap != "none" {
		wrap = cmp.Or(wrapName(p.Wrap), p.Wrap)
	}
	return cmp.Or(p.PitName, p.PitKind, "pit") + ", " + wrap
}

// missed says how far the forecast was off.
func missed(p logbook.Piece) string {
	if p.Predicted.Mid <= 0 || p.Predicted.Mid > heat.Longest {
		return ""
	}
	d := p.Hours - p.Predicted.Mid
	if math.Abs(d) < 1.0/6 {
		return "as forecast"
	}
	return hours(math.Abs(d)) + map[bool]string{true: " longer than forecast", false: " shorter than forecast"}[d > 0]
}

// LogCompared are cooks beside one another.
type LogCompared struct {
	Axis   Axis            `json:"axis" doc:"Of what was read"`
	Cooks  []LogComparedOf `json:"cooks" nullable:"false"`
	Rows   []LogRow        `json:"rows" nullable:"false" doc:"Point by point; a row has as many texts as there are cooks"`
	Missed []string        `json:"missed" nullable:"false" doc:"Cooks that cannot be compared, in words"`
	Unlike string          `json:"unlike,omitempty" doc:"Why their times cannot be compared; empty where they are of one cut"`
}

// LogComparedOf is a cook among those that are compared.
type LogComparedOf struct {
	ID    string      `json:"id"`
	Label string      `json:"label"`
	Read  []ReadPoint `json:"read" nullable:"false"`
	OffH  float64     `json:"off_h"`
}

// LogRow is a point of a comparison.
type LogRow struct {
	Label   string   `json:"label"`
	Texts   []string `json:"texts" nullable:"false"`
	Differs bool     `json:"differs"`
	Result  bool     `json:"result" doc:"It came out so; else it was done so"`
}

// mostPoints is how many points a curve is drawn with.
const mostPoints = 160

// WriteCompared says cooks beside one another: of each the piece of the same cut as the first one's,
// or else its first one.
func WriteCompared(all []logbook.Beside, as Reader) LogCompared {
	w := writer{Reader: as}
	out := LogCompared{Cooks: []LogComparedOf{}, Rows: []LogRow{}, Missed: []string{}}
	var drawn []float64
	var pieces []logbook.Piece
	for _, b := range all {
		if len(b.Outcome.Pieces) == 0 {
			out.Missed = append(out.Missed, b.Outcome.Name+": nothing went on the fire")
			continue
		}
		p := b.Outcome.Pieces[0]
		for _, one := range b.Outcome.Pieces {
			if len(pieces) > 0 && one.Cut == pieces[0].Cut {
				p = one
				break
			}
		}
		pieces = append(pieces, p)
		line := LogComparedOf{ID: b.ID, Label: b.Outcome.Name, Read: w.readOf(b.Course, p), OffH: p.Hours}
		out.Cooks = append(out.Cooks, line)
		drawn = append(drawn, cores(line.Read)...)
	}
	out.Axis = w.axis(60, drawn...)
	w.compared(&out, pieces)
	if slices.ContainsFunc(pieces, func(p logbook.Piece) bool { return p.Cut != pieces[0].Cut }) {
		out.Unlike = "These are different cuts: compare how they were made and how they tasted, not how long they took."
	}
	return out
}

// readOf is what was read of the core of a piece from when it went on until it came off.
func (w writer) readOf(course facts.Course, p logbook.Piece) []ReadPoint {
	out := []ReadPoint{}
	on, err := time.Parse(time.RFC3339, p.On)
	if err != nil {
		return out
	}
	until := on.Add(40 * time.Hour)
	if off, err := time.Parse(time.RFC3339, p.Off); err == nil {
		until = off
	}
	probes := course.Of(func(at facts.Probe) bool { return at.Piece == p.Key })
	if len(probes) == 0 {
		return out
	}
	for _, m := range course[probes[0]] { // one place of each is enough to compare
		if !m.At.Before(on) && !m.At.After(until) {
			out = append(out, ReadPoint{math.Round(1000*m.At.Sub(on).Hours()) / 1000, w.degrees(float64(m.Last))})
		}
	}
	if step := 1 + len(out)/mostPoints; step > 1 {
		thin := out[:0:0]
		for i := 0; i < len(out); i += step {
			thin = append(thin, out[i])
		}
		return append(thin, out[len(out)-1])
	}
	return out
}

// compared puts in the points of a comparison.
func (w writer) compared(out *LogCompared, pieces []logbook.Piece) {
	add := func(label string, result bool, text func(logbook.Piece) string) {
		row := LogRow{Label: label, Result: result, Texts: []string{}}
		any := false
		for _, p := range pieces {
			t := text(p)
			any = any || t != ""
			row.Texts = append(row.Texts, t)
		}
		row.Differs = len(slices.Compact(slices.Sorted(slices.Values(row.Texts)))) > 1
		if any {
			out.Rows = append(out.Rows, row)
		}
	}
	when := func(v bool, text string) string {
		if v {
			return text
		}
		return ""
	}
	add("Cut", false, func(p logbook.Piece) string { return p.Label })
	add(
		"Trimmed weight",
		false,
		func(p logbook.Piece) string { return quantity.FormatMass(quantity.Mass(p.GreenKG), w.Units) },
	)
	add(
		"Thickest point",
		false,
		func(p logbook.Piece) string { return quantity.FormatLength(quantity.Length(p.MM/1000), w.Units) },
	)
	add("Pit", false, func(p logbook.Piece) string { return cmp.Or(p.PitName, p.PitKind) })
	add("Set to", false, func(p logbook.Piece) string { return when(p.SetC > 0, w.short(p.SetC)) })
	add("The pit ran", false, func(p logbook.Piece) string {
		return when(
			p.AirN > 0,
			map[bool]string{true: w.gap(math.Abs(p.AirOffC)) + " hotter",
				false: w.gap(math.Abs(p.AirOffC)) + " cooler"}[p.AirOffC > 0],
		)
	})
	add("Wrap", false, func(p logbook.Piece) string { return when(p.Wrap != "none", cmp.Or(wrapName(p.Wrap), p.Wrap)) })
	add("Rub", false, func(p logbook.Piece) string { return p.Formula })
	add(
		"Salt in the raw meat",
		false,
		func(p logbook.Piece) string { return when(p.Salt > 0, fmt.Sprintf("%.2f %%", p.Salt)) },
	)
	add("Forecast", true, func(p logbook.Piece) string { return when(p.Predicted.Mid > 0, hours(p.Predicted.Mid)) })
	add("On the fire", true, func(p logbook.Piece) string { return when(p.Hours > 0, hours(p.Hours)) })
	add("Moves", false, func(p logbook.Piece) string { return w.made(p.Made) })
	add("Highest core", true, func(p logbook.Piece) string { return when(p.CoreC > 0, w.short(p.CoreC)) })
	add("On the plates", true, func(p logbook.Piece) string {
		c, _ := cut.Find(p.Cut)
		served := p.Served(c.BoneShare())
		return when(served > 0, fmt.Sprintf("%.0f %%", 100*served))
	})
	for _, aspect := range facts.Aspects {
		add(aspectWords[aspect][0], true, func(p logbook.Piece) string {
			mean, ok := p.Mean(aspect)
			return when(ok, aspectWords[aspect][min(5, max(1, int(math.Round(mean))))])
		})
	}
	add("To change next time", true, func(p logbook.Piece) string { return strings.Join(p.Notes, " ") })
}

// made says what was done to a piece, with how long after it went on.
func (w writer) made(all []logbook.Made) string {
	var out []string
	for _, m := range all {
		one := pressed(m.What)
		switch {
		case m.SetC != 0:
			one = "Pit set to " + w.short(m.SetC)
		case m.With != "" && m.With != "none":
			one += " in " + wrapName(m.With)
		}
		from := duration(time.Duration(m.FromH * float64(time.Hour)).Round(5 * time.Minute))
		if m.Times > 1 {
			one += fmt.Sprintf(" %d times, first", m.Times)
		}
		out = append(out, one+" after "+from)
	}
	return strings.Join(out, "; ")
}

// Trends are what many cooks show together.
type Trends struct {
	Cuts   []TrendLine `json:"cuts" nullable:"false"`
	Salt   []SaltPoint `json:"salt" nullable:"false" doc:"Salt and how it was liked, cook by cook"`
	Nearer string      `json:"nearer" doc:"How often forecasts held, and how far they and the cook's own guesses were off; may be empty"`
}

// TrendLine is what the cooks of a cut show.
type TrendLine struct {
	Cut   string `json:"cut"`
	Cooks int    `json:"cooks"`
	Yield string `json:"yield" doc:"Served meat of the trimmed weight; may be empty"`
	Pace  string `json:"pace" doc:"Minutes on the fire for each millimetre of thickness; may be empty"`
	Off   string `json:"off" doc:"How far forecasts were off; may be empty"`
}

// SaltPoint is how salty a piece was, and how that was liked.
type SaltPoint struct {
	Percent float64 `json:"percent"`
	Score   float64 `json:"score" doc:"3 is just right"`
	Label   string  `json:"label"`
}

// mean is the middle of some values, with the smallest and the largest.
func mean(v []float64) (mid, low, high float64) {
	for _, x := range v {
		mid += x / float64(len(v))
	}
	return mid, slices.Min(v), slices.Max(v)
}

// kept is how well forecasts kept their word.
type kept struct {
	before, early inBand
	miss, guessed []float64 // ln
}

// inBand is in how many the end lay in the band.
type inBand struct{ in, of int }

func (b *inBand) add(hours float64, band logbook.Band) {
	b.of++
	if band.Low <= hours && hours <= band.High {
		b.in++
	}
}

func (k *kept) add(p logbook.Piece) {
	if p.Hours <= 0 || p.Predicted.Mid <= 0 || p.Predicted.High <= p.Predicted.Low { // a sketch has no band
		return
	}
	k.before.add(p.Hours, p.Predicted)
	k.miss = append(k.miss, math.Abs(p.Late()))
	if p.AfterTwo != nil {
		k.early.add(p.Hours, *p.AfterTwo)
	}
	if p.GuessH > 0 {
		k.guessed = append(k.guessed, math.Abs(p.Guessed()))
	}
}

// words say how good the forecasts were, beside the cook's guesses.
func (k kept) words() string {
	if k.before.of == 0 {
		return ""
	}
	half := func(v []float64) float64 {
		slices.Sort(v)
		return 100 * (math.Exp(v[len(v)/2]) - 1)
	}
	out := fmt.Sprintf("%d of %d pieces were off within the hours that were forecast before they went on; eight in ten should.",
		k.before.in, k.before.of)
	if k.early.of > 0 {
		out += fmt.Sprintf(" After two hours of readings it was %d of %d.", k.early.in, k.early.of)
	}
	out += fmt.Sprintf(" Half of the forecasts were off by less than %.0f %%", half(k.miss))
	if len(k.guessed) > 0 {
		out += fmt.Sprintf(", half of your guesses by less than %.0f %%", half(k.guessed))
	}
	return out + "."
}

// WriteTrends says what many cooks show together.
func WriteTrends(all []logbook.Outcome, as Reader) Trends {
	w := writer{Reader: as}
	out := Trends{Cuts: []TrendLine{}, Salt: []SaltPoint{}}
	by := map[string][]logbook.Piece{}
	var misses kept
	for _, c := range all {
		for _, p := range c.Pieces {
			by[p.Cut] = append(by[p.Cut], p)
			if score, ok := p.Mean("salt"); ok && p.Salt > 0 {
				out.Salt = append(out.Salt, SaltPoint{math.Round(100*p.Salt) / 100, score, p.Label + ", " + c.Day})
			}
			misses.add(p)
		}
	}
	for id, pieces := range by {
		out.Cuts = append(out.Cuts, w.trend(id, pieces))
	}
	slices.SortFunc(out.Cuts, func(a, b TrendLine) int { return cmp.Or(b.Cooks-a.Cooks, strings.Compare(a.Cut, b.Cut)) })
	out.Nearer = misses.words()
	return out
}

func (w writer) trend(id string, pieces []logbook.Piece) TrendLine {
	c, known := cut.Find(id)
	if !known {
		c.Name = id
	}
	out := TrendLine{Cut: field.Capital(c.Name), Cooks: len(pieces)}
	var yields, paces, offs []float64
	for _, p := range pieces {
		if served := p.Served(c.BoneShare()); served > 0 {
			yields = append(yields, 100*served)
		}
		if p.Hours > 0 && p.MM >= 1 {
			paces = append(paces, 60*p.Hours/p.MM)
		}
		if p.Hours > 0 && p.Predicted.Mid > 0 {
			offs = append(offs, math.Abs(p.Late()))
		}
	}
	between := func(v []float64, format string) string {
		if len(v) == 0 {
			return ""
		}
		mid, low, high := mean(v)
		if len(v) == 1 {
			return fmt.Sprintf(format, mid)
		}
		return fmt.Sprintf(format+" ("+format+"–"+format+")", mid, low, high)
	}
	out.Yield = strings.ReplaceAll(between(yields, "%.0f"), " (", " % (")
	if out.Yield != "" && len(yields) == 1 {
		out.Yield += " %"
	}
	out.Pace = between(paces, "%.1f")
	if len(offs) > 0 {
		mid, _, _ := mean(offs)
		out.Off = fmt.Sprintf("%.0f %%", 100*(math.Exp(mid)-1))
	}
	return out
}
