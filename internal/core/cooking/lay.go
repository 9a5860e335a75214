package cooking

import (
	"cmp"
	"math"
	"reflect"
	"slices"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/move"
	"verjuice/internal/core/order"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/trace"
	"verjuice/internal/core/uncertain"
	"verjuice/internal/core/when"
)

// Plan is the days laid out.
type Plan struct {
	Ask     plan.Ask
	Result  plan.Result
	Chosen  int // of Result.Plans
	Chances []trace.Figure
	Quiet   []plan.Stretch // quiet hours within the plan
	Change  *plan.Change
}

// times are the times of a piece in the chosen plan.
func (p *Plan) times(key string) (plan.Times, bool) {
	if p == nil {
		return plan.Times{}, false
	}
	pieces := p.Result.Plans[p.Chosen].Pieces
	i := slices.IndexFunc(pieces, func(t plan.Times) bool { return t.Key == key })
	if i < 0 {
		return plan.Times{}, false
	}
	return pieces[i], true
}

// isDone reports whether a stage of a piece was done.
func (p *Plan) isDone(key, stage string) bool {
	return p != nil &&
		slices.ContainsFunc(p.Ask.Marks, func(m plan.Mark) bool { return m.Key == key && m.Stage == stage && m.Done })
}

// lay makes the plans of the pieces that have no mistake, from serving back. What would be
// laid out as it was before is taken over.
func lay(o order.Order, f facts.Facts, at Clock, subjects []*subject, before *Plan) *Plan {
	serve := o.ServesRest()
	if serve.IsZero() || !o.Setting.OK() || !o.Wishes.OK() {
		return nil
	}
	set := o.Setting.Value
	ask := plan.Ask{
		Serve:  serve,
		Quiet:  set.Quiet,
		Hands:  set.Hands,
		Pits:   slices.Clone(set.Pits),
		Marks:  marks(o, f),
		Chosen: plan.Kind(o.Cook.Plan),
	}
	for i := range min(len(ask.Pits), len(o.Sets.Value)) {
		ask.Pits[i].Sets = o.Sets.Value[i]
	}
	if !at.Now.IsZero() && o.LastServing().After(at.Now) {
		ask.Now = at.Now.In(serve.Location()).Truncate(time.Minute)
	}
	for _, s := range subjects {
		if s.plannable() {
			ask.Jobs = append(ask.Jobs, s.job())
			if !s.stands.IsZero() {
				ask.Marks = slices.Insert(ask.Marks, 0, plan.Mark{Key: s.line.Key, Stage: "fire", At: s.stands})
			}
		}
	}
	if len(ask.Jobs) == 0 {
		return nil
	}
	if before != nil && reflect.DeepEqual(ask, before.Ask) {
		return before
	}
	p := &Plan{Ask: ask, Result: plan.Make(ask)}
	for i, one := range p.Result.Plans {
		if one.Kind == ask.Chosen {
			p.Chosen = i
		}
		p.Chances = append(p.Chances, p.chance(one))
	}
	chosen := p.Result.Plans[p.Chosen]
	p.Quiet = ask.QuietHours(chosen)
	if change, ok := plan.Changed(ask, chosen); ok {
		p.Change = &change
	}
	return p
}

// marks are the times that the cook has fixed, and over them what was done, in the
// order in which it was said.
func marks(o order.Order, f facts.Facts) []plan.Mark {
	serve := o.ServesRest()
	out := []plan.Mark{}
	for _, wish := range o.Wishes.Value {
		if plan.InReach(serve, wish.At) {
			out = append(out, wish)
		}
	}
	for _, one := range f.Played(cmp.Or(o.Serving.Value.Zone, time.UTC)) {
		if one.Kind != facts.Done || one.Piece == "" {
			continue
		}
		if when, err := one.Time(o.Serving.Value.Zone); err == nil && plan.InReach(serve, when) {
			stage := one.What
			if stage == "temper" {
				stage = "out"
			}
			own, _ := one.Values["move"].(string)
			out = append(out, plan.Mark{Key: one.Piece, Stage: stage, At: when, Done: true, Move: own})
		}
	}
	return out
}

// chance is the chance of serving on time, with that of each piece.
func (p *Plan) chance(one plan.Plan) trace.Figure {
	f := trace.Exact("plan.chance", math.Min(one.Chance, 0.99))
	for _, t := range one.Pieces {
		f.Inputs = append(f.Inputs, trace.Input{ID: "piece:" + t.Key, Value: ChanceAt{t.Chance, t.Fire}})
	}
	return f
}

// ChanceAt is the chance of a piece that goes on the fire at a time.
type ChanceAt struct {
	Chance float64
	Fire   time.Time
}

// draining is the time to drain and dry a piece after its bath.
const draining = 30 * time.Minute

// job is what the planner has to know of the piece.
func (s *subject) job() plan.Job {
	n := float64(s.meat.Count)
	custom := s.meat.Cut.Custom()
	area := float64(s.meat.Geometry.Length) * float64(s.meat.Geometry.Width) * 100 * n
	on, rest := s.move(order.On), s.move(order.Rest)
	thaw := s.move(order.Thaw)
	j := plan.Job{
		Key:       s.line.Key,
		Pit:       on.Pit,
		PitC:      on.Set,
		Prep:      s.prep(),
		Temper:    s.move(order.Temper).Lasts,
		Wait:      s.asked,
		WaitMin:   min(s.asked, 40*time.Minute),
		WaitMax:   max(s.asked, custom.Raw),
		Fire:      s.fire.Takes,
		Rest:      rest.Lasts,
		LeastRest: s.leastRest(),
		HoldMax:   max(rest.Lasts, s.holds()),
		HoldBest:  s.holdsIn("holder"),
		Slice:     fives(min(30, custom.Slicing.Minutes()*(1+0.2*(n-1)))),
		Keeps:     custom.Keeps,
		Thaw:      thaw.Lasts,
		RoomDM2:   area * 1.15,
		FridgeDM2: area,
	}
	if s.own {
		j.Serve = s.serve
	}
	if s.move(order.Wait).Style == "minutes" && s.asked <= 2*time.Hour {
		j.WaitMax = max(s.asked, 2*time.Hour)
		j.WaitMin = min(s.asked, 10*time.Minute)
	} else {
		j.WaitMin = max(j.WaitMin, s.asked*2/5)
	}
	j.Doings, j.Travel, j.Again = s.doings(), s.line.Rests.Travel, s.again()
	j.Rest, j.HoldMax = j.Rest+j.AgainBefore(), j.HoldMax+j.AgainBefore()
	if s.line.Answers.Value.Chose(decision.Wrap) != "none" {
		j.Wraps = s.fire.Wraps
		if len(s.fire.Seldom.Wrapped) > 0 {
			j.WrapNever = s.fire.Seldom.Wrapped[0]
		}
	}
	for _, m := range s.moves {
		layer, ok := dose.As[dose.Layer](m.Dose)
		ok = ok && m.Key == ""
		j.Dust = j.Dust || ok && layer.Kind == "dusting"
		j.Glaze = j.Glaze || ok && layer.Kind == "glaze"
		wet := ok && len(layer.Mix.Components) > 1 && layer.Mix.Per100g.Water > 15
		j.Sauce = j.Sauce || wet && (layer.Kind == "glaze" || layer.Kind == "finish")
	}
	if bath, ok := s.bath(); ok {
		j.Bath, j.Drain = bath.Lasts, draining
		j.BathMin, j.BathMax = bath.Lasts*9/10, bath.Lasts*11/10
		if bath.Equilibrium {
			j.BathMin, j.BathMax = bath.Lasts*7/10, max(bath.Lasts, min(2*bath.Lasts, 72*time.Hour))
		}
	}
	return j
}

// anchors are the stages that a moment may be told from, by its words.
var anchors = map[string]string{"on": "fire", "off": "off", "slice": "slice", "serve": "serve"}

// doings are what is done to the piece besides its stages.
func (s *subject) doings() []plan.Doing {
	var out []plan.Doing
	wraps, visits := 0, 0
	if s.line.Answers.Value.Chose(decision.Wrap) != "none" {
		wraps++
	}
	at := func(all []uncertain.Span, seldom []float64, i *int) (uncertain.Span, float64) {
		if *i++; *i > len(all) {
			return uncertain.Span{Low: uncertain.Endless, Mid: uncertain.Endless, High: uncertain.Endless}, 1
		}
		if *i > len(seldom) {
			return all[*i-1], 0
		}
		return all[*i-1], seldom[*i-1]
	}
	one := func(m order.Move) {
		known, _ := move.Find(m.Kind)
		d := plan.Doing{Stage: string(m.Kind), Move: m.Key, Lasts: known.Lasts, Every: m.At.Each}
		switch {
		case m.Kind == order.Wrap || m.Kind == move.Unwrap:
			d.From, d.Never = at(s.fire.Wrapped, s.fire.Seldom.Wrapped, &wraps)
		default:
			if visits < len(s.fire.Ends) {
				d.Until = s.fire.Ends[visits]
			}
			d.From, d.Never = at(s.fire.Visits, s.fire.Seldom.Visits, &visits)
		}
		if of, ok := anchors[m.At.From.First.Of]; ok {
			d.Of, d.By, d.Never = of, m.At.From.First.By, 0
		}
		apart := m.Kind == move.Other || m.Kind == move.Clean
		if clock := m.At.From.First.Clock; clock != "" && apart && !s.serve.IsZero() {
			// What is no part of the fire comes by the clock, whether the piece is on or off.
			d.Of, d.By, d.Never = "serve", when.Next(s.serve.Add(-18*time.Hour), clock).Sub(s.serve), 0
		}
		if first := m.At.From.First; first.Of == string(order.Wrap) && first.By < 0 && len(s.fire.Wrapped) > 0 {
			// Nothing on the fire knows of a wrap that is still ahead.
			d.From, d.Never = sooner(s.fire.Wrapped[0], -first.By), 0
			if len(s.fire.Seldom.Wrapped) > 0 {
				d.Never = s.fire.Seldom.Wrapped[0]
			}
		}
		out = append(out, d)
	}
	if m, ok := order.FindMove(s.moves, order.Spritz); ok && m.Key == "" && m.Dose == nil {
		one(m)
	}
	for _, m := range s.line.Own {
		if m.Kind != move.Again {
			one(m)
		}
	}
	if parts := s.line.Rests.Parts(); len(parts) > 1 { // else it is put there when it comes off
		for _, rest := range parts {
			out = append(
				out,
				plan.Doing{Stage: string(order.Rest), Move: rest.ID, Of: "off", By: rest.From, Lasts: 5 * time.Minute},
			)
		}
	}
	return out
}

// again is when it goes on the fire once more.
func (s *subject) again() []plan.Again {
	var out []plan.Again
	for _, m := range s.line.Own {
		if m.Kind == move.Again {
			out = append(out, plan.Again{
				Move: m.Key, Lasts: m.Lasts, SetC: m.Set, Cut: m.AfterKnife(), Told: !m.At.From.None(), After: m.At.From.First.By,
			})
		}
	}
	return out
}

// sooner is a span that much before another, not before it goes on.
func sooner(s uncertain.Span, by time.Duration) uncertain.Span {
	at := func(d time.Duration) time.Duration {
		if d >= uncertain.Endless {
			return d
		}
		return max(0, d-by)
	}
	return uncertain.Span{Low: at(s.Low), Mid: at(s.Mid), High: at(s.High)}
}

// holds is how long the piece keeps well after the fire: where the cook rests it, or when
// that is not chosen in the better of its usual place and a cooler.
func (s *subject) holds() time.Duration {
	hold := s.holdsIn(s.move(order.Rest).With)
	for _, place := range s.betterPlaces() {
		hold = max(hold, s.holdsIn(place))
	}
	return hold
}

// betterPlaces are where a piece may rest that has to wait longer than it keeps in its
// usual place: a cooler, and what keeps for hours in a holder.
func (s *subject) betterPlaces() []string {
	if s.line.Typed.Choices["rest"] != "" || s.line.Rests.Held != "" {
		return nil
	}
	if s.meat.Cut.Family == cut.Collagen || s.meat.Cut.Family == cut.Whole {
		return []string{"cooler", "holder"}
	}
	return []string{"cooler"}
}

// holdsIn is how long the piece keeps well, and hot, in a place.
func (s *subject) holdsIn(place string) time.Duration {
	return forecast.HoldsIn(s.fires[0], place, s.line.Rests.Vent)
}

// held is where the piece waits for the knife: where the cook rests it, or in a cooler
// when it waits longer than it keeps in its usual place.
func (s *subject) held() string {
	rest := s.move(order.Rest).With
	for _, place := range s.betterPlaces() {
		if s.times.Hold > s.holdsIn(rest) {
			rest = place
		}
	}
	return rest
}

// prep is the work before salting is over: trimming, injecting, mixing and salting.
func (s *subject) prep() time.Duration {
	n := float64(s.meat.Count)
	minutes := 10 + 2*n
	if !s.meat.Weighed {
		minutes += 5 + 2*n // trimming
	}
	if _, ok := order.FindMove(s.moves, order.Inject); ok {
		minutes += 10 + 3*n
	}
	return fives(min(60, minutes))
}

// fives rounds minutes to five.
func fives(minutes float64) time.Duration {
	return time.Duration(math.Round(minutes/5)*5) * time.Minute
}
