package decision_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
)

func answers(t *testing.T, id string, typed map[string]string) decision.Answers {
	c, ok := cut.Find(id)
	require.True(t, ok, id)
	return decision.Answers{Typed: typed, Cut: c}
}

// What is not answered is as usual; an answer changes that one and leaves the others and the
// answers before it alone.
func TestAnswers(t *testing.T) {
	a := answers(t, "beef-brisket-packer", map[string]string{"wood": "nut"})
	assert.Equal(t, "nut", a.Chose(decision.Wood))
	assert.Equal(t, "paper", a.Chose(decision.Wrap), "as is usual for the cut")
	b := a.With(decision.Wrap, "foil")
	assert.Equal(t, "foil", b.Chose(decision.Wrap))
	assert.Equal(t, "nut", b.Chose(decision.Wood))
	assert.Equal(t, "paper", a.Chose(decision.Wrap))
	assert.Empty(t, decision.Answers{}.Chose(decision.Wrap), "no cut, no answers")
	assert.Equal(t, "foil", decision.Answers{Cut: a.Cut}.With(decision.Wrap, "foil").Chose(decision.Wrap))
}

// What is asked follows the cut and what was answered: nothing of a wrap when there is none.
func TestWhatIsOffered(t *testing.T) {
	keys := func(a decision.Answers) (out []string) {
		for _, d := range a.Offered() {
			out = append(out, d.Key.String())
		}
		return out
	}
	bare := keys(answers(t, "pork-shoulder-bone-in", map[string]string{"wrap": "none"}))
	for _, key := range []string{"wrap-at", "in-wrap", "tight"} {
		assert.NotContains(t, bare, key)
		assert.Contains(t, keys(answers(t, "pork-shoulder-bone-in", map[string]string{"wrap": "foil"})), key)
	}
	assert.Contains(t, keys(answers(t, "pork-back-ribs", nil)), "membrane")
	assert.NotContains(t, keys(answers(t, "chicken-whole", nil)), "membrane")
	assert.NotContains(t, keys(answers(t, "links", nil)), "opened", "ground meat is open anyway")
	for _, c := range cut.All() {
		seen := map[decision.Key]bool{}
		for _, d := range (decision.Answers{Cut: c}).Offered() {
			assert.False(t, seen[d.Key], "%s asks %s twice", c.ID, d.Key)
			seen[d.Key] = true
			assert.NotEmpty(t, d.Of(c), "%s %s", c.ID, d.Key)
			assert.Contains(t, []string{"piece", "fire", "rest", "forecast"}, d.Stage)
		}
	}
}

// An answer that the cut does not have, or that nobody knows, is a mistake at its key.
func TestAnswersThatAreNone(t *testing.T) {
	wrong := func(id string, typed map[string]string) (out []string) {
		for _, e := range answers(t, id, typed).Wrong() {
			out = append(out, e.Pointer+" "+e.ID)
		}
		slices.Sort(out)
		return out
	}
	assert.Empty(
		t,
		wrong("chicken-whole", map[string]string{"wood": "fruit", "lid": "shut", "cap": "thin"}),
		"what older pages asked is let be",
	)
	assert.Equal(t, []string{"/wood choice.unknown"}, wrong("chicken-whole", map[string]string{"wood": "driftwood"}))
	assert.Equal(t, []string{"/what~1ever decision.unknown"}, wrong("chicken-whole", map[string]string{"what/ever": "x"}))
	assert.Equal(
		t,
		[]string{"/membrane decision.not-this-cut"},
		wrong("chicken-whole", map[string]string{"membrane": "on"}),
	)
	assert.NotEmpty(t, wrong("beef-round", map[string]string{"finish": "bones"}))
	many := map[string]string{}
	for i := range 200 {
		many[string(rune('a'+i%26))+string(rune('a'+i/26))] = "x"
	}
	assert.Equal(t, []string{" list.too-long"}, wrong("beef-round", many))
}
