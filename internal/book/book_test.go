package book_test

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"image"
	"image/jpeg"
	"io"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/apptest"
	"verjuice/internal/book"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
	"verjuice/internal/testdb"
)

func TestMain(m *testing.M) { testdb.Main(m) }

func written(t testing.TB, db *store.Store) []byte {
	t.Helper()
	var out bytes.Buffer
	require.NoError(t, book.Write(t.Context(), db, &out, nil))
	return out.Bytes()
}

func taken(t testing.TB, db *store.Store, file []byte) store.Taken {
	t.Helper()
	got, err := takeIn(t.Context(), db, bytes.NewReader(file), int64(len(file)), nil)
	require.NoError(t, err)
	return got
}

func config(t *testing.T, file []byte) image.Config {
	head, err := jpeg.DecodeConfig(bytes.NewReader(file))
	require.NoError(t, err)
	return head
}

// any fills a database with any cooks, what happened at them, readings old and new, and photographs.
func anyBook(t *testing.T, db *store.Store, r *rand.Rand) {
	now := testclock.Now()
	for range 5 {
		c := anycook.Supper(anycook.Piece(r), anycook.Piece(r))
		for db.Cooks().Sound(t.Context(), "", c) != nil {
			c = anycook.Supper(anycook.Piece(r), anycook.Piece(r))
		}
		rec, err := db.Cooks().Create(t.Context(), c)
		require.NoError(t, err)
		for n := range 20 {
			f := facts.Fact{
				ID:     uuid.NewString(),
				Kind:   facts.Noted,
				What:   strings.Repeat("é\"\\\n,", 1+n),
				At:     now.Format(time.RFC3339),
				Author: "Ines",
			}
			require.NoError(t, db.AddFact(t.Context(), rec.ID, f))
		}
		var read []facts.Reading
		for m := range 300 {
			read = append(
				read,
				facts.Reading{
					Probe: "core:p1",
					At:    now.Add(-time.Duration(60+m*7) * time.Second),
					C:     quantity.Celsius(100 * r.Float64()),
				},
			)
		}
		require.NoError(t, db.HandIn(t.Context(), rec.ID, facts.HandIn{ID: uuid.NewString(), Device: "a, \"b\""}, read))
		if r.IntN(2) == 0 {
			require.NoError(t, db.Cooks().Delete(t.Context(), rec.ID, rec.Version))
			continue
		}
		var picture bytes.Buffer
		require.NoError(t, jpeg.Encode(&picture, image.NewGray(image.Rect(0, 0, 20, 10+r.IntN(20))), nil))
		_, err = db.AddPhoto(
			t.Context(),
			store.Photo{Cook: rec.ID, Piece: "p1", Width: 20, Height: config(t, picture.Bytes()).Height, Data: picture.Bytes()},
		)
		require.NoError(t, err)
	}
}

// A book that was carried away and taken in elsewhere is the same book, byte for byte; taken in twice
// it is there once; taken in where there is another, both are there.
func TestABookComesBack(t *testing.T) {
	testclock.Undated(t)
	for name, fill := range map[string]func(db *store.Store){
		"demo": func(db *store.Store) { require.NoError(t, db.Thin(t.Context(), testclock.Now().AddDate(100, 0, 0))) },
		"any":  func(db *store.Store) { anyBook(t, db, rand.New(rand.NewPCG(3, 4))) }, "none": func(*store.Store) {},
	} {
		holds := map[string]apptest.Holding{"demo": apptest.Logbook, "any": apptest.Nothing, "none": apptest.Nothing}[name]
		here, there := apptest.Store(t, holds), apptest.Store(t, apptest.Nothing)
		fill(here)
		file := written(t, here)
		require.Equal(t, file, written(t, here), name)
		first := taken(t, there, file)
		if name != "none" {
			assert.Positive(t, first.Added, name)
		}
		assert.True(t, bytes.Equal(file, written(t, there)), name)
		again := taken(t, there, file)
		assert.Zero(t, again.Added, name)
		assert.True(t, bytes.Equal(file, written(t, there)), name)
	}
	both, other := apptest.Store(t, apptest.Nothing), apptest.Store(t, apptest.Nothing)
	anyBook(t, both, rand.New(rand.NewPCG(5, 6)))
	anyBook(t, other, rand.New(rand.NewPCG(7, 8)))
	_, had, err := both.Cooks().List(t.Context(), store.Query{Gone: true})
	require.NoError(t, err)
	taken(t, both, written(t, other))
	_, has, err := both.Cooks().List(t.Context(), store.Query{Gone: true})
	require.NoError(t, err)
	assert.Equal(t, had+5, has)
}

// with is a book with other files in it.
func with(files map[string]string) []byte {
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	if _, ok := files["book.json"]; !ok {
		files["book.json"] = `{"format":"verjuice book","version":1}`
	}
	for name, text := range files {
		w, _ := z.Create(name)
		_, _ = io.WriteString(w, text)
	}
	_ = z.Close()
	return out.Bytes()
}

// noise is text that does not pack well, in lines of some length; zero is one line.
func noise(n, line int) string {
	r := rand.New(rand.NewPCG(1, 2))
	out := make([]byte, n)
	for i := range out {
		if out[i] = byte('a' + r.IntN(26)); line > 0 && i%line == 0 {
			out[i] = '\n'
		}
	}
	return string(out)
}

// What is no book, or has one wrong line, is refused whole, with the file and the line.
func TestWhatIsNoBook(t *testing.T) {
	testclock.Once(t)
	db := apptest.Store(t, apptest.Nothing)
	id := uuid.NewString()
	const head = "cook,hand_in,probe,at,celsius\n"
	sound := fmt.Sprintf(
		`{"id":"%s","kind":"pit","version":1,"created":"2026-01-01T00:00:00Z","updated":"2026-01-01T00:00:00Z","doc":{"name":"Kettle","kind":"kettle","room":""}}`+"\n",
		id,
	)
	for want, file := range map[string][]byte{
		"not a Verjuice book": []byte("hello"), "not a Verjuice book ": with(map[string]string{"book.json": "{}"}), "version 9": with(map[string]string{"book.json": `{"format":"verjuice book","version":9}`}),
		"records.jsonl, line 2": with(map[string]string{"records.jsonl": sound + "{"}),
		"records.jsonl, line 1": with(map[string]string{"records.jsonl": strings.Replace(sound, "pit", "king", 1)}),
		"facts.jsonl, line 1":   with(map[string]string{"records.jsonl": sound, "facts.jsonl": `{"cook":"x","fact":{"id":"1"}}`}),
		"readings.csv, line 2": with(map[string]string{"records.jsonl": sound,
			"readings.csv": "cook,hand_in,probe,at,celsius\nx,y,nowhere,2026-01-01T00:00:00Z,20\n"}),
		"readings.csv, line 3": with(map[string]string{"readings.csv": "cook,hand_in,probe,at,celsius\nx,y,pit:0,2026-01-01T00:00:00Z,20\nx,y,pit:0\n"}),
		"minutes.csv, line 2":  with(map[string]string{"minutes.csv": "cook,probe,at,first_at,last_at,first,last,low,high,count\nx,pit:0,2026-01-01T00:00:00Z,2026-01-01T00:00:00Z,2026-01-01T00:00:00Z,1,1,1,NaN,2\n"}),
		"readings.csv, line 1": with(map[string]string{"readings.csv": "cook,hand_in,at,probe,celsius\n"}),
		"longer than 4096": with(map[string]string{"readings.csv": head +
			"\"" + noise(10_000, 0) + "\",y,pit:0,2026-01-01T00:00:00Z,20\n"}),
		"line 2: this file":    with(map[string]string{"readings.csv": head + "\"" + noise(2_000_000, 60)}),
		"more than any record": with(map[string]string{"records.jsonl": `{"doc":{"pieces":[` + strings.Repeat("{},", 200_000) + "{}]}}"}),
		"no file of a book":    with(map[string]string{"Records.jsonl": sound}),
		"photos.jsonl, line 1": with(map[string]string{"photos.jsonl": `{"cook":"x"}`}),
		"token too long":       with(map[string]string{"records.jsonl": noise(9<<20, 0)}),
		"far more than any":    with(map[string]string{"records.jsonl": strings.Repeat("x", 9<<20)}),
	} {
		_, err := takeIn(t.Context(), db, bytes.NewReader(file), int64(len(file)), nil)
		require.Error(t, err, want)
		assert.Contains(t, err.Error(), strings.TrimSpace(want))
		list, _, err := db.Pits().List(t.Context(), store.Query{})
		require.NoError(t, err)
		assert.Empty(t, list, "nothing of it was taken in: %s", want)
	}
}

// A file that was damaged in any way is refused before anything is done with it, or what it holds is
// as it was written.
func TestADamagedBook(t *testing.T) {
	testclock.Undated(t)
	db := apptest.Store(t, apptest.Nothing)
	anyBook(t, db, rand.New(rand.NewPCG(9, 10)))
	file := written(t, db)
	contents := func(file []byte) map[string]string {
		z, err := zip.NewReader(bytes.NewReader(file), int64(len(file)))
		require.NoError(t, err)
		out := map[string]string{}
		for _, f := range z.File {
			in, err := f.Open()
			require.NoError(t, err)
			raw, err := io.ReadAll(in)
			require.NoError(t, err)
			out[f.Name] = string(raw)
		}
		return out
	}
	opens := func(file []byte) error {
		_, err := book.Open(t.Context(), bytes.NewReader(file), int64(len(file)))
		return err
	}
	was := contents(file)
	require.NoError(t, opens(file))
	r := rand.New(rand.NewPCG(11, 12))
	refused := 0
	for range 400 {
		bad := slices.Clone(file)
		bad[r.IntN(len(bad))] ^= 1 << r.IntN(8)
		if opens(bad) != nil {
			refused++
			continue
		}
		require.Equal(t, was, contents(bad))
	}
	assert.Greater(t, refused, 300)
	for _, n := range []int{0, 1, len(file) / 2, len(file) - 1} {
		assert.Error(t, opens(file[:n]))
	}
	packed := func(change func(name string, w *zip.Writer) (string, uint16)) []byte {
		var out bytes.Buffer
		z := zip.NewWriter(&out)
		for _, name := range slices.Sorted(maps.Keys(was)) {
			as, method := change(name, z)
			if as == "" {
				continue
			}
			w, err := z.CreateHeader(&zip.FileHeader{Name: as, Method: method})
			require.NoError(t, err)
			_, err = io.WriteString(w, was[name])
			require.NoError(t, err)
		}
		require.NoError(t, z.Close())
		return out.Bytes()
	}
	same := func(name string, _ *zip.Writer) (string, uint16) { return name, zip.Store }
	require.NoError(t, opens(packed(same)), "packed anew with all that was in it")
	for name := range was {
		assert.Error(t, opens(packed(func(n string, w *zip.Writer) (string, uint16) {
			if n == name {
				return "", 0
			}
			return same(n, w)
		})), "without %s", name)
		assert.Error(t, opens(packed(func(n string, w *zip.Writer) (string, uint16) {
			if n == name {
				return strings.ToUpper(n), zip.Store
			}
			return same(n, w)
		})), "with %s in another spelling", name)
	}
	assert.Error(t, opens(packed(func(n string, w *zip.Writer) (string, uint16) {
		if n == "facts.jsonl" {
			again, _ := w.Create(n)
			_, _ = io.WriteString(again, was[n])
		}
		return same(n, w)
	})), "an entry twice")
	other := packed(same)
	at := bytes.Index(other, []byte("PK\x01\x02"))
	other[at+10] = 12 // the method of the first file in the directory: one that is not read here
	assert.ErrorContains(t, opens(other), "packed in a way")
}

// A book of the first version, which has no list and leaves out what is empty, is still taken in.
func TestABookOfTheFirstVersion(t *testing.T) {
	db := apptest.Store(t, apptest.Nothing)
	id := uuid.NewString()
	sound := fmt.Sprintf(
		`{"id":"%s","kind":"pit","version":1,"created":"2026-01-01T00:00:00Z","updated":"2026-01-01T00:00:00Z","doc":{"name":"Kettle","kind":"kettle","room":""}}`+"\n",
		id,
	)
	assert.EqualValues(t, 1, taken(t, db, with(map[string]string{"records.jsonl": sound})).Added)
}

// FuzzRead finds no file that crashes the reader, or of which a part is taken in.
func FuzzRead(f *testing.F) {
	f.Add([]byte("PK"))
	f.Add(with(map[string]string{"records.jsonl": "{}"}))
	f.Add(with(map[string]string{"readings.csv": "a,b\n\"", "photos.jsonl": "{}", "photos/000001.jpg": "x"}))
	db := apptest.Store(f, apptest.Nothing)
	f.Fuzz(func(t *testing.T, file []byte) {
		ctx, cancel := context.WithTimeout(t.Context(), 20*time.Second)
		defer cancel()
		_, _ = takeIn(ctx, db, bytes.NewReader(file), int64(len(file)), nil)
	})
}

// takeIn takes a book in, all or none of it.
func takeIn(
	ctx context.Context,
	db *store.Store,
	from io.ReaderAt,
	size int64,
	progress book.Progress,
) (store.Taken, error) {
	b, err := book.Open(ctx, from, size)
	if err != nil {
		return store.Taken{}, err
	}
	return b.TakeIn(ctx, db, progress)
}
