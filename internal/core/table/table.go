// Package table reads the small tables that ship inside the program.
//
//	for _, row := range table.Read(files, "cuts.csv") {
//		row["id"]
//	}
package table

import (
	"encoding/csv"
	"fmt"
	"io/fs"
	"strconv"
)

// Row is one line of a table, by column name.
type Row map[string]string

// Read returns the lines of the named CSV file, whose first line names the
// columns. The tables are part of the program, so a malformed one panics: it
// cannot pass the tests that load it.
func Read(files fs.FS, name string) []Row {
	f, err := files.Open(name)
	if err != nil {
		panic(err)
	}
	defer f.Close()
	records, err := csv.NewReader(f).ReadAll()
	if err != nil {
		panic(fmt.Sprintf("%s: %v", name, err))
	}
	rows := make([]Row, 0, len(records)-1)
	for _, rec := range records[1:] {
		r := Row{}
		for i, column := range records[0] {
			r[column] = rec[i]
		}
		rows = append(rows, r)
	}
	return rows
}

// Num returns the number in a column; it panics on a malformed one.
func (r Row) Num(column string) float64 {
	v, err := strconv.ParseFloat(r[column], 64)
	if err != nil {
		panic(fmt.Sprintf("%s of %v: %v", column, r, err))
	}
	return v
}

// Yes reports whether a column says yes; it panics when it says neither yes nor no.
func (r Row) Yes(column string) bool {
	if v := r[column]; v != "yes" && v != "no" {
		panic(fmt.Sprintf("%s of %v: neither yes nor no", column, r))
	}
	return r[column] == "yes"
}
