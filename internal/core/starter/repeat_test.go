package starter_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/starter"
)

var saturday = time.Date(2026, 11, 27, 12, 0, 0, 0, time.UTC)

// went is a loin as it was planned, and as it went.
func went(change func(*logbook.Piece)) (cook.Cook, logbook.Outcome) {
	loin, _ := cut.Find("pork-loin")
	p := starter.NewPiece(loin, quantity.Metric)
	p.Key, p.Choices = "a", map[string]string{"wrap": "none", "rest": "counter"}
	c := starter.New(saturday, 8)
	c.Name, c.Pieces, c.Plan = "Loin", []cook.Piece{p}, "overnight"
	o := logbook.Piece{
		Key:    "a",
		Wrap:   "none",
		Off:    "2026-11-21T18:00:00Z",
		Hours:  2.4,
		Salt:   1.0,
		Scores: []logbook.Score{{Aspect: "salt", Value: 3}},
	}
	change(&o)
	return c, logbook.Outcome{Pieces: []logbook.Piece{o}}
}

func ids(all []starter.Proposal) (out []string) {
	for _, p := range all {
		out = append(out, p.ID)
	}
	return out
}

// A cook proposes what it taught, and no more: salt only when it was not right, a wrap only when
// another was used than planned, each note; and the time that it took as the cook's own guess.
func TestWhatIsProposed(t *testing.T) {
	for name, c := range map[string]struct {
		change func(*logbook.Piece)
		want   []string
	}{
		"all was well":     {func(*logbook.Piece) {}, []string{"guess:a"}},
		"bland":            {func(p *logbook.Piece) { p.Scores[0].Value = 2 }, []string{"salt:a", "guess:a"}},
		"nobody tasted it": {func(p *logbook.Piece) { p.Scores = nil }, []string{"guess:a"}},
		"no salt is known": {func(p *logbook.Piece) { p.Salt, p.Scores[0].Value = 0, 1 }, []string{"guess:a"}},
		"wrapped":          {func(p *logbook.Piece) { p.Wrap = "foil" }, []string{"wrap:a", "guess:a"}},
		"still on":         {func(p *logbook.Piece) { p.Wrap, p.Off, p.Hours = "foil", "", 0 }, nil},
		"two notes": {func(p *logbook.Piece) { p.Notes = []string{"One.", "Two."} },
			[]string{"guess:a", "note0:a", "note1:a"}},
		"of another cook": {func(p *logbook.Piece) { p.Key = "b" }, nil},
	} {
		planned, became := went(c.change)
		assert.Equal(t, c.want, ids(starter.Propose(planned, became)), name)
	}
}

// Only what is taken is changed, the first cook stays as it was, and the next has no date.
func TestRepeating(t *testing.T) {
	planned, became := went(func(p *logbook.Piece) {
		p.Scores[0].Value, p.Wrap, p.Notes = 5, "paper", []string{"Off at 60."}
	})
	before := starter.Repeat(planned, became, nil)
	assert.Empty(t, before.ServeAt)
	assert.Empty(t, before.Plan)
	assert.Equal(t, "Loin, again", before.Name)
	assert.Equal(t, planned.Pieces, before.Pieces)
	all := ids(starter.Propose(planned, became))
	require.Len(t, all, 4)
	after := starter.Repeat(planned, became, all).Pieces[0]
	assert.Equal(t, "0.60 %", after.Season.Target)
	assert.Equal(t, "target", after.Season.Mode)
	assert.Equal(t, "paper", after.Choices["wrap"])
	assert.Equal(t, "counter", after.Choices["rest"])
	assert.Equal(t, "2 h 25", after.Fire.Guess)
	assert.Equal(t, "Off at 60.", after.TrimNote)
	assert.Equal(t, "none", planned.Pieces[0].Choices["wrap"], "the first one is as it was")
	twice := starter.Repeat(starter.Repeat(planned, became, all), became, all)
	assert.Equal(t, "Off at 60.", twice.Pieces[0].TrimNote, "a note is kept once")
	for _, id := range all {
		one := starter.Repeat(planned, became, []string{id}).Pieces[0]
		changed := 0
		for _, is := range []bool{one.Season.Target != planned.Pieces[0].Season.Target, one.Choices["wrap"] == "paper",
			one.Fire.Guess != "", one.TrimNote != ""} {
			if is {
				changed++
			}
		}
		assert.Equal(t, 1, changed, id)
	}
}

// However it was liked, the salt that is proposed is some that people eat, and on the right side.
func TestProposedSalt(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	for range 300 {
		salt, score := 0.1+2.5*r.Float64(), 1+r.IntN(5)
		planned, became := went(func(p *logbook.Piece) { p.Salt, p.Scores[0].Value = salt, score })
		for _, p := range starter.Propose(planned, became) {
			if p.Score == 0 {
				continue
			}
			assert.True(t, p.To >= 0.3 && p.To <= 2.0, "%+v", p)
			if salt > 0.3 && salt < 2 {
				assert.Equal(t, score < logbook.Right, p.To > p.Was, "%+v", p)
			}
		}
	}
}

// The example is one piece with nothing missing, in either kind of units; a page of what is on its
// fire already holds what was said of it and no salt that nobody knows of.
func TestPagesToBeginWith(t *testing.T) {
	for _, units := range []quantity.System{quantity.Metric, quantity.US} {
		c := starter.Example(saturday, units)
		require.Len(t, c.Pieces, 1)
		assert.NotEmpty(t, c.Pieces[0].Bought)
		assert.Equal(t, "2026-12-05T18:30", c.ServeAt, "the coming Saturday is too near to salt")
	}
	now := starter.AtOnce{
		Cut:    "pork-shoulder-bone-in",
		Weight: "3.6 kg",
		Kind:   "kettle",
		Pit:    "250 F",
		Wrap:   "foil",
		Zone:   "UTC",
	}.Cook()
	assert.Equal(t, "Pork shoulder, bone-in", now.Name)
	assert.Empty(t, now.Pieces[0].Season.Formula.Rows)
	assert.Equal(t, "kettle", now.Pits[0].Kind)
	named := starter.AtOnce{Name: "Mine", Cut: "nothing"}
	assert.Equal(t, "Mine", named.Cook().Name)
	assert.NotEmpty(t, starter.AtOnce{}.Cook().Name)
	for pointer, where := range map[string]string{"/pieces/0/trimmed": "/weight", "/pieces/0/fire/pit": "/pit",
		"/pits/0/kind": "/kind", "/name": "/name"} {
		assert.Equal(t, where, named.Place(pointer))
	}
	names := []string{}
	for _, c := range cut.All() {
		names = append(names, starter.AtOnce{Cut: c.ID}.Cook().Name)
	}
	assert.False(t, slices.Contains(names, ""))
}

func ExampleRepeat() {
	c, o := went(func(p *logbook.Piece) { p.Scores[0].Value = 4 })
	fmt.Println(starter.Repeat(c, o, []string{"salt:a"}).Pieces[0].Season.Target)
	// Output: 0.80 %
}
