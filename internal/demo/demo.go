// Package demo fills an empty database with the made-up rowing club's cooks, so
// that a newcomer sees the program at work.
//
//	err := demo.Load(ctx, db, time.Now())
package demo

import (
	"context"
	"fmt"
	"time"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/starter"
	"verjuice/internal/store"
)

// Zone is where the Tern Lock Rowing Club cooks.
const Zone = "Europe/Dublin"

// Load saves the demo, with the supper on the coming Saturday, whole or not at all. A
// database that already holds cooks is left alone. When several programs load it at
// once, it is there once.
func Load(ctx context.Context, db *store.Store, now time.Time) error {
	return db.Alone(ctx, "demo", func(ctx context.Context) error {
		return db.Together(ctx, func(db *store.Store) error { return load(ctx, db, now) })
	})
}

func load(ctx context.Context, db *store.Store, now time.Time) error {
	if _, total, err := db.Cooks().List(ctx, store.Query{Limit: 1}); err != nil || total > 0 {
		return err
	}
	injection, err := loadFormulas(ctx, db)
	if err != nil {
		return err
	}
	if err := loadLarder(ctx, db, now); err != nil {
		return err
	}
	pits, err := loadPits(ctx, db)
	if err != nil {
		return err
	}
	for _, c := range cooks(now, injection, pits) {
		if _, err := db.Cooks().Create(ctx, c); err != nil {
			return err
		}
	}
	return nil
}

// loadFormulas puts the club's own mixes on the bench. One uses another, and one
// has been changed since it was first written. It returns the injection.
func loadFormulas(ctx context.Context, db *store.Store) (formula.Formula, error) {
	var injection formula.Formula
	rub := house("fennel-house")
	rub.Name, rub.Tags, rub.Note = "Regatta lamb rub", []string{"lamb", "regatta"}, "Ines’s: the house rub with less salt."
	first, err := db.Formulas().Create(ctx, rub, field.Because("changed.from", "before", "Fennel house rub"))
	if err != nil {
		return injection, err
	}
	changed := first.Doc
	changed.Rows = append([]formula.Row{}, changed.Rows...)
	changed.Rows[0].Parts = "3"
	if _, err := db.Formulas().Update(ctx, first.ID, first.Version, changed, func(old formula.Formula) []formula.Change {
		return formula.Changes(old, changed, nil)
	}); err != nil {
		return injection, err
	}
	for _, f := range []formula.Formula{
		{
			Name: "Lock-keeper’s injection", Kind: formula.Injection, Basis: formula.ByWeight, Tags: []string{"beef"},
			Note: "Odhran’s, for the chuck roll: stock with the lamb rub steeped in it and strained.",
			Rows: []formula.Row{
				{Ingredient: "stock", Form: "liquid", Parts: "400 g"}, {Ingredient: "worcestershire-type", Form: "liquid",
					Parts: "2 Tbsp"},
				{Formula: first.ID, Parts: "4 %"},
			},
		},
		{
			Name: "Slipway spritz", Kind: formula.Spritz, Basis: formula.ByVolume, Tags: []string{"pork", "regatta"},
			Note: "Two of vinegar to one of juice, every 45 minutes.",
			Rows: []formula.Row{{Ingredient: "cider-vinegar", Form: "liquid", Parts: "2"},
				{Ingredient: "apple-juice", Form: "liquid", Parts: "1"}},
		},
		{
			Name: "Boathouse glaze", Kind: formula.Glaze, Basis: formula.ByVolume, Tags: []string{"pork"},
			Note: "Warm, for the last twenty minutes.",
			Rows: []formula.Row{
				{Ingredient: "honey", Form: "liquid", Parts: "1/2 cup"}, {Ingredient: "ketchup", Form: "liquid", Parts: "1/2 cup"},
				{Ingredient: "cider-vinegar", Form: "liquid", Parts: "2 Tbsp"},
				{Ingredient: "soy-sauce", Form: "liquid", Parts: "1 Tbsp"},
			},
		},
	} {
		r, err := db.Formulas().Create(ctx, f, field.Because("changed.new"))
		if err != nil {
			return injection, err
		}
		if f.Kind == formula.Injection {
			injection = r.Doc
		}
	}
	return injection, nil
}

// loadPits puts the club's pits on record: two of its own, and one that is borrowed.
func loadPits(ctx context.Context, db *store.Store) ([]cook.Pit, error) {
	var out []cook.Pit
	for _, p := range []cook.Pit{{Name: "Pellet cabinet", Kind: "pellet"}, {Name: "Kettle", Kind: "kettle", Room: "24"},
		{Name: "Borrowed offset", Kind: "offset"}} {
		r, err := db.Pits().Create(ctx, p)
		if err != nil {
			return nil, err
		}
		out = append(out, r.Doc)
	}
	return out, nil
}

func cooks(now time.Time, injection formula.Formula, pits []cook.Pit) []cook.Cook {
	zone, err := time.LoadLocation(Zone)
	if err != nil {
		zone = time.UTC
	}
	supper := starter.New(now.In(zone), 36)
	supper.Name = "Autumn regatta supper"
	supper.Portion = "180 g"
	supper.Guests, supper.Children, supper.Appetite, supper.Leftovers, supper.Hands = "34", "4", "hearty", "6", "2"
	supper.Pits = pits
	supper.Pieces = []cook.Piece{
		lambShoulders(), chuckRoll(injection), porkLoin(), chickenLegs(), venison(),
	}
	for i, pit := range []int{0, 0, 2, 1, 2} {
		supper.Pieces[i].Fire.On = pit
	}
	supper.Pieces[1].Choices = map[string]string{"rest": "holder", "slice": "pulled"}
	supper.Pieces[0].Grain, supper.Pieces[4].Grain = "0", "25"
	trial := cook.Cook{
		Name: "Lamb trial at the boathouse", ServeAt: past(now.In(zone), 23), Zone: Zone, Guests: "8",
		Pieces: []cook.Piece{lambShoulders()},
	}
	trial.Pieces[0].Count = "1"
	launch := cook.Cook{
		Name: "Launch day, Ines and Odhran", ServeAt: past(now.In(zone), 51), Zone: Zone, Guests: "14",
		Pieces: []cook.Piece{chickenLegs(), porkLoin()},
	}
	all := []cook.Cook{launch, trial, supper}
	for _, c := range all {
		for i := range c.Pieces {
			c.Pieces[i].Key = fmt.Sprintf("p%d", i+1)
		}
	}
	return all
}

// past is the evening so many days ago.
func past(now time.Time, days int) string {
	return now.AddDate(0, 0, -days).Format("2006-01-02") + "T19:00"
}

func house(id string) formula.Formula {
	for _, f := range formula.ReadyMade() {
		if f.ID == id {
			return f
		}
	}
	panic("demo: no formula " + id)
}

func lambShoulders() cook.Piece {
	return cook.Piece{
		Cut: "lamb-shoulder-bone-in", Count: "2", Bought: "2.7 kg", Trimmed: "2.4 kg", TrimStyle: "usual", Thickness: "85 mm",
		Season: cook.Season{Formula: house("fennel-house"), Mode: "coat", Coat: "medium", Band: "seasoned"},
		Wait:   cook.Wait{Style: "day", For: "31 h", Open: true},
		Moves: []cook.Move{
			{Key: "turn", What: "turn", When: "after 2 h"},
			{Key: "table", What: "other", With: "Lay the long table", When: "1 h before serving"},
		},
	}
}

func chuckRoll(injection formula.Formula) cook.Piece {
	return cook.Piece{
		Label: "Chuck roll, for pulling", Cut: "beef-chuck-roll", Count: "1", Bought: "4.4 kg", TrimStyle: "usual",
		Season: cook.Season{Formula: house("pepper-heavy"), Mode: "target", Target: "1.1 %", Coat: "heavy", Band: "seasoned"},
		Inject: &cook.Injection{Formula: injection, Pump: "8 %", Bore: "3 mm"},
		Wait:   cook.Wait{Style: "day", For: "24 h", Open: false},
	}
}

func porkLoin() cook.Piece {
	return cook.Piece{
		Cut: "pork-loin", Count: "1", Bought: "1.8 kg", TrimStyle: "light",
		Season: cook.Season{Formula: house("boathouse-sweet"), Mode: "coat", Coat: "medium", Binder: true, Band: "seasoned"},
		Wait:   cook.Wait{Style: "overnight", For: "10 h", Open: true},
		Fire:   cook.Fire{Pit: "120 °C"},
	}
}

func chickenLegs() cook.Piece {
	return cook.Piece{
		Cut: "chicken-leg", Count: "12", Bought: "3.7 kg", Together: true, TrimStyle: "light",
		Bath:   &cook.Bath{Kind: "equilibrium", Target: "0.6 %", Pot: "9 L", For: "18 h"},
		Season: cook.Season{Formula: house("lemon-herb"), Mode: "target", Target: "0.9 %", Coat: "light", Band: "seasoned"},
		Wait:   cook.Wait{Style: "overnight", For: "14 h", Open: true},
	}
}

func venison() cook.Piece {
	return cook.Piece{
		Label: "Venison haunch roast", Cut: "venison-haunch", Count: "1", Bought: "2 kg", TrimStyle: "close",
		Season: cook.Season{Formula: house("juniper-coffee"), Mode: "coat", Coat: "light", Band: "mild"},
		Wait:   cook.Wait{Style: "overnight", For: "12 h", Open: true},
	}
}
