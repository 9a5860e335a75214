package api

import (
	"context"
	"encoding/csv"
	"errors"
	"io"
	"net/http"
	"slices"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"

	"verjuice/internal/book"
	"verjuice/internal/core/facts"
	"verjuice/internal/store"
)

// mostBook is the largest file that is taken in, in bytes.
const mostBook = 4 << 30

// bookFile is a book that is uploaded. It is kept in a file while it is read.
type bookFile struct {
	Book huma.FormFile `form:"book" required:"true" contentType:"application/zip,application/x-zip-compressed,application/octet-stream" doc:"A file that was carried away"`
}

func (s *server) registerBook(a huma.API) {
	out := op(http.MethodGet, "/api/book", "carryAway", "Carry all that is on record away, as a zip of JSON lines, CSV and photographs")
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
	in := op(http.MethodPost, "/api/book", "takeIn", "Take a book in, all or none of it; what is here already stays as it is")
	in.MaxBodyBytes, in.BodyReadTimeout = mostBook, time.Hour
	huma.Register(a, in, func(ctx context.Context, in *struct {
		RawBody huma.MultipartFormFiles[bookFile]
	}) (*body[TakenIn], error) {
		file := in.RawBody.Data().Book
		defer file.Close()
		at, ok := file.File.(io.ReaderAt)
		if !ok {
			return nil, newProblem(http.StatusUnprocessableEntity, "This file cannot be read.")
		}
		taken, err := book.Read(ctx, s.Store, at, file.Size, nil)
		switch {
		case errors.Is(err, book.ErrFormat), errors.Is(err, store.ErrCarried):
			return nil, newProblem(http.StatusUnprocessableEntity, "Nothing was taken in. "+err.Error())
		case err != nil:
			return nil, problemOf(err)
		}
		return answer(TakenIn{taken.Added, taken.Here}), nil
	})
	huma.Register(a, op(http.MethodGet, "/api/cooks/{id}/log.csv", "logTable", "Get what was read and done at a cook as a table"), s.logTable)
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
	zone, err := time.LoadLocation(r.Doc.Zone)
	if err != nil {
		zone = time.UTC
	}
	return &huma.StreamResponse{Body: func(hc huma.Context) {
		hc.SetHeader("Content-Type", "text/csv; charset=utf-8")
		hc.SetHeader("Content-Disposition", `attachment; filename="cook-out.csv"`)
		table := csv.NewWriter(hc.BodyWriter())
		_ = table.Write([]string{"at", "what", "piece", "probe", "celsius", "by", "said"})
		for _, line := range logLines(happened, course, zone) {
			_ = table.Write(line)
		}
		table.Flush()
	}}, nil
}

// logLines are the lines of such a table.
func logLines(happened facts.Facts, course facts.Course, zone *time.Location) [][]string {
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
			out = append(out, []string{at(moment(n)), string(f.Kind) + " " + f.What, f.Piece, "", "", f.Author, text})
		}
	}
	slices.SortStableFunc(standing, func(f, g facts.Fact) int {
		a, _ := f.Time(zone)
		b, _ := g.Time(zone)
		return a.Compare(b)
	})
	for _, r := range course.Readings() {
		said(r.At)
		out = append(out, []string{at(r.At), "read", "", r.Probe, strconv.FormatFloat(float64(r.C), 'f', -1, 64), "", ""})
	}
	said(time.Date(facts.LastYear, 1, 1, 0, 0, 0, 0, time.UTC))
	return out
}
