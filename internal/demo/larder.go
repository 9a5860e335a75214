package demo

import (
	"context"
	"time"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
	"verjuice/internal/store"
)

// things are the club's prices and stock.
var things = []store.Thing{
	{Thing: "kosher-salt", Price: "€3.40 for 1 kg", Stock: "600 g"},
	{Thing: "sea-salt", Price: "€2.10 for 500 g", Stock: "200 g"},
	{Thing: "black-pepper", Price: "€14.50 for 500 g", Stock: "120 g"},
	{Thing: "brown-sugar", Price: "€1.90 for 500 g", Stock: "500 g"},
	{Thing: "paprika", Price: "€6.20 for 250 g", Stock: "90 g"},
	{Thing: "garlic", Price: "€7.80 for 400 g", Stock: "150 g"},
	{Thing: "fennel-seed", Price: "€5.60 for 250 g"},
	{Thing: "mustard", Price: "€4.10 for 200 g"},
	{Thing: "rosemary", Price: "€3.30 for 50 g"},
	{Thing: "stock", Price: "€2.40 for 1 L"},
	{Thing: "cider-vinegar", Price: "€2.20 for 500 mL", Stock: "300 mL"},
	{Thing: "apple-juice", Price: "€1.80 per L"},
	{Thing: "lamb-shoulder-bone-in", Price: "€13.50/kg"},
	{Thing: "beef-chuck-roll", Price: "€11.80/kg"},
	{Thing: "pork-loin", Price: "€9.40/kg"},
	{Thing: "chicken-leg", Price: "€4.60/kg"},
	{Thing: "venison-haunch", Price: "€21.00/kg"},
	{Thing: "pellets", Price: "€16.50 for 15 kg", Stock: "6 kg"},
	{Thing: "charcoal", Price: "€14.00 for 10 kg"},
	{Thing: "split-wood", Price: "€0.60/kg"},
	{Thing: "foil", Price: "€6.90 for 30 m"},
	{Thing: "paper", Price: "€18.00 for 45 m"},
	{Thing: "wood-oak", Price: "€9.00 for 3 kg"},
	{Thing: "wood-fruit", Price: "€9.00 for 3 kg"},
}

// loadLarder fills the club's larder: prices, a rub known only by its label, and
// two jars, one of them past its time.
func loadLarder(ctx context.Context, db *store.Store, now time.Time) error {
	for _, t := range things {
		if err := db.PutThing(ctx, t); err != nil {
			return err
		}
	}
	bought := larder.Own{Name: "The red jar", Salt: "31 %", Sugar: "22 %", Allergens: []string{"celery"}}
	if _, err := db.Ingredients().Create(ctx, bought); err != nil {
		return err
	}
	list, _, err := db.Formulas().List(ctx, store.Query{})
	if err != nil {
		return err
	}
	day := func(ago int) string { return now.AddDate(0, 0, -ago).Format("2006-01-02") }
	for _, f := range list {
		switch {
		case f.Doc.Name == "Regatta lamb rub":
			_, err = db.Jars().Create(ctx, formula.Jar{
				Formula: f.Doc, Made: day(26), Amount: "320 g",
				Draws: []formula.Draw{{Amount: "74 g", For: "Lamb trial at the boathouse", Day: day(24)}},
			})
		case f.Doc.Kind == formula.Spritz:
			_, err = db.Jars().Create(ctx, formula.Jar{Formula: f.Doc, Made: day(19), Amount: "500 mL",
				Draws: []formula.Draw{{Amount: "180 mL", For: "Launch day", Day: day(18)}}})
		}
		if err != nil {
			return err
		}
	}
	_, err = db.Jars().Create(ctx, formula.Jar{Formula: house("boathouse-sweet"), Made: day(9), Amount: "400 g"})
	return err
}
