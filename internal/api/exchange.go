package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/exchange"
	"verjuice/internal/store"
)

// ownLimit is how many of the cook's formulas a file's rows are matched with by
// name.
const ownLimit = 2000

func (s *server) registerExchange(a huma.API) {
	read := op(http.MethodPost, "/api/exchange/read", "readFile", "Read formulas from a file: our own JSON, schema.org Recipe or CSV; nothing is put on record")
	read.MaxBodyBytes = exchange.MaxBytes + 1
	huma.Register(a, read, func(ctx context.Context, in *struct {
		RawBody []byte `contentType:"application/octet-stream"`
	}) (*body[[]exchange.Found], error) {
		p, err := s.pantry(ctx)
		if err != nil {
			return nil, problemOf(err)
		}
		found, err := exchange.Read(in.RawBody, p)
		var bad exchange.Error
		if errors.As(err, &bad) {
			return nil, newProblem(http.StatusUnprocessableEntity, "The file cannot be read; nothing was saved.", field.Errors{{Pointer: bad.Place, Detail: bad.Detail}})
		}
		if err != nil {
			return nil, problemOf(err)
		}
		return answer(found), nil
	})
	huma.Register(a, op(http.MethodPost, "/api/exchange/write", "writeFile", "Formulas, and those they use, as a file"),
		func(ctx context.Context, in *struct {
			As   string            `query:"as" enum:"json,jsonld,csv" default:"json"`
			Body []formula.Formula `maxItems:"200"`
		}) (*fileAnswer, error) {
			data, err := exchange.Write(in.Body, exchange.Format(in.As), s.kitchen(ctx))
			if err != nil {
				return nil, newProblem(http.StatusUnprocessableEntity, err.Error())
			}
			kind := map[string]string{"json": "application/json", "jsonld": "application/ld+json", "csv": "text/csv; charset=utf-8"}[in.As]
			return &fileAnswer{ContentType: kind, Body: data}, nil
		})
	kept := op(http.MethodPost, "/api/exchange/keep", "keepFormulas", "Put formulas of a file on the bench, all or none; rows may name each other file-0, file-1 and so on")
	kept.DefaultStatus = http.StatusCreated
	huma.Register(a, kept, s.keepFormulas)
}

type fileAnswer struct {
	ContentType  string `header:"Content-Type"`
	Disposition  string `header:"Content-Disposition"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

// pantry is what a file's rows may be.
func (s *server) pantry(ctx context.Context) (exchange.Pantry, error) {
	p := exchange.Pantry{Ingredients: larder.All(), Formulas: map[string]string{}}
	for _, i := range s.ownIngredients(ctx, false) {
		p.Ingredients = append(p.Ingredients, i)
	}
	for _, f := range formula.House() {
		p.Formulas[strings.ToLower(f.Name)] = f.ID
	}
	own, _, err := s.Store.ListFormulas(ctx, store.FormulaQuery{Limit: ownLimit})
	for _, r := range own {
		p.Formulas[strings.ToLower(r.Formula.Name)] = r.Formula.ID
	}
	return p, err
}

// keepFormulas puts formulas on record that may use one another. They are checked
// all before the first is kept.
func (s *server) keepFormulas(ctx context.Context, in *struct {
	Body []formula.Formula `minItems:"1" maxItems:"200"`
}) (*body[[]FormulaRecord], error) {
	own := s.kitchen(ctx)
	inFile := own
	inFile.Formula = func(id string) (formula.Formula, bool) {
		if n, ok := fileNumber(id); ok && n < len(in.Body) {
			f := in.Body[n]
			f.ID = id
			return f, true
		}
		return own.Formula(id)
	}
	var errs field.Errors
	for i, f := range in.Body {
		f.ID = fmt.Sprintf("%s%d", exchange.FilePrefix, i)
		if f.Name == "" {
			errs.Add(fmt.Sprintf("/%d/name", i), "give the formula a name")
		}
		_, wrong := formula.Blend(f, inFile)
		for _, w := range wrong {
			errs.Add(fmt.Sprintf("/%d%s", i, w.Pointer), "%s", w.Detail)
		}
	}
	if err := errs.Err(); err != nil {
		return nil, problemOf(err)
	}
	records, err := s.Store.CreateFormulas(ctx, in.Body, "read from a file", fileNumber)
	if err != nil {
		return nil, problemOf(err)
	}
	out := []FormulaRecord{}
	for _, r := range records {
		out = append(out, FormulaRecord(r))
	}
	return answer(out), nil
}

func fileNumber(id string) (int, bool) {
	tail, ok := strings.CutPrefix(id, exchange.FilePrefix)
	n, err := strconv.Atoi(tail)
	return n, ok && err == nil && n >= 0
}
