package sheet

import (
	"cmp"
	"fmt"
	"math"
	"strings"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/field"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/meal"
	"verjuice/internal/core/quantity"
)

// MealSheet is a later meal worked out.
type MealSheet struct {
	Errors     []Mistake     `json:"errors" nullable:"false"`
	Serve      string        `json:"serve" doc:"When it is on the table; empty when that is not said"`
	Lead       string        `json:"lead" doc:"What comes first and when, in a sentence; may be empty"`
	Sooner     string        `json:"sooner" doc:"That it is too late for that time, and what would do; may be empty"`
	SoonerAt   string        `json:"sooner_at" doc:"That time, as serve_at is typed"`
	Trays      string        `json:"trays" doc:"How many trays, and whether they fit, in a sentence; may be empty"`
	Items      []MealItem    `json:"items" nullable:"false"`
	Tasks      []MealTask    `json:"tasks" nullable:"false" doc:"In order"`
	Cautions   []MealCaution `json:"cautions" nullable:"false"`
	Disclaimer string        `json:"disclaimer"`
}

// MealItem is what is warmed of a meal.
type MealItem struct {
	Title   string      `json:"title"`
	How     string      `json:"how" doc:"How it is warmed"`
	From    string      `json:"from" doc:"Of which cook-out it was kept; may be empty"`
	Feeds   BigFigure   `json:"feeds" doc:"Portions; without a weight its text is empty"`
	Takes   BigFigure   `json:"takes" doc:"In the oven; of what is eaten cold its text is empty"`
	Deep    string      `json:"deep" doc:"Usual depth of its form, for the field"`
	Each    string      `json:"each" doc:"Usual meat in a portion, for the field"`
	Weight  string      `json:"weight" doc:"What an empty weight means, for the field; may be empty"`
	Problem string      `json:"problem" doc:"That there is not enough, in a sentence; may be empty"`
	Shares  []MealShare `json:"shares" nullable:"false" doc:"What all of it would make of each dish"`
}

// MealShare is how many portions of a dish something makes.
type MealShare struct {
	Dish  string `json:"dish" doc:"By id"`
	Label string `json:"label"`
	Makes int    `json:"makes"`
	Takes string `json:"takes"`
}

// MealTask is something to do for a meal.
type MealTask struct {
	At    string `json:"at" doc:"RFC 3339"`
	Time  string `json:"time"`
	Label string `json:"label"`
	Note  string `json:"note" doc:"May be empty"`
}

// MealCaution is a caution of a meal.
type MealCaution struct {
	Caution
	Title       string `json:"title" doc:"Of what; empty for all of it"`
	Acknowledge string `json:"acknowledge" doc:"By what read says that it was read: when its values change, it has to be read again"`
}

// WriteMeal says a later meal. The cook-outs that it is from are named by their ids.
func WriteMeal(p meal.Plan, named map[string]string, as Reader) MealSheet {
	w := writer{Reader: as}
	out := MealSheet{
		Errors:     append([]Mistake{}, Mistakes(p.Wrong, as)...),
		Items:      []MealItem{},
		Tasks:      []MealTask{},
		Cautions:   []MealCaution{},
		Disclaimer: Closing,
	}
	for _, one := range p.Items {
		out.Items = append(out.Items, w.mealItem(one, named))
	}
	if p.Trays > 0 {
		out.Trays = fmt.Sprintf("Fills %s of 30 × 40 cm.", counted(p.Trays, "tray", "trays"))
		if p.Trays > p.Fits {
			out.Trays += fmt.Sprintf(
				" %s at once: warm the rest in turn, and keep it covered above 60 °C / 140 °F.",
				field.Capital(fits(p.Fits)),
			)
		}
	}
	if !p.Serve.IsZero() {
		out.Serve = p.Serve.Format("Monday 2 January 15:04")
	}
	for _, t := range p.Tasks {
		out.Tasks = append(out.Tasks, w.mealTask(t, p))
	}
	for _, t := range p.Tasks {
		if t.Stage == "in" {
			out.Lead = fmt.Sprintf("First in at %s", t.At.Format("15:04"))
			if len(p.Items) > 1 {
				out.Lead += ": " + mealTitle(p.Items[t.Item].Item, p.Items[t.Item].Form)
			}
			out.Lead += "."
			break
		}
	}
	if !p.Sooner.IsZero() {
		out.Sooner = fmt.Sprintf(
			"It is too late for %s: %s is the soonest.",
			p.Serve.Format("15:04"),
			p.Sooner.In(p.Serve.Location()).Format("15:04"),
		)
		out.SoonerAt = p.Sooner.In(p.Serve.Location()).Format(meal.TimeLayout)
	}
	for _, severity := range []caution.Severity{caution.Stop, caution.Care, caution.Note} {
		for _, f := range p.Found {
			if f.Severity == severity {
				one := MealCaution{Caution: w.caution(f.Finding)}
				last, _ := f.Values["last"].(string)
				one.Acknowledge = join(f.ID, " ", last)
				if f.Item >= 0 {
					one.Title = mealTitle(p.Items[f.Item].Item, p.Items[f.Item].Form)
					one.Acknowledge += " " + p.Items[f.Item].Item.Key
				}
				one.Read = p.Meal.Read[one.Acknowledge]
				out.Cautions = append(out.Cautions, one)
			}
		}
	}
	return out
}

func counted(n int, one, more string) string {
	if n == 1 {
		return "one " + one
	}
	return fmt.Sprintf("%d %s", n, more)
}

func fits(n int) string {
	if n == 1 {
		return "one fits"
	}
	return fmt.Sprintf("%d fit", n)
}

// mealTitle names an item.
func mealTitle(i meal.Item, f meal.KeptForm) string {
	return cmp.Or(strings.TrimSpace(i.Title), field.Capital(f.Name))
}

func (w writer) mealItem(one meal.Warmed, named map[string]string) MealItem {
	out := MealItem{
		Title:  mealTitle(one.Item, one.Form),
		How:    one.Form.How,
		Deep:   w.deep(one.Form.DeepMM),
		Each:   w.weight(quantity.Mass(one.Dish.Grams / 1000)),
		Shares: []MealShare{},
	}
	kept := one.Kept
	if name, asked := named[one.Item.Cook]; asked {
		out.From = cmp.Or(name, "a cook-out that is gone")
	}
	if one.Dish.ID == meal.Cold {
		out.How = "cold, straight from the fridge"
	}
	if left := kept.KG - kept.ElsewhereKG; kept.KG > 0 {
		out.From += fmt.Sprintf(": %s kept", quantity.FormatMass(quantity.Mass(kept.KG), w.Units))
		if kept.ElsewhereKG > 0 {
			out.From += fmt.Sprintf(", %s of it for other meals", quantity.FormatMass(quantity.Mass(kept.ElsewhereKG), w.Units))
		}
		if left > 0 {
			out.Weight = quantity.FormatMass(quantity.Mass(left), w.Units)
		}
	}
	if !one.Sound {
		return out
	}
	out.Weight = quantity.FormatMass(one.Mass, w.Units)
	out.Feeds = BigFigure{
		Text: fmt.Sprint(one.Feeds),
		Note: fmt.Sprintf(
			"%s, %s of meat each",
			map[bool]string{true: "portion", false: "portions"}[one.Feeds == 1],
			w.weight(one.Each),
		),
	}
	if one.Takes.Mid > 0 {
		out.Takes = BigFigure{
			Text: duration(one.Takes.Mid.Round(5 * time.Minute)),
			Note: fmt.Sprintf(
				"to %s in the middle; %s–%s",
				w.short(meal.WarmC),
				duration(one.Takes.Low.Round(5*time.Minute)),
				duration(one.Takes.High.Round(5*time.Minute)),
			),
		}
	}
	switch {
	case one.Short > 0:
		out.Problem = fmt.Sprintf("%s short.", field.Capital(counted(one.Short, "portion", "portions")))
	case one.OverKG > 0:
		out.Problem = fmt.Sprintf(
			"That is %s more than is left of it.",
			quantity.FormatMass(quantity.Mass(one.OverKG), w.Units),
		)
	}
	for _, d := range meal.Dishes {
		if makes := int(one.Mass.Grams() / d.Grams); makes > 0 {
			out.Shares = append(out.Shares, MealShare{d.ID, d.Many, makes, d.Takes})
		}
	}
	return out
}

// deep writes a depth, mm.
func (w writer) deep(mm float64) string {
	if w.Units == quantity.US {
		return fmt.Sprintf("%g in", math.Round(mm/25.4*4)/4)
	}
	return fmt.Sprintf("%g cm", mm/10)
}

func (w writer) mealTask(t meal.Task, p meal.Plan) MealTask {
	out := MealTask{At: t.At.Format(time.RFC3339), Time: t.At.Format("15:04")}
	if t.At.YearDay() != p.Serve.YearDay() {
		out.Time = t.At.Format("Mon 15:04")
	}
	heater := map[bool]string{true: "pit", false: "oven"}[p.Meal.Heater == "pit"]
	title, one := "", meal.Warmed{}
	if t.Item >= 0 {
		one = p.Items[t.Item]
		title = mealTitle(one.Item, one.Form)
	}
	switch t.Stage {
	case "thaw":
		out.Label, out.Note = title+": from the freezer to the fridge", "never on the counter"
	case "light":
		out.Label = fmt.Sprintf("Heat the %s to %s", heater, w.short(p.OvenC))
	case "in":
		out.Label, out.Note = fmt.Sprintf("%s: into the %s", title, heater), one.Form.How
		if one.Batches > 1 {
			out.Note += fmt.Sprintf("; in %d lots, the first ones kept hot", one.Batches)
		}
	case "check":
		out.Label, out.Note = title+": probe the middle", fmt.Sprintf(
			"%s by %s; done early it waits covered, above 60\u00a0°C / 140\u00a0°F",
			w.short(meal.WarmC),
			one.By.Round(5*time.Minute).Format("15:04"),
		)
	case "finish":
		out.Label, out.Note = title+": out, and on the plates", one.Dish.Takes
		if one.Dish.ID == meal.Cold {
			out.Label = title + ": slice it cold"
		}
	case "serve":
		out.Label = "Serve"
	}
	return out
}

// MealLine is a line of the list of later meals.
type MealLine struct {
	ID      string `json:"id" format:"uuid"`
	Version uint   `json:"version"`
	Name    string `json:"name"`
	Serve   string `json:"serve"`
	What    string `json:"what"`
	Over    bool   `json:"over" doc:"Its time has passed"`
}

// WriteMealLine writes a line of the list of later meals.
func WriteMealLine(id string, version uint, m meal.Meal, now time.Time) MealLine {
	out := MealLine{ID: id, Version: version, Name: m.Name, Serve: "no time yet"}
	if serve := m.Serve(); !serve.IsZero() {
		out.Serve, out.Over = serve.Format("Monday 2 January 15:04"), serve.Before(now.Add(-6*time.Hour))
	}
	var what []string
	for _, one := range m.Items {
		what = append(what, mealTitle(one, one.Warmed()))
	}
	out.What = strings.Join(what, ", ")
	return out
}

// KeptLine is something that was kept of a cook-out, for a later meal.
type KeptLine struct {
	Cook  string `json:"cook" doc:"Id"`
	Piece string `json:"piece" doc:"Key"`
	Title string `json:"title"`
	Form  string `json:"form" doc:"As it was finished, for a new item"`
	Note  string `json:"note" doc:"Of which cook-out, when, and how much"`
}

// WriteKept writes what was kept of a piece.
func WriteKept(id, cook string, p logbook.Piece, as Reader) KeptLine {
	w := writer{Reader: as}
	out := KeptLine{Cook: id, Piece: p.Key, Title: field.Capital(p.Label), Form: meal.FormOf(p.Finish), Note: cook}
	if at, err := time.Parse(time.RFC3339, p.Sliced); err == nil {
		out.Note += ", " + at.Format("Mon 2 Jan")
	}
	if p.KeptKG > 0 {
		out.Note += ", " + quantity.FormatMass(quantity.Mass(p.KeptKG), w.Units) + " kept"
	}
	return out
}
