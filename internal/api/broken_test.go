package api

import (
	"errors"
	"testing"

	"github.com/danielgtaylor/huma/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/store"
)

// A record at which the program fails is an error of its own, in words; others are worked out.
func TestOneRecordThatCannotBeWorkedOut(t *testing.T) {
	var none []int
	_, err := guarded("a", func() (int, error) { return none[3], nil })
	require.ErrorIs(t, err, errBroken)
	assert.Contains(t, said(err), "Undo what was pressed last")
	var answered huma.StatusError
	require.True(t, errors.As(err, &answered))
	assert.Equal(t, 500, answered.GetStatus())
	got, err := guarded("b", func() (int, error) { return 7, nil })
	assert.NoError(t, err)
	assert.Equal(t, 7, got)
	_, err = guarded("c", func() (int, error) { return 0, errors.New("as it was") })
	assert.EqualError(t, err, "as it was")
	assert.Contains(t, said(store.ErrNotFound), "nothing on record")
	for full, text := range map[error]string{store.ErrReserve: "Less than 200 MB are free",
		store.ErrDiskFull: "The disk is full"} {
		require.True(t, errors.As(problemOf(full), &answered))
		assert.Equal(t, 507, answered.GetStatus())
		assert.Contains(t, said(full), text)
	}
}
