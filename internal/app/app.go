// Package app is the uses of the program: what is on record is loaded, and the core works it out.
//
//	a := app.New(db, time.Now)
//	in, err := a.Load(ctx, id)      // a cook as it is on record at this moment
//	out, err := in.Live(ctx)        // how it stands at the pit
//
// API, shell, practice and demo ask here, and nobody else drives the core: so all of them see the same
// cook, with the same facts, readings, kitchen and clock. One file is one use. Nothing here is put in words:
// that is package sheet.
package app

import (
	"context"
	"errors"
	"slices"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/store"
)

// App is a program on a store. What it holds in memory is a cache of what is on record.
type App struct {
	Store *store.Store
	Now   func() time.Time

	typed   *store.Store // for what is typed today: dates are held against the clock
	courses courses
}

// New is a program on a store, by a clock.
func New(db *store.Store, now func() time.Time) *App {
	a := &App{Store: db, Now: now, courses: newCourses()}
	if db != nil {
		a.typed = db.Typed(now)
	}
	return a
}

// Typed is the store for what is typed today.
func (a *App) Typed() *store.Store { return a.typed }

// Inputs are all that a cook is worked out from, at one moment.
type Inputs struct {
	cooking.CookRequest // the page, and what has happened

	ID      string              // empty for a page that is not on record
	Version uint                // of the record
	Told    store.Told          // how far what is on record had come
	Kitchen kitchen.Kitchen     // what is on record of it; the request may bring more
	Clock   store.Clock         // the cook's own; the zero Clock is the one on the wall
	Now     time.Time           // by that clock; the zero time switches off what depends on it
	Course  facts.Course        // what its thermometers have read, as far as it counts
	Aside   []facts.Aside       // what does not
	By      forecast.Forecaster // nil runs an ensemble for each piece
}

// Load takes a cook from record, with all that it is worked out from.
func (a *App) Load(ctx context.Context, id string) (Inputs, error) {
	told, err := a.Store.Told(ctx, id)
	if err != nil {
		return Inputs{}, err
	}
	r, err := a.Store.Cooks().Get(ctx, id)
	if err != nil {
		return Inputs{}, err
	}
	said, err := a.Store.Facts(ctx, r.ID)
	if err != nil {
		return Inputs{}, err
	}
	out := Inputs{
		CookRequest: cooking.CookRequest{Cook: r.Doc, Facts: said},
		ID:          r.ID, Version: r.Version, Told: told,
	}
	if out.Course, err = a.courses.follow(ctx, a.Store, r.ID, told.Generation); err != nil {
		return Inputs{}, err
	}
	out.Course, out.Aside = out.Course.Judged(said)
	return out, a.around(ctx, &out)
}

// Page takes a page as it is typed, of the cook on record with that id or of none. What its thermometers
// have read belongs to it as soon as it says that a piece is on the fire.
func (a *App) Page(ctx context.Context, r cooking.CookRequest, id string) (Inputs, error) {
	out := Inputs{CookRequest: r, ID: id}
	if id != "" && slices.ContainsFunc(r.Facts, lit) {
		told, err := a.Store.Told(ctx, id)
		if err == nil {
			out.Told = told
			out.Course, err = a.courses.follow(ctx, a.Store, id, told.Generation)
			out.Course, out.Aside = out.Course.Judged(r.Facts)
		}
		if err != nil && !errors.Is(err, store.ErrNotFound) { // what was deleted meanwhile has no thermometers
			return Inputs{}, err
		}
	}
	return out, a.around(ctx, &out)
}

// lit reports whether a fact says that a piece went on the fire.
func lit(f facts.Fact) bool { return f.Kind == facts.Done && f.What == "fire" }

// around takes the clock and the kitchen of inputs from record.
func (a *App) around(ctx context.Context, in *Inputs) (err error) {
	if in.ID != "" {
		if in.Clock, err = a.Store.Clock(ctx, in.ID); err != nil {
			return err
		}
	}
	in.Now = in.Clock.Now(a.Now())
	in.Kitchen, err = a.kitchen(ctx, in.Formulas()...)
	return err
}

// kitchen is what there is on record of a kitchen, with the formulas of these ids.
func (a *App) kitchen(ctx context.Context, formulas ...string) (kitchen.Kitchen, error) {
	return a.Store.Kitchen(ctx, a.Now(), formulas...)
}

// at is the moment of the inputs, as the core takes it.
func (in Inputs) at() cooking.Clock {
	return cooking.Clock{Now: in.Now, Forecast: in.By, Read: in.Course.Readings()}
}

// Work works a cook out after another page of it; after the zero Result, from nothing. The error is that of
// ctx.
func (in Inputs) Work(ctx context.Context, before cooking.Result) (cooking.Result, error) {
	return in.CookRequest.Work(ctx, before, in.Kitchen, in.at())
}
