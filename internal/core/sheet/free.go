package sheet

import (
	"fmt"
	"strconv"
	"strings"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// Freed is the source that gave way to the target.
type Freed struct {
	Source string       `json:"source" doc:"rub, bath, inject or layer-N, as asked"`
	Line   int          `json:"line" doc:"Which line of the ledger it is"`
	Name   string       `json:"name"`
	Amount trace.Figure `json:"amount" doc:"How much of it meets the target"`
}

// rub is the source that is free when nothing else is said.
const rub = "rub"

// maxPump is the most that is pumped into meat, % of its weight: more does not stay.
const maxPump = 30

// rubSolved reports whether the rub gives way to a target.
func (p *piece) rubSolved() bool { return p.byTarget && p.free == rub }

// readFree reads which source is free. A page may name one that is not there any
// more: then it is the rub again.
func (p *piece) readFree(at string, errs *field.Errors) {
	p.free = or(p.typed.Season.Free, rub)
	switch n, isLayer := p.freeLayer(); {
	case p.free == rub:
	case p.free == "bath" && p.typed.Bath != nil:
	case p.free == "inject" && p.typed.Inject != nil:
	case isLayer && n < len(p.typed.Layers):
	case p.free == "bath" || p.free == "inject" || isLayer:
		p.free = rub
	default:
		errs.Add(at, "rub, bath, inject or layer-0")
	}
}

// freeLayer is the number of the layer that is free, if one is.
func (p *piece) freeLayer() (int, bool) {
	tail, ok := strings.CutPrefix(p.free, "layer-")
	n, err := strconv.Atoi(tail)
	return n, ok && err == nil && n >= 0 && n < maxLayers
}

// line is the place of the free source in the ledger.
func (p *piece) freeLine() int {
	n := 0
	if p.free == "bath" {
		return n
	}
	if p.bath != nil {
		n++
	}
	if p.free == "inject" {
		return n
	}
	if p.inject != nil {
		n++
	}
	if i, ok := p.freeLayer(); ok {
		return n + i
	}
	return n + len(p.layers)
}

// solveFree makes the source that the cook left free bring what is missing to the
// target, the rub lying as thick as its coat says. It says in words why it cannot.
func (p *piece) solveFree() error {
	if !p.byTarget || p.free == rub {
		return nil
	}
	d, err := p.dose()
	if err != nil {
		return err
	}
	line := p.freeLine()
	sources := p.sources(d)
	wanted, err := salt.Solve(p.meat(), sources, line, p.target)
	if err != nil {
		return err
	}
	name := sources[line].Name
	from := func(words string) trace.Origin {
		return trace.Origin{Words: words, Source: LayerSource, Inputs: []trace.Input{
			{Name: "target", Text: fmt.Sprintf("%g %%", float64(p.target))},
			{Name: "salt it has to bring to one " + p.cut.Noun, Text: quantity.FormatGrams(wanted) + " g"},
			{Name: "of it stays", Text: fmt.Sprintf("%.0f %%", 100*sources[line].Stays.Mid)},
		}}
	}
	p.freed = &Freed{Source: p.free, Line: line, Name: name}
	none := func(share float64) error {
		if share < 0.0005 && wanted > 0 {
			return fmt.Errorf("%s holds no salt, so no amount of it meets the target: leave another source free", name)
		}
		return nil
	}
	switch i, isLayer := p.freeLayer(); {
	case isLayer:
		l := &p.layers[i]
		if err := none(l.mix.SaltShare()); err != nil {
			return err
		}
		l.mass = quantity.Mass(float64(wanted) / max(l.mix.SaltShare(), 1e-9))
		if l.mass > p.green {
			return fmt.Errorf("it would take %s of %s, more than the meat weighs", quantity.FormatMass(l.mass, p.opt.Units), name)
		}
		p.freed.Amount = grams{p.opt}.figure(l.mass, 0, "What meets the target: the salt missing, over what of it stays and its share of salt.", LayerSource, from("").Inputs)
	case p.free == "inject":
		if err := none(p.inject.mix.SaltShare()); err != nil {
			return err
		}
		p.inject.mass = quantity.Mass(float64(wanted) / max(p.inject.mix.SaltShare(), 1e-9))
		pump := 100 * float64(p.inject.mass/p.green)
		if pump > maxPump {
			return fmt.Errorf("it would take %.0f %% of %s; meat does not hold more than %d %%: make it saltier", pump, name, maxPump)
		}
		p.freed.Amount = trace.Exact(pump, 1, "%", from("Pumped, of the trimmed weight, so that the target is met."))
	default:
		b := p.bath
		b.salt *= quantity.Mass(float64(wanted) / float64(b.took(p).mid))
		b.uptake = nil
		percent := 100 * float64(b.salt/(b.salt+b.water))
		if b.brings > b.salt {
			return fmt.Errorf("what goes into the bath brings too much salt already")
		}
		if percent > 26 {
			return fmt.Errorf("it would take a bath of more than 26 %%, which water does not hold: leave it in longer")
		}
		b.strength = percent / 100
		if b.equilibrium {
			b.target = float64(b.one(p).AtInfinity())
		} else {
			b.target = float64(wanted / p.meat().Edible())
		}
		p.freed.Amount = trace.Exact(percent, 1, "%", from("Strength of the bath that brings the missing salt in its time: uptake grows in proportion to it."))
	}
	return nil
}
