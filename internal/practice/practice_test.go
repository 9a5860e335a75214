package practice

import (
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"

	"verjuice/internal/core/heat"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
	"verjuice/internal/testdb"
)

func TestMain(m *testing.M) { testdb.Main(m) }

// What the instruments of a cook read is the same whether one program reads them to the end, or
// one stops half way, another goes on, and two run side by side.
func TestInstrumentsGoOnWhereTheyWere(t *testing.T) {
	testclock.Once(t)
	db, err := store.Open(t.Context(), testdb.Empty(t))
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	began := testclock.Now().Truncate(time.Minute)
	clock := store.Clock{Began: began, At: began, Speed: 60, Seed: 11, Running: true}
	start := func() string {
		p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
		p.Key, p.Choices = "a", map[string]string{"wrap": "foil"}
		rec, err := db.Cooks().Create(t.Context(), anycook.Supper(p))
		require.NoError(t, err)
		require.NoError(t, db.SetClock(t.Context(), rec.ID, clock))
		for what, h := range map[string]time.Duration{"fire": 10 * time.Minute, "look": 2 * time.Hour,
			"wrap": 5 * time.Hour} {
			require.NoError(
				t,
				db.AddFact(
					t.Context(),
					rec.ID,
					facts.Fact{ID: uuid.NewString(), Kind: facts.Done, Piece: "a", What: what, At: began.Add(h).Format(time.RFC3339)},
				),
			)
		}
		return rec.ID
	}
	run := func(r *rig, hours float64) {
		for h := 0.0; h <= hours; h += 0.5 {
			assert.NoError(t, r.read(t.Context(), db, clock, began.Add(time.Duration(h*float64(time.Hour)))))
		}
	}
	read := func(cook string) []facts.Reading {
		kept, err := db.Readings(t.Context(), cook, 0, 0)
		require.NoError(t, err)
		var out []facts.Reading
		for _, k := range kept {
			out = append(out, k.Reading)
		}
		slices.SortFunc(out, func(a, b facts.Reading) int {
			if d := a.At.Compare(b.At); d != 0 {
				return d
			}
			return strings.Compare(a.Probe, b.Probe)
		})
		return out
	}
	whole := start()
	run(&rig{cook: whole}, 7)
	broken := start()
	run(&rig{cook: broken}, 3)
	var both sync.WaitGroup
	for range 2 {
		both.Go(func() { run(&rig{cook: broken}, 7) })
	}
	both.Wait()
	want := read(whole)
	assert.Equal(t, want, read(broken))
	course := facts.Course{}
	course.Add(want...)
	at := func(probe string, h float64) float64 {
		r, ok := course.Until(probe, began.Add(time.Duration(h*float64(time.Hour))))
		require.True(t, ok)
		return float64(r.C)
	}
	assert.Less(t, at("pit:0", 2.03), at("pit:0", 1.95)-20, "the lid was open")
	assert.Greater(t, at("core:a", 7), at("core:a", 3))
}

// In many hours a probe is now and then silent, at the bone or out, never for long; a fire that
// nobody feeds goes out after what its kind of pit burns alone, and not before.
func TestTroubles(t *testing.T) {
	began := testclock.Now().Truncate(time.Hour)
	silent, off, run, longest := 0, 0, 0, 0
	for m := range 200 * 60 {
		core, shows := troubled(60, 110, 7, began.Add(time.Duration(m)*time.Minute))
		if shows && core == 60 {
			run = 0
			continue
		}
		run++
		longest = max(longest, run)
		if shows {
			off++
		} else {
			silent++
		}
	}
	assert.True(t, silent > 20 && silent < 600 && off > 20 && off < 600, "%d, %d", silent, off)
	assert.LessOrEqual(t, longest, 16)
	l := line{input: forecast.FireInput{Pit: "kettle"}}
	h := forecast.History{On: began, Last: map[string]time.Time{}}
	assert.Equal(t, 120.0, l.fed(h, 120, began.Add(5*time.Hour)))
	assert.Less(t, l.fed(h, 120, began.Add(7*time.Hour)), 80.0)
	assert.Equal(t, heat.Mild, l.fed(h, 120, began.Add(9*time.Hour)))
	h.Last["fuel"] = began.Add(5 * time.Hour)
	assert.Equal(t, 120.0, l.fed(h, 120, began.Add(9*time.Hour)))
}

// Many that are practised at once: so many as run well are read, the others wait for their turn with
// their clocks standing still, and none is taken for a cook that is on the fire.
func TestManyWaitForTheirTurn(t *testing.T) {
	db, err := store.Open(t.Context(), testdb.Empty(t))
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	now := testclock.Now()
	c := anycook.Supper(anycook.Coated("pork-loin", "2 kg"))
	ids := make([]string, store.MostPractised+3)
	var all sync.WaitGroup
	for n := range ids {
		begin := func() {
			began := now.Add(time.Duration(n) * time.Second)
			rec, err := db.Practise(t.Context(), c, store.Clock{Began: began, At: now, Speed: 60, Seed: 1}, nil)
			assert.NoError(t, err)
			ids[n] = rec.ID
		}
		if n < store.MostPractised { // these are sure of a turn
			begin()
		} else {
			all.Go(begin)
		}
	}
	all.Wait()
	later := now.Add(time.Hour)
	how := func() (runs []string, waits int) {
		for _, id := range ids {
			clock, err := db.Clock(t.Context(), id)
			require.NoError(t, err)
			if clock.Waits {
				waits++
				assert.Equal(t, now, clock.Now(later), "it stands still")
			}
			if clock.Running {
				runs = append(runs, id)
			}
		}
		return runs, waits
	}
	runs, waits := how()
	assert.Equal(t, ids[:store.MostPractised], runs)
	assert.Equal(t, 3, waits)
	rec, err := db.Cooks().Get(t.Context(), ids[2])
	require.NoError(t, err)
	require.NoError(t, db.Cooks().Delete(t.Context(), rec.ID, rec.Version), "one that is deleted takes no turn")
	clock, err := db.Clock(t.Context(), ids[0])
	require.NoError(t, err)
	clock.Running = false
	require.NoError(t, db.SetClock(t.Context(), ids[0], clock))
	now12, err := db.Practised(t.Context(), later)
	require.NoError(t, err)
	assert.Len(t, now12, store.MostPractised)
	begun, err := db.Clock(t.Context(), ids[store.MostPractised])
	require.NoError(t, err)
	assert.Equal(t, now.Add(time.Minute), begun.Now(later.Add(time.Second)), "it begins where it stood")
	require.NoError(
		t,
		db.AddFact(
			t.Context(),
			ids[1],
			facts.Fact{ID: uuid.NewString(), Kind: facts.Done, Piece: "x", What: "fire", At: now.Format(time.RFC3339)},
		),
	)
	on, err := db.OnNow(t.Context(), now.AddDate(-1, 0, 0))
	require.NoError(t, err)
	assert.Empty(t, on)
}

// However many begin at once, in several programs, no more run than run well.
func TestManyBeginAtOnce(t *testing.T) {
	testclock.Once(t)
	dsn := testdb.Empty(t)
	var dbs []*store.Store
	for range 2 {
		db, err := store.Open(t.Context(), dsn)
		require.NoError(t, err)
		t.Cleanup(func() { _ = db.Close() })
		dbs = append(dbs, db)
	}
	now := testclock.Now()
	c := anycook.Supper(anycook.Coated("pork-loin", "2 kg"))
	ids := make([]string, 30)
	var all sync.WaitGroup
	for n := range ids {
		all.Go(func() {
			rec, err := dbs[n%2].Practise(t.Context(), c, store.Clock{Began: now, At: now, Speed: 60, Seed: 1}, nil)
			assert.NoError(t, err)
			ids[n] = rec.ID
		})
	}
	all.Wait()
	runs := 0
	for _, id := range ids {
		clock, err := dbs[0].Clock(t.Context(), id)
		require.NoError(t, err)
		assert.NotEqual(t, clock.Running, clock.Waits)
		if clock.Running {
			runs++
		}
	}
	assert.Equal(t, store.MostPractised, runs)
}
