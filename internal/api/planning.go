package api

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/field"
	"verjuice/internal/core/sheet"
	"verjuice/internal/exchange"
	"verjuice/internal/picture"
	"verjuice/internal/store"
)

// PhotoLine is a photograph in a list.
type PhotoLine struct {
	ID     uint64    `json:"id"`
	Piece  string    `json:"piece" doc:"Key of the piece; empty when it is of the whole cook"`
	Note   string    `json:"note"`
	Width  int       `json:"width"`
	Height int       `json:"height"`
	Taken  time.Time `json:"taken" doc:"When it was added"`
}

func (s *server) registerPlanning(a huma.API) {
	huma.Register(a, op(http.MethodPost, "/api/calc/plan", "plan", "Lay out the days of a cook"),
		func(ctx context.Context, in *struct {
			Measure
			Body sheet.Cook
		}) (*body[*sheet.PlanSheet], error) {
			opt := in.options(s.Now())
			opt.Shelf = s.kitchen(ctx)
			out, err := sheet.Plan(in.Body, opt)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
	huma.Register(a, op(http.MethodPost, "/api/shopping", "shopping", "What to buy for a cook, less what is in the larder and in jars"),
		func(ctx context.Context, in *struct {
			Measure
			ServedAt string `query:"served_at"`
			Body     sheet.Cook
		}) (*body[sheet.Shopping], error) {
			opt := in.options(s.Now())
			opt.ServedAt, opt.Shelf = in.ServedAt, s.kitchen(ctx)
			return answer(sheet.Shop(in.Body, opt)), nil
		})
	huma.Register(a, op(http.MethodGet, "/api/cooks/{id}/calendar.ics", "calendar", "A cook's plan as iCalendar"), s.calendar)
	s.registerPhotos(a)
}

func (s *server) calendar(ctx context.Context, in *ByID) (*fileAnswer, error) {
	r, err := s.Store.Cook(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	out := sheet.Compute(r.Cook, sheet.Options{Now: s.Now(), ServedAt: r.Cook.ServeAt, Shelf: s.kitchen(ctx)})
	if out.Plan == nil {
		return nil, problemOf(field.Errors{{Pointer: "/serve_at", Detail: "without a serving time there is no plan for a calendar"}})
	}
	text, err := exchange.Calendar(r.ID, r.Version, r.Cook, out.Plan, s.Now())
	if err != nil {
		return nil, problemOf(err)
	}
	return &fileAnswer{ContentType: "text/calendar; charset=utf-8", Disposition: fmt.Sprintf(`attachment; filename="cook-%d.ics"`, r.ID), Body: []byte(text)}, nil
}

func (s *server) registerPhotos(a huma.API) {
	added := op(http.MethodPost, "/api/cooks/{id}/photos", "addPhoto", "Attach a photograph; it is made small, and stripped of everything but the picture")
	added.DefaultStatus, added.MaxBodyBytes, added.BodyReadTimeout = http.StatusCreated, picture.MaxBytes+1, time.Minute
	huma.Register(a, added, func(ctx context.Context, in *struct {
		ByID
		Piece   string `query:"piece" maxLength:"60"`
		Note    string `query:"note" maxLength:"400"`
		RawBody []byte `contentType:"application/octet-stream"`
	}) (*body[PhotoLine], error) {
		p, err := picture.Plain(in.RawBody)
		if err != nil {
			return nil, newProblem(http.StatusUnprocessableEntity, err.Error())
		}
		kept, err := s.Store.AddPhoto(ctx, store.Photo{CookID: in.ID, Piece: in.Piece, Note: in.Note, Width: p.Width, Height: p.Height, Data: p.JPEG})
		if err != nil {
			return nil, problemOf(err)
		}
		return answer(photoLine(kept)), nil
	})
	huma.Register(a, op(http.MethodGet, "/api/cooks/{id}/photos", "listPhotos", "Photographs of a cook, the oldest first"),
		func(ctx context.Context, in *ByID) (*body[[]PhotoLine], error) {
			list, err := s.Store.Photos(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			out := []PhotoLine{}
			for _, p := range list {
				out = append(out, photoLine(p))
			}
			return answer(out), nil
		})
	huma.Register(a, op(http.MethodGet, "/api/photos/{id}", "getPhoto", "A photograph as JPEG"),
		func(ctx context.Context, in *ByID) (*fileAnswer, error) {
			p, err := s.Store.Photo(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			return &fileAnswer{ContentType: "image/jpeg", CacheControl: "private, max-age=31536000, immutable", Body: p.Data}, nil
		})
	huma.Register(a, op(http.MethodDelete, "/api/photos/{id}", "deletePhoto", "Take a photograph away; it can be restored"),
		func(ctx context.Context, in *ByID) (*struct{}, error) {
			return nil, problemOf(s.Store.DeletePhoto(ctx, in.ID))
		})
	huma.Register(a, op(http.MethodPost, "/api/photos/{id}/restore", "restorePhoto", "Bring a photograph back"),
		func(ctx context.Context, in *ByID) (*struct{}, error) {
			return nil, problemOf(s.Store.RestorePhoto(ctx, in.ID))
		})
}

func photoLine(p store.Photo) PhotoLine {
	return PhotoLine{ID: p.ID, Piece: p.Piece, Note: p.Note, Width: p.Width, Height: p.Height, Taken: p.CreatedAt}
}
