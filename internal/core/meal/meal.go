// Package meal is a later meal from what was kept of a cook-out: what is warmed again, when, and how
// many it feeds.
//
//	lamb := []meal.Item{{Form: "pulled", Weight: "1.2 kg"}}
//	p := meal.Work(meal.Meal{ServeAt: "2026-11-30T19:00", Zone: "Europe/Dublin", Items: lamb}, nil, now)
//	p.Items[0].In      // into the oven by then
//	p.Items[0].Feeds   // 6 plates
package meal

import (
	"cmp"
	"embed"
	"fmt"
	"math"
	"strings"
	"time"

	"verjuice/internal/core/field"

	"verjuice/internal/core/quantity"
	"verjuice/internal/core/table"
)

//go:embed dishes.csv forms.csv
var data embed.FS

// Dish is what kept meat goes into.
type Dish struct {
	ID    string  `json:"id"`
	Name  string  `json:"name"`
	Many  string  `json:"many" doc:"What portions of it are, after their number" example:"in rolls"`
	Grams float64 `json:"grams" doc:"Meat in a portion: field judgement"`
	Takes string  `json:"takes" doc:"What goes with it"`
}

// KeptForm is how kept meat is warmed. Depths and heat are field judgement.
type KeptForm struct {
	ID     string        `json:"id"`
	Name   string        `json:"name"`
	DeepMM float64       `json:"deep_mm" doc:"Usual depth or thickness"`
	How    string        `json:"how"`
	Shape  float64       `json:"-"` // of the body: 0 a slab, 1 a bar
	Gives  float64       `json:"-"` // W/m²K
	TrayKG float64       `json:"-"` // in a litre of tray; zero is in no tray
	Finish time.Duration `json:"-"` // from the oven to the plate
}

// Dishes and Forms are all of them, the usual first.
var (
	Dishes []Dish
	Forms  []KeptForm
)

func init() {
	for _, r := range table.Read(data, "dishes.csv") {
		Dishes = append(Dishes, Dish{r["id"], r["name"], r["many"], r.Num("g"), r["takes"]})
	}
	for _, r := range table.Read(data, "forms.csv") {
		Forms = append(Forms, KeptForm{
			r["id"], r["name"], r.Num("deep_mm"), r["how"], r.Num("shape"), r.Num("gives"), r.Num("tray_kg_l"),
			time.Duration(r.Num("finish_min")) * time.Minute,
		})
	}
}

// Cold is the dish that is not warmed.
const Cold = "salad"

// Meal is a later meal, as typed. Empty is the usual.
type Meal struct {
	Name    string            `json:"name" maxLength:"200" example:"Pulled lamb on Monday"`
	ServeAt string            `json:"serve_at" maxLength:"200" required:"false" doc:"When it is on the table, local (YYYY-MM-DDTHH:MM)" example:"2026-11-30T19:00"`
	Zone    string            `json:"zone" maxLength:"200" doc:"IANA time zone of serve_at" example:"Europe/Dublin"`
	Heater  string            `json:"heater" maxLength:"200" required:"false" doc:"oven or pit; empty means oven"`
	Set     string            `json:"set" maxLength:"200" required:"false" doc:"What it is set to; empty means 150 °C" example:"150 °C"`
	Fits    string            `json:"fits" maxLength:"200" required:"false" doc:"Trays of 30 × 40 cm that it takes at once; empty means two"`
	Read    map[string]string `json:"read,omitempty" required:"false" doc:"Stops that were read, and when: by what the sheet says acknowledges them"`
	Items   []Item            `json:"items" maxItems:"20" nullable:"false" doc:"What is warmed"`
}

// Item is something that is warmed again, or eaten cold.
type Item struct {
	Key    string `json:"key" maxLength:"200" doc:"Tells it from the others of this meal"`
	Cook   string `json:"cook,omitempty" maxLength:"200" required:"false" doc:"Id of the cook-out that it is from; empty when it is from none here"`
	Piece  string `json:"piece,omitempty" maxLength:"200" required:"false" doc:"Key of the piece there"`
	Title  string `json:"title" maxLength:"200" required:"false" doc:"What it is called; empty means its form"`
	Form   string `json:"form" maxLength:"200" required:"false" doc:"pulled, sliced, racks, pieces or whole; empty means pulled"`
	Weight string `json:"weight" maxLength:"200" required:"false" doc:"Meat of all of it, without bones; empty is what its portions take" example:"1.2 kg"`
	Deep   string `json:"deep" maxLength:"200" required:"false" doc:"Depth of the tray or thickness of the piece; empty means the form's usual" example:"4 cm"`
	Kept   string `json:"kept" maxLength:"200" required:"false" doc:"fridge or freezer; empty means fridge"`
	Cooked string `json:"cooked" maxLength:"200" required:"false" doc:"Day it was cooked (YYYY-MM-DD), when it is from no cook-out here"`
	Dish   string `json:"dish" maxLength:"200" required:"false" doc:"Id of a dish; empty means on the plate"`
	Each   string `json:"each" maxLength:"200" required:"false" doc:"Meat in a portion; empty means the dish's usual" example:"90 g"`
	For    string `json:"for" maxLength:"200" required:"false" doc:"Portions wanted; empty means as many as it makes" example:"6"`
}

// MaxItems is the most that one meal warms.
const MaxItems = 20

// TimeLayout is how serve_at is typed.
const TimeLayout = "2006-01-02T15:04"

// Cooks are the ids of the cook-outs that the meal is from.
func (m Meal) Cooks() []string {
	out := []string{}
	for _, i := range m.Items {
		if i.Cook != "" {
			out = append(out, i.Cook)
		}
	}
	return out
}

// Serve is when the meal is on the table; zero when that is not said.
func (m Meal) Serve() time.Time {
	serve, _, _, _, _ := m.setting()
	return serve
}

// formsOf are what finishes of a cut are warmed as.
var formsOf = map[string]string{
	"pulled": "pulled",
	"sliced": "sliced",
	"pink":   "sliced",
	"bones":  "racks",
	"done":   "pieces",
	"whole":  "pieces",
}

// FormOf is what a finish of a cut is warmed as.
func FormOf(finish string) string { return cmp.Or(formsOf[finish], "sliced") }

// Masses are how much each item takes; zero where that cannot be told, or is all that is left.
func (m Meal) Masses() []quantity.Mass {
	out := make([]quantity.Mass, len(m.Items))
	for i, item := range m.Items {
		if r, wrong := item.read(time.UTC, Kept{}); len(wrong) == 0 {
			out[i] = r.mass
		}
	}
	return out
}

// read is an item as it is meant.
type read struct {
	form   KeptForm
	dish   Dish
	deep   float64 // m
	each   quantity.Mass
	mass   quantity.Mass // zero when it cannot be told
	wanted int
	cooked time.Time // zero when nobody says
	frozen bool
}

// maxText is the longest text of a line, in characters.
const maxText = 200

// read reads an item, with what is left of what was kept.
func (i Item) read(zone *time.Location, kept Kept) (read, field.Errors) {
	var wrong field.Errors
	wrong.Text("/title", i.Title, maxText)
	wrong.Text("/cook", i.Cook, maxText)
	wrong.Text("/piece", i.Piece, maxText)
	wrong.Text("/key", i.Key, maxText)
	out := read{frozen: i.Kept == "freezer"}
	if out.form, i.Form = chosen(Forms, i.Form, func(f KeptForm) string { return f.ID }); i.Form != "" {
		wrong.Add("/form", "choice.unknown", "choices", ids(Forms, func(f KeptForm) string { return f.ID }))
	}
	if out.dish, i.Dish = chosen(Dishes, i.Dish, func(d Dish) string { return d.ID }); i.Dish != "" {
		wrong.Add("/dish", "choice.unknown", "choices", ids(Dishes, func(d Dish) string { return d.ID }))
	}
	if i.Kept != "" && i.Kept != "fridge" && !out.frozen {
		wrong.Add("/kept", "choice.unknown", "choices", []string{"fridge", "freezer"})
	}
	out.measure(i, &wrong)
	out.weigh(i, kept, &wrong)
	out.cooked = kept.Sliced
	if i.Cooked != "" {
		day, err := time.ParseInLocation(time.DateOnly, i.Cooked, zone)
		if err != nil {
			wrong.Add("/cooked", "reheat.cooked")
		} else if out.cooked.IsZero() {
			out.cooked = day.Add(18 * time.Hour) // the evening, when a supper is sliced
		}
	}
	return out, wrong
}

// Warmed is how it is warmed; the usual way for one that nobody knows.
func (i Item) Warmed() KeptForm {
	form, _ := chosen(Forms, i.Form, func(f KeptForm) string { return f.ID })
	return form
}

// chosen is the one of that id, the first for the empty one; the id comes back when there is none.
func chosen[T any](all []T, id string, of func(T) string) (T, string) {
	for _, one := range all {
		if of(one) == id || id == "" {
			return one, ""
		}
	}
	return all[0], id
}

// measure reads how deep it is, and how many portions of what size are wanted.
func (r *read) measure(i Item, wrong *field.Errors) {
	r.deep = r.form.DeepMM / 1000
	if i.Deep != "" {
		deep, err := quantity.ParseLength(i.Deep)
		if !wrong.Take("/deep", err) && (deep < 0.005 || deep > 0.3) {
			wrong.Add("/deep", "reheat.deep")
		} else {
			r.deep = float64(deep)
		}
	}
	r.each = quantity.Mass(r.dish.Grams / 1000)
	if i.Each != "" {
		each, err := quantity.ParseMass(i.Each)
		if !wrong.Take("/each", err) && (each < 0.01 || each > 2) {
			wrong.Add("/each", "reheat.each")
		} else if each > 0 {
			r.each = each
		}
	}
	n, err := quantity.Count(i.For).Parse()
	if !wrong.Take("/for", err) && (n < 0 || n > 1000) {
		wrong.Add("/for", "reheat.for")
	}
	r.wanted = n
}

// weigh reads how much it is: what was typed, what the portions take, or what is left.
func (r *read) weigh(i Item, kept Kept, wrong *field.Errors) {
	switch left := kept.KG - kept.ElsewhereKG; {
	case i.Weight != "":
		m, err := quantity.ParseMass(i.Weight)
		if !wrong.Take("/weight", err) && (m <= 0 || m > 500) {
			wrong.Add("/weight", "reheat.weight")
		} else {
			r.mass = m
		}
	case r.wanted > 0:
		r.mass = r.each * quantity.Mass(r.wanted)
	case left > 0:
		r.mass = quantity.Mass(left)
	default:
		wrong.Add("/weight", "reheat.weight-needed")
	}
}

func ids[T any](all []T, id func(T) string) []string {
	out := make([]string, len(all))
	for i, one := range all {
		out[i] = id(one)
	}
	return out
}

// setting reads when the meal is, and what warms it.
func (m Meal) setting() (serve time.Time, zone *time.Location, ovenC float64, fits int, wrong field.Errors) {
	zone, err := time.LoadLocation(m.Zone)
	if err != nil || m.Zone == "Local" {
		zone = time.UTC
		wrong.Add("/zone", "cook.zone", "typed", fmt.Sprintf("%.40s", m.Zone))
	}
	if m.ServeAt != "" {
		if serve, err = time.ParseInLocation(TimeLayout, m.ServeAt, zone); err != nil || serve.Year() < 2000 ||
			serve.Year() > 2100 {
			serve = time.Time{}
			wrong.Add("/serve_at", "time.form", "typed", m.ServeAt)
		}
	}
	if m.Heater != "" && m.Heater != "oven" && m.Heater != "pit" {
		wrong.Add("/heater", "choice.unknown", "choices", []string{"oven", "pit"})
	}
	ovenC = 150
	if m.Set != "" {
		set, err := quantity.ParseTemperatureWithin(m.Set, OvenLeastC, 250)
		if !wrong.Take("/set", err) && (set < OvenLeastC || set > 250) {
			wrong.Add("/set", "reheat.oven", "least", quantity.Celsius(OvenLeastC), "most", quantity.Celsius(250))
		} else if err == nil {
			ovenC = float64(set)
		}
	}
	fits, err = quantity.Count(m.Fits).Parse()
	if !wrong.Take("/fits", err) && (fits < 0 || fits > 100) {
		wrong.Add("/fits", "reheat.fits")
	}
	fits = cmp.Or(fits, 2)
	if strings.TrimSpace(m.Name) == "" {
		wrong.Add("/name", "reheat.name")
	}
	wrong.Text("/name", m.Name, maxText)
	return serve, zone, ovenC, fits, wrong
}

// trays is how many trays of 30 × 40 cm it fills.
func (r read) trays() int {
	if r.form.TrayKG == 0 || r.dish.ID == Cold {
		return 0
	}
	litres := r.mass.KG() / r.form.TrayKG
	return int(math.Ceil(litres/(12*r.deep*10) - 1e-9)) // 12 dm² each
}
