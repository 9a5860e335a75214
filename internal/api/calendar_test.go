package api_test

import (
	"bytes"
	"image"
	"image/jpeg"
	"net/http"
	"strings"
	"testing"

	ics "github.com/arran4/golang-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/sheet"
	"verjuice/internal/testclock"
)

// The calendar can be read again by its library, keeps its UIDs when the plan
// moves, and moves with it.
func TestCalendarKeepsItsEvents(t *testing.T) {
	app := apptest.Start(t, apptest.Demo)
	read := func() map[string]*ics.VEvent {
		got := call(t, app, "GET", "/api/cooks/{supper}/calendar.ics", nil)
		require.Equal(t, http.StatusOK, got.StatusCode, string(got.body))
		assert.Contains(t, got.Header.Get("Content-Type"), "text/calendar")
		cal, err := ics.ParseCalendar(bytes.NewReader(got.body))
		require.NoError(t, err)
		out := map[string]*ics.VEvent{}
		for _, e := range cal.Events() {
			assert.NotContains(t, out, e.Id(), "each event once")
			out[e.Id()] = e
		}
		return out
	}
	before := read()
	require.Greater(t, len(before), 20)

	var rec api.CookRecord
	got := call(t, app, "GET", "/api/cooks/{supper}", nil)
	got.into(t, &rec)
	rec.Doc.ServeAt = strings.Replace(rec.Doc.ServeAt, "T18:30", "T20:30", 1)
	put := call(t, app, "PUT", "/api/cooks/{supper}", rec.Doc, "If-Match", got.Header.Get("ETag"))
	require.Equal(t, http.StatusOK, put.StatusCode, string(put.body))
	after := read()
	for id, e := range before {
		require.Contains(t, after, id)
		was, err := e.GetStartAt()
		require.NoError(t, err)
		now, err := after[id].GetStartAt()
		require.NoError(t, err)
		if strings.HasSuffix(id, "serve@verjuice") {
			assert.Equal(t, "2h0m0s", now.Sub(was).String())
		}
		assert.NotEqual(
			t,
			e.GetProperty(ics.ComponentPropertySequence).Value,
			after[id].GetProperty(ics.ComponentPropertySequence).Value,
		)
	}
	call(t, app, "GET", "/api/cooks/99/calendar.ics", nil).problem(t, http.StatusNotFound)
}

// The shopping list counts every mix, leaves out what is here or in a jar, and
// what it buys and what is here are what is needed.
func TestShopping(t *testing.T) {
	app := apptest.Start(t, apptest.Demo)
	var rec api.CookRecord
	call(t, app, "GET", "/api/cooks/{supper}", nil).into(t, &rec)
	shop := func() sheet.Shopping {
		var out sheet.Shopping
		call(t, app, "POST", "/api/shopping", rec.Doc).into(t, &out)
		require.Empty(t, out.Errors)
		return out
	}
	all := shop()
	require.Len(t, all.Meat, 5)
	assert.Equal(t, "5.40 kg", all.Meat[0].Buy)
	line := func(s sheet.Shopping, thing string) sheet.ShopLine {
		for _, l := range append(s.Groceries, s.Stock...) {
			if l.ID == thing {
				return l
			}
		}
		return sheet.ShopLine{}
	}
	assert.Empty(t, line(all, "black-pepper").Buy, "enough is here")
	assert.NotEmpty(t, line(all, "black-pepper").InStock)
	assert.NotEmpty(t, line(all, "stock").Buy)
	assert.NotEmpty(t, all.Jars, "the sweet rub stands in a jar")
	assert.Empty(t, line(all, "brown-sugar").Need, "so its sugar is not on the list")
	require.NotNil(t, all.Cost)

	rec.Doc.Pieces[2].Season.Formula.Rows[0].Parts = "5" // a mix of its own now, not the jar's
	assert.NotEmpty(t, line(shop(), "brown-sugar").Need)
	require.Equal(
		t,
		http.StatusNoContent,
		call(t, app, "PUT", "/api/larder/stock", api.LarderThing{Price: "€2.40 for 1 L", Stock: "5 L"}).StatusCode,
	)
	assert.Empty(t, line(shop(), "stock").Buy)
}

// A photograph is kept small and plain, only on a cook that is there, and comes
// back when it was taken away.
func TestPhotographs(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	require.Equal(t, http.StatusCreated, call(t, app, "POST", "/api/cooks", supper()).StatusCode)
	var raw bytes.Buffer
	require.NoError(t, jpeg.Encode(&raw, image.NewGray(image.Rect(0, 0, 3000, 2000)), nil))
	const octets = "application/octet-stream"
	made := call(t, app, "POST", "/api/cooks/{}/photos?piece=k1", raw.String(), "Content-Type", octets)
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	var list []api.PhotoLine
	call(t, app, "GET", "/api/cooks/{}/photos", nil).items(t, &list)
	require.Len(t, list, 1)
	assert.Equal(t, []int{1600, 1067}, []int{list[0].Width, list[0].Height})
	got := call(t, app, "GET", "/api/photos/1", nil)
	assert.Equal(t, "image/jpeg", got.Header.Get("Content-Type"))
	_, err := jpeg.Decode(bytes.NewReader(got.body))
	require.NoError(t, err)
	call(
		t,
		app,
		"POST",
		"/api/cooks/{}/photos",
		"<script>",
		"Content-Type",
		octets,
	).problem(t, http.StatusUnprocessableEntity)
	call(t, app, "POST", "/api/cooks/9/photos", raw.String(), "Content-Type", octets).problem(t, http.StatusNotFound)
	require.Equal(t, http.StatusNoContent, call(t, app, "DELETE", "/api/photos/1", nil).StatusCode)
	call(t, app, "DELETE", "/api/photos/1", nil).problem(t, http.StatusNotFound)
	call(t, app, "GET", "/api/photos/1", nil).problem(t, http.StatusNotFound)
	require.Equal(t, http.StatusNoContent, call(t, app, "POST", "/api/photos/1/restore", nil).StatusCode)
	assert.Equal(t, http.StatusOK, call(t, app, "GET", "/api/photos/1", nil).StatusCode)
}
