package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/order"
	"verjuice/internal/core/starter"
	"verjuice/internal/sheet"
)

// CookRecord is a saved cook.
type CookRecord = DocRecord[cook.Cook]

// CookSummary is a line of the list of cooks.
type CookSummary struct {
	ID      string   `json:"id"       format:"uuid"`
	Version uint     `json:"version"`
	Name    string   `json:"name"`
	Guests  int      `json:"guests"                 doc:"At table, children too; 0 when it is not given"`
	ServeAt string   `json:"serve_at"               doc:"As typed; empty when open"`
	Serve   string   `json:"serve"                  doc:"Serving time in words"`
	Away    string   `json:"away"                   doc:"How far off it is, in words"`
	Past    bool     `json:"past"`
	Pieces  []string `json:"pieces"                                                   nullable:"false"`
}

// cooksAt is where the cooks are.
const cooksAt = "/api/cooks"

func (s *server) registerCooks(a huma.API) {
	resource[cook.Cook]{path: cooksAt, noun: "Cook", what: "a cook", records: s.app.Typed().Cooks}.register(a)
	huma.Register(a, op(http.MethodGet, "/api/cooks", "listCooks", "List cooks: what is to come, the next one first, then what has no date, then what is over"), s.listCooks)
	huma.Register(
		a,
		op(
			http.MethodGet,
			"/api/cooks/{id}/opened",
			"getCookWithFacts",
			"Get a cook with what has happened at it",
			patiently,
		),
		s.openCook,
	)
	huma.Register(
		a,
		op(
			http.MethodPost,
			"/api/cooks/{id}/overwritten",
			"calcCookOverwritten",
			"Tell what of the cook on record saving another page of it would overwrite", patiently),
		s.overwritten,
	)
	copied := op(http.MethodPost, "/api/cooks/{id}/duplicate", "duplicateCook", "Copy a cook, without its date", making)
	huma.Register(a, copied, func(ctx context.Context, in *ByID) (*made[cook.Cook], error) {
		r, err := s.Store.Cooks().Get(ctx, in.ID)
		if err != nil {
			return nil, problemOf(err)
		}
		copied, err := s.Store.Cooks().Create(ctx, starter.Copy(r.Doc))
		return madeAt(cooksAt, copied, err)
	})
}

// OpenedCook is all that a page needs of a cook to begin with.
type OpenedCook struct {
	Record CookRecord  `json:"record"`
	Facts  facts.Facts `json:"facts"  nullable:"false"`
}

func (s *server) openCook(ctx context.Context, in *ByID) (*body[OpenedCook], error) {
	r, err := s.Store.Cooks().Get(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	happened, err := s.Store.Facts(ctx, r.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	return answer(OpenedCook{docRecord(r), append(facts.Facts{}, happened...)}), nil
}

// overwritten tells what saving a page over the one on record would take away from it.
func (s *server) overwritten(ctx context.Context, in *struct {
	ByID
	Body struct {
		Mine cook.Cook `json:"mine" doc:"What would be saved"`
		Base cook.Cook `json:"base" doc:"What it was typed over"`
	}
}) (*body[[]sheet.Overwritten], error) {
	theirs, err := s.Store.Cooks().Get(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	list, err := sheet.Overwrites(in.Body.Base, theirs.Doc, in.Body.Mine)
	if err != nil {
		return nil, problemOf(err)
	}
	return answer(list), nil
}

func (s *server) listCooks(ctx context.Context, in *struct {
	Paged
	Per int `query:"per" minimum:"1" maximum:"100" default:"20"`
}) (*body[ListPage[CookSummary]], error) {
	q := in.query(in.Per)
	q.From = s.Now().UTC().Format("2006-01-02T15:04")
	records, total, err := s.Store.Cooks().List(ctx, q)
	if err != nil {
		return nil, problemOf(err)
	}
	page := ListPage[CookSummary]{Items: []CookSummary{}, Total: total, Page: in.Page}
	for _, r := range records {
		line := sheet.WriteLine(r.Doc, order.ServesAt(r.Doc), s.Now())
		page.Items = append(page.Items, CookSummary{
			ID: r.ID, Version: r.Version, Name: r.Doc.Name, Guests: r.Doc.Guests.Int() + r.Doc.Children.Int(),
			ServeAt: r.Doc.ServeAt,
			Serve:   line.Serve, Away: line.Away, Past: line.Past, Pieces: line.Pieces,
		})
	}
	return answer(page), nil
}
