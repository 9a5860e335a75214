package api_test

import (
	"bytes"
	"fmt"
	"io"
	"maps"
	"mime/multipart"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/demo"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// A cook is over when its cook says so: what it weighed and how it tasted is told beside what was
// expected, stands in the logbook, and teaches; taken back, it teaches nothing any more.
func TestACookThatIsOver(t *testing.T) {
	app, path := atThePit(t)
	var pit api.DocRecord[cook.Pit]
	call(t, app, "POST", "/api/pits", cook.Pit{Name: "Kettle", Kind: "kettle"}).into(t, &pit)
	var rec api.CookRecord
	got := call(t, app, "GET", path, nil)
	got.into(t, &rec)
	rec.Doc.Pits = []cook.Pit{{ID: pit.ID, Name: "Kettle", Kind: "kettle"}}
	require.Equal(t, http.StatusOK, call(t, app, "PUT", path, rec.Doc, "If-Match", got.Header.Get("ETag")).StatusCode)
	hot := risen(1, 7, 11)
	for i := range hot.Readings {
		if hot.Readings[i].Probe == "pit:0" {
			hot.Readings[i].Typed = "128 °C"
		}
	}
	require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/readings", hot).StatusCode)
	app.Clock.Store(int64(8 * time.Hour))
	for _, f := range []facts.Fact{
		{Kind: facts.Done, Piece: "a", What: "off"}, {Kind: facts.Weighed, Piece: "a", What: "cooked",
			Values: field.Values{"typed": "2.4 kg"}},
		{Kind: facts.Weighed, Piece: "a", What: "bones", Values: field.Values{"typed": "0.5 kg"}},
		{Kind: facts.Weighed, Piece: "a", What: "mixed", Values: field.Values{"typed": "90 g"}},
		{Kind: facts.Scored, Piece: "a", What: "salt", Author: "Ines", Values: field.Values{"score": 2.0}},
		{Kind: facts.Scored, Piece: "a", What: "salt", Author: "Odhran", Values: field.Values{"score": 4.0}},
		{Kind: facts.Scored, Piece: "a", What: "salt", Author: "Ines", Values: field.Values{"score": 3.0}},
		{Kind: facts.Noted, Piece: "a", What: "Wrap it later."},
	} {
		said(t, app, path, f)
	}
	went := func() (out sheet.AfterSheet) {
		call(t, app, "GET", path+"/review", nil).into(t, &out)
		return out
	}
	p := went().Pieces[0]
	assert.Equal(t, "8 h", p.Hours.Text)
	assert.Contains(t, p.Yield.Text, "%")
	assert.Equal(
		t,
		[]sheet.AfterGiven{{By: "Ines", Score: 3}, {By: "Odhran", Score: 4}},
		p.Scores[0].Given,
		"the last word of each counts",
	)
	assert.Contains(t, p.Miss, "hotter than it was set to")
	lessons := func() (texts string) {
		var out sheet.LessonsSheet
		call(t, app, "GET", "/api/lessons", nil).into(t, &out)
		for _, l := range out.Lines {
			texts += l.Text + "\n"
		}
		return texts
	}
	assert.Empty(t, lessons(), "it is not over yet")
	assert.Nil(t, went().Pieces[0].Left)
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "slice"})
	require.NotNil(t, went().Pieces[0].Left)
	assert.Empty(t, went().Pieces[0].Left.Late)
	said(t, app, path, facts.Fact{Kind: facts.Weighed, Piece: "a", What: "kept", Values: field.Values{"typed": "500 g"}})
	assert.Contains(
		t,
		strings.Join(went().Pieces[0].Left.Lines, " "),
		"The 500 g that you kept makes 2 portions on the plate, 4 in rolls",
	)
	app.Clock.Store(int64(11 * time.Hour))
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "chill"})
	assert.Contains(t, went().Pieces[0].Left.Late, "throw it away", "three hours after it was sliced")
	over := said(t, app, path, facts.Fact{Kind: facts.Done, What: "over"})
	assert.True(t, went().Finished)
	assert.Contains(t, lessons(), "The Kettle runs")
	var plan sheet.PlanSheet
	call(t, app, "POST", "/api/calc/plan", cooking.CookRequest{Cook: rec.Doc}).into(t, &plan)
	require.Len(t, plan.Learnt, 1)
	assert.Contains(t, plan.Learnt[0], "the forecast allows for it")
	said(t, app, path, facts.Fact{Kind: facts.Withdrawn, What: over.ID})
	assert.False(t, went().Finished)
	assert.Empty(t, lessons())
	for pointer, f := range map[string]facts.Fact{
		"/values/typed": {Kind: facts.Weighed, Piece: "a", What: "cooked", Values: field.Values{"typed": "heavy"}},
		"/values/score": {Kind: facts.Scored, Piece: "a", What: "bark", Values: field.Values{"score": 9.0}},
		"/what":         {Kind: facts.Noted, Piece: "a", What: " "},
	} {
		f.ID, f.At = uuid.NewString(), "2026-11-28T07:20"
		bad := call(t, app, "POST", path+"/facts", f).problem(t, http.StatusUnprocessableEntity)
		assert.Equal(t, pointer, bad.Errors[0].Pointer)
	}
}

// The demo's logbook is found again by what it is looked for by, compared point by point, and
// taught from with or without a cook.
func TestTheLogbook(t *testing.T) {
	app := apptest.Start(t, apptest.Demo)
	for range 2 {
		require.NoError(t, demo.LoadLogbook(t.Context(), app.Store, apptest.Now))
	}
	find := func(query string) (out api.LogPage) {
		call(t, app, "GET", "/api/logbook?"+query, nil).into(t, &out)
		return out
	}
	all := find("per=100")
	assert.EqualValues(t, 13, all.Total)
	for query, many := range map[string]int{"cut=pork-loin": 3, "wrap=paper": 2, "pit=Kettle": 3,
		"search=loin+kettle": 1, "score=4": 0, "search=%25": 0, "finish=pulled&wrap=foil": 3, "formula=Fennel+house+rub": 3,
		"weather=wet": 0, "cut=pork-loin&pit=Kettle": 1} {
		if got := len(find(query).Items); query == "score=4" {
			assert.True(t, got > 0 && got < 13, query)
		} else {
			assert.Equal(t, many, got, query)
		}
	}
	lamb := find("cut=lamb-shoulder-bone-in").Items
	var ids []string
	for _, c := range lamb {
		ids = append(ids, c.ID)
	}
	var compared sheet.LogCompared
	call(t, app, "GET", "/api/logbook/compare?cooks="+strings.Join(ids, ","), nil).into(t, &compared)
	require.Len(t, compared.Cooks, 3)
	for _, c := range compared.Cooks {
		assert.Greater(t, len(c.Read), 50)
		assert.InDelta(t, c.OffH, c.Read[len(c.Read)-1].H, 0.1)
	}
	for _, row := range compared.Rows {
		require.Len(t, row.Texts, 3)
		if row.Label == "Wrap" || row.Label == "On the fire" {
			assert.True(t, row.Differs, row.Label)
		}
		if row.Label == "Cut" {
			assert.False(t, row.Differs)
		}
	}
	var taught, without sheet.LessonsSheet
	call(t, app, "GET", "/api/lessons", nil).into(t, &taught)
	require.NotEmpty(t, taught.Lines)
	call(t, app, "POST", "/api/lessons/without", map[string]any{"cook": ids[0], "out": true}).into(t, &without)
	assert.Equal(t, taught.Lines[0].Cooks-1, without.Lines[0].Cooks)
	assert.Equal(t, ids[0], without.Without[0].ID)
	call(t, app, "POST", "/api/lessons/reset", map[string]any{"all": false}).into(t, &without)
	assert.Empty(t, without.Lines)
	call(t, app, "POST", "/api/lessons/reset", map[string]any{"all": true}).into(t, &without)
	assert.Equal(t, taught.Lines, without.Lines)
	call(
		t,
		app,
		"POST",
		"/api/lessons/without",
		map[string]any{"cook": uuid.NewString(), "out": true},
	).problem(t, http.StatusNotFound)
	call(t, app, "GET", "/api/logbook/compare?cooks=nobody", nil).problem(t, http.StatusNotFound)
	var went sheet.AfterSheet
	call(t, app, "GET", "/api/cooks/"+ids[0]+"/review", nil).into(t, &went)
	assert.Regexp(
		t,
		`^A portion of 180 g cost \d+\.\d\d €, based on what was served: meat, mixes, fuel and wraps\.`,
		went.Cost,
	)
	cheap := went.Cost
	require.Len(t, went.Fuel, 1)
	call(
		t,
		app,
		"POST",
		"/api/cooks/"+ids[0]+"/facts",
		facts.Fact{
			ID:     uuid.NewString(),
			Kind:   facts.Weighed,
			What:   facts.Fuel,
			At:     apptest.Now.Format("2006-01-02T15:04"),
			Values: field.Values{"typed": "400 kg", "pit": 0},
		},
	)
	call(t, app, "GET", "/api/cooks/"+ids[0]+"/review", nil).into(t, &went)
	assert.Equal(t, "400 kg", went.Fuel[0].Typed)
	assert.NotEqual(t, cheap, went.Cost, "what was burnt is paid for")
	var proposed []sheet.ProposalLine
	bland := find("search=Crew+chicken").Items[0].ID
	call(t, app, "GET", "/api/cooks/"+bland+"/proposals", nil).items(t, &proposed)
	require.Equal(t, "salt:p1", proposed[0].ID)
	assert.Equal(t, "It was a little bland.", proposed[0].Why)
	for taken, target := range map[string]string{"salt:p1": "1.10 %", "nothing": "0.9 %"} {
		var again api.CookRecord
		call(t, app, "POST", "/api/cooks/"+bland+"/repeat", map[string]any{"take": []string{taken}}).into(t, &again)
		assert.Equal(t, target, again.Doc.Pieces[0].Season.Target)
		assert.Empty(t, again.Doc.ServeAt)
	}
	var trends sheet.Trends
	call(t, app, "GET", "/api/logbook/trends", nil).into(t, &trends)
	assert.Len(t, trends.Cuts, 5)
	assert.Contains(t, trends.Nearer, "of 13 pieces were off within the hours")
}

// The whole book goes out as a file and comes in again; a file that is none is refused whole; of one
// cook there is a table in the order of time.
func TestCarryingAway(t *testing.T) {
	app, path := atThePit(t)
	require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/readings", risen(0, 1, 12)).StatusCode)
	got := call(t, app, "GET", "/api/book", nil)
	require.Equal(t, "application/zip", got.Header.Get("Content-Type"))
	send := func(file []byte) reply {
		var out bytes.Buffer
		form := multipart.NewWriter(&out)
		w, err := form.CreateFormFile("book", "book.zip")
		require.NoError(t, err)
		_, err = w.Write(file)
		require.NoError(t, err)
		require.NoError(t, form.Close())
		return call(t, app, "POST", "/api/book", out.String(), "Content-Type", form.FormDataContentType())
	}
	var taken api.TakenIn
	send(got.body).into(t, &taken)
	assert.Zero(t, taken.Added)
	assert.Positive(t, taken.Here)
	assert.Contains(t, send([]byte("hello")).problem(t, http.StatusUnprocessableEntity).Detail, "Nothing was taken in")
	table := call(t, app, "GET", path+"/log.csv", nil)
	lines := strings.Split(strings.TrimSpace(string(table.body)), "\n")
	assert.Equal(t, "at,what,piece,probe,celsius,value,unit,by,said", lines[0])
	assert.Contains(t, lines[1], "done fire")
	assert.Len(t, lines, 2+24)
	call(t, app, "GET", "/api/cooks/nobody/log.csv", nil).problem(t, http.StatusNotFound)
}

// A cook that was never planned begins at the pit, and what is wrong with it is told where it was
// typed.
func TestOnNow(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	now := map[string]any{
		"cut":    "pork-shoulder-bone-in",
		"weight": "3.6 kg",
		"kind":   "pellet",
		"pit":    "",
		"wrap":   "foil",
		"on":     "",
		"zone":   "UTC",
	}
	var rec api.CookRecord
	call(t, app, "POST", "/api/now", now).into(t, &rec)
	p := stands(t, app, "/api/cooks/"+rec.ID)
	assert.Equal(t, "on", p.State)
	assert.NotEmpty(t, p.Ready.Text)
	var on []api.OnNow
	call(t, app, "GET", "/api/live?brief=true", nil).into(t, &on)
	require.Len(t, on, 1)
	for at, typed := range map[string]string{"weight": "heavy", "cut": "cow", "pit": "hot", "on": "2020-01-01T10:00",
		"zone": "Nowhere", "kind": "volcano", "wrap": "wool"} {
		bad := map[string]any{}
		for k, v := range now {
			bad[k] = v
		}
		bad[at] = typed
		problem := call(t, app, "POST", "/api/now", bad).problem(t, http.StatusUnprocessableEntity)
		require.Len(t, problem.Errors, 1, at)
		assert.Equal(t, "/"+at, problem.Errors[0].Pointer)
	}
}

// A past cook is written down as it is told: what was done and read stands in the logbook; what is
// not understood is said, and nothing is saved.
func TestAPastCook(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	past := map[string]any{
		"cut":    "beef-brisket-packer",
		"weight": "5 kg",
		"kind":   "offset",
		"pit":    "250 F",
		"wrap":   "foil",
		"on":     apptest.Now.AddDate(0, 0, -20).Format("2006-01-02") + "T05:00",
		"zone":   "UTC",
		"told":   "wrapped about four hours in, 165, foil; off at nine hours, 203",
	}
	var read sheet.ToldSheet
	call(t, app, "POST", "/api/calc/told", map[string]any{"cut": past["cut"], "on": past["on"], "zone": "UTC",
		"told": past["told"]}).into(t, &read)
	require.Len(t, read.Acts, 2)
	assert.Equal(t, "Wrapped in foil, core at 74\u00a0°C", read.Acts[0].Label)
	var rec api.CookRecord
	call(t, app, "POST", "/api/past", past).into(t, &rec)
	var went sheet.AfterSheet
	call(t, app, "GET", "/api/cooks/"+rec.ID+"/review", nil).into(t, &went)
	assert.True(t, went.Finished)
	assert.Equal(t, "9 h", went.Pieces[0].Hours.Text)
	assert.Equal(t, "95.0°", went.Pieces[0].Core.Text)
	for at, typed := range map[string]string{"told": "we had a good time",
		"on": apptest.Now.AddDate(0, 0, 2).Format("2006-01-02") + "T05:00", "weight": "heavy"} {
		bad := maps.Clone(past)
		bad[at] = typed
		problem := call(t, app, "POST", "/api/past", bad).problem(t, http.StatusUnprocessableEntity)
		assert.Equal(t, "/"+at, problem.Errors[0].Pointer)
	}
	var all api.LogPage
	call(t, app, "GET", "/api/logbook", nil).into(t, &all)
	assert.EqualValues(t, 1, all.Total)

	// Its words stand beside what they became, and are told again in others: what was told before counts no more.
	assert.Equal(t, past["told"], went.Tellings[0].Words)
	words := "/api/cooks/" + rec.ID + "/told"
	unclear := map[string]any{"told": "wrapped in foil at five hours; pulled at ten hours"}
	assert.Equal(t, "/told", call(t, app, "PUT", words, unclear).problem(t, 422).Errors[0].Pointer)
	again := map[string]any{"told": "wrapped in paper at five hours, 70 C; took it off at ten hours; next time less salt"}
	call(t, app, "PUT", words, again).into(t, &read)
	require.Len(t, read.Acts, 2)
	call(t, app, "GET", "/api/cooks/"+rec.ID+"/review", nil).into(t, &went)
	assert.Equal(t, again["told"], went.Tellings[0].Words)
	assert.Equal(t, "10 h", went.Pieces[0].Hours.Text)
	assert.Equal(t, "70.0°", went.Pieces[0].Core.Text)
	assert.Equal(t, "next time less salt", went.Pieces[0].Notes[0].Text)
	// A lean round that was cooked far is held against the forecast of a round that is.
	far := maps.Clone(past)
	far["cut"], far["weight"], far["wrap"], far["told"] = "beef-top-round", "2 kg", "none",
		"off at eight hours, 98 C; pulled apart"
	call(t, app, "POST", "/api/past", far).into(t, &rec)
	call(t, app, "GET", "/api/cooks/"+rec.ID+"/review", nil).into(t, &went)
	assert.Equal(t, "pulled", rec.Doc.Pieces[0].Choices["finish"])

	// A page whose serving time has passed is saved as any other, and told of piece by piece.
	full := anycook.Supper(anycook.Coated("pork-loin", "2 kg"), anycook.Coated("beef-top-round", "2 kg"))
	full.Pieces[0].Key, full.Pieces[1].Key, full.Zone = "a", "b", "UTC"
	full.ServeAt = apptest.Now.AddDate(0, 0, -9).Format("2006-01-02") + "T18:00"
	made := call(t, app, "POST", "/api/cooks", full)
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	made.into(t, &rec)
	told := "/api/cooks/" + rec.ID + "/told"
	for _, key := range []string{"b", "a", "b"} {
		call(t, app, "PUT", told, map[string]any{"piece": key, "on": apptest.Now.AddDate(0, 0,
			-9).Format("2 Jan 2006") + ", 3 pm",
			"told": "pit up to 140 at one hour; off at two hours, 64 C"}).into(t, &read)
		require.Len(t, read.Acts, 2)
	}
	call(t, app, "GET", "/api/cooks/"+rec.ID+"/review", nil).into(t, &went)
	require.Len(t, went.Pieces, 2)
	require.Len(t, went.Tellings, 2)
	for i := range went.Pieces {
		assert.Equal(t, "2 h", went.Pieces[i].Hours.Text)
		assert.NotEmpty(t, went.Tellings[i].Words)
	}
	var said facts.Facts
	call(t, app, "GET", "/api/cooks/"+rec.ID+"/facts", nil).into(t, &said)
	sets := slices.DeleteFunc(said.Standing(), func(f facts.Fact) bool { return f.What != "set" })
	assert.Len(t, sets, 2, "what was told of the pit stands once for each piece")

	pit, pressed := atThePit(t)
	assert.Equal(t, "tale.pressed", call(t, pit, "PUT", pressed+"/told", again).problem(t, 422).Errors[0].ID)
	hot := facts.Fact{ID: uuid.NewString(), Kind: facts.Done, Piece: "a", What: "look", At: "2026-11-28T09:00",
		Values: field.Values{"core_c": 1e12}}
	assert.Equal(t, "/values/core_c", call(t, pit, "POST", pressed+"/facts", hot).problem(t, 422).Errors[0].Pointer)
	call(t, app, "PUT", "/api/cooks/00000000-0000-0000-0000-000000000000/told", again).problem(t, http.StatusNotFound)
}

// Temperatures from elsewhere are looked at first, then taken whole; the same file twice is once.
func TestTemperaturesFromElsewhere(t *testing.T) {
	app, path := atThePit(t)
	file := "time,meat,pit\n"
	for m := range 300 {
		at := apptest.Now.Add(time.Duration(m) * time.Minute)
		if m > 100 {
			at = at.Add(time.Hour)
		}
		file += at.UTC().Format("2006-01-02 15:04:05") + fmt.Sprintf(",%d,225\n", 40+m/3)
	}
	var seen api.TableSeen
	call(t, app, "POST", path+"/table/read", api.TableSent{Text: file}).into(t, &seen)
	assert.Equal(t, 300, seen.Rows)
	assert.True(t, seen.Fahrenheit)
	assert.Nil(t, seen.Preview)
	how := api.TableSent{
		Text: file,
		As: &api.TableAs{
			Probes:     []api.TableProbe{{Column: 1, Probe: "core:a"}, {Column: 2, Probe: "pit:0"}},
			Fahrenheit: true,
			Zone:       "UTC",
		},
	}
	call(t, app, "POST", path+"/table/read", how).into(t, &seen)
	require.NotNil(t, seen.Preview)
	assert.Equal(t, 600, seen.Preview.Count)
	assert.Len(t, seen.Preview.Gaps, 1)
	count := func() int {
		read, err := app.Store.Readings(t.Context(), strings.TrimPrefix(path, "/api/cooks/"), 0, 0)
		require.NoError(t, err)
		return len(read)
	}
	assert.Zero(t, count(), "nothing is saved by looking")
	for range 2 {
		require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/table", how).StatusCode)
	}
	assert.Equal(t, 600, count())
	for want, bad := range map[string]api.TableSent{
		"no table": {Text: "hello", As: how.As}, "is no time": {Text: "time,meat\nnoon,20\n", As: how.As}, "": {Text: file},
		"Nothing was taken": {Text: file, As: &api.TableAs{Zone: "UTC", Probes: []api.TableProbe{}}},
	} {
		assert.Contains(t, call(t, app, "POST", path+"/table", bad).problem(t, http.StatusUnprocessableEntity).Detail, want)
	}
	assert.Equal(t, 600, count())
}

// BenchmarkLogbook lists, searches and opens a logbook of ten thousand cooks, and lays five with two
// thousand readings each over one another.
func BenchmarkLogbook(b *testing.B) {
	app := apptest.Start(b, apptest.Logbook)
	some, _, err := app.Store.Logbook(b.Context(), store.Sought{Limit: 13})
	require.NoError(b, err)
	var ids []string
	require.NoError(b, app.Store.Together(b.Context(), func(db *store.Store) error {
		for n := range 10_000 {
			o := some[n%len(some)].Outcome
			o.Name, o.Day = fmt.Sprintf("%s %d", o.Name, n), apptest.Now.AddDate(0, 0, -n).Format(time.DateOnly)
			rec, err := db.Cooks().Create(b.Context(), cook.Cook{Name: o.Name, Zone: "UTC", Pieces: []cook.Piece{}})
			if err != nil {
				return err
			}
			if err := db.PutOutcome(b.Context(), rec.ID, store.Told{}, o); err != nil {
				return err
			}
			if len(ids) < 5 {
				ids = append(ids, rec.ID)
				on, _ := time.Parse(time.RFC3339, o.Pieces[0].On)
				var read []facts.Reading
				for m := range 2000 {
					read = append(read, facts.Reading{Probe: "core:p1", At: on.Add(time.Duration(m) * 20 * time.Second), C: 60})
				}
				if err := db.HandIn(b.Context(), rec.ID, facts.HandIn{ID: uuid.NewString()}, read); err != nil {
					return err
				}
			}
		}
		return nil
	}))
	for _, path := range []string{"?page=1", "?page=400", "?search=loin+77", "?cut=pork-loin&wrap=none&score=3",
		"/compare?cooks=" + strings.Join(ids, ",")} {
		b.Run(path[:min(12, len(path))], func(b *testing.B) {
			for b.Loop() {
				res, err := http.Get(app.URL + "/api/logbook" + path)
				require.NoError(b, err)
				_, err = io.Copy(io.Discard, res.Body)
				require.NoError(b, err)
				require.NoError(b, res.Body.Close())
				require.Equal(b, http.StatusOK, res.StatusCode)
			}
		})
	}
}

// A newcomer reads the words and the schools, and opens an example that has no mistake.
func TestTheFirstMinutes(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	var terms sheet.Terms
	call(t, app, "GET", "/api/terms", nil).into(t, &terms)
	assert.Greater(t, len(terms.Words), 15)
	for _, s := range terms.Schools {
		assert.GreaterOrEqual(t, len(s.Answers), 2, s.Question)
	}
	for _, units := range []string{"metric", "us"} {
		var rec api.CookRecord
		call(t, app, "POST", "/api/new/example?zone=Europe/Dublin&units="+units, nil).into(t, &rec)
		var out sheet.Sheet
		call(t, app, "POST", "/api/sheet", cooking.CookRequest{Cook: rec.Doc}).into(t, &out)
		assert.Empty(t, out.Errors)
		assert.NotNil(t, out.Plan)
	}
	call(t, app, "POST", "/api/new/example?zone=Nowhere", nil).problem(t, http.StatusUnprocessableEntity)
}
