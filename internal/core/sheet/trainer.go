package sheet

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// TrainerRounds is how many guesses a game has.
const TrainerRounds = 10

// TrainerGame is a game as far as it has been played.
type TrainerGame struct {
	Seed    uint64   `json:"seed" maximum:"4294967295" doc:"Which game; the same seed asks the same"`
	Guesses []string `json:"guesses" nullable:"false" doc:"What was guessed so far, in order" example:"40 g"`
}

// TrainerSheet is where a game stands.
type TrainerSheet struct {
	Answers []TrainerAnswer  `json:"answers" nullable:"false" doc:"One for each guess"`
	Next    *TrainerQuestion `json:"next,omitempty" doc:"What is asked next; absent when the game is over"`
	Points  int              `json:"points"`
	Says    string           `json:"says" doc:"How the guesses lean, in a sentence"`
}

// TrainerQuestion is a piece with a coat on it.
type TrainerQuestion struct {
	Round     int        `json:"round" doc:"From 1"`
	Asks      string     `json:"asks" enum:"rub,salt,percent"`
	Says      string     `json:"says" doc:"The question"`
	Unit      string     `json:"unit"`
	Cut       string     `json:"cut"`
	Weight    string     `json:"weight"`
	Size      string     `json:"size"`
	LengthMM  float64    `json:"length_mm"`
	WidthMM   float64    `json:"width_mm"`
	ThickMM   float64    `json:"thick_mm"`
	OneBare   bool       `json:"one_bare" doc:"One broad face takes no coat"`
	Coat      string     `json:"coat"`
	CoatML    float64    `json:"coat_ml" doc:"mL on 100 cm²"`
	Rub       string     `json:"rub"`
	SaltShare float64    `json:"salt_share" doc:"Salt in the rub by weight, %"`
	Rows      []RowSheet `json:"rows" nullable:"false" doc:"100 g of the rub"`
}

// TrainerAnswer is a guess judged.
type TrainerAnswer struct {
	TrainerQuestion
	Guess  float64      `json:"guess"`
	Answer trace.Figure `json:"answer"`
	Off    float64      `json:"off" doc:"Guess over answer"`
	Points int          `json:"points" doc:"0 to 10"`
	Judged string       `json:"judged" doc:"How close, in a sentence"`
}

// trainerCuts are pieces that differ in what a coat does to them.
var trainerCuts = []string{
	"pork-shoulder-bone-in", "pork-spare-ribs-squared", "beef-brisket-packer", "chicken-leg", "lamb-shoulder-bone-in",
	"pork-loin", "beef-plate-ribs", "venison-haunch", "turkey-breast", "beef-tri-tip",
}

// Trainer judges the guesses of a game and asks the next. The error is a
// field.Errors.
func Trainer(g TrainerGame, opt Options) (*TrainerSheet, error) {
	var errs field.Errors
	if len(g.Guesses) > TrainerRounds {
		errs.Add("/guesses", "a game has %d rounds", TrainerRounds)
		return nil, errs
	}
	out := &TrainerSheet{Answers: []TrainerAnswer{}}
	lean := 0.0
	for i, typed := range g.Guesses {
		q, answer := trainerRound(g.Seed, i, opt)
		guess, err := readGuess(typed, q.Asks)
		if !errs.Take(at("/guesses", i), err) && (guess <= 0 || guess > 10000) {
			errs.Add(at("/guesses", i), "guess a number above nothing")
		}
		if len(errs) > 0 {
			return nil, errs
		}
		ratio := guess / answer.Value
		// Ten points within a tenth, none when off by a factor of two and a half.
		far := math.Max(0, math.Abs(math.Log(ratio))-math.Log(1.1)) / (math.Log(2.5) - math.Log(1.1))
		a := TrainerAnswer{TrainerQuestion: q, Guess: guess, Answer: answer, Off: ratio, Points: int(math.Round(10 * math.Max(0, 1-far)))}
		a.Judged = judged(ratio)
		out.Answers = append(out.Answers, a)
		out.Points += a.Points
		lean += math.Log(ratio)
	}
	if n := len(g.Guesses); n < TrainerRounds {
		q, _ := trainerRound(g.Seed, n, opt)
		out.Next = &q
	}
	if n := len(out.Answers); n > 0 {
		out.Says = leaning(math.Exp(lean / float64(n)))
	}
	return out, nil
}

func readGuess(typed, asks string) (float64, error) {
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

func judged(ratio float64) string {
	switch off := 100 * math.Abs(ratio-1); {
	case off < 10:
		return "Spot on."
	case ratio >= 2:
		return fmt.Sprintf("%.1f times too much.", ratio)
	case ratio > 1:
		return fmt.Sprintf("%.0f %% too much.", off)
	case ratio <= 0.5:
		return fmt.Sprintf("Too little by a factor of %.1f.", 1/ratio)
	default:
		return fmt.Sprintf("%.0f %% too little.", off)
	}
}

func leaning(mean float64) string {
	switch {
	case mean > 1.12:
		return fmt.Sprintf("You guess %.0f %% high on the whole.", 100*(mean-1))
	case mean < 0.88:
		return fmt.Sprintf("You guess %.0f %% low on the whole.", 100*(1-mean))
	default:
		return "Your guesses lean neither way."
	}
}

// trainerRound makes a round of a game and its answer.
func trainerRound(seed uint64, round int, opt Options) (TrainerQuestion, trace.Figure) {
	r := rand.New(rand.NewPCG(seed, uint64(round)))
	order := rand.New(rand.NewPCG(seed, 1<<32)).Perm(len(trainerCuts))
	c, _ := cut.Find(trainerCuts[order[round%len(order)]])
	weight := quantity.Mass(c.TypicalKG * (0.8 + 0.4*r.Float64()))
	coat := formula.Coats[r.IntN(3)]
	f := formula.House()[r.IntN(len(formula.House()))]
	asks := []string{"rub", "percent", "salt"}[round%3]
	var errs field.Errors
	p, _ := readPiece(Piece{
		Cut: c.ID, Trimmed: quantity.FormatMass(weight, quantity.Metric), Season: Season{Formula: f, Mode: "coat", Coat: coat.Name},
	}, kitchen{opt: opt, portion: 0.18, fridge: 4}, "", &errs)
	d, _ := p.dose()
	sheet := p.seasonSheet(d)
	q := TrainerQuestion{
		Round: round + 1, Asks: asks, Unit: "g", Cut: c.Name, Weight: quantity.FormatMass(p.green, opt.Units), Size: p.size(),
		LengthMM: p.geometry.Length.MM(), WidthMM: p.geometry.Width.MM(), ThickMM: p.geometry.Thickness.MM(), OneBare: p.oneBare,
		Coat: coat.Name, CoatML: coat.MLPerDM2, Rub: f.Name, SaltShare: 100 * p.mix.SaltShare(), Rows: grams{opt}.rows(f, p.mix.Weigh(100*quantity.Gram)),
	}
	switch asks {
	case "rub":
		q.Says = fmt.Sprintf("How many grams of rub is a %s coat on it?", coat.Name)
		return q, sheet.OnMeat
	case "salt":
		q.Says = fmt.Sprintf("How many grams of salt does a %s coat put on it?", coat.Name)
		return q, sheet.Salt
	default:
		q.Says, q.Unit = fmt.Sprintf("A %s coat, overnight: how salty does the meat get, in %% of boneless meat?", coat.Name), "%"
		return q, sheet.Percent
	}
}
