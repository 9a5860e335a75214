package order

import (
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"
	_ "time/tzdata" // zones on machines without a zone database

	"verjuice/internal/core/amounts"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/kitchen"
	"verjuice/internal/core/plan"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/weather"
	"verjuice/internal/core/when"
)

// Parse reads c, with what the kitchen has of its own. It never fails: every part of
// the Order carries its own mistakes. c is not changed.
func Parse(c cook.Cook, k kitchen.Kitchen) Order { return ParseAfter(Order{}, c, k) }

// ParseAfter reads c as Parse does, after another page: a piece that is typed as it was
// there, in the same kitchen and beside the same pits, is taken over.
func ParseAfter(before Order, c cook.Cook, k kitchen.Kitchen) Order {
	typed := c.Pieces
	c = cook.Keyed(c)
	o := Order{
		stand: k.Stand, Learnt: k.Learnt,
		Cook: c, Name: parseName(c), Serving: parseServing(c), People: parsePeople(c), Base: parseBase(c),
		Setting: parseSetting(c), Sets: parseSets(c), Weather: parseWeather(c), Probe: parseProbe(c),
	}
	o.Wishes = parseWishes(c, o.Serving.Value.Zone)
	if len(c.Pieces) > MaxPieces {
		o.Extra.Add("/pieces", "list.too-long", "most", MaxPieces)
		return o
	}
	keys, shared := map[string]bool{}, together(c)
	for i, p := range c.Pieces {
		at := "/pieces/" + strconv.Itoa(i)
		if keys[p.Key] {
			o.Extra.Add(at+"/key", "piece.same-key")
		}
		keys[p.Key] = true
		if o.keeps(before, i) && before.Lines[i].Shared == shared[i] {
			o.Lines = append(o.Lines, before.Lines[i])
			continue
		}
		o.Lines = append(o.Lines, reader{kitchen: k, spoons: c.Spoons, base: o.Base, sets: o.Sets.Value, at: at,
			shared: shared[i]}.line(p))
		o.Lines[i].Draws = or(typed[i].Key, p.Cut)
	}
	for i, p := range c.Pieces {
		o.Lines[i].Serving = parseOwnServing(p, o.Serving, "/pieces/"+strconv.Itoa(i)+"/serve_at")
	}
	learnt := make([]heat.Learnt, len(c.Pits))
	for i, p := range c.Pits {
		learnt[i] = k.Learnt.Pit(p.ID)
	}
	for i := range o.Lines {
		o.Lines[i].learnt = learnt
	}
	return o
}

// keeps reports whether line i is read as it was before.
func (o Order) keeps(before Order, i int) bool {
	return o.stand != "" && o.stand == before.stand && i < len(before.Lines) && o.Cook.Spoons == before.Cook.Spoons &&
		reflect.DeepEqual(o.Sets.Value, before.Sets.Value) &&
		reflect.DeepEqual(o.Base, before.Base) &&
		reflect.DeepEqual(o.Cook.Pieces[i], before.Cook.Pieces[i])
}

// Limits on a page.
const (
	MaxPieces = 24
	MaxPits   = 6
	maxCount  = 500
	maxGuests = 2000
	maxNote   = 1000
	maxKey    = 60
	maxLayers = 12
	maxEach   = 24
	maxWith   = 8
	maxWishes = 400
	maxHands  = 12
)

// or returns the typed text, or the usual one when nothing was typed.
func or(typed, usual string) string {
	if strings.TrimSpace(typed) == "" {
		return usual
	}
	return typed
}

func parseName(c cook.Cook) (out Part[string]) {
	out.Value = strings.TrimSpace(c.Name)
	if out.Value == "" {
		out.Wrong.Add("/name", "cook.name")
	}
	out.Wrong.Text("/name", c.Name, cook.MaxText)
	return out
}

// zones are those that were found, since each is a file to read.
var zones sync.Map

func findZone(name string) (*time.Location, error) {
	if known, ok := zones.Load(name); ok {
		return known.(*time.Location), nil
	}
	zone, err := time.LoadLocation(name)
	if err == nil {
		zones.Store(name, zone)
	}
	return zone, err
}

// ServesAt is when a cook is served; zero when that is not said, or cannot be read.
func ServesAt(c cook.Cook) time.Time {
	return parseServing(cook.Cook{ServeAt: c.ServeAt, Zone: c.Zone}).Value.At
}

// ownServingWithin is how far from the rest a piece can be eaten, and still be of the same cook-out.
const ownServingWithin = 4 * 24 * time.Hour

// parseOwnServing reads when a piece is eaten that is not eaten with the rest.
func parseOwnServing(p cook.Piece, rest Part[Serving], pointer string) (out Part[time.Time]) {
	if p.ServeAt == "" || !rest.OK() {
		return out
	}
	at, err := time.ParseInLocation(cook.TimeLayout, p.ServeAt, rest.Value.Zone)
	switch {
	case err != nil:
		out.Wrong.Add(pointer, "time.form", "typed", p.ServeAt)
	case !facts.CanBe(at):
		out.Wrong.Add(pointer, "time.year", "first", facts.FirstYear, "last", facts.LastYear)
	case !rest.Value.At.IsZero() && at.Sub(rest.Value.At).Abs() > ownServingWithin:
		out.Wrong.Add(pointer, "serving.own-far", "most", ownServingWithin)
	default:
		out.Value = at
	}
	return out
}

func parseServing(c cook.Cook) (out Part[Serving]) {
	zone, err := findZone(c.Zone)
	if err != nil || c.Zone == "Local" {
		out.Value.Zone = time.UTC
		out.Wrong.Add("/zone", "cook.zone", "typed", clip(c.Zone))
		return out
	}
	out.Value.Zone = zone
	if c.ServeAt == "" {
		return out
	}
	if out.Value.At, err = time.ParseInLocation(cook.TimeLayout, c.ServeAt, zone); err != nil {
		out.Value.At = time.Time{}
		out.Wrong.Add("/serve_at", "time.form", "typed", c.ServeAt)
	} else if !facts.CanBe(out.Value.At) {
		out.Value.At = time.Time{}
		out.Wrong.Add("/serve_at", "time.year", "first", facts.FirstYear, "last", facts.LastYear)
	}
	return out
}

// appetites are portions eaten for each one counted.
var appetites = map[string]float64{"light": 0.8, "usual": 1, "hearty": 1.25}

// childPortion is what a child eats of a portion. Field judgement.
const childPortion = 0.5

func parsePeople(c cook.Cook) (out Part[People]) {
	guests := count(&out.Wrong, "/guests", c.Guests, 0, maxGuests)
	children := count(&out.Wrong, "/children", c.Children, 0, maxGuests)
	leftovers := count(&out.Wrong, "/leftovers", c.Leftovers, 0, maxGuests)
	a, ok := appetites[or(c.Appetite, "usual")]
	if !ok {
		out.Wrong.Add("/appetite", "choice.unknown", "choices", cook.Appetites)
	}
	out.Value = People{
		guests,
		children,
		leftovers,
		(float64(guests)+childPortion*float64(children))*a + float64(leftovers),
	}
	return out
}

// count reads how many there are, within its bounds; 0 when it is not given or wrong.
func count(wrong *field.Errors, pointer string, typed quantity.Count, low, high int) int {
	n, err := typed.Parse()
	if wrong.Take(pointer, err) {
		return 0
	}
	if typed != "" && (n < low || n > high) {
		wrong.Add(pointer, "number.range", "low", low, "high", high)
		return 0
	}
	return n
}

func parseBase(c cook.Cook) (out Part[Base]) {
	var err error
	b := &out.Value
	if b.Portion, err = quantity.ParseMass(or(c.Portion, cook.UsualPortion)); !out.Wrong.Take("/portion", err) &&
		(b.Portion < 0.02 || b.Portion > 2) {
		out.Wrong.Add("/portion", "mass.range", "low", quantity.Mass(0.02), "high", quantity.Mass(2))
	}
	temperature := func(pointer, typed, usual string, low, high quantity.Celsius) quantity.Celsius {
		t, err := quantity.ParseTemperatureWithin(or(typed, usual), low, high)
		if !out.Wrong.Take(pointer, err) && (t < low || t > high) {
			out.Wrong.Add(pointer, "temperature.range", "low", low, "high", high)
		}
		return t
	}
	b.Fridge = temperature("/fridge", c.Fridge, cook.UsualFridge, -2, 15)
	b.Room = temperature("/room", c.Room, cook.UsualRoom, -30, 50)
	return out
}

func parseSetting(c cook.Cook) (out Part[Setting]) {
	var err error
	s := &out.Value
	s.Quiet, err = plan.ParseQuiet(or(c.Quiet, cook.UsualQuiet))
	out.Wrong.Take("/quiet", err)
	s.Hands = max(1, count(&out.Wrong, "/hands", c.Hands, 1, maxHands))
	if c.Plan != "" && !slices.Contains(plan.Kinds, plan.Kind(c.Plan)) {
		out.Wrong.Add("/plan", "choice.unknown", "choices", []string{"same-day", "overnight", "ahead"})
	}
	if len(c.Pits) > MaxPits {
		out.Wrong.Add("/pits", "list.too-long", "most", MaxPits)
		return out
	}
	for i, t := range c.Pits {
		at := "/pits/" + strconv.Itoa(i)
		p, wrong := parsePit(t)
		out.Wrong.Put(at, wrong)
		s.Pits = append(s.Pits, p)
	}
	if len(s.Pits) == 0 {
		s.Pits = []plan.Pit{plan.UnknownPit()}
	}
	return out
}

// parsePit reads a pit. Mistakes come back with pointers into t.
func parsePit(t cook.Pit) (plan.Pit, field.Errors) {
	var errs field.Errors
	kind, ok := gear.FindPit(t.Kind)
	if !ok {
		errs.Add("/kind", "pit.kind")
	}
	errs.Text("/name", t.Name, cook.MaxText)
	p := plan.Pit{Pit: kind, Name: or(t.Name, kind.Name), Room: kind.RoomDM2}
	if strings.TrimSpace(t.Room) != "" {
		var err error
		p.Room, err = quantity.ParseArea(t.Room)
		if !errs.Take("/room", err) && (p.Room < 2 || p.Room > 1000) {
			errs.Add("/room", "pit.room", "low", 2.0, "high", 1000.0)
		}
	}
	return p, errs
}

// CheckPit returns what keeps a pit from being put on record, with pointers into t.
func CheckPit(t cook.Pit) field.Errors {
	_, errs := parsePit(t)
	if strings.TrimSpace(t.Name) == "" {
		errs.Add("/name", "pit.name")
	}
	return errs
}

// parseSets reads what the pits are set to over the day. A list with a mistake is none, so that
// the plan stays while it is typed.
func parseSets(c cook.Cook) (out Part[[][]when.Set]) {
	out.Value = make([][]when.Set, max(1, len(c.Pits)))
	for i, t := range c.Pits {
		sets, err := when.ParseSets(t.Sets)
		if !out.Wrong.Take("/pits/"+strconv.Itoa(i)+"/sets", err) {
			out.Value[i] = sets
		}
	}
	return out
}

// severalWoods is the answer on wood with which they are told in parts.
const severalWoods = "mixed"

// parseWeather reads the weather over the day. What has a mistake is none, so that the plan stays while it is typed.
func parseWeather(c cook.Cook) (out Part[[]weather.Spell]) {
	var err error
	if out.Value, err = weather.Parse(c.Weather); out.Wrong.Take("/weather", err) {
		out.Value = nil
	}
	return out
}

// parseProbe reads what a probe shows in ice water, where it should be 0 °C.
func parseProbe(c cook.Cook) (out Part[quantity.Celsius]) {
	const off = 10 // by more it is broken
	if strings.TrimSpace(c.Probe) == "" {
		return out
	}
	var err error
	if out.Value, err = quantity.ParseTemperatureWithin(c.Probe, -off, off); !out.Wrong.Take("/probe", err) &&
		(out.Value < -off || out.Value > off) {
		out.Wrong.Add("/probe", "temperature.range", "low", quantity.Celsius(-off), "high", quantity.Celsius(off))
	}
	return out
}

func parseWishes(c cook.Cook, zone *time.Location) (out Part[[]plan.Mark]) {
	if len(c.Wishes) > maxWishes {
		out.Wrong.Add("/wishes", "list.too-long", "most", maxWishes)
		return out
	}
	for i, w := range c.Wishes {
		at := "/wishes/" + strconv.Itoa(i)
		if !slices.Contains(plan.Fixable, w.Stage) {
			out.Wrong.Add(at+"/stage", "choice.unknown", "choices", plan.Fixable)
		}
		when, err := time.ParseInLocation(cook.TimeLayout, w.At, zone)
		switch {
		case err != nil:
			out.Wrong.Add(at+"/at", "time.form", "typed", w.At)
		case !facts.CanBe(when):
			out.Wrong.Add(at+"/at", "time.year", "first", facts.FirstYear, "last", facts.LastYear)
		}
		out.Value = append(out.Value, plan.Mark{Key: w.Piece, Stage: w.Stage, At: when})
	}
	return out
}

// reader reads the lines of a page.
type reader struct {
	kitchen kitchen.Kitchen
	spoons  quantity.SpoonSet
	base    Part[Base]
	sets    [][]when.Set // of each pit
	at      string       // pointer of the line
	shared  quantity.Celsius
}

// said reads amounts in the kitchen and the spoons of the page.
func (r reader) amounts() amounts.Reader { return amounts.Reader{Kitchen: r.kitchen, Spoons: r.spoons} }

// blend mixes a formula of the page. One that does not say whose spoons it means is
// written in those of the page.
func (r reader) blend(f formula.Formula) (formula.Mix, field.Errors) {
	if f.Spoons == "" {
		f.Spoons = r.spoons
	}
	return formula.Blend(f, r.kitchen)
}

// rubMix is the mix of a rub. One without rows is no rub, which is no mistake.
func (r reader) rubMix(f formula.Formula) (formula.Mix, field.Errors) {
	if len(f.Rows) == 0 {
		return formula.Mix{}, nil
	}
	return r.blend(f)
}

// clip shortens what was typed for a message.
func clip(s string) string {
	if r := []rune(s); len(r) > 40 {
		return string(r[:40])
	}
	return s
}

func (r reader) line(p cook.Piece) Line {
	l := Line{Key: p.Key, Typed: p, Shared: r.shared, Meat: r.meat(p), Notes: r.notes(p)}
	mix, wrong := r.rubMix(p.Season.Formula)
	l.Salting = r.salting(p, mix, len(wrong) == 0)
	if p.Choices[decision.Wood.String()] == severalWoods {
		var err error
		l.Woods.Value, err = gear.ParseWoods(or(p.Fire.Wood, cook.UsualWoods))
		l.Woods.Wrong.Take(r.at+"/fire/wood", err)
	}
	if guess := strings.TrimSpace(p.Fire.Guess); guess != "" {
		var err error
		l.Guess.Value, err = amounts.Guess(guess, l.Meat.Value.Green.Mid)
		l.Guess.Wrong.Take(r.at+"/fire/guess", err)
	}
	known := l.Meat.Value.Cut.ID != ""
	if known {
		l.Answers = r.answers(p, l.Meat.Value.Cut)
		var wrongs field.Errors
		l.Whens, wrongs = r.whens(p, l.Answers.Value)
		own := r.own(p, l)
		for _, m := range own {
			if m.OK() {
				l.Own = append(l.Own, m.Value)
			}
		}
		l.Moves = append(r.moves(p, &l, r.rub(p, mix, wrong, l.Meat)), own...)
		if len(wrongs) > 0 {
			l.Moves = append(l.Moves, Part[Move]{Value: Move{Kind: Off}, Wrong: wrongs})
		}
	}
	return l
}

func (r reader) notes(p cook.Piece) (out Part[Notes]) {
	for _, text := range []struct {
		pointer, typed string
		most           int
	}{{"/label", p.Label, cook.MaxText}, {"/key", p.Key, maxKey}, {"/trim_note", p.TrimNote, maxNote}} {
		out.Wrong.Text(r.at+text.pointer, text.typed, text.most)
	}
	if p.Grain != "" {
		v, err := quantity.ParseParts(strings.TrimSuffix(strings.TrimSpace(p.Grain), "°"))
		switch {
		case out.Wrong.Take(r.at+"/grain", err):
		case v >= 180:
			out.Wrong.Add(r.at+"/grain", "piece.grain")
		default:
			out.Value.Marked, out.Value.Grain = true, quantity.Number(v)
		}
	}
	slices.SortFunc(out.Wrong, func(a, b field.Error) int { return strings.Compare(a.Pointer, b.Pointer) })
	return out
}
