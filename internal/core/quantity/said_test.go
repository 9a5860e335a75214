package quantity

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"verjuice/internal/core/field"
)

// As cooks say it: what each means, in grams, millilitres, minutes or degrees Celsius.
func TestAsCooksSayIt(t *testing.T) {
	grams := func(s string) (float64, error) { m, err := ParseMass(s); return m.Grams(), err }
	ml := func(s string) (float64, error) { v, err := ParseVolume(s, USSpoons); return v.ML(), err }
	minutes := func(s string) (float64, error) { d, err := ParseDuration(s); return d.Minutes(), err }
	celsius := func(s string) (float64, error) { c, err := ParseTemperature(s); return float64(c), err }
	dm2, parts := ParseArea, ParseParts
	weighed := func(s string) (float64, error) { m, err := ParseWeighed(s); return m.Grams(), err }
	for _, one := range []struct {
		typed string
		read  func(string) (float64, error)
		is    float64
	}{
		{"1-1/2 lb", grams, 680.39}, {"1⁄2 lb", grams, 226.80}, {"1 1⁄2 lb", grams, 680.39}, {"1-½ lb", grams, 680.39},
		{"4 lb, 6 oz", grams, 1984.47},
		{"two kilos", grams, 2000}, {"Two and a half pounds", grams, 1133.98}, {"half a pound", grams, 226.80},
		{"a pound and a half", grams, 680.39},
		{"a quarter pound", grams, 113.40}, {"2 x 1.5 kg", grams, 3000}, {"3 × 400 g", grams, 1200},
		{"1 lb & 2 oz", grams, 510.29},
		{"2 x 330 ml", ml, 660}, {"half a cup", ml, 118.29}, {"one and a quarter cups", ml, 295.74},
		{"an imperial pint", ml, 568.26}, {"2 UK pints", ml, 1136.52}, {"1 pint", ml, 473.18},
		{"one hour", minutes, 60}, {"half an hour", minutes, 30}, {"an hour and a half", minutes, 90},
		{"1:30", minutes, 90}, {"10:05 h", minutes, 605}, {"two days", minutes, 2880},
		{"225° F", celsius, 107.22}, {"250 degrees F", celsius, 121.11}, {"250 deg. F", celsius, 121.11},
		{"110 degC", celsius, 110}, {"−2 ° C", celsius, -2}, {"95 centigrade", celsius, 95},
		{"46", dm2, 46}, {"46 dm²", dm2, 46}, {"4600 cm2", dm2, 46}, {"700 sq in", dm2, 45.16},
		{"700 square inches", dm2, 45.16}, {"0.5 m²", dm2, 50},
		{"1-2 Tbsp", ml, 22.18}, {"2 to 3 lb", grams, 1133.98}, {"1 kg + 1–2 lb", grams, 1680.39},
		{"about 12 lb", grams, 5443.11}, {"4 and a half pounds", grams, 2041.17}, {"5 kg or so", grams, 5000},
		{"165–170 °F", celsius, 75.28}, {"205 to 210F", celsius, 97.5}, {"165 F to 170 F", celsius, 75.28},
		{"just under 95 C", celsius, 95}, {"93 °C internal", celsius, 93}, {"between 90 and 95 °C", celsius, 92.5},
		{"200ish F", celsius, 93.33}, {"30–45 min", minutes, 37.5}, {"1 to 2 hours", minutes, 90},
		{"an hour or two", minutes, 90}, {"about two and a half hours", minutes, 150}, {"a couple of hours", minutes, 120},
		{"a few hours", minutes, 180}, {"three quarters of an hour", minutes, 45}, {"one to two hours", minutes, 90},
		{"a third of a cup", ml, 78.86}, {"a couple of tablespoons", ml, 29.57}, {"200 mils", ml, 200},
		{"two 330 ml bottles", ml, 660}, {"1/4 to 1/2 cup", ml, 88.72}, {"1 Tbsp plus 1 tsp", ml, 19.72},
		{"three quarters of a cup", ml, 177.44}, {"a level tablespoon", ml, 14.79}, {"a 300 g can", grams, 300},
		{"two parts", parts, 2}, {"a third", parts, 1.0 / 3}, {"one and a half", parts, 1.5}, {"2 to 3", parts, 2.5},
		{"118", weighed, 118}, {"4 oz", weighed, 113.40}, {"0", weighed, 0}, {"0,2 kg", weighed, 200},
	} {
		got, err := one.read(one.typed)
		require.NoError(t, err, one.typed)
		assert.InDelta(t, one.is, got, 0.01, one.typed)
	}
}

// What cannot be read one way only is asked, with what may have been meant; each offer can
// be read.
func TestWhatIsAsked(t *testing.T) {
	mass := func(s string) error { _, err := ParseMass(s); return err }
	volume := func(s string) error { _, err := ParseVolume(s, USSpoons); return err }
	metric := func(s string) error { _, err := ParseVolume(s, MetricSpoons); return err }
	duration := func(s string) error { _, err := ParseDuration(s); return err }
	core := func(s string) error { _, err := ParseTemperatureWithin(s, 40, 105); return err }
	pit := func(s string) error { _, err := ParseTemperatureWithin(s, 80, 350); return err }
	liquid := func(s string) error { _, err := ParseAmount(s, true, USSpoons); return err }
	for _, one := range []struct {
		typed  string
		read   func(string) error
		id     string
		offers []string
	}{
		{"2-1 Tbsp", volume, "range", []string{"2 Tbsp", "1 Tbsp"}},
		{"165–170", core, "celsius-or-fahrenheit", []string{"165–170 °F"}},
		{"1 cup + 1 heaped tsp", liquid, "one-only", nil},
		{"a heaped spoonful", liquid, "teaspoon-or-tablespoon", []string{"1 tsp", "1 Tbsp"}},
		{"1,500 g", mass, "thousand-or-decimal", []string{"1.500 g", "1500 g"}},
		{"2 t", volume, "teaspoon-or-tablespoon", []string{"2 tsp", "2 Tbsp"}},
		{"1 pint", metric, "which-pint", []string{"473 mL", "568 mL"}},
		{"88", core, "celsius-or-fahrenheit", []string{"88 °C"}},
		{"203", core, "celsius-or-fahrenheit", []string{"203 °F"}},
		{"203 °", core, "celsius-or-fahrenheit", []string{"203 °F"}},
		{"275", pit, "celsius-or-fahrenheit", []string{"275 °C", "275 °F"}},
		{"110 degrees", pit, "celsius-or-fahrenheit", []string{"110 °C"}},
		{"7000", pit, "celsius-or-fahrenheit", nil},
		{"2 oz", liquid, "ounce-of-liquid", []string{"2 fl oz", "56.7 g"}},
		{"1 h in foil", duration, "more-words", []string{"1 h"}},
		{"2 kg of pork", mass, "more-words", []string{"2 kg"}},
		{"2 bottles", liquid, "how-much-is-one", nil}, {"6 cloves", mass, "how-much-is-one", nil},
		{"a handful", mass, "how-much-is-one", nil},
		{"a", mass, "no-unit", nil}, {"2 x kg", mass, "unknown-unit", nil},
		{"wide", func(s string) error { _, err := ParseArea(s); return err }, "area", nil},
	} {
		err := one.read(one.typed)
		var why field.Wrong
		if !assert.ErrorAs(t, err, &why, one.typed) {
			continue
		}
		assert.Equal(t, "quantity."+one.id, why.ID, one.typed)
		offers, _ := why.Values["offers"].([]string)
		assert.Equal(t, one.offers, offers, one.typed)
		for _, offer := range offers {
			assert.NoError(t, one.read(offer), "%s, offered for %s", offer, one.typed)
		}
	}
	for _, parts := range []string{"a", "an", "some"} {
		_, err := ParseParts(parts)
		assert.Error(t, err, parts)
	}
}

// A weight is rounded once: what is shown is never further off than half its step, and
// reads back as itself.
func TestUSWeightsAreRoundedOnce(t *testing.T) {
	assert.Equal(t, "2 lb 3 oz", FormatMass(1, US))
	assert.Equal(t, "5 lb", FormatMass(4.999*Pound, US))
	assert.Equal(t, "1 lb", FormatMass(15.6*Ounce, US))
	for oz := 0.02; oz < 900; oz *= 1.013 {
		text := FormatMass(Mass(oz)*Ounce, US)
		back, err := ParseMass(text)
		require.NoError(t, err, text)
		step := 1.0
		switch {
		case oz < 1:
			step = 0.01
		case oz < 4:
			step = 0.1
		case oz < 15.5:
			step = 0.5
		}
		assert.LessOrEqual(t, float64(back/Ounce)-oz, step/2+1e-9, text)
		assert.GreaterOrEqual(t, float64(back/Ounce)-oz, -step/2-1e-9, text)
	}
	for text, v := range map[string]Volume{"2.5 gal": 9.46e-3, "2.1 qt": 2e-3, "5.1 fl oz": 150e-6, "0.6 tsp": 3e-6} {
		assert.Equal(t, text, FormatUSVolume(v))
	}
	assert.Equal(t, "under ⅛ in", FormatLength(0.001, US))
}
