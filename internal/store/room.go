package store

import (
	"errors"

	"gorm.io/gorm"
)

// Room tells how many bytes are free where the database keeps its files; false when that is not
// known, as of a database on another machine.
type Room func() (bytes uint64, known bool)

// How much is left free, bytes. A database that runs out of room in the middle of a change ends,
// and can then not even be read: so nothing is written any more before that. What is typed is
// small, and can be saved for long after photographs and readings are refused.
const (
	Reserve     = 200 << 20 // under which photographs and readings are refused
	LastReserve = 32 << 20  // under which nothing is written
)

// Errors of a disk on which there is no room left.
var (
	ErrReserve  = errors.New("the disk is nearly full: only what is typed is still saved")
	ErrDiskFull = errors.New("the disk is full")
)

// large are the tables that fill a disk.
var large = map[string]bool{"photos": true, "readings": true, "hand_ins": true}

// guard has every statement that writes through db ask first whether there is room for it.
func guard(db *gorm.DB, room Room) error {
	asks := func(tx *gorm.DB) {
		if tx.Error != nil {
			return
		}
		switch free, known := room(); {
		case !known:
		case free < LastReserve:
			_ = tx.AddError(ErrDiskFull)
		case free < Reserve && large[tx.Statement.Table]:
			_ = tx.AddError(ErrReserve)
		}
	}
	on := db.Callback()
	return errors.Join(
		on.Create().Before("*").Register("room", asks), on.Update().Before("*").Register("room", asks),
		on.Delete().Before("*").Register("room", asks), on.Raw().Before("*").Register("room", asks),
	)
}
