package store

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

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
	err := transaction(ctx, s.Patient().db, func(tx *gorm.DB) error {
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
		if err := t.known(all, func(m any) string { return m.(versionRow).Record }); err != nil {
			return err
		}
		return write[versionRow](t, all)
	case factModel:
		if err := t.known(all, func(m any) string { return m.(factModel).Cook }); err != nil {
			return err
		}
		return write[factModel](t, all)
	case minuteModel:
		return write[minuteModel](t, all)
	case clockModel:
		return write[clockModel](t, all)
	case outcomeModel:
		if err := t.known(all, func(m any) string { return m.(outcomeModel).Cook }); err != nil {
			return err
		}
		return write[outcomeModel](t, all)
	case handInModel:
		return t.handIns(all)
	case readingModel:
		return t.readings(all)
	}
	return nil
}

// known refuses lines of a record that is neither in the book nor here.
func (t *taker) known(all []any, of func(any) string) error {
	var ids, here []string
	for _, m := range all {
		if id := of(m); !slices.Contains(ids, id) {
			ids = append(ids, id)
		}
	}
	if err := t.tx.Model(&row{}).Unscoped().Where("id IN ?", ids).Pluck("id", &here).Error; err != nil {
		return err
	}
	for _, id := range ids {
		if !slices.Contains(here, id) {
			return fmt.Errorf("%w: there is no record %q", ErrCarried, id)
		}
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
	if err := t.known([]any{l.Cook}, func(id any) string { return id.(string) }); err != nil {
		return err
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
