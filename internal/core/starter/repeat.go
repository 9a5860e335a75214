package starter

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/quantity"
)

// Proposal is something that a cook taught, to be done otherwise next time.
type Proposal struct {
	ID    string
	Piece string // key
	Was   float64
	To    float64 // salt, % of the raw boneless meat, or hours on the fire
	Score float64 // how the salt was liked
	Kind  string  // of a wrap
	Note  string

	apply func(*cook.Piece)
}

// perPoint is how much salt one point of its score is worth, % of the raw boneless meat; a point off
// is a little too bland or too salty. Field judgement.
const perPoint = 0.2

// Least and most salt that is proposed, %.
const leastSalt, mostSalt = 0.3, 2.0

// Propose is what a cook that is over proposes for the next one like it, piece by piece: its salt as
// it was liked, its wrap as it was done, how long it really took as the cook's own guess, and what
// was to be remembered.
func Propose(c cook.Cook, o logbook.Outcome) []Proposal {
	var out []Proposal
	for _, went := range o.Pieces {
		i := slices.IndexFunc(c.Pieces, func(p cook.Piece) bool { return p.Key == went.Key })
		if i < 0 {
			continue
		}
		add := func(p Proposal, apply func(*cook.Piece)) {
			p.Piece, p.apply = went.Key, apply
			p.ID += ":" + went.Key
			out = append(out, p)
		}
		if score, ok := went.Mean("salt"); ok && went.Salt > 0 && math.Abs(score-logbook.Right) >= 0.4 {
			to := math.Round(20*min(mostSalt, max(leastSalt, went.Salt-perPoint*(score-logbook.Right)))) / 20
			if math.Abs(to-went.Salt) >= 0.04 {
				add(Proposal{ID: "salt", Was: went.Salt, To: to, Score: score}, func(p *cook.Piece) {
					p.Season.Mode, p.Season.Target, p.Season.Amount = "target", fmt.Sprintf("%.2f %%", to), ""
				})
			}
		}
		if planned := c.Pieces[i].Choices["wrap"]; went.Off != "" && went.Wrap != planned && planned != "" {
			add(Proposal{ID: "wrap", Kind: went.Wrap}, func(p *cook.Piece) {
				choices := map[string]string{}
				for k, v := range p.Choices {
					choices[k] = v
				}
				choices["wrap"] = went.Wrap
				p.Choices = choices
			})
		}
		if went.Hours > 0 {
			took := quantity.FormatDuration(time.Duration(went.Hours * float64(time.Hour)).Round(5 * time.Minute))
			add(Proposal{ID: "guess", Was: went.GuessH, To: went.Hours}, func(p *cook.Piece) { p.Fire.Guess = took })
		}
		for n, note := range went.Notes {
			add(Proposal{ID: fmt.Sprint("note", n), Note: note}, func(p *cook.Piece) {
				if !strings.Contains(p.TrimNote, note) && len(p.TrimNote)+len(note) < 900 {
					p.TrimNote = strings.TrimSpace(p.TrimNote + " " + note)
				}
			})
		}
	}
	return out
}

// Repeat is c for another occasion with those of its proposals that were taken, by id.
func Repeat(c cook.Cook, o logbook.Outcome, taken []string) cook.Cook {
	out := Copy(c)
	out.Pieces = slices.Clone(out.Pieces)
	for _, p := range Propose(c, o) {
		if i := slices.IndexFunc(out.Pieces, func(q cook.Piece) bool { return q.Key == p.Piece }); i >= 0 &&
			slices.Contains(taken, p.ID) {
			p.apply(&out.Pieces[i])
		}
	}
	return out
}
