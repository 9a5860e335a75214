package api_test

import (
	"net/http"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/outlook"
	"verjuice/internal/sheet"
)

// At one minute all that tells when a piece comes off tells the same: the pit side, the plan, its clock, its
// card, the calendar and the forecast page rest on what was pressed and read. Without the readings the plan
// says otherwise, so that this test can fail.
func TestOneForecastAPiece(t *testing.T) {
	app, path := atThePit(t)
	require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/readings", risen(0, 4, 9)).StatusCode)
	app.Clock.Store(int64(4 * time.Hour))
	id := strings.TrimPrefix(path, "/api/cooks/")
	var opened api.OpenedCook
	call(t, app, "GET", path+"/opened", nil).into(t, &opened)
	request := cooking.CookRequest{Cook: opened.Record.Doc, Facts: opened.Facts}
	time15 := regexp.MustCompile(`\d\d:\d\d`)

	live := time15.FindString(stands(t, app, path).Ready.Text)
	require.NotEmpty(t, live)
	off := func(c *sheet.ClockSheet) string {
		for _, s := range c.Steps {
			if s.Key == "off" {
				return s.Time
			}
		}
		return ""
	}
	var page api.PageAnswer
	call(t, app, "POST", "/api/page?settled=true&cook="+id, api.PageAsked{Whole: &request}).into(t, &page)
	assert.Equal(t, live, off(page.Whole.Pieces[0].Clock), "the plan and the clock")
	assert.Equal(t, 60, page.Again)
	var card sheet.Sheet
	call(t, app, "POST", "/api/sheet?plain=true&cook="+id, request).into(t, &card)
	assert.Equal(t, live, off(card.Pieces[0].Clock), "the card")
	var ahead sheet.OutlookSheet
	call(t, app, "POST", "/api/forecast?cook="+id, outlook.OutlookRequest{Cook: request.Cook, Facts: request.Facts}).
		into(t, &ahead)
	for _, m := range ahead.Marks {
		if m.Kind == "off" {
			assert.Equal(t, live, time15.FindString(m.Note), "the forecast page")
		}
	}
	var planned sheet.PlanSheet
	call(t, app, "POST", "/api/calc/plan?cook="+id, request).into(t, &planned)
	calendar := string(call(t, app, "GET", path+"/calendar.ics", nil).body)
	rest := 0
	for _, task := range planned.Tasks {
		if task.Stage == "off" {
			at, err := time.Parse(time.RFC3339, task.At)
			require.NoError(t, err)
			assert.Contains(t, calendar, at.UTC().Format("20060102T150405Z"), "the calendar")
			assert.Equal(t, live, task.Time, "the list of the plan")
			rest++
		}
	}
	assert.Equal(t, 1, rest)

	// A page of a cook that was deleted meanwhile is still worked out: what is typed is not lost.
	gone := call(t, app, "POST", "/api/page?cook=00000000-0000-0000-0000-000000000000", api.PageAsked{Whole: &request})
	assert.Equal(t, http.StatusOK, gone.StatusCode, string(gone.body))

	var unread api.PageAnswer
	call(t, app, "POST", "/api/page?settled=true", api.PageAsked{Whole: &request}).into(t, &unread)
	assert.NotEqual(t, live, off(unread.Whole.Pieces[0].Clock))
}
