package store

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"time"

	"gorm.io/gorm"

	"verjuice/internal/core/facts"
	"verjuice/internal/core/quantity"
)

// ErrFullOfReadings is a cook that holds no more readings.
var ErrFullOfReadings = errors.New("this cook holds no more readings")

type handInModel struct {
	ID        string `gorm:"primaryKey"`
	Cook      string
	Device    string
	Digest    string
	Count     int
	CreatedAt time.Time
}

func (handInModel) TableName() string { return "hand_ins" }

type readingModel struct {
	Seq     uint64 `gorm:"primaryKey"`
	Cook    string
	HandIn  string
	Probe   string
	AtMs    int64
	Celsius float64
}

func (readingModel) TableName() string { return "readings" }

// HandIn saves readings that were handed in together, all or none. The same hand-in sent twice is
// saved once; another one with its id is ErrOther; a cook that is not there is ErrNotFound, one
// with facts.MostReadings ErrFullOfReadings.
func (s *Store) HandIn(ctx context.Context, cook string, h facts.HandIn, read []facts.Reading) error {
	cook = s.Cooks().known(cook)
	if err := s.Cooks().there(ctx, cook); err != nil {
		return err
	}
	if err := facts.CheckReadings(h.ID, h.Device, read).Err(); err != nil {
		return err
	}
	raw, err := json.Marshal(struct {
		Cook, Device string
		Read         []facts.Reading
	}{cook, h.Device, read})
	if err != nil {
		return err
	}
	sum := sha256.Sum256(raw)
	digest := hex.EncodeToString(sum[:])
	rows := make([]readingModel, len(read))
	for i, r := range read {
		rows[i] = readingModel{Cook: cook, HandIn: h.ID, Probe: r.Probe, AtMs: r.At.UnixMilli(), Celsius: float64(r.C)}
	}
	err = transaction(ctx, s.db, func(tx *gorm.DB) error {
		if err := tx.Create(&handInModel{ID: h.ID, Cook: cook, Device: h.Device, Digest: digest,
			Count: len(read)}).Error; err != nil {
			return err
		}
		var held int64
		sum := tx.Model(&handInModel{}).Where(is("cook", cook)).Select("COALESCE(SUM(count), 0)")
		if err := sum.Scan(&held).Error; err != nil {
			return err
		}
		if held > facts.MostReadings {
			return ErrFullOfReadings
		}
		return insertReadings(tx, rows)
	})
	if !errors.Is(err, gorm.ErrDuplicatedKey) {
		return err
	}
	var there handInModel
	if err := s.db.WithContext(ctx).Where(is("id", h.ID)).Take(&there).Error; err != nil {
		return err
	}
	if there.Digest != digest {
		return ErrOther
	}
	return nil
}

// atOnce is how many readings are written in one statement.
const atOnce = 1000

// insertReadings writes readings in their order: there may be hundreds of thousands, so without the
// cost of a model for each. Their hand-in was written before, and asked for room.
func insertReadings(tx *gorm.DB, rows []readingModel) error {
	for part := range slices.Chunk(rows, atOnce) {
		args := make([]any, 0, 5*len(part))
		for _, r := range part {
			args = append(args, r.Cook, r.HandIn, r.Probe, r.AtMs, r.Celsius)
		}
		values := strings.Repeat(",(?,?,?,?,?)", len(part))[1:]
		if _, err := tx.Statement.ConnPool.ExecContext(tx.Statement.Context,
			"INSERT INTO readings (cook, hand_in, probe, at_ms, celsius) VALUES "+values, args...); err != nil {
			return err
		}
	}
	return nil
}

// Kept is a reading as it is on record.
type Kept struct {
	facts.Reading
	HandIn string
	Seq    uint64 // they were handed in in this order
}

// Readings are what was read at a cook after that many of all there are, in the order in which they
// came; at most so many, all for none.
func (s *Store) Readings(ctx context.Context, cook string, after uint64, most int) ([]Kept, error) {
	cook = s.Cooks().known(cook)
	q := s.db.WithContext(ctx).Where(is("cook", cook), over("seq", after)).Order("seq")
	if most > 0 {
		q = q.Limit(most)
	}
	var rows []readingModel
	if err := q.Find(&rows).Error; err != nil {
		return nil, err
	}
	out := make([]Kept, len(rows))
	for i, r := range rows {
		out[i] = Kept{
			facts.Reading{Probe: r.Probe, At: time.UnixMilli(r.AtMs).UTC(), C: quantity.Celsius(r.Celsius)},
			r.HandIn,
			r.Seq,
		}
	}
	return out, nil
}

// Told is how far what is on record of a cook has come: it changes when anything is added.
type Told struct {
	Facts, Readings, Version uint64
	Generation               uint64 // of the book as a whole
}

// Told asks how far what is on record of a cook has come. One that is not there is ErrNotFound.
func (s *Store) Told(ctx context.Context, cook string) (out Told, err error) {
	cook = s.Cooks().known(cook)
	row := s.db.WithContext(ctx).Raw(`SELECT
		(SELECT COALESCE(MAX(seq), 0) FROM facts WHERE cook = r.id) AS facts,
		(SELECT COALESCE(MAX(seq), 0) FROM readings WHERE cook = r.id) AS readings,
		r.version, (SELECT n FROM generations) AS generation FROM records r WHERE r.id = ? AND r.kind = 'cook' AND r.deleted_at IS NULL`, cook).Scan(&out)
	if row.Error == nil && row.RowsAffected == 0 {
		return out, ErrNotFound
	}
	return out, row.Error
}

// mostOnNow is how many cooks are on the fire at once.
const mostOnNow = 20

// OnNow are the cooks of which was said in the two days before now that a piece went on, and not
// that one was sliced; none that is practised.
func (s *Store) OnNow(ctx context.Context, now time.Time) (ids []string, err error) {
	err = s.db.WithContext(ctx).
		Raw(`SELECT f.cook FROM facts f JOIN records r ON r.id = f.cook AND r.deleted_at IS NULL AND r.class <> 'practice'
		WHERE f.kind = 'done' AND f.created_at > ? AND NOT EXISTS (SELECT 1 FROM clocks c WHERE c.cook = f.cook AND NOT (c.speed = 1 AND c.began_ms = c.cook_ms)) GROUP BY f.cook HAVING MAX(f.what = 'fire') = 1 AND MAX(f.what IN ('slice', 'over')) = 0 ORDER BY MAX(f.seq) DESC LIMIT ?`, now.Add(-48*time.Hour), mostOnNow).
		Scan(&ids).
		Error
	return ids, err
}
