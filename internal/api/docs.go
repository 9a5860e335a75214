package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/store"
)

// resource describes records that are read and written whole.
type resource[T any] struct {
	path  string
	noun  string // in operation ids, with a capital
	what  string // in summaries
	check func(context.Context, T) error
	fill  func(T) T // fills in what a new one may leave out; nil changes nothing
}

// DocRecord is a saved document.
type DocRecord[T any] struct {
	ID      uint64    `json:"id"`
	Version uint      `json:"version" doc:"Also in the ETag; If-Match names it when writing"`
	Updated time.Time `json:"updated"`
	Doc     T         `json:"doc"`
}

type docVersioned[T any] struct {
	ETag string `header:"ETag"`
	Body DocRecord[T]
}

func docOnRecord[T any](d store.Doc[T], err error) (*docVersioned[T], error) {
	if err != nil {
		return nil, problemOf(err)
	}
	return &docVersioned[T]{ETag: etag(d.Version), Body: DocRecord[T](d)}, nil
}

// docs serves making, opening, replacing, deleting and restoring such records.
func docs[T any](a huma.API, records func() store.Docs[T], r resource[T]) {
	created := op(http.MethodPost, r.path, "create"+r.noun, "Create "+r.what)
	created.DefaultStatus = http.StatusCreated
	huma.Register(a, created, func(ctx context.Context, in *body[T]) (*docVersioned[T], error) {
		doc := in.Body
		if r.fill != nil {
			doc = r.fill(doc)
		}
		if err := r.check(ctx, doc); err != nil {
			return nil, problemOf(err)
		}
		return docOnRecord(records().Create(ctx, doc))
	})
	huma.Register(a, op(http.MethodGet, r.path+"/{id}", "get"+r.noun, "Get "+r.what), func(ctx context.Context, in *ByID) (*docVersioned[T], error) {
		return docOnRecord(records().Get(ctx, in.ID))
	})
	huma.Register(a, op(http.MethodPut, r.path+"/{id}", "save"+r.noun, "Replace "+r.what), func(ctx context.Context, in *struct {
		IfMatch
		Body T
	}) (*docVersioned[T], error) {
		version, err := in.version()
		if err != nil {
			return nil, err
		}
		if err := r.check(ctx, in.Body); err != nil {
			return nil, problemOf(err)
		}
		return docOnRecord(records().Update(ctx, in.ID, version, in.Body))
	})
	huma.Register(a, op(http.MethodDelete, r.path+"/{id}", "delete"+r.noun, "Delete "+r.what+"; it can be restored"), func(ctx context.Context, in *IfMatch) (*struct{}, error) {
		version, err := in.version()
		if err != nil {
			return nil, err
		}
		return nil, problemOf(records().Delete(ctx, in.ID, version))
	})
	huma.Register(a, op(http.MethodPost, r.path+"/{id}/restore", "restore"+r.noun, "Restore "+r.what), func(ctx context.Context, in *ByID) (*docVersioned[T], error) {
		return docOnRecord(records().Restore(ctx, in.ID))
	})
}
