package api_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/testclock"
)

// A file of another thermometer is taken as it is understood, whatever is in its cells: a cell that is
// no temperature is left out, one that cannot be told is a mistake where it was chosen, and the same
// file is there once.
func TestForeignTables(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	rec, err := app.Store.Cooks().Create(t.Context(), anycook.Supper(anycook.Coated("pork-loin", "2 kg")))
	require.NoError(t, err)
	key := rec.Doc.Pieces[0].Key
	how := func(probes ...string) map[string]any {
		all := []map[string]any{}
		for i, p := range probes {
			all = append(all, map[string]any{"column": i + 1, "probe": p})
		}
		return map[string]any{"time": 0, "probes": all, "fahrenheit": false, "month_first": false, "zone": "UTC"}
	}
	at := "/api/cooks/" + rec.ID + "/table"
	text := "\ufefftime,meat,pit,more\n2026-07-13 12:00:00,NaN,107,-inf\n2026-07-13 12:01:00,20,1e308,0x10\n"
	r := call(t, app, "POST", at+"/read", map[string]any{"text": text, "as": how("core:"+key, "pit:0", "pit:1")})
	require.Equal(t, http.StatusOK, r.StatusCode, string(r.body))
	var seen struct {
		Columns []struct{ Name string }
		Preview struct{ Count, Skipped int }
	}
	r.into(t, &seen)
	assert.Equal(t, "time", seen.Columns[0].Name, "a byte order mark is no letter")
	assert.Equal(t, 6, seen.Preview.Count+seen.Preview.Skipped)
	for range 2 {
		r = call(t, app, "POST", at, map[string]any{"text": text, "as": how("core:"+key, "pit:0", "pit:1")})
		require.Equal(t, http.StatusCreated, r.StatusCode, string(r.body))
	}
	read, err := app.Store.Readings(t.Context(), rec.ID, 0, 0)
	require.NoError(t, err)
	assert.Len(t, read, seen.Preview.Count)
	for _, bad := range []map[string]any{
		{"text": text, "as": how("pit:0", "pit:0")}, {"text": text, "as": how("oven")},
		{"text": text, "as": map[string]any{"time": 99, "probes": []any{}}},
		{"text": text, "as": map[string]any{"time": 0, "probes": []any{map[string]any{"column": -1, "probe": "pit:0"}}}},
		{"text": text}, {"text": 7}, {"text": "\""},
	} {
		call(t, app, "POST", at, bad).problem(t, http.StatusUnprocessableEntity)
	}
	is, err := app.Store.Readings(t.Context(), rec.ID, 0, 0)
	require.NoError(t, err)
	assert.Equal(t, read, is, "nothing of those")
	assert.Equal(t, http.StatusOK, call(t, app, "GET", "/api/cooks/"+rec.ID+"/live", nil).StatusCode)
}

// sixHours is a file of six probes, each ten seconds for so many rows.
func sixProbes(rows int) string {
	var out strings.Builder
	out.WriteString("time,a,b,c,d,e,f\n")
	at := time.Date(2026, 7, 13, 6, 0, 0, 0, time.UTC)
	for n := range rows {
		fmt.Fprintf(
			&out,
			"%s,%d.1,%d.2,%d.3,%d.4,%d.5,%d.6\n",
			at.Add(time.Duration(n)*time.Second).Format("2006-01-02 15:04:05"),
			n%90,
			n%91,
			n%92,
			n%93,
			n%94,
			n%95,
		)
	}
	return out.String()
}

// Ten hours of six probes, each second: looked at, and taken.
func BenchmarkForeignTable(b *testing.B) {
	app := apptest.Start(b, apptest.Nothing)
	as := map[string]any{"time": 0, "zone": "UTC", "fahrenheit": false, "month_first": false, "probes": []any{}}
	var probes []any
	for n := range 6 {
		probes = append(probes, map[string]any{"column": n + 1, "probe": facts.Probe{Pit: n}.String()})
	}
	as["probes"] = probes
	body, err := json.Marshal(map[string]any{"text": sixProbes(36_000), "as": as})
	require.NoError(b, err)
	for _, way := range []string{"/read", ""} {
		b.Run("at"+way, func(b *testing.B) {
			for b.Loop() {
				rec, err := app.Store.Cooks().Create(b.Context(), anycook.Supper(anycook.Coated("pork-loin", "2 kg")))
				require.NoError(b, err)
				res, err := http.Post(
					app.URL+"/api/cooks/"+rec.ID+"/table"+way,
					"application/json",
					strings.NewReader(string(body)),
				)
				require.NoError(b, err)
				require.Less(b, res.StatusCode, 300)
				_ = res.Body.Close()
			}
		})
	}
}

// A file whose clock was wrong or that holds what cannot be says so before it is taken, with what it may be instead; it
// can be taken back, and taken once more.
func TestAFileThatLooksWrong(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	rec, err := app.Store.Cooks().Create(t.Context(), anycook.Supper(anycook.Coated("pork-loin", "2 kg")))
	require.NoError(t, err)
	key := rec.Doc.Pieces[0].Key
	now := testclock.Now()
	made := call(t, app, "POST", "/api/cooks/"+rec.ID+"/facts",
		facts.Fact{ID: uuid.NewString(), Kind: facts.Done, Piece: key, What: "fire",
			At: now.Add(-5 * time.Hour).Format(time.RFC3339)})
	require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
	text := "time,meat\n"
	for m := range 30 {
		c := 41 + m
		if m == 20 {
			c = 537
		}
		text += fmt.Sprintf("2045-01-01 08:%02d:00,%d\n", m, c)
	}
	as := api.TableAs{Time: 0, Probes: []api.TableProbe{{Column: 1, Probe: "core:" + key}}, Zone: "UTC"}
	at := "/api/cooks/" + rec.ID + "/table"
	look := func(as api.TableAs) (out api.TableSeen) {
		r := call(t, app, "POST", at+"/read", api.TableSent{Text: text, As: &as})
		require.Equal(t, http.StatusOK, r.StatusCode, string(r.body))
		r.into(t, &out)
		return out
	}
	seen := look(as)
	require.Len(t, seen.Preview.Notes, 2)
	assert.Contains(t, seen.Preview.Notes[0].Text, "ahead of today")
	assert.Contains(t, seen.Preview.Notes[1].Text, "1 of 30 readings cannot be, the first 537")
	require.NotNil(t, seen.Preview.Notes[0].As)
	as = *seen.Preview.Notes[0].As
	seen = look(as)
	assert.Len(t, seen.Preview.Notes, 1, "the day is right now")
	count := func() int {
		return strings.Count(string(call(t, app, "GET", "/api/cooks/"+rec.ID+"/log.csv", nil).body), ",read,")
	}
	take := func() {
		r := call(t, app, "POST", at, api.TableSent{Text: text, As: &as})
		require.Equal(t, http.StatusCreated, r.StatusCode, string(r.body))
	}
	take()
	was := count()
	span := seen.Preview.Spans[0]
	back := call(t, app, "POST", "/api/cooks/"+rec.ID+"/facts", facts.Fact{ID: uuid.NewString(), Kind: facts.Uncounted,
		What: span.Probe, At: now.Format(time.RFC3339), Device: "file", Values: field.Values{"from": span.From,
			"to": span.To}})
	require.Equal(t, http.StatusCreated, back.StatusCode, string(back.body))
	assert.Less(t, count(), was)
	take()
	assert.Equal(t, was, count())
	for _, text := range []string{"\x00\x01\xfe\xff", "a,b\n1,2\n", ""} {
		r := call(t, app, "POST", at+"/read", api.TableSent{Text: text})
		assert.Less(t, r.StatusCode, 500, "%q", text)
	}
}
