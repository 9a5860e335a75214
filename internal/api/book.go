package api

import (
	"context"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"math"
	"mime"
	"mime/multipart"
	"net/http"
	"os"
	"slices"
	"strconv"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"

	"verjuice/internal/book"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/exchange"
	"verjuice/internal/store"
)

// mostBook is the largest file that is taken in, in bytes.
const mostBook = 4 << 30

// Upload is a book that is uploaded. It is kept in a file without a name while it is read, of which
// nothing is left when the request or the program ends, however it does.
type Upload struct {
	file *os.File
	size int64
}

// Resolve takes the file off the request, as it comes.
func (u *Upload) Resolve(hc huma.Context) []error {
	// A large book takes longer than other requests.
	if _, w := humachi.Unwrap(hc); w != nil {
		in := http.NewResponseController(w)
		_, _ = in.SetReadDeadline(time.Now().Add(time.Hour)), in.SetWriteDeadline(time.Time{})
	}
	kind, params, err := mime.ParseMediaType(hc.Header("Content-Type"))
	if err != nil || kind != "multipart/form-data" {
		return []error{&huma.ErrorDetail{Message: "send the file in a form, as the field book", Location: "body.book"}}
	}
	form := multipart.NewReader(hc.BodyReader(), params["boundary"])
	for {
		part, err := form.NextPart()
		switch {
		case errors.Is(err, io.EOF):
			return []error{&huma.ErrorDetail{Message: "choose a file", Location: "body.book"}}
		case err != nil:
			return []error{&huma.ErrorDetail{Message: "the file broke off", Location: "body.book"}}
		case part.FormName() != "book":
			continue
		}
		if u.file, err = os.CreateTemp("", "verjuice-book-*"); err != nil {
			return []error{err}
		}
		_ = os.Remove(u.file.Name())
		u.size, err = io.Copy(u.file, io.LimitReader(part, mostBook+1))
		switch {
		case err != nil:
			_ = u.file.Close()
			return []error{&huma.ErrorDetail{Message: "the file broke off", Location: "body.book"}}
		case u.size > mostBook:
			_ = u.file.Close()
			return []error{
				&huma.ErrorDetail{Message: fmt.Sprintf("a book has at most %d GB", mostBook>>30), Location: "body.book"},
			}
		}
		return nil
	}
}

// bookForm describes such an upload.
var bookForm = &huma.RequestBody{
	Required: true,
	Content: map[string]*huma.MediaType{"multipart/form-data": {Schema: &huma.Schema{
		Type: huma.TypeObject, Required: []string{"book"},
		Properties: map[string]*huma.Schema{
			"book": {Type: huma.TypeString, Format: "binary", Description: "A file that was carried away"},
		},
	}}},
}

// taking is the book that is taken in now.
type taking struct {
	mu    sync.Mutex
	on    int
	share float64
}

// Taking is how far a book that is taken in has come.
type Taking struct {
	Taking bool    `json:"taking" doc:"A book is being taken in"`
	Share  float64 `json:"share" minimum:"0" maximum:"1" doc:"How much of it was read"`
}

func (t *taking) told(share float64) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.share = share
}

// begin and end are called around a book that is taken in.
func (t *taking) begin() { t.count(1) }
func (t *taking) end()   { t.count(-1) }

func (t *taking) count(n int) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.on, t.share = t.on+n, 0
}

func (t *taking) now() Taking {
	t.mu.Lock()
	defer t.mu.Unlock()
	return Taking{t.on > 0, t.share}
}

func (s *server) registerBook(a huma.API) {
	out := op(
		http.MethodGet,
		"/api/book",
		"exportBook",
		"Carry all that is on record away, as a zip of JSON lines, CSV and photographs", endless)
	huma.Register(a, out, func(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
		if _, _, err := s.Store.Cooks().List(ctx, store.Query{Limit: 1}); err != nil {
			return nil, problemOf(err)
		}
		return &huma.StreamResponse{Body: func(hc huma.Context) {
			if _, w := humachi.Unwrap(hc); w != nil { // a large book takes longer than other answers
				_ = http.NewResponseController(w).SetWriteDeadline(time.Time{})
			}
			hc.SetHeader("Content-Type", "application/zip")
			hc.SetHeader("Content-Disposition", `attachment; filename="verjuice-`+s.today()+`.zip"`)
			if err := book.Write(hc.Context(), s.Store, hc.BodyWriter(), nil); err != nil {
				panic(http.ErrAbortHandler) // what was sent is no whole file, and is not to look like one
			}
		}}, nil
	})
	in := op(
		http.MethodPost,
		"/api/book",
		"importBook",
		"Take a book in, all or none of it; what is here already stays as it is", endless)
	huma.Register(a, in, func(ctx context.Context, in *Upload) (*body[TakenIn], error) {
		defer in.file.Close()
		s.taking.begin()
		defer s.taking.end()
		b, err := book.Open(ctx, in.file, in.size)
		var taken store.Taken
		if err == nil {
			taken, err = b.TakeIn(ctx, s.Store, func(p book.Point) { s.taking.told(p.Share) })
		}
		switch {
		case errors.Is(err, book.ErrFormat), errors.Is(err, store.ErrCarried):
			return nil, newProblem(http.StatusUnprocessableEntity, "Nothing was taken in. "+field.Capital(err.Error())+".")
		case err != nil:
			return nil, problemOf(err)
		}
		return answer(TakenIn{taken.Added, taken.Here}), nil
	})
	a.OpenAPI().Paths["/api/book"].Post.RequestBody = bookForm // it is read as it comes, and only described
	huma.Register(a, op(http.MethodGet, "/api/book/taking", "getBookImport", "Tell how far a book that is taken in has come"),
		func(context.Context, *struct{}) (*body[Taking], error) { return answer(s.taking.now()), nil })
	huma.Register(
		a,
		op(http.MethodGet, "/api/cooks/{id}/log.csv", "getCookLogTable", "Get what was read and done at a cook as a table", patiently),
		s.logTable,
	)
}

// TakenIn is how much of a book was taken in.
type TakenIn struct {
	Added int64 `json:"added" doc:"Lines that were not here"`
	Here  int64 `json:"here" doc:"Lines that were here already, and stay as they are"`
}

// logTable is what was read and done at a cook, in the order of time.
func (s *server) logTable(ctx context.Context, in *ByID) (*huma.StreamResponse, error) {
	r, err := s.Store.Cooks().Get(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	happened, err := s.Store.Facts(ctx, r.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	course, _, err := s.Store.Course(ctx, r.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	course, aside := course.Judged(happened)
	zone, err := time.LoadLocation(r.Doc.Zone)
	if err != nil {
		zone = time.UTC
	}
	return &huma.StreamResponse{Body: func(hc huma.Context) {
		hc.SetHeader("Content-Type", "text/csv; charset=utf-8")
		hc.SetHeader("Content-Disposition", `attachment; filename="cook-out.csv"`)
		table := csv.NewWriter(hc.BodyWriter())
		_ = table.Write([]string{"at", "what", "piece", "probe", "celsius", "value", "unit", "by", "said"})
		for _, line := range logLines(happened, course, aside, zone) {
			for i := range line {
				line[i] = exchange.Guard(line[i])
			}
			_ = table.Write(line)
		}
		table.Flush()
	}}, nil
}

// measured is what a fact says in figures: a core, or a value with its unit; empty where it says none.
func measured(f facts.Fact) (celsius, value, unit string) {
	number := func(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
	if c, ok := f.CoreC(); ok {
		celsius = number(c)
	}
	if kind, ok := f.Values["kind"].(string); ok {
		value = kind
	}
	if score, ok := f.Values["score"].(float64); ok && f.Kind == facts.Scored {
		value, unit = number(score), "of 5"
	}
	typed, _ := f.Values["typed"].(string)
	if m, err := quantity.ParseWeighed(typed); err == nil && f.Kind == facts.Weighed {
		value, unit = number(math.Round(m.Grams()*10)/10), "g"
	}
	if f.Kind == facts.Done && f.What == "set" {
		if c, err := f.Set(); err == nil {
			value, unit = number(math.Round(float64(c)*10)/10), "°C"
		}
	}
	return celsius, value, unit
}

// logLines are the lines of such a table.
func logLines(happened facts.Facts, course facts.Course, aside []facts.Aside, zone *time.Location) [][]string {
	var out [][]string
	at := func(t time.Time) string { return t.In(zone).Format(time.RFC3339) }
	standing := happened.Standing()
	moment := func(i int) time.Time {
		t, _ := standing[i].Time(zone)
		return t
	}
	n := 0
	said := func(until time.Time) {
		for ; n < len(standing) && !moment(n).After(until); n++ {
			f := standing[n]
			text, _ := f.Values["typed"].(string)
			if how, place := f.How(); how != "" {
				text = how + " " + place
			}
			celsius, value, unit := measured(f)
			out = append(out, []string{at(moment(n)), string(f.Kind) + " " + f.What, f.Piece, "", celsius, value, unit,
				f.Author, text})
		}
	}
	slices.SortStableFunc(standing, func(f, g facts.Fact) int {
		a, _ := f.Time(zone)
		b, _ := g.Time(zone)
		return a.Compare(b)
	})
	for _, r := range course.Readings() {
		said(r.At)
		out = append(out, []string{at(r.At), "read", "", r.Probe, strconv.FormatFloat(float64(r.C), 'f', -1, 64), "", "", "", ""})
	}
	for _, a := range aside {
		out = append(out, []string{at(a.From), "set aside", "", a.Probe, strconv.FormatFloat(float64(a.C), 'f', -1, 64),
			strconv.Itoa(a.Count), "readings", "", a.Why})
	}
	said(time.Date(facts.LastYear, 1, 1, 0, 0, 0, 0, time.UTC))
	return out
}
