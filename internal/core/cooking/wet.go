package cooking

import (
	"math"
	"time"

	"verjuice/internal/core/dose"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/trace"
)

// Bath is a wet brine, worked out.
type Bath struct {
	dose.Brew
	Typed    dose.Bath
	Liquid   trace.Figure // m³
	Salt     trace.Figure // kg to dissolve in it
	Strength trace.Figure // % by weight
	Degrees  trace.Figure // salometer
	Density  trace.Figure // kg/m³
	Ice      trace.Figure // kg
	Hot      trace.Figure // kg
	Plain    trace.Figure // kg of water to pour, ice counted in
	Takes    trace.Figure // % in the meat when it is lifted out
	Gain     trace.Figure // weight gained, % of the trimmed weight
	Aim      float64      // salt it is meant to bring, kg/kg of boneless meat
	Soaks    time.Duration
	Early    time.Duration
	Reached  time.Duration // Aim; zero when it is not within a week
	Late     time.Duration // a tenth over it
	// When the meat is as salty as most people like at most; zero when it never gets there, or a target is told.
	Lift  time.Duration
	At    []salt.Moment
	Parts []BathPart
	Sugar float64 // % of the brine
	// that it ends at when what is not water comes from the shelf instead of the fridge; zero when all is water
	Shelf   quantity.Celsius
	Acid    float64         // % of the brine
	Meat    quantity.Volume // of all pieces
	TooFull bool
}

// MostLiked is the salt of raw boneless meat above which it is like ham, kg/kg: the upper end of bold.
var MostLiked = salt.BandOf(1.5).High / 100

// BathPart is something else in a bath.
type BathPart struct {
	dose.Stirred
	Mass quantity.Mass
	Salt quantity.Mass // that it brings
}

// BathOf is a wet brine of a piece, and what it brings, in a room that warm.
func bathOf(t dose.Bath, took dose.Brought, on dose.Target, meat order.Meat, room quantity.Celsius) *Bath {
	w := t.Brew(on)
	one := w.One(on)
	percent := w.Percent()
	count := quantity.Mass(meat.Count)
	inputs := []any{"meat_boneless", on.Meat.Edible() * count, "water_in_bath", w.Water}
	saltRule := "bath.salt-strong"
	switch {
	case t.Salt > 0:
		saltRule = "bath.salt-solved"
	case t.Recipe != nil:
		saltRule = "bath.salt-recipe"
	case t.Equilibrium:
		saltRule = "bath.salt-equilibrium"
	}
	if w.Brings > 0 {
		inputs = append(inputs, "salt_with_rest", trace.OfMass(w.Brings))
	}
	liquidRule := "bath.liquid-given"
	if t.Given == 0 {
		liquidRule = "bath.liquid-covers"
	}
	exact := func(rule string, v float64) trace.Figure { return trace.Exact(rule, v, inputs...) }
	share := func(stays float64) float64 { return 100 * float64(took.Salt) * stays / float64(one.Meat) }
	takes := quantity.Within(share(1), took.Off)
	// Only plain water is boiled up and goes in as ice; the rest goes in cold.
	ice := salt.IceShare(t.Hot)
	tenth := func(m quantity.Mass) quantity.Range[float64] { return quantity.Within(m.KG(), 0.1) }
	// Salt draws water in with it until the proteins are full: about four grams a gram.
	gain := takes.Mid * 4 * (1 - meat.Cut.BoneShare())
	out := &Bath{
		Brew:     w,
		Soaks:    t.Soaks(on),
		Typed:    t,
		Meat:     meat.Volume() * quantity.Volume(count),
		Aim:      t.Aim(w, on, float64(took.Salt)*took.Stays.Mid/float64(one.Meat)),
		Liquid:   exact(liquidRule, float64(w.Liquid)),
		Salt:     exact(saltRule, max(0, w.Salt-w.Brings).KG()),
		Strength: exact("bath.strength", percent),
		Degrees:  exact("bath.degrees", salt.Salometer(percent)),
		Density:  exact("bath.density", salt.BrineDensity(percent)+salt.SugarDensity*sugarIn(w, t)),
		Takes:    trace.New("bath.takes", takes, append(inputs, "time", t.Soaks(on), "at", on.Fridge)...),
		Ice:      trace.New("bath.ice", tenth(w.Plain*quantity.Mass(ice)), inputs...),
		Hot:      trace.New("bath.ice", tenth(w.Plain*quantity.Mass(1-ice)), inputs...),
		Plain:    exact("bath.water", w.Plain.KG()),
		Gain:     trace.New("bath.gain", quantity.Range[float64]{Low: gain * 0.5, Mid: gain, High: gain * 1.6}, inputs...),
		At:       one.Course(12*time.Hour, 24*time.Hour, 36*time.Hour),
	}
	reached := one.Reach(1, out.Aim*0.9, out.Aim, out.Aim*1.1)
	out.Early, out.Reached, out.Late = reached[0], reached[1], reached[2]
	if t.Recipe != nil && t.Salt == 0 && out.Aim > MostLiked {
		out.Lift = one.Reach(1, MostLiked)[0]
	}
	if w.Plain < w.Water*0.999 {
		out.Shelf = quantity.Celsius(
			(float64(w.Plain)*float64(salt.IceBathEnds) + float64(w.Water-w.Plain)*float64(room)) / float64(w.Water),
		)
	}
	out.TooFull = t.Pot > 0 && float64(out.Meat)+float64(w.Liquid) > 0.95*float64(t.Pot)
	total := (w.Water + w.Salt).Grams()
	for i, with := range t.With {
		g := w.Parts[i].Grams()
		out.Parts = append(out.Parts, BathPart{with, w.Parts[i], quantity.Mass(with.Mix.SaltShare()) * w.Parts[i]})
		out.Sugar += g * with.Mix.Per100g.Sugar / total
		out.Acid += g * with.Mix.Per100g.Acid / total
	}
	return out
}

// sugarIn is the sugar in a bath, % by weight of the brine.
func sugarIn(w dose.Brew, t dose.Bath) float64 {
	sugar := 0.0
	for i, with := range t.With {
		sugar += w.Parts[i].Grams() * with.Mix.Per100g.Sugar / 100
	}
	return 100 * sugar / ((w.Water + w.Salt).Grams() + sugar)
}

// Needle is an injection, worked out.
type Needle struct {
	dose.Needle
	Typed   dose.Injection
	Volume  trace.Figure // m³ into one piece
	Batch   trace.Figure // kg to mix for all pieces
	Sites   trace.Figure
	PerSite trace.Figure // m³
	Refills trace.Figure
	Salt    trace.Figure // % of raw boneless meat that stays
	Even    trace.Figure // salt halfway between sites over the mean, %, at the fire
	Runs    quantity.Range[quantity.Volume]
	Over    quantity.Volume // that the pieces do not take, of what the cook said
	Pump    float64         // injected, % of the trimmed weight
	Length  quantity.Length // of the piece, along the grain
	Width   quantity.Length
	Rows    []dose.Row
	Bone    bool
	Skin    bool
}

// NeedleOf is an injection of a piece, and what it brings. The size is told where figures come
// from.
func needleOf(t dose.Injection, one dose.Brought, on dose.Target, meat order.Meat, size any) *Needle {
	n := t.Needle(on)
	inputs := []any{
		"pump", Pump{100 * float64(one.Mass/on.Meat.Green), on.Meat.Green}, "grid", t.Spacing, "piece", size,
	}
	sites := math.Max(1, float64(n.Sites))
	pump := float64(one.Mass / on.Meat.Green)
	lost := dose.Lost(pump)
	salty := 100 * float64(one.Mass) * one.Mix.SaltShare() / float64(on.Meat.Edible())
	return &Needle{
		Needle:  n,
		Typed:   t,
		Length:  on.Length,
		Width:   on.Width,
		Bone:    meat.Cut.BonePercent > 0,
		Skin:    meat.Cut.Sealed == "skin",
		Volume:  trace.Exact("inject.volume", float64(n.Volume), inputs...),
		Batch:   trace.Exact("inject.batch", n.Batch.KG(), inputs...),
		Sites:   trace.Exact("inject.sites", sites, inputs...),
		PerSite: trace.Exact("inject.per-site", float64(n.Volume)/sites, inputs...),
		Refills: trace.Exact("inject.refills", float64(n.Refills), inputs...),
		Salt:    trace.New("inject.salt", quantity.Times(one.Stays, salty), inputs...),
		Even:    trace.New("inject.even", quantity.Times(n.Even, 100), append(inputs, "rest", on.Wait)...),
		Runs: quantity.Range[quantity.Volume]{
			Low:  n.Volume * quantity.Volume(lost.Low),
			Mid:  n.Volume * quantity.Volume(lost.Mid),
			High: n.Volume * quantity.Volume(lost.High),
		},
		Over: t.Mix.Volume(t.Over(on)),
		Pump: 100 * pump,
		Rows: dose.Rows(t.Formula, t.Mix.Weigh(n.Batch)),
	}
}

// Pump is a share of a weight.
type Pump struct {
	Percent float64
	Of      quantity.Mass
}
