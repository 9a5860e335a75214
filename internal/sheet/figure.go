package sheet

import (
	"math"
	"strings"
	"time"

	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// Figure is a number as a cook reads it, with its origin.
type Figure struct {
	ID    string  `json:"id" doc:"Which rule made it" example:"salt.percent"`
	Value float64 `json:"value" doc:"The number itself, in unit"`
	Unit  string  `json:"unit" doc:"Unit of value, text, low and high; empty when text carries its own"`
	Text  string  `json:"text" doc:"The number as a cook reads it, rounded to what can be measured"`
	Low   float64 `json:"low" doc:"Lower end of the likely range (about 10 in 100 fall below)"`
	High  float64 `json:"high" doc:"Upper end of the likely range (about 10 in 100 fall above)"`
	Range string  `json:"range" doc:"The likely range as a cook reads it; empty when the figure is exact"`
	Where *Where  `json:"where,omitempty" doc:"Where it comes from; left out of what is answered while typing"`
}

// Where is where a figure comes from.
type Where struct {
	Explanation string  `json:"explanation" doc:"The rule in plain words"`
	Source      string  `json:"source" doc:"Where the rule and its constants come from"`
	Inputs      []Input `json:"inputs" nullable:"false"`
}

// Input is one thing that went into a figure.
type Input struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Text string `json:"text"`
}

// shape is how the figures of a rule are written: scaled from SI, with a unit.
type shape struct {
	scale float64
	unit  string
	text  func(w writer, v float64) string // of an SI value; empty unit when it carries its own
	step  bool                             // at a kitchen scale's step
	us    *shape                           // for readers with US units, where that differs
}

// in is the shape for readers with units.
func (s shape) in(units quantity.System) shape {
	if units == quantity.US && s.us != nil {
		return *s.us
	}
	return s
}

// or is s, and for readers with US units another one.
func (s shape) or(us shape) shape {
	s.us = &us
	return s
}

func fixed(scale float64, decimals int, unit string) shape {
	return shape{scale: scale, unit: unit, text: func(_ writer, v float64) string { return decimal(scale*v, decimals) }}
}

// Shapes of figures.
var (
	grams = shape{
		scale: 1000,
		unit:  "g",
		text:  func(_ writer, v float64) string { return quantity.FormatGrams(quantity.Mass(v)) },
		step:  true,
		us:    &ounces,
	}
	// ounces keeps grams as its number, in which weighing goes on.
	ounces = shape{
		scale: 1000,
		text:  func(w writer, v float64) string { return quantity.FormatMass(quantity.Mass(v), w.Units) },
	}
	mass = shape{
		scale: 1,
		text:  func(w writer, v float64) string { return quantity.FormatMass(quantity.Mass(v), w.Units) },
	}
	depth = shape{scale: 1000, text: func(w writer, v float64) string {
		if v <= 0 {
			return "none yet"
		}
		return quantity.FormatLength(quantity.Length(v), w.Units)
	}}
	length = shape{
		scale: 1000,
		text:  func(w writer, v float64) string { return quantity.FormatLength(quantity.Length(v), w.Units) },
	}
	minutes = shape{scale: 1, text: func(_ writer, v float64) string {
		return quantity.FormatDuration(time.Duration(v * float64(time.Minute)))
	}}
	liquid   = fixed(1000, 1, "L").or(shape{scale: 1000, text: volumes.text})
	little   = fixed(1e6, 1, "mL").or(volumes)
	volumes  = shape{scale: 1e6, text: func(w writer, v float64) string { return w.volume(quantity.Volume(v)) }}
	area     = fixed(100, 1, "dm²").or(fixed(sqIn, 0, "sq in"))
	perKilo  = fixed(100, 1, "dm²/kg").or(fixed(sqIn*float64(quantity.Pound), 0, "sq in/lb"))
	thick    = fixed(1, 1, "mL/dm²").or(fixed(tspPer100SqIn, 1, "tsp per 100 sq in"))
	heavy    = fixed(0.001, 3, "kg/L").or(fixed(0.001/0.99823, 3, ""))
	percent0 = fixed(1, 0, "%")
	percent1 = fixed(1, 1, "%")
	percent2 = fixed(1, 2, "%")
	portions = fixed(1, 0, "portions")
	needed   = shape{scale: 1, unit: "portions", text: func(_ writer, v float64) string {
		if v == math.Trunc(v) {
			return decimal(v, 0)
		}
		return decimal(v, 1)
	}}
)

// sqIn is a square metre in square inches.
const sqIn = 1 / float64(quantity.Inch*quantity.Inch)

// tspPer100SqIn is a coat of 1 mL on a dm² in US teaspoons on 100 square inches.
const tspPer100SqIn = 1 / 4.92892 * 100 / (sqIn / 100)

// figure writes a figure by the rule that made it.
func (w writer) figure(f trace.Figure) Figure {
	r, ok := rules[f.Rule]
	if !ok {
		r = rule{as: fixed(1, 2, ""), explanation: f.Rule}
	}
	as := r.as.in(w.Units)
	out := Figure{
		ID: f.Rule, Value: brief(as.scale * f.Mid), Unit: as.unit, Text: as.text(w, f.Mid), Low: brief(as.scale * f.Low),
		High: brief(as.scale * f.High),
	}
	out.Range = w.rangeOf(as, f)
	if !w.Brief {
		out.Where = w.where(r, f)
	}
	return out
}

// as writes an SI value in a shape, with its unit.
func (w writer) as(s shape, v float64) string {
	s = s.in(w.Units)
	return withUnit(s.text(w, v), s.unit)
}

// where tells where a figure comes from.
func (w writer) where(r rule, f trace.Figure) *Where {
	values := map[string]any{}
	out := &Where{Source: r.source, Inputs: []Input{}}
	for _, in := range f.Inputs {
		values[in.ID] = in.Value
		if name, shown := w.inputName(in.ID); shown {
			out.Inputs = append(out.Inputs, Input{in.ID, name, w.inputText(in)})
		}
	}
	out.Explanation = w.fill(r.explanation, values)
	if r.more != nil {
		out.Explanation = join(out.Explanation, " ", r.more(w, values))
	}
	return out
}

// brief rounds a number to seven digits, more than any of them is sure to: each is sent
// with every letter that is typed.
func brief(v float64) float64 {
	if v == 0 || math.IsInf(v, 0) || math.IsNaN(v) {
		return v
	}
	scale := math.Pow10(6 - int(math.Floor(math.Log10(math.Abs(v)))))
	if math.IsInf(scale, 0) {
		return 0
	}
	return math.Round(v*scale) / scale
}

// rangeOf writes a range; empty when both ends read the same.
func (w writer) rangeOf(as shape, f trace.Figure) string {
	low, high := as.text(w, f.Low), as.text(w, f.High)
	if as.step { // both ends at the step of the middle
		_, decimals := quantity.RoundGrams(1000 * f.Mid)
		low, high = decimal(1000*f.Low, decimals), decimal(1000*f.High, decimals)
	}
	if low == high {
		return ""
	}
	// The unit is named once when both ends have the same.
	if head, unit, ok := cutLast(low); ok && as.unit == "" && strings.HasSuffix(high, " "+unit) &&
		!strings.Contains(head, " ") {
		low = head
	}
	return withUnit(low+"–"+high, as.unit)
}

// cutLast splits the last word off.
func cutLast(s string) (head, last string, ok bool) {
	i := strings.LastIndex(s, " ")
	if i < 0 {
		return s, "", false
	}
	return s[:i], s[i+1:], true
}

// inputName is what an input is called; one that is only used in the explanation is
// not shown.
func (w writer) inputName(id string) (string, bool) {
	if key, ok := strings.CutPrefix(id, "piece:"); ok {
		return w.pieces[key], true
	}
	name, ok := inputNames[id]
	return name, ok
}

func (w writer) inputText(in trace.Input) string {
	switch {
	case in.ID == "as_bought" && in.Value == "not-given":
		return "not given"
	case in.ID == "other_sources":
		if n, ok := in.Value.(trace.Number); ok && n.Value == 0 {
			return "none"
		}
	case in.ID == "diffusivity":
		return w.value(in.Value, "") + " × 10⁻¹⁰ m²/s ± 35 %"
	case in.ID == "salt_on_surface":
		return w.value(in.Value, "") + " that stays"
	case in.ID == "salt_in_mix":
		return w.value(in.Value, "") + " by weight"
	case in.ID == "cook_yield" && isSpan(in.Value):
		return w.value(in.Value, "") + " of the boneless meat"
	case in.ID == "settles_to":
		return w.value(in.Value, "") + " of their volumes"
	case in.ID == "rounding":
		return w.value(in.Value, "") + " of the block"
	}
	return w.value(in.Value, "")
}

// money writes a sum of money.
func (w writer) money(f trace.Figure, sign string) Figure {
	out := w.figure(f)
	decimals := 2
	if f.Mid >= 100 {
		decimals = 0
	}
	out.Text, out.Unit, out.Range = decimal(f.Mid, decimals), sign, ""
	return out
}

// sodiumPerSalt is printed in an explanation.
var sodiumPerSalt = decimal(larder.SaltPerSodium, 3)
