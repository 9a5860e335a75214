package api

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/quantity"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// JarLine is a jar and how it stands.
type JarLine struct {
	ID      string      `json:"id" format:"uuid"`
	Version uint        `json:"version"`
	Jar     formula.Jar `json:"jar"`
	sheet.JarSheet
}

// jarLine tells how a jar stands, and what of a need in grams it can give.
func (s *server) jarLine(k kitchen.Kitchen, d store.Record[formula.Jar], m Measure, need float64) JarLine {
	stand, wrong := d.Doc.Stand(k, s.Now())
	return JarLine{
		d.ID,
		d.Version,
		d.Doc,
		sheet.WriteJar(stand, sheet.Mistakes(wrong, m.reader()), quantity.Mass(need)*quantity.Gram, m.reader()),
	}
}

// jarsOf lists the jars that a filter accepts.
func (s *server) jarsOf(
	ctx context.Context,
	m Measure,
	need float64,
	of func(formula.Formula) bool,
) (*body[ListPage[JarLine]], error) {
	list, _, err := s.Store.Jars().List(ctx, store.Query{})
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
	return onePage(out), nil
}

// draw takes some out of a jar, today unless it says another day. A draw that comes
// with an id that is there already was taken before.
func (s *server) draw(ctx context.Context, id string, taken formula.Draw, m Measure) (*body[JarLine], error) {
	if taken.Day == "" {
		taken.Day = s.today()
	}
	if taken.ID == "" {
		taken.ID = uuid.NewString()
	}
	n := 0
	now, err := s.app.Typed().Jars().Change(ctx, id, func(j *formula.Jar) error {
		if slices.ContainsFunc(j.Draws, taken.Is) {
			return nil
		}
		j.Draws = append(slices.Clone(j.Draws), taken)
		n = len(j.Draws) - 1
		return nil
	})
	if err != nil {
		return nil, problemOf(lastDraw(err, n))
	}
	k, err := s.kitchen(ctx)
	if err != nil {
		return nil, err
	}
	return answer(s.jarLine(k, now, m, 0)), nil
}

func (s *server) registerJars(a huma.API) {
	resource[formula.Jar]{
		path: "/api/jars", noun: "Jar", what: "a jar", records: s.app.Typed().Jars, fill: s.madeToday,
	}.register(a)
	huma.Register(a, op(http.MethodGet, "/api/jars", "listJars", "List jars and how they stand"),
		func(ctx context.Context, in *struct {
			Measure
			Need float64 `query:"need" minimum:"0" maximum:"500000" doc:"Grams that are needed"`
		}) (*body[ListPage[JarLine]], error) {
			return s.jarsOf(ctx, in.Measure, in.Need, func(formula.Formula) bool { return true })
		})
	huma.Register(a, op(http.MethodPost, "/api/jars/of", "listJarsOfMix", "List the jars of one mix, whatever it is called"),
		func(ctx context.Context, in *struct {
			Measure
			Need float64 `query:"need" minimum:"0" maximum:"500000" doc:"Grams that are needed"`
			Body formula.Formula
		}) (*body[ListPage[JarLine]], error) {
			return s.jarsOf(ctx, in.Measure, in.Need, in.Body.SameMix)
		})
	huma.Register(a, op(http.MethodPost, "/api/jars/{id}/draws", "createJarDraw", "Take some out of a jar"),
		func(ctx context.Context, in *struct {
			ByID
			Measure
			Body formula.Draw
		}) (*body[JarLine], error) {
			return s.draw(ctx, in.ID, in.Body, in.Measure)
		})
	huma.Register(a, op(http.MethodDelete, "/api/jars/{id}/draws/{draw}", "deleteJarDraw", "Put a draw back into its jar"),
		func(ctx context.Context, in *struct {
			ByID
			Draw string `path:"draw" maxLength:"60" doc:"Id of the draw"`
		}) (*struct{}, error) {
			_, err := s.Store.Jars().Change(ctx, in.ID, func(j *formula.Jar) error {
				n := slices.IndexFunc(j.Draws, formula.Draw{ID: in.Draw}.Is)
				if n < 0 {
					return store.ErrNotFound
				}
				j.Draws = slices.Delete(slices.Clone(j.Draws), n, n+1)
				return nil
			})
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
