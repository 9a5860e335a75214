package api

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/bench"
	"verjuice/internal/core/formula"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// FormulaRecord is a saved formula.
type FormulaRecord = DocRecord[formula.Formula]

// FormulaSummary is a line of the bench.
type FormulaSummary struct {
	ID      string       `json:"id"      format:"uuid"`
	Version uint         `json:"version"`
	Name    string       `json:"name"`
	Kind    formula.Kind `json:"kind"`
	Note    string       `json:"note"`
	Tags    []string     `json:"tags"                  nullable:"false"`
	Updated time.Time    `json:"updated"`
	Salt    string       `json:"salt"                                   doc:"Salt by weight, in words" example:"49 % salt"`
}

// FormulaVersion is a formula as it once was.
type FormulaVersion struct {
	Version uint            `json:"version"`
	Saved   time.Time       `json:"saved"`
	Changes []string        `json:"changes" nullable:"false" doc:"What was changed against the version before"`
	Formula formula.Formula `json:"formula"`
}

func (s *server) registerFormulas(a huma.API) {
	resource[formula.Formula]{
		path: "/api/formulas", noun: "Formula", what: "a formula",
		records: func() store.Records[formula.Formula] { return s.app.Typed().Formulas().Records },
		create:  s.app.CreateFormula, update: s.updateFormula, refuses: []int{http.StatusConflict},
	}.register(a)
	huma.Register(a, op(http.MethodGet, "/api/formulas", "listFormulas", "List your formulas by name"), s.listFormulas)
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/formulas/{id}/versions",
			"listFormulaVersions",
			"List the versions of a formula, newest first",
		),
		s.formulaVersions,
	)
	huma.Register(
		a,
		op(http.MethodPost, "/api/calc/formula", "calcFormula", "Calculate a formula in a batch", patiently),
		func(ctx context.Context, in *struct {
			Measure
			Body bench.Request
		}) (*body[sheet.FormulaSheet], error) {
			out, err := s.app.Formula(ctx, in.Body, in.Spoons)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(sheet.WriteFormula(out, in.reader())), nil
		},
	)
	huma.Register(
		a,
		op(http.MethodPost, "/api/calc/compare", "calcFormulaComparison", "Compare two or three formulas", patiently),
		func(ctx context.Context, in *struct {
			Measure
			Body bench.CompareRequest
		}) (*body[*sheet.Comparison], error) {
			out, err := s.app.CompareFormulas(ctx, in.Body, in.Spoons)
			if err != nil {
				return nil, problemOf(err)
			}
			return answer(sheet.WriteComparison(out, in.reader())), nil
		},
	)
	huma.Register(
		a,
		op(
			http.MethodPost,
			"/api/calc/label",
			"calcLabel",
			"Calculate a mix's salt from its nutrition label",
			patiently,
		),
		func(_ context.Context, in *body[formula.Label]) (*body[sheet.LabelSheet], error) {
			read, wrong := formula.ReadLabel(in.Body)
			if err := wrong.Err(); err != nil {
				return nil, problemOf(err)
			}
			return answer(sheet.WriteLabel(in.Body, read, sheet.Reader{})), nil
		},
	)
}

func (s *server) listFormulas(ctx context.Context, in *struct {
	Paged
	Per  int    `query:"per" minimum:"1" maximum:"100" default:"30"`
	Kind string `query:"kind" maxLength:"16"`
	Tag  string `query:"tag" maxLength:"30"`
}) (*body[ListPage[FormulaSummary]], error) {
	q := in.query(in.Per)
	q.Class, q.Tag = in.Kind, in.Tag
	records, total, err := s.app.Formulas(ctx, q)
	if err != nil {
		return nil, problemOf(err)
	}
	page := ListPage[FormulaSummary]{Items: []FormulaSummary{}, Total: total, Page: in.Page}
	for _, r := range records {
		f := r.Doc
		line := FormulaSummary{
			ID: r.ID, Version: r.Version, Name: f.Name, Kind: f.Kind, Note: f.Note, Tags: append([]string{}, f.Tags...),
			Updated: r.Updated, Salt: sheet.SaltNote(r.Mix),
		}
		if line.Kind == "" {
			line.Kind = formula.Rub
		}
		page.Items = append(page.Items, line)
	}
	return answer(page), nil
}

func (s *server) updateFormula(
	ctx context.Context,
	id string,
	version uint,
	f formula.Formula,
) (store.Record[formula.Formula], error) {
	rec, err := s.app.UpdateFormula(ctx, id, version, f)
	if errors.Is(err, store.ErrCircle) {
		return rec, newProblem(http.StatusConflict, "A formula that this one uses was changed just now. Open it again.")
	}
	return rec, err
}

func (s *server) formulaVersions(ctx context.Context, in *ByID) (*body[ListPage[FormulaVersion]], error) {
	if _, err := s.Store.Formulas().Get(ctx, in.ID); err != nil {
		return nil, problemOf(err)
	}
	list, err := s.Store.Formulas().Versions(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	out := []FormulaVersion{}
	for _, v := range list {
		out = append(out, FormulaVersion{v.Version, v.Saved, sheet.Changes(v.Changes, sheet.Reader{}), v.Formula})
	}
	return onePage(out), nil
}
