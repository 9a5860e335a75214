package sheet

import (
	"fmt"

	"verjuice/internal/core/guess"
)

// GuessSheet is where a game of guessing stands.
type GuessSheet struct {
	Answers []GuessAnswer  `json:"answers" nullable:"false" doc:"One for each guess"`
	Next    *GuessQuestion `json:"next,omitempty" doc:"What is asked next; absent when the game is over"`
	Points  int            `json:"points"`
	Score   string         `json:"score" doc:"How far the game is, and the points so far, in words"`
	Message string         `json:"message" doc:"How the guesses lean, in a sentence"`
}

// GuessQuestion is a piece with a coat on it.
type GuessQuestion struct {
	Round     int        `json:"round" doc:"From 1"`
	Asks      string     `json:"asks" enum:"rub,salt,percent"`
	Question  string     `json:"question"`
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
	RubNote   string     `json:"rub_note" doc:"The rub and the salt in it, in words"`
	Rows      []RowSheet `json:"rows" nullable:"false" doc:"100 g of the rub"`
}

// GuessAnswer is a guess judged.
type GuessAnswer struct {
	GuessQuestion
	Guess   float64 `json:"guess"`
	Answer  Figure  `json:"answer"`
	Off     float64 `json:"off" doc:"Guess over answer"`
	Points  int     `json:"points" doc:"0 to 10"`
	Scored  string  `json:"scored" doc:"The same in words"`
	Verdict string  `json:"verdict" doc:"How close, in a sentence"`
}

// WriteGame says where a game stands.
func WriteGame(s *guess.State, as Reader) *GuessSheet {
	w := writer{Reader: as}
	out := &GuessSheet{
		Answers: []GuessAnswer{},
		Points:  s.Points,
		Score:   fmt.Sprintf("%d of %d, %s", len(s.Answers), guess.Rounds, points(s.Points)),
	}
	for _, a := range s.Answers {
		out.Answers = append(
			out.Answers,
			GuessAnswer{w.question(a.Question), a.Guess, w.figure(a.Answer), a.Off, a.Points, points(a.Points), judged(a.Off)},
		)
	}
	if s.Next != nil {
		q := w.question(*s.Next)
		out.Next = &q
	}
	if len(s.Answers) > 0 {
		out.Message = leaning(s.Lean)
	}
	return out
}

func (w writer) question(q guess.Question) GuessQuestion {
	out := GuessQuestion{
		Round: q.Round, Asks: q.Asks, Unit: "g", Cut: q.Cut.Name, Weight: w.value(q.Green, ""), Size: w.value(q.Size, ""),
		LengthMM: q.Size.Length.MM(), WidthMM: q.Size.Width.MM(), ThickMM: q.Size.Thickness.MM(), OneBare: q.Bare,
		Coat: q.Coat.Name, CoatML: q.Coat.MLPerDM2, Rub: q.Rub.Name, SaltShare: 100 * q.Mix.SaltShare(),
		RubNote: q.Rub.Name + ", " + SaltNote(q.Mix), Rows: w.rows(q.Rows),
	}
	switch q.Asks {
	case "rub":
		out.Question = fmt.Sprintf("How many grams of rub is a %s coat on it?", q.Coat.Name)
	case "salt":
		out.Question = fmt.Sprintf("How many grams of salt does a %s coat put on it?", q.Coat.Name)
	default:
		out.Question, out.Unit = fmt.Sprintf(
			"A %s coat, overnight: how salty does the meat get, in %% of boneless meat?",
			q.Coat.Name,
		), "%"
	}
	return out
}

func points(n int) string {
	if n == 1 {
		return "1 point"
	}
	return fmt.Sprintf("%d points", n)
}

func judged(ratio float64) string {
	switch off := 100 * (ratio - 1); {
	case off < 10 && off > -10:
		return "Spot on."
	case ratio >= 2:
		return fmt.Sprintf("%.1f times too much.", ratio)
	case ratio > 1:
		return fmt.Sprintf("%.0f %% too much.", off)
	case ratio <= 0.5:
		return fmt.Sprintf("Too little by a factor of %.1f.", 1/ratio)
	default:
		return fmt.Sprintf("%.0f %% too little.", -off)
	}
}

func leaning(mean float64) string {
	switch {
	case mean > 1.12:
		return fmt.Sprintf("On average you guess %.0f %% too high.", 100*(mean-1))
	case mean < 0.88:
		return fmt.Sprintf("On average you guess %.0f %% too low.", 100*(1-mean))
	default:
		return "Your guesses are neither too high nor too low on average."
	}
}
