package api

import (
	"context"
	"fmt"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/store"
)

// DocRecord is a saved document.
type DocRecord[T any] struct {
	ID      string    `json:"id" format:"uuid"`
	Version uint      `json:"version" doc:"Also in the ETag; If-Match names it when writing"`
	Updated time.Time `json:"updated"`
	Doc     T         `json:"doc"`
}

func docRecord[T any](r store.Record[T]) DocRecord[T] { return DocRecord[T](r) }

// resource describes records that are read and written whole: of T, shown as R.
type resource[T, R any] struct {
	path    string
	noun    string // in operation ids, with a capital
	what    string // in summaries
	records func() store.Records[T]
	show    func(store.Record[T]) R
	// refuses what cannot be beside other records; nil refuses nothing
	rests func(ctx context.Context, id string, doc T) error
	fill  func(T) T // fills in what a new one may leave out; nil changes nothing
	// Kinds that keep more than the record itself save in their own way.
	create func(context.Context, T) (store.Record[T], error)
	update func(ctx context.Context, id string, version uint, doc T) (store.Record[T], error)
}

// saved is a record as it is answered, with its version.
type saved[R any] struct {
	ETag string `header:"ETag"`
	Body R
}

func etag(version uint) string { return fmt.Sprintf("%q", strconv.FormatUint(uint64(version), 10)) }

// ByID names a record.
type ByID struct {
	ID string `path:"id" maxLength:"36" doc:"UUID"`
}

// IfMatch names a record and the version that is to be changed.
type IfMatch struct {
	ByID
	Match string `header:"If-Match" doc:"The ETag the record was read with"`
}

// version is the version that If-Match names.
func (m IfMatch) version() (uint, error) {
	if m.Match == "" {
		return 0, newProblem(
			http.StatusPreconditionRequired,
			"Say with If-Match which version you change, so that another screen's work is not overwritten.",
		)
	}
	v, err := strconv.ParseUint(strings.Trim(strings.TrimPrefix(m.Match, "W/"), `"`), 10, 32)
	if err != nil {
		return 0, problemOf(store.ErrStale)
	}
	return uint(v), nil
}

// answer is what a request about one record is answered with.
func (r resource[T, R]) answer(rec store.Record[T], err error) (*saved[R], error) {
	if err != nil {
		return nil, problemOf(err)
	}
	return &saved[R]{ETag: etag(rec.Version), Body: r.show(rec)}, nil
}

func (r resource[T, R]) made(ctx context.Context, in *body[T]) (*saved[R], error) {
	doc := in.Body
	if r.fill != nil {
		doc = r.fill(doc)
	}
	if r.rests != nil {
		if err := r.rests(ctx, "", doc); err != nil {
			return nil, problemOf(err)
		}
	}
	if r.create != nil {
		return r.answer(r.create(ctx, doc))
	}
	return r.answer(r.records().Create(ctx, doc))
}

func (r resource[T, R]) replaced(ctx context.Context, in *struct {
	IfMatch
	Body T
}) (*saved[R], error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	if r.rests != nil {
		if err := r.rests(ctx, in.ID, in.Body); err != nil {
			return nil, problemOf(err)
		}
	}
	if r.update != nil {
		return r.answer(r.update(ctx, in.ID, version, in.Body))
	}
	return r.answer(r.records().Update(ctx, in.ID, version, in.Body))
}

// register serves making, opening, replacing, deleting and restoring such records.
func (r resource[T, R]) register(a huma.API) {
	created := op(http.MethodPost, r.path, "create"+r.noun, "Create "+r.what)
	created.DefaultStatus = http.StatusCreated
	huma.Register(a, created, r.made)
	huma.Register(
		a,
		op(http.MethodGet, r.path+"/{id}", "get"+r.noun, "Get "+r.what),
		func(ctx context.Context, in *ByID) (*saved[R], error) {
			return r.answer(r.records().Get(ctx, in.ID))
		},
	)
	huma.Register(a, op(http.MethodPut, r.path+"/{id}", "save"+r.noun, "Replace "+r.what), r.replaced)
	huma.Register(
		a,
		op(http.MethodDelete, r.path+"/{id}", "delete"+r.noun, "Delete "+r.what+"; it can be restored"),
		func(ctx context.Context, in *IfMatch) (*struct{}, error) {
			version, err := in.version()
			if err != nil {
				return nil, err
			}
			return nil, problemOf(r.records().Delete(ctx, in.ID, version))
		},
	)
	huma.Register(
		a,
		op(http.MethodPost, r.path+"/{id}/restore", "restore"+r.noun, "Restore "+r.what),
		func(ctx context.Context, in *ByID) (*saved[R], error) {
			return r.answer(r.records().Restore(ctx, in.ID))
		},
	)
}

// Paged asks for a page of a list.
type Paged struct {
	Page   int    `query:"page" minimum:"1" maximum:"100000" default:"1"`
	Search string `query:"search" maxLength:"100"`
}

// query is the page of so many lines each.
func (p Paged) query(per int) store.Query {
	return store.Query{Search: p.Search, Offset: (p.Page - 1) * per, Limit: per}
}

// ListPage is a page of a list.
type ListPage[L any] struct {
	Items []L   `json:"items" nullable:"false"`
	Total int64 `json:"total"`
	Page  int   `json:"page"`
}
