package localdb

import (
	"context"
	"database/sql"
	"os"
	"path/filepath"
	"sync/atomic"
	"syscall"
	"testing"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func start(t *testing.T, dir string) *Server {
	t.Helper()
	s, err := Start(t.Context(), dir)
	require.NoError(t, err)
	t.Cleanup(s.Stop)
	return s
}

func query(t *testing.T, dsn, statement string) (string, error) {
	t.Helper()
	db, err := sql.Open("mysql", dsn)
	require.NoError(t, err)
	defer db.Close()
	var out sql.NullString
	err = db.QueryRowContext(t.Context(), statement).Scan(&out)
	if err == sql.ErrNoRows {
		err = nil
	}
	return out.String, err
}

func execute(t *testing.T, s *Server, statement string) {
	t.Helper()
	db, err := sql.Open("mysql", s.DSN("verjuice"))
	require.NoError(t, err)
	defer db.Close()
	_, err = db.ExecContext(t.Context(), statement)
	require.NoError(t, err)
}

// A whole life: made, stopped in order, killed, started again; nothing that was
// committed is lost, and nobody else gets in.
func TestDataOutlivesStopsAndKills(t *testing.T) {
	dir := t.TempDir()
	// A folder that was cut short while it was made is no hindrance.
	require.NoError(t, os.MkdirAll(filepath.Join(dir, "data.new", "mysql"), 0o700))

	s := start(t, dir)
	require.NoError(t, s.Create(t.Context(), "verjuice", false))
	execute(t, s, "CREATE TABLE salt (grams INT)")
	execute(t, s, "INSERT INTO salt VALUES (31)")
	first := s.DSN("verjuice")
	own, err := query(t, first, "SELECT @@tmpdir")
	require.NoError(t, err)
	assert.Equal(t, filepath.Join(dir, "tmp"), own, "another server that starts clears no table of this one away")

	_, err = Start(t.Context(), dir)
	assert.ErrorContains(t, err, "already running", "a second program on the same folder")

	stranger, err := mysql.ParseDSN(first)
	require.NoError(t, err)
	for _, change := range []func(){
		func() { stranger.Passwd = "guess" },
		func() { stranger.Passwd = "" },
		func() { stranger.User = "root" },
	} {
		change()
		_, err = query(t, stranger.FormatDSN(), "SELECT 1")
		assert.ErrorContains(t, err, "denied")
	}
	s.Stop()
	s.Stop() // twice is once

	s = start(t, dir)
	assert.NotEqual(t, first, s.DSN("verjuice"), "a new password at each start")
	execute(t, s, "INSERT INTO salt VALUES (11)")
	// Killed while nobody stops it, it is started again at the same address with the same password.
	same := s.DSN("verjuice")
	for range 2 {
		s.mu.Lock()
		killed := s.cmd.Process
		s.mu.Unlock()
		require.NoError(t, killed.Signal(syscall.SIGKILL))
		require.Eventually(t, func() bool {
			s.mu.Lock()
			again := s.cmd.Process != killed
			s.mu.Unlock()
			sum, err := query(t, same, "SELECT SUM(grams) FROM salt")
			return again && err == nil && sum == "42"
		}, 30*time.Second, 50*time.Millisecond, "it is back, with all that was committed")
	}
	s.Stop()
	select {
	case <-s.Ended():
	default:
		t.Error("stopped means that it has ended")
	}
	s.Stop()

	s = start(t, dir)
	sum, err := query(t, s.DSN("verjuice"), "SELECT SUM(grams) FROM salt")
	require.NoError(t, err)
	assert.Equal(t, "42", sum, "what was committed before the kill is there")
	require.NoError(t, s.Create(t.Context(), "verjuice", false))
	sum, _ = query(t, s.DSN("verjuice"), "SELECT SUM(grams) FROM salt")
	assert.Equal(t, "42", sum, "making it again changes nothing")
	require.NoError(t, s.Create(t.Context(), "verjuice", true))
	_, err = query(t, s.DSN("verjuice"), "SELECT SUM(grams) FROM salt")
	assert.Error(t, err, "emptied when asked to")
}

// A server that ended while the disk is full is not started again and again: it waits for room, and
// answers soon after there is some. It can be stopped while it waits; without room none is begun.
func TestAServerWithoutRoomWaits(t *testing.T) {
	var full atomic.Bool
	s, err := Start(t.Context(), t.TempDir(), Forgetful(), func(s *Server) {
		s.free = func() (uint64, bool) {
			if full.Load() {
				return starts - 1, true
			}
			return 1 << 40, true
		}
	})
	require.NoError(t, err)
	t.Cleanup(s.Stop)
	process := func() *os.Process {
		s.mu.Lock()
		defer s.mu.Unlock()
		return s.cmd.Process
	}
	for range 2 {
		full.Store(true)
		killed := process()
		require.NoError(t, killed.Signal(syscall.SIGKILL))
		assert.Never(t, func() bool { return process() != killed }, 6*pause, pause/2, "it waits")
		full.Store(false)
		require.Eventually(t, func() bool {
			one, err := query(t, s.DSN(""), "SELECT 1")
			return err == nil && one == "1"
		}, 20*time.Second, pause/4, "it is back")
	}
	full.Store(true)
	require.NoError(t, process().Signal(syscall.SIGKILL))
	s.Stop()
	<-s.Ended()
	_, err = Start(
		t.Context(),
		t.TempDir(),
		func(s *Server) { s.free = func() (uint64, bool) { return starts - 1, true } },
	)
	assert.ErrorContains(t, err, "make room, then start again")
}

func TestWhatCannotBeStartedSaysWhatToDo(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, os.MkdirAll(filepath.Join(dir, "data", "photographs"), 0o700))
	_, err := Start(t.Context(), dir)
	assert.ErrorContains(t, err, "is not a database: move it away")

	file := filepath.Join(t.TempDir(), "file")
	require.NoError(t, os.WriteFile(file, nil, 0o600))
	_, err = Start(t.Context(), file)
	assert.ErrorContains(t, err, "cannot be made")

	gone, cancel := context.WithCancel(t.Context())
	cancel()
	_, err = Start(gone, t.TempDir())
	assert.Error(t, err, "a start that is called off ends")
}
