package field_test

import (
	"errors"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/core/field"
)

// Mistakes keep their places when they are found below others, are none when there are none,
// and an error that is no mistake of the cook's is told as what it is.
func TestMistakesAtTheirPlaces(t *testing.T) {
	var all field.Errors
	assert.NoError(t, all.Err())
	all.Add("/count", "count.range", "most", 500)
	var below field.Errors
	below.Add("/bought", "mass.unreadable", "typed", "heavy")
	below.Add("", "piece.cut")
	all.Put("/pieces/3", below)
	assert.False(t, all.Take("/x", nil))
	assert.True(t, all.Take("/wait", field.Because("wait.too-long")))
	assert.True(t, all.Take("/file", errors.New("the disk is on fire")))
	at := []string{}
	for _, e := range all {
		at = append(at, e.Pointer+" "+e.ID)
	}
	assert.Equal(
		t,
		[]string{
			"/count count.range",
			"/pieces/3/bought mass.unreadable",
			"/pieces/3 piece.cut",
			"/wait wait.too-long",
			"/file unexpected",
		},
		at,
	)
	assert.ErrorContains(t, all.Err(), "count.range(most=500)")
	var list field.Errors
	assert.ErrorAs(t, fmt.Errorf("wrapped: %w", all.Err()), &list)
	assert.Len(t, list, 5)
	assert.Equal(t, "a~1b~0c", field.Key("a/b~c"))
	assert.Nil(t, field.Pairs())
	assert.Equal(t, field.Values{"a": 1, "b": "x"}, field.Pairs("a", 1, "b", "x"))
}

// Whatever text comes from outside is text, wherever in it it stands.
func TestTextsAreCleaned(t *testing.T) {
	type inner struct {
		Text string
		More map[string]any
	}
	dirty := "a\x00b\r\n\tc\u2028\xff"
	v := struct {
		Inner  *inner
		List   []string
		Names  map[string]string
		Number int
		Values field.Values
	}{&inner{dirty, map[string]any{"x": dirty, "n": 1.5, "nothing": nil}}, []string{dirty},
		map[string]string{"k": dirty}, 7, field.Values{"deep": []any{map[string]any{"y": dirty}}}}
	field.CleanAll(&v)
	const want = "ab\n\tc\uFFFD"
	assert.Equal(
		t,
		[]any{want, want, want, want, want},
		[]any{v.Inner.Text, v.Inner.More["x"], v.List[0], v.Names["k"], v.Values["deep"].([]any)[0].(map[string]any)["y"]},
	)
	assert.Equal(t, 1.5, v.Inner.More["n"])
}

func TestCapital(t *testing.T) {
	words := map[string]string{"": "", "loin": "Loin", "épaule": "Épaule", "10 legs": "10 legs", "É": "É"}
	for typed, want := range words {
		assert.Equal(t, want, field.Capital(typed))
	}
}
