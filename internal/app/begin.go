package app

import (
	"cmp"
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
	"verjuice/internal/core/order"
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

// Retell reads a text of how a cook went; nothing is saved. What is wrong with the request is in the field.Errors.
func (a *App) Retell(r retelling.TellRequest) (retelling.Told, field.Errors) { return r.Read(a.Now()) }

// Past puts a past cook into the logbook, as it is told. The error is a field.Errors with pointers into what
// was typed.
func (a *App) Past(ctx context.Context, p starter.Past) (rec store.Record[cook.Cook], err error) {
	on, err := p.Began(a.Now())
	var wrong field.Errors
	if err != nil && !errors.As(err, &wrong) {
		return rec, err
	}
	if on.After(a.Now()) {
		wrong.Add("/on", "on.future")
	}
	told, unknown := a.Retell(p.Telling())
	switch {
	case len(unknown) > 0: // its fields are told of by the page's own mistakes
	case len(told.Asks) > 0 && !p.AsRemarks:
		wrong.Add("/told", "tale.asks")
	case len(told.Acts) == 0:
		wrong.Add("/told", "tale.missing")
	}
	p.ServeAt = ""
	c := p.Became(told)
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
		return tell(ctx, db, rec.ID, retelling.Facts(p.Told, told, c.Pieces[0].Key, on))
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
	in.By = forecast.SingleRun{}
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
func tell(ctx context.Context, db *store.Store, cook string, all []facts.Fact) error {
	for _, f := range all {
		f.ID = uuid.NewString()
		if err := db.AddFact(ctx, cook, f); err != nil {
			return err
		}
	}
	return nil
}

// Retelling is how a piece of a cook that is on record went, as typed.
type Retelling struct {
	Piece     string // its key; empty is the first
	On        string // when it went on, local time or RFC 3339; empty is as it is on record
	Told      string
	AsRemarks bool // what is not clear is put on record as a remark, instead of asked about
}

// Reread reads how a piece of a cook went, in words: what was told of it before is withdrawn, and what the words
// become is put on record instead. The error is a field.Errors, or that of the store.
func (a *App) Reread(ctx context.Context, id string, r Retelling) (retelling.Told, error) {
	in, err := a.Load(ctx, id)
	if err != nil {
		return retelling.Told{}, err
	}
	var wrong field.Errors
	all := retelling.Tellings(in.Cook, in.Facts, order.ServesAt(in.Cook), in.Now)
	i := slices.IndexFunc(all, func(t retelling.Telling) bool { return r.Piece == "" || t.Piece == r.Piece })
	if i < 0 {
		wrong.Add("/told", "tale.pressed")
		return retelling.Told{}, wrong
	}
	of := all[i]
	on := of.On
	if !of.Pressed {
		on = cmp.Or(r.On, on)
	}
	told, wrong := a.Retell(retelling.TellRequest{Cut: of.Cut, On: on, Zone: in.Cook.Zone, Told: r.Told})
	switch {
	case len(wrong) > 0:
		return told, wrong
	case len(told.Asks) > 0 && !r.AsRemarks:
		wrong.Add("/told", "tale.asks")
	case len(told.Acts) == 0:
		wrong.Add("/told", "tale.missing")
	}
	if err := wrong.Err(); err != nil {
		return told, err
	}
	zone, err := time.LoadLocation(in.Cook.Zone)
	if err != nil {
		zone = time.UTC
	}
	began, err := retelling.WentOn(on, zone, a.Now())
	if err != nil {
		return told, err
	}
	return told, a.Store.Together(ctx, func(db *store.Store) error {
		for _, f := range in.Facts.ToldAfterwards(of.Piece) {
			gone := facts.Fact{
				ID: uuid.NewString(), Kind: facts.Withdrawn, What: f.ID, At: a.Now().Format(time.RFC3339), Device: facts.ToldDevice,
			}
			if err := db.AddFact(ctx, id, gone); err != nil {
				return err
			}
		}
		became := retelling.Facts(r.Told, told, of.Piece, began)
		if of.Pressed {
			became = became[1:] // that it went on is on record
		}
		return tell(ctx, db, id, became)
	})
}
