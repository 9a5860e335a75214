// Package order is what a page means: it reads a cook as typed into an Order, whose parts each
// carry their own mistakes, so that a bad spritz blanks a spritz and nothing else.
//
//	o := order.Parse(c, kitchen.Kitchen{})
//	o.Wrong()                     // every mistake, with its pointer
//	o.Lines[0].Meat.Value.Green   // counts when Meat.OK()
package order

import (
	"slices"
	"time"

	"verjuice/internal/core/amounts"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/logbook"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/salt"
	"verjuice/internal/core/weather"
	"verjuice/internal/core/when"
)

// Part is something typed, understood, or what is wrong with it. Value counts only
// when Wrong is empty.
type Part[T any] struct {
	Value T
	Wrong field.Errors
}

// OK reports whether Value counts.
func (p Part[T]) OK() bool { return len(p.Wrong) == 0 }

// Order is a cook's page understood. Nothing in it is changed once Parse has
// returned it.
type Order struct {
	Cook    cook.Cook // as typed, with a key for each piece
	Name    Part[string]
	Serving Part[Serving]
	People  Part[People]
	Base    Part[Base]
	Setting Part[Setting]
	Sets    Part[[][]when.Set]    // of each pit, over the day; none where each piece says what it wants
	Weather Part[[]weather.Spell] // over the day; none where each piece says it
	Wishes  Part[[]plan.Mark]
	Probe   Part[quantity.Celsius] // what it shows too much
	Extra   field.Errors           // more pieces than a page takes, or two with one key
	Lines   []Line
	Learnt  logbook.Lessons // of its pits among others, which the forecasts allow for

	stand string // of the kitchen that it was read in
}

// Serving is when food is on the table. The time is zero when none is given.
type Serving struct {
	At   time.Time
	Zone *time.Location
}

// People are who eats.
type People struct {
	Guests, Children, Leftovers int
	Needed                      float64 // portions, leftovers among them
}

// Base is what all pieces share.
type Base struct {
	Portion quantity.Mass // cooked meat for one
	Fridge  quantity.Celsius
	Room    quantity.Celsius
}

// Setting is what a plan is laid around.
type Setting struct {
	Quiet plan.QuietHours
	Hands int
	Pits  []plan.Pit
}

// Line is a piece of the page understood: the meat, how it is salted, and the moves
// that are made on it.
type Line struct {
	Key   string
	Typed cook.Piece
	// names its draw of a forecast: its key or, of one that came without, its cut, which typing does not change
	Draws   string
	Serving Part[time.Time] // when it is eaten; the zero time is with the rest
	Meat    Part[Meat]
	Salting Part[Salting]
	Answers Part[decision.Answers]
	Notes   Part[Notes]
	Woods   Part[[]gear.Wood]   // in parts; none where one of the usual was chosen
	Guess   Part[time.Duration] // on the fire, as the cook thinks; zero when not said
	Moves   []Part[Move]
	Whens   map[string]when.Every // of moves of the stages, where the cook said more than a choice
	Own     []Move                // those of the cook's own that have no mistake
	Rests   amounts.Rests
	Shared  quantity.Celsius // what its pit is set to for all that share it, where nothing is typed; zero for its own
	learnt  []heat.Learnt    // of each pit of the page, by earlier cooks
}

// Meat is what is known of a piece before anything goes on it.
type Meat struct {
	Cut      cut.Cut
	Count    int
	Bought   quantity.Mass // of each; zero when not given
	Green    quantity.Range[quantity.Mass]
	Weighed  bool // Green was weighed after trimming
	Geometry cut.Geometry
	Each     []cut.Geometry // of unlike pieces; empty when they are alike
	OneBare  bool           // one broad face takes no coat
	Skinned  bool           // its skin is taken off
}

// Salting is how salty a piece is to be, and which source is adjusted to that.
type Salting struct {
	ByTarget bool
	BySaid   bool // the amount is what the cook said
	UsualBy  bool // the same when nothing is chosen
	Target   quantity.Percent
	Band     salt.Band
	Free     dose.ID
	Formula  formula.Formula
	FromID   string // of the formula that the rub still is; empty when it was changed
}

// Solved reports whether the source of that id is worked out for the target.
func (s Salting) Solved(id dose.ID) bool { return s.ByTarget && s.Free == id }

// Notes are what a cook wants to remember of a piece.
type Notes struct {
	Grain  string
	Marked bool // the grain is marked
}

// Salt is the ledger's view of one piece.
func (m Meat) Salt() salt.Piece {
	return salt.Piece{Green: m.Green.Mid, BoneShare: m.Cut.BoneShare(), Yield: quantity.Times(m.Cut.CookYield, 0.01)}
}

// Area is the surface that takes a coat, of one piece, m²; the average of unlike ones.
func (m Meat) Area() float64 {
	if len(m.Each) == 0 {
		return m.Geometry.Seasoned(m.OneBare)
	}
	sum := 0.0
	for _, g := range m.Each {
		sum += g.Seasoned(m.OneBare)
	}
	return sum / float64(len(m.Each))
}

// Volume is the room that one piece takes in a pot.
func (m Meat) Volume() quantity.Volume {
	return quantity.Volume(float64(m.Green.Mid) / m.Cut.Density())
}

// Target is m as sources see it, in that fridge.
func (m Meat) Target(fridge quantity.Celsius) dose.Target {
	return dose.Target{
		Meat: m.Salt(), Count: m.Count, Area: m.Area(), Volume: m.Volume(), Length: m.Geometry.Length,
		Width: m.Geometry.Width,
		Path:  m.Geometry.Path(m.Cut.Sealed == "skin" && !m.Skinned), Density: m.Cut.Density(), Fridge: fridge,
	}
}

// Sound are the moves without a mistake.
func (l Line) Sound() []Move {
	out := []Move{}
	for _, m := range l.Moves {
		if m.OK() {
			out = append(out, m.Value)
		}
	}
	return out
}

// Good reports whether no move of these kinds has a mistake.
func (l Line) Good(kinds ...MoveKind) bool {
	return !slices.ContainsFunc(
		l.Moves,
		func(m Part[Move]) bool { return !m.OK() && slices.Contains(kinds, m.Value.Kind) },
	)
}

// GoodDoses reports whether no move that brings something has a mistake.
func (l Line) GoodDoses() bool {
	return l.Good(Brine, Inject, Season, Spritz, Wrap, Glaze, Finish)
}

// GoodRub reports whether the rub has no mistake.
func (l Line) GoodRub() bool {
	return slices.ContainsFunc(l.Moves, func(m Part[Move]) bool {
		_, rub := dose.As[dose.Rub](m.Value.Dose)
		return rub && m.OK()
	})
}

// Wrong are all mistakes of the page, in the order of the page.
func (o Order) Wrong() field.Errors {
	out := field.Errors{}
	for _, one := range []field.Errors{o.Name.Wrong, o.People.Wrong, o.Base.Wrong, o.Serving.Wrong, o.Setting.Wrong,
		o.Sets.Wrong, o.Weather.Wrong, o.Probe.Wrong, o.Wishes.Wrong, o.Extra} {
		out = append(out, one...)
	}
	for _, l := range o.Lines {
		out = append(out, l.Wrong()...)
	}
	return out
}

// Wrong are all mistakes of the piece.
func (l Line) Wrong() field.Errors {
	out := slices.Concat(l.Serving.Wrong, l.Meat.Wrong, l.Salting.Wrong, l.Answers.Wrong, l.Notes.Wrong,
		l.Guess.Wrong, l.Woods.Wrong)
	for _, m := range l.Moves {
		out = append(out, m.Wrong...)
	}
	return out
}

// Due is the mistake of a serving time that is more than two years from now. One that has passed is that of a
// cook that is over: nothing is too late for it any more.
func (o Order) Due(now time.Time) field.Errors {
	var errs field.Errors
	if serve := o.Serving.Value.At; o.Serving.OK() && !serve.IsZero() && !now.IsZero() {
		if serve.After(now.AddDate(2, 0, 0)) {
			errs.Add("/serve_at", "serving.far")
		}
	}
	return errs
}

// Serves is when a line is eaten: at its own time, or with the rest; the zero time when neither is known.
func (o Order) Serves(l Line) time.Time {
	if l.Serving.OK() && !l.Serving.Value.IsZero() {
		return l.Serving.Value
	}
	return o.ServesRest()
}

// ServesRest is when what has no time of its own is eaten: with the last of what has one, where no serving time is
// given.
func (o Order) ServesRest() time.Time {
	if o.Serving.Value.At.IsZero() {
		return o.LastServing()
	}
	return o.Serving.Value.At
}

// LastServing is when the last of it is eaten; the zero time when no serving time is given.
func (o Order) LastServing() time.Time {
	last := o.Serving.Value.At
	for _, l := range o.Lines {
		if l.Serving.OK() && l.Serving.Value.After(last) {
			last = l.Serving.Value
		}
	}
	return last
}
