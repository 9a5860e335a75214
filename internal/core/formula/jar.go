package formula

import (
	"fmt"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Jar is a batch made ahead, as typed, and what was taken from it.
type Jar struct {
	Formula Formula `json:"formula" doc:"As it was when it was made"`
	Made    string  `json:"made" doc:"Day it was made, YYYY-MM-DD; a new jar may leave it empty for today" example:"2026-11-01"`
	Amount  string  `json:"amount" doc:"How much was made" example:"250 g"`
	Note    string  `json:"note" required:"false"`
	Draws   []Draw  `json:"draws" required:"false" nullable:"false"`
}

// Draw is some of a jar taken out.
type Draw struct {
	ID     string `json:"id,omitempty" required:"false" maxLength:"60" doc:"Given when it is taken"`
	Amount string `json:"amount" doc:"How much" example:"60 g"`
	For    string `json:"for" required:"false" doc:"What it went on"`
	Day    string `json:"day" doc:"When, YYYY-MM-DD"`
}

// Numbered returns j with an id for every draw that has none: its place, which is how
// draws were told apart before they had ids. j is not changed.
func (j Jar) Numbered() Jar {
	j.Draws = slices.Clone(j.Draws)
	for i := range j.Draws {
		if j.Draws[i].ID == "" {
			j.Draws[i].ID = fmt.Sprint("draw-", i+1)
		}
	}
	return j
}

// Is reports whether two draws are the same one.
func (d Draw) Is(other Draw) bool { return d.ID == other.ID }

// JarStand is how a jar stands.
type JarStand struct {
	Made    quantity.Mass
	Left    quantity.Mass
	UseBy   time.Time
	Keep    string // how it keeps: dry, salty or fresh
	Over    bool   // past its use-by
	Soon    bool   // within two weeks of it, or the last third of its time
	Mix     Mix
	Taken   []quantity.Mass
	MadeDay time.Time
}

const dayLayout = "2006-01-02"

// Years that a jar can be of.
const firstYear, lastYear = 2000, 2100

// maxDraws bounds what is taken from one jar.
const maxDraws = 500

// Keeping says how long a mix keeps, and how: dry (dark and closed), salty (salty or
// sour, in the fridge) or fresh (in the fridge, like leftovers). Dry ground spice keeps its flavour
// about half a year (field judgement); what is wet and neither salty nor sour is
// held to the three days that leftovers keep at 4 °C (USDA FSIS: three to four),
// and to two weeks when at least a tenth is salt or a fortieth is acid (field
// judgement). Garlic, herbs and fruit in it shorten all of these.
func (m Mix) Keeping() (days int, how string) {
	water := m.Per100g.Water
	switch {
	case water < 15:
		return 180, "dry"
	case m.Per100g.Salt >= 10 || m.Per100g.Acid >= 2.5:
		return 14, "salty"
	default:
		return 3, "fresh"
	}
}

// Stand works out how j stands at now. Mistakes come back with pointers into j. At the zero time no day
// is still to come, and nothing is over.
func (j Jar) Stand(own Lookup, now time.Time) (JarStand, field.Errors) {
	var errs field.Errors
	var s JarStand
	mix, wrong := Blend(j.Formula, own)
	errs.Put("/formula", wrong)
	s.Mix = mix
	amount := func(pointer, typed string) quantity.Mass {
		a, err := quantity.ParseAmount(typed, false, j.Formula.Spoons)
		errs.Take(pointer, err)
		return a.Of(mix.GramsPerML)
	}
	var err error
	if s.MadeDay, err = time.ParseInLocation(dayLayout, j.Made, now.Location()); err != nil {
		errs.Add("/made", "date.unreadable")
	} else if y := s.MadeDay.Year(); y < firstYear || y > lastYear {
		errs.Add("/made", "time.year", "first", firstYear, "last", lastYear)
	} else if !now.IsZero() && s.MadeDay.After(now.AddDate(0, 0, 1)) {
		errs.Add("/made", "date.future")
	}
	errs.Text("/note", j.Note, maxNote)
	if len(errs) > 0 {
		return s, errs
	}
	if s.Made = amount("/amount", j.Amount); len(errs) == 0 && (s.Made < 0.001 || s.Made > 100) {
		errs.Add("/amount", "mass.range", "low", quantity.Gram, "high", quantity.Mass(100))
	}
	if len(j.Draws) > maxDraws {
		errs.Add("/draws", "jar.too-many-draws", "most", maxDraws)
		return s, errs
	}
	s.Left = s.Made
	for i, d := range j.Draws {
		m := amount(fmt.Sprintf("/draws/%d/amount", i), d.Amount)
		errs.Text(fmt.Sprintf("/draws/%d/for", i), d.For, maxName)
		if day, err := time.ParseInLocation(dayLayout, d.Day, now.Location()); err != nil {
			errs.Add(fmt.Sprintf("/draws/%d/day", i), "date.unreadable")
		} else if !now.IsZero() && day.After(now.AddDate(0, 0, 1)) {
			errs.Add(fmt.Sprintf("/draws/%d/day", i), "date.future")
		}
		if len(errs) == 0 && m > s.Left+0.00005 {
			errs.Add(fmt.Sprintf("/draws/%d/amount", i), "jar.too-little", "left", s.Left)
		}
		s.Taken = append(s.Taken, m)
		s.Left = quantity.Mass(math.Max(0, float64(s.Left-m)))
	}
	var days int
	days, s.Keep = mix.Keeping()
	s.UseBy = s.MadeDay.AddDate(0, 0, days)
	s.Over = now.After(s.UseBy.AddDate(0, 0, 1))
	s.Soon = !s.Over && s.UseBy.Sub(now) < min(s.UseBy.Sub(s.MadeDay)/3, 14*24*time.Hour)
	return s, errs
}

// Give is what of a need the jar can give, and what it falls short.
func (s JarStand) Give(need quantity.Mass) (give, short quantity.Mass) {
	give = min(s.Left, need)
	if short = need - give; short < 0.05*quantity.Gram {
		short = 0
	}
	return give, short
}
