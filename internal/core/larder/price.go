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
	Long  quantity.Length // of a roll; then For is empty
}

// Bounds on a price, to catch typing mistakes.
const maxMoney = 1e6

// PriceOf reads the price of a thing by its id: that of a wrap is for a length of the
// roll ("4.50 for 20 m"), that of all else for a weight or a volume, as ParsePrice does.
func PriceOf(thing, s string) (Price, error) {
	known, _ := FindSupply(thing)
	p, amount, err := money(s)
	if known.Kind != Wrap || err != nil {
		return ParsePrice(s)
	}
	if p.Long, err = quantity.ParseLength(amount); err != nil || p.Long <= 0 {
		return Price{}, field.Because("price.length")
	}
	return p, nil
}

// ParsePrice reads a price as it stands on a packet: "3.20 for 500 g", "€4/kg",
// "2,80 per 250 mL". The money comes first. A bare unit means one of it.
func ParsePrice(s string) (Price, error) {
	p, amount, err := money(s)
	if err != nil {
		return Price{}, err
	}
	if p.For, err = quantity.ParseAmount(amount, false, quantity.USSpoons); err != nil {
		return Price{}, err
	}
	if p.For.Mass <= 0 && p.For.Volume <= 0 {
		return Price{}, field.Because("price.amount")
	}
	return p, nil
}

// money reads the money of a price; what it buys comes back as it was typed.
func money(s string) (Price, string, error) {
	s = strings.TrimSpace(s)
	coins, amount, ok := "", "", false
	for _, word := range []string{" for ", " per ", "/", " a "} {
		if coins, amount, ok = strings.Cut(s, word); ok {
			break
		}
	}
	if !ok {
		return Price{}, "", field.Because("price.unreadable")
	}
	var p Price
	number := strings.TrimFunc(coins, func(r rune) bool { return !unicode.IsDigit(r) && r != '.' && r != ',' })
	p.Sign = strings.TrimSpace(strings.Replace(coins, number, "", 1))
	if len(p.Sign) > 8 || strings.ContainsAny(p.Sign, "-−0123456789") {
		return Price{}, "", field.Because("price.money", "typed", fmt.Sprintf("%.30s", coins))
	}
	var err error
	if p.Money, err = quantity.ParseParts(number); err != nil || p.Money > maxMoney {
		return Price{}, "", field.Because("price.money", "typed", fmt.Sprintf("%.30s", coins))
	}
	amount = strings.TrimSpace(amount)
	if amount != "" && unicode.IsLetter([]rune(amount)[0]) {
		amount = "1 " + amount
	}
	return p, amount, nil
}

// PerGram is the money for a gram of something that weighs gramsPerML.
func (p Price) PerGram(gramsPerML float64) float64 {
	return p.Money / (p.For.Mass.Grams() + p.For.Volume.ML()*gramsPerML)
}

// PerM is the money for a metre of a roll; zero for what is not sold by its length.
func (p Price) PerM() float64 {
	if p.Long <= 0 {
		return 0
	}
	return p.Money / float64(p.Long)
}

// maxThing is how long a price or a stock may be, in characters.
const maxThing = 100

// CheckThing returns what keeps a price, a stock and what a pack holds from being put on record, with pointers to
// /thing, /price, /stock and /pack; other reports whether an id is one of an ingredient or a cut.
func CheckThing(thing, price, stock, pack string, other func(id string) bool) field.Errors {
	var errs field.Errors
	if _, supply := FindSupply(thing); !supply && !other(thing) {
		errs.Add("/thing", "thing.unknown")
	}
	errs.Text("/price", price, maxThing)
	errs.Text("/stock", stock, maxThing)
	errs.Text("/pack", pack, maxThing)
	if len(errs) > 0 {
		return errs
	}
	if stock != "" {
		_, err := quantity.ParseAmount(stock, false, quantity.USSpoons)
		errs.Take("/stock", err)
	}
	if pack != "" {
		_, err := quantity.ParseAmount(pack, false, quantity.USSpoons)
		errs.Take("/pack", err)
	}
	if price != "" {
		_, err := PriceOf(thing, price)
		errs.Take("/price", err)
	}
	return errs
}
