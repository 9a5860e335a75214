package api

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/field"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/meal"
	"verjuice/internal/exchange"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// Kept meat is looked for in cook-outs of the last so many days: longer it does not keep frozen well.
const keptDays = 120

// mostMeals is how many meals are looked through for what else is made of something, the latest.
const mostMeals = 200

// MealChoices are what a meal is chosen from.
type MealChoices struct {
	Forms  []meal.KeptForm  `json:"forms" nullable:"false"`
	Dishes []meal.Dish      `json:"dishes" nullable:"false"`
	Kept   []sheet.KeptLine `json:"kept" nullable:"false" doc:"What was cooked lately, the latest first"`
}

// registerMeals serves later meals from what was kept.
func (s *server) registerMeals(a huma.API) {
	resource[meal.Meal, DocRecord[meal.Meal]]{
		path: "/api/meals", noun: "Meal", what: "a later meal", records: s.typed.Meals, show: docRecord[meal.Meal],
		// all that is left of something, which has to be known
		rests: func(ctx context.Context, id string, m meal.Meal) error {
			kept, _, err := s.keptFor(ctx, id, m)
			if err != nil {
				return err
			}
			return meal.Work(m, kept, s.Now()).Wrong.Err()
		},
	}.register(a)
	huma.Register(a, op(http.MethodGet, "/api/meals", "listMeals", "List later meals, the latest first"),
		func(ctx context.Context, in *Paged) (*body[ListPage[sheet.MealLine]], error) {
			list, total, err := s.Store.Meals().List(ctx, in.query(20))
			if err != nil {
				return nil, problemOf(err)
			}
			out := ListPage[sheet.MealLine]{Items: []sheet.MealLine{}, Total: total, Page: in.Page}
			for _, m := range list {
				out.Items = append(out.Items, sheet.WriteMealLine(m.ID, m.Version, m.Doc, s.Now()))
			}
			return answer(out), nil
		})
	s.registerMealSheets(a)
}

// registerMealSheets serves what is worked out of later meals, and what they are chosen from.
func (s *server) registerMealSheets(a huma.API) {
	huma.Register(
		a,
		op(
			http.MethodPost,
			"/api/calc/meal",
			"workOutMeal",
			"Work a later meal out: when to warm what, and how many it feeds",
		),
		func(ctx context.Context, in *struct {
			Measure
			ID   string `query:"id" maxLength:"36" doc:"Of the meal, when it is on record: what it takes is not taken elsewhere, too"`
			Body meal.Meal
		}) (*body[sheet.MealSheet], error) {
			out, err := s.mealSheet(ctx, in.ID, in.Body, in.reader())
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		},
	)
	huma.Register(
		a,
		op(http.MethodGet, "/api/new/meal", "newMeal", "Get a later meal, from a piece of a cook-out or from nothing"),
		func(ctx context.Context, in *struct {
			Measure
			Zone  string `query:"zone" maxLength:"60" doc:"IANA time zone of the browser"`
			Cook  string `query:"cook" maxLength:"36" doc:"Id; empty is from none"`
			Piece string `query:"piece" maxLength:"40" doc:"Key of the piece"`
		}) (*body[meal.Meal], error) {
			m, err := s.newMeal(ctx, in.Zone, in.Cook, in.Piece, in.reader())
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(m), nil
		},
	)
	huma.Register(a, op(http.MethodGet, "/api/meals/choices", "mealChoices", "List what a later meal is chosen from"),
		func(ctx context.Context, in *struct{ Measure }) (*body[MealChoices], error) {
			all, err := s.Store.LoggedSince(ctx, s.Now().AddDate(0, 0, -keptDays))
			if err != nil {
				return nil, problemOf(err)
			}
			out := MealChoices{Forms: meal.Forms, Dishes: meal.Dishes, Kept: []sheet.KeptLine{}}
			for _, one := range all {
				for _, p := range one.Outcome.Pieces {
					if p.Off != "" {
						out.Kept = append(out.Kept, sheet.WriteKept(one.Cook, one.Outcome.Name, p, in.reader()))
					}
				}
			}
			return answer(out), nil
		})
	huma.Register(
		a,
		op(http.MethodGet, "/api/meals/{id}/calendar.ics", "mealCalendar", "Get a later meal's tasks as iCalendar"),
		func(ctx context.Context, in *ByID) (*fileAnswer, error) {
			r, err := s.Store.Meals().Get(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			out, err := s.mealSheet(ctx, r.ID, r.Doc, sheet.Reader{})
			if err != nil {
				return nil, problemOf(err)
			}
			text, err := exchange.MealCalendar(r.ID, r.Version, r.Doc.Name, out.Tasks, s.Now())
			if err != nil {
				return nil, problemOf(err)
			}
			return &fileAnswer{
				ContentType: "text/calendar; charset=utf-8",
				Disposition: fmt.Sprintf(`attachment; filename="meal-%s.ics"`, r.ID),
				Body:        []byte(text),
			}, nil
		},
	)
}

func (s *server) mealSheet(ctx context.Context, id string, m meal.Meal, as sheet.Reader) (sheet.MealSheet, error) {
	kept, named, err := s.keptFor(ctx, id, m)
	if err != nil {
		return sheet.MealSheet{}, err
	}
	return sheet.WriteMeal(sheet.MealRequest{Meal: m, Kept: kept, Named: named, Now: s.Now()}, as), nil
}

// keptFor is what is on record of what the items of a meal are from, by their keys, and what those
// cook-outs are called. What other meals take is told with it.
func (s *server) keptFor(ctx context.Context, id string, m meal.Meal) (map[string]meal.Kept, map[string]string, error) {
	out, named := map[string]meal.Kept{}, map[string]string{}
	if len(m.Cooks()) == 0 {
		return out, named, nil
	}
	pieces := map[string]logbook.Piece{}
	for _, cook := range m.Cooks() {
		if _, done := named[cook]; done || len(named) >= meal.MaxItems {
			continue
		}
		one, there, err := s.Store.Outcome(ctx, cook)
		if err != nil {
			return nil, nil, err
		}
		named[cook] = one.Outcome.Name
		if !there {
			named[cook] = "a cook-out that is gone"
		}
		for _, p := range one.Outcome.Pieces {
			pieces[cook+p.Key] = p
		}
	}
	others, _, err := s.Store.Meals().List(ctx, store.Query{Limit: mostMeals})
	if err != nil {
		return nil, nil, err
	}
	taken := map[string]float64{}
	for _, other := range others {
		if other.ID == id {
			continue
		}
		for i, mass := range other.Doc.Masses() {
			taken[other.Doc.Items[i].Cook+other.Doc.Items[i].Piece] += mass.KG()
		}
	}
	for _, item := range m.Items {
		p, ok := pieces[item.Cook+item.Piece]
		if !ok {
			continue
		}
		at := func(text string) time.Time {
			t, _ := time.Parse(time.RFC3339, text)
			return t
		}
		out[item.Key] = meal.Kept{
			Sliced:      at(p.Sliced),
			Chilled:     at(p.Chilled),
			Cold:        at(p.Cold),
			KG:          p.KeptKG,
			ElsewhereKG: taken[item.Cook+item.Piece],
		}
	}
	return out, named, nil
}

// newMeal is a meal tomorrow evening, of a piece when one is named.
func (s *server) newMeal(ctx context.Context, zoneName, cook, piece string, as sheet.Reader) (meal.Meal, error) {
	zone, err := time.LoadLocation(zoneName)
	if err != nil {
		return meal.Meal{}, field.Errors{{Pointer: "/query/zone", Wrong: field.Because("zone.unknown")}}
	}
	day := s.Now().In(zone).AddDate(0, 0, 1)
	out := meal.Meal{
		Name:    "Later meal",
		ServeAt: day.Format(time.DateOnly) + "T19:00",
		Zone:    zone.String(),
		Items:   []meal.Item{{Key: "a"}},
	}
	if cook == "" {
		return out, nil
	}
	one, there, err := s.Store.Outcome(ctx, cook)
	if err != nil || !there {
		return out, err
	}
	for _, p := range one.Outcome.Pieces {
		if p.Key == piece || piece == "" {
			line := sheet.WriteKept(cook, one.Outcome.Name, p, as)
			out.Name = strings.TrimSpace(line.Title + " again")
			out.Items = []meal.Item{{Key: "a", Cook: one.Cook, Piece: p.Key, Title: line.Title, Form: line.Form}}
			break
		}
	}
	return out, nil
}
