package api

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/meal"
	"verjuice/internal/exchange"
	"verjuice/internal/sheet"
)

// MealChoices are what a meal is chosen from.
type MealChoices struct {
	Forms  []meal.KeptForm  `json:"forms"  nullable:"false"`
	Dishes []meal.Dish      `json:"dishes" nullable:"false"`
	Kept   []sheet.KeptLine `json:"kept"   nullable:"false" doc:"What was cooked lately, the latest first"`
}

// registerMeals serves later meals from what was kept.
func (s *server) registerMeals(a huma.API) {
	resource[meal.Meal]{
		path: "/api/meals", noun: "Meal", what: "a later meal", records: s.app.Typed().Meals,
		// all that is left of something, which has to be known
		rests: func(ctx context.Context, id string, m meal.Meal) error {
			out, _, err := s.app.Meal(ctx, id, m)
			if err != nil {
				return err
			}
			return out.Wrong.Err()
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
			"calcMeal",
			"Work a later meal out: when to warm what, and how many it feeds", patiently),
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
			Zone  string `query:"zone" maxLength:"60" doc:"IANA time zone of the browser"`
			Cook  string `query:"cook" maxLength:"36" doc:"Id; empty is from none"`
			Piece string `query:"piece" maxLength:"40" doc:"Key of the piece"`
		}) (*body[meal.Meal], error) {
			m, err := s.app.NewMeal(ctx, in.Zone, in.Cook, in.Piece)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(m), nil
		},
	)
	huma.Register(
		a,
		op(http.MethodGet, "/api/meals/choices", "getMealChoices", "List what a later meal is chosen from"),
		func(ctx context.Context, in *struct{ Measure }) (*body[MealChoices], error) {
			all, err := s.app.Kept(ctx)
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
		},
	)
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/meals/{id}/calendar.ics",
			"getMealCalendar",
			"Get a later meal's tasks as iCalendar",
			patiently,
		),
		func(ctx context.Context, in *ByID) (*fileAnswer, error) {
			r, err := s.Store.Meals().Get(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			out, err := s.mealSheet(ctx, r.ID, r.Doc, sheet.Reader{})
			if err != nil {
				return nil, problemOf(err)
			}
			var events []exchange.Event
			for i, t := range out.Tasks {
				one := exchange.Event{
					ID:      fmt.Sprintf("meal-%s-%d", r.ID, i),
					Label:   t.Label,
					Note:    t.Note,
					Reminds: true,
				}
				if one.From, err = time.Parse(time.RFC3339, t.At); err != nil {
					return nil, problemOf(err)
				}
				one.Until = one.From.Add(10 * time.Minute)
				events = append(events, one)
			}
			return calendarFile("meal-"+r.ID, exchange.Calendar(r.Doc.Name, r.Version, s.Now(), events)), nil
		},
	)
}

func (s *server) mealSheet(ctx context.Context, id string, m meal.Meal, as sheet.Reader) (sheet.MealSheet, error) {
	out, named, err := s.app.Meal(ctx, id, m)
	if err != nil {
		return sheet.MealSheet{}, err
	}
	return sheet.WriteMeal(out, named, as), nil
}
