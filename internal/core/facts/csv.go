package facts

import (
	"encoding/csv"
	"errors"
	"io"
	"strings"

	"verjuice/internal/core/field"
)

// ReadCSV reads readings from lines of probe, time and temperature, as ReadingSent has them. A first
// line that names the columns may put them in another order. The error is a field.Errors.
func ReadCSV(r io.Reader) ([]ReadingSent, error) {
	lines := csv.NewReader(r)
	lines.TrimLeadingSpace, lines.ReuseRecord, lines.FieldsPerRecord = true, true, -1
	column := map[string]int{"probe": 0, "at": 1, "temperature": 2}
	var out []ReadingSent
	var errs field.Errors
	for n := 0; ; n++ {
		line, err := lines.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			errs.Add("", "reading.csv", "line", n+1)
			return nil, errs
		}
		if n == 0 && len(line) > 0 {
			line[0] = strings.TrimPrefix(line[0], "\ufeff")
		}
		if n == 0 && named(line) {
			column = map[string]int{}
			for i, name := range line {
				column[strings.ToLower(strings.TrimSpace(name))] = i
			}
			continue
		}
		cell := func(name string) string {
			if i, ok := column[name]; ok && i < len(line) {
				return strings.TrimSpace(line[i])
			}
			return ""
		}
		if out = append(out, ReadingSent{Probe: cell("probe"), At: cell("at"), Typed: cell("temperature")}); len(
			out,
		) > MostRead {
			errs.Add("/readings", "reading.count", "most", MostRead)
			return nil, errs
		}
	}
	return out, errs.Err()
}

// named reports whether a line names the columns.
func named(line []string) bool {
	for _, cell := range line {
		if strings.EqualFold(strings.TrimSpace(cell), "temperature") {
			return true
		}
	}
	return false
}
