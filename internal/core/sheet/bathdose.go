package sheet

import (
	"fmt"
	"strings"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
)

// bathDose is something in a bath besides water and salt.
type bathDose struct {
	name string
	mix  formula.Mix
	mass quantity.Mass
}

// waterPerML is the mass of a mL of cold water, g.
const waterPerML = 0.998

// readWith reads what goes into the bath besides salt, and how much water is then
// in it. A share of the liquid, or any amount of something that is mostly water,
// takes the place of water; the rest is stirred in. It reports whether all is well.
func (p *piece) readWith(b *bath, at string, errs *field.Errors) bool {
	before := len(*errs)
	typed := p.typed.Bath.With
	if len(typed) > maxWith {
		errs.Add(at, "at most %d things besides water and salt", maxWith)
		return false
	}
	room := b.liquid.ML() // left for plain water
	water := 0.0          // g, of what goes in
	for i, t := range typed {
		here := fmt.Sprintf("%s/%d", at, i)
		mix, wrong := formula.Blend(t.Formula, p.opt.Shelf)
		for _, w := range wrong {
			errs.Add(here+"/formula"+w.Pointer, "%s", w.Detail)
		}
		if len(wrong) > 0 {
			continue
		}
		grams := 0.0
		if share, ok := strings.CutSuffix(strings.TrimSpace(t.Amount), "%"); ok {
			v, err := quantity.ParsePercent(share)
			if errs.Take(here+"/amount", err) {
				continue
			}
			grams = float64(v) / 100 * b.liquid.ML() * mix.GramsPerML
		} else {
			a, err := quantity.ParseAmount(t.Amount, mix.Per100g.Water > 50)
			if errs.Take(here+"/amount", err) {
				continue
			}
			grams = a.Mass.Grams() + a.Volume.ML()*mix.GramsPerML
		}
		if mix.Per100g.Water > 50 {
			room -= grams / mix.GramsPerML
		}
		if room < -1e-6*b.liquid.ML() || grams > 2*b.liquid.ML() {
			errs.Add(here+"/amount", "that is more than the liquid of this bath")
			continue
		}
		water += grams * mix.Per100g.Water / 100
		m := quantity.Mass(grams) * quantity.Gram
		b.brings += m * quantity.Mass(mix.SaltShare())
		b.with = append(b.with, bathDose{or(t.Formula.Name, "something"), mix, m})
	}
	b.water = quantity.Mass(max(0, room)*waterPerML+water) * quantity.Gram
	if len(*errs) == before && b.water <= 0 {
		errs.Add(at, "there is no water in this bath for the salt to dissolve in")
	}
	return len(*errs) == before
}

// plainWater is what is poured in as water, of all the bath.
func (b *bath) plainWater() quantity.Mass {
	m := b.water
	for _, d := range b.with {
		m -= d.mass * quantity.Mass(d.mix.Per100g.Water/100)
	}
	return max(0, m)
}

// BathPart is something else in a bath.
type BathPart struct {
	Name   string `json:"name"`
	Amount string `json:"amount" doc:"By weight"`
	Salt   string `json:"salt" doc:"Salt it brings"`
}

// parts are what goes in besides, and what they do to the bath in words.
func (b *bath) parts() ([]BathPart, string) {
	out, says := []BathPart{}, []string{}
	acid, sugar, total := 0.0, 0.0, (b.water + b.salt).Grams()
	for _, d := range b.with {
		g := d.mass.Grams()
		out = append(out, BathPart{Name: d.name, Amount: quantity.FormatGrams(d.mass) + " g", Salt: quantity.FormatGrams(quantity.Mass(d.mix.SaltShare())*d.mass) + " g"})
		acid += g * d.mix.Per100g.Acid / 100
		sugar += g * d.mix.Per100g.Sugar / 100
	}
	if s := 100 * sugar / total; s >= 1 {
		says = append(says, fmt.Sprintf("%.0f %% sugar: it stays near the surface, and colours there.", s))
	}
	if a := 100 * acid / total; a >= 1 {
		says = append(says, fmt.Sprintf("%.1f %% acid: past some hours it turns the outside mealy.", a))
	}
	return out, strings.Join(says, " ")
}
