// Package sheet says a result: it is the only home of English, of rounding and of
// units as they are shown. The core gives ids and values; this package writes the
// finished short texts beside them.
//
//	s := sheet.WriteAfter(sheet.Written{}, result, sheet.Reader{Units: quantity.Metric})
//	s.Sheet.Pieces[0].Season.OnMeat.Text   // "57"
//
// A message is a template with the names of its values in braces, {wait}; a colon
// says how a value is written where its type alone does not: {at:clock}, {core:both}.
package sheet

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"

	"verjuice/internal/core/shop"
	"verjuice/internal/core/trace"
)

// Reader is who reads: what is shown follows it, never what is meant.
type Reader struct {
	Units  quantity.System
	Spoons quantity.SpoonSet
	Brief  bool // leaves out where figures come from
	Plain  bool // leaves out what pictures are drawn with
}

// writer writes for a reader, about the pieces and pits of a cook.
type writer struct {
	Reader
	pieces map[string]string // what each is called, by key
	pits   []plan.Pit
	skies  bool // the weather was told for all of it
}

var blank = regexp.MustCompile(`\{([a-z_0-9]+)(?::([a-z0-9]+))?\}`)

// fill puts values into a template.
func (w writer) fill(template string, v field.Values) string {
	if !strings.Contains(template, "{") {
		return template
	}
	return blank.ReplaceAllStringFunc(template, func(hole string) string {
		m := blank.FindStringSubmatch(hole)
		value, ok := v[m[1]]
		if !ok {
			return hole
		}
		return w.value(value, m[2])
	})
}

// say writes why something cannot be.
func (w writer) say(why field.Wrong) string {
	template, ok := messages[why.ID]
	if !ok {
		return why.Error()
	}
	values := why.Values
	return w.fill(template, values)
}

// value writes a value; how is empty or the part of a hole behind its colon.
func (w writer) value(v any, how string) string {
	switch v := v.(type) {
	case string:
		return w.word(v, how)
	case int:
		return w.count(v, how)
	case float64:
		if how == "grate" {
			return w.grate(v)
		}
		return number(v, how)
	case []string:
		return list(v, how)
	case quantity.Mass:
		return quantity.FormatMass(v, w.Units)
	case quantity.Length:
		return quantity.FormatLength(v, w.Units)
	case quantity.Volume:
		return w.volume(v)
	case quantity.Celsius:
		return w.temperature(v, how)
	case time.Duration:
		if how == "exact" {
			return exactly(v)
		}
		return quantity.FormatDuration(v)
	case time.Time:
		return clock(v, how)
	case dose.Label:
		return sourceName(v)
	case field.Wrong:
		return w.say(v)
	}
	return w.input(v)
}

func number(v float64, how string) string {
	if decimals, err := strconv.Atoi(how); err == nil {
		return decimal(v, decimals)
	}
	if how == "percent" {
		return decimal(100*v, 0)
	}
	return quantity.Number(v)
}

// count writes a number of hands or pits in words, any other as a number.
func (w writer) count(n int, how string) string {
	switch how {
	case "hands":
		if n == 1 {
			return "one pair of hands can do"
		}
		return fmt.Sprintf("%d pairs of hands can do", n)
	case "pit":
		return w.pit(n)
	}
	return strconv.Itoa(n)
}

// pit is what a pit is called.
func (w writer) pit(n int) string {
	if n >= 0 && n < len(w.pits) && w.pits[n].Name != "" {
		return w.pits[n].Name
	}
	if n == plan.Fridge {
		return "fridge"
	}
	return "pit"
}

// word writes a text: a task or piece by its id, anything else unchanged.
func (w writer) word(s, how string) string {
	switch how {
	case "task":
		return taskVerbs[s]
	case "piece":
		return w.pieces[s]
	case "plan":
		return planWords[plan.Kind(s)]
	case "dimension":
		return examples[s]
	}
	return s
}

func list(texts []string, how string) string {
	switch {
	case how == "way":
		return strings.Join(texts, " → ")
	case how == "and" || len(texts) < 2:
		return strings.Join(texts, ", ")
	}
	return strings.Join(texts[:len(texts)-1], ", ") + " or " + texts[len(texts)-1]
}

func (w writer) volume(v quantity.Volume) string {
	if w.Units == quantity.US {
		return quantity.FormatUSVolume(v)
	}
	if v >= quantity.Litre {
		return quantity.Number(v.ML()/1000) + " L"
	}
	return quantity.Number(v.ML()) + " mL"
}

func (w writer) temperature(t quantity.Celsius, how string) string {
	if how == "both" {
		// A tenth counts when it is what makes the difference.
		if off := math.Abs(float64(t) - math.Round(float64(t))); off >= 0.25 {
			return decimal(float64(t), 1) + " °C / " + quantity.FormatTemperature(t, quantity.US)
		}
		return quantity.FormatTemperature(t, quantity.Metric) + " / " + quantity.FormatTemperature(t, quantity.US)
	}
	return quantity.FormatTemperature(t, w.Units)
}

func clock(t time.Time, how string) string {
	switch how {
	case "clock":
		return t.Format("15:04")
	case "short":
		return t.Format("Mon 15:04")
	case "weekday":
		return t.Format("Monday")
	}
	return day(t)
}

// day writes t as a cook says it: "Sat 28 Nov 07:15".
func day(t time.Time) string { return t.Format("Mon 2 Jan 15:04") }

// away says how far t is from now: "in 2 d 4 h", "in 12 days", "3 h ago".
func away(t, now time.Time) string {
	d := t.Sub(now)
	if days := int(d.Hours() / 24); days >= 10 {
		return fmt.Sprintf("in %d days", days)
	} else if days <= -3 {
		return fmt.Sprintf("%d days ago", -days)
	}
	if d < 0 {
		return quantity.FormatDuration(-d) + " ago"
	}
	return "in " + quantity.FormatDuration(d)
}

// sourceName is what a source is called.
func sourceName(l dose.Label) string {
	if l.Typed != "" {
		return l.Typed
	}
	switch l.ID {
	case dose.Injection{}.ID():
		return "injection"
	case dose.Own{}.ID():
		return "in it already"
	}
	return string(l.ID)
}

// exactly writes a time span to the minute, so that one over a limit reads so.
func exactly(d time.Duration) string {
	m := int(math.Ceil(d.Minutes()))
	if m < 60 || m >= 600 {
		return quantity.FormatDuration(d)
	}
	return fmt.Sprintf("%d h %02d", m/60, m%60)
}

// input writes something that went into a figure.
func (w writer) input(v any) string {
	switch v := v.(type) {
	case trace.Number:
		return withUnit(decimal(v.Value, v.Decimals), v.Unit)
	case trace.Grams:
		return w.weight(quantity.Mass(v) * quantity.Gram)
	case cooking.Area:
		return w.as(area, float64(v))
	case cooking.Coating:
		return w.as(thick, float64(v))
	case cooking.PercentSpan:
		return fmt.Sprintf("%g–%g %%", v.Low, v.High)
	case shop.Percent:
		return fmt.Sprintf("%.0f %% (%.0f–%.0f %%)", v.Mid, v.Low, v.High)
	case cooking.Size:
		return w.value(v.Length, "") + " × " + w.value(v.Width, "") + " × " + w.value(v.Thickness, "")
	case cooking.Proportions:
		return fmt.Sprintf("%g : %g : 1", v.Length, v.Width)
	case cooking.Stays:
		return fmt.Sprintf("%s after %s", percentRange(v.Share), quantity.FormatDuration(v.Wait))
	case dose.Written:
		return v.Parts + ", parts by " + string(v.Basis)
	case dose.Teaspoon:
		return w.weight(quantity.Mass(float64(v)*w.Spoons.Teaspoon().ML()) * quantity.Gram)
	case cooking.Pump:
		return fmt.Sprintf("%.1f %% of %s", v.Percent, w.value(v.Of, ""))
	case cooking.ChanceAt:
		return fmt.Sprintf("%.0f %%, on at %s", 100*v.Chance, day(v.Fire))
	case shop.Portions:
		return fmt.Sprintf("%.1f of %s", v.Count, w.value(v.Of, ""))
	case shop.Money:
		return money(v)
	case shop.OfMeat:
		return money(v.Money) + " for " + w.value(v.Mass, "")
	case formula.Basis:
		return string(v)
	}
	return fmt.Sprint(v)
}

func withUnit(text, unit string) string {
	if unit == "" {
		return text
	}
	return text + " " + unit
}

func money(m shop.Money) string { return withUnit(decimal(m.Value, 2), m.Sign) }

// percentRange writes a share, 0 to 1, with its range: "85 % (75–95 %)".
func percentRange(r quantity.Range[float64]) string {
	if r.High-r.Low < 0.005 {
		return fmt.Sprintf("%.0f %%", 100*r.Mid)
	}
	return fmt.Sprintf("%.0f %% (%.0f–%.0f %%)", 100*r.Mid, 100*r.Low, 100*r.High)
}

// decimal writes v with the given decimals, never as "-0".
func decimal(v float64, decimals int) string {
	scale := math.Pow10(decimals)
	return strconv.FormatFloat(math.Round(v*scale)/scale+0, 'f', decimals, 64)
}

// join puts two texts together, with a mark between them when there are both.
func join(a, mark, b string) string {
	if a == "" || b == "" {
		return a + b
	}
	return a + mark + b
}

// Mistake is something wrong: where, and a sentence that says what to do.
type Mistake struct {
	Pointer string       `json:"pointer" doc:"JSON pointer to the value, as in RFC 6901" example:"/pieces/0/trimmed"`
	ID      string       `json:"id" doc:"Which rule it breaks" example:"meat.weight"`
	Values  field.Values `json:"values,omitempty" doc:"What the message names, in SI units"`
	Message string       `json:"message" doc:"What is wrong and what to do, in a sentence"`
	Offers  []Offer      `json:"offers,omitempty" doc:"What may have been meant"`
}

// Offer is a way to mend a mistake with one press.
type Offer struct {
	Text  string `json:"text" doc:"What it does, for a button"`
	Edits []Edit `json:"edits" nullable:"false" doc:"What to type instead, and where"`
}

// Edit is a text typed at a place.
type Edit struct {
	Pointer string `json:"pointer" doc:"JSON pointer to the value"`
	Value   string `json:"value"`
	Remove  bool   `json:"remove,omitempty" doc:"Take away what is there"`
}

// Mistakes writes mistakes for a reader.
func Mistakes(errs field.Errors, as Reader) []Mistake { return writer{Reader: as}.mistakes(errs) }

func (w writer) mistakes(errs field.Errors) []Mistake {
	out := make([]Mistake, len(errs))
	for i, e := range errs {
		out[i] = Mistake{e.Pointer, e.ID, e.Values, w.say(e.Wrong), offers(e)}
	}
	return out
}

// offers are what may have been meant by what was typed. A wrap named with a time is
// offered as the wrap.
func offers(e field.Error) []Offer {
	var out []Offer
	texts, _ := e.Values["offers"].([]string)
	wrap, _ := e.Values["wrap"].(string)
	for _, text := range texts {
		one := Offer{text, []Edit{{Pointer: e.Pointer, Value: text}}}
		if at, ok := e.Values["wrap_at"].(string); ok && wrap != "" {
			one.Text = fmt.Sprintf("%s, wrapped in %s", text, wrap)
			one.Edits = append(one.Edits, Edit{Pointer: at, Value: wrap})
		}
		out = append(out, one)
	}
	return out
}
