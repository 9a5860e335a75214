// Package quantity reads and writes the amounts of a kitchen: masses, volumes,
// lengths, temperatures and times, as people type them and as a scale, a spoon
// or a clock can measure them.
//
//	m, err := quantity.ParseMass("4 lb 6 oz")   // 1.984 kg
//	quantity.FormatMass(m, quantity.Metric)     // "1.985 kg"
//
// Inside the program quantities are SI. What cannot be read one way only (t for
// teaspoon or tablespoon, 1,000 for one or a thousand) is refused with the
// question to ask, never guessed.
package quantity

// Mass is a mass in kilograms.
type Mass float64

// Length is a length in metres.
type Length float64

// Volume is a volume in cubic metres.
type Volume float64

// Celsius is a temperature in degrees Celsius.
type Celsius float64

// Percent is a share in hundredths: 0.9 means 0.9 %.
type Percent float64

// Units of measure. Mass: the international avoirdupois pound of 1959. Volume:
// US customary as in NIST Handbook 44, Appendix C; metric spoons of 5, 15 and
// 250 mL.
const (
	Gram       Mass   = 1e-3
	Ounce      Mass   = 0.028349523125
	Pound      Mass   = 16 * Ounce
	Litre      Volume = 1e-3
	Millilitre Volume = 1e-6
	Inch       Length = 0.0254
	MM         Length = 1e-3
)

// Grams returns m in grams.
func (m Mass) Grams() float64 { return float64(m) * 1e3 }

// KG returns m in kilograms.
func (m Mass) KG() float64 { return float64(m) }

// ML returns v in millilitres.
func (v Volume) ML() float64 { return float64(v) * 1e6 }

// MM returns l in millimetres.
func (l Length) MM() float64 { return float64(l) * 1e3 }

// Fahrenheit returns t in degrees Fahrenheit.
func (t Celsius) Fahrenheit() float64 { return float64(t)*9/5 + 32 }

// FromFahrenheit is t degrees Fahrenheit.
func FromFahrenheit(t float64) Celsius { return Celsius((t - 32) * 5 / 9) }

// Kelvin returns t in kelvin.
func (t Celsius) Kelvin() float64 { return float64(t) + 273.15 }

// System is the set of units in which amounts are shown.
type System string

// The systems of units.
const (
	Metric System = "metric"
	US     System = "us"
)

// SpoonSet is the set of spoons and cups in the drawer.
type SpoonSet string

// The spoon sets.
const (
	USSpoons     SpoonSet = "us"
	MetricSpoons SpoonSet = "metric"
)

// Teaspoon, Tablespoon and Cup return the volumes of the set's measures.
// An unknown set counts as US customary.
func (s SpoonSet) Teaspoon() Volume {
	if s == MetricSpoons {
		return 5e-6
	}
	return 4.92892159375e-6
}

// Tablespoon is three teaspoons in both sets.
func (s SpoonSet) Tablespoon() Volume { return 3 * s.Teaspoon() }

// Cup is 250 mL metric and 48 teaspoons in US customary measure.
func (s SpoonSet) Cup() Volume {
	if s == MetricSpoons {
		return 250e-6
	}
	return 48 * s.Teaspoon()
}
