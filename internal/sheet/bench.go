package sheet

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"verjuice/internal/core/bench"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/guess"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
)

// FormulaSheet is every figure of a formula.
type FormulaSheet struct {
	Errors    []Mistake  `json:"errors" nullable:"false" doc:"Mistakes, with pointers into the request"`
	Ready     bool       `json:"ready"`
	Batch     Figure     `json:"batch" doc:"All of it, g"`
	Spoons    string     `json:"spoons"`
	Rows      []RowSheet `json:"rows" nullable:"false"`
	SaltBy    Shares     `json:"salt_by" doc:"Salt in the mix by volume and by weight, in words"`
	Rounded   []string   `json:"rounded" nullable:"false" doc:"Each row rounded as asked; empty when not asked"`
	RoundNote string     `json:"round_note" doc:"What rounding does to the mix, in words"`
	Totals    []Total    `json:"totals" nullable:"false"`
	Spoon     Figure     `json:"spoon" doc:"A level tablespoon of it, g"`
	SpoonSalt Figure     `json:"spoon_salt" doc:"Salt in that tablespoon, g"`
	Coarse    string     `json:"coarse" doc:"Largest grain, in words"`
	Allergens []string   `json:"allergens" nullable:"false"`
	Contains  string     `json:"contains" doc:"The allergens in a sentence"`
	SaltLed   bool       `json:"salt_led"`
	Cost      *CostSheet `json:"cost,omitempty" doc:"Absent while no price is known"`
	Keeping   string     `json:"keeping" doc:"How long it keeps, and how, in words"`
}

// Total is what a batch holds of one thing.
type Total struct {
	Name   string `json:"name"`
	Share  Figure `json:"share" doc:"% by weight"`
	Amount string `json:"amount" doc:"In this batch"`
}

// WriteFormula says a formula worked out.
func WriteFormula(r bench.Result, as Reader) FormulaSheet {
	w := writer{Reader: as}
	none := Figure{Inputs: []Input{}}
	out := FormulaSheet{
		Errors: w.mistakes(r.Mistakes), Ready: r.Ready, Rows: []RowSheet{}, Rounded: []string{}, Totals: []Total{}, Allergens: []string{},
		Batch: none, Spoon: none, SpoonSalt: none,
	}
	if !r.Ready {
		return out
	}
	out.Batch, out.Spoon, out.SpoonSalt = w.figure(r.Batch), w.figure(r.Spoon), w.figure(r.SpoonSalt)
	out.Spoons = quantity.FormatSpoons(r.Mix.Volume(r.Size), w.Spoons).Text
	out.Rows, out.Totals, out.Cost = w.rows(r.Rows), w.totals(r.Totals), w.cost(r.Cost)
	out.SaltBy = saltShares(r.Rows)
	out.Allergens, out.Contains = append(out.Allergens, r.Mix.Allergens...), "No listed allergens; the packet decides."
	if len(out.Allergens) > 0 {
		out.Contains = "Contains " + strings.Join(out.Allergens, ", ") + ". The packet decides."
	}
	out.SaltLed, out.Coarse = r.Mix.SaltLed(), coarse(r.Mix.CoarseMM)
	out.Keeping = fmt.Sprintf("Keeps %s: %s.", quantity.FormatDays(r.KeepsDays), keepings[r.Keeps])
	if rounded := r.Rounded; rounded != nil {
		out.Rounded = rounded.Text
		out.RoundNote = fmt.Sprintf("Rounded, the worst row is %.0f %% off, and the mix holds %.1f %% salt instead of %.1f %%.", rounded.Worst, 100*rounded.Salt, 100*r.Mix.SaltShare())
	}
	return out
}

func (w writer) totals(all []bench.Total) []Total {
	out := []Total{}
	for _, t := range all {
		out = append(out, Total{Name: t.Of, Share: w.figure(t.Share), Amount: inGrams(t.Mass)})
	}
	return out
}

// keepings say how a mix is kept, by how it keeps.
var keepings = map[string]string{
	"dry":   "dry, dark and closed; ground spice fades after half a year",
	"salty": "in the fridge, at or under 4 °C / 40 °F",
	"fresh": "in the fridge, at or under 4 °C / 40 °F: as long as leftovers, three days",
}

func coarse(mm float64) string {
	switch {
	case mm == 0:
		return "liquid"
	case mm < 0.4:
		return fmt.Sprintf("powder-fine (%.1f mm): cakes into a crust on meat", mm)
	case mm < 1:
		return fmt.Sprintf("medium (%.1f mm)", mm)
	default:
		return fmt.Sprintf("coarse (%s mm): makes bark", quantity.Number(mm))
	}
}

// Comparison is formulas on a common footing.
type Comparison struct {
	On          string             `json:"on" doc:"The piece they are compared on"`
	Columns     []ComparisonColumn `json:"columns" nullable:"false"`
	Rows        []ComparisonRow    `json:"rows" nullable:"false" doc:"Every ingredient of any of them, % by weight in each"`
	Differences []string           `json:"differences" nullable:"false" doc:"In sentences"`
}

// ComparisonColumn is one formula of a comparison.
type ComparisonColumn struct {
	Name    string     `json:"name"`
	Totals  []Total    `json:"totals" nullable:"false" doc:"Per 100 g"`
	Spoon   Figure     `json:"spoon" doc:"Salt in a level tablespoon, g"`
	OnMeat  Figure     `json:"on_meat" doc:"On the same piece with the same coat, g"`
	Percent Figure     `json:"percent" doc:"Salt it leaves in that piece, %"`
	Rows    []RowSheet `json:"rows" nullable:"false"`
	SaltBy  Shares     `json:"salt_by" doc:"Salt in the mix by volume and by weight, in words"`
}

// ComparisonRow is one ingredient across a comparison.
type ComparisonRow struct {
	Name   string    `json:"name"`
	Shares []float64 `json:"shares" nullable:"false" doc:"% by weight in each formula"`
	Texts  []string  `json:"texts" nullable:"false" doc:"The same as a cook reads it; a dash when there is none of it"`
}

// WriteComparison says formulas side by side.
func WriteComparison(c *bench.Comparison, as Reader) *Comparison {
	w := writer{Reader: as}
	out := &Comparison{
		On: fmt.Sprintf("%s of %s, %s coat, overnight", c.Cut.Name, quantity.FormatMass(c.Weight, w.Units), c.Coat), Columns: []ComparisonColumn{}, Rows: []ComparisonRow{}, Differences: []string{},
	}
	for _, col := range c.Columns {
		out.Columns = append(out.Columns, ComparisonColumn{
			Name: col.Name, Totals: w.totals(col.Totals), Spoon: w.figure(col.Spoon), OnMeat: w.figure(col.OnMeat), Percent: w.figure(col.Percent), Rows: w.rows(col.Rows), SaltBy: saltShares(col.Rows),
		})
	}
	for _, r := range c.Rows {
		row := ComparisonRow{Name: r.Name, Shares: r.Shares}
		for _, share := range r.Shares {
			text := "–"
			if share > 0 {
				text = decimal(share, 0)
			}
			row.Texts = append(row.Texts, text)
		}
		out.Rows = append(out.Rows, row)
	}
	for _, d := range c.Differences {
		out.Differences = append(out.Differences, difference(d))
	}
	return out
}

func difference(d bench.Difference) string {
	word, most := "salty", "saltiest"
	if d.What == "sugar" {
		word, most = "sweet", "sweetest"
	}
	footing := "by weight"
	if d.Footing == "piece" {
		footing = "on the same piece"
	}
	switch {
	case d.Only:
		return fmt.Sprintf("Only %s is %s to speak of.", d.Most, word)
	case d.Equal:
		return fmt.Sprintf("They are equally %s %s.", word, footing)
	}
	return fmt.Sprintf("%s is the %s %s: %.1f times %s.", d.Most, most, footing, d.Times, d.Least)
}

// LabelSheet is what a nutrition label tells.
type LabelSheet struct {
	Salt    Figure  `json:"salt" doc:"% by weight"`
	Sugar   *Figure `json:"sugar,omitempty" doc:"% by weight"`
	Mixed   *Figure `json:"mixed,omitempty" doc:"Salt of the packet in its liquid, % by weight"`
	Message string  `json:"message" doc:"What it means, in a sentence"`
}

// ReadLabel reads a nutrition label. The error is a field.Errors.
func ReadLabel(l formula.Label, as Reader) (*LabelSheet, error) {
	r, errs := formula.ReadLabel(l)
	if len(errs) > 0 {
		return nil, errs
	}
	w := writer{Reader: as}
	printed := []any{"sodium", l.Sodium + " mg", "serving_size", l.Serving}
	out := &LabelSheet{Salt: w.figure(trace.New("label.salt", r.Salt, printed...))}
	name := l.Name
	if name == "" {
		name = "It"
	}
	switch wide := r.Salt.High - r.Salt.Low; {
	case wide > 15:
		out.Message = fmt.Sprintf("%s holds %.0f to %.0f %% salt: the serving is too small to say more. A label with a bigger serving narrows it.", name, r.Salt.Low, r.Salt.High)
	case r.Salt.Mid > 50:
		out.Message = fmt.Sprintf("%s is mostly salt: dose it by the salt it brings, not by the look of the coat.", name)
	default:
		out.Message = fmt.Sprintf("%s holds about %.0f %% salt by weight.", name, r.Salt.Mid)
	}
	if l.Sugar != "" {
		f := w.figure(trace.New("label.sugar", r.Sugar, printed...))
		out.Sugar = &f
	}
	if r.Mixed != nil {
		f := w.figure(trace.New("label.mixed", *r.Mixed, "powder", l.Powder, "liquid", l.Liquid))
		out.Mixed = &f
	}
	return out, nil
}

// WeighOut is where a weigh-out stands, with what to do.
type WeighOut struct {
	formula.WeighOut
	Message string   `json:"message" doc:"What to do, in a sentence"`
	Counted string   `json:"counted" doc:"What is counted once all is weighed, in a sentence"`
	Stands  []string `json:"stands" nullable:"false" doc:"Of each ingredient, what is weighed of what is wanted"`
}

// WriteWeighing says where a weigh-out stands.
func WriteWeighing(o formula.WeighOut) WeighOut {
	out := WeighOut{WeighOut: o, Stands: []string{}, Counted: "The salt column now counts what you really weighed."}
	if o.Scale > 1 {
		out.Counted = fmt.Sprintf("The salt column now counts what you really weighed, a batch %.0f %% bigger.", 100*(o.Scale-1))
	}
	for _, s := range o.Steps {
		out.Stands = append(out.Stands, fmt.Sprintf("%.1f of %.1f g", s.Weighed, s.Target))
	}
	tenth := func(g float64) string { return quantity.Number(float64(int(g*10+0.5)) / 10) }
	switch {
	case o.Over >= 0:
		s := o.Steps[o.Over]
		out.Message = fmt.Sprintf("%s g too much: take it out, or make the whole batch %.0f %% bigger.", tenth(-s.Remaining), 100*(s.Weighed/s.Target-1))
	case o.Next == len(o.Steps):
		out.Message = "All weighed. Shake it well: settled mixes separate."
	case o.Steps[o.Next].State == "under":
		out.Message = fmt.Sprintf("Add %s g more.", tenth(o.Steps[o.Next].Remaining))
	}
	return out
}

// GuessSheet is where a game of guessing stands.
type GuessSheet struct {
	Answers []GuessAnswer  `json:"answers" nullable:"false" doc:"One for each guess"`
	Next    *GuessQuestion `json:"next,omitempty" doc:"What is asked next; absent when the game is over"`
	Points  int            `json:"points"`
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
	Verdict string  `json:"verdict" doc:"How close, in a sentence"`
}

// WriteGame says where a game stands.
func WriteGame(s *guess.State, as Reader) *GuessSheet {
	w := writer{Reader: as}
	out := &GuessSheet{Answers: []GuessAnswer{}, Points: s.Points}
	for _, a := range s.Answers {
		out.Answers = append(out.Answers, GuessAnswer{w.question(a.Question), a.Guess, w.figure(a.Answer), a.Off, a.Points, judged(a.Off)})
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
		out.Question, out.Unit = fmt.Sprintf("A %s coat, overnight: how salty does the meat get, in %% of boneless meat?", q.Coat.Name), "%"
	}
	return out
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

// SaltNote says how much salt is in a mix.
func SaltNote(m formula.Mix) string { return fmt.Sprintf("%.0f %% salt", 100*m.SaltShare()) }

// OwnNote says what an ingredient of the cook's own is.
func OwnNote(o larder.Own) string {
	out := []string{o.Kind}
	for _, part := range [][2]string{{o.Salt, "salt"}, {o.Sugar, "sugar"}} {
		if typed := strings.TrimSpace(part[0]); typed != "" {
			out = append(out, strings.TrimRight(strings.TrimSuffix(typed, "%"), " ")+" % "+part[1])
		}
	}
	return strings.Join(slices.DeleteFunc(out, func(s string) bool { return s == "" }), ", ")
}

// JarSheet is how a jar stands.
type JarSheet struct {
	Made      string     `json:"made" doc:"Day in words"`
	UseBy     string     `json:"use_by" doc:"Day in words"`
	Over      bool       `json:"over" doc:"Past its use-by"`
	Soon      bool       `json:"soon" doc:"Its use-by is within two weeks, or a third of its time"`
	Keep      string     `json:"keep" doc:"How to keep it"`
	LeftGrams float64    `json:"left_grams"`
	Left      string     `json:"left" doc:"In the cook's units"`
	LeftShare float64    `json:"left_share" doc:"0 to 1"`
	LeftSpoon string     `json:"left_spoons" doc:"The same in spoons and cups"`
	SaltShare float64    `json:"salt_share" doc:"%"`
	Mixes     []MixShare `json:"mix" nullable:"false" doc:"Layers of the picture, by volume"`
	Taken     []string   `json:"taken" nullable:"false" doc:"Each draw, in grams"`
	Take      string     `json:"take" doc:"What of the need it can give; empty without a need"`
	Full      string     `json:"full" doc:"How full it is, in words"`
	TakeLabel string     `json:"take_label" doc:"The same as a button says it"`
	Short     string     `json:"short" doc:"What of the need it cannot give; empty when it gives all"`
	Summary   string     `json:"summary" doc:"When it was made and what it holds, in a sentence"`
}

// MixShare is an ingredient's part of a mix.
type MixShare struct {
	Name   string  `json:"name"`
	Kind   string  `json:"kind"`
	Volume float64 `json:"volume" doc:"0 to 1"`
}

// WriteJar says how a jar stands, and what of a need it can give; wrong are its
// mistakes.
func WriteJar(s formula.JarStand, wrong []Mistake, need quantity.Mass, as Reader) JarSheet {
	w := writer{Reader: as}
	out := JarSheet{Mixes: []MixShare{}, Taken: []string{}}
	if len(wrong) > 0 {
		out.Keep = wrong[0].Message
		return out
	}
	date := func(t time.Time) string { return t.Format("2 January 2006") }
	out.Made, out.UseBy, out.Over, out.Soon, out.Keep = date(s.MadeDay), date(s.UseBy), s.Over, s.Soon, keepings[s.Keep]
	out.LeftGrams, out.Left = s.Left.Grams(), w.value(s.Left, "")
	out.LeftShare, out.LeftSpoon = float64(s.Left/s.Made), quantity.FormatSpoons(s.Mix.Volume(s.Left), w.Spoons).Text
	out.SaltShare, out.Full = 100*s.Mix.SaltShare(), fmt.Sprintf("%.0f %% full", 100*out.LeftShare)
	for _, c := range s.Mix.Components {
		out.Mixes = append(out.Mixes, MixShare{c.Ingredient.Name, c.Ingredient.Kind, c.VolumeShare})
	}
	for _, t := range s.Taken {
		out.Taken = append(out.Taken, inGrams(t))
	}
	past := ""
	if s.Over {
		past = ", past its use-by"
	}
	out.Summary = fmt.Sprintf("A jar of it, made %s, holds %s%s.", out.Made, out.Left, past)
	if need > 0 {
		give, short := s.Give(need)
		out.Take = fmt.Sprintf("%.1f g", give.Grams())
		out.TakeLabel = "Take " + out.Take + " from it"
		if short > 0 {
			out.Short = fmt.Sprintf("%.0f g", short.Grams())
			out.TakeLabel = "Take all of it, and mix " + out.Short + " more"
		}
	}
	return out
}

// CurrencyName is a currency as a message names it.
func CurrencyName(sign string) string {
	if strings.TrimSpace(sign) == "" {
		return "plain numbers"
	}
	return "“" + sign + "”"
}
