package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"time"

	"gorm.io/gorm"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/field"
	"verjuice/internal/core/logbook"
)

// The lines of a book that is carried away, by what they are. Times are RFC 3339 in UTC.
type (
	// CarriedRecord is a cook, a formula or another record.
	CarriedRecord struct {
		ID      string          `json:"id"`
		Kind    string          `json:"kind"`
		Version uint            `json:"version"`
		Created time.Time       `json:"created"`
		Updated time.Time       `json:"updated"`
		Deleted *time.Time      `json:"deleted,omitempty"`
		Doc     json.RawMessage `json:"doc"`
	}
	// CarriedVersion is a record as it was at one time.
	CarriedVersion struct {
		Record  string          `json:"record"`
		Version uint            `json:"version"`
		Saved   time.Time       `json:"saved"`
		Changes json.RawMessage `json:"changes"`
		Doc     json.RawMessage `json:"doc"`
	}
	// CarriedFact is something that happened at a cook.
	CarriedFact struct {
		Cook string     `json:"cook"`
		Said time.Time  `json:"said"`
		Fact facts.Fact `json:"fact"`
	}
	// CarriedHandIn is readings that came together.
	CarriedHandIn struct {
		ID     string    `json:"id"`
		Cook   string    `json:"cook"`
		Device string    `json:"device"`
		Digest string    `json:"digest"`
		Count  int       `json:"count"`
		Came   time.Time `json:"came"`
	}
	// CarriedReading is a reading of it.
	CarriedReading struct {
		Cook, HandIn, Probe string
		AtMs                int64
		C                   float64
	}
	// CarriedMinute is what a probe showed in a minute, of readings that are over a day old.
	CarriedMinute struct {
		Cook, Probe            string
		AtMs, FirstMs, LastMs  int64
		First, Last, Low, High float64
		Count                  int
	}
	// CarriedClock is the clock of a cook that was practised.
	CarriedClock struct {
		Cook  string  `json:"cook"`
		Began int64   `json:"began_ms"`
		At    int64   `json:"cook_ms"`
		Speed float64 `json:"speed"`
		Seed  uint64  `json:"seed"`
	}
	// CarriedOutcome is what became of a cook.
	CarriedOutcome struct {
		Cook    string          `json:"cook"`
		Told    string          `json:"told"`
		Updated time.Time       `json:"updated"`
		Outcome logbook.Outcome `json:"outcome"`
	}
	// CarriedPhoto is a photograph; its picture is a file of its own.
	CarriedPhoto struct {
		Cook    string     `json:"cook"`
		Piece   string     `json:"piece"`
		Note    string     `json:"note"`
		Width   int        `json:"width"`
		Height  int        `json:"height"`
		Created time.Time  `json:"created"`
		Deleted *time.Time `json:"deleted,omitempty"`
		SHA256  string     `json:"sha256"`
		Data    []byte     `json:"-"`
	}
)

// carriedKind is how a record of a kind is read from a book, written as it would be saved now, and checked.
type carriedKind struct {
	read  func(id string, version uint, body string) (row, error)
	sound func(ctx context.Context, id, body string, has kitchens) error
}

// carries are the kinds of records, each read and written as what it is.
func (s *Store) carries() map[string]carriedKind {
	return map[string]carriedKind{
		"cook": carrying(
			s.Cooks(),
		), "formula": carrying(s.Formulas().Records), "jar": carrying(s.Jars()), "ingredient": carrying(s.Ingredients()),
		"pit": carrying(
			s.Pits(),
		), "method": carrying(s.Methods()), "meal": carrying(s.Meals()), "thing": carrying(s.things()),
		"lessons": carrying(s.lessons()),
	}
}

// carrying reads a body as a document of its kind, and writes it as it would be saved now.
func carrying[T any](r Records[T]) carriedKind {
	return carriedKind{
		read: func(id string, version uint, body string) (row, error) {
			var d T
			if err := r.parse(id, body, &d); err != nil {
				return row{}, err
			}
			field.CleanAll(&d)
			return r.row(id, version, d)
		},
		sound: func(ctx context.Context, id, body string, has kitchens) error {
			var d T
			if err := r.parse(id, body, &d); err != nil {
				return err
			}
			field.CleanAll(&d) // as it is written, and as what is typed is
			return r.sound(ctx, id, d, has)
		},
	}
}

// each streams the rows of a table.
func each[M any](tx *gorm.DB, order string, do func(M) error) error {
	rows, err := tx.Model(new(M)).Unscoped().Order(order).Rows()
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		var m M
		if err := tx.ScanRows(rows, &m); err != nil {
			return err
		}
		if err := do(m); err != nil {
			return err
		}
	}
	return rows.Err()
}

// step is how many rows are read at once.
const step = 20_000

// ofCooks gives the rows of a table cook by cook, those of each in the order in which they came: step by
// step along an index, so that nothing is put in order anew, however many there are.
func ofCooks[M any](tx *gorm.DB, table string, seq func(M) uint64, do func(M) error) error {
	var cooks []string
	if err := tx.Table(table).Distinct("cook").Order("cook").Pluck("cook", &cooks).Error; err != nil {
		return err
	}
	for _, cook := range cooks {
		for after := uint64(0); ; {
			var rows []M
			if err := tx.Where(is("cook", cook), over("seq", after)).Order("seq").Limit(step).Find(&rows).Error; err != nil {
				return err
			}
			for _, m := range rows {
				if err := do(m); err != nil {
					return err
				}
			}
			if len(rows) < step {
				break
			}
			after = seq(rows[len(rows)-1])
		}
	}
	return nil
}

func gone(at gorm.DeletedAt) *time.Time {
	if !at.Valid {
		return nil
	}
	t := at.Time.UTC()
	return &t
}

// Carry gives all that is on record, line by line in an order of its own, as it is at one moment.
// Keys of devices are not among it. It takes no more memory for a large book than for a small one.
func (s *Store) Carry(ctx context.Context, give func(line any) error) error {
	tx := s.Patient().db.WithContext(ctx).Begin(&sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	if tx.Error != nil {
		return tx.Error
	}
	defer tx.Rollback()
	for _, step := range append(s.written(tx, give), s.measured(tx, give)...) {
		if err := step(); err != nil {
			return err
		}
	}
	return nil
}

// written are the steps that give what was written: records, their versions and facts.
func (s *Store) written(tx *gorm.DB, give func(any) error) []func() error {
	kinds := s.carries()
	return []func() error{
		func() error {
			return each(tx, "kind, id", func(m row) error {
				now, err := kinds[m.Kind].read(m.ID, m.Version, m.Body)
				if err != nil {
					return fmt.Errorf("%s %s: %w", m.Kind, m.ID, err)
				}
				return give(
					CarriedRecord{
						m.ID,
						m.Kind,
						m.Version,
						m.CreatedAt.UTC(),
						m.UpdatedAt.UTC(),
						gone(m.DeletedAt),
						json.RawMessage(now.Body),
					},
				)
			})
		},
		func() error {
			return each(tx, "record, version", func(m versionRow) error {
				return give(CarriedVersion{m.Record, m.Version, m.SavedAt.UTC(), raw(m.Changes), raw(m.Body)})
			})
		},
		func() error {
			return ofCooks(tx, "facts", func(m factModel) uint64 { return m.Seq }, func(m factModel) error {
				f, err := m.fact()
				if err != nil {
					return err
				}
				return give(CarriedFact{m.Cook, m.CreatedAt.UTC(), f})
			})
		},
	}
}

// measured are the steps that give what was measured, and what came of it.
func (s *Store) measured(tx *gorm.DB, give func(any) error) []func() error {
	return []func() error{
		func() error {
			return each(tx, "cook, id", func(m handInModel) error {
				return give(CarriedHandIn{m.ID, m.Cook, m.Device, m.Digest, m.Count, m.CreatedAt.UTC()})
			})
		},
		func() error {
			return ofCooks(tx, "readings", func(m readingModel) uint64 { return m.Seq }, func(m readingModel) error {
				return give(CarriedReading{m.Cook, m.HandIn, m.Probe, m.AtMs, m.Celsius})
			})
		},
		func() error {
			return each(tx, "cook, probe, at_ms", func(m minuteModel) error {
				return give(
					CarriedMinute{m.Cook, m.Probe, m.AtMs, m.FirstMs, m.LastMs, m.FirstC, m.LastC, m.LowC, m.HighC, m.Count},
				)
			})
		},
		func() error {
			return each(
				tx,
				"cook",
				func(m clockModel) error { return give(CarriedClock{m.Cook, m.BeganMs, m.CookMs, m.Speed, m.Seed}) },
			)
		},
		func() error {
			return each(tx, "cook", func(m outcomeModel) error {
				l, err := m.logged()
				if err != nil {
					return err
				}
				return give(CarriedOutcome{m.Cook, m.Told, m.UpdatedAt.UTC(), l.Outcome})
			})
		},
		func() error {
			var ids []uint64 // in order without their pictures, which are read one by one
			if err := tx.Model(&Photo{}).Unscoped().Order("cook, created_at, id").Pluck("id", &ids).Error; err != nil {
				return err
			}
			for _, id := range ids {
				var p Photo
				if err := tx.Unscoped().Take(&p, id).Error; err != nil {
					return err
				}
				sum := sha256.Sum256(p.Data)
				if err := give(CarriedPhoto{p.Cook, p.Piece, p.Note, p.Width, p.Height, p.CreatedAt.UTC(), gone(p.DeletedAt),
					hex.EncodeToString(sum[:]), p.Data}); err != nil {
					return err
				}
			}
			return nil
		},
	}
}

// raw is text as JSON; what is none is an empty list.
func raw(text string) json.RawMessage {
	if json.Valid([]byte(text)) {
		return json.RawMessage(text)
	}
	return json.RawMessage("[]")
}
