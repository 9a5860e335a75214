package api

import (
	"context"
	"fmt"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// CookRecord is a saved cook.
type CookRecord struct {
	ID      uint64    `json:"id"`
	Version uint      `json:"version" doc:"Also in the ETag; If-Match names it when writing"`
	Updated time.Time `json:"updated"`
	Cook    cook.Cook `json:"cook"`
}

// CookSummary is a line of the list of cooks.
type CookSummary struct {
	ID      uint64   `json:"id"`
	Version uint     `json:"version"`
	Name    string   `json:"name"`
	Guests  int      `json:"guests"`
	ServeAt string   `json:"serve_at" doc:"As typed; empty when open"`
	Serve   string   `json:"serve" doc:"Serving time in words"`
	Away    string   `json:"away" doc:"How far off it is, in words"`
	Past    bool     `json:"past"`
	Pieces  []string `json:"pieces" nullable:"false"`
}

// CookPage is a page of the list.
type CookPage struct {
	Items []CookSummary `json:"items" nullable:"false"`
	Total int64         `json:"total"`
	Page  int           `json:"page"`
}

type versioned struct {
	ETag string `header:"ETag"`
	Body CookRecord
}

func onRecord(r store.CookRecord, err error) (*versioned, error) {
	if err != nil {
		return nil, problemOf(err)
	}
	return &versioned{ETag: etag(r.Version), Body: CookRecord{ID: r.ID, Version: r.Version, Updated: r.Updated, Cook: r.Cook}}, nil
}

func etag(version uint) string { return fmt.Sprintf("%q", strconv.FormatUint(uint64(version), 10)) }

// ByID names a record.
type ByID struct {
	ID uint64 `path:"id" minimum:"1"`
}

// IfMatch names a record and the version that is to be changed.
type IfMatch struct {
	ByID
	Match string `header:"If-Match" doc:"The ETag the record was read with"`
}

// version is the version that If-Match names.
func (m IfMatch) version() (uint, error) {
	if m.Match == "" {
		return 0, newProblem(http.StatusPreconditionRequired, "Say with If-Match which version you change, so that another screen's work is not overwritten.")
	}
	v, err := strconv.ParseUint(strings.Trim(strings.TrimPrefix(m.Match, "W/"), `"`), 10, 32)
	if err != nil {
		return 0, problemOf(store.ErrStale)
	}
	return uint(v), nil
}

func (s *server) registerCooks(a huma.API) {
	created := op(http.MethodPost, "/api/cooks", "createCook", "Create a cook")
	created.DefaultStatus = http.StatusCreated
	copied := op(http.MethodPost, "/api/cooks/{id}/duplicate", "duplicateCook", "Copy a cook, without its date")
	copied.DefaultStatus = http.StatusCreated
	huma.Register(a, op(http.MethodGet, "/api/cooks", "listCooks", "List cooks, latest serving first"), s.listCooks)
	huma.Register(a, created, s.createCook)
	huma.Register(a, op(http.MethodGet, "/api/cooks/{id}", "getCook", "Get a cook"), s.getCook)
	huma.Register(a, op(http.MethodPut, "/api/cooks/{id}", "saveCook", "Replace a cook"), s.saveCook)
	huma.Register(a, op(http.MethodDelete, "/api/cooks/{id}", "deleteCook", "Delete a cook; it can be restored"), s.deleteCook)
	huma.Register(a, op(http.MethodPost, "/api/cooks/{id}/restore", "restoreCook", "Restore a deleted cook"), s.restoreCook)
	huma.Register(a, copied, s.duplicateCook)
}

func (s *server) listCooks(ctx context.Context, in *struct {
	Page   int    `query:"page" minimum:"1" maximum:"100000" default:"1"`
	Per    int    `query:"per" minimum:"1" maximum:"100" default:"20"`
	Search string `query:"search" maxLength:"100"`
}) (*body[CookPage], error) {
	records, total, err := s.Store.ListCooks(ctx, in.Search, (in.Page-1)*in.Per, in.Per)
	if err != nil {
		return nil, problemOf(err)
	}
	page := CookPage{Items: []CookSummary{}, Total: total, Page: in.Page}
	for _, r := range records {
		line := sheet.Headline(r.Cook, s.Now())
		page.Items = append(page.Items, CookSummary{
			ID: r.ID, Version: r.Version, Name: r.Cook.Name, Guests: r.Cook.Guests, ServeAt: r.Cook.ServeAt,
			Serve: line.Serve, Away: line.Away, Past: line.Past, Pieces: line.Pieces,
		})
	}
	return answer(page), nil
}

func (s *server) createCook(ctx context.Context, in *body[cook.Cook]) (*versioned, error) {
	if err := s.sound(ctx, in.Body, ""); err != nil {
		return nil, err
	}
	return onRecord(s.Store.CreateCook(ctx, in.Body))
}

func (s *server) getCook(ctx context.Context, in *ByID) (*versioned, error) {
	return onRecord(s.Store.Cook(ctx, in.ID))
}

func (s *server) saveCook(ctx context.Context, in *struct {
	IfMatch
	Body cook.Cook
}) (*versioned, error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	old, err := s.Store.Cook(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	if err := s.sound(ctx, in.Body, old.Cook.ServeAt); err != nil {
		return nil, err
	}
	return onRecord(s.Store.UpdateCook(ctx, in.ID, version, in.Body))
}

// sound refuses a cook with mistakes. servedAt is the saved serving time.
func (s *server) sound(ctx context.Context, c cook.Cook, servedAt string) error {
	k, err := s.kitchen(ctx, c.Formulas()...)
	if err != nil {
		return err
	}
	out, err := cooking.Work(ctx, cook.Parse(c, k), nil, k, s.clock(servedAt))
	if err != nil {
		return problemOf(err)
	}
	return problemOf(out.Mistakes.Err())
}

func (s *server) deleteCook(ctx context.Context, in *IfMatch) (*struct{}, error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	return nil, problemOf(s.Store.DeleteCook(ctx, in.ID, version))
}

func (s *server) restoreCook(ctx context.Context, in *ByID) (*versioned, error) {
	return onRecord(s.Store.RestoreCook(ctx, in.ID))
}

func (s *server) duplicateCook(ctx context.Context, in *ByID) (*versioned, error) {
	r, err := s.Store.Cook(ctx, in.ID)
	if err != nil {
		return nil, problemOf(err)
	}
	return onRecord(s.Store.CreateCook(ctx, cook.Copy(r.Cook)))
}
