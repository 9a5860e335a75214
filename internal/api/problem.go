package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"regexp"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// All errors of the API are Problems: huma keeps its one model of them for the whole program.
func init() {
	huma.NewError = newProblem
	huma.NewErrorWithContext = func(_ huma.Context, status int, msg string, errs ...error) huma.StatusError {
		if status == http.StatusInternalServerError && msg == "cannot read request body" {
			return newProblem(http.StatusBadRequest, "The request broke off, or is not valid HTTP.")
		}
		return newProblem(status, msg, errs...)
	}
}

// Problem is an error answer as in RFC 9457.
type Problem struct {
	Type   string          `json:"type" example:"about:blank"`
	Title  string          `json:"title"`
	Status int             `json:"status"`
	Detail string          `json:"detail" doc:"What happened and what to do"`
	Errors []sheet.Mistake `json:"errors,omitempty" nullable:"false" doc:"Each value that is wrong"`

	wrong field.Errors // what Errors says, for a reader of other units
}

// inUnits says what is wrong in the units that a request prefers, by its query or by its header
//
//	Prefer: units=us
//
// as in RFC 7240; in metric ones where it says nothing.
func inUnits(ctx huma.Context, _ string, v any) (any, error) {
	p, ok := v.(*Problem)
	if us := string(quantity.US); ok && len(p.wrong) > 0 && (ctx.Query("units") == us ||
		strings.Contains(ctx.Header("Prefer"), "units="+us)) {
		said := *p
		said.Errors = append(sheet.Mistakes(p.wrong, sheet.Reader{Units: quantity.US}), p.Errors[len(p.wrong):]...)
		return &said, nil
	}
	return v, nil
}

// Error implements error.
func (p *Problem) Error() string { return p.Detail }

// GetStatus implements huma.StatusError.
func (p *Problem) GetStatus() int { return p.Status }

// ContentType implements huma.ContentTypeFilter.
func (p *Problem) ContentType(string) string { return "application/problem+json" }

// newProblem makes a problem of what huma or a handler found wrong.
func newProblem(status int, msg string, errs ...error) huma.StatusError {
	p := &Problem{Type: "about:blank", Title: http.StatusText(status), Status: status, Detail: msg}
	for _, err := range errs {
		var list field.Errors
		var detail *huma.ErrorDetail
		switch {
		case errors.As(err, &list):
			if len(p.Errors) == 0 {
				p.wrong = list
			}
			p.Errors = append(p.Errors, sheet.Mistakes(list, sheet.Reader{})...)
		case errors.As(err, &detail):
			at, what := pointer(detail.Location), detail.Message
			if text, isBody := detail.Value.(string); isBody && detail.Location == "body" {
				if why, unread := unreadableBody(text); unread {
					at, what = why.pointer, why.detail
				}
			}
			p.Errors = append(p.Errors, sheet.Mistake{Pointer: at, ID: "request", Message: what})
		case err != nil:
			p.Errors = append(p.Errors, sheet.Mistake{ID: "request", Message: err.Error()})
		}
	}
	return p
}

var index = regexp.MustCompile(`\[(\d+)\]`)

// pointer turns huma's "body.pieces[0].cut" into "/pieces/0/cut". Places outside
// the body keep their name: "/query/units".
func pointer(location string) string {
	location = strings.TrimPrefix(location, "body")
	path := strings.ReplaceAll(index.ReplaceAllString(location, ".$1"), ".", "/")
	if path != "" && !strings.HasPrefix(path, "/") {
		path = "/" + path
	}
	return path
}

// problemOf turns an error of the core or the store into an answer.
func problemOf(err error) error {
	var list field.Errors
	var said *Problem
	switch {
	case err == nil:
		return nil
	case errors.As(err, &said):
		return said
	case errors.As(err, &list):
		return newProblem(http.StatusUnprocessableEntity, "Some of what was typed cannot be used; nothing was saved.", list)
	case errors.Is(err, store.ErrNotFound):
		return newProblem(http.StatusNotFound, "There is nothing on record under this number. It may have been deleted.")
	case errors.Is(err, store.ErrStale):
		return newProblem(
			http.StatusPreconditionFailed,
			"This was changed on another screen since you opened it. Load it again; what you typed here is kept on this screen.",
		)
	case errors.Is(err, store.ErrOther):
		return newProblem(http.StatusConflict, "Something else was sent under this id already. Send this under an id of its own.")
	case errors.Is(err, store.ErrFull):
		return newProblem(
			http.StatusUnprocessableEntity,
			fmt.Sprintf("A cook holds at most %d facts, and this one has them.", facts.Most),
		)
	case errors.Is(err, store.ErrFullOfReadings):
		return newProblem(
			http.StatusUnprocessableEntity,
			fmt.Sprintf("A cook holds at most %d readings, and this one has them.", facts.MostReadings),
		)
	case errors.Is(err, store.ErrKey):
		return huma.ErrorWithHeaders(
			newProblem(
				http.StatusUnauthorized,
				"No thermometer of this cook-out has this key. Add one at the pit, and send its key as: Authorization: Bearer KEY.",
			),
			http.Header{"WWW-Authenticate": {`Bearer realm="Verjuice"`}},
		)
	case errors.Is(err, store.ErrOthersKey):
		return newProblem(
			http.StatusForbidden,
			"This key belongs to another cook-out: nothing was saved. Add the thermometer to this one, and send the key that it gets.",
		)
	case errors.Is(err, store.ErrManyDevices):
		return newProblem(
			http.StatusUnprocessableEntity,
			fmt.Sprintf("A cook-out has at most %d thermometers. Remove one first.", store.MostDevices),
		)
	case store.Away(err):
		return away()
	case errors.Is(err, store.ErrReserve):
		return newProblem(
			http.StatusInsufficientStorage,
			fmt.Sprintf(
				"Less than %d MB are free on the disk: photographs and readings are not taken, so that what you type can still be saved. Make room, then send this again.",
				store.Reserve>>20,
			),
		)
	case store.Full(err):
		return newProblem(
			http.StatusInsufficientStorage,
			"The disk is full: nothing was saved. Make room, then save again; what you typed is kept on this screen.",
		)
	default:
		if !errors.Is(err, context.Canceled) { // nobody waits for the answer
			slog.Error("a request failed", "error", err)
		}
		return newProblem(
			http.StatusInternalServerError,
			"Something went wrong in the program or its database. Open the page again to see what is on record.",
		)
	}
}

// away says that the database does not answer, and when to ask again.
func away() error {
	return huma.ErrorWithHeaders(
		newProblem(http.StatusServiceUnavailable, databaseAway),
		http.Header{"Retry-After": {"2"}},
	)
}

// databaseAway is said whenever the database does not answer.
const databaseAway = "The database does not answer. What you typed is kept on this screen; try again in a moment, or start Verjuice again."

// methods that an address may answer to.
var methods = []string{
	http.MethodGet,
	http.MethodHead,
	http.MethodPost,
	http.MethodPut,
	http.MethodPatch,
	http.MethodDelete,
}

// noSuchPath says that there is nothing at an address of the API, or by which other methods
// there is.
func noSuchPath(all chi.Routes) http.HandlerFunc {
	return func(w http.ResponseWriter, r *http.Request) {
		var others []string
		for _, m := range methods {
			if at := chi.NewRouteContext(); all.Match(at, m, r.URL.Path) && !strings.HasSuffix(at.RoutePattern(), "/*") {
				others = append(others, m)
			}
		}
		if len(others) == 0 {
			write(w, newProblem(http.StatusNotFound, "There is nothing at this address of the API.").(*Problem))
			return
		}
		w.Header().Set("Allow", strings.Join(others, ", "))
		write(
			w,
			newProblem(http.StatusMethodNotAllowed, "This address of the API does not answer to "+r.Method+".").(*Problem),
		)
	}
}

// write answers with p outside huma's operations.
func write(w http.ResponseWriter, p *Problem) {
	w.Header().Set("Content-Type", p.ContentType(""))
	w.WriteHeader(p.Status)
	_ = json.NewEncoder(w).Encode(p)
}
