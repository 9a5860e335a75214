package api_test

import (
	"bytes"
	"encoding/json"
	"io"
	"mime/multipart"
	"net/http"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/api"
	"verjuice/internal/apptest"
	"verjuice/internal/book"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
	"verjuice/internal/testclock"
)

// sends sends a file as a book, in the field of a form.
func sends(t *testing.T, app apptest.App, field string, file []byte) (int, []byte) {
	t.Helper()
	var form bytes.Buffer
	w := multipart.NewWriter(&form)
	part, err := w.CreateFormFile(field, "book.zip")
	require.NoError(t, err)
	_, _ = part.Write(file)
	require.NoError(t, w.Close())
	res, err := http.Post(app.URL+"/api/book", w.FormDataContentType(), &form)
	require.NoError(t, err)
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	return res.StatusCode, raw
}

// A book that is sent is taken in, or refused in words; nothing of the file is left, and how far it has
// come can be asked.
func TestABookIsSent(t *testing.T) {
	testclock.Undated(t)
	left := t.TempDir()
	t.Setenv("TMPDIR", left)
	from, to := apptest.Start(t, apptest.Demo), apptest.Start(t, apptest.Nothing)
	var file bytes.Buffer
	require.NoError(t, book.Write(t.Context(), from.Store, &file, nil))
	for _, bad := range []struct {
		field string
		file  []byte
	}{{"book", []byte("PK")}, {"book", nil}, {"other", file.Bytes()}, {"book", file.Bytes()[:file.Len()/2]}} {
		status, raw := sends(t, to, bad.field, bad.file)
		assert.Equal(t, http.StatusUnprocessableEntity, status, string(raw))
		var p api.Problem
		require.NoError(t, json.Unmarshal(raw, &p), string(raw))
	}
	res, err := http.Post(
		to.URL+"/api/book",
		"multipart/form-data; boundary=x",
		strings.NewReader("--x\r\nContent-Disposition: form-data; name=\"book\"\r\n\r\nPK"),
	)
	require.NoError(t, err)
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	_ = res.Body.Close()
	for _, want := range []string{`"here":0`, `"added":0`} {
		status, raw := sends(t, to, "book", file.Bytes())
		require.Equal(t, http.StatusOK, status, string(raw))
		assert.Contains(t, string(raw), want)
	}
	var now api.Taking
	call(t, to, "GET", "/api/book/taking", nil).into(t, &now)
	assert.Equal(t, api.Taking{}, now)
	files, err := os.ReadDir(left)
	require.NoError(t, err)
	assert.Empty(t, files, "nothing of it is left")
}

// A program that runs while a book is put in the place of what is on record shows what is on record.
func TestARestoreIsSeen(t *testing.T) {
	testclock.Undated(t)
	app := apptest.Start(t, apptest.Nothing)
	rec, err := app.Store.Cooks().Create(t.Context(), anycook.Supper(anycook.Coated("pork-loin", "2 kg")))
	require.NoError(t, err)
	key := rec.Doc.Pieces[0].Key
	now := testclock.Now()
	reads := func(ago time.Duration, c float64) {
		read := []facts.Reading{{Probe: "core:" + key, At: now.Add(-ago), C: quantity.Celsius(c)}}
		require.NoError(t, app.Store.HandIn(t.Context(), rec.ID, facts.HandIn{ID: uuid.NewString()}, read))
	}
	require.NoError(
		t,
		app.Store.AddFact(
			t.Context(),
			rec.ID,
			facts.Fact{
				ID:    uuid.NewString(),
				Kind:  facts.Done,
				Piece: key,
				What:  "fire",
				At:    now.Add(-2 * time.Hour).Format(time.RFC3339),
			},
		),
	)
	reads(2*time.Minute, 55)
	shown := func() string {
		r := call(t, app, "GET", "/api/cooks/"+rec.ID+"/live", nil)
		require.Equal(t, http.StatusOK, r.StatusCode)
		return string(r.body)
	}
	require.Contains(t, shown(), `"core":{"text":"55`)
	var file bytes.Buffer
	require.NoError(t, book.Write(t.Context(), app.Store, &file, nil))
	reads(0, 77)
	require.Eventually(
		t,
		func() bool { return strings.Contains(shown(), `"core":{"text":"77`) },
		20*time.Second,
		100*time.Millisecond,
	)
	b, err := book.Open(t.Context(), bytes.NewReader(file.Bytes()), int64(file.Len()))
	require.NoError(t, err)
	_, err = b.Replace(t.Context(), app.Store, nil)
	require.NoError(t, err)
	is := shown()
	assert.Contains(t, is, `"core":{"text":"55`)
	assert.NotContains(t, is, `"core":{"text":"77`)
}
