// Package provisions is what has to be on hand for a cook that is worked out, and what it costs: the
// groceries, and fuel, wraps and wood.
//
//	list := provisions.List(result)       // less what is in stock and in jars
//	fuel := provisions.Supplies(result)
//	provisions.Spent(result).Total        // by what was really burnt, wrapped and mixed
package provisions

import (
	"cmp"
	"time"

	"verjuice/internal/core/cooking"
	"verjuice/internal/core/decision"
	"verjuice/internal/core/dose"
	"verjuice/internal/core/order"
	"verjuice/internal/core/shop"
	"verjuice/internal/core/weather"
)

// List is what a cook needs, less what is in stock and in jars.
func List(r cooking.Result) shop.List {
	return shop.Shopping(pieces(r), Supplies(r), r.Kitchen)
}

// Cost is what all of it costs: meat, mixes, and what is burnt and wrapped; nil without prices.
func Cost(r cooking.Result) *shop.Cost { return shop.Sum(r.Buy, Supplies(r), r.Kitchen) }

// Spent is what it cost as it was done: of the rub what was weighed to have been mixed, the fuel that
// was weighed or for as long as a pit was really on, the wraps that were put on.
func Spent(r cooking.Result) *shop.Cost {
	all := pieces(r)
	for i, p := range all {
		mixed, _, ok := r.Facts.Weighed(p.Key, "mixed")
		for j, u := range p.Uses {
			if ok && u.For == (dose.Rub{}).ID() {
				all[i].Uses[j].Mass = mixed
			}
		}
	}
	return shop.Sum(shop.ToBuy(all, 0, r.Kitchen), used(r), r.Kitchen)
}

// pieces are the sound lines, as buying has to know them.
func pieces(r cooking.Result) []shop.Piece {
	out := []shop.Piece{}
	for _, p := range r.Pieces {
		if p.Meat != nil {
			out = append(out, shop.Piece{
				Key: p.Line.Key, Meat: p.Line.Meat.Value, Sound: true,
				Frozen:  p.Line.Answers.Value.Chose(decision.State) == "frozen",
				Portion: r.Order.Base.Value.Portion, Portions: p.Meat.Servings.Mid, Uses: append([]dose.Use{}, p.Using...),
			})
		}
	}
	return out
}

// hard is what the weather takes more of a pit's fuel: the worst that was said for a piece on it.
func hard(r cooking.Result, pit int) float64 {
	if told := r.Order.Weather.Value; len(told) > 0 {
		return weather.Worst(told).Fuel
	}
	out := 1.0
	for _, p := range r.Pieces {
		if p.Line.Typed.Fire.On == pit {
			out = max(out, weather.Of(p.Line.Answers.Value.Chose(decision.Weather)).Fuel)
		}
	}
	return out
}

// Supplies are what the cook needs besides food, by the plan: fuel, wraps and wood.
func Supplies(r cooking.Result) []shop.Supply {
	on := planned(r)
	for n := range on {
		on[n] += r.Order.Setting.Value.Pits[n].Preheat
	}
	return shop.Supplies(burning(r, on), wraps(r, false))
}

// used are what was used up: the fuel that was burnt, and the wraps that were put on.
func used(r cooking.Result) []shop.Supply {
	return shop.Supplies(Burnt(r), wraps(r, true))
}

// Burnt are the pits by what was weighed, and by how long each was on; as planned where nothing says
// more.
func Burnt(r cooking.Result) []shop.Burning {
	on := planned(r)
	for n, lasted := range lasted(r) {
		on[n] = lasted
	}
	for n := range on {
		on[n] += r.Order.Setting.Value.Pits[n].Preheat
	}
	pits := burning(r, on)
	for i := range pits {
		pits[i].Mass, _, _ = r.Facts.Burnt(pits[i].Pit)
	}
	return pits
}

// planned is how long each pit has something on it, by the plan.
func planned(r cooking.Result) map[int]time.Duration {
	out := map[int]time.Duration{}
	if r.Plan != nil {
		for n, hours := range r.Plan.Result.Plans[r.Plan.Chosen].Burning() {
			if n < len(r.Order.Setting.Value.Pits) && hours > 0 {
				out[n] = hours
			}
		}
	}
	return out
}

// lasted is how long each pit had something on it, from the first piece on to the last one off, by
// what was said and is read until now.
func lasted(r cooking.Result) map[int]time.Duration {
	first, last := map[int]time.Time{}, map[int]time.Time{}
	for _, p := range r.Pieces {
		on, _ := order.FindMove(p.Line.Sound(), order.On)
		if !p.Lit || on.Pit >= len(r.Order.Setting.Value.Pits) {
			continue
		}
		from := p.Happened.On
		to := from.Add(time.Duration(p.Happened.NowH * float64(time.Hour)))
		if was, ok := first[on.Pit]; !ok || from.Before(was) {
			first[on.Pit] = from
		}
		if to.After(last[on.Pit]) {
			last[on.Pit] = to
		}
	}
	out := map[int]time.Duration{}
	for n := range first {
		out[n] = last[n].Sub(first[n])
	}
	return out
}

// burning are the pits that are on, for how long with their lighting, and what they burn.
func burning(r cooking.Result, on map[int]time.Duration) []shop.Burning {
	var out []shop.Burning
	for n, pit := range r.Order.Setting.Value.Pits {
		if lasts := on[n]; lasts > 0 {
			out = append(out, shop.Burning{Pit: n, Kind: pit.ID, For: lasts, Hard: hard(r, n)})
		}
	}
	return out
}

// wraps are what the pieces are wrapped in and which wood smokes them; those that were on the fire
// as it was done, when that is asked.
func wraps(r cooking.Result, done bool) []shop.Wrapped {
	out := []shop.Wrapped{}
	for _, p := range r.Pieces {
		if p.Meat == nil || !p.Line.Answers.OK() {
			continue
		}
		said, m := p.Line.Answers.Value, p.Line.Meat.Value
		one := shop.Wrapped{
			Wrap: said.Chose(decision.Wrap), Wood: said.Chose(decision.Wood), Woods: p.Line.Woods.Value, Count: m.Count,
			Mass: m.Green.Mid,
		}
		if done && p.Lit {
			one.Wrap = "none"
			for _, w := range p.Happened.Wraps {
				if w.Kind != "none" { // without a kind it is the one that was chosen
					one.Wrap = cmp.Or(w.Kind, said.Chose(decision.Wrap))
				}
			}
		}
		out = append(out, one)
	}
	return out
}
