package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"
)

// MostDeviceName is how long the name of a device is, in characters.
const MostDeviceName = 60

// MostDevices is how many devices measure at a cook.
const MostDevices = 50

// What is wrong with a key.
var (
	ErrKey         = errors.New("nothing has this key")
	ErrOthersKey   = errors.New("this key is for another cook")
	ErrManyDevices = errors.New("this cook has as many devices as it can")
)

// Device is something that measures at a cook.
type Device struct {
	ID        string
	Name      string
	CreatedAt time.Time
}

type deviceModel struct {
	ID        string `gorm:"primaryKey"`
	Cook      string
	Name      string
	Digest    string
	CreatedAt time.Time
}

func (deviceModel) TableName() string { return "devices" }

func digestOf(key string) string {
	sum := sha256.Sum256([]byte(key))
	return hex.EncodeToString(sum[:])
}

// AddDevice gives a cook a device, and returns its key, which is not kept. A cook that is not there
// is ErrNotFound, one that has MostDevices ErrManyDevices.
func (s *Store) AddDevice(ctx context.Context, cook, name string) (Device, string, error) {
	cook = s.Cooks().known(cook)
	if err := s.Cooks().there(ctx, cook); err != nil {
		return Device{}, "", err
	}
	var there int64
	if err := s.db.WithContext(ctx).Model(&deviceModel{}).Where(is("cook", cook)).Count(&there).Error; err != nil {
		return Device{}, "", err
	}
	if there >= MostDevices {
		return Device{}, "", ErrManyDevices
	}
	key := rand.Text()
	m := deviceModel{uuid.NewString(), cook, name, digestOf(key), time.Now().UTC()}
	err := again(s.db, func() error { return s.db.WithContext(ctx).Save(&m).Error })
	return Device{m.ID, m.Name, m.CreatedAt}, key, err
}

// Devices are those of a cook, the first one first.
func (s *Store) Devices(ctx context.Context, cook string) ([]Device, error) {
	var all []deviceModel
	err := s.db.WithContext(ctx).Where("cook = ?", s.Cooks().known(cook)).Order("created_at, id").Find(&all).Error
	out := make([]Device, len(all))
	for i, m := range all {
		out[i] = Device{m.ID, m.Name, m.CreatedAt}
	}
	return out, err
}

// RemoveDevice makes the key of a device worth nothing. One that is not there is ErrNotFound.
func (s *Store) RemoveDevice(ctx context.Context, cook, id string) error {
	return again(s.db, func() error {
		done := s.db.WithContext(ctx).Where("id = ? AND cook = ?", id, s.Cooks().known(cook)).Delete(&deviceModel{})
		if done.Error == nil && done.RowsAffected == 0 {
			return ErrNotFound
		}
		return done.Error
	})
}

// DeviceOf is the device of a cook that has a key. A key that nothing has is ErrKey, one of another
// cook ErrOthersKey.
func (s *Store) DeviceOf(ctx context.Context, cook, key string) (Device, error) {
	var m deviceModel
	err := s.db.WithContext(ctx).Where(is("digest", digestOf(key))).Take(&m).Error
	switch {
	case errors.Is(err, gorm.ErrRecordNotFound):
		return Device{}, ErrKey
	case err == nil && m.Cook != s.Cooks().known(cook):
		return Device{}, ErrOthersKey
	}
	return Device{m.ID, m.Name, m.CreatedAt}, err
}
