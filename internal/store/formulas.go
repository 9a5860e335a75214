package store

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"strconv"
	"strings"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
)

type formulaModel struct {
	ID        uint64
	Version   uint
	Name      string
	Kind      string
	Note      string
	Tags      string
	Body      string
	CreatedAt time.Time
	UpdatedAt time.Time
	DeletedAt gorm.DeletedAt
}

func (formulaModel) TableName() string { return "formulas" }

type formulaVersionModel struct {
	FormulaID uint64 `gorm:"primaryKey"`
	Version   uint   `gorm:"primaryKey"`
	Body      string
	Changes   string
	SavedAt   time.Time
}

func (formulaVersionModel) TableName() string { return "formula_versions" }

// FormulaRecord is a saved formula. Its Formula.ID is the record's number.
type FormulaRecord struct {
	ID      uint64
	Version uint
	Updated time.Time
	Formula formula.Formula
}

// FormulaVersion is a formula as it was at one time.
type FormulaVersion struct {
	Version uint
	Saved   time.Time
	Changes []formula.Change
	Formula formula.Formula
}

func decodeFormula(id uint64, body string) (formula.Formula, error) {
	var f formula.Formula
	err := json.Unmarshal([]byte(body), &f)
	f.ID = strconv.FormatUint(id, 10)
	if f.Spoons == "" {
		f.Spoons = quantity.USSpoons // what it meant when it was written, wherever it is used
	}
	return f, err
}

func (m formulaModel) record() (FormulaRecord, error) {
	f, err := decodeFormula(m.ID, m.Body)
	return FormulaRecord{ID: m.ID, Version: m.Version, Updated: m.UpdatedAt, Formula: f}, err
}

func (m *formulaModel) set(f formula.Formula) error {
	f.ID = ""
	if f.Spoons == quantity.USSpoons {
		f.Spoons = "" // as those are kept that were written before there was a choice
	}
	body, err := json.Marshal(f)
	if err != nil {
		return err
	}
	m.Name, m.Kind, m.Note, m.Tags, m.Body = f.Name, string(f.Kind), f.Note, strings.Join(f.Tags, ","), string(body)
	if m.Kind == "" {
		m.Kind = string(formula.Rub)
	}
	return nil
}

func writeChanges(changes []formula.Change) string {
	raw, err := json.Marshal(changes)
	if err != nil {
		panic(err) // plain data
	}
	return string(raw)
}

// readChanges reads the changes of a version; older ones are kept as sentences, a
// line each.
func readChanges(body string) []formula.Change {
	var out []formula.Change
	if json.Unmarshal([]byte(body), &out) == nil {
		return out
	}
	for _, line := range strings.Split(body, "\n") {
		out = append(out, field.Because("changed.said", "text", line))
	}
	return out
}

// FormulaQuery narrows the list of formulas.
type FormulaQuery struct {
	Search string // in name, note and tags
	Kind   string
	Tag    string
	Offset int
	Limit  int
}

// ListFormulas returns a page of formulas by name, and how many there are in all.
func (s *Store) ListFormulas(ctx context.Context, q FormulaQuery) ([]FormulaRecord, int64, error) {
	db := s.db.WithContext(ctx).Model(&formulaModel{})
	if q.Search != "" {
		like := "%" + escapeLike(q.Search) + "%"
		db = db.Where("name LIKE ? OR note LIKE ? OR tags LIKE ?", like, like, like)
	}
	if q.Kind != "" {
		db = db.Where("kind = ?", q.Kind)
	}
	if q.Tag != "" {
		db = db.Where("FIND_IN_SET(?, tags) > 0", q.Tag)
	}
	var total int64
	if err := db.Count(&total).Error; err != nil {
		return nil, 0, err
	}
	var models []formulaModel
	if err := db.Order("name, id").Offset(q.Offset).Limit(q.Limit).Find(&models).Error; err != nil {
		return nil, 0, err
	}
	out := make([]FormulaRecord, len(models))
	for i, m := range models {
		var err error
		if out[i], err = m.record(); err != nil {
			return nil, 0, err
		}
	}
	return out, total, nil
}

// Formula returns a formula, or ErrNotFound.
func (s *Store) Formula(ctx context.Context, id uint64) (FormulaRecord, error) {
	var m formulaModel
	err := s.db.WithContext(ctx).Take(&m, id).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return FormulaRecord{}, ErrNotFound
	}
	if err != nil {
		return FormulaRecord{}, err
	}
	return m.record()
}

// FormulaVersions returns every version of a formula, the newest first.
func (s *Store) FormulaVersions(ctx context.Context, id uint64) ([]FormulaVersion, error) {
	var models []formulaVersionModel
	if err := s.db.WithContext(ctx).Where("formula_id = ?", id).Order("version DESC").Find(&models).Error; err != nil {
		return nil, err
	}
	out := make([]FormulaVersion, len(models))
	for i, m := range models {
		f, err := decodeFormula(id, m.Body)
		if err != nil {
			return nil, err
		}
		out[i] = FormulaVersion{Version: m.Version, Saved: m.SavedAt, Changes: readChanges(m.Changes), Formula: f}
	}
	return out, nil
}

// CreateFormula saves f as its first version.
func (s *Store) CreateFormula(ctx context.Context, f formula.Formula, origin formula.Change) (FormulaRecord, error) {
	var out FormulaRecord
	err := transaction(ctx, s.db, func(tx *gorm.DB) (err error) {
		out, err = createFormula(tx, f, origin)
		return err
	})
	return out, err
}

func createFormula(tx *gorm.DB, f formula.Formula, origin formula.Change) (FormulaRecord, error) {
	m := formulaModel{Version: 1}
	if err := m.set(f); err != nil {
		return FormulaRecord{}, err
	}
	if err := tx.Create(&m).Error; err != nil {
		return FormulaRecord{}, err
	}
	first := formulaVersionModel{FormulaID: m.ID, Version: 1, Body: m.Body, Changes: writeChanges([]formula.Change{origin}), SavedAt: m.UpdatedAt}
	if err := tx.Create(&first).Error; err != nil {
		return FormulaRecord{}, err
	}
	return m.record()
}

// CreateFormulas saves formulas, all or none. A row may use one of them
// by an id of which inList tells its number; the used are made before the users.
// Formulas must not use each other in a circle.
func (s *Store) CreateFormulas(ctx context.Context, fs []formula.Formula, origin formula.Change, inList func(id string) (int, bool)) ([]FormulaRecord, error) {
	var out []FormulaRecord
	err := transaction(ctx, s.db, func(tx *gorm.DB) error {
		out = make([]FormulaRecord, len(fs))
		var create func(i int) error
		create = func(i int) error {
			if out[i].ID != 0 {
				return nil
			}
			f := fs[i]
			f.Rows = slices.Clone(f.Rows)
			for n, r := range f.Rows {
				used, ok := inList(r.Formula)
				if !ok {
					continue
				}
				if err := create(used); err != nil {
					return err
				}
				f.Rows[n].Formula = out[used].Formula.ID
			}
			var err error
			out[i], err = createFormula(tx, f, origin)
			return err
		}
		for i := range fs {
			if err := create(i); err != nil {
				return err
			}
		}
		return nil
	})
	return out, err
}

// UpdateFormula makes f the next version of a formula that still has the given
// one; changes tells what is new in it, given the old.
func (s *Store) UpdateFormula(ctx context.Context, id uint64, version uint, f formula.Formula, changes func(old formula.Formula) []formula.Change) (FormulaRecord, error) {
	var m formulaModel
	err := transaction(ctx, s.db, func(tx *gorm.DB) error {
		old, err := lockFormula(tx, id, version)
		if err != nil {
			return err
		}
		before, err := decodeFormula(id, old.Body)
		if err != nil {
			return err
		}
		m = old
		if err := m.set(f); err != nil {
			return err
		}
		if m.Body == old.Body {
			return nil // nothing is new: no version
		}
		m.Version++
		if err := tx.Save(&m).Error; err != nil {
			return err
		}
		return tx.Create(&formulaVersionModel{
			FormulaID: id, Version: m.Version, Body: m.Body, Changes: writeChanges(changes(before)), SavedAt: m.UpdatedAt,
		}).Error
	})
	if err != nil {
		return FormulaRecord{}, err
	}
	return m.record()
}

func lockFormula(tx *gorm.DB, id uint64, version uint) (formulaModel, error) {
	var m formulaModel
	err := tx.Clauses(clause.Locking{Strength: clause.LockingStrengthUpdate}).Take(&m, id).Error
	switch {
	case errors.Is(err, gorm.ErrRecordNotFound):
		return m, ErrNotFound
	case err != nil:
		return m, err
	case m.Version != version:
		return m, ErrStale
	}
	return m, nil
}

// DeleteFormula takes a formula off the bench. It can be restored.
func (s *Store) DeleteFormula(ctx context.Context, id uint64, version uint) error {
	return transaction(ctx, s.db, func(tx *gorm.DB) error {
		if _, err := lockFormula(tx, id, version); err != nil {
			return err
		}
		return tx.Delete(&formulaModel{}, id).Error
	})
}

// RestoreFormula puts a deleted formula back.
func (s *Store) RestoreFormula(ctx context.Context, id uint64) (FormulaRecord, error) {
	err := s.db.WithContext(ctx).Unscoped().Model(&formulaModel{}).Where("id = ?", id).Update("deleted_at", nil).Error
	if err != nil {
		return FormulaRecord{}, err
	}
	return s.Formula(ctx, id)
}
