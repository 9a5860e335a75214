package store

import (
	"cmp"
	"slices"

	"gorm.io/gorm"
)

// versions adds the versions of formulas. Those of one that is new are taken as they are. Those of one
// that is here are put among its own, by when they were saved: what is on record stays the last.
func (t *taker) versions(all []any) error {
	byRecord := map[string][]versionRow{}
	var ids, fresh []string
	of := make([]string, len(all))
	for i, m := range all {
		v := m.(versionRow)
		of[i] = v.Record
		if byRecord[v.Record] == nil {
			ids = append(ids, v.Record)
		}
		byRecord[v.Record] = append(byRecord[v.Record], v)
	}
	if err := t.known("formula", of); err != nil {
		return err
	}
	if err := t.tx.Table("fresh").Where(among("id", ids)).Pluck("id", &fresh).Error; err != nil {
		return err
	}
	var new []any
	for _, id := range ids {
		if !slices.Contains(fresh, id) {
			if err := t.merge(id, byRecord[id]); err != nil {
				return err
			}
			continue
		}
		for _, v := range byRecord[id] {
			new = append(new, v)
		}
	}
	if len(new) == 0 {
		return nil
	}
	return write[versionRow](t, new)
}

// same reports whether two versions are one: the same words, saved at the same moment.
func (v versionRow) same(w versionRow) bool {
	return v.Body == w.Body && v.SavedAt.UnixMilli() == w.SavedAt.UnixMilli()
}

// merge puts versions from elsewhere among those of a formula that is here.
func (t *taker) merge(id string, more []versionRow) error {
	var now row
	var own []versionRow
	if err := t.tx.Unscoped().Where(is("id", id)).Take(&now).Error; err != nil {
		return err
	}
	if err := t.tx.Where(is("record", id)).Order("version").Find(&own).Error; err != nil {
		return err
	}
	for i := range own { // as it would be written now
		if m, err := t.kinds["formula"].read(id, own[i].Version, own[i].Body); err == nil {
			own[i].Body = m.Body
		}
	}
	added := 0
	for _, v := range more {
		if slices.ContainsFunc(own, v.same) {
			t.taken.Here++
			continue
		}
		v.Version = 0
		own = append(own, v)
		added++
	}
	if added == 0 {
		return nil
	}
	last := now.Version + uint(added)
	slices.SortStableFunc(own, func(a, b versionRow) int {
		if d := cmp.Compare(one(a.Version == now.Version), one(b.Version == now.Version)); d != 0 {
			return d
		}
		return cmp.Or(a.SavedAt.Compare(b.SavedAt), cmp.Compare(a.Version, b.Version), cmp.Compare(a.Body, b.Body))
	})
	if uint(len(own)) > last {
		last = uint(len(own))
	}
	for i := range own {
		own[i].Version = last - uint(len(own)-1-i)
	}
	t.taken.Added += int64(added)
	return t.renumber(id, last, own)
}

func one(is bool) int {
	if is {
		return 1
	}
	return 0
}

// renumber writes all versions of a formula anew, the last of them as that on record.
func (t *taker) renumber(id string, last uint, all []versionRow) error {
	for _, do := range []func() *gorm.DB{
		func() *gorm.DB { return t.tx.Where(is("record", id)).Delete(&versionRow{}) },
		func() *gorm.DB { return t.tx.CreateInBatches(all, batch) },
		func() *gorm.DB {
			return t.tx.Model(&row{}).Unscoped().Where(is("id", id)).UpdateColumn("version", last)
		},
	} {
		if err := do().Error; err != nil {
			return err
		}
	}
	return nil
}
