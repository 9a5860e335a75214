package api

import (
	"context"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/bench"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// FormulaRecord is a saved formula.
type FormulaRecord struct {
	ID      uint64          `json:"id"`
	Version uint            `json:"version" doc:"Also in the ETag; If-Match names it when writing"`
	Updated time.Time       `json:"updated"`
	Formula formula.Formula `json:"formula"`
}

// FormulaSummary is a line of the bench.
type FormulaSummary struct {
	ID      uint64       `json:"id"`
	Version uint         `json:"version"`
	Name    string       `json:"name"`
	Kind    formula.Kind `json:"kind"`
	Note    string       `json:"note"`
	Tags    []string     `json:"tags" nullable:"false"`
	Updated time.Time    `json:"updated"`
	Salt    string       `json:"salt" doc:"Salt by weight, in words" example:"49 % salt"`
}

// FormulaPage is a page of the bench.
type FormulaPage struct {
	Items []FormulaSummary `json:"items" nullable:"false"`
	Total int64            `json:"total"`
	Page  int              `json:"page"`
}

// FormulaVersion is a formula as it once was.
type FormulaVersion struct {
	Version uint            `json:"version"`
	Saved   time.Time       `json:"saved"`
	Changes []string        `json:"changes" nullable:"false" doc:"What was changed against the version before"`
	Formula formula.Formula `json:"formula"`
}

type formulaVersioned struct {
	ETag string `header:"ETag"`
	Body FormulaRecord
}

func formulaOnRecord(r store.FormulaRecord, err error) (*formulaVersioned, error) {
	if err != nil {
		return nil, problemOf(err)
	}
	return &formulaVersioned{ETag: etag(r.Version), Body: FormulaRecord(r)}, nil
}

func (s *server) registerFormulas(a huma.API) {
	created := op(http.MethodPost, "/api/formulas", "createFormula", "Create a formula")
	created.DefaultStatus = http.StatusCreated
	huma.Register(a, op(http.MethodGet, "/api/formulas", "listFormulas", "List your formulas by name"), s.listFormulas)
	huma.Register(a, created, s.createFormula)
	huma.Register(a, op(http.MethodGet, "/api/formulas/{id}", "getFormula", "Get a formula"),
		func(ctx context.Context, in *ByID) (*formulaVersioned, error) {
			return formulaOnRecord(s.Store.Formula(ctx, in.ID))
		})
	huma.Register(a, op(http.MethodPut, "/api/formulas/{id}", "saveFormula", "Save a new version of a formula"), s.saveFormula)
	huma.Register(a, op(http.MethodDelete, "/api/formulas/{id}", "deleteFormula", "Delete a formula; it can be restored"), s.deleteFormula)
	huma.Register(a, op(http.MethodPost, "/api/formulas/{id}/restore", "restoreFormula", "Restore a deleted formula"),
		func(ctx context.Context, in *ByID) (*formulaVersioned, error) {
			return formulaOnRecord(s.Store.RestoreFormula(ctx, in.ID))
		})
	huma.Register(a, op(http.MethodGet, "/api/formulas/{id}/versions", "formulaVersions", "List the versions of a formula, newest first"), s.formulaVersions)
	huma.Register(a, op(http.MethodPost, "/api/calc/formula", "workOutFormula", "Calculate a formula in a batch"),
		func(ctx context.Context, in *struct {
			Measure
			Body bench.Request
		}) (*body[sheet.FormulaSheet], error) {
			k, err := s.kitchen(ctx, in.Body.Formula.Uses()...)
			if err != nil {
				return nil, err
			}
			return answer(sheet.OfFormula(in.Body, k, in.reader())), nil
		})
	huma.Register(a, op(http.MethodPost, "/api/calc/compare", "compareFormulas", "Compare two or three formulas"),
		func(ctx context.Context, in *struct {
			Measure
			Body bench.CompareRequest
		}) (*body[*sheet.Comparison], error) {
			var ids []string
			for _, f := range in.Body.Formulas {
				ids = append(ids, f.Uses()...)
			}
			k, err := s.kitchen(ctx, ids...)
			if err != nil {
				return nil, err
			}
			out, err := sheet.OfComparison(ctx, in.Body, k, in.reader())
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
	huma.Register(a, op(http.MethodPost, "/api/calc/label", "readLabel", "Calculate a mix's salt from its nutrition label"),
		func(_ context.Context, in *body[formula.Label]) (*body[*sheet.LabelSheet], error) {
			out, err := sheet.ReadLabel(in.Body, sheet.Reader{})
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
}

func (s *server) listFormulas(ctx context.Context, in *struct {
	Page   int    `query:"page" minimum:"1" maximum:"100000" default:"1"`
	Per    int    `query:"per" minimum:"1" maximum:"100" default:"30"`
	Search string `query:"search" maxLength:"100"`
	Kind   string `query:"kind" maxLength:"16"`
	Tag    string `query:"tag" maxLength:"30"`
}) (*body[FormulaPage], error) {
	records, total, err := s.Store.ListFormulas(ctx, store.FormulaQuery{
		Search: in.Search, Kind: in.Kind, Tag: in.Tag, Offset: (in.Page - 1) * in.Per, Limit: in.Per,
	})
	if err != nil {
		return nil, problemOf(err)
	}
	page := FormulaPage{Items: []FormulaSummary{}, Total: total, Page: in.Page}
	var ids []string
	for _, r := range records {
		ids = append(ids, r.Formula.Uses()...)
	}
	k, err := s.kitchen(ctx, ids...)
	if err != nil {
		return nil, err
	}
	for _, r := range records {
		f := r.Formula
		mix, _ := formula.Blend(f, k)
		line := FormulaSummary{
			ID: r.ID, Version: r.Version, Name: f.Name, Kind: f.Kind, Note: f.Note, Tags: append([]string{}, f.Tags...),
			Updated: r.Updated, Salt: sheet.SaltNote(mix),
		}
		if line.Kind == "" {
			line.Kind = formula.Rub
		}
		page.Items = append(page.Items, line)
	}
	return answer(page), nil
}

// soundFormula refuses a formula with mistakes; pointers are into the formula.
func (s *server) soundFormula(ctx context.Context, f formula.Formula) error {
	var errs field.Errors
	if f.Name == "" {
		errs.Add("/name", "formula.name")
	}
	k, err := s.kitchen(ctx, f.Uses()...)
	if err != nil {
		return err
	}
	_, wrong := formula.Blend(f, k)
	return problemOf(append(errs, wrong...).Err())
}

func (s *server) createFormula(ctx context.Context, in *body[formula.Formula]) (*formulaVersioned, error) {
	f := in.Body
	origin := field.Because("changed.new")
	if from, ok := formula.FindReadyMade(f.ID); ok {
		origin = field.Because("changed.from", "before", from.Name)
	}
	f.ID = ""
	if err := s.soundFormula(ctx, f); err != nil {
		return nil, err
	}
	return formulaOnRecord(s.Store.CreateFormula(ctx, f, origin))
}

func (s *server) saveFormula(ctx context.Context, in *struct {
	IfMatch
	Body formula.Formula
}) (*formulaVersioned, error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	f := in.Body
	f.ID = strconv.FormatUint(in.ID, 10)
	if err := s.soundFormula(ctx, f); err != nil {
		return nil, err
	}
	old, err := s.Store.Formula(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	k, err := s.kitchen(ctx, append(f.Uses(), old.Formula.Uses()...)...)
	if err != nil {
		return nil, err
	}
	return formulaOnRecord(s.Store.UpdateFormula(ctx, in.ID, version, f, func(old formula.Formula) []formula.Change {
		return formula.Changes(old, f, k)
	}))
}

func (s *server) deleteFormula(ctx context.Context, in *IfMatch) (*struct{}, error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	return nil, problemOf(s.Store.DeleteFormula(ctx, in.ID, version))
}

func (s *server) formulaVersions(ctx context.Context, in *ByID) (*body[[]FormulaVersion], error) {
	list, err := s.Store.FormulaVersions(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	out := []FormulaVersion{}
	for _, v := range list {
		out = append(out, FormulaVersion{v.Version, v.Saved, sheet.Changes(v.Changes, sheet.Reader{}), v.Formula})
	}
	return answer(out), nil
}
