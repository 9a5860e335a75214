package order

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"verjuice/internal/anycook"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/quantity"
)

// What shares a pit at one meal and says nothing of its temperature has one that suits all of it: a bird and ribs
// 125 °C.
func TestOnePitHasOneTemperature(t *testing.T) {
	set := func(change func(c *cook.Cook)) []quantity.Celsius {
		bird, ribs := anycook.Coated("chicken-whole", "2 kg"), anycook.Coated("pork-spare-ribs", "1.5 kg")
		bird.Key, ribs.Key = "a", "b"
		c := anycook.Supper(bird, ribs)
		change(&c)
		var out []quantity.Celsius
		for i, one := range together(c) {
			if one == 0 {
				one = map[int]quantity.Celsius{0: 135, 1: 120}[i]
			}
			out = append(out, one)
		}
		return out
	}
	both := func(one, other quantity.Celsius) []quantity.Celsius { return []quantity.Celsius{one, other} }
	assert.Equal(t, both(125, 125), set(func(*cook.Cook) {}))
	assert.Equal(t, both(125, 120), set(func(c *cook.Cook) { c.Pieces[1].Fire.Pit = "125 °C" }), "it follows")
	assert.Equal(t, both(135, 120), set(func(c *cook.Cook) { c.Pieces[1].Fire.Pit = "105 °C" }), "too cool for a bird")
	assert.Equal(t, both(135, 120), set(func(c *cook.Cook) { c.Pieces[0].Fire.On = 1 }), "on two pits")
	assert.Equal(t, both(135, 120), set(func(c *cook.Cook) { c.Pieces[0].ServeAt = "2026-01-01T12:00" }), "at two meals")
	assert.Equal(t, both(135, 120), set(func(c *cook.Cook) { c.Pits = []cook.Pit{{Sets: "120 °C, 135 °C after 2 h"}} }))
}
