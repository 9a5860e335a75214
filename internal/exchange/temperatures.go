package exchange

import (
	"bytes"
	"encoding/csv"
	"errors"
	"io"
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

	head bool
	rows [][]string
}

// TableColumn is a column of such a file.
type TableColumn struct {
	Name   string   `json:"name"`
	Sample []string `json:"sample" nullable:"false" doc:"The first values"`
	Holds  string   `json:"holds" enum:"time,elapsed,temperature,other" doc:"What it seems to hold"`
}

// Bounds of a file of temperatures.
const (
	mostTableRows    = 200_000
	mostTableColumns = 40
	samples          = 3
)

// ReadTable reads a file of temperatures: CSV with comma, semicolon or tab, with a line of names or
// without. The error is an Error.
func ReadTable(data []byte) (Table, error) {
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	first, _, _ := bytes.Cut(data, []byte("\n"))
	r := csv.NewReader(bytes.NewReader(data))
	r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = -1, true, true
	for _, comma := range []rune{';', '\t'} {
		if strings.Count(string(first), string(comma)) > strings.Count(string(first), ",") {
			r.Comma = comma
		}
	}
	var t Table
	for n := 1; ; n++ {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil || len(row) > mostTableColumns {
			return t, Error{"line " + strconv.Itoa(n), "this line is no row of a table"}
		}
		if len(t.rows) >= mostTableRows {
			return t, Error{"line " + strconv.Itoa(n), "a file has at most " + strconv.Itoa(mostTableRows) + " rows: divide it"}
		}
		if strings.TrimSpace(strings.Join(row, "")) != "" {
			t.rows = append(t.rows, row)
		}
	}
	if len(t.rows) == 0 || len(t.rows[0]) < 2 {
		return t, Error{"line 1", "this is no table of temperatures: it needs a column of times and one of temperatures"}
	}
	t.head = !slices.ContainsFunc(t.rows[0], func(cell string) bool { return holds(cell) == "temperature" || holds(cell) == "time" })
	t.guess()
	return t, nil
}

// body are the rows without the line of names.
func (t Table) body() [][]string {
	if t.head {
		return t.rows[1:]
	}
	return t.rows
}

var (
	elapsed = regexp.MustCompile(`^(\d{1,3}):(\d{2})(?::(\d{2}))?$`)
	slashed = regexp.MustCompile(`^(\d{1,2})[/.\-](\d{1,2})[/.\-](\d{2,4})[ T,]+(\d{1,2}):(\d{2})(?::(\d{2}))?\s*([AaPp][Mm])?$`)
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
	v, err := degrees(cell)
	switch {
	case err != nil:
		return "other"
	case v > 1e8:
		return "time" // seconds since 1970
	}
	return "temperature"
}

// degrees is a number with its sign, and with a decimal comma or point.
func degrees(cell string) (float64, error) {
	cell = strings.TrimRight(strings.TrimSpace(cell), "°CFcf ")
	return strconv.ParseFloat(strings.ReplaceAll(cell, ",", "."), 64)
}

// guess says what each column seems to hold.
func (t *Table) guess() {
	body := t.body()
	t.Rows = len(body)
	hottest, dayFirst, monthFirst := 0.0, false, false
	for c := range t.rows[0] {
		col := TableColumn{Name: "column " + strconv.Itoa(c+1), Sample: []string{}, Holds: "other"}
		if t.head {
			col.Name = clipCell(t.rows[0][c])
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
			if v, err := degrees(row[c]); what == "temperature" && err == nil {
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
	t.Fahrenheit = hottest > 160 || strings.Contains(strings.ToLower(strings.Join(t.rows[0], " ")), "°f") || strings.Contains(strings.ToLower(strings.Join(t.rows[0], " ")), "(f)")
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
}

// Gap is a stretch in which nothing was read.
type Gap struct{ From, To time.Time }

// longGap is from which on a stretch without readings is told.
const longGap = 10 * time.Minute

// Readings are those of a table, in the order of time, with the stretches in which nothing was read,
// and how many cells were empty or no temperature. Rows whose time cannot be read are an Error.
func (t Table) Readings(as As) (out []facts.Reading, gaps []Gap, skipped int, err error) {
	for n, row := range t.body() {
		line := n + 1
		if t.head {
			line++
		}
		if as.Time < 0 || as.Time >= len(row) {
			skipped++
			continue
		}
		at, ok := moment(strings.TrimSpace(row[as.Time]), as)
		if !ok || !facts.CanBe(at) {
			return nil, nil, 0, Error{"line " + strconv.Itoa(line), "“" + clipCell(row[as.Time]) + "” is no time"}
		}
		for c, probe := range as.Probes {
			if c >= len(row) {
				skipped++
				continue
			}
			v, err := degrees(row[c])
			if err != nil {
				skipped++
				continue
			}
			if as.Fahrenheit {
				v = (v - 32) / 1.8
			}
			if v < facts.LowRead || v > facts.HighRead {
				skipped++
				continue
			}
			out = append(out, facts.Reading{Probe: probe, At: at, C: quantity.Celsius(v)})
		}
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
func moment(cell string, as As) (time.Time, bool) {
	for _, layout := range []string{time.RFC3339Nano, "2006-01-02T15:04:05", "2006-01-02 15:04:05", "2006-01-02 15:04", "2006-01-02T15:04"} {
		if t, err := time.ParseInLocation(layout, cell, as.Zone); err == nil {
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
		d := time.Duration(number(m[1]))*time.Hour + time.Duration(number(m[2]))*time.Minute + time.Duration(number(m[3]))*time.Second
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
