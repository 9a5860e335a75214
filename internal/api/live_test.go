package api_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
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
	"verjuice/internal/sheet"
)

// atThePit is a shoulder that went on when the application started.
func atThePit(t *testing.T) (app apptest.App, path string) {
	app = apptest.Start(t, apptest.Nothing)
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Key, p.Choices = "a", map[string]string{"wrap": "foil"}
	var rec api.CookRecord
	call(t, app, "POST", "/api/cooks", anycook.Supper(p)).into(t, &rec)
	path = "/api/cooks/" + rec.ID
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "fire"})
	return app, path
}

// said adds a fact that happens now.
func said(t *testing.T, app apptest.App, path string, f facts.Fact) facts.Fact {
	t.Helper()
	f.ID, f.At = uuid.NewString(), apptest.Now.Add(time.Duration(app.Clock.Load())).UTC().Format(time.RFC3339)
	require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/facts", f).StatusCode)
	return f
}

// risen is what a core and its pit read every five minutes of some hours, from an hour on.
func risen(fromH, hours, perHour float64) facts.HandIn {
	h := facts.HandIn{ID: uuid.NewString(), Device: "kitchen probe"}
	for m := 60 * fromH; m < 60*(fromH+hours); m += 5 {
		at := apptest.Now.Add(time.Duration(m) * time.Minute).UTC().Format(time.RFC3339)
		h.Readings = append(
			h.Readings,
			facts.ReadingSent{Probe: "core:a", At: at, Typed: fmt.Sprintf("%.1f °C", 8+perHour*m/60)},
			facts.ReadingSent{Probe: "pit:0", At: at, Typed: "225 F"},
		)
	}
	return h
}

func stands(t *testing.T, app apptest.App, path string) sheet.LivePiece {
	t.Helper()
	var out sheet.LiveSheet
	got := call(t, app, "GET", path+"/live", nil)
	require.Equal(t, http.StatusOK, got.StatusCode, string(got.body))
	got.into(t, &out)
	return out.Pieces[0]
}

// What is read, done and seen moves what is told: the core stands there, the fan narrows, the wrap
// is advised once its moment has come and the bark holds, and a press that was wrong is put right.
func TestStandingBesideIt(t *testing.T) {
	app, path := atThePit(t)
	width := func(p sheet.LivePiece) float64 {
		w := 0.0
		for _, c := range p.Curve {
			w = max(w, c.High-c.Low)
		}
		return w
	}
	first := stands(t, app, path)
	assert.Equal(t, "on", first.State)
	assert.Empty(t, first.Core.Text)
	require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/readings", risen(0, 4, 12)).StatusCode)
	app.Clock.Store(int64(4 * time.Hour))
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "look"})
	now := stands(t, app, path)
	assert.Equal(t, "55.0°", now.Core.Text)
	assert.Equal(t, "107°", now.Pit.Text)
	assert.Contains(t, now.Core.Note, "up 12.0° in the last hour")
	assert.Less(t, width(now), 0.85*width(first))
	assert.NotEmpty(t, now.Moved)
	assert.False(t, now.Advice.Now)
	assert.NotEmpty(t, now.Advice.Figure)

	call(t, app, "POST", path+"/readings", risen(4, 1.5, 12))
	app.Clock.Store(int64(5*time.Hour + 25*time.Minute))
	said(t, app, path, facts.Fact{Kind: facts.Seen, Piece: "a", What: "bark", Values: field.Values{"how": "scratches"}})
	now = stands(t, app, path)
	assert.Equal(t, "Not yet: wrap when the bark holds", now.Advice.Head)
	said(t, app, path, facts.Fact{Kind: facts.Seen, Piece: "a", What: "bark", Values: field.Values{"how": "holds"}})
	now = stands(t, app, path)
	assert.True(t, now.Advice.Now)
	assert.Equal(t, "wrap", now.Done[0].What, "what is to be done stands first")
	wrapped := said(
		t,
		app,
		path,
		facts.Fact{Kind: facts.Done, Piece: "a", What: "wrap", Values: field.Values{"kind": "foil"}},
	)
	now = stands(t, app, path)
	assert.Nil(t, now.Advice)
	assert.Contains(t, now.Done, sheet.Press{What: "unwrap", Label: "Unwrapped"})
	ready := now.Ready
	said(t, app, path, facts.Fact{Kind: facts.Withdrawn, What: wrapped.ID})
	assert.True(t, stands(t, app, path).Advice.Now, "it was not wrapped after all")
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "wrap", Values: field.Values{"kind": "foil"}})
	assert.Equal(t, ready, stands(t, app, path).Ready)
	var on []api.OnNow
	call(t, app, "GET", "/api/live", nil).into(t, &on)
	require.Len(t, on, 1)
	assert.Equal(t, path, "/api/cooks/"+on[0].ID)
	off := said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "off"})
	assert.Equal(t, "just off", stands(t, app, path).Since)
	f := facts.Fact{
		ID:   uuid.NewString(),
		Kind: facts.Corrected,
		What: off.ID,
		At:   apptest.Now.Add(5 * time.Hour).UTC().Format(time.RFC3339),
	}
	require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/facts", f).StatusCode)
	assert.Equal(t, "off for 25 min", stands(t, app, path).Since)
}

// A hand-in is there once, whole or not at all, whatever is sent again or beside it.
func TestHandIns(t *testing.T) {
	app, path := atThePit(t)
	one := risen(0, 2, 12)
	for range 3 {
		require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/readings", one).StatusCode)
	}
	count := func() int {
		read, err := app.Store.Readings(t.Context(), strings.TrimPrefix(path, "/api/cooks/"), 0, 0)
		require.NoError(t, err)
		return len(read)
	}
	assert.Equal(t, len(one.Readings), count())
	other := risen(0, 2, 13)
	other.ID = one.ID
	call(t, app, "POST", path+"/readings", other).problem(t, http.StatusConflict)
	var second api.CookRecord
	call(t, app, "POST", "/api/cooks", supper()).into(t, &second)
	call(t, app, "POST", "/api/cooks/"+second.ID+"/readings", one).problem(t, http.StatusConflict)
	call(t, app, "POST", "/api/cooks/9/readings", risen(0, 1, 12)).problem(t, http.StatusNotFound)
	for pointer, broken := range map[string]facts.ReadingSent{
		"/readings/1/probe": {Probe: "somewhere", At: "2026-11-28T07:20", Typed: "60 °C"},
		"/readings/1/at":    {Probe: "pit:0", At: "noon", Typed: "60 °C"},
		"/readings/1/typed": {Probe: "pit:0", At: "2026-11-28T07:20", Typed: "3000 °C"},
	} {
		bad := risen(0, 1, 12)
		bad.Readings[1] = broken
		p := call(t, app, "POST", path+"/readings", bad).problem(t, http.StatusUnprocessableEntity)
		require.Len(t, p.Errors, 1)
		assert.Equal(t, pointer, p.Errors[0].Pointer)
	}
	table := "at,probe,temperature\n2026-11-28T07:20:00Z,core:a,150 F\n2026-11-28T07:21,pit:0,\"107,5 °C\"\n"
	post := func(id, lines string) reply {
		return call(t, app, "POST", path+"/readings.csv?device=logger&hand_in="+id, lines, "Content-Type", "text/csv")
	}
	key := uuid.NewString()
	for range 2 {
		require.Equal(t, http.StatusCreated, post(key, table).StatusCode)
	}
	assert.Equal(t, len(one.Readings)+2, count())
	post(key, strings.ReplaceAll(table, "150", "151")).problem(t, http.StatusConflict)
	p := post(uuid.NewString(), "core:a,2026-11-28T07:20,warm").problem(t, http.StatusUnprocessableEntity)
	assert.Equal(t, "/readings/0/typed", p.Errors[0].Pointer)
	post(uuid.NewString(), "core:a,\"2026").problem(t, http.StatusUnprocessableEntity)
	lots := risen(0, 1, 12)
	for len(lots.Readings) <= facts.MostRead {
		lots.Readings = append(lots.Readings, lots.Readings...)
	}
	got := call(t, app, "POST", path+"/readings", lots)
	assert.Contains(t, []int{http.StatusUnprocessableEntity, http.StatusRequestEntityTooLarge}, got.StatusCode)
	assert.Equal(t, len(one.Readings)+2, count())
}

// What a device hands in counts with the key that it has for that cook, under its own name: not
// with one of another cook, one that was taken away, or one that was guessed.
func TestKeysOfDevices(t *testing.T) {
	app, path := atThePit(t)
	var other api.CookRecord
	call(t, app, "POST", "/api/cooks", supper()).into(t, &other)
	var here, there api.DeviceLine
	call(t, app, "POST", path+"/devices", api.DeviceNamed{Name: " kitchen probe "}).into(t, &here)
	call(t, app, "POST", "/api/cooks/"+other.ID+"/devices", api.DeviceNamed{Name: "another"}).into(t, &there)
	require.NotEmpty(t, here.Key)
	assert.NotEqual(t, here.Key, there.Key)
	with := func(key string) reply {
		return call(t, app, "POST", path+"/readings", risen(0, 1, 12), "Authorization", "Bearer "+key)
	}
	assert.Equal(t, http.StatusCreated, with(here.Key).StatusCode)
	assert.Contains(t, with(there.Key).problem(t, http.StatusForbidden).Detail, "another cook-out")
	for _, key := range []string{"", "guessed", here.Key + "x", strings.ToLower(here.Key)} {
		with(key).problem(t, http.StatusUnauthorized)
	}
	lines := call(
		t,
		app,
		"POST",
		path+"/readings.csv?hand_in="+uuid.NewString(),
		"pit:0,2026-11-28T07:20,107 °C",
		"Content-Type",
		"text/csv",
		"Authorization",
		"Bearer "+there.Key,
	)
	lines.problem(t, http.StatusForbidden)
	var listed []api.DeviceLine
	call(t, app, "GET", path+"/devices", nil).items(t, &listed)
	require.Len(t, listed, 1)
	assert.Equal(t, "kitchen probe", listed[0].Name)
	assert.Empty(t, listed[0].Key, "it is told once")
	p := call(t, app, "POST", path+"/devices", api.DeviceNamed{Name: "  "}).problem(t, http.StatusUnprocessableEntity)
	assert.Equal(t, "/name", p.Errors[0].Pointer)
	call(t, app, "DELETE", path+"/devices/"+there.ID, nil).problem(t, http.StatusNotFound)
	require.Equal(t, http.StatusNoContent, call(t, app, "DELETE", path+"/devices/"+here.ID, nil).StatusCode)
	with(here.Key).problem(t, http.StatusUnauthorized)
}

// What comes late or in another order gives the same as what came in its time: facts and readings
// are taken by when they happened. What a fast clock dates ahead waits until it has happened.
func TestLateAndOutOfOrder(t *testing.T) {
	parts := []facts.HandIn{risen(0, 1, 12), risen(1, 1, 12), risen(2, 1, 12)}
	tell := func(order []int, lateFact bool) sheet.LivePiece {
		app, path := atThePit(t)
		looked := facts.Fact{
			ID:    uuid.NewString(),
			Kind:  facts.Done,
			Piece: "a",
			What:  "spritz",
			At:    apptest.Now.Add(2 * time.Hour).UTC().Format(time.RFC3339),
		}
		if !lateFact {
			require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/facts", looked).StatusCode)
		}
		for _, i := range order {
			require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/readings", parts[i]).StatusCode)
		}
		if lateFact {
			require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/facts", looked).StatusCode)
		}
		app.Clock.Store(int64(3 * time.Hour))
		return stands(t, app, path)
	}
	want := tell([]int{0, 1, 2}, false)
	assert.Equal(t, want.Ready, tell([]int{2, 0, 1}, true).Ready)
	app, path := atThePit(t)
	ahead := facts.Fact{
		ID:    uuid.NewString(),
		Kind:  facts.Done,
		Piece: "a",
		What:  "off",
		At:    apptest.Now.Add(time.Hour).UTC().Format(time.RFC3339),
	}
	require.Equal(t, http.StatusCreated, call(t, app, "POST", path+"/facts", ahead).StatusCode)
	assert.Equal(t, "on", stands(t, app, path).State)
	app.Clock.Store(int64(61 * time.Minute))
	said(t, app, path, facts.Fact{Kind: facts.Done, What: "wood", Values: field.Values{"pit": 0.0}})
	assert.Equal(t, "resting", stands(t, app, path).State)
}

// A press at one program is seen at the other within a second, by a stream that is open there.
func TestTwoPhonesAgree(t *testing.T) {
	app, path := atThePit(t)
	there := httptest.NewServer(api.New(api.Config{Store: app.Store, Now: func() time.Time { return apptest.Now }}))
	t.Cleanup(there.Close)
	ctx, cancel := context.WithTimeout(t.Context(), 20*time.Second)
	defer cancel()
	req, err := http.NewRequestWithContext(ctx, "GET", there.URL+path+"/live/stream", nil)
	require.NoError(t, err)
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	lines := bufio.NewScanner(res.Body)
	lines.Buffer(nil, 1<<20)
	event := func() (out sheet.LiveSheet) {
		for lines.Scan() {
			if data, ok := strings.CutPrefix(lines.Text(), "data: "); ok {
				require.NoError(t, json.Unmarshal([]byte(data), &out))
				return out
			}
		}
		require.Fail(t, "the stream ended", lines.Err())
		return out
	}
	require.Equal(t, "on", event().Pieces[0].State)
	said(t, app, path, facts.Fact{Kind: facts.Done, Piece: "a", What: "spritz", Author: "Ines", Device: "phone"})
	for log := event().Log; log[0].Label != "Spritzed"; log = event().Log {
	}
}
