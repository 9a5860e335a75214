package api

import (
	"context"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/sheet"
	"verjuice/internal/store"
)

// FormulaRecord is one of the cook's own formulas on record.
type FormulaRecord struct {
	ID      uint64          `json:"id"`
	Version uint            `json:"version" doc:"Also in the ETag; If-Match names it when writing"`
	Updated time.Time       `json:"updated"`
	Formula formula.Formula `json:"formula"`
}

// FormulaSummary is a line of the bench.
type FormulaSummary struct {
	ID        uint64       `json:"id"`
	Version   uint         `json:"version"`
	Name      string       `json:"name"`
	Kind      formula.Kind `json:"kind"`
	Note      string       `json:"note"`
	Tags      []string     `json:"tags" nullable:"false"`
	Updated   time.Time    `json:"updated"`
	SaltShare float64      `json:"salt_share" doc:"Salt by weight, %"`
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
	created := op(http.MethodPost, "/api/formulas", "createFormula", "Put a formula on the bench")
	created.DefaultStatus = http.StatusCreated
	huma.Register(a, op(http.MethodGet, "/api/formulas", "listFormulas", "List your formulas by name"), s.listFormulas)
	huma.Register(a, created, s.createFormula)
	huma.Register(a, op(http.MethodGet, "/api/formulas/{id}", "getFormula", "Open a formula"),
		func(ctx context.Context, in *ByID) (*formulaVersioned, error) {
			return formulaOnRecord(s.Store.Formula(ctx, in.ID))
		})
	huma.Register(a, op(http.MethodPut, "/api/formulas/{id}", "saveFormula", "Make the next version of a formula"), s.saveFormula)
	huma.Register(a, op(http.MethodDelete, "/api/formulas/{id}", "deleteFormula", "Take a formula off the bench; it can be restored"), s.deleteFormula)
	huma.Register(a, op(http.MethodPost, "/api/formulas/{id}/restore", "restoreFormula", "Put a deleted formula back"),
		func(ctx context.Context, in *ByID) (*formulaVersioned, error) {
			return formulaOnRecord(s.Store.RestoreFormula(ctx, in.ID))
		})
	huma.Register(a, op(http.MethodGet, "/api/formulas/{id}/versions", "formulaVersions", "Every version of a formula, the newest first"), s.formulaVersions)
	huma.Register(a, op(http.MethodPost, "/api/calc/formula", "workOutFormula", "Every figure of a formula as typed, in a batch"),
		func(ctx context.Context, in *struct {
			Measure
			Body sheet.FormulaRequest
		}) (*body[sheet.FormulaSheet], error) {
			opt := in.options(s.Now())
			opt.Shelf = s.kitchen(ctx)
			return answer(sheet.WorkOut(in.Body, opt)), nil
		})
	huma.Register(a, op(http.MethodPost, "/api/calc/compare", "compareFormulas", "Two or three formulas side by side"),
		func(ctx context.Context, in *struct {
			Measure
			Body sheet.CompareRequest
		}) (*body[*sheet.Comparison], error) {
			opt := in.options(s.Now())
			opt.Shelf = s.kitchen(ctx)
			out, err := sheet.Compare(in.Body, opt)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(out), nil
		})
	huma.Register(a, op(http.MethodPost, "/api/calc/label", "readLabel", "What a nutrition label says of a mix's salt"),
		func(_ context.Context, in *body[formula.Label]) (*body[*sheet.LabelSheet], error) {
			out, err := sheet.ReadLabel(in.Body)
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
	own := s.kitchen(ctx)
	for _, r := range records {
		f := r.Formula
		mix, _ := formula.Blend(f, own)
		line := FormulaSummary{
			ID: r.ID, Version: r.Version, Name: f.Name, Kind: f.Kind, Note: f.Note, Tags: append([]string{}, f.Tags...),
			Updated: r.Updated, SaltShare: 100 * mix.SaltShare(),
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
		errs.Add("/name", "give the formula a name")
	}
	_, wrong := formula.Blend(f, s.kitchen(ctx))
	return problemOf(append(errs, wrong...).Err())
}

func (s *server) createFormula(ctx context.Context, in *body[formula.Formula]) (*formulaVersioned, error) {
	f := in.Body
	origin := "new"
	if from, ok := formula.Shipped(f.ID); ok {
		origin = "from " + from.Name
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
	own := s.kitchen(ctx)
	return formulaOnRecord(s.Store.UpdateFormula(ctx, in.ID, version, f, func(old formula.Formula) []string {
		return formula.Changes(old, f, own)
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
		out = append(out, FormulaVersion(v))
	}
	return answer(out), nil
}
