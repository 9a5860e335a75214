package book_test

import (
	"archive/zip"
	"bytes"
	"fmt"
	"io"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/apptest"
	"verjuice/internal/book"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/logbook"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
)

// filesOf are the files of a book, without its list.
func filesOf(t *testing.T, file []byte) map[string]string {
	z, err := zip.NewReader(bytes.NewReader(file), int64(len(file)))
	require.NoError(t, err)
	out := map[string]string{}
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		raw, err := io.ReadAll(r)
		require.NoError(t, err)
		out[f.Name] = string(raw)
	}
	delete(out, "files.json")
	out["book.json"] = `{"format":"verjuice book","version":1}`
	return out
}

// oneOfEach fills a database with one line of each kind, and returns the id of its cook.
func oneOfEach(t *testing.T, db *store.Store) string {
	anyBook(t, db, rand.New(rand.NewPCG(3, 3)))
	rub := formula.ReadyMade()[0]
	rub.ID = ""
	rec, err := db.Formulas().Create(t.Context(), rub, field.Because("changed.new"))
	require.NoError(t, err)
	rub.Note = "Changed."
	_, err = db.Formulas().
		Update(t.Context(), rec.ID, rec.Version, rub, func(formula.Formula) []formula.Change { return nil })
	require.NoError(t, err)
	require.NoError(t, db.Thin(t.Context(), testclock.Now().AddDate(100, 0, 0)))
	c, err := db.Cooks().Create(t.Context(), anycook.Supper(anycook.Coated("pork-loin", "2 kg")))
	require.NoError(t, err)
	now := testclock.Now()
	require.NoError(t, db.SetClock(t.Context(), c.ID, store.Clock{Began: now, At: now.Add(time.Hour), Speed: 60, Seed: 7}))
	require.NoError(
		t,
		db.HandIn(
			t.Context(),
			c.ID,
			facts.HandIn{ID: uuid.NewString(), Device: "probe"},
			[]facts.Reading{{Probe: "pit:0", At: now, C: 110}},
		),
	)
	require.NoError(
		t,
		db.PutOutcome(
			t.Context(),
			c.ID,
			store.Told{Facts: 1},
			logbook.Outcome{Name: "x", Day: "2026-11-01", Pieces: []logbook.Piece{{Key: "a", Hours: 7.5, CookedKG: 1.5}}},
		),
	)
	_, err = db.Learn(t.Context(), nil)
	require.NoError(t, err)
	return c.ID
}

// Nothing can be brought in with a book that a page would refuse, or that no cook-out can have: it is
// refused whole, with its file and its line, and nothing of it is here.
func TestLinesThatNoPageWouldTake(t *testing.T) {
	testclock.Undated(t)
	here, there := apptest.Store(t, apptest.Nothing), apptest.Store(t, apptest.Nothing)
	cookID := oneOfEach(t, here)
	good := filesOf(t, written(t, here))
	long := strings.Repeat("x", 5000)
	swap := func(file, old, new string) func(map[string]string) string {
		return func(files map[string]string) string {
			at := strings.Index(files[file], old)
			require.GreaterOrEqual(t, at, 0, "%s in %s", old, file)
			line := 1 + strings.Count(files[file][:at], "\n")
			files[file] = files[file][:at] + new + files[file][at+len(old):]
			return fmt.Sprintf("%s, line %d", file, line)
		}
	}
	last := func(file string, cell int, value string) func(map[string]string) string {
		return func(files map[string]string) string {
			rows := strings.Split(strings.TrimRight(files[file], "\n"), "\n")
			cells := strings.Split(rows[len(rows)-1], ",")
			cells[cell] = value
			rows[len(rows)-1] = strings.Join(cells, ",")
			files[file] = strings.Join(rows, "\n") + "\n"
			return fmt.Sprintf("%s, line %d", file, len(rows))
		}
	}
	stranger := uuid.NewString()
	for name, spoil := range map[string]func(map[string]string) string{
		"a name of 5,000":         swap("records.jsonl", `"name":"Supper"`, `"name":"`+long+`"`),
		"a name of nothing":       swap("records.jsonl", `"name":"Supper"`, `"name":"\u0000\u0007"`),
		"no name":                 swap("records.jsonl", `"name":"Supper"`, `"name":" "`),
		"guests":                  swap("records.jsonl", `"guests":8`, `"guests":"1e300"`),
		"another zone":            swap("records.jsonl", `"zone":"`+testclock.Zone+`"`, `"zone":"Mars"`),
		"a cut of nothing":        swap("records.jsonl", `"cut":"pork-loin"`, `"cut":"unicorn"`),
		"a weight of words":       swap("records.jsonl", `"trimmed":"2 kg"`, `"trimmed":"a lot"`),
		"the year 0":              swap("records.jsonl", `"created":"2026`, `"created":"0000`),
		"version 0":               swap("records.jsonl", `"version":1`, `"version":0`),
		"an id in braces":         swap("records.jsonl", `{"id":"`+cookID+`"`, `{"id":"{`+cookID[:len(cookID)-2]+`}"`),
		"a formula of nothing":    swap("records.jsonl", `"basis":"volume"`, `"basis":"luck"`),
		"a version that is none":  swap("versions.jsonl", `"basis":"volume"`, `"basis":"luck"`),
		"a version of a cook":     swap("versions.jsonl", `"record":"`, `"record":"`+cookID+`","x":"`),
		"a version in the year 0": swap("versions.jsonl", `"saved":"2`, `"saved":"0`),
		"a fact of nobody":        swap("facts.jsonl", `"cook":"`, `"cook":"`+stranger+`","x":"`),
		"a fact of a formula":     swap("facts.jsonl", `"kind":"noted"`, `"kind":"noticed"`),
		"a note of 5,000":         swap("facts.jsonl", `"what":"`, `"what":"`+long),
		"a million readings":      swap("hand-ins.jsonl", `"count":300`, `"count":2000000000`),
		"a hand-in of no cook":    swap("hand-ins.jsonl", `"cook":"`, `"cook":"`+stranger+`","x":"`),
		"a long device":           swap("hand-ins.jsonl", `"device":"a`, `"device":"`+long),
		"a digest":                swap("hand-ins.jsonl", `"digest":"`, `"digest":"?`),
		"a reading of another":    last("readings.csv", 0, stranger),
		"a reading of no hand-in": last("readings.csv", 1, stranger),
		"a reading of NaN":        last("readings.csv", 4, "NaN"),
		"a minute of no cook":     last("minutes.csv", 0, stranger),
		"a minute out of order":   last("minutes.csv", 4, "2026-01-01T00:00:00Z"),
		"a minute without a low":  last("minutes.csv", 7, "590"),
		"a minute of milliards":   last("minutes.csv", 9, "2000000000"),
		"a clock of 1685":         swap("clocks.jsonl", `"cook_ms":`, `"cook_ms":-9000000000000,"x":`),
		"a clock that flies":      swap("clocks.jsonl", `"speed":60`, `"speed":1e12`),
		"a clock of nothing":      swap("clocks.jsonl", `"cook":"`, `"cook":"`+stranger+`","x":"`),
		"a cook that weighs":      swap("outcomes.jsonl", `"cooked_kg":1.5`, `"cooked_kg":1e300`),
		"a cook of years":         swap("outcomes.jsonl", `"hours":7.5`, `"hours":1e9`),
		"a day of none":           swap("outcomes.jsonl", `"day":"2026-11-01"`, `"day":"2026-13-01"`),
		"a picture of −1":         swap("photos.jsonl", `"width":20`, `"width":-1`),
		"a note on a picture":     swap("photos.jsonl", `"note":"`, `"note":"`+long),
		"a picture of no cook":    swap("photos.jsonl", `"cook":"`, `"cook":"`+stranger+`","x":"`),
		"a picture that is a page": func(files map[string]string) string {
			files["photos/000001.jpg"] = "<html>"
			return "photos.jsonl, line 1"
		},
	} {
		files := maps.Clone(good)
		at := spoil(files)
		file := with(files)
		_, err := takeIn(t.Context(), there, bytes.NewReader(file), int64(len(file)), nil)
		if assert.Error(t, err, name) {
			assert.Contains(t, err.Error(), at, name)
		}
		assert.Empty(t, records(t, there), name)
	}
	whole := with(maps.Clone(good))
	assert.Positive(t, taken(t, there, whole).Added, "and nothing was wrong with the rest")
}

// records are what is on record of each kind, by what it is called.
func records(t *testing.T, db *store.Store) (out []string) {
	require.NoError(t, db.Carry(t.Context(), func(line any) error {
		out = append(out, fmt.Sprintf("%T", line))
		return nil
	}))
	return out
}

// How far a book has come is told as it is read: further and further, to its end.
func TestHowFarABookHasCome(t *testing.T) {
	testclock.Undated(t)
	here, there := apptest.Store(t, apptest.Logbook), apptest.Store(t, apptest.Nothing)
	file := written(t, here)
	var shares []float64
	told := func(p book.Point) { shares = append(shares, p.Share) }
	_, err := takeIn(t.Context(), there, bytes.NewReader(file), int64(len(file)), told)
	require.NoError(t, err)
	assert.Greater(t, len(shares), 5)
	assert.True(t, slices.IsSorted(shares), shares)
	assert.Less(t, shares[0], 0.9)
	assert.InDelta(t, 1, shares[len(shares)-1], 0.01)
}

// A clock that comes with a book makes no cook that is here one that was only practised.
func TestAClockForARealCook(t *testing.T) {
	testclock.Undated(t)
	here := apptest.Store(t, apptest.Nothing)
	id := oneOfEach(t, here)
	there := apptest.Store(t, apptest.Nothing)
	files := filesOf(t, written(t, here))
	clocks := files["clocks.jsonl"]
	files["clocks.jsonl"] = ""
	taken(t, there, with(maps.Clone(files)))
	files["clocks.jsonl"] = clocks
	taken(t, there, with(files))
	clock, err := there.Clock(t.Context(), id)
	require.NoError(t, err)
	assert.True(t, clock.Wall())
	practised := apptest.Store(t, apptest.Nothing)
	taken(t, practised, written(t, here))
	clock, err = practised.Clock(t.Context(), id)
	require.NoError(t, err)
	assert.False(t, clock.Wall(), "one that is new is what it was")
}

// Formulas that are changed in several programs, and carried between them again and again: each keeps
// its own on record, every version that came is in its history, and all of them can still be saved.
func TestVersionsMerge(t *testing.T) {
	testclock.Undated(t)
	r := rand.New(rand.NewPCG(5, 6))
	dbs := []*store.Store{
		apptest.Store(t, apptest.Nothing),
		apptest.Store(t, apptest.Nothing),
		apptest.Store(t, apptest.Nothing),
	}
	rub := formula.ReadyMade()[0]
	rub.ID = ""
	var ids []string
	for n := range 3 {
		rec, err := dbs[n%2].Formulas().Create(t.Context(), rub, field.Because("changed.new"))
		require.NoError(t, err)
		ids = append(ids, rec.ID)
	}
	notes := 0
	seen := make([]map[string]bool, len(dbs)) // notes that each has had on record
	for i := range seen {
		seen[i] = map[string]bool{}
	}
	for range 60 {
		n, id := r.IntN(len(dbs)), ids[r.IntN(len(ids))]
		if r.IntN(3) == 0 {
			from := r.IntN(len(dbs))
			file := written(t, dbs[from])
			taken(t, dbs[n], file)
			for note := range seen[from] {
				seen[n][note] = true
			}
			assert.Zero(t, taken(t, dbs[n], file).Added, "twice is once")
		} else if rec, err := dbs[n].Formulas().Get(t.Context(), id); err == nil {
			notes++
			doc := rec.Doc
			doc.Note = fmt.Sprint("Note ", notes)
			saved, err := dbs[n].Formulas().Update(t.Context(), id, rec.Version, doc,
				func(formula.Formula) []formula.Change { return nil })
			require.NoError(t, err)
			assert.Equal(t, doc.Note, saved.Doc.Note)
			seen[n][id+doc.Note] = true
		}
		for i, db := range dbs {
			got := map[string]bool{}
			for _, id := range ids {
				rec, err := db.Formulas().Get(t.Context(), id)
				if err != nil {
					continue // it has not been carried there yet
				}
				all, err := db.Formulas().Versions(t.Context(), id)
				require.NoError(t, err)
				require.Equal(t, rec.Version, all[0].Version, "what is on record is the last")
				assert.Equal(t, rec.Doc.Note, all[0].Formula.Note)
				for k, v := range all {
					assert.EqualValues(t, len(all)-k, v.Version)
					if strings.HasPrefix(v.Formula.Note, "Note ") {
						got[id+v.Formula.Note] = true
					}
				}
			}
			assert.Equal(t, seen[i], got, "no version is lost")
		}
	}
}

// The same book that is taken in twice at once is there once.
func TestTwiceAtOnce(t *testing.T) {
	testclock.Undated(t)
	here, there := apptest.Store(t, apptest.Nothing), apptest.Store(t, apptest.Nothing)
	oneOfEach(t, here)
	file := written(t, here)
	var added atomic.Int64
	var both sync.WaitGroup
	for range 3 {
		both.Go(func() {
			got, err := takeIn(t.Context(), there, bytes.NewReader(file), int64(len(file)), nil)
			assert.NoError(t, err)
			added.Add(got.Added)
		})
	}
	both.Wait()
	assert.EqualValues(t, len(records(t, here)), added.Load(), "each line once")
	assert.ElementsMatch(t, records(t, here), records(t, there))
}
