package table_test

import (
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/core/table"
)

// A table is read by its columns; one that is malformed does not pass unseen.
func TestTables(t *testing.T) {
	files := fstest.MapFS{
		"good.csv": {Data: []byte("id,name,kg\na,\"flat, thin\",1.5\nb,point,-2e3\n")},
		"bad.csv":  {Data: []byte("id,name\na,b,c\n")},
	}
	rows := table.Read(files, "good.csv")
	assert.Len(t, rows, 2)
	assert.Equal(t, "flat, thin", rows[0]["name"])
	assert.Equal(t, 1.5, rows[0].Num("kg"))
	assert.Equal(t, -2000.0, rows[1].Num("kg"))
	assert.Panics(t, func() { rows[0].Num("name") })
	assert.Panics(t, func() { table.Read(files, "bad.csv") })
	assert.Panics(t, func() { table.Read(files, "none.csv") })
}
