package api

import (
	"context"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/conditional"
	"github.com/google/uuid"

	"verjuice/internal/store"
)

// maxBody bounds a request body, in bytes, where an operation says nothing else: the largest page is far
// below it.
const maxBody = 512 << 10

// How long an operation may take: what reads and writes records answers within seconds, or says that the
// database does not; what computes or reads a file has longer.
const (
	shortly  = 2800 * time.Millisecond
	patience = 45 * time.Second
)

// option is something that an operation has besides what all have.
type option func(*huma.Operation)

// patiently gives an operation the time to compute, or to read a file.
func patiently(o *huma.Operation) { o.Metadata[lasts] = patience }

// endless gives an operation all the time until nobody waits any more: it is a stream, or as long as a book.
func endless(o *huma.Operation) { o.Metadata[lasts] = time.Duration(0) }

// making says that an operation makes something, once for each key that its sender gives it.
func making(o *huma.Operation) {
	o.DefaultStatus = http.StatusCreated
	o.Parameters = append(o.Parameters, &huma.Param{
		Name: onceHeader, In: "header", Schema: &huma.Schema{Type: huma.TypeString, Format: "uuid"},
		Description: "A UUID of the sender's for what it makes: the same request sent twice makes it once " +
			"(IETF draft-ietf-httpapi-idempotency-key-header)",
	})
	o.Middlewares = append(o.Middlewares, once)
	refusing(http.StatusConflict)(o) // its key is the id of something else
}

const onceHeader = "Idempotency-Key"

// once has what an operation makes named by the key of its sender. A key that is no UUID is none.
func once(c huma.Context, next func(huma.Context)) {
	if key, err := uuid.Parse(strings.Trim(c.Header(onceHeader), `"`)); err == nil {
		c = huma.WithContext(c, store.Once(c.Context(), key))
	}
	next(c)
}

// holding bounds the body of an operation, in bytes, and the time in which it has to be there; after no time
// at all, the usual five seconds.
func holding(bytes int64, within time.Duration) option {
	return func(o *huma.Operation) { o.MaxBodyBytes, o.BodyReadTimeout = bytes, within }
}

// refusing names problems that an operation may be answered by besides those of all like it.
func refusing(statuses ...int) option {
	return func(o *huma.Operation) { o.Errors = append(o.Errors, statuses...) }
}

// lasts is under which name an operation keeps how long it may take.
const lasts = "lasts"

// op describes an operation: what it is called, what it is about, how much it takes in, how long it may
// take, and by which problems it may be answered.
func op(method, path, id, summary string, options ...option) huma.Operation {
	o := huma.Operation{
		OperationID: id, Method: method, Path: path, Summary: summary, Tags: []string{tagOf(path)},
		MaxBodyBytes: maxBody, Metadata: map[string]any{lasts: shortly}, Errors: []int{http.StatusServiceUnavailable},
	}
	if strings.Contains(path, "{") {
		o.Errors = append(o.Errors, http.StatusNotFound)
	}
	if method != http.MethodGet {
		o.Errors = append(o.Errors, http.StatusBadRequest, http.StatusRequestTimeout, http.StatusRequestEntityTooLarge,
			http.StatusUnsupportedMediaType, http.StatusUnprocessableEntity, http.StatusInsufficientStorage)
	}
	for _, option := range options {
		option(&o)
	}
	return o
}

// matching says that an operation changes the version of a record that If-Match names.
func matching(o *huma.Operation) {
	refusing(http.StatusPreconditionFailed, http.StatusPreconditionRequired)(o)
}

// tagOf is what an operation is about: the first part of its address.
func tagOf(path string) string {
	first, _, _ := strings.Cut(strings.TrimPrefix(path, "/api/"), "/")
	return first
}

// limited gives each request the time of its operation, which its context passes on.
func limited(c huma.Context, next func(huma.Context)) {
	most, _ := c.Operation().Metadata[lasts].(time.Duration)
	if most == 0 {
		next(c)
		return
	}
	ctx, cancel := context.WithTimeout(c.Context(), most)
	defer cancel()
	next(huma.WithContext(c, ctx))
}

// IfMatch names a record and the version that is to be changed.
type IfMatch struct {
	ByID
	conditional.Params
}

// check is the version that a change is made to: the one on record, which If-Match has to name.
func (m *IfMatch) check(on uint, err error) (uint, error) {
	switch {
	case len(m.Params.IfMatch) == 0:
		return 0, newProblem(
			http.StatusPreconditionRequired,
			"Say with If-Match which version you change, so that another screen's work is not overwritten.",
		)
	case err != nil:
		return 0, err
	case m.PreconditionFailed(tag(on), time.Time{}) != nil:
		return 0, store.ErrStale
	}
	return on, nil
}
