package main

import (
	"bytes"
	"context"
	"io"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
	"verjuice/internal/book"
	"verjuice/internal/core/cook"
	"verjuice/internal/demo"
	"verjuice/internal/store"
	"verjuice/internal/testdb"
)

func TestMain(m *testing.M) {
	dir, err := os.MkdirTemp("", "verjuice-program-")
	if err != nil {
		panic(err)
	}
	built = filepath.Join(dir, "verjuice")
	code := testdb.Run(m)
	_ = os.RemoveAll(dir)
	os.Exit(code)
}

var (
	built string // where the program is, once it was built
	build = sync.OnceValues(
		func() ([]byte, error) { return exec.Command("go", "build", "-o", built, ".").CombinedOutput() },
	)
)

// program is the program as it is shipped.
func program(t *testing.T) string {
	t.Helper()
	out, err := build()
	require.NoError(t, err, string(out))
	return built
}

func bookOf(t *testing.T, db *store.Store) []byte {
	t.Helper()
	var out bytes.Buffer
	require.NoError(t, book.Write(t.Context(), db, &out, nil))
	return out.Bytes()
}

// A program that is killed while it takes a book in, or puts one in the place of what is on record, leaves
// the book as it was or as it was to be, and nothing between; another program with the same database reads
// on, and nothing half is left on the disk.
func TestKilledWithABook(t *testing.T) {
	dir := t.TempDir()
	file := filepath.Join(dir, "book.zip")
	require.NoError(t, os.WriteFile(file, bookOf(t, apptest.Store(t, apptest.Logbook)), 0o600))
	other := func(ctx context.Context, dsn string) error {
		db, err := store.Open(ctx, dsn)
		if err != nil {
			return err
		}
		defer db.Close()
		if err := demo.Load(ctx, db, apptest.Now); err != nil {
			return err
		}
		_, err = db.Cooks().Create(ctx, cook.Cook{Name: "Only here", Pieces: []cook.Piece{}})
		return err
	}
	r := rand.New(rand.NewPCG(26, 11))
	for _, what := range [][]string{{"import", file}, {"restore", file, "--yes"}} {
		begin := func() (*store.Store, *exec.Cmd) {
			dsn := testdb.Copy(t, "killed", other)
			db, err := store.Open(t.Context(), dsn)
			require.NoError(t, err)
			cmd := exec.Command(program(t), append(what, "--dsn", dsn)...)
			cmd.Dir = dir
			return db, cmd
		}
		db, cmd := begin()
		before := bookOf(t, db)
		out, err := cmd.CombinedOutput()
		require.NoError(t, err, string(out))
		// about; the database works, too
		whole := cmd.ProcessState.UserTime() + cmd.ProcessState.SystemTime() + 300*time.Millisecond
		after := bookOf(t, db)
		require.NotEqual(t, before, after)
		was, done := 0, 0
		for range 5 {
			db, cmd := begin()
			require.NoError(t, cmd.Start())
			ended := make(chan struct{})
			go func() { _ = cmd.Wait(); close(ended) }()
			select {
			case <-ended:
			case <-time.After(time.Duration((0.15 + 0.9*r.Float64()) * float64(whole))):
				_ = cmd.Process.Kill()
				<-ended
			}
			// The database has to notice that nobody is there any more.
			require.Eventually(t, func() bool {
				now := bookOf(t, db)
				_, _, err := db.Cooks().List(t.Context(), store.Query{Limit: 20})
				require.NoError(t, err)
				if bytes.Equal(now, before) {
					was++
					return true
				}
				if bytes.Equal(now, after) {
					done++
					return true
				}
				return false
			}, 10*time.Second, 100*time.Millisecond, "the book before or the book after")
			require.NoError(t, db.Close())
		}
		t.Logf("%s takes %s; killed five times: %d as before, %d as after", what[0], whole.Round(time.Millisecond), was, done)
		assert.Positive(t, was)
		require.NoError(t, db.Close())
	}
	cmd := exec.Command(program(t), "backup", "--dsn", testdb.Copy(t, "killed", other))
	cmd.Dir = dir
	out, err := cmd.CombinedOutput()
	require.NoError(t, err, string(out))
	left, err := filepath.Glob(filepath.Join(dir, "*", halves))
	require.NoError(t, err)
	assert.Empty(t, left, "halves of those that were killed are gone")
}

// What stands where a book is to be written is replaced only when it is a file; what another program left
// half written is removed, and what one is writing is not.
func TestWhereABookIsWritten(t *testing.T) {
	dir := t.TempDir()
	left, held := filepath.Join(dir, ".verjuice-1.half"), filepath.Join(dir, ".verjuice-2.half")
	for _, path := range []string{left, held, filepath.Join(dir, "precious")} {
		require.NoError(t, os.WriteFile(path, []byte("x"), 0o600))
	}
	writing, err := os.Open(held)
	require.NoError(t, err)
	defer writing.Close()
	require.NoError(t, syscall.Flock(int(writing.Fd()), syscall.LOCK_EX))
	write := func(w io.Writer) error { _, err := io.WriteString(w, "book"); return err }
	link, pipe := filepath.Join(dir, "link"), filepath.Join(dir, "pipe")
	require.NoError(t, os.Symlink(filepath.Join(dir, "precious"), link))
	require.NoError(t, syscall.Mkfifo(pipe, 0o600))
	for _, path := range []string{link, pipe, "/dev/null", dir} {
		require.ErrorContains(t, whole(path, write), "choose another name", path)
	}
	raw, err := os.ReadFile(filepath.Join(dir, "precious"))
	require.NoError(t, err)
	assert.Equal(t, "x", string(raw))
	require.NoError(t, whole(filepath.Join(dir, "book.zip"), write))
	assert.NoFileExists(t, left)
	assert.FileExists(t, held)
	_, _, err = opened(t.Context(), pipe)
	require.ErrorContains(t, err, "nothing was taken in")
}
