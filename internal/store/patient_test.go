package store

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"

	"verjuice/internal/testclock"
)

// A request waits no longer than a cook would; a whole book, what replaces one, and thinning take as
// long as they take.
func TestLongWorkIsWaitedFor(t *testing.T) {
	testclock.Once(t)
	s, err := Open(t.Context(), migrated(t)+"?readTimeout=150ms")
	require.NoError(t, err)
	defer s.Close()
	slow := func(db *gorm.DB) error { return db.WithContext(t.Context()).Exec("DO SLEEP(0.5)").Error }
	assert.True(t, Away(slow(s.db)), "it is given up")
	assert.NoError(t, slow(s.Patient().db))
	require.NoError(t, s.Patient().Together(t.Context(), func(within *Store) error {
		assert.NoError(t, slow(within.db))
		assert.NoError(t, slow(within.Patient().db), "and stays in its transaction")
		return within.empty(t.Context())
	}))
}
