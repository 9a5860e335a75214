package exchange

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
)

// columns of the CSV, in the order they are written. Files are read by the columns' names.
var columns = []string{"formula", "kind", "basis", "amount", "ingredient", "form", "id", "note", "tags"}

// risky are the first letters that a spreadsheet takes for a computation (OWASP, CSV injection).
const risky = "=+-@\t\r\n"

// Guard keeps a spreadsheet from computing a cell: it puts a mark before one that begins as a computation
// does, and before one that begins with that mark. A number stays one.
func Guard(cell string) string {
	if _, err := strconv.ParseFloat(cell, 64); cell == "" || err == nil && number.MatchString(cell) {
		return cell
	}
	if strings.ContainsRune(risky+"'", rune(cell[0])) {
		return "'" + cell
	}
	return cell
}

var number = regexp.MustCompile(`^-?[0-9.]+$`)

// Unguard is a cell as it was before Guard.
func Unguard(cell string) string {
	if len(cell) > 1 && cell[0] == '\'' && strings.ContainsRune(risky+"'", rune(cell[1])) {
		return cell[1:]
	}
	return cell
}

func writeCSV(fs []formula.Formula, k kitchen.Kitchen) ([]byte, error) {
	var out bytes.Buffer
	w := csv.NewWriter(&out)
	_ = w.Write(columns)
	for _, f := range fs {
		for _, r := range f.Rows {
			_ = w.Write([]string{
				Guard(f.Name),
				string(kindOr(f.Kind)),
				string(f.Basis),
				Guard(r.Parts),
				Guard(formula.RowName(r, k)),
				Guard(r.Form),
				Guard(r.Ingredient),
				Guard(f.Note),
				Guard(strings.Join(f.Tags, ";")),
			})
		}
	}
	w.Flush()
	return out.Bytes(), w.Error()
}

func readCSV(data []byte) ([]raw, error) {
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	r := csv.NewReader(bytes.NewReader(data))
	r.FieldsPerRecord = -1
	r.TrimLeadingSpace = true
	head, _, _ := bytes.Cut(data, []byte("\n"))
	for _, comma := range []rune{',', ';', '\t'} {
		if strings.Count(string(head), string(comma)) > strings.Count(string(head), string(r.Comma)) {
			r.Comma = comma
		}
	}
	at, err := csvColumns(r)
	if err != nil {
		return nil, err
	}
	var out []raw
	for place := map[string]int{}; ; {
		record, err := r.Read()
		if errors.Is(err, io.EOF) {
			return out, nil
		}
		if err != nil {
			return nil, csvError(err)
		}
		line, _ := r.FieldPos(0)
		here := fmt.Sprintf("line %d", line)
		cell := func(name string) string {
			i, ok := at[name]
			if !ok || i >= len(record) {
				return ""
			}
			return strings.TrimSpace(Unguard(record[i]))
		}
		if slices.ContainsFunc(record, func(s string) bool { return len(s) > maxCell }) {
			return nil, wrong(here, "a cell is longer than %d characters", maxCell)
		}
		if cell("ingredient") == "" && cell("id") == "" {
			if strings.TrimSpace(strings.Join(record, "")) == "" {
				continue
			}
			return nil, wrong(here, "the ingredient is missing")
		}
		name := cell("formula")
		if name == "" {
			name = "From a table"
		}
		i, seen := place[name]
		if !seen {
			if len(out) >= maxFormulas {
				return nil, wrong(here, "more than %d formulas in one file", maxFormulas)
			}
			i = len(out)
			place[name] = i
			out = append(
				out,
				raw{
					name:  name,
					kind:  cell("kind"),
					basis: cell("basis"),
					note:  cell("note"),
					place: here,
					tags:  csvTags(cell("tags")),
				},
			)
		}
		out[i].rows = append(out[i].rows, rawRow{
			amount: cell("amount"), id: cell("id"), name: cell("ingredient"), form: cell("form"),
			written: strings.Join([]string{cell("amount"), cell("ingredient"), cell("form")}, " "),
		})
	}
}

// csvColumns reads the first line: which column is where.
func csvColumns(r *csv.Reader) (map[string]int, error) {
	names, err := r.Read()
	if err != nil {
		return nil, csvError(err)
	}
	at := map[string]int{}
	for i, n := range names {
		at[strings.ToLower(strings.TrimSpace(n))] = i
	}
	if _, ok := at["ingredient"]; !ok {
		return nil, wrong("line 1", "this is neither JSON nor a table with the columns amount and ingredient")
	}
	if _, ok := at["amount"]; !ok {
		return nil, wrong("line 1", "the column amount is missing")
	}
	return at, nil
}

// csvTags reads tags between semicolons.
func csvTags(cell string) []string {
	var out []string
	for _, t := range strings.Split(cell, ";") {
		if t = strings.TrimSpace(t); t != "" {
			out = append(out, t)
		}
	}
	return out
}

func csvError(err error) error {
	var at *csv.ParseError
	if errors.As(err, &at) {
		return wrong(fmt.Sprintf("line %d", at.Line), "this is not a proper table: %v", at.Err)
	}
	return wrong("line 1", "this is not a table")
}
