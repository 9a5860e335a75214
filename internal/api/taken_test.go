package api_test

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"io"
	"net/http"
	"net/url"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/book"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/starter"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
)

// Whatever is brought from outside, a hand-in as a table, a file of another thermometer or the telling of
// a cook, is refused in words, or taken: then it can be read, listed, copied, carried away and taken in
// again, as it is.
func FuzzWhatIsTaken(f *testing.F) {
	testclock.Undated(f)
	f.Add(uint8(0), "pit:0,2026-11-23T07:20,230 °F\ncore:a,2026-11-23T07:20:15Z,67.8 C\n")
	f.Add(uint8(0), "\ufefftemperature,probe,at\n\"66 °C\",core:a:flat,2026-11-23T07:21\n")
	f.Add(uint8(0), "pit:99,2099-12-31T23:59:59.999Z,-40 C\n")
	f.Add(uint8(1), "time,meat,pit\n2026-07-13 12:00:00,20,107\n2026-07-13 12:01:00,NaN,1e308\n")
	f.Add(uint8(1), "a;b;c\n13.07.2026 12:00;20,0;107\n")
	f.Add(uint8(2), "wrapped after four hours, 165, foil; off at nine hours, 203; sliced at 10 h")
	f.Add(uint8(2), "=HYPERLINK(1); off at 9 h, 203 F")
	f.Fuzz(func(t *testing.T, kind uint8, text string) {
		app := apptest.Start(t, apptest.Nothing)
		p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
		p.Key = "a"
		made := call(t, app, "POST", "/api/cooks", anycook.Supper(p))
		require.Equal(t, http.StatusCreated, made.StatusCode, string(made.body))
		var rec api.CookRecord
		made.into(t, &rec)
		at := "/api/cooks/" + rec.ID
		var r reply
		switch kind % 3 {
		case 0:
			res, err := http.Post(
				app.URL+at+"/readings.csv?hand_in="+uuid.NewString()+"&device="+url.QueryEscape("=probe"),
				"text/csv",
				bytes.NewReader([]byte(text)),
			)
			require.NoError(t, err)
			_ = res.Body.Close()
			r = reply{Response: res}
		case 1:
			probes := []any{
				map[string]any{"column": 1, "probe": "core:a"},
				map[string]any{"column": 2, "probe": facts.Probe{}.String()},
			}
			r = call(
				t,
				app,
				"POST",
				at+"/table",
				map[string]any{
					"text": text,
					"as":   map[string]any{"time": 0, "zone": "UTC", "fahrenheit": false, "month_first": false, "probes": probes},
				},
			)
		case 2:
			told := starter.Past{
				AtOnce: starter.AtOnce{
					Cut:    "pork-shoulder-bone-in",
					Weight: "3.6 kg",
					Kind:   "pellet",
					On:     "2026-11-14T06:00",
					Zone:   testclock.Zone,
				},
				Told: text,
			}
			if r = call(t, app, "POST", "/api/past", told); r.StatusCode == http.StatusCreated {
				r.into(t, &rec)
				at = "/api/cooks/" + rec.ID
			}
		}
		require.Less(t, r.StatusCode, 500, string(r.body))
		if r.StatusCode != http.StatusCreated {
			return
		}
		for _, path := range []string{at, at + "/opened", at + "/live", at + "/review", at + "/log.csv", at + "/readings",
			"/api/cooks", "/api/logbook", "/api/logbook/trends", "/api/lessons"} {
			is := call(t, app, "GET", path, nil)
			require.Equal(t, http.StatusOK, is.StatusCode, "%s: %s", path, is.body)
		}
		again := call(t, app, "POST", at+"/duplicate", nil)
		require.Equal(t, http.StatusCreated, again.StatusCode, string(again.body))
		var out, back bytes.Buffer
		require.NoError(t, book.Write(t.Context(), app.Store, &out, nil))
		there := apptest.Store(t, apptest.Nothing)
		carried, err := book.Open(t.Context(), bytes.NewReader(out.Bytes()), int64(out.Len()))
		require.NoError(t, err)
		taken, err := carried.TakeIn(t.Context(), there, nil)
		require.NoError(t, err)
		assert.Positive(t, taken.Added)
		require.NoError(t, book.Write(t.Context(), there, &back, nil))
		assert.True(t, bytes.Equal(out.Bytes(), back.Bytes()), "it is the same book")
	})
}

// Whatever a line of a book is changed into, the book is refused, or taken: then every record of it can be
// opened and saved, and the whole is carried away again.
func FuzzABook(f *testing.F) {
	testclock.Undated(f)
	f.Add(uint16(3), uint8(0), []byte(`"name":"x"`))
	f.Add(uint16(40), uint8(1), []byte("null"))
	f.Add(uint16(200), uint8(9), []byte("1e300"))
	f.Add(uint16(99), uint8(4), []byte(`"typed":"=1"`))
	f.Fuzz(func(t *testing.T, where uint16, file uint8, with []byte) {
		app := apptest.Start(t, apptest.Demo)
		names, files := pages(t, app)
		name := names[int(file)%len(names)]
		text := []byte(files[name])
		if len(text) == 0 {
			return
		}
		at := int(where) % len(text)
		files[name] = string(text[:at]) + string(with) + string(text[min(len(text), at+len(with)):])
		whole := asBook(t, files)
		there := apptest.Start(t, apptest.Nothing)
		if _, err := carriedIn(t.Context(), there.Store, bytes.NewReader(whole), int64(len(whole))); err != nil {
			return
		}
		var list struct{ Items []struct{ ID string } }
		call(t, there, "GET", "/api/cooks", nil).into(t, &list)
		for _, one := range list.Items {
			at := "/api/cooks/" + one.ID
			for _, path := range []string{at + "/opened", at + "/live", at + "/review"} {
				is := call(t, there, "GET", path, nil)
				require.Equal(t, http.StatusOK, is.StatusCode, "%s: %s", path, is.body)
			}
			is := call(t, there, "POST", at+"/duplicate", nil)
			require.Less(t, is.StatusCode, 500, string(is.body))
		}
		for _, path := range []string{"/api/formulas", "/api/jars", "/api/larder", "/api/pits", "/api/meals",
			"/api/logbook", "/api/lessons"} {
			is := call(t, there, "GET", path, nil)
			require.Equal(t, http.StatusOK, is.StatusCode, "%s: %s", path, is.body)
			require.True(t, json.Valid(is.body))
		}
		var out bytes.Buffer
		require.NoError(t, book.Write(t.Context(), there.Store, &out, nil))
		empty := apptest.Store(t, apptest.Nothing)
		taken, err := carriedIn(t.Context(), empty, bytes.NewReader(out.Bytes()), int64(out.Len()))
		require.NoError(t, err)
		assert.Positive(t, taken.Added)
	})
}

// pages are the files of an application's book by name, those of lines and tables.
func pages(t *testing.T, app apptest.App) (names []string, files map[string]string) {
	var out bytes.Buffer
	require.NoError(t, book.Write(t.Context(), app.Store, &out, nil))
	z, err := zip.NewReader(bytes.NewReader(out.Bytes()), int64(out.Len()))
	require.NoError(t, err)
	files = map[string]string{}
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		raw, err := io.ReadAll(r)
		require.NoError(t, err)
		if f.Name != "files.json" && f.Name != "book.json" {
			names = append(names, f.Name)
		}
		files[f.Name] = string(raw)
	}
	delete(files, "files.json")
	files["book.json"] = `{"format":"verjuice book","version":1}`
	return names, files
}

func asBook(t *testing.T, files map[string]string) []byte {
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for name, text := range files {
		w, err := z.Create(name)
		require.NoError(t, err)
		_, err = io.WriteString(w, text)
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return out.Bytes()
}

// carriedIn takes a book in, all or none of it.
func carriedIn(ctx context.Context, db *store.Store, file io.ReaderAt, size int64) (store.Taken, error) {
	b, err := book.Open(ctx, file, size)
	if err != nil {
		return store.Taken{}, err
	}
	return b.TakeIn(ctx, db, nil)
}
