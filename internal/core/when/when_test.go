package when_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/when"
)

var (
	at71  = when.Cond{CoreC: 71}
	h8    = when.Cond{After: 8 * time.Hour}
	bark  = when.Cond{Sign: when.Bark}
	wraps = when.Cond{Of: "wrap"}
)

// Moments are read as cooks say them.
func TestMomentsAsCooksSayThem(t *testing.T) {
	for typed, want := range map[string]when.When{
		"71 °C":                     when.At(at71),
		"at 71 °C":                  when.At(at71),
		"when the core reads 71 °C": when.At(at71),
		"core 159.8F":               when.At(at71),
		"8 h":                       when.At(h8),
		"after 8 h":                 when.At(h8),
		"8 hours in":                when.At(h8),
		"after 8 h on the fire":     when.At(h8),
		"71 °C or 8 h":              {First: at71, Second: h8},
		"at 71 °C or after 8 h, whichever is first": {First: at71, Second: h8},
		"71 °C or when the colour is right":         {First: at71, Second: when.Cond{Sign: when.Colour}},
		"95 °C and soft": {First: when.Cond{CoreC: 95}, Second: when.Cond{Sign: when.Soft},
			Both: true},
		"95 °C and probe soft": {First: when.Cond{CoreC: 95}, Second: when.Cond{Sign: when.Soft},
			Both: true},
		"bark set":                     when.At(bark),
		"once the bark is set":         when.At(bark),
		"the bark doesn’t scratch off": when.At(bark),
		"when the surface is dry":      when.At(when.Cond{Sign: when.Surface}),
		"color":                        when.At(when.Cond{Sign: when.Colour}),
		"07:00":                        when.At(when.Cond{Clock: "07:00"}),
		"at 7 am":                      when.At(when.Cond{Clock: "07:00"}),
		"11:30 pm":                     when.At(when.Cond{Clock: "23:30"}),
		"at the wrap":                  when.At(wraps),
		"after the wrap":               when.At(wraps),
		"once wrapped":                 when.At(wraps),
		"20 min after the wrap":        when.At(when.Cond{Of: "wrap", By: 20 * time.Minute}),
		"30 min before serving":        when.At(when.Cond{Of: "serve", By: -30 * time.Minute}),
		"15 min before it is off":      when.At(when.Cond{Of: "off", By: -15 * time.Minute}),
		"2 h after it goes on":         when.At(when.Cond{Of: "on", By: 2 * time.Hour}),
		"1h30":                         when.At(when.Cond{After: 90 * time.Minute}),
	} {
		got, err := when.Parse(typed)
		if assert.NoError(t, err, typed) {
			got = got.Each(func(c when.Cond) when.Cond {
				c.CoreC = quantity.Celsius(float64(int(float64(c.CoreC)*100+0.5)) / 100)
				return c
			})
			assert.Equal(t, want, got, typed)
			upper, err := when.Parse("  " + strings.ToUpper(typed[:1]) + typed[1:] + " ")
			assert.NoError(t, err)
			assert.Equal(t, got.Both, upper.Both)
		}
	}
	for typed, want := range map[string]when.Every{
		"every 45 min from bark set until the wrap": {Each: 45 * time.Minute, From: when.At(bark), Until: when.At(wraps)},
		"every 1 h":                 {Each: time.Hour, From: when.At(when.Cond{After: time.Hour})},
		"every hour from the start": {Each: time.Hour, From: when.At(when.Cond{Of: "on"})},
		"every 30 to 45 min until the wrap": {Each: 37*time.Minute + 30*time.Second,
			From: when.At(when.Cond{After: 37*time.Minute + 30*time.Second}), Until: when.At(wraps)},
		"every 30 min after 3 h": {Each: 30 * time.Minute, From: when.At(when.Cond{After: 3 * time.Hour})},
		"every hour until 71 °C": {Each: time.Hour, From: when.At(when.Cond{After: time.Hour}), Until: when.At(at71)},
		"every 45 min once bark set, until 71 °C or 8 h": {Each: 45 * time.Minute, From: when.At(bark),
			Until: when.When{First: at71, Second: h8}},
		"71 °C": {From: when.At(at71)},
	} {
		got, err := when.ParseEvery(typed)
		if assert.NoError(t, err, typed) {
			assert.Equal(t, want, got, typed)
		}
	}
}

// What cannot be read is refused with what is wrong, never taken for something else.
func TestMomentsThatAreNone(t *testing.T) {
	for typed, id := range map[string]string{
		"":                        "when.missing",
		" ":                       "when.missing",
		"later":                   "when.unreadable",
		"71":                      "quantity.celsius-or-fahrenheit",
		"71 kg":                   "when.unreadable",
		"300 °C":                  "temperature.range",
		"90 h":                    "duration.range",
		"71 °C or 8 h or bark":    "when.two-only",
		"71 °C and":               "when.unreadable",
		"25:00":                   "when.unreadable",
		"99 h before serving":     "duration.range",
		"0 h":                     "duration.range",
		"71 °C, 8 h":              "when.unreadable",
		"every 1 min":             "duration.range",
		"every blue moon":         "quantity.unreadable",
		"bark set until the wrap": "when.unreadable",
	} {
		_, err := when.ParseEvery(typed)
		var wrong field.Wrong
		if assert.True(t, errors.As(err, &wrong), typed) {
			assert.Equal(t, id, wrong.ID, typed)
		}
	}
}

// Either of two is the first of them, both is the last; one that needs a clock never comes by
// itself.
func TestWhetherItHasCome(t *testing.T) {
	early, late := when.Now{CoreC: 60, Hours: 9, Wrapped: -1}, when.Now{CoreC: 72, Hours: 3, Wrapped: -1}
	both := when.Now{CoreC: 72, Hours: 9, Bark: true, Wrapped: 0.5}
	either := when.When{First: at71, Second: h8}
	all := when.When{First: at71, Second: h8, Both: true}
	for _, n := range []when.Now{early, late, both} {
		assert.True(t, either.Met(n))
		assert.Equal(t, n == both, all.Met(n))
		assert.Equal(t, n.Bark, when.At(bark).Met(n))
		assert.False(t, when.At(when.Cond{Clock: "07:00"}).Met(n))
		assert.Equal(t, n == both, when.At(wraps).Met(n))
		assert.False(t, when.At(when.Cond{Of: "wrap", By: time.Hour}).Met(n))
		assert.False(t, when.At(when.Cond{Of: "off", By: -time.Minute}).Met(n))
		assert.True(t, when.At(when.Cond{Of: "on", By: 2 * time.Hour}).Met(n))
		assert.True(t, when.When{}.Met(n), "nothing is waited for")
	}
	assert.False(t, either.Met(when.Now{CoreC: 70, Hours: 7}))
	assert.Equal(t, quantity.Celsius(71), when.When{First: h8, Second: at71}.Core())
}

// Whatever is typed is read or refused, soon.
func FuzzMoments(f *testing.F) {
	for _, s := range []string{"71 °C or 8 h", "every 45 min from bark set until the wrap", "30 min before serving",
		"at at at", "every every"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, typed string) {
		e, err := when.ParseEvery(typed)
		if err == nil {
			require.GreaterOrEqual(t, e.Each, time.Duration(0))
			require.False(t, e.Each == 0 && e.From.None(), "%q is no moment", typed)
		}
	})
}

// How two conditions are read.
func ExampleParse() {
	w, err := when.Parse("71 °C or 8 h, whichever is first")
	fmt.Println(w.First.CoreC, w.Second.After, w.Both, err)
	// Output: 71 8h0m0s false <nil>
}

// A pit's list is read whole or refused; each of its temperatures is one that a pit can have.
func FuzzSets(f *testing.F) {
	for _, s := range []string{"107 °C from 23:00, 135 °C once wrapped", "110C; then 250F after 8 h", ",,,",
		"107 °C from from from", "107 °C, 225 F 90 min after it goes on, 140 °C 1 h 30 min before the wrap"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, typed string) {
		sets, err := when.ParseSets(typed)
		for i, s := range sets {
			require.NoError(t, err)
			require.True(t, s.C >= when.LowPit && s.C <= when.HighPit, "%q", typed)
			require.False(t, i > 0 && s.At.None(), "%q says twice what it is set to at first", typed)
		}
		again, err := when.ParseSets(when.Typed(sets))
		require.NoError(t, err, "%q typed as %q", typed, when.Typed(sets))
		require.Len(t, again, len(sets))
		for i, s := range sets {
			require.InDelta(t, float64(s.C), float64(again[i].C), 0.06, typed)
			require.Equal(t, s.At, again[i].At, typed)
		}
	})
}

// Signs and moments in the many words that cooks have for them.
func TestMomentsInOtherWords(t *testing.T) {
	one := func(c when.Cond) when.Every { return when.Every{From: when.At(c)} }
	each := func(d time.Duration, from, until when.Cond) when.Every {
		if from.None() {
			from.After = d
		}
		return when.Every{Each: d, From: when.At(from), Until: when.At(until)}
	}
	off := func(by time.Duration) when.Cond { return when.Cond{Of: "off", By: by} }
	for want, all := range map[when.Every][]string{
		one(when.Cond{Sign: when.Fat}): {"rendered", "when the fat is rendered", "fat has all rendered"},
		one(when.Cond{Sign: when.Bones}): {
			"when the bones show", "bones show about a quarter inch", "pullback 1 cm", "once the meat has pulled back from the bone",
		},
		one(when.Cond{Sign: when.Soft}): {
			"like butter", "soft like butter", "when the probe slides in like butter", "cracks when bent", "bend test",
			"jiggles",
		},
		one(when.Cond{Sign: when.Colour}): {"golden and crisp", "nice mahogany color",
			"when the skin is crisp", "golden"},
		one(when.Cond{Sign: when.Bark}): {"once bark sets", "when the bark has formed"},
		one(when.Cond{Sign: when.Surface}): {"when it looks dry",
			"whenever the surface looks dry", "dry spots show", "when tacky"},
		one(when.Cond{CoreC: 70}):      {"once it hits the stall", "in the stall"},
		one(when.Cond{Clock: "12:00"}): {"around noon", "at noon"},
		one(when.Cond{Share: 0.5}): {"halfway", "half way through", "at the halfway point",
			"about half of the way through"},
		one(when.Cond{Share: 0.75}): {"three quarters of the way through", "75 % through",
			"after three quarters of the time"},
		one(when.Cond{Of: "on"}):             {"straight away", "right away", "from the start"},
		one(when.Cond{After: 2 * time.Hour}): {"after the first 2 hours", "two hours in", "2 h or so"},
		one(off(0)):                          {"when it comes off", "as soon as it is off", "at the end"},
		one(off(-30 * time.Minute)): {"the last 30 minutes", "for the last half hour",
			"30 min before it comes off"},
		one(when.Cond{Of: "slice"}): {"after resting", "once it has rested"},
		each(time.Hour, when.Cond{}, when.Cond{}): {"hourly", "once an hour", "every hour or so",
			"every hour", "about every hour"},
		each(2*time.Hour, when.Cond{}, when.Cond{}):              {"every other hour"},
		each(30*time.Minute, when.Cond{}, when.Cond{}):           {"twice an hour", "every half hour"},
		each(30*time.Minute, when.Cond{}, when.Cond{Of: "wrap"}): {"every 30 min until it's wrapped"},
		each(20*time.Minute, off(-time.Hour), when.Cond{}):       {"every 20 minutes during the last hour"},
		each(time.Hour, when.Cond{After: 3 * time.Hour},
			when.Cond{After: 6 * time.Hour}): {"every hour from hour 3 to hour 6"},
		each(30*time.Minute, when.Cond{After: 2 * time.Hour},
			when.Cond{}): {"every half hour after the first 2 hours"},
	} {
		for _, typed := range all {
			got, err := when.ParseEvery(typed)
			if assert.NoError(t, err, typed) {
				assert.Equal(t, want, got, typed)
			}
		}
	}
	got, err := when.ParseEvery("between 160 and 170 °F")
	require.NoError(t, err)
	assert.InDelta(t, 73.9, float64(got.From.Core()), 0.1)
}
