package sheet

import "verjuice/internal/core/quantity"

// Axis is what a picture of temperatures begins and ends at, in the reader's unit: from freezing to a little
// over the hottest that is drawn.
type Axis struct {
	Unit string  `json:"unit" enum:"°C,°F"`
	Low  float64 `json:"low"`
	High float64 `json:"high"`
}

// over is how far a picture goes on above the hottest that is drawn, as a factor.
const over = 1.07

// axis is that of what is drawn, in the reader's unit, and at least up to leastC, °C.
func (w writer) axis(leastC float64, drawn ...float64) Axis {
	out := Axis{Unit: "°C", Low: w.degrees(0), High: w.degrees(leastC)}
	if w.Units == quantity.US {
		out.Unit = "°F"
	}
	for _, v := range drawn {
		out.High = max(out.High, v)
	}
	out.High = brief(out.High * over)
	return out
}

// hottest are the temperatures of curves that a picture has to hold.
func hottest(curves ...[]DrawnPoint) []float64 {
	var out []float64
	for _, curve := range curves {
		for _, p := range curve {
			out = append(out, p.High, p.Pit)
		}
	}
	return out
}

// cores are the cores of readings that a picture has to hold.
func cores(read []ReadPoint) []float64 {
	var out []float64
	for _, r := range read {
		out = append(out, r.Core)
	}
	return out
}
