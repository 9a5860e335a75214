package formula

import (
	"fmt"
	"math"

	"verjuice/internal/core/quantity"
)

// Coat is how much of a rub lies on a surface, as the eye judges it: a volume of
// rub per area.
type Coat struct {
	Name     string  `json:"name" enum:"light,medium,heavy,crust"`
	MLPerDM2 float64 `json:"ml_per_dm2" doc:"mL of rub on 100 cm²"`
	Note     string  `json:"note"`
}

// Coats are the coats that cooks tell apart, upwards.
var Coats = []Coat{
	{"light", 2.5, "meat shows everywhere"},
	{"medium", 4, "meat shows through between the grains"},
	{"heavy", 6, "hardly any meat shows"},
	{"crust", 9, "a packed layer"},
}

// CoatSource is the authority printed for coats and losses.
const CoatSource = "coverage by eye in mL per 100 cm², ±30 %, a binder holding 20 % more; 5–15 % is lost while sprinkling, 5–25 % drips off before it is taken up"

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
	return mass.Grams() / m.GramsPerML / (area * 100)
}

// DescribeCoat names the coat of c mL/dm²: "a medium coat", "between light and
// medium", "half a light coat", "more than a crust".
func DescribeCoat(c float64) string {
	for i, k := range Coats {
		if math.Abs(c-k.MLPerDM2) <= 0.12*k.MLPerDM2 {
			return "a " + k.Name + " coat"
		}
		if c < k.MLPerDM2 {
			if i == 0 {
				if c < k.MLPerDM2/2 {
					return "a bare dusting"
				}
				return "thinner than a light coat"
			}
			return fmt.Sprintf("between %s and %s", Coats[i-1].Name, k.Name)
		}
	}
	if c > MaxCoat {
		return "more than the surface holds"
	}
	return "thicker than a crust"
}

// Stays is the share of a coat that ends in the meat: 5 to 25 % is washed or
// drips off before it is taken up, the more the shorter the wait in hours. Low
// and high are its likely range.
func Stays(hours float64) (low, mid, high float64) {
	lost := 0.05 + 0.20*math.Exp(-hours/3)
	return 1 - math.Min(0.30, lost*1.6), 1 - lost, 1 - lost*0.5
}
