package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/outcome"
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
		Cook    string       `json:"cook"`
		Told    string       `json:"told"`
		Updated time.Time    `json:"updated"`
		Outcome outcome.Cook `json:"outcome"`
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

// carries are the kinds of records, each read and written as what it is.
func (s *Store) carries() map[string]func(id string, version uint, body string) (row, error) {
	return map[string]func(string, uint, string) (row, error){
		"cook": carrying(s.Cooks()), "formula": carrying(s.Formulas().Records), "jar": carrying(s.Jars()), "ingredient": carrying(s.Ingredients()),
		"pit": carrying(s.Pits()), "method": carrying(s.Methods()), "thing": carrying(s.things()), "lessons": carrying(s.lessons()),
	}
}

// carrying reads a body as a document of its kind, and writes it as it would be saved now.
func carrying[T any](r Records[T]) func(string, uint, string) (row, error) {
	return func(id string, version uint, body string) (row, error) {
		var d T
		if err := r.parse(id, body, &d); err != nil {
			return row{}, err
		}
		return r.row(id, version, d)
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
	tx := s.db.WithContext(ctx).Begin(&sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
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
				now, err := kinds[m.Kind](m.ID, m.Version, m.Body)
				if err != nil {
					return fmt.Errorf("%s %s: %w", m.Kind, m.ID, err)
				}
				return give(CarriedRecord{m.ID, m.Kind, m.Version, m.CreatedAt.UTC(), m.UpdatedAt.UTC(), gone(m.DeletedAt), json.RawMessage(now.Body)})
			})
		},
		func() error {
			return each(tx, "record, version", func(m versionRow) error {
				return give(CarriedVersion{m.Record, m.Version, m.SavedAt.UTC(), raw(m.Changes), raw(m.Body)})
			})
		},
		func() error {
			return each(tx, "cook, seq", func(m factModel) error {
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
			return each(tx, "cook, seq", func(m readingModel) error { return give(CarriedReading{m.Cook, m.HandIn, m.Probe, m.AtMs, m.Celsius}) })
		},
		func() error {
			return each(tx, "cook, probe, at_ms", func(m minuteModel) error {
				return give(CarriedMinute{m.Cook, m.Probe, m.AtMs, m.FirstMs, m.LastMs, m.FirstC, m.LastC, m.LowC, m.HighC, m.Count})
			})
		},
		func() error {
			return each(tx, "cook", func(m clockModel) error { return give(CarriedClock{m.Cook, m.BeganMs, m.CookMs, m.Speed, m.Seed}) })
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
			return each(tx, "cook, created_at, id", func(p Photo) error {
				sum := sha256.Sum256(p.Data)
				return give(CarriedPhoto{p.Cook, p.Piece, p.Note, p.Width, p.Height, p.CreatedAt.UTC(), gone(p.DeletedAt), hex.EncodeToString(sum[:]), p.Data})
			})
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

// Taken is how many lines of a book were taken in, and how many were left since they are here already.
type Taken struct{ Added, Here int64 }

// batch is how many lines are written at once.
const batch = 400

// taker writes lines in the order in which they come, those of one kind together.
type taker struct {
	tx      *gorm.DB
	kinds   map[string]func(string, uint, string) (row, error)
	taken   Taken
	pending []any // models of one kind
}

// TakeIn takes the lines of a book in, all or none. What is here already, by its id, stays as it is.
// give is called with a function that takes a line; it may be called again from the beginning.
func (s *Store) TakeIn(ctx context.Context, give func(take func(line any) error) error) (Taken, error) {
	var out Taken
	err := transaction(ctx, s.db, func(tx *gorm.DB) error {
		t := &taker{tx: tx, kinds: s.carries()}
		if err := tx.Exec("CREATE TEMPORARY TABLE IF NOT EXISTS fresh_hand_ins (id CHAR(36) NOT NULL PRIMARY KEY)").Error; err != nil {
			return err
		}
		if err := tx.Exec("DELETE FROM fresh_hand_ins").Error; err != nil {
			return err
		}
		if err := give(t.take); err != nil {
			return err
		}
		err := t.flush()
		out = t.taken
		return err
	})
	return out, err
}

// ErrCarried is a line of a book that cannot be.
var ErrCarried = errors.New("this line cannot be taken in")

func (t *taker) take(line any) error {
	var model any
	switch l := line.(type) {
	case CarriedRecord:
		read, ok := t.kinds[l.Kind]
		if !ok || uuid.Validate(l.ID) != nil {
			return fmt.Errorf("%w: kind %q, id %q", ErrCarried, l.Kind, l.ID)
		}
		m, err := read(l.ID, l.Version, string(l.Doc))
		if err != nil {
			return fmt.Errorf("%w: %w", ErrCarried, err)
		}
		m.CreatedAt, m.UpdatedAt, m.DeletedAt = l.Created, l.Updated, deletedAt(l.Deleted)
		model = m
	case CarriedVersion:
		model = versionRow{l.Record, l.Version, string(l.Doc), string(l.Changes), l.Saved}
	case CarriedFact:
		if err := l.Fact.Check().Err(); err != nil {
			return fmt.Errorf("%w: %w", ErrCarried, err)
		}
		m, err := modelOf(l.Cook, l.Fact)
		if err != nil {
			return err
		}
		m.CreatedAt = l.Said
		model = m
	case CarriedHandIn:
		model = handInModel{l.ID, l.Cook, l.Device, l.Digest, l.Count, l.Came}
	case CarriedReading:
		model = readingModel{Cook: l.Cook, HandIn: l.HandIn, Probe: l.Probe, AtMs: l.AtMs, Celsius: l.C}
	case CarriedMinute:
		model = minuteModel{l.Cook, l.Probe, l.AtMs, l.FirstMs, l.LastMs, l.First, l.Last, l.Low, l.High, l.Count}
	case CarriedClock:
		model = clockModel{l.Cook, l.Began, l.At, l.Speed, l.Seed, false}
	case CarriedOutcome:
		m, err := outcomeOf(l.Cook, l.Told, l.Outcome)
		if err != nil {
			return err
		}
		m.UpdatedAt = l.Updated
		model = m
	case CarriedPhoto:
		return t.photo(l)
	default:
		return fmt.Errorf("%w: %T", ErrCarried, line)
	}
	if len(t.pending) > 0 && reflect.TypeOf(t.pending[0]) != reflect.TypeOf(model) || len(t.pending) == batch {
		if err := t.flush(); err != nil {
			return err
		}
	}
	t.pending = append(t.pending, model)
	return nil
}

func deletedAt(at *time.Time) gorm.DeletedAt {
	if at == nil {
		return gorm.DeletedAt{}
	}
	return gorm.DeletedAt{Time: *at, Valid: true}
}

// flush writes what is pending.
func (t *taker) flush() error {
	all := t.pending
	t.pending = nil
	if len(all) == 0 {
		return nil
	}
	switch all[0].(type) {
	case row:
		return write[row](t, all)
	case versionRow:
		return write[versionRow](t, all)
	case factModel:
		return write[factModel](t, all)
	case minuteModel:
		return write[minuteModel](t, all)
	case clockModel:
		return write[clockModel](t, all)
	case outcomeModel:
		return write[outcomeModel](t, all)
	case handInModel:
		return t.handIns(all)
	case readingModel:
		return t.readings(all)
	}
	return nil
}

// write adds rows that are not here yet.
func write[M any](t *taker, all []any) error {
	rows := make([]M, len(all))
	for i, m := range all {
		rows[i] = m.(M)
	}
	done := t.tx.Clauses(clause.Insert{Modifier: "IGNORE"}).Create(&rows)
	t.taken.Added += done.RowsAffected
	t.taken.Here += int64(len(rows)) - done.RowsAffected
	return done.Error
}

// handIns adds hand-ins, and remembers those that were not here: only their readings are new.
func (t *taker) handIns(all []any) error {
	ids := make([]string, len(all))
	for i, m := range all {
		ids[i] = m.(handInModel).ID
	}
	var here []string
	if err := t.tx.Model(&handInModel{}).Where("id IN ?", ids).Pluck("id", &here).Error; err != nil {
		return err
	}
	var fresh []map[string]any
	for _, id := range ids {
		if !slices.Contains(here, id) {
			fresh = append(fresh, map[string]any{"id": id})
		}
	}
	if len(fresh) > 0 {
		if err := t.tx.Table("fresh_hand_ins").Clauses(clause.Insert{Modifier: "IGNORE"}).Create(fresh).Error; err != nil {
			return err
		}
	}
	return write[handInModel](t, all)
}

// readings adds the readings of hand-ins that were not here.
func (t *taker) readings(all []any) error {
	var ids []string
	for _, m := range all {
		if id := m.(readingModel).HandIn; !slices.Contains(ids, id) {
			ids = append(ids, id)
		}
	}
	var fresh []string
	if err := t.tx.Table("fresh_hand_ins").Where("id IN ?", ids).Pluck("id", &fresh).Error; err != nil {
		return err
	}
	n := len(all)
	all = slices.DeleteFunc(all, func(m any) bool { return !slices.Contains(fresh, m.(readingModel).HandIn) })
	t.taken.Here += int64(n - len(all))
	if len(all) == 0 {
		return nil
	}
	return write[readingModel](t, all)
}

// photo adds a photograph that is not here.
func (t *taker) photo(l CarriedPhoto) error {
	if err := t.flush(); err != nil {
		return err
	}
	if sum := sha256.Sum256(l.Data); hex.EncodeToString(sum[:]) != l.SHA256 {
		return fmt.Errorf("%w: the picture is not the one that was carried away", ErrCarried)
	}
	var here int64
	if err := t.tx.Model(&Photo{}).Unscoped().Where("cook = ? AND piece = ? AND SHA2(data, 256) = ?", l.Cook, l.Piece, l.SHA256).Count(&here).Error; err != nil {
		return err
	}
	if here > 0 {
		t.taken.Here++
		return nil
	}
	t.taken.Added++
	return t.tx.Create(&Photo{Cook: l.Cook, Piece: l.Piece, Note: l.Note, Width: l.Width, Height: l.Height, Data: l.Data, CreatedAt: l.Created, DeletedAt: deletedAt(l.Deleted)}).Error
}

// Empty takes all that is on record away, but for the devices' keys: only to put something else in
// its place, in one transaction with that.
func (s *Store) Empty(ctx context.Context) error {
	for _, table := range []string{"photos", "facts", "readings", "minutes", "hand_ins", "clocks", "outcomes", "record_versions", "records"} {
		if err := s.db.WithContext(ctx).Exec("DELETE FROM " + table).Error; err != nil {
			return err
		}
	}
	return nil
}
