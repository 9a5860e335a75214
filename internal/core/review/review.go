// Package review is a cook when it is over: what was planned against what happened, what was thought
// against what was read, and its outcome.
//
//	a, err := review.Of(ctx, r, course)
//	a.Moves[0].Late()      // 25 min after its time
//	a.Outcome.Pieces[0]    // what is kept of it
package review

import (
	"cmp"
	"context"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/caution"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/live"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/uncertain"
	"verjuice/internal/core/weather"
)

// Review is a cook when it is over.
type Review struct {
	Cook    cooking.Result // with its facts and readings
	Outcome logbook.Outcome
	Moves   []Move // in the order in which they happened, or were to
	Pieces  []Piece
}

// Piece is how a piece went beside what was thought of it when it went on.
type Piece struct {
	Live      live.Piece
	Predicted []heat.Point                // the core, hour by hour
	Read      []heat.Reading              // of its coldest place
	Highest   map[string]quantity.Celsius // that was read, by the place of the probe
	MissC     float64                     // how far the two are apart, °C; not a number when nothing was read
	Found     []caution.Finding
}

// Move is something that was planned, or done, or both.
type Move struct {
	Piece   string // key; empty for a pit
	Pit     int
	Stage   string
	Own     string           // which of the cook's own it is, by key
	Kind    string           // of a wrap
	SetC    quantity.Celsius // what a pit was set to; zero for any other move
	Planned time.Time        // zero when it was not
	Actual  time.Time        // zero when nothing says that it was done; the first time
	Times   int              // that it was done
	Last    time.Time        // time that it was done
}

// Late is how much later than planned it was done; false when one of the two is not known.
func (m Move) Late() (time.Duration, bool) {
	return m.Actual.Sub(m.Planned), !m.Planned.IsZero() && !m.Actual.IsZero()
}

// Of is a cook when it is over, by a result with its facts and readings. The plan that it is held
// against is laid as it was before the first fact. The error is that of ctx.
func Of(ctx context.Context, r cooking.Result, course facts.Course) (Review, error) {
	pieces, err := live.Of(ctx, r, course)
	if err != nil {
		return Review{}, err
	}
	out := Review{Cook: r, Outcome: logbook.Outcome{Model: logbook.Model, Name: r.Order.Cook.Name}}
	for _, p := range pieces {
		one, err := went(ctx, p)
		if err != nil {
			return Review{}, err
		}
		one.Highest = highest(course, p.Piece.Line.Key, r.Order.Probe.Value)
		out.Pieces = append(out.Pieces, one)
	}
	if out.Moves, err = moves(ctx, r, pieces); err != nil {
		return Review{}, err
	}
	return out, out.sum(ctx, r, true)
}

// highest is the highest core of a piece that was read at each place; in ice water its probes show probe0.
func highest(course facts.Course, key string, probe0 quantity.Celsius) map[string]quantity.Celsius {
	out := map[string]quantity.Celsius{}
	for _, name := range course.Of(func(at facts.Probe) bool { return at.Piece == key }) {
		at, err := facts.ParseProbe(name)
		if err != nil {
			continue
		}
		for _, m := range course[name] {
			out[at.Place] = max(out[at.Place], m.High-probe0)
		}
	}
	return out
}

// Sketch is what became of a cook as far as one run of a forecast tells: what it was thought to take has
// no band, and how its pit heated is not known. The whole takes an ensemble for each piece, and is worked
// out when it is looked at.
func Sketch(ctx context.Context, r cooking.Result) (logbook.Outcome, error) {
	out := Review{Outcome: logbook.Outcome{Model: logbook.Model, Name: r.Order.Cook.Name}}
	for _, p := range r.Pieces {
		out.Pieces = append(out.Pieces, Piece{Live: live.Piece{Piece: p}})
	}
	err := out.sum(ctx, r, false)
	return out.Outcome, err
}

// went is how a piece went beside what was thought.
func went(ctx context.Context, p live.Piece) (Piece, error) {
	out := Piece{Live: p, Found: p.Found, Read: p.Piece.Happened.Core, MissC: math.NaN()}
	if !p.Piece.Lit || len(p.Piece.Predicted) == 0 {
		return out, nil
	}
	seen, err := forecast.See(ctx, forecast.SlowestOf(p.Piece.Predicted))
	if err != nil {
		return out, err
	}
	out.Predicted = seen.Fire.Curve
	var off []float64
	for _, r := range out.Read {
		if i, there := slices.BinarySearchFunc(out.Predicted, r.AtH, func(t heat.Point,
			h float64) int {
			return cmp.Compare(t.H, h)
		}); there ||
			i < len(out.Predicted) {
			off = append(off, math.Abs(out.Predicted[i].Core.Mid-r.CoreC))
		}
	}
	if len(off) > 0 {
		slices.Sort(off)
		out.MissC = off[len(off)/2]
	}
	return out, nil
}

// stages are those of which a plan is told although nothing says that they were done.
var stages = []string{"thaw", "bath", "salt", "light", "fire", "wrap", "off", "rest", "slice", "again", "again-off"}

// once are the stages that are done once: the last word about one of them counts.
var once = []string{"thaw", "bath", "lift", "salt", "temper", "light", "fire", "off", "slice", "travel",
	"reheat", "chill", "cold"}

// moves is what was planned before the first fact, beside all that was done: what was done again and again is one line,
// and each change of a pit one of its own.
func moves(ctx context.Context, r cooking.Result, pieces []live.Piece) ([]Move, error) {
	zone := cmp.Or(r.Order.Serving.Value.Zone, time.UTC)
	at := func(f facts.Fact) time.Time {
		t, _ := f.Time(zone)
		return t
	}
	did := r.Facts.Played(zone).ByTime(zone)
	did = slices.DeleteFunc(did, func(f facts.Fact) bool { return f.Kind != facts.Done || f.What == "over" })
	var out []Move
	if len(did) > 0 {
		var err error
		if out, err = planned(ctx, r, at(did[0])); err != nil {
			return nil, err
		}
	}
	for _, f := range did {
		out = add(out, f, at(f))
	}
	when := func(m Move) time.Time {
		if m.Actual.IsZero() {
			return m.Planned
		}
		return m.Actual
	}
	slices.SortStableFunc(out, func(a, b Move) int { return when(a).Compare(when(b)) })
	return out, nil
}

// planned is what was to be done before anything was.
func planned(ctx context.Context, r cooking.Result, first time.Time) (out []Move, err error) {
	if r.Plan == nil {
		return nil, nil
	}
	clock := cooking.Clock{Now: first.Add(-time.Hour), Parts: cooking.Depths}
	before, err := cooking.Work(ctx, r.Order, nil, r.Kitchen, clock)
	if err != nil || before.Plan == nil {
		return nil, err
	}
	for _, t := range before.Plan.Result.Plans[before.Plan.Chosen].Tasks {
		if t.Stage == "rest" { // the rests one after another are one press
			t.Move = ""
		}
		again := slices.ContainsFunc(out, func(m Move) bool {
			return m.Stage == t.Stage && m.Piece == t.Key && m.Pit == t.Pit && m.Own == t.Move
		})
		if !again && (slices.Contains(stages, t.Stage) || t.Move != "") {
			out = append(out, Move{Piece: t.Key, Pit: t.Pit, Stage: t.Stage, Own: t.Move, Planned: t.At})
		}
	}
	return out, nil
}

// add puts what was done to the moves: where it was planned, or else where it was done before, or as one more.
func add(all []Move, f facts.Fact, at time.Time) []Move {
	pit, _ := f.Values["pit"].(float64)
	own, _ := f.Values["move"].(string)
	kind, _ := f.Values["kind"].(string)
	set := quantity.Celsius(0)
	if f.What == "set" {
		set, _ = f.Set()
	}
	same := func(m Move) bool {
		return m.Stage == f.What && m.Piece == f.Piece && (f.Piece != "" || m.Pit == int(pit)) && f.What != "set" &&
			(own == "" || m.Own == own || m.Own == "")
	}
	i := slices.IndexFunc(all, func(m Move) bool { return same(m) && m.Actual.IsZero() })
	if i < 0 {
		i = slices.IndexFunc(all, same)
	}
	if i < 0 {
		return append(all, Move{
			Piece: f.Piece, Pit: int(pit), Stage: f.What, Own: own, Kind: kind, SetC: set, Actual: at, Times: 1, Last: at,
		})
	}
	m := &all[i]
	if single := slices.Contains(once, f.What); single || m.Actual.IsZero() {
		m.Actual, m.Times = at, 0
	}
	m.Kind, m.Times, m.Last = cmp.Or(kind, m.Kind), m.Times+1, at
	return all
}

// made are the moves of a piece and its pit that were made while it was on, as they are kept.
func made(all []Move, key string, pit int, h forecast.History) []logbook.Made {
	var out []logbook.Made
	for _, m := range all {
		mine := m.Piece == key || m.Piece == "" && m.Pit == pit
		if !mine || m.Actual.IsZero() || slices.Contains(kept, m.Stage) || m.Actual.Before(h.On) ||
			len(out) >= logbook.MostMade {
			continue
		}
		out = append(out, logbook.Made{
			What: m.Stage, With: m.Kind, Times: m.Times, FromH: m.Actual.Sub(h.On).Hours(), SetC: float64(m.SetC),
		})
	}
	return out
}

// kept are the stages of which the times are kept besides.
var kept = []string{"fire", "off", "slice", "light", "chill", "cold"}

// sum puts the outcome together.
func (a *Review) sum(ctx context.Context, r cooking.Result, whole bool) error {
	o := &a.Outcome
	o.Pieces, o.Notes = []logbook.Piece{}, []string{}
	for _, n := range r.Facts.Notes("") {
		o.Notes = append(o.Notes, n.What)
	}
	_, o.Finished = r.Facts.Done("", "over")
	o.Misread = r.Facts.Misread()
	if at := r.Order.Serving.Value.At; !at.IsZero() {
		o.ServeAt, o.Day = at.Format(time.RFC3339), at.Format(time.DateOnly)
	}
	var served time.Time
	for i, p := range a.Pieces {
		one, err := ofPiece(ctx, r, p, whole)
		if err != nil {
			return err
		}
		one.Made = made(a.Moves, one.Key, p.Live.Pit, p.Live.Piece.Happened)
		if one.On == "" {
			continue
		}
		o.Pieces = append(o.Pieces, one)
		h := p.Live.Piece.Happened
		if cut := h.Last["slice"]; !cut.IsZero() && p.Live.Piece.Line.Serving.Value.IsZero() && (served.IsZero() ||
			cut.Before(served)) {
			served = cut
		}
		if o.Day == "" {
			o.Day = cmp.Or(h.Off, h.On).Format(time.DateOnly)
		}
		if i == 0 {
			o.Weather = p.Live.Piece.Line.Answers.Value.Chose(decision.Weather)
			if told := r.Order.Weather.Value; len(told) > 0 {
				o.Weather = weather.Worst(told).Kind
			}
		}
	}
	if !served.IsZero() {
		o.ServedAt = served.Format(time.RFC3339)
	}
	return nil
}

// ofPiece is what is kept of a piece; without a time at which it went on when it never did.
func ofPiece(ctx context.Context, r cooking.Result, a Piece, whole bool) (logbook.Piece, error) {
	p := a.Live.Piece
	h, meat, key := p.Happened, p.Line.Meat.Value, p.Line.Key
	out := logbook.Piece{
		Key: key, Label: cmp.Or(p.Line.Typed.Label, meat.Cut.Name), Cut: meat.Cut.ID, Finish: string(meat.Cut.Finish),
		Count: meat.Count, Wrap: "none",
		Formula: p.Line.Salting.Value.Formula.Name, Scores: []logbook.Score{}, Notes: []string{},
		GuessH: p.Line.Guess.Value.Hours(), MM: 1000 * float64(meat.Geometry.Thickest),
	}
	if !p.Lit {
		return out, nil
	}
	pit(&out, r, p)
	rfc := func(t time.Time) string {
		if t.IsZero() {
			return ""
		}
		return t.Format(time.RFC3339)
	}
	out.On = rfc(h.On)
	out.Off = rfc(h.Off)
	out.Sliced = rfc(h.Last["slice"])
	out.Chilled = rfc(h.Last["chill"])
	out.Cold = rfc(h.Last["cold"])
	if !h.Off.IsZero() {
		out.Hours = h.NowH
	}
	for _, w := range h.Wraps {
		if w.Kind != "none" {
			out.Wrap = w.Kind
		}
	}
	for _, read := range h.Core {
		out.CoreC = math.Max(out.CoreC, read.CoreC)
	}
	weights(&out, r.Facts, p)
	scores(&out, r.Facts)
	if len(p.Predicted) == 0 {
		return out, nil
	}
	var by forecast.Forecaster = forecast.SingleRun{}
	if whole {
		by = forecast.Ensemble{}
	}
	fire, err := forecast.Slowest(ctx, by, p.Predicted)
	if err != nil {
		return out, err
	}
	out.Predicted = *bandOf(fire.Takes.Span)
	if !whole {
		return out, nil
	}
	if out.AfterTwo, err = afterTwo(ctx, p); err != nil {
		return out, err
	}
	out.Tender = tender(p)
	out.Pace, err = pace(ctx, p)
	return out, err
}

func bandOf(s uncertain.Span) *logbook.Band {
	return &logbook.Band{Low: s.Low.Hours(), Mid: s.Mid.Hours(), High: s.High.Hours()}
}

// afterTwo is what was thought of the hours after two of them, by what had been read by then; nil when nothing had, or
// it was off by then.
func afterTwo(ctx context.Context, p cooking.Piece) (*logbook.Band, error) {
	h := p.Happened.Until(two)
	if p.Happened.NowH <= two || len(h.Core) == 0 {
		return nil, nil
	}
	fire, err := forecast.Ensemble{}.Forecast(ctx, h.Apply(forecast.SlowestOf(p.Predicted)))
	if err != nil || fire.Takes.Mid >= uncertain.Endless {
		return nil, err
	}
	return bandOf(fire.Takes.Span), nil
}

// two hours are when a forecast has something to go by.
const two = 2.0

// tender is the index of the model when it was felt soft, ln; halfway from when it last was not; zero when it was not
// felt. What is learnt is taken off again, so that no lesson is learnt twice.
func tender(p cooking.Piece) float64 {
	h := p.Happened
	if h.Felt.SoftH <= 0 {
		return 0
	}
	b := h.Apply(forecast.SlowestOf(p.Predicted))
	if known, ok := cut.Find(b.Cut.ID); ok {
		b.Cut.TenderH = known.TenderH
	}
	index := forecast.SoftAt(b, h.Felt.SoftH)
	if h.Felt.NotH > 0 {
		index = (index + forecast.SoftAt(b, h.Felt.NotH)) / 2
	}
	if index <= 0 {
		return 0
	}
	return math.Log(index)
}

// pace is by how much longer the core took to where it was read last than it would have by what was
// done, with the pit as it was read, ln; zero when that is not known.
func pace(ctx context.Context, p cooking.Piece) (float64, error) {
	h := p.Happened
	if len(h.Core) == 0 || len(h.Pit) == 0 {
		return 0, nil
	}
	last := h.Core[len(h.Core)-1]
	b := h.Apply(forecast.SlowestOf(p.Predicted))
	b.Read, b.Bark, b.UndoneH = nil, heat.SeenBark{}, 0
	seen, err := forecast.See(ctx, b)
	if err != nil || last.CoreC < tells {
		return 0, err
	}
	for _, point := range seen.Fire.Curve {
		if point.Core.Mid >= last.CoreC && point.H > 0 {
			return math.Log(last.AtH / point.H), nil
		}
	}
	return 0, nil
}

// tells is the least core that tells how a pit heats, °C.
const tells = 45

// slot is how long each reading of a pit stands for, min.
const slot = 5

// pit puts in what a piece's pit was, and how far it ran from what it was set to.
func pit(out *logbook.Piece, r cooking.Result, p cooking.Piece) {
	on, _ := order.FindMove(p.Line.Sound(), order.On)
	if n := on.Pit; n < len(r.Order.Cook.Pits) {
		own := r.Order.Cook.Pits[n]
		out.PitID, out.PitKind, out.PitName = own.ID, own.Kind, own.Name
	}
	if len(p.Fires) == 0 {
		return
	}
	b := p.Fires[0]
	out.SetC = float64(b.PitC)
	var off []float64
	for _, read := range p.Happened.Pit {
		set := float64(b.PitC)
		changed := 0.0
		for _, s := range b.Steps {
			if s.AtH <= read.AtH {
				set, changed = s.SetC, s.AtH
			}
		}
		if read.AtH-changed > 0.5 { // it has come to where it was set
			off = append(off, read.SetC-set)
		}
	}
	if out.AirN = slot * len(off); len(off) > 0 {
		slices.Sort(off)
		out.AirOffC = off[len(off)/2]
	}
}

// What a piece weighs off the fire when nothing is known of its yield, share of its trimmed weight; and how
// much more rub is mixed than goes on. Field judgement.
const (
	usualCooked = 0.65
	mostCooked  = 0.97
	mixedOver   = 1.15
)

// UsualWeights are what the weights of a piece are thought to be, kg, by facts.Weights; what is not known
// is left out.
func UsualWeights(o logbook.Piece) map[string]float64 {
	out := map[string]float64{"trimmed": o.GreenKG, "cooked": o.GreenKG * usualCooked, "mixed": o.RubKG * mixedOver}
	if c, known := cut.Find(o.Cut); known && o.Yield.Mid > 0 {
		// The other way round than Served takes its bones off, so that a weight as it was thought teaches nothing.
		out["cooked"] = o.GreenKG * math.Min(mostCooked, o.Yield.Mid+c.BoneShare())
	}
	return out
}

// weights puts in what was weighed, of all pieces of the line together. What cannot be, by all else, is
// not known until the cook says that it is right.
func weights(out *logbook.Piece, f facts.Facts, p cooking.Piece) {
	if p.Season != nil {
		out.RubKG = p.Season.OnMeat.Mid
	}
	planned := 0.0
	if p.Meat != nil {
		planned = p.Meat.AllGreen.Mid
		out.GreenKG = planned
		if planned > 0 {
			out.Yield = logbook.Band{
				Low:  p.Meat.Served.Low / planned,
				Mid:  p.Meat.Served.Mid / planned,
				High: p.Meat.Served.High / planned,
			}
		}
	}
	kg := func(what string) float64 {
		m, said, there := f.Weighed(p.Line.Key, what)
		low, high := logbook.LikelyWeight(what, out.GreenKG, planned, out.RubKG)
		if there && !said.Sure() && high > 0 && (m.KG() < low || m.KG() > high) {
			out.Asked = append(out.Asked, what)
			return 0
		}
		return m.KG()
	}
	if trimmed := kg("trimmed"); trimmed > 0 {
		out.GreenKG = trimmed
	}
	out.CookedKG = kg("cooked")
	out.BonesKG = kg("bones")
	out.MixedKG = kg("mixed")
	out.LeftKG = kg("left")
	out.KeptKG = kg("kept")
	if p.Ledger != nil {
		out.Salt = p.Ledger.Percent.Mid
	}
}

// scores puts in how it tasted, and what is to be remembered.
func scores(out *logbook.Piece, f facts.Facts) {
	for _, s := range f.Scores(out.Key) {
		if v, ok := s.Score(); ok {
			out.Scores = append(out.Scores, logbook.Score{Aspect: s.What, By: s.Author, Value: v})
		}
	}
	for _, n := range f.Notes(out.Key) {
		out.Notes = append(out.Notes, n.What)
	}
}
