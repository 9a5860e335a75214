package cooking

import (
	"reflect"
	"time"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/order"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
)

// identity is all that a piece is worked out from. Two pieces with the same identity are the same, so that one
// is taken over from the page before. It is compared whole. What is read from the page is the same when the
// page is, the kitchen, and what all pieces share.
type identity struct {
	Typed   cook.Piece
	Key     string
	Kitchen string // how its records stand
	Spoons  quantity.SpoonSet
	Facts   facts.Facts
	Base    order.Base
	Pit     gear.Pit
	Left    bool             // some is kept for later
	Probe   quantity.Celsius // what probes show in ice water
	Serve   time.Time
	Past    bool
	Parts   Parts
	Good    [3]bool // clocked, dosed, rubbed: a mistake elsewhere on the page may blank them
	Fire    forecast.FireResult
	Fires   []forecast.FireInput
	Asked   time.Duration
	Planned bool
	Times   plan.Times
	Done    [2]bool // on the fire, salted
	Wait    time.Duration
	Soak    time.Duration
}

// identity is that of piece i of a result.
func (r Result) identity(i int) identity {
	s := r.by[i]
	return identity{
		Typed: s.line.Typed, Key: s.line.Key, Kitchen: r.Kitchen.Stand, Spoons: r.Order.Cook.Spoons, Facts: r.Facts,
		Base: s.base, Pit: s.pit, Left: s.left, Probe: s.probe, Serve: s.serve, Past: s.past(), Parts: s.asOf.Parts,
		Good: [3]bool{s.clocked, s.dosed, s.rubbed}, Fire: s.fire, Fires: s.fires, Asked: s.asked,
		Planned: s.planned, Times: s.times, Done: [2]bool{s.done, s.salted}, Wait: s.on.Wait, Soak: s.on.Soak,
	}
}

// keeps reports whether piece i is what it was before. In a kitchen of which it is not known how it stands,
// and with a mistake, nothing is kept.
func (r Result) keeps(before Result, i int) bool {
	return i < len(before.by) && r.by[i] != nil && before.by[i] != nil && r.Kitchen.Stand != "" &&
		before.Pieces[i].Ready && reflect.DeepEqual(before.identity(i), r.identity(i))
}

// choice is what the decisions of a piece are shown from, apart from how it fares.
type choice struct {
	Clocked bool
	Timed   bool
	Done    string
	Answers order.Part[decision.Answers]
}

// heat is how the piece fares, as far as the answers of its decisions change it.
type heat struct {
	Fire  forecast.FireResult
	Fires []forecast.FireInput
	Green quantity.Range[quantity.Mass]
}

// shown are the decisions of piece i as they were shown before, when they would be the same; and
// while a forecast is still to come and no other answer was given, since what the answers do
// follows with it.
func (r Result) shown(before Result, i int) []Decided {
	if i >= len(before.by) || before.by[i] == nil || r.by[i] == nil {
		return nil
	}
	was, now := before.by[i], r.by[i]
	chosen := func(s *subject) choice {
		return choice{s.clocked, s.timed(), s.line.Typed.Fire.Done, s.line.Answers}
	}
	fares := func(s *subject) heat { return heat{s.fire, s.fires, s.meat.Green} }
	if !reflect.DeepEqual(chosen(was), chosen(now)) || !now.fire.Rough && !reflect.DeepEqual(fares(was), fares(now)) {
		return nil
	}
	return before.Pieces[i].Decided
}
