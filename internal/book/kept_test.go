package book_test

import (
	"compress/gzip"
	"database/sql"
	"io"
	"os"
	"testing"

	_ "github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/apptest"
	"verjuice/internal/core/cook"
	"verjuice/internal/store"
	"verjuice/internal/testclock"
	"verjuice/internal/testdb"
)

// A database and a book that were kept by the program as it was at the end of November 2026 still open,
// and hold the same: every cook-out, every reading, everything that was learnt.
func TestWhatWasKeptStillOpens(t *testing.T) {
	testclock.Undated(t)
	dsn := testdb.Empty(t)
	db, err := sql.Open("mysql", dsn+"?multiStatements=true")
	require.NoError(t, err)
	defer db.Close()
	packed, err := os.Open("testdata/december.sql.gz")
	require.NoError(t, err)
	defer packed.Close()
	dump, err := gzip.NewReader(packed)
	require.NoError(t, err)
	statements, err := io.ReadAll(dump)
	require.NoError(t, err)
	_, err = db.ExecContext(t.Context(), string(statements))
	require.NoError(t, err)
	opened, err := store.Open(t.Context(), dsn)
	require.NoError(t, err)
	defer opened.Close()

	file, err := os.ReadFile("testdata/december.zip")
	require.NoError(t, err)
	there := apptest.Store(t, apptest.Nothing)
	assert.EqualValues(t, 13264, taken(t, there, file).Added)
	assert.Equal(t, filesOf(t, written(t, opened)), filesOf(t, written(t, there)))
	cooks, _, err := opened.Cooks().List(t.Context(), store.Query{})
	require.NoError(t, err)
	assert.Len(t, cooks, 17)
	for _, c := range cooks {
		assert.NoError(t, opened.Cooks().Sound(t.Context(), c.ID, c.Doc), c.Doc.Name)
		var again cook.Cook = c.Doc
		_, err := opened.Cooks().Update(t.Context(), c.ID, c.Version, again)
		assert.NoError(t, err)
	}
	logged, total, err := opened.Logbook(t.Context(), store.Sought{Limit: 50})
	require.NoError(t, err)
	assert.EqualValues(t, 13, total)
	assert.NotEmpty(t, logged[0].Outcome.Pieces)
	lessons, err := opened.Lessons(t.Context())
	require.NoError(t, err)
	assert.Len(t, lessons.Book.Pits, 3)
}
