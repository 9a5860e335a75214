// Package doctable holds tables in documents to what the program says.
//
//	doctable.Holds(t, "../../docs/models.md", []string{"| cut | hours |", "|---|---|", "| brisket | 10.5 |"})
package doctable

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Holds fails unless the document has these rows as they are; the first is the head by which
// the table is found. With VERJUICE_WRITE=1 it writes them instead.
func Holds(t testing.TB, file string, rows []string) {
	t.Helper()
	raw, err := os.ReadFile(file)
	require.NoError(t, err)
	doc, want := string(raw), strings.Join(rows, "\n")
	from := strings.Index(doc, rows[0])
	require.Positive(t, from, "the table %q is in %s", rows[0], file)
	to := min(len(doc), from+strings.Index(doc[from:]+"\n\n", "\n\n"))
	if os.Getenv("VERJUICE_WRITE") != "" {
		require.NoError(t, os.WriteFile(file, []byte(doc[:from]+want+doc[to:]), 0o644))
		return
	}
	assert.Equal(t, want, strings.TrimSpace(doc[from:to]), "VERJUICE_WRITE=1 writes it anew")
}
