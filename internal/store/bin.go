package store

import (
	"context"
	"strings"
	"time"
)

// Found is a record by what it is called.
type Found struct {
	ID, Kind, Name, ServedAt string
	Deleted                  time.Time // zero for one that is there
}

// binned are the kinds of record that a cook deletes and gets back.
var binned = []string{"cook", "formula", "ingredient", "jar", "meal", "pit", "method"}

// most of what is found or was deleted is told.
const mostFound = 200

// Bin are the records that were deleted since a time, the last first.
func (s *Store) Bin(ctx context.Context, since time.Time) ([]Found, error) {
	var rows []row
	err := s.db.WithContext(ctx).Unscoped().Select("id, kind, name, served_at, deleted_at").
		Where(among("kind", binned)).Where("deleted_at >= ?",
		since).Order("deleted_at DESC, id").Limit(mostFound).Find(&rows).Error
	return foundOf(rows), err
}

// Find are the records with these words in their name, note or tags, those that begin so first; of each kind most of
// them at most.
func (s *Store) Find(ctx context.Context, text string, most int) ([]Found, error) {
	esc := strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`).Replace
	db := s.db.WithContext(ctx).Select("id, kind, name, served_at").Where(among("kind", []string{"cook",
		"formula", "jar", "meal", "ingredient"}))
	for _, word := range strings.Fields(text) {
		like := "%" + esc(word) + "%"
		db = db.Where("name LIKE ? OR note LIKE ? OR tags LIKE ?", like, like, like)
	}
	var rows []row
	err := db.Order("served_at DESC, created_at DESC, id DESC").Limit(mostFound).Find(&rows).Error
	if err != nil {
		return nil, err
	}
	begins := func(r row) bool { return strings.HasPrefix(strings.ToLower(r.Name), strings.ToLower(text)) }
	var out []Found
	n := map[string]int{}
	for _, first := range []bool{true, false} {
		for _, r := range rows {
			if begins(r) == first && n[r.Kind] < most {
				n[r.Kind]++
				out = append(out, foundOf([]row{r})...)
			}
		}
	}
	return out, nil
}

func foundOf(rows []row) []Found {
	out := make([]Found, len(rows))
	for i, r := range rows {
		out[i] = Found{ID: r.ID, Kind: r.Kind, Name: r.Name, ServedAt: r.ServedAt, Deleted: r.DeletedAt.Time}
	}
	return out
}
