package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var (
	example = regexp.MustCompile("(?s)```json (\\w+)\n(.*?)```\n\n((?:- `[^\n]*\n)+)")
	claim   = regexp.MustCompile("- `([^`]+)` is `([^`]*)`")
)

// Every example of docs/calc.md runs, and says what the page says it does.
func TestDocumentedExamples(t *testing.T) {
	page, err := os.ReadFile("../../docs/calc.md")
	require.NoError(t, err)
	seen := map[string]bool{}
	for _, e := range example.FindAllStringSubmatch(string(page), -1) {
		what, request, claims := e[1], e[2], e[3]
		seen[what] = true
		t.Run(what, func(t *testing.T) {
			var out bytes.Buffer
			require.NoError(t, calc{What: what}.answer(strings.NewReader(request), &out))
			var result any
			require.NoError(t, json.Unmarshal(out.Bytes(), &result))
			for _, c := range claim.FindAllStringSubmatch(claims, -1) {
				assert.Equal(t, c[2], fmt.Sprint(at(result, strings.Split(c[1], "."))), c[1])
			}
		})
	}
	for what := range computations {
		assert.True(t, seen[what], "%s has no example", what)
	}
}

// at walks into decoded JSON.
func at(v any, path []string) any {
	for _, key := range path {
		switch in := v.(type) {
		case map[string]any:
			v = in[key]
		case []any:
			i, err := strconv.Atoi(key)
			if err != nil || i >= len(in) {
				return nil
			}
			v = in[i]
		}
	}
	return v
}

func TestBadRequestsAreToldAtTheirPlace(t *testing.T) {
	for request, says := range map[string]string{
		`{"piece": {"cut": "unicorn"}}`: "/piece/cut: choose a cut",
		`{"peice": {}}`:                 "unknown field",
		`not json`:                      "not usable",
	} {
		err := calc{What: "scale"}.answer(strings.NewReader(request), &bytes.Buffer{})
		assert.ErrorContains(t, err, says, request)
	}
}
