package exchange

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"strings"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
)

// formatName and formatVersion are in every file of our own JSON.
const (
	formatName    = "verjuice-formulas"
	formatVersion = 1
)

type file struct {
	Format   string        `json:"format"`
	Version  int           `json:"version"`
	Formulas []fileFormula `json:"formulas"`
}

type fileFormula struct {
	Name  string    `json:"name"`
	Kind  string    `json:"kind,omitempty"`
	Note  string    `json:"note,omitempty"`
	Tags  []string  `json:"tags,omitempty"`
	Basis string    `json:"basis"`
	Rows  []fileRow `json:"rows"`
}

type fileRow struct {
	Amount     string `json:"amount"`
	Ingredient string `json:"ingredient,omitempty"`
	Name       string `json:"name,omitempty"`
	Form       string `json:"form,omitempty"`
	Formula    string `json:"formula,omitempty"`
}

func writeJSON(fs []formula.Formula, k kitchen.Kitchen) ([]byte, error) {
	out := file{Format: formatName, Version: formatVersion, Formulas: []fileFormula{}}
	for _, f := range fs {
		one := fileFormula{
			Name:  f.Name,
			Kind:  string(kindOr(f.Kind)),
			Note:  f.Note,
			Tags:  f.Tags,
			Basis: string(f.Basis),
			Rows:  []fileRow{},
		}
		for _, r := range f.Rows {
			row := fileRow{Amount: r.Parts, Ingredient: r.Ingredient, Form: r.Form}
			if name := formula.RowName(r, k); r.Formula != "" {
				row.Formula = name
			} else {
				row.Name = name
			}
			one.Rows = append(one.Rows, row)
		}
		out.Formulas = append(out.Formulas, one)
	}
	return indented(out)
}

// indented is v as JSON that a person can read.
func indented(v any) ([]byte, error) {
	var out bytes.Buffer
	enc := json.NewEncoder(&out)
	enc.SetIndent("", "  ")
	enc.SetEscapeHTML(false)
	err := enc.Encode(v)
	return out.Bytes(), err
}

// readJSON tells our own JSON from a recipe's, and reads it.
func readJSON(data []byte) ([]raw, error) {
	var top any
	if err := json.Unmarshal(data, &top); err != nil {
		return nil, jsonError(data, err)
	}
	if object, ok := top.(map[string]any); !ok || object["format"] == nil {
		return readLD(top)
	}
	var f file
	if err := json.Unmarshal(data, &f); err != nil {
		return nil, jsonError(data, err)
	}
	if f.Format != formatName {
		return nil, wrong("$.format", "“%s” is not a format that is known here", clip(f.Format))
	}
	if f.Version != formatVersion {
		return nil, wrong("$.version", "version %d is newer than this program, which reads %d", f.Version, formatVersion)
	}
	var out []raw
	for i, one := range f.Formulas {
		r := raw{
			name:  one.Name,
			kind:  one.Kind,
			note:  one.Note,
			basis: one.Basis,
			tags:  one.Tags,
			place: fmt.Sprintf("$.formulas[%d].rows", i),
		}
		if strings.TrimSpace(one.Name) == "" {
			return nil, wrong(fmt.Sprintf("$.formulas[%d].name", i), "the name is missing")
		}
		for n, row := range one.Rows {
			here := fmt.Sprintf("$.formulas[%d].rows[%d]", i, n)
			name := row.Name
			if row.Formula != "" {
				name = row.Formula
			}
			if name == "" {
				name = row.Ingredient
			}
			if name == "" {
				return nil, wrong(here, "the ingredient is missing")
			}
			if len(name)+len(row.Amount)+len(row.Form) > maxCell {
				return nil, wrong(here, "this is longer than %d characters", maxCell)
			}
			r.rows = append(
				r.rows,
				rawRow{
					amount:  row.Amount,
					id:      row.Ingredient,
					name:    name,
					form:    row.Form,
					written: strings.Join([]string{row.Amount, name, row.Form}, " "),
				},
			)
		}
		out = append(out, r)
	}
	return out, nil
}

// jsonError says at which line or path the JSON is wrong.
func jsonError(data []byte, err error) error {
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &syntax):
		before := data[:min(int(syntax.Offset), len(data))]
		return wrong(fmt.Sprintf("line %d", 1+bytes.Count(before, []byte("\n"))), "this is not JSON: %v", syntax)
	case errors.As(err, &kind):
		return wrong("$."+kind.Field, "there is a %s where something else belongs", kind.Value)
	}
	return wrong("", "this is not usable JSON: %v", err)
}
