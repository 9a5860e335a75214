package formula

import (
	"math"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Coat is how much rub is on a surface, judged by eye: a volume of
// rub per area.
type Coat struct {
	Name     string  `json:"name" enum:"light,medium,heavy,crust"`
	MLPerDM2 float64 `json:"ml_per_dm2" doc:"mL of rub on 100 cm²"`
}

// Coats are the coats that cooks tell apart, upwards.
var Coats = []Coat{
	{"light", 2.5},
	{"medium", 4},
	{"heavy", 6},
	{"crust", 9},
}

// How a coat varies and what of it is lost.
const (
	CoatSpread   = 0.30 // of the volume per area, by eye
	BinderHolds  = 1.20 // times the coat without a binder
	SprinkleLoss = 0.10 // of what is mixed, 0.05 to 0.15
	MaxCoat      = 14.0 // mL/dm²; more does not stay on
)

// FindCoat returns the coat of that name.
func FindCoat(name string) (Coat, bool) {
	for _, c := range Coats {
		if c.Name == name {
			return c, true
		}
	}
	return Coat{}, false
}

// CoatMass is the mass of m that coats area (m²) at c mL/dm².
func (m Mix) CoatMass(mlPerDM2, area float64) quantity.Mass {
	return quantity.Mass(mlPerDM2*area*100*m.GramsPerML) * quantity.Gram
}

// CoatOf is the coat in mL/dm² that mass of m makes on area (m², above zero).
func (m Mix) CoatOf(mass quantity.Mass, area float64) float64 {
	if m.GramsPerML <= 0 {
		return 0
	}
	return mass.Grams() / m.GramsPerML / (area * 100)
}

// NameCoat says which coat c mL/dm² is: "coat.named" and its name when it is within
// 12 % of one; else coat.dusting, coat.thinner, coat.between (with both names),
// coat.thicker or, above MaxCoat, coat.too-thick.
func NameCoat(c float64) field.Wrong {
	for i, k := range Coats {
		if math.Abs(c-k.MLPerDM2) <= 0.12*k.MLPerDM2 {
			return field.Because("coat.named", "coat", k.Name)
		}
		if c < k.MLPerDM2 {
			switch {
			case i > 0:
				return field.Because("coat.between", "low", Coats[i-1].Name, "high", k.Name)
			case c < k.MLPerDM2/2:
				return field.Because("coat.dusting")
			}
			return field.Because("coat.thinner", "coat", k.Name)
		}
	}
	if c > MaxCoat {
		return field.Because("coat.too-thick")
	}
	return field.Because("coat.thicker", "coat", Coats[len(Coats)-1].Name)
}

// UsualWait is how long a rub is taken to lie on meat before the fire where nothing
// else is known.
const UsualWait = 12 * time.Hour

// Stays is the share of a coat that ends in the meat: 5 to 25 % is washed or drips
// off before it is taken up, the more the shorter the wait.
func Stays(wait time.Duration) quantity.Range[float64] {
	lost := 0.05 + 0.20*math.Exp(-wait.Hours()/3)
	return quantity.Range[float64]{Low: 1 - math.Min(0.30, lost*1.6), Mid: 1 - lost, High: 1 - lost*0.5}
}

// CoatNames are the names of the coats, upwards.
func CoatNames() []string {
	out := make([]string, len(Coats))
	for i, c := range Coats {
		out[i] = c.Name
	}
	return out
}
