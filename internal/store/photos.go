package store

import (
	"cmp"
	"context"
	"errors"
	"time"

	"gorm.io/gorm"

	"verjuice/internal/core/field"
	"verjuice/internal/picture"
)

// Photo is a photograph of a cook. Lists leave Data out.
type Photo struct {
	ID        uint64
	Cook      string
	Piece     string // key of the piece; empty when it is of the whole cook
	Note      string
	Width     int
	Height    int
	Data      []byte // JPEG
	CreatedAt time.Time
	DeletedAt gorm.DeletedAt
}

// AddPhoto saves a photograph.
func (s *Store) AddPhoto(ctx context.Context, p Photo) (Photo, error) {
	p.Cook = s.Cooks().known(p.Cook)
	if err := s.Cooks().there(ctx, p.Cook); err != nil {
		return p, err
	}
	if err := checkPhoto(p); err != nil {
		return p, err
	}
	err := again(s.db, func() error { return s.db.WithContext(ctx).Create(&p).Error })
	return p, err
}

// Photos returns those of a cook, the oldest first, without their data.
func (s *Store) Photos(ctx context.Context, cook string) ([]Photo, error) {
	var out []Photo
	return out, s.db.WithContext(ctx).Omit("data").Where("cook = ?", s.Cooks().known(cook)).Order("id").Find(&out).Error
}

// Photo returns one with its data, or ErrNotFound.
func (s *Store) Photo(ctx context.Context, id uint64) (Photo, error) {
	var p Photo
	err := s.db.WithContext(ctx).Take(&p, id).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		err = ErrNotFound
	}
	return p, err
}

// DeletePhoto takes one away; RestorePhoto brings it back.
func (s *Store) DeletePhoto(ctx context.Context, id uint64) error {
	return again(s.db, func() error {
		done := s.db.WithContext(ctx).Delete(&Photo{}, id)
		if done.Error == nil && done.RowsAffected == 0 {
			return ErrNotFound
		}
		return done.Error
	})
}

// RestorePhoto brings a photograph back that was taken away.
func (s *Store) RestorePhoto(ctx context.Context, id uint64) error {
	var there int64
	if err := s.db.WithContext(ctx).Unscoped().Model(&Photo{}).Where(is("id", id)).Count(&there).Error; err != nil ||
		there == 0 {
		return cmp.Or(err, ErrNotFound)
	}
	return again(s.db, func() error {
		return s.db.WithContext(ctx).Unscoped().Model(&Photo{}).Where(is("id", id)).Update("deleted_at", nil).Error
	})
}

// Lengths of what is said of a photograph, in characters.
const mostPhotoKey, mostPhotoNote = 60, 400

// checkPhoto refuses what is no photograph as this program keeps them. The error is a field.Errors.
func checkPhoto(p Photo) error {
	var errs field.Errors
	errs.Text("/piece", p.Piece, mostPhotoKey)
	errs.Text("/note", p.Note, mostPhotoNote)
	if w, h, ok := picture.IsPlain(p.Data); !ok || w != p.Width || h != p.Height {
		errs.Add("/picture", "photo.unreadable")
	}
	return errs.Err()
}
