package api_test

import (
	"bufio"
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/instrument"
	"verjuice/internal/sheet"
	"verjuice/internal/testclock"
)

// The scale streams what it shows: it settles on what was laid on it, and tares.
func TestTheScaleStreams(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	req, err := http.NewRequestWithContext(t.Context(), http.MethodGet, app.URL+"/api/scale", nil)
	require.NoError(t, err)
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	assert.Equal(t, "text/event-stream", res.Header.Get("Content-Type"))
	lines := bufio.NewScanner(res.Body)
	until := func(holds func(instrument.Reading) bool) {
		t.Helper()
		for lines.Scan() {
			data, ok := strings.CutPrefix(lines.Text(), "data: ")
			if !ok {
				continue
			}
			var r instrument.Reading
			require.NoError(t, json.Unmarshal([]byte(data), &r))
			if holds(r) {
				return
			}
		}
		t.Fatal("the stream ended")
	}
	require.Equal(t, http.StatusNoContent, call(t, app, "POST", "/api/scale/put", `{"grams": 31.5}`).StatusCode)
	until(func(r instrument.Reading) bool { return r.Stable && r.Grams == 31.5 })
	call(t, app, "POST", "/api/scale/tare", nil)
	until(func(r instrument.Reading) bool { return r.Stable && r.Grams == 0 })
	call(t, app, "POST", "/api/scale/put", `{"grams": 9000}`)
	until(func(r instrument.Reading) bool { return r.Overload })
	call(t, app, "POST", "/api/scale/clear", nil)
	until(func(r instrument.Reading) bool { return !r.Overload && r.Stable })
	assert.Equal(t, "/grams", call(t, app, "POST", "/api/scale/put", `{"grams": 1e7}`).problem(t, 422).Errors[0].Pointer)

	var w formula.WeighOut
	call(
		t,
		app,
		"POST",
		"/api/calc/weighing",
		api.WeighingRequest{Targets: []float64{31, 10}, Weighed: []float64{40}},
	).into(t, &w)
	assert.Equal(t, 0, w.Over)
}

// Many screens save at once: one wins each version, and every other gets a conflict.
func TestOnlyOneOfManyWins(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	tag := call(t, app, "POST", "/api/cooks", supper()).Header.Get("ETag")
	var all sync.WaitGroup
	status := make([]int, 12)
	for i := range status {
		all.Go(func() {
			c := supper()
			c.Guests = quantity.CountOf(20 + i)
			status[i] = call(t, app, "PUT", "/api/cooks/{}", c, "If-Match", tag).StatusCode
		})
	}
	all.Wait()
	won := -1
	for i, s := range status {
		if s == http.StatusOK {
			assert.Equal(t, -1, won, "only one")
			won = i
		} else {
			assert.Equal(t, http.StatusPreconditionFailed, s)
		}
	}
	require.NotEqual(t, -1, won)
	var rec api.CookRecord
	call(t, app, "GET", "/api/cooks/{}", nil).into(t, &rec)
	assert.Equal(t, 20+won, rec.Doc.Guests.Int())
	assert.Len(t, rec.Doc.Pieces, 2, "and its pieces are whole")
}

// A stream goes on past the time that other answers have to be written in, and ends in order
// when the program stops; what is asked after that is not begun.
func TestStreamsOutliveTheWriteTimeout(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	stopping := make(chan struct{})
	server := httptest.NewUnstartedServer(
		api.New(api.Config{Store: app.Store, Now: func() time.Time { return apptest.Now }, Stopping: stopping}),
	)
	server.Config.WriteTimeout = 150 * time.Millisecond
	server.Start()
	defer server.Close()
	var streams []*bufio.Scanner
	for range 20 {
		res, err := http.Get(server.URL + "/api/scale")
		require.NoError(t, err)
		defer res.Body.Close()
		streams = append(streams, bufio.NewScanner(res.Body))
	}
	past := time.After(4 * server.Config.WriteTimeout)
	for on := true; on; {
		for _, s := range streams {
			require.True(t, s.Scan(), "it goes on")
		}
		select {
		case <-past:
			on = false
		default:
		}
	}
	close(stopping)
	testclock.Within(t, 3*time.Second, func() {
		for _, s := range streams {
			for s.Scan() { // what was still on its way
			}
			assert.NoError(t, s.Err(), "it ends in order")
		}
	})
	require.NoError(t, server.Config.Shutdown(t.Context()))
}

// What is put to the next ingredient is kept to a tenth of a gram, what is over can be taken out, and the
// stream says in the reader's unit how far that is.
func TestWeighingOneAfterAnother(t *testing.T) {
	app := apptest.Start(t, apptest.Nothing)
	weigh := func(r api.WeighingRequest) (out sheet.WeighOut) {
		r.Targets = []float64{31, 10}
		r.Weighed = append([]float64{}, r.Weighed...)
		call(t, app, "POST", "/api/calc/weighing", r).into(t, &out)
		return out
	}
	first := weigh(api.WeighingRequest{Put: 20.04})
	assert.Equal(t, []float64{20, 0}, first.Weighed)
	assert.Equal(t, 0, first.Next)
	over := weigh(api.WeighingRequest{Weighed: first.Weighed, Put: 14})
	assert.Equal(t, []int{0, 0}, []int{over.Over, over.Next})
	level := weigh(api.WeighingRequest{Weighed: over.Weighed, Level: true})
	assert.Equal(t, []float64{31, 0}, level.Weighed)
	assert.Equal(t, []int{-1, 1}, []int{level.Over, level.Next})
	done := weigh(api.WeighingRequest{Weighed: level.Weighed, Put: 10.1})
	assert.Equal(t, 2, done.Next)
	call(t, app, "POST", "/api/scale/clear", nil)
	res, err := http.Get(app.URL + "/api/scale?target=31&weighed=20&units=metric")
	require.NoError(t, err)
	defer res.Body.Close()
	lines := bufio.NewScanner(res.Body)
	for lines.Scan() {
		if data, ok := strings.CutPrefix(lines.Text(), "data: "); ok {
			var on sheet.OnScale
			require.NoError(t, json.Unmarshal([]byte(data), &on))
			assert.Equal(t, []string{"under", "20.0", "11.0 g to go"}, []string{on.State, on.Shows, on.Says})
			break
		}
	}
	for have, want := range map[float64]string{30.3: "under", 30.5: "near", 31: "near", 31.6: "near", 31.7: "over"} {
		assert.Equal(t, want, sheet.WriteOnScale(have, 0, 31, true, false, "metric").State, have)
	}
}
