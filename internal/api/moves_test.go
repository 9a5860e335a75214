package api_test

import (
	"bytes"
	"net/http"
	"strings"
	"testing"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
)

// nightly is a shoulder by a method in the cook's own words.
func nightly() cook.Cook {
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key, p.Choices = "a", map[string]string{"wrap": "foil"}
	p.When = map[string]string{"wrap": "71 °C or colour", "spritz": "every 45 min from bark set until the wrap"}
	p.Moves = []cook.Move{
		{Key: "m", What: "mop", When: "after 3 h", Formula: new(anycook.Bottle("soy", "soy-sauce")), Amount: "60 mL"},
		{Key: "o", What: "other", With: "lay the table", When: "1 h before serving"},
	}
	p.Fire.Rest = "10 min vented, 1 h cooler, 30 min travel"
	c := anycook.Supper(p)
	c.Plan, c.Pits = "overnight", []cook.Pit{
		{Name: "Cabinet", Kind: "pellet", Sets: "107 °C from 16:00, 135 °C from 23:00"},
	}
	return c
}

// summary is what an event of a calendar is called.
func summary(e *ics.VEvent) string {
	return inCalendar(strings.ReplaceAll(e.GetProperty(ics.ComponentPropertySummary).Value, `\,`, ","))
}

// inCalendar is a label with plain spaces, as a calendar has it.
func inCalendar(label string) string { return strings.Join(strings.Fields(label), " ") }

// Every job of a method is a line of its moves and in the calendar, every move is a job, and its
// salt is a line of the ledger.
func TestAMethodIsTheSameEverywhere(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	made := call(t, app, "POST", "/api/cooks", nightly())
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	var rec api.CookRecord
	made.into(t, &rec)
	var page api.PageAnswer
	call(t, app, "POST", "/api/page?settled=true", whole(rec.Doc)).into(t, &page)
	require.Empty(t, page.Whole.Errors)
	cal, err := ics.ParseCalendar(bytes.NewReader(call(t, app, "GET", "/api/cooks/"+rec.ID+"/calendar.ics", nil).body))
	require.NoError(t, err)
	events := map[string]string{}
	for _, e := range cal.Events() {
		at, err := e.GetStartAt()
		require.NoError(t, err)
		events[summary(e)] = at.UTC().Format("02 15:04")
	}
	listed, jobs := map[string]bool{}, map[string]bool{}
	for _, k := range page.Whole.Plan.Tasks {
		jobs[k.Day[:3]+" "+k.Time] = true
	}
	for _, l := range page.Whole.Pieces[0].Moves {
		listed[l.Time] = true
		assert.Empty(t, l.Never, l.Label)
		assert.True(t, jobs[l.Time], "%s at %s is no job", l.Label, l.Time)
	}
	labels := []string{}
	for _, k := range page.Whole.Plan.Tasks {
		labels = append(labels, inCalendar(k.Label))
		assert.NotEmpty(t, events[inCalendar(k.Label)], "%s is in no calendar", k.Label)
		if k.Stage != "sauce" {
			assert.True(t, listed[k.Day[:3]+" "+k.Time], "%s at %s is no line of the moves", k.Label, k.Time)
		}
	}
	all := strings.Join(labels, "\n")
	for _, want := range []string{"Spritz", "Mop", "Wrap", "Lay the table", "Travel", "Light the Cabinet, at 107 °C",
		"Set the Cabinet to 135 °C", ": open it and let it steam off", ": rest in a dry cooler"} {
		assert.Contains(t, all, want)
	}
	salt := []string{}
	for _, l := range page.Whole.Pieces[0].Ledger.Lines {
		salt = append(salt, string(l.ID))
	}
	assert.Contains(t, salt, "move-m")
}

// On the nights when the clock changes, page and calendar tell the same moments, in order, and as
// long before the fire as the wait is long, by a watch that is not changed.
func TestTheClockChangesInTheNight(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Dublin")
	require.NoError(t, err)
	for night, now := range map[string]string{"2027-03-28": "2027-03-24T12:00:00Z", "2026-10-25": "2026-10-21T12:00:00Z"} {
		at, err := time.Parse(time.RFC3339, now)
		require.NoError(t, err)
		app := apptest.StartAt(t, apptest.Nothing, at)
		c := nightly()
		c.ServeAt, c.Quiet, c.Pits[0].Sets = night+"T12:00", "none", "107 °C from 22:00, 120 °C from 03:30"
		c.Pieces[0].Wait = cook.Wait{For: "12 h"}
		made := call(t, app, "POST", "/api/cooks", c)
		require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
		var rec api.CookRecord
		made.into(t, &rec)
		var page api.PageAnswer
		call(t, app, "POST", "/api/page?settled=true", whole(rec.Doc)).into(t, &page)
		require.Empty(t, page.Whole.Errors)
		cal, err := ics.ParseCalendar(bytes.NewReader(call(t, app, "GET", "/api/cooks/"+rec.ID+"/calendar.ics", nil).body))
		require.NoError(t, err)
		starts := map[string]bool{}
		for _, e := range cal.Events() {
			when, err := e.GetStartAt()
			require.NoError(t, err)
			starts[summary(e)+when.UTC().Format(time.RFC3339)] = true
		}
		last, stages := time.Time{}, map[string]time.Time{}
		for _, k := range page.Whole.Plan.Tasks {
			when, err := time.Parse(time.RFC3339, k.At)
			require.NoError(t, err)
			assert.False(t, when.Before(last), "%s: in order", k.Label)
			last, stages[k.Stage] = when, when
			assert.Equal(t, when.In(zone).Format("2006-01-02T15:04"), k.Local, k.Label)
			assert.Equal(t, when.In(zone).Format("15:04"), k.Time, k.Label)
			assert.True(
				t,
				starts[inCalendar(k.Label)+when.UTC().Format(time.RFC3339)],
				"%s at %s is not so in the calendar",
				k.Label,
				k.At,
			)
		}
		serve, err := time.ParseInLocation("2006-01-02T15:04", c.ServeAt, zone)
		require.NoError(t, err)
		assert.Equal(t, time.Hour, serve.Sub(stages["other"]))
		assert.InDelta(t, 12, stages["fire"].Sub(stages["salt"]).Hours(), 0.6, "by a watch")
		for _, l := range page.Whole.Pieces[0].Moves {
			if l.What == "set" {
				assert.Contains(t, l.Time, "03:30", "by the clock on the wall")
			}
		}
	}
}

// A method that is kept is put on another piece whole, and nothing else of that piece changes.
func TestAMethodIsKept(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	piece := nightly().Pieces[0]
	var m cook.Method
	call(t, app, "POST", "/api/new/method?name=By+night", piece).into(t, &m)
	kept := call(t, app, "POST", "/api/methods", m)
	require.Equal(t, http.StatusCreated, kept.StatusCode, string(kept.body))
	var rec api.DocRecord[cook.Method]
	kept.into(t, &rec)
	var list []api.DocRecord[cook.Method]
	call(t, app, "GET", "/api/methods", nil).items(t, &list)
	require.Len(t, list, 1)
	other := anycook.Coated("beef-chuck-roll", "2.2 kg")
	other.Key, other.Fire.On, other.Choices = "b", 0, map[string]string{"wrap": "paper", "state": "frozen"}
	var by cook.Piece
	call(t, app, "POST", "/api/new/with-method?method="+rec.ID, other).into(t, &by)
	assert.Equal(t, piece.When, by.When)
	assert.Equal(t, piece.Moves[0].When, by.Moves[0].When)
	assert.Equal(t, map[string]string{"wrap": "foil", "state": "frozen"}, by.Choices)
	assert.Equal(t, []string{"beef-chuck-roll", "2.2 kg", "b"}, []string{by.Cut, by.Trimmed, by.Key})
	m.Name = " "
	call(t, app, "POST", "/api/methods", m).problem(t, http.StatusUnprocessableEntity)
	call(t, app, "POST", "/api/new/with-method?method=nobody", other).problem(t, http.StatusNotFound)
}

// whole asks for all figures of a cook.
func whole(c cook.Cook) api.PageAsked { return api.PageAsked{Whole: &cooking.CookRequest{Cook: c}} }
