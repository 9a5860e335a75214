package sheet

import (
	"fmt"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// SeasonSheet is the rub, weighed out.
type SeasonSheet struct {
	FormulaID  string     `json:"formula_id" doc:"Id of the formula that the rub still is; empty when its rows were changed"`
	Name       string     `json:"name" doc:"What the mix is called, by what is in it; empty when it has no name"`
	UsualMode  string     `json:"usual_mode" doc:"Set the amount by of this mix when nothing is chosen: target or coat"`
	Mode       string     `json:"mode" doc:"What drives it now"`
	OnMeat     Figure     `json:"on_meat" doc:"Rub on all pieces, g"`
	ToMix      Figure     `json:"to_mix" doc:"Rub to mix, g: with what is lost while sprinkling and the margin"`
	Salt       Figure     `json:"salt" doc:"Salt of the rub on all pieces, g"`
	Percent    *Figure    `json:"percent,omitempty" doc:"Salt in the meat by all sources, % of raw boneless meat; absent while another dose has a mistake"`
	Coat       Figure     `json:"coat" doc:"mL on 100 cm²"`
	CoatName   string     `json:"coat_name"`
	Habit      string     `json:"habit" doc:"How salt alone is sprinkled by eye, in a sentence; empty for a rub"`
	TooThick   bool       `json:"too_thick" doc:"The surface does not hold that much"`
	Spoons     string     `json:"spoons" doc:"All of the mix in spoons and cups"`
	Rows       []RowSheet `json:"rows" nullable:"false"`
	SaltBy     Shares     `json:"salt_by" doc:"Salt in the mix by volume and by weight, in words"`
	SaltShare  Figure     `json:"salt_share" doc:"Salt in the mix by weight, %"`
	SugarShare float64    `json:"sugar_share" doc:"Sugar in the mix by weight, %"`
	Allergens  []string   `json:"allergens" nullable:"false"`
	Weighed    bool       `json:"weighed" doc:"The figures on the meat are of what was really weighed"`
	InJar      bool       `json:"in_jar" doc:"There is a jar of this mix"`
	Cost       *CostSheet `json:"cost,omitempty" doc:"What the mix costs; absent while no price is known"`
}

// RowSheet is one ingredient of it.
type RowSheet struct {
	Name   string          `json:"name"`
	Form   string          `json:"form"`
	Kind   string          `json:"kind"`
	Mass   Figure          `json:"mass" doc:"To weigh out, g"`
	Spoons quantity.Spoons `json:"spoons"`
	Weight float64         `json:"weight_share" doc:"% of the mix by weight"`
	Volume float64         `json:"volume_share" doc:"% of the mix by volume"`
	Shares Shares          `json:"shares" doc:"The same with the name, in words"`
	// Empty for nearly every row.
	AsParts string `json:"as_parts" doc:"Parts by volume that may have been meant, where every row of a mix by volume is in %, which counts by weight; else empty"`
}

// Shares are a share told by volume and by weight.
type Shares struct {
	Volume string `json:"volume" example:"kosher salt: 32 % by volume"`
	Weight string `json:"weight" example:"kosher salt: 47 % by weight"`
}

// saltShares are the salt of a mix by volume and by weight, whatever brings it.
func saltShares(rows []dose.Row) Shares {
	volume, weight := 0.0, 0.0
	for _, r := range rows {
		volume += r.VolumeShare * r.Ingredient.Per100g.Salt / 100
		weight += r.WeightShare * r.Ingredient.Per100g.Salt / 100
	}
	return Shares{fmt.Sprintf("%.0f %% salt", 100*volume), fmt.Sprintf("%.0f %% salt", 100*weight)}
}

func modeName(byTarget, bySaid bool) string {
	switch {
	case byTarget:
		return "target"
	case bySaid:
		return "amount"
	}
	return "coat"
}

func (w writer) season(s *cooking.Season) *SeasonSheet {
	coat := s.Coat.Mid
	out := &SeasonSheet{
		FormulaID:  s.FromID,
		Name:       s.Formula.Name,
		UsualMode:  modeName(s.UsualBy, false),
		Mode:       modeName(s.ByTarget, s.BySaid),
		OnMeat:     w.figure(s.OnMeat),
		ToMix:      w.figure(s.ToMix),
		Salt:       w.figure(s.Salt),
		Coat:       w.figure(s.Coat),
		CoatName:   w.say(formula.NameCoat(coat)),
		TooThick:   coat > formula.MaxCoat,
		Spoons:     quantity.FormatSpoons(s.Mix.Volume(s.Mixed), w.Spoons).Text,
		Rows:       w.rows(s.Rows),
		SaltBy:     saltShares(s.Rows),
		SaltShare:  w.figure(s.SaltShare),
		SugarShare: s.Mix.Per100g.Sugar,
		Allergens:  append([]string{}, s.Mix.Allergens...),
		Weighed:    s.Weighed,
		Cost:       w.cost(s.Cost),
		InJar:      s.InJar,
	}
	if s.ByHabit {
		out.CoatName = "a " + s.CoatChosen + " hand of salt"
		out.Habit = "Salt alone is sprinkled by eye at about a fifth of a rub’s coat. A target is surer."
	}
	if s.Percent != nil {
		percent := w.figure(*s.Percent)
		out.Percent = &percent
	}
	return out
}

// rows are the ingredients of a mix, weighed out.
func (w writer) rows(rows []dose.Row) []RowSheet {
	out := make([]RowSheet, len(rows))
	for i, r := range rows {
		out[i] = RowSheet{
			Name: r.Ingredient.Name, Form: r.Form.Name, Kind: r.Ingredient.Kind, Mass: w.figure(r.Mass),
			Spoons: quantity.FormatSpoons(r.Volume, w.Spoons),
			Weight: 100 * r.WeightShare, Volume: 100 * r.VolumeShare, AsParts: r.AsParts,
			Shares: Shares{
				fmt.Sprintf("%s: %.0f %% by volume", r.Ingredient.Name, 100*r.VolumeShare),
				fmt.Sprintf("%s: %.0f %% by weight", r.Ingredient.Name, 100*r.WeightShare),
			},
		}
		if known := r.Ingredient.Counts(); len(known) > 0 && out[i].Spoons.Note == "" {
			out[i].Spoons.Note = fmt.Sprintf("one %s is about %s", known[0].Thing,
				w.weight(quantity.Mass(known[0].Grams)*quantity.Gram))
		}
	}
	return out
}

// LedgerSheet is the salt of one piece against the band the cook chose.
type LedgerSheet struct {
	Percent Figure       `json:"percent" doc:"% of raw boneless meat"`
	Plate   Figure       `json:"plate" doc:"% of served meat"`
	Sodium  Figure       `json:"sodium" doc:"mg a serving"`
	Day     Figure       `json:"day" doc:"Sodium of a serving, % of a day's 2 300 mg"`
	Outer   Figure       `json:"outer" doc:"Salt in the outer 5 mm when the fire starts, %"`
	Band    salt.Band    `json:"band" doc:"The band the cook chose"`
	Tastes  string       `json:"tastes" doc:"The band it falls in"`
	Verdict string       `json:"verdict" doc:"How it stands to the chosen band"`
	InBand  bool         `json:"in_band"`
	Summary string       `json:"summary" doc:"The percentage and the verdict, for those who do not see the picture"`
	Lines   []LedgerLine `json:"lines" nullable:"false"`
	Bands   []salt.Band  `json:"bands" nullable:"false" doc:"All bands, upwards"`
	Narrows string       `json:"narrows,omitempty" doc:"What to weigh to know this better, and how much that helps; absent when nothing does"`
	Freed   *Freed       `json:"freed,omitempty" doc:"The source that gave way to the target, when it is not the rub"`
}

// LedgerLine is one source of salt.
type LedgerLine struct {
	ID      dose.ID    `json:"id" doc:"Names the source within the piece: rub, bath, inject, binder, or layer-0 and so on"`
	Name    string     `json:"name"`
	Percent float64    `json:"percent" doc:"% of raw boneless meat that stays"`
	Text    string     `json:"text" doc:"The same as a cook reads it, without unit" example:"0.33"`
	Salt    string     `json:"salt" doc:"Salt on one piece"`
	Place   salt.Place `json:"place" enum:"surface,pockets,dissolved"`
	Stays   string     `json:"stays" doc:"How much of it stays, with its range"`
	Summary string     `json:"summary" doc:"The same in a line"`
}

// Freed is the source that was adjusted to the target.
type Freed struct {
	Source dose.ID `json:"source" doc:"rub, bath, inject or layer-N"`
	Line   int     `json:"line" doc:"Which line of the ledger it is"`
	Name   string  `json:"name"`
	Amount Figure  `json:"amount" doc:"How much of it meets the target"`
}

func (w writer) ledger(l *cooking.Ledger) *LedgerSheet {
	out := &LedgerSheet{
		Percent: w.figure(l.Percent),
		Plate:   w.figure(l.Plate),
		Sodium:  w.figure(l.Sodium),
		Day:     w.figure(l.Day),
		Outer:   w.figure(l.Outer),
		Band:    l.Band,
		Tastes:  l.Tastes.Name,
		Bands:   salt.Bands,
		Lines:   []LedgerLine{},
	}
	switch {
	case l.Differs < 0:
		out.Verdict = fmt.Sprintf("%.2f short of %s", -l.Differs, l.Band.Name)
	case l.Differs > 0:
		out.Verdict = fmt.Sprintf("%.2f over %s", l.Differs, l.Band.Name)
	default:
		out.Verdict, out.InBand = "within "+l.Band.Name, true
	}
	out.Summary = out.Percent.Text + " % salt, " + out.Verdict
	skipped := -1
	for i, line := range l.Lines {
		if line.Label.ID == (dose.Rub{}).ID() && len(line.Mix.Components) == 0 {
			skipped = i // there is no rub
			continue
		}
		one := LedgerLine{
			ID: line.Label.ID, Name: sourceName(line.Label), Percent: line.Percent, Text: decimal(line.Percent, 2),
			Salt: w.weight(line.Salt), Place: line.Place, Stays: percentRange(line.Stays),
		}
		one.Summary = fmt.Sprintf("%s: %s %%, %s of salt", one.Name, one.Text, one.Salt)
		out.Lines = append(out.Lines, one)
	}
	if l.Weigh >= 0 && l.Less >= 0.05 {
		out.Narrows = fmt.Sprintf("Weighing the %s would make this surer by %.2f %%.", sourceName(l.Lines[l.Weigh].Label), l.Less)
	}
	for _, line := range l.Lines {
		if off := line.Mix.SaltOff; off > 0 {
			out.Narrows = fmt.Sprintf("Read the label of the %s: until then it counts as %.0f to %.0f %% salt, which is usual.",
				sourceName(line.Label), line.Mix.Per100g.Salt*(1-off), line.Mix.Per100g.Salt*(1+off))
		}
	}
	if f := l.Freed; f != nil {
		at := f.Line
		if skipped >= 0 && at > skipped {
			at--
		}
		out.Freed = &Freed{Source: f.ID, Line: at, Name: sourceName(f.Label), Amount: w.figure(f.Amount)}
	}
	return out
}
