// Package guess is a game that trains the eye: a piece with a coat on it, and how
// much rub or salt that is.
//
//	state, err := guess.Play(ctx, guess.Game{Seed: 7, Guesses: []string{"40 g"}})
//	state.Answers[0].Points
package guess

import (
	"context"
	"math"
	"math/rand/v2"
	"strconv"
	"strings"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// Rounds is how many guesses a game has.
const Rounds = 10

// Game is a game as far as it has been played.
type Game struct {
	Seed    uint64   `json:"seed" maximum:"4294967295" doc:"Which game; the same seed asks the same"`
	Guesses []string `json:"guesses" nullable:"false" doc:"What was guessed so far, in order" example:"40 g"`
}

// State is where a game stands.
type State struct {
	Answers []Answer
	Next    *Question // nil when the game is over
	Points  int
	Lean    float64 // geometric mean of guess over answer; zero without a guess
}

// Question is a piece with a coat on it.
type Question struct {
	Round int    // from 1
	Asks  string // rub, salt or percent
	Cut   cut.Cut
	Green quantity.Mass
	Size  cooking.Size
	Bare  bool // one broad face takes no coat
	Coat  formula.Coat
	Rub   formula.Formula
	Mix   formula.Mix
	Rows  []dose.Row // 100 g of the rub
}

// Answer is a guess judged.
type Answer struct {
	Question
	Guess  float64 // in g or %
	Answer trace.Figure
	Off    float64 // guess over answer
	Points int     // 0 to 10
}

// cuts are pieces that differ in what a coat does to them.
var cuts = []string{
	"pork-shoulder-bone-in", "pork-spare-ribs-squared", "beef-brisket-packer", "chicken-leg", "lamb-shoulder-bone-in",
	"pork-loin", "beef-plate-ribs", "venison-haunch", "turkey-breast", "beef-tri-tip",
}

// Play judges the guesses of a game and asks the next. The error is a field.Errors, or
// that of ctx.
func Play(ctx context.Context, g Game) (*State, error) {
	var errs field.Errors
	if len(g.Guesses) > Rounds {
		errs.Add("/guesses", "guess.rounds", "most", Rounds)
		return nil, errs
	}
	out := &State{}
	lean := 0.0
	for i, typed := range g.Guesses {
		q, answer, err := round(ctx, g.Seed, i)
		if err != nil {
			return nil, err
		}
		at := "/guesses/" + strconv.Itoa(i)
		guess, err := read(typed, q.Asks)
		if !errs.Take(at, err) && (guess <= 0 || guess > 10000) {
			errs.Add(at, "guess.above-nothing")
		}
		if len(errs) > 0 {
			return nil, errs
		}
		right := answer.Mid
		if q.Asks != "percent" {
			right *= 1000 // kg to g
		}
		ratio := guess / right
		// Ten points within a tenth, none when off by a factor of two and a half.
		far := math.Max(0, math.Abs(math.Log(ratio))-math.Log(1.1)) / (math.Log(2.5) - math.Log(1.1))
		a := Answer{Question: q, Guess: guess, Answer: answer, Off: ratio, Points: int(math.Round(10 * math.Max(0, 1-far)))}
		out.Answers = append(out.Answers, a)
		out.Points += a.Points
		lean += math.Log(ratio)
	}
	if n := len(g.Guesses); n < Rounds {
		q, _, err := round(ctx, g.Seed, n)
		if err != nil {
			return nil, err
		}
		out.Next = &q
	}
	if n := len(out.Answers); n > 0 {
		out.Lean = math.Exp(lean / float64(n))
	}
	return out, nil
}

func read(typed, asks string) (float64, error) {
	typed = strings.TrimSpace(typed)
	if asks == "percent" {
		p, err := quantity.ParsePercent(typed)
		return float64(p), err
	}
	if g, err := quantity.ParseParts(typed); err == nil {
		return g, nil
	}
	m, err := quantity.ParseMass(typed)
	return m.Grams(), err
}

// round makes a round of a game and its answer.
func round(ctx context.Context, seed uint64, n int) (Question, trace.Figure, error) {
	r := rand.New(rand.NewPCG(seed, uint64(n)))
	order := rand.New(rand.NewPCG(seed, 1<<32)).Perm(len(cuts))
	c, _ := cut.Find(cuts[order[n%len(order)]])
	weight := quantity.Mass(c.TypicalKG * (0.8 + 0.4*r.Float64()))
	coat := formula.Coats[r.IntN(3)]
	rubs := formula.ReadyMade()
	f := rubs[r.IntN(len(rubs))]
	asks := []string{"rub", "percent", "salt"}[n%3]
	p, err := cooking.One(ctx, cook.Piece{
		Cut: c.ID, Trimmed: quantity.FormatMass(weight, quantity.Metric),
		Season: cook.Season{Formula: f, Mode: "coat", Coat: coat.Name},
	}, cook.Cook{}, kitchen.Kitchen{}, cooking.Seasons)
	if err != nil { // that of ctx: all of the piece ships with the program
		return Question{}, trace.Figure{}, err
	}
	meat := p.Line.Meat.Value
	q := Question{
		Round: n + 1, Asks: asks, Cut: c, Green: meat.Green.Mid, Size: cooking.SizeOf(meat.Geometry), Bare: meat.OneBare,
		Coat: coat, Rub: f,
		Mix: p.Season.Mix, Rows: dose.Rows(f, p.Season.Mix.Weigh(100*quantity.Gram)),
	}
	switch asks {
	case "rub":
		return q, p.Season.OnMeat, nil
	case "salt":
		return q, p.Season.Salt, nil
	}
	return q, *p.Season.Percent, nil
}
