package quantity

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestParseMass(t *testing.T) {
	for typed, grams := range map[string]float64{
		"2.2kg": 2200, "2,2 kg": 2200, "4 lb 6 oz": 1984.47, "38 oz": 1077.28, "900 g": 900, "1 1/2 lb": 680.39,
		"1½ kg": 1500, "½ lb": 226.80, "0,125 kg": 125, "2 kg + 300 g": 2300, "  3 LB. ": 1360.78, "5#": 2267.96,
	} {
		m, err := ParseMass(typed)
		require.NoError(t, err, typed)
		assert.InDelta(t, grams, m.Grams(), 0.01, typed)
	}
}

func TestParseMassRefuses(t *testing.T) {
	for typed, says := range map[string]string{
		"": "missing", "5": "no-unit", "2 cups": "other-dimension", "1e309 kg": "unknown-unit", "-3 kg": "not-positive",
		"0 kg": "not-positive", "🥩": "unreadable", "1,000 g": "thousand-or-decimal", "1.000.000 g": "several-ways",
		"3 stone": "unknown-unit",
		"1/0 kg":  "over-zero", "\xff": "unreadable-text", "2 t": "teaspoon-or-tablespoon",
		"12345678901234567890123456789012345678901234567890123456789012345678901234567890 kg": "too-long",
	} {
		_, err := ParseMass(typed)
		require.Error(t, err, typed)
		assert.Contains(t, err.Error(), says, typed)
	}
}

func TestParseOthers(t *testing.T) {
	ml := func(s string) float64 { v, err := ParseVolume(s, USSpoons); require.NoError(t, err, s); return v.ML() }
	assert.InDelta(t, 354.882, ml("1 1/2 cups"), 0.01)
	assert.InDelta(t, 354.882, ml("1½ c"), 0.01)
	assert.InDelta(t, 34.502, ml("2 Tbsp + 1 tsp"), 0.01)
	assert.InDelta(t, 59.147, ml("2 fl oz"), 0.01)

	metric, err := ParseVolume("1 cup + 2 Tbsp", MetricSpoons)
	require.NoError(t, err)
	assert.InDelta(t, 280, metric.ML(), 1e-9, "a cup means the cup that was in the drawer")

	mm := func(s string) float64 { v, err := ParseLength(s); require.NoError(t, err, s); return v.MM() }
	assert.InDelta(t, 38.1, mm("1 1/2 in"), 1e-9)
	assert.InDelta(t, 85, mm("8.5cm"), 1e-9)

	span := func(s string) time.Duration { v, err := ParseDuration(s); require.NoError(t, err, s); return v }
	assert.Equal(t, 90*time.Minute, span("1h30"))
	for typed, ends := range map[string][2]time.Duration{
		"30–45 min": {30 * time.Minute, 45 * time.Minute}, "one to two hours": {time.Hour, 2 * time.Hour},
		"45 min to 1 h 30": {45 * time.Minute, 90 * time.Minute}, "1 h 30 - 2 h": {90 * time.Minute, 2 * time.Hour},
	} {
		assert.Equal(t, (ends[0]+ends[1])/2, span(typed), typed)
		assert.Equal(t, (ends[1]-ends[0])/2, DurationOff(typed), typed)
	}
	assert.Zero(t, DurationOff("45 min"))
	assert.Equal(t, 90*time.Minute, span("90 min"))
	assert.Equal(t, 36*time.Hour, span("1 d 12 h"))

	deg := func(s string) float64 { v, err := ParseTemperature(s); require.NoError(t, err, s); return float64(v) }
	assert.InDelta(t, 121.11, deg("250F"), 0.01)
	assert.InDelta(t, 121, deg("121 °C"), 1e-9)
	assert.InDelta(t, 4, deg("4 C"), 1e-9)
	assert.InDelta(t, -2, deg("-2 °C"), 1e-9)
	for _, s := range []string{"250", "250 °", "hot", "2 kg"} {
		_, err := ParseTemperature(s)
		assert.Error(t, err, s)
	}

	stick, err := ParseAmount("1 stick", false, USSpoons)
	require.NoError(t, err)
	assert.InDelta(t, 113.4, stick.Mass.Grams(), 0.1)
	_, err = ParseAmount("2 oz", true, USSpoons)
	assert.ErrorContains(t, err, "ounce-of-liquid")
}

func TestFormat(t *testing.T) {
	assert.Equal(t, "2.40 kg", FormatMass(2.4, Metric))
	assert.Equal(t, "4 lb 6 oz", FormatMass(4*Pound+6*Ounce, US))
	assert.Equal(t, "5 lb", FormatMass(4.999*Pound, US))
	assert.Equal(t, "9.7", FormatGrams(9.71e-3))
	assert.Equal(t, "3⅜ in", FormatLength(0.085, US))
	assert.Equal(t, "1 h 30", FormatDuration(91*time.Minute))
	assert.Equal(t, "1 h", FormatDuration(58*time.Minute))
	assert.Equal(t, "12½ h", FormatDuration(12*time.Hour+25*time.Minute))
	assert.Equal(t, "2 d 4 h", FormatDuration(52*time.Hour))

	us := func(tsp float64) Spoons { return FormatSpoons(Volume(tsp)*USSpoons.Teaspoon(), USSpoons) }
	assert.Equal(t, "2 Tbsp + ½ tsp", us(6.5).Text)
	assert.Equal(t, "¼ cup + 3 Tbsp", us(21).Text)
	assert.Equal(t, "1½ cups", us(72).Text)
	assert.Empty(t, us(6.5).Note)
	assert.Equal(t, "25 % less than the weight", us(1.0/3).Note)
	assert.Equal(t, "a pinch", us(0.05).Text)
	assert.Equal(t, "1 Tbsp", FormatSpoons(15e-6, MetricSpoons).Text)
}

// Spoons stay within half a step of the amount, whatever it is.
func TestSpoonsAreClose(t *testing.T) {
	for tsp := 0.3; tsp < 300; tsp *= 1.037 {
		for _, set := range []SpoonSet{USSpoons, MetricSpoons} {
			s := FormatSpoons(Volume(tsp)*set.Teaspoon(), set)
			assert.LessOrEqual(t, math.Abs(s.Error)/100*tsp, 0.5+1e-9, "%g tsp: %s", tsp, s.Text)
			assert.Equal(t, math.Abs(s.Error) > 5, s.Note != "", "%g tsp: %s", tsp, s.Text)
		}
	}
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"4 lb 6 oz", "2,2 kg", "1 1/2 in", "1h30", "250F", "½", "1e309", "2 Tbsp + 1 tsp", "🌶",
		"1//2", "+", "fl oz", "−5 °C"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		if m, err := ParseMass(s); err == nil {
			assert.True(t, m > 0 && !math.IsInf(float64(m), 0), s)
			// What is shown can be typed back.
			again, err := ParseMass(FormatMass(m, Metric))
			if m > 1e-4 && m < 1e6 {
				assert.NoError(t, err, s)
				assert.InEpsilon(t, float64(m), float64(again), 0.5, s)
			}
		}
		if d, err := ParseDuration(s); err == nil {
			assert.GreaterOrEqual(t, d, time.Duration(0), s)
		}
		if p, err := ParseParts(s); err == nil {
			assert.True(t, p >= 0 && !math.IsInf(p, 0), s)
		}
		_, _ = ParseTemperature(s)
		_, _ = ParseLength(s)
		_, _ = ParseAmount(s, true, USSpoons)
	})
}
