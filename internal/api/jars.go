package api

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/quantity"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// JarLine is a jar and how it stands.
type JarLine struct {
	ID      uint64      `json:"id"`
	Version uint        `json:"version"`
	Jar     formula.Jar `json:"jar"`
	sheet.JarSheet
}

// jarLine tells how a jar stands, and what of a need in grams it can give.
func (s *server) jarLine(k kitchen.Kitchen, d store.Doc[formula.Jar], m Measure, need float64) JarLine {
	stand, wrong := d.Doc.Stand(k, s.Now())
	return JarLine{d.ID, d.Version, d.Doc, sheet.WriteJar(stand, sheet.Mistakes(wrong, m.reader()), quantity.Mass(need)*quantity.Gram, m.reader())}
}

// jarsOf lists the jars that a filter accepts.
func (s *server) jarsOf(ctx context.Context, m Measure, need float64, of func(formula.Formula) bool) (*body[[]JarLine], error) {
	list, err := s.Store.Jars().List(ctx, false)
	if err != nil {
		return nil, problemOf(err)
	}
	k, err := s.kitchen(ctx)
	if err != nil {
		return nil, err
	}
	out := []JarLine{}
	for _, d := range list {
		if of(d.Doc.Formula) {
			out = append(out, s.jarLine(k, d, m, need))
		}
	}
	return answer(out), nil
}

// draw takes some out of a jar, today unless it says another day.
func (s *server) draw(ctx context.Context, id uint64, taken formula.Draw, m Measure) (*body[JarLine], error) {
	d, err := s.Store.Jars().Get(ctx, id)
	if err != nil {
		return nil, problemOf(err)
	}
	if taken.Day == "" {
		taken.Day = s.today()
	}
	d.Doc.Draws = append(d.Doc.Draws, taken)
	if err := s.soundJar(ctx, d.Doc); err != nil {
		return nil, problemOf(lastDraw(err, len(d.Doc.Draws)-1))
	}
	d, err = s.Store.Jars().Update(ctx, d.ID, d.Version, d.Doc)
	if err != nil {
		return nil, problemOf(err)
	}
	k, err := s.kitchen(ctx)
	if err != nil {
		return nil, err
	}
	return answer(s.jarLine(k, d, m, 0)), nil
}

func (s *server) registerJars(a huma.API) {
	docs(a, s.Store.Jars, resource[formula.Jar]{path: "/api/jars", noun: "Jar", what: "a jar", check: s.soundJar, fill: s.madeToday})
	huma.Register(a, op(http.MethodGet, "/api/jars", "listJars", "List jars and how they stand"),
		func(ctx context.Context, in *struct {
			Measure
			Need float64 `query:"need" minimum:"0" maximum:"500000" doc:"Grams that are needed"`
		}) (*body[[]JarLine], error) {
			return s.jarsOf(ctx, in.Measure, in.Need, func(formula.Formula) bool { return true })
		})
	huma.Register(a, op(http.MethodPost, "/api/jars/of", "jarsOfMix", "List the jars of one mix, whatever it is called"),
		func(ctx context.Context, in *struct {
			Measure
			Need float64 `query:"need" minimum:"0" maximum:"500000" doc:"Grams that are needed"`
			Body formula.Formula
		}) (*body[[]JarLine], error) {
			return s.jarsOf(ctx, in.Measure, in.Need, in.Body.SameMix)
		})
	huma.Register(a, op(http.MethodPost, "/api/jars/{id}/draws", "drawFromJar", "Take some out of a jar"),
		func(ctx context.Context, in *struct {
			ByID
			Measure
			Body formula.Draw
		}) (*body[JarLine], error) {
			return s.draw(ctx, in.ID, in.Body, in.Measure)
		})
	huma.Register(a, op(http.MethodDelete, "/api/jars/{id}/draws/{draw}", "putBackInJar", "Put a draw back into its jar"),
		func(ctx context.Context, in *struct {
			ByID
			Draw int `path:"draw" minimum:"0" maximum:"499" doc:"Number of the draw, from 0"`
		}) (*struct{}, error) {
			d, err := s.Store.Jars().Get(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			if in.Draw >= len(d.Doc.Draws) {
				return nil, problemOf(store.ErrNotFound)
			}
			d.Doc.Draws = append(d.Doc.Draws[:in.Draw], d.Doc.Draws[in.Draw+1:]...)
			_, err = s.Store.Jars().Update(ctx, d.ID, d.Version, d.Doc)
			return nil, problemOf(err)
		})
}

// today is the date where the server is.
func (s *server) today() string { return s.Now().Format(time.DateOnly) }

// madeToday dates a jar whose day was left out.
func (s *server) madeToday(j formula.Jar) formula.Jar {
	if j.Made == "" {
		j.Made = s.today()
	}
	return j
}

func (s *server) soundJar(ctx context.Context, j formula.Jar) error {
	k, err := s.Store.Kitchen(ctx, s.Now(), j.Formula.Uses()...)
	if err != nil {
		return err
	}
	_, wrong := j.Stand(k, s.Now())
	return wrong.Err()
}

// lastDraw moves a mistake in the draw just asked for to where it was typed.
func lastDraw(err error, n int) error {
	list, ok := err.(field.Errors)
	if !ok {
		return err
	}
	out := field.Errors{}
	for _, e := range list {
		e.Pointer = strings.TrimPrefix(e.Pointer, fmt.Sprintf("/draws/%d", n))
		out = append(out, e)
	}
	return out
}
