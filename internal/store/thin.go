package store

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"maps"
	"slices"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
)

// fresh is how long readings are kept one by one.
const fresh = 24 * time.Hour

// thinned is how many readings are put into minutes in one transaction.
var thinned = 20_000

type minuteModel struct {
	Cook    string `gorm:"primaryKey"`
	Probe   string `gorm:"primaryKey"`
	AtMs    int64  `gorm:"primaryKey"`
	FirstMs int64
	LastMs  int64
	FirstC  float64
	LastC   float64
	LowC    float64
	HighC   float64
	Count   int
}

func (minuteModel) TableName() string { return "minutes" }

func (m minuteModel) minute() facts.Minute {
	c, at := func(v float64) quantity.Celsius { return quantity.Celsius(v) },
		func(ms int64) time.Time { return time.UnixMilli(ms).UTC() }
	return facts.Minute{
		At:      at(m.AtMs),
		First:   c(m.FirstC),
		Last:    c(m.LastC),
		Low:     c(m.LowC),
		High:    c(m.HighC),
		FirstAt: at(m.FirstMs),
		LastAt:  at(m.LastMs),
		Count:   m.Count,
	}
}

func minuteOf(cook, probe string, m facts.Minute) minuteModel {
	return minuteModel{
		cook,
		probe,
		m.At.UnixMilli(),
		m.FirstAt.UnixMilli(),
		m.LastAt.UnixMilli(),
		float64(m.First),
		float64(m.Last),
		float64(m.Low),
		float64(m.High),
		m.Count,
	}
}

// Course is what each probe of a cook showed, minute by minute, and the number of the last reading
// in it that is kept by itself.
func (s *Store) Course(ctx context.Context, cook string) (facts.Course, uint64, error) {
	cook = s.Cooks().known(cook)
	out, last := facts.Course{}, uint64(0)
	err := transaction(ctx, s.db, func(tx *gorm.DB) error { // both as they were at one moment
		clear(out)
		// There are thousands of them: read without the cost of a model for each.
		rows, err := tx.Raw("SELECT probe, at_ms, first_ms, last_ms, first_c, last_c, low_c, high_c, count FROM minutes WHERE cook = ? ORDER BY probe, at_ms", cook).
			Rows()
		if err != nil {
			return err
		}
		defer rows.Close()
		for rows.Next() {
			var m minuteModel
			if err := rows.Scan(&m.Probe, &m.AtMs, &m.FirstMs, &m.LastMs, &m.FirstC, &m.LastC, &m.LowC, &m.HighC,
				&m.Count); err != nil {
				return err
			}
			out[m.Probe] = append(out[m.Probe], m.minute())
		}
		if err := rows.Err(); err != nil {
			return err
		}
		_ = rows.Close() // before the next question
		read, err := (&Store{db: tx, kitchens: s.kitchens}).Readings(ctx, cook, 0, 0)
		for _, r := range read {
			out.Add(r.Reading)
			last = r.Seq
		}
		return err
	})
	return out, last, err
}

// Thin puts readings that were handed in over a day before now into minutes, in which each of them
// still counts. What was handed in stays known by its id. It goes through them batch by batch, each in a
// transaction of its own: what is done stays done, and a batch that cannot be is told in the error and
// does not keep the others.
func (s *Store) Thin(ctx context.Context, now time.Time) error {
	var failed []error
	db := s.Patient().db
	for after := uint64(0); ; {
		n, last := 0, after
		err := transaction(ctx, db, func(tx *gorm.DB) error {
			var rows []readingModel
			if err := tx.Where("seq > ?", after).Order("seq").Limit(thinned).Find(&rows).Error; err != nil || len(rows) == 0 {
				n = 0
				return err
			}
			n, last = len(rows), rows[len(rows)-1].Seq
			rows, err := past(tx, rows, now.Add(-fresh))
			if err != nil || len(rows) == 0 {
				return err
			}
			return thin(tx, rows)
		})
		if err != nil && n > 0 {
			failed = append(failed, fmt.Errorf("readings %d to %d: %w", after+1, last, err))
		}
		switch {
		case ctx.Err() != nil:
			return errors.Join(append(failed, ctx.Err())...)
		case n == 0 || Away(err):
			return errors.Join(append(failed, err)...)
		}
		after = last
	}
}

// past are those of some readings that were handed in before a time.
func past(tx *gorm.DB, rows []readingModel, before time.Time) ([]readingModel, error) {
	of := map[string]bool{}
	for _, r := range rows {
		of[r.HandIn] = false
	}
	var old []string
	for ids := range slices.Chunk(slices.Collect(maps.Keys(of)), 2000) {
		var some []string
		if err := tx.Model(&handInModel{}).Where("id IN ? AND created_at < ?", ids, before).Pluck("id",
			&some).Error; err != nil {
			return nil, err
		}
		old = append(old, some...)
	}
	for _, id := range old {
		of[id] = true
	}
	return slices.DeleteFunc(rows, func(r readingModel) bool { return !of[r.HandIn] }), nil
}

// errThinned is that somebody else has put some of the readings into minutes meanwhile.
var errThinned = errors.New("readings were put into minutes twice at once")

// thin puts these readings into minutes.
func thin(tx *gorm.DB, rows []readingModel) error {
	cooks, seqs := map[string]facts.Course{}, make([]uint64, len(rows))
	for i, r := range rows {
		if cooks[r.Cook] == nil {
			cooks[r.Cook] = facts.Course{}
		}
		cooks[r.Cook].Add(facts.Reading{Probe: r.Probe, At: time.UnixMilli(r.AtMs).UTC(), C: quantity.Celsius(r.Celsius)})
		seqs[i] = r.Seq
	}
	var all []minuteModel
	for cook, course := range cooks {
		for probe, minutes := range course {
			from, to := minutes[0].At.UnixMilli(), minutes[len(minutes)-1].At.UnixMilli()
			var there []minuteModel
			if err := tx.Where("cook = ? AND probe = ? AND at_ms BETWEEN ? AND ?", cook, probe, from,
				to).Find(&there).Error; err != nil {
				return err
			}
			before := map[int64]facts.Minute{}
			for _, m := range there {
				before[m.AtMs] = m.minute()
			}
			for _, m := range minutes {
				if was, ok := before[m.At.UnixMilli()]; ok {
					m = was.With(m)
				}
				all = append(all, minuteOf(cook, probe, m))
			}
		}
	}
	for len(all) > 0 {
		n := min(500, len(all))
		if err := tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(all[:n]).Error; err != nil {
			return err
		}
		all = all[n:]
	}
	for len(seqs) > 0 {
		n := min(2000, len(seqs))
		switch done := tx.Delete(&readingModel{}, seqs[:n]); {
		case done.Error != nil:
			return done.Error
		case done.RowsAffected != int64(n):
			return errThinned // nothing is counted twice
		}
		seqs = seqs[n:]
	}
	return nil
}

// Tidy thins readings every hour until the context ends, one program at a time.
func (s *Store) Tidy(ctx context.Context, now func() time.Time) {
	for {
		err := s.Alone(ctx, "thin", func(ctx context.Context) error { return s.Thin(ctx, now()) })
		if err != nil && ctx.Err() == nil {
			slog.Error(
				"readings could not be put into minutes; it is tried again in an hour, and at the next start",
				"error",
				err,
			)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(time.Hour):
		}
	}
}
