package order_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/kitchen"

	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/starter"
	"verjuice/internal/testclock"
)

// wrongAt are the pointers of a page's mistakes.
func wrongAt(c cook.Cook) []string {
	out := []string{}
	for _, e := range order.Parse(c, kitchen.Kitchen{}).Wrong() {
		out = append(out, e.Pointer)
	}
	return out
}

// Each field takes what a cook would type there, in whatever units, and refuses the rest at its
// place and nowhere else.
func TestEachFieldByItself(t *testing.T) {
	for pointer, one := range map[string]struct {
		set         func(c *cook.Cook, text string)
		right, kept []string // kept: strange, but no mistake
		wrong       []string
	}{
		"/guests": {func(c *cook.Cook, s string) { c.Guests = quantity.Count(s) },
			[]string{"1", "36", " 8 "}, nil, []string{"12.5", "-3", "many", "99999", "1e3"}},
		"/children": {func(c *cook.Cook, s string) { c.Children = quantity.Count(s) }, []string{"", "0", "4"},
			nil, []string{"two", "-1", "3,5"}},
		"/hands": {func(c *cook.Cook, s string) { c.Hands = quantity.Count(s) }, []string{"", "1", "3"},
			nil, []string{"0", "99", "two"}},
		"/portion": {func(c *cook.Cook, s string) { c.Portion = s },
			[]string{"", "180 g", "6 oz", "1/2 lb", "0,2 kg"}, nil, []string{"big", "5 kg", "1 g", "-1 g", "180"}},
		"/fridge": {func(c *cook.Cook, s string) { c.Fridge = s }, []string{"", "4 °C", "40F", "3,5 °C"},
			nil, []string{"cold", "-50 °C", "90 °C"}},
		"/room": {func(c *cook.Cook, s string) { c.Room = s }, []string{"", "21 °C", "70F"}, nil,
			[]string{"warm", "200 °C"}},
		"/quiet": {func(c *cook.Cook, s string) { c.Quiet = s },
			[]string{"", "23:00-06:00", "22-5", "none"}, nil, []string{"night", "25:00-06:00", "6-6"}},
		"/appetite": {func(c *cook.Cook, s string) { c.Appetite = s }, []string{"", "light", "hearty"}, nil,
			[]string{"huge"}},
		"/zone": {func(c *cook.Cook, s string) { c.Zone = s }, []string{"", "Europe/Dublin", "UTC"}, nil,
			[]string{"Dublin", "Local", "+02:00"}},
		"/serve_at": {func(c *cook.Cook, s string) { c.ServeAt = s }, []string{"", "2027-03-28T18:30"}, nil,
			[]string{"Saturday", "2027-13-01T00:00", "0026-01-01T00:00", "2027-03-28 18:30"}},
		"/probe": {func(c *cook.Cook, s string) { c.Probe = s }, []string{"", "1.5 °C", "-1 °C", "34 °F"},
			nil, []string{"off", "30 °C", "1.5"}},
		"/weather": {func(c *cook.Cook, s string) { c.Weather = s },
			[]string{"", "cold and windy until noon, then rain", "3 °C, 20 km/h wind"}, nil, []string{"lovely",
				"rain from Friday"}},
		"/pieces/0/fire/wood": {func(c *cook.Cook, s string) {
			c.Pieces[0].Fire.Wood, c.Pieces[0].Choices = s, map[string]string{"wood": "mixed"}
		}, []string{"", "2 oak, 1 cherry", "oak"}, nil, []string{"plastic", "0 oak"}},
		"/pieces/0/count": {func(c *cook.Cook, s string) { c.Pieces[0].Count = quantity.Count(s) },
			[]string{"", "1", "12"}, nil, []string{"0", "-2", "some", "5000", "1.5"}},
		"/pieces/0/trimmed": {func(c *cook.Cook, s string) { c.Pieces[0].Trimmed = s },
			[]string{"3.6 kg", "8 lb", "8 lb 6 oz", "3600 g", "3,6 kg"}, nil,
			[]string{"heavy", "-1 kg", "0 kg", "1 cup", "9999 kg"}},
		"/pieces/0/thickness": {func(c *cook.Cook, s string) { c.Pieces[0].Thickness = s },
			[]string{"", "140 mm", "14 cm", "5.5 in"}, nil, []string{"thick", "3 m", "1 mm", "-5 mm"}},
		"/pieces/0/trim_style": {func(c *cook.Cook, s string) { c.Pieces[0].TrimStyle = s },
			[]string{"", "light", "close"}, nil, []string{"bald"}},
		"/pieces/0/grain": {func(c *cook.Cook, s string) { c.Pieces[0].Grain = s },
			[]string{"", "20", "179", "45°"}, nil, []string{"180", "across", "-10"}},
		"/pieces/0/season/target": {func(c *cook.Cook, s string) {
			c.Pieces[0].Season.Mode,
				c.Pieces[0].Season.Target = "target", s
		}, []string{"", "0.9 %", "1,1", "0.9%"}, nil,
			[]string{"salty", "-1 %", "50 %"}},
		"/pieces/0/season/coat": {func(c *cook.Cook, s string) { c.Pieces[0].Season.Coat = s },
			[]string{"", "light", "crust"}, nil, []string{"thin"}},
		"/pieces/0/season/spare": {func(c *cook.Cook, s string) { c.Pieces[0].Season.Spare = s },
			[]string{"", "10 %", "0"}, nil, []string{"plenty", "-5 %", "900 %"}},
		"/pieces/0/wait/for": {func(c *cook.Cook, s string) { c.Pieces[0].Wait.For = s },
			[]string{"", "12 h", "90 min", "1h30", "2 d"}, nil, []string{"long", "-1 h", "30 d", "8"}},
		"/pieces/0/wait/style": {func(c *cook.Cook, s string) { c.Pieces[0].Wait.Style = s },
			[]string{"", "minutes", "day"}, nil, []string{"week"}},
		"/pieces/0/fire/pit": {func(c *cook.Cook, s string) { c.Pieces[0].Fire.Pit = s },
			[]string{"", "120 °C", "250F", "107 °C", "28 °C", "300 °C"}, nil, []string{"hot", "5 °C", "900 °C"}},
		"/pieces/0/fire/done": {func(c *cook.Cook, s string) { c.Pieces[0].Fire.Done = s },
			[]string{"", "95 °C", "203F"}, nil, []string{"soft", "0 °C", "300 °C"}},
		"/pieces/0/fire/time": {func(c *cook.Cook, s string) { c.Pieces[0].Fire.Time = s },
			[]string{"", "9 h", "9h30", "540 min"}, nil, []string{"a while", "9", "-9 h", "100 h"}},
		"/pieces/0/fire/rest": {func(c *cook.Cook, s string) { c.Pieces[0].Fire.Rest = s },
			[]string{"", "45 min", "2 h"}, nil, []string{"short", "48 h", "5"}},
		"/pieces/0/fire/temper": {func(c *cook.Cook, s string) { c.Pieces[0].Fire.Temper = s },
			[]string{"", "30 min", "1 h"}, nil, []string{"a bit", "30 h"}},
		"/pieces/0/fire/guess": {func(c *cook.Cook, s string) { c.Pieces[0].Fire.Guess = s },
			[]string{"", "8 h", "1 h/lb", "90 min a pound", "45 min/kg"}, nil,
			[]string{"soon", "8", "500 h", "1 h/banana", "/lb"}},
		"/pieces/0/choices/wrap": {func(c *cook.Cook, s string) { c.Pieces[0].Choices = map[string]string{"wrap": s} },
			[]string{"", "foil", "none"}, nil, []string{"silk", "FOIL"}},
		"/pieces/0/choices/lid": {func(c *cook.Cook, s string) { c.Pieces[0].Choices = map[string]string{"lid": s} },
			[]string{"", "shut", "60"}, nil, []string{"often", "45"}},
		"/pieces/0/choices/vent": {func(c *cook.Cook, s string) { c.Pieces[0].Choices = map[string]string{"vent": s} },
			[]string{"", "0", "15"}, nil, []string{"60"}},
	} {
		fresh := func() cook.Cook {
			p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
			p.Key = "one"
			return anycook.Supper(p)
		}
		for _, text := range one.right {
			c := fresh()
			one.set(&c, text)
			assert.Empty(t, wrongAt(c), "%s takes %q", pointer, text)
		}
		for _, text := range one.wrong {
			c := fresh()
			one.set(&c, text)
			assert.Equal(t, []string{pointer}, slices.Compact(wrongAt(c)), "%s refuses %q", pointer, text)
		}
	}
}

// A mistake in one part leaves the others as they are: the order of a page with a bad fire has
// the same meat and salt as one with a good fire.
func TestAMistakeStaysWhereItIs(t *testing.T) {
	good := anycook.Supper(anycook.Coated("pork-shoulder-bone-in", "3.6 kg"))
	good.Pieces[0].Key = "one"
	bad := good
	bad.Pieces = slices.Clone(good.Pieces)
	bad.Pieces[0].Fire.Pit, bad.Portion = "hot", "big"
	a, b := order.Parse(good, kitchen.Kitchen{}), order.Parse(bad, kitchen.Kitchen{})
	assert.Equal(t, a.Lines[0].Meat, b.Lines[0].Meat)
	assert.Equal(t, a.Lines[0].Salting, b.Lines[0].Salting)
	assert.True(t, a.Base.OK() && !b.Base.OK())
	assert.True(t, a.Lines[0].Good(order.On) && !b.Lines[0].Good(order.On))
	assert.True(t, b.Lines[0].Good(order.Wait))
	assert.Len(t, b.Wrong(), 2)
}

// More of anything than a page takes is refused with its bound, and nothing is worked on.
func TestHowMuchAPageTakes(t *testing.T) {
	many := anycook.Supper()
	for i := range order.MaxPieces + 1 {
		p := anycook.Coated("chicken-leg", "300 g")
		p.Key = fmt.Sprint(i)
		many.Pieces = append(many.Pieces, p)
	}
	assert.NotEmpty(t, wrongAt(many))
	pits := anycook.Supper()
	for i := range order.MaxPits + 1 {
		pits.Pits = append(pits.Pits, cook.Pit{Name: fmt.Sprint(i), Kind: "kettle"})
	}
	assert.NotEmpty(t, wrongAt(pits))
	wishes := anycook.Supper()
	for range 500 {
		wishes.Wishes = append(wishes.Wishes, cook.Wish{Piece: "a", Stage: "salt", At: "2026-11-28T07:00"})
	}
	assert.Equal(t, []string{"/wishes"}, wrongAt(wishes))
	long := anycook.Supper(anycook.Coated("chicken-leg", "300 g"))
	long.Name = strings.Repeat("x", 10_000)
	long.Pieces[0].Label, long.Pieces[0].TrimNote = strings.Repeat("y", 10_000), strings.Repeat("z", 100_000)
	assert.Equal(t, []string{"/name", "/pieces/0/label", "/pieces/0/trim_note"}, wrongAt(long))
	layers := anycook.Supper(anycook.Coated("chicken-leg", "300 g"))
	layers.Pieces[0].Layers = make([]cook.Layer, 60)
	assert.Contains(t, wrongAt(layers), "/pieces/0/layers")
}

// What a guess by weight means: so much for each pound of the trimmed piece.
func TestAGuessByWeight(t *testing.T) {
	for typed, want := range map[string]time.Duration{"8 h": 8 * time.Hour, "1 h/lb": 8 * time.Hour,
		"1 h a pound": 8 * time.Hour, "90 min/lb": 12 * time.Hour, "1 h/kg": 217 * time.Minute} {
		p := anycook.Coated("pork-shoulder-bone-in", "8 lb")
		p.Fire.Guess = typed
		got := order.Parse(anycook.Supper(p), kitchen.Kitchen{}).Lines[0].Guess
		require.True(t, got.OK(), typed)
		assert.InDelta(t, want.Minutes(), got.Value.Minutes(), 1.5, typed)
	}
}

// Keys stay with their pieces whatever is typed; pieces that come without get one, the same
// each time, and no two share one.
func TestKeys(t *testing.T) {
	c := anycook.Supper(
		anycook.Coated("chicken-leg", "300 g"),
		anycook.Coated("chicken-leg", "300 g"),
		anycook.Coated("pork-loin", "2 kg"),
	)
	once, again := cook.Keyed(c), cook.Keyed(c)
	seen := map[string]bool{}
	for i, p := range once.Pieces {
		assert.NotEmpty(t, p.Key)
		assert.Equal(t, p.Key, again.Pieces[i].Key)
		assert.False(t, seen[p.Key], "no two share one")
		seen[p.Key] = true
	}
	assert.Empty(t, c.Pieces[0].Key, "the page itself is not changed")
	turned := c
	turned.Pieces = []cook.Piece{c.Pieces[2], c.Pieces[0], c.Pieces[1]}
	assert.Equal(t, once.Pieces[2].Key, cook.Keyed(turned).Pieces[0].Key, "the order plays no part")
}

// Without a pit, pieces on a later one keep theirs; without any, all are on the one that
// nothing is known of. A copy has no date and nothing fixed.
func TestPitsAndCopies(t *testing.T) {
	c := anycook.Supper(
		anycook.Coated("chicken-leg", "300 g"),
		anycook.Coated("pork-loin", "2 kg"),
		anycook.Coated("beef-tri-tip", "1 kg"),
	)
	c.Pits = []cook.Pit{{Name: "a", Kind: "kettle"}, {Name: "b", Kind: "pellet"}, {Name: "c", Kind: "offset"}}
	for i := range c.Pieces {
		c.Pieces[i].Fire.On = i
		c.Pieces[i].Key = fmt.Sprint(i)
	}
	for n := range c.Pits {
		less := starter.WithoutPit(c, n)
		require.Len(t, less.Pits, 2)
		assert.Empty(t, wrongAt(less), "nothing dangles")
		for i, p := range less.Pieces {
			if i != n {
				assert.Equal(t, c.Pits[c.Pieces[i].Fire.On].Name, less.Pits[p.Fire.On].Name, "piece %d keeps its pit", i)
			}
		}
		assert.Equal(
			t,
			[]int{0, 1, 2},
			[]int{c.Pieces[0].Fire.On, c.Pieces[1].Fire.On, c.Pieces[2].Fire.On},
			"the page itself is not changed",
		)
	}
	assert.Equal(t, c.Pits, starter.WithoutPit(c, 9).Pits)
	c.Wishes, c.Plan = []cook.Wish{{Piece: "0", Stage: "salt", At: "2026-11-28T07:00"}}, "overnight"
	copied := starter.Copy(c)
	assert.Empty(t, copied.ServeAt+copied.Plan)
	assert.Empty(t, copied.Wishes)
	assert.Equal(t, c.Pieces, copied.Pieces)
	assert.Equal(t, copied.Name, starter.Copy(copied).Name, "again and again is again")
}

// Every cut has a piece to begin with that has no mistake, in either units, and every answer
// that it has is one it takes.
func TestEveryCutBeginsWell(t *testing.T) {
	testclock.Undated(t)
	for _, c := range cut.All() {
		for _, units := range []quantity.System{quantity.Metric, quantity.US} {
			p := starter.NewPiece(c, units)
			p.Key = "one"
			page := cook.Cook{Name: "x", Guests: "8", Pieces: []cook.Piece{p}}
			require.Empty(t, wrongAt(page), "%s in %s", c.ID, units)
		}
		p := starter.NewPiece(c, quantity.Metric)
		p.Key = "one"
		answers := order.Parse(cook.Cook{Name: "x", Guests: "8", Pieces: []cook.Piece{p}},
			kitchen.Kitchen{}).Lines[0].Answers.Value
		for _, d := range answers.Offered() {
			assert.Contains(t, d.Of(c), answers.Chose(d.Key), "%s %s: the usual answer is one of them", c.ID, d.Key)
			for _, v := range d.Of(c) {
				changed := p
				changed.Choices = map[string]string{d.Key.String(): v}
				assert.Empty(
					t,
					wrongAt(cook.Cook{Name: "x", Guests: "8", Pieces: []cook.Piece{changed}}),
					"%s %s %s",
					c.ID,
					d.Key,
					v,
				)
			}
		}
	}
}

// The moves of a piece come in working order, whatever is on it.
func TestMovesInWorkingOrder(t *testing.T) {
	working := []order.MoveKind{
		order.Thaw,
		order.Brine,
		order.Inject,
		order.Season,
		order.Wait,
		order.Temper,
		order.On,
		order.Spritz,
		order.Wrap,
		order.Off,
		order.Rest,
		order.Slice,
	}
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Choices = map[string]string{"state": "frozen", "spritz": "45", "wrap": "foil"}
	p.Bath = &cook.Bath{Target: "0.5 %"}
	p.Inject = &cook.Injection{Formula: anycook.Bottle("stock", "stock"), Pump: "5 %"}
	p.Fire.Temper = "30 min"
	last := -1
	moves := order.Parse(anycook.Supper(p), kitchen.Kitchen{}).Lines[0].Sound()
	for _, m := range moves {
		at := slices.Index(working, m.Kind)
		require.GreaterOrEqual(t, at, last, "%s", m.Kind)
		last = at
	}
	for _, kind := range working {
		_, there := order.FindMove(moves, kind)
		assert.True(t, there, "%s", kind)
	}
	wrap, _ := order.FindMove(moves, order.Wrap)
	assert.Equal(t, quantity.Celsius(71), wrap.At.From.Core())
	spritz, _ := order.FindMove(moves, order.Spritz)
	assert.Equal(t, 45*time.Minute, spritz.At.Each)
	_, none := order.FindMove(moves, order.Glaze)
	assert.False(t, none)
	assert.Len(t, order.DosesOf(moves), 3)
}
