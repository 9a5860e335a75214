package exchange

import (
	"context"
	"errors"
	"fmt"
	"io"
	"maps"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
)

// Table is a file of temperatures from elsewhere, as it is: its columns and what they seem to hold.
type Table struct {
	Columns    []TableColumn `json:"columns" nullable:"false"`
	Rows       int           `json:"rows"`
	Fahrenheit bool          `json:"fahrenheit" doc:"The temperatures seem to be in °F"`
	MonthFirst bool          `json:"month_first" doc:"Dates seem to have the month before the day"`
	Asks       bool          `json:"asks_order" doc:"Which of the two comes first cannot be told from the dates"`

	text  string
	comma rune
	head  bool
}

// TableColumn is a column of such a file.
type TableColumn struct {
	Name   string   `json:"name"`
	Sample []string `json:"sample" nullable:"false" doc:"The first values"`
	Holds  string   `json:"holds" enum:"time,elapsed,temperature,other" doc:"What it seems to hold"`
}

// MostTable is how large a file of temperatures may be, in bytes.
const MostTable = 32 << 20

// Other bounds of such a file.
const (
	mostTableRows    = facts.MostReadings
	mostTableColumns = 40
	mostTableRow     = 64 << 10 // bytes
	samples          = 3
	guessedFrom      = 4000 // rows, from all over the file, by which it is told what a column holds
)

// ReadTable looks at a file of temperatures: CSV with comma, semicolon or tab, with a line of names or
// without. The error is an Error, or that of ctx.
func ReadTable(ctx context.Context, text string) (Table, error) {
	t := Table{text: strings.TrimPrefix(text, "\ufeff"), comma: ','}
	if len(text) > MostTable {
		return t, Error{"line 1", fmt.Sprintf("a file has at most %d MB: divide it", MostTable>>20)}
	}
	first, _, _ := strings.Cut(t.text, "\n")
	for _, comma := range []rune{';', '\t'} {
		if strings.Count(first, string(comma)) > strings.Count(first, ",") {
			t.comma = comma
		}
	}
	every := 1 + strings.Count(t.text, "\n")/guessedFrom
	var sample [][]string
	err := t.each(ctx, func(n int, row []string) error {
		if n == 0 && len(row) < 2 {
			return Error{"line 1", noTable}
		}
		if t.Rows++; n < 10 || n%every == 0 {
			sample = append(sample, slices.Clone(row))
		}
		return nil
	})
	if err == nil && t.Rows == 0 {
		err = Error{"line 1", noTable}
	}
	if err != nil {
		return t, err
	}
	if t.head = !slices.ContainsFunc(sample[0],
		func(cell string) bool { return holds(cell) == "temperature" || holds(cell) == "time" }); t.head {
		t.Rows--
	}
	t.guess(sample)
	return t, nil
}

const noTable = "this is no table of temperatures: it needs a column of times and one of temperatures"

// each gives the rows that are not empty, one after another; the slice is used again for the next.
func (t Table) each(ctx context.Context, do func(n int, row []string) error) error {
	r := NewRows(strings.NewReader(t.text), mostTableRow)
	r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace, r.ReuseRecord, r.Comma = -1, true, true, true, t.comma
	for n, line := 0, 1; ; line++ {
		if line%10_000 == 0 && ctx.Err() != nil {
			return ctx.Err()
		}
		row, err := r.Read()
		switch {
		case errors.Is(err, io.EOF):
			return nil
		case err != nil || len(row) > mostTableColumns:
			return Error{"line " + strconv.Itoa(line), "this line cannot be read as a table row"}
		case n > mostTableRows:
			return Error{"line " + strconv.Itoa(line), fmt.Sprintf("a file has at most %d rows: divide it", mostTableRows)}
		case !slices.ContainsFunc(row, func(cell string) bool { return strings.TrimSpace(cell) != "" }):
			continue
		}
		if err := do(n, row); err != nil {
			return err
		}
		n++
	}
}

var (
	elapsed = regexp.MustCompile(`^(\d{1,3}):(\d{2})(?::(\d{2}))?$`)
	slashed = regexp.MustCompile(
		`^(\d{1,2})[/.\-](\d{1,2})[/.\-](\d{2,4})[ T,]+(\d{1,2}):(\d{2})(?::(\d{2}))?\s*([AaPp][Mm])?$`,
	)
	isoLike = regexp.MustCompile(`^\d{4}-\d{2}-\d{2}[ T]\d{1,2}:\d{2}`)
)

// holds is what a cell seems to hold.
func holds(cell string) string {
	cell = strings.TrimSpace(cell)
	switch {
	case isoLike.MatchString(cell), slashed.MatchString(cell):
		return "time"
	case elapsed.MatchString(cell):
		return "elapsed"
	}
	v, ok := degrees(cell)
	switch {
	case !ok:
		return "other"
	case v > 1e8:
		return "time" // seconds since 1970
	}
	return "temperature"
}

// degrees is a number with its sign, and with a decimal comma or point.
func degrees(cell string) (float64, bool) {
	cell = strings.TrimRight(strings.TrimSpace(cell), "°CFcf ")
	v, err := strconv.ParseFloat(strings.ReplaceAll(cell, ",", "."), 64)
	return v, err == nil && !math.IsNaN(v) && !math.IsInf(v, 0)
}

// guess says what each column seems to hold, by some rows of the file.
func (t *Table) guess(rows [][]string) {
	body := rows
	if t.head {
		body = rows[1:]
	}
	hottest, dayFirst, monthFirst := 0.0, false, false
	for c := range rows[0] {
		col := TableColumn{Name: "column " + strconv.Itoa(c+1), Sample: []string{}, Holds: "other"}
		if t.head {
			col.Name = clipCell(Unguard(rows[0][c]))
		}
		count := map[string]int{}
		for _, row := range body {
			if c >= len(row) || strings.TrimSpace(row[c]) == "" {
				continue
			}
			what := holds(row[c])
			count[what]++
			if len(col.Sample) < samples {
				col.Sample = append(col.Sample, clipCell(row[c]))
			}
			if v, ok := degrees(row[c]); what == "temperature" && ok {
				hottest = max(hottest, v)
			}
			if m := slashed.FindStringSubmatch(strings.TrimSpace(row[c])); m != nil {
				a, _ := strconv.Atoi(m[1])
				b, _ := strconv.Atoi(m[2])
				dayFirst, monthFirst = dayFirst || a > 12, monthFirst || b > 12
			}
		}
		for _, what := range []string{"time", "elapsed", "temperature"} {
			if n := count[what]; n > 0 && 10*n >= 9*(count["time"]+count["elapsed"]+count["temperature"]+count["other"]) {
				col.Holds = what
			}
		}
		t.Columns = append(t.Columns, col)
	}
	t.Fahrenheit = hottest > 160 || strings.Contains(strings.ToLower(strings.Join(rows[0], " ")), "°f") ||
		strings.Contains(strings.ToLower(strings.Join(rows[0], " ")), "(f)")
	t.MonthFirst = monthFirst && !dayFirst
	t.Asks = !monthFirst && !dayFirst && slices.ContainsFunc(body, func(row []string) bool {
		return slices.ContainsFunc(row, func(c string) bool { return slashed.MatchString(strings.TrimSpace(c)) })
	})
}

func clipCell(s string) string {
	if r := []rune(strings.TrimSpace(s)); len(r) > 40 {
		return string(r[:40])
	}
	return strings.TrimSpace(s)
}

// As says how a table is to be read.
type As struct {
	Time       int            `json:"time" doc:"The column of times, from 0"`
	Probes     map[int]string `json:"-"`
	Fahrenheit bool           `json:"fahrenheit"`
	MonthFirst bool           `json:"month_first"`
	Zone       *time.Location `json:"-"`
	Start      time.Time      `json:"-"` // of times that count from the beginning
	layout     int            // of layouts, in which the last time was
}

// layouts are how a file may write a day and a time.
var layouts = []string{
	time.RFC3339Nano,
	"2006-01-02T15:04:05",
	"2006-01-02 15:04:05",
	"2006-01-02 15:04",
	"2006-01-02T15:04",
}

// Gap is a stretch in which nothing was read.
type Gap struct{ From, To time.Time }

// longGap is from which on a stretch without readings is told.
const longGap = 10 * time.Minute

// Readings are those of a table, in the order of time, with the stretches in which nothing was read,
// and how many cells were empty or no temperature. Rows whose time cannot be read are an Error, and so
// are more readings than a cook holds.
func (t Table) Readings(ctx context.Context, as As) (out []facts.Reading, gaps []Gap, skipped int, err error) {
	columns := slices.Sorted(maps.Keys(as.Probes))
	err = t.each(ctx, func(n int, row []string) error {
		if t.head && n == 0 {
			return nil
		}
		if as.Time < 0 || as.Time >= len(row) {
			skipped++
			return nil
		}
		at, ok := moment(strings.TrimSpace(row[as.Time]), &as)
		if !ok || !facts.CanBe(at) {
			return Error{"line " + strconv.Itoa(n+1), "“" + clipCell(row[as.Time]) + "” is no time"}
		}
		for _, c := range columns {
			v, ok := 0.0, false
			if c < len(row) {
				v, ok = degrees(row[c])
			}
			if as.Fahrenheit {
				v = (v - 32) / 1.8
			}
			if !ok || v < facts.LowRead || v > facts.HighRead {
				skipped++
				continue
			}
			out = append(out, facts.Reading{Probe: as.Probes[c], At: at, C: quantity.Celsius(v)})
		}
		if len(out) > facts.MostReadings {
			return Error{
				"line " + strconv.Itoa(n+1),
				fmt.Sprintf("a cook-out holds at most %d readings: leave columns out, or divide the file", facts.MostReadings),
			}
		}
		return nil
	})
	if err != nil {
		return nil, nil, 0, err
	}
	slices.SortStableFunc(out, func(a, b facts.Reading) int {
		if d := a.At.Compare(b.At); d != 0 {
			return d
		}
		return strings.Compare(a.Probe, b.Probe)
	})
	for i := 1; i < len(out); i++ {
		if out[i].At.Sub(out[i-1].At) > longGap {
			gaps = append(gaps, Gap{out[i-1].At, out[i].At})
		}
	}
	return out, gaps, skipped, nil
}

// moment reads a time as files have it: an ISO time, a date with slashes, seconds or milliseconds
// since 1970, or a count from the beginning.
func moment(cell string, as *As) (time.Time, bool) {
	for i := range layouts {
		layout := (as.layout + i) % len(layouts) // that of the row before is tried first
		if t, err := time.ParseInLocation(layouts[layout], cell, as.Zone); err == nil {
			as.layout = layout
			return t, true
		}
	}
	number := func(s string) int {
		n, _ := strconv.Atoi(s)
		return n
	}
	if m := slashed.FindStringSubmatch(cell); m != nil {
		day, month, year, hour := number(m[1]), number(m[2]), number(m[3]), number(m[4])
		if as.MonthFirst {
			day, month = month, day
		}
		if year < 100 {
			year += 2000
		}
		switch strings.ToLower(m[7]) {
		case "pm":
			hour = hour%12 + 12
		case "am":
			hour %= 12
		}
		if month < 1 || month > 12 || day < 1 || day > 31 || hour > 23 || number(m[5]) > 59 {
			return time.Time{}, false
		}
		t := time.Date(year, time.Month(month), day, hour, number(m[5]), number(m[6]), 0, as.Zone)
		return t, t.Day() == day
	}
	if m := elapsed.FindStringSubmatch(cell); m != nil && !as.Start.IsZero() {
		d := time.Duration(
			number(m[1]),
		)*time.Hour + time.Duration(
			number(m[2]),
		)*time.Minute + time.Duration(
			number(m[3]),
		)*time.Second
		return as.Start.Add(d), true
	}
	if v, err := strconv.ParseFloat(cell, 64); err == nil {
		switch {
		case v > 1e11 && v < 1e14:
			return time.UnixMilli(int64(v)).UTC(), true
		case v > 1e8 && v < 1e11:
			return time.Unix(int64(v), 0).UTC(), true
		case !as.Start.IsZero() && v >= 0 && v < 1e7: // seconds from the beginning
			return as.Start.Add(time.Duration(v * float64(time.Second))), true
		}
	}
	return time.Time{}, false
}
