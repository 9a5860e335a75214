// Package starter makes pages to begin with.
//
//	page := starter.New(time.Now(), 8)
//	page.Pieces = append(page.Pieces, starter.NewPiece(shoulder, quantity.Metric))
package starter

import (
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
)

// NewPiece returns a piece of c at its usual weight, seasoned with the first of the
// formulas that ship with the program, or with nothing when it is salted already.
func NewPiece(c cut.Cut, units quantity.System) cook.Piece {
	first := formula.ReadyMade()[0]
	if c.NativeSalt > 0 { // a sausage needs no more
		first = formula.Formula{Basis: formula.ByVolume, Rows: []formula.Row{}}
	}
	return cook.Piece{
		Cut: c.ID, Count: "1", TrimStyle: "usual",
		Bought: quantity.FormatMass(quantity.Mass(c.TypicalKG/(1-c.TrimLoss.Mid/100)), units),
		Season: cook.Season{Formula: first, Target: cook.UsualTarget, Coat: cook.UsualCoat, Band: cook.UsualBand},
		Wait:   cook.Wait{Style: cook.UsualStyle, Open: true},
	}
}

// New returns an empty page for a Saturday evening ahead of now, which also gives
// the time zone.
func New(now time.Time, guests int) cook.Cook {
	days := (int(time.Saturday) - int(now.Weekday()) + 7) % 7
	if days < 2 {
		days += 7
	}
	day := now.AddDate(0, 0, days)
	serve := time.Date(day.Year(), day.Month(), day.Day(), 18, 30, 0, 0, now.Location())
	return cook.Cook{
		ServeAt: serve.Format(cook.TimeLayout),
		Zone:    now.Location().String(),
		Guests:  quantity.CountOf(guests),
		Pieces:  []cook.Piece{},
	}
}

// Example is a worked example to look at and to change: a shoulder for eight on a Saturday evening.
func Example(now time.Time, units quantity.System) cook.Cook {
	c := New(now, 8)
	c.Name = "A worked example"
	shoulder, _ := cut.Find("pork-shoulder-bone-in")
	p := NewPiece(shoulder, units)
	p.Key, p.Wait, p.Choices = "example", cook.Wait{
		Style: "overnight",
		For:   "12 h",
		Open:  true,
	}, map[string]string{
		"wrap": "paper",
		"rest": "cooler",
	}
	c.Pieces = []cook.Piece{p}
	return c
}

// Copy returns c for another occasion: the same pieces, no date, and a name that
// tells it from the first.
func Copy(c cook.Cook) cook.Cook {
	const mark = ", again"
	if !strings.HasSuffix(c.Name, mark) && len(c.Name)+len(mark) <= cook.MaxText {
		c.Name += mark
	}
	c.ServeAt, c.Wishes, c.Plan = "", nil, ""
	c.Pieces = slices.Clone(c.Pieces)
	for i := range c.Pieces {
		c.Pieces[i].ServeAt = ""
	}
	return c
}

// WithoutPit returns c without the pit numbered n: pieces on a later pit keep it, and
// those on it move to the one before.
func WithoutPit(c cook.Cook, n int) cook.Cook {
	if n < 0 || n >= len(c.Pits) {
		return c
	}
	c.Pits = slices.Delete(slices.Clone(c.Pits), n, n+1)
	c.Pieces = slices.Clone(c.Pieces)
	for i := range c.Pieces {
		if on := &c.Pieces[i].Fire.On; *on > n || *on >= max(1, len(c.Pits)) {
			*on = max(0, *on-1)
		}
	}
	return c
}
