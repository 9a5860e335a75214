package store

import (
	"compress/gzip"
	"database/sql"
	"encoding/json"
	"fmt"
	"io"
	"io/fs"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/database"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/order"
	"verjuice/internal/testclock"
	"verjuice/internal/testdb"
)

// upTo is a database whose schema has moved on to a version, where it is, and what moves it
// further.
func upTo(t *testing.T, version int64) (string, *sql.DB, *goose.Provider) {
	t.Helper()
	at := testdb.Empty(t)
	db, err := sql.Open("mysql", at)
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	files, err := fs.Sub(migrations, "migrations")
	require.NoError(t, err)
	p, err := goose.NewProvider(database.DialectMySQL, db, files)
	require.NoError(t, err)
	_, err = p.UpTo(t.Context(), version)
	require.NoError(t, err)
	return at, db, p
}

// A cook that was written before there were plans, larder or keys is whole after
// the schema has moved on, and can be written again.
func TestOldCooksSurvive(t *testing.T) {
	at, db, _ := upTo(t, 3)
	for _, statement := range []string{
		`INSERT INTO cooks (id, version, name, serve_at, zone, guests, created_at, updated_at) VALUES (1, 4, 'Old supper', '2026-01-03T18:00', 'UTC', 6, '2026-01-01 12:00:00', '2026-01-01 12:00:00')`,
		`INSERT INTO pieces (cook_id, position, cut, pieces, bought, formula, formula_name, formula_basis, target, wet)
			VALUES (1, 0, 'pork-loin', 1, '2 kg', 'equal-parts', 'Plain', 'weight', '1 %', '{"bath":{"kind":"strong","for":"8 h"},"weighed":["10","10"]}'), (1, 1, 'chicken-leg', 4, '1.2 kg', '', 'Plain', 'weight', '', '')`,
		`INSERT INTO rub_rows (piece_id, position, ingredient, form, parts) SELECT id, 0, 'sea-salt', 'fine', '1' FROM pieces`,
	} {
		_, err := db.ExecContext(t.Context(), statement)
		require.NoError(t, err)
	}
	s, err := Open(t.Context(), at)
	require.NoError(t, err)
	defer s.Close()
	rec, err := s.Cooks().Get(t.Context(), old("cook", 1))
	require.NoError(t, err)
	assert.Equal(t, "strong", rec.Doc.Pieces[0].Bath.Kind)
	assert.Equal(t, []string{"10", "10"}, rec.Doc.Pieces[0].Weighed)
	assert.Equal(t, []string{"p1", "p2"}, []string{rec.Doc.Pieces[0].Key, rec.Doc.Pieces[1].Key}, "each gets a key")
	rec.Doc.Quiet = "none"
	var wrong field.Errors
	_, err = s.Cooks().Update(t.Context(), rec.ID, rec.Version, rec.Doc)
	require.ErrorAs(t, err, &wrong, "what was no mistake then is told when it is saved")
	rec.Doc.Pieces[0].Weighed, rec.Doc.Pieces[1].Bought, rec.Doc.Pieces[1].Count = nil, "0.3 kg", "4"
	again, err := s.Cooks().Update(t.Context(), rec.ID, rec.Version, rec.Doc)
	require.NoError(t, err)
	assert.Equal(t, rec.Doc, again.Doc)
	_, err = Open(t.Context(), at)
	require.NoError(t, err, "opening twice is harmless")
}

// What old cooks were marked with is a fact after the schema has moved on: said once,
// however often it moves, and the cook is left as it was.
func TestOldMarksBecomeFacts(t *testing.T) {
	at, db, p := upTo(t, 6)
	exec := func(statement string) {
		_, err := db.ExecContext(t.Context(), statement)
		require.NoError(t, err)
	}
	exec(
		`INSERT INTO cooks (id, version, name, serve_at, zone, guests, plan, created_at, updated_at) VALUES (1, 4, 'Old supper', '2026-01-03T18:00', 'UTC', 6,
		'{"hands":2,"marks":[{"piece":"p1","stage":"salt","at":"2026-01-03T08:00","done":true},
		  {"piece":"p1","stage":"fire","at":"2026-01-03T11:00"},
		  {"piece":"p1","stage":"salt","at":"2026-01-03T08:30","done":true}],
		  "acks":[{"piece":"p1","rule":"cold-side","what":"The fridge is warm.","at":"2026-01-02T10:00:00Z"}]}', '2026-01-01 12:00:00', '2026-01-01 12:00:00')`,
	)
	exec(
		`INSERT INTO pieces (cook_id, position, cut, pieces, bought, formula, formula_name, formula_basis) VALUES (1, 0, 'pork-loin', 1, '2 kg', '', 'Plain', 'weight')`,
	)
	exec(
		`INSERT INTO cooks (id, version, name, serve_at, zone, guests, plan, created_at, updated_at) VALUES (2, 1, 'Plain', '', 'UTC', 6, '', '2026-01-01 12:00:00', '2026-01-01 12:00:00')`,
	)
	for range 2 {
		_, err := p.ApplyVersion(t.Context(), 7, true)
		require.NoError(t, err)
		exec(`DELETE FROM goose_db_version WHERE version_id = 7`)
	}
	s, err := Open(t.Context(), at)
	require.NoError(t, err)
	defer s.Close()
	all, err := s.Facts(t.Context(), old("cook", 1))
	require.NoError(t, err)
	require.Len(t, all, 3)
	for i := range all {
		assert.Empty(t, all[i].Check())
		all[i].ID = ""
	}
	assert.Equal(t, facts.Facts{
		{
			Kind:  facts.Done,
			Piece: "p1",
			What:  "salt",
			At:    "2026-01-03T08:00",
		}, {Kind: facts.Done, Piece: "p1", What: "salt", At: "2026-01-03T08:30"},
		{Kind: facts.Acknowledged, Piece: "p1", What: "cold-side", At: "2026-01-02T10:00:00Z", Said: "The fridge is warm."},
	}, all)
	rec, err := s.Cooks().Get(t.Context(), old("cook", 1))
	require.NoError(t, err)
	assert.Equal(
		t,
		[]cook.Wish{{Piece: "p1", Stage: "fire", At: "2026-01-03T11:00"}},
		rec.Doc.Wishes,
		"what was only fixed is a wish",
	)
	rec.Doc.Guests = "7"
	_, err = s.Cooks().Update(t.Context(), rec.ID, rec.Version, rec.Doc)
	require.NoError(t, err)
	all, err = s.Facts(t.Context(), old("cook", 1))
	require.NoError(t, err)
	assert.Len(t, all, 3, "saving the cook takes nothing away")
}

// A cook that was told when no words were kept is known by how its facts came: it can be told again, its
// readings too, and teaches nothing until then. One that was pressed stays as it is.
func TestCooksToldWithoutTheirWords(t *testing.T) {
	at, db, _ := upTo(t, 16)
	exec := func(statement string, args ...any) {
		_, err := db.ExecContext(t.Context(), statement, args...)
		require.NoError(t, err, statement)
	}
	const told, pressed = "10000000-0000-4000-8000-000000000001", "10000000-0000-4000-8000-000000000002"
	n := 0
	said := func(cook, piece, what, happened, created string) {
		n++
		exec(`INSERT INTO facts (id, cook, kind, piece, what, happened, body, created_at) VALUES (?, ?, 'done', ?, ?, ?, '{}', ?)`,
			fmt.Sprintf("20000000-0000-4000-8000-%012d", n), cook, piece, what, happened, created)
	}
	for _, c := range []string{told, pressed} {
		exec(`INSERT INTO records (id, kind, name, body, created_at, updated_at)
			VALUES (?, 'cook', 'Supper', '{"name":"Supper","zone":"UTC","pieces":[{"key":"now","cut":"pork-loin"}]}', '2026-01-05 10:00:00', '2026-01-05 10:00:00')`, c)
		exec(`INSERT INTO outcomes (cook, day, name, finished, model, told, body, updated_at)
			VALUES (?, '2026-01-03', 'Supper', 1, 2, '3 1 1', '{"model":2,"name":"Supper","day":"2026-01-03","finished":true,"pieces":[],"notes":[]}', '2026-01-05 10:00:00')`, c)
	}
	said(told, "now", "fire", "2026-01-03T08:00:00Z", "2026-01-05 10:00:00.100")
	said(told, "now", "wrap", "2026-01-03T12:00:00Z", "2026-01-05 10:00:00.120")
	said(told, "", "over", "2026-01-03T17:00:00Z", "2026-01-05 10:00:00.150")
	exec(`INSERT INTO hand_ins (id, cook, device, digest, count, created_at) VALUES ('30000000-0000-4000-8000-000000000001', ?, 'told', '', 2, '2026-01-05 10:00:00.2')`, told)
	noon := time.Date(2026, 1, 3, 12, 0, 0, 0, time.UTC).UnixMilli()
	exec(`INSERT INTO readings (cook, hand_in, probe, at_ms, celsius) VALUES (?, '30000000-0000-4000-8000-000000000001', 'core:now', ?, 7.2)`, told, noon)
	exec(`INSERT INTO minutes VALUES (?, 'core:now', ?, ?, ?, 93, 93, 93, 93, 1)`, told, noon+3600_000, noon+3600_000, noon+3600_000)
	said(pressed, "now", "fire", "2026-01-03T08:00:00Z", "2026-01-03 08:00:02")
	said(pressed, "", "over", "2026-01-03T17:00:00Z", "2026-01-03 17:00:02")

	s, err := Open(t.Context(), at)
	require.NoError(t, err)
	defer s.Close()
	all, err := s.Facts(t.Context(), told)
	require.NoError(t, err)
	assert.True(t, all.Misread())
	assert.Len(t, all.ToldAfterwards("now"), 5)
	f, ok := all.Done("now", "probe")
	require.True(t, ok)
	c, _ := f.CoreC()
	assert.Equal(t, 93.0, c)
	for _, f := range all {
		assert.Empty(t, f.Check())
	}
	course, _, err := s.Course(t.Context(), told)
	require.NoError(t, err)
	assert.Empty(t, course, "no reading of it stays behind")
	other, err := s.Facts(t.Context(), pressed)
	require.NoError(t, err)
	assert.False(t, other.Misread())
	assert.Empty(t, other.ToldAfterwards("now"))
	log, _, err := s.Logbook(t.Context(), Sought{Limit: 10})
	require.NoError(t, err)
	for _, one := range log {
		assert.Equal(t, one.Cook == told, one.Outcome.Misread)
	}
}

// A folder that was written by the program as it was with tables of columns is the same
// after it has become records: each cook, formula, version, jar and price as it was
// answered then, with numbers become ids wherever they stand.
func TestFoldersBecomeRecords(t *testing.T) {
	testclock.Once(t)
	at := testdb.Empty(t)
	db, err := sql.Open("mysql", at+"?multiStatements=true")
	require.NoError(t, err)
	defer db.Close()
	db.SetMaxOpenConns(1)
	file, err := os.Open("testdata/baseline.sql.gz")
	require.NoError(t, err)
	defer file.Close()
	packed, err := gzip.NewReader(file)
	require.NoError(t, err)
	dump, err := io.ReadAll(packed)
	require.NoError(t, err)
	_, err = db.ExecContext(t.Context(), string(dump))
	require.NoError(t, err)
	var then struct {
		Cooks []struct {
			ID      int
			Version uint
			Cook    json.RawMessage
		}
		Formulas []struct {
			ID, Version int
			Formula     json.RawMessage
		}
		Versions map[string][]struct{ Formula json.RawMessage }
		Jars     []struct {
			ID  int
			Jar json.RawMessage
		}
		Larder struct{ Things map[string]Thing }
	}
	raw, err := os.ReadFile("testdata/baseline.json")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(raw, &then))
	s, err := Open(t.Context(), at)
	require.NoError(t, err)
	defer s.Close()
	for _, c := range then.Cooks {
		rec, err := s.Cooks().Get(t.Context(), strconv.Itoa(c.ID))
		require.NoError(t, err)
		assert.Equal(t, old("cook", c.ID), rec.ID, "an address from then opens it")
		assert.Equal(t, c.Version, rec.Version)
		same(t, c.Cook, rec.Doc)
	}
	for _, f := range then.Formulas {
		rec, err := s.Formulas().Get(t.Context(), old("formula", f.ID))
		require.NoError(t, err)
		same(t, f.Formula, rec.Doc)
		versions, err := s.Formulas().Versions(t.Context(), rec.ID)
		require.NoError(t, err)
		require.Len(t, versions, len(then.Versions[strconv.Itoa(f.ID)]))
		for i, v := range then.Versions[strconv.Itoa(f.ID)] {
			same(t, v.Formula, versions[i].Formula)
		}
	}
	for _, j := range then.Jars {
		rec, err := s.Jars().Get(t.Context(), old("jar", j.ID))
		require.NoError(t, err)
		same(t, j.Jar, rec.Doc)
	}
	things, err := s.Things(t.Context())
	require.NoError(t, err)
	assert.Len(t, things, len(then.Larder.Things))
	pits, _, err := s.Pits().List(t.Context(), Query{})
	require.NoError(t, err)
	require.Len(t, pits, 3)
	assert.Equal(t, cook.Pit{ID: pits[1].ID, Name: "Kettle", Kind: "kettle", Room: "24"}, pits[1].Doc)
	list, total, err := s.Cooks().List(t.Context(), Query{Limit: 10})
	require.NoError(t, err)
	assert.EqualValues(t, 3, total)
	assert.Equal(t, old("cook", 3), list[0].ID, "the latest serving first")
	lines := slices.DeleteFunc(carried(t, s), func(line any) bool {
		_, photo := line.(CarriedPhoto) // those of the folder are no pictures
		return photo
	})
	for _, line := range lines {
		if r, ok := line.(CarriedRecord); ok {
			lines = append(lines, Checked(r))
		}
	}
	assert.Positive(t, takes(t, opened2(t), lines).Added, "what was kept then can be carried away and taken in")
	_, err = s.Cooks().Get(t.Context(), old("cook", 4))
	require.ErrorIs(t, err, ErrNotFound, "what was deleted stays so")
	back, err := s.Cooks().Restore(t.Context(), old("cook", 4))
	require.NoError(t, err, "and can come back")
	rec, err := s.Cooks().Get(t.Context(), "3")
	require.NoError(t, err)
	rec, err = s.Cooks().Update(t.Context(), "3", rec.Version, rec.Doc)
	require.NoError(t, err)
	assert.Equal(t, old("cook", 3), rec.ID)
	mine, err := s.Formulas().Get(t.Context(), "1")
	require.NoError(t, err)
	mine.Doc.Note = "changed"
	_, err = s.Formulas().
		Update(t.Context(), "1", mine.Version, mine.Doc, func(formula.Formula) []formula.Change { return nil })
	require.NoError(t, err, "the old address also writes")
	require.NoError(
		t,
		s.AddFact(
			t.Context(),
			"3",
			facts.Fact{ID: "0b0e7a52-6a1f-4c0e-9d53-0d5f3c1e8a11", Kind: facts.Ticked, What: "salt", At: "2026-11-27T10:00"},
		),
	)
	said, err := s.Facts(t.Context(), "3")
	require.NoError(t, err)
	assert.Len(t, said, 3, "one done, one acknowledged, and the new one")
	photos, err := s.Photos(t.Context(), old("cook", 3))
	require.NoError(t, err)
	assert.Len(t, photos, 1)
	// What it uses is found by its new id.
	k, err := s.Kitchen(t.Context(), time.Date(2026, 11, 26, 12, 0, 0, 0, time.UTC), back.Doc.Formulas()...)
	require.NoError(t, err)
	order := order.Parse(back.Doc, k)
	assert.Empty(t, order.Lines[4].Wrong())
	assert.Contains(t, k.Prices, OwnID(old("ingredient", 1)))
}

// same tells whether a document is what it was, but for numbers that are ids now, keys
// of the draws of a jar, and marks that are wishes now.
func same[T any](t *testing.T, then json.RawMessage, now T) {
	text := regexp.MustCompile(`"(id|formula)": ?"(\d+)"`).ReplaceAllStringFunc(string(then), func(m string) string {
		var key string
		var n int
		_, err := fmt.Sscanf(strings.NewReplacer(`"`, " ", ":", " ").Replace(m), "%s %d", &key, &n)
		require.NoError(t, err)
		return fmt.Sprintf("%q:%q", key, old("formula", n))
	})
	text = strings.ReplaceAll(text, `"own-1"`, `"`+OwnID(old("ingredient", 1))+`"`)
	text = regexp.MustCompile(`"done": ?false`).ReplaceAllString(text, `"was":0`)
	var was T
	require.NoError(t, json.Unmarshal([]byte(text), &was))
	empty := func(v T) string {
		body, err := json.Marshal(v)
		require.NoError(t, err)
		return regexp.MustCompile(`"id":"draw-\d+",|,?"(id|wishes|kind|spoons|tags)":("draw-\d+"|\[[^]]*\]|"rub"|"us"|""|null)`).
			ReplaceAllString(string(body), "")
	}
	assert.Equal(t, empty(was), empty(now))
}

// Programs that start at once on one empty database all find it whole.
func TestManyProgramsStartAtOnce(t *testing.T) {
	testclock.Undated(t)
	for range 4 {
		at := testdb.Empty(t)
		var all sync.WaitGroup
		for range 4 {
			all.Go(func() {
				s, err := Open(t.Context(), at)
				if assert.NoError(t, err) {
					defer s.Close()
					_, err = s.Cooks().Create(t.Context(), cook.Cook{Name: "x"})
					assert.NoError(t, err)
				}
			})
		}
		all.Wait()
	}
}

// A program that was killed after any statement of any migration leaves a database that
// the next one brings up to date.
func TestKilledWithinAMigration(t *testing.T) {
	testclock.Undated(t)
	files, err := fs.Glob(migrations, "migrations/*.sql")
	require.NoError(t, err)
	sub, err := fs.Sub(migrations, "migrations")
	require.NoError(t, err)
	for n, file := range files {
		raw, err := fs.ReadFile(migrations, file)
		require.NoError(t, err)
		up, _, _ := strings.Cut(string(raw), "-- +goose Down")
		var statements []string
		for _, one := range strings.Split(up, ";\n") {
			if strings.TrimSpace(one) != "" {
				statements = append(statements, one)
			}
		}
		for done := range len(statements) {
			at := testdb.Empty(t)
			db, err := sql.Open("mysql", at)
			require.NoError(t, err)
			p, err := goose.NewProvider(database.DialectMySQL, db, sub)
			require.NoError(t, err)
			if n > 0 {
				_, err = p.UpTo(t.Context(), int64(n))
				require.NoError(t, err)
			}
			for _, statement := range statements[:done+1] {
				_, err := db.ExecContext(t.Context(), statement)
				require.NoError(t, err, "%s", statement)
			}
			require.NoError(t, db.Close())
			s, err := Open(t.Context(), at)
			require.NoError(t, err, "%s after statement %d", file, done+1)
			_, err = s.Cooks().
				Create(t.Context(), cook.Cook{Name: "x", Pieces: []cook.Piece{{Cut: "pork-loin", Trimmed: "2 kg"}}})
			assert.NoError(t, err)
			require.NoError(t, s.Close())
		}
	}
}

// A formula whose history has versions from elsewhere beyond its own is on record as the last version
// again, and can be saved; a cook with a clock of its own is one that is practised.
func TestVersionsFromElsewhereAreMended(t *testing.T) {
	at, db, _ := upTo(t, 14)
	const id, cooked = "7d1c3b0e-58a1-4c53-9a5e-0c4c2f8f0a11", "7d1c3b0e-58a1-4c53-9a5e-0c4c2f8f0a12"
	body := `{"name":"Rub","basis":"weight","rows":[{"ingredient":"sea-salt","parts":"1"}]}`
	for _, statement := range []string{
		`INSERT INTO records (id, kind, version, name, body, created_at, updated_at) VALUES
			('` + id + `', 'formula', 2, 'Rub', '` + body + `', '2026-01-01', '2026-01-02'),
			('` + cooked + `', 'cook', 1, 'Practice', '{"name":"Practice","pieces":[]}', '2026-01-01', '2026-01-02')`,
		`INSERT INTO record_versions (record, version, body, changes, saved_at) SELECT '` + id + `', seq, '` + body + `', '[]', '2026-01-01'
			FROM seq_1_to_4`,
		`INSERT INTO clocks (cook, began_ms, cook_ms, speed, seed) VALUES ('` + cooked + `', 1, 2, 60, 1)`,
	} {
		_, err := db.ExecContext(t.Context(), statement)
		require.NoError(t, err)
	}
	s, err := Open(t.Context(), at)
	require.NoError(t, err)
	defer s.Close()
	rec, err := s.Formulas().Get(t.Context(), id)
	require.NoError(t, err)
	all, err := s.Formulas().Versions(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, rec.Version, all[0].Version)
	assert.EqualValues(t, 5, rec.Version)
	rec.Doc.Note = "Saved again."
	alike := func(formula.Formula) []formula.Change { return nil }
	rec, err = s.Formulas().Update(t.Context(), id, rec.Version, rec.Doc, alike)
	require.NoError(t, err)
	assert.EqualValues(t, 6, rec.Version)
	clock, err := s.Clock(t.Context(), cooked)
	require.NoError(t, err)
	assert.True(t, clock.Practised)
	assert.Error(t, s.SetClock(t.Context(), cooked, Clock{Began: clock.Began, At: clock.At, Speed: 1e12}))
}
