package order

import (
	"errors"
	"maps"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/amounts"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/move"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// moves reads the stages of a piece into the list of what is done to it, in working
// order.
func (r reader) moves(p cook.Piece, l *Line, rub Part[Move]) []Part[Move] {
	c := l.Meat.Value.Cut
	answers := l.Answers.Value
	sound := func(m Move) Part[Move] { return Part[Move]{Value: m} }
	var out []Part[Move]
	if answers.Chose(decision.State) == "frozen" {
		out = append(out, sound(Move{Kind: Thaw, Lasts: cut.Thawing(l.Meat.Value.Green.Mid)}))
	}
	if c.NativeSalt > 0 {
		out = append(out, sound(Move{Kind: Season, Dose: dose.Own{Percent: c.NativeSalt}}))
	}
	if p.Bath != nil {
		out = append(out, r.bath(*p.Bath, l.Meat))
	}
	if p.Inject != nil {
		out = append(out, r.injection(*p.Inject))
	}
	if len(p.Layers) > maxLayers {
		tooMany := Part[Move]{Value: Move{Kind: Season}}
		tooMany.Wrong.Add(r.at+"/layers", "list.too-long", "most", maxLayers)
		return append(out, tooMany)
	}
	out = append(out, r.layers(p, *l, "base", "binder")...)
	if p.Season.Binder && !slices.ContainsFunc(p.Layers, func(l cook.Layer) bool { return l.Kind == "binder" }) {
		out = append(out, sound(Move{Kind: Season, Dose: dose.UsualBinder()}))
	}
	out = append(out, rub)
	out = append(out, r.layers(p, *l, "dusting")...)
	if answers.Chose(decision.Wrap) == bacon {
		out = append(out, sound(Move{Kind: Season, Dose: dose.BaconCover()}))
	}
	out = append(out, r.wait(p.Wait))
	out = append(out, r.fire(p, c, answers, l)...)
	for i, t := range p.Layers { // a kind that there is not still has its mistakes told
		if !dose.IsKind(t.Kind) {
			out = append(out, r.layer(t, i, false, l.Meat))
		}
	}
	return slices.DeleteFunc(r.withFireLayers(out, p, *l), func(m Part[Move]) bool { return m.Value.Kind == "" })
}

// withFireLayers puts what is spritzed, wrapped in, glazed and finished with after
// the moves it goes with.
func (r reader) withFireLayers(moves []Part[Move], p cook.Piece, l Line) []Part[Move] {
	var out []Part[Move]
	for _, m := range moves {
		if m.Value.Kind == Off {
			out = append(out, r.layers(p, l, "spritz", "wrap", "glaze")...)
		}
		out = append(out, m)
	}
	return append(out, r.layers(p, l, "finish", "juices")...)
}

func (r reader) wait(t cook.Wait) (out Part[Move]) {
	style := or(t.Style, cook.UsualStyle)
	out.Value = Move{Kind: Wait, Open: t.Open, Style: style}
	usual, ok := cook.UsualWait[style]
	if !ok {
		out.Wrong.Add(r.at+"/wait/style", "choice.unknown", "choices", cook.Styles)
		return out
	}
	var err error
	if out.Value.Lasts, err = quantity.ParseDuration(or(t.For, usual)); !out.Wrong.Take(r.at+"/wait/for", err) &&
		out.Value.Lasts > 10*24*time.Hour {
		out.Wrong.Add(r.at+"/wait/for", "wait.too-long")
	}
	return out
}

// fire reads everything from the counter to the plate.
func (r reader) fire(p cook.Piece, c cut.Cut, answers decision.Answers, l *Line) []Part[Move] {
	at, f := r.at+"/fire", p.Fire
	duration := func(errs *field.Errors, pointer, text, usual string, most time.Duration) time.Duration {
		d, err := quantity.ParseDuration(or(text, usual))
		if !errs.Take(pointer, r.withWrap(err)) && d > most {
			errs.Add(pointer, "duration.most", "most", most)
		}
		return d
	}
	temperature := func(errs *field.Errors, pointer, text string, usual, low, high quantity.Celsius) quantity.Celsius {
		if text == "" {
			return usual
		}
		t, err := quantity.ParseTemperatureWithin(text, low, high)
		if !errs.Take(pointer, err) && (t < low || t > high) {
			errs.Add(pointer, "temperature.range", "low", low, "high", high)
		}
		return t
	}
	temper := Part[Move]{Value: Move{Kind: Temper}}
	temper.Value.Lasts = duration(&temper.Wrong, at+"/temper", f.Temper, "0 min", 24*time.Hour)

	on := Part[Move]{Value: Move{Kind: On, Pit: f.On}}
	on.Value.Set = temperature(&on.Wrong, at+"/pit", f.Pit, l.UsualPit(), when.LowPit, when.HighPit)
	if f.On < 0 || f.On >= len(r.sets) {
		on.Wrong.Add(at+"/on", "pit.unknown")
		on.Value.Pit = 0
	}
	if on.Value.Pit < len(r.sets) && len(r.sets[on.Value.Pit]) > 0 {
		if on.Value.Set = r.sets[on.Value.Pit][0].C; f.Pit != "" {
			on.Wrong.Add(at+"/pit", "pit.sets-rule")
		}
	}
	if strings.TrimSpace(f.Time) != "" {
		on.Value.Timed = duration(&on.Wrong, at+"/time", f.Time, "", 48*time.Hour)
		on.Value.TimedOff = quantity.DurationOff(f.Time)
	}

	off := Part[Move]{Value: Move{Kind: Off}}
	off.Value.At.From = when.At(
		when.Cond{CoreC: temperature(&off.Wrong, at+"/done", f.Done, quantity.Celsius(c.DoneC()), lowCore, highCore)},
	)
	if own, ok := l.Whens["off"]; ok {
		off.Value.At = own
	}

	rest := r.rest(p, c, answers, l)
	out := []Part[Move]{temper, on}
	if every, ok := l.spritzes(answers); ok {
		out = append(out, Part[Move]{Value: Move{Kind: Spritz, At: every}})
	}
	if wrap := answers.Chose(decision.Wrap); wrap != "none" && wrap != "" {
		out = append(
			out,
			Part[Move]{Value: Move{Kind: Wrap, At: when.Every{From: l.wraps(answers)}, With: wrap}},
		)
	}
	return append(out, off, rest, Part[Move]{Value: Move{Kind: Slice, With: answers.Chose(decision.Slice)}})
}

// rest reads what is done between the fire and the knife.
func (r reader) rest(p cook.Piece, c cut.Cut, answers decision.Answers, l *Line) (rest Part[Move]) {
	rest.Value = Move{Kind: Rest, With: answers.Chose(decision.Rest)}
	at := r.at + "/fire"
	var err error
	if l.Rests, err = amounts.ParseRests(or(p.Fire.Rest, quantity.Number(c.RestMin)+" min")); !rest.Wrong.Take(
		at+"/rest",
		r.withWrap(err),
	) &&
		l.Rests.All > 24*time.Hour {
		rest.Wrong.Add(at+"/rest", "duration.most", "most", 24*time.Hour)
	}
	rest.Value.Lasts = l.Rests.All
	switch {
	case l.Rests.Held != "" && p.Choices["rest"] != "":
		rest.Wrong.Add(at+"/rest", "rest.twice")
	case l.Rests.Vents && p.Choices["vent"] != "":
		rest.Wrong.Add(at+"/rest", "rest.vent-twice")
	case l.Rests.Held != "":
		rest.Value.With = l.Rests.Held
	}
	if !l.Rests.Vents {
		minutes, _ := strconv.Atoi(answers.Chose(decision.Vent))
		l.Rests.Vent = time.Duration(minutes) * time.Minute
	}
	return rest
}

// withWrap adds to a time with more words than a time the wrap that they name, and where
// that is chosen.
func (r reader) withWrap(err error) error {
	var why field.Wrong
	if !errors.As(err, &why) || why.ID != "quantity.more-words" {
		return err
	}
	words, _ := why.Values["words"].(string)
	for _, word := range strings.Fields(strings.ToLower(words)) {
		for _, wrap := range gear.Wraps {
			if wrap.ID != gear.NoWrap && (word == wrap.ID || word == wrap.Also) {
				values := maps.Clone(why.Values)
				values["wrap"], values["wrap_at"] = wrap.ID, r.at+"/choices/wrap"
				return field.Wrong{ID: why.ID, Values: values}
			}
		}
	}
	return err
}

// doses are what goes on or in it, but for what has a mistake.
func (l Line) doses() []dose.Source {
	var out []dose.Source
	for _, m := range l.Moves {
		if m.OK() && m.Value.Dose != nil {
			out = append(out, m.Value.Dose)
		}
	}
	return out
}

// looks is the time between spritzes by the answer.
var looks = map[string]time.Duration{"30": 30 * time.Minute, "45": 45 * time.Minute, "60": time.Hour}

// Burns are what decides how the pieces of the line fare with these answers: one for all that
// are alike, or one for each. What all pieces of the page share is taken from like.
func (l Line) Burns(a decision.Answers, m Meat, like forecast.FireInput) []forecast.FireInput {
	like.Cut, like.Tight, like.Shine = m.Cut, a.Chose(decision.Tight), a.Chose(decision.Shine)
	like.Weather = a.Chose(decision.Weather)
	if like.Number < len(l.learnt) {
		like.Learnt = l.learnt[like.Number]
	}
	like.Shut = a.Chose(decision.Lid) == "shut"
	// In tenths, so that typing a rub does not change the forecast with every letter.
	like.Sugar = math.Round(10*dose.SurfaceSugar(l.doses(), m.Target(like.StartC))) / 10
	like.CoreOff = quantity.TemperatureOff(l.Typed.Fire.Done)
	if len(like.Steps) == 0 {
		like.PitOff = quantity.TemperatureOff(l.Typed.Fire.Pit)
	}
	like.OpenMin, _ = strconv.Atoi(a.Chose(decision.Lid))
	if kind := a.Chose(decision.Wrap); kind != "none" && kind != "" {
		like.Wraps = append(like.Wraps, heat.Wrap{Kind: kind, When: l.wraps(a)})
	}
	if every, ok := l.spritzes(a); ok {
		like.Visits = append(like.Visits, heat.Visit{Every: every, Wets: true})
	}
	for _, m := range l.Own {
		switch {
		case m.Kind == Wrap:
			like.Wraps = append(like.Wraps, heat.Wrap{Kind: m.With, When: m.At.From})
		case m.Kind == move.Unwrap:
			like.Wraps = append(like.Wraps, heat.Wrap{Kind: "none", When: m.At.From})
		case m.Kind == move.Again: // it was off before
		default:
			kind, _ := move.Find(m.Kind)
			like.Visits = append(like.Visits, heat.Visit{Every: m.At, Wets: kind.Wets, Shut: !kind.Visits})
		}
	}
	like.VentsShut = a.Chose(decision.PitVents) == "shut"
	for _, rest := range l.Rests.First {
		like.Rests = append(like.Rests, heat.Phase{Place: like.Place(rest.Place), H: rest.Lasts.Hours()})
	}
	if own, ok := l.Whens["off"]; ok && !own.From.Second.None() || own.From.Core() == 0 {
		like.Off = own.From
	}
	if len(m.Each) == 0 {
		like.Geometry = m.Geometry
		return []forecast.FireInput{like}
	}
	out := make([]forecast.FireInput, len(m.Each))
	for i, g := range m.Each {
		out[i] = like
		out[i].Geometry, out[i].Piece = g, like.Piece+uint64(i)
	}
	return out
}

// wraps is when it is wrapped with these answers.
func (l Line) wraps(a decision.Answers) when.When {
	if own, ok := l.Whens["wrap"]; ok {
		return own.From
	}
	if a.Chose(decision.Wrap) == bacon && a.Typed[decision.WrapAt.String()] == "" {
		return when.At(when.Cond{After: time.Minute}) // it goes on at the start
	}
	return when.At(when.Cond{CoreC: wrapsAt(a)})
}

// bacon is the wrap that is eaten: it goes on at the start, and brings salt and fat.
const bacon = "bacon"

// spritzes is how often it is spritzed with these answers, and whether it is.
func (l Line) spritzes(a decision.Answers) (when.Every, bool) {
	every := looks[a.Chose(decision.Spritz)]
	if own, ok := l.Whens["spritz"]; ok && every == 0 {
		return own, true
	}
	return heat.Spritzed(every).Every, every > 0
}

func wrapsAt(a decision.Answers) quantity.Celsius {
	core, _ := strconv.ParseFloat(a.Chose(decision.WrapAt), 64)
	return quantity.Celsius(core)
}

func (r reader) answers(p cook.Piece, c cut.Cut) (out Part[decision.Answers]) {
	out.Value = decision.Answers{Typed: p.Choices, Cut: c}
	out.Wrong.Put(r.at+"/choices", out.Value.Wrong())
	return out
}
