package order_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/kitchen"

	"verjuice/internal/core/order"
	"verjuice/internal/core/when"
)

// shoulder is a shoulder with what do adds to it.
func shoulder(do func(c *cook.Cook, p *cook.Piece)) cook.Cook {
	c := anycook.Supper(anycook.Coated("pork-shoulder-bone-in", "3.6 kg"))
	c.Pieces[0].Choices = map[string]string{"wrap": "foil"}
	do(&c, &c.Pieces[0])
	return c
}

// What a cook adds to the stages is read at its place, and refused there in words: nothing is
// left out without a word.
func TestMovesOfTheCooksOwn(t *testing.T) {
	move := func(m cook.Move) func(c *cook.Cook, p *cook.Piece) {
		return func(_ *cook.Cook, p *cook.Piece) { p.Moves = append(p.Moves, m) }
	}
	juice := anycook.Bottle("juice", "apple-juice")
	for name, one := range map[string]struct {
		do    func(c *cook.Cook, p *cook.Piece)
		wrong []string
	}{
		"a rhythm":      {move(cook.Move{What: "baste", When: "every 1 h from bark set until the wrap"}), nil},
		"a dose":        {move(cook.Move{What: "mop", When: "after 3 h", Formula: &juice, Amount: "60 mL"}), nil},
		"turned once":   {move(cook.Move{What: "turn", When: "60 °C"}), nil},
		"in words":      {move(cook.Move{What: "other", When: "2 h before serving", With: "lay the table"}), nil},
		"a second wrap": {move(cook.Move{What: "wrap", When: "85 °C", With: "foil"}), nil},
		"unwrapped":     {move(cook.Move{What: "unwrap", When: "88 °C"}), nil},
		"no such move":  {move(cook.Move{What: "juggle", When: "after 3 h"}), []string{"/pieces/0/moves/0/what"}},
		"no moment":     {move(cook.Move{What: "turn"}), []string{"/pieces/0/moves/0/when"}},
		"no words":      {move(cook.Move{What: "other", When: "after 3 h"}), []string{"/pieces/0/moves/0/with"}},
		"no such wrap": {move(cook.Move{What: "wrap", When: "85 °C", With: "silk"}),
			[]string{"/pieces/0/moves/0/with"}},
		"wrapped again and again": {move(cook.Move{What: "wrap", When: "every 1 h", With: "foil"}),
			[]string{"/pieces/0/moves/0/when"}},
		"no amount told": {move(cook.Move{What: "baste", When: "after 3 h", Formula: &juice}), nil},
		"no amount": {move(cook.Move{What: "baste", When: "after 3 h", Formula: &juice, Amount: "lots"}),
			[]string{"/pieces/0/moves/0/amount"}},
		"a dose of nothing": {move(cook.Move{What: "turn", When: "after 3 h", Formula: &juice, Amount: "60 mL"}),
			[]string{"/pieces/0/moves/0/formula"}},
		"bare, and unwrapped": {func(_ *cook.Cook, p *cook.Piece) {
			p.Choices = map[string]string{"wrap": "none"}
			p.Moves = []cook.Move{{What: "unwrap", When: "88 °C"}, {What: "turn", When: "1 h after the wrap"}}
		}, []string{"/pieces/0/moves/0/what", "/pieces/0/moves/1/when"}},
		"when of no wrap": {func(_ *cook.Cook, p *cook.Piece) {
			p.Choices, p.When = map[string]string{"wrap": "none"}, map[string]string{"wrap": "71 °C or 8 h"}
		}, []string{"/pieces/0/when/wrap"}},
		"said twice": {func(_ *cook.Cook, p *cook.Piece) {
			p.Choices, p.When = map[string]string{"wrap": "foil", "wrap-at": "66", "spritz": "45"},
				map[string]string{"wrap": "71 °C", "spritz": "every 1 h", "off": "95 °C"}
			p.Fire.Done = "93 °C"
		}, []string{"/pieces/0/when/off", "/pieces/0/when/spritz", "/pieces/0/when/wrap"}},
		"two rests": {func(_ *cook.Cook, p *cook.Piece) {
			p.Fire.Rest = "10 min vented, 30 min counter, 3 h cooler, 40 min travel"
		}, nil},
		"a rest somewhere": {func(_ *cook.Cook, p *cook.Piece) { p.Fire.Rest = "30 min counter, 2 h nowhere" },
			[]string{"/pieces/0/fire/rest"}},
		"a rest twice": {func(_ *cook.Cook, p *cook.Piece) {
			p.Fire.Rest, p.Choices["rest"] = "30 min counter, 3 h cooler", "holder"
		}, []string{"/pieces/0/fire/rest"}},
		"a pit's list": {func(c *cook.Cook, _ *cook.Piece) {
			c.Pits = []cook.Pit{{Name: "one", Kind: "pellet", Sets: "107 °C from 23:00, 135 °C from 07:00, 150 °C once wrapped"}}
		}, nil},
		"a pit's list, and another": {func(c *cook.Cook, p *cook.Piece) {
			c.Pits, p.Fire.Pit = []cook.Pit{{Name: "one", Kind: "pellet", Sets: "107 °C, 135 °C after 8 h"}}, "120 °C"
		}, []string{"/pieces/0/fire/pit"}},
		"a pit by a core": {func(c *cook.Cook, _ *cook.Piece) {
			c.Pits = []cook.Pit{{Name: "one", Kind: "pellet", Sets: "107 °C, 135 °C at 71 °C"}}
		}, []string{"/pits/0/sets"}},
		"a pit without a when": {func(c *cook.Cook, _ *cook.Piece) {
			c.Pits = []cook.Pit{{Name: "one", Kind: "pellet", Sets: "107 °C, 135 °C"}}
		}, []string{"/pits/0/sets"}},
		"cold smoke": {func(c *cook.Cook, p *cook.Piece) { p.Fire.Pit = "25 °C" }, nil},
	} {
		wrong := wrongAt(shoulder(one.do))
		if len(one.wrong) == 0 {
			assert.Empty(t, wrong, name)
		} else {
			assert.Equal(t, one.wrong, wrong, name)
		}
	}
}

// What was typed is what is done: moments, doses, rests, and what the pit is set to.
func TestAMethodIsReadWhole(t *testing.T) {
	juice := anycook.Bottle("juice", "apple-juice")
	o := order.Parse(shoulder(func(c *cook.Cook, p *cook.Piece) {
		c.Pits = []cook.Pit{{Name: "one", Kind: "pellet", Sets: "107 °C from 23:00, 135 °C once wrapped"}}
		p.When = map[string]string{
			"wrap":   "71 °C or colour",
			"off":    "95 °C and soft",
			"spritz": "every 45 min from bark set until the wrap",
		}
		p.Moves = []cook.Move{{Key: "m", What: "mop", When: "after 3 h", Formula: &juice, Amount: "60 mL"}}
		p.Fire.Rest = "10 min vented, 30 min counter, 3 h cooler, 40 min travel"
	}), kitchen.Kitchen{})
	require.Empty(t, o.Wrong())
	l := o.Lines[0]
	of := func(k order.MoveKind) order.Move {
		m, ok := order.FindMove(l.Sound(), k)
		require.True(t, ok, k)
		return m
	}
	assert.Equal(t, when.When{First: when.Cond{CoreC: 71}, Second: when.Cond{Sign: when.Colour}}, of(order.Wrap).At.From)
	assert.True(t, of(order.Off).At.From.Both)
	assert.Equal(t, 45*time.Minute, of(order.Spritz).At.Each)
	assert.NotNil(t, of("mop").Dose)
	assert.Equal(t, 4*time.Hour+20*time.Minute, of(order.Rest).Lasts)
	assert.Equal(t, "cooler", of(order.Rest).With)
	assert.Equal(t, 10*time.Minute, l.Rests.Vent)
	assert.Equal(t, 40*time.Minute, l.Rests.Travel)
	assert.Len(t, l.Rests.First, 1)
	assert.Equal(
		t,
		[]when.Set{{C: 107, At: when.Cond{Clock: "23:00"}}, {C: 135, At: when.Cond{Of: "wrap"}}},
		o.Sets.Value[0],
	)
	assert.EqualValues(t, 107, of(order.On).Set)
}
