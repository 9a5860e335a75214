package order

import (
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"

	"verjuice/internal/core/amounts"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/move"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// maxMoves is how many moves of the cook's own a piece takes.
const maxMoves = 24

// twice are the choices that say the same as a moment of the cook's own, by the move.
var twice = map[string]string{"wrap": "wrap-at", "spritz": "spritz"}

// whens reads when moves of the stages are made, where the cook said more than a choice.
func (r reader) whens(p cook.Piece, said decision.Answers) (map[string]when.Every, field.Errors) {
	out, errs := map[string]when.Every{}, field.Errors{}
	for _, key := range slices.Sorted(maps.Keys(p.When)) {
		at, typed := r.at+"/when/"+key, p.When[key]
		if strings.TrimSpace(typed) == "" {
			continue
		}
		var e when.Every
		var err error
		switch key {
		case "wrap", "off":
			e.From, err = when.Parse(typed)
		case "spritz":
			e, err = when.ParseEvery(typed)
		default:
			at, err = r.at+"/when", field.Because("choice.unknown", "choices", []string{"wrap", "off", "spritz"})
		}
		switch choice := twice[key]; {
		case errs.Take(at, err):
		case key == "wrap" && said.Chose(decision.Wrap) == "none":
			errs.Add(at, "move.no-wrap")
		case choice != "" && p.Choices[choice] != "" && p.Choices[choice] != "none", key == "off" && p.Fire.Done != "":
			errs.Add(at, "move.twice")
		case !r.can(p, said, e):
			errs.Add(at, "move.nothing-wrapped")
		case key == "off" && e.From.Some(func(c when.Cond) bool {
			return c.Of == "off" || c.Of == "slice" ||
				c.Of == "serve"
		}):
			errs.Add(at, "move.itself")
		default:
			out[key] = e
		}
	}
	return out, errs
}

// can reports whether what a moment waits for can come: a piece that is never wrapped has no
// moment after its wrap.
func (r reader) can(p cook.Piece, answers decision.Answers, e when.Every) bool {
	ofWrap := func(c when.Cond) bool { return c.Of == "wrap" || c.Of == "unwrap" }
	if !e.From.Some(ofWrap) { // until the wrap, of a piece that is not wrapped, is until it is off
		return true
	}
	return answers.Chose(decision.Wrap) != "none" ||
		slices.ContainsFunc(p.Moves, func(m cook.Move) bool { return m.What == string(Wrap) })
}

// own reads the moves of the cook's own.
func (r reader) own(p cook.Piece, l Line) []Part[Move] {
	var out []Part[Move]
	if len(p.Moves) > maxMoves {
		tooMany := Part[Move]{Value: Move{Kind: move.Other}}
		tooMany.Wrong.Add(r.at+"/moves", "list.too-long", "most", maxMoves)
		return append(out, tooMany)
	}
	wrapped, keys := l.Answers.Value.Chose(decision.Wrap) != "none", map[string]bool{}
	for i, m := range p.Moves {
		at := r.at + "/moves/" + strconv.Itoa(i)
		one := r.ownMove(m, at, p, l, wrapped)
		if one.Value.Key == "" {
			one.Value.Key = strconv.Itoa(i)
		}
		if keys[one.Value.Key] {
			one.Wrong.Add(at+"/key", "piece.same-key")
		}
		keys[one.Value.Key] = true
		wrapped = one.Value.Kind == Wrap || wrapped && one.Value.Kind != move.Unwrap
		out = append(out, one)
	}
	return out
}

// forSome is for how many of all pieces a move is; zero for all of them.
func forSome(wrong *field.Errors, m cook.Move, at string, all int) int {
	n := count(wrong, at+"/some", m.Some, 1, all)
	known, _ := move.Find(MoveKind(m.What))
	switch {
	case n == all:
		return 0
	case n > 0 && !known.ForSome():
		wrong.Add(at+"/some", "move.some-wrapped")
	}
	return n
}

func (r reader) ownMove(m cook.Move, at string, p cook.Piece, l Line, wrapped bool) (out Part[Move]) {
	kind := MoveKind(m.What)
	out.Value = Move{Kind: kind, Key: m.Key, With: strings.TrimSpace(m.With)}
	known, _ := move.Find(kind)
	if !known.Own {
		choices := move.Kinds(move.Own)
		out.Value.Kind = move.Other
		out.Wrong.Add(at+"/what", "choice.unknown", "choices", choices)
		return out
	}
	if l.Meat.OK() && m.Some != "" {
		out.Value.Some = forSome(&out.Wrong, m, at, l.Meat.Value.Count)
	}
	if kind == move.Again {
		r.again(m, at, &out)
		if m.Formula != nil && len(m.Formula.Rows) > 0 {
			r.ownDose(m, at, l, &out)
		}
		return out
	}
	var err error
	if out.Value.At, err = when.ParseEvery(m.When); !out.Wrong.Take(at+"/when", err) &&
		!r.can(p, l.Answers.Value, out.Value.At) {
		out.Wrong.Add(at+"/when", "move.nothing-wrapped")
	}
	if e := &out.Value.At; e.Each > 0 && known.Wets && e.Until.None() && wrapped {
		e.Until = when.At(when.Cond{Of: string(Wrap)}) // nobody wets what is wrapped, unless that is said
	}
	switch {
	case kind == Wrap && !slices.Contains(gear.WrapIDs(gear.OnFire), out.Value.With):
		out.Wrong.Add(at+"/with", "choice.unknown", "choices", gear.WrapIDs(gear.OnFire))
	case kind == move.Unwrap && !wrapped:
		out.Wrong.Add(at+"/what", "move.nothing-wrapped")
	case kind == move.Other && out.Value.With == "":
		out.Wrong.Add(at+"/with", "move.words")
	case utf8.RuneCountInString(m.With) > cook.MaxText:
		out.Wrong.Text(at+"/with", m.With, cook.MaxText)
	case (kind == Wrap || kind == move.Unwrap) && out.Value.At.Each > 0:
		out.Wrong.Add(at+"/when", "move.once")
	}
	if m.Formula != nil && len(m.Formula.Rows) > 0 {
		r.ownDose(m, at, l, &out)
	}
	return out
}

// How long a piece is on the fire once more, and at what: a crust or a sauce sets in minutes, cubes and slices take
// an hour or more to render and darken (field experience in round numbers).
const (
	usualAgainWhole, usualAgainCut   = "15 min", "1 to 1½ h"
	usualAgainWholeC, usualAgainCutC = quantity.Celsius(150), quantity.Celsius(135)
	mostAgain                        = 6 * time.Hour
)

// UsualAgain is how long a piece is on the fire once more in a way, and at what, where that is not said.
func UsualAgain(way string) (lasts string, set quantity.Celsius) {
	if way == move.Whole {
		return usualAgainWhole, usualAgainWholeC
	}
	return usualAgainCut, usualAgainCutC
}

// again reads a piece that goes on the fire once more: so long after it came off, or at the end.
func (r reader) again(m cook.Move, at string, out *Part[Move]) {
	out.Value.With = or(out.Value.With, move.Whole)
	if !slices.Contains(move.Ways, out.Value.With) {
		out.Wrong.Add(at+"/with", "choice.unknown", "choices", move.Ways)
	}
	lasts, set := UsualAgain(out.Value.With)
	var err error
	if out.Value.Lasts, err = quantity.ParseDuration(or(m.For, lasts)); !out.Wrong.Take(at+"/for", err) &&
		out.Value.Lasts > mostAgain {
		out.Wrong.Add(at+"/for", "duration.most", "most", mostAgain)
	}
	if out.Value.Set = set; strings.TrimSpace(m.Pit) != "" {
		out.Value.Set, err = quantity.ParseTemperatureWithin(m.Pit, when.LowPit, when.HighPit)
		if !out.Wrong.Take(at+"/pit", err) && (out.Value.Set < when.LowPit || out.Value.Set > when.HighPit) {
			out.Wrong.Add(at+"/pit", "temperature.range", "low", when.LowPit, "high", when.HighPit)
		}
	}
	if strings.TrimSpace(m.When) == "" {
		return
	}
	out.Value.At, err = when.ParseEvery(m.When)
	first := out.Value.At.From.First
	if !out.Wrong.Take(at+"/when", err) && (first.Of != "off" || first.By < 0 ||
		!out.Value.At.From.Second.None() || out.Value.At.Each > 0) {
		out.Wrong.Add(at+"/when", "move.again-when")
	}
}

// ownDose reads what a move of the cook's own brings.
func (r reader) ownDose(m cook.Move, at string, l Line, out *Part[Move]) {
	known, _ := move.Find(out.Value.Kind)
	kind := known.Layer
	if kind == "" {
		out.Wrong.Add(at+"/formula", "move.no-dose")
		return
	}
	mix, wrong := r.blend(*m.Formula)
	if out.Wrong.Put(at+"/formula", wrong); len(wrong) > 0 {
		return
	}
	layer := dose.Layer{At: dose.ID("move-" + or(out.Value.Key, "0")), Kind: kind, Formula: r.called(*m.Formula), Mix: mix}
	var err error
	layer.Said, err = r.amounts().Amount(or(m.Amount, notTold), amounts.Batch{Formula: *m.Formula, Mix: mix}, false)
	if !out.Wrong.Take(at+"/amount", err) && l.Meat.OK() {
		out.Wrong.Put(at, layer.Check(l.Meat.Value.Target(r.base.Value.Fridge)))
	}
	out.Value.Dose = layer
}
