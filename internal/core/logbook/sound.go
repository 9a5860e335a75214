package logbook

import (
	"math"
	"slices"
	"time"
	"unicode/utf8"
)

// Bounds of what may be kept of a cook: texts in characters, weights of all pieces in kg, times in hours
// (one that never ends is forecast as very long), temperatures in °C, thickness in mm. They are far beyond
// any cook, and keep figures out that cannot be worked with.
const (
	mostText   = 1000
	mostPieces = 24
	mostLines  = 5000 // notes and scores of a piece: each is a fact
	mostKG     = 1e6
	mostHours  = 1e6
	hottestC   = 1000
	mostMM     = 1e4
	mostShare  = 100
	mostPace   = 100 // ln
	mostCount  = 1e5
	mostAir    = 1e7
)

// Sound reports whether every figure of c is one that a cook can have.
func (c Outcome) Sound() bool {
	if len(c.Pieces) > mostPieces || !short(c.Name, c.Weather) || !dated(time.DateOnly, c.Day) ||
		!dated(time.RFC3339, c.ServeAt, c.ServedAt) ||
		!noted(c.Notes) {
		return false
	}
	for _, p := range c.Pieces {
		if !p.sound() {
			return false
		}
	}
	return true
}

func (p Piece) sound() bool {
	if !short(p.Key, p.Label, p.Cut, p.Finish, p.PitID, p.PitKind, p.PitName, p.Formula, p.Wrap) || !noted(p.Notes) ||
		len(p.Scores) > mostLines ||
		len(p.Asked) > 10 ||
		!short(p.Asked...) {
		return false
	}
	if len(p.Made) > MostMade || slices.ContainsFunc(p.Made, func(m Made) bool { return !m.sound() }) {
		return false
	}
	for _, s := range p.Scores {
		if !short(s.Aspect, s.By) || s.Value < 1 || s.Value > 5 {
			return false
		}
	}
	return dated(time.RFC3339, p.On, p.Off, p.Sliced, p.Chilled, p.Cold) && p.Count >= 0 && p.Count <= mostCount &&
		within(0, mostKG, p.GreenKG, p.CookedKG, p.BonesKG, p.KeptKG, p.MixedKG, p.LeftKG, p.RubKG) &&
		within(0, mostHours, p.Hours, p.Predicted.Low, p.Predicted.Mid, p.Predicted.High, p.GuessH) &&
		within(
			-hottestC,
			hottestC,
			p.SetC,
			p.AirOffC,
			p.CoreC,
		) && within(0, mostMM, p.MM) && within(0, mostShare, p.Yield.Low, p.Yield.Mid, p.Yield.High, p.Salt) &&
		within(-mostPace, mostPace, p.Pace, p.Tender) &&
		(p.AfterTwo == nil || within(0, mostHours, p.AfterTwo.Low, p.AfterTwo.Mid, p.AfterTwo.High)) &&
		p.AirN >= 0 && p.AirN <= mostAir
}

func (m Made) sound() bool {
	return short(m.What, m.With) && m.Times >= 1 && m.Times <= mostCount && within(0, mostHours, m.FromH) &&
		within(-hottestC, hottestC, m.SetC)
}

func short(texts ...string) bool {
	for _, t := range texts {
		if utf8.RuneCountInString(t) > mostText {
			return false
		}
	}
	return true
}

func noted(notes []string) bool { return len(notes) <= mostLines && short(notes...) }

// dated reports whether these are empty, or times that a log can be of.
func dated(layout string, texts ...string) bool {
	for _, text := range texts {
		if text == "" {
			continue
		}
		if t, err := time.Parse(layout, text); err != nil || t.Year() < 2000 || t.Year() > 2100 {
			return false
		}
	}
	return true
}

func within(low, high float64, all ...float64) bool {
	for _, v := range all {
		if math.IsNaN(v) || v < low || v > high {
			return false
		}
	}
	return true
}
