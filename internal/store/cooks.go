package store

import (
	"context"
	"errors"
	"strings"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"verjuice/internal/core/cook"
)

// CookRecord is a saved cook.
type CookRecord struct {
	ID      uint64
	Version uint
	Updated time.Time
	Cook    cook.Cook
}

// record is m as the caller sees it, unless err is already there.
func record(m cookModel, err error) (CookRecord, error) {
	if err != nil {
		return CookRecord{}, err
	}
	c, err := m.cook()
	return CookRecord{ID: m.ID, Version: m.Version, Updated: m.UpdatedAt, Cook: c}, err
}

// byPosition keeps pieces and rows in the order they were typed.
func byPosition(db *gorm.DB) *gorm.DB { return db.Order("position") }

// ListCooks returns a page of cooks whose name contains search, the latest
// serving first, and how many there are in all.
func (s *Store) ListCooks(ctx context.Context, search string, offset, limit int) ([]CookRecord, int64, error) {
	q := s.db.WithContext(ctx).Model(&cookModel{})
	if search != "" {
		q = q.Where("name LIKE ?", "%"+escapeLike(search)+"%")
	}
	var total int64
	if err := q.Count(&total).Error; err != nil {
		return nil, 0, err
	}
	var models []cookModel
	err := q.Preload("Pieces", byPosition).Order("serve_at DESC, id DESC").Offset(offset).Limit(limit).Find(&models).Error
	if err != nil {
		return nil, 0, err
	}
	out := make([]CookRecord, len(models))
	for i, m := range models {
		if out[i], err = record(m, nil); err != nil {
			return nil, 0, err
		}
	}
	return out, total, nil
}

func escapeLike(s string) string {
	return strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`).Replace(s)
}

// Cook returns a cook, or ErrNotFound.
func (s *Store) Cook(ctx context.Context, id uint64) (CookRecord, error) {
	var m cookModel
	err := s.db.WithContext(ctx).Preload("Pieces", byPosition).Preload("Pieces.Rows", byPosition).Take(&m, id).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return CookRecord{}, ErrNotFound
	}
	return record(m, err)
}

// CreateCook saves c, whole or not at all.
func (s *Store) CreateCook(ctx context.Context, c cook.Cook) (CookRecord, error) {
	c = cook.Keyed(c)
	var m cookModel
	err := transaction(ctx, s.db, func(tx *gorm.DB) error {
		m = toModel(c)
		m.Version = 1
		return tx.Create(&m).Error
	})
	return record(m, err)
}

// UpdateCook replaces a cook that still has the given version, whole or not at
// all. It returns ErrNotFound or ErrStale when it cannot.
func (s *Store) UpdateCook(ctx context.Context, id uint64, version uint, c cook.Cook) (CookRecord, error) {
	c = cook.Keyed(c)
	var m cookModel
	err := transaction(ctx, s.db, func(tx *gorm.DB) error {
		m = toModel(c)
		m.ID, m.Version = id, version+1
		if err := lock(tx, id, version, &m.CreatedAt); err != nil {
			return err
		}
		if err := tx.Where("cook_id = ?", id).Delete(&pieceModel{}).Error; err != nil {
			return err
		}
		return tx.Session(&gorm.Session{FullSaveAssociations: true}).Save(&m).Error
	})
	return record(m, err)
}

// lock holds the row of a cook until the transaction ends, and checks that it
// still has the given version.
func lock(tx *gorm.DB, id uint64, version uint, created *time.Time) error {
	var held cookModel
	err := tx.Clauses(clause.Locking{Strength: clause.LockingStrengthUpdate}).Take(&held, id).Error
	switch {
	case errors.Is(err, gorm.ErrRecordNotFound):
		return ErrNotFound
	case err != nil:
		return err
	case held.Version != version:
		return ErrStale
	}
	if created != nil {
		*created = held.CreatedAt
	}
	return nil
}

// DeleteCook takes a cook that still has the given version off the list. It can
// be restored.
func (s *Store) DeleteCook(ctx context.Context, id uint64, version uint) error {
	return transaction(ctx, s.db, func(tx *gorm.DB) error {
		if err := lock(tx, id, version, nil); err != nil {
			return err
		}
		return tx.Delete(&cookModel{}, id).Error
	})
}

// RestoreCook puts a deleted cook back. Restoring one that is not deleted does
// nothing.
func (s *Store) RestoreCook(ctx context.Context, id uint64) (CookRecord, error) {
	err := s.db.WithContext(ctx).Unscoped().Model(&cookModel{}).Where("id = ?", id).Update("deleted_at", nil).Error
	if err != nil {
		return CookRecord{}, err
	}
	return s.Cook(ctx, id)
}
