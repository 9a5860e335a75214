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
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/larder"
	"verjuice/internal/exchange"
	"verjuice/internal/store"
)

// ownLimit is how many of the cook's formulas a file's rows are matched with by
// name.
const ownLimit = 2000

func (s *server) registerExchange(a huma.API) {
	read := op(
		http.MethodPost,
		"/api/exchange/read",
		"previewFormulas",
		"Read formulas from a file: our own JSON, schema.org Recipe or CSV; nothing is saved", patiently,
		holding(exchange.MaxBytes+1, 0))
	huma.Register(a, read, func(ctx context.Context, in *struct {
		RawBody []byte `contentType:"application/octet-stream"`
	}) (*body[[]exchange.Found], error) {
		k, err := s.known(ctx)
		if err != nil {
			return nil, problemOf(err)
		}
		found, err := exchange.Read(in.RawBody, k)
		var bad exchange.Error
		if errors.As(err, &bad) {
			return nil, newProblem(
				http.StatusUnprocessableEntity,
				"The file cannot be read; nothing was saved.",
				field.Errors{{Pointer: bad.Place, Wrong: field.Because("changed.said", "text", bad.Detail)}},
			)
		}
		if err != nil {
			return nil, problemOf(err)
		}
		return answer(found), nil
	})
	huma.Register(
		a,
		op(http.MethodPost, "/api/exchange/write", "exportFormulas", "Write formulas, and those they use, as a file", patiently),
		func(ctx context.Context, in *struct {
			As   string            `query:"as" enum:"json,jsonld,csv" default:"json"`
			Body []formula.Formula `maxItems:"200"`
		}) (*fileAnswer, error) {
			k, err := s.kitchenOf(ctx, in.Body)
			if err != nil {
				return nil, err
			}
			data, err := exchange.Write(in.Body, exchange.Format(in.As), k)
			if err != nil {
				return nil, newProblem(http.StatusUnprocessableEntity, err.Error())
			}
			kind := map[string]string{"json": "application/json", "jsonld": "application/ld+json",
				"csv": "text/csv; charset=utf-8"}[in.As]
			return &fileAnswer{ContentType: kind, Body: data}, nil
		},
	)
	kept := op(
		http.MethodPost,
		"/api/exchange/keep",
		"importFormulas",
		"Create the formulas of a file, all or none; rows may name each other file-0, file-1 and so on", patiently, making)
	huma.Register(a, kept, s.keepFormulas)
}

type fileAnswer struct {
	ContentType  string `header:"Content-Type"`
	Disposition  string `header:"Content-Disposition"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

// known is what a file's rows may be: ingredients and formulas.
func (s *server) known(ctx context.Context) (kitchen.Kitchen, error) {
	k := kitchen.Kitchen{Ingredients: map[string]larder.Ingredient{}, Formulas: map[string]formula.Formula{}}
	own, err := s.Store.OwnIngredients(ctx, false)
	if err != nil {
		return k, err
	}
	for _, i := range own {
		k.Ingredients[i.ID] = i
	}
	formulas, _, err := s.Store.Formulas().List(ctx, store.Query{Limit: ownLimit})
	for _, r := range formulas {
		k.Formulas[r.ID] = r.Doc
	}
	return k, err
}

// kitchenOf is the kitchen with all that formulas use.
func (s *server) kitchenOf(ctx context.Context, all []formula.Formula) (kitchen.Kitchen, error) {
	var ids []string
	for _, f := range all {
		ids = append(ids, f.Uses()...)
	}
	return s.kitchen(ctx, ids...)
}

// keepFormulas saves formulas that may use one another. They are checked
// all before the first is kept.
func (s *server) keepFormulas(ctx context.Context, in *struct {
	Body []formula.Formula `minItems:"1" maxItems:"200"`
}) (*body[[]FormulaRecord], error) {
	k, err := s.kitchenOf(ctx, in.Body)
	if err != nil {
		return nil, err
	}
	for i, f := range in.Body {
		f.ID = fmt.Sprintf("%s%d", exchange.FilePrefix, i)
		k.Formulas[f.ID] = f
	}
	var errs field.Errors
	for i, f := range in.Body {
		f.ID = fmt.Sprintf("%s%d", exchange.FilePrefix, i)
		if f.Name == "" {
			errs.Add(fmt.Sprintf("/%d/name", i), "formula.name")
		}
		_, wrong := formula.Blend(f, k)
		errs.Put(fmt.Sprintf("/%d", i), wrong)
	}
	if err := errs.Err(); err != nil {
		return nil, problemOf(err)
	}
	records, err := s.Store.Formulas().CreateAll(ctx, in.Body, field.Because("changed.file"), fileNumber)
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
