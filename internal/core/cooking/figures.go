package cooking

import (
	"cmp"
	"context"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/trace"
	"verjuice/internal/core/uncertain"
)

// ReferenceCut is the piece that cooks have in mind when they judge a coat.
const ReferenceCut = "pork-shoulder-bone-in"

// Meat is what is known of a piece before anything goes on it.
type Meat struct {
	Green     trace.Figure // kg, of one after trimming
	AllGreen  trace.Figure // kg, of all
	Thickness trace.Figure // m, at the thickest point
	Block     trace.Figure // m, of the block of the same meat
	Surface   trace.Figure // m², of one, that takes a coat
	PerKG     trace.Figure // m² per kg of boneless meat
	Served    trace.Figure // kg of cooked meat, of all
	Servings  trace.Figure // portions
	Ratio     float64      // how hard a coat salts it beside the reference cut
	Each      []Unlike     // of pieces that are unlike
}

// Unlike is one of several unlike pieces.
type Unlike struct {
	Green    quantity.Mass
	Thickest quantity.Length
	Share    float64        // of what goes on all of them, by coated surface
	Fire     uncertain.Span // until it is off
}

// unlike are the figures of unlike pieces.
func (s *subject) unlike() []Unlike {
	out := make([]Unlike, len(s.meat.Each))
	for i, g := range s.meat.Each {
		out[i] = Unlike{g.Mass, g.Thickest, g.Seasoned(s.meat.OneBare) / s.meat.Area() / float64(len(out)), uncertain.Span{}}
		if s.clocked && !s.timed() {
			out[i].Fire = s.firesBy(context.Background(), forecast.SingleRun{}, s.fires[i:i+1]).Takes.Span
		}
	}
	return out
}

// meatFigures are the figures of the meat.
func (s *subject) meatFigures() *Meat {
	m := s.meat
	n := quantity.Mass(m.Count)
	one := m.Salt()
	perKG := m.Area() / one.Edible().KG()
	spread, thick, thickRule := 0.15, 0.2, "meat.thickness-estimated"
	if m.Geometry.Measured {
		spread, thick, thickRule = 0.08, 0, "meat.thickness-measured"
	}
	weightRule := "meat.trimmed-weighed"
	if !m.Weighed {
		weightRule = "meat.trimmed-estimated"
	}
	weight := func(rule string, n quantity.Mass) trace.Figure {
		all := quantity.Times(m.Green, n)
		var bought any = "not-given"
		if m.Bought > 0 {
			bought = m.Bought
		}
		return trace.New(
			rule,
			quantity.Floats(all),
			"as_bought",
			bought,
			"trim_style",
			cmp.Or(s.line.Typed.TrimStyle, "usual"),
			"usual_trim",
			PercentSpan(m.Cut.TrimLoss),
		)
	}
	served := one.Served() * n
	table := 1 - s.line.KeptBack()
	range_ := quantity.Range[float64]{
		Low:  served.KG() * one.Yield.Low / one.Yield.Mid,
		Mid:  served.KG(),
		High: served.KG() * one.Yield.High / one.Yield.Mid,
	}
	yields := []any{
		"trimmed_weight", m.Green.Mid * n, "bone", trace.Number{Value: m.Cut.BonePercent, Unit: "%"},
		"cook_yield", PercentSpan(m.Cut.CookYield), "portion", s.base.Portion,
	}
	bare := "no"
	if m.OneBare {
		bare = "yes"
	}
	return &Meat{
		Green: weight(weightRule, 1), AllGreen: weight(weightRule, n),
		Thickness: trace.New(
			thickRule,
			quantity.Within(float64(m.Geometry.Thickest), thick),
			"trimmed_weight",
			m.Green.Mid,
			"proportions",
			Proportions{m.Cut.Length, m.Cut.Width},
			"block_share",
			trace.Number{Value: m.Cut.Block, Decimals: 2},
		),
		Block: trace.New(
			"meat.block",
			quantity.Within(float64(m.Geometry.Thickness), max(thick, 0.1)),
			"thickest",
			m.Geometry.Thickest,
			"block_share",
			trace.Number{Value: m.Cut.Block, Decimals: 2},
		),
		Surface: trace.New(
			"meat.surface",
			quantity.Within(m.Area(), spread),
			"size",
			SizeOf(m.Geometry),
			"rounding",
			trace.Number{Value: m.Geometry.Rounding, Decimals: 2},
			"one_bare",
			bare,
		),
		PerKG: trace.New(
			"meat.per-kilo",
			quantity.Within(perKG, spread),
			"surface",
			Area(m.Area()),
			"boneless",
			one.Edible(),
		),
		Served: trace.New("meat.served", range_, yields...),
		Servings: trace.New("meat.servings", quantity.Times(range_, table/s.base.Portion.KG()),
			append(yields, "kept_back", trace.Number{Value: 100 - 100*table, Unit: "%"})...),
		Ratio: perKG / referencePerKG(), Each: s.unlike(),
	}
}

// Area is an area in m², told in dm².
type Area float64

// PercentSpan is a share in percent with its range.
type PercentSpan quantity.Range[float64]

// Size is length × width × thickness.
type Size struct{ Length, Width, Thickness quantity.Length }

// SizeOf is the size of g.
func SizeOf(g cut.Geometry) Size { return Size{g.Length, g.Width, g.Thickness} }

// Proportions are length : width : 1.
type Proportions struct{ Length, Width float64 }

// referencePerKG is the coated surface of the reference cut per kg of its boneless
// meat, m².
func referencePerKG() float64 {
	ref, _ := cut.Find(ReferenceCut)
	g, err := cut.New(ref, quantity.Mass(ref.TypicalKG), 0)
	if err != nil {
		panic("cooking: " + err.Error()) // the cut ships with the program
	}
	return g.Surface() / (ref.TypicalKG * (1 - ref.BoneShare()))
}

// Decided is a decision of the piece, with what each answer does to its numbers.
type Decided struct {
	*decision.Decision
	Value   string
	Usual   string
	Choices []string // the answers that this cut has
	Effects []any    // of each answer: a thawing, time on the fire or hold; nil when it has none to tell
}

// decided are the decisions of the piece.
func (s *subject) decided() []Decided {
	a := s.line.Answers.Value
	offered := a.Offered()
	out := make([]Decided, len(offered))
	each(len(offered), func(i int) {
		d := offered[i]
		one := Decided{Decision: d, Value: s.answered(d.Key), Usual: d.Usual(s.meat.Cut), Choices: d.Of(s.meat.Cut)}
		for _, v := range one.Choices {
			var effect any
			if s.clocked {
				effect = s.effect(d.Key, v)
			}
			one.Effects = append(one.Effects, effect)
		}
		out[i] = one
	})
	return out
}

// answered is the answer to a decision; none where the cook has said more in words of their own.
func (s *subject) answered(key decision.Key) string {
	moment := map[decision.Key]order.MoveKind{decision.WrapAt: order.Wrap, decision.Spritz: order.Spritz}[key]
	if _, own := s.line.Whens[string(moment)]; own {
		return ""
	}
	return s.line.Answers.Value.Chose(key)
}

// Thaws, Burns and Holds are what an answer does to the clock.
type (
	Thaws time.Duration
	Burns time.Duration
	Holds time.Duration
)

func (s *subject) effect(key decision.Key, value string) any {
	switch {
	case key == decision.State && value == "frozen":
		return Thaws(cut.Thawing(s.meat.Green.Mid))
	case (key == decision.Spritz || key == decision.Wrap) && !s.timed():
		return s.compared(s.line.Answers.Value.With(key, value), s.meat)
	case key == decision.Finish && !s.timed() && s.line.Typed.Fire.Done == "":
		other := *s
		other.meat.Cut = s.meat.Cut.As(cut.Finish(value))
		return s.compared(s.line.Answers.Value, other.meat)
	case key == decision.Rest:
		return Holds(s.holdsIn(value))
	}
	return nil
}

// compared is the time on the fire with other answers: a single run of them against a single
// run of these, so that nothing but the answer differs.
func (s *subject) compared(a decision.Answers, m order.Meat) Burns {
	now := max(1, forecast.Alone(s.fires))
	pace := float64(forecast.Alone(s.firesWith(a, m))) / float64(now)
	return Burns(time.Duration(float64(s.fire.Takes.Mid) * pace).Round(5 * time.Minute))
}
