package sheet

import (
	"fmt"
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// bath is a wet brine, understood.
type bath struct {
	equilibrium bool
	strength    float64 // of a strong one, kg/kg
	target      float64 // kg/kg of raw boneless meat
	water       quantity.Mass
	salt        quantity.Mass // of all of it
	given       bool          // the liquid was typed
	liquid      quantity.Volume
	with        []bathDose
	brings      quantity.Mass // salt that comes with those
	pot         quantity.Volume
	lasts       time.Duration
	hot         quantity.Celsius
	uptake      *uptake // once worked out
}

// uptake is the salt that one piece takes up, with the range that the diffusivity
// allows.
type uptake struct{ low, mid, high quantity.Mass }

// Usual values of a wet brine and an injection.
const (
	UsualStrength   = "6 %"
	UsualBathTarget = "0.7 %"
	UsualBathTime   = "18 h"
	UsualHot        = "95 °C"
	UsualPump       = "8 %"
	UsualSpacing    = "2.5 cm"
	UsualSyringe    = "60 mL"
	UsualBore       = "2 mm"
)

func (p *piece) readBath(at string, errs *field.Errors) {
	t := p.typed.Bath
	if t == nil {
		return
	}
	before := len(*errs)
	kind := or(t.Kind, "equilibrium")
	b := &bath{equilibrium: kind == "equilibrium", given: strings.TrimSpace(t.Liquid) != ""}
	if kind != "strong" && kind != "equilibrium" {
		errs.Add(at+"/kind", "strong or equilibrium")
	}
	percent := func(pointer, typed, usual string, low, high float64) float64 {
		v, err := quantity.ParsePercent(or(typed, usual))
		if !errs.Take(pointer, err) && (float64(v) < low || float64(v) > high) {
			errs.Add(pointer, "between %g and %g %%", low, high)
		}
		return float64(v) / 100
	}
	b.strength = percent(at+"/strength", t.Strength, UsualStrength, 0.5, 26)
	b.target = percent(at+"/target", t.Target, UsualBathTarget, 0.1, 3)
	var err error
	if b.lasts, err = quantity.ParseDuration(or(t.For, UsualBathTime)); !errs.Take(at+"/for", err) &&
		(b.lasts < 10*time.Minute || b.lasts > 5*24*time.Hour) {
		errs.Add(at+"/for", "between 10 minutes and five days")
	}
	if b.hot, err = quantity.ParseTemperature(or(t.Hot, UsualHot)); !errs.Take(at+"/hot", err) && (b.hot < 10 || b.hot > 100) {
		errs.Add(at+"/hot", "between 10 and 100 °C")
	}
	volume := func(pointer, typed string) quantity.Volume {
		v, err := quantity.ParseVolume(typed)
		if !errs.Take(pointer, err) && (v < 0.05*quantity.Litre || v > 300*quantity.Litre) {
			errs.Add(pointer, "between 50 mL and 300 L")
		}
		return v
	}
	if strings.TrimSpace(t.Pot) != "" {
		b.pot = volume(at+"/pot", t.Pot)
	}
	if p.green == 0 {
		return
	}
	liquid := salt.Cover(p.volume())
	if b.given {
		liquid = volume(at+"/liquid", t.Liquid)
	}
	if len(*errs) > before {
		return
	}
	b.liquid = liquid
	if !p.readWith(b, at+"/with", errs) {
		return
	}
	if b.equilibrium {
		b.salt = salt.EquilibriumSalt(p.meat().Edible()*quantity.Mass(p.count), b.water, b.target)
	} else {
		b.salt = quantity.Mass(b.strength/(1-b.strength)) * b.water
	}
	if b.brings > b.salt*1.0001 {
		errs.Add(at+"/with", "what goes into it alone brings %s g of salt; this bath wants %s g", quantity.FormatGrams(b.brings), quantity.FormatGrams(b.salt))
		return
	}
	p.bath = b
}

// volume is the room that all pieces take in a pot.
func (p *piece) volume() quantity.Volume {
	return quantity.Volume(float64(p.green) / p.cut.Density() * float64(p.count))
}

// one is the share of the bath that belongs to one piece.
func (b *bath) one(p *piece) salt.Bath {
	n := quantity.Mass(p.count)
	return salt.Bath{Water: b.water / n, Salt: b.salt / n, Meat: p.meat().Edible(), Path: p.geometry.Path(p.cut.Sealed == "skin"), Temperature: p.fridge}
}

// took is the salt that one piece takes up in its time. It is worked out once.
func (b *bath) took(p *piece) uptake {
	if b.uptake == nil {
		one := b.one(p)
		at := func(factor float64) quantity.Mass {
			return quantity.Mass(one.After(b.lasts, factor).Mean) * one.Meat
		}
		b.uptake = &uptake{at(1 - salt.DiffusivitySpread), at(1), at(1 + salt.DiffusivitySpread)}
	}
	return *b.uptake
}

// BathSheet is a wet brine, worked out.
type BathSheet struct {
	Liquid    trace.Figure `json:"liquid" doc:"Liquid in the pot, L"`
	Salt      trace.Figure `json:"salt" doc:"Salt to dissolve in it, g"`
	Strength  trace.Figure `json:"strength" doc:"% of salt by weight"`
	Salometer trace.Figure `json:"salometer" doc:"Degrees; 100 is saturated"`
	Density   trace.Figure `json:"density" doc:"kg/L at 20 °C"`
	Floats    string       `json:"floats" doc:"What a fresh egg does in it"`
	Fits      string       `json:"fits" doc:"Whether meat and liquid fit the pot, in words; empty without a pot"`
	TooFull   bool         `json:"too_full"`
	Ice       trace.Figure `json:"ice" doc:"Of the liquid, what goes in as ice so that it ends at 4 °C, g"`
	Hot       trace.Figure `json:"hot" doc:"What is boiled up, g"`
	Takes     trace.Figure `json:"takes" doc:"Salt in the meat when it is lifted out, %"`
	Gain      trace.Figure `json:"gain" doc:"Weight gained, % of the trimmed weight"`
	Window    string       `json:"window" doc:"When to lift it out and how forgiving that is"`
	At        []BathMoment `json:"at" nullable:"false"`
	Rule      string       `json:"rule" doc:"The school, and what it buys and costs"`
	Water     trace.Figure `json:"water" doc:"Plain water to pour, ice counted in, g"`
	Parts     []BathPart   `json:"parts" nullable:"false" doc:"What goes in besides water and salt"`
	PartsSay  string       `json:"parts_say" doc:"What those do, in words; may be empty"`
}

// BathMoment is what the meat holds after some hours.
type BathMoment struct {
	Hours   float64 `json:"hours"`
	Percent float64 `json:"percent"`
	Centre  float64 `json:"centre"`
}

const bathSource = "Fick’s law in a stirred bath of limited volume (Crank, 2nd ed., eq. 4.37); meat is 74 % water, and its salt lives in that"

func (p *piece) bathSheet() *BathSheet {
	b := p.bath
	one := b.one(p)
	total := b.water + b.salt
	percent := 100 * float64(b.salt/total)
	g := grams{p.opt}
	liquid := b.liquid.ML() / 1000
	liquidWords := "As you set it."
	if !b.given {
		liquidWords = "Loosely packed pieces fill about 57 % of the room, so it takes three quarters of their volume to cover them."
	}
	inputs := []trace.Input{
		{Name: "meat, boneless", Text: quantity.FormatMass(p.meat().Edible()*quantity.Mass(p.count), p.opt.Units)},
		{Name: "water in the bath", Text: quantity.FormatMass(b.water, p.opt.Units)},
	}
	exact := func(v float64, decimals int, unit, words string) trace.Figure {
		return trace.Exact(v, decimals, unit, trace.Origin{Words: words, Source: bathSource, Inputs: inputs})
	}
	saltWords := "The strength you chose, of brine by weight."
	if b.equilibrium {
		saltWords = "Target × (meat + water ÷ 0.74): shared evenly between the bath and the water in the meat it gives the target, however long it takes."
	}
	if b.brings > 0 {
		saltWords += " Less what comes with the rest of the bath."
		inputs = append(inputs, trace.Input{Name: "salt that comes with the rest", Text: quantity.FormatGrams(b.brings) + " g"})
	}
	took := b.took(p)
	edible := p.meat().Edible()
	share := func(m quantity.Mass) float64 { return 100 * float64(m/edible) }
	out := &BathSheet{
		Liquid: exact(liquid, 1, "L", liquidWords), Salt: g.figure(max(0, b.salt-b.brings), 0, saltWords, bathSource, inputs),
		Strength:  exact(percent, 1, "%", "Salt over salt and water, by weight."),
		Salometer: exact(salt.Salometer(percent), 0, "°", "Strength over that of a saturated brine, 26.4 %."),
		Density:   exact(salt.BrineDensity(percent)/1000, 3, "kg/L", "What a hydrometer shows at 20 °C: 998.2 + 7.03 p + 0.023 p² kg/m³."),
		Floats:    floats(percent),
		Takes: trace.New(share(took.mid), share(took.low), share(took.high), 2, "%", trace.Origin{
			Words: "Salt taken up from the bath in its time, over the raw boneless meat.", Source: bathSource,
			Inputs: append(inputs, trace.Input{Name: "time", Text: quantity.FormatDuration(b.lasts)}, trace.Input{Name: "at", Text: quantity.FormatTemperature(p.fridge, p.opt.Units)})}),
		At: []BathMoment{},
	}
	out.Water = g.figure(b.plainWater(), 0, "The liquid less what else is poured in, by the water it holds.", bathSource, inputs)
	out.Parts, out.PartsSay = b.parts()
	// Only water goes in as ice.
	ice := min(salt.IceShare(b.hot), float64(b.plainWater()/b.water))
	balance := "Heat that the hot part gives to come down to 4 °C, against heat that ice from −18 °C takes to melt and come up to it."
	out.Ice = g.figure(b.water*quantity.Mass(ice), 0.1, balance, bathSource, inputs)
	out.Hot = g.figure(b.water*quantity.Mass(1-ice), 0.1, balance, bathSource, inputs)
	// Salt draws water in with it until the proteins are full: about four grams a gram.
	gain := share(took.mid) * 4 * (1 - p.cut.BoneShare())
	out.Gain = trace.New(gain, gain*0.5, gain*1.6, 1, "%", trace.Origin{
		Words: "Each gram of salt taken up carries about four of water with it (two to six): swelling of the proteins.", Source: "field range for brined meat", Inputs: inputs})
	if b.pot > 0 {
		room := float64(p.volume()) + float64(b.liquid)
		out.TooFull = room > 0.95*float64(b.pot)
		verb := "fits"
		if out.TooFull {
			verb = "does not fit"
		}
		out.Fits = fmt.Sprintf("%s: meat %.1f L and liquid %.1f L in %.1f L", verb, float64(p.volume())*1e3, liquid, float64(b.pot)*1e3)
	}
	for _, m := range one.Course(12*time.Hour, 24*time.Hour, 36*time.Hour) {
		out.At = append(out.At, BathMoment{Hours: m.At.Hours(), Percent: 100 * m.Mean, Centre: 100 * m.Centre})
	}
	out.Window = b.window(one)
	out.Rule = "Strong bath: quick, and over if forgotten. Watch the window."
	if b.equilibrium {
		out.Rule = "Equilibrium bath: it cannot overshoot, and takes days on a thick piece."
	}
	return out
}

func floats(percent float64) string {
	if percent >= salt.FloatsEgg {
		return "a fresh egg floats"
	}
	return fmt.Sprintf("a fresh egg sinks (it floats from about %.0f %%)", salt.FloatsEgg)
}

// window says when to lift the meat out, and how long it stays right.
func (b *bath) window(one salt.Bath) string {
	reached := one.Reach(1, b.target*0.9, b.target, b.target*1.1)
	early, at, late := reached[0], reached[1], reached[2]
	switch {
	case b.equilibrium && early == 0:
		return "It takes over a week to come within a tenth of its target; a stronger bath is quicker."
	case b.equilibrium:
		return fmt.Sprintf("Within a tenth of its target after %s, and it cannot overshoot: forgiving.", quantity.FormatDuration(early))
	case at == 0:
		return fmt.Sprintf("This bath does not bring %.2f %% within a week; make it stronger.", 100*b.target)
	case late == 0:
		return fmt.Sprintf("%.2f %% after %s; it hardly goes over.", 100*b.target, quantity.FormatDuration(at))
	}
	return fmt.Sprintf("%.2f %% after %s; within a tenth of that from %s to %s, a window of %s.", 100*b.target,
		quantity.FormatDuration(at), quantity.FormatDuration(early), quantity.FormatDuration(late), quantity.FormatDuration(late-early))
}
