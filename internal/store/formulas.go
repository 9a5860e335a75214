package store

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"verjuice/internal/core/field"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
)

// Formulas are the cook's own, by name, every version of each kept. The ID of a formula
// is that of its record.
type Formulas struct{ Records[formula.Formula] }

// Formulas are the cook's own.
func (s *Store) Formulas() Formulas {
	return Formulas{Records[formula.Formula]{
		db: s.db, in: s, kind: "formula", sound: s.soundFormula, first: byName,
		index: func(f formula.Formula) found {
			return found{Name: f.Name, Class: string(f.Kind), Note: f.Note, Tags: f.Tags}
		},
		open: func(id string, f *formula.Formula) {
			f.ID = id
			if f.Spoons == "" {
				f.Spoons = quantity.USSpoons // what it meant when it was written, wherever it is used
			}
		},
		shut:  unmarked,
		packs: formula.Formula.Packs,
	}}
}

type versionRow struct {
	Record  string `gorm:"primaryKey"`
	Version uint   `gorm:"primaryKey"`
	Body    string
	Changes string
	SavedAt time.Time
}

func (versionRow) TableName() string { return "record_versions" }

// FormulaVersion is a formula as it was at one time.
type FormulaVersion struct {
	Version uint
	Saved   time.Time
	Changes []formula.Change
	Formula formula.Formula
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

// Versions returns every version of a formula, the newest first.
func (r Formulas) Versions(ctx context.Context, id string) ([]FormulaVersion, error) {
	var rows []versionRow
	if err := r.db.WithContext(ctx).Where(is("record", r.known(id))).Order("version DESC").Find(&rows).Error; err != nil {
		return nil, err
	}
	out := make([]FormulaVersion, len(rows))
	for i, m := range rows {
		out[i] = FormulaVersion{Version: m.Version, Saved: m.SavedAt, Changes: readChanges(m.Changes)}
		if err := r.parse(id, m.Body, &out[i].Formula); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// Create saves f as its first version, which came about by origin.
func (r Formulas) Create(
	ctx context.Context,
	f formula.Formula,
	origin formula.Change,
) (Record[formula.Formula], error) {
	return r.keep(ctx, []formula.Change{origin}, func(all Formulas) (Record[formula.Formula], error) {
		return all.Records.Create(ctx, f)
	})
}

// Update makes f the next version of a formula that still has the given one; changes
// tells what is new in it, given the old. A formula in which nothing is new gets no
// version.
func (r Formulas) Update(
	ctx context.Context,
	id string,
	version uint,
	f formula.Formula,
	changes func(old formula.Formula) []formula.Change,
) (Record[formula.Formula], error) {
	old, err := r.Get(ctx, id)
	if err != nil {
		return old, err
	}
	if old.Version != version {
		return old, ErrStale
	}
	before, err := r.row(id, version, old.Doc)
	if err != nil {
		return old, err
	}
	after, err := r.row(id, version, f)
	if err != nil || before.Body == after.Body {
		return old, err
	}
	return r.keep(ctx, changes(old.Doc), func(all Formulas) (Record[formula.Formula], error) {
		rec, err := all.Records.Update(ctx, id, version, f)
		if err != nil {
			return rec, err
		}
		return rec, all.uncircled(ctx, r.known(id), f.Uses())
	})
}

// ErrCircle is that a formula would come to use itself, since another one was changed at the
// same moment.
var ErrCircle = errors.New("it would use itself by way of a formula that was changed just now")

// uncircled reports ErrCircle when a formula that was just written uses itself by way of what it
// uses, as that stands now. What is looked at is written, too: of two formulas that are changed
// to use each other at one moment, one has to wait for the other, and sees it.
func (r Formulas) uncircled(ctx context.Context, id string, uses []string) error {
	seen := map[string]bool{}
	for next := uses; len(next) > 0; {
		var ids []string
		for _, one := range next {
			if one == id {
				return ErrCircle
			}
			if !seen[one] && uuid.Validate(one) == nil {
				seen[one] = true
				ids = append(ids, one)
			}
		}
		if next = nil; len(ids) == 0 {
			return nil
		}
		slices.Sort(ids) // everybody locks them in the same order
		rows := r.db.WithContext(ctx).Model(&row{}).Where("kind = 'formula' AND id IN ?", ids)
		if err := rows.UpdateColumn("checks", gorm.Expr("checks + 1")).Error; err != nil {
			return err
		}
		var found []row
		// Locked, and so as they are now, not as when the transaction began.
		now := r.db.WithContext(ctx).Clauses(clause.Locking{Strength: clause.LockingStrengthUpdate})
		if err := now.Where("kind = 'formula' AND id IN ?", ids).Find(&found).Error; err != nil {
			return err
		}
		for _, m := range found {
			rec, err := r.read(m)
			if err != nil {
				return err
			}
			next = append(next, rec.Doc.Uses()...)
		}
	}
	return nil
}

// keep saves a formula and its version, both or neither.
func (r Formulas) keep(
	ctx context.Context,
	changes []formula.Change,
	save func(Formulas) (Record[formula.Formula], error),
) (Record[formula.Formula], error) {
	var out Record[formula.Formula]
	err := transaction(ctx, r.db, func(tx *gorm.DB) (err error) {
		within := Formulas{r.within(tx)}
		if out, err = save(within); err != nil {
			return err
		}
		m, err := r.row(out.ID, out.Version, out.Doc)
		if err != nil {
			return err
		}
		return tx.Create(
			&versionRow{
				Record:  out.ID,
				Version: out.Version,
				Body:    m.Body,
				Changes: writeChanges(changes),
				SavedAt: out.Updated,
			},
		).Error
	})
	return out, err
}

// CreateAll saves formulas, all or none. A row may use one of them by an id of which
// inList tells its number; the used are made before the users. Formulas must not use
// each other in a circle.
func (r Formulas) CreateAll(
	ctx context.Context,
	fs []formula.Formula,
	origin formula.Change,
	inList func(id string) (int, bool),
) ([]Record[formula.Formula], error) {
	var out []Record[formula.Formula]
	err := transaction(ctx, r.db, func(tx *gorm.DB) error {
		out = make([]Record[formula.Formula], len(fs))
		within := Formulas{r.within(tx)}
		var create func(i int) error
		create = func(i int) error {
			if out[i].ID != "" {
				return nil
			}
			f := fs[i]
			f.Rows = slices.Clone(f.Rows)
			for n, row := range f.Rows {
				used, ok := inList(row.Formula)
				if !ok {
					continue
				}
				if err := create(used); err != nil {
					return err
				}
				f.Rows[n].Formula = out[used].ID
			}
			var err error
			out[i], err = within.Create(onceOf(ctx, i), f, origin)
			if errors.Is(err, ErrMade) {
				return nil
			}
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
