// Package anycook makes pages as a cook might type them, sensible and spoiled, for
// tests that hold whatever is typed.
//
//	r := rand.New(rand.NewPCG(1, 2))
//	page := anycook.Supper(anycook.Piece(r))
package anycook

import (
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"strings"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cut"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/core/move"
	"verjuice/internal/core/quantity"
	"verjuice/internal/testclock"
)

// Pick takes one of them.
func Pick[T any](r *rand.Rand, of []T) T { return of[r.IntN(len(of))] }

// HalfAndHalf is a salt and coarse pepper, one to one.
func HalfAndHalf(ingredient, form string, basis formula.Basis) formula.Formula {
	return formula.Formula{Name: "plain", Basis: basis, Rows: []formula.Row{
		{Ingredient: ingredient, Form: form, Parts: "1"}, {Ingredient: "black-pepper", Form: "coarse", Parts: "1"},
	}}
}

// Bottle is one ingredient alone.
func Bottle(name, ingredient string) formula.Formula {
	return formula.Formula{Name: name, Basis: formula.ByWeight, Rows: []formula.Row{{Ingredient: ingredient, Parts: "1"}}}
}

// Brine is water with salt.
func Brine(percent string) formula.Formula {
	return formula.Formula{Name: "brine", Basis: formula.ByWeight, Rows: []formula.Row{
		{Ingredient: "water", Parts: "100 g"}, {Ingredient: "table-salt", Parts: percent},
	}}
}

// Coated is a piece of that trimmed weight with a medium coat, twelve hours before
// the fire.
func Coated(cut, weight string) cook.Piece {
	return cook.Piece{
		Cut: cut, Trimmed: weight,
		Season: cook.Season{
			Formula: HalfAndHalf("kosher-salt", "dense flake", formula.ByVolume),
			Mode:    "coat",
			Coat:    "medium",
		},
		Wait: cook.Wait{For: "12 h"},
	}
}

// Supper is a page for eight in five days, whichever day of the week that is: how long there is
// until serving does not depend on the day of the test.
func Supper(pieces ...cook.Piece) cook.Cook {
	return cook.Cook{
		Name:    "Supper",
		ServeAt: testclock.At(5, "18:30"),
		Zone:    testclock.Zone,
		Guests:  "8",
		Hands:   "2",
		Pieces:  pieces,
	}
}

// Own is a move of the cook's own.
func Own(what, at string) cook.Move { return cook.Move{Key: what, What: what, When: at} }

// Done is a fact: a stage of a piece was done.
func Done(n int, piece, stage, at string) facts.Fact {
	return facts.Fact{
		ID:    fmt.Sprintf("00000000-0000-4000-8000-%012d", n),
		Kind:  facts.Done,
		Piece: piece,
		What:  stage,
		At:    at,
	}
}

// Mix is a mix of anything in any form, with some salt in it.
func Mix(r *rand.Rand, name string) formula.Formula {
	f := formula.Formula{
		Name:  name,
		Basis: Pick(r, []formula.Basis{formula.ByVolume, formula.ByWeight}),
		Rows: []formula.Row{
			{Ingredient: "sea-salt", Form: "fine", Parts: quantity.Number(0.5 + 4*r.Float64())},
		},
	}
	for range r.IntN(6) {
		i := Pick(r, larder.All())
		if i.Kind == "cure" {
			continue
		}
		f.Rows = append(
			f.Rows,
			formula.Row{Ingredient: i.ID, Form: Pick(r, i.Forms).Name, Parts: quantity.Number(0.25 + 3*r.Float64())},
		)
	}
	return f
}

// Piece is a piece as a cook might type it, whatever the cut.
func Piece(r *rand.Rand) cook.Piece {
	c := Pick(r, cut.All())
	kg := c.LowKG + (c.HighKG-c.LowKG)*r.Float64()
	p := cook.Piece{
		Cut: c.ID, Count: quantity.CountOf(1 + r.IntN(6)), Bought: fmt.Sprintf("%.3f kg", kg),
		TrimStyle: Pick(r, []string{"", "light", "usual", "close"}),
		Faces:     Pick(r, []string{"", "all", "one"}),
		Season: cook.Season{
			Formula: Mix(r, "rub"),
			Mode:    Pick(r, []string{"", "coat", "target", "amount"}),
			Amount:  Pick(r, []string{"30 g", "1 Tbsp/lb", "20 g each", "0.8 %"}),
			Target:  "1.6 %",
			Coat:    Pick(r, []string{"", "light", "medium", "heavy", "crust"}),
			Binder:  r.IntN(2) == 0,
			Spare:   Pick(r, []string{"", "0 %", "25 %"}),
			Band:    Pick(r, []string{"", "mild", "seasoned", "bold", "cured"}),
		},
		Wait: cook.Wait{
			Style: Pick(r, []string{"minutes", "overnight", "day"}),
			For:   fmt.Sprintf("%d min", 5+r.IntN(3*24*60)),
			Open:  r.IntN(2) == 0,
		},
	}
	if r.IntN(4) == 0 {
		p.Bath = &cook.Bath{Kind: Pick(r, []string{"strong", "equilibrium"}), Strength: "3 %", Target: "0.5 %", For: "8 h"}
	}
	if r.IntN(4) == 0 {
		p.Inject = &cook.Injection{
			Formula: Bottle("stock", "stock"),
			Pump:    "6 %",
			Amount:  Pick(r, []string{"", "40 mL each", "2 cups"}),
		}
	}
	if r.IntN(3) == 0 {
		p.Layers = []cook.Layer{
			{
				Kind:    Pick(r, []string{"base", "dusting", "wrap", "glaze", "finish"}),
				Formula: Mix(r, "more"),
				Amount:  Pick(r, []string{"0.2 %", "light"}),
			},
		}
	}
	return p
}

// Whole is a page with everything on it, and what has happened.
func Whole(r *rand.Rand) (cook.Cook, facts.Facts) {
	p, q := Piece(r), Piece(r)
	p.Key, q.Key = "a", "b"
	p.Bath = &cook.Bath{
		Kind:     "strong",
		Strength: "3 %",
		For:      "8 h",
		Pot:      "60 L",
		With:     []cook.Dose{{Formula: Bottle("juice", "apple-juice"), Amount: "20 %"}},
	}
	p.Inject = &cook.Injection{Formula: Bottle("stock", "stock"), Pump: "5 %", Avoid: []string{"bone"}}
	p.Layers = []cook.Layer{{Kind: "glaze", Formula: Mix(r, "glaze"), Amount: "light"}}
	p.Choices, p.Grain = map[string]string{"wrap": "foil"}, "20"
	juice := Bottle("juice", "apple-juice")
	p.When = map[string]string{
		"wrap":   Pick(r, []string{"71 °C or 8 h", "colour", "60 °C and bark set"}),
		"spritz": "every 45 min from bark set until the wrap",
	}
	p.Moves = []cook.Move{
		{
			Key:     "m",
			What:    "mop",
			When:    Pick(r, []string{"after 2 h", "every 1 h until 70 °C", "10 min after the wrap"}),
			Formula: &juice,
			Amount:  "60 mL",
		},
		{Key: "o", What: "other", When: "1 h before serving", With: "lay the table"},
		{Key: "g", What: "again", With: Pick(r, move.Ways), For: "25 min", Pit: "140 °C"},
	}
	if r.IntN(2) == 0 {
		p.Bath.Salt = Pick(r, []string{"40 g/L", "none", "1 cup table salt in 8 L"})
	}
	if c, ok := cut.Find(q.Cut); ok && r.IntN(2) == 0 {
		weight := func() string { return fmt.Sprintf("%.3f kg", c.LowKG+(c.HighKG-c.LowKG)*r.Float64()) }
		q.Each = []cook.One{{Bought: weight()}, {Trimmed: weight()}, {Bought: weight()}}
	}
	c := Supper(p, q)
	c.Children, c.Appetite, c.Quiet = "2", "light", "22-6"
	c.Pits = []cook.Pit{
		{Name: "one", Kind: "drum", Room: "20"},
		{Name: "two", Kind: "gas", Sets: Pick(r, []string{"", "110 °C from 08:00, 130 °C once wrapped"})},
	}
	stage := func() string { return Pick(r, facts.Stages) }
	c.Wishes = []cook.Wish{{Piece: "b", Stage: stage(), At: testclock.At(5, "18:00")}}
	f := facts.Facts{
		Done(1, "a", stage(), testclock.At(4, "20:00")),
		Done(
			2,
			Pick(r, []string{"a", "b", "gone"}),
			stage(),
			Pick(r, []string{"2026-01-01T00:00", testclock.At(5, "17:00"), testclock.At(160, "00:00")}),
		),
	}
	return c, f
}

// Nasty is what fields are filled with by mistake, by machines and by malice.
var Nasty = []string{
	"", " ", "-1", "0", "1e999", "NaN", "∞", "½", "1/0", "0/0 kg", "100000000 kg", "\x00", "🔥🔥",
	strings.Repeat("9", 400), "%", "0 %", "-5 %", "1000 %",
	"null", "2 Tbsp", "3 °C", "-300 °C", "kg", "1 h", "99 d", "2026-02-30T25:61", "../../etc", "<script>", "1,2,3 kg",
	"1 kg + 2 L", "inf", "0.0000001 g", "23:00-23:00", "\u202e1 kg",
}

// Spoil puts something nasty into n fields of what v points to, whatever they are.
func Spoil(r *rand.Rand, v any, n int) {
	var fields []reflect.Value
	var look func(v reflect.Value)
	look = func(v reflect.Value) {
		switch v.Kind() {
		case reflect.Pointer:
			if !v.IsNil() {
				look(v.Elem())
			}
		case reflect.Struct:
			for i := range v.NumField() {
				look(v.Field(i))
			}
		case reflect.Slice:
			for i := range v.Len() {
				look(v.Index(i))
			}
		case reflect.String, reflect.Int, reflect.Map:
			fields = append(fields, v)
		}
	}
	look(reflect.ValueOf(v).Elem())
	for range n {
		switch f := Pick(r, fields); f.Kind() {
		case reflect.String:
			f.SetString(Pick(r, Nasty))
		case reflect.Int:
			f.SetInt(Pick(r, []int64{-1, 0, 1, 7, 1 << 40, math.MinInt64}))
		case reflect.Map:
			if f.Type() == reflect.TypeFor[map[string]string]() {
				f.Set(reflect.ValueOf(map[string]string{Pick(r, []string{"wrap", "rest", "x/y~z", ""}): Pick(r, Nasty)}))
			}
		}
	}
}
