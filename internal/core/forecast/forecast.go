// Package forecast is how a piece fares on the fire: what decides it, what has happened to it so far, and
// what follows by the ensembles of package heat.
//
//	history, on := forecast.HistoryOf(facts, readings, scope)
//	in = history.Apply(in)                         // what was done stands, what is left follows from it
//	out, err := forecast.Ensemble{}.Forecast(ctx, in)
//	out.Fire.Mid                                   // until it is off
package forecast

import (
	"cmp"
	"context"
	"hash/fnv"
	"math"
	"slices"
	"time"

	"verjuice/internal/core/cut"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/memo"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/uncertain"
	"verjuice/internal/core/weather"
	"verjuice/internal/core/when"
)

// FireInput is what decides how a piece fares on the fire.
type FireInput struct {
	Cut      cut.Cut // with its finish
	Geometry cut.Geometry
	StartC   quantity.Celsius
	Temper   time.Duration // on the counter before the fire
	RoomC    quantity.Celsius
	PitC     quantity.Celsius
	PitOff   quantity.Celsius // half of the range that was said for PitC
	CoreOff  quantity.Celsius // and for Core
	Core     quantity.Celsius // at which it is taken off; zero is judged by feel
	Steps    []heat.SetPoint  // of the pit, after PitC
	Wraps    []heat.Wrap      // in order
	Visits   []heat.Visit     // spritzes, bastes and looks
	Off      when.When        // when it is taken off, where that is more than Core; else none
	Rests    []heat.Phase     // before the place where it is held

	Read    []heat.Reading  // of its core so far
	PitRead []heat.SetPoint // of the pit so far
	Bark    heat.SeenBark   // what was seen of its bark
	Sugar   float64         // share of what lies on it
	UndoneH float64         // up to then it was read not to be done, h

	OpenMin   int          // opened every so often; zero is not told
	Shut      bool         // never opened
	Shine     string       // how the foil looks: shiny, dull; else not told
	Tight     string       // how tight the wrap is: tight, usual, loose; else not told
	VentsShut bool         // of the pit, once it is switched off to rest in
	Weather   string       // mild, cold, windy or wet
	Skies     []heat.Spell // the weather over the day, where that was told; then Weather does not count
	Pit       string       // kind of pit by id; empty when it is not known
	Number    int          // of the pit: pieces on one pit share its error
	Learnt    heat.Learnt  // of the pit, by earlier cooks
	Piece     uint64       // tells pieces apart
}

// FireResult is how a piece fares.
type FireResult struct {
	Takes   uncertain.Duration // until it is off
	Wraps   uncertain.Span     // until it is first wrapped; zero when it is not
	Wrapped []uncertain.Span   // until each wrap
	Visits  []uncertain.Span   // until each visit begins
	Ends    []uncertain.Span   // and until it is over; endless where it goes on until the piece is off
	Seldom  Seldom
	Warms   time.Duration // its core from the start to 60 °C
	Lingers time.Duration // of that, between 10 and 54.4 °C
	Yield   float64       // served meat, share of the trimmed weight
	Rough   bool          // from one run and the usual spread: the ensemble is still to come
}

// Seldom is in which share of the members something on the way does not come before the piece is off.
type Seldom struct {
	Wrapped []float64 // each wrap
	Visits  []float64 // each visit
}

// Forecaster says how a piece fares on the fire. An error is that of the context.
type Forecaster interface {
	Forecast(context.Context, FireInput) (FireResult, error)
}

// Ensemble forecasts for the plan with an ensemble for each piece.
type Ensemble struct{}

// WhileTyping forecasts for the plan at once: with the ensemble where it has been run before, else
// with a single run and the usual spread, as rough.
type WhileTyping struct{}

// SingleRun forecasts with a single run always, to compare one way of cooking with another.
type SingleRun struct{}

// Core temperatures that the plan and the cautions ask for, °C.
var asked = []float64{10, 54.4, 60}

var (
	settled memo.Of[memo.Key, FireResult]
	rough   memo.Of[memo.Key, FireResult]
	alone   memo.Of[memo.Key, time.Duration]
)

// Forecast implements Forecaster.
func (Ensemble) Forecast(ctx context.Context, b FireInput) (FireResult, error) {
	k := b.Key()
	if fire, ok := settled.Kept(k); ok {
		settled.Keep(k, fire)
		return fire, nil
	}
	if len(b.Read) > 0 { // somebody stands beside it: it is looked at, too
		s, err := See(ctx, b)
		return s.fire, err
	}
	c, a := heatInput(b)
	f, err := heat.Of(ctx, c, a)
	if err != nil {
		return FireResult{}, err
	}
	fire := resultOf(f, c)
	settled.Keep(k, fire)
	return fire, nil
}

// Forecast implements Forecaster.
func (WhileTyping) Forecast(ctx context.Context, b FireInput) (FireResult, error) {
	if fire, ok := settled.Kept(b.Key()); ok {
		return fire, nil
	}
	return SingleRun{}.Forecast(ctx, b)
}

// Forecast implements Forecaster.
func (SingleRun) Forecast(_ context.Context, b FireInput) (FireResult, error) {
	return rough.Get(b.Key(), func(memo.Key) FireResult {
		c, a := heatInput(b)
		fire := resultOf(heat.Rough(c, a), c)
		fire.Rough = true
		return fire
	}), nil
}

// Alone is how long the slowest of pieces is on the fire by a single coarse run, to compare one
// way of cooking with another.
func Alone(inputs []FireInput) time.Duration {
	longest := time.Duration(0)
	for _, b := range inputs {
		longest = max(longest, alone.Get(b.Key(), func(memo.Key) time.Duration {
			c, _ := heatInput(b)
			return lasts(heat.Alone(c))
		}))
	}
	return longest
}

// Key tells inputs apart: all that is in one decides how it fares.
func (b FireInput) Key() memo.Key { return memo.KeyOf(b) }

// Wrap is what it is in at the end; none when it is bare.
func (b FireInput) Wrap() string {
	if n := len(b.Wraps); n > 0 {
		return b.Wraps[n-1].Kind
	}
	return gear.NoWrap
}

// shines is what foil takes up of the heat by how it looks, against the usual: an emissivity of 0.2
// when it is new, 0.4 when it is dull.
var shines = map[string]float64{"shiny": 0.6, "dull": 1.2}

// heatInput is the piece as heat takes it, and what is asked of it.
func heatInput(b FireInput) (heat.Cook, heat.Ask) {
	pit, known := gear.UsualPit(b.Pit)
	c := heat.Cook{
		Cut: b.Cut, Geometry: b.Geometry, Measured: b.Geometry.Measured, Piece: b.Piece, Learnt: b.Learnt,
		UndoneH: b.UndoneH, DoneC: float64(b.Core), DoneOff: float64(b.CoreOff), PitOff: float64(b.PitOff),
		Feel: b.Core == 0, Off: b.Off,
		Programme: heat.Programme{
			Pit: pit.Heat, Steps: append([]heat.SetPoint{{SetC: float64(b.PitC)}}, b.Steps...), Wraps: b.Wraps, Visits: b.Visits,
			Ambient: weather.Of(b.Weather).Ambient, OpenMin: float64(b.OpenMin), PitRead: b.PitRead,
			Loose: cmp.Or(heat.Looseness[b.Tight], 1), Shine: shines[b.Shine],
			StartC: float64(b.StartC), TemperH: b.Temper.Hours(), RoomC: float64(b.RoomC),
			Sugar: b.Sugar,
		},
	}
	if len(b.Skies) > 0 {
		c.Programme.Ambient, c.Programme.Skies = b.Skies[0].Ambient, b.Skies[1:]
	}
	a := heat.Ask{
		Readings:  b.Read,
		Bark:      b.Bark,
		Tightness: heat.Looseness[b.Tight] > 0,
		KnowsLid:  b.Shut,
		Cores:     asked,
		Seed:      uint64(b.Number) + 1,
		KnowsPit:  known,
		Members:   uncertain.Members,
	}
	soft := func(c when.Cond) bool { return c.Sign == when.Soft || c.Sign == when.Bones || c.Sign == when.Fat }
	if b.Off.Some(soft) {
		c.Feel = b.Off.Both || b.Off.Second.None()
	}
	return c, a
}

// SoftAt is the tenderness index of a piece so many hours in, by what was read and done.
func SoftAt(b FireInput, hour float64) float64 {
	c, _ := heatInput(b)
	return c.SoftAt(b.Read, hour)
}

// resultOf is what the plan takes of a forecast.
func resultOf(f heat.Forecast, c heat.Cook) FireResult {
	members := make([]time.Duration, len(f.Hours))
	for i, h := range f.Hours {
		members[i] = lasts(h)
	}
	out := FireResult{
		Yield:   f.Yield.Mid,
		Takes:   uncertain.Of(members),
		Warms:   lasts(f.Reach[2].Mid),
		Lingers: lasts(f.Reach[1].Mid) - lasts(f.Reach[0].Mid),
	}
	out.Takes.Span = out.Takes.Rounded()
	spans := func(bands []heat.Band) []uncertain.Span {
		out := make([]uncertain.Span, len(bands))
		for i, b := range bands {
			out[i] = uncertain.Span{Low: lasts(b.Low), Mid: lasts(b.Mid), High: lasts(b.High)}
		}
		return out
	}
	shares := func(bands []heat.Band) (out []float64) {
		for _, b := range bands {
			out = append(out, b.Never)
		}
		return out
	}
	out.Seldom = Seldom{shares(f.Wraps), shares(f.Visits)}
	out.Wrapped, out.Visits, out.Ends = spans(f.Wraps), spans(f.Visits), spans(f.Ends)
	if len(out.Wrapped) > 0 && out.Wrapped[0].Mid < out.Takes.Mid { // else it is off before
		out.Wraps = out.Wrapped[0]
	}
	return out
}

// lasts is so many hours, or endless.
func lasts(h float64) time.Duration {
	if math.IsInf(h, 1) || h > uncertain.Endless.Hours() {
		return uncertain.Endless
	}
	return time.Duration(h * float64(time.Hour))
}

// SlowestOf is that which takes longest by a single run.
func SlowestOf(inputs []FireInput) FireInput {
	slowest := 0
	if len(inputs) > 1 {
		for i := range inputs {
			if Alone(inputs[i:i+1]) > Alone(inputs[slowest:slowest+1]) {
				slowest = i
			}
		}
	}
	return inputs[slowest]
}

// Slowest is how pieces fare until the last of them is off. Of unlike ones that which takes
// longest by a single run is forecast.
func Slowest(ctx context.Context, by Forecaster, inputs []FireInput) (FireResult, error) {
	return by.Forecast(ctx, SlowestOf(inputs))
}

// In is the same in a time that the cook gave: what comes on the way keeps its share.
func (f FireResult) In(typed uncertain.Duration) FireResult {
	pace := float64(typed.Mid) / float64(max(f.Takes.Mid, time.Minute))
	scaled := func(d time.Duration) time.Duration { return time.Duration(pace * float64(d)) }
	spans := func(all ...uncertain.Span) []uncertain.Span {
		out := make([]uncertain.Span, len(all))
		for i, s := range all {
			out[i] = uncertain.Span{Low: scaled(s.Low), Mid: scaled(s.Mid), High: scaled(s.High)}
		}
		return out
	}
	return FireResult{
		Takes:   typed,
		Wraps:   spans(f.Wraps)[0],
		Wrapped: spans(f.Wrapped...),
		Visits:  spans(f.Visits...),
		Ends:    spans(f.Ends...),
		Seldom:  f.Seldom,
		Yield:   f.Yield,
		Warms:   scaled(f.Warms),
		Lingers: scaled(f.Lingers),
	}
}

// Seed is a number that belongs to a piece, by its key.
func Seed(key string) uint64 {
	h := fnv.New64a()
	h.Write([]byte(key))
	return h.Sum64()
}

// Seen is a forecast as it is looked at, with the core temperatures that it tells of.
type Seen struct {
	Fire  heat.Forecast
	Cores []float64 // °C, of Fire.Reach
	Cook  heat.Cook
	fire  FireResult
}

var looked memo.Of[memo.Key, Seen]

// milestones are core temperatures that cooks look out for, °C.
var milestones = []float64{40, 54, 60, 66, 71, 74, 80, 85, 90}

// See forecasts one piece with its ensemble: the curve, and when it gets to what cooks look out
// for. An error is that of the context.
func See(ctx context.Context, b FireInput) (Seen, error) {
	k := b.Key()
	if s, ok := looked.Kept(k); ok {
		return s, nil
	}
	c, a := heatInput(b)
	a.Cores = slices.Clone(asked)
	for _, m := range milestones {
		if c.Feel || m < c.DoneC {
			a.Cores = append(a.Cores, m)
		}
	}
	f, err := heat.Of(ctx, c, a)
	if err != nil {
		return Seen{}, err
	}
	fire := resultOf(f, c)
	n := len(asked) // which are for the plan
	f.Reach = f.Reach[n:]
	out := Seen{f, a.Cores[n:], c, fire}
	looked.Keep(k, out)
	return out, nil
}

// restKey is all that a rest depends on.
type restKey struct {
	fire  memo.Key
	place string
	vent  time.Duration
}

var early memo.Of[restKey, time.Duration]

// hot is the core temperature from which on a piece that is held is judged by its floor: what
// is taken off pink is not.
const hot = quantity.Celsius(71)

// HoldsIn is how long a piece keeps well where it rests, and above 60 °C: the early end of it,
// of what loses heat fastest. It is opened first for vent.
func HoldsIn(b FireInput, place string, vent time.Duration) time.Duration {
	well, from := b.Cut.HoldsIn(place, b.Geometry.Thickness), b.Core
	if from == 0 {
		from = quantity.Celsius(b.Cut.DoneC())
	}
	if from < hot || place == "holder" { // which is kept above the floor
		return well
	}
	return min(well, early.Get(restKey{b.Key(), place, vent}, func(restKey) time.Duration {
		r := heat.Rest{
			Cut:      b.Cut,
			Geometry: b.Geometry,
			FromC:    float64(from),
			Wrap:     b.Wrap(),
			First:    b.Rests,
			Place:    b.Place(place),
			RoomC:    float64(b.RoomC),
		}
		r.VentMin = vent.Minutes()
		if r.InPit() {
			r.PlaceC = float64(b.PitC)
		}
		return lasts(r.Early(well.Hours())).Round(5 * time.Minute)
	}))
}

// Place is where a rest is, as heat knows it: in a wrap, on a board or in a tray a piece cools
// as on a counter.
func (b FireInput) Place(rests string) string {
	switch rests {
	case "cooler", "holder":
		return rests
	case "oven":
		return "oven_off"
	case "pit", "pit-cooler":
		if b.VentsShut {
			return "pit_shut"
		}
		return "pit_off"
	}
	return "counter"
}
