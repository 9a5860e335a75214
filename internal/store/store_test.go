package store

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
	"verjuice/internal/testclock"
	"verjuice/internal/testdb"
)

func TestMain(m *testing.M) { testdb.Main(m) }

// old is the id of what had a number before records had UUIDs.
func old(kind string, number int) string {
	return fmt.Sprintf(
		"00000000-0000-400%d-8000-%012d",
		map[string]int{"cook": 1, "formula": 2, "jar": 3, "ingredient": 4}[kind],
		number,
	)
}

// migrated is a database with the tables of today.
func migrated(t testing.TB) string {
	t.Helper()
	return testdb.Copy(t, "migrated", func(ctx context.Context, dsn string) error {
		s, err := Open(ctx, dsn)
		if err != nil {
			return err
		}
		return s.Close()
	})
}

// Different facts sent at once are all saved; the same fact sent twice is saved
// once; another fact under the same id is refused.
func TestFactsFromManyHands(t *testing.T) {
	testclock.Undated(t)
	s, err := Open(t.Context(), migrated(t))
	require.NoError(t, err)
	defer s.Close()
	made, err := s.Cooks().
		Create(t.Context(), cook.Cook{Name: "x", Pieces: []cook.Piece{{Key: "a", Cut: "pork-loin", Trimmed: "2 kg"}}})
	require.NoError(t, err)
	said := func(hand, n int) facts.Fact {
		return facts.Fact{
			ID:     fmt.Sprintf("00000000-0000-4000-8000-00%04d%06d", hand, n),
			Kind:   facts.Ticked,
			What:   fmt.Sprint("line ", hand, n),
			At:     "2026-11-28T07:00",
			Values: field.Values{"n": float64(n)},
		}
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

// The lock of a program that was killed is free when its time is over, and a program
// that lost its lock is told.
func TestLocksAreLeased(t *testing.T) {
	testclock.Undated(t)
	s, err := Open(t.Context(), migrated(t))
	require.NoError(t, err)
	defer s.Close()
	require.NoError(
		t,
		s.db.Exec(`INSERT INTO leases VALUES ('x', 'a killed program', NOW(3) + INTERVAL 300000 MICROSECOND)`).Error,
	)
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
	testclock.Once(t)
	s, err := Open(t.Context(), migrated(t))
	require.NoError(t, err)
	defer s.Close()
	var all sync.WaitGroup
	for hand := range 8 {
		all.Go(func() {
			c := cook.Cook{Name: fmt.Sprint(hand), Pieces: make([]cook.Piece, 5)}
			for i := range c.Pieces {
				c.Pieces[i] = cook.Piece{Cut: "pork-loin", Trimmed: "2 kg", Season: cook.Season{Formula: formula.ReadyMade()[i]}}
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
	testclock.Undated(t)
	s, err := Open(t.Context(), migrated(t))
	require.NoError(t, err)
	defer s.Close()
	jar, err := s.Jars().
		Create(t.Context(), formula.Jar{Formula: formula.ReadyMade()[0], Made: "2026-11-01", Amount: "1 kg"})
	require.NoError(t, err)
	var all sync.WaitGroup
	for hand := range 8 {
		all.Go(func() {
			for n := range 10 {
				one := formula.Draw{ID: fmt.Sprint(hand, "-", n), Amount: "1 g", Day: "2026-11-02"}
				_, err := s.Jars().
					Change(t.Context(), jar.ID, func(j *formula.Jar) error { j.Draws = append(j.Draws, one); return nil })
				assert.NoError(t, err)
				if n%2 == 1 {
					_, err := s.Jars().
						Change(t.Context(), jar.ID, func(j *formula.Jar) error {
							j.Draws = slices.DeleteFunc(j.Draws,
								one.Is)
							return nil
						})
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
	s, err := Open(t.Context(), migrated(t))
	require.NoError(t, err)
	defer s.Close()
	inList := func(id string) (int, bool) {
		var n int
		_, err := fmt.Sscanf(id, "file-%d", &n)
		return n, err == nil
	}
	outer := formula.Formula{
		Name:  "outer",
		Basis: formula.ByWeight,
		Rows:  []formula.Row{{Formula: "file-1", Parts: "1"}, {Formula: "equal-parts", Parts: "1"}},
	}
	inner := formula.Formula{
		Name:  "inner",
		Basis: formula.ByWeight,
		Rows:  []formula.Row{{Ingredient: "sea-salt", Parts: "1"}},
	}
	made, err := s.Formulas().CreateAll(t.Context(), []formula.Formula{outer, inner}, formula.Change{ID: "read"}, inList)
	require.NoError(t, err)
	assert.Equal(t, made[1].ID, made[0].Doc.Rows[0].Formula)
	assert.Equal(t, "equal-parts", made[0].Doc.Rows[1].Formula)
	assert.Equal(t, "file-1", outer.Rows[0].Formula, "what was given is left as it was")

	long := inner
	long.Note = strings.Repeat("x", 20<<20) // more than the database takes at once
	_, err = s.Formulas().CreateAll(t.Context(), []formula.Formula{inner, long}, formula.Change{ID: "read"}, inList)
	require.Error(t, err)
	_, total, err := s.Formulas().List(t.Context(), Query{Limit: 10})
	require.NoError(t, err)
	assert.EqualValues(t, 2, total, "none of the second file")
}

// Formulas that are changed at one moment, by several programs, never come to use each other: of a
// ring at least one is refused, and the others are saved.
func TestNoRingOfFormulas(t *testing.T) {
	testclock.Once(t)
	at := migrated(t)
	var programs []*Store
	for range 3 {
		s, err := Open(t.Context(), at)
		require.NoError(t, err)
		defer s.Close()
		programs = append(programs, s)
	}
	salt := formula.Row{Ingredient: "sea-salt", Parts: "1"}
	for round := range 20 {
		ring := make([]Record[formula.Formula], 2+round%2)
		for i := range ring {
			var err error
			ring[i], err = programs[0].Formulas().
				Create(t.Context(), formula.Formula{Name: fmt.Sprint(round, "-", i), Basis: formula.ByWeight,
					Rows: []formula.Row{salt}}, formula.Change{ID: "changed.new"})
			require.NoError(t, err)
		}
		var all sync.WaitGroup
		var refused atomic.Int32
		for i, one := range ring {
			all.Go(func() {
				f := one.Doc
				f.Rows = []formula.Row{salt, {Formula: ring[(i+1)%len(ring)].ID, Parts: "1"}}
				_, err := programs[i].Formulas().
					Update(t.Context(), one.ID, one.Version, f, func(formula.Formula) []formula.Change { return nil })
				if err != nil {
					var wrong field.Errors // when the other one was saved before this one was looked at
					assert.True(t, errors.Is(err, ErrCircle) || errors.As(err, &wrong) && wrong[0].ID == "formula.uses-itself", err)
					refused.Add(1)
				}
			})
		}
		all.Wait()
		saved := 0
		for _, one := range ring {
			now, err := programs[0].Formulas().Get(t.Context(), one.ID)
			require.NoError(t, err)
			if len(now.Doc.Rows) == 2 {
				saved++
			}
			versions, err := programs[0].Formulas().Versions(t.Context(), one.ID)
			require.NoError(t, err)
			assert.Len(t, versions, int(now.Version), "a refused one leaves nothing")
		}
		assert.Equal(t, len(ring)-int(refused.Load()), saved)
		assert.GreaterOrEqual(t, refused.Load(), int32(1))
	}
}

// What was taken off the shelf is off the list, found by those who still use it,
// and comes back.
func TestRecordsComeBack(t *testing.T) {
	s, err := Open(t.Context(), migrated(t))
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
	made, err := s.Cooks().
		Create(t.Context(), cook.Cook{Name: "x", Pieces: []cook.Piece{{Cut: "pork-loin", Trimmed: "2 kg"},
			{Key: "p1", Cut: "pork-loin", Trimmed: "2 kg"}, {Cut: "beef-chuck-roll", Trimmed: "4 kg"}}})
	require.NoError(t, err)
	keys := map[string]bool{}
	for _, p := range made.Doc.Pieces {
		keys[p.Key] = true
	}
	assert.Len(t, keys, 3, "no two pieces share a key")
}

// A list and a search among ten thousand cooks.
func BenchmarkTenThousandCooks(b *testing.B) {
	s, err := Open(b.Context(), migrated(b))
	require.NoError(b, err)
	defer s.Close()
	var rows []row
	for n := range 10000 {
		m, err := s.Cooks().row(uuid.NewString(), 1, cook.Cook{
			Name:    fmt.Sprintf("Supper %d by the %s", n, []string{"lock", "river", "boathouse"}[n%3]),
			ServeAt: fmt.Sprintf("20%02d-%02d-%02dT18:30", 10+n%20, 1+n%12, 1+n%28),
			Pieces: []cook.Piece{
				{Key: "a", Cut: "pork-loin", Trimmed: "2 kg", Season: cook.Season{Formula: formula.ReadyMade()[n%4]}},
			},
		})
		require.NoError(b, err)
		m.CreatedAt, m.UpdatedAt = testclock.Now(), testclock.Now()
		rows = append(rows, m)
	}
	require.NoError(b, s.db.CreateInBatches(rows, 500).Error)
	for name, q := range map[string]Query{"list": {Limit: 30}, "last page": {Limit: 30, Offset: 9900},
		"search": {Limit: 30, Search: "boathouse"}, "nothing found": {Limit: 30, Search: "regatta"}} {
		b.Run(name, func(b *testing.B) {
			for range b.N {
				_, _, err := s.Cooks().List(b.Context(), q)
				require.NoError(b, err)
			}
		})
	}
}
