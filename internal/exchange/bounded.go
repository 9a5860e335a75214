package exchange

import (
	"encoding/csv"
	"fmt"
	"io"
)

// Rows reads a table of CSV of which no row, however many lines it has, may be longer than about most
// bytes: a cell that is never closed would fill the memory.
func Rows(from io.Reader, most int64) *csv.Reader {
	b := &bounded{from: from, most: most}
	b.table = csv.NewReader(b)
	return b.table
}

type bounded struct {
	from  io.Reader
	table *csv.Reader
	most  int64
	read  int64
}

// ahead is how much a table reads before it is asked.
const ahead = 64 << 10

func (b *bounded) Read(p []byte) (int, error) {
	if b.read-b.table.InputOffset() > b.most+ahead {
		return 0, fmt.Errorf("a row is longer than %d bytes", b.most)
	}
	n, err := b.from.Read(p)
	b.read += int64(n)
	return n, err
}
