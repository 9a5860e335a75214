package order

import (
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/amounts"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
)

// salting reads how salty a piece is to be, and which source is adjusted to that.
func (r reader) salting(p cook.Piece, mix formula.Mix, sound bool) (out Part[Salting]) {
	at := r.at + "/season"
	s, errs, t := &out.Value, &out.Wrong, p.Season
	s.Formula, s.FromID = r.called(t.Formula), r.kitchen.FormulaOf(t.Formula)
	s.UsualBy = mix.SaltLed()
	switch t.Mode {
	case "":
		s.ByTarget = s.UsualBy
	case "target", "coat", "amount":
		s.ByTarget = t.Mode == "target"
		s.BySaid = t.Mode == "amount"
	default:
		errs.Add(at+"/mode", "choice.unknown", "choices", []string{"target", "coat", "amount"})
	}
	var err error
	if s.Target, err = quantity.ParsePercent(or(t.Target, cook.UsualTarget)); !errs.Take(at+"/target", err) &&
		(s.Target <= 0 || s.Target > 5) {
		errs.Add(at+"/target", "season.target")
	}
	var ok bool
	if s.Free, ok = free(p); !ok {
		errs.Add(at+"/free", "season.free")
	}
	if len(mix.Components) == 0 && sound && s.Free == (dose.Rub{}).ID() {
		s.ByTarget = false // no rub that could give way
	}
	if s.Solved(dose.Rub{}.ID()) && sound && mix.SaltShare() < 0.005 {
		errs.Add(at+"/mode", "mix.no-salt")
	}
	if s.Band, ok = salt.FindBand(or(t.Band, cook.UsualBand)); !ok {
		errs.Add(at+"/band", "choice.unknown", "choices", salt.BandNames)
	}
	return out
}

// free is the source that is left free, and whether there is such a one. A page may
// name one that is not there any more: then it is the rub again.
func free(p cook.Piece) (dose.ID, bool) {
	rub := dose.Rub{}.ID()
	id := dose.ID(or(p.Season.Free, string(rub)))
	tail, isLayer := strings.CutPrefix(string(id), "layer-")
	n, err := strconv.Atoi(tail)
	isLayer = isLayer && err == nil && n >= 0 && n < maxLayers
	switch {
	case id == rub,
		id == dose.Bath{}.ID() && p.Bath != nil,
		id == dose.Injection{}.ID() && p.Inject != nil,
		isLayer && n < len(p.Layers):
		return id, true
	case id == dose.Bath{}.ID(), id == dose.Injection{}.ID(), isLayer:
		return rub, true
	}
	return rub, false
}

// rub reads the rub.
func (r reader) rub(p cook.Piece, mix formula.Mix, wrong field.Errors, meat Part[Meat]) (out Part[Move]) {
	at := r.at + "/season"
	errs, t := &out.Wrong, p.Season
	errs.Put(at+"/formula", wrong)
	rub := dose.Rub{Formula: r.called(t.Formula), Mix: mix, Holds: 1}
	if t.Binder || slices.ContainsFunc(p.Layers, func(l cook.Layer) bool { return l.Kind == "binder" }) {
		rub.Holds = formula.BinderHolds
	}
	var ok bool
	if rub.Coat, ok = formula.FindCoat(or(t.Coat, cook.UsualCoat)); !ok {
		errs.Add(at+"/coat", "choice.unknown", "choices", formula.CoatNames())
	}
	spare, err := quantity.ParsePercent(or(t.Spare, cook.UsualSpare))
	if !errs.Take(at+"/spare", err) && spare > 300 {
		errs.Add(at+"/spare", "percent.range", "low", 0.0, "high", 300.0)
	}
	rub.Spare = float64(spare) / 100
	if len(wrong) == 0 && len(p.Weighed) > 0 {
		rub.Scale = r.weighed(p.Weighed, len(mix.Components), errs)
	}
	if t.Mode == "amount" && len(wrong) == 0 && !rub.Nothing() {
		rub.Said, err = r.amounts().Amount(t.Amount, amounts.Batch{Formula: t.Formula, Mix: mix, Weighed: rub.Scale}, false)
		if !errs.Take(at+"/amount", err) && meat.OK() {
			errs.Put(at, rub.Check(meat.Value.Target(r.base.Value.Fridge)))
		}
	}
	out.Value = Move{Kind: Season, Dose: rub}
	return out
}

// called is a formula with a name that fits what is in it.
func (r reader) called(f formula.Formula) formula.Formula { return formula.Called(f, r.kitchen) }

// weighed reads what was really weighed of each of n rows.
func (r reader) weighed(typed []string, n int, errs *field.Errors) []float64 {
	at := r.at + "/weighed"
	if len(typed) != n {
		errs.Add(at, "weighed.other-rows")
		return nil
	}
	out, total := []float64{}, 0.0
	for i, text := range typed {
		m, err := quantity.ParseWeighed(text)
		if errs.Take(at+"/"+strconv.Itoa(i), err) {
			return nil
		}
		out = append(out, m.Grams())
		total += m.Grams()
	}
	if total <= 0 || total > 100e3 {
		errs.Add(at, "weighed.no-batch")
		return nil
	}
	return out
}

// percent reads a share given in percent, between low and high.
func percent(errs *field.Errors, pointer, typed, usual string, low, high float64) float64 {
	v, err := quantity.ParsePercent(or(typed, usual))
	if !errs.Take(pointer, err) && (float64(v) < low || float64(v) > high) {
		errs.Add(pointer, "percent.range", "low", low, "high", high)
	}
	return float64(v) / 100
}

// bath reads a wet brine.
func (r reader) bath(t cook.Bath, meat Part[Meat]) (out Part[Move]) {
	at := r.at + "/bath"
	errs := &out.Wrong
	kind := or(t.Kind, "equilibrium")
	b := dose.Bath{Equilibrium: kind == "equilibrium"}
	if kind != "strong" && kind != "equilibrium" {
		errs.Add(at+"/kind", "choice.unknown", "choices", []string{"strong", "equilibrium"})
	}
	told := strings.TrimSpace(t.Salt) != "" // then neither strength nor target is used, whatever stands there
	if !told {
		b.Strength = percent(errs, at+"/strength", t.Strength, cook.UsualStrength, 0.5, dose.MaxStrength)
		b.Target = percent(errs, at+"/target", t.Target, cook.UsualBathTarget, 0.1, 3)
	}
	var err error
	if b.Lasts, err = quantity.ParseDuration(or(t.For, cook.UsualBathTime)); !errs.Take(at+"/for", err) &&
		(b.Lasts < 10*time.Minute || b.Lasts > 5*24*time.Hour) {
		errs.Add(at+"/for", "duration.range", "low", 10*time.Minute, "high", 5*24*time.Hour)
	}
	if b.Hot, err = quantity.ParseTemperatureWithin(or(t.Hot, cook.UsualHot), 10, 100); !errs.Take(at+"/hot", err) &&
		(b.Hot < 10 || b.Hot > 100) {
		errs.Add(at+"/hot", "temperature.range", "low", quantity.Celsius(10), "high", quantity.Celsius(100))
	}
	volume := func(pointer, typed string) quantity.Volume {
		if strings.TrimSpace(typed) == "" {
			return 0
		}
		v, err := quantity.ParseVolume(typed, r.spoons)
		if !errs.Take(pointer, err) && (v < 0.05*quantity.Litre || v > 300*quantity.Litre) {
			errs.Add(pointer, "volume.range", "low", 0.05*quantity.Litre, "high", 300*quantity.Litre)
		}
		return v
	}
	b.Pot, b.Given = volume(at+"/pot", t.Pot), volume(at+"/liquid", t.Liquid)
	if told {
		var liquid quantity.Volume
		b.Recipe, liquid, err = r.amounts().Recipe(t.Salt)
		if !errs.Take(at+"/salt", err) && b.Given == 0 {
			b.Given = liquid
		}
	}
	b.With = r.stirred(t.With, at+"/with", errs)
	if len(*errs) == 0 && meat.OK() {
		errs.Put(at, b.Check(meat.Value.Target(r.base.Value.Fridge)))
	}
	out.Value = Move{Kind: Brine, Dose: b, Lasts: b.Lasts}
	return out
}

// stirred reads what goes into a bath besides salt.
func (r reader) stirred(typed []cook.Dose, at string, errs *field.Errors) []dose.Stirred {
	if len(typed) > maxWith {
		errs.Add(at, "list.too-long", "most", maxWith)
		return nil
	}
	out := []dose.Stirred{}
	for i, t := range typed {
		here := at + "/" + strconv.Itoa(i)
		mix, wrong := r.blend(t.Formula)
		errs.Put(here+"/formula", wrong)
		if len(wrong) > 0 {
			continue
		}
		s := dose.Stirred{Formula: r.called(t.Formula), Mix: mix}
		var err error
		if share, ok := strings.CutSuffix(strings.TrimSpace(t.Amount), "%"); ok {
			var v quantity.Percent
			v, err = quantity.ParsePercent(share)
			s.Share = float64(v) / 100
		} else {
			s.Amount, err = quantity.ParseAmount(t.Amount, mix.Per100g.Water > 50, r.spoons)
		}
		if !errs.Take(here+"/amount", err) {
			out = append(out, s)
		}
	}
	return out
}

// injection reads an injection.
func (r reader) injection(t cook.Injection) (out Part[Move]) {
	at := r.at + "/inject"
	errs := &out.Wrong
	mix, wrong := r.blend(t.Formula)
	errs.Put(at+"/formula", wrong)
	in := dose.Injection{
		Formula: r.called(t.Formula),
		Mix:     mix,
		Pump:    percent(errs, at+"/pump", t.Pump, cook.UsualPump, 0.5, dose.MaxPump),
		Avoid:   t.Avoid,
	}
	if strings.TrimSpace(t.Amount) != "" && len(wrong) == 0 {
		var err error
		in.Said, err = r.amounts().Amount(t.Amount, amounts.Batch{Formula: t.Formula, Mix: mix}, false)
		errs.Take(at+"/amount", err)
	}
	length := func(pointer, typed, usual string, low, high quantity.Length) quantity.Length {
		v, err := quantity.ParseLength(or(typed, usual))
		if !errs.Take(pointer, err) && (v < low || v > high) {
			errs.Add(pointer, "length.range", "low", low, "high", high)
		}
		return v
	}
	in.Spacing = length(at+"/spacing", t.Spacing, cook.UsualSpacing, 10*quantity.MM, 80*quantity.MM)
	in.Bore = length(at+"/bore", t.Bore, cook.UsualBore, 0.5*quantity.MM, 6*quantity.MM)
	var err error
	if in.Syringe, err = quantity.ParseVolume(or(t.Syringe, cook.UsualSyringe), r.spoons); !errs.Take(
		at+"/syringe",
		err,
	) &&
		(in.Syringe < 5*quantity.Millilitre || in.Syringe > quantity.Litre) {
		errs.Add(at+"/syringe", "volume.range", "low", 5*quantity.Millilitre, "high", quantity.Litre)
	}
	for i, a := range t.Avoid {
		if !slices.Contains(dose.Avoidable, a) {
			errs.Add(at+"/avoid/"+strconv.Itoa(i), "choice.unknown", "choices", dose.Avoidable)
		}
	}
	out.Value = Move{Kind: Inject, Dose: in}
	return out
}

// layerMoves says which move each kind of layer is.
var layerMoves = map[string]MoveKind{
	"base": Season, "binder": Season, "dusting": Season, "spritz": Spritz, "wrap": Wrap,
	"glaze": Glaze, "finish": Finish, "juices": Finish,
}

// layer reads layer i of the piece.
func (r reader) layer(t cook.Layer, i int, solved bool, meat Part[Meat]) (out Part[Move]) {
	at := r.at + "/layers/" + strconv.Itoa(i)
	errs := &out.Wrong
	if !dose.IsKind(t.Kind) {
		errs.Add(at+"/kind", "choice.unknown", "choices", dose.Kinds)
	}
	mix, wrong := r.blend(t.Formula)
	errs.Put(at+"/formula", wrong)
	l := dose.Layer{At: dose.LayerID(i), Kind: t.Kind, Formula: r.called(t.Formula), Mix: mix}
	out.Value = Move{Kind: layerMoves[t.Kind], Dose: l}
	if out.Value.Kind == "" {
		out.Value.Kind = Finish
	}
	if len(wrong) > 0 || solved {
		return out // its amount is worked out
	}
	var err error
	if c, ok := formula.FindCoat(strings.ToLower(strings.TrimSpace(t.Amount))); ok {
		l.CoatML = c.MLPerDM2
	} else {
		l.Said, err = r.amounts().Amount(or(t.Amount, notTold), amounts.Batch{Formula: t.Formula, Mix: mix}, true)
		if quantity.Asks(err, "missing") || quantity.Asks(err, "unreadable") {
			err = field.Because("layer.amount", "typed", strings.TrimSpace(t.Amount))
		}
	}
	if !errs.Take(at+"/amount", err) && meat.OK() {
		errs.Put(at, l.Check(meat.Value.Target(r.base.Value.Fridge)))
	}
	out.Value.Dose = l
	return out
}

// notTold is the amount of a dose of which none was told: a wide range.
const notTold = "not told"

// layers reads the layers of the piece that are moves of the kinds, in the order
// they were typed.
func (r reader) layers(p cook.Piece, l Line, kinds ...string) []Part[Move] {
	var out []Part[Move]
	for i, t := range p.Layers {
		if slices.Contains(kinds, t.Kind) {
			out = append(out, r.layer(t, i, l.Salting.Value.Solved(dose.LayerID(i)), l.Meat))
		}
	}
	return out
}
