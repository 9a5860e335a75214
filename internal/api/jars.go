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
	"verjuice/internal/core/quantity"
	"verjuice/internal/store"
)

// JarLine is a jar and how it stands.
type JarLine struct {
	ID        uint64      `json:"id"`
	Version   uint        `json:"version"`
	Jar       formula.Jar `json:"jar"`
	Made      string      `json:"made" doc:"Day in words"`
	UseBy     string      `json:"use_by" doc:"Day in words"`
	Over      bool        `json:"over" doc:"Past its use-by"`
	Soon      bool        `json:"soon" doc:"Its use-by is within two weeks, or a third of its time"`
	Keep      string      `json:"keep" doc:"How to keep it"`
	LeftGrams float64     `json:"left_grams"`
	Left      string      `json:"left" doc:"In the cook's units"`
	LeftShare float64     `json:"left_share" doc:"0 to 1"`
	LeftSpoon string      `json:"left_spoons" doc:"The same in spoons and cups"`
	SaltShare float64     `json:"salt_share" doc:"%"`
	Mixes     []MixShare  `json:"mix" nullable:"false" doc:"Layers of the picture, by volume"`
	Taken     []string    `json:"taken" nullable:"false" doc:"Each draw, in grams"`
	Take      string      `json:"take" doc:"What of the need it can give; empty without a need"`
	Short     string      `json:"short" doc:"What of the need it cannot give; empty when it gives all"`
}

// MixShare is an ingredient's part of a mix.
type MixShare struct {
	Name   string  `json:"name"`
	Kind   string  `json:"kind"`
	Volume float64 `json:"volume" doc:"0 to 1"`
}

// jarLine tells how a jar stands, and what of a need in grams it can give.
func (s *server) jarLine(ctx context.Context, d store.Doc[formula.Jar], m Measure, need float64) JarLine {
	stand, wrong := d.Doc.Stand(s.kitchen(ctx), s.Now())
	line := JarLine{ID: d.ID, Version: d.Version, Jar: d.Doc, Mixes: []MixShare{}, Taken: []string{}}
	if len(wrong) > 0 {
		line.Keep = wrong[0].Detail
		return line
	}
	day := func(t time.Time) string { return t.Format("2 January 2006") }
	line.Made, line.UseBy, line.Over, line.Keep = day(stand.MadeDay), day(stand.UseBy), stand.Over, stand.Keep
	line.Soon = stand.Soon
	line.LeftGrams, line.Left = stand.Left.Grams(), quantity.FormatMass(stand.Left, m.Units)
	line.LeftShare, line.LeftSpoon = float64(stand.Left/stand.Made), quantity.FormatSpoons(stand.Mix.Volume(stand.Left), m.Spoons).Text
	line.SaltShare = 100 * stand.Mix.SaltShare()
	for _, c := range stand.Mix.Components {
		line.Mixes = append(line.Mixes, MixShare{c.Ingredient.Name, c.Ingredient.Kind, c.VolumeShare})
	}
	for _, t := range stand.Taken {
		line.Taken = append(line.Taken, quantity.FormatGrams(t)+" g")
	}
	if need > 0 {
		give, short := stand.Give(quantity.Mass(need) * quantity.Gram)
		line.Take = fmt.Sprintf("%.1f g", give.Grams())
		if short > 0 {
			line.Short = fmt.Sprintf("%.0f g", short.Grams())
		}
	}
	return line
}

func (s *server) registerJars(a huma.API) {
	docs(a, s.Store.Jars, resource[formula.Jar]{path: "/api/jars", noun: "jar", what: "a jar", check: s.soundJar, fill: s.madeToday})
	huma.Register(a, op(http.MethodGet, "/api/jars", "listJars", "Jars made ahead, and how they stand"),
		func(ctx context.Context, in *struct {
			Measure
			Formula string  `query:"formula" maxLength:"64" doc:"Only jars of this formula"`
			Need    float64 `query:"need" minimum:"0" maximum:"500000" doc:"Grams that are wanted of it"`
		}) (*body[[]JarLine], error) {
			list, err := s.Store.Jars().List(ctx, false)
			if err != nil {
				return nil, problemOf(err)
			}
			out := []JarLine{}
			for _, d := range list {
				if in.Formula == "" || d.Doc.Formula.ID == in.Formula {
					out = append(out, s.jarLine(ctx, d, in.Measure, in.Need))
				}
			}
			return answer(out), nil
		})
	huma.Register(a, op(http.MethodPost, "/api/jars/{id}/draws", "drawFromJar", "Take some out of a jar"),
		func(ctx context.Context, in *struct {
			ByID
			Measure
			Body formula.Draw
		}) (*body[JarLine], error) {
			d, err := s.Store.Jars().Get(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			if in.Body.Day == "" {
				in.Body.Day = s.today()
			}
			d.Doc.Draws = append(d.Doc.Draws, in.Body)
			if err := s.soundJar(ctx, d.Doc); err != nil {
				return nil, problemOf(lastDraw(err, len(d.Doc.Draws)-1))
			}
			d, err = s.Store.Jars().Update(ctx, d.ID, d.Version, d.Doc)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(s.jarLine(ctx, d, in.Measure, 0)), nil
		})
	huma.Register(a, op(http.MethodDelete, "/api/jars/{id}/draws/{draw}", "putBackInJar", "Put back what was taken out last"),
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
	_, wrong := j.Stand(s.kitchen(ctx), s.Now())
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
