package cook

import (
	"errors"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/method"
	"verjuice/internal/core/quantity"
)

// moves reads the stages of a piece into the list of what is done to it, in working
// order.
func (r reader) moves(p Piece, l Line, rub Part[method.Move]) []Part[method.Move] {
	c := l.Meat.Value.Cut
	said := l.Answers.Value
	sound := func(m method.Move) Part[method.Move] { return Part[method.Move]{Value: m} }
	var out []Part[method.Move]
	if said.Chose("state") == "frozen" {
		out = append(out, sound(method.Move{Kind: method.Thaw, Lasts: cut.Thawing(l.Meat.Value.Green.Mid)}))
	}
	if c.NativeSalt > 0 {
		out = append(out, sound(method.Move{Kind: method.Season, Dose: dose.Own{Percent: c.NativeSalt}}))
	}
	if p.Bath != nil {
		out = append(out, r.bath(*p.Bath, l.Meat))
	}
	if p.Inject != nil {
		out = append(out, r.injection(*p.Inject))
	}
	if len(p.Layers) > maxLayers {
		tooMany := Part[method.Move]{Value: method.Move{Kind: method.Season}}
		tooMany.Wrong.Add(r.at+"/layers", "list.too-long", "most", maxLayers)
		return append(out, tooMany)
	}
	out = append(out, r.layers(p, l, "base", "binder")...)
	if p.Season.Binder && !slices.ContainsFunc(p.Layers, func(l Layer) bool { return l.Kind == "binder" }) {
		out = append(out, sound(method.Move{Kind: method.Season, Dose: dose.UsualBinder()}))
	}
	out = append(out, rub)
	out = append(out, r.layers(p, l, "dusting")...)
	out = append(out, r.wait(p.Wait))
	out = append(out, r.fire(p.Fire, c, said)...)
	for i, t := range p.Layers { // a kind that there is not still has its mistakes told
		if !dose.IsKind(t.Kind) {
			out = append(out, r.layer(t, i, false, l.Meat))
		}
	}
	return slices.DeleteFunc(r.withFireLayers(out, p, l), func(m Part[method.Move]) bool { return m.Value.Kind == "" })
}

// withFireLayers puts what is spritzed, wrapped in, glazed and finished with after
// the moves it goes with.
func (r reader) withFireLayers(moves []Part[method.Move], p Piece, l Line) []Part[method.Move] {
	var out []Part[method.Move]
	for _, m := range moves {
		if m.Value.Kind == method.Off {
			out = append(out, r.layers(p, l, "spritz", "wrap", "glaze")...)
		}
		out = append(out, m)
	}
	return append(out, r.layers(p, l, "finish", "juices")...)
}

func (r reader) wait(t Wait) (out Part[method.Move]) {
	style := or(t.Style, UsualStyle)
	out.Value = method.Move{Kind: method.Wait, Open: t.Open, Style: style}
	usual, ok := UsualWait[style]
	if !ok {
		out.Wrong.Add(r.at+"/wait/style", "choice.unknown", "choices", Styles)
		return out
	}
	var err error
	if out.Value.Lasts, err = quantity.ParseDuration(or(t.For, usual)); !out.Wrong.Take(r.at+"/wait/for", err) && out.Value.Lasts > 10*24*time.Hour {
		out.Wrong.Add(r.at+"/wait/for", "wait.too-long")
	}
	return out
}

// fire reads everything from the counter to the plate.
func (r reader) fire(f Fire, c cut.Cut, said decision.Answers) []Part[method.Move] {
	at := r.at + "/fire"
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
	temper := Part[method.Move]{Value: method.Move{Kind: method.Temper, When: method.When{Before: method.On}}}
	temper.Value.Lasts = duration(&temper.Wrong, at+"/temper", f.Temper, "0 min", 24*time.Hour)
	temper.Value.When.By = temper.Value.Lasts

	on := Part[method.Move]{Value: method.Move{Kind: method.On, Pit: f.On}}
	on.Value.Set = temperature(&on.Wrong, at+"/pit", f.Pit, quantity.Celsius(c.PitC), 80, 350)
	if f.On < 0 || f.On >= r.pits {
		on.Wrong.Add(at+"/on", "pit.unknown")
		on.Value.Pit = 0
	}
	if strings.TrimSpace(f.Time) != "" {
		on.Value.Timed = duration(&on.Wrong, at+"/time", f.Time, "", 48*time.Hour)
	}

	off := Part[method.Move]{Value: method.Move{Kind: method.Off}}
	off.Value.When.Core = temperature(&off.Wrong, at+"/done", f.Done, quantity.Celsius(c.DoneC()), lowCore, highCore)

	rest := Part[method.Move]{Value: method.Move{Kind: method.Rest, With: said.Chose("rest")}}
	rest.Value.Lasts = duration(&rest.Wrong, at+"/rest", f.Rest, quantity.Number(c.RestMin)+" min", 24*time.Hour)

	out := []Part[method.Move]{temper, on}
	if every := looks[said.Chose("spritz")]; every > 0 {
		out = append(out, Part[method.Move]{Value: method.Move{Kind: method.Spritz, Again: method.Again{Every: every, Until: method.Off}}})
	}
	if wrap := said.Chose("wrap"); wrap != "none" && wrap != "" {
		out = append(out, Part[method.Move]{Value: method.Move{Kind: method.Wrap, When: method.When{Core: wrapsAt(said)}, With: wrap}})
	}
	return append(out, off, rest, Part[method.Move]{Value: method.Move{Kind: method.Slice, With: said.Chose("slice")}})
}

// wrapWords are what a wrap is called among the words of a time: "1 h in foil".
var wrapWords = map[string]string{"foil": "foil", "paper": "paper", "butcher": "paper", "pan": "pan", "tray": "pan", "boat": "boat"}

// withWrap adds to a time with more words than a time the wrap that they name, and where
// that is chosen.
func (r reader) withWrap(err error) error {
	var why field.Wrong
	if !errors.As(err, &why) || why.ID != "quantity.more-words" {
		return err
	}
	words, _ := why.Values["words"].(string)
	for _, word := range strings.Fields(strings.ToLower(words)) {
		if wrap, ok := wrapWords[word]; ok {
			values := maps.Clone(why.Values)
			values["wrap"], values["wrap_at"] = wrap, r.at+"/choices/wrap"
			return field.Wrong{ID: why.ID, Values: values}
		}
	}
	return err
}

// looks is the time between spritzes by the answer.
var looks = map[string]time.Duration{"30": 30 * time.Minute, "45": 45 * time.Minute, "60": time.Hour}

// Burns are what decides how the pieces with these answers fare: one for all that are alike,
// or one for each. What all pieces of the page share is taken from like.
func Burns(a decision.Answers, m Meat, like forecast.Burn) []forecast.Burn {
	like.Cut, like.Wrap, like.Looks = m.Cut, a.Chose("wrap"), int(looks[a.Chose("spritz")].Minutes())
	like.WrapC, like.Tight, like.Weather = wrapsAt(a), a.Chose("tight"), a.Chose("weather")
	like.Shut = a.Chose("lid") == "shut"
	like.OpenMin, _ = strconv.Atoi(a.Chose("lid"))
	if len(m.Each) == 0 {
		like.Geometry = m.Geometry
		return []forecast.Burn{like}
	}
	out := make([]forecast.Burn, len(m.Each))
	for i, g := range m.Each {
		out[i] = like
		out[i].Geometry, out[i].Piece = g, like.Piece+uint64(i)
	}
	return out
}

func wrapsAt(a decision.Answers) quantity.Celsius {
	core, _ := strconv.ParseFloat(a.Chose("wrap-at"), 64)
	return quantity.Celsius(core)
}

func (r reader) answers(p Piece, c cut.Cut) (out Part[decision.Answers]) {
	out.Value = decision.Answers{Typed: p.Choices, Cut: c}
	out.Wrong.Put(r.at+"/choices", out.Value.Wrong())
	return out
}
