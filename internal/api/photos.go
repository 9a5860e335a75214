package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/picture"
	"verjuice/internal/store"
)

// PhotoLine is a photograph in a list.
type PhotoLine struct {
	ID     uint64    `json:"id"`
	Piece  string    `json:"piece"  doc:"Key of the piece; empty when it is of the whole cook"`
	Note   string    `json:"note"`
	Width  int       `json:"width"`
	Height int       `json:"height"`
	Taken  time.Time `json:"taken"  doc:"When it was added"`
}

type photoID struct {
	ID uint64 `path:"id" minimum:"1"`
}

func (s *server) registerPhotos(a huma.API) {
	added := op(
		http.MethodPost,
		"/api/cooks/{id}/photos",
		"createCookPhoto",
		"Add a photograph; it is scaled down, and its metadata removed",
		patiently,
		making,
		holding(picture.MaxBytes+1, time.Minute),
	)
	huma.Register(a, added, func(ctx context.Context, in *struct {
		ByID
		Piece   string `query:"piece" maxLength:"60"`
		Note    string `query:"note" maxLength:"400"`
		RawBody []byte `contentType:"application/octet-stream"`
	}) (*body[PhotoLine], error) {
		p, err := picture.PlainIn(ctx, in.RawBody)
		if ctx.Err() != nil {
			return nil, newProblem(
				http.StatusServiceUnavailable,
				"Too many photographs are being read at once. Add this one again in a moment.",
			)
		}
		if err != nil {
			return nil, newProblem(http.StatusUnprocessableEntity, err.Error())
		}
		kept, err := s.Store.AddPhoto(
			ctx,
			store.Photo{Cook: in.ID, Piece: in.Piece, Note: in.Note, Width: p.Width, Height: p.Height, Data: p.JPEG},
		)
		if err != nil {
			return nil, problemOf(err)
		}
		return answer(photoLine(kept)), nil
	})
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/cooks/{id}/photos",
			"listCookPhotos",
			"List the photographs of a cook, oldest first",
			patiently,
		),
		func(ctx context.Context, in *ByID) (*body[ListPage[PhotoLine]], error) {
			if _, err := s.Store.Cooks().Get(ctx, in.ID); err != nil {
				return nil, problemOf(err)
			}
			list, err := s.Store.Photos(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			out := []PhotoLine{}
			for _, p := range list {
				out = append(out, photoLine(p))
			}
			return onePage(out), nil
		},
	)
	huma.Register(a, op(http.MethodGet, "/api/photos/{id}", "getPhoto", "Get a photograph as JPEG", patiently),
		func(ctx context.Context, in *photoID) (*fileAnswer, error) {
			p, err := s.Store.Photo(ctx, in.ID)
			if err != nil {
				return nil, problemOf(err)
			}
			return &fileAnswer{
				ContentType:  "image/jpeg",
				CacheControl: "private, max-age=31536000, immutable",
				Body:         p.Data,
			}, nil
		})
	huma.Register(
		a,
		op(http.MethodDelete, "/api/photos/{id}", "deletePhoto", "Delete a photograph; it can be restored", patiently),
		func(ctx context.Context, in *photoID) (*struct{}, error) {
			return nil, problemOf(s.Store.DeletePhoto(ctx, in.ID))
		},
	)
	huma.Register(
		a,
		op(http.MethodPost, "/api/photos/{id}/restore", "restorePhoto", "Restore a deleted photograph", patiently),
		func(ctx context.Context, in *photoID) (*struct{}, error) {
			return nil, problemOf(s.Store.RestorePhoto(ctx, in.ID))
		},
	)
}

func photoLine(p store.Photo) PhotoLine {
	return PhotoLine{ID: p.ID, Piece: p.Piece, Note: p.Note, Width: p.Width, Height: p.Height, Taken: p.CreatedAt}
}
