package weather

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/heat"
)

func TestWeatherAsCooksSayIt(t *testing.T) {
	air := func(c, wind float64, rain bool) heat.Ambient { return heat.Ambient{AirC: c, Wind: wind, Rain: rain} }
	at := func(from string, a heat.Ambient) Spell { return Spell{From: from, Ambient: a} }
	mild := at("", air(15, 0, false))
	for typed, want := range map[string][]Spell{
		"":                 nil,
		"mild":             {mild},
		"sunny":            {mild},
		"cold and windy":   {at("", air(0, 8, false))},
		"cold, windy":      {at("", air(0, 8, false))},
		"snow and wind":    {at("", air(-1, 8, true))},
		"3 °C, wind":       {at("", air(3, 8, false))},
		"-5 C snow":        {at("", air(-5, 3, true))},
		"20 km/h wind":     {at("", air(10, 20/3.6, false))},
		"warm and windy":   {at("", air(22, 8, false))},
		"cold and still":   {at("", air(0, 0, false))},
		"68 °F":            {at("", air(20, 0, false))},
		"snow from 14:00":  {mild, at("14:00", air(-1, 3, true))},
		"Rain after 2 pm.": {mild, at("14:00", air(8, 3, true))},
		// What ends does not go on; what does not end does.
		"cold and windy until noon, then rain": {at("", air(0, 8, false)), at("12:00", air(8, 3, true))},
		"cold, rain from 14:00":                {at("", air(0, 3, false)), at("14:00", air(8, 3, true))},
		"rain, sun and wind from noon":         {at("", air(8, 3, true)), at("12:00", air(8, 8, false))},
		"cold until 10, then mild and dry":     {at("", air(0, 3, false)), at("10:00", air(15, 0, false))},
		"windy from 6 pm until 22:00":          {mild, at("18:00", air(10, 8, false)), at("22:00", air(15, 0, false))},
		"cold in the morning, sun from noon":   {mild, at("06:00", air(0, 3, false)), at("12:00", air(0, 3, false))},
		"frost overnight then windy from 8":    {mild, at("22:00", air(-8, 3, false)), at("08:00", air(-8, 8, false))},
	} {
		got, err := Parse(typed)
		require.NoError(t, err, typed)
		require.Len(t, got, len(want), typed)
		for i := range want {
			assert.Equal(t, want[i].From, got[i].From, typed)
			assert.InDelta(t, want[i].AirC, got[i].AirC, 1e-9, typed)
			assert.InDelta(t, want[i].Wind, got[i].Wind, 1e-9, typed)
			assert.Equal(t, want[i].Rain, got[i].Rain, typed)
			assert.GreaterOrEqual(t, got[i].Fuel, 1.0, typed)
		}
	}
	for _, typed := range []string{"nice", "rain from Tuesday", "600 km/h wind", "90 °C", "cold until the stall"} {
		_, err := Parse(typed)
		assert.Error(t, err, typed)
	}
}

// A time of day is the one nearest to when the piece goes on: what began in the evening is there already.
func TestWeatherInHours(t *testing.T) {
	on := time.Date(2026, 11, 27, 22, 0, 0, 0, time.UTC)
	for typed, want := range map[string][]float64{
		"cold":                                {0},
		"cold from 18:00":                     {0},
		"rain from 06:00":                     {0, 8},
		"snow until noon":                     {0, 14},
		"cold from 20:00, wind from 02:00":    {0, 4},
		"rain from 23:00 until 01:00":         {0, 1, 3},
		"cold until 06:00, wind until 10:00.": {0, 8, 12},
	} {
		spells, err := Parse(typed)
		require.NoError(t, err, typed)
		var hours []float64
		for _, s := range From(spells, on) {
			hours = append(hours, s.AtH)
		}
		assert.Equal(t, want, hours, typed)
	}
	spells, err := Parse("cold from 18:00")
	require.NoError(t, err)
	assert.Zero(t, From(spells, on)[0].AirC)
	assert.InDelta(t, 1.25, Worst(spells).Fuel, 0.001)
	assert.Equal(t, "cold", Worst(spells).Kind)
}

// A choice is what its word says, and takes as much fuel as it always did.
func TestChoicesAreWords(t *testing.T) {
	for choice, want := range map[string]Spell{
		"":      {Ambient: heat.Ambient{AirC: heat.Mild}, Kind: "mild", Fuel: 1},
		"mild":  {Ambient: heat.Ambient{AirC: heat.Mild}, Kind: "mild", Fuel: 1},
		"cold":  {Ambient: heat.Ambient{AirC: 0, Wind: 3}, Kind: "cold", Fuel: 1.25},
		"windy": {Ambient: heat.Ambient{AirC: 10, Wind: 8}, Kind: "windy", Fuel: 1.5},
		"wet":   {Ambient: heat.Ambient{AirC: 8, Wind: 3, Rain: true}, Kind: "wet", Fuel: 1.4},
	} {
		got := Of(choice)
		assert.InDelta(t, want.Fuel, got.Fuel, 1e-9, choice)
		got.Fuel = want.Fuel
		assert.Equal(t, want, got, choice)
	}
}
