package store

import (
	"testing"

	"github.com/go-sql-driver/mysql"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/testdb"
)

// A deadlock undoes all of a transaction, so all of it is tried again: a write within it is never tried by
// itself, which would leave it there without the rest. By itself it is.
func TestADeadlockEndsTheWholeTransaction(t *testing.T) {
	db, err := Open(t.Context(), testdb.Empty(t))
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close() })
	dead := &mysql.MySQLError{Number: errDeadlock}
	outer, inner := 0, 0
	err = db.Together(t.Context(), func(in *Store) error {
		outer++
		return again(in.db, func() error {
			inner++
			if inner < 3 {
				return dead
			}
			return nil
		})
	})
	require.NoError(t, err)
	assert.Equal(t, []int{3, 3}, []int{outer, inner})
	tries := 0
	require.NoError(t, again(db.db, func() error {
		if tries++; tries < 4 {
			return dead
		}
		return nil
	}))
	assert.Equal(t, 4, tries)
}
