package facts_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
)

// said is a fact about a piece.
func said(n byte, kind facts.Kind, piece, what, author string, values field.Values) facts.Fact {
	return facts.Fact{
		ID:     id(n),
		Kind:   kind,
		Piece:  piece,
		What:   what,
		At:     "2026-11-28T20:00",
		Author: author,
		Values: values,
	}
}

// The last weight of a piece counts, in whatever unit, and one that is taken back does not.
func TestTheLastWeightCounts(t *testing.T) {
	all := facts.Facts{
		said(1, facts.Weighed, "a", "cooked", "", field.Values{"typed": "2.4 kg"}),
		said(2, facts.Weighed, "a", "cooked", "", field.Values{"typed": "5 lb"}),
		said(3, facts.Weighed, "b", "cooked", "", field.Values{"typed": "900 g"}),
		said(4, facts.Weighed, "a", "bones", "", field.Values{"typed": "nothing"}),
	}
	m, f, ok := all.Weighed("a", "cooked")
	assert.True(t, ok)
	assert.InDelta(t, 2.268, m.KG(), 0.001)
	assert.Equal(t, id(2), f.ID)
	all = append(all, facts.Fact{ID: id(5), Kind: facts.Withdrawn, What: id(2), At: "2026-11-28T20:01"})
	m, _, _ = all.Weighed("a", "cooked")
	assert.InDelta(t, 2.4, m.KG(), 1e-9)
	_, _, ok = all.Weighed("a", "bones")
	assert.False(t, ok, "what cannot be read is not known")
	_, _, ok = all.Weighed("a", "left")
	assert.False(t, ok)
}

// Of each taster the last score of an aspect counts, and stands where the first one stood.
func TestTheLastScoreOfEachTasterCounts(t *testing.T) {
	score := func(n byte, what, by string, v any) facts.Fact {
		return said(n, facts.Scored, "a", what, by, field.Values{"score": v})
	}
	all := facts.Facts{
		score(1, "salt", "Ines", 2.0),
		score(2, "salt", "Odhran", 4.0),
		score(3, "bark", "Ines", 5.0),
		score(4, "salt", "Ines", 3.0),
	}
	var got []int
	for _, f := range all.Scores("a") {
		v, ok := f.Score()
		assert.True(t, ok)
		got = append(got, v)
	}
	assert.Equal(t, []int{3, 4, 5}, got)
	assert.Empty(t, all.Scores("b"))
	for _, v := range []any{0.0, 6.0, 2.5, "3", nil, -1.0} {
		_, ok := score(1, "salt", "", v).Score()
		assert.False(t, ok, "%v", v)
	}
	_, ok := score(1, "salt", "", 5).Score()
	assert.True(t, ok)
}

// Notes are those of the piece, or of the whole cook, as they stand.
func TestNotes(t *testing.T) {
	all := facts.Facts{
		said(1, facts.Noted, "a", "One.", "Ines", nil),
		said(2, facts.Noted, "", "Two.", "", nil),
		said(3, facts.Noted, "a", "Three.", "", nil),
		{ID: id(4), Kind: facts.Withdrawn, What: id(1), At: "2026-11-28T20:01"},
	}
	assert.Len(t, all.Notes("a"), 1)
	assert.Equal(t, "Three.", all.Notes("a")[0].What)
	assert.Equal(t, "Two.", all.Notes("")[0].What)
}

// What is written down afterwards is checked like anything else.
func TestWhatIsWrittenDownIsChecked(t *testing.T) {
	for at, f := range map[string]facts.Fact{
		"":              said(1, facts.Weighed, "a", "cooked", "", field.Values{"typed": "2.4 kg"}),
		"/what":         said(1, facts.Weighed, "a", "guests", "", field.Values{"typed": "2.4 kg"}),
		"/values/typed": said(1, facts.Weighed, "a", "cooked", "", field.Values{"typed": "9999 kg"}),
		"/values/score": said(1, facts.Scored, "a", "salt", "", field.Values{"score": 7.0}),
	} {
		errs := f.Check()
		if at == "" {
			assert.Empty(t, errs)
			continue
		}
		if assert.NotEmpty(t, errs, at) {
			assert.Equal(t, at, errs[0].Pointer)
		}
	}
	assert.NotEmpty(t, said(1, facts.Noted, "a", "  ", "", nil).Check())
	assert.NotEmpty(t, said(1, facts.Scored, "a", "beauty", "", field.Values{"score": 3.0}).Check())
}
