package quantity

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"time"
)

// Number writes v without needless zeros, to at most three decimals.
func Number(v float64) string {
	return strconv.FormatFloat(math.Round(v*1000)/1000+0, 'f', -1, 64)
}

// RoundGrams rounds grams to what a kitchen scale can show: 0.1 g under 10 g,
// 1 g up to 1 kg, 5 g above. decimals is how many of them are worth writing.
func RoundGrams(g float64) (rounded float64, decimals int) {
	switch {
	case g < 9.95:
		return math.Round(g*10) / 10, 1
	case g < 1000:
		return math.Round(g), 0
	default:
		return math.Round(g/5) * 5, 0
	}
}

// FormatGrams writes m in grams at a scale's step, without the unit.
func FormatGrams(m Mass) string {
	g, decimals := RoundGrams(m.Grams())
	return strconv.FormatFloat(g, 'f', decimals, 64)
}

// FormatMass writes m with its unit, in kilograms from 1 kg up, in grams below,
// or in pounds and ounces. It is rounded once.
func FormatMass(m Mass, s System) string {
	if s == US {
		return formatOunces(float64(m / Ounce))
	}
	if g, _ := RoundGrams(m.Grams()); g >= 1000 {
		return strconv.FormatFloat(m.KG(), 'f', 2, 64) + " kg"
	}
	return FormatGrams(m) + " g"
}

// formatOunces writes ounces as a kitchen scale shows them: whole ones from a pound up,
// half ones from four ounces, tenths from one, and hundredths below.
func formatOunces(oz float64) string {
	if whole := math.Round(oz); whole >= 16 {
		text := Number(math.Floor(whole/16)) + " lb"
		if rest := math.Mod(whole, 16); rest > 0 {
			text += " " + Number(rest) + " oz"
		}
		return text
	}
	step := 2.0
	switch {
	case oz < 1:
		step = 100
	case oz < 4:
		step = 10
	}
	return Number(math.Round(oz*step)/step) + " oz"
}

// FormatUSVolume writes a volume of liquid in gallons, quarts, fluid ounces or teaspoons.
func FormatUSVolume(v Volume) string {
	us := USSpoons
	quarts := float64(v / (4 * us.Cup()))
	switch ounces := 32 * quarts; {
	case quarts >= 8:
		return Number(math.Round(quarts/4*10)/10) + " gal"
	case quarts >= 1:
		return Number(math.Round(quarts*10)/10) + " qt"
	case ounces >= 1:
		return Number(math.Round(ounces*10)/10) + " fl oz"
	}
	return Number(math.Round(float64(v/us.Teaspoon())*10)/10) + " tsp"
}

// FormatLength writes l in whole millimetres or in eighths of an inch.
func FormatLength(l Length, s System) string {
	if s == US {
		eighths := math.Round(float64(l/Inch) * 8)
		if eighths == 0 {
			return "under ⅛ in"
		}
		return mixed(eighths, 8) + " in"
	}
	if mm := l.MM(); mm < 3 {
		return Number(math.Round(mm*10)/10) + " mm"
	}
	return Number(math.Round(l.MM())) + " mm"
}

// FormatTemperature writes t to the degree.
func FormatTemperature(t Celsius, s System) string {
	if s == US {
		return Number(math.Round(t.Fahrenheit())) + " °F"
	}
	return Number(math.Round(float64(t))) + " °C"
}

// FormatDuration writes d as a cook says it: "25 min", "1 h 30", "12 h",
// "2 d 4 h". Under ten hours to five minutes, under two days to the half hour.
func FormatDuration(d time.Duration) string {
	minutes := d.Minutes()
	switch {
	case minutes < 1:
		return "under a minute"
	case minutes < 20:
		return Number(math.Round(minutes)) + " min"
	case minutes < 57.5:
		return Number(math.Round(minutes/5)*5) + " min"
	case minutes < 597.5:
		m := int(math.Round(minutes/5) * 5)
		if m%60 == 0 {
			return fmt.Sprintf("%d h", m/60)
		}
		return fmt.Sprintf("%d h %02d", m/60, m%60)
	case minutes < 48*60-15:
		half := math.Round(minutes / 30)
		return mixed(half, 2) + " h"
	default:
		h := int(math.Round(minutes / 60))
		if h%24 == 0 {
			return fmt.Sprintf("%d d", h/24)
		}
		return fmt.Sprintf("%d d %d h", h/24, h%24)
	}
}

var fractions = map[int]string{125: "⅛", 250: "¼", 375: "⅜", 500: "½", 625: "⅝", 750: "¾", 875: "⅞"}

// mixed writes n/over as a mixed number with a vulgar fraction.
func mixed(n float64, over float64) string {
	whole := math.Floor(n / over)
	part := fractions[int(math.Round((n/over-whole)*1000))]
	if whole == 0 && part != "" {
		return part
	}
	return strconv.FormatFloat(whole, 'f', 0, 64) + part
}

// Spoons is a volume in real spoons and cups.
type Spoons struct {
	Text  string  `json:"text" doc:"For example 2 Tbsp + ½ tsp"`
	Error float64 `json:"error_percent" doc:"How far the spoons are from the amount, in % of it"`
	Note  string  `json:"note" doc:"The error in words when it exceeds 5 %, else empty"`
}

// FormatSpoons writes v in the measures of the set, from ¼ tsp to cups: to ¼ tsp
// below 2 Tbsp, to ½ tsp below half a cup, to 1 tsp above. The error is in
// Note when it exceeds 5 %.
func FormatSpoons(v Volume, set SpoonSet) Spoons {
	tsp := float64(v / set.Teaspoon())
	if tsp <= 0 {
		return Spoons{Text: "none"}
	}
	step := 0.25
	perCup := float64(set.Cup() / set.Teaspoon())
	switch {
	case tsp >= perCup/2:
		step = 1
	case tsp >= 6:
		step = 0.5
	}
	rounded := math.Round(tsp/step) * step
	if rounded < 0.25 {
		if tsp < 0.125 {
			return Spoons{Text: "a pinch", Note: "too little for spoons: weigh it"}
		}
		rounded = 0.25
	}
	out := Spoons{Text: spoonText(rounded, perCup), Error: 100 * (rounded - tsp) / tsp}
	if math.Abs(out.Error) > 5 {
		word := "more"
		if out.Error < 0 {
			word = "less"
		}
		out.Note = fmt.Sprintf("%.0f %% %s than the weight", math.Abs(out.Error), word)
	}
	return out
}

// spoonText decomposes teaspoons into cups, tablespoons and teaspoons.
func spoonText(tsp, perCup float64) string {
	var parts []string
	if quarters := math.Floor(tsp/(perCup/4) + 1e-9); quarters > 0 {
		parts = append(parts, plural(mixed(quarters, 4), quarters > 4, "cup", "cups"))
		tsp -= quarters * perCup / 4
		tsp = math.Round(tsp*4) / 4
	}
	if tbsp := math.Floor(tsp/3 + 1e-9); tbsp > 0 {
		parts = append(parts, Number(tbsp)+" Tbsp")
		tsp -= tbsp * 3
	}
	if tsp > 0 {
		parts = append(parts, mixed(tsp*4, 4)+" tsp")
	}
	return strings.Join(parts, " + ")
}

func plural(n string, many bool, one, several string) string {
	if many {
		return n + " " + several
	}
	return n + " " + one
}

// FormatDays writes a number of days as a cook counts them: "3 days", "2 weeks",
// "6 months".
func FormatDays(days int) string {
	switch {
	case days >= 60:
		return Number(math.Round(float64(days)/30)) + " months"
	case days >= 14 && days%7 == 0:
		return Number(float64(days)/7) + " weeks"
	case days == 1:
		return "1 day"
	default:
		return Number(float64(days)) + " days"
	}
}
