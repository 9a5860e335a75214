package store

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"time"

	"github.com/go-sql-driver/mysql"
	"gorm.io/gorm"
)

// How long a lock outlives the program that holds it, and how often it is renewed.
const (
	leaseFor   = 15 * time.Second
	leaseRenew = 3 * time.Second
	leaseLook  = 50 * time.Millisecond
)

// Alone runs do while no other program with this database runs anything under the
// same name. The lock is a row with its holder and its end, which is renewed: when a
// program is killed, the next one goes on after at most leaseFor. The context of do
// ends when the lock is lost.
func (s *Store) Alone(ctx context.Context, name string, do func(context.Context) error) error {
	return alone(ctx, s.db, name, do)
}

func alone(ctx context.Context, db *gorm.DB, name string, do func(context.Context) error) error {
	db = db.WithContext(ctx)
	create := func() error {
		return db.Exec(`CREATE TABLE IF NOT EXISTS leases (name VARCHAR(64) NOT NULL PRIMARY KEY, holder CHAR(26) NOT NULL, until DATETIME(3) NOT NULL) ENGINE = InnoDB`).Error
	}
	if err := again(db, create); err != nil {
		return err
	}
	holder := rand.Text()
	for {
		held, err := lease(db, name, holder)
		if err != nil {
			return err
		}
		if held {
			break
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(leaseLook):
		}
	}
	ctx, lost := context.WithCancelCause(ctx)
	renewed := make(chan struct{})
	go func() {
		defer close(renewed)
		for {
			select {
			case <-ctx.Done():
				return
			case <-time.After(leaseRenew):
				if held, err := lease(db, name, holder); err != nil || !held {
					lost(fmt.Errorf("the lock %q was lost: %w", name, errors.Join(err)))
					return
				}
			}
		}
	}()
	err := do(ctx)
	lost(nil)
	<-renewed
	// Without the context, which may be over: the next program need not wait.
	free := again(db, func() error {
		return db.WithContext(context.WithoutCancel(ctx)).
			Exec(`DELETE FROM leases WHERE name = ? AND holder = ?`, name, holder).
			Error
	})
	return errors.Join(err, free)
}

// lease takes or renews a lock for a holder, if it is free or over. The clock is the
// database's.
func lease(db *gorm.DB, name, holder string) (held bool, err error) {
	taken := 0
	err = again(db, func() error {
		until := fmt.Sprintf("NOW(3) + INTERVAL %d SECOND", int(leaseFor.Seconds()))
		if err := db.Exec(`INSERT IGNORE INTO leases (name, holder, until) VALUES (?, ?, `+until+`)`, name, holder).Error; err != nil {
			return err
		}
		if err := db.Exec(`UPDATE leases SET holder = ?, until = `+until+` WHERE name = ? AND (holder = ? OR until < NOW(3))`, holder, name, holder).Error; err != nil {
			return err
		}
		return db.Raw(`SELECT COUNT(*) FROM leases WHERE name = ? AND holder = ?`, name, holder).Scan(&taken).Error
	})
	return taken == 1, err
}

// MariaDB's errors for a transaction that may be tried again.
const (
	errLockWait = 1205
	errDeadlock = 1213
	errChanged  = 1020 // a record has changed since it was read
)

// again runs do, which writes by db, until it does not end in a deadlock, at most ten times. A deadlock undoes
// all of a transaction: within one it is left to that to be tried again, since do by itself would write what
// counts without the rest.
func again(db *gorm.DB, do func() error) error {
	if within(db) {
		return do()
	}
	var err error
	for try := range 10 {
		var of *mysql.MySQLError
		if err = do(); !errors.As(err, &of) ||
			of.Number != errDeadlock && of.Number != errLockWait && of.Number != errChanged {
			return err
		}
		time.Sleep(time.Duration(1<<try) * time.Millisecond)
	}
	return err
}

// transaction runs do in a transaction, whole or not at all, and again after a
// deadlock, which undoes all of it: so within another transaction only the outer one is
// tried again. do must begin anew each time.
func transaction(ctx context.Context, db *gorm.DB, do func(*gorm.DB) error) error {
	return again(db, func() error { return db.WithContext(ctx).Transaction(do) })
}

// within reports whether db is that of a transaction.
func within(db *gorm.DB) bool {
	_, is := db.Statement.ConnPool.(gorm.TxCommitter)
	return is
}

// Together runs do with a store whose writes all count or none.
func (s *Store) Together(ctx context.Context, do func(*Store) error) error {
	return transaction(ctx, s.db, func(tx *gorm.DB) error { return do(&Store{db: tx, kitchens: s.kitchens, now: s.now}) })
}
