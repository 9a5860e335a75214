// Package experience says how long a piece takes on the fire by what cooks know of its cut:
// the stand-in for a heat model.
//
//	span := experience.Field{}.Fire(plan.Burn{Cut: shoulder, Thickness: g.Thickness, PitC: 120, Wrap: "none"})
//	span.Mid   // 11 h, give or take a fifth
package experience

import (
	"math"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
)

const five = 5 * time.Minute

// turning is the temperature, °C, towards which the pit drives the meat: the gap
// between it and the pit sets the pace.
const turning = 60.0

// thicker is the power of the thickness with which the time on the fire grows.
const thicker = 1.2

// FireTime estimates the time on the fire from the cut's usual one: it grows as
// thickness to the power 1.2 (between 1 where the surface limits and 2 where
// conduction does) and shrinks as the pit gets hotter above 60 °C. The pit has to
// be above 80 °C. Field experience for the cut at its usual weight and pit.
func FireTime(c cut.Cut, thickness quantity.Length, pit quantity.Celsius) plan.Span {
	thick := math.Pow(float64(thickness/c.TypicalThickness()), thicker)
	heat := (c.PitC - turning) / (float64(pit) - turning)
	return plan.Typed(time.Duration(c.Hours * thick * heat * float64(time.Hour)))
}

// Field forecasts from the cut's usual time, scaled: the stand-in for a heat
// model.
type Field struct{}

// progress is how much of the way to 95 °C is over when the core reads so, by time: the
// stall lies between 63 and 77 °C, and 60 °C comes after a third to under a half. Field
// experience of unwrapped collagen cuts.
var progress = [][2]float64{{0, 0.01}, {4, 0.02}, {30, 0.14}, {49, 0.27}, {55, 0.33}, {60, 0.39}, {66, 0.48}, {74, 0.68}, {85, 0.86}, {95, 1}, {98, 1.07}, {105, 1.3}}

// Share is how much of the time to one core temperature is over at another, both in °C;
// more than 1 when it lies beyond.
func Share(core, done float64) float64 {
	return cut.Between(progress, core) / cut.Between(progress, done)
}

// wrapped is the time of a collagen cut against the unwrapped one: foil ends the
// stall, paper half of it. Field experience: a shoulder of 9–13 h takes 7–10 h
// foiled.
var wrapped = map[string]float64{"none": 1, "boat": 0.93, "paper": 0.88, "brown-paper": 0.9, "bacon": 1.05, "pan": 0.8, "foil": 0.77}

// Fire implements plan.Forecaster. Opening the pit every 30 min adds about 6 %, less
// often less; the spread is the pit's.
func (Field) Fire(b plan.Burn) plan.Span {
	s := FireTime(b.Cut, b.Thickness, b.PitC)
	factor := 1.0
	if b.Cut.Family == cut.Collagen || b.Cut.Family == cut.Rack || b.Cut.Family == cut.Whole {
		if f, ok := wrapped[b.Wrap]; ok {
			factor = f / wrapped[usualWrap(b.Cut)]
		}
	}
	core := float64(b.Core)
	if core == 0 {
		core = b.Cut.DoneC()
	}
	factor *= Share(core, b.Cut.HoursC)
	if b.Looks > 0 {
		factor *= 1 + 1.8/float64(b.Looks)
	}
	width := b.Pit.Spread
	if width == 0 {
		width = 1
	}
	mid := time.Duration(float64(s.Mid) * factor)
	return plan.Span{
		Low:  time.Duration(float64(mid) * math.Pow(0.80, width)).Round(five),
		Mid:  mid.Round(five),
		High: time.Duration(float64(mid) * math.Pow(1.25, width)).Round(five),
	}
}

func usualWrap(c cut.Cut) string {
	if _, ok := wrapped[c.Wrap]; ok {
		return c.Wrap
	}
	return "none"
}

// WarmsIn is how long the core takes from the fridge to a temperature: the share of the
// time on the fire in which a warming body covers that much of its way to done.
// An estimate until the heat is computed.
func WarmsIn(s plan.Span, pit quantity.Celsius, done, to float64) time.Duration {
	away := func(core float64) float64 { return math.Log((float64(pit) - 4) / (float64(pit) - core)) }
	if done >= float64(pit)-2 {
		done = float64(pit) - 2
	}
	if done <= to {
		return s.Mid
	}
	return time.Duration(float64(s.Mid) * away(to) / away(done))
}
