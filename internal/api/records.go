package api

import (
	"context"
	"errors"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/store"
)

// DocRecord is a saved document: every record of the API is one.
type DocRecord[T any] struct {
	ID      string    `json:"id" format:"uuid"`
	Version uint      `json:"version" doc:"Also in the ETag; If-Match names it when writing"`
	Updated time.Time `json:"updated"`
	Doc     T         `json:"doc"`
}

func docRecord[T any](r store.Record[T]) DocRecord[T] { return DocRecord[T](r) }

// resource describes records that are read and written whole.
type resource[T any] struct {
	path    string
	noun    string // in operation ids, with a capital
	what    string // in summaries
	records func() store.Records[T]
	// refuses what cannot be beside other records; nil refuses nothing
	rests func(ctx context.Context, id string, doc T) error
	fill  func(T) T // fills in what a new one may leave out; nil changes nothing
	// problems that replacing one may be answered by besides those of every kind
	refuses []int
	// Kinds that keep more than the record itself save in their own way.
	create func(context.Context, T) (store.Record[T], error)
	update func(ctx context.Context, id string, version uint, doc T) (store.Record[T], error)
}

// saved is a record as it is answered, with its version.
type saved[T any] struct {
	ETag string `header:"ETag"`
	Body DocRecord[T]
}

// made is a record that was made just now, with where it is.
type made[T any] struct {
	Location string `header:"Location" doc:"Where it is"`
	ETag     string `header:"ETag"`
	Body     DocRecord[T]
}

// tag is the version of a record as an ETag names it, etag the same with its quotes.
func tag(version uint) string  { return strconv.FormatUint(uint64(version), 10) }
func etag(version uint) string { return strconv.Quote(tag(version)) }

// answered is a record as it is answered.
func answered[T any](rec store.Record[T], err error) (*saved[T], error) {
	if err != nil {
		return nil, problemOf(err)
	}
	return &saved[T]{ETag: etag(rec.Version), Body: docRecord(rec)}, nil
}

// madeAt is a record that was made below a path of the API.
func madeAt[T any](path string, rec store.Record[T], err error) (*made[T], error) {
	if errors.Is(err, store.ErrMade) {
		err = nil
	}
	out, err := answered(rec, err)
	if err != nil {
		return nil, err
	}
	return &made[T]{Location: path + "/" + rec.ID, ETag: out.ETag, Body: out.Body}, nil
}

// ByID names a record.
type ByID struct {
	ID string `path:"id" maxLength:"36" doc:"UUID"`
}

func (r resource[T]) made(ctx context.Context, in *body[T]) (*made[T], error) {
	doc := in.Body
	if r.fill != nil {
		doc = r.fill(doc)
	}
	if r.rests != nil {
		if err := r.rests(ctx, "", doc); err != nil {
			return nil, problemOf(err)
		}
	}
	create := r.records().Create
	if r.create != nil {
		create = r.create
	}
	rec, err := create(ctx, doc)
	return madeAt(r.path, rec, err)
}

// version is the version on record that a change is made to, which If-Match has to name.
func (r resource[T]) version(ctx context.Context, m *IfMatch) (uint, error) {
	rec, err := r.records().Get(ctx, m.ID)
	return m.check(rec.Version, err)
}

func (r resource[T]) replaced(ctx context.Context, in *struct {
	IfMatch
	Body T
}) (*saved[T], error) {
	version, err := r.version(ctx, &in.IfMatch)
	if err != nil {
		return nil, problemOf(err)
	}
	if r.rests != nil {
		if err := r.rests(ctx, in.ID, in.Body); err != nil {
			return nil, problemOf(err)
		}
	}
	update := r.records().Update
	if r.update != nil {
		update = r.update
	}
	return answered(update(ctx, in.ID, version, in.Body))
}

// register serves making, opening, replacing, deleting and restoring such records.
func (r resource[T]) register(a huma.API) {
	one := r.path + "/{id}"
	huma.Register(a, op(http.MethodPost, r.path, "create"+r.noun, "Create "+r.what, making), r.made)
	huma.Register(a, op(http.MethodGet, one, "get"+r.noun, "Get "+r.what),
		func(ctx context.Context, in *ByID) (*saved[T], error) { return answered(r.records().Get(ctx, in.ID)) })
	put := op(http.MethodPut, one, "save"+r.noun, "Replace "+r.what, matching, refusing(r.refuses...))
	huma.Register(a, put, r.replaced)
	huma.Register(a, op(http.MethodDelete, one, "delete"+r.noun, "Delete "+r.what+"; it can be restored", matching),
		func(ctx context.Context, in *IfMatch) (*struct{}, error) {
			version, err := r.version(ctx, in)
			if err != nil {
				return nil, problemOf(err)
			}
			return nil, problemOf(r.records().Delete(ctx, in.ID, version))
		})
	huma.Register(a, op(http.MethodPost, one+"/restore", "restore"+r.noun, "Restore "+r.what),
		func(ctx context.Context, in *ByID) (*saved[T], error) {
			return answered(r.records().Restore(ctx, in.ID))
		})
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

// ListPage is a page of a list: every list of resources is answered so.
type ListPage[L any] struct {
	Items []L   `json:"items" nullable:"false"`
	Total int64 `json:"total" doc:"How many there are on all pages"`
	Page  int   `json:"page" doc:"From 1"`
}

// onePage is a list of which there are never more than a page.
func onePage[L any](items []L) *body[ListPage[L]] {
	return answer(ListPage[L]{Items: append([]L{}, items...), Total: int64(len(items)), Page: 1})
}
