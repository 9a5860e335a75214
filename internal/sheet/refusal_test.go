package sheet

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
)

// Every refusal shows something that is taken: what a message gives as an example, typed into the same field of a
// full page, is understood there.
func TestEveryRefusalShowsWhatIsTaken(t *testing.T) {
	full, _ := anycook.Whole(rand.New(rand.NewPCG(7, 0)))
	full.Weather = "rain"
	full.Pieces[0].Count = "2"
	full.Pieces[0].Fire = cook.Fire{Pit: "120 °C", Done: "93 °C", Time: "8 h"}
	full.Pieces[0].Fire.Rest = "1 h"
	full.Pits[1].Sets = "110 °C from 08:00, 130 °C once wrapped"
	full.Wishes[0].Stage = "salt"
	raw, err := json.Marshal(full)
	require.NoError(t, err)
	var page any
	require.NoError(t, json.Unmarshal(raw, &page))

	// refusals are what is said of a field when that is typed there.
	refusals := func(at, typed string) []Mistake {
		var whole, c = page, cook.Cook{}
		data, err := json.Marshal(typedAt(whole, strings.Split(at, "/")[1:], typed))
		require.NoError(t, err)
		require.NoError(t, json.Unmarshal(data, &c))
		out := told(cooking.CookRequest{Cook: c}, noon, Reader{}).Errors
		return slices.DeleteFunc(out, func(m Mistake) bool { return m.Pointer != at })
	}
	asked, fields := map[string]bool{}, map[string]bool{}
	for _, at := range typedPlaces(page, "") {
		of := anyNumber.ReplaceAllString(at, "")
		if fields[of] {
			continue // another piece has the same fields
		}
		fields[of] = true
		require.Empty(t, refusals(at, textAt(page, at)), "%s: %q", at, textAt(page, at))
		for _, bad := range []string{"garble", "12 blorps", "900", "-3", "1/0", "1,234", "4 to 2 kg", "900 °"} {
			for _, m := range refusals(at, bad) {
				if asked[m.ID+of] || slices.Contains(pickers, m.ID) {
					continue
				}
				asked[m.ID+of] = true
				shown := examplesIn(m.Message)
				if len(shown) == 0 {
					assert.Regexp(t, `\bbetween\b|\bat most\b`, m.Message, "%q in %s: shows no example", bad, at)
				}
				for _, example := range shown {
					for _, again := range refusals(at, example) {
						// It may be too much for that piece: it is understood.
						assert.Empty(t, examplesIn(again.Message), "%q in %s: %s; %q: %s", bad, at, m.Message, example, again.Message)
					}
				}
				if bad == "garble" || bad == "12 blorps" {
					assert.Contains(t, m.Message, strings.TrimPrefix(bad, "12 "), at)
				}
			}
		}
	}
	assert.Greater(t, len(asked), 20)
}

// pickers are the refusals of fields that are picked and not typed.
var pickers = []string{"choice.unknown", "ingredient.unknown", "ingredient.form", "cut.unknown", "formula.basis",
	"formula.gone", "piece.same-key", "decision.unknown", "pit.kind"}

var anyNumber = regexp.MustCompile(`\d+`)

// shownAs is where a message shows what would be right.
var shownAs = regexp.MustCompile(`(?:for example|like|such as) (.+)$`)

var eachExample = regexp.MustCompile(`, | or `)

// examplesIn are the examples of a message.
func examplesIn(message string) []string {
	m := shownAs.FindStringSubmatch(message)
	if m == nil {
		return nil
	}
	return eachExample.Split(m[1], -1)
}

// typedPlaces are the places of the texts that are typed in a page.
func typedPlaces(page any, at string) []string {
	var out []string
	switch v := page.(type) {
	case map[string]any:
		for k, inner := range v {
			out = append(out, typedPlaces(inner, at+"/"+k)...)
		}
	case []any:
		for i, inner := range v {
			out = append(out, typedPlaces(inner, fmt.Sprintf("%s/%d", at, i))...)
		}
	case string:
		out = append(out, at)
	}
	slices.Sort(out)
	return out
}

func textAt(page any, at string) string {
	for _, k := range strings.Split(at, "/")[1:] {
		switch v := page.(type) {
		case map[string]any:
			page = v[k]
		case []any:
			var i int
			_, _ = fmt.Sscan(k, &i)
			page = v[i]
		}
	}
	return page.(string)
}

// typedAt is a copy of a page with another text at a place.
func typedAt(page any, way []string, text string) any {
	if len(way) == 0 {
		return text
	}
	switch v := page.(type) {
	case map[string]any:
		out := map[string]any{}
		for k, inner := range v {
			if out[k] = inner; k == way[0] {
				out[k] = typedAt(inner, way[1:], text)
			}
		}
		return out
	case []any:
		out := slices.Clone(v)
		var i int
		_, _ = fmt.Sscan(way[0], &i)
		out[i] = typedAt(v[i], way[1:], text)
		return out
	}
	return page
}
