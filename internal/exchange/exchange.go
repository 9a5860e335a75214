// Package exchange reads and writes formulas in open formats: this program's own
// documented JSON, schema.org Recipe as JSON-LD, and CSV (docs/formats.md).
//
//	found, err := exchange.Read(data, kitchen)
//	data, err := exchange.Write(formulas, exchange.CSV, k)
//
// Nothing is dropped on reading: a line whose ingredient is not known comes back
// as a row without one, with what was written, for the cook to answer. What cannot
// be read is an Error with its line or its path.
package exchange

import (
	"bytes"
	"fmt"
	"maps"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/larder"
)

// Format is one of the formats.
type Format string

// The formats.
const (
	JSON Format = "json"
	LD   Format = "jsonld"
	CSV  Format = "csv"
)

// Limits on a file.
const (
	MaxBytes    = 1 << 20
	maxFormulas = 200
	maxCell     = 2000
)

// Error is a file that cannot be used: where, and why.
type Error struct {
	Place  string // "line 4" or "$.formulas[0].rows"; empty for the whole file
	Detail string
}

// Error implements error.
func (e Error) Error() string {
	if e.Place == "" {
		return e.Detail
	}
	return e.Place + ": " + e.Detail
}

func wrong(place, format string, args ...any) error {
	return Error{Place: place, Detail: fmt.Sprintf(format, args...)}
}

// Found is a formula read from a file.
type Found struct {
	Formula formula.Formula `json:"formula" doc:"Rows that use another formula of the file name it file-0, file-1 and so on"`
	Asks    []Ask           `json:"asks" nullable:"false" doc:"Rows that the cook has to answer for"`
}

// Ask is a row whose ingredient or amount the reader could not place.
type Ask struct {
	Row     int      `json:"row" doc:"From 0"`
	Written string   `json:"written" doc:"What stands in the file"`
	Why     string   `json:"why"`
	Maybe   []Choice `json:"maybe" nullable:"false" doc:"What it may be"`
}

// Choice is an ingredient in a form.
type Choice struct {
	Ingredient string `json:"ingredient"`
	Form       string `json:"form"`
	Name       string `json:"name"`
}

// known is what a line of a file may be: ingredients, and formulas by name.
type known struct {
	ingredients []larder.Ingredient
	formulas    map[string]string // id by lower-case name
}

// knownIn is what a kitchen knows, with what ships with the program.
func knownIn(k kitchen.Kitchen) known {
	p := known{ingredients: larder.All(), formulas: map[string]string{}}
	for _, id := range slices.Sorted(maps.Keys(k.Ingredients)) {
		p.ingredients = append(p.ingredients, k.Ingredients[id])
	}
	for _, f := range formula.ReadyMade() {
		p.formulas[strings.ToLower(f.Name)] = f.ID
	}
	for _, id := range slices.Sorted(maps.Keys(k.Formulas)) {
		p.formulas[strings.ToLower(k.Formulas[id].Name)] = id
	}
	return p
}

// raw is a formula as a file has it.
type raw struct {
	name, kind, note, basis string
	tags                    []string
	rows                    []rawRow
	place                   string
}

type rawRow struct {
	amount, id, name, form string
	written                string
}

// FilePrefix marks the id of a formula that is in the same file.
const FilePrefix = "file-"

// Read reads the formulas of a file, whichever of the formats it is in; rows may be
// what the kitchen has. The error is an Error.
func Read(data []byte, k kitchen.Kitchen) ([]Found, error) {
	if len(data) > MaxBytes {
		return nil, wrong("", "the file is larger than a megabyte; a formula is a few hundred bytes")
	}
	data = bytes.TrimPrefix(data, []byte("\ufeff"))
	if !utf8.Valid(data) {
		return nil, wrong(invalidLine(data), "this is not text in UTF-8")
	}
	text := bytes.TrimSpace(data)
	var raws []raw
	var err error
	switch {
	case len(text) == 0:
		return nil, wrong("", "the file is empty")
	case text[0] == '{' || text[0] == '[':
		raws, err = readJSON(data)
	default:
		raws, err = readCSV(data)
	}
	if err != nil {
		return nil, err
	}
	if len(raws) == 0 {
		return nil, wrong("", "there is no formula in it")
	}
	if len(raws) > maxFormulas {
		return nil, wrong("", "more than %d formulas in one file", maxFormulas)
	}
	return place(raws, knownIn(k))
}

func invalidLine(data []byte) string {
	line := 1
	for len(data) > 0 {
		r, size := utf8.DecodeRune(data)
		if r == utf8.RuneError && size <= 1 {
			break
		}
		if r == '\n' {
			line++
		}
		data = data[size:]
	}
	return fmt.Sprintf("line %d", line)
}

// Write writes formulas, and those that they use, in a format.
func Write(fs []formula.Formula, as Format, k kitchen.Kitchen) ([]byte, error) {
	all, err := gather(fs, k)
	if err != nil {
		return nil, err
	}
	switch as {
	case JSON:
		return writeJSON(all, k)
	case LD:
		return writeLD(all, k)
	case CSV:
		return writeCSV(all, k)
	}
	return nil, wrong("", "json, jsonld or csv")
}

// gather returns fs and the formulas they use, the used before the users, each
// once.
func gather(fs []formula.Formula, k kitchen.Kitchen) ([]formula.Formula, error) {
	var out []formula.Formula
	seen := map[string]bool{}
	var add func(f formula.Formula, depth int) error
	add = func(f formula.Formula, depth int) error {
		if f.ID != "" && seen[f.ID] {
			return nil
		}
		if depth > 8 || len(out) >= maxFormulas {
			return wrong("", "%s uses too many formulas inside formulas", f.Name)
		}
		if f.ID != "" {
			seen[f.ID] = true
		}
		for _, r := range f.Rows {
			if r.Formula == "" {
				continue
			}
			used, ok := formula.Find(r.Formula, k)
			if !ok {
				return wrong("", "a formula that %s uses is gone", f.Name)
			}
			if err := add(used, depth+1); err != nil {
				return err
			}
		}
		out = append(out, f)
		return nil
	}
	for _, f := range fs {
		if err := add(f, 0); err != nil {
			return nil, err
		}
	}
	return out, nil
}

func kindOr(k formula.Kind) formula.Kind {
	if k == "" {
		return formula.Rub
	}
	return k
}

// oneLine keeps a name to one line, without anything that would begin another in a file of
// lines.
func oneLine(s string) string {
	return strings.Join(
		strings.FieldsFunc(s, func(r rune) bool { return unicode.IsSpace(r) || unicode.IsControl(r) }),
		" ",
	)
}
