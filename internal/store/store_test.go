package store

import (
	"compress/gzip"
	"context"
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
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
	"verjuice/internal/localdb"
)

var server *localdb.Server

func TestMain(m *testing.M) {
	os.Exit(func() int {
		dir, err := os.MkdirTemp("", "verjuice-store-")
		if err == nil {
			defer os.RemoveAll(dir)
			server, err = localdb.Start(context.Background(), dir)
		}
		if err != nil {
			fmt.Fprintln(os.Stderr, "the test database did not start:", err)
			return 1
		}
		defer server.Stop()
		return m.Run()
	}())
}

// old is the id of what had a number before records had UUIDs.
func old(kind string, number int) string {
	return fmt.Sprintf("00000000-0000-400%d-8000-%012d", map[string]int{"cook": 1, "formula": 2, "jar": 3, "ingredient": 4}[kind], number)
}

func dsn(t *testing.T, name string) string {
	require.NoError(t, server.Create(t.Context(), "verjuice_"+name, true))
	return server.DSN("verjuice_" + name)
}

// A cook that was written before there were plans, larder or keys is whole after
// the schema has moved on, and can be written again.
func TestOldCooksSurvive(t *testing.T) {
	at := dsn(t, "old")
	db, err := sql.Open("mysql", at)
	require.NoError(t, err)
	defer db.Close()
	files, err := fs.Sub(migrations, "migrations")
	require.NoError(t, err)
	p, err := goose.NewProvider(database.DialectMySQL, db, files)
	require.NoError(t, err)
	_, err = p.UpTo(t.Context(), 3)
	require.NoError(t, err)
	for _, statement := range []string{
		`INSERT INTO cooks (id, version, name, serve_at, zone, guests, created_at, updated_at) VALUES (1, 4, 'Old supper', '2026-01-03T18:00', 'UTC', 6, NOW(), NOW())`,
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
	again, err := s.Cooks().Update(t.Context(), rec.ID, rec.Version, rec.Doc)
	require.NoError(t, err)
	assert.Equal(t, rec.Doc, again.Doc)
	_, err = Open(t.Context(), at)
	require.NoError(t, err, "opening twice is harmless")
}

// A folder that was written by the program as it was with tables of columns is the same
// after it has become records: each cook, formula, version, jar and price as it was
// answered then, with numbers become ids wherever they stand.
func TestFoldersBecomeRecords(t *testing.T) {
	at := dsn(t, "baseline")
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
	_, err = s.Cooks().Get(t.Context(), old("cook", 4))
	require.ErrorIs(t, err, ErrNotFound, "what was deleted stays so")
	back, err := s.Cooks().Restore(t.Context(), old("cook", 4))
	require.NoError(t, err, "and can come back")
	said, err := s.Facts(t.Context(), old("cook", 3))
	require.NoError(t, err)
	assert.Len(t, said, 2, "one done, one acknowledged")
	photos, err := s.Photos(t.Context(), old("cook", 3))
	require.NoError(t, err)
	assert.Len(t, photos, 1)
	// What it uses is found by its new id.
	k, err := s.Kitchen(t.Context(), time.Date(2026, 11, 26, 12, 0, 0, 0, time.UTC), back.Doc.Formulas()...)
	require.NoError(t, err)
	order := cook.Parse(back.Doc, k)
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
		return regexp.MustCompile(`"id":"draw-\d+",|,?"(id|wishes|kind|spoons|tags)":("draw-\d+"|\[[^]]*\]|"rub"|"us"|""|null)`).ReplaceAllString(string(body), "")
	}
	assert.Equal(t, empty(was), empty(now))
}

// What old cooks were marked with is a fact after the schema has moved on: said once,
// however often it moves, and the cook is left as it was.
func TestOldMarksBecomeFacts(t *testing.T) {
	at := dsn(t, "marks")
	db, err := sql.Open("mysql", at)
	require.NoError(t, err)
	defer db.Close()
	files, err := fs.Sub(migrations, "migrations")
	require.NoError(t, err)
	p, err := goose.NewProvider(database.DialectMySQL, db, files)
	require.NoError(t, err)
	_, err = p.UpTo(t.Context(), 6)
	require.NoError(t, err)
	exec := func(statement string) {
		_, err := db.ExecContext(t.Context(), statement)
		require.NoError(t, err)
	}
	exec(`INSERT INTO cooks (id, version, name, serve_at, zone, guests, plan, created_at, updated_at) VALUES (1, 4, 'Old supper', '2026-01-03T18:00', 'UTC', 6,
		'{"hands":2,"marks":[{"piece":"p1","stage":"salt","at":"2026-01-03T08:00","done":true},{"piece":"p1","stage":"fire","at":"2026-01-03T11:00"},{"piece":"p1","stage":"salt","at":"2026-01-03T08:30","done":true}],
		  "acks":[{"piece":"p1","rule":"cold-side","what":"The fridge is warm.","at":"2026-01-02T10:00:00Z"}]}', NOW(), NOW())`)
	exec(`INSERT INTO pieces (cook_id, position, cut, pieces, bought, formula, formula_name, formula_basis) VALUES (1, 0, 'pork-loin', 1, '2 kg', '', 'Plain', 'weight')`)
	exec(`INSERT INTO cooks (id, version, name, serve_at, zone, guests, plan, created_at, updated_at) VALUES (2, 1, 'Plain', '', 'UTC', 6, '', NOW(), NOW())`)
	for range 2 {
		_, err = p.ApplyVersion(t.Context(), 7, true)
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
		{Kind: facts.Done, Piece: "p1", What: "salt", At: "2026-01-03T08:00"}, {Kind: facts.Done, Piece: "p1", What: "salt", At: "2026-01-03T08:30"},
		{Kind: facts.Acknowledged, Piece: "p1", What: "cold-side", At: "2026-01-02T10:00:00Z", Said: "The fridge is warm."},
	}, all)
	rec, err := s.Cooks().Get(t.Context(), old("cook", 1))
	require.NoError(t, err)
	assert.Equal(t, []cook.Wish{{Piece: "p1", Stage: "fire", At: "2026-01-03T11:00"}}, rec.Doc.Wishes, "what was only fixed is a wish")
	rec.Doc.Guests = "7"
	_, err = s.Cooks().Update(t.Context(), rec.ID, rec.Version, rec.Doc)
	require.NoError(t, err)
	all, err = s.Facts(t.Context(), old("cook", 1))
	require.NoError(t, err)
	assert.Len(t, all, 3, "saving the cook takes nothing away")
}

// Different facts sent at once are all saved; the same fact sent twice is saved
// once; another fact under the same id is refused.
func TestFactsFromManyHands(t *testing.T) {
	s, err := Open(t.Context(), dsn(t, "facts"))
	require.NoError(t, err)
	defer s.Close()
	made, err := s.Cooks().Create(t.Context(), cook.Cook{Name: "x", Pieces: []cook.Piece{{Key: "a", Cut: "pork-loin"}}})
	require.NoError(t, err)
	said := func(hand, n int) facts.Fact {
		return facts.Fact{ID: fmt.Sprintf("00000000-0000-4000-8000-00%04d%06d", hand, n), Kind: facts.Ticked, What: fmt.Sprint("line ", hand, n), At: "2026-11-28T07:00", Values: field.Values{"n": float64(n)}}
	}
	var all sync.WaitGroup
	for hand := range 6 {
		all.Go(func() {
			for n := range 10 {
				for range 2 {
					assert.NoError(t, s.AddFact(t.Context(), made.ID, said(hand, n)))
				}
			}
		})
	}
	all.Wait()
	got, err := s.Facts(t.Context(), made.ID)
	require.NoError(t, err)
	assert.Len(t, got, 60)
	for hand := range 6 {
		for n := range 10 {
			assert.Contains(t, got, said(hand, n))
		}
	}
	other := said(0, 0)
	other.What = "something else"
	require.ErrorIs(t, s.AddFact(t.Context(), made.ID, other), ErrOther)
	require.ErrorIs(t, s.AddFact(t.Context(), "nothing", said(9, 9)), ErrNotFound)
}

// Programs that start at once on one empty database all find it whole.
func TestManyProgramsStartAtOnce(t *testing.T) {
	for round := range 4 {
		at := dsn(t, fmt.Sprint("start", round))
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
			at := dsn(t, fmt.Sprintf("kill%d_%d", n, done))
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
			_, err = s.Cooks().Create(t.Context(), cook.Cook{Name: "x", Pieces: []cook.Piece{{Cut: "pork-loin"}}})
			assert.NoError(t, err)
			require.NoError(t, s.Close())
		}
	}
}

// The lock of a program that was killed is free when its time is over, and a program
// that lost its lock is told.
func TestLocksAreLeased(t *testing.T) {
	s, err := Open(t.Context(), dsn(t, "lease"))
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, s.db.Exec(`INSERT INTO leases VALUES ('x', 'a killed program', NOW(3) + INTERVAL 300000 MICROSECOND)`).Error)
	ran := false
	require.NoError(t, s.Alone(t.Context(), "x", func(ctx context.Context) error {
		ran = true
		held, err := lease(s.db, "x", "another")
		assert.NoError(t, err)
		assert.False(t, held, "while it is held")
		return ctx.Err()
	}))
	assert.True(t, ran)
	held, err := lease(s.db, "x", "another")
	require.NoError(t, err)
	assert.True(t, held, "free at once when it is done")
	stopped, stop := context.WithCancel(t.Context())
	stop()
	require.ErrorIs(t, s.Alone(stopped, "x", func(context.Context) error { return nil }), context.Canceled)
}

// People who save their own cooks at one moment do not get in each other's way.
func TestSavingSideBySide(t *testing.T) {
	s, err := Open(t.Context(), dsn(t, "side"))
	require.NoError(t, err)
	defer s.Close()
	var all sync.WaitGroup
	for hand := range 8 {
		all.Go(func() {
			c := cook.Cook{Name: fmt.Sprint(hand), Pieces: make([]cook.Piece, 5)}
			for i := range c.Pieces {
				c.Pieces[i] = cook.Piece{Cut: "pork-loin", Season: cook.Season{Formula: formula.ReadyMade()[i]}}
			}
			rec, err := s.Cooks().Create(t.Context(), c)
			for n := 0; n < 25 && assert.NoError(t, err); n++ {
				rec.Doc.Guests = quantity.CountOf(n)
				rec, err = s.Cooks().Update(t.Context(), rec.ID, rec.Version, rec.Doc)
			}
		})
	}
	all.Wait()
}

// Many hands on one jar, some of which put back what they took: every draw counts, and
// only those that were put back are gone.
func TestNoDrawIsLost(t *testing.T) {
	s, err := Open(t.Context(), dsn(t, "jars"))
	require.NoError(t, err)
	defer s.Close()
	jar, err := s.Jars().Create(t.Context(), formula.Jar{Formula: formula.ReadyMade()[0], Made: "2026-11-01", Amount: "1 kg"})
	require.NoError(t, err)
	var all sync.WaitGroup
	for hand := range 8 {
		all.Go(func() {
			for n := range 10 {
				one := formula.Draw{ID: fmt.Sprint(hand, "-", n), Amount: "1 g", Day: "2026-11-02"}
				_, err := s.Jars().Change(t.Context(), jar.ID, func(j *formula.Jar) error { j.Draws = append(j.Draws, one); return nil })
				assert.NoError(t, err)
				if n%2 == 1 {
					_, err := s.Jars().Change(t.Context(), jar.ID, func(j *formula.Jar) error { j.Draws = slices.DeleteFunc(j.Draws, one.Is); return nil })
					assert.NoError(t, err)
				}
			}
		})
	}
	all.Wait()
	d, err := s.Jars().Get(t.Context(), jar.ID)
	require.NoError(t, err)
	assert.Len(t, d.Doc.Draws, 40)
	assert.EqualValues(t, 1+80+40, d.Version)
	_, err = s.Jars().Update(t.Context(), jar.ID, 1, d.Doc)
	require.ErrorIs(t, err, ErrStale)
}

// Formulas of a file are made all or none, the used before the users, in any
// order; a circle ends, too.
func TestFormulasAllOrNone(t *testing.T) {
	s, err := Open(t.Context(), dsn(t, "formulas"))
	require.NoError(t, err)
	defer s.Close()
	inList := func(id string) (int, bool) {
		var n int
		_, err := fmt.Sscanf(id, "file-%d", &n)
		return n, err == nil
	}
	outer := formula.Formula{Name: "outer", Basis: formula.ByWeight, Rows: []formula.Row{{Formula: "file-1", Parts: "1"}, {Formula: "equal-parts", Parts: "1"}}}
	inner := formula.Formula{Name: "inner", Basis: formula.ByWeight, Rows: []formula.Row{{Ingredient: "sea-salt", Parts: "1"}}}
	made, err := s.Formulas().CreateAll(t.Context(), []formula.Formula{outer, inner}, formula.Change{ID: "read"}, inList)
	require.NoError(t, err)
	assert.Equal(t, made[1].ID, made[0].Doc.Rows[0].Formula)
	assert.Equal(t, "equal-parts", made[0].Doc.Rows[1].Formula)
	assert.Equal(t, "file-1", outer.Rows[0].Formula, "what was given is left as it was")

	long := inner
	long.Name = string(make([]byte, 500)) // more than the column holds
	_, err = s.Formulas().CreateAll(t.Context(), []formula.Formula{inner, long}, formula.Change{ID: "read"}, inList)
	require.Error(t, err)
	_, total, err := s.Formulas().List(t.Context(), Query{Limit: 10})
	require.NoError(t, err)
	assert.EqualValues(t, 2, total, "none of the second file")
}

// What was taken off the shelf is off the list, found by those who still use it,
// and comes back.
func TestRecordsComeBack(t *testing.T) {
	s, err := Open(t.Context(), dsn(t, "records"))
	require.NoError(t, err)
	defer s.Close()
	own := s.Ingredients()
	red, err := own.Create(t.Context(), larder.Own{Name: "red", Salt: "30 %"})
	require.NoError(t, err)
	require.ErrorIs(t, own.Delete(t.Context(), red.ID, 9), ErrStale)
	require.NoError(t, own.Delete(t.Context(), red.ID, red.Version))
	for gone, want := range map[bool]int{false: 0, true: 1} {
		list, _, err := own.List(t.Context(), Query{Gone: gone})
		require.NoError(t, err)
		assert.Len(t, list, want)
	}
	_, err = own.Get(t.Context(), red.ID)
	require.ErrorIs(t, err, ErrNotFound)
	_, err = own.Update(t.Context(), red.ID, red.Version, red.Doc)
	require.ErrorIs(t, err, ErrNotFound)
	back, err := own.Restore(t.Context(), red.ID)
	require.NoError(t, err)
	assert.Equal(t, red.Doc, back.Doc)
	made, err := s.Cooks().Create(t.Context(), cook.Cook{Name: "x", Pieces: []cook.Piece{{Cut: "pork-loin"}, {Key: "p1"}, {}}})
	require.NoError(t, err)
	keys := map[string]bool{}
	for _, p := range made.Doc.Pieces {
		keys[p.Key] = true
	}
	assert.Len(t, keys, 3, "no two pieces share a key")
}
