package api_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"reflect"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/demo"
	"verjuice/internal/localdb"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
)

func TestMain(m *testing.M) { apptest.Main(m) }

func juice() formula.Formula {
	return formula.Formula{
		Name:  "juice",
		Basis: formula.ByWeight,
		Rows:  []formula.Row{{Ingredient: "apple-juice", Form: "liquid", Parts: "1"}},
	}
}

func supper() cook.Cook {
	return cook.Cook{
		Name: "Boathouse supper 🚣", ServeAt: testclock.Saturday(), Zone: testclock.Zone, Guests: "12", Portion: "180 g",
		Fridge: "3 °C", Room: "24 °C",
		Children: "3", Appetite: "hearty", Leftovers: "4", Quiet: "22:30-06:30", Hands: "2", Plan: "ahead",
		Weather: "cold, rain from 14:00",
		Pits:    []cook.Pit{{Name: "Old drum", Kind: "drum", Room: "90"}, {Name: "Pellet", Kind: "pellet", Room: ""}},
		Wishes:  []cook.Wish{{Piece: "k1", Stage: "salt", At: testclock.At(3, "20:00")}}, Spoons: quantity.MetricSpoons,
		Pieces: []cook.Piece{
			{
				Key: "k1", ServeAt: testclock.Saturday(), Choices: map[string]string{"wrap": "foil", "rest": "holder"}, Grain: "40", TrimNote: "hard fat out",
				Label: "The big ones", Cut: "pork-shoulder-bone-in", Count: "2", Together: true,
				Each: []cook.One{{Bought: "4 kg", Trimmed: "3.7 kg", Thickness: "110 mm"},
					{Bought: "3.6 kg", Trimmed: "3.5 kg"}}, Bought: "16 lb 8 oz", Trimmed: "7,2 kg", TrimStyle: "close",
				Thickness: "4 1/4 in", Faces: "one",
				Season: cook.Season{
					Formula: formula.ReadyMade()[3],
					Mode:    "target",
					Amount:  "2 Tbsp/lb",
					Target:  "2.2 %",
					Free:    "layer-0",
					Coat:    "heavy",
					Binder:  true,
					Band:    "bold",
					Spare:   "15 %",
				},
				When: map[string]string{"wrap": "71 °C or 8 h"},
				Moves: []cook.Move{
					{
						Key: "m", What: "again", When: "30 min after it is off", Amount: "60 mL", Formula: new(juice()), For: "20 min",
						Pit: "150 °C", With: "whole",
					},
				},
				Wait: cook.Wait{Style: "day", For: "26 h", Open: true},
				Fire: cook.Fire{Pit: "250F", Time: "9 h", Rest: "1h30", Temper: "30 min", On: 1, Done: "96 °C",
					Guess: "1 h/lb", Wood: "2 oak, 1 cherry"},
				Bath: &cook.Bath{
					Kind:     "strong",
					Strength: "4 %",
					Salt:     "40 g/L",
					Liquid:   "6 L",
					Pot:      "18 L",
					For:      "8 h",
					Target:   "0.4 %",
					Hot:      "90 °C",
					With:     []cook.Dose{{Formula: juice(), Amount: "20 %"}},
				},
				Inject: &cook.Injection{
					Formula: juice(),
					Pump:    "5 %",
					Amount:  "300 mL each",
					Spacing: "3 cm",
					Syringe: "50 mL",
					Bore:    "3 mm",
					Avoid:   []string{"bone"},
				},
				Layers: []cook.Layer{
					{
						Kind:   "glaze",
						Amount: "2 Tbsp",
						Formula: formula.Formula{
							Name:  "sticky",
							Basis: formula.ByVolume,
							Rows:  []formula.Row{{Ingredient: "soy-sauce", Form: "liquid", Parts: "1"}},
						},
					},
				},
			},
			{
				Key:      "k2",
				Cut:      "chicken-leg",
				Count:    "12",
				Bought:   "3.7 kg",
				Together: true,
				Season:   cook.Season{Formula: formula.ReadyMade()[0]},
			},
		},
	}
}

// Nothing of the first piece is left empty, so that what is not kept is missed.
func TestEveryFieldIsTried(t *testing.T) {
	var look func(v reflect.Value, path string)
	look = func(v reflect.Value, path string) {
		switch v.Kind() {
		case reflect.Pointer:
			assert.False(t, v.IsNil(), path)
			look(v.Elem(), path)
		case reflect.Struct:
			if v.Type() == reflect.TypeFor[formula.Formula]() {
				return
			}
			for i := range v.NumField() {
				look(v.Field(i), path+"."+v.Type().Field(i).Name)
			}
		default:
			// What was weighed has a test of its own: it has to fit the rub.
			assert.False(t, v.IsZero() && path != "piece.Weighed", path)
		}
	}
	look(reflect.ValueOf(supper().Pieces[0]), "piece")
}

func TestCookIsKeptAsTyped(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	made := call(t, app, "POST", "/api/cooks", supper())
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	var rec api.CookRecord
	made.into(t, &rec)
	path := "/api/cooks/" + rec.ID

	got := call(t, app, "GET", path, nil)
	assert.Equal(t, made.Header.Get("ETag"), got.Header.Get("ETag"))
	var again api.CookRecord
	got.into(t, &again)
	assert.Equal(t, supper(), again.Doc, "every field comes back as it was typed")

	// Change it, and read it back changed.
	changed := supper()
	changed.Pieces = changed.Pieces[:1]
	changed.Pieces[0].Season.Formula.Rows = changed.Pieces[0].Season.Formula.Rows[:2]
	put := call(t, app, "PUT", path, changed, "If-Match", got.Header.Get("ETag"))
	require.Equal(t, http.StatusOK, put.StatusCode, string(put.body))
	call(t, app, "GET", path, nil).into(t, &again)
	assert.Equal(t, changed, again.Doc)
	assert.Equal(t, uint(2), again.Version)

	// A copy is a cook of its own, without the date.
	var copied api.CookRecord
	call(t, app, "POST", path+"/duplicate", nil).into(t, &copied)
	assert.NotEqual(t, rec.ID, copied.ID)
	assert.Empty(t, copied.Doc.ServeAt)
	want := slices.Clone(changed.Pieces)
	want[0].ServeAt = ""
	assert.Equal(t, want, copied.Doc.Pieces)

	// Deleted, it is gone; restored, it is whole.
	gone := call(t, app, "DELETE", path, nil, "If-Match", put.Header.Get("ETag"))
	require.Equal(t, http.StatusNoContent, gone.StatusCode, string(gone.body))
	call(t, app, "GET", path, nil).problem(t, http.StatusNotFound)
	call(t, app, "POST", path+"/restore", nil).into(t, &again)
	assert.Equal(t, changed, again.Doc)
}

func TestASecondScreenIsToldNotOverwritten(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	first := call(t, app, "POST", "/api/cooks", supper())
	path, tag := "/api/cooks/{}", first.Header.Get("ETag")
	require.Equal(t, 200, call(t, app, "PUT", path, supper(), "If-Match", tag).StatusCode)

	call(t, app, "PUT", path, supper(), "If-Match", tag).problem(t, http.StatusPreconditionFailed)
	call(t, app, "PUT", path, supper()).problem(t, http.StatusPreconditionRequired)
	call(t, app, "DELETE", path, nil, "If-Match", tag).problem(t, http.StatusPreconditionFailed)
	call(t, app, "DELETE", path, nil, "If-Match", "nonsense").problem(t, http.StatusPreconditionFailed)
}

func TestBadInputIsPointedAtAndNothingIsSaved(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	good, err := json.Marshal(supper())
	require.NoError(t, err)
	swap := func(from, to string) string {
		require.Contains(t, string(good), from)
		return strings.Replace(string(good), from, to, 1)
	}
	for name, c := range map[string]struct {
		body   string
		status int
		at     string
	}{
		"900 kg":          {swap(`"7,2 kg"`, `"900 kg"`), 422, "/pieces/0/trimmed"},
		"cups of meat":    {swap(`"7,2 kg"`, `"2 cups"`), 422, "/pieces/0/trimmed"},
		"beyond floats":   {swap(`"guests":12`, `"guests":1e309`), 400, "/guests"},
		"text for guests": {swap(`"guests":12`, `"guests":"many"`), 422, "/guests"},
		"half a guest":    {swap(`"guests":12`, `"guests":2.5`), 422, "/guests"},
		"in 1850":         {swap(testclock.Saturday(), "1850-06-01T18:30"), 422, "/serve_at"},
		"unknown field":   {swap(`"guests"`, `"gusts"`), 422, "/gusts"},
		"cut short":       {string(good[:len(good)/2]), 400, ""},
		"not JSON":        {`🍖`, 400, ""},
		"a list":          {`[]`, 422, ""},
		"10 MB":           {swap(`"7,2 kg"`, `"`+strings.Repeat("9", 10<<20)+`"`), 413, ""},
	} {
		t.Run(name, func(t *testing.T) {
			p := call(t, app, "POST", "/api/cooks", c.body).problem(t, c.status)
			if c.at != "" {
				require.NotEmpty(t, p.Errors)
				assert.Equal(t, c.at, p.Errors[0].Pointer)
				assert.NotEmpty(t, p.Errors[0].Message)
			}
		})
	}
	// A change that fails leaves what was there.
	made := call(t, app, "POST", "/api/cooks", supper())
	call(t, app, "PUT", "/api/cooks/{}", swap(`"7,2 kg"`, `"-1 kg"`), "If-Match", made.Header.Get("ETag")).problem(t, 422)
	var page api.ListPage[api.CookSummary]
	call(t, app, "GET", "/api/cooks", nil).into(t, &page)
	assert.Equal(t, int64(1), page.Total, "none of the bad ones was saved")
	var rec api.CookRecord
	call(t, app, "GET", "/api/cooks/{}", nil).into(t, &rec)
	assert.Equal(t, supper(), rec.Doc)
}

func TestListIsPagedAndSearched(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	for i := range 25 {
		c := supper()
		c.Name = fmt.Sprintf("Cook %02d 100%%", i)
		c.ServeAt = testclock.At(8+i, "18:30")
		c.Pieces[0].ServeAt = ""
		_, err := app.Store.Cooks().Create(t.Context(), c)
		require.NoError(t, err)
	}
	var page api.ListPage[api.CookSummary]
	call(t, app, "GET", "/api/cooks?page=2&per=10", nil).into(t, &page)
	assert.Equal(t, int64(25), page.Total)
	require.Len(t, page.Items, 10)
	assert.Equal(t, "Cook 10 100%", page.Items[0].Name, "the next one is on the first page")
	assert.Equal(t, []string{"2 × The big ones", "12 × Chicken leg, thigh on"}, page.Items[0].Pieces)
	call(t, app, "GET", "/api/cooks?search=07+100%25", nil).into(t, &page)
	assert.Equal(t, int64(1), page.Total, "a percent sign is a letter like any other")
	call(t, app, "GET", "/api/cooks?search=%25x", nil).into(t, &page)
	assert.Zero(t, page.Total)
	assert.Equal(t, "/query/per", call(t, app, "GET", "/api/cooks?per=9999", nil).problem(t, 422).Errors[0].Pointer)
}

func TestOtherSitesAreKeptOut(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	call(t, app, "GET", "/api/health", nil, "Host", "kitchen.example:8470").problem(t, http.StatusMisdirectedRequest)
	call(t, app, "POST", "/api/cooks", supper(), "Origin", "https://elsewhere.example").problem(t, http.StatusForbidden)
	call(t, app, "POST", "/api/cooks", supper(), "Sec-Fetch-Site", "cross-site").problem(t, http.StatusForbidden)
	assert.Equal(t, http.StatusCreated, call(t, app, "POST", "/api/cooks", supper(), "Origin", app.URL).StatusCode)

	one, two := call(t, app, "GET", "/cooks/1", nil), call(t, app, "GET", "/cooks/1", nil)
	policy := one.Header.Get("Content-Security-Policy")
	assert.Contains(t, policy, "script-src 'self';")
	assert.NotContains(t, policy, "unsafe")
	assert.NotEqual(t, policy, two.Header.Get("Content-Security-Policy"), "each page has a nonce of its own")
	assert.NotContains(t, string(one.body), "{nonce}")
	call(t, app, "GET", "/api/nothing", nil).problem(t, http.StatusNotFound)
	assert.Equal(t, http.StatusNotFound, call(t, app, "GET", "/assets/nothing.js", nil).StatusCode)
}

// A database that has gone is said to be away, at every address that needs it; what
// needs none still answers.
func TestADatabaseThatIsAway(t *testing.T) {
	testclock.Undated(t)
	server, err := localdb.Start(t.Context(), t.TempDir())
	require.NoError(t, err)
	t.Cleanup(server.Stop)
	require.NoError(t, server.Create(t.Context(), "verjuice_away", true))
	db, err := store.Open(t.Context(), server.DSN("verjuice_away"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	ts := httptest.NewUnstartedServer(nil)
	ts.Config.Handler = api.New(
		api.Config{Store: db, Hosts: []string{ts.Listener.Addr().String()}, Now: func() time.Time { return apptest.Now }},
	)
	ts.Start()
	t.Cleanup(ts.Close)
	app := apptest.App{URL: ts.URL}
	made := call(t, app, "POST", "/api/cooks", supper())
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	server.Stop()
	fact := facts.Fact{
		ID:   "00000000-0000-4000-8000-000000000001",
		Kind: facts.Ticked,
		What: "salt",
		At:   "2026-11-28T07:00",
	}
	for _, one := range []struct {
		method, path string
		body         any
	}{
		{"GET", "/api/cooks", nil}, {"GET", "/api/cooks/1", nil}, {"POST", "/api/cooks", supper()},
		{"GET", "/api/cooks/1/facts", nil}, {"POST", "/api/cooks/1/facts", fact},
		{"GET", "/api/formulas", nil}, {"GET", "/api/jars", nil}, {"GET", "/api/cooks/1/photos", nil},
		{"POST", "/api/sheet", supper()},
	} {
		p := call(t, app, one.method, one.path, one.body).problem(t, http.StatusServiceUnavailable)
		assert.Contains(t, p.Detail, "database does not answer", one.path)
	}
	assert.Equal(t, http.StatusOK, call(t, app, "GET", "/api/clock", nil).StatusCode)
}

func TestDemoLoadsOnceAndIsSound(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	// Killed in the middle it leaves nothing behind.
	stopped, stop := context.WithCancel(t.Context())
	time.AfterFunc(20*time.Millisecond, stop)
	_ = demo.Load(stopped, app.Store, apptest.Now)
	var all sync.WaitGroup
	for range 4 { // programs that start at once
		all.Go(func() { assert.NoError(t, demo.Load(t.Context(), app.Store, apptest.Now)) })
	}
	all.Wait()
	records, total, err := app.Store.Cooks().List(t.Context(), store.Query{Limit: 10})
	require.NoError(t, err)
	assert.Equal(t, int64(3), total)
	_, formulas, err := app.Store.Formulas().List(t.Context(), store.Query{Limit: 1})
	require.NoError(t, err)
	assert.Equal(t, int64(4), formulas)
	jars, _, err := app.Store.Jars().List(t.Context(), store.Query{Gone: true})
	require.NoError(t, err)
	assert.Len(t, jars, 3)
	for _, r := range records {
		var s sheet.Sheet
		call(t, app, "POST", "/api/sheet", r.Doc).into(t, &s)
		assert.Empty(t, s.Errors, r.Doc.Name)
	}
}

func TestReopenedDatabaseKeepsItsCooks(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	made, err := app.Store.Cooks().Create(t.Context(), supper())
	require.NoError(t, err)
	second, err := store.Open(t.Context(), app.DSN) // migrates again, as a second start does
	require.NoError(t, err)
	defer second.Close()
	got, err := second.Cooks().Get(t.Context(), made.ID)
	require.NoError(t, err)
	assert.Equal(t, supper(), got.Doc)
}

func BenchmarkPreview(b *testing.B) {
	// The demo's supper of five pieces through the handler and the database,
	// without the network.
	app := apptest.Start(b, apptest.Demo)
	list, _, err := app.Store.Cooks().List(b.Context(), store.Query{Limit: 1})
	require.NoError(b, err)
	raw, err := json.Marshal(list[0].Doc)
	require.NoError(b, err)
	h := api.New(api.Config{Store: app.Store, Now: func() time.Time { return apptest.Now }})
	for b.Loop() {
		req, _ := http.NewRequest("POST", "/api/sheet", bytes.NewReader(raw))
		req.Header.Set("Content-Type", "application/json")
		w := &discard{header: http.Header{}}
		h.ServeHTTP(w, req)
		if w.status != http.StatusOK {
			b.Fatal(w.status)
		}
	}
}

type discard struct {
	header http.Header
	status int
}

func (d *discard) Header() http.Header         { return d.header }
func (d *discard) Write(p []byte) (int, error) { return len(p), nil }
func (d *discard) WriteHeader(status int)      { d.status = status }

// A request that makes something and is sent twice under one key makes it once, also both at the same time; under
// another key it makes another.
func TestMadeOnce(t *testing.T) {
	app := apptest.Start(t, apptest.Demo)
	past := map[string]string{
		"cut": "pork-loin", "weight": "2 kg", "kind": "kettle", "pit": "130 C", "wrap": "none", "zone": "UTC",
		"on": apptest.Now.AddDate(0, 0, -3).Format("2006-01-02") + "T10:00", "told": "off at two hours, 62 C",
	}
	formulas := []formula.Formula{formula.ReadyMade()[0], formula.ReadyMade()[1]}
	for i := range formulas {
		formulas[i].ID, formulas[i].Name = "", formulas[i].Name+" once more"
	}
	// A key that is the id of something else is refused, and is no fault of the program's.
	other := call(t, app, "POST", "/api/formulas", formula.ReadyMade()[0])
	id := other.Header.Get("Location")[len("/api/formulas/"):]
	call(t, app, "POST", "/api/cooks", supper(), "Idempotency-Key", id).problem(t, http.StatusConflict)
	for path, body := range map[string]any{
		"/api/cooks": supper(), "/api/past": past, "/api/formulas": formula.ReadyMade()[0],
		"/api/cooks/{supper}/duplicate": nil, "/api/new/example?zone=UTC": nil, "/api/exchange/keep": formulas,
	} {
		count := func() (n int) {
			for _, list := range []string{"/api/cooks", "/api/formulas"} {
				var page struct{ Total int }
				call(t, app, "GET", list, nil).into(t, &page)
				n += page.Total
			}
			return n
		}
		before, key := count(), uuid.NewString()
		replies := make([]reply, 3)
		var all sync.WaitGroup
		for i := range 2 {
			all.Go(func() { replies[i] = call(t, app, "POST", path, body, "Idempotency-Key", key) })
		}
		all.Wait()
		replies[2] = call(t, app, "POST", path, body, "Idempotency-Key", key)
		for _, r := range replies {
			require.Less(t, r.StatusCode, 300, "%s: %s", path, r.body)
			assert.Equal(t, replies[0].Header.Get("Location"), r.Header.Get("Location"), path)
		}
		once := count() - before
		call(t, app, "POST", path, body, "Idempotency-Key", uuid.NewString())
		assert.Equal(t, before+2*once, count(), path)
		assert.Contains(t, []int{1, 2}, once, path)
	}
}
