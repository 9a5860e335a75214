// Package trace makes a number answer "where from".
//
// Every computed number that a cook sees is a Figure: the value with its unit,
// the rule in words, what went into it, how far off it may be, and who says so.
package trace

import (
	"math"
	"strconv"
)

// Input is one thing that went into a figure.
type Input struct {
	Name string `json:"name"`
	Text string `json:"text"`
}

// Figure is a number with its origin.
type Figure struct {
	Value  float64 `json:"value" doc:"The number itself, in unit"`
	Unit   string  `json:"unit" doc:"Unit of value, text, low and high; empty when text carries its own"`
	Text   string  `json:"text" doc:"The number as a cook reads it, rounded to what can be measured"`
	Low    float64 `json:"low" doc:"Lower end of the likely range (about 10 in 100 fall below)"`
	High   float64 `json:"high" doc:"Upper end of the likely range (about 10 in 100 fall above)"`
	Range  string  `json:"range" doc:"The likely range in words; empty when the figure is exact"`
	Words  string  `json:"words" doc:"The rule in plain words"`
	Source string  `json:"source" doc:"Where the rule and its constants come from"`
	Inputs []Input `json:"inputs" nullable:"false"`
}

// Origin is the part of a figure that says where it comes from.
type Origin struct {
	Words  string
	Source string
	Inputs []Input
}

// New returns a figure of value in unit, shown with the given decimals and with
// the likely range low to high. Equal ends mean an exact figure.
func New(value, low, high float64, decimals int, unit string, from Origin) Figure {
	f := Figure{
		Value: value, Low: low, High: high, Unit: unit, Text: Decimal(value, decimals),
		Words: from.Words, Source: from.Source, Inputs: from.Inputs,
	}
	if f.Inputs == nil {
		f.Inputs = []Input{}
	}
	if l, h := Decimal(low, decimals), Decimal(high, decimals); l != h {
		f.Range = l + "–" + h + space(unit)
	}
	return f
}

// Exact returns a figure without uncertainty.
func Exact(value float64, decimals int, unit string, from Origin) Figure {
	return New(value, value, value, decimals, unit, from)
}

// Decimal writes v with the given decimals, never as "-0".
func Decimal(v float64, decimals int) string {
	scale := math.Pow10(decimals)
	return strconv.FormatFloat(math.Round(v*scale)/scale+0, 'f', decimals, 64)
}

func space(unit string) string {
	if unit == "" {
		return ""
	}
	return " " + unit
}
