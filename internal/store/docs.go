package store

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"verjuice/internal/core/formula"
	"verjuice/internal/core/larder"
)

// Doc is a saved document.
type Doc[T any] struct {
	ID      uint64
	Version uint
	Updated time.Time
	Doc     T
}

// Docs are records that are read and written whole: one JSON document each, in a
// table of their own, with a version against lost updates.
type Docs[T any] struct {
	db    *gorm.DB
	table string
	name  func(T) string
}

// Jars are the mixes made ahead.
func (s *Store) Jars() Docs[formula.Jar] {
	return Docs[formula.Jar]{s.db, "jars", func(j formula.Jar) string { return j.Formula.Name }}
}

// Ingredients are the cook's own.
func (s *Store) Ingredients() Docs[larder.Own] {
	return Docs[larder.Own]{s.db, "own_ingredients", func(o larder.Own) string { return o.Name }}
}

type docModel struct {
	ID        uint64
	Version   uint
	Name      string
	Body      string
	CreatedAt time.Time
	UpdatedAt time.Time
	DeletedAt gorm.DeletedAt
}

func (d Docs[T]) tx(ctx context.Context) *gorm.DB { return d.db.WithContext(ctx).Table(d.table) }

func (m docModel) read(d any) error { return json.Unmarshal([]byte(m.Body), d) }

func opened[T any](m docModel, err error) (Doc[T], error) {
	out := Doc[T]{ID: m.ID, Version: m.Version, Updated: m.UpdatedAt}
	if err == nil {
		err = m.read(&out.Doc)
	}
	return out, err
}

// List returns all documents by name; with gone also those that were deleted.
func (d Docs[T]) List(ctx context.Context, gone bool) ([]Doc[T], error) {
	q := d.tx(ctx)
	if gone {
		q = q.Unscoped()
	}
	var models []docModel
	if err := q.Order("name, id").Find(&models).Error; err != nil {
		return nil, err
	}
	out := make([]Doc[T], len(models))
	for i, m := range models {
		var err error
		if out[i], err = opened[T](m, nil); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// Get returns a document, or ErrNotFound.
func (d Docs[T]) Get(ctx context.Context, id uint64) (Doc[T], error) {
	var m docModel
	err := d.tx(ctx).Take(&m, id).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		err = ErrNotFound
	}
	return opened[T](m, err)
}

// Create saves doc.
func (d Docs[T]) Create(ctx context.Context, doc T) (Doc[T], error) {
	body, err := json.Marshal(doc)
	if err != nil {
		return Doc[T]{}, err
	}
	m := docModel{Version: 1, Name: d.name(doc), Body: string(body)}
	err = d.tx(ctx).Create(&m).Error
	return opened[T](m, err)
}

// Update replaces a document that still has the given version. It returns
// ErrNotFound or ErrStale when it cannot.
func (d Docs[T]) Update(ctx context.Context, id uint64, version uint, doc T) (Doc[T], error) {
	var m docModel
	err := d.locked(ctx, id, version, func(tx *gorm.DB, held docModel) error {
		body, err := json.Marshal(doc)
		if err != nil {
			return err
		}
		m = held
		m.Version, m.Name, m.Body = version+1, d.name(doc), string(body)
		return tx.Save(&m).Error
	})
	return opened[T](m, err)
}

// Delete takes a document that still has the given version off the list. It can
// be restored.
func (d Docs[T]) Delete(ctx context.Context, id uint64, version uint) error {
	return d.locked(ctx, id, version, func(tx *gorm.DB, held docModel) error { return tx.Delete(&held).Error })
}

// Restore puts a deleted document back.
func (d Docs[T]) Restore(ctx context.Context, id uint64) (Doc[T], error) {
	if err := d.tx(ctx).Unscoped().Where("id = ?", id).Update("deleted_at", nil).Error; err != nil {
		return Doc[T]{}, err
	}
	return d.Get(ctx, id)
}

// locked runs change while the row is held, if it still has the version.
func (d Docs[T]) locked(ctx context.Context, id uint64, version uint, change func(*gorm.DB, docModel) error) error {
	return transaction(ctx, d.db, func(tx *gorm.DB) error {
		var held docModel
		err := tx.Table(d.table).Clauses(clause.Locking{Strength: clause.LockingStrengthUpdate}).Take(&held, id).Error
		switch {
		case errors.Is(err, gorm.ErrRecordNotFound):
			return ErrNotFound
		case err != nil:
			return err
		case held.Version != version:
			return ErrStale
		}
		return change(tx.Table(d.table), held)
	})
}

// Thing is the price and stock of an ingredient or a cut, as typed.
type Thing struct {
	Thing     string `gorm:"primaryKey"`
	Price     string
	Stock     string
	UpdatedAt time.Time
}

// TableName implements gorm's Tabler.
func (Thing) TableName() string { return "larder_things" }

// Things returns everything with a price or a stock.
func (s *Store) Things(ctx context.Context) ([]Thing, error) {
	var out []Thing
	return out, s.db.WithContext(ctx).Order("thing").Find(&out).Error
}

// PutThing keeps price and stock of one thing; without either it is forgotten.
func (s *Store) PutThing(ctx context.Context, t Thing) error {
	db := s.db.WithContext(ctx)
	if t.Price == "" && t.Stock == "" {
		return db.Delete(&Thing{}, "thing = ?", t.Thing).Error
	}
	return db.Save(&t).Error
}
