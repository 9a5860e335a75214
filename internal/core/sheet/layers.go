package sheet

import (
	"fmt"
	"math"
	"strings"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// layer is one more dose, understood.
type layer struct {
	kind string
	name string
	mass quantity.Mass // on one piece
	mix  formula.Mix
}

// lossSpan is a retained share by kind of dose.
type lossSpan struct{ low, high float64 }

func (l lossSpan) mid() float64 { return (l.low + l.high) / 2 }

// injectionLoss is what runs out of the needle's holes again.
var injectionLoss = lossSpan{0.05, 0.25}

// layerStays is how much of a dose's salt ends on the plate with the meat, by
// where it goes: what runs into the pan or the fire is lost. Field judgement; the
// range is shown.
var layerStays = map[string]lossSpan{
	"dusting": {0.70, 0.90}, // a second dose of rub before the fire
	"binder":  {0.50, 0.90},
	"spritz":  {0.20, 0.60},
	"wrap":    {0.30, 0.70}, // the rest is in the juices
	"glaze":   {0.70, 0.95},
	"finish":  {0.95, 1.00},
	"juices":  {0.80, 1.00}, // back on the slices
}

// LayerSource is the authority printed for what stays of a dose.
const LayerSource = "field judgement by where a dose goes; its range is part of the figure"

func (p *piece) readLayers(at string, errs *field.Errors) {
	if len(p.typed.Layers) > maxLayers {
		errs.Add(at, "at most %d layers", maxLayers)
		return
	}
	for i, t := range p.typed.Layers {
		here := fmt.Sprintf("%s/%d", at, i)
		if _, ok := layerStays[t.Kind]; !ok && t.Kind != "base" {
			errs.Add(here+"/kind", "base, dusting, binder, spritz, wrap, glaze, finish or juices")
		}
		mix, wrong := formula.Blend(t.Formula, p.opt.Shelf)
		for _, w := range wrong {
			errs.Add(here+"/formula"+w.Pointer, "%s", w.Detail)
		}
		if len(wrong) > 0 || p.green == 0 {
			continue
		}
		l := layer{kind: t.Kind, name: or(t.Formula.Name, t.Kind), mix: mix}
		var err error
		if n, free := p.freeLayer(); free && n == i && p.byTarget {
			p.layers = append(p.layers, l) // its amount is worked out
			continue
		}
		if l.mass, err = p.layerMass(t.Amount, mix); !errs.Take(here+"/amount", err) && l.mass > p.green {
			errs.Add(here+"/amount", "that is more than the meat weighs")
		}
		p.layers = append(p.layers, l)
	}
}

// layerMass reads how much of mix goes on one piece: a coat, a share of the
// meat's weight, a weight or a measure.
func (p *piece) layerMass(typed string, mix formula.Mix) (quantity.Mass, error) {
	typed = strings.TrimSpace(typed)
	if c, ok := formula.FindCoat(strings.ToLower(typed)); ok {
		return mix.CoatMass(c.MLPerDM2, p.salted()), nil
	}
	if strings.HasSuffix(typed, "%") {
		share, err := quantity.ParsePercent(typed)
		return quantity.Mass(float64(share)/100) * p.green, err
	}
	a, err := quantity.ParseAmount(typed, false)
	if err != nil {
		return 0, fmt.Errorf("%w; or a coat (light, medium, heavy), or a share of the meat (2 %%)", err)
	}
	return a.Mass + quantity.Mass(a.Volume.ML()*mix.GramsPerML)*quantity.Gram, nil
}

// others are the sources of salt besides the rub, in the order they go on.
func (p *piece) others() []salt.Source {
	var out []salt.Source
	if p.bath != nil {
		took := p.bath.took(p)
		out = append(out, salt.Source{
			Name: "bath", Salt: took.mid, Place: salt.Dissolved,
			Stays: salt.Share{Low: float64(took.low / took.mid), Mid: 1, High: float64(took.high / took.mid)},
		})
	}
	if p.inject != nil {
		out = append(out, salt.Source{
			Name: or(p.typed.Inject.Formula.Name, "injection"), Place: salt.Pockets,
			Salt:  quantity.Mass(float64(p.inject.mass) * p.inject.mix.SaltShare()),
			Stays: salt.Share{Low: 1 - injectionLoss.high, Mid: 1 - injectionLoss.mid(), High: 1 - injectionLoss.low},
		})
	}
	for _, l := range p.layers {
		s := salt.Source{Name: l.name, Salt: quantity.Mass(float64(l.mass) * l.mix.SaltShare()), Place: salt.Surface}
		if span, ok := layerStays[l.kind]; ok {
			s.Stays = salt.Share{Low: span.low, Mid: span.mid(), High: span.high}
		} else { // a base layer lies under the rub and waits with it
			s.Stays.Low, s.Stays.Mid, s.Stays.High = formula.Stays(p.wait.Hours())
		}
		out = append(out, s)
	}
	return out
}

// sources are all of them, the rub last of what was chosen before the fire.
func (p *piece) sources(d dose) []salt.Source { return append(p.others(), p.source(d)) }

// otherWords says what they bring together.
func (p *piece) otherWords() string {
	others := p.others()
	if len(others) == 0 {
		return "none"
	}
	l, err := salt.Tally(p.meat(), others)
	if err != nil {
		return "none"
	}
	return fmt.Sprintf("%.2f %%", math.Round(l.PercentRaw.Mid*100)/100)
}
