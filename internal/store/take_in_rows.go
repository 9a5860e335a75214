package store

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"maps"
	"slices"

	"gorm.io/gorm/clause"

	"verjuice/internal/core/field"
)

// misplaced refuses the line at i of so many that are pending.
func misplaced(i, of int, format string, args ...any) error {
	return &Misplaced{of - 1 - i, refused(format, args...)}
}

// atMost refuses more of something than a cook holds.
func (t *taker) atMost(most int, table, sum string, cooks []string) error {
	var over []string
	err := t.tx.Table(table).Where(among("cook", cooks)).Group("cook").Having(sum+" > ?", most).Pluck("cook", &over).Error
	if err == nil && len(over) > 0 {
		return refused("%s holds more than %d %s", over[0], most, table)
	}
	return err
}

// known refuses lines of a record that is neither in the book nor here; all are the ids that they name,
// empty for none.
func (t *taker) known(kind string, all []string) error {
	var here []string
	ids := slices.Compact(slices.Sorted(slices.Values(all)))
	if len(ids) == 1 && ids[0] == "" {
		return nil
	}
	known := t.tx.Model(&row{}).Unscoped().Where(is("kind", kind), among("id", ids))
	if err := known.Pluck("id", &here).Error; err != nil {
		return err
	}
	for i, id := range all {
		if id != "" && !slices.Contains(here, id) {
			return misplaced(i, len(all), "there is no %s %.80q", kind, id)
		}
	}
	return nil
}

// rows adds records, and remembers those that were not here.
func (t *taker) rows(all []any) error {
	ids := make([]string, len(all))
	for i, m := range all {
		ids[i] = m.(row).ID
	}
	var here []string
	if err := t.tx.Model(&row{}).Unscoped().Where(among("id", ids)).Pluck("id", &here).Error; err != nil {
		return err
	}
	if err := write[row](t, all); err != nil {
		return err
	}
	// One that was not written for another reason is here in other words: the price of the same thing.
	var now []string
	if err := t.tx.Model(&row{}).Unscoped().Where(among("id", ids)).Pluck("id", &now).Error; err != nil {
		return err
	}
	return t.remember(
		now,
		func(id string) bool { return !slices.Contains(here, id) },
		func(string) (string, int) { return "", 0 },
	)
}

// remember notes what is new, with the cook that it is of and how many lines it may still have.
func (t *taker) remember(ids []string, new func(string) bool, of func(string) (string, int)) error {
	var fresh []map[string]any
	for _, id := range ids {
		if new(id) {
			cook, n := of(id)
			fresh = append(fresh, map[string]any{"id": id, "cook": cook, "remain": n})
		}
	}
	if len(fresh) == 0 {
		return nil
	}
	return t.tx.Table("fresh").Clauses(clause.Insert{Modifier: "IGNORE"}).Create(fresh).Error
}

// clocks adds the clocks of cooks that are new: a cook that is here is not made one that is practised.
func (t *taker) clocks(all []any) error {
	var ids, fresh, practised []string
	for _, m := range all {
		ids = append(ids, m.(clockModel).Cook)
	}
	if err := t.tx.Table("fresh").Where(among("id", ids)).Pluck("id", &fresh).Error; err != nil {
		return err
	}
	n := len(all)
	all = slices.DeleteFunc(all, func(m any) bool { return !slices.Contains(fresh, m.(clockModel).Cook) })
	if t.taken.Here += int64(n - len(all)); len(all) == 0 {
		return nil
	}
	for _, m := range all {
		if c := m.(clockModel); !c.clock().Wall() {
			practised = append(practised, c.Cook)
		}
	}
	if err := t.db.practice(t.ctx(), practised...); err != nil {
		return err
	}
	return write[clockModel](t, all)
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
	ids, of := make([]string, len(all)), map[string]handInModel{}
	for i, m := range all {
		h := m.(handInModel)
		ids[i], of[h.ID] = h.ID, h
	}
	var here []string
	if err := t.tx.Model(&handInModel{}).Where(among("id", ids)).Pluck("id", &here).Error; err != nil {
		return err
	}
	if err := t.remember(ids, func(id string) bool { return !slices.Contains(here, id) },
		func(id string) (string, int) { return of[id].Cook, of[id].Count }); err != nil {
		return err
	}
	return write[handInModel](t, all)
}

// readings adds the readings of hand-ins that were not here.
func (t *taker) readings(all []any) error {
	many := map[string]int{}
	for _, m := range all {
		many[m.(readingModel).HandIn]++
	}
	ids := slices.Collect(maps.Keys(many))
	var fresh []struct {
		ID, Cook string
		Remain   int
	}
	if err := t.tx.Table("fresh").Where(among("id", ids)).Find(&fresh).Error; err != nil {
		return err
	}
	of := map[string]string{}
	for _, f := range fresh {
		of[f.ID] = f.Cook
		if many[f.ID] > f.Remain {
			return misplaced(len(all)-1, len(all), "there are more readings of the hand-in %s than it says", f.ID)
		}
		if err := t.tx.Table("fresh").Where(is("id", f.ID)).Update("remain", f.Remain-many[f.ID]).Error; err != nil {
			return err
		}
	}
	here := ids
	if len(fresh) < len(ids) {
		here = nil
		if err := t.tx.Model(&handInModel{}).Where(among("id", ids)).Pluck("id", &here).Error; err != nil {
			return err
		}
	}
	for i, m := range all {
		switch r := m.(readingModel); {
		case !slices.Contains(here, r.HandIn):
			return misplaced(i, len(all), "there is no hand-in %.80q", r.HandIn)
		case of[r.HandIn] != "" && of[r.HandIn] != r.Cook:
			return misplaced(i, len(all), "it is of another cook-out than its hand-in")
		}
	}
	n := len(all)
	all = slices.DeleteFunc(all, func(m any) bool { return of[m.(readingModel).HandIn] == "" })
	t.taken.Here += int64(n - len(all))
	if len(all) == 0 {
		return nil
	}
	rows := make([]readingModel, len(all))
	for i, m := range all {
		rows[i] = m.(readingModel)
	}
	t.taken.Added += int64(len(rows))
	return insertReadings(t.tx, rows)
}

// photo adds a photograph that is not here.
func (t *taker) photo(l CarriedPhoto) error {
	l.Piece, l.Note = field.Clean(l.Piece), field.Clean(l.Note)
	if err := t.flush(); err != nil {
		return err
	}
	if sum := sha256.Sum256(l.Data); hex.EncodeToString(sum[:]) != l.SHA256 {
		return fmt.Errorf("%w: the picture is not the one that was carried away", ErrCarried)
	}
	if err := t.known("cook", []string{l.Cook}); err != nil {
		return err
	}
	if err := checkPhoto(Photo{Cook: l.Cook, Piece: l.Piece, Note: l.Note, Width: l.Width, Height: l.Height,
		Data: l.Data}); err != nil {
		return refused("%v", err)
	}
	if err := canBe(l.Created, orNow(l.Deleted, l.Created)); err != nil {
		return err
	}
	var here int64
	if err := t.tx.Model(&Photo{}).Unscoped().Where("cook = ? AND piece = ? AND SHA2(data, 256) = ?", l.Cook, l.Piece,
		l.SHA256).Count(&here).Error; err != nil {
		return err
	}
	if here > 0 {
		t.taken.Here++
		return nil
	}
	t.taken.Added++
	return t.tx.Create(
		&Photo{
			Cook:      l.Cook,
			Piece:     l.Piece,
			Note:      l.Note,
			Width:     l.Width,
			Height:    l.Height,
			Data:      l.Data,
			CreatedAt: l.Created,
			DeletedAt: deletedAt(l.Deleted),
		},
	).Error
}
