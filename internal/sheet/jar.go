package sheet

import (
	"fmt"
	"time"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
)

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
		out.Taken = append(out.Taken, w.weight(t))
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
