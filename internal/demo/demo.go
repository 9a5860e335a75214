// Package demo fills an empty database with the made-up rowing club's cooks, so
// that a newcomer sees the program at work.
package demo

import (
	"context"
	"time"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/sheet"
	"verjuice/internal/store"
)

// Zone is where the Tern Lock Rowing Club cooks.
const Zone = "Europe/Dublin"

// Load puts the demo on record, with the supper on the coming Saturday. A
// database that already holds cooks is left alone.
func Load(ctx context.Context, db *store.Store, now time.Time) error {
	if _, total, err := db.ListCooks(ctx, "", 0, 1); err != nil || total > 0 {
		return err
	}
	for _, c := range cooks(now) {
		if _, err := db.CreateCook(ctx, c); err != nil {
			return err
		}
	}
	return nil
}

func cooks(now time.Time) []sheet.Cook {
	zone, err := time.LoadLocation(Zone)
	if err != nil {
		zone = time.UTC
	}
	supper := sheet.NewCook(now.In(zone), 36)
	supper.Name = "Autumn regatta supper"
	supper.Portion = "180 g"
	supper.Pieces = []sheet.Piece{
		lambShoulders(), chuckRoll(), porkLoin(), chickenLegs(), venison(),
	}
	trial := sheet.Cook{
		Name: "Lamb trial at the boathouse", ServeAt: past(now.In(zone), 23), Zone: Zone, Guests: 8,
		Pieces: []sheet.Piece{lambShoulders()},
	}
	trial.Pieces[0].Count = 1
	launch := sheet.Cook{
		Name: "Launch day, Ines and Odhran", ServeAt: past(now.In(zone), 51), Zone: Zone, Guests: 14,
		Pieces: []sheet.Piece{chickenLegs(), porkLoin()},
	}
	return []sheet.Cook{launch, trial, supper}
}

// past is the evening so many days ago.
func past(now time.Time, days int) string {
	return now.AddDate(0, 0, -days).Format("2006-01-02") + "T19:00"
}

func house(id string) formula.Formula {
	for _, f := range formula.House() {
		if f.ID == id {
			return f
		}
	}
	panic("demo: no formula " + id)
}

func lambShoulders() sheet.Piece {
	return sheet.Piece{
		Cut: "lamb-shoulder-bone-in", Count: 2, Bought: "2.7 kg", Trimmed: "2.4 kg", TrimStyle: "usual", Thickness: "85 mm",
		Season: sheet.Season{Formula: house("fennel-house"), Mode: "coat", Coat: "medium", Band: "seasoned"},
		Wait:   sheet.Wait{Style: "day", For: "31 h", Open: true},
	}
}

func chuckRoll() sheet.Piece {
	return sheet.Piece{
		Label: "Chuck roll, for pulling", Cut: "beef-chuck-roll", Count: 1, Bought: "4.4 kg", TrimStyle: "usual",
		Season: sheet.Season{Formula: house("pepper-heavy"), Mode: "target", Target: "1.1 %", Coat: "heavy", Band: "seasoned"},
		Wait:   sheet.Wait{Style: "day", For: "24 h", Open: false},
	}
}

func porkLoin() sheet.Piece {
	return sheet.Piece{
		Cut: "pork-loin", Count: 1, Bought: "1.8 kg", TrimStyle: "light",
		Season: sheet.Season{Formula: house("boathouse-sweet"), Mode: "coat", Coat: "medium", Binder: true, Band: "seasoned"},
		Wait:   sheet.Wait{Style: "overnight", For: "10 h", Open: true},
		Fire:   sheet.Fire{Pit: "120 °C"},
	}
}

func chickenLegs() sheet.Piece {
	return sheet.Piece{
		Cut: "chicken-leg", Count: 12, Bought: "3.7 kg", Together: true, TrimStyle: "light",
		Season: sheet.Season{Formula: house("lemon-herb"), Mode: "target", Target: "0.9 %", Coat: "light", Band: "seasoned"},
		Wait:   sheet.Wait{Style: "overnight", For: "14 h", Open: true},
	}
}

func venison() sheet.Piece {
	return sheet.Piece{
		Label: "Venison haunch roast", Cut: "venison-haunch", Count: 1, Bought: "2 kg", TrimStyle: "close",
		Season: sheet.Season{Formula: house("juniper-coffee"), Mode: "coat", Coat: "light", Band: "mild"},
		Wait:   sheet.Wait{Style: "overnight", For: "12 h", Open: true},
	}
}
