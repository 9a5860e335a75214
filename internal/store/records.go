package store

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Record is something that a cook wrote, as it is saved.
type Record[T any] struct {
	ID      string // UUID
	Version uint   // 1 when it was made, one more with each change
	Updated time.Time
	Doc     T
}

// Records are all records of a kind: documents that are read and written whole, each in
// one row, with a version against lost updates.
type Records[T any] struct {
	db    *gorm.DB
	in    *Store
	kind  string
	first string        // SQL for the order of lists
	index func(T) found // by what a document is found
	// what a document gets that is not in its body; nil is nothing
	open func(id string, d *T)
	// what is taken out of a body again; nil is nothing
	shut  func(d *T)
	sound func(ctx context.Context, id string, d T, has kitchens) error // its check; a new record has no id
	packs func(d T) map[string]string                                   // sizes of bottles that it tells; nil tells none
}

// found is by what a record is found and put in order.
type found struct {
	Name, ServedAt, Class, Note string
	Tags                        []string
	Code                        string // a name that only one record of the kind may have; empty is none
}

// Query narrows a list of records.
type Query struct {
	Search string // in name, note and tags
	Class  string // a formula's kind
	Tag    string
	Offset int
	Limit  int // 0 lists all
	Gone   bool
	// Of what is served: a local time (2006-01-02T15:04). What is served from then on comes first, the next one first,
	// then what has no time, then what is over, the last one first. Empty is the order of the kind.
	From string
}

type row struct {
	ID        string
	Kind      string
	Owner     string
	Version   uint
	Name      string
	Code      *string
	ServedAt  string
	Class     string
	Tags      string
	Note      string
	Body      string
	CreatedAt time.Time
	UpdatedAt time.Time
	DeletedAt gorm.DeletedAt
}

func (row) TableName() string { return "records" }

// within are the same records in a transaction.
func (r Records[T]) within(tx *gorm.DB) Records[T] {
	in := *r.in
	in.db, in.patient = tx, nil
	r.db, r.in = tx, &in
	return r
}

func (r Records[T]) all(ctx context.Context) *gorm.DB {
	return r.db.WithContext(ctx).Model(&row{}).Where(is("kind", r.kind))
}

func (r Records[T]) one(ctx context.Context, id string) *gorm.DB {
	return r.all(ctx).Where(is("id", r.known(id)))
}

// numbered are the ids of records that had a number before they had UUIDs, by kind.
var numbered = map[string]string{"cook": "00000000-0000-4001-8000-", "formula": "00000000-0000-4002-8000-"}

// known is the id of what is called id: a number is from an address that was kept.
func (r Records[T]) known(id string) string {
	if n, err := strconv.ParseUint(id, 10, 32); err == nil && numbered[r.kind] != "" {
		return fmt.Sprintf("%s%012d", numbered[r.kind], n)
	}
	return strings.ToLower(id) // a UUID is the same in capitals
}

// read is the record of a row.
func (r Records[T]) read(m row) (Record[T], error) {
	out := Record[T]{ID: m.ID, Version: m.Version, Updated: m.UpdatedAt}
	err := r.parse(m.ID, m.Body, &out.Doc)
	return out, err
}

func (r Records[T]) parse(id, body string, d *T) error {
	if err := json.Unmarshal([]byte(body), d); err != nil {
		return fmt.Errorf("%s %s: %w", r.kind, id, err)
	}
	if r.open != nil {
		r.open(id, d)
	}
	return nil
}

// row is the row of a document, without what the database gives it.
func (r Records[T]) row(id string, version uint, d T) (row, error) {
	if r.shut != nil {
		r.shut(&d)
	}
	body, err := json.Marshal(d)
	by := r.index(d)
	// What a record is found by is what its columns hold of it; the record itself is whole.
	m := row{
		ID: id, Kind: r.kind, Version: version, Body: string(body), Name: clipped(strings.TrimSpace(by.Name), 200),
		ServedAt: clipped(by.ServedAt, 16),
		Class:    clipped(by.Class, 16), Note: clipped(by.Note, 10_000), Tags: clipped(strings.Join(by.Tags, ","), 400),
	}
	if by.Code != "" {
		m.Code = &by.Code
	}
	return m, err
}

// List returns the records that q asks for, and how many there are in all.
func (r Records[T]) List(ctx context.Context, q Query) ([]Record[T], int64, error) {
	db := r.all(ctx)
	if q.Gone {
		db = db.Unscoped()
	}
	if q.Search != "" {
		like := "%" + strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`).Replace(q.Search) + "%"
		db = db.Where("name LIKE ? OR note LIKE ? OR tags LIKE ?", like, like, like)
	}
	if q.Class != "" {
		db = db.Where(is("class", q.Class))
	}
	if q.Tag != "" {
		db = db.Where("FIND_IN_SET(?, tags) > 0", q.Tag)
	}
	if q.From != "" {
		db = db.Order(clause.OrderBy{Expression: clause.Expr{SQL: `CASE WHEN served_at >= ? THEN 0 WHEN served_at = '' THEN 1
			ELSE 2 END, CASE WHEN served_at >= ? THEN served_at END, ` + r.first, Vars: []any{q.From, q.From}}})
	} else {
		db = db.Order(r.first)
	}
	if q.Limit == 0 {
		out, err := r.find(db)
		return out, int64(len(out)), err
	}
	// Which they are is found without reading their bodies: all in the order of an index, or those
	// that a search finds in one look. Then those of the page are read.
	var ids []string
	var total int64
	if q.Search+q.Class+q.Tag == "" {
		if err := db.Session(&gorm.Session{}).Count(&total).Error; err != nil {
			return nil, 0, err
		}
		db = db.Offset(q.Offset).Limit(q.Limit)
	}
	if err := db.Pluck("id", &ids).Error; err != nil {
		return nil, 0, err
	}
	if total == 0 {
		total = int64(len(ids))
		ids = ids[min(q.Offset, len(ids)):min(q.Offset+q.Limit, len(ids))]
	}
	if len(ids) == 0 {
		return []Record[T]{}, total, nil
	}
	out, err := r.find(r.db.WithContext(ctx).Model(&row{}).Unscoped().Where(is("kind", r.kind), among("id", ids)))
	slices.SortFunc(out, func(a, b Record[T]) int { return cmp.Compare(slices.Index(ids, a.ID), slices.Index(ids, b.ID)) })
	return out, total, err
}

func (r Records[T]) find(db *gorm.DB) ([]Record[T], error) {
	var rows []row
	if err := db.Find(&rows).Error; err != nil {
		return nil, err
	}
	out := make([]Record[T], len(rows))
	for i, m := range rows {
		var err error
		if out[i], err = r.read(m); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// Get returns a record, or ErrNotFound.
func (r Records[T]) Get(ctx context.Context, id string) (Record[T], error) {
	var m row
	err := r.one(ctx, id).Take(&m).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return Record[T]{}, ErrNotFound
	}
	if err != nil {
		return Record[T]{}, err
	}
	return r.read(m)
}

// there is ErrNotFound when there is no record of that id.
func (r Records[T]) there(ctx context.Context, id string) error {
	err := r.one(ctx, id).Select("id").Take(&row{}).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return ErrNotFound
	}
	return err
}

// Sound reports what keeps a document from being saved under an id, empty for a new one; the error is
// a field.Errors.
func (r Records[T]) Sound(ctx context.Context, id string, d T) error {
	return r.sound(ctx, r.known(id), d, r.in.stocked)
}

// Create saves a new record. One with a mistake is refused with a field.Errors. What the same request made before
// (see Once) is returned with ErrMade.
func (r Records[T]) Create(ctx context.Context, d T) (Record[T], error) {
	if err := r.Sound(ctx, "", d); err != nil {
		return Record[T]{}, err
	}
	m, err := r.row(newID(ctx), 1, d)
	if err != nil {
		return Record[T]{}, err
	}
	if err := again(r.db, func() error { return r.db.WithContext(ctx).Create(&m).Error }); err != nil {
		return r.before(ctx, m.ID, err)
	}
	r.learnPacks(ctx, d)
	return r.read(m)
}

// learnPacks remembers the sizes of bottles that a document tells. Where that fails they are asked again another time.
func (r Records[T]) learnPacks(ctx context.Context, d T) {
	if r.packs == nil {
		return
	}
	for id, size := range r.packs(d) {
		_ = r.in.rememberPack(ctx, id, size)
	}
}

// Update replaces a record that still has the given version: one row, in one statement.
// It returns ErrNotFound or ErrStale when it cannot, and a field.Errors for one with a mistake.
func (r Records[T]) Update(ctx context.Context, id string, version uint, d T) (Record[T], error) {
	if err := r.Sound(ctx, id, d); err != nil {
		return Record[T]{}, err
	}
	m, err := r.row(r.known(id), version+1, d)
	if err != nil {
		return Record[T]{}, err
	}
	m.UpdatedAt = r.db.NowFunc()
	to := map[string]any{
		"version": m.Version, "body": m.Body, "name": m.Name, "code": m.Code, "served_at": m.ServedAt, "tags": m.Tags,
		"note": m.Note, "updated_at": m.UpdatedAt,
	}
	if m.Class != "" { // a cook that is practised stays one
		to["class"] = m.Class
	}
	err = r.swap(ctx, id, version, to)
	if err != nil {
		return Record[T]{}, err
	}
	r.learnPacks(ctx, d)
	return r.read(m)
}

// swap changes the row of a record that still has the given version.
func (r Records[T]) swap(ctx context.Context, id string, version uint, to map[string]any) error {
	var changed int64
	err := again(r.db, func() error {
		done := r.one(ctx, id).Where(is("version", version)).UpdateColumns(to)
		changed = done.RowsAffected
		return done.Error
	})
	if err != nil || changed == 1 {
		return err
	}
	if err := r.there(ctx, id); err != nil {
		return err
	}
	return ErrStale
}

// Change changes a record as it is now, whatever version that is: change is called again
// when somebody else was quicker. When it changes nothing, nothing is saved.
func (r Records[T]) Change(ctx context.Context, id string, change func(*T) error) (Record[T], error) {
	for {
		now, err := r.Get(ctx, id)
		if err != nil {
			return now, err
		}
		before, err := r.row(id, now.Version, now.Doc)
		if err != nil {
			return now, err
		}
		if err := change(&now.Doc); err != nil {
			return now, err
		}
		if after, err := r.row(id, now.Version, now.Doc); err != nil || before.Body == after.Body {
			return now, err
		}
		now, err = r.Update(ctx, id, now.Version, now.Doc)
		if !errors.Is(err, ErrStale) {
			return now, err
		}
		if err := ctx.Err(); err != nil {
			return now, err
		}
	}
}

// Delete takes a record that still has the given version off the lists. It can be
// restored.
func (r Records[T]) Delete(ctx context.Context, id string, version uint) error {
	return r.swap(ctx, id, version, map[string]any{"deleted_at": r.db.NowFunc()})
}

// Restore puts a deleted record back. Restoring one that is not deleted does nothing.
func (r Records[T]) Restore(ctx context.Context, id string) (Record[T], error) {
	err := again(r.db, func() error { return r.one(ctx, id).Unscoped().UpdateColumn("deleted_at", nil).Error })
	if err != nil {
		return Record[T]{}, err
	}
	return r.Get(ctx, id)
}
