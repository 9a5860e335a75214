package larder

import (
	"fmt"
	"strings"
	"unicode"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Price is what an amount of something costs.
type Price struct {
	Money float64
	Sign  string // of the money, as typed; may be empty
	For   quantity.Amount
}

// Bounds on a price, to catch typing mistakes.
const maxMoney = 1e6

// ParsePrice reads a price as it stands on a packet: "3.20 for 500 g", "€4/kg",
// "2,80 per 250 mL". The money comes first. A bare unit means one of it.
func ParsePrice(s string) (Price, error) {
	s = strings.TrimSpace(s)
	money, amount, ok := "", "", false
	for _, word := range []string{" for ", " per ", "/", " a "} {
		if money, amount, ok = strings.Cut(s, word); ok {
			break
		}
	}
	if !ok {
		return Price{}, field.Because("price.unreadable")
	}
	var p Price
	number := strings.TrimFunc(money, func(r rune) bool { return !unicode.IsDigit(r) && r != '.' && r != ',' })
	p.Sign = strings.TrimSpace(strings.Replace(money, number, "", 1))
	if len(p.Sign) > 8 || strings.ContainsAny(p.Sign, "-−0123456789") {
		return Price{}, field.Because("price.money", "typed", fmt.Sprintf("%.30s", money))
	}
	var err error
	if p.Money, err = quantity.ParseParts(number); err != nil || p.Money > maxMoney {
		return Price{}, field.Because("price.money", "typed", fmt.Sprintf("%.30s", money))
	}
	amount = strings.TrimSpace(amount)
	if amount != "" && unicode.IsLetter([]rune(amount)[0]) {
		amount = "1 " + amount
	}
	if p.For, err = quantity.ParseAmount(amount, false, quantity.USSpoons); err != nil {
		return Price{}, err
	}
	if p.For.Mass <= 0 && p.For.Volume <= 0 {
		return Price{}, field.Because("price.amount")
	}
	return p, nil
}

// PerGram is the money for a gram of something that weighs gramsPerML.
func (p Price) PerGram(gramsPerML float64) float64 {
	return p.Money / (p.For.Mass.Grams() + p.For.Volume.ML()*gramsPerML)
}
