package api_test

import (
	"bytes"
	"compress/gzip"
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
)

// screen is a page as a browser holds it: what it sent, and what it was answered.
type screen struct {
	app   apptest.App
	page  string
	sheet map[string]any
}

func (s *screen) take(t *testing.T, got reply) {
	var a struct {
		Page, Base string
		Whole      map[string]any
		Changes    []api.PageChange
	}
	require.Equal(t, http.StatusOK, got.StatusCode, string(got.body))
	got.into(t, &a)
	if a.Whole != nil {
		s.sheet = a.Whole
	} else {
		require.Equal(t, s.page, a.Base)
	}
	for _, c := range a.Changes {
		var piece int
		var name string
		if n, _ := fmt.Sscanf(c.Path, "/pieces/%d/%s", &piece, &name); n == 2 {
			put(s.sheet["pieces"].([]any)[piece].(map[string]any), name, c.Value)
		} else if name, ok := strings.CutPrefix(c.Path, "/plan/"); ok {
			put(s.sheet["plan"].(map[string]any), name, c.Value)
		} else {
			put(s.sheet, c.Path[1:], c.Value)
		}
	}
	s.page = a.Page
}

func put(into map[string]any, name string, value any) {
	if into[name] = value; value == nil {
		delete(into, name)
	}
}

// Whatever is changed, in whatever order, a page that is sent and answered by what has
// changed is the page that is sent and answered whole; and one letter costs little.
func TestAPageIsSentByWhatChanged(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Demo)
	var rec api.CookRecord
	call(t, app, "GET", "/api/cooks/{supper}", nil).into(t, &rec)
	typed := cooking.CookRequest{Cook: rec.Doc}
	one := screen{app: app}
	one.take(t, call(t, app, "POST", "/api/page?settled=true", api.PageAsked{Whole: &typed}))
	r := rand.New(rand.NewPCG(7, 11))
	for n := range 60 {
		var patch []api.PagePatch
		change := func(op, path string, value any) {
			patch = append(patch, api.PagePatch{Op: op, Path: path, Value: value})
		}
		at := r.IntN(max(1, len(typed.Pieces)))
		switch {
		case n%7 == 6 && len(typed.Pieces) > 1:
			typed.Pieces = append(append([]cook.Piece{}, typed.Pieces[:at]...), typed.Pieces[at+1:]...)
			change("remove", "/pieces/"+strconv.Itoa(at), nil)
		case n%5 == 4:
			p := anycook.Piece(r)
			p.Key = fmt.Sprint("new", n)
			typed.Pieces = append(append([]cook.Piece{}, typed.Pieces...), p)
			change("add", "/pieces/-", p)
		case n%3 == 0:
			typed.Portion = anycook.Pick(r, []string{"150 g", "6 oz", "", "much"})
			change("add", "/portion", typed.Portion)
			f := anycook.Done(n, typed.Pieces[at].Key, "salt", "2026-11-27T10:00")
			f.ID = fmt.Sprintf("00000000-0000-4000-8000-%012d", n)
			if typed.Facts == nil {
				change("add", "/facts", facts.Facts{f})
			} else {
				change("add", "/facts/-", f)
			}
			typed.Facts = append(typed.Facts, f)
		default:
			p := anycook.Piece(r)
			p.Key = typed.Pieces[at].Key
			typed.Pieces = append([]cook.Piece{}, typed.Pieces...)
			typed.Pieces[at] = p
			change("replace", "/pieces/"+strconv.Itoa(at), p)
		}
		if n%4 == 1 { // and somebody writes a price down meanwhile
			require.NoError(
				t,
				app.Store.PutThing(t.Context(), store.Thing{Thing: "kosher-salt", Price: fmt.Sprintf("€%d for 1 kg", n)}),
			)
		}
		one.take(t, call(t, app, "POST", "/api/page?settled=true", api.PageAsked{Base: one.page, Patch: patch}))
		var whole map[string]any
		call(t, app, "POST", "/api/sheet", typed).into(t, &whole)
		require.Equal(t, whole, one.sheet, "after %v", patch)
	}

	one.take(t, call(t, app, "POST", "/api/page?plain=true", api.PageAsked{Whole: &cooking.CookRequest{Cook: rec.Doc}}))
	letter := call(
		t,
		app,
		"POST",
		"/api/page?plain=true",
		api.PageAsked{Base: one.page, Patch: []api.PagePatch{{Op: "replace", Path: "/pieces/0/trimmed", Value: "2.45 kg"}}},
	)
	assert.Less(t, zipped(t, letter.body), 10_000, "one letter in one piece of five, as it is sent")
	same := call(t, app, "POST", "/api/page?plain=true", api.PageAsked{Base: one.page, Patch: []api.PagePatch{}})
	assert.Less(t, len(same.body), 200, "nothing new is nothing to send")
}

// zipped is how long a text is as it is sent.
func zipped(t *testing.T, text []byte) int {
	var out bytes.Buffer
	z := gzip.NewWriter(&out)
	_, err := z.Write(text)
	require.NoError(t, errors.Join(err, z.Close()))
	return out.Len()
}

// Changes that cannot be made are refused, and a program that does not know the page
// they are made to asks for all of it.
func TestChangesThatDoNotFit(t *testing.T) {
	testclock.Undated(t)
	app, other := apptest.Start(t, apptest.Nothing), apptest.Start(t, apptest.Nothing)
	whole := cooking.CookRequest{Cook: supper()}
	one := screen{app: app}
	one.take(t, call(t, app, "POST", "/api/page", api.PageAsked{Whole: &whole}))
	send := func(at apptest.App, base, patch string) reply {
		return call(t, at, "POST", "/api/page", fmt.Sprintf(`{"base":%q,"patch":%s}`, base, patch))
	}
	send(other, one.page, `[]`).problem(t, http.StatusConflict)
	send(app, "", `[]`).problem(t, http.StatusConflict)
	for _, bad := range []string{
		`[{"op":"replace","path":"/pieces/9/cut","value":"pork-loin"}]`, `[{"op":"remove","path":"/nothing"}]`, `[{"op":"add","path":"/surprise","value":1}]`,
		`[{"op":"replace","path":"/pieces","value":7}]`, `[{"op":"copy","from":"/pieces","path":"/pieces/0"}]`, `[{"op":"replace","path":"","value":null}]`, `{}`, `[null]`,
	} {
		got := send(app, one.page, bad)
		assert.GreaterOrEqual(t, got.StatusCode, 400, bad)
		assert.Less(t, got.StatusCode, 500, bad)
	}
	one.take(t, send(app, one.page, `[{"op":"replace","path":"/pieces/0/cut","value":"pork-belly"}]`))
	_, err := json.Marshal(one.sheet)
	require.NoError(t, err)

	var from sheet.Where
	call(t, app, "POST", "/api/page/where?units=us&at=/pieces/0/meat/green", whole).into(t, &from)
	assert.NotEmpty(t, from.Explanation)
	assert.NotEmpty(t, from.Inputs)
	for _, nowhere := range []string{"", "/", "/pieces/7/meat", "/pieces/0/title", "/pieces/x", "/errors/0"} {
		call(t, app, "POST", "/api/page/where?at="+nowhere, whole).problem(t, http.StatusNotFound)
	}
}

// Those who open one page at one moment are answered the same, and what they rest on still counts:
// a price that changes in between is in the next answer.
func TestOnePageAskedForByMany(t *testing.T) {
	app := apptest.Start(t, apptest.Demo)
	list, _, err := app.Store.Cooks().List(t.Context(), store.Query{Limit: 1})
	require.NoError(t, err)
	asked := api.PageAsked{Whole: &cooking.CookRequest{Cook: list[0].Doc}}
	first := call(t, app, "POST", "/api/page", asked)
	again := call(t, app, "POST", "/api/page", asked)
	assert.JSONEq(t, string(first.body), string(again.body))
	us := call(t, app, "POST", "/api/page?units=us", asked)
	assert.NotEqual(t, string(first.body), string(us.body), "as another reads it")
	require.NoError(t, app.Store.PutThing(t.Context(), store.Thing{Thing: "beef-chuck-roll", Price: "€90 per kg"}))
	dearer := call(t, app, "POST", "/api/page", asked)
	assert.NotEqual(t, string(first.body), string(dearer.body))
	var page api.PageAnswer
	dearer.into(t, &page)
	var next api.PageAnswer
	call(
		t,
		app,
		"POST",
		"/api/page",
		api.PageAsked{Base: page.Page, Patch: []api.PagePatch{{Op: "replace", Path: "/guests", Value: "9"}}},
	).into(t, &next)
	assert.NotEmpty(t, next.Changes, "it can be built on")
}

// One letter in a page of five pieces, through the handler and the database: of a weight, whose
// fire is new each time, and of a rub.
// A save of a page on record, which only has to find its mistakes.
func BenchmarkSave(b *testing.B) {
	app := apptest.Start(b, apptest.Demo)
	var rec api.CookRecord
	got := call(b, app, "GET", "/api/cooks/{supper}", nil)
	require.NoError(b, json.Unmarshal(got.body, &rec))
	tag, n := got.Header.Get("ETag"), 0
	for b.Loop() {
		n++
		rec.Doc.Pieces[1].Bought = fmt.Sprintf("%d g", 4400+n%900)
		r := call(b, app, "PUT", "/api/cooks/"+rec.ID, rec.Doc, "If-Match", tag)
		require.Equal(b, http.StatusOK, r.StatusCode, string(r.body))
		tag = r.Header.Get("ETag")
	}
}

func BenchmarkPage(b *testing.B) {
	for name, one := range map[string]struct{ path, value string }{
		"weight": {"/pieces/0/trimmed", "2.%03d kg"},
		"rub":    {"/pieces/0/season/formula/rows/0/parts", "3.%02d"},
	} {
		b.Run(name, func(b *testing.B) { letters(b, one.path, one.value) })
	}
}

func letters(b *testing.B, path, value string) {
	app := apptest.Start(b, apptest.Demo)
	list, _, err := app.Store.Cooks().List(b.Context(), store.Query{Limit: 1})
	require.NoError(b, err)
	raw, err := json.Marshal(api.PageAsked{Whole: &cooking.CookRequest{Cook: list[0].Doc}})
	require.NoError(b, err)
	send := func(address, body string) (page api.PageAnswer) {
		w := httptest.NewRecorder()
		req, _ := http.NewRequest("POST", address, strings.NewReader(body))
		req.Header.Set("Content-Type", "application/json")
		app.Handler.ServeHTTP(w, req)
		require.Equal(b, http.StatusOK, w.Code, w.Body.String())
		require.NoError(b, json.Unmarshal(w.Body.Bytes(), &page))
		return page
	}
	page := send("/api/page?plain=true&settled=true", string(raw)).Page
	b.ResetTimer()
	for n := range b.N {
		body := fmt.Sprintf(
			`{"base":%q,"patch":[{"op":"replace","path":%q,"value":%q}]}`,
			page,
			path,
			fmt.Sprintf(value, n%600),
		)
		page = send("/api/page?plain=true", body).Page
	}
}
