package api_test

import (
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/formula"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
)

// onRecord is everything of the records, to see that nothing has changed.
func onRecord(t *testing.T, app apptest.App) string {
	t.Helper()
	var out []any
	cooks, _, err := app.Store.Cooks().List(t.Context(), store.Query{Gone: true})
	require.NoError(t, err)
	formulas, _, err := app.Store.Formulas().List(t.Context(), store.Query{Gone: true})
	require.NoError(t, err)
	out = append(out, cooks, formulas)
	for _, c := range cooks {
		said, err := app.Store.Facts(t.Context(), c.ID)
		require.NoError(t, err)
		out = append(out, said)
	}
	raw, err := json.Marshal(out)
	require.NoError(t, err)
	return string(raw)
}

// Times that no cook can mean are refused in words, at once, wherever they are sent; what is
// refused changes nothing on record.
func TestTimesThatNoCookCanMean(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Demo)
	var rec api.CookRecord
	call(t, app, "GET", "/api/cooks/{supper}", nil).into(t, &rec)
	before := onRecord(t, app)
	mistakes := func(c cook.Cook, said facts.Facts) []sheet.Mistake {
		var out sheet.Sheet
		r := call(t, app, "POST", "/api/sheet", cooking.CookRequest{Cook: c, Facts: said})
		assert.Less(t, len(r.body), 1<<20, "a sheet stays a sheet")
		r.into(t, &out)
		return out.Errors
	}
	at := func(list []sheet.Mistake) (out []string) {
		for _, e := range list {
			assert.NotContains(t, e.Message, "{")
			out = append(out, e.Pointer)
		}
		return out
	}
	key := rec.Doc.Pieces[0].Key
	for _, when := range []string{"0026-11-28T18:30", "1999-12-31T23:59", "2101-01-01T00:00", "9999-12-31T23:59",
		"2026-02-30T18:30", "yesterday", "2026-11-28", "-2026-11-28T18:30"} {
		c := rec.Doc
		c.ServeAt = when
		assert.Contains(t, at(mistakes(c, nil)), "/serve_at", when)
		call(t, app, "PUT", "/api/cooks/{supper}", c, "If-Match", `"1"`).problem(t, http.StatusUnprocessableEntity)
		c = rec.Doc
		c.Wishes = []cook.Wish{{Piece: key, Stage: "salt", At: when}}
		assert.Contains(t, at(mistakes(c, nil)), "/wishes/0/at", when)
		call(t, app, "PUT", "/api/cooks/{supper}", c, "If-Match", `"1"`).problem(t, http.StatusUnprocessableEntity)
		for kind, what := range map[facts.Kind]string{facts.Done: "fire", facts.Ticked: "salt",
			facts.Acknowledged: "sodium"} {
			f := facts.Fact{ID: "00000000-0000-4000-8000-000000000077", Kind: kind, Piece: key, What: what, At: when}
			_, unread := time.Parse("2006-01-02T15:04", when)
			assert.Equal(
				t,
				unread != nil,
				slices.Contains(at(mistakes(rec.Doc, facts.Facts{f})), "/facts/0/at"),
				"one of another age on record stops nothing: %s",
				when,
			)
			call(t, app, "POST", "/api/cooks/{supper}/facts", f).problem(t, http.StatusUnprocessableEntity)
		}
	}
	for _, zone := range []string{"Local", "Nowhere/Town", "../etc/passwd", "UTC+2", strings.Repeat("a", 500)} {
		c := rec.Doc
		c.Zone = zone
		assert.Contains(t, at(mistakes(c, nil)), "/zone", zone)
	}
	assert.Equal(t, before, onRecord(t, app))

	// What a cook can mean, and is months from serving, is kept and moves no plan.
	plan := func(said facts.Facts) string {
		var out sheet.Sheet
		call(t, app, "POST", "/api/sheet", cooking.CookRequest{Cook: rec.Doc, Facts: said}).into(t, &out)
		raw, err := json.Marshal(out.Plan.Options)
		require.NoError(t, err)
		return string(raw)
	}
	far := facts.Fact{
		ID:    "00000000-0000-4000-8000-000000000078",
		Kind:  facts.Done,
		Piece: key,
		What:  "fire",
		At:    "2000-01-01T00:00",
	}
	assert.JSONEq(t, plan(nil), plan(facts.Facts{far}))
}

// Keys that two pieces share, ids that are none, and bodies that are nothing are refused with
// a place and a sentence.
func TestShapesThatAreNone(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Demo)
	before := onRecord(t, app)
	twice := supper()
	twice.Pieces = append(twice.Pieces, twice.Pieces[0])
	p := call(t, app, "POST", "/api/cooks", twice).problem(t, http.StatusUnprocessableEntity)
	assert.True(t, strings.HasSuffix(p.Errors[0].Pointer, "/key"), "%+v", p.Errors)
	for _, body := range []string{"null", "[]", `"a cook"`, "7", "true", "", "{", `{"name":}`, `{"pieces":[null]}`, "{\"name\":\"\xff\xfe", strings.Repeat("[", 5000)} {
		r := call(t, app, "POST", "/api/cooks", body)
		assert.True(
			t,
			r.StatusCode >= 400 && r.StatusCode < 500 || r.StatusCode == http.StatusCreated && body == `{"pieces":[null]}`,
			"%.20q: %d %s",
			body,
			r.StatusCode,
			r.body,
		)
		r = call(t, app, "POST", "/api/page", body)
		assert.True(t, r.StatusCode >= 400 && r.StatusCode < 500, "%.20q: %d %s", body, r.StatusCode, r.body)
		r = call(t, app, "POST", "/api/forecast", body)
		assert.True(t, r.StatusCode >= 400 && r.StatusCode < 500, "%.20q: %d %s", body, r.StatusCode, r.body)
	}
	for _, id := range []string{strings.Repeat("a", 70), "0000000000000000000000000000000000001",
		"00000000-0000-0000-0000-000000000000", "..%2f..%2fetc", "%00", "-1", "9223372036854775808", "%F0%9F%8C%B6"} {
		for _, path := range []string{"/api/cooks/%s", "/api/formulas/%s", "/api/jars/%s", "/api/cooks/%s/facts",
			"/api/cooks/%s/photos", "/api/cooks/%s/calendar.ics", "/api/formulas/%s/versions"} {
			r := call(t, app, "GET", fmt.Sprintf(path, id), nil)
			assert.True(
				t,
				r.StatusCode == 404 || r.StatusCode == 422 || r.StatusCode == 405,
				"%s: %d %s",
				fmt.Sprintf(path, id),
				r.StatusCode,
				r.body,
			)
		}
	}
	assert.Equal(t, before, onRecord(t, app))
}

// Lists under what is not there, and bringing back what is not there, are 404; another method
// of an address that exists is 405 and says which it has.
func TestWhatIsNotThere(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	const nobody = "0b0e7a52-6a1f-4c0e-9d53-0d5f3c1e8a11"
	for _, one := range [][2]string{
		{"GET", "/api/cooks/" + nobody}, {"GET", "/api/cooks/" + nobody + "/facts"},
		{"GET", "/api/cooks/" + nobody + "/photos"}, {"GET", "/api/cooks/" + nobody + "/calendar.ics"},
		{"POST", "/api/cooks/" + nobody + "/restore"}, {"POST", "/api/cooks/" + nobody + "/duplicate"},
		{"GET", "/api/formulas/" + nobody}, {"GET", "/api/formulas/" + nobody + "/versions"},
		{"POST", "/api/formulas/" + nobody + "/restore"}, {"POST", "/api/photos/999/restore"}, {"GET", "/api/photos/999"},
		{"GET", "/api/nothing"}, {"DELETE", "/api/nothing/at/all"},
	} {
		call(t, app, one[0], one[1], nil).problem(t, http.StatusNotFound)
	}
	for path, has := range map[string]string{
		"/api/cooks": "GET, POST", "/api/sheet": "POST", "/api/page": "POST", "/api/forecast": "POST", "/api/clock": "GET",
		"/api/cooks/" + nobody: "GET, PUT, DELETE", "/api/health": "GET",
	} {
		for _, method := range []string{"GET", "POST", "PUT", "PATCH", "DELETE"} {
			if strings.Contains(has, method) {
				continue
			}
			r := call(t, app, method, path, nil)
			r.problem(t, http.StatusMethodNotAllowed)
			assert.Equal(t, has, r.Header.Get("Allow"), "%s %s", method, path)
		}
	}
}

// Parameters that are no number, or no text, are refused; none is a 500.
func TestParametersThatAreNone(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	for _, q := range []string{"page=NaN", "page=1e9", "page=-1", "page=0x10", "page=999999999999999999999", "page=%00",
		"search=%ff%fe", "search=a%0d%0aSet-Cookie:%20b", "sort=;DROP", "gone=maybe"} {
		r := call(t, app, "GET", "/api/cooks?"+q, nil)
		assert.True(
			t,
			r.StatusCode == 200 || r.StatusCode == 422 || r.StatusCode == 400,
			"%s: %d %s",
			q,
			r.StatusCode,
			r.body,
		)
		if strings.HasPrefix(q, "page") || strings.Contains(q, "%ff") || strings.Contains(q, "%0d") {
			assert.NotEqual(t, 200, r.StatusCode, q)
		}
		assert.Empty(t, r.Header.Get("Set-Cookie"))
	}
	for _, v := range []string{"1e308", "-1e308", "1e-300", "0", "-0", "4.9e-324", "1.7976931348623157e308"} {
		for _, rescale := range []bool{true, false} {
			r := call(
				t,
				app,
				"POST",
				"/api/calc/weighing",
				fmt.Sprintf(`{"targets":[%[1]s,5,%[1]s],"weighed":[%[1]s,3],"rescale":%[2]v}`, v, rescale),
			)
			assert.True(t, r.StatusCode == 200 || r.StatusCode == 422, "%s: %d %s", v, r.StatusCode, r.body)
			assert.True(t, json.Valid(r.body), "%s", r.body)
			assert.NotContains(t, string(r.body), "Inf")
			assert.NotContains(t, string(r.body), "NaN")
		}
	}
}

// A request that is no HTTP, or breaks off, is told so, and the next one is served.
func TestRequestsThatBreakOff(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	host := strings.TrimPrefix(app.URL, "http://")
	head := "POST /api/cooks HTTP/1.1\r\nHost: " + host + "\r\nContent-Type: application/json\r\n"
	for text, want := range map[string]string{
		head + "Transfer-Encoding: chunked\r\n\r\nzz\r\n{}\r\n0\r\n\r\n":       " 400 ",
		head + "Transfer-Encoding: chunked\r\n\r\n-5\r\n{}\r\n0\r\n\r\n":       " 400 ",
		head + "Transfer-Encoding: chunked\r\n\r\nFFFFFFFFFFFFFFFF1\r\n{}\r\n": " 400 ",
		head + "Content-Length: 2\r\nContent-Length: 3\r\n\r\n{}":              " 400 ",
		head + "Content-Length: -1\r\n\r\n":                                    " 400 ",
		"GET /api/cooks HTTP/9.9\r\nHost: " + host + "\r\n\r\n":                " 505 ",
		"NONSENSE\r\n\r\n": " 400 ",
	} {
		c, err := net.Dial("tcp", host)
		require.NoError(t, err)
		_, err = io.WriteString(c, text)
		require.NoError(t, err)
		answer, n := make([]byte, 400), 0
		testclock.Within(t, 10*time.Second, func() { n, _ = c.Read(answer) })
		first, _, _ := strings.Cut(string(answer[:n]), "\r\n")
		assert.Contains(t, first+" ", want, "%q", text)
		_ = c.Close()
	}
	cut, err := net.Dial("tcp", host)
	require.NoError(t, err)
	_, err = io.WriteString(cut, head+"Content-Length: 1000\r\n\r\n{\"name\":\"half")
	require.NoError(t, err)
	require.NoError(t, cut.Close())
	list, _, err := app.Store.Cooks().List(t.Context(), store.Query{})
	require.NoError(t, err)
	assert.Empty(t, list, "half a request saves nothing")
	assert.Equal(t, http.StatusOK, call(t, app, "GET", "/api/health", nil).StatusCode)
}

// Texts come back without what controls a terminal or begins a line of a file; in a calendar
// every line ends as it should, is short enough, and is one that was meant.
func TestTextsAreTexts(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	for _, name := range []string{
		"Supper\r\nBEGIN:VEVENT\r\nSUMMARY:mine", "Sup\x00per\x0b\x1b[31m", "Sup\u2028per\u0085\u009fx",
		strings.Repeat("ü", 95), "=cmd()|' /C calc'!A0", "\u202eSupper", "A;B,C:D\\E",
	} {
		c := supper()
		c.Name = name
		c.Pieces[0].Label = name
		if len(c.Pieces[0].Label) > 150 {
			c.Pieces[0].Label = "lamb"
		}
		made := call(t, app, "POST", "/api/cooks", c)
		require.Equal(t, http.StatusCreated, made.StatusCode, "%q %s", name, made.body)
		var rec api.CookRecord
		made.into(t, &rec)
		for _, r := range rec.Doc.Name {
			assert.False(t, r < ' ' && r != '\n' && r != '\t' || r == 0x7f || r == '\u2028', "%q", rec.Doc.Name)
		}
		got := call(t, app, "GET", "/api/cooks/"+rec.ID+"/calendar.ics", nil)
		require.Equal(t, http.StatusOK, got.StatusCode, string(got.body))
		text := string(got.body)
		assert.Equal(t, strings.Count(text, "\n"), strings.Count(text, "\r\n"), "every line ends in CR and LF")
		assert.Equal(t, strings.Count(text, "\r"), strings.Count(text, "\r\n"))
		for _, line := range strings.Split(text, "\r\n") {
			assert.LessOrEqual(t, len(line), 75, "%q", line)
		}
		unfolded := strings.ReplaceAll(text, "\r\n ", "")
		assert.Equal(
			t,
			strings.Count(unfolded, "\r\nBEGIN:VEVENT"),
			strings.Count(unfolded, "\r\nUID:"),
			"no event that was not made",
		)
		assert.NotContains(t, unfolded, "\r\nSUMMARY:mine")
	}
}

// Formulas inside formulas are bounded in words, at once: in one body, and by what is on
// record.
func TestFormulasInsideFormulas(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	save := func(name, inside string, wide int) (string, reply) {
		f := formula.Formula{Name: name, Kind: formula.Rub, Basis: formula.ByWeight}
		for range wide {
			f.Rows = append(f.Rows, formula.Row{Ingredient: inside, Parts: "1"})
		}
		if inside == "kosher-salt" {
			f.Rows[0].Form = "dense flake"
		}
		r := call(t, app, "POST", "/api/formulas", f)
		var rec api.FormulaRecord
		_ = json.Unmarshal(r.body, &rec)
		return rec.ID, r
	}
	last, r := save("level 0", "kosher-salt", 1)
	require.Equal(t, http.StatusCreated, r.StatusCode, string(r.body))
	deep := 0
	for level := 1; level <= 12; level++ {
		var next string
		testclock.Within(t, 3*time.Second, func() { next, r = save(fmt.Sprint("level ", level), last, 1) })
		if r.StatusCode != http.StatusCreated {
			p := r.problem(t, http.StatusUnprocessableEntity)
			assert.NotEmpty(t, p.Errors[0].Message)
			break
		}
		last, deep = next, level
	}
	assert.Less(t, deep, 12, "there is a bottom")
	testclock.Within(t, 3*time.Second, func() { _, r = save("wide", last, 16) })
	assert.True(t, r.StatusCode == http.StatusCreated || r.StatusCode == http.StatusUnprocessableEntity, string(r.body))
	testclock.Within(t, 3*time.Second, func() {
		assert.Equal(t, http.StatusOK, call(t, app, "GET", "/api/formulas", nil).StatusCode)
	})
}

// What is wrong with something that is sent is said in the units of who sent it.
func TestRefusalsInTheUnitsOfTheReader(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	cold := supper()
	cold.Fridge = "90 °C"
	said := func(headers ...string) string {
		r := call(t, app, "POST", "/api/cooks", cold, headers...)
		require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
		var p api.Problem
		r.into(t, &p)
		require.Len(t, p.Errors, 1)
		return p.Errors[0].Message
	}
	assert.Regexp(t, `^between .* and .* °C`, said())
	assert.Regexp(t, `^between .* and .* °F`, said("Prefer", "units=us"))
}
