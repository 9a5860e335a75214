package api_test

import (
	"net/http"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/facts"
	"verjuice/internal/sheet"
)

// A practice is a copy with a clock of its own: what happens at it is not on record of the cook, not
// in the logbook and not on the list of what is on the fire; what was true of it is told once
// everything is off, and of a real cook never.
func TestPractising(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key, p.Choices = "a", map[string]string{"wrap": "foil"}
	var real, copied api.CookRecord
	call(t, app, "POST", "/api/cooks", anycook.Supper(p)).into(t, &real)
	call(t, app, "POST", "/api/cooks/"+real.ID+"/practise", api.Practice{Speed: 60, Seed: 4}).into(t, &copied)
	assert.Equal(t, "Practice: "+real.Doc.Name, copied.Doc.Name)
	var twice api.CookRecord
	call(t, app, "POST", "/api/cooks/"+copied.ID+"/practise", api.Practice{Speed: 60, Seed: 4}).into(t, &twice)
	assert.Equal(t, copied.Doc.Name, twice.Doc.Name, "a practice of a practice is no more than one")
	path := "/api/cooks/" + copied.ID
	clock := func() time.Time {
		var live sheet.LiveSheet
		call(t, app, "GET", path+"/live", nil).into(t, &live)
		assert.True(t, live.Practised)
		now, err := time.Parse(time.RFC3339, live.Now)
		require.NoError(t, err)
		return now
	}
	began := clock()
	say := func(what string, at time.Time) {
		f := facts.Fact{ID: uuid.NewString(), Kind: facts.Done, Piece: "a", What: what, At: at.Format(time.RFC3339)}
		require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/facts", f).StatusCode)
	}
	told := func() (out sheet.Debrief) {
		call(t, app, "GET", path+"/practise", nil).into(t, &out)
		return out
	}
	say("fire", began)
	assert.Empty(t, told().Pieces)
	app.Clock.Store(int64(10 * time.Minute)) // ten hours of its own
	assert.InDelta(t, 10, clock().Sub(began).Hours(), 0.1)
	say("off", began.Add(9*time.Hour))
	require.Len(t, told().Pieces, 1)
	assert.GreaterOrEqual(t, len(told().Pieces[0].Ways), 3)
	var went sheet.AfterSheet
	call(t, app, "GET", path+"/review", nil).into(t, &went)
	assert.True(t, went.Practice)
	say("over", began.Add(10*time.Hour))
	var book api.LogPage
	call(t, app, "GET", "/api/logbook", nil).into(t, &book)
	assert.Zero(t, book.Total)
	var on []api.OnNow
	call(t, app, "GET", "/api/live?brief=true", nil).into(t, &on)
	assert.Empty(t, on)
	var lessons sheet.LessonsSheet
	call(t, app, "GET", "/api/lessons", nil).into(t, &lessons)
	assert.Empty(t, lessons.Lines)
	call(t, app, "GET", "/api/cooks/"+real.ID+"/practise", nil).problem(t, http.StatusConflict)
	call(t, app, "PUT", "/api/cooks/"+real.ID+"/practise", api.Practice{Speed: 60}).problem(t, http.StatusConflict)
	call(t, app, "POST", path+"/practise", api.Practice{Speed: 500}).problem(t, http.StatusUnprocessableEntity)
	require.Equal(t, http.StatusNoContent, call(t, app, "PUT", path+"/practise", api.Practice{Speed: 1}).StatusCode)
	at := clock()
	app.Clock.Store(int64(20 * time.Minute))
	say("look", at) // a press makes it be told anew
	assert.InDelta(t, 10, clock().Sub(at).Minutes(), 1, "as fast as the clock on the wall")
	facts, err := app.Store.Facts(t.Context(), real.ID)
	require.NoError(t, err)
	assert.Empty(t, facts)
}

// Pieces of one line come off one by one: until the last one is off it is on the fire, and says how
// many are off.
func TestOneByOne(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	p := anycook.Coated("chicken-leg", "300 g")
	p.Key, p.Count = "a", "3"
	var rec api.CookRecord
	call(t, app, "POST", "/api/cooks", anycook.Supper(p)).into(t, &rec)
	path := "/api/cooks/" + rec.ID
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "fire"})
	labels := func() (out []string) {
		for _, d := range stands(t, app, path).Done {
			out = append(out, d.Label)
		}
		return out
	}
	assert.Contains(t, labels(), "One pulled off")
	assert.Contains(t, labels(), "All pulled off")
	app.Clock.Store(int64(time.Hour))
	for n := range 2 {
		said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "some-off"})
		assert.Equal(t, "on", stands(t, app, path).State)
		assert.Contains(t, stands(t, app, path).Since, []string{"1 of 3 off", "2 of 3 off"}[n])
	}
	assert.NotContains(t, labels(), "One pulled off")
	assert.Contains(t, labels(), "The last one off")
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "off"})
	assert.Equal(t, "resting", stands(t, app, path).State)
}

// Poultry that was not shown at 74 °C is told while it rests, and gravely once it is sliced; a reading
// clears it. The caution can be acknowledged like any other.
func TestPoultryIsShown(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	p := anycook.Coated("chicken-whole", "1.8 kg")
	p.Key = "a"
	var rec api.CookRecord
	call(t, app, "POST", "/api/cooks", anycook.Supper(p)).into(t, &rec)
	path := "/api/cooks/" + rec.ID
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "fire"})
	hot := func(atH, c float64) {
		h := risen(atH, 0.2, 0)
		for i := range h.Readings {
			h.Readings[i].Typed = map[bool]string{true: "163 °C", false: sheet.Warm(c,
				sheet.Reader{})}[h.Readings[i].Probe == "pit:0"]
		}
		require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/readings", h).StatusCode)
	}
	hot(1, 70)
	app.Clock.Store(int64(90 * time.Minute))
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "off"})
	found := func() map[string]string {
		out := map[string]string{}
		for _, c := range stands(t, app, path).Cautions {
			out[c.ID] = string(c.Severity)
		}
		return out
	}
	assert.Equal(t, "care", found()["poultry-shown"])
	sliced := said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "slice"})
	assert.Equal(t, "stop", found()["poultry-shown"])
	said(t, app, path, facts.Fact{Kind: facts.Withdrawn, What: sliced.ID})
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "slice"})
	app.Clock.Store(int64(150 * time.Minute))
	hot(1.2, 71)
	assert.Equal(t, "stop", found()["poultry-shown"])
	stop := stands(t, app, path).Cautions[0]
	read := said(t, app, path, facts.Fact{Kind: facts.Acknowledged, Piece: "a", What: stop.ID, Values: stop.Values})
	assert.NotContains(t, found(), "poultry-shown", "it was read")
	var went sheet.AfterSheet
	call(t, app, "GET", path+"/review", nil).into(t, &went)
	assert.NotEmpty(t, went.Pieces[0].Cautions[0].Read, "and is told afterwards, as read")
	said(t, app, path, facts.Fact{Kind: facts.Withdrawn, What: read.ID})
	hot(2, 76) // it was put back on the heat, and probed again
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "vent"})
	assert.NotContains(t, found(), "poultry-shown")
}
