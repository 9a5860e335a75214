package store

import (
	"context"
	"fmt"
	"os"
	"os/exec"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/facts"
	"verjuice/internal/localdb"
	"verjuice/internal/testclock"
)

// killed kills the MariaDB whose data lies in a folder, as a power cut would.
func killed(t *testing.T, folder string) {
	t.Helper()
	raw, err := os.ReadFile(folder + "/data/db.pid")
	if err != nil {
		return // it is just starting
	}
	_ = exec.Command("kill", "-9", strings.TrimSpace(string(raw))).Run()
}

// The database is killed again and again while people save cooks and say facts: every save
// that was acknowledged is there at the end, whole, and none is there twice; what was not
// acknowledged is there whole or not at all.
func TestSavesOutliveKills(t *testing.T) {
	testclock.Undated(t)
	folder := t.TempDir()
	own, err := localdb.Start(t.Context(), folder)
	require.NoError(t, err)
	t.Cleanup(own.Stop)
	require.NoError(t, own.Create(t.Context(), "verjuice_torture", true))
	s, err := Open(t.Context(), own.DSN("verjuice_torture"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })

	long := 9 * time.Second
	if told, err := time.ParseDuration(os.Getenv("VERJUICE_TORTURE")); err == nil {
		long = told
	}
	ctx, stop := context.WithTimeout(t.Context(), long)
	defer stop()
	var all sync.WaitGroup
	var failed, done atomic.Int32
	type saved struct {
		id      string
		version uint
		name    string
	}
	last := make([]saved, 6)
	said := make([]int, 6)
	for who := range last {
		all.Go(func() {
			var mine saved
			for n := 0; ctx.Err() == nil; n++ {
				short, cancel := context.WithTimeout(ctx, 3*time.Second)
				name := fmt.Sprintf("Cook %d, %d", who, n)
				doc := cook.Cook{Name: name, Guests: "8", Pieces: []cook.Piece{{Key: "a", Cut: "pork-loin", Trimmed: "2 kg"}}}
				if mine.id == "" {
					if r, err := s.Cooks().Create(short, doc); err == nil {
						mine = saved{r.ID, r.Version, name}
						done.Add(1)
					} else {
						failed.Add(1)
					}
				} else if r, err := s.Cooks().Update(short, mine.id, mine.version, doc); err == nil {
					mine.version, mine.name = r.Version, name
					done.Add(1)
				} else {
					failed.Add(1)
					// It may have been saved before the answer was lost: look.
					if now, err := s.Cooks().Get(short, mine.id); err == nil {
						mine.version, mine.name = now.Version, now.Doc.Name
					}
				}
				if mine.id != "" {
					f := facts.Fact{
						ID:   fmt.Sprintf("00000000-0000-4000-8000-%06d%06d", who, n),
						Kind: facts.Ticked,
						What: "salt",
						At:   "2026-11-28T07:00",
					}
					if err := s.AddFact(short, mine.id, f); err == nil {
						said[who]++
					}
				}
				cancel()
				last[who] = mine
			}
		})
	}
	for ctx.Err() == nil {
		select {
		case <-ctx.Done():
		case <-time.After(1500 * time.Millisecond):
			killed(t, folder)
		}
	}
	all.Wait()
	require.Eventually(
		t,
		func() bool { return s.Ping(t.Context()) == nil },
		20*time.Second,
		50*time.Millisecond,
		"it comes back",
	)
	assert.Greater(t, done.Load(), int32(50))
	for who, want := range last {
		require.NotEmpty(t, want.id, "cook %d", who)
		now, err := s.Cooks().Get(t.Context(), want.id)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, now.Version, want.version, "what was acknowledged is there")
		assert.True(t, strings.HasPrefix(now.Doc.Name, fmt.Sprintf("Cook %d, ", who)), now.Doc.Name)
		require.Len(t, now.Doc.Pieces, 1, "whole")
		kept, err := s.Facts(t.Context(), want.id)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, len(kept), said[who], "facts that were acknowledged")
		ids := map[string]bool{}
		for _, f := range kept {
			assert.False(t, ids[f.ID], "twice")
			ids[f.ID] = true
		}
	}
	_, total, err := s.Cooks().List(t.Context(), Query{})
	require.NoError(t, err)
	assert.LessOrEqual(t, total, int64(len(last))+int64(failed.Load()))
	t.Logf(
		"%d saves acknowledged, none lost, none twice; %d refused while the database was away",
		done.Load(),
		failed.Load(),
	)
}

// A pool that is asked by many more than it has connections serves them one after another.
func TestMoreAskThanThereAreConnections(t *testing.T) {
	s, err := Open(t.Context(), migrated(t))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	for n := range 20 {
		_, err := s.Cooks().Create(t.Context(), cook.Cook{Name: fmt.Sprint("Cook ", n), Pieces: []cook.Piece{}})
		require.NoError(t, err)
	}
	var wrong atomic.Int32
	var all sync.WaitGroup
	for range 300 {
		all.Go(func() {
			list, total, err := s.Cooks().List(t.Context(), Query{Limit: 5})
			if err != nil || total != 20 || len(list) != 5 {
				wrong.Add(1)
			}
		})
	}
	all.Wait()
	assert.Zero(t, wrong.Load())
	pool, err := s.db.DB()
	require.NoError(t, err)
	assert.LessOrEqual(t, pool.Stats().MaxOpenConnections, connections)
	assert.Zero(t, pool.Stats().InUse, "all are given back")
}
