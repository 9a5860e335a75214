package api

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"verjuice/internal/sheet"
)

// mostFound is how much of each kind is found.
const mostFound = 8

func (s *server) registerFind(a huma.API) {
	huma.Register(
		a,
		op(http.MethodGet, "/api/find", "listFindings", "Find cooks, formulas, jars, meals, ingredients and words by what they are called"),
		func(ctx context.Context, in *struct {
			Text string `query:"text" maxLength:"100" doc:"What it is called, or some words of that"`
		}) (*body[ListPage[sheet.Finding]], error) {
			text := strings.TrimSpace(in.Text)
			out := []sheet.Finding{}
			if text == "" {
				return onePage(out), nil
			}
			found, err := s.Store.Find(ctx, text, mostFound)
			if err != nil {
				return nil, problemOf(err)
			}
			for _, f := range found {
				out = append(out, sheet.Finding{Kind: f.Kind, ID: f.ID, Name: f.Name, Note: sheet.WhenServed(f.ServedAt)})
			}
			return onePage(append(out, sheet.FindShipped(text, mostFound)...)), nil
		},
	)
	huma.Register(
		a,
		op(http.MethodGet, "/api/bin", "listBin", "List what was deleted in the last 30 days, the last first; each can be restored"),
		func(ctx context.Context, _ *struct{}) (*body[ListPage[sheet.Binned]], error) {
			gone, err := s.Store.Bin(ctx, s.Now().Add(-sheet.BinKept))
			if err != nil {
				return nil, problemOf(err)
			}
			out := []sheet.Binned{}
			for _, f := range gone {
				out = append(out, sheet.Binned{Kind: f.Kind, ID: f.ID, Name: f.Name, Deleted: sheet.Ago(f.Deleted, s.Now())})
			}
			return onePage(out), nil
		},
	)
}
