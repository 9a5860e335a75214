package sheet

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

// A moment is said so that it can be typed again, and means the same, in either unit.
func TestMomentsAreSaidAsTheyAreRead(t *testing.T) {
	for _, typed := range []string{
		"71 °C", "after 4 h", "71 °C or 8 h", "95 °C and soft", "bark set", "surface dry", "colour", "07:00",
		"30 min before serving", "20 min after the wrap", "right after it is off", "15 min before it is off",
		"after 4 to 5 h", "60–90 min after the wrap", "after 2.5 to 3 h", "70–75 °C", "20 to 30 min before serving",
	} {
		want, err := when.Parse(typed)
		require.NoError(t, err)
		for _, units := range []quantity.System{quantity.Metric, quantity.US} {
			said := writer{Reader: Reader{Units: units}}.waited(want)
			again, err := when.Parse(said)
			require.NoError(t, err, said)
			assert.InDelta(t, float64(want.Core()), float64(again.Core()), 0.5, said)
			assert.InDelta(t, float64(want.First.OffC), float64(again.First.OffC), 0.5, said)
			same := func(c when.Cond) when.Cond { c.CoreC, c.OffC = 0, 0; return c }
			assert.Equal(t, want.Each(same), again.Each(same), said)
		}
	}
	e := when.Every{
		Each:  45 * time.Minute,
		From:  when.At(when.Cond{Sign: when.Bark}),
		Until: when.At(when.Cond{Of: "wrap"}),
	}
	assert.Equal(t, "every 45 min once the bark is set, until the wrap", writer{}.every(e))
	again, err := when.ParseEvery(writer{}.every(e))
	require.NoError(t, err)
	assert.Equal(t, e, again)
}

// What is offered to be typed can be typed, in either unit, and adds no mistake to a page.
func TestWhatIsOfferedCanBeTyped(t *testing.T) {
	for _, units := range []quantity.System{quantity.Metric, quantity.US} {
		for _, text := range MomentExamples(units) {
			_, err := when.ParseEvery(text)
			assert.NoError(t, err, text)
		}
		for _, text := range PitExamples(units) {
			sets, err := when.ParseSets(text)
			assert.NoError(t, err, text)
			assert.Len(t, sets, 2, text)
		}
		for _, one := range MoveChoices(units) {
			p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
			p.Choices = map[string]string{"wrap": "foil"}
			p.Moves = append(p.Moves, anycook.Own(one.What, one.When))
			p.Moves[0].With = one.With
			page(t, anycook.Supper(p), Reader{Units: units})
		}
	}
}

// The list of moves is whole and in order, says what a probe that is off will show, and what
// never comes.
func TestTheListOfMoves(t *testing.T) {
	p := anycook.Coated("pork-shoulder-bone-in", "3.6 kg")
	p.Choices = map[string]string{"wrap": "foil", "state": "frozen"}
	p.Fire.Temper, p.Fire.Rest = "30 min", "10 min vented, 30 min counter, 2 h cooler, 30 min travel"
	c := anycook.Supper(p)
	c.Probe = "2 °C"
	c.Pits = []cook.Pit{{Name: "Cabinet", Kind: "pellet", Sets: "110 °C, 115 °C once wrapped, 140 °C after 30 h"}}
	c.Pieces[0].Moves = append(c.Pieces[0].Moves, anycook.Own("turn", "after 2 h"), anycook.Own("look", "after 30 h"))
	s := page(t, c, Reader{})
	labels, last := []string{}, ""
	for _, l := range s.Pieces[0].Moves {
		labels = append(labels, l.Label)
		if l.What == "off" || l.What == "wrap" {
			assert.Contains(t, l.When, "your probe will show", l.Label)
		}
		assert.Equal(t, l.What == "look" || l.When == "after 30 h", l.Never != "", l.Label)
		last = l.Label
	}
	assert.Equal(t, []string{"Thaw in the fridge", "Salt and season"}, labels[:2])
	for _, want := range []string{"Turn it", "Wrap in foil", "Off the fire", "Open it and let it steam off",
		"Rest on the counter", "Rest in a dry cooler", "Travel"} {
		assert.Contains(t, labels, want)
	}
	assert.Contains(t, []string{"Pull it", "Look at it"}, last)
}
