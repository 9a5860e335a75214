package exchange

import (
	"encoding/csv"
	"fmt"
	"io"
)

// Rows reads a table of CSV of which no row, however many lines it has, is longer than most bytes:
// a cell that is never closed would fill the memory.
type Rows struct {
	*csv.Reader
	from io.Reader
	most int64
	read int64 // bytes
	row  int64 // bytes that had been read when the last row was
}

// ahead is how much a table reads before it is asked.
const ahead = 64 << 10

// NewRows is a table to read.
func NewRows(from io.Reader, most int64) *Rows {
	r := &Rows{from: from, most: most}
	r.Reader = csv.NewReader(upTo{r})
	return r
}

// Read reads the next row, as csv.Reader does.
func (r *Rows) Read() ([]string, error) {
	begins := r.InputOffset()
	row, err := r.Reader.Read()
	r.row = r.read
	if err == nil && r.InputOffset()-begins > r.most {
		err = r.long()
	}
	return row, err
}

func (r *Rows) long() error { return fmt.Errorf("a row is longer than %d bytes", r.most) }

// upTo reads for a table, until a row is too long.
type upTo struct{ *Rows }

func (u upTo) Read(p []byte) (int, error) {
	if u.read-u.row > u.most+ahead {
		return 0, u.long()
	}
	n, err := u.from.Read(p)
	u.read += int64(n)
	return n, err
}
