package facts

import (
	"cmp"
	"slices"
	"strings"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Weights are what is weighed of a piece, of all that are alike together: after trimming, off the
// fire, its bones; of its rub what was mixed and what was left; and the meat that was kept.
var Weights = []string{"trimmed", "cooked", "bones", "mixed", "left", "kept"}

// Fuel is what a pit burnt, weighed: of the pit of its number in Values.
const Fuel = "fuel"

// HeaviestKG is the heaviest weight of a line.
const HeaviestKG = 2000

// Aspects are what is scored, from 1 to HighScore.
var Aspects = []string{"salt", "bark", "tenderness", "moisture", "smoke"}

// HighScore is the highest score.
const HighScore = 5

// Mass is what was weighed. The error is a field.Wrong.
func (f Fact) Mass() (quantity.Mass, error) {
	typed, _ := f.Values["typed"].(string)
	m, err := quantity.ParseMass(typed)
	if err == nil && (m < 0 || m > HeaviestKG) {
		err = field.Because("weight.range", "most", quantity.Mass(HeaviestKG))
	}
	return m, err
}

// Sure reports whether the cook has said that a weight is right that cannot be, by all else.
func (f Fact) Sure() bool {
	sure, _ := f.Values["sure"].(bool)
	return sure
}

// Score is how f scores an aspect; false when it does not.
func (f Fact) Score() (int, bool) {
	v, ok := f.Values["score"].(float64)
	if n, isInt := f.Values["score"].(int); isInt {
		v, ok = float64(n), true
	}
	return int(v), ok && v == float64(int(v)) && v >= 1 && v <= HighScore
}

// checkAfter returns what is wrong with a weight, a score or a note.
func (f Fact) checkAfter(errs *field.Errors) {
	switch f.Kind {
	case Weighed:
		if !slices.Contains(Weights, f.What) && f.What != Fuel {
			errs.Add("/what", "choice.unknown", "choices", append([]string{Fuel}, Weights...))
		}
		_, err := f.Mass()
		errs.Take("/values/typed", err)
	case Scored:
		if !slices.Contains(Aspects, f.What) {
			errs.Add("/what", "choice.unknown", "choices", Aspects)
		}
		if _, ok := f.Score(); !ok {
			errs.Add("/values/score", "score.range", "most", HighScore)
		}
	case Noted:
		if strings.TrimSpace(f.What) == "" {
			errs.Add("/what", "note.empty")
		}
	}
}

// Weighed is what was weighed of a piece last.
func (all Facts) Weighed(piece, what string) (quantity.Mass, Fact, bool) {
	f, ok := all.last(func(f Fact) bool { return f.Kind == Weighed && f.Piece == piece && f.What == what })
	if !ok {
		return 0, f, false
	}
	m, err := f.Mass()
	return m, f, err == nil
}

// Burnt is the fuel that the pit of that number burnt, as it was weighed last.
func (all Facts) Burnt(pit int) (quantity.Mass, Fact, bool) {
	f, ok := all.last(func(f Fact) bool {
		n, _ := f.Values["pit"].(float64)
		return f.Kind == Weighed && f.What == Fuel && int(n) == pit
	})
	if !ok {
		return 0, f, false
	}
	m, err := f.Mass()
	return m, f, err == nil
}

// Scores are the last scores of a piece by each author and aspect, in the order in which they were
// first given.
func (all Facts) Scores(piece string) []Fact {
	var out []Fact
	for _, f := range all.Standing() {
		if f.Kind != Scored || f.Piece != piece {
			continue
		}
		i := slices.IndexFunc(out, func(o Fact) bool { return o.What == f.What && o.Author == f.Author })
		if i < 0 {
			out = append(out, f)
		} else {
			out[i] = f
		}
	}
	return out
}

// Notes are what is to be remembered of a piece, or of the whole cook for the empty key.
func (all Facts) Notes(piece string) []Fact {
	other := func(f Fact) bool { return f.Kind != Noted || f.Piece != piece || f.words() != "" }
	return slices.DeleteFunc(all.Standing(), other)
}

// CoreC is the core that was told with what was done, °C; false when there is none that a thermometer can show.
func (f Fact) CoreC() (float64, bool) {
	c, told := f.Values["core_c"].(float64)
	return c, told && c >= LowRead && c <= HighRead
}

// ToldAfterwards are the facts of a piece that were told, not pressed. Those of its pit and of the whole cook say
// of which piece they were told.
func (all Facts) ToldAfterwards(piece string) []Fact {
	other := func(f Fact) bool {
		of, _ := f.Values["of"].(string)
		return f.Device != ToldDevice || cmp.Or(f.Piece, of, piece) != piece
	}
	return slices.DeleteFunc(all.Standing(), other)
}

// Misread reports whether something was told afterwards by a version that kept no words: what it made of them may be
// wrong, and teaches nothing until it is told again.
func (all Facts) Misread() bool {
	told, kept := map[string]bool{}, map[string]bool{}
	for _, f := range all.Standing() {
		if f.Device == ToldDevice {
			told[f.Piece] = true
			if f.words() != "" {
				kept[f.Piece] = true
			}
		}
	}
	delete(told, "")
	for piece := range told {
		if !kept[piece] {
			return true
		}
	}
	return false
}

// ToldDevice is the Device of facts that were told afterwards, not pressed.
const ToldDevice = "told"

// words are those that a fact keeps of what was told.
func (f Fact) words() string {
	text, _ := f.Values["words"].(string)
	return text
}

// Told are the words in which a piece was told afterwards; empty when it was not, or they were not kept.
func (all Facts) Told(piece string) string {
	out := ""
	for _, f := range all.Standing() {
		if f.Kind == Noted && f.Piece == piece {
			out += f.words()
		}
	}
	return out
}
