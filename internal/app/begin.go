package app

import (
	"context"
	"errors"
	"slices"
	"time"

	"github.com/google/uuid"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/retelling"
	"verjuice/internal/core/review"
	"verjuice/internal/core/starter"
	"verjuice/internal/store"
)

// Begin puts a cook on record with a piece that is on its fire already. The error is a field.Errors with
// pointers into what was typed.
func (a *App) Begin(ctx context.Context, typed starter.AtOnce) (rec store.Record[cook.Cook], err error) {
	on, err := typed.WentOn(a.Now())
	if err != nil {
		return rec, err
	}
	c := typed.Cook()
	err = a.typed.Together(ctx, func(db *store.Store) (err error) {
		if rec, err = db.Cooks().Create(ctx, c); err != nil {
			return err
		}
		return db.AddFact(ctx, rec.ID, wentOn(c.Pieces[0].Key, on))
	})
	var wrong field.Errors
	if errors.As(err, &wrong) {
		err = placed(typed, wrong)
	}
	return rec, err
}

func wentOn(key string, at time.Time) facts.Fact {
	return facts.Fact{ID: uuid.NewString(), Kind: facts.Done, Piece: key, What: "fire", At: at.Format(time.RFC3339)}
}

// placed are the mistakes of a cook where they were typed.
func placed(typed starter.AtOnce, wrong field.Errors) field.Errors {
	var out field.Errors
	for _, e := range wrong {
		e.Pointer = typed.Place(e.Pointer)
		same := func(o field.Error) bool { return o.Pointer == e.Pointer }
		if !slices.ContainsFunc(out, same) { // the weight stands for two
			out = append(out, e)
		}
	}
	return out
}

// Retell reads how a past cook went as it is told; nothing is saved. What cannot be read of it is in the
// field.Errors.
func Retell(p starter.Past) ([]retelling.Move, field.Errors) {
	on, err := p.Began()
	if err != nil {
		return nil, field.Errors{}
	}
	return retelling.Read(p.Told, on)
}

// Past puts a past cook into the logbook, as it is told. The error is a field.Errors with pointers into what
// was typed.
func (a *App) Past(ctx context.Context, p starter.Past) (rec store.Record[cook.Cook], err error) {
	on, err := p.Began()
	var wrong field.Errors
	if err != nil && !errors.As(err, &wrong) {
		return rec, err
	}
	if on.After(a.Now()) {
		wrong.Add("/on", "on.future")
	}
	moves, told := retelling.Read(p.Told, on)
	for _, e := range told {
		e.Pointer = "/told"
		wrong = append(wrong, e)
		break // one line under the field says what to put right first
	}
	p.ServeAt = ""
	c := p.Cook()
	if err := a.typed.Cooks().Sound(ctx, "", c); err != nil {
		var more field.Errors
		if !errors.As(err, &more) {
			return rec, err
		}
		wrong = append(wrong, placed(p.AtOnce, more)...)
	}
	if err := wrong.Err(); err != nil {
		return rec, err
	}
	err = a.Store.Together(ctx, func(db *store.Store) (err error) {
		if rec, err = db.Cooks().Create(ctx, c); err != nil {
			return err
		}
		return tell(ctx, db, rec.ID, c.Pieces[0].Key, on, moves)
	})
	if err != nil {
		return rec, err
	}
	return rec, a.sketch(ctx, rec.ID)
}

// sketch puts a cook that was told into the logbook, as far as that takes no ensemble: the rest is worked
// out, and learnt from, when it is opened.
func (a *App) sketch(ctx context.Context, id string) error {
	in, err := a.Load(ctx, id)
	if err != nil {
		return err
	}
	in.By, in.Saved = forecast.SingleRun{}, ""
	result, err := in.parts(ctx, cooking.Seasons|cooking.Depths)
	if err != nil {
		return err
	}
	became, err := review.Sketch(ctx, result)
	if err != nil || len(became.Pieces) == 0 || !became.Sound() {
		return err
	}
	return a.Store.PutOutcome(ctx, id, store.Told{}, became)
}

// tell puts what was told on record.
func tell(ctx context.Context, db *store.Store, cook, key string, on time.Time, moves []retelling.Move) error {
	all := []facts.Fact{wentOn(key, on)}
	var read []facts.Reading
	last := on
	for _, m := range moves {
		at := m.At.Format(time.RFC3339)
		if m.CoreC > 0 {
			read = append(read, facts.Reading{Probe: facts.Probe{Piece: key}.String(), At: m.At, C: quantity.Celsius(m.CoreC)})
		}
		f := facts.Fact{ID: uuid.NewString(), Kind: facts.Done, Piece: key, What: m.What, At: at}
		switch m.What {
		case "read":
			continue
		case "set":
			f.Piece, f.Values = "", field.Values{"pit": 0.0, "c": m.SetC}
		case "wood", "fuel":
			f.Piece, f.Values = "", field.Values{"pit": 0.0}
		case "wrap":
			f.Values = field.Values{"kind": m.Kind}
		}
		all = append(all, f)
		last = m.At
	}
	all = append(all, facts.Fact{ID: uuid.NewString(), Kind: facts.Done, What: "over", At: last.Format(time.RFC3339)})
	for _, f := range all {
		if err := db.AddFact(ctx, cook, f); err != nil {
			return err
		}
	}
	if len(read) == 0 {
		return nil
	}
	return db.HandIn(ctx, cook, facts.HandIn{ID: uuid.NewString(), Device: "told"}, read)
}
