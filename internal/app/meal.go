package app

import (
	"context"
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/meal"
	"verjuice/internal/store"
)

// Kept meat is looked for in cook-outs of the last so many days: longer it does not keep frozen well.
const keptDays = 120

// mostMeals is how many meals are looked through for what else is made of something, the latest.
const mostMeals = 200

// Meal works out a later meal, on record under that id or not yet. The cook-outs that it is from are named
// by their ids; one that is not on record any more has no name.
func (a *App) Meal(ctx context.Context, id string, m meal.Meal) (meal.Plan, map[string]string, error) {
	kept, named, err := a.keptFor(ctx, id, m)
	if err != nil {
		return meal.Plan{}, nil, err
	}
	return meal.Work(m, kept, a.Now()), named, nil
}

// keptFor is what is on record of what the items of a meal are from, by their keys, and what those
// cook-outs are called. What other meals take is told with it.
func (a *App) keptFor(ctx context.Context, id string, m meal.Meal) (map[string]meal.Kept, map[string]string, error) {
	out, named := map[string]meal.Kept{}, map[string]string{}
	if len(m.Cooks()) == 0 {
		return out, named, nil
	}
	pieces := map[string]logbook.Piece{}
	for _, cook := range m.Cooks() {
		if _, done := named[cook]; done || len(named) >= meal.MaxItems {
			continue
		}
		one, _, err := a.Store.Outcome(ctx, cook)
		if err != nil {
			return nil, nil, err
		}
		named[cook] = one.Outcome.Name
		for _, p := range one.Outcome.Pieces {
			pieces[cook+p.Key] = p
		}
	}
	others, _, err := a.Store.Meals().List(ctx, store.Query{Limit: mostMeals})
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

// Kept is what came off the fire in cook-outs of late, of which a meal may be made, the latest first.
func (a *App) Kept(ctx context.Context) ([]store.Logged, error) {
	return a.Store.LoggedSince(ctx, a.Now().AddDate(0, 0, -keptDays))
}

// NewMeal is a meal tomorrow evening in a zone, of a piece of a cook-out when one is named. The error is a
// field.Errors for a zone that there is not.
func (a *App) NewMeal(ctx context.Context, zoneName, cook, piece string) (meal.Meal, error) {
	zone, err := time.LoadLocation(zoneName)
	if err != nil {
		return meal.Meal{}, field.Errors{{Pointer: "/query/zone", Wrong: field.Because("zone.unknown")}}
	}
	day := a.Now().In(zone).AddDate(0, 0, 1)
	out := meal.Meal{
		Name:    "Later meal",
		ServeAt: day.Format(time.DateOnly) + "T19:00",
		Zone:    zone.String(),
		Items:   []meal.Item{{Key: "a"}},
	}
	if cook == "" {
		return out, nil
	}
	one, there, err := a.Store.Outcome(ctx, cook)
	if err != nil || !there {
		return out, err
	}
	for _, p := range one.Outcome.Pieces {
		if p.Key == piece || piece == "" {
			title := field.Capital(p.Label)
			out.Name = strings.TrimSpace(title + " again")
			out.Items = []meal.Item{{Key: "a", Cook: one.Cook, Piece: p.Key, Title: title, Form: meal.FormOf(p.Finish)}}
			break
		}
	}
	return out, nil
}
