package demo

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"time"

	"github.com/google/uuid"

	"verjuice/internal/app"
	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/gear"
	"verjuice/internal/core/heat"
	"verjuice/internal/core/meal"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/instrument"
	"verjuice/internal/practice"
	"verjuice/internal/store"
)

// pastCook is a cook of the club's that is over.
type pastCook struct {
	days   int // ago
	name   string
	piece  func() cook.Piece
	weight string // as bought; empty is that of the piece
	pit    int
	guess  string
	wrap   string  // empty is none
	at     float64 // core at which it was wrapped, °C
	scores [5]int  // of facts.Aspects
	note   string
	kept   float64 // share of the meat that was kept and frozen
}

// logbook are the club's cooks of the last year, the latest first.
var logbook = []pastCook{
	{
		9,
		"Lamb for the committee",
		lambShoulders,
		"",
		0,
		"7 h",
		"foil",
		74,
		[5]int{3, 3, 4, 4, 3},
		"Wrapped too early: the bark was still soft.",
		0.35,
	},
	{16, "Sunday loin", porkLoin, "", 2, "2 h", "", 0, [5]int{3, 4, 4, 3, 4}, "", 0},
	{30, "Crew chicken", chickenLegs, "", 1, "1 h 15", "", 0, [5]int{2, 4, 4, 4, 3}, "A little more salt in the bath.", 0},
	{37, "Chuck roll, first try", pulledRoll, "", 0, "10 h", "paper", 71, [5]int{3, 5, 4, 4, 4}, "", 0},
	{44, "Venison for the coaches", venison, "", 2, "1 h 30", "", 0, [5]int{2, 3, 5, 4, 4}, "Off at 55, not 57.", 0},
	{
		65,
		"Lamb, unwrapped",
		lambShoulders,
		"",
		0,
		"8 h",
		"",
		0,
		[5]int{3, 5, 4, 3, 5},
		"A firm bark; no wrap is needed for lamb.",
		0,
	},
	{
		79,
		"Loin on the offset again",
		porkLoin,
		"2.1 kg",
		2,
		"2 h 15",
		"",
		0,
		[5]int{4, 4, 3, 3, 5},
		"Too much rub for a loin.",
		0,
	},
	{93, "Summer head race", pulledRoll, "5.2 kg", 0, "11 h", "foil", 72, [5]int{3, 3, 5, 5, 3}, "", 0},
	{107, "Chicken for the juniors", chickenLegs, "", 1, "1 h", "", 0, [5]int{3, 4, 4, 4, 2}, "", 0},
	{121, "Lamb for the boat naming", lambShoulders, "3.1 kg", 0, "8 h", "paper", 72, [5]int{3, 4, 5, 4, 4},
		"It took far longer than we said.", 0},
	{149, "Venison, second haunch", venison, "1.6 kg", 2, "1 h 15", "", 0, [5]int{3, 3, 4, 3, 4}, "", 0},
	{
		170,
		"Winter training supper",
		pulledRoll,
		"4.0 kg",
		0,
		"9 h",
		"foil",
		70,
		[5]int{4, 3, 4, 5, 3},
		"Less salt: it was on the edge.",
		0,
	},
	{198, "Loin, first on the kettle", porkLoin, "", 1, "2 h", "", 0, [5]int{3, 3, 3, 3, 3}, "", 0},
}

// hidden is what is true of the club's pits, the same at every cook.
const hidden = 60

// LoadLogbook adds the cooks that are over, and one that is in its stall now, to a database that Load
// has filled: each went as the simulated pits and thermometers have it. One that has them is left
// alone.
func LoadLogbook(ctx context.Context, db *store.Store, now time.Time) error {
	return db.Alone(ctx, "demo-logbook", func(ctx context.Context) error {
		if _, total, err := db.Logbook(ctx, store.Sought{Limit: 1}); err != nil || total > 0 {
			return err
		}
		return db.Together(ctx, func(db *store.Store) error { return loadLogbook(ctx, db, now) })
	})
}

func loadLogbook(ctx context.Context, db *store.Store, now time.Time) error {
	rec, _, err := db.Pits().List(ctx, store.Query{})
	if err != nil {
		return err
	}
	pits := make([]cook.Pit, 3)
	for _, p := range rec {
		for i, name := range []string{"Pellet cabinet", "Kettle", "Borrowed offset"} {
			if p.Doc.Name == name {
				pits[i] = p.Doc
			}
		}
	}
	for i, p := range logbook {
		if err := p.load(ctx, db, now, pits, uint64(i+1)); err != nil {
			return fmt.Errorf("%s: %w", p.name, err)
		}
	}
	if _, err := db.Learn(ctx, nil); err != nil {
		return err
	}
	if err := loadMeal(ctx, db, now); err != nil {
		return err
	}
	return loadLive(ctx, db, now, pits)
}

// loadMeal plans a lunch on the day after tomorrow from what was kept of the latest lamb.
func loadMeal(ctx context.Context, db *store.Store, now time.Time) error {
	kept, _, err := db.Logbook(ctx, store.Sought{Limit: 1})
	if err != nil || len(kept) == 0 {
		return err
	}
	_, err = db.Meals().Create(ctx, meal.Meal{
		Name: "Crew lunch", ServeAt: now.AddDate(0, 0, 2).Format(time.DateOnly) + "T13:00", Zone: Zone,
		Items: []meal.Item{
			{
				Key:   "a",
				Cook:  kept[0].Cook,
				Piece: "p1",
				Title: "Pulled lamb",
				Form:  "pulled",
				Kept:  "freezer",
				Dish:  "flatbread",
				For:   "4",
			},
			{Key: "b", Title: "Chicken legs", Form: "pieces", Kept: "freezer", Weight: "1.2 kg"},
		},
	})
	return err
}

// saturday is the last one up to a day.
func saturday(day time.Time) time.Time {
	return day.AddDate(0, 0, -(int(day.Weekday())+1)%7)
}

// typed is the page of a past cook.
func (p pastCook) typed(now time.Time, pits []cook.Pit) cook.Cook {
	one := p.piece()
	one.Key, one.Count, one.Fire.Guess, one.Fire.On = "p1", "1", p.guess, p.pit
	if one.Together {
		one.Count = "12"
	}
	if p.weight != "" {
		one.Bought, one.Trimmed, one.Thickness = p.weight, "", ""
	}
	one.Moves = nil
	if p.wrap != "" {
		one.Choices = map[string]string{"wrap": p.wrap}
	}
	return cook.Cook{
		Name:    p.name,
		ServeAt: saturday(now.AddDate(0, 0, -p.days)).Format(time.DateOnly) + "T18:30",
		Zone:    Zone,
		Guests:  "10",
		Pits:    pits,
		Pieces:  []cook.Piece{one},
	}
}

// load cooks a past cook on its simulated pit and puts it on record.
func (p pastCook) load(ctx context.Context, db *store.Store, now time.Time, pits []cook.Pit, seed uint64) error {
	zone, err := time.LoadLocation(Zone)
	if err != nil {
		zone = time.UTC
	}
	c := p.typed(now.In(zone), pits)
	rec, err := db.Cooks().Create(ctx, c)
	if err != nil {
		return err
	}
	k, err := db.Kitchen(ctx, now, c.Formulas()...)
	if err != nil {
		return err
	}
	o := order.Parse(c, k)
	run := p.simulated(o, seed)
	for n := uint64(1); run.hours() > patienceH; n++ { // nobody would have stood there so long
		run = p.simulated(o, seed+100*n)
	}
	serve := o.Serving.Value.At
	r := rand.New(rand.NewPCG(seed, 2))
	rest := time.Duration(min(90, 20+int(8*run.hours()))) * time.Minute
	slack := time.Duration(-25+int(60*r.Float64())) * time.Minute // nobody is on time
	on := serve.Add(-rest - slack - time.Duration(run.hours()*float64(time.Hour))).Truncate(time.Minute)
	all := p.happened(o, run, on, serve, rest, r)
	read := run.readings(on, p.pit)
	if err := db.HandIn(ctx, rec.ID, facts.HandIn{ID: uuid.NewString(), Device: "simulated"}, read); err != nil {
		return err
	}
	for _, f := range all {
		f.ID, f.Author = uuid.NewString(), []string{"Ines", "Odhran"}[r.IntN(2)]
		if err := db.AddFact(ctx, rec.ID, f); err != nil {
			return err
		}
	}
	course := facts.Course{}
	course.Add(read...)
	went, err := app.Inputs{
		CookRequest: cooking.CookRequest{Cook: c, Facts: all}, ID: rec.ID,
		Kitchen: k, Now: serve.Add(8 * time.Hour), Course: course,
	}.Review(ctx)
	if err != nil {
		return err
	}
	told, err := db.Told(ctx, rec.ID)
	if err != nil {
		return err
	}
	return db.PutOutcome(ctx, rec.ID, told, went.Outcome)
}

// burnt is how a piece went on its simulated pit, minute by minute.
type burnt struct {
	core, pit []float64
	wrapped   int // minute at which it was wrapped; −1 for never
}

func (b burnt) hours() float64 { return float64(len(b.core)) / 60 }

// patienceH is how long the club stands by a pit, h, and longest how long a piece is followed, min.
const (
	patienceH = 14.5
	longest   = 22 * 60
)

// simulated cooks the piece of an order on its simulated pit.
func (p pastCook) simulated(o order.Order, seed uint64) burnt {
	line := o.Lines[0]
	meat := line.Meat.Value
	on, _ := order.FindMove(line.Sound(), order.On)
	pit, _ := gear.FindPit(o.Cook.Pits[p.pit].Kind)
	fire := instrument.NewFire(meat.Cut, meat.Geometry, pit.Heat.Convect, 4,
		seed^forecast.Seed("logbook")).
		OnPit(hidden + uint64(p.pit))
	out := burnt{wrapped: -1}
	noise := rand.New(rand.NewPCG(seed, 1))
	for minute := 0; minute < longest && fire.True() < meat.Cut.DoneC(); minute++ {
		if p.wrap != "" && out.wrapped < 0 && fire.Core() >= p.at {
			out.wrapped = minute
		}
		if minute > 100 && minute%75 == 0 {
			fire.Lift(heat.Mild)
		}
		fire.Run(instrument.Setting{SetC: float64(on.Set), AirC: heat.Mild, Wrapped: out.wrapped >= 0}, 1)
		out.core = append(out.core, fire.Core()+0.15*noise.NormFloat64())
		out.pit = append(out.pit, fire.Pit()+0.6*noise.NormFloat64())
	}
	return out
}

// readings are what the thermometers showed.
func (b burnt) readings(on time.Time, pit int) []facts.Reading {
	var out []facts.Reading
	for i := range b.core {
		at := on.Add(time.Duration(i+1) * time.Minute)
		out = append(out, facts.Reading{Probe: "core:p1", At: at, C: quantity.Celsius(math.Round(10*b.core[i]) / 10)},
			facts.Reading{Probe: facts.Probe{Pit: pit}.String(), At: at, C: quantity.Celsius(math.Round(10*b.pit[i]) / 10)})
	}
	return out
}

// happened is what was pressed, weighed and scored.
func (p pastCook) happened(
	o order.Order,
	run burnt,
	on, serve time.Time,
	rest time.Duration,
	r *rand.Rand,
) facts.Facts {
	off := on.Add(time.Duration(len(run.core)) * time.Minute)
	at := func(t time.Time) string { return t.Format(time.RFC3339) }
	pit := field.Values{"pit": float64(p.pit)}
	out := facts.Facts{
		{Kind: facts.Done, What: "light", At: at(on.Add(-30 * time.Minute)), Values: pit},
		{Kind: facts.Done, Piece: "p1", What: "fire", At: at(on)},
	}
	for m := 150; m < len(run.core); m += 75 {
		out = append(
			out,
			facts.Fact{Kind: facts.Done, Piece: "p1", What: "look", At: at(on.Add(time.Duration(m) * time.Minute))},
		)
	}
	if run.wrapped >= 0 {
		out = append(
			out,
			facts.Fact{
				Kind:   facts.Done,
				Piece:  "p1",
				What:   "wrap",
				At:     at(on.Add(time.Duration(run.wrapped) * time.Minute)),
				Values: field.Values{"kind": p.wrap},
			},
		)
	}
	out = append(
		out,
		facts.Fact{
			Kind:  facts.Done,
			Piece: "p1",
			What:  "off",
			At:    at(off),
		},
		facts.Fact{Kind: facts.Done, Piece: "p1", What: "rest", At: at(off.Add(5 * time.Minute))},
		facts.Fact{Kind: facts.Done, Piece: "p1", What: "slice", At: at(off.Add(rest))},
	)
	late := at(serve.Add(2 * time.Hour))
	weigh := func(what string, kg float64) {
		out = append(
			out,
			facts.Fact{
				Kind:   facts.Weighed,
				Piece:  "p1",
				What:   what,
				At:     late,
				Values: field.Values{"typed": quantity.FormatMass(quantity.Mass(kg), quantity.Metric)},
			},
		)
	}
	meat := o.Lines[0].Meat.Value
	green := meat.Green.Mid.KG() * float64(meat.Count)
	bones := green * meat.Cut.BoneShare()
	served := green * (1 - meat.Cut.BoneShare()) * meat.Cut.CookYield.Mid / 100 * math.Exp(-0.04+0.04*r.NormFloat64())
	weigh("cooked", served+bones)
	if bones > 0.05 {
		weigh("bones", bones)
	}
	if p.kept > 0 {
		weigh("kept", p.kept*served)
		sliced := off.Add(rest)
		out = append(
			out,
			facts.Fact{Kind: facts.Done, Piece: "p1", What: "chill", At: at(sliced.Add(time.Hour))},
			facts.Fact{Kind: facts.Done, Piece: "p1", What: "cold", At: at(sliced.Add(5 * time.Hour))},
		)
	}
	for i, aspect := range facts.Aspects {
		out = append(
			out,
			facts.Fact{
				Kind:   facts.Scored,
				Piece:  "p1",
				What:   aspect,
				At:     late,
				Values: field.Values{"score": float64(p.scores[i])},
			},
		)
	}
	if p.note != "" {
		out = append(out, facts.Fact{Kind: facts.Noted, Piece: "p1", What: p.note, At: late})
	}
	return append(out, facts.Fact{Kind: facts.Done, What: "over", At: late})
}

// pulledRoll is the chuck roll without its injection.
func pulledRoll() cook.Piece {
	p := cook.Piece{
		Label: "Chuck roll, for pulling", Cut: "beef-chuck-roll", Count: "1", Bought: "4.4 kg", TrimStyle: "usual",
		Season: cook.Season{Formula: house("pepper-heavy"), Mode: "target", Target: "1.0 %", Coat: "heavy", Band: "seasoned"},
		Wait:   cook.Wait{Style: "overnight", For: "12 h"},
	}
	return p
}

// stalled is how long the piece has been on that is in its stall when the demo begins.
const stalled = 6 * time.Hour

// loadLive puts a chuck roll on that is in its stall now: its pit and thermometers are simulated,
// by the clock on the wall.
func loadLive(ctx context.Context, db *store.Store, now time.Time, pits []cook.Pit) error {
	zone, err := time.LoadLocation(Zone)
	if err != nil {
		zone = time.UTC
	}
	one := pulledRoll()
	one.Key = "p1"
	one.Choices, one.When = map[string]string{"wrap": "paper"}, map[string]string{"wrap": "76 °C"}
	serve := now.In(zone).Add(9 * time.Hour).Truncate(30 * time.Minute)
	rec, err := db.Cooks().Create(ctx, cook.Cook{
		Name: "Boathouse crew", ServeAt: serve.Format(cook.TimeLayout), Zone: Zone, Guests: "12", Quiet: "none",
		Pits: pits[:1], Pieces: []cook.Piece{one},
	})
	if err != nil {
		return err
	}
	on := now.Add(-stalled).Truncate(time.Minute)
	clock := store.Clock{Began: on, At: on, Speed: 1, Seed: hidden, Running: true}
	if err := db.SetClock(ctx, rec.ID, clock); err != nil {
		return err
	}
	for _, f := range []facts.Fact{
		{Kind: facts.Done, What: "light", At: on.Add(-40 * time.Minute).Format(time.RFC3339), Author: "Odhran",
			Values: field.Values{"pit": 0.0}},
		{Kind: facts.Done, Piece: "p1", What: "fire", At: on.Format(time.RFC3339), Author: "Ines"},
		{Kind: facts.Done, Piece: "p1", What: "look", At: on.Add(3 * time.Hour).Format(time.RFC3339), Author: "Odhran"},
		{Kind: facts.Seen, Piece: "p1", What: "colour", At: on.Add(5 * time.Hour).Format(time.RFC3339), Author: "Ines",
			Values: field.Values{"how": "red-brown"}},
	} {
		f.ID = uuid.NewString()
		if err := db.AddFact(ctx, rec.ID, f); err != nil {
			return err
		}
	}
	return practice.CatchUp(ctx, db, rec.ID, clock, now)
}
