package api

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/cooking"
	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/forecast"
	"verjuice/internal/core/order"
	"verjuice/internal/core/quantity"
	"verjuice/internal/core/retelling"
	"verjuice/internal/core/review"
	"verjuice/internal/core/starter"
	"verjuice/internal/sheet"
	"verjuice/internal/store"
)

// Past is a cook that is over, told afterwards.
type Past struct {
	starter.AtOnce
	Told string `json:"told" maxLength:"4000" doc:"How it went, as its cook tells it" example:"wrapped about four hours in, 165, foil; off at nine hours, 203"`
}

// registerPast takes in cooks that were never planned here, told afterwards.
func (s *server) registerPast(a huma.API) {
	huma.Register(
		a,
		op(http.MethodPost, "/api/past/read", "readPast", "Read how a past cook went as it is told; nothing is saved"),
		func(ctx context.Context, in *struct {
			Measure
			Body Past
		}) (*body[sheet.TaleSheet], error) {
			on, wrong := in.Body.began()
			if wrong != nil {
				return answer(sheet.WriteTale(nil, field.Errors{}, in.reader())), nil
			}
			moves, told := retelling.Read(in.Body.Told, on)
			return answer(sheet.WriteTale(moves, told, in.reader())), nil
		},
	)
	begun := op(http.MethodPost, "/api/past", "writePast", "Put a past cook into the logbook, as it is told")
	begun.DefaultStatus = http.StatusCreated
	huma.Register(a, begun, func(ctx context.Context, in *body[Past]) (*saved[CookRecord], error) {
		p := in.Body
		on, err := p.began()
		var wrong field.Errors
		if err != nil && !errors.As(err, &wrong) {
			return nil, problemOf(err)
		}
		if on.After(s.Now()) {
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
		if err := s.typed.Cooks().Sound(ctx, "", c); err != nil {
			var more field.Errors
			if !errors.As(err, &more) {
				return nil, problemOf(err)
			}
			wrong = append(wrong, placed(p.AtOnce, more)...)
		}
		if err := wrong.Err(); err != nil {
			return nil, problemOf(err)
		}
		var rec store.Record[cook.Cook]
		err = s.Store.Together(ctx, func(db *store.Store) (err error) {
			if rec, err = db.Cooks().Create(ctx, c); err != nil {
				return err
			}
			return tell(ctx, db, rec.ID, c.Pieces[0].Key, on, moves)
		})
		if err != nil {
			return nil, problemOf(err)
		}
		if err := s.sketch(ctx, rec); err != nil {
			return nil, problemOf(err)
		}
		return &saved[CookRecord]{ETag: etag(rec.Version), Body: CookRecord(rec)}, nil
	})
}

// sketch puts a cook that was told into the logbook, as far as that takes no ensemble: the rest is worked
// out, and learnt from, when it is opened.
func (s *server) sketch(ctx context.Context, rec store.Record[cook.Cook]) error {
	said, err := s.Store.Facts(ctx, rec.ID)
	if err != nil {
		return err
	}
	k, err := s.Store.Kitchen(ctx, s.Now(), rec.Doc.Formulas()...)
	if err != nil {
		return err
	}
	result, err := cooking.Work(
		ctx,
		order.Parse(rec.Doc, k),
		said,
		k,
		cooking.Clock{Now: s.Now(), Forecast: forecast.SingleRun{}, Parts: cooking.Seasons | cooking.Depths},
	)
	if err != nil {
		return err
	}
	became, err := review.Sketch(ctx, result)
	if err != nil || len(became.Pieces) == 0 || !became.Sound() {
		return err
	}
	return s.Store.PutOutcome(ctx, rec.ID, store.Told{}, became)
}

// began is when a past cook went on. The error is a field.Errors.
func (p Past) began() (time.Time, error) {
	var wrong field.Errors
	zone, err := time.LoadLocation(p.Zone)
	if err != nil {
		wrong.Add("/zone", "zone.unknown")
		return time.Time{}, wrong
	}
	on, err := facts.Fact{At: p.On}.Time(zone)
	if err != nil || !facts.CanBe(on) {
		wrong.Add("/on", "time.unreadable")
		return time.Time{}, wrong
	}
	return on, nil
}

// tell puts what was told on record.
func tell(ctx context.Context, db *store.Store, cook, key string, on time.Time, moves []retelling.Move) error {
	all := []facts.Fact{{Kind: facts.Done, Piece: key, What: "fire", At: on.Format(time.RFC3339)}}
	var read []facts.Reading
	last := on
	for _, m := range moves {
		at := m.At.Format(time.RFC3339)
		if m.CoreC > 0 {
			read = append(read, facts.Reading{Probe: facts.Probe{Piece: key}.String(), At: m.At, C: quantity.Celsius(m.CoreC)})
		}
		f := facts.Fact{Kind: facts.Done, Piece: key, What: m.What, At: at}
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
	all = append(all, facts.Fact{Kind: facts.Done, What: "over", At: last.Format(time.RFC3339)})
	for _, f := range all {
		f.ID = uuid.NewString()
		if err := db.AddFact(ctx, cook, f); err != nil {
			return err
		}
	}
	if len(read) == 0 {
		return nil
	}
	return db.HandIn(ctx, cook, facts.HandIn{ID: uuid.NewString(), Device: "told"}, read)
}
